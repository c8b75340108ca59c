"""Equivalent lateral force procedure of ASCE/SEI 7-05, section 12.8, and 11.7 for design category A."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.asce7_10 import lateral as next_edition
from plumb_core.editions.asce7_16 import lateral as later
from plumb_core.editions.asce7_16.systems import PERIOD_TYPES as LATER_TYPES
from plumb_core.limits import reaches, within
from plumb_core.rules import Array, Candidate, Governed, cited, rule


@rule(clause="12.8.2.1, Eq. 12.8-7 to 12.8-9", tex=later.T_a.tex)
def T_a(
    h_n: float, h: Array, C_t: float, x: float, period_type: str, T_a_formula: str = "12.8-7", C_w: float | None = None
) -> Governed:
    """Approximate fundamental period, s, by the declared equation; 12.8-8 requires 10 ft of *every* story."""
    if T_a_formula == "12.8-8":
        return later.tenth_of_stories(h, period_type, float(np.min(h)))
    if T_a_formula == "12.8-9":
        return later.wall_period(h_n, C_w)
    return Governed(C_t * h_n**x, "12.8-7")


@rule(clause="12.8.1; 11.7.2 for category A", tex=later.coefficient.tex)
def coefficient(C_s: Governed, design_category: str) -> Governed:
    """Lateral force as a fraction of the seismic weight: C_s, or 0.01 in design category A (Eq. 11.7-1)."""
    if design_category == "A":
        return Governed(0.01, "11.7-1", (Candidate("11.7-1", 0.01, "base"),))
    return C_s


def permission(
    design_category: str,
    T: float,
    T_S: float,
    N: int,
    risk_category: str,
    regular: str,
    types: Sequence[str],
    light_frame: bool,
) -> list[str]:
    """What Table 12.6-1 of this edition says of the static method here; empty where it is permitted."""
    # all structures of light-frame construction are permitted
    if design_category not in "DEF" or light_frame or (risk_category in ("I", "II") and N <= 2):
        return []
    if reaches(T, 3.5 * T_S):
        return ["Table 12.6-1: T >= 3.5 T_S in category D to F; the static method is not permitted"]
    if not regular:
        return ["Table 12.6-1: irregularities are not stated, so permission of the static method is open"]
    return later.irregular_in_table(types) if regular == "irregular" else []


@rule(clause="12.6, Table 12.6-1")
def static_permitted(
    design_category: str,
    T: float,
    T_S: float,
    N: int,
    risk_category: str,
    regular_known: str,
    irregular_types: Sequence[str],
    light_frame: bool = False,
) -> str:
    """Whether the static method is permitted."""
    words = permission(design_category, T, T_S, N, risk_category, regular_known, irregular_types, light_frame)
    return later.said_of_method(words)


@rule(clause="12.2.1, 12.6, 12.8.1.3")
def static_notes(
    design_category: str,
    T: float,
    T_S: float,
    N: int,
    risk_category: str,
    S_DS_static: Governed,
    regular_known: str,
    irregular_types: Sequence[str],
    regular: bool | None = None,
    light_frame: bool = False,
    system_permission: str = "",
    lateral_system: str = "",
    period_type: str = "",
    rho: Governed | None = None,
) -> list[str]:
    """What a reviewer should know about the static method here; Table 12.6-1 of this edition requires T < 3.5 T_S."""
    notes = next_edition.plateau_notes(S_DS_static, next_edition.cap_lacks(T, N, regular))
    notes += shared.permission_note(system_permission)
    notes += shared.period_type_note(PERIOD_TYPES, lateral_system, period_type, "Table 12.8-2")
    notes += later.assumed(rho)
    return notes + permission(design_category, T, T_S, N, risk_category, regular_known, irregular_types, light_frame)


PERIOD_TYPES = tuple((name, tuple(t for t in types if t != "steel_brbf") or ("other",)) for name, types in LATER_TYPES)
"""As in 7-16; buckling-restrained braces have no row of their own here."""
NAMES = ("12.4.2.3-5", "12.4.2.3-7", "12.4.3.2-5", "12.4.3.2-7")


@rule(clause="12.4.2.3, 12.4.3.2; 11.7 for category A", tex=next_edition.load_combinations.tex)
def load_combinations(
    S_DS: float, design_category: str, rho: float, Omega_0: float | None = None
) -> list[dict[str, Any]]:
    """Combinations 5 and 7 of 12.4.2.3 (with 1.6 H where earth pressure acts), and those with overstrength."""
    return later.combinations(design_category, S_DS, rho, Omega_0, 0.2, NAMES)


@rule(
    clause="12.4.2.2 as declared, 12.4.2.3, 12.4.3.2",
    tex=next_edition.load_combinations.tex,
    defines="load_combinations",
)
def load_combinations_low(
    S_DS: float, design_category: str, rho: float, Omega_0: float | None = None
) -> list[dict[str, Any]]:
    """As `load_combinations`, without vertical action for S_DS <= 0.125, as 12.4.2.2 permits and the brief declares."""
    return later.combinations(design_category, 0.0 if within(S_DS, 0.125) else S_DS, rho, Omega_0, 0.2, NAMES)


RULES = (
    *next_edition.RULES,
    later.two_stage_by("12.2.3.1"),
    load_combinations,
    T_a,
    coefficient,
    static_permitted,
    static_notes,
    cited(later.F, "12.8.3, Eq. 12.8-11 and 12.8-12; 11.7.2 for category A"),
    cited(later.C_s_lower, "12.8.1.1, Eq. 12.8-5 (Supplement 2) and 12.8-6"),
)
