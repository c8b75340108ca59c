"""Static force procedure of UBC 1997, section 1630, with its simplified form and the permission by 1629.8."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import conditions, podiums, shared
from plumb_core.editions.systems import FOOT, governing_factor, height_of, names_of, permission, systems_of
from plumb_core.editions.ubc97 import tables
from plumb_core.editions.ubc97.ground import SIMPLIFIED
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.limits import exceeds, reaches, within
from plumb_core.rules import Array, Candidate, Governed, Rule, bounded, cited, renamed, rule


@rule(clause="1630.2.2", tex=r"\q{C_t} = 1630.2.2(\q{period_type})")
def C_t(period_type: str) -> float:
    """Coefficient of Method A, for heights in metres."""
    return tables.C_T[period_type]


@rule(clause="1630.2.2, Eq. 30-9", tex=r"\q{A_c} = \sum A_e\left[0.2 + (D_e/\q{h_n})^2\right],\ D_e/h_n \le 0.9")
def A_c(walls: Sequence[Mapping[str, float]], h_n: float) -> float:
    """Effective area of the shear walls of the first story, m2, from areas A_i (m2) and lengths D_i (m)."""
    return float(sum(wall["A_i"] * (0.2 + min(wall["D_i"] / h_n, 0.9) ** 2) for wall in walls))


@rule(clause="1630.2.2, Eq. 30-8", tex=r"\q{T_a} = \q{C_t}\,\q{h_n}^{3/4}")
def T_a(C_t: float, h_n: float, T_a_formula: str = "30-8", A_c: float | None = None) -> Governed:
    """Period by Method A, s; with `30-9` C_t is 0.0743/sqrt(A_c) for concrete or masonry shear walls."""
    if T_a_formula != "30-9":
        return Governed(C_t * h_n**0.75, "30-8")
    if A_c is None:
        raise RuleRefused("walls", "Eq. 30-9 needs the walls", "Give walls (A_i, D_i), or take Eq. 30-8.")
    return Governed(0.0743 / A_c**0.5 * h_n**0.75, "30-9")


@rule(clause="1630.2.2 item 2", tex=r"\q{T_limit} = 1.4\,\q{T_a}\ (1.3\text{ in zone 4})")
def T_limit(T_a: float, zone: str) -> float:
    """Upper limit on the period by Method B for strength, s."""
    return (1.3 if zone == "4" else 1.4) * T_a


@rule(clause="1630.2.2", tex=r"\q{T} = \min(\q{T_analysis},\ \q{T_limit})\ \text{or}\ \q{T_a}")
def T(T_a: float, T_limit: float, T_analysis: float | None = None) -> Governed:
    """Period used for the base shear, s."""
    if T_analysis is None:
        return Governed(T_a, "Method A", (Candidate("Method A", T_a, "base"),))
    return bounded(Governed(T_analysis, "Method B"), upper=Governed(T_limit, "1630.2.2 item 2"))


@rule(clause="1630.2.1, Eq. 30-4", tex=r"\q{C_s_plateau} = \frac{\q{C_v}\,\q{I}}{\q{R}\,\q{T}}")
def C_s_plateau(C_v: float, I: float, R: float, T: float) -> Governed:
    """Coefficient before bounds."""
    return Governed(C_v * I / (R * T), "30-4")


@rule(clause="1630.2.1, Eq. 30-5", tex=r"\q{C_s_upper} = \frac{2.5\,\q{C_a}\,\q{I}}{\q{R}}")
def C_s_upper(C_a: float, I: float, R: float) -> Governed:
    """Upper bound of the coefficient."""
    return Governed(2.5 * C_a * I / R, "30-5")


@rule(clause="1630.2.1, Eq. 30-6", tex=r"\q{C_s_lower} = 0.11\,\q{C_a}\,\q{I}")
def C_s_lower(C_a: float, I: float) -> Governed:
    """Lower bound of the coefficient outside zone 4; there is no R in it."""
    return Governed(0.11 * C_a * I, "30-6")


@rule(
    clause="1630.2.1, Eq. 30-6 and 30-7",
    tex=r"\q{C_s_lower} = \max\left(0.11\,\q{C_a}\,\q{I},\ \frac{0.8\,\q{Z}\,\q{N_v}\,\q{I}}{\q{R}}\right)",
    defines="C_s_lower",
)
def C_s_lower_zone_4(C_a: float, I: float, Z: float, N_v: float, R: float) -> Governed:
    """Lower bound of the coefficient in zone 4."""
    return bounded(Governed(0.11 * C_a * I, "30-6"), lower=Governed(0.8 * Z * N_v * I / R, "30-7"))


@rule(
    clause="1630.2.1", tex=r"\q{coefficient} = \max\left(\min(\q{C_s_plateau},\ \q{C_s_upper}),\ \q{C_s_lower}\right)"
)
def coefficient(
    C_s_plateau: Governed,
    C_s_upper: Governed,
    C_s_lower: Governed,
    C_a: float,
    R: float,
    N: int,
    static_method: str = "1630.2.1",
    light_frame: bool = False,
    occupancy_category: str = "",
) -> Governed:
    """Base shear as a fraction of the weight; by 1630.2.3 where the simplified static procedure is declared."""
    if static_method != SIMPLIFIED:
        return bounded(C_s_plateau, upper=C_s_upper, lower=C_s_lower)
    if not occupancy_category:
        raise MissingInput("occupancy_category")
    if occupancy_category not in ("4", "5"):
        raise RuleRefused(
            "static_method",
            f"the simplified static procedure is for occupancy categories 4 and 5, not {occupancy_category} (1629.8.2)",
            "Take 1630.2.1 for this building.",
        )
    if (3 if light_frame else 2) < N:
        raise RuleRefused(
            "static_method",
            "the simplified static procedure is for at most two stories, three with light frames (1629.8.2)",
            "Take 1630.2.1 for this building.",
        )
    return Governed(3.0 * C_a / R, "30-11")


@rule(clause="1630.5, Eq. 30-14", tex=r"\q{F_t} = 0.07\,\q{T}\,\q{V} \le 0.25\,V,\ 0\text{ for }T \le 0.7\,\text{s}")
def F_t(T: float, V: float, static_method: str = "1630.2.1") -> float:
    """Part of the base shear that acts at the top, kN."""
    return 0.0 if within(T, 0.7) or static_method == SIMPLIFIED else min(0.07 * T, 0.25) * V


@rule(clause="1630.5", tex=r"\q{k} = 1")
def k() -> float:
    """Exponent of the vertical distribution."""
    return 1.0


@rule(
    clause="1630.5, Eq. 30-13 and 30-15",
    tex=r"\q{F} = \frac{(\q{V} - \q{F_t})\,w_x h_x}{\sum w_i h_i},\ \text{at the top with }F_t",
)
def F(w: Array, h_x: Array, V: float, F_t: float, static_method: str = "1630.2.1") -> Array:
    """Lateral force at each level, kN, shape (n_stories,), the top one with F_t; by the weights in 1630.2.3 (Eq.

    30-12).
    """
    share = w if static_method == SIMPLIFIED else w * h_x
    forces = np.asarray((V - F_t) * share / np.sum(share))
    forces[-1] += F_t
    return forces


@rule(clause="1630.6", tex=r"\q{eccentricity} = 0.05")
def eccentricity() -> float:
    """Accidental eccentricity as a share of the plan dimension perpendicular to the force."""
    return 0.05


@rule(clause="1629.8.3, 1629.8.4")
def static_permitted(
    zone: str,
    h_n: float,
    N: int,
    T: float,
    site_class_used: str,
    regular_known: str = "",
    occupancy_category: str = "",
    stacked_systems: Sequence[Mapping[str, Any]] = (),
    podium: Mapping[str, Any] | None = None,
) -> str:
    """Whether the static force procedure is permitted.

    By the items of 1629.8.3 and those of 1629.8.4 that request dynamics.
    """
    if site_class_used == "S_F" and exceeds(T, 0.7):
        return "not permitted: soil profile S_F with a period above 0.7 s (1629.8.4 item 4)"
    if zone == "1" or (zone in ("2A", "2B") and occupancy_category in ("4", "5")):
        return "permitted"
    if reaches(h_n, 240 * FOOT):
        return "not permitted: 240 ft or more (1629.8.4 item 1)"
    low = N <= 5 and within(h_n, 65 * FOOT)
    if not low and zone in ("3", "4") and stacked_systems and podium is None:
        return (
            "not permitted: more than five stories or 65 ft without the same system over the height (1629.8.4 item 3)"
        )
    if not regular_known:
        return "permitted" if low else "open: irregularities are not stated"
    if regular_known == "regular":
        return "permitted"
    return "permitted" if low else "not permitted: irregular, more than five stories or 65 ft (1629.8.3 item 3)"


@rule(clause="1629.6, 1629.8, 1630.4.3")
def static_notes(
    static_permitted: str,
    coefficient: Governed,
    R: float,
    R_bearing: float,
    system_permission: str = "permitted",
    lateral_system: str = "",
    period_type: str = "",
) -> list[str]:
    """What a reviewer should know about the static method here."""
    notes = [] if static_permitted == "permitted" else [f"static force procedure: {static_permitted}"]
    if coefficient.governed_by == "30-11":
        notes.append("simplified static procedure: story drift, where needed, is 0.01 of the story height (1630.2.3)")
    if not system_permission.startswith("permitted"):
        notes.append(f"lateral system {system_permission} (Table 16-N)")
    if exceeds(R, R_bearing):
        notes.append(f"R of {R:g} exceeds {R_bearing:g} of the bearing wall system in the other direction (1630.4.3)")
    return notes + shared.period_type_note(tables.PERIOD_TYPES, lateral_system, period_type, "1630.2.2")


def _row(name: str, N: int | None) -> str:
    return tables.OVER_THREE_STORIES.get(name, name) if N is not None and N > 3 else name


def _factor(name: str, defines: str) -> Rule:
    def read(
        lateral_system: str,
        stacked_systems: Sequence[Mapping[str, Any]] = (),
        beside_systems: Sequence[Mapping[str, Any]] = (),
        w: Array | None = None,
        N: int | None = None,
    ) -> float:
        low, above = systems_of(
            tables.SYSTEMS,
            _row(lateral_system, N),
            [{**s, "lateral_system": _row(s["lateral_system"], N)} for s in stacked_systems],
            [{**s, "lateral_system": _row(s["lateral_system"], N)} for s in beside_systems],
            w,
        )
        return governing_factor(name, low, above)

    read.__doc__ = (
        f"{name} of the lateral system; light-framed walls with wood panels above three stories take the row `other`."
    )
    return rule(
        clause="1629.6, 1630.4.2, 1630.4.4, Table 16-N",
        tex=rf"\q{{{defines}}} = \text{{table}}(\q{{lateral_system}})",
        defines=defines,
    )(read)


@rule(clause="1630.4.3", tex=r"\q{R_bearing} = R\text{ of the bearing wall direction, zones 3 and 4}")
def R_bearing(
    zone: str, lateral_system: Mapping[str, str] | None = None, R_table: Mapping[str, float] | None = None
) -> float:
    """Limit on R in zones 3 and 4 where one direction only has a bearing wall system: that direction's R."""
    systems, factors = lateral_system or {}, R_table or {}
    bearing = [d for d, name in systems.items() if name.startswith("BW_")]
    if zone not in ("3", "4") or len(systems) != 2 or len(bearing) != 1:
        return math.inf
    return factors.get(bearing[0], math.inf)


@rule(clause="1629.6, 1630.4.3, Table 16-N", tex=r"\q{R} = \min(\q{R_table},\ \q{R_bearing})")
def R(R_table: float, R_bearing: float) -> Governed:
    """Response modification factor: that of the system, not above the bearing wall system's in the other direction."""
    computed = Governed(R_table, "Table 16-N")
    return computed if math.isinf(R_bearing) else bounded(computed, upper=Governed(R_bearing, "1630.4.3"))


@rule(clause="1630.1.1", tex=r"\q{r_max} = \max r_i\text{ up to two thirds of the height}")
def r_max(element_shears: Sequence[Mapping[str, Any]], h_x: Array, h_n: float) -> float:
    """Greatest element-story shear ratio of the story levels at or below two thirds of the height.

    Braces: their horizontal component; moment frames: two adjacent columns of a bay; walls: times 3.05/l_w (m); over
    the
    story shear.
    """
    ratios = []
    for item in element_shears:
        level = item.get("level")
        if level is not None and level and not within(float(h_x[level]), 2.0 / 3.0 * h_n):
            continue
        ratio = item["shear"] / item["story_shear"]
        if item["element"] == "wall":
            if item["length"] is None:
                raise RuleRefused(
                    "element_shears", f"the length of the wall in {item['story']} is not given", "Give `length` in m."
                )
            ratio *= 3.05 / item["length"]
        ratios.append(ratio)
    if not ratios:
        raise RuleRefused(
            "element_shears",
            "no element at or below two thirds of the height is given",
            "Give the elements of the lower stories.",
        )
    return float(max(ratios))


DUAL_SHARE, SMRF_MOST = 0.8, 1.25


@rule(
    clause="1630.1.1, Eq. 30-3",
    tex=r"\q{rho} = 2 - \frac{6.1}{\q{r_max}\sqrt{\q{A_B}}},\ 1.0 \le \rho \le 1.5;\ 1.0\text{ in zones 1 and 2}",
)
def rho(zone: str, r_max: float | None = None, A_B: float | None = None, lateral_system: str = "") -> Governed:
    """Reliability/redundancy factor: by Eq. 30-3 in zones 3 and 4 (80 % for dual systems), 1.0 elsewhere.

    Special moment frames have to be arranged so that it does not exceed 1.25; where it does, `governed_by` states it.
    """
    if zone not in ("3", "4"):
        return Governed(1.0, "1630.1.1, zones 0 to 2")
    if r_max is None:
        raise MissingInput("r_max")
    if A_B is None:
        raise MissingInput("A_B")
    value = min(2.0 - 6.1 / (r_max * A_B**0.5), 1.5)
    if lateral_system.startswith("dual_"):
        value *= DUAL_SHARE
    value = max(value, 1.0)
    if lateral_system.startswith("SMRF_") and exceeds(value, SMRF_MOST):
        return Governed(value, "30-3, more than the 1.25 of special moment frames: bays have to be added")
    return Governed(value, "30-3")


@rule(
    clause="1633.2.9, Eq. 33-1",
    tex=(
        r"\q{F_px} = \frac{F_t + \sum_{i \ge x} F_i}{\sum_{i \ge x} w_i}\,w_{px},\ 0.5\,\q{C_a}\,\q{I}\,w_{px} "
        r"\le F_{px} \le 1.0\,\q{C_a}\,\q{I}\,w_{px}"
    ),
)
def F_px(F: Array, w: Array, C_a: float, I: float) -> Array:
    """Design force of the diaphragm at each level, kN, shape (n_stories,), with both bounds; F holds F_t at the top."""
    above = np.cumsum(F[::-1])[::-1] / np.cumsum(w[::-1])[::-1] * w
    return np.clip(above, 0.5 * C_a * I * w, 1.0 * C_a * I * w)


@rule(clause="1629.8.3 item 4, 1630.4.2 item 2")
def two_stage(
    podium: Mapping[str, Any],
    w: Array,
    h: Array,
    R: float,
    rho: float,
    zone: str,
    C_a: float,
    C_v: float,
    Z: float,
    N_v: float,
    I: float,
    period_type: str = "",
    regular: bool | None = None,
) -> dict[str, Any]:
    """Two-stage analysis of a flexible upper part on a rigid lower part: its conditions, and the forces of both parts.

    The period of the upper part is at most 1.4 times that of Method A of its own height, 1.3 times in zone 4
    (1630.2.2);
    F_t acts at the top of the upper part.
    """

    def coefficient_of(T: float, R_part: float) -> Governed:
        least = C_s_lower_zone_4.function(C_a, I, Z, N_v, R_part) if zone == "4" else C_s_lower.function(C_a, I)
        return bounded(C_s_plateau.function(C_v, I, R_part, T), upper=C_s_upper.function(C_a, I, R_part), lower=least)

    C = tables.C_T.get(podium.get("period_type") or period_type)
    times = 1.3 if zone == "4" else 1.4
    parts = podium.get("parts_regular")
    both = {
        "words": "both parts regular by themselves (1629.8.3 item 4)",
        "met": regular if parts is None else parts,
        "value": None,
        "limit": 1.0,
    }
    return podiums.two_stage(
        podium,
        w,
        h,
        R,
        rho,
        coefficient_of,
        lambda T: 1.0,
        "1629.8.3 item 4",
        None if C is None else lambda height: times * C * height**0.75,
        lambda T: 0.0 if within(T, 0.7) else min(0.07 * T, 0.25),
        (both,),
    )


@rule(clause="1629.6, Table 16-N", tex=r"\q{height_limit} = \text{Table 16-N}(\q{lateral_system})")
def height_limit(
    lateral_system: str,
    zone: str,
    stacked_systems: Sequence[Mapping[str, str]] = (),
    beside_systems: Sequence[Mapping[str, str]] = (),
    w: Array | None = None,
) -> float:
    """Greatest height of the system, m, in the zone; 0 where it is not permitted."""
    return height_of(tables.SYSTEMS, names_of(lateral_system, stacked_systems, beside_systems, w), zone)


@rule(clause="1629.6, Table 16-N")
def system_permission(height_limit: float, h_n: float, zone: str) -> str:
    """Whether the system is permitted here (without the footnotes to Table 16-N)."""
    return permission(height_limit, h_n, f"zone {zone}")


@rule(
    clause="1612.2.1, 1612.4, 1630.1.1, Eq. 30-1 and 30-2",
    tex=(
        r"(1.2 + 0.5\,\q{C_a}\,\q{I})\,D + \q{rho}\,E_h + f_1 L + f_2 S;\ \text{special: }1.2\,D + f_1 L + "
        r"\q{Omega_0} E_h"
    ),
)
def load_combinations(C_a: float, I: float, rho: float, Omega_0: float | None = None) -> list[dict[str, Any]]:
    """Strength combinations 12-5 and 12-6, and the special ones with E_m, 12-17 and 12-18.

    f_1 is 1.0 for assembly, garages and live loads over 4.8 kPa.
    """
    vertical = 0.5 * C_a * I
    combinations = [
        {"name": "12-5", "factors": {"D": 1.2 + vertical, "E_h": rho, "L": 0.5, "S": 0.2}},
        {"name": "12-6", "factors": {"D": 0.9 - vertical, "E_h": rho}},
    ]
    if Omega_0 is not None:
        combinations += [
            {"name": "12-17, special", "factors": {"D": 1.2, "E_h": Omega_0, "L": 0.5}},
            {"name": "12-18, special", "factors": {"D": 0.9, "E_h": Omega_0}},
        ]
    return combinations


@rule(clause="1633.1")
def direction_rule(zone: str) -> list[str]:
    """How the two horizontal directions act together."""
    if zone == "1":
        return ["each direction alone"]
    return [
        "100 % with 30 %, or SRSS: plan irregularity 5, plan irregularity 1 about both axes, or a column common to two "
        "intersecting systems (but for axial force under 20 % of its capacity)"
    ]


@rule(clause="1633.1")
def directions_together(
    zone: str,
    irregularities: Mapping[str, bool] | None = None,
    torsion_both: bool | None = None,
    shared_columns: bool | None = None,
) -> str:
    """Why both directions act together outside zone 1.

    Plan irregularity 5, plan irregularity 1 about both axes, or columns
    of two intersecting systems.  Begins with "open" where it is not known whether the torsion is about both axes.
    """
    if zone == "1":
        return ""
    types = irregularities or {}
    if types.get("nonparallel_systems"):
        return "nonparallel systems (1633.1)"
    if torsion_both:
        return "torsional irregularity about both axes (1633.1)"
    if shared_columns:
        return "columns of two intersecting systems (1633.1)"
    if types.get("torsional") and torsion_both is None:
        return "open: torsional irregularity about both axes (1633.1)"
    return ""


RULES = (
    _factor("R", "R_table"),
    _factor("Omega_0", "Omega_0"),
    R_bearing,
    R,
    r_max,
    rho,
    F_px,
    two_stage,
    height_limit,
    system_permission,
    conditions.dual_systems(("dual_",), "1629.6.5"),
    *conditions.flexible_diaphragm(2.0, "1630.6", "1630.6"),
    cited(shared.h_n, "1630.2.2"),
    cited(shared.h_x, "1630.5"),
    cited(shared.N, "1629.8"),
    cited(shared.W, "1630.1.1"),
    C_t,
    A_c,
    T_a,
    T_limit,
    T,
    C_s_plateau,
    C_s_upper,
    C_s_lower,
    coefficient,
    cited(shared.V, "1630.2.1"),
    F_t,
    k,
    F,
    cited(shared.V_story, "1630.6"),
    cited(shared.M_story, "1630.8"),
    eccentricity,
    cited(shared.M_ta, "1630.6"),
    cited(shared.irregular_types, "1629.5.3"),
    cited(shared.regular_known, "1629.5"),
    static_permitted,
    static_notes,
    cited(shared.static_governed_by, "1630.2.1"),
    cited(shared.site_spectrum, "1631.2 item 2"),
    renamed(C_s_plateau, {"T": "T_for_drift", "C_s_plateau": "C_s_plateau_drift"}),
    load_combinations,
    direction_rule,
    directions_together,
)
ZONE_4 = (C_s_lower_zone_4,)
