"""Torsion, irregularity in height, drift and P-Delta of ASCE/SEI 7-16: 12.3.2, 12.8.4.3, 12.8.6, 12.8.7, 12.12.1."""

from __future__ import annotations

import math

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.shared import Irregularity
from plumb_core.errors import RuleRefused
from plumb_core.rules import Array, Governed, bounded, cited, rule

STRUCTURE_TYPES = ("other", "low_rise_detailed", "masonry_cantilever", "masonry_other")

TABLE_12_12_1 = """
Table 12.12-1  Allowable story drift over the story height
type                I      II     III    IV
low_rise_detailed   0.025  0.025  0.020  0.015
masonry_cantilever  0.010  0.010  0.010  0.010
masonry_other       0.007  0.007  0.007  0.007
other               0.020  0.020  0.015  0.010
"""
_LINES = [line.split() for line in TABLE_12_12_1.strip().splitlines()[1:]]
DRIFT_LIMIT = {row[0]: dict(zip(_LINES[0][1:], map(float, row[1:]), strict=True)) for row in _LINES[1:]}


@rule(clause="12.3.2.1, Table 12.3-1 types 1a and 1b")
def torsion_class(torsion_ratio: float) -> str:
    """Torsional irregularity: more than 1.2 torsional, more than 1.4 extreme; for diaphragms that are not flexible."""
    return "extreme" if torsion_ratio > 1.4 else "torsional" if torsion_ratio > 1.2 else "regular"


@rule(clause="12.3.3, 12.3.4.2, 12.7.3, 12.8.4, 12.12.1")
def torsion_consequences(torsion_class: str, design_category: str = "") -> list[str]:
    """What follows from the irregularity; all of it where the design category isn't known."""
    if torsion_class == "regular":
        return []
    found = [("CDEF", "accidental torsion in design, amplified by A_x (12.8.4.2, 12.8.4.3)"),
             ("CDEF", "story drift is the largest along the edges (12.8.6, 12.12.1)"),
             ("DEF", "25 % more force in connections of diaphragms and collectors (12.3.3.4)"),
             ("BCDEF", "a three-dimensional model (12.7.3)"),
             ("DEF", "the static method is not permitted, but for the low buildings of Table 12.6-1")]  # fmt: skip
    if torsion_class == "extreme":
        found += [("EF", "not permitted (12.3.3.1)"), ("D", "redundancy factor 1.3 (12.3.4.2)"),
                  ("B", "accidental torsion in design (12.8.4.2)")]  # fmt: skip
    return [text for categories, text in found if not design_category or design_category in categories]


@rule(clause="12.3.2.2, Table 12.3-2")
def vertical_irregularities(
    story_stiffness: Array | None = None,
    story_strength: Array | None = None,
    w: Array | None = None,
    lateral_width: Array | None = None,
    drift_ratio: Array | None = None,
) -> list[Irregularity]:
    """Soft (1a, 1b), mass (2), geometric (3) and weak (5a, 5b) stories, from the story tables that are given.

    Types 1a, 1b and 2 fall away where no story drift ratio exceeds 1.3 times that above it (12.3.2.2, exception 1).
    """
    found = shared.less_than_above(story_strength, [("5b extreme weak story", 0.65, None), ("5a weak story", 0.80, None)],
                                   "Table 12.3-2")  # fmt: skip
    found += shared.more_than_adjacent(lateral_width, 1.3, "3 vertical geometric", "Table 12.3-2")
    if shared.steady_drift(drift_ratio, 1.3):
        return found
    found += shared.less_than_above(story_stiffness, [("1b extreme soft story", 0.6, 0.7), ("1a soft story", 0.7, 0.8)],
                                    "Table 12.3-2")  # fmt: skip
    return found + shared.more_than_adjacent(w, 1.5, "2 weight (mass)", "Table 12.3-2", roof_exempt=True)


@rule(clause="12.8.6, Eq. 12.8-15", tex=r"\q{amplifier} = \frac{\q{C_d}}{\q{I_e}}")
def amplifier(C_d: float, I_e: float) -> float:
    """Design over elastic displacement."""
    return C_d / I_e


@rule(clause="12.12.1, Table 12.12-1, 12.12.1.1", tex=r"\q{drift_limit} = \text{Table 12.12-1}")
def drift_limit(
    risk_category: str,
    N: int,
    structure_type: str = "other",
    design_category: str = "",
    period_type: str = "",
    rho: float = 1.0,
) -> Governed:
    """Limit of the story drift over the story height.

    No limit for a single story whose walls, partitions and ceilings are made for the drift; for moment frames alone in
    category D to F the limit is divided by the redundancy factor (12.12.1.1).
    """
    if structure_type not in DRIFT_LIMIT:
        raise RuleRefused(
            "structure_type",
            f"Table 12.12-1 has no structure of type {structure_type!r}",
            f"Use one of: {', '.join(STRUCTURE_TYPES)}.",
        )
    if structure_type == "low_rise_detailed":
        if N > 4:
            raise RuleRefused(
                "structure_type",
                "the first row of Table 12.12-1 is for at most four stories",
                "Take `other` for this structure.",
            )
        if N == 1:
            return Governed(math.inf, "Table 12.12-1, note c")
    limit = Governed(DRIFT_LIMIT[structure_type][risk_category], "Table 12.12-1")
    if design_category and design_category in "DEF" and period_type in ("steel_mrf", "rc_mrf"):
        return bounded(limit, upper=Governed(limit.value / rho, "12.12.1.1"))
    return limit


@rule(clause="12.8.7, Eq. 12.8-16", tex=r"\q{theta} = \frac{\q{P}\,\q{Delta}\,\q{I_e}}{\q{V_drift}\,h\,\q{C_d}}")
def theta(P: Array, Delta: Array, I_e: float, V_drift: Array, h: Array, C_d: float) -> Array:
    """Stability coefficient of each story, shape (n_stories,)."""
    return P * Delta * I_e / (V_drift * h * C_d)


@rule(clause="12.8.7, Eq. 12.8-17", tex=r"\q{theta_limit} = \frac{0.5}{\q{shear_ratio}\,\q{C_d}} \le 0.25")
def theta_limit(C_d: float, shear_ratio: float = 1.0) -> float:
    """Greatest stability coefficient; the ratio of shear demand to capacity may be taken as 1.0."""
    return min(0.5 / (shear_ratio * C_d), 0.25)


@rule(clause="12.8.7", tex=r"\q{theta_amplification} = \frac{1}{1-\q{theta}}\text{ for }\q{theta} > 0.10")
def theta_amplification(theta: Array) -> Array:
    """Amplification of displacements and forces, 1 where theta is at most 0.10."""
    return np.where((theta > 0.10) & (theta < 1.0), 1.0 / np.where(theta < 1.0, 1.0 - theta, 1.0), 1.0)


@rule(clause="12.8.6.1, 12.8.6.2, 12.8.7")
def drift_notes(design_category: str = "") -> list[str]:
    """What holds for the forces behind the drifts."""
    return [
        "the minimum of Eq. 12.8-5 need not be considered for drift, that of Eq. 12.8-6 has to be (12.8.6.1)",
        "the period for drift isn't limited by C_u T_a (12.8.6.2); the redundancy factor is 1.0",
        "gravity loads in P_x with no factor above 1.0 (12.8.7); theta may be divided by (1 + theta) where P-Delta is in the model",
    ]


RULES = (
    cited(shared.torsion_ratio, "Table 12.3-1"),
    torsion_class,
    cited(shared.A_x, "12.8.4.3, Eq. 12.8-14"),
    torsion_consequences,
    vertical_irregularities,
    amplifier,
    cited(shared.Delta, "12.8.6, Eq. 12.8-15"),
    cited(shared.drift_ratio, "12.12.1"),
    drift_limit,
    theta,
    theta_limit,
    theta_amplification,
    drift_notes,
)
