"""Site-specific ground motion of ASCE/SEI 7-10 (and 7-05), 21.3 and 21.4, where they word them otherwise than 7-16."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core.editions.asce7_10 import tables
from plumb_core.editions.asce7_10.spectrum import S_a
from plumb_core.editions.asce7_16 import site_specific as later
from plumb_core.editions.asce7_16.tables import interpolated
from plumb_core.limits import reaches
from plumb_core.rules import Array, Rule, cited, rule


def S_DS_21_4(T: Array, S_a: Array, site_class: str) -> float:
    """21.4: the ordinate at 0.2 s, not below 0.9 of any at a longer period."""
    longer = np.array([reaches(t, 0.2) for t in T.tolist()])
    return max(float(np.interp(0.2, T, S_a)), 0.9 * float(np.max(S_a[longer])))


def S_D1_21_4(T: Array, S_a: Array, site_class: str) -> float:
    """21.4: the greater of the ordinate at 1 s and twice that at 2 s."""
    later.inside(T, S_a, 1.0, 2.0)
    return max(float(np.interp(1.0, T, S_a)), 2.0 * float(np.interp(2.0, T, S_a)))


@rule(clause="21.3, Table 11.4-1", tex=r"\q{F_a} = \text{Table 11.4-1}", defines="F_a")
def F_a_of_floor(S_S: float, site_class_used: str) -> float:
    """F_a of the general spectrum that the floor of 21.3 takes; class F as class E."""
    return interpolated(tables.F_A, "E" if site_class_used == "F" else site_class_used, S_S)


@rule(clause="21.3, Table 11.4-2", tex=r"\q{F_v} = \text{Table 11.4-2}", defines="F_v")
def F_v_of_floor(S_1: float, site_class_used: str) -> float:
    """F_v of the general spectrum that the floor of 21.3 takes; class F as class E."""
    return interpolated(tables.F_V, "E" if site_class_used == "F" else site_class_used, S_1)


_FLOOR = (
    F_a_of_floor,
    F_v_of_floor,
    cited(later.S_DS_general, "11.4.4, for the floor of 21.3"),
    cited(later.S_D1_general, "11.4.4, for the floor of 21.3"),
    *later.MCE_OF_STUDY,
)


def declared(choices: Mapping[str, Any]) -> tuple[Rule, ...]:
    """Rules that replace those of 11.4 where the site declares a study."""
    return later.declared(choices, (S_DS_21_4, S_D1_21_4), _FLOOR, curve=S_a)
