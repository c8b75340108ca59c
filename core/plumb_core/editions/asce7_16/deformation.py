"""Torsion, drift, P-Delta and separation of ASCE/SEI 7-16: 12.3.2.1, 12.8.4.3, 12.8.6, 12.8.7, 12.12."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.asce7_16 import irregularity
from plumb_core.errors import RuleRefused
from plumb_core.limits import below, exceeds, within
from plumb_core.rules import Array, Governed, Rule, bounded, cited, rule, without

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
def torsion_class(torsion_ratio: Array, diaphragm_class: str = "") -> list[str]:
    """Torsional irregularity of each story: more than 1.2 torsional, more than 1.4 extreme.

    For diaphragms that are not flexible.
    """
    if diaphragm_class == "flexible":
        return ["regular"] * len(torsion_ratio)
    return shared.torsion_classes(torsion_ratio, 1.2, 1.4)


def consequences(
    torsion_class: list[str], design_category: str, rows: Sequence[tuple[str, str, str]]
) -> list[list[str]]:
    """For each story the words of the rows (categories, degree they hold for.

    Words) that reach the category and the degree.
    """
    return [
        [
            words
            for categories, degree, words in rows
            if computed != "regular"
            and degree in ("", computed)
            and (not design_category or design_category in categories)
        ]
        for computed in torsion_class
    ]


BY_DESIGN = (
    ("CDEF", "", "accidental torsion in design, amplified by A_x at every level (12.8.4.2, 12.8.4.3)"),
    ("CDEF", "", "story drift is the largest along the edges (12.8.6, 12.12.1)"),
    ("DEF", "", "25 % more force in connections of diaphragms and collectors (12.3.3.4)"),
    ("BCDEF", "", "a three-dimensional model (12.7.3)"),
    ("DEF", "", "the static method is not permitted, but for the low buildings of Table 12.6-1"),
    ("EF", "extreme", "not permitted (12.3.3.1)"),
)
FROM_7_16 = (
    ("D", "extreme", "redundancy factor 1.3 (12.3.4.2)"),
    ("B", "extreme", "accidental torsion in design (12.8.4.2)"),
)


@rule(clause="12.3.3, 12.3.4.2, 12.7.3, 12.8.4, 12.12.1")
def torsion_consequences(torsion_class: list[str], design_category: str = "") -> list[list[str]]:
    """What follows from the irregularity; all of it where the design category is not known."""
    return consequences(torsion_class, design_category, (*BY_DESIGN, *FROM_7_16))


def A_x_case_by(light_frames_exempt: bool) -> Rule:
    """Rule for A_x of a case.  light_frames_exempt : whether light-frame construction is not amplified (7-05)."""

    @rule(clause="12.8.4.3, Eq. 12.8-14", tex=shared.A_X_TEX)
    def A_x_case(
        displacement_max: Array,
        displacement_avg: Array,
        torsion_irregular: bool = True,
        design_category: str = "",
        light_frame: bool = False,
    ) -> Array:
        """Torsional amplification factor of each level, from its *displacements*, in category C to F.

        Shape (n_stories,).

        At every level of a building that is torsionally irregular at any story; 1 elsewhere.
        """
        amplification = shared.amplification_of_torsion(displacement_max, displacement_avg)
        exempt = not torsion_irregular or design_category in ("A", "B") or (light_frames_exempt and light_frame)
        return np.ones_like(amplification) if exempt else amplification

    return A_x_case


def C_s_drift_by(clause: str, general: bool, near_fault: str) -> Rule:
    """Rule for the coefficient for drift.

    general : whether the general minimum 0.044 S_DS I_e holds for drift (7-05).  near_fault : equation of the
        minimum with S_1
    """

    @rule(
        clause=clause,
        tex=(
            r"\q{C_s_drift} = \min(\q{C_s_plateau_drift},\ \q{C_s_upper_drift}) \ge "
            r"0.5\,\q{S_1}\,\q{I_e}/\q{R}\text{ for }S_1 \ge 0.6"
        ),
    )
    def C_s_drift(
        C_s_plateau_drift: Governed,
        S_DS: float,
        S_1: float,
        R: float,
        I_e: float,
        design_category: str,
        C_s_upper_drift: Governed | None = None,
    ) -> Governed:
        """Coefficient for drift: with the period from analysis without its limit, and the minimum with S_1 only."""
        if design_category == "A":
            return Governed(0.01, "1.4")
        found = bounded(C_s_plateau_drift, upper=C_s_upper_drift)
        if general:
            found = bounded(found, lower=Governed(max(0.044 * S_DS * I_e, 0.01), "12.8-5"))
        return found if below(S_1, 0.6) else bounded(found, lower=Governed(0.5 * S_1 / (R / I_e), near_fault))

    return C_s_drift


FOR_DRIFT = {
    "T": "T_for_drift",
    "C_s_plateau": "C_s_plateau_drift",
    "C_s_upper": "C_s_upper_drift",
}
"""Quantities of the base shear for drift instead of those for strength."""


@rule(clause="12.8.6, 12.12.1")
def drift_at(torsion_irregular: bool | None = None, design_category: str = "") -> str:
    """Where the story drift is taken.

    Along the edges of torsionally irregular structures in category C to F, else at the centre of mass.
    """
    return "edges" if torsion_irregular and design_category not in ("A", "B") else "centre"


@rule(clause="12.8.6, Eq. 12.8-15", tex=r"\q{amplifier} = \frac{\q{C_d}}{\q{I_e}}")
def amplifier(C_d: float, I_e: float) -> float:
    """Design over elastic displacement."""
    return C_d / I_e


@rule(
    clause="12.12.1, Table 12.12-1, 12.12.1.1",
    tex=r"\q{drift_limit} = \text{Table 12.12-1}\ (\text{over }\q{rho}\text{ for moment frames in D to F})",
)
def drift_limit(
    risk_category: str,
    N: int,
    structure_type: str = "other",
    design_category: str = "",
    only_moment_frames: bool = False,
    rho: Governed | None = None,
) -> Governed:
    """Limit of the story drift over the story height.

    No limit for a single story in category I or II whose walls, partitions and ceilings are made for the drift (note
    c);
    for moment frames alone in category D to F the limit is divided by the redundancy factor (12.12.1.1).
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
        if N == 1 and risk_category in ("I", "II"):
            return Governed(math.inf, "Table 12.12-1, note c")
    limit = Governed(DRIFT_LIMIT[structure_type][risk_category], "Table 12.12-1")
    if only_moment_frames and design_category in ("D", "E", "F") and rho is not None:
        why = f"12.12.1.1, rho {rho.value:g} by {rho.governed_by}" if rho.governed_by != "submitted" else "12.12.1.1"
        return bounded(limit, upper=Governed(limit.value / rho.value, why))
    return limit


@rule(clause="12.8.7, Eq. 12.8-16", tex=r"\q{theta} = \frac{\q{P}\,\q{Delta}\,\q{I_e}}{\q{V_drift}\,h\,\q{C_d}}")
def theta(P: Array, Delta: Array, I_e: float, V_drift: Array, h: Array, C_d: float) -> Array:
    """Stability coefficient of each story, shape (n_stories,)."""
    return P * Delta * I_e / (V_drift * h * C_d)


@rule(clause="12.8.7, Eq. 12.8-17", tex=r"\q{theta_limit} = \frac{0.5}{\q{shear_ratio}\,\q{C_d}} \le 0.25")
def theta_limit(C_d: float, shear_ratio: float = 1.0) -> float:
    """Greatest stability coefficient; the ratio of shear demand to capacity may be taken as 1.0."""
    return min(0.5 / (shear_ratio * C_d), 0.25)


@rule(
    clause="12.8.7",
    tex=(
        r"\q{theta_checked} = \q{theta}\text{, or }\frac{\q{theta}}{1+\q{theta}}\text{ with }P\Delta\text{ in "
        r"the model}"
    ),
)
def theta_checked(theta: Array, p_delta_included: bool = False) -> Array:
    """Coefficient as it is checked against its limit.

    Theta/(1 + theta) is permitted where P-Delta is declared to be in the model.
    """
    return theta / (1.0 + theta) if p_delta_included else theta


@rule(
    clause="12.8.7",
    tex=r"\q{theta_amplification} = \frac{1}{1-\q{theta}}\text{ for }0.10 < \q{theta} \le \q{theta_limit}",
)
def theta_amplification(theta: Array, theta_limit: float, p_delta_included: bool = False) -> list[float | None]:
    """Amplification of displacements and forces: none up to 0.10 or with P-Delta in the model.

    Beyond its limit no factor will do.
    """
    if p_delta_included:
        return [1.0] * len(theta)
    return shared.second_order_amplified(theta, 0.10, max(theta_limit, 0.10), lambda t: 1.0 / (1.0 - t))


@rule(clause="12.8.7")
def second_order(theta: Array, theta_checked: Array, theta_limit: float, p_delta_included: bool = False) -> list[str]:
    """What 12.8.7 requires at each story."""
    words = []
    for t, checked in zip(theta.tolist(), theta_checked.tolist(), strict=True):
        if exceeds(checked, theta_limit):
            words.append("above its limit: potentially unstable, to be redesigned")
        elif within(t, 0.10):
            words.append("need not be considered")
        else:
            words.append("in the model" if p_delta_included else "amplified by 1/(1 - theta)")
    return words


@rule(clause="12.8.7, 12.12.1")
def drift_second_order(drift_ratio: Array, theta_amplification: list[float | None]) -> list[float | None]:
    """Design story drift over the story height with its second order amplification; null where no factor will do."""
    return [None if a is None else float(r * a) for r, a in zip(drift_ratio, theta_amplification, strict=True)]


@rule(
    clause="12.12.3, Eq. 12.12-1 and 12.12-2",
    tex=r"\q{separation} = \sqrt{\delta_{M1}^2 + \delta_{M2}^2},\ \delta_{M1} = \frac{\q{C_d}\,\q{delta_own}}{\q{I_e}}",
)
def separation(C_d: float, I_e: float, delta_own: float, delta_other: float | None = None) -> Governed:
    """Least separation, m: of adjacent structures the root of the sum of squares.

    Else the own displacement to the boundary.
    """
    computed = C_d * delta_own / I_e
    if delta_other is None:
        return Governed(computed, "12.12.3, property line")
    return Governed(math.hypot(computed, delta_other), "12.12-2")


@rule(clause="12.8.6.1, 12.8.6.2, 12.8.7")
def drift_notes(design_category: str = "") -> list[str]:
    """What holds for the forces behind the drifts."""
    return [
        "the minimum of Eq. 12.8-5 need not be considered for drift, that of Eq. 12.8-6 has to be (12.8.6.1)",
        "the period for drift is not limited by C_u T_a (12.8.6.2); the redundancy factor is 1.0",
        "gravity loads in P_x with no factor above 1.0 (12.8.7)",
    ]


RULES = (
    cited(shared.torsion_ratio, "Table 12.3-1"),
    torsion_class,
    cited(shared.torsion_irregular, "12.3.2.1, 12.8.4.3"),
    A_x_case_by(False),
    cited(shared.A_x, "12.8.4.3"),
    torsion_consequences,
    *irregularity.RULES,
    amplifier,
    cited(shared.Delta, "12.8.6, Eq. 12.8-15"),
    cited(shared.drift_ratio, "12.12.1"),
    drift_limit,
    theta,
    theta_limit,
    theta_checked,
    theta_amplification,
    second_order,
    drift_second_order,
    drift_at,
    shared.gravity_by(shared.DEAD_AND_LIVE, "12.8.7", "dead and live load, unfactored"),
    cited(shared.T_for_drift, "12.8.6.2"),
    C_s_drift_by("12.8.6.1, 12.8.6.2", False, "12.8-6"),
    cited(shared.V_base_drift, "12.8.6.1, 12.8.6.2"),
    cited(shared.factor_drift, "12.9.1.4.2"),
    cited(without(shared.theta_verdict, "theta_exempt"), "12.8.7"),
    cited(without(shared.drift_verdict, "drift_limits"), "12.12.1, 12.8.7"),
    drift_notes,
    separation,
)
