"""What happens to reviews and their briefs.  Every change leaves an audit entry."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from plumb_core.briefs import with_governing
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read

from plumb_server.accounts.models import User
from plumb_server.reviews.models import BriefRevision, Membership, Review, Role
from plumb_server.reviews.states import next_state, undone


@transaction.atomic
def create_review(user: User, *, brief: dict[str, Any], **fields: Any) -> Review:
    """A new review with its first brief; whoever creates it leads it."""
    checked = canonical_brief(brief)
    review = Review.objects.create(**fields)
    Membership.objects.create(review=review, user=user, role=Role.LEAD)
    BriefRevision.objects.create(review=review, number=1, document=checked, author=user)
    review.record(user, "review created", title=review.title)
    return review


def canonical_brief(brief: Any) -> dict[str, Any]:
    """A brief as the core reads it; raises InputRefused naming every problem."""
    return read(Brief, brief).model_dump(mode="json", exclude_none=True)


def govern(review: Review, user: User, edition: str, based_on: int) -> BriefRevision:
    """Another edition governs; what was given under the one before is kept as its part of the comparison."""
    return save_brief(review, user, with_governing(review.read_brief(), edition).model_dump(mode="json"), based_on)


@transaction.atomic
def save_brief(review: Review, user: User, brief: Any, based_on: int) -> BriefRevision:
    """A new state of the brief; refused where somebody else changed it meanwhile."""
    checked = canonical_brief(brief)
    review.locked()
    saved = next_state(BriefRevision, review, user, checked, based_on, "brief")
    if saved is None:
        return review.current_brief()
    review.record(user, "brief changed", number=saved.number)
    return saved


@transaction.atomic
def undo_brief(review: Review, user: User) -> BriefRevision:
    """Back to the state before the last change that isn't undone yet."""
    review.locked()
    saved, restored = undone(BriefRevision, review, user, "brief")
    review.record(user, "brief change undone", number=saved.number, restores=restored)
    return saved
