"""A flexible upper part on a rigid lower part, analysed in two stages, as ASCE 7 and UBC 1997 have it."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from plumb_core.errors import RuleRefused
from plumb_core.limits import reaches, within
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Array, Governed, Parameter, Rule


def two_stage(
    podium: Mapping[str, Any],
    w: Array,
    h: Array,
    R: float,
    rho: float,
    coefficient: Callable[[float, float], Governed],
    exponent: Callable[[float], float],
    clause: str,
    period_limit: Callable[[float], float] | None = None,
    top_share: Callable[[float], float] = lambda T: 0.0,
    more_conditions: Sequence[Mapping[str, Any]] = (),
) -> dict[str, Any]:
    """Conditions of the two-stage analysis, and the forces of both parts.

    Parameters
    ----------
    podium : as the brief has it, with `level`, the place of the lowest story of the upper part (0 is the lowest story)
    w, h : weights (kN) and heights (m) of the stories, bottom to top
    R, rho : of the lower part
    coefficient : V/W of a part by its period (s) and R
    exponent : of the vertical distribution, by the period
    period_limit : upper limit on the period (s) of a part by its height (m); None where the structure type is not known
    top_share : share of the base shear of a part that acts at its top, by the period
    more_conditions : of the edition

    Returns
    -------
    `conditions` (words and whether they are met, null where it is not known), `permitted`, `T_upper` (s, as used) and
    `T_upper_limit`, `factor` on the reactions of the upper part, base shears of both parts (kN) and forces by story
    (kN)
    """
    level = podium.get("level")
    if level is None or not 0 < level < len(w):
        raise RuleRefused(
            "podium",
            "the upper part starts at no story of the building, or leaves nothing below it",
            "Name in `from_story` the lowest story of the upper part.",
        )
    ratio, complete, upper = podium["stiffness_ratio"], podium["T_whole"], podium["T_upper"]
    conditions = [
        {
            "words": f"the lower part at least 10 times as stiff as the upper part ({clause} a)",
            "met": None if ratio is None else reaches(ratio, 10.0),
            "value": ratio,
            "limit": 10.0,
        },
        {
            "words": f"period of the whole at most 1.1 times that of the upper part on a fixed base ({clause} b)",
            "met": None if complete is None else within(complete, 1.1 * upper),
            "value": None if complete is None else complete / upper,
            "limit": 1.1,
        },
    ]
    conditions += [dict(c) for c in more_conditions]
    met = [c["met"] for c in conditions]
    rho_upper = podium["rho_upper"] if podium["rho_upper"] is not None else rho
    factor = max((podium["R_upper"] / rho_upper) / (R / rho), 1.0)
    # the upper part is a structure of its own: its period has its own limit
    limit = None if period_limit is None else period_limit(float(np.sum(h[level:])))
    T = upper if limit is None else min(upper, limit)
    above = _part(w[level:], h[level:], coefficient(T, podium["R_upper"]), exponent(T), top_share(T))
    # a rigid lower part is on the plateau; its period is required only to show otherwise
    lower_period = podium["T_lower"] or 1e-3
    below = _part(w[:level], h[:level], coefficient(lower_period, R), exponent(lower_period), 0.0)
    return {
        "conditions": conditions,
        "permitted": False if False in met else None if None in met else True,
        "T_upper": T,
        "T_upper_limit": limit,
        "factor": factor,
        "coefficient_upper": above["coefficient"],
        "V_upper": above["V"],
        "handed_down": factor * above["V"],
        "coefficient_lower": below["coefficient"],
        "V_lower": below["V"],
        "V_base": below["V"] + factor * above["V"],
        "F": [*below["F"], *above["F"]],
    }


def _part(w: Array, h: Array, coefficient: Governed, k: float, at_top: float) -> dict[str, Any]:
    """A part on a base of its own.

    Coefficient, base shear and forces by story, the top one with its additional share.
    """
    V = coefficient.value * float(np.sum(w))
    share = w * np.cumsum(h) ** k
    F = V * (1.0 - at_top) * share / np.sum(share)
    F[-1] += V * at_top
    return {"coefficient": coefficient.value, "V": V, "F": F.tolist()}


# the static forces of both parts instead of those of one structure


def alternatives(rules: Mapping[str, Rule]) -> dict[str, Rule]:
    """Rules for V, F and V_story of a direction that is analysed in two stages, and as the edition has them elsewhere.

    They replace those of the edition where a two-stage analysis was submitted (`two_stage_used`).
    """
    return {
        "V": _either(rules["V"], _base_shear),
        "F": _either(rules["F"], _forces),
        "V_story": _either(rules["V_story"], _story_shears),
    }


def _base_shear(two_stage: Mapping[str, Any], podium: Mapping[str, Any]) -> float:
    return float(two_stage["V_base"])


def _forces(two_stage: Mapping[str, Any], podium: Mapping[str, Any]) -> Array:
    return np.asarray(two_stage["F"], dtype=float)


def _story_shears(two_stage: Mapping[str, Any], podium: Mapping[str, Any]) -> Array:
    level, F = podium["level"], np.asarray(two_stage["F"], dtype=float)
    upper = np.cumsum(F[level:][::-1])[::-1]
    below = np.cumsum(F[:level][::-1])[::-1]
    return np.concatenate([below + two_stage["factor"] * upper[0], upper])


ADDED = ("two_stage_used", "two_stage", "podium")


def _either(single: Rule, of_parts: Callable[[Mapping[str, Any], Mapping[str, Any]], Any]) -> Rule:
    """The rule of one structure, or that of both parts where the two-stage analysis is used."""
    function = single.function
    computed = {p.name for p in single.parameters}

    def applied(**arguments: Any) -> Any:
        if arguments.get("two_stage_used") and "two_stage" in arguments and "podium" in arguments:
            return of_parts(arguments["two_stage"], arguments["podium"])
        return function(**{name: value for name, value in arguments.items() if name in computed})

    applied.__doc__ = function.__doc__
    more = tuple(Parameter(n, QUANTITIES[n].scope, True, None, False) for n in ADDED if n not in computed)
    return replace(single, function=applied, parameters=(*single.parameters, *more))
