"""What happens to reviews and their briefs.  Every change leaves an audit entry."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.db.models import Q, QuerySet
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from plumb_core.briefs import with_governing
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read

from plumb_server.accounts.invitations import invite
from plumb_server.accounts.models import Invitation, User
from plumb_server.reviews.conflicts import changes_since
from plumb_server.reviews.models import BriefRevision, Membership, Place, Review, Role
from plumb_server.reviews.states import next_state, undone
from plumb_server.web.problems import Conflict, PreconditionFailed


@transaction.atomic
def create_review(user: User, *, brief: dict[str, Any], **fields: Any) -> Review:
    """A new review with its first brief; anyone who creates it leads it."""
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
    stored = Review.objects.select_for_update().get(pk=review.pk)
    if stored.revision != based_on:
        raise PreconditionFailed(
            changes_since(stored, "the review", action="review changed", detail__revision__gt=based_on)
        )
    changed = {name: value for name, value in changes.items() if getattr(stored, name) != value}
    if stored.status == Review.Status.CLOSED and set(changed) - {"status"}:
        raise Conflict("the review is closed", "The lead can reopen it.")
    for name, value in changed.items():
        setattr(stored, name, value)
    if changed:
        stored.revision += 1
        stored.save(update_fields=[*changed, "revision"])
        stored.record(user, "review changed", fields=sorted(changed), **changed, revision=stored.revision)
    return stored


@transaction.atomic
def add_member(review: Review, user: User, email: str, role: str, request: HttpRequest) -> Membership | Place:
    """Take somebody into the team of a review: a colleague at once, anybody else by invitation.

    Colleagues are those whom the lead sees anyway: on another review of theirs, or of the office. Of others nobody is
    stated whether they have an account.
    """
    review.locked()
    email = email.strip().lower()
    member = colleagues_of(user).filter(email=email).first()
    if review.team.filter(user__email=email).exists():
        raise Conflict(f"the team has {email} already", "Nothing needs to be done.", "/email")
    if member is not None:
        review.record(user, "member added", member=member.email, role=role)
        return Membership.objects.create(review=review, user=member, role=role)
    # an earlier invitation to the same review is void
    Invitation.objects.filter(email=email, accepted_at=None, places__review=review).delete()
    invitation = invite(request, email, user, f"the review of {review.title}", kind="a review")
    review.record(user, "member invited", member=email, role=role)
    return Place.objects.create(review=review, role=role, invitation=invitation)


def colleagues_of(user: User) -> QuerySet[User]:
    """People whom somebody knows from a review or from the office.

    What somebody says of their firm proves nothing; that they belong to the office, its administrator said.
    """
    known = Q(memberships__review__team__user=user)
    if user.of_office:
        known |= Q(of_office=True)
    return User.objects.filter(known, is_active=True).distinct()


def _membership(review: Review, member: int) -> Membership:
    review.locked()
    return get_object_or_404(
        Membership.objects.select_for_update(of=("self",)).select_related("user"), review=review, user=member
    )


def _require_lead(review: Review, without: Membership) -> None:
    leads = review.team.filter(role=Role.LEAD, user__is_active=True).exclude(pk=without.pk)
    if without.role == Role.LEAD and not leads.exists():
        raise Conflict("the review would be without a lead", "Hand the lead over first.", "/role")


@transaction.atomic
def change_role(review: Review, user: User, member: int, role: str) -> Membership:
    """Give a member another role; a review always has a lead."""
    membership = _membership(review, member)
    if membership.role != role:
        _require_lead(review, membership)
        before, membership.role = membership.role, role
        membership.save(update_fields=["role"])
        review.record(user, "role changed", member=membership.user.email, before=before, role=role)
    return membership


@transaction.atomic
def hand_over(review: Review, user: User, member: int) -> Membership:
    """Another member leads from now on; who led stays as a reviewer."""
    membership = change_role(review, user, member, Role.LEAD)
    if membership.user_id != user.pk:
        change_role(review, user, user.pk, Role.REVIEWER)
    return membership


@transaction.atomic
def hand_over_all(user: User, actor: User) -> None:
    """Hand over every review that somebody alone leads, to the reviewer who is longest on its team.

    Raises Conflict where there is none: a review always has a lead who can act.
    """
    leads = Membership.objects.filter(user=user, role=Role.LEAD).select_related("review").order_by("review_id")
    for membership in leads:
        review = membership.review.locked()
        others = review.team.filter(user__is_active=True).exclude(user=user).select_related("user").order_by("pk")
        if others.filter(role=Role.LEAD).exists():
            continue
        heir = others.filter(role=Role.REVIEWER).first()
        if heir is None:
            raise Conflict(
                "the account leads a review whose team has nobody else who could",
                "Ask the lead to hand it over, or to take a reviewer into its team.",
                "/active",
            )
        heir.role = Role.LEAD
        heir.save(update_fields=["role"])
        review.record(actor, "lead handed over", member=heir.user.email, before=user.email)


@transaction.atomic
def remove_member(review: Review, user: User, member: int) -> None:
    """Take a member out of the team; what they wrote stays theirs."""
    membership = _membership(review, member)
    _require_lead(review, membership)
    review.record(user, "member removed", member=membership.user.email, role=membership.role)
    membership.delete()


@transaction.atomic
def withdraw_place(review: Review, user: User, place: int) -> None:
    """Make an invitation void."""
    review.locked()
    stored = get_object_or_404(Place.objects.select_related("invitation"), review=review, pk=place)
    review.record(user, "invitation withdrawn", member=stored.invitation.email, role=stored.role)
    stored.invitation.delete()


def canonical_brief(brief: Any) -> dict[str, Any]:
    """A brief as the core reads it; raises InputRefused naming every problem."""
    return read(Brief, brief).model_dump(mode="json", exclude_none=True)


def govern(review: Review, user: User, edition: str, based_on: int) -> BriefRevision:
    """Another edition governs; what was given under the previous one is kept as its part of the comparison."""
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
    """Back to the state before the last change that is not undone yet.

    Refused where somebody changed it in the meantime.
    """
    review.locked()
    saved, restored = undone(BriefRevision, review, user, based_on, "brief")
    review.record(user, "brief change undone", number=saved.number, restores=restored)
    return saved
