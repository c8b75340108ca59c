"""Hazard, sub-soil class and spectra of AS 1170.4-2007: sections 2 to 4, 6.4 and 7.2."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from plumb_core.editions.as1170_4 import tables
from plumb_core.errors import RuleRefused
from plumb_core.rules import Array, Governed, bounded, rule


@rule(clause="4.1, 4.2", tex=r"\q{soil_by_measurement} = 4.2(\q{v_s30},\ \q{site_period})")
def soil_by_measurement(v_s30: float | None = None, site_period: float | None = None) -> str:
    """Sub-soil class from v_s30 (m/s) and, between rock and very soft soil, the site period (s): up to 0.6 s C_e, else D_e."""
    if v_s30 is not None and v_s30 > 1500.0:
        return "A_e"
    if v_s30 is not None and v_s30 > 360.0:
        return "B_e"
    if v_s30 is not None and v_s30 <= 150.0:
        return "E_e"
    if site_period is None:
        raise RuleRefused(
            "site_period",
            "soil that is neither rock nor very soft is classed by its natural period, which is not given",
            "Give the site period in s (four times the travel time of shear waves to rock), or v_s30.",
        )
    return "C_e" if site_period <= 0.6 else "D_e"


@rule(clause="3.1, Table 3.1", tex=r"\q{k_p} = \text{Table 3.1}(\q{importance_level})")
def k_p(importance_level: int) -> float:
    """Probability factor at the annual probability of the importance level."""
    return tables.K_P[int(importance_level)]


@rule(clause="3.3, Table 3.3 (Amendment 2)", tex=r"\q{kpZ} = \max(\q{k_p}\,\q{Z},\ \text{Table 3.3})")
def kpZ(k_p: float, Z: float) -> Governed:
    """Design hazard k_p Z, g, not below the minimum of Amendment 2."""
    least = float(np.interp(k_p, *tables.TABLE_3_3)) if k_p >= 1.0 else 0.0
    product = Governed(k_p * Z, "k_p Z")
    return bounded(product, lower=Governed(least, "Table 3.3")) if least else product


@rule(clause="2.2, Table 2.1", tex=r"\q{design_category} = \text{Table 2.1}")
def design_category(importance_level: int, kpZ: float, subsoil: str, h_n: float) -> str:
    """Earthquake design category I, II or III; none for importance level 1."""
    return tables.category(int(importance_level), kpZ, subsoil, h_n)


def shape(T: Array, subsoil: str, ramp: bool) -> Array:
    """Spectral shape factor C_h(T) by its equations; with the ramp below 0.1 s in dynamic analysis only."""
    at_0, slope, plateau, over_T, over_T2 = tables.SHAPE[subsoil]
    T = np.asarray(T, dtype=float)
    safe = np.where(T > 0, T, 1e-9)
    falling = np.where(T <= 1.5, np.minimum(plateau, over_T / safe), over_T2 / safe**2)
    return np.where(T < 0.1, np.minimum(at_0 + slope * T, plateau), falling) if ramp else falling


@rule(clause="6.4, 7.2, Table 6.4", tex=r"\q{S_a} = \q{kpZ}\,C_h(\q{T_points})")
def S_a(T_points: Array, kpZ: float, subsoil: str) -> Array:
    """Elastic site hazard spectrum C(T) of dynamic analysis, g, shape of `T_points` (s)."""
    return kpZ * shape(T_points, subsoil, True)


@rule(clause="7.2", tex=r"\q{S_a_reduced} = C(T)\,\frac{\q{S_p}}{\q{mu}}")
def S_a_reduced(S_a: Array, S_p: float, mu: float) -> Array:
    """Design action coefficients C_d(T), g, shape of `T_points`."""
    return np.asarray(S_a) * S_p / mu


@rule(clause="7.2", tex=r"\q{S_a_vertical} = 0.5\,C(T)\,\q{S_p}")
def S_a_vertical(S_a: Array, S_p: Mapping[str, float] | None = None) -> Array:
    """Vertical spectrum, g: half of the horizontal one, not divided by the ductility, with the greater S_p of the directions."""
    return 0.5 * np.asarray(S_a) * max((S_p or {"": 1.0}).values())


@rule(clause="3.3, 6.5")
def ground_notes(kpZ: Governed, k_p: float) -> list[str]:
    """What a reviewer should know about the hazard."""
    notes = []
    if kpZ.governed_by == "Table 3.3":
        notes.append(f"k_p Z is taken at its minimum of {kpZ.value:g} (Table 3.3, Amendment 2)")
    if k_p < 1.0:
        notes.append("no minimum of k_p Z is held for annual probabilities above 1/500")
    return notes


RULES = (
    soil_by_measurement, k_p, kpZ, design_category, S_a, S_a_reduced, S_a_vertical, ground_notes,
)  # fmt: skip
