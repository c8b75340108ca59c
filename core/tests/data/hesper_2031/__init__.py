"""Building Rules of the Hesper Isles, 2031: an edition that nothing else in the project knows of.

The tests lay this folder besides the other editions and change nothing else.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any

import numpy as np
from plumb_core.editions import shared
from plumb_core.editions.edition import Choice, Edition
from plumb_core.rules import Array, Governed, Rule, cited, rule, rule_set

ZONES = {"coast": 0.10, "ridge": 0.20}


@rule(clause="4.1", tex=r"\q{Z}")
def Z(zone: str) -> float:
    """Zone factor, g."""
    return ZONES[zone]


@rule(clause="4.2", tex=r"\q{S_a} = 2.5\,\q{Z}\,\min(1,\ 0.5/T)")
def S_a(T_points: Array, Z: float) -> Array:
    """Elastic ordinates, g."""
    return 2.5 * Z * np.minimum(1.0, 0.5 / np.maximum(T_points, 1e-9))


@rule(clause="4.3", tex=r"\q{S_a_reduced} = S_a/\q{R}")
def S_a_reduced(S_a: Array, R: float) -> Array:
    """Design ordinates, g."""
    return S_a / R


@rule(clause="5.1", tex=r"\q{T_a} = 0.05\,\q{h_n}^{0.75}")
def T_a(h_n: float) -> float:
    """Approximate period, s."""
    return 0.05 * h_n**0.75


@rule(clause="5.1", tex=r"\q{T_limit}")
def T_limit() -> float:
    """No limit."""
    return math.inf


@rule(clause="5.2", tex=r"\q{T} = \q{T_a}")
def T(T_a: float) -> Governed:
    """Period used, s."""
    return Governed(T_a, "T_a")


@rule(clause="5.3", tex=r"\q{coefficient} = 2.5\,\q{Z}\,\min(1,\ 0.5/\q{T})/\q{R}")
def coefficient(Z: float, T: float, R: float) -> Governed:
    """Base shear as a fraction of the weight."""
    return Governed(2.5 * Z * min(1.0, 0.5 / T) / R, "5.3-1")


@rule(clause="5.4", tex=r"\q{F} = \q{V}\,\frac{w_x h_x}{\sum w_i h_i}")
def F(w: Array, h_x: Array, V: float) -> Array:
    """Forces linear over the height, kN."""
    return np.asarray(V * w * h_x / np.sum(w * h_x))


@rule(clause="4")
def ground_notes() -> list[str]:
    """Nothing to note."""
    return []


@rule(clause="5")
def static_notes() -> list[str]:
    """Nothing to note."""
    return []


_SHARED = (shared.h_n, shared.h_x, shared.W, shared.V, shared.V_story, shared.M_story)
_RULES = rule_set(
    Z, S_a, S_a_reduced, T_a, T_limit, T, coefficient, F, ground_notes, static_notes, *(cited(r, "5") for r in _SHARED)
)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set: nothing that is declared changes it."""
    return _RULES


EDITION = Edition(
    id="hesper-2031",
    title="Building Rules of the Hesper Isles 2031",
    short="Hesper 2031",
    year=2031,
    rules=rules,
    inputs=("zone", "R"),
    period_types=(),
    ground_keys=("Z",),
    options={"zone": tuple(ZONES)},
    choices={"amendments": Choice("Circulars that hold", ((), (4,)))},
    sums={"F": "V"},
    side_by_side={"period": "T", "coefficient": "coefficient", "weight": "W", "base_shear": "V"},
    parameter_names={"Z": "isleszonefactor"},
)
