"""Attempts on an account that failed, wherever they came from, counted by all processes together."""

from __future__ import annotations

import hashlib

from django.core.cache import cache
from rest_framework.exceptions import Throttled

MOST = 10
"""Failures after which an account takes no attempts for a while, whether it exists or not."""
WHILE = 300
"""s"""


def _key(email: str) -> str:
    return f"failed sign-ins {hashlib.sha256(email.encode()).hexdigest()}".replace(" ", "-")


def refuse_where_too_many(email: str) -> None:
    """Raise Throttled where too many attempts on an account have failed lately."""
    if cache.get(_key(email), 0) >= MOST:
        raise Throttled(wait=WHILE)


def note_failure(email: str) -> None:
    """Count a failure; what is counted is forgotten a while after the first."""
    if not cache.add(_key(email), 1, WHILE):
        try:
            cache.incr(_key(email))
        except ValueError:  # forgotten in between
            cache.add(_key(email), 1, WHILE)
