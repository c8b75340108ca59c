"""How much a review and a member may submit: nobody fills the disk, or the queue, for all others."""

from __future__ import annotations

from datetime import timedelta

from django.conf import settings
from django.db.models import QuerySet, Sum
from django.utils import timezone
from rest_framework.exceptions import Throttled

from plumb_server.accounts.models import User
from plumb_server.submissions.models import Exhibit, ExhibitReading, Submission
from plumb_server.web.problems import ContentTooLarge

A_DAY = timedelta(days=1)
WAIT = 30
"""s after which somebody whose files wait may submit more"""


def require_room(submission: Submission, user: User, size: int) -> None:
    """Raise ContentTooLarge if a file of this size (bytes) exceeds the limit of the review or the member."""
    stored = Exhibit.objects.filter(submission__review=submission.review)
    if _bytes(stored) + size > settings.MAX_REVIEW_BYTES:
        most = settings.MAX_REVIEW_BYTES / 1e9
        raise ContentTooLarge(f"the exhibits of this review would exceed {most:g} GB", "Upload only the tables.")
    lately = Exhibit.objects.filter(author=user, created_at__gt=timezone.now() - A_DAY)
    if _bytes(lately) + size > settings.MAX_MEMBER_BYTES_A_DAY:
        most = settings.MAX_MEMBER_BYTES_A_DAY / 1e9
        raise ContentTooLarge(f"your uploads would exceed {most:g} GB within a day", "Upload the rest tomorrow.")
    if stored.filter(submission=submission).count() >= settings.MAX_EXHIBITS:
        most = settings.MAX_EXHIBITS
        raise ContentTooLarge(f"{submission.label} has {most} exhibits, the maximum", "Remove some of them first.")


def require_turn(user: User) -> None:
    """Raise Throttled where too many files of a member wait to be read."""
    waiting = ExhibitReading.objects.filter(
        exhibit__author=user, status__in=(ExhibitReading.Status.QUEUED, ExhibitReading.Status.READING)
    ).count()
    if waiting >= settings.MAX_WAITING_READINGS:
        raise Throttled(WAIT, f"{waiting} of your files are waiting to be read; upload more when some have been read")


def _bytes(exhibits: QuerySet[Exhibit]) -> int:
    return int(exhibits.aggregate(total=Sum("size"))["total"] or 0)
