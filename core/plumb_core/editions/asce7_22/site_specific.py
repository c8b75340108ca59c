"""Site-specific ground motion of ASCE/SEI 7-22, 21.3 and 21.4, where it differs from 7-16: no site coefficients."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions.asce7_16 import site_specific as earlier
from plumb_core.editions.asce7_22 import ground
from plumb_core.editions.asce7_22.spectrum import ordinates
from plumb_core.editions.shared import read_points
from plumb_core.rules import Array, Rule, rule


def S_D1_21_4(T: Array, S_a: Array, site_class: str) -> float:
    """21.4: 0.9 of the greatest T S_a over 1 to 2 s (velocities above 1450 ft/s) or 1 to 5 s, not below S_a at 1 s."""
    chosen = earlier.inside(T, S_a, 1.0, 2.0 if site_class in ground.STIFF else 5.0)
    return max(0.9 * float(np.max(T[chosen] * S_a[chosen])), float(np.interp(1.0, T, S_a)))


@rule(clause="11.4.4, for the floor of 21.3", tex=r"\q{S_DS_general} = \tfrac{2}{3}\,\q{S_MS}")
def S_DS_general(S_MS: float) -> float:
    """Design acceleration at short periods of the general procedure, g."""
    return 2.0 / 3.0 * S_MS


@rule(clause="11.4.4, for the floor of 21.3", tex=r"\q{S_D1_general} = \tfrac{2}{3}\,\q{S_M1}")
def S_D1_general(S_M1: float) -> float:
    """Design acceleration at 1 s of the general procedure, g."""
    return 2.0 / 3.0 * S_M1


@rule(clause="21.3", tex=earlier.S_a_floored.tex, defines="S_a")
def S_a_floored_multi_period(
    T_points: Array, site_specific: Mapping[str, Any], mce: Mapping[str, Sequence[float]], T_L: float
) -> Array:
    """Site-specific design spectrum, g, not below 80 % of the multi-period one."""
    T = np.asarray(T_points, dtype=float)
    return np.maximum(read_points(T, site_specific, "site_specific"), earlier.FLOOR * ordinates(T, mce, T_L))


def declared(choices: Mapping[str, Any]) -> tuple[Rule, ...]:
    """Rules that replace those of 11.4 where the site declares a study."""
    curve = S_a_floored_multi_period if choices.get("mce") else earlier.S_a_floored
    return earlier.declared(choices, (earlier.S_DS_21_4, S_D1_21_4), (S_DS_general, S_D1_general), curve)
