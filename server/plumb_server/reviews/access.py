"""Who may see and do what.  A review that somebody is no member of does not exist for them (404, not 403)."""

from __future__ import annotations

from typing import Any

from django.http import Http404
from rest_framework.exceptions import PermissionDenied

from plumb_server.accounts.models import User
from plumb_server.reviews.models import Review, Role

TEAM = (Role.LEAD, Role.REVIEWER)
EVERYBODY = tuple(Role)


class Access:
    """A person's view of one review."""

    def __init__(self, review: Review, user: User, role: Role):
        self.review = review
        self.user = user
        self.role = role

    @property
    def on_team(self) -> bool:
        return self.role in TEAM


def access(user: Any, review_id: Any, roles: tuple[Role, ...] = TEAM) -> Access:
    """Access of `user` to a review; 404 for strangers and for members to whom the thing requested does not exist."""
    membership = user.memberships.select_related("review").filter(review_id=review_id).first()
    if membership is None or membership.role not in roles:
        raise Http404
    return Access(membership.review, user, Role(membership.role))


def lead_only(entry: Access, what: str) -> None:
    """Refuse to a reviewer what only a lead does; both see that it exists."""
    if entry.role != Role.LEAD:
        raise PermissionDenied(f"only the lead of the review can {what}")
