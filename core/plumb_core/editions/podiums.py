"""A flexible upper part on a rigid lower part, analysed in two stages, as ASCE 7 and UBC 1997 have it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

import numpy as np

from plumb_core.errors import RuleRefused
from plumb_core.limits import reaches, within
from plumb_core.rules import Array, Governed


def two_stage(
    podium: Mapping[str, Any],
    w: Array,
    h: Array,
    R: float,
    rho: float,
    coefficient: Callable[[float, float], Governed],
    exponent: Callable[[float], float],
    clause: str,
) -> dict[str, Any]:
    """Conditions of the two-stage analysis, and the forces of both parts.

    podium : as the brief has it, with `level`, the place of the lowest story of the upper part (0 is the lowest story).
    w, h : weights (kN) and heights (m) of the stories, bottom to top.  R, rho : of the lower part.
    coefficient : V/W of a part by its period (s) and R.  exponent : of the vertical distribution, by the period.

    Returns `conditions` (words and whether they are met, null where it isn't known), `permitted`, `factor` on what the
    upper part hands down, base shears of both parts (kN) and forces by story (kN).
    """
    level = podium.get("level")
    if level is None or not 0 < level < len(w):
        raise RuleRefused(
            "podium",
            "the upper part starts at no story of the building, or leaves nothing below it",
            "Name in `from_story` the lowest story of the upper part.",
        )
    ratio, whole, upper = podium["stiffness_ratio"], podium["T_whole"], podium["T_upper"]
    conditions = [
        {
            "words": f"the lower part at least 10 times as stiff as the upper part ({clause} a)",
            "met": None if ratio is None else reaches(ratio, 10.0),
            "value": ratio,
            "limit": 10.0,
        },
        {
            "words": f"period of the whole at most 1.1 times that of the upper part on a fixed base ({clause} b)",
            "met": None if whole is None else within(whole, 1.1 * upper),
            "value": None if whole is None else whole / upper,
            "limit": 1.1,
        },
    ]
    met = [c["met"] for c in conditions]
    rho_upper = podium["rho_upper"] if podium["rho_upper"] is not None else rho
    factor = max((podium["R_upper"] / rho_upper) / (R / rho), 1.0)
    above = _part(w[level:], h[level:], coefficient(upper, podium["R_upper"]), exponent(upper))
    # a rigid lower part is on the plateau; its period is asked for only to show otherwise
    lower_period = podium["T_lower"] or 1e-3
    below = _part(w[:level], h[:level], coefficient(lower_period, R), exponent(lower_period))
    return {
        "conditions": conditions,
        "permitted": False if False in met else None if None in met else True,
        "factor": factor,
        "coefficient_upper": above["coefficient"],
        "V_upper": above["V"],
        "handed_down": factor * above["V"],
        "coefficient_lower": below["coefficient"],
        "V_lower": below["V"],
        "V_base": below["V"] + factor * above["V"],
        "F": [*below["F"], *above["F"]],
    }


def _part(w: Array, h: Array, coefficient: Governed, k: float) -> dict[str, Any]:
    """A part on a base of its own: coefficient, base shear and forces by story."""
    V = coefficient.value * float(np.sum(w))
    share = w * np.cumsum(h) ** k
    return {"coefficient": coefficient.value, "V": V, "F": (V * share / np.sum(share)).tolist()}
