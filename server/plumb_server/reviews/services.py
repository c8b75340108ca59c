"""What happens to reviews and their briefs.  Every change leaves an audit entry."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from plumb_core.briefs import with_governing
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read

from plumb_server.accounts.models import User
from plumb_server.reviews.meanwhile import meanwhile
from plumb_server.reviews.models import BriefRevision, Membership, Review, Role
from plumb_server.reviews.states import next_state, undone
from plumb_server.web.problems import Conflict, Outdated


@transaction.atomic
def create_review(user: User, *, brief: dict[str, Any], **fields: Any) -> Review:
    """A new review with its first brief; whoever creates it leads it."""
    checked = canonical_brief(brief)
    review = Review.objects.create(**fields)
    Membership.objects.create(review=review, user=user, role=Role.LEAD)
    BriefRevision.objects.create(review=review, number=1, document=checked, author=user)
    review.record(user, "review created", title=review.title)
    return review


@transaction.atomic
def change_review(review: Review, user: User, changes: dict[str, Any], based_on: int) -> Review:
    """Change what is said of a review, or close and open it; of a closed one nothing else changes.

    based_on : revision that the change was made on; refused with what changed meanwhile where it is another by now
    """
    held = Review.objects.select_for_update().get(pk=review.pk)
    if held.revision != based_on:
        raise Outdated(meanwhile(held, "the review", action="review changed", detail__revision__gt=based_on))
    changed = {name: value for name, value in changes.items() if getattr(held, name) != value}
    if held.status == Review.Status.CLOSED and set(changed) - {"status"}:
        raise Conflict("the review is closed", "The lead can open it again.")
    for name, value in changed.items():
        setattr(held, name, value)
    if changed:
        held.revision += 1
        held.save(update_fields=[*changed, "revision"])
        held.record(user, "review changed", fields=sorted(changed), **changed, revision=held.revision)
    return held


@transaction.atomic
def add_member(review: Review, user: User, member: User, role: str) -> Membership:
    """Take somebody into the team of a review."""
    review.locked()
    membership, created = Membership.objects.get_or_create(review=review, user=member, defaults={"role": role})
    if not created:
        raise Conflict(f"{member.name} is a member already", "Nothing needs to be done.", "/email")
    review.record(user, "member added", member=member.username, role=role)
    return membership


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
def undo_brief(review: Review, user: User, based_on: int) -> BriefRevision:
    """Back to the state before the last change that isn't undone yet; refused where somebody changed it meanwhile."""
    review.locked()
    saved, restored = undone(BriefRevision, review, user, based_on, "brief")
    review.record(user, "brief change undone", number=saved.number, restores=restored)
    return saved
