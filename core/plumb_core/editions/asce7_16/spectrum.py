"""Design response spectrum of ASCE/SEI 7-16, 11.4.6."""

from __future__ import annotations

import numpy as np

from plumb_core.editions.asce7_16 import tables
from plumb_core.rules import Array, rule


@rule(clause="11.4.6", tex=r"\q{T_0} = 0.2\,\frac{\q{S_D1}}{\q{S_DS}}")
def T_0(S_D1: float, S_DS: float) -> float:
    """Start of the constant-acceleration branch, s."""
    return 0.2 * S_D1 / S_DS


@rule(clause="11.4.6", tex=r"\q{T_S} = \frac{\q{S_D1}}{\q{S_DS}}")
def T_S(S_D1: float, S_DS: float) -> float:
    """End of the constant-acceleration branch, s."""
    return S_D1 / S_DS


@rule(
    clause="11.4.6, Eq. 11.4-5 to 11.4-7",
    tex=r"\q{S_a} = \begin{cases}\q{S_DS}\,(0.4 + 0.6\,\q{T_points}/\q{T_0}) & \q{T_points} < \q{T_0}\\ "
    r"\q{S_DS} & \q{T_points} \le \q{T_S}\\"
    r" \q{S_D1}/\q{T_points} & \q{T_points} \le \q{T_L}\\ \q{S_D1}\,\q{T_L}/\q{T_points}^2 & \q{T_points} > "
    r"\q{T_L}\end{cases}",
)
def S_a(T_points: Array, S_DS: float, S_D1: float, T_0: float, T_S: float, T_L: float) -> Array:
    """Design spectral acceleration, g, shape of `T_points` (s); 5 % damping, neither importance nor R in it."""
    T = np.asarray(T_points, dtype=float)
    # np.select evaluates all branches; short periods would divide by zero in those it does not take there
    safe = np.where(T > T_S, T, 1.0)
    return np.select(
        [T < T_0, T <= T_S, T <= T_L],
        [S_DS * (0.4 + 0.6 * T / T_0), np.full_like(T, S_DS), S_D1 / safe],
        S_D1 * T_L / safe**2,
    )


@rule(clause="12.9.1.2", tex=r"\q{S_a_reduced} = \frac{S_a}{\q{R}/\q{I_e}}")
def S_a_reduced(S_a: Array, R: float, I_e: float) -> Array:
    """Ordinates for modal strength design, g: the design spectrum divided by R/I_e."""
    return np.asarray(S_a, dtype=float) / (R / I_e)


@rule(
    clause="11.9.2, 11.9.3, Eq. 11.9-1 to 11.9-4, Table 11.9-1",
    tex=r"\q{S_a_vertical} = \tfrac{2}{3}\,S_{aMv},\ S_{aMv} \le 0.8\,C_v\,\q{S_MS},\ \ge 0.5\,S_{aM}",
)
def S_a_vertical(T_points: Array, S_S: float, S_MS: float, site_class_used: str, S_a: Array) -> Array:
    """Vertical design spectral acceleration, g, shape of `T_points` (s); beyond 2 s its last branch goes on."""
    T = np.asarray(T_points, dtype=float)
    plateau = 0.8 * tables.interpolated(tables.C_V, site_class_used, S_S) * S_MS
    rise = plateau * (0.375 + 25.0 * (T - 0.025))
    fall = plateau * (0.15 / np.maximum(T, 0.15)) ** 0.75
    vertical = np.select([T <= 0.025, T <= 0.05], [np.full_like(T, 0.375 * plateau), rise], fall)
    # half of the horizontal MCE_R ordinate at least, which is 1.5 times the design one
    return np.asarray(2.0 / 3.0 * np.maximum(vertical, 0.5 * 1.5 * np.asarray(S_a)))


RULES = (T_0, T_S, S_a, S_a_reduced, S_a_vertical)
