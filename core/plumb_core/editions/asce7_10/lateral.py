"""Equivalent lateral force procedure of ASCE/SEI 7-10, section 12.8, and 1.4 for design category A."""

from __future__ import annotations

from typing import Any

import numpy as np

from plumb_core.editions.asce7_16 import lateral as later
from plumb_core.rules import Array, Candidate, Governed, bounded, cited, rule


@rule(
    clause="12.8.2.1, Eq. 12.8-10",
    tex=r"\q{C_w} = \frac{100}{\q{A_B}} \sum \left(\frac{h_n}{h_i}\right)^2 \frac{A_i}{1 + 0.83\,(h_i/D_i)^2}",
)
def C_w(walls: list[dict[str, float]], A_B: float, h_n: float) -> float:
    """Effective wall area coefficient, %, from web areas A_i (m2), lengths D_i and heights h_i (m) of the walls.

    A wall without h_i is taken over the full height.
    """
    heights = [wall.get("h_i") or h_n for wall in walls]
    return 100.0 / A_B * sum(
        (h_n / h_i) ** 2 * wall["A_i"] / (1.0 + 0.83 * (h_i / wall["D_i"]) ** 2)
        for wall, h_i in zip(walls, heights, strict=True)
    )  # fmt: skip


@rule(clause="12.8.2.1, Eq. 12.8-7 to 12.8-9", tex=later.T_a.tex)
def T_a(
    h_n: float, h: Array, C_t: float, x: float, period_type: str, T_a_formula: str = "12.8-7", C_w: float | None = None
) -> Governed:
    """Approximate fundamental period, s, by the declared equation.

    12.8-8 asks for an *average* story height of at least 10 ft; 12.8-9 has no limit of height.
    """
    if T_a_formula == "12.8-8":
        return later.tenth_of_stories(h, period_type, float(np.mean(h)))
    if T_a_formula == "12.8-9":
        return later.wall_period(h_n, C_w)
    return Governed(C_t * h_n**x, "12.8-7")


@rule(clause="12.8.1.3", tex=r"\q{S_DS_static} = \tfrac{2}{3}\,\q{F_a}\,\min(\q{S_S},\ 1.5)\ \text{where permitted}")
def S_DS_static(S_DS: float, F_a: float, S_S: float, T: float, N: int, regular: bool = False) -> Governed:
    """S_DS used for C_s, g: from S_S not above 1.5 for regular structures of at most five stories with T <= 0.5 s.

    What isn't stated isn't met.
    """
    full = Governed(S_DS, "11.4.4", (Candidate("11.4.4", S_DS, "base"),))
    if not (regular and N <= 5 and T <= 0.5):
        return full
    return bounded(full, upper=Governed(2.0 / 3.0 * F_a * min(S_S, 1.5), "12.8.1.3"))


@rule(clause="12.6, 12.8.1.3")
def static_notes(
    design_category: str, T: float, T_S: float, h_n: float, N: int, risk_category: str, S_DS_static: Governed,
    regular: bool | None = None, light_frame: bool = False,
) -> list[str]:  # fmt: skip
    """What a reviewer should know about the static method here."""
    return later.reduced_plateau(S_DS_static) + later.permission(
        design_category, T, T_S, h_n, N, risk_category, regular, light_frame
    )


@rule(clause="2.3.2, 12.4.2, 12.4.3", tex=r"(1.2 + 0.2\,\q{S_DS})\,D + \q{rho}\,Q_E + L + 0.2\,S")
def load_combinations(
    S_DS: float, design_category: str, rho: float | None = None, Omega_0: float | None = None
) -> list[dict[str, Any]]:
    """Combinations 5 and 7 of 2.3.2, plain and with overstrength; no vertical action for S_DS <= 0.125 (12.4.2.2)."""
    vertical = 0.0 if S_DS <= 0.125 else S_DS
    return later.combinations(vertical, later.stated_redundancy(rho, design_category), Omega_0, 0.2,
                              ("2.3.2-5", "2.3.2-7", "2.3.2-5 with overstrength", "2.3.2-7 with overstrength"))  # fmt: skip


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
