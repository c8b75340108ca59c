"""Static force procedure of UBC 1997, section 1630, with its simplified form and the permission by 1629.8."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.systems import FOOT, height_of, permission, stacked_factor
from plumb_core.editions.ubc97 import tables
from plumb_core.errors import RuleRefused
from plumb_core.rules import Array, Candidate, Governed, bounded, cited, rule

SIMPLIFIED = "1630.2.3"


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
def C_s_plateau(C_v: float, I: float, R: float, T: float) -> Governed:  # noqa: E741 - the code's symbol
    """Coefficient before bounds."""
    return Governed(C_v * I / (R * T), "30-4")


@rule(clause="1630.2.1, Eq. 30-5", tex=r"\q{C_s_upper} = \frac{2.5\,\q{C_a}\,\q{I}}{\q{R}}")
def C_s_upper(C_a: float, I: float, R: float) -> Governed:  # noqa: E741 - the code's symbol
    """Upper bound of the coefficient."""
    return Governed(2.5 * C_a * I / R, "30-5")


@rule(clause="1630.2.1, Eq. 30-6", tex=r"\q{C_s_lower} = 0.11\,\q{C_a}\,\q{I}")
def C_s_lower(C_a: float, I: float) -> Governed:  # noqa: E741 - the code's symbol
    """Lower bound of the coefficient outside zone 4; there is no R in it."""
    return Governed(0.11 * C_a * I, "30-6")


@rule(
    clause="1630.2.1, Eq. 30-6 and 30-7",
    tex=r"\q{C_s_lower} = \max\left(0.11\,\q{C_a}\,\q{I},\ \frac{0.8\,\q{Z}\,\q{N_v}\,\q{I}}{\q{R}}\right)",
    defines="C_s_lower",
)
def C_s_lower_zone_4(C_a: float, I: float, Z: float, N_v: float, R: float) -> Governed:  # noqa: E741
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
) -> Governed:
    """Base shear as a fraction of the weight; by 1630.2.3 where the simplified static procedure is declared."""
    if static_method != SIMPLIFIED:
        return bounded(C_s_plateau, upper=C_s_upper, lower=C_s_lower)
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
    return 0.0 if T <= 0.7 or static_method == SIMPLIFIED else min(0.07 * T, 0.25) * V


@rule(clause="1630.5", tex=r"\q{k} = 1")
def k() -> float:
    """Exponent of the vertical distribution."""
    return 1.0


@rule(
    clause="1630.5, Eq. 30-13 and 30-15",
    tex=r"\q{F} = \frac{(\q{V} - \q{F_t})\,w_x h_x}{\sum w_i h_i},\ \text{at the top with }F_t",
)
def F(w: Array, h_x: Array, V: float, F_t: float, static_method: str = "1630.2.1") -> Array:
    """Lateral force at each level, kN, shape (n_stories,), the top one with F_t; by the weights in 1630.2.3 (Eq. 30-12)."""
    share = w if static_method == SIMPLIFIED else w * h_x
    forces = np.asarray((V - F_t) * share / np.sum(share))
    forces[-1] += F_t
    return forces


@rule(clause="1630.6", tex=r"\q{eccentricity} = 0.05")
def eccentricity() -> float:
    """Accidental eccentricity as a share of the plan dimension perpendicular to the force."""
    return 0.05


@rule(clause="1629.8.3, 1629.8.4")
def static_permitted(zone: str, h_n: float, N: int, regular: bool | None = None, occupancy_category: str = "") -> str:
    """Whether the static procedure is permitted; five stories *and* 65 ft are taken as the limit of irregular buildings."""
    if zone == "1" or (zone in ("2A", "2B") and occupancy_category in ("4", "5")):
        return "permitted"
    if regular is None:
        return "open: irregularities are not stated"
    if regular:
        return "permitted" if h_n < 240 * FOOT else "not permitted: 240 ft (73.2 m) or more (1629.8.4)"
    return (
        "permitted"
        if N <= 5 and h_n <= 65 * FOOT
        else "not permitted: irregular, more than five stories or 65 ft (1629.8.3)"
    )


@rule(clause="1629.8")
def static_notes(static_permitted: str, coefficient: Governed, system_permission: str = "permitted") -> list[str]:
    """What a reviewer should know about the static method here."""
    notes = [] if static_permitted == "permitted" else [f"static force procedure: {static_permitted}"]
    if coefficient.governed_by == "30-11":
        notes.append("simplified static procedure: story drift, where needed, is 0.01 of the story height (1630.2.3)")
    if not system_permission.startswith("permitted"):
        notes.append(f"lateral system {system_permission} (Table 16-N)")
    return notes


@rule(clause="1629.6, Table 16-N", tex=r"\q{height_limit} = \text{Table 16-N}(\q{lateral_system})")
def height_limit(lateral_system: str, zone: str, stacked_systems: Sequence[Mapping[str, str]] = ()) -> float:
    """Greatest height of the system, m, in the zone; 0 where it is not permitted."""
    return height_of(tables.SYSTEMS, [lateral_system, *(s["lateral_system"] for s in stacked_systems)], zone)


@rule(clause="1629.6, Table 16-N")
def system_permission(height_limit: float, h_n: float, zone: str) -> str:
    """Whether the system is permitted here (without the footnotes to Table 16-N)."""
    return permission(height_limit, h_n, f"zone {zone}")


@rule(clause="1612.2.1, 1630.1.1, Eq. 30-1", tex=r"(1.2 + 0.5\,\q{C_a}\,\q{I})\,D + \q{rho}\,E_h + f_1 L + f_2 S")
def load_combinations(C_a: float, I: float, rho: float = 1.0) -> list[dict[str, Any]]:  # noqa: E741
    """Strength combinations 12-5 and 12-6; f_1 is 1.0 for assembly, garages and live loads over 4.8 kPa."""
    vertical = 0.5 * C_a * I
    return [
        {"name": "12-5", "factors": {"D": 1.2 + vertical, "E_h": rho, "L": 0.5, "S": 0.2}},
        {"name": "12-6", "factors": {"D": 0.9 - vertical, "E_h": rho}},
    ]


@rule(clause="1633.1")
def direction_rule(zone: str) -> list[str]:
    """How the two horizontal directions act together."""
    if zone == "1":
        return ["each direction alone"]
    return [
        "100 % with 30 %, or SRSS: plan irregularity 5, plan irregularity 1 about both axes, or a column common to two "
        "intersecting systems (but for axial force under 20 % of its capacity)"
    ]


RULES = (
    *(stacked_factor(name, tables.SYSTEMS, "1629.6, 1630.4.2, Table 16-N") for name in tables.FACTORS),
    height_limit,
    system_permission,
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
    static_permitted,
    static_notes,
    load_combinations,
    direction_rule,
)
ZONE_4 = (C_s_lower_zone_4,)
