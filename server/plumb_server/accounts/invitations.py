"""Coming in: by a link that is sent to an address, to a review or to the office."""

from __future__ import annotations

import secrets
from datetime import timedelta
from typing import Any

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.mail import EmailMessage, get_connection
from django.db import connection, transaction
from django.http import Http404, HttpRequest
from django.template.loader import render_to_string
from django.utils import timezone
from rest_framework.exceptions import Throttled

from plumb_server.accounts.models import Invitation, Record, User, digest_of
from plumb_server.accounts.records import note
from plumb_server.web.problems import Conflict, UnprocessableContent

MOST_A_DAY = 60
"""Invitations that one person sends within a day."""
MOST_TO_AN_ADDRESS = 5
"""Invitations that one address is sent within a day, whoever sends them."""
A_DAY = timedelta(days=1)


def require_room(inviter: User, email: str) -> None:
    """Raise Throttled where somebody sends, or an address is sent, too many invitations within a day."""
    with connection.cursor() as cursor:
        # two at once count one after the other
        cursor.execute("SELECT pg_advisory_xact_lock(hashtext('invitations'))")
    # withdrawn ones count too: they were sent
    sent = Record.objects.filter(kind="invitation sent", at__gt=timezone.now() - A_DAY)
    if sent.filter(user=inviter).count() >= MOST_A_DAY:
        raise Throttled(3600, f"you sent {MOST_A_DAY} invitations within a day, the maximum; send the next tomorrow")
    if sent.filter(detail__to=email).count() >= MOST_TO_AN_ADDRESS:
        words = f"{email} was sent {MOST_TO_AN_ADDRESS} invitations within a day, the maximum; send the next tomorrow"
        raise Throttled(3600, words)


def invite(
    request: HttpRequest, email: str, inviter: User, to: str, *, kind: str = "", to_office: bool = False
) -> Invitation:
    """Send somebody a link; call it in a transaction.

    to : what they are invited to, as the text of the mail says it
    kind : the same as its subject says it, which more people see
    to_office : whether who accepts belongs to the office
    """
    email = email.strip().lower()
    require_room(inviter, email)
    note(request, "invitation sent", user=inviter, to=email)
    key = secrets.token_urlsafe(32)
    invitation = Invitation.objects.create(
        email=email,
        to_office=to_office,
        digest=digest_of(key),
        invited_by=inviter,
        expires_at=timezone.now() + Invitation.LASTS,
    )
    link = request.build_absolute_uri(f"/invitation/{key}")
    text = render_to_string(
        "accounts/invitation.txt", {"inviter": inviter, "to": to, "link": link, "until": invitation.expires_at}
    )
    subject = f"Vigilant Plumb: {inviter} invites you to {kind or to}".replace("\n", " ")[:200]
    # sent when what it states of is kept; a mail that cannot be sent undoes nothing, the invitation can be sent again
    message = EmailMessage(subject, text, to=[invitation.email])
    transaction.on_commit(lambda: get_connection(fail_silently=True).send_messages([message]))
    return invitation


def found(key: str) -> Invitation:
    """The invitation of a link; 404 where there is none, or none any more."""
    invitation = Invitation.objects.select_related("invited_by").filter(digest=digest_of(key)).first()
    if invitation is None or not invitation.open:
        raise Http404
    return invitation


def account_of(invitation: Invitation) -> User | None:
    """Who signs in with the address already."""
    return User.objects.filter(email=invitation.email).first()


@transaction.atomic
def accept(key: str, user: User | None, given: dict[str, Any]) -> User:
    """Take an invitation up: as who is signed in with its address, or with a new account."""
    invitation = Invitation.objects.select_for_update().get(pk=found(key).pk)
    if not invitation.open:
        raise Http404
    known = account_of(invitation)
    if known is None:
        known = _new(invitation, given)
    elif user is None or user.pk != known.pk:
        raise Conflict(
            f"{invitation.email} has an account here", "Sign in with it, then open the link of the invitation again."
        )
    for place in invitation.places.all():
        place.take(known)
    if invitation.to_office and not known.of_office:
        known.of_office = True
        known.save(update_fields=["of_office"])
    invitation.accepted_at = timezone.now()
    invitation.save(update_fields=["accepted_at"])
    return known


def _new(invitation: Invitation, given: dict[str, Any]) -> User:
    name, password = str(given.get("name", "")).strip(), given.get("password", "")
    problems = []
    if not name:
        problems.append({"path": "/name", "message": "the name is missing", "remedy": "Give your name."})
    try:
        validate_password(password, User(email=invitation.email, name=name))
    except ValidationError as refused:
        problems += [
            {"path": "/password", "message": message, "remedy": "Choose another password."}
            for message in refused.messages
        ]
    if problems:
        raise UnprocessableContent(problems)
    return User.objects.create_user(invitation.email, password, name=name, firm=str(given.get("firm", "")).strip())
