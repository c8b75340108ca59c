"""How much a review and a member may hand in: nobody fills the disk, or the queue, for all others."""

from __future__ import annotations

from datetime import timedelta

from django.conf import settings
from django.db.models import Sum
from django.utils import timezone
from rest_framework.exceptions import Throttled

from plumb_server.accounts.models import User
from plumb_server.submissions.models import Exhibit, ExhibitReading, Submission
from plumb_server.web.problems import TooMuch

A_DAY = timedelta(days=1)
WAIT = 30
"""s after which somebody whose files wait may hand in more"""


def require_room(submission: Submission, user: User, size: int) -> None:
    """Raise TooMuch where a file of this size (bytes) is more than the review or the member may still hand in."""
    held = Exhibit.objects.filter(submission__review=submission.review)
    if _bytes(held) + size > settings.MAX_REVIEW_BYTES:
        most = settings.MAX_REVIEW_BYTES / 1e9
        raise TooMuch(f"the exhibits of this review would take more than {most:g} GB", "Hand in the tables alone.")
    lately = Exhibit.objects.filter(author=user, created_at__gt=timezone.now() - A_DAY)
    if _bytes(lately) + size > settings.MAX_MEMBER_BYTES_A_DAY:
        most = settings.MAX_MEMBER_BYTES_A_DAY / 1e9
        raise TooMuch(f"you would have handed in more than {most:g} GB within a day", "Hand in the rest tomorrow.")
    if held.filter(submission=submission).count() >= settings.MAX_EXHIBITS:
        most = settings.MAX_EXHIBITS
        raise TooMuch(f"{submission.label} holds {most} exhibits, and takes no more", "Take some of them out first.")


def require_turn(user: User) -> None:
    """Raise Throttled where too many files of a member wait to be read."""
    waiting = ExhibitReading.objects.filter(
        exhibit__author=user, status__in=(ExhibitReading.Status.QUEUED, ExhibitReading.Status.READING)
    ).count()
    if waiting >= settings.MAX_WAITING_READINGS:
        raise Throttled(WAIT, f"{waiting} files of yours wait to be read; hand in more when some of them are")


def _bytes(exhibits) -> int:
    return exhibits.aggregate(total=Sum("size"))["total"] or 0
