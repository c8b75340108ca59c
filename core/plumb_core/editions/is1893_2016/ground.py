"""Importance and spectra of IS 1893 (Part 1):2016 where they differ from 2002."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.is1893_2002 import ground as earlier
from plumb_core.editions.is1893_2016 import tables
from plumb_core.rules import Array, cited, rule


@rule(clause="7.2.3, Table 8", tex=r"\q{I} = \text{Table 8}(\q{use})")
def I(use: str) -> float:  # noqa: E743 - the code's symbol
    """Importance factor: 1.5, 1.2 for residential and commercial buildings with more than 200 persons, else 1.0."""
    return tables.TABLE_8[use]


def shape(T: Array, soil: str, rise: bool) -> Array:
    """S_a/g at 5 % damping: as in 2002 up to 4 s, constant beyond; the static method has no rise at short periods."""
    T = np.asarray(T, dtype=float)
    return np.where(T > 4.0, tables.BEYOND_4_S[soil], earlier.shape(T, soil, rise))


@rule(clause="6.4.2, 6.4.2.1", tex=r"\q{S_a} = \frac{\q{Z}}{2}\,\frac{S_a}{g}(\q{T_points},\ \q{soil})")
def S_a(T_points: Array, Z: float, soil: str) -> Array:
    """Elastic spectrum of the response spectrum method, g, shape of `T_points` (s); 5 % damping for all materials."""
    return Z / 2.0 * shape(T_points, soil, True)


@rule(clause="6.4.2", tex=r"\q{S_a_reduced} = \frac{S_a}{\q{R}/\q{I}}")
def S_a_reduced(S_a: Array, I: float, R: float) -> Array:
    """Design horizontal acceleration A_h of a mode, g, shape of `T_points`."""
    return np.asarray(S_a) * I / R


@rule(clause="6.4.6", tex=r"\q{S_a_vertical} = \tfrac{2}{3}\,\tfrac{\q{Z}}{2}\,2.5")
def S_a_vertical(T_points: Array, Z: float) -> Array:
    """Vertical elastic spectrum, g: two thirds of the plateau at every period."""
    return np.full(np.shape(T_points), 2.0 / 3.0 * Z / 2.0 * 2.5)


@rule(clause="6.4.6", tex=r"\q{S_a_vertical_reduced} = \frac{\q{S_a_vertical}}{\q{R}/\q{I}}")
def S_a_vertical_reduced(S_a_vertical: Array, I: float, R: float) -> Array:
    """Vertical design acceleration A_v, g: with I/R."""
    return np.asarray(S_a_vertical) * I / R


@rule(clause="6.4.7", tex=r"\q{S_a} = \max(\text{study},\ S_{a,\text{code}})", defines="S_a")
def S_a_of_study(T_points: Array, site_specific: Mapping[str, Any], Z: float, soil: str) -> Array:
    """Elastic spectrum of a site-specific study, g, shape of `T_points` (s).

    Its effects not below those of the code's.
    """
    computed = shared.read_points(T_points, site_specific, "site_specific")
    return np.maximum(computed, Z / 2.0 * shape(np.asarray(T_points, dtype=float), soil, True))


@rule(clause="6.4.7", tex=r"\q{S_a_T} = \max(S_{a,\text{study}}/(\q{Z}/2),\ S_a/g)", defines="S_a_T")
def S_a_T_of_study(T: float, site_specific: Mapping[str, Any], Z: float, soil: str) -> float:
    """Coefficient of the static method from the spectrum of a study, not below the code's."""
    computed = float(shared.read_points(np.array([T]), site_specific, "site_specific")[0]) / (Z / 2.0)
    return max(computed, float(shape(np.array([T]), soil, False)[0]))


OF_STUDY = (S_a_of_study, S_a_T_of_study)


@rule(clause="6.3.3.1, 6.4.3.1, 6.4.7, 7.2.4")
def ground_notes(
    zone: str,
    soil: str = "",
    irregularities: Mapping[str, bool] | None = None,
    regular: Mapping[str, bool] | None = None,
    site_specific: Mapping[str, Any] | None = None,
) -> list[str]:
    """What a reviewer should know about the ground motion values."""
    notes = ["5 % damping for all materials (7.2.4); concrete with 0.70 I_gross in columns and 0.35 in beams (6.4.3.1)"]
    if site_specific is not None:
        notes.append("spectrum of a site-specific study, not below the code's (6.4.7)")
    triggers = [f"zone {zone}"] if zone in ("IV", "V") else []
    if any((irregularities or {}).values()) or False in (regular or {}).values():
        triggers.append("an irregular structure")
    if soil == "III":
        triggers.append("soft soil")
    words = "long spans and large horizontal overhangs require it too"
    if triggers:
        notes.append(f"vertical shaking has to be considered: {', '.join(triggers)} (6.3.3.1); {words}")
    else:
        notes.append(f"vertical shaking: neither zone nor soil requires it; irregularities, {words} (6.3.3.1)")
    return notes


RULES = (
    cited(earlier.soil_by_measurement, "6.4.2.1, Table 4"),
    cited(earlier.Z, "6.4.2, Table 3"),
    I,
    S_a,
    S_a_reduced,
    S_a_vertical,
    S_a_vertical_reduced,
    ground_notes,
)
