"""How much an agreement says: bits by which it is unlikely to be chance."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any, NamedTuple

import numpy as np

USUAL = 0.5
"""Relative deviation of a value that is wrong for any reason: the scale that agreement is measured on."""
MOST = 16.0
"""Bits of one value: more digits than its inputs have show nothing."""
REACH = 0.002
"""Relative difference up to which a value counts as reproduced, beside half a unit of its last digit."""
TEXT = 4.0
"""Bits of a text that is reproduced."""
BROKEN = 8.0
"""Bits against a slip for each value that agrees without it and not with it."""


class Stated(NamedTuple):
    """A submitted value at a place.

    Attributes
    ----------
    theirs : in the core's unit
    half : half a unit of its last digit
    ours : what the rules give without a slip
    deviates : whether it differs from that
    """

    theirs: float | str
    half: float
    ours: float | str | None
    deviates: bool


class Agreement(NamedTuple):
    """What a slip reproduces.

    Attributes
    ----------
    reproduced : positions among the stated values that deviate and are reproduced
    bits : that this says
    closeness : greatest relative difference of them
    """

    reproduced: tuple[int, ...]
    bits: float
    closeness: float


NOTHING = Agreement((), 0.0, 0.0)


def _difference(theirs: float, under: float) -> float:
    return abs(theirs - under) / max(abs(under), 1e-12)


def reproduces(stated: Stated, under: float | str | None) -> bool:
    """Whether a value under a slip is the submitted one."""
    if under is None:
        return False
    if isinstance(stated.theirs, str) or isinstance(under, str):
        return str(stated.theirs).casefold() == str(under).casefold()
    return abs(stated.theirs - under) <= max(stated.half * 1.01, REACH * abs(under)) + 1e-12


def bits_of(stated: Stated, under: float | str) -> float:
    """Bits of one value that is reproduced."""
    if isinstance(stated.theirs, str) or isinstance(under, str):
        return TEXT
    size = max(abs(stated.theirs), abs(stated.ours) if isinstance(stated.ours, float) else 0.0, 1e-12)
    off = max(abs(stated.theirs - under), stated.half) / size
    return min(MOST, max(0.0, math.log2(USUAL / max(off, 1e-9))))


def agreement(stated: Sequence[Stated], under: Sequence[float | str | None]) -> Agreement:
    """What values under a slip say of the submitted ones, place by place."""
    reproduced = [i for i, (s, u) in enumerate(zip(stated, under, strict=True)) if s.deviates and reproduces(s, u)]
    if not reproduced:
        return NOTHING
    pairs = [(stated[i], under[i]) for i in reproduced]
    single = [bits_of(s, u) for s, u in pairs if u is not None]
    closeness = max(
        (_difference(s.theirs, u) for s, u in pairs if isinstance(u, float) and isinstance(s.theirs, float)),
        default=0.0,
    )
    broken = sum(
        not s.deviates and s.ours is not None and not reproduces(s, u) for s, u in zip(stated, under, strict=True)
    )
    return Agreement(tuple(reproduced), _independent(pairs, single) - BROKEN * broken, closeness)


def _independent(pairs: Sequence[tuple[Stated, float | str | None]], single: Sequence[float]) -> float:
    """Bits of several values; those that all deviate by one ratio are one observation."""
    ratios = [
        s.theirs / s.ours
        for s, _ in pairs
        if isinstance(s.theirs, float) and isinstance(s.ours, float) and s.ours and s.theirs
    ]
    if len(ratios) < len(pairs) or len(pairs) == 1:
        return float(sum(single))
    halves = [s.half / max(abs(s.theirs), 1e-12) for s, _ in pairs if isinstance(s.theirs, float)]
    spread = float(np.ptp(ratios)) / abs(float(np.mean(ratios)))
    if spread <= 2.0 * max(halves) + 2e-4:
        # further rows of one ratio tell it more closely, and that they all have it
        return max(single) + 0.5 * math.log2(len(pairs))
    return float(sum(single))


def value_at(value: Any, index: int | None) -> float | str | None:
    """A value of a story or point, or of the building; None where there is none."""
    if isinstance(value, np.ndarray):
        if index is None or index >= len(value) or not np.isfinite(value[index]):
            return None
        return float(value[index])
    if isinstance(value, str):
        return value
    return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else None
