"""Equivalent lateral force procedure of ASCE/SEI 7-16, section 12.8, and 1.4 for design category A."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import podiums, shared
from plumb_core.editions.asce7_16 import ground, tables
from plumb_core.editions.asce7_16.deformation import FOR_DRIFT
from plumb_core.editions.asce7_16.systems import PERIOD_TYPES
from plumb_core.editions.systems import FOOT, as_printed
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.limits import below, exceeds, reaches, within
from plumb_core.rules import Array, Candidate, Governed, Rule, bounded, cited, renamed, rule

TEN_FEET = 3.0
"""Least story height of 0.1 N, m, as printed beside 10 ft."""


@rule(clause="Table 12.8-2", tex=r"\q{C_t} = \text{Table 12.8-2}(\q{period_type})")
def C_t(period_type: str) -> float:
    """Coefficient of the approximate period, for heights in metres."""
    return tables.PERIOD[period_type][0]


@rule(clause="Table 12.8-2", tex=r"\q{x} = \text{Table 12.8-2}(\q{period_type})")
def x(period_type: str) -> float:
    """Exponent of the approximate period."""
    return tables.PERIOD[period_type][1]


@rule(clause="12.8.2.1, Eq. 12.8-10", tex=r"\q{C_w} = \frac{100}{\q{A_B}} \sum \frac{A_i}{1 + 0.83\,(\q{h_n}/D_i)^2}")
def C_w(walls: list[dict[str, float]], A_B: float, h_n: float) -> float:
    """Effective wall area coefficient, %, from the web areas A_i (m2) and lengths D_i (m) of the walls."""
    return 100.0 / A_B * sum(wall["A_i"] / (1.0 + 0.83 * (h_n / wall["D_i"]) ** 2) for wall in walls)


def tenth_of_stories(h: Array, period_type: str, least: float) -> Governed:
    """Eq. 12.8-8, 0.1 N s, for at most 12 stories of moment frames; `least` is the story height (m) that is judged."""
    if len(h) > 12 or period_type not in ("steel_mrf", "rc_mrf") or below(least, TEN_FEET):
        raise RuleRefused(
            "T_a_formula",
            "0.1 N is for at most 12 stories of concrete or steel moment frames at least 10 ft (3 m) high",
            "Take Eq. 12.8-7 for this structure.",
        )
    return Governed(0.1 * len(h), "12.8-8")


def wall_period(h_n: float, C_w: float | None) -> Governed:
    """Eq. 12.8-9, 0.0062 h_n / sqrt(C_w) s with h_n in m (0.0019 for feet)."""
    if C_w is None:
        raise RuleRefused(
            "walls",
            "Eq. 12.8-9 needs the walls and the area of the base",
            "Give walls (A_i, D_i) and A_B, or take Eq. 12.8-7.",
        )
    return Governed(0.0062 * h_n / C_w**0.5, "12.8-9")


@rule(clause="12.8.2.1, Eq. 12.8-7 to 12.8-9", tex=r"\q{T_a} = \q{C_t}\,\q{h_n}^{\q{x}}")
def T_a(
    h_n: float, h: Array, C_t: float, x: float, period_type: str, T_a_formula: str = "12.8-7", C_w: float | None = None
) -> Governed:
    """Approximate fundamental period, s, by the declared equation.

    12.8-7: C_t h_n^x.  12.8-8: 0.1 N, for an *average* story height of at least 10 ft.  12.8-9: for concrete or
    masonry shear walls up to 120 ft.
    """
    if T_a_formula == "12.8-8":
        return tenth_of_stories(h, period_type, float(np.mean(h)))
    if T_a_formula == "12.8-9":
        if exceeds(h_n, as_printed(120 * FOOT)):
            raise RuleRefused(
                "T_a_formula",
                "Eq. 12.8-9 is for structures of at most 120 ft (36.6 m)",
                "Take Eq. 12.8-7 for this structure.",
            )
        return wall_period(h_n, C_w)
    return Governed(C_t * h_n**x, "12.8-7")


@rule(clause="Table 12.8-1", tex=r"\q{C_u} = \text{Table 12.8-1}(\q{S_D1})")
def C_u(S_D1: float) -> float:
    """Coefficient for the upper limit on the period, interpolated linearly between the rows of the table."""
    return tables.interpolated(tables.C_U, "C_u", S_D1)


@rule(clause="12.8.2", tex=r"\q{T_limit} = \q{C_u}\,\q{T_a}")
def T_limit(C_u: float, T_a: float) -> float:
    """Upper limit on the period for strength, s."""
    return C_u * T_a


@rule(clause="12.8.2", tex=r"\q{T} = \min(\q{T_analysis},\ \q{T_limit})\ \text{or}\ \q{T_a}")
def T(T_a: float, T_limit: float, T_analysis: float | None = None) -> Governed:
    """Period used for the base shear, s: the analysis period up to C_u T_a, else the approximate period."""
    if T_analysis is None:
        return Governed(T_a, "T_a", (Candidate("T_a", T_a, "base"),))
    return bounded(Governed(T_analysis, "analysis"), upper=Governed(T_limit, "C_u T_a"))


@rule(clause="11.4.5", tex=r"\q{S_DS_static} = \q{S_DS}")
def S_DS_static(S_DS: float) -> Governed:
    """S_DS used for C_s, g: the full one, for 12.8.1.3 is a permission that the brief does not declare."""
    return Governed(S_DS, "11.4.5", (Candidate("11.4.5", S_DS, "base"),))


def cap_lacks(
    T: float, N: int, site_class: str, risk_category: str, regular: bool | None, rho: Governed | None
) -> list[str]:
    """Conditions of 12.8.1.3 that are not met, in words; what is not stated is not met."""
    tests = [
        (regular is True, "no irregularity" + (" (not stated)" if regular is None else "")),
        (N <= 5, "at most five stories"),
        (within(T, 0.5), "T <= 0.5 s"),
        (rho is not None and within(rho.value, 1.0), "redundancy factor 1.0"),
        (site_class not in ("E", "F"), "not site class E or F"),
        (risk_category in ("I", "II"), "risk category I or II"),
    ]
    return [words for met, words in tests if not met]


CAP = "12.8.1.3"
CAP_NOT_MET = "11.4.5, conditions of 12.8.1.3 not met"


@rule(
    clause="12.8.1.3, as declared",
    tex=r"\q{S_DS_static} = \max(1.0,\ 0.7\,\q{S_DS}) \le \q{S_DS}\ \text{where its conditions hold}",
    defines="S_DS_static",
)
def S_DS_capped(
    S_DS: float,
    T: float,
    N: int,
    site_class_used: str,
    risk_category: str,
    regular: bool | None = None,
    rho: Governed | None = None,
) -> Governed:
    """S_DS used for C_s, g: 1.0, but not below 0.7 S_DS, where all conditions of 12.8.1.3 hold, else S_DS.

    The conditions: no irregularity, at most five stories, T <= 0.5 s, redundancy factor 1.0, not site class E or F,
    risk category I or II.  What is not stated is not met.
    """
    if cap_lacks(T, N, site_class_used, risk_category, regular, rho):
        return Governed(S_DS, CAP_NOT_MET, (Candidate(CAP_NOT_MET, S_DS, "base"),))
    full = Governed(S_DS, "11.4.5", (Candidate("11.4.5", S_DS, "base"),))
    return bounded(full, upper=Governed(max(1.0, 0.7 * S_DS), CAP))


@rule(clause="12.8.1.1, Eq. 12.8-2", tex=r"\q{C_s_plateau} = \frac{\q{S_DS_static}}{\q{R}/\q{I_e}}")
def C_s_plateau(S_DS_static: float, R: float, I_e: float) -> Governed:
    """Coefficient before bounds."""
    return Governed(S_DS_static / (R / I_e), "12.8-2")


@rule(
    clause="12.8.1.1, Eq. 12.8-3 and 12.8-4",
    tex=r"\q{C_s_upper} = \frac{\q{S_D1}}{\q{T}\,(\q{R}/\q{I_e})}\ \text{, for }T > T_L\text{ times }"
    r"\frac{\q{T_L}}{\q{T}}",
)
def C_s_upper(S_D1: float, T: float, T_L: float, R: float, I_e: float) -> Governed:
    """Upper bound of the coefficient."""
    if within(T, T_L):
        return Governed(S_D1 / (T * R / I_e), "12.8-3")
    return Governed(S_D1 * T_L / (T**2 * R / I_e), "12.8-4")


@rule(clause=C_s_upper.clause + ", with 11.4.8 exception 2 as first printed", tex=C_s_upper.tex, defines="C_s_upper")
def C_s_upper_as_printed(
    S_D1: float,
    T: float,
    T_L: float,
    R: float,
    I_e: float,
    site_class_used: str,
    S_1: float,
    isolated_or_damped: bool = False,
) -> Governed:
    """Upper bound before Supplement 3: exception 2 of 11.4.8 raises it by half for class D with S_1 >= 0.2.

    For T <= 1.5 T_S the exception requires Eq. 12.8-2, which a bound raised by half does not undercut.
    """
    bound: Governed = C_s_upper.function(S_D1, T, T_L, R, I_e)
    if ground.exception_2(site_class_used, S_1, isolated_or_damped):
        return Governed(1.5 * bound.value, bound.governed_by)
    return bound


@rule(
    clause="12.8.1.1, Eq. 12.8-5 and 12.8-6",
    tex=r"\q{C_s_lower} = \max\left(0.044\,\q{S_DS_static}\,\q{I_e},\ 0.01,\ "
    r"\frac{0.5 \times \q{S_1}}{\q{R}/\q{I_e}}\text{ for }S_1 \ge 0.6\right)",
)
def C_s_lower(S_DS_static: float, I_e: float, S_1: float, R: float) -> Governed:
    """Lower bound of the coefficient; Eq. 12.8-6 takes the mapped S_1."""
    general = bounded(Governed(0.044 * S_DS_static * I_e, "12.8-5"), lower=Governed(0.01, "12.8-5"))
    if below(S_1, 0.6):
        return general
    return bounded(general, lower=Governed(0.5 * S_1 / (R / I_e), "12.8-6"))


@rule(clause="12.8.1.1", tex=r"\q{C_s} = \max\left(\min(\q{C_s_plateau},\ \q{C_s_upper}),\ \q{C_s_lower}\right)")
def C_s(C_s_plateau: Governed, C_s_upper: Governed, C_s_lower: Governed) -> Governed:
    """Seismic response coefficient (fraction of the seismic weight)."""
    return bounded(C_s_plateau, upper=C_s_upper, lower=C_s_lower)


@rule(clause="12.8.1; 1.4.2 for category A", tex=r"\q{coefficient} = \q{C_s}\ \text{, or 0.01 in category A}")
def coefficient(C_s: Governed, design_category: str) -> Governed:
    """Lateral force as a fraction of the seismic weight: C_s, or 0.01 in design category A (11.7, Eq. 1.4-1)."""
    if design_category == "A":
        return Governed(0.01, "1.4-1", (Candidate("1.4-1", 0.01, "base"),))
    return C_s


@rule(clause="11.7", tex=r"\q{not_used} = \q{C_s},\ \q{k}\ \text{in category A}")
def not_used(design_category: str) -> dict[str, str]:
    """Why a value is not used, by its name: in category A the forces are 0.01 w_x (Eq. 1.4-1)."""
    words = "not used: in design category A the forces are 0.01 w_x, whatever the period"
    return {"C_s": words, "k": words} if design_category == "A" else {}


@rule(clause="12.8.3", tex=r"\q{k} = 1 + \frac{\q{T} - 0.5}{2}\ \text{between }1\text{ and }2")
def k(T: float) -> float:
    """Exponent of the vertical distribution: 1 for T <= 0.5 s, 2 for T >= 2.5 s, linear between."""
    return float(np.interp(T, [0.5, 2.5], [1.0, 2.0]))


@rule(
    clause="12.8.3, Eq. 12.8-11 and 12.8-12; 1.4.2 for category A",
    tex=r"\q{F} = \frac{w_x h_x^{\q{k}}}{\sum w_i h_i^{\q{k}}} \times \q{V}",
)
def F(w: Array, h_x: Array, k: float, V: float, design_category: str) -> Array:
    """Lateral force at each level, kN, shape (n_stories,); in category A in proportion to the weights."""
    share = w if design_category == "A" else w * h_x**k
    return np.asarray(V * share / np.sum(share))


@rule(clause="12.8.4.2", tex=r"\q{eccentricity} = 0.05")
def eccentricity() -> float:
    """Accidental eccentricity as a share of the plan dimension perpendicular to the force.

    With forces in two directions at once it is offset in one of them at a time, the one that gives the greater effect.
    """
    return 0.05


def combinations(
    category: str, vertical: float, rho: float, Omega_0: float | None, snow: float, names: tuple[str, ...]
) -> list[dict[str, Any]]:
    """Strength combinations with the seismic action: factors of D, L, S and the horizontal action.

    vertical : S_DS of the vertical action, 0 where there is none.  names : of the combination with gravity acting
    against, of that with gravity helping, and the same with overstrength.  In category A the forces are 0.01 of the
    weight (1.4 or 11.7): neither vertical action nor overstrength belongs to them.
    """
    if category == "A":
        vertical, rho, Omega_0 = 0.0, 1.0, None
    up = 0.2 * vertical
    listed = [
        {"name": names[0], "factors": {"D": 1.2 + up, "L": 1.0, "S": snow, "Q_E": rho}},
        {"name": names[1], "factors": {"D": 0.9 - up, "Q_E": rho}},
    ]
    if Omega_0 is not None:
        listed += [
            {"name": names[2], "factors": {"D": 1.2 + up, "L": 1.0, "S": snow, "Q_E": Omega_0}},
            {"name": names[3], "factors": {"D": 0.9 - up, "Q_E": Omega_0}},
        ]
    return listed


NAMES = ("2.3.6-6", "2.3.6-7", "2.3.6-6 with overstrength", "2.3.6-7 with overstrength")


@rule(
    clause="2.3.6, 12.4.2, 12.4.3; 1.4 for category A",
    tex=r"(1.2 + 0.2\,\q{S_DS_static})\,D + \q{rho}\,Q_E + L + 0.2\,S",
)
def load_combinations(
    S_DS_static: float, design_category: str, rho: float, Omega_0: float | None = None
) -> list[dict[str, Any]]:
    """Combinations 6 and 7 of 2.3.6, plain and with overstrength.

    S_DS as 12.8.1.3 lets one take it where that is declared.  The factor of L may be 0.5 where L_o <= 4.78 kPa, but for
    garages and assembly.
    """
    return combinations(design_category, S_DS_static, rho, Omega_0, 0.2, NAMES)


@rule(clause="2.3.6, 12.4.2.2 as declared, 12.4.3", tex=load_combinations.tex, defines="load_combinations")
def load_combinations_low(
    S_DS_static: float, design_category: str, rho: float, Omega_0: float | None = None
) -> list[dict[str, Any]]:
    """As `load_combinations`, without vertical action in category B, as 12.4.2.2 permits and the brief declares."""
    vertical = 0.0 if design_category == "B" else S_DS_static
    return combinations(design_category, vertical, rho, Omega_0, 0.2, NAMES)


@rule(
    clause="12.10.1.1, Eq. 12.10-1 to 12.10-3",
    tex=(
        r"\q{F_px} = \frac{\sum_{i \ge x} F_i}{\sum_{i \ge x} w_i}\,w_{px},\ 0.2\,\q{S_DS}\,\q{I_e}\,w_{px} "
        r"\le F_{px} \le 0.4\,\q{S_DS}\,\q{I_e}\,w_{px}"
    ),
)
def F_px(F: Array, w: Array, S_DS: float, I_e: float) -> Array:
    """Design force of the diaphragm at each level, kN, shape (n_stories,), with both bounds.

    The weight tributary to the diaphragm is that of the level.
    """
    above = np.cumsum(F[::-1])[::-1] / np.cumsum(w[::-1])[::-1] * w
    return np.clip(above, 0.2 * S_DS * I_e * w, 0.4 * S_DS * I_e * w)


MODE_SHAPE = (("C_", 0.7), ("D_", 0.85), ("E_", 0.85), ("B_steel_BRBF", 0.3))
"""12.10.3.2.1: z_s by the beginning of a system's id; 1.0 for all others."""


@rule(
    clause="12.10.3, Eq. 12.10-4 to 12.10-12, as declared",
    tex=r"\q{F_px} = \frac{C_{px}}{R_s}\,w_{px} \ge 0.2\,\q{S_DS}\,\q{I_e}\,w_{px}",
    defines="F_px",
)
def F_px_alternative(
    w: Array,
    h_x: Array,
    S_DS: float,
    S_D1: float,
    I_e: float,
    C_s: float,
    Omega_0: float,
    diaphragm_spans: Mapping[str, Any],
    lateral_system: str = "",
) -> Array:
    """Design force of the diaphragm at each level by the alternative of 12.10.3 (required for precast diaphragms), kN.

    C_px goes linearly from C_p0 at the base to C_pn at the top, with C_pi at 80 % of the height of three stories and
    more.
    """
    R_s = diaphragm_spans.get("R_s")
    if R_s is None:
        raise MissingInput("diaphragm_spans")
    N = len(w)
    z_s = next((value for beginning, value in MODE_SHAPE if lateral_system.startswith(beginning)), 1.0)
    gamma_1 = 1.0 + 0.5 * z_s * (1.0 - 1.0 / N)
    gamma_2 = 0.9 * z_s * (1.0 - 1.0 / N) ** 2
    higher = [(0.15 * N + 0.25) * I_e * S_DS, I_e * S_DS, I_e * S_D1 / (0.03 * (N - 1)) if N > 1 else 0.0]
    C_s2 = min(higher) if N > 1 else 0.0
    C_p0 = 0.4 * S_DS * I_e
    first = gamma_1 * Omega_0 * C_s
    C_pi = max(0.8 * C_p0, 0.9 * first)
    C_pn = float(np.hypot(first, gamma_2 * C_s2))
    height = h_x / h_x[-1]
    if N < 3:
        C_px = np.interp(height, [0.0, 1.0], [C_p0, C_pn])
    else:
        C_px = np.interp(height, [0.0, 0.8, 1.0], [C_p0, C_pi, max(C_pn, C_pi)])
    return np.asarray(np.maximum(C_px * w / R_s, 0.2 * S_DS * I_e * w))


def limit_of_part(podium: Mapping[str, Any], period_type: str, C_u: float | None) -> Callable[[float], float] | None:
    """Upper limit C_u T_a on the period of the upper part of a podium by its height (m).

    None where its type is not known.
    """
    row = tables.PERIOD.get(podium.get("period_type") or period_type)
    if row is None or C_u is None:
        return None
    return lambda height: C_u * row[0] * height ** row[1]


def two_stage_by(clause: str) -> Rule:
    """Rule for the two-stage analysis under the clause of an edition."""

    @rule(clause=clause)
    def two_stage(
        podium: Mapping[str, Any],
        w: Array,
        h: Array,
        R: float,
        rho: float,
        S_DS: float,
        S_D1: float,
        S_1: float,
        T_L: float,
        I_e: float,
        period_type: str = "",
        C_u: float | None = None,
    ) -> dict[str, Any]:
        """Two-stage analysis of a flexible upper part on a rigid lower part.

        Its conditions, and the forces of both parts.

        The upper part is a structure of its own on a fixed base: its period is at most C_u T_a of its own height
        (12.8.2).
        Its reactions are multiplied by (R/rho) of the upper part over that of the lower part, at least 1.0.  The
        forces of
        the lower part follow from its own weight.
        """

        def coefficient_of(T: float, R_part: float) -> Governed:
            return bounded(
                C_s_plateau.function(S_DS, R_part, I_e),
                upper=C_s_upper.function(S_D1, T, T_L, R_part, I_e),
                lower=C_s_lower.function(S_DS, I_e, S_1, R_part),
            )

        limit = limit_of_part(podium, period_type, C_u)
        return podiums.two_stage(podium, w, h, R, rho, coefficient_of, k.function, clause, limit)

    return two_stage


two_stage = two_stage_by("12.2.3.2")


@rule(clause="12.5")
def direction_rule(design_category: str) -> list[str]:
    """How the two horizontal directions act together, by category."""
    if design_category in "AB":
        return ["each direction alone (12.5.2)"]
    nonparallel = "nonparallel systems (horizontal type 5): 100 % of one direction with 30 % of the other (12.5.3)"
    offset = (
        "with both directions at once the 5 % offset goes one way at a time, the one with the greater effect (12.8.4.2)"
    )
    if design_category == "C":
        return [nonparallel, offset]
    columns = (
        "columns and walls of two intersecting systems with at least 20 % of their axial design strength: "
        "100 % with 30 % (12.5.4)"
    )
    return [nonparallel, columns, offset]


@rule(clause="12.5.3, 12.5.4")
def directions_together(
    design_category: str, irregularities: Mapping[str, bool] | None = None, shared_columns: bool | None = None
) -> str:
    """Why 100 % of one direction belongs to 30 % of the other.

    Nonparallel systems in C to F, columns of two systems in D to F.

    Begins with "open" where it is not known whether any column or wall is part of two intersecting systems.
    """
    if design_category in ("C", "D", "E", "F") and (irregularities or {}).get("nonparallel_systems"):
        return "nonparallel systems (12.5.3)"
    if design_category in ("D", "E", "F") and shared_columns is not False:
        words = "columns and walls of two intersecting systems (12.5.4)"
        return words if shared_columns else f"open: {words}"
    return ""


def permission(
    design_category: str,
    T: float,
    T_S: float,
    h_n: float,
    N: int,
    risk_category: str,
    regular: str,
    types: Sequence[str],
    light_frame: bool,
) -> list[str]:
    """What Table 12.6-1 says of the static method here, as 7-10 and 7-16 have it; empty where it is permitted.

    regular : "regular", "irregular", or "" where that is not known.  types : of irregularity that are there.
    """
    if design_category not in "DEF" or light_frame or (N <= 2 and risk_category in ("I", "II")):
        return []
    if not regular:
        return ["Table 12.6-1: irregularities are not stated, so permission of the static method is open"]
    if regular == "irregular":
        if exceeds(h_n, as_printed(160 * FOOT)):
            return [
                (
                    "Table 12.6-1: irregular structure taller than 160 ft in category D to F; the static method is "
                    "not permitted"
                )
            ]
        return irregular_in_table(types)
    if exceeds(h_n, as_printed(160 * FOOT)) and reaches(T, 3.5 * T_S):
        return ["Table 12.6-1: taller than 160 ft with T >= 3.5 T_S; the static method is not permitted"]
    return []


DYNAMIC_ONLY = {
    "torsional": "horizontal type 1a",
    "extreme_torsional": "horizontal type 1b",
    "soft_story": "vertical type 1a",
    "extreme_soft_story": "vertical type 1b",
    "mass": "vertical type 2",
    "vertical_geometric": "vertical type 3",
}
"""Types of irregularity with which Table 12.6-1 does not permit the static method in category D to F."""


def irregular_in_table(types: Sequence[str]) -> list[str]:
    """What Table 12.6-1 says of an irregular structure in category D to F.

    Decided by its types where they are known.
    """
    refused = [words for name, words in DYNAMIC_ONLY.items() if name in types]
    if refused:
        return [f"Table 12.6-1: {', '.join(refused)} in category D to F; the static method is not permitted"]
    if types:
        return []
    return [
        "Table 12.6-1: irregular structure in category D to F; the static method is permitted only with "
        "horizontal types 2 to 5 or vertical types 4, 5a, 5b"
    ]


def said_of_method(notes: list[str]) -> str:
    """`static_permitted` from what Table 12.6-1 says: permitted, open, or not permitted and why."""
    denied = [note for note in notes if note.endswith("not permitted")]
    if denied:
        return f"not permitted: {denied[0].split('; ')[0]}"
    return f"open: {notes[0]}" if notes else "permitted"


@rule(clause="12.6, Table 12.6-1")
def static_permitted(
    design_category: str,
    T: float,
    T_S: float,
    h_n: float,
    N: int,
    risk_category: str,
    regular_known: str,
    irregular_types: Sequence[str],
    light_frame: bool = False,
) -> str:
    """Whether the static method is permitted."""
    words = permission(design_category, T, T_S, h_n, N, risk_category, regular_known, irregular_types, light_frame)
    return said_of_method(words)


def plateau_notes(S_DS_static: Governed, lacks: list[str]) -> list[str]:
    """A note where 12.8.1.3 is declared: that S_DS for C_s is reduced, or which of its conditions is not met."""
    if S_DS_static.governed_by == CAP:
        return ["S_DS for C_s reduced by 12.8.1.3, as declared; all of its conditions are stated as met"]
    if S_DS_static.governed_by == CAP_NOT_MET:
        return [f"12.8.1.3 is declared, but not met: {', '.join(lacks)}; the full S_DS is used"]
    return []


def assumed(rho: Governed | None) -> list[str]:
    """A note where the redundancy factor is not stated."""
    return (
        ["redundancy factor 1.3 assumed: neither stated nor shown by 12.3.4.2"]
        if rho and "assumed" in rho.governed_by
        else []
    )


@rule(clause="11.4.8, 12.2.1, 12.6, 12.8.1.3")
def static_notes(
    design_category: str,
    T: float,
    T_S: float,
    h_n: float,
    N: int,
    site_class_used: str,
    S_1: float,
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
    isolated_or_damped: bool = False,
    site_specific: dict[str, Any] | None = None,
) -> list[str]:
    """What a reviewer should know about the static method here."""
    notes = plateau_notes(S_DS_static, cap_lacks(T, N, site_class_used, risk_category, regular, rho))
    notes += permission(design_category, T, T_S, h_n, N, risk_category, regular_known, irregular_types, light_frame)
    notes += shared.permission_note(system_permission)
    notes += shared.period_type_note(PERIOD_TYPES, lateral_system, period_type, "Table 12.8-2")
    notes += assumed(rho)
    if (
        site_class_used == "E"
        and reaches(S_1, 0.2)
        and exceeds(T, T_S)
        and site_specific is None
        and not isolated_or_damped
    ):
        notes.append("11.4.8 exception 3 requires T <= T_S; a ground motion hazard analysis is required here")
    return notes


RULES = (
    cited(shared.h_n, "11.2"),
    cited(shared.h_x, "12.8.3"),
    cited(shared.N, "12.8.2.1"),
    cited(shared.W, "12.7.2"),
    C_t,
    x,
    C_w,
    T_a,
    C_u,
    T_limit,
    T,
    S_DS_static,
    C_s_plateau,
    C_s_upper,
    C_s_lower,
    C_s,
    coefficient,
    not_used,
    cited(shared.V, "12.8.1, Eq. 12.8-1"),
    k,
    F,
    cited(shared.V_story, "12.8.4, Eq. 12.8-13"),
    cited(shared.M_story, "12.8.5"),
    eccentricity,
    cited(shared.M_ta, "12.8.4.2"),
    F_px,
    two_stage,
    load_combinations,
    direction_rule,
    directions_together,
    cited(shared.irregular_types, "12.3.2"),
    cited(shared.regular_known, "12.3.1, 12.3.2"),
    static_permitted,
    static_notes,
    cited(shared.static_governed_by, "12.8.1.1"),
    renamed(C_s_plateau, FOR_DRIFT),
    renamed(C_s_upper, FOR_DRIFT),
)
