"""Design response spectrum of ASCE/SEI 7-16, 11.4.6."""

from __future__ import annotations

import numpy as np

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
    tex=r"\q{S_a} = \begin{cases}\q{S_DS}\,(0.4 + 0.6\,\q{T_points}/\q{T_0}) & \q{T_points} < \q{T_0}\\ \q{S_DS} & \q{T_points} \le \q{T_S}\\"
    r" \q{S_D1}/\q{T_points} & \q{T_points} \le \q{T_L}\\ \q{S_D1}\,\q{T_L}/\q{T_points}^2 & \q{T_points} > \q{T_L}\end{cases}",
)
def S_a(T_points: Array, S_DS: float, S_D1: float, T_0: float, T_S: float, T_L: float) -> Array:
    """Design spectral acceleration, g, shape of `T_points` (s); 5 % damping, neither importance nor R in it."""
    T = np.asarray(T_points, dtype=float)
    # np.select evaluates all branches; short periods would divide by zero in those it doesn't take there
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


RULES = (T_0, T_S, S_a, S_a_reduced)
