"""Mail about what happened, by each person's choice: as it happens, or once a day.

The audit trail is gone through from where it was left for a person: nothing is sent twice, and what cannot be sent
now is sent with the next.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from datetime import date, timedelta

from django.conf import settings
from django.core.mail import EmailMessage, get_connection
from django.db import transaction

from plumb_server.accounts.models import User
from plumb_server.desk.models import NoticeChoice
from plumb_server.findings.models import Finding
from plumb_server.reviews.access import TEAM
from plumb_server.reviews.models import AuditEntry, Membership, Review, Role

KIND_OF: Mapping[str, str] = {
    "finding issued": "issued",
    "report issued": "issued",
    "message written": "answered",
    "response matrix imported": "answered",
    "submission opened": "submitted",
    "submission accepted": "submitted",
}
"""Kind of notice of an entry of the audit trail; of others nobody is sent mail."""
WORDS: Mapping[str, str] = {
    "finding issued": "{actor} issued finding {finding}",
    "report issued": "{actor} issued report {report}",
    "message written": "{actor} wrote in finding {finding}",
    "response matrix imported": "{actor} imported {answers} answers to findings",
    "submission opened": "{actor} began submission {submission}",
    "submission accepted": "{actor} accepted submission {submission}",
}
MOST_LINES = 100
"""Lines of a mail; the others are counted."""
MOST_ENTRIES = 2_000


def send_notices(today: date) -> int:
    """Send everybody what they chose and have not been sent yet; how many mails that are."""
    for user in User.objects.filter(is_active=True, notices=None, memberships__isnull=False).distinct():
        NoticeChoice.of(user)
    choices = NoticeChoice.objects.filter(user__is_active=True, user__memberships__isnull=False).distinct()
    return sum(_send(pk, today) for pk in choices.values_list("pk", flat=True))


def _send(pk: int, today: date) -> int:
    with transaction.atomic():
        # two workers at once: the second finds that it was done
        choice = NoticeChoice.objects.select_for_update(skip_locked=True).filter(pk=pk).first()
        if choice is None or (choice.daily and choice.digest_on == today):
            return 0
        lines, last = _happened(choice)
        if choice.due and choice.digest_on != today:
            for review, found in _due(choice.user, today).items():
                lines[review] += found
        choice.entry, choice.digest_on = last, today
        choice.save(update_fields=["entry", "digest_on"])
        if not any(lines.values()):
            return 0
        # a mail that cannot be sent leaves everything as it was
        get_connection().send_messages([_mail(choice.user, lines)])
    return 1


def _happened(choice: NoticeChoice) -> tuple[dict[Review, list[str]], int]:
    """What happened in somebody's reviews that they chose to be told, and the entry until which was looked."""
    roles = {m.review_id: m for m in Membership.objects.filter(user=choice.user).select_related("review")}
    entries = AuditEntry.objects.filter(pk__gt=choice.entry, review__in=roles, action__in=KIND_OF)
    lines: dict[Review, list[str]] = defaultdict(list)
    last = choice.entry
    for entry in entries.select_related("actor").order_by("pk")[:MOST_ENTRIES]:
        last = entry.pk
        if entry.actor_id == choice.user_id or not getattr(choice, KIND_OF[entry.action]):
            continue
        membership = roles[entry.review_id]
        if _visible(entry, membership):
            detail = defaultdict(str, {k: str(v) for k, v in entry.detail.items()}, actor=entry.actor.name)
            lines[membership.review].append(WORDS[entry.action].format_map(detail))
    return lines, last


def _visible(entry: AuditEntry, membership: Membership) -> bool:
    """Whether somebody sees in the application what an entry is about."""
    if membership.role in TEAM:
        return True
    if entry.action == "report issued":
        return membership.role == Role.READER
    if KIND_OF[entry.action] == "submitted":
        return membership.role == Role.SUBMITTER
    if entry.action == "response matrix imported":
        return membership.role == Role.SUBMITTER
    number = entry.detail.get("finding")
    return membership.review.findings.filter(number=number, status__in=Finding.VISIBLE_OUTSIDE).exists()


def _due(user: User, today: date) -> dict[Review, list[str]]:
    """Findings that wait for somebody and are due tomorrow or earlier."""
    lines: dict[Review, list[str]] = defaultdict(list)
    waiting = Finding.objects.filter(
        assignee=user, due__lte=today + timedelta(days=1), review__status=Review.Status.OPEN, review__team__user=user
    ).exclude(status__in=Finding.CLOSED)
    for finding in waiting.select_related("review").order_by("due", "number"):
        when = "is overdue since" if finding.due and finding.due < today else "is due on"
        lines[finding.review].append(f"finding {finding.number} {when} {finding.due:%d %B %Y}")
    return lines


def _mail(user: User, lines: Mapping[Review, list[str]]) -> EmailMessage:
    parts = []
    for review, said in lines.items():
        if said:
            shown = [f"- {line}" for line in said[:MOST_LINES]]
            more = [f"- and {len(said) - MOST_LINES} more"] if len(said) > MOST_LINES else []
            link = f"{settings.ADDRESS}/reviews/{review.pk}/findings"
            parts.append("\n".join([review.title, *shown, *more, link]))
    text = "\n\n".join([*parts, f"What you are sent you choose at {settings.ADDRESS}/account"])
    # titles of reviews do not stand in subjects, which others see
    return EmailMessage("Vigilant Plumb: news of your reviews", text, to=[user.email])
