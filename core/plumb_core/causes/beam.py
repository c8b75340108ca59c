"""Sets of slips that interact: two or three at different places whose values between are not stated.

Alone none of them gives what is submitted.  Their effects on it are nearly factors: the sets whose factors multiply to
nearly the submitted values are found first, and the nearest of them are evaluated exactly, each slip under the others.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from plumb_core.causes.agreement import REACH
from plumb_core.causes.given import Given
from plumb_core.causes.slip import Attempt, Place, Slip, plain
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.rules import Evaluation, Key

WIDTH = 40
"""Sets of one size that are evaluated at a value."""
MOST_SLIPS = 3
NEAR = 0.05
"""How far the product of the effects may be from the submitted value: they are only nearly factors."""
UNMOVED = 1e-6
LEAST_VALUES = 3
"""Values of a quantity that three slips are sought for."""


@dataclass(frozen=True)
class Move:
    """A slip as a member of a set.

    Attributes
    ----------
    node : the quantity that it is applied at; that of the first input where one was otherwise throughout
    attempt : what it gives alone
    slip : the family that gives it again under the others
    given : the input that was otherwise, where it is one
    depth : how far above the value it is; what is given is above everything
    """

    node: Key
    attempt: Attempt
    slip: Slip | None
    given: Given | None
    depth: int

    @property
    def name(self) -> tuple[str, str]:
        """The same in both directions."""
        return "" if self.given else self.node.name, self.attempt.name


Making = Callable[[Evaluation, Key], Place | None]
"""A place under an evaluation."""


def under_all(carried: Evaluation, key: Key, making: Making, moves: Sequence[Move]) -> Any:
    """The value of a key with several slips, each applied under those above it; None where there is none."""
    for move in sorted(moves, key=lambda m: -m.depth):
        if move.given is not None:
            carried = move.given.under(carried)
            continue
        place = making(carried, move.node)
        again = move.slip.function(place) if place is not None and move.slip is not None else ()
        value = next((a.value for a in again if a.name == move.attempt.name), None)
        if value is None:
            return None
        carried = carried.assuming(inputs={move.node: value})
    try:
        # a slip at the key itself is an input of it by now
        return carried.inputs[key] if key in carried.inputs else plain(carried.unpinned(key).value)
    except (MissingInput, RuleRefused):
        return None


def sets_at(
    theirs: NDArray[np.float64],
    ours: NDArray[np.float64],
    effects: Sequence[tuple[Move, NDArray[np.float64]]],
    at: Callable[[Any], NDArray[np.float64]],
    under: Callable[[Sequence[Move]], Any],
) -> list[tuple[Move, ...]]:
    """The sets of slips that give submitted values, the smaller ones first.

    Parameters
    ----------
    theirs, ours : the submitted values of one quantity and ours, n
    effects : values under each slip alone, n
    at : the values of a quantity that are compared, n
    under : what the quantity is under a set
    """
    wanted = np.log(theirs / ours)
    factors = np.array([np.log(effect / ours) for _, effect in effects]).reshape(len(effects), len(ours))
    usable = np.all(np.isfinite(factors), axis=1) & np.any(np.abs(factors) > UNMOVED, axis=1)
    moves = [m for (m, _), use in zip(effects, usable, strict=True) if use]
    factors = factors[usable]
    if not np.all(np.isfinite(wanted)):
        return []
    # three of them would give any single number
    for size in range(2, MOST_SLIPS + 1 if len(ours) >= LEAST_VALUES else 3):
        found = []
        for members in _nearest(factors, wanted, size):
            chosen = tuple(moves[i] for i in members)
            value = under(chosen) if _together(chosen) else None
            if value is not None and np.all(np.abs(at(value) / theirs - 1.0) <= REACH):
                found.append(chosen)
        if found:
            return found
    return []


def _nearest(factors: NDArray[np.float64], wanted: NDArray[np.float64], size: int) -> Iterator[tuple[int, ...]]:
    """Sets of so many slips whose factors multiply nearly to the values that are wanted, the nearest first."""
    one, other = np.triu_indices(len(factors), 1)
    pairs = factors[one] + factors[other]
    found: list[tuple[float, tuple[int, ...]]] = []
    for first in range(len(factors)) if size == MOST_SLIPS else (None,):
        left = wanted if first is None else wanted - factors[first]
        off = np.max(np.abs(pairs - left), axis=1)
        if first is not None:
            # each set once, in its own order
            off = np.where(one > first, off, np.inf)
        for i in np.flatnonzero(off <= NEAR):
            beside = () if first is None else (first,)
            found.append((float(off[i]), (*beside, int(one[i]), int(other[i]))))
    found.sort()
    return (members for _, members in found[:WIDTH])


def _together(members: Sequence[Move]) -> bool:
    """Whether slips can be made together: at different places, and no input otherwise in two ways."""
    nodes = [m.node for m in members if m.given is None]
    inputs = [k for m in members if m.given is not None for k in m.given.inputs]
    return len(set(nodes)) == len(nodes) and len(set(inputs)) == len(inputs)


def as_attempt(members: Sequence[Move], moves: int) -> Attempt:
    """A set of slips as one attempt; each after the first takes as many bits to say as there were to choose from."""
    ordered = sorted(members, key=lambda m: (-m.depth, m.name))
    parts = tuple(replace(m.attempt, at=m.node) for m in ordered)
    return Attempt(
        " and ".join(" ".join(m.name).strip() for m in ordered),
        None,
        "; ".join(p.words for p in parts),
        parts[0].code,
        sum(p.cost for p in parts) + (len(parts) - 1) * math.log2(max(moves, 2)),
        parts=parts,
    )
