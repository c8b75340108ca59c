"""Design response spectrum of ASCE/SEI 7-22, 11.4.5: multi-period where the values are given, else two-period."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np

from plumb_core.editions.asce7_16 import spectrum as earlier
from plumb_core.rules import Array, cited, rule


def ordinates(T: Array, mce: Mapping[str, Sequence[float]], T_L: float) -> Array:
    """Two thirds of the multi-period MCE_R spectrum, g.

    Linear between its points, beyond the last as 1/T, then 1/T^2.
    """
    periods, values = np.asarray(mce["T"], dtype=float), np.asarray(mce["S_a"], dtype=float)
    last = periods[-1]
    beyond = np.maximum(T, last)
    tail = values[-1] * last / beyond * np.minimum(1.0, max(T_L, last) / beyond)
    return np.asarray(2.0 / 3.0 * np.where(last >= T, np.interp(T, periods, values), tail))


@rule(clause="11.4.5.1", tex=r"\q{S_a} = \tfrac{2}{3}\,\q{mce}(\q{T_points})", defines="S_a")
def S_a_multi_period(T_points: Array, mce: Mapping[str, Sequence[float]], T_L: float) -> Array:
    """Multi-period design spectral acceleration, g, shape of `T_points` (s)."""
    return ordinates(np.asarray(T_points, dtype=float), mce, T_L)


TWO_PERIOD = (
    cited(earlier.T_0, "11.4.5.2"),
    cited(earlier.T_S, "11.4.5"),
    cited(earlier.S_a, "11.4.5.2"),
    cited(earlier.S_a_reduced, "12.9.1.2"),
)
MULTI_PERIOD = (S_a_multi_period,)
