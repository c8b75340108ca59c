"""Behaviour factors and the lateral force method of EN 1998-1:2004, 4.3.3.2, 5.2.2.2, 6.3.2."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.en1998_1 import tables
from plumb_core.editions.en1998_1.ground import design
from plumb_core.errors import RuleRefused
from plumb_core.rules import Array, Candidate, Governed, bounded, cited, rule


@rule(clause="5.2.2.2(5), 6.3.2(3)", tex=r"\q{alpha_u_1} = \text{default of }\q{lateral_system}")
def alpha_u_1(lateral_system: str, regular_in_plan: bool = True) -> float:
    """Overstrength ratio: the default of the system; not regular in plan, the mean of it and 1.0."""
    ratio = tables.BEHAVIOUR[lateral_system].ratio
    if ratio is None:
        raise RuleRefused(
            "alpha_u_1", f"no default overstrength ratio is held for {lateral_system}", "Give alpha_u_1 (1.0 is safe)."
        )
    return ratio if regular_in_plan else (1.0 + ratio) / 2.0


@rule(clause="5.2.2.2(11)P", tex=r"\q{k_w} = \frac{1 + \q{alpha_0}}{3},\ 0.5 \le k_w \le 1;\ 1\text{ for frames}")
def k_w(lateral_system: str, alpha_0: float | None = None) -> float:
    """Factor for the prevailing failure mode of walls; without the aspect ratio of the walls, 1."""
    if not tables.BEHAVIOUR[lateral_system].walls or alpha_0 is None:
        return 1.0
    return min(max((1.0 + alpha_0) / 3.0, 0.5), 1.0)


@rule(
    clause="Tables 5.1, 6.2, 7.2, 8.1, 9.1",
    tex=r"\q{q_0} = \text{table}(\q{lateral_system},\ \q{ductility_class})\times\q{alpha_u_1}",
)
def q_0(lateral_system: str, ductility_class: str, alpha_u_1: float) -> float:
    """Basic value of the behaviour factor, with the overstrength ratio where the table has it."""
    row = tables.BEHAVIOUR[lateral_system]
    value = row.q_0[ductility_class]
    if value is None:
        raise RuleRefused(
            "ductility_class",
            f"{row.title} have no behaviour factor in class {ductility_class}",
            "Take DCM for this system.",
        )
    return value * alpha_u_1 if row.multiplied[ductility_class] else value


@rule(
    clause="5.2.2.2(1)P, Eq. 5.1; 4.2.3.1(7)",
    tex=r"\q{q} = \q{q_0}\,\q{k_w} \ge 1.5,\ \times 0.8\text{ if irregular in elevation}",
)
def q(q_0: float, k_w: float, ductility_class: str, regular_in_elevation: bool = True) -> float:
    """Behaviour factor in the direction, at least 1.5."""
    if ductility_class == "DCL":
        return 1.5
    return max(q_0 * k_w * (1.0 if regular_in_elevation else 0.8), 1.5)


@rule(clause="4.3.3.2.2(3)", tex=r"\q{C_t} = 4.3.3.2.2(3)(\q{period_type})")
def C_t(period_type: str) -> float:
    """Coefficient of the approximate period, for heights in metres."""
    return tables.C_T[period_type]


@rule(clause="4.3.3.2.2(4), Eq. 4.8", tex=r"\q{A_c} = \sum A_i\,(0.2 + l_{wi}/\q{h_n})^2,\ l_{wi}/H \le 0.9")
def A_c(walls: Sequence[Mapping[str, float]], h_n: float) -> float:
    """Total effective area of the walls of the first story, m2, from areas A_i (m2) and lengths D_i (m)."""
    return float(sum(wall["A_i"] * (0.2 + min(wall["D_i"] / h_n, 0.9)) ** 2 for wall in walls))


@rule(clause="4.3.3.2.2, Eq. 4.6, 4.7, 4.9", tex=r"\q{T_a} = \q{C_t}\,H^{3/4}")
def T_a(
    h_n: float, C_t: float, T_a_formula: str = "4.6", A_c: float | None = None, d_gravity: float | None = None
) -> Governed:
    """Approximate fundamental period, s, by the declared equation.

    4.6: C_t H^(3/4).  4.7: with C_t = 0.075/sqrt(A_c) for concrete or masonry walls.  4.9: 2 sqrt(d), d (m) the top
    displacement under the gravity loads applied horizontally.
    """
    if T_a_formula == "4.7":
        if A_c is None:
            raise RuleRefused("walls", "Eq. 4.7 needs the walls", "Give walls (A_i, D_i), or take Eq. 4.6.")
        return Governed(0.075 / A_c**0.5 * h_n**0.75, "4.7")
    if T_a_formula == "4.9":
        if d_gravity is None:
            raise RuleRefused(
                "d_gravity", "Eq. 4.9 needs the top displacement", "Give d_gravity in m, or take Eq. 4.6."
            )
        return Governed(2.0 * d_gravity**0.5, "4.9")
    return Governed(C_t * h_n**0.75, "4.6")


@rule(clause="4.3.3.2.2(1)P", tex=r"\q{T} = \q{T_analysis}\ \text{or}\ \q{T_a}")
def T(T_a: float, T_analysis: float | None = None) -> Governed:
    """Fundamental period used, s: that of analysis, which this code doesn't limit, else the approximate one."""
    if T_analysis is None:
        return Governed(T_a, "T_a", (Candidate("T_a", T_a, "base"),))
    return Governed(T_analysis, "analysis", (Candidate("analysis", T_analysis, "base"), Candidate("T_a", T_a, "base")))


@rule(clause="3.2.2.5, Eq. 3.13 to 3.16", tex=r"\q{S_a_T} = S_d(\q{T})")
def S_a_T(T: float, a_g: float, S: float, T_B: float, T_C: float, T_D: float, q: float, beta: float) -> Governed:
    """Ordinate of the design spectrum at the period used, g, and the branch that gave it."""
    at = np.array([T])
    value = float(design(at, a_g, S, T_B, T_C, T_D, q, beta)[0])
    if T <= T_C:
        branch = "3.13" if T < T_B else "3.14"
        return Governed(value, branch, (Candidate(branch, value, "base"),))
    branch = "3.15" if T <= T_D else "3.16"
    free = float(design(at, a_g, S, T_B, T_C, T_D, q, 0.0)[0])
    return bounded(Governed(free, branch), lower=Governed(beta * a_g, f"{branch}, lower bound"))


@rule(
    clause="4.3.3.2.2(1)P",
    tex=r"\q{lambda_} = 0.85\text{ for }\q{T} \le 2\,\q{T_C}\text{ and more than two stories, else }1",
)
def lambda_(T: float, T_C: float, N: int) -> float:
    """Correction factor for the effective modal mass of the first mode."""
    return 0.85 if T <= 2.0 * T_C and N > 2 else 1.0


@rule(clause="4.3.3.2.2(1)P, Eq. 4.5", tex=r"\q{coefficient} = \q{S_a_T}\,\q{lambda_}")
def coefficient(S_a_T: Governed, lambda_: float) -> Governed:
    """Base shear as a fraction of the weight; `governed_by` is the branch of the design spectrum."""
    candidates = tuple(Candidate(c.label, c.value * lambda_, c.role) for c in S_a_T.candidates)
    return Governed(S_a_T.value * lambda_, S_a_T.governed_by, candidates)


@rule(clause="4.3.3.2.3(3), Eq. 4.11", tex=r"\q{k} = 1")
def k() -> float:
    """Exponent of the vertical distribution."""
    return 1.0


@rule(clause="4.3.3.2.3(3), Eq. 4.11", tex=r"\q{F} = \q{V}\,\frac{z_i m_i}{\sum z_j m_j}")
def F(w: Array, h_x: Array, V: float) -> Array:
    """Horizontal force at each story, kN, shape (n_stories,)."""
    return np.asarray(V * w * h_x / np.sum(w * h_x))


@rule(clause="4.3.2(1)P, Eq. 4.3", tex=r"\q{eccentricity} = 0.05")
def eccentricity() -> float:
    """Accidental eccentricity as a share of the floor dimension perpendicular to the action."""
    return 0.05


@rule(clause="4.3.3.2.1(2)", tex=r"\q{T} \le \min(4\,\q{T_C},\ 2.0\,\text{s})")
def static_permitted(T: float, T_C: float, regular_in_elevation: bool | None = None) -> str:
    """Whether the lateral force method is permitted in the direction."""
    if min(4.0 * T_C, 2.0) < T:
        return "not permitted: T_1 above 4 T_C or 2.0 s (4.3.3.2.1(2)a)"
    if regular_in_elevation is None:
        return "open: regularity in elevation is not stated"
    return "permitted" if regular_in_elevation else "not permitted: irregular in elevation (4.3.3.2.1(2)b)"


@rule(clause="4.3.3.2.1, 4.3.3.2.2(3)")
def static_notes(static_permitted: str, h_n: float, T_a: Governed, T: Governed, q: float) -> list[str]:
    """What a reviewer should know about the static method here."""
    notes = [] if static_permitted == "permitted" else [f"lateral force method: {static_permitted}"]
    if T.governed_by == "T_a" and T_a.governed_by in ("4.6", "4.7") and h_n > 40.0:
        notes.append(f"Eq. {T_a.governed_by} is for heights up to 40 m; take the period from analysis (4.3.3.2.2(3))")
    if q < 1.5:
        notes.append("q below 1.5: the recommended lower bound of the behaviour factor is 1.5 (3.2.2.5(3)P)")
    return notes


@rule(clause="EN 1990 6.4.3.4, 3.2.4", tex=r"\sum G_k + P + A_{Ed} + \sum \psi_2 Q_k")
def load_combinations() -> list[dict[str, Any]]:
    """The seismic design situation; psi_2 by category of use (not psi_E, which is for masses)."""
    return [{"name": "6.12b", "factors": {"G": 1.0, "P": 1.0, "A_Ed": 1.0, f"Q {category}": psi}}
            for category, psi in tables.PSI_2.items()]  # fmt: skip


@rule(clause="4.3.3.5.1")
def direction_rule(regular_in_plan: bool | None = None) -> list[str]:
    """How the two horizontal components act together."""
    rules = ["SRSS of the effects of the two components, or 100 % with 30 % (4.3.3.5.1(2), (3), Eq. 4.18 and 4.19)"]
    if regular_in_plan:
        rules.append(
            "regular in plan with walls or bracing as the only primary elements: directions may be taken apart (4.3.3.5.1(8))"
        )
    return rules


RULES = (
    alpha_u_1,
    k_w,
    q_0,
    q,
    cited(shared.h_n, "4.3.3.2.2(3)"),
    cited(shared.h_x, "4.3.3.2.3(3)"),
    cited(shared.N, "4.3.3.2.2(1)P"),
    cited(shared.W, "3.2.4(2)P, Eq. 3.17"),
    C_t,
    A_c,
    T_a,
    T,
    S_a_T,
    lambda_,
    coefficient,
    cited(shared.V, "4.3.3.2.2(1)P, Eq. 4.5"),
    k,
    F,
    cited(shared.V_story, "4.3.3.2.3"),
    cited(shared.M_story, "4.3.3.2.3"),
    eccentricity,
    cited(shared.M_ta, "4.3.3.3.3, Eq. 4.17"),
    static_permitted,
    static_notes,
    load_combinations,
    direction_rule,
)
