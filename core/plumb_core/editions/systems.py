"""Tables of lateral systems: factors of a system and how high it may be, and the rules that read them."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from plumb_core.errors import RuleRefused
from plumb_core.limits import exceeds
from plumb_core.rules import Array, Rule, rule

FOOT = 0.3048
NOT_PERMITTED = 0.0


@dataclass(frozen=True, slots=True)
class LateralSystem:
    """One row of a table of systems.

    factors : by quantity (R, Omega_0, C_d, q_0, mu, S_p).  heights : greatest height, m, by category or zone;
    infinite where there is no limit, 0 where the system is not permitted.
    """

    title: str
    factors: Mapping[str, float]
    heights: Mapping[str, float]


def as_printed(metres: float) -> float:
    """A height that a limit in feet represents, m.

    As ASCE/SEI 7 prints it beside (to 0.1 m, so 160 ft are 48.8 m), never less.
    """
    return max(metres, round(metres, 1))


def _height(text: str) -> float:
    if text == "NL":
        return math.inf
    return NOT_PERMITTED if text == "NP" else float(text) * FOOT


def read_table(text: str, factors: Sequence[str], heights: Sequence[str] = ()) -> dict[str, LateralSystem]:
    """A table written as lines of: id, factors, heights (feet, NL no limit, NP not permitted), title."""
    systems = {}
    for line in text.strip().splitlines()[1:]:
        words = line.split(maxsplit=1 + len(factors) + len(heights))
        name, values = words[0], words[1 : 1 + len(factors)]
        limits = words[1 + len(factors) : 1 + len(factors) + len(heights)]
        systems[name] = LateralSystem(
            words[-1],
            {f: float(v) for f, v in zip(factors, values, strict=True)},
            {h: _height(v) for h, v in zip(heights, limits, strict=True)},
        )
    return systems


def known(systems: Mapping[str, LateralSystem], name: str) -> LateralSystem:
    """The system of an id; refused where the table has none."""
    if name not in systems:
        raise RuleRefused(
            "lateral_system",
            f"the table of lateral systems has no {name!r}",
            "Name a system of this edition; `plumb editions` lists them.",
        )
    return systems[name]


def exempt_share(stacked: Mapping[str, Any], w: Array | None) -> str | None:
    """Return why a system higher up that is declared as exempt is not; None where it is.

    It weighs no more than 10 % and, as a rooftop structure, has no more than two stories.
    """
    level = stacked.get("level")
    if w is None or level is None:
        return "the weights of the stories are not known"
    share = float(np.sum(w[level:]) / np.sum(w))
    if exceeds(share, 0.10):
        return f"it weighs {share:.0%} of the whole, 10 % is the limit"
    if stacked["exempt"] == "rooftop" and len(w) - level > 2:
        return f"it has {len(w) - level} stories, two is the limit"
    return None


def systems_of(
    systems: Mapping[str, LateralSystem],
    lateral_system: str,
    stacked: Sequence[Mapping[str, Any]] = (),
    beside: Sequence[Mapping[str, Any]] = (),
    w: Array | None = None,
) -> tuple[list[LateralSystem], list[LateralSystem]]:
    """Systems side by side at the bottom of a direction, and those higher up that affect the stories below them."""
    above = [s for s in stacked if not (s.get("exempt") and exempt_share(s, w) is None)]
    return (
        [known(systems, n) for n in (lateral_system, *(b["lateral_system"] for b in beside))],
        [known(systems, s["lateral_system"]) for s in above],
    )


def governing_factor(
    name: str,
    low: Sequence[LateralSystem],
    above: Sequence[LateralSystem],
    greatest_above: bool = False,
    greatest_beside: bool = True,
) -> float:
    """A factor of systems side by side, with others above them (see `stacked_factor`)."""
    side: Mapping[str, float] = (
        {f: (min if f == "R" else max)(s.factors[f] for s in low) for f in low[0].factors}
        if greatest_beside
        else min((s.factors for s in low), key=lambda row: row["R"])
    )
    rows: list[Mapping[str, float]] = [side, *(s.factors for s in above)]
    if greatest_above:
        return (min if name == "R" else max)(row[name] for row in rows)
    return min(rows, key=lambda row: row["R"])[name]


def stacked_factor(
    name: str, systems: Mapping[str, LateralSystem], clause: str, greatest: bool = False, defines: str = ""
) -> Rule:
    """Rule for a factor of the table, with other systems side by side and higher up.

    The factors of the system with the least R hold, side by side (7-10 on, 12.2.3.3) and over each other (12.2.3.1);
    with
    `greatest` the least R and the greatest of the others (7-05, 12.2.3.1 and 12.2.3.2).
    """

    def read(
        lateral_system: str,
        stacked_systems: Sequence[Mapping[str, Any]] = (),
        beside_systems: Sequence[Mapping[str, Any]] = (),
        w: Array | None = None,
    ) -> float:
        low, above = systems_of(systems, lateral_system, stacked_systems, beside_systems, w)
        return governing_factor(name, low, above, greatest, greatest)

    read.__doc__ = f"{name} of the lateral system, with those side by side and those over each other."
    return rule(clause=clause, tex=rf"\q{{{name}}} = \text{{table}}(\q{{lateral_system}})", defines=defines or name)(
        read
    )


def factor(name: str, systems: Mapping[str, LateralSystem], clause: str) -> Rule:
    """Rule for a factor of the table."""

    def read(lateral_system: str) -> float:
        return systems[lateral_system].factors[name]

    read.__doc__ = f"{name} of the lateral system."
    return rule(clause=clause, tex=rf"\q{{{name}}} = \text{{table}}(\q{{lateral_system}})", defines=name)(read)


def height_of(systems: Mapping[str, LateralSystem], names: Sequence[str], group: str) -> float:
    """Least of the height limits of the systems, m, in a category or zone (no limit where the table has none)."""
    return min((systems[n].heights.get(group, math.inf) for n in names if n in systems), default=math.inf)


def names_of(
    lateral_system: str,
    stacked: Sequence[Mapping[str, Any]] = (),
    beside: Sequence[Mapping[str, Any]] = (),
    w: Array | None = None,
) -> list[str]:
    """Ids of the systems whose height limits count.

    A structure on the roof or a light supported one that is exempt does not.
    """
    above = [s for s in stacked if not (s.get("exempt") and exempt_share(s, w) is None)]
    return [lateral_system, *(s["lateral_system"] for s in (*above, *beside))]


def permission(limit: float, h_n: float, group: str, metric: Callable[[float], float] = lambda limit: limit) -> str:
    """In words, whether a system is permitted up to h_n (m).

    metric : the height that the limit represents where the code prints it in metres beside
    """
    if limit == NOT_PERMITTED:
        return f"not permitted in {group}"
    if math.isinf(limit):
        return "permitted"
    if exceeds(h_n, metric(limit)):
        return f"too tall: permitted up to {limit:.1f} m in {group}"
    return f"permitted up to {limit:.1f} m"
