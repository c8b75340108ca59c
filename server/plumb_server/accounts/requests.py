"""The signed-in person of a request."""

from __future__ import annotations

from rest_framework.exceptions import NotAuthenticated
from rest_framework.request import Request

from plumb_server.accounts.models import User


def user_of(request: Request) -> User:
    """Return the signed-in person.

    Raises
    ------
    NotAuthenticated
        where nobody is signed in
    """
    if not isinstance(request.user, User):
        raise NotAuthenticated
    return request.user
