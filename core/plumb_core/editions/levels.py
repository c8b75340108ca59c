"""Action levels other than the design level: factors of their spectra, and their drifts compared with their limits.

The design drifts are those of the edition.  In EN 1998-1 its own check of the drift is that of damage limitation; a
declared
level of that kind gives the factor and the limit of that check, and no second one.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.errors import RuleRefused
from plumb_core.limits import within
from plumb_core.rules import Array, Rule, renamed, rule


@rule(clause="", tex=r"\q{T_level} = \q{T}")
def T_level(T: float) -> Array:
    """Period at which the spectra of action levels are compared, s: that of the direction."""
    return np.array([T])


@rule(clause="", tex=r"\q{level_factors}: S_{a,\text{level}}(T) / \q{S_a_level}")
def level_factors(
    levels: Sequence[Mapping[str, Any]], S_a_level: Array | None = None, T_level: Array | None = None
) -> dict[str, float | None]:
    """Factor of each action level on the design action, by its name; None where nothing gives it."""
    return {level["name"]: factor_of(level, S_a_level, T_level) for level in levels}


def _no_period(years: float) -> float:
    raise RuleRefused(
        "levels",
        f"the edition has no rule for an action of {years:g} years",
        "Give the factor of the action level, or its spectrum.",
    )


def factor_of(
    level: Mapping[str, Any],
    S_a: Array | None,
    T: Array | None,
    of_period: Callable[[float], float] = _no_period,
) -> float | None:
    """Factor of an action level.

    As declared, of its spectrum at the period `T` (s), or of its return period in years.
    """
    if level["factor"] is not None:
        return float(level["factor"])
    if level["spectrum"] is not None:
        if S_a is None or T is None:
            return None
        return float(shared.read_points(T, level["spectrum"], "levels")[0] / S_a[0])
    if level["return_period"] is not None:
        return of_period(level["return_period"])
    return 1.0 if level["kind"] == "design" else None


@rule(clause="", tex=r"\q{level_drifts}: \q{level_factors}\,\q{Delta}/h\text{ or the level's own cases}")
def level_drifts(
    levels: Sequence[Mapping[str, Any]],
    level_factors: Mapping[str, float | None],
    h: Array,
    Delta: Array | None = None,
    level_results: Mapping[str, Array] | None = None,
) -> list[dict[str, Any]]:
    """Story drifts over the story heights at each action level with a check of its own, their limit and verdicts.

    `verdicts` are None where the drift or its limit is not known; `needs` then names the missing input.
    """
    found = []
    for level in levels:
        factor, computed = level_factors[level["name"]], (level_results or {}).get(level["name"])
        drift = computed if computed is not None else None if factor is None or Delta is None else factor * Delta
        limit = level["drift_limit"]
        ratio = None if drift is None else (drift / h).tolist()
        needs = "its drift limit" if limit is None else "its factor or spectrum" if factor is None else "design drifts"
        found.append(
            {
                "name": level["name"],
                "kind": level["kind"],
                "factor": factor,
                "cases": list(level["cases"]) if computed is not None else [],
                "ratio": ratio,
                "limit": limit,
                "verdicts": None if ratio is None or limit is None else [within(r, limit) for r in ratio],
                "needs": "" if ratio is not None and limit is not None else needs,
            }
        )
    return found


AT_PERIOD = {"T_points": "T_level", "S_a": "S_a_level"}


def rules_of_levels(rules: Mapping[str, Rule]) -> dict[str, Rule]:
    """Rules of action levels beside those of an edition, which are given; what the edition has of its own stays."""
    made = {r.name: r for r in (T_level, level_factors, level_drifts) if r.name not in rules}
    return made | ({"S_a_level": renamed(rules["S_a"], AT_PERIOD)} if "S_a" in rules else {})
