"""Lateral force of IS 1893 (Part 1):2016, section 7, where it differs from 2002."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import conditions, shared
from plumb_core.editions.is1893_2002 import lateral as earlier
from plumb_core.editions.is1893_2016 import tables
from plumb_core.editions.is1893_2016.ground import shape
from plumb_core.editions.systems import factor
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.limits import below
from plumb_core.rules import Governed, bounded, cited, rule


@rule(clause="7.6.2 b", tex=r"\q{A_c} = \sum A_{wi}\left[0.2 + (L_{wi}/h)^2\right],\ L_{wi}/h \le 0.9")
def A_c(walls: Sequence[Mapping[str, float]], h_n: float) -> float:
    """Effective area A_w of the walls of the first story, m2, from areas A_i (m2) and lengths D_i (m)."""
    return float(sum(wall["A_i"] * (0.2 + min(wall["D_i"] / h_n, 0.9) ** 2) for wall in walls))


@rule(
    clause="7.6.2",
    tex=r"\q{T_a} = C\,h^{0.75},\ \ \frac{0.075\,h^{0.75}}{\sqrt{\q{A_c}}} \ge "
    r"\frac{0.09\,h}{\sqrt{\q{d}}}\text{ for walls, }"
    r"\frac{0.09\,h}{\sqrt{\q{d}}}\text{ for all other}",
)
def T_a(h_n: float, period_type: str, d: float | None = None, A_c: float | None = None) -> Governed:
    """Approximate fundamental period, s: bare frames, structural walls, all other buildings."""
    coefficient = tables.PERIOD[period_type]
    if coefficient is not None:
        return Governed(coefficient * h_n**0.75, "7.6.2 a")
    other = Governed(0.09 * h_n / earlier.base_dimension(d) ** 0.5, "7.6.2 c")
    if period_type == "other":
        return other
    if A_c is None:
        raise RuleRefused(
            "walls", "the period of structural walls needs the walls", "Give walls (A_i, D_i), or take `other`."
        )
    return bounded(Governed(0.075 * h_n**0.75 / A_c**0.5, "7.6.2 b"), lower=other)


@rule(clause="6.4.2, 6.4.2.1", tex=r"\q{S_a_T} = \frac{S_a}{g}(\q{T},\ \q{soil})")
def S_a_T(T: float, soil: str) -> float:
    """S_a/g of the static method at the period used: the plateau goes down to T = 0."""
    return float(shape(np.array([T]), soil, False)[0])


@rule(clause="7.2.2, Table 7", tex=r"\q{C_s_lower} = \text{Table 7}(\q{zone})")
def C_s_lower(zone: str) -> Governed:
    """Least design lateral force as a fraction of the weight, whatever R, I and soil."""
    return Governed(tables.TABLE_7[zone] / 100.0, "7.2.2")


@rule(
    clause="6.4.2, 7.2.2",
    tex=r"\q{coefficient} = \max\left(\frac{\q{Z}}{2}\,\frac{\q{S_a_T}}{\q{R}/\q{I}},\ \q{C_s_lower}\right)",
)
def coefficient(Z: float, I: float, R: float, S_a_T: float, C_s_lower: Governed) -> Governed:
    """Design horizontal seismic coefficient A_h, not below Table 7."""
    return bounded(Governed(Z / 2.0 * S_a_T / (R / I), "6.4.2"), lower=C_s_lower)


@rule(clause="Table 9, notes")
def system_permission(
    zone: str,
    lateral_system: str = "",
    irregularities: Mapping[str, bool] | None = None,
    offset_stories: Sequence[Any] | None = None,
) -> str:
    """Whether the system is permitted in the zone; in-plane discontinuities are not in zones III to V (Table 6 iv)."""
    in_plane = (irregularities or {}).get("in_plane_discontinuity") or "in_plane" in (offset_stories or ())
    if in_plane and zone != "II":
        return f"not permitted in zone {zone}: in-plane discontinuity (Table 6 iv)"
    if not lateral_system:
        raise MissingInput("lateral_system")
    return f"not permitted in zone {zone}" if zone in tables.PROHIBITED.get(lateral_system, ()) else "permitted"


@rule(clause="6.4.3, 7.7.1")
def static_permitted(zone: str, h_n: float, T_a: float, regular_known: str = "") -> str:
    """Whether the static method will do; open where 6.4.3 and 7.7.1 differ.

    6.4.3: regular buildings with T_a < 0.4 s.  7.7.1: dynamic analysis but for regular buildings below 15 m in zone II.
    """
    if regular_known == "irregular":
        return "not permitted: irregular building (6.4.3, 7.7.1)"
    by_period, by_height = below(T_a, 0.4), zone == "II" and below(h_n, 15.0)
    if not by_period and not by_height:
        return "not permitted: T_a of 0.4 s or more (6.4.3), and not below 15 m in zone II (7.7.1)"
    if by_period and by_height:
        return "permitted" if regular_known else "open: irregularities are not stated"
    if by_period:
        return "open: 6.4.3 permits it (T_a < 0.4 s), 7.7.1 requires dynamic analysis but below 15 m in zone II"
    return "open: 7.7.1 permits it (below 15 m in zone II), 6.4.3 requires T_a < 0.4 s"


@rule(clause="6.3.2, 6.3.4", tex=earlier.load_combinations.tex)
def load_combinations() -> list[dict[str, Any]]:
    """Combinations of 6.3.2.

    EL of one horizontal direction at a time where the lateral systems are orthogonal (6.3.2.1), else
    +-(EL_x + 0.3 EL_y) and, with vertical shaking, 0.3 EL_z with its permutations (6.3.2.2, 6.3.4.1).
    """
    return [
        {"name": "6.3.2 b", "factors": {"DL": 1.2, "IL": 1.2, "EL": 1.2}},
        {"name": "6.3.2 c", "factors": {"DL": 1.5, "EL": 1.5}},
        {"name": "6.3.2 d", "factors": {"DL": 0.9, "EL": 1.5}},
    ]


@rule(clause="6.3.2.1, 6.3.2.2, 6.3.4")
def direction_rule(irregularities: Mapping[str, bool] | None = None) -> list[str]:
    """How the directions act together."""
    alone = "lateral systems along two orthogonal directions: one horizontal direction at a time (6.3.2.1)"
    both = "not along two orthogonal directions: 100 % with 30 % of the other (6.3.2.2)"
    vertical = "with vertical shaking three components: 100 % with 30 % and 30 % (6.3.4.1), or SRSS (6.3.4.2)"
    oblique = (irregularities or {}).get("nonparallel_systems")
    return [both, vertical] if oblique else [alone, vertical] if oblique is False else [alone, both, vertical]


@rule(clause="6.3.2.2")
def directions_together(irregularities: Mapping[str, bool] | None = None) -> str:
    """Why both directions act together: lateral systems that are not along two orthogonal directions."""
    return "nonparallel systems (6.3.2.2)" if (irregularities or {}).get("nonparallel_systems") else ""


RULES = (
    factor("R", tables.SYSTEMS, "7.2.6, Table 9"),
    system_permission,
    conditions.dual_systems(("dual_",), "Table 9, note 4"),
    cited(shared.h_n, "7.6.2"),
    cited(shared.h_x, "7.6.3"),
    cited(shared.N, "7.7.5"),
    cited(shared.W, "7.4"),
    A_c,
    T_a,
    cited(earlier.T, "7.6.1, 7.6.2"),
    S_a_T,
    C_s_lower,
    coefficient,
    cited(shared.V, "7.6.1"),
    cited(earlier.k, "7.6.3"),
    cited(earlier.F, "7.6.3"),
    cited(shared.V_story, "7.6.3"),
    cited(shared.M_story, "7.6.3"),
    cited(earlier.eccentricity, "7.8.2"),
    cited(earlier.eccentricity_factor, "7.8.2"),
    cited(shared.M_ta, "7.8.2"),
    cited(shared.irregular_types, "7.1"),
    cited(shared.regular_known, "7.1"),
    cited(shared.static_governed_by, "6.4.2"),
    static_permitted,
    cited(earlier.static_notes, "6.4.3, 7.7.1"),
    load_combinations,
    direction_rule,
    directions_together,
)
