"""What has to be in order before an account is closed; the apps that keep something of people say so."""

from __future__ import annotations

from collections.abc import Callable

from plumb_server.accounts.models import User

Step = Callable[[User, User], None]
"""Puts in order what an account leaves, for who closes it; raises Conflict where that cannot be."""
STEPS: list[Step] = []


def before_closing(user: User, actor: User) -> None:
    """Put everything in order that an account leaves; raises Conflict where that cannot be."""
    for step in STEPS:
        step(user, actor)
