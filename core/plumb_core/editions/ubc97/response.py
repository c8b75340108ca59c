"""Modal analysis, scaling, torsion, irregularity, drift and P-Delta of UBC 1997.

1629.5, 1630.1.3, 1630.7 to 1630.10, 1631.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.editions import plans, shared
from plumb_core.editions.shared import Irregularity
from plumb_core.editions.systems import FOOT
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.limits import below, exceeds, within
from plumb_core.rules import Array, Governed, bounded, cited, rule, without


@rule(clause="1631.5.3")
def modal_combination(T_modes: Array) -> str:
    """CQC where periods lie within 10 %, else SRSS will do.

    The code asks that modes acting on each other be considered.
    """
    return "CQC" if shared.closely_spaced(T_modes, 0.9) else "SRSS or CQC"


@rule(clause="1631.5")
def modal_rules() -> list[str]:
    """What the code asks of the modal analysis."""
    return [
        "all significant modes, at least 90 % of the participating mass in each principal direction (1631.5.2)",
        "a recognized combination; in three-dimensional models the interaction of modes is considered (1631.5.3)",
        "scaled to 90 % of the static base shear for regular buildings, 80 % with a site-specific spectrum, 100 % for "
        "irregular ones, and not below the elastic base shear over R (1631.5.4)",
    ]


@rule(clause="1631.5.4", tex=r"\q{scaling_share} = 0.90,\ 0.80\text{ with a site spectrum},\ 1.0\text{ if irregular}")
def scaling_share(regular_known: str, site_spectrum: bool = False) -> float:
    """Share of the static base shear that the modal one must reach."""
    if not regular_known:
        raise MissingInput("regular")
    if regular_known == "irregular":
        return 1.0
    return 0.8 if site_spectrum else 0.9


@rule(clause="1631.5.4, 1630.10.3")
def scaled() -> list[str]:
    """Responses that the scale factor applies to; for drifts the static shear may exclude Eq.

    30-6 and the period limit.
    """
    return ["forces", "drifts"]


@rule(clause="1629.5.3, Table 16-M type 1")
def torsion_class(torsion_ratio: Array, diaphragm_class: str = "") -> list[str]:
    """Torsional irregularity of each story: more than 1.2, for diaphragms that are not flexible.

    There is no graver class.
    """
    if diaphragm_class == "flexible":
        return ["regular"] * len(torsion_ratio)
    return shared.torsion_classes(torsion_ratio, 1.2)


@rule(clause="1630.7, 1631.5.4, 1633.1, 1633.2.9")
def torsion_consequences(torsion_class: list[str], zone: str = "") -> list[list[str]]:
    """What follows from the irregularity of each story."""
    words = [
        "accidental torsion amplified by A_x at every level (1630.7)",
        "modal results scaled to 100 % of the static base shear (1631.5.4)",
        "N_a is not limited to 1.1 (1629.4.2)",
    ]
    if zone != "1":
        words.append("where it holds about both axes: 100 % with 30 % of the other direction (1633.1)")
    if zone in ("", "3", "4"):
        words.append("no one-third increase for connections of diaphragms and collectors (1633.2.9 item 6)")
    return [[] if computed == "regular" else words for computed in torsion_class]


@rule(clause="1629.5.3, Table 16-L")
def vertical_irregularities(
    story_stiffness: Array | None = None,
    story_strength: Array | None = None,
    w: Array | None = None,
    lateral_width: Array | None = None,
    drift_ratio: Array | None = None,
) -> list[Irregularity]:
    """Soft (1), mass (2), geometric (3) and weak (5) stories, from the story tables that are given.

    Types 1 and 2 fall away where no story drift ratio exceeds 1.3 times that above it.
    """
    irregular = shared.less_than_above(
        story_strength, [("5 weak story, below 65 %: 1629.9.1", 0.65, None), ("5 weak story", 0.80, None)], "Table 16-L"
    )
    # one-story penthouses need not be considered for type 3
    irregular += shared.more_than_adjacent(
        lateral_width, 1.3, "3 vertical geometric", "Table 16-L", light_roof_exempt=True
    )
    if shared.steady_drift(drift_ratio, 1.3):
        return irregular
    irregular += shared.less_than_above(story_stiffness, [("1 soft story", 0.7, 0.8)], "Table 16-L")
    return irregular + shared.more_than_adjacent(w, 1.5, "2 weight (mass)", "Table 16-L", light_roof_exempt=True)


@rule(clause="1630.9.2, Eq. 30-17", tex=r"\q{amplifier} = 0.7\,\q{R}")
def amplifier(R: float) -> float:
    """Maximum inelastic response displacement over that of the design forces."""
    return 0.7 * R


@rule(clause="1630.10.3", tex=r"\q{T_drift} = \q{T_analysis}")
def T_drift(T_a: float, T_analysis: float | None = None) -> float:
    """Period that the drift limit depends on, s: from analysis and without its limit, else Method A's."""
    return T_a if T_analysis is None else T_analysis


STRUCTURE_TYPES = ("other", "single_story_steel")


@rule(clause="1630.10.2", tex=r"\q{drift_limit} = 0.025\text{ for }\q{T_drift} < 0.7\,\text{s},\ \text{else }0.020")
def drift_limit(T_drift: float, structure_type: str = "other", N: int = 0) -> Governed | float:
    """Limit of the story drift over the story height.

    None for single-story steel-framed structures of groups B, F and S, or H divisions 4 and 5, as declared
    (exception 2).
    """
    if structure_type not in STRUCTURE_TYPES:
        raise RuleRefused(
            "structure_type",
            f"1630.10.2 has no structure of type {structure_type!r}",
            f"Use one of: {', '.join(STRUCTURE_TYPES)}.",
        )
    if structure_type == "single_story_steel":
        if N != 1:
            raise RuleRefused(
                "structure_type",
                "the exception of 1630.10.2 is for single-story steel-framed structures",
                "Declare `other` for this structure.",
            )
        return Governed(math.inf, "1630.10.2, exception 2")
    return 0.025 if below(T_drift, 0.7) else 0.020


@rule(
    clause="1630.10.3, 1630.2.1",
    tex=(
        r"\q{C_s_drift} = \min(\q{C_s_plateau_drift},\ \q{C_s_upper})\text{, without Eq. 30-6 and the limit of "
        r"the period}"
    ),
)
def C_s_drift(C_s_plateau_drift: Governed, C_s_upper: Governed) -> Governed:
    """Coefficient for drift: neither Eq. 30-6 nor the limit of the period counts."""
    return bounded(C_s_plateau_drift, upper=C_s_upper)


@rule(
    clause="1630.10.3, 1630.2.1",
    tex=r"\q{C_s_drift} = \min(\q{C_s_plateau_drift},\ \q{C_s_upper}) \ge 0.8\,\q{Z}\,\q{N_v}\,\q{I}/\q{R}",
    defines="C_s_drift",
)
def C_s_drift_zone_4(
    C_s_plateau_drift: Governed, C_s_upper: Governed, Z: float, N_v: float, I: float, R: float
) -> Governed:
    """Coefficient for drift in zone 4: Eq. 30-7 is not waived."""
    return bounded(bounded(C_s_plateau_drift, upper=C_s_upper), lower=Governed(0.8 * Z * N_v * I / R, "30-7"))


@rule(clause="1630.1.3", tex=r"\q{theta} = \frac{\q{P}\,\q{delta_e}}{\q{V_drift}\,h}")
def theta(P: Array, delta_e: Array, V_drift: Array, h: Array) -> Array:
    """Ratio of secondary to primary moment, shape (n_stories,), from the drift of the design forces."""
    return P * delta_e / (V_drift * h)


@rule(clause="1630.1.3", tex=r"\q{theta_limit} = 0.10")
def theta_limit() -> float:
    """Ratio above which P-Delta has to be considered; the code names no greatest value."""
    return 0.10


@rule(clause="1630.1.3", tex=r"\q{delta_e}/h \le 0.02/\q{R}\text{ in zones 3 and 4}")
def theta_exempt(delta_e: Array, h: Array, R: float, zone: str = "") -> Sequence[bool]:
    """Stories of zones 3 and 4 whose drift ratio is at most 0.02/R: P-Delta need not be considered."""
    high = zone in ("3", "4")
    return [high and within(float(ratio), 0.02 / R) for ratio in delta_e / h]


@rule(clause="1630.1.3")
def second_order(theta: Array, theta_exempt: Sequence[bool], p_delta_included: bool = False) -> list[str]:
    """What 1630.1.3 requires at each story; the code names no factor and no greatest value."""
    return [
        "need not be considered"
        if within(t, 0.10) or exempt
        else "in the model"
        if p_delta_included
        else "P-Delta has to be considered"
        for t, exempt in zip(theta.tolist(), theta_exempt, strict=True)
    ]


@rule(
    clause="1633.2.11, Eq. 33-2",
    tex=r"\q{separation} = \sqrt{\Delta_{M1}^2 + \Delta_{M2}^2},\ \Delta_{M1} = 0.7\,\q{R}\,\q{delta_own}",
)
def separation(R: float, delta_own: float, delta_other: float | None = None) -> Governed:
    """Least separation, m: of adjacent buildings the root of the sum of squares.

    Else the own displacement to the property line.
    """
    computed = 0.7 * R * delta_own
    return (
        Governed(computed, "1633.2.11, property line")
        if delta_other is None
        else Governed(math.hypot(computed, delta_other), "33-2")
    )


HORIZONTAL = (
    ("torsional", "1 torsional"),
    ("reentrant_corner", "2 re-entrant corners"),
    ("diaphragm_discontinuity", "3 diaphragm discontinuity"),
    ("out_of_plane_offset", "4 out-of-plane offsets"),
    ("nonparallel_systems", "5 nonparallel systems"),
)


@rule(clause="1629.5.3, Table 16-M")
def horizontal_irregularities(
    irregularities: Mapping[str, bool] | None = None, corners: Sequence[plans.Outline] | None = None
) -> list[dict[str, Any]]:
    """Types of plan irregularity, each there, none or not tested; "not tested" is no "none"."""
    shown = {}
    if corners is not None:
        corner = plans.reentrant(corners, 0.15, both=True)
        basis = f"projections of {corner['projection']:.0%} in both directions, the limit is 15%"
        shown["reentrant_corner"] = {"present": corner["present"], "basis": basis}
    return plans.declared(HORIZONTAL, irregularities, "Table 16-M", shown)


@rule(clause="1629.8, 1630.8.2, 1631.5.4, 1633.2.9")
def regularity_consequences(horizontal_irregularities: list[dict[str, Any]], zone: str = "") -> list[str]:
    """What follows from the plan irregularities that are there."""
    types = plans.there(horizontal_irregularities)
    consequences = ["modal results scaled to 100 % of the static base shear (1631.5.4)"] if types else []
    if "out_of_plane_offset" in types:
        consequences.append(
            "elements under the discontinuous ones for the special combinations with Omega_0 (1630.8.2)"
        )
    if types & {"torsional", "reentrant_corner", "diaphragm_discontinuity", "out_of_plane_offset"} and zone in (
        "",
        "3",
        "4",
    ):
        consequences.append("no one-third increase for connections of diaphragms and collectors (1633.2.9 item 6)")
    if "nonparallel_systems" in types and zone != "1":
        consequences.append("100 % with 30 % of the other direction (1633.1)")
    untested = [row["words"] for row in horizontal_irregularities if row["state"] == "not tested"]
    return consequences + ([f"not tested: {', '.join(untested)}"] if untested else [])


@rule(clause="1629.8.4, 1629.9.1, 1630.8.2")
def vertical_consequences(
    vertical_irregularities: list[Irregularity], N: int, h_n: float, irregularities: Mapping[str, bool] | None = None
) -> list[str]:
    """What follows from the vertical irregularities that are there."""
    kinds = {str(irregularity["kind"])[0] for irregularity in vertical_irregularities}
    words = irregularities or {}
    kinds |= {
        n
        for name, n in (
            ("soft_story", "1"),
            ("mass", "2"),
            ("vertical_geometric", "3"),
            ("in_plane_discontinuity", "4"),
            ("weak_story", "5"),
        )
        if words.get(name)
    }
    consequences = []
    if kinds & {"1", "2", "3"}:
        consequences.append("dynamic analysis above five stories or 65 ft (1629.8.4 item 2)")
    severe = words.get("extreme_weak_story") or any("below 65 %" in str(f["kind"]) for f in vertical_irregularities)
    if severe and (N > 2 or exceeds(h_n, 30 * FOOT)):
        consequences.append(
            "not more than two stories or 30 ft, unless the weak story resists Omega_0 times the design force "
            "(1629.9.1)"
        )
    if "4" in kinds:
        consequences.append(
            "elements under the discontinuous ones for the special combinations with Omega_0 (1630.8.2)"
        )
    return consequences


@rule(clause="1630.9, 1630.10.3")
def drift_notes() -> list[str]:
    """What holds for the forces behind the drifts."""
    return [
        (
            "design forces at strength level with rho = 1.0; Eq. 30-6 and the limit of the period may be excluded "
            "(1630.10.3)"
        ),
        "I is in the design forces and is not divided out (1630.9)",
    ]


ZONE_4 = (C_s_drift_zone_4,)
RULES = (
    cited(shared.mass_target, "1631.5.2"),
    cited(shared.mass_sum, "1631.5.2"),
    cited(shared.modes_enough, "1631.5.2"),
    cited(shared.modes_verdict, "1631.5.2"),
    modal_combination,
    modal_rules,
    scaling_share,
    cited(shared.factor_required, "1631.5.4"),
    cited(shared.spectrum_factor, "1631.5.4"),
    scaled,
    cited(shared.torsion_ratio, "Table 16-M"),
    torsion_class,
    cited(shared.torsion_irregular, "1629.5.3, Table 16-M type 1"),
    cited(shared.A_x_case, "1630.7, Eq. 30-16"),
    cited(shared.A_x, "1630.7"),
    torsion_consequences,
    vertical_irregularities,
    amplifier,
    cited(shared.Delta, "1630.9.2, Eq. 30-17"),
    cited(shared.drift_ratio, "1630.10.2"),
    T_drift,
    drift_limit,
    theta,
    theta_limit,
    theta_exempt,
    second_order,
    cited(shared.drift_at_edges, "1630.9.1"),
    shared.gravity_by(shared.DEAD_AND_LIVE | {"snow": 1.0}, "1630.1.3", "dead, floor live and snow load"),
    cited(shared.T_for_drift, "1630.10.3"),
    C_s_drift,
    cited(shared.V_base_drift, "1630.10.3"),
    cited(shared.factor_drift, "1631.5.4, 1630.10.3"),
    cited(without(shared.theta_verdict, "theta_checked"), "1630.1.3"),
    cited(without(shared.drift_verdict_alone, "drift_limits"), "1630.10.2"),
    drift_notes,
    separation,
    horizontal_irregularities,
    regularity_consequences,
    vertical_consequences,
)
