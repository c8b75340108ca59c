"""Undoing a change of address: the account goes back to whoever reads the mail of the earlier one."""

from __future__ import annotations

from allauth.account.models import EmailAddress
from allauth.mfa.models import Authenticator
from django.db import transaction
from django.http import Http404
from django.utils import timezone

from plumb_server.accounts.models import AddressChange, User, digest_of
from plumb_server.accounts.sessions import end_sessions
from plumb_server.web.problems import Conflict


def found(key: str) -> AddressChange:
    """The change of a link; 404 where there is none, or it cannot be undone any more."""
    change = AddressChange.objects.select_related("user").filter(digest=digest_of(key)).first()
    if change is None or not change.open:
        raise Http404
    return change


@transaction.atomic
def undo(key: str) -> User:
    """Bring an earlier address back.

    What whoever changed it may have gathered ends: sessions, keys, the password, and second factors that came later.
    """
    change = AddressChange.objects.select_for_update().get(pk=found(key).pk)
    if not change.open:
        raise Http404
    user = User.objects.select_for_update().get(pk=change.user_id)
    if User.objects.filter(email=change.before).exclude(pk=user.pk).exists():
        raise Conflict(f"{change.before} belongs to another account by now", "Inform your office administrator.")
    EmailAddress.objects.filter(user=user).delete()
    user.email = change.before
    user.set_unusable_password()
    user.save()
    user.verify_address()
    Authenticator.objects.filter(user=user, created_at__gte=change.at).delete()
    end_sessions(user)
    # of several changes the earliest address is the one that comes back
    AddressChange.objects.filter(user=user, undone_at=None, at__gte=change.at).update(undone_at=timezone.now())
    return user
