"""Equivalent static analysis of AS 1170.4-2007, section 6, and the simplified ways of section 5."""

from __future__ import annotations

from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.as1170_4 import tables
from plumb_core.editions.as1170_4.ground import shape
from plumb_core.editions.systems import factor
from plumb_core.errors import RuleRefused
from plumb_core.limits import exceeds
from plumb_core.rules import Array, Candidate, Governed, bounded, cited, rule

EQUIVALENT, TENTH, SIMPLIFIED = "6.2", "5.3", "5.4.2.3"


@rule(clause="6.2.3", tex=r"\q{C_t} = k_t(\q{period_type})")
def C_t(period_type: str) -> float:
    """Coefficient k_t of the period, for heights in metres."""
    return tables.K_T[period_type]


@rule(clause="6.2.3", tex=r"\q{T_a} = 1.25\,\q{C_t}\,\q{h_n}^{0.75}")
def T_a(C_t: float, h_n: float) -> Governed:
    """Fundamental period by formula, s, for the ultimate limit state."""
    return Governed(1.25 * C_t * h_n**0.75, "6.2(7)")


@rule(clause="6.2.3", tex=r"\q{T} = \q{T_analysis}\ \text{or}\ \q{T_a}")
def T(T_a: float, T_analysis: float | None = None) -> Governed:
    """Period used, s: that of analysis, which is not limited itself (the base shear is), else that of the formula."""
    if T_analysis is None:
        return Governed(T_a, "formula", (Candidate("formula", T_a, "base"),))
    return Governed(
        T_analysis, "analysis", (Candidate("analysis", T_analysis, "base"), Candidate("formula", T_a, "base"))
    )


@rule(clause="6.4, Table 6.4", tex=r"\q{S_a_T} = C_h(\q{T})")
def S_a_T(T: float, subsoil: str) -> float:
    """Spectral shape factor at the period used; the static method has no ramp at short periods."""
    return float(shape(np.array([T]), subsoil, False)[0])


@rule(clause="6.2.3", tex=r"\q{C_s_lower} = 0.8\,\q{kpZ}\,C_h(\q{T_a})\,\frac{\q{S_p}}{\q{mu}}")
def C_s_lower(kpZ: float, T_a: float, subsoil: str, S_p: float, mu: float) -> Governed:
    """80 % of the coefficient with the period by formula, which the base shear must reach."""
    return Governed(0.8 * kpZ * float(shape(np.array([T_a]), subsoil, False)[0]) * S_p / mu, "6.2.3, 80 %")


def _story_factors(N: int, subsoil: str, h_n: float, design_category: str) -> Array:
    if design_category == "III":
        raise RuleRefused(
            "static_method", "5.4.2.3 is for category II; this building has III", "Take dynamic analysis (5.5)."
        )
    if N not in tables.K_S or exceeds(h_n, 15.0):
        raise RuleRefused(
            "static_method", "5.4.2.3 is for at most five stories and 15 m", "Take 6.2 for this building."
        )
    return np.array(tables.K_S[N][subsoil])


@rule(
    clause="6.2.1",
    tex=r"\q{coefficient} = \max\left(\q{kpZ}\,\q{S_a_T}\,\frac{\q{S_p}}{\q{mu}},\ \q{C_s_lower}\right)",
)
def coefficient(kpZ: float, S_a_T: float, S_p: float, mu: float, C_s_lower: Governed) -> Governed:
    """Base shear as a fraction of the weight by the equivalent static method."""
    return bounded(Governed(kpZ * S_a_T * S_p / mu, "6.2(1)"), lower=C_s_lower)


@rule(clause="5.3", tex=r"\q{coefficient} = 0.1", defines="coefficient")
def coefficient_tenth(design_category: str = "") -> Governed:
    """A tenth of the weight, for category I: neither ductility nor period enters."""
    if design_category not in ("I", ""):
        raise RuleRefused("static_method", f"5.3 is for category I; this building has {design_category}", "Take 6.2.")
    return Governed(0.1, "5.3")


@rule(clause="5.3", tex=r"\q{F} = 0.1\,W_i", defines="F")
def F_tenth(w: Array, V: float) -> Array:
    """Force at each level, kN, shape (n_stories,), by the weights alone."""
    return np.asarray(V * w / np.sum(w))


@rule(
    clause="5.4.2.3",
    tex=r"\q{coefficient} = \frac{\sum K_s W_i}{\q{W}}\,\q{kpZ}\,\frac{\q{S_p}}{\q{mu}}",
    defines="coefficient",
)
def coefficient_simplified(
    kpZ: float, S_p: float, mu: float, w: Array, h_n: float, N: int, subsoil: str, design_category: str = ""
) -> Governed:
    """Base shear as a fraction of the weight by K_s of each story, up to five stories and 15 m; no period enters."""
    K_s = _story_factors(N, subsoil, h_n, design_category)
    return Governed(float(np.sum(K_s * w) / np.sum(w)) * kpZ * S_p / mu, "5.4.2.3")


@rule(clause="5.4.2.3", tex=r"\q{F} = \q{V}\,\frac{K_s W_i}{\sum K_s W_j}", defines="F")
def F_simplified(w: Array, V: float, h_n: float, N: int, subsoil: str, design_category: str = "") -> Array:
    """Force at each level, kN, shape (n_stories,), by K_s and the weights."""
    share = w * _story_factors(N, subsoil, h_n, design_category)
    return np.asarray(V * share / np.sum(share))


@rule(clause="2.2, 5.3, 5.4.2.3", defines="static_notes")
def static_notes_without_period(
    static_permitted: str = "permitted", design_category: str = "", lateral_system: str = "", mu: float | None = None
) -> list[str]:
    """What a reviewer should know about the simplified ways of section 5."""
    return _notes(static_permitted, design_category, lateral_system, mu)


@rule(clause="6.3", tex=r"\q{k} = 0.75 + 0.5\,\q{T},\ 1 \le k \le 2")
def k(T: float) -> float:
    """Exponent of the vertical distribution: 1 for T <= 0.5 s, 2 for T >= 2.5 s, linear between."""
    return float(np.interp(T, [0.5, 2.5], [1.0, 2.0]))


@rule(clause="6.3", tex=r"\q{F} = \q{V}\,\frac{W_i h_i^{\q{k}}}{\sum W_j h_j^{\q{k}}}")
def F(w: Array, h_x: Array, k: float, V: float) -> Array:
    """Force at each level, kN, shape (n_stories,)."""
    share = w * h_x**k
    return np.asarray(V * share / np.sum(share))


@rule(clause="6.6", tex=r"\q{eccentricity} = 0.1")
def eccentricity() -> float:
    """Accidental eccentricity as a share of the plan dimension perpendicular to the action."""
    return 0.1


@rule(clause="2.2, 5.2 to 5.5")
def static_permitted(design_category: str) -> str:
    """Whether the equivalent static method is permitted in the category."""
    if design_category == "III":
        return "not permitted: category III requires dynamic analysis (5.5)"
    return "not needed: importance level 1 needs no earthquake design" if design_category == "none" else "permitted"


MATERIAL_STANDARDS = (
    ("steel", "AS 4100 (section 13)"),
    ("RC", "AS 3600 (section 14)"),
    ("timber", "AS 1720.1"),
    ("masonry", "AS 3700"),
)
"""Standards whose mu and S_p take precedence over Table 6.5(A) (6.5), by the beginning of a system's id."""

PERIOD_TYPES = (
    ("steel_SMRF", ("steel_mrf",)),
    ("steel_IMRF", ("steel_mrf",)),
    ("steel_OMRF", ("steel_mrf",)),
    ("steel_EBF", ("steel_ebf",)),
    ("RC_SMRF", ("rc_mrf",)),
    ("RC_IMRF", ("rc_mrf",)),
    ("RC_OMRF_limited_wall", ("other",)),
    ("RC_OMRF", ("rc_mrf",)),
    ("steel_other", ("steel_mrf", "steel_ebf", "other")),
    ("RC_other", ("rc_mrf", "other")),
)
"""Rows of 6.2.3 that fit the systems of Table 6.5(A), by the beginning of their ids; all other systems elsewhere."""


def _notes(static_permitted: str, design_category: str, lateral_system: str, mu: float | None) -> list[str]:
    notes = [] if static_permitted == "permitted" else [f"static method: {static_permitted}"]
    standard = next((s for beginning, s in MATERIAL_STANDARDS if lateral_system.startswith(beginning)), "")
    if standard:
        other = (
            "; it gives walls and frames that are not detailed for ductility mu = 1.0, S_p = 0.77"
            if standard.startswith("AS 3600")
            else ""
        )
        notes.append(f"mu and S_p of {standard} take precedence over Table 6.5(A) (6.5){other}")
    if mu is not None and exceeds(mu, 3.0):
        notes.append("mu above 3 is outside this standard (2.2)")
    return notes


@rule(clause="2.2, 6.2.3, 6.5")
def static_notes(
    mu: float,
    T: float,
    static_permitted: str = "permitted",
    design_category: str = "",
    lateral_system: str = "",
    period_type: str = "",
) -> list[str]:
    """What a reviewer should know about the static method here."""
    notes = _notes(static_permitted, design_category, lateral_system, mu)
    if design_category == "I":
        notes.append("category I: 0.1 of each weight (5.3) would do; the equivalent static method is a higher way")
    if exceeds(T, 5.0):
        notes.append("T_1 above 5 s is outside this standard (1.1)")
    return notes + shared.period_type_note(PERIOD_TYPES, lateral_system, period_type, "6.2.3")


@rule(clause="AS/NZS 1170.0 4.2.2 f, Table 4.1")
def load_combinations() -> list[dict[str, Any]]:
    """The combination with earthquake.

    Psi_E 0.3 of imposed loads, 0.6 for storage and other floors, none of other roofs.
    """
    return [
        {"name": "4.2.2 f", "factors": {"G": 1.0, "E_u": 1.0, "Q": 0.3}},
        {"name": "4.2.2 f, storage and other floors", "factors": {"G": 1.0, "E_u": 1.0, "Q": 0.6}},
        {"name": "4.2.2 f, roofs not used as floors", "factors": {"G": 1.0, "E_u": 1.0, "Q": 0.0}},
    ]


@rule(clause="5.4.2.1, 6.6")
def direction_rule() -> list[str]:
    """How the two directions act together."""
    return ["100 % with 30 % of the other direction for members that serve both; torsion with both parts (6.6)"]


@rule(clause="5.4.2.1")
def directions_together() -> str:
    """Why both directions act together."""
    return "members that serve both directions (5.4.2.1)"


RULES = (
    *(factor(name, tables.SYSTEMS, "6.5, Table 6.5(A)") for name in ("mu", "S_p")),
    cited(shared.h_n, "6.2.3"),
    cited(shared.h_x, "6.3"),
    cited(shared.N, "5.4.2.3"),
    cited(shared.W, "6.2.2"),
    C_t,
    T_a,
    T,
    S_a_T,
    C_s_lower,
    coefficient,
    cited(shared.V, "6.2.1"),
    k,
    F,
    cited(shared.V_story, "6.3"),
    cited(shared.M_story, "6.3"),
    eccentricity,
    cited(shared.M_ta, "6.6"),
    cited(shared.static_governed_by, "6.2.1"),
    static_permitted,
    static_notes,
    load_combinations,
    direction_rule,
    directions_together,
)

_WITH_PERIOD = {"C_t", "T_a", "T", "S_a_T", "C_s_lower", "k"}
BY_METHOD = {
    TENTH: (_WITH_PERIOD, (coefficient_tenth, F_tenth, static_notes_without_period)),
    SIMPLIFIED: (_WITH_PERIOD, (coefficient_simplified, F_simplified, static_notes_without_period)),
}
"""Static method -> rules that fall away, for no period enters, and those that replace others."""
