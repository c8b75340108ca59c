"""Constants, and the progress of what takes long."""

from __future__ import annotations

from collections.abc import Callable

GRAVITY = 9.80665
"""Standard acceleration of gravity, m/s2."""

Progress = Callable[[str, float], None]
"""Called with the phase of a computation and the share of it that is done."""


def quiet(phase: str, share: float) -> None:
    """Ignore the progress."""
