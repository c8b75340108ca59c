"""Zone, importance and spectra of IS 1893 (Part 1):2002, section 6."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.is1893_2002 import tables
from plumb_core.errors import RuleRefused
from plumb_core.limits import ROUNDING, within
from plumb_core.rules import Array, rule

BLOWS = (("I", 30.0), ("II", 10.0))


@rule(clause="Table 1, notes", tex=r"\q{soil_by_measurement} = \text{Table 1}(\q{N_SPT})")
def soil_by_measurement(N_SPT: float | None = None) -> str:
    """Type of soil I, II or III from the blow count, the only measure of this code."""
    return shared.measured((), BLOWS, (), "III", None, N_SPT, None)


@rule(clause="6.4.2, Table 2", tex=r"\q{Z} = \text{Table 2}(\q{zone})")
def Z(zone: str) -> float:
    """Zone factor."""
    return tables.TABLE_2[zone]


@rule(clause="6.4.2, Table 6", tex=r"\q{I} = \text{Table 6}(\q{use})")
def I(use: str) -> float:  # noqa: E743 - the code's symbol
    """Importance factor: 1.5 for important service and community buildings, else 1.0."""
    return tables.TABLE_6[use]


def shape(T: Array, soil: str, rise: bool) -> Array:
    """S_a/g at 5 % damping: 1 + 15 T up to 0.1 s (where the rise is taken), 2.5, then c/T.

    The curve steps down at its corner.
    """
    corner, c = tables.SOIL[soil]
    safe = np.where(T > 0, T, 1.0)
    plateau = np.where(T < 0.1, 1.0 + 15.0 * T, 2.5) if rise else np.full_like(T, 2.5)
    return np.where(corner * (1 + 1e-12) >= T, plateau, c / safe)


LONGEST = 4.0
"""s, the end of the curve in 6.4.5."""


def _within(T: Array) -> Array:
    T = np.asarray(T, dtype=float)
    if np.any(T > LONGEST):
        raise RuleRefused(
            "T_points",
            f"the spectrum of 6.4.5 ends at {LONGEST:g} s; {np.max(T):g} s is beyond it",
            "Use periods up to 4 s; the 2016 edition goes on.",
        )
    return T


@rule(clause="6.4.5, Table 3", tex=r"\q{eta} = \text{Table 3}(\q{damping})")
def eta(damping: float = 0.05) -> float:
    """Factor on S_a/g for the damping ratio, interpolated linearly."""
    return float(np.interp(100.0 * damping, *tables.TABLE_3))


@rule(clause="6.4.2, 6.4.5", tex=r"\q{S_a} = \frac{\q{Z}}{2}\,\frac{S_a}{g}(\q{T_points},\ \q{soil})")
def S_a(T_points: Array, Z: float, soil: str) -> Array:
    """Elastic spectrum of the design basis earthquake at 5 % damping, g, shape of `T_points` (s)."""
    return Z / 2.0 * shape(_within(T_points), soil, True)


@rule(clause="6.4.5, Table 3", tex=r"\q{S_a_damped} = \q{eta}\,S_a")
def S_a_damped(S_a: Array, eta: float) -> Array:
    """Elastic spectrum at the damping given, g, shape of `T_points`."""
    return np.asarray(S_a) * eta


def at_design_level(S_a: Array, I: float, R: float) -> Array:
    """Ordinates times I/R, which is not above 1."""
    return np.asarray(S_a) * min(I / R, 1.0)


@rule(clause="6.4.2, 7.8.4.5", tex=r"\q{S_a_reduced} = S_a(\q{eta})\,\frac{\q{I}}{\q{R}},\ \q{I}/\q{R} \le 1")
def S_a_reduced(
    S_a_damped: Array,
    T_points: Array,
    Z: float,
    I: float,
    R: float,
    T: float | None = None,
) -> Array:
    """Design horizontal acceleration A_h of a mode, g, shape of `T_points` (s); I/R not above 1.

    A structure with a period up to 0.1 s has no A_h below Z/2, whatever I/R (see `S_a_reduced_floored` for every mode).
    """
    if T is not None and within(T, SHORT):
        return np.asarray(S_a_reduced_floored.function(S_a_damped, T_points, Z, I, R))
    return at_design_level(S_a_damped, I, R)


@rule(
    clause="6.4.2, 7.8.4.5, on every mode as declared",
    tex=(
        r"\q{S_a_reduced} = S_a(\q{eta})\,\frac{\q{I}}{\q{R}}\ (\ge \q{Z}/2\text{ for }T \le "
        r"0.1\,\text{s}),\ \q{I}/\q{R} \le 1"
    ),
    defines="S_a_reduced",
)
def S_a_reduced_floored(S_a_damped: Array, T_points: Array, Z: float, I: float, R: float) -> Array:
    """A_h of a mode, g: up to 0.1 s not below Z/2, whatever I/R."""
    reduced = at_design_level(S_a_damped, I, R)
    return np.where(np.asarray(T_points) <= SHORT * (1 + ROUNDING), np.maximum(reduced, Z / 2.0), reduced)


SHORT = 0.1
"""s, up to which A_h is not below Z/2."""


@rule(clause="6.4.5", tex=r"\q{S_a_vertical} = \tfrac{2}{3}\,S_a")
def S_a_vertical(S_a: Array) -> Array:
    """Vertical elastic spectrum, g: two thirds of the horizontal one."""
    return 2.0 / 3.0 * np.asarray(S_a, dtype=float)


@rule(
    clause="6.4.5, 6.4.2", tex=r"\q{S_a_vertical_reduced} = \q{S_a_vertical}\,\frac{\q{I}}{\q{R}},\ \q{I}/\q{R} \le 1"
)
def S_a_vertical_reduced(S_a_vertical: Array, I: float, R: float) -> Array:
    """Vertical design spectrum, g: two thirds of the design horizontal one of 6.4.2."""
    return at_design_level(S_a_vertical, I, R)


@rule(clause="6.4.6", tex=r"\q{S_a} = \text{study}(\q{T_points})", defines="S_a")
def S_a_of_study(T_points: Array, site_specific: Mapping[str, Any]) -> Array:
    """Elastic spectrum of a site-specific study at the design basis level, g; this edition names no floor for it."""
    return shared.read_points(T_points, site_specific, "site_specific")


@rule(clause="6.4.6", tex=r"\q{S_a_T} = S_a(\q{T})/(\q{Z}/2)", defines="S_a_T")
def S_a_T_of_study(T: float, site_specific: Mapping[str, Any], Z: float) -> float:
    """Coefficient at the period used from the spectrum of a study: its ordinate over Z/2."""
    return float(shared.read_points(np.array([T]), site_specific, "site_specific")[0]) / (Z / 2.0)


@rule(clause="6.4.2, 7.8.2.1")
def ground_notes(site_specific: dict[str, Any] | None = None) -> list[str]:
    """What a reviewer should know about the ground motion values."""
    study = ["elastic spectrum of a site-specific study at the design basis level"] if site_specific is not None else []
    return [*study, "dynamic analysis of steel buildings with 2 % damping, of concrete with 5 % (7.8.2.1)"]


RULES = (
    soil_by_measurement,
    Z,
    I,
    eta,
    S_a,
    S_a_damped,
    S_a_reduced,
    S_a_vertical,
    S_a_vertical_reduced,
    ground_notes,
)
OF_STUDY = (S_a_of_study, S_a_T_of_study)
