"""Comparison of one submitted value with ours."""

from __future__ import annotations

from typing import NamedTuple


class Comparison(NamedTuple):
    """Theirs against ours.

    Attributes
    ----------
    theirs, ours : numbers in the core's unit, or texts
    tolerance : absolute
    deviation : (theirs - ours) / |ours|; None where ours is zero or the values are texts
    multiples : the difference in multiples of the tolerance (texts: 0 or +/-10)
    """

    theirs: float | str
    ours: float | str
    tolerance: float
    deviation: float | None
    multiples: float

    @property
    def agrees(self) -> bool:
        """Whether both values agree within the tolerance."""
        return -1.0 <= self.multiples <= 1.0


FARTHEST = 1e9
"""What is further off than this many times is all the same, and an infinity would be no JSON."""
TEXT_MULTIPLES = 10.0
"""Multiples of the tolerance that two different texts are taken to be apart."""


def _bounded(value: float) -> float:
    # also for infinities; nothing submitted makes it no number, for theirs and ours are finite
    return FARTHEST if value > FARTHEST else -FARTHEST if value < -FARTHEST else value


def compare(theirs: float | str, ours: float | str, relative: float, floor: float) -> Comparison:
    """Compare with a tolerance of `relative` x |ours|, not below `floor` (half a unit of the last digit given)."""
    if isinstance(theirs, str) or isinstance(ours, str):
        same = str(theirs).strip().casefold() == str(ours).strip().casefold()
        apart = 0.0 if same else TEXT_MULTIPLES if str(theirs) > str(ours) else -TEXT_MULTIPLES
        return Comparison(str(theirs), str(ours), 0.0, None, apart)
    size = abs(ours)
    # a rounded value may lie half a unit off plus the noise of binary fractions
    tolerance = max(relative * size, floor * (1 + 1e-9), 1e-12)
    difference = theirs - ours
    return Comparison(
        theirs, ours, tolerance, _bounded(difference / size) if size else None, _bounded(difference / tolerance)
    )
