"""Tables of lateral systems: factors of a system and how high it may be, and the rules that read them."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from plumb_core.errors import RuleRefused
from plumb_core.rules import Rule, rule

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


def governing(systems: Mapping[str, LateralSystem], lateral_system: str, stacked: Sequence[Mapping[str, Any]]) -> str:
    """The system whose factors hold for the direction: the least R of those that stand over each other.

    Where the system above has the least R, its factors hold below too; where the one below has it, its own hold.
    """
    names: list[str] = [lateral_system, *(s["lateral_system"] for s in stacked)]
    unknown = [n for n in names if n not in systems]
    if unknown:
        raise RuleRefused(
            "lateral_system",
            f"the table of lateral systems has no {unknown[0]!r}",
            "Name a system of this edition; `plumb editions` lists them.",
        )
    return min(names, key=lambda name: float(systems[name].factors["R"]))


def stacked_factor(name: str, systems: Mapping[str, LateralSystem], clause: str) -> Rule:
    """Rule for a factor of the table, with other systems higher up."""

    def read(lateral_system: str, stacked_systems: Sequence[Mapping[str, Any]] = ()) -> float:
        return systems[governing(systems, lateral_system, stacked_systems)].factors[name]

    read.__doc__ = f"{name} of the lateral system; with systems over each other, of the one with the least R."
    return rule(clause=clause, tex=rf"\q{{{name}}} = \text{{table}}(\q{{lateral_system}})", defines=name)(read)


def factor(name: str, systems: Mapping[str, LateralSystem], clause: str) -> Rule:
    """Rule for a factor of the table."""

    def read(lateral_system: str) -> float:
        return systems[lateral_system].factors[name]

    read.__doc__ = f"{name} of the lateral system."
    return rule(clause=clause, tex=rf"\q{{{name}}} = \text{{table}}(\q{{lateral_system}})", defines=name)(read)


def height_of(systems: Mapping[str, LateralSystem], names: Sequence[str], group: str) -> float:
    """Least of the height limits of the systems, m, in a category or zone (no limit where the table has none)."""
    return min((systems[n].heights.get(group, math.inf) for n in names if n in systems), default=math.inf)


def permission(limit: float, h_n: float, group: str) -> str:
    """In words, whether a system is permitted up to h_n (m)."""
    if limit == NOT_PERMITTED:
        return f"not permitted in {group}"
    if math.isinf(limit):
        return "permitted"
    if h_n > limit * (1 + 1e-9):
        return f"too tall: permitted up to {limit:.1f} m in {group}"
    return f"permitted up to {limit:.1f} m"
