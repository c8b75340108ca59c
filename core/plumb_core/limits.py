"""Comparisons with a limit of a code, in one place: the rounding of binary fractions decides none of them.

A value counts as *at* a limit within one part in 10^9 of it.  ``exceeds(0.0126 / 0.0105, 1.2)`` is false, though the
quotient is 1.2000000000000002 as a binary fraction; what lies at the limit then falls where the code's own words put
it.
"""

from __future__ import annotations

ROUNDING = 1e-9
"""Share of the limit that binary fractions may be off by."""
PRINTED = 5e-5
"""A factor printed to four digits after the point is short by no more than half of the last one."""


def _margin(limit: float) -> float:
    return ROUNDING * abs(limit)


def exceeds(value: float, limit: float) -> bool:
    """`value` > `limit`, as a code means it."""
    return bool(value > limit + _margin(limit))


def reaches(value: float, limit: float) -> bool:
    """`value` >= `limit`, as a code means it."""
    return bool(value >= limit - _margin(limit))


def within(value: float, limit: float) -> bool:
    """`value` <= `limit`, as a code means it."""
    return not exceeds(value, limit)


def below(value: float, limit: float) -> bool:
    """`value` < `limit`, as a code means it."""
    return not reaches(value, limit)


def enough_factor(used: float, required: float) -> bool:
    """Whether a scale factor reaches the required one, as printed to four digits."""
    return reaches(used + PRINTED, required)
