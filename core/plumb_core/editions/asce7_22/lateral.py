"""Equivalent lateral force procedure of ASCE/SEI 7-22, section 12.8: as 7-16 with its equations moved on by one.

Method 1 (multi-period spectrum) reads C_s off the spectrum; Method 2 (two-period) has the branches of 7-16.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import podiums, shared
from plumb_core.editions.asce7_16 import lateral as earlier
from plumb_core.editions.asce7_16.deformation import FOR_DRIFT
from plumb_core.editions.asce7_16.systems import PERIOD_TYPES as TYPES
from plumb_core.editions.asce7_22.spectrum import ordinates
from plumb_core.limits import within
from plumb_core.rules import Array, Governed, bounded, cited, renamed, rule

_NEXT = {"12.8-7": "12.8-8", "12.8-8": "12.8-9", "12.8-9": "12.8-10"}
_BEFORE = {new: old for old, new in _NEXT.items()}


@rule(clause="12.8.2.1, Eq. 12.8-8 to 12.8-10", tex=earlier.T_a.tex)
def T_a(
    h_n: float, h: Array, C_t: float, x: float, period_type: str, T_a_formula: str = "12.8-8", C_w: float | None = None
) -> Governed:
    """Approximate fundamental period, s, by the declared equation (12.8-8 C_t h_n^x, 12.8-9 0.1 N, 12.8-10 walls)."""
    earlier_T_a: Governed = earlier.T_a.function(
        h_n, h, C_t, x, period_type, _BEFORE.get(T_a_formula, T_a_formula), C_w
    )
    return Governed(earlier_T_a.value, _NEXT[earlier_T_a.governed_by])


@rule(clause="12.8.1.1, Eq. 12.8-3", tex=earlier.C_s_plateau.tex)
def C_s_plateau(S_DS_static: float, R: float, I_e: float) -> Governed:
    """Coefficient before bounds, Method 2."""
    return Governed(S_DS_static / (R / I_e), "12.8-3")


@rule(clause="12.8.1.1, Eq. 12.8-4 and 12.8-5", tex=earlier.C_s_upper.tex)
def C_s_upper(S_D1: float, T: float, T_L: float, R: float, I_e: float) -> Governed:
    """Upper bound of the coefficient, Method 2."""
    bound: Governed = earlier.C_s_upper.function(S_D1, T, T_L, R, I_e)
    return Governed(bound.value, "12.8-4" if within(T, T_L) else "12.8-5")


@rule(clause="12.8.1.1, Eq. 12.8-2", tex=r"\q{C_s_plateau} = \frac{S_a(\q{T})}{\q{R}/\q{I_e}}", defines="C_s_plateau")
def C_s_from_spectrum(T: float, mce: Mapping[str, Sequence[float]], T_L: float, R: float, I_e: float) -> Governed:
    """Coefficient by Method 1: the multi-period ordinate at T; below the period of its peak, that of the peak."""
    peak = float(mce["T"][int(np.argmax(mce["S_a"]))])
    S_a = float(ordinates(np.array([max(T, peak)]), mce, T_L)[0])
    return Governed(S_a / (R / I_e), "12.8-2")


@rule(clause="12.8.1.1", tex=r"\q{C_s} = \max(\q{C_s_plateau},\ \q{C_s_lower})", defines="C_s")
def C_s_method_1(C_s_plateau: Governed, C_s_lower: Governed) -> Governed:
    """Seismic response coefficient by Method 1: the spectrum has no upper bound beside itself."""
    return bounded(C_s_plateau, lower=C_s_lower)


@rule(clause="12.8.1.1, Eq. 12.8-6 and 12.8-7", tex=earlier.C_s_lower.tex)
def C_s_lower(S_DS_static: float, I_e: float, S_1: float, R: float) -> Governed:
    """Lower bound of the coefficient; Eq. 12.8-7 takes S_1 of site class BC."""
    bound: Governed = earlier.C_s_lower.function(S_DS_static, I_e, S_1, R)
    return Governed(bound.value, "12.8-6" if bound.governed_by == "12.8-5" else "12.8-7")


@rule(clause="12.6")
def static_permitted() -> str:
    """Whether the static method is permitted: this edition permits it for all structures."""
    return "permitted"


@rule(clause="12.8.1.1", defines="C_s_upper_drift")
def C_s_upper_drift_none() -> Governed:
    """Upper bound of the coefficient for drift by Method 1: there is none other than the spectrum."""
    return Governed(math.inf, "none")


NAMES = ("2.3.6-6", "2.3.6-7", "2.3.6-6 with overstrength", "2.3.6-7 with overstrength")


@rule(
    clause="2.3.6, 12.4.2, 12.4.3; 1.4 for category A",
    tex=r"(1.2 + 0.2\,\q{S_DS_static})\,D + \q{rho}\,Q_E + L + 0.15\,S",
)
def load_combinations(
    S_DS_static: float, design_category: str, rho: float, Omega_0: float | None = None
) -> list[dict[str, Any]]:
    """Combinations 6 and 7 of 2.3.6, with 0.15 S, plain and with overstrength."""
    return earlier.combinations(design_category, S_DS_static, rho, Omega_0, 0.15, NAMES)


@rule(clause="2.3.6, 12.4.2.2 as declared, 12.4.3", tex=load_combinations.tex, defines="load_combinations")
def load_combinations_low(
    S_DS_static: float, design_category: str, rho: float, Omega_0: float | None = None
) -> list[dict[str, Any]]:
    """As `load_combinations`, without vertical action in category B, as 12.4.2.2 permits and the brief declares."""
    return earlier.combinations(
        design_category, 0.0 if design_category == "B" else S_DS_static, rho, Omega_0, 0.15, NAMES
    )


@rule(clause="12.2.1, 12.6, 12.8.1.3")
def static_notes(
    T: float,
    N: int,
    site_class_used: str,
    risk_category: str,
    S_DS_static: Governed,
    regular: bool | None = None,
    system_permission: str = "",
    lateral_system: str = "",
    period_type: str = "",
    rho: Governed | None = None,
) -> list[str]:
    """What a reviewer should know about the static method here; this edition permits it for all structures."""
    return [
        *earlier.plateau_notes(S_DS_static, earlier.cap_lacks(T, N, site_class_used, risk_category, regular, rho)),
        *shared.permission_note(system_permission),
        *shared.period_type_note(TYPES, lateral_system, period_type, "Table 12.8-2"),
        *earlier.assumed(rho),
    ]


@rule(clause=static_notes.clause, defines="static_notes")
def static_notes_method_1(
    system_permission: str = "",
    lateral_system: str = "",
    period_type: str = "",
    rho: Governed | None = None,
    S_DS_static: Governed | None = None,
) -> list[str]:
    """What a reviewer should know where C_s is read off the multi-period spectrum: 12.8.1.3 does not reduce it."""
    declared = S_DS_static is not None and S_DS_static.governed_by in (earlier.CAP, earlier.CAP_NOT_MET)
    cap = "12.8.1.3 is declared: Method 1 reads C_s off the multi-period spectrum, so that it is not reduced"
    return [
        *([cap] if declared else []),
        *shared.permission_note(system_permission),
        *shared.period_type_note(TYPES, lateral_system, period_type, "Table 12.8-2"),
        *earlier.assumed(rho),
    ]


@rule(clause="12.2.3.2", defines="two_stage")
def two_stage_method_1(
    podium: Mapping[str, Any],
    w: Array,
    h: Array,
    R: float,
    rho: float,
    mce: Mapping[str, Sequence[float]],
    S_DS: float,
    S_1: float,
    T_L: float,
    I_e: float,
    period_type: str = "",
    C_u: float | None = None,
) -> dict[str, Any]:
    """Two-stage analysis with the coefficients of Method 1."""

    def coefficient_of(T: float, R_part: float) -> Governed:
        return bounded(
            C_s_from_spectrum.function(T, mce, T_L, R_part, I_e), lower=C_s_lower.function(S_DS, I_e, S_1, R_part)
        )

    limit = earlier.limit_of_part(podium, period_type, C_u)
    return podiums.two_stage(podium, w, h, R, rho, coefficient_of, earlier.k.function, "12.2.3.2", limit)


RULES = (
    *earlier.RULES,
    cited(earlier.C_w, "12.8.2.1, Eq. 12.8-11"),
    T_a,
    C_s_plateau,
    C_s_upper,
    C_s_lower,
    cited(earlier.F, "12.8.3, Eq. 12.8-12 and 12.8-13; 1.4.2 for category A"),
    cited(shared.V_story, "12.8.4, Eq. 12.8-14"),
    renamed(C_s_plateau, FOR_DRIFT),
    renamed(C_s_upper, FOR_DRIFT),
    load_combinations,
    static_permitted,
    static_notes,
)
METHOD_1 = (
    renamed(C_s_from_spectrum, FOR_DRIFT),
    C_s_upper_drift_none,
    C_s_from_spectrum,
    C_s_method_1,
    two_stage_method_1,
    static_notes_method_1,
)
