"""Ground and spectra of EN 1998-1:2004, chapter 3 and Annex A.

Nationally determined parameters have their recommended values: each is a rule without inputs or by table, which a
value of the brief replaces.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.en1998_1 import tables
from plumb_core.errors import RuleRefused
from plumb_core.limits import exceeds, within
from plumb_core.rules import Array, Governed, Rule, rule

VELOCITY = (("A", 800.0), ("B", 360.0), ("C", 180.0))
"""Table 3.1: lower bounds of the shear wave velocity, m/s."""
BLOWS = (("B", 50.0), ("C", 15.0))
STRENGTH = (("B", 250.0), ("C", 70.0))


@rule(clause="3.1.2, Table 3.1", tex=r"\q{soil_by_measurement} = \text{Table 3.1}")
def soil_by_measurement(v_s30: float | None = None, N_SPT: float | None = None, s_u: float | None = None) -> str:
    """Ground type A to D from v_s30 (m/s), blow count or c_u (kPa); E, S1 and S2 are found by their layers."""
    return shared.measured(VELOCITY, BLOWS, STRENGTH, "D", v_s30, N_SPT, s_u)


@rule(clause="4.2.5(5)P", tex=r"\q{gamma_I} = 4.2.5(\q{importance_class})")
def gamma_I(importance_class: str) -> float:
    """Importance factor, recommended values."""
    return tables.GAMMA_I[importance_class]


@rule(clause="3.2.1(3)", tex=r"\q{a_g} = \q{gamma_I}\,\q{a_gR}")
def a_g(gamma_I: float, a_gR: float) -> float:
    """Design ground acceleration on type A ground, g: the one place where importance enters."""
    return gamma_I * a_gR


def _parameter(name: str, column: int) -> Rule:
    def read(ground_type: str, spectrum_type: int) -> float:
        if ground_type not in tables.GROUND[1]:
            raise RuleRefused(
                "ground_type",
                f"ground type {ground_type} has no tabulated {name}: a special study is required (3.1.2(4)P)",
                "Give S, T_B, T_C and T_D from that study, or correct the ground type.",
            )
        return tables.GROUND[int(spectrum_type)][ground_type][column]

    read.__doc__ = f"{name} by ground type and type of spectrum, recommended values."
    return rule(
        clause="3.2.2.2, Tables 3.2 and 3.3",
        tex=rf"\q{{{name}}} = \text{{Table 3.2 or 3.3}}(\q{{ground_type}})",
        defines=name,
    )(read)


S, T_B, T_C, T_D = (_parameter(name, column) for column, name in enumerate(("S", "T_B", "T_C", "T_D")))


@rule(clause="3.2.2.5(4)P", tex=r"\q{beta} = 0.2")
def beta() -> float:
    """Lower bound factor of the horizontal design spectrum, recommended value."""
    return 0.2


@rule(clause="3.2.2.3, Table 3.4", tex=r"\q{a_vg_ratio} = \text{Table 3.4}")
def a_vg_ratio(spectrum_type: int) -> float:
    """Vertical over horizontal design ground acceleration, recommended values."""
    return tables.TABLE_3_4[int(spectrum_type)]


@rule(clause="3.2.1(4), 3.2.1(5)P")
def seismicity(a_g: float, S: float) -> str:
    """Very low, low or not low seismicity, by the recommended limits of a_g or a_g S."""
    if within(a_g, 0.04) or within(a_g * S, 0.05):
        return "very low: EN 1998 need not be observed"
    return "low: simplified procedures may be used" if within(a_g, 0.08) or within(a_g * S, 0.10) else "not low"


@rule(clause="3.2.2.2(3), Eq. 3.6", tex=r"\q{eta} = \sqrt{10/(5 + 100\,\q{damping})} \ge 0.55")
def eta(damping: float = 0.05) -> float:
    """Damping correction factor, from the damping ratio."""
    return max(float((10.0 / (5.0 + 100.0 * damping)) ** 0.5), 0.55)


def elastic(T: Array, a_g: float, S: float, T_B: float, T_C: float, T_D: float, eta: float, T_E: float | None) -> Array:
    """S_e, g: Eq. 3.2 to 3.5, and beyond T_E the displacements of Annex A (where T_E is given)."""
    plateau = a_g * S * eta * 2.5
    safe = np.where(T > 0, T, 1.0)
    ordinates = np.select(
        [T < T_B, T <= T_C, T <= T_D],
        [a_g * S * (1.0 + T / T_B * (eta * 2.5 - 1.0)), np.full_like(T, plateau), plateau * T_C / safe],
        plateau * T_C * T_D / safe**2,
    )
    if T_E is None:
        return ordinates
    # Eq. A.1 and A.2 with d_g = 0.025 a_g S T_C T_D (3.12); the printed 0.025 is 1/(2 pi)^2 rounded, so that the curve
    # steps down by 1.3 % at T_E
    fade = np.clip((T - T_E) / (tables.T_F - T_E), 0.0, 1.0)
    S_De = 0.025 * a_g * S * T_C * T_D * (2.5 * eta + fade * (1.0 - 2.5 * eta))
    return np.where(T > T_E, S_De * (2.0 * np.pi / safe) ** 2, ordinates)


def _annex_a(spectrum_type: int, ground_type: str) -> float | None:
    return tables.TABLE_A_1.get(ground_type) if spectrum_type == 1 else None


@rule(
    clause="3.2.2.2, Eq. 3.2 to 3.5; Annex A for long periods",
    tex=r"\q{S_a} = \q{a_g}\,\q{S}\begin{cases}1 + \frac{T}{\q{T_B}}\,(2.5 - 1) & T < \q{T_B}\\ 2.5 & T \le \q{T_C}\\"
    r" 2.5\,\q{T_C}/T & T \le \q{T_D}\\ 2.5\,\q{T_C}\,\q{T_D}/T^2 & T > \q{T_D}\end{cases}",
)
def S_a(
    T_points: Array, a_g: float, S: float, T_B: float, T_C: float, T_D: float, spectrum_type: int, ground_type: str
) -> Array:
    """Elastic response spectrum S_e at 5 % damping, g, shape of `T_points` (s)."""
    T_E = _annex_a(spectrum_type, ground_type)
    return elastic(np.asarray(T_points, dtype=float), a_g, S, T_B, T_C, T_D, 1.0, T_E)


@rule(clause="3.2.2.2, Eq. 3.2 to 3.6", tex=r"\q{S_a_damped} = S_e(\q{eta})")
def S_a_damped(
    T_points: Array,
    a_g: float,
    S: float,
    T_B: float,
    T_C: float,
    T_D: float,
    eta: float,
    spectrum_type: int,
    ground_type: str,
) -> Array:
    """Elastic response spectrum at the damping given, g, shape of `T_points` (s)."""
    T_E = _annex_a(spectrum_type, ground_type)
    return elastic(np.asarray(T_points, dtype=float), a_g, S, T_B, T_C, T_D, eta, T_E)


def design(T: Array, a_g: float, S: float, T_B: float, T_C: float, T_D: float, q: float, beta: float) -> Array:
    """S_d, g: Eq. 3.13 to 3.16; the lower bound beta a_g holds beyond T_C only, and has no S in it."""
    plateau = a_g * S * 2.5 / q
    safe = np.where(T > 0, T, 1.0)
    return np.select(
        [T < T_B, T <= T_C, T <= T_D],
        [
            a_g * S * (2.0 / 3.0 + T / T_B * (2.5 / q - 2.0 / 3.0)),
            np.full_like(T, plateau),
            np.maximum(plateau * T_C / safe, beta * a_g),
        ],
        np.maximum(plateau * T_C * T_D / safe**2, beta * a_g),
    )


@rule(
    clause="3.2.2.5, Eq. 3.13 to 3.16",
    tex=r"\q{S_a_reduced} = \q{a_g}\,\q{S}\begin{cases}\tfrac{2}{3} + \frac{T}{\q{T_B}}\left(\frac{2.5}{\q{q}} "
    r"- \tfrac{2}{3}\right) & T < \q{T_B}\\"
    r" 2.5/\q{q} & T \le \q{T_C}\\ \frac{2.5}{\q{q}}\frac{\q{T_C}}{T} & T \le \q{T_D}\\ "
    r"\frac{2.5}{\q{q}}\frac{\q{T_C}\,\q{T_D}}{T^2} & T > \q{T_D}\end{cases}"
    r"\ \ge \q{beta}\,\q{a_g}\text{ for }T > \q{T_C}",
)
def S_a_reduced(
    T_points: Array, a_g: float, S: float, T_B: float, T_C: float, T_D: float, q: float, beta: float
) -> Array:
    """Design spectrum S_d for elastic analysis, g, shape of `T_points` (s)."""
    return design(np.asarray(T_points, dtype=float), a_g, S, T_B, T_C, T_D, q, beta)


@rule(
    clause="3.2.2.3, Eq. 3.8 to 3.11", tex=r"\q{S_a_vertical} = S_{ve}(T),\ 3.0\,\q{a_vg_ratio}\,\q{a_g}\text{ at most}"
)
def S_a_vertical(T_points: Array, a_g: float, a_vg_ratio: float, eta: float) -> Array:
    """Vertical elastic response spectrum, g, shape of `T_points` (s): no soil factor in it."""
    T = np.asarray(T_points, dtype=float)
    a_vg = a_vg_ratio * a_g
    plateau = a_vg * eta * 3.0
    safe = np.where(T > 0, T, 1.0)
    T_B, T_C, T_D = tables.VERTICAL_T_B, tables.VERTICAL_T_C, tables.VERTICAL_T_D
    return np.select(
        [T < T_B, T <= T_C, T <= T_D],
        [a_vg * (1.0 + T / T_B * (eta * 3.0 - 1.0)), np.full_like(T, plateau), plateau * T_C / safe],
        plateau * T_C * T_D / safe**2,
    )


Q_VERTICAL = 1.5
"""3.2.2.5(6): behaviour factor of the vertical action for all materials and systems.

Unless a greater one is justified.
"""


@rule(
    clause="3.2.2.5(5) to (7), Eq. 3.13 to 3.16",
    tex=(
        r"\q{S_a_vertical_reduced} = S_d(\q{T_points})\text{ with }a_{vg},\ S = 1,\ q = 1.5\text{ and the "
        r"periods of Table 3.4}"
    ),
)
def S_a_vertical_reduced(T_points: Array, a_g: float, a_vg_ratio: float, beta: float, q: float) -> Array:
    """Vertical design spectrum, g, shape of `T_points` (s): the horizontal form with a_vg, S = 1.0 and q up to 1.5."""
    T_B, T_C, T_D = tables.VERTICAL_T_B, tables.VERTICAL_T_C, tables.VERTICAL_T_D
    T = np.asarray(T_points, dtype=float)
    return design(T, a_vg_ratio * a_g, 1.0, T_B, T_C, T_D, min(q, Q_VERTICAL), beta)


REFERENCE_RETURN_PERIOD = 475.0
"""Years, recommended (2.1(1)P)."""


def study_factor(site_specific: Mapping[str, Any], importance: float, reference: float) -> float:
    """Factor on the ordinates of a study: the importance factor where they are for the reference return period (years).

    Where the return period is not stated the reference one is assumed, and a factor below 1 is not applied.
    """
    stated = site_specific.get("return_period")
    if stated is None:
        return max(importance, 1.0)
    return importance if abs(stated - reference) < 0.5 else 1.0


@rule(clause="3.2.2.1(8), 3.2.3.1, 2.1(3)P", tex=r"\q{S_a} = \q{gamma_I}\,\text{study}(\q{T_points})", defines="S_a")
def S_a_of_study(T_points: Array, site_specific: Mapping[str, Any], gamma_I: float) -> Array:
    """Elastic spectrum of a site-specific study, g, shape of `T_points` (s); the code names no floor for it.

    With the importance factor where the study is for the reference return period.
    """
    factor = study_factor(site_specific, gamma_I, REFERENCE_RETURN_PERIOD)
    return np.asarray(factor * shared.read_points(T_points, site_specific, "site_specific"), dtype=float)


@rule(
    clause="3.2.2.5, on the elastic spectrum of the study",
    tex=r"\q{S_a_reduced} = S_e\,\frac{S_{d,\text{code}}}{S_{e,\text{code}}} \ge \q{beta}\,\q{a_g}\text{ beyond }T_C",
    defines="S_a_reduced",
)
def S_a_reduced_of_study(
    T_points: Array,
    site_specific: Mapping[str, Any],
    a_g: float,
    S: float,
    T_B: float,
    T_C: float,
    T_D: float,
    q: float,
    beta: float,
    gamma_I: float,
) -> Array:
    """Design spectrum from that of a study, g.

    Reduced at each period as the code reduces its own, with the lower bound beta a_g.
    """
    T = np.asarray(T_points, dtype=float)
    ratio = design(T, a_g, S, T_B, T_C, T_D, q, 0.0) / elastic(T, a_g, S, T_B, T_C, T_D, 1.0, None)
    ordinates: Array = S_a_of_study.function(T, site_specific, gamma_I) * ratio
    return np.where(T > T_C, np.maximum(ordinates, beta * a_g), ordinates)


@rule(clause="3.2.2.5, on the elastic spectrum of the study", tex=r"\q{S_a_T} = S_d(\q{T})", defines="S_a_T")
def S_a_T_of_study(
    T: float,
    site_specific: Mapping[str, Any],
    a_g: float,
    S: float,
    T_B: float,
    T_C: float,
    T_D: float,
    q: float,
    beta: float,
    gamma_I: float,
) -> Governed:
    """Ordinate of the design spectrum of the study at the period used, g."""
    value = S_a_reduced_of_study.function(np.array([T]), site_specific, a_g, S, T_B, T_C, T_D, q, beta, gamma_I)[0]
    return Governed(float(value), "study")


OF_STUDY = (S_a_of_study, S_a_reduced_of_study, S_a_T_of_study)


@rule(clause="3.1.2, 3.2.1, 4.3.3.5.2")
def ground_notes(
    ground_type: str, seismicity: str, a_g: float, a_vg_ratio: float, site_specific: dict[str, Any] | None = None
) -> list[str]:
    """What a reviewer should know about the ground motion values."""
    notes = []
    if site_specific is not None:
        notes.append(
            "elastic spectrum of a site-specific study, reduced as the code reduces its own; the code names no "
            "floor for it"
        )
        if site_specific.get("return_period") is None:
            notes.append(
                "the return period of the study is not stated: the reference one of 475 years is assumed, so "
                "that gamma_I applies"
            )
    if ground_type not in tables.GROUND[1]:
        notes.append(f"ground type {ground_type}: S, T_B, T_C, T_D have to come from a special study (3.1.2(4)P)")
    if seismicity != "not low":
        notes.append(f"seismicity {seismicity} (3.2.1(4), (5)P)")
    if exceeds(a_vg_ratio * a_g, 0.25):
        notes.append(
            "a_vg above 0.25 g: the vertical action counts for spans of 20 m, cantilevers over 5 m, "
            "prestressed members, "
            "beams that carry columns, and base isolation (4.3.3.5.2)"
        )
    return notes


RULES = (
    soil_by_measurement,
    gamma_I,
    a_g,
    S,
    T_B,
    T_C,
    T_D,
    beta,
    a_vg_ratio,
    seismicity,
    eta,
    S_a,
    S_a_damped,
    S_a_reduced,
    S_a_vertical,
    S_a_vertical_reduced,
    ground_notes,
)
