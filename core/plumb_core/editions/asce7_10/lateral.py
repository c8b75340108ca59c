"""Equivalent lateral force procedure of ASCE/SEI 7-10, section 12.8, and 1.4 for design category A."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.asce7_16 import lateral as later
from plumb_core.editions.asce7_16.systems import PERIOD_TYPES as TYPES
from plumb_core.limits import within
from plumb_core.rules import Array, Candidate, Governed, bounded, cited, rule


@rule(
    clause="12.8.2.1, Eq. 12.8-10",
    tex=r"\q{C_w} = \frac{100}{\q{A_B}} \sum \left(\frac{h_n}{h_i}\right)^2 \frac{A_i}{1 + 0.83\,(h_i/D_i)^2}",
)
def C_w(walls: list[dict[str, float]], A_B: float, h_n: float) -> float:
    """Effective wall area coefficient, %, from web areas A_i (m2), lengths D_i and heights h_i (m) of the walls.

    A wall without h_i is adopted the full height.
    """
    heights = [wall.get("h_i") or h_n for wall in walls]
    return (
        100.0
        / A_B
        * sum(
            (h_n / h_i) ** 2 * wall["A_i"] / (1.0 + 0.83 * (h_i / wall["D_i"]) ** 2)
            for wall, h_i in zip(walls, heights, strict=True)
        )
    )


@rule(clause="12.8.2.1, Eq. 12.8-7 to 12.8-9", tex=later.T_a.tex)
def T_a(
    h_n: float, h: Array, C_t: float, x: float, period_type: str, T_a_formula: str = "12.8-7", C_w: float | None = None
) -> Governed:
    """Approximate fundamental period, s, by the declared equation.

    12.8-8 requires an *average* story height of at least 10 ft; 12.8-9 has no limit of height.
    """
    if T_a_formula == "12.8-8":
        return later.tenth_of_stories(h, period_type, float(np.mean(h)))
    if T_a_formula == "12.8-9":
        return later.wall_period(h_n, C_w)
    return Governed(C_t * h_n**x, "12.8-7")


CAP = later.CAP
CAP_NOT_MET = "11.4.4, conditions of 12.8.1.3 not met"


def cap_lacks(T: float, N: int, regular: bool | None) -> list[str]:
    """Conditions of 12.8.1.3 that are not met, in words; what is not stated is not met."""
    tests = [
        (regular is True, "regular" + (" (not stated)" if regular is None else "")),
        (N <= 5, "at most five stories"),
        (within(T, 0.5), "T <= 0.5 s"),
    ]
    return [words for met, words in tests if not met]


@rule(clause="11.4.4", tex=r"\q{S_DS_static} = \q{S_DS}")
def S_DS_static(S_DS: float) -> Governed:
    """S_DS used for C_s, g: the full one, for 12.8.1.3 is a permission that the brief does not declare."""
    return Governed(S_DS, "11.4.4", (Candidate("11.4.4", S_DS, "base"),))


@rule(
    clause="12.8.1.3, as declared",
    tex=r"\q{S_DS_static} = \q{S_DS}\,\frac{\min(\q{S_S},\ 1.5)}{\q{S_S}}\ \text{where its conditions hold}",
    defines="S_DS_static",
)
def S_DS_capped(S_DS: float, S_S: float, T: float, N: int, regular: bool | None = None) -> Governed:
    """S_DS used for C_s, g: with S_S not above 1.5, for regular structures of at most five stories with T <= 0.5 s.

    F_a is constant above S_S = 1.25, so S_DS is in proportion to S_S there.  What is not stated is not met.
    """
    if cap_lacks(T, N, regular):
        return Governed(S_DS, CAP_NOT_MET, (Candidate(CAP_NOT_MET, S_DS, "base"),))
    full = Governed(S_DS, "11.4.4", (Candidate("11.4.4", S_DS, "base"),))
    return bounded(full, upper=Governed(S_DS * min(1.5 / S_S, 1.0), CAP))


def plateau_notes(S_DS_static: Governed, lacks: list[str]) -> list[str]:
    """A note where 12.8.1.3 is declared: that S_DS for C_s is reduced, or which of its conditions is not met."""
    if S_DS_static.governed_by == CAP_NOT_MET:
        return [f"12.8.1.3 is declared, but not met: {', '.join(lacks)}; the full S_DS is used"]
    return later.plateau_notes(S_DS_static, lacks)


@rule(clause="12.2.1, 12.6, 12.8.1.3")
def static_notes(
    design_category: str,
    T: float,
    T_S: float,
    h_n: float,
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
    """What a reviewer should know about the static method here."""
    return [
        *plateau_notes(S_DS_static, cap_lacks(T, N, regular)),
        *later.permission(design_category, T, T_S, h_n, N, risk_category, regular_known, irregular_types, light_frame),
        *shared.permission_note(system_permission),
        *shared.period_type_note(TYPES, lateral_system, period_type, "Table 12.8-2"),
        *later.assumed(rho),
    ]


NAMES = ("2.3.2-5", "2.3.2-7", "2.3.2-5 with overstrength", "2.3.2-7 with overstrength")


@rule(clause="2.3.2, 12.4.2, 12.4.3; 1.4 for category A", tex=r"(1.2 + 0.2\,\q{S_DS})\,D + \q{rho}\,Q_E + L + 0.2\,S")
def load_combinations(
    S_DS: float, design_category: str, rho: float, Omega_0: float | None = None
) -> list[dict[str, Any]]:
    """Combinations 5 and 7 of 2.3.2, plain and with overstrength."""
    return later.combinations(design_category, S_DS, rho, Omega_0, 0.2, NAMES)


@rule(clause="2.3.2, 12.4.2.2 as declared, 12.4.3", tex=load_combinations.tex, defines="load_combinations")
def load_combinations_low(
    S_DS: float, design_category: str, rho: float, Omega_0: float | None = None
) -> list[dict[str, Any]]:
    """As `load_combinations`, without vertical action for S_DS <= 0.125, as 12.4.2.2 permits and the brief declares."""
    return later.combinations(design_category, 0.0 if within(S_DS, 0.125) else S_DS, rho, Omega_0, 0.2, NAMES)


REPLACED = (
    C_w,
    load_combinations,
    T_a,
    S_DS_static,
    static_notes,
    cited(later.coefficient, "12.8.1; 1.4.3 for category A"),
    cited(later.F, "12.8.3, Eq. 12.8-11 and 12.8-12; 1.4.3 for category A"),
)
RULES = (*later.RULES, *REPLACED)
