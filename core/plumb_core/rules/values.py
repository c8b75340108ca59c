"""Keys of quantities, and values with the record of what governed them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, NamedTuple

import numpy as np
import numpy.typing as npt


class Key(NamedTuple):
    """Whose value of what: a quantity of the building, of a direction, or of a load case.

    Attributes
    ----------
    name : name of the quantity in the vocabulary
    direction : "X" or "Y"; None for a quantity of the building, and for a case without a direction
    case : name of the load case; None for quantities of the building and of a direction
    """

    name: str
    direction: str | None = None
    case: str | None = None


Array = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Candidate:
    """One expression among several of which the code lets one govern."""

    label: str
    value: float
    role: Literal["base", "upper", "lower"]


@dataclass(frozen=True, slots=True)
class Governed:
    """A value with the record of which candidate governed it.

    `governed_by` is the label (equation number, or the words of a clause) of the governing candidate.
    """

    value: float
    governed_by: str
    candidates: tuple[Candidate, ...] = ()

    @property
    def margin(self) -> float | None:
        """Relative distance of the governing value to the nearest other candidate, or None if there is no other."""
        others = [c.value for c in self.candidates if c.label != self.governed_by]
        if not others or self.value == 0:
            return None
        return min(abs(other - self.value) for other in others) / abs(self.value)


def bounded(base: Governed, *, upper: Governed | None = None, lower: Governed | None = None) -> Governed:
    """`base`, not above `upper`, and then not below `lower`: a minimum wins over a maximum, as codes word it."""
    candidates = [Candidate(base.governed_by, base.value, "base")]
    best = base
    if upper is not None:
        candidates.append(Candidate(upper.governed_by, upper.value, "upper"))
        if upper.value < best.value:
            best = upper
    if lower is not None:
        candidates.append(Candidate(lower.governed_by, lower.value, "lower"))
        if lower.value > best.value:
            best = lower
    return Governed(best.value, best.governed_by, tuple(candidates))
