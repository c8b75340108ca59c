"""Lateral force of IS 1893 (Part 1):2002, section 7."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core.editions import conditions, shared
from plumb_core.editions.is1893_2002 import tables
from plumb_core.editions.is1893_2002.ground import LONGEST, SHORT, shape
from plumb_core.editions.systems import factor
from plumb_core.errors import RuleRefused
from plumb_core.limits import exceeds, within
from plumb_core.rules import Array, Candidate, Governed, cited, rule


def base_dimension(d: float | None) -> float:
    """The base dimension, m; refused where a formula needs it and it is not given."""
    if d is None:
        raise RuleRefused(
            "d",
            "0.09 h/sqrt(d) needs d, the base dimension at plinth level along the direction",
            "Give d in m (or the plan of the lowest story).",
        )
    return d


@rule(clause="7.6.1, 7.6.2", tex=r"\q{T_a} = 0.075\,h^{0.75},\ 0.085\,h^{0.75}\text{ or }0.09\,h/\sqrt{\q{d}}")
def T_a(h_n: float, period_type: str, d: float | None = None) -> Governed:
    """Approximate fundamental period, s: frames without infill by height, all other buildings by height and base."""
    coefficient = tables.PERIOD[period_type]
    if coefficient is not None:
        return Governed(coefficient * h_n**0.75, "7.6.1")
    return Governed(0.09 * h_n / base_dimension(d) ** 0.5, "7.6.2")


@rule(clause="7.5.3, 7.6", tex=r"\q{T} = \q{T_a}")
def T(T_a: float) -> Governed:
    """Period of the design base shear, s: the approximate one, whatever analysis finds."""
    return Governed(T_a, "T_a", (Candidate("T_a", T_a, "base"),))


@rule(clause="6.4.5", tex=r"\q{S_a_T} = \frac{S_a}{g}(\q{T},\ \q{soil})")
def S_a_T(T: float, soil: str) -> float:
    """Average response acceleration coefficient S_a/g at the period used."""
    if exceeds(T, LONGEST):
        raise RuleRefused(
            "T_a",
            f"the approximate period of {T:.2f} s is beyond the spectrum of 6.4.5, which ends at 4 s",
            "A building of this height needs a site-specific spectrum.",
        )
    return float(shape(np.array([T]), soil, True)[0])


@rule(clause="6.4.2", tex=r"\q{C_s_lower} = \q{Z}/2\text{ for }\q{T} \le 0.1\,\text{s}")
def C_s_lower(Z: float, T: float) -> Governed:
    """Lower bound of the coefficient, up to 0.1 s."""
    return Governed(Z / 2.0 if within(T, SHORT) else 0.0, "6.4.2, T <= 0.1 s")


@rule(clause="6.4.2", tex=r"\q{coefficient} = \frac{\q{Z}}{2}\,\frac{\q{I}}{\q{R}}\,\q{S_a_T},\ \q{I}/\q{R} \le 1")
def coefficient(Z: float, I: float, R: float, S_a_T: float, C_s_lower: Governed) -> Governed:
    """Design horizontal seismic coefficient A_h."""
    free = Z / 2.0 * min(I / R, 1.0) * S_a_T
    candidates = (Candidate("6.4.2", free, "base"), Candidate(C_s_lower.governed_by, C_s_lower.value, "lower"))
    if C_s_lower.value > free:
        return Governed(C_s_lower.value, C_s_lower.governed_by, candidates)
    return Governed(free, "6.4.2", candidates[:1] if C_s_lower.value == 0 else candidates)


@rule(clause="7.7.1", tex=r"\q{k} = 2")
def k() -> float:
    """Exponent of the vertical distribution."""
    return 2.0


@rule(clause="7.7.1", tex=r"\q{F} = \q{V}\,\frac{W_i h_i^2}{\sum W_j h_j^2}")
def F(w: Array, h_x: Array, V: float) -> Array:
    """Design lateral force at each floor, kN, shape (n_stories,)."""
    return np.asarray(V * w * h_x**2 / np.sum(w * h_x**2))


@rule(clause="7.9.2", tex=r"\q{eccentricity} = 0.05")
def eccentricity() -> float:
    """Accidental eccentricity as a share of the plan dimension b; e_d = 1.5 e_s + 0.05 b or e_s - 0.05 b."""
    return 0.05


@rule(clause="7.9.2", tex=r"\q{eccentricity_factor} = 1.5")
def eccentricity_factor() -> float:
    """Factor on the static eccentricity e_s where the accidental one adds to it; once where it takes off."""
    return 1.5


@rule(clause="Table 7, notes")
def system_permission(lateral_system: str, zone: str) -> str:
    """Whether the system is permitted in the zone."""
    return f"not permitted in zone {zone}" if zone in tables.PROHIBITED.get(lateral_system, ()) else "permitted"


@rule(clause="7.8.1")
def static_permitted(zone: str, h_n: float, regular_known: str = "") -> str:
    """Whether the static method will do: dynamic analysis is for tall and for irregular buildings."""
    high = zone in ("IV", "V")
    irregular = regular_known == "irregular"
    limit = (12.0 if high else 40.0) if irregular else 40.0 if high else 90.0
    if exceeds(h_n, limit):
        return f"not permitted: {'irregular, ' if irregular else ''}above {limit:g} m in zone {zone} (7.8.1)"
    return (
        "open: irregularities are not stated"
        if not regular_known and exceeds(h_n, 12.0 if high else 40.0)
        else "permitted"
    )


PERIOD_TYPES = (
    ("RC_OMRF", ("rc_mrf", "other")),
    ("RC_SMRF", ("rc_mrf", "other")),
    ("steel_OMRF", ("steel_mrf", "other")),
    ("steel_SMRF", ("steel_mrf", "other")),
    ("RC_wall", ("other", "rc_walls")),
    ("RC_ductile_wall", ("other", "rc_walls")),
)
"""Rows of the approximate period that fit the systems (frames with infill are "other"); all other systems elsewhere."""


@rule(clause="7.8.1, 7.9.2, Table 7")
def static_notes(
    static_permitted: str,
    T_analysis: float | None = None,
    system_permission: str = "permitted",
    lateral_system: str = "",
    period_type: str = "",
) -> list[str]:
    """What a reviewer should know about the static method here."""
    notes = [] if static_permitted == "permitted" else [f"static method: {static_permitted}"]
    if T_analysis is not None:
        notes.append("the analysis period does not enter: the base shear takes the approximate period (7.5.3, 7.6)")
    if not system_permission.startswith("permitted"):
        notes.append(f"lateral system {system_permission}")
    if lateral_system.startswith("steel"):
        notes.append(
            "the steel code IS 800:2007 (Table 23) lists response reduction factors of its own for steel systems"
        )
    return notes + shared.period_type_note(PERIOD_TYPES, lateral_system, period_type, "7.6")


@rule(clause="6.3.1.1, 6.3.1.2", tex=r"1.5\,(DL \pm EL),\ 1.2\,(DL + IL \pm EL),\ 0.9\,DL \pm 1.5\,EL")
def load_combinations() -> list[dict[str, Any]]:
    """Combinations for concrete (6.3.1.2) and for the plastic design of steel (6.3.1.1)."""
    combinations: list[tuple[str, Mapping[str, float]]] = [
        ("6.3.1.2 b", {"DL": 1.2, "IL": 1.2, "EL": 1.2}),
        ("6.3.1.2 c", {"DL": 1.5, "EL": 1.5}),
        ("6.3.1.2 d", {"DL": 0.9, "EL": 1.5}),
        ("6.3.1.1 b", {"DL": 1.7, "EL": 1.7}),
        ("6.3.1.1 c", {"DL": 1.3, "IL": 1.3, "EL": 1.3}),
    ]
    return [{"name": name, "factors": dict(factors)} for name, factors in combinations]


@rule(clause="6.3.2, 6.3.4")
def direction_rule() -> list[str]:
    """How the two horizontal directions act together."""
    return [
        "lateral systems along the two axes: one direction at a time (6.3.2.1)",
        "not along the axes: 100 % with 30 % (6.3.2.2), three components 100-30-30 or SRSS (6.3.4)",
    ]


@rule(clause="6.3.2.2")
def directions_together(irregularities: Mapping[str, bool] | None = None) -> str:
    """Why both directions act together: lateral systems that are not along two orthogonal directions."""
    return "nonparallel systems (6.3.2.2)" if (irregularities or {}).get("nonparallel_systems") else ""


RULES = (
    factor("R", tables.SYSTEMS, "6.4.2, Table 7"),
    system_permission,
    conditions.dual_systems(("dual_",), "Table 7, note 4"),
    cited(shared.h_n, "7.6.1"),
    cited(shared.h_x, "7.7.1"),
    cited(shared.N, "7.8.4"),
    cited(shared.W, "7.4.2"),
    T_a,
    T,
    S_a_T,
    C_s_lower,
    coefficient,
    cited(shared.V, "7.5.3"),
    k,
    F,
    cited(shared.V_story, "7.7.1"),
    cited(shared.M_story, "7.7.1"),
    eccentricity,
    eccentricity_factor,
    cited(shared.M_ta, "7.9.2"),
    cited(shared.irregular_types, "7.1"),
    cited(shared.regular_known, "7.1"),
    cited(shared.static_governed_by, "6.4.2"),
    static_permitted,
    static_notes,
    load_combinations,
    direction_rule,
    directions_together,
)
