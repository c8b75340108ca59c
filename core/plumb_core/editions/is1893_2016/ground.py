"""Importance and spectra of IS 1893 (Part 1):2016 where they differ from 2002."""

from __future__ import annotations

import numpy as np

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
def S_a_reduced(S_a: Array, I: float, R: float) -> Array:  # noqa: E741
    """Design horizontal acceleration A_h of a mode, g, shape of `T_points`."""
    return np.asarray(S_a) * I / R


@rule(clause="6.4.6", tex=r"\q{S_a_vertical} = \tfrac{2}{3}\,\tfrac{\q{Z}}{2}\,2.5")
def S_a_vertical(T_points: Array, Z: float) -> Array:
    """Vertical spectrum, g: two thirds of the plateau at every period."""
    return np.full(np.shape(T_points), 2.0 / 3.0 * Z / 2.0 * 2.5)


@rule(clause="6.3.3.1, 6.4.3.1, 7.2.4")
def ground_notes(zone: str) -> list[str]:
    """What a reviewer should know about the ground motion values."""
    notes = ["5 % damping for all materials (7.2.4); concrete with 0.70 I_gross in columns and 0.35 in beams (6.4.3.1)"]
    if zone in ("IV", "V"):
        notes.append("vertical shaking has to be considered in zones IV and V (6.3.3.1)")
    return notes


RULES = (
    cited(earlier.soil_by_measurement, "6.4.2.1, Table 4"),
    cited(earlier.Z, "6.4.2, Table 3"),
    I,
    S_a,
    S_a_reduced,
    S_a_vertical,
    ground_notes,
)
