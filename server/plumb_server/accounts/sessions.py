"""Where somebody is signed in."""

from __future__ import annotations

from allauth.usersessions.models import UserSession

from plumb_server.accounts.models import User


def end_sessions(user: User) -> None:
    """End all sessions of a person, and their keys with them."""
    for session in UserSession.objects.filter(user=user):
        session.end()
    user.tokens.all().delete()
