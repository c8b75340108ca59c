"""Ground of UBC 1997: zone, soil profile, near-source factors, C_a and C_v (1629) and the spectrum (Figure 16-3)."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.ubc97 import tables
from plumb_core.errors import RuleRefused
from plumb_core.limits import exceeds
from plumb_core.rules import Array, rule

VELOCITY = (("S_A", 1500.0), ("S_B", 760.0), ("S_C", 360.0), ("S_D", 180.0))
"""Table 16-J: lower bounds of the shear wave velocity, m/s."""
BLOWS = (("S_C", 50.0), ("S_D", 15.0))
SIMPLIFIED = "1630.2.3"
STRENGTH = (("S_C", 100.0), ("S_D", 50.0))


@rule(clause="1629.3, 1636.2, Table 16-J", tex=r"\q{soil_by_measurement} = \text{Table 16-J}")
def soil_by_measurement(v_s30: float | None = None, N_SPT: float | None = None, s_u: float | None = None) -> str:
    """Soil profile type S_A to S_E from v_s30 (m/s).

    Else the softer of those by blow count and undrained strength (kPa).

    S_F is found by its soils.
    """
    return shared.measured(VELOCITY, BLOWS, STRENGTH, "S_E", v_s30, N_SPT, s_u, softer_holds=True)


@rule(
    clause="1629.3, 1630.2.3.2",
    tex=r"\q{site_class_used} = \q{soil}\text{, by default }S_D\text{ unless }S_E\text{ or }S_F",
)
def site_class_used(soil: str, class_by_default: bool = False, zone: str = "", static_method: str = "") -> str:
    """Soil profile type that the coefficients are read for: S_D where the soil is not known.

    With the simplified method S_D in zones 3 and 4, S_E in zones 1, 2A and 2B (1630.2.3.2).
    """
    if class_by_default and static_method == SIMPLIFIED and zone in ("1", "2A", "2B") and soil != "S_F":
        return "S_E"
    return "S_D" if class_by_default and soil in ("S_A", "S_B", "S_C") else soil


@rule(clause="1629.2, Table 16-K", tex=r"\q{I} = \text{Table 16-K}(\q{occupancy_category})")
def I(occupancy_category: str) -> float:  # noqa: E743 - the code's symbol
    """Importance factor by occupancy category."""
    return tables.TABLE_16_K[occupancy_category]


@rule(clause="1629.4.1, Table 16-I", tex=r"\q{Z} = \text{Table 16-I}(\q{zone})")
def Z(zone: str) -> float:
    """Seismic zone factor."""
    return tables.TABLE_16_I[zone]


@rule(clause="1629.4.2", tex=r"\q{N_a} = 1\text{ outside zone 4}", defines="N_a")
def N_a_elsewhere() -> float:
    """Near-source factor outside zone 4."""
    return 1.0


@rule(clause="1629.4.2", tex=r"\q{N_v} = 1\text{ outside zone 4}", defines="N_v")
def N_v_elsewhere() -> float:
    """Near-source factor outside zone 4."""
    return 1.0


@rule(clause="1629.4.2, Table 16-S", tex=r"\q{N_a} = \text{Table 16-S}(\q{source_type},\ \q{source_distance_km})")
def N_a(source_type: str, source_distance_km: float) -> float:
    """Near-source factor for C_a in zone 4, interpolated linearly on the distance (km)."""
    distances, rows = tables.N_A
    return float(np.interp(source_distance_km, distances, rows[source_type]))


@rule(clause="1629.4.2, Table 16-T", tex=r"\q{N_v} = \text{Table 16-T}(\q{source_type},\ \q{source_distance_km})")
def N_v(source_type: str, source_distance_km: float) -> float:
    """Near-source factor for C_v in zone 4, interpolated linearly on the distance (km)."""
    distances, rows = tables.N_V
    return float(np.interp(source_distance_km, distances, rows[source_type]))


def _coefficient(table: dict[str, dict[str, float]], soil: str, zone: str, name: str) -> float:
    if soil == "S_F":
        raise RuleRefused(
            "soil",
            "soil profile type S_F has no seismic coefficients",
            f"Give {name} from a site-specific investigation (1629.3.1), or correct the soil profile type.",
        )
    return table[soil][zone]


@rule(
    clause="1629.4.3, Table 16-Q; 1629.4.2",
    tex=r"\q{C_a} = \text{Table 16-Q}(\q{zone},\ \q{site_class_used}) \times \q{N_a}",
)
def C_a(zone: str, site_class_used: str, N_a: float, N_a_limited: bool = False) -> float:
    """Seismic coefficient C_a.

    N_a need not exceed 1.1 where the five conditions of 1629.4.2 are stated as met (never for S_E).
    """
    near = min(N_a, 1.1) if N_a_limited and site_class_used != "S_E" else N_a
    return _coefficient(tables.C_A, site_class_used, zone, "C_a") * near


@rule(clause="1629.4.3, Table 16-R", tex=r"\q{C_v} = \text{Table 16-R}(\q{zone},\ \q{site_class_used}) \times \q{N_v}")
def C_v(zone: str, site_class_used: str, N_v: float) -> float:
    """Seismic coefficient C_v."""
    return _coefficient(tables.C_V, site_class_used, zone, "C_v") * N_v


@rule(clause="Figure 16-3", tex=r"\q{T_S} = \frac{\q{C_v}}{2.5\,\q{C_a}}")
def T_S(C_v: float, C_a: float) -> float:
    """End of the constant-acceleration branch, s."""
    return C_v / (2.5 * C_a)


@rule(clause="Figure 16-3", tex=r"\q{T_0} = 0.2\,\q{T_S}")
def T_0(T_S: float) -> float:
    """Start of the constant-acceleration branch, s."""
    return 0.2 * T_S


@rule(
    clause="1631.2, Figure 16-3",
    tex=r"\q{S_a} = \begin{cases}\q{C_a}\,(1 + 1.5\,\q{T_points}/\q{T_0}) & \q{T_points} < \q{T_0}\\ "
    r"2.5\,\q{C_a} & \q{T_points} \le \q{T_S}\\"
    r" \q{C_v}/\q{T_points} & \q{T_points} > \q{T_S}\end{cases}",
)
def S_a(T_points: Array, C_a: float, C_v: float, T_0: float, T_S: float) -> Array:
    """Elastic design spectral acceleration, g, shape of `T_points` (s); neither I nor R in it."""
    T = np.asarray(T_points, dtype=float)
    safe = np.where(T > T_S, T, 1.0)
    return np.select([T < T_0, T <= T_S], [C_a * (1.0 + 1.5 * T / T_0), np.full_like(T, 2.5 * C_a)], C_v / safe)


@rule(clause="1631.5.4, 1630.2.1", tex=r"\q{S_a_reduced} = S_a\,\frac{\q{I}}{\q{R}}")
def S_a_reduced(S_a: Array, I: float, R: float) -> Array:
    """Ordinates for modal strength design, g: the elastic spectrum times I over R."""
    return np.asarray(S_a, dtype=float) * I / R


@rule(clause="1631.2 item 2", tex=r"\q{S_a} = \text{study}(\q{T_points})", defines="S_a")
def S_a_of_study(T_points: Array, site_specific: Mapping[str, Any]) -> Array:
    """Elastic design spectrum of a site-specific study, g, shape of `T_points` (s); the code names no floor for it."""
    return shared.read_points(T_points, site_specific, "site_specific")


@rule(clause="1631.2 item 5, 1631.5.4", tex=r"\q{S_a_vertical_reduced} = \q{S_a_vertical}\,\frac{\q{I}}{\q{R}}")
def S_a_vertical_reduced(S_a_vertical: Array, I: float, R: float) -> Array:
    """Vertical ordinates for strength design, g, shape of `T_points`."""
    return np.asarray(S_a_vertical) * I / R


@rule(clause="1631.2 item 5", tex=r"\q{S_a_vertical} = \tfrac{2}{3}\,S_a")
def S_a_vertical(S_a: Array) -> Array:
    """Vertical design spectral acceleration, g; where N_a exceeds 1.0 the code requires a site-specific one."""
    return 2.0 / 3.0 * np.asarray(S_a, dtype=float)


@rule(clause="1629.3, 1629.4.2, 1629.8.4, 1631.2")
def ground_notes(
    soil: str,
    site_class_used: str,
    N_a: float,
    zone: str,
    class_by_default: bool = False,
    N_a_limited: bool = False,
    site_specific: dict[str, Any] | None = None,
) -> list[str]:
    """What a reviewer should know about the ground motion values."""
    notes = []
    if site_specific is not None:
        notes.append(
            "site-specific spectrum (1631.2 item 2) for the modal analysis; the static base shear stays with "
            "C_a and C_v"
        )
    if soil != site_class_used:
        clause = "1629.3" if site_class_used == "S_D" else "1630.2.3.2"
        notes.append(
            f"soil profile {soil} by default: {clause} gives {site_class_used} where the soil is not known, "
            f"and {site_class_used} is taken"
        )
    elif class_by_default and soil != "S_D":
        notes.append(f"soil profile {soil} by default: 1629.3 gives S_D unless {soil} soils are shown; {soil} is taken")
    if exceeds(N_a, 1.0):
        notes.append("N_a above 1.0: a site-specific vertical spectrum is required (1631.2 item 5)")
    if zone == "4" and N_a_limited and soil == "S_E":
        notes.append("N_a is not limited to 1.1 for soil profile S_E (1629.4.2)")
    if soil == "S_F":
        notes.append(
            "soil profile S_F: dynamic analysis with the effects of the soil where T > 0.7 s (1629.8.4 item 4)"
        )
    return notes


RULES = (
    soil_by_measurement,
    site_class_used,
    S_a_vertical_reduced,
    I,
    Z,
    N_a_elsewhere,
    N_v_elsewhere,
    C_a,
    C_v,
    T_S,
    T_0,
    S_a,
    S_a_reduced,
    S_a_vertical,
    ground_notes,
)
ZONE_4 = (N_a, N_v)
