"""Hazard, sub-soil class and spectra of AS 1170.4-2007: sections 2 to 4, 6.4 and 7.2."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.as1170_4 import tables
from plumb_core.errors import RuleRefused
from plumb_core.limits import below, exceeds, reaches, within
from plumb_core.rules import Array, Governed, bounded, rule


@rule(
    clause="4.1, 4.2",
    tex=r"\q{soil_by_measurement} = 4.2(\q{v_s30},\ \q{rock},\ \q{very_soft_thickness},\ \q{site_period})",
)
def soil_by_measurement(
    v_s30: float | None = None,
    rock: bool | None = None,
    very_soft_thickness: float | None = None,
    site_period: float | None = None,
) -> str:
    """Sub-soil class from what was found in the ground.

    E_e: more than 10 m of very soft soil.  A_e, B_e: *rock*, by its velocity (m/s); soil is no rock however stiff.
    Else by the natural period of the site (s): up to 0.6 s C_e, longer D_e.
    """
    if very_soft_thickness is not None and exceeds(very_soft_thickness, 10.0):
        return "E_e"
    if v_s30 is not None and within(v_s30, 150.0) and very_soft_thickness is None:
        raise RuleRefused(
            "very_soft_thickness",
            "a velocity up to 150 m/s is that of very soft soil, whose thickness is not given",
            (
                "Give the thickness of soil with s_u < 12.5 kPa, N < 6 or velocity up to 150 m/s: above 10 m the "
                "class is E_e."
            ),
        )
    if v_s30 is not None and exceeds(v_s30, 360.0):
        if rock is None:
            raise RuleRefused(
                "rock",
                "a velocity above 360 m/s may be that of rock (A_e, B_e) or of deep stiff soil (C_e, D_e)",
                "Say whether the profile is rock with at most 3 m of soil on it.",
            )
        if rock:
            return "A_e" if exceeds(v_s30, 1500.0) else "B_e"
    if very_soft_thickness:
        # up to 10 m of very soft soil on or in the profile makes it deep or soft
        return "D_e"
    if site_period is None:
        raise RuleRefused(
            "site_period",
            "soil that is neither rock nor very soft is classed by its natural period, which is not given",
            "Give the site period in s (four times the travel time of shear waves to rock).",
        )
    return "C_e" if within(site_period, 0.6) else "D_e"


@rule(clause="3.1, Table 3.1", tex=r"\q{k_p} = \text{Table 3.1}(\q{importance_level})")
def k_p(importance_level: int) -> float:
    """Probability factor at the annual probability of the importance level."""
    return tables.K_P[int(importance_level)]


@rule(clause="3.3, Table 3.3 (Amendment 2)", tex=r"\q{kpZ} = \max(\q{k_p}\,\q{Z},\ \text{Table 3.3})")
def kpZ(k_p: float, Z: float) -> Governed:
    """Design hazard k_p Z, g, not below the minimum of Amendment 2."""
    least = float(np.interp(k_p, *tables.TABLE_3_3)) if reaches(k_p, 1.0) else 0.0
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


@rule(clause="7.2", tex=r"\q{S_a_vertical} = 0.5\,C(T)")
def S_a_vertical(S_a: Array) -> Array:
    """Vertical elastic spectrum, g: half of the horizontal one."""
    return 0.5 * np.asarray(S_a)


@rule(clause="7.2", tex=r"\q{S_a_vertical_reduced} = \q{S_a_vertical}\,\q{S_p}")
def S_a_vertical_reduced(S_a_vertical: Array, S_p: float) -> Array:
    """Vertical design spectrum, g: with S_p of the direction's system, not divided by the ductility."""
    return np.asarray(S_a_vertical) * S_p


@rule(clause="7.2", tex=r"\q{S_a} = \text{study}(\q{T_points})", defines="S_a")
def S_a_of_study(T_points: Array, site_specific: Mapping[str, Any], k_p: float) -> Array:
    """Elastic spectrum of a site-specific study, g, shape of `T_points` (s); the standard names no floor for it.

    With the probability factor where the study is for a return period of 500 years.
    """
    return study_factor(site_specific, k_p) * shared.read_points(T_points, site_specific, "site_specific")


def study_factor(site_specific: Mapping[str, Any], k_p: float) -> float:
    """Factor on the ordinates of a study: k_p where they are for 500 years, which is assumed where nothing is stated.

    A factor below 1 is applied only where the return period is stated.
    """
    stated = site_specific.get("return_period")
    if stated is None:
        return max(k_p, 1.0)
    return k_p if abs(stated - 500.0) < 0.5 else 1.0


@rule(clause="7.2", tex=r"\q{S_a_T} = C(\q{T})/\q{kpZ}", defines="S_a_T")
def S_a_T_of_study(T: float, site_specific: Mapping[str, Any], kpZ: float, k_p: float) -> float:
    """Shape factor at the period used from the spectrum of a study: its ordinate over k_p Z."""
    ordinate = float(shared.read_points(np.array([T]), site_specific, "site_specific")[0])
    return study_factor(site_specific, k_p) * ordinate / kpZ


OF_STUDY = (S_a_of_study, S_a_T_of_study)


@rule(clause="3.3, 6.5")
def ground_notes(kpZ: Governed, k_p: float, site_specific: Mapping[str, Any] | None = None) -> list[str]:
    """What a reviewer should know about the hazard."""
    notes = []
    if site_specific is not None:
        notes.append("elastic spectrum of a site-specific study (section 7); the standard names no floor for it")
        if site_specific.get("return_period") is None:
            notes.append("the return period of the study is not stated: 500 years is assumed, so that k_p applies")
    if kpZ.governed_by == "Table 3.3":
        notes.append(f"k_p Z is taken at its minimum of {kpZ.value:g} (Table 3.3, Amendment 2)")
    if below(k_p, 1.0):
        notes.append("no minimum of k_p Z is held for annual probabilities above 1/500")
    return notes


RULES = (
    soil_by_measurement,
    k_p,
    kpZ,
    design_category,
    S_a,
    S_a_reduced,
    S_a_vertical,
    S_a_vertical_reduced,
    ground_notes,
)
