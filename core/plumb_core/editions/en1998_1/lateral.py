"""Behaviour factors and the lateral force method of EN 1998-1:2004, 4.3.3.2, 5.2.2.2, 6.3.2."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Any

import numpy as np

from plumb_core.editions import conditions, plans, shared
from plumb_core.editions.en1998_1 import tables
from plumb_core.editions.en1998_1.ground import design
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.limits import below, exceeds, reaches, within
from plumb_core.rules import Array, Candidate, Governed, bounded, cited, rule


def _flexible_row(lateral_system: str, torsionally_flexible: bool) -> str:
    """Concrete systems with r below l_s take the row of torsionally flexible systems (5.2.2.1(4)P, (6))."""
    return "rc_torsionally_flexible" if torsionally_flexible and lateral_system.startswith("rc_") else lateral_system


@rule(clause="5.2.2.2(5), (6), 6.3.2(3), (4), 7.3.2", tex=r"\q{alpha_u_1} = \text{default of }\q{lateral_system}")
def alpha_u_1(
    lateral_system: str,
    ductility_class: str,
    regular_in_plan: bool | None = None,
    torsionally_flexible: bool = False,
) -> Governed:
    """Overstrength ratio: the default of the system; not regular in plan, the mean of it and 1.0.

    Regularity in plan is required where the ratio multiplies the behaviour factor and its default is not 1.0.
    """
    row = tables.BEHAVIOUR[_flexible_row(lateral_system, torsionally_flexible)]
    if not row.multiplied[ductility_class]:
        return Governed(1.0, f"does not multiply q in class {ductility_class}")
    if row.ratio is None:
        raise RuleRefused(
            "alpha_u_1", f"no default overstrength ratio is held for {lateral_system}", "Give alpha_u_1 (1.0 is safe)."
        )
    if row.ratio == 1.0:
        return Governed(1.0, "default")
    if regular_in_plan is None:
        raise MissingInput("regular_in_plan")
    return (
        Governed(row.ratio, "default") if regular_in_plan else Governed((1.0 + row.ratio) / 2.0, "not regular in plan")
    )


@rule(clause="5.2.2.2(11)P", tex=r"\q{k_w} = \frac{1 + \q{alpha_0}}{3},\ 0.5 \le k_w \le 1;\ 1\text{ for frames}")
def k_w(
    lateral_system: str, ductility_class: str, alpha_0: float | None = None, torsionally_flexible: bool = False
) -> float:
    """Factor for the prevailing failure mode of walls; it needs the aspect ratio of the walls."""
    if not tables.BEHAVIOUR[_flexible_row(lateral_system, torsionally_flexible)].walls or ductility_class == "DCL":
        return 1.0
    if alpha_0 is None:
        raise MissingInput("alpha_0")
    return min(max((1.0 + alpha_0) / 3.0, 0.5), 1.0)


@rule(
    clause="Tables 5.1, 6.2, 7.2, 8.1, 9.1; 5.2.2.2(8), 6.3.2(4), 7.3.2(4)",
    tex=(
        r"\q{q_0} = \text{table}(\q{lateral_system},\ \q{ductility_class})\times\q{alpha_u_1}\ (\le 1.5\text{ "
        r"concrete},\ 1.6\text{ steel})"
    ),
)
def q_0(lateral_system: str, ductility_class: str, alpha_u_1: float, torsionally_flexible: bool = False) -> float:
    """Basic value of the behaviour factor, with the overstrength ratio where the table has it.

    Up to its greatest value.
    """
    name = _flexible_row(lateral_system, torsionally_flexible)
    row = tables.BEHAVIOUR[name]
    value = row.q_0[ductility_class]
    if value is None:
        other = next(c for c in ("DCM", "DCH", "DCL") if row.q_0[c] is not None)
        raise RuleRefused(
            "ductility_class",
            f"{row.title} have no behaviour factor in class {ductility_class}",
            f"Take {other} for this system.",
        )
    most = tables.RATIO_MOST.get(name.split("_")[0], math.inf)
    return value * min(alpha_u_1, most) if row.multiplied[ductility_class] else value


@rule(
    clause="5.2.2.2(1)P, Eq. 5.1; 4.2.3.1(7)",
    tex=r"\q{q} = \q{q_0}\,\q{k_w} \ge 1.5,\ \times 0.8\text{ if irregular in elevation}",
)
def q(q_0: float, k_w: float, ductility_class: str, regular_in_elevation: bool | None = None) -> Governed:
    """Behaviour factor in the direction, at least 1.5.

    Regularity in elevation that is not stated is assumed, and states it.
    """
    if ductility_class == "DCL":
        return Governed(1.5, "DCL")
    value = q_0 * k_w * (0.8 if regular_in_elevation is False else 1.0)
    words = {
        None: "5.1, regular in elevation assumed: not stated",
        True: "5.1",
        False: "5.1, x 0.8 irregular in elevation",
    }
    return bounded(Governed(value, words[regular_in_elevation]), lower=Governed(1.5, "5.1, at least 1.5"))


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
    h_n: float,
    C_t: float | None = None,
    T_a_formula: str = "4.6",
    A_c: float | None = None,
    d_gravity: float | None = None,
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
    if C_t is None:
        raise MissingInput("period_type")
    return Governed(C_t * h_n**0.75, "4.6")


@rule(clause="4.3.3.2.2(1)P", tex=r"\q{T} = \q{T_analysis}\ \text{or}\ \q{T_a}")
def T(T_a: float | None = None, T_analysis: float | None = None) -> Governed:
    """Fundamental period used, s: that of analysis, which this code does not limit, else the approximate one."""
    if T_analysis is None and T_a is None:
        raise MissingInput("period_type")
    approximate = () if T_a is None else (Candidate("T_a", T_a, "base"),)
    if T_analysis is None:
        return Governed(float(T_a or 0.0), "T_a", approximate)
    return Governed(T_analysis, "analysis", (Candidate("analysis", T_analysis, "base"), *approximate))


@rule(clause="3.2.2.5, Eq. 3.13 to 3.16", tex=r"\q{S_a_T} = S_d(\q{T})")
def S_a_T(T: float, a_g: float, S: float, T_B: float, T_C: float, T_D: float, q: float, beta: float) -> Governed:
    """Ordinate of the design spectrum at the period used, g, and the branch that gave it."""
    at = np.array([T])
    value = float(design(at, a_g, S, T_B, T_C, T_D, q, beta)[0])
    if within(T, T_C):
        branch = "3.13" if below(T, T_B) else "3.14"
        return Governed(value, branch, (Candidate(branch, value, "base"),))
    branch = "3.15" if within(T, T_D) else "3.16"
    free = float(design(at, a_g, S, T_B, T_C, T_D, q, 0.0)[0])
    return bounded(Governed(free, branch), lower=Governed(beta * a_g, f"{branch}, lower bound"))


@rule(
    clause="4.3.3.2.2(1)P",
    tex=r"\q{lambda_} = 0.85\text{ for }\q{T} \le 2\,\q{T_C}\text{ and more than two stories, else }1",
)
def lambda_(T: float, T_C: float, N: int) -> float:
    """Correction factor for the effective modal mass of the first mode."""
    return 0.85 if within(T, 2.0 * T_C) and N > 2 else 1.0


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


@rule(clause="4.3.2(1)P, Eq. 4.3; 4.3.6.3.1(2)", tex=r"\q{eccentricity} = 0.05,\ \text{doubled for irregular infills}")
def eccentricity(infills: Mapping[str, Any] | None = None) -> float:
    """Accidental eccentricity as a share of the floor dimension perpendicular to the action.

    Doubled where masonry infills are arranged irregularly in plan, not severely (4.3.6.3.1(2)).
    """
    return 0.10 if infills is not None and infills["plan"] == "irregular" else 0.05


@rule(clause="4.3.6.3", tex=r"\eta = 1 + \frac{\Delta V_{Rw}}{\sum V_{Ed}} \le \q{q}")
def infill_effects(infills: Mapping[str, Any], q: float, V_story: Array | None = None) -> dict[str, Any]:
    """What follows from masonry infills: `eta` on the effects in the columns of the open story, and words.

    eta : Eq. 4.26, not needed below 1.1 (4.3.6.3.2(3)); None where its values are not known.
    """
    words = []
    if infills["plan"] == "irregular":
        words.append("effects of the accidental eccentricity times 2.0 (4.3.6.3.1(2))")
    if infills["plan"] == "severe":
        words.append("a spatial model with the infills, and a sensitivity analysis of their position (4.3.6.3.1(1)P)")
    eta = None
    if infills.get("open_story"):
        level, shear = infills.get("open_level"), infills.get("story_shear")
        if shear is None and V_story is not None and level is not None:
            shear = float(V_story[level])
        reduction = infills.get("strength_reduction")
        if reduction is not None and shear:
            eta = min(1.0 + reduction / shear, q)
        applied = eta is None or not below(eta, 1.1)
        words.append(
            f"effects in the vertical members of {infills['open_story']} times "
            f"{'eta by Eq. 4.26' if eta is None else f'{eta:.3g}'} (4.3.6.3.2)"
            if applied
            else f"eta of {eta:.3g} for {infills['open_story']} is below 1.1: no increase is needed (4.3.6.3.2(3))"
        )
    return {"eta": eta, "words": words}


WALL_SHARES = {
    "rc_frame": ("frames resist more than 65 % of the base shear", 0.35, "max"),
    "rc_dual_frame": ("frames resist more than 50 % of the base shear", 0.50, "max"),
    "rc_dual_wall": ("walls resist more than 50 % of the base shear", 0.50, "min"),
    "rc_wall": ("walls resist at least 65 % of the base shear", 0.65, "min"),
    "rc_two_walls": ("walls resist at least 65 % of the base shear", 0.65, "min"),
    "rc_coupled": ("walls resist at least 65 % of the base shear", 0.65, "min"),
}
"""5.1.2: shares of the shear resistance at the base by the beginning of a system's id.

Limits on the share of the walls.
"""


@rule(clause="5.1.2")
def system_checks(lateral_system: str, wall_share: float | None = None) -> list[dict[str, Any]]:
    """Conditions of the lateral system: the share of the base shear that its walls resist."""
    rows = []
    for beginning in sorted(WALL_SHARES, key=len, reverse=True):
        if lateral_system.startswith(beginning):
            words, limit, side = WALL_SHARES[beginning]
            rows.append(conditions.condition(words, wall_share, limit, side, "5.1.2"))
            break
    return rows


@rule(clause="4.3.3.2.1(2)", tex=r"\q{T} \le \min(4\,\q{T_C},\ 2.0\,\text{s})")
def static_permitted(T: float, T_C: float, regular_in_elevation: bool | None = None) -> str:
    """Whether the lateral force method is permitted in the direction."""
    if exceeds(T, min(4.0 * T_C, 2.0)):
        return "not permitted: T_1 above 4 T_C or 2.0 s (4.3.3.2.1(2)a)"
    if regular_in_elevation is None:
        return "open: regularity in elevation is not stated"
    return "permitted" if regular_in_elevation else "not permitted: irregular in elevation (4.3.3.2.1(2)b)"


@rule(clause="4.3.3.2.1, 4.3.3.2.2(3)")
def static_notes(
    static_permitted: str,
    h_n: float,
    T: Governed,
    q: Governed,
    T_a: Governed | None = None,
    lateral_system: str = "",
    period_type: str = "",
) -> list[str]:
    """What a reviewer should know about the static method here."""
    notes = [] if static_permitted == "permitted" else [f"lateral force method: {static_permitted}"]
    if T.governed_by == "T_a" and T_a is not None and T_a.governed_by in ("4.6", "4.7") and exceeds(h_n, 40.0):
        notes.append(f"Eq. {T_a.governed_by} is for heights up to 40 m; take the period from analysis (4.3.3.2.2(3))")
    if below(q.value, 1.5):
        notes.append("q below 1.5: the recommended lower bound of the behaviour factor is 1.5 (3.2.2.5(3)P)")
    if "assumed" in q.governed_by:
        notes.append(
            "regularity in elevation is not stated: q is without the factor 0.8 of irregular buildings (4.2.3.1(7))"
        )
    return notes + shared.period_type_note(tables.PERIOD_TYPES, lateral_system, period_type, "4.3.3.2.2(3)")


@rule(clause="4.3.3.2.4, Eq. 4.12", tex=r"\delta = 1 + 0.6\,\frac{x}{L_e}\text{ (one plane model: }1.2)")
def torsion_effects() -> dict[str, Any]:
    """Factor on the effects in an element at distance x from the centre of mass, L_e between the outermost elements.

    For lateral stiffness and mass symmetric in plan and no more exact method; with a separate plane model for each
    direction of a building that is not, 0.6 becomes 1.2 (4.3.3.3.3(3)).
    """
    return {"x_over_L_e": 0.6, "x_over_L_e_plane_models": 1.2}


REGULARITY = (
    (True, True, "plane models, lateral force method, q"),
    (True, False, "plane models, modal analysis, 0.8 q"),
    (False, True, "a spatial model, lateral force method, q"),
    (False, False, "a spatial model, modal analysis, 0.8 q"),
)
"""Table 4.1: regular in plan, in elevation -> model, analysis, behaviour factor."""


@rule(clause="4.2.3.1, Table 4.1, 4.3.3.1(8), (9)")
def regularity_consequences(
    regular_in_plan: bool | None = None, regular_in_elevation: bool | None = None, h_n: float | None = None
) -> list[str]:
    """Model, analysis and behaviour factor for this regularity (Table 4.1), and when plane models may be in."""
    if regular_in_plan is None or regular_in_elevation is None:
        lacks = [n for n, v in (("in plan", regular_in_plan), ("in elevation", regular_in_elevation)) if v is None]
        return [f"Table 4.1: regularity {' and '.join(lacks)} is not stated"]
    consequences = [
        f"Table 4.1: {next(words for p, e, words in REGULARITY if (p, e) == (regular_in_plan, regular_in_elevation))}"
    ]
    if not regular_in_plan and h_n is not None and within(h_n, 10.0):
        consequences.append(
            "up to 10 m high, with well distributed cladding and partitions and stiff diaphragms: plane "
            "models, all effects times "
            "1.25, or without it where r_x^2 > l_s^2 + e_0x^2 and the same in y (4.3.3.1(8), (9)), by declaration"
        )
    return consequences


SLENDERNESS, SETBACK, ECCENTRICITY = 4.0, 0.05, 0.30


@rule(clause="4.2.3.2", tex=r"\lambda \le 4,\ e_0 \le 0.30\,r,\ r \ge l_s,\ \text{set-backs} \le 5\,\%")
def plan_regularity(
    setbacks: list[dict[str, Any]] | None = None,
    corners: list[plans.Outline] | None = None,
    floors_known: list[dict[str, Any]] | None = None,
    symmetric_in_plan: bool | None = None,
    irregularities: Mapping[str, bool] | None = None,
) -> list[dict[str, Any]]:
    """Return the tests of regularity in plan, each met, not met or not tested.

    They are symmetry and stiffness of the floors as declared, slenderness, set-backs, eccentricity, torsional radius.

    e_0 and r of a floor along X belong to its stiffness in Y; l_s is that of the floor mass, of a rectangle where
    only its plan is known.
    """
    rows: list[dict[str, Any]] = []
    slender = max((plans.slenderness(extent) for extent in setbacks), default=None) if setbacks else None
    rows.append(_test("slenderness L_max/L_min", slender, SLENDERNESS, "max", "4.2.3.2(5)"))
    notch = max(plans.recess(outline) for outline in corners) if corners else None
    rows.append(_test("set-back in plan over the floor area", notch, SETBACK, "max", "4.2.3.2(3)"))
    for axis in ("X", "Y"):
        ratios, radii = [], []
        for floor in floors_known or ():
            if floor["e_0"].get(axis) is None or floor["r"].get(axis) is None:
                continue
            l_s = floor["l_s"] or (
                ((floor["plan"][0] ** 2 + floor["plan"][1] ** 2) / 12.0) ** 0.5 if floor["plan"] else None
            )
            ratios.append(floor["e_0"][axis] / floor["r"][axis])
            if l_s is not None:
                radii.append(floor["r"][axis] / l_s)
        rows.append(
            _test(
                f"e_0{axis.lower()} / r_{axis.lower()}",
                max(ratios, default=None),
                ECCENTRICITY,
                "max",
                "4.2.3.2(6), Eq. 4.1a",
            )
        )
        rows.append(_test(f"r_{axis.lower()} / l_s", min(radii, default=None), 1.0, "min", "4.2.3.2(6), Eq. 4.1b"))
    discontinuous = (irregularities or {}).get("diaphragm_discontinuity")
    for words, met, clause in (
        ("stiffness and mass approximately symmetric in plan", symmetric_in_plan, "4.2.3.2(2)"),
        ("in-plane stiffness of the floors", None if discontinuous is None else not discontinuous, "4.2.3.2(4)"),
    ):
        rows.append({"words": words, "value": None, "limit": None, "side": "max", "met": met, "clause": clause})
    return rows


def _test(words: str, value: float | None, limit: float, side: str, clause: str) -> dict[str, Any]:
    met = None if value is None else within(value, limit) if side == "max" else reaches(value, limit)
    return {"words": words, "value": value, "limit": limit, "side": side, "met": met, "clause": clause}


def _all_met(tests: list[dict[str, Any]]) -> bool | None:
    """Whether all tests are met; None where one is not known and none fails."""
    met = [t["met"] for t in tests]
    return False if False in met else None if None in met else True


@rule(clause="4.2.3.2", tex=r"\q{regular_in_plan} = \text{all tests of }\q{plan_regularity}")
def regular_in_plan(plan_regularity: list[dict[str, Any]]) -> bool:
    """Regular in plan: all tests met; requested where one of them could not be made and none fails."""
    met = _all_met(plan_regularity)
    if met is None:
        raise MissingInput("regular_in_plan")
    return met


@rule(clause="4.2.3.3", tex=r"\q{regular_in_elevation} = \text{no test of }\q{elevation_regularity}\text{ fails}")
def regular_in_elevation(elevation_regularity: list[dict[str, Any]]) -> bool:
    """Not regular in elevation where a set-back is beyond its limit.

    Otherwise to be declared, for the tests show set-backs only.
    """
    if _all_met(elevation_regularity) is not False:
        raise MissingInput("regular_in_elevation")
    return False


@rule(clause="4.2.3.2(6), 5.2.2.1(4)P", tex=r"\q{torsionally_flexible} = r < l_s")
def torsionally_flexible(plan_regularity: list[dict[str, Any]]) -> bool:
    """Whether a torsional radius is below the radius of gyration of the floor mass; not where that was not tested."""
    return any(t["met"] is False for t in plan_regularity if t["words"].endswith("/ l_s"))


@rule(clause="4.2.3.3, Figure 4.1")
def elevation_regularity(setbacks: list[dict[str, Any]], h: Array) -> list[dict[str, Any]]:
    """Tests of set-backs in elevation, in each direction.

    Gradual and symmetric: at most 20 % of the plan dimension below at each floor.  One set-back within the lowest 15
    % of the
    height: at most 50 %.  On one face: in sum at most 30 % of the plan dimension at the base, each at most 10 % of
    that below.
    """
    tops = np.cumsum(h)
    rows = []
    for axis in ("X", "Y"):
        worst, words, limit = 0.0, "set-backs", 0.20
        lost = {0: 0.0, 1: 0.0}
        failed = False
        base = setbacks[0][axis][1] - setbacks[0][axis][0]
        steps = []
        for level, (lower, upper) in enumerate(pairwise(setbacks)):
            below_it = lower[axis][1] - lower[axis][0]
            moves = (max(upper[axis][0] - lower[axis][0], 0.0), max(lower[axis][1] - upper[axis][1], 0.0))
            if sum(moves) <= 1e-9 * below_it:
                continue
            steps.append(level)
            share = sum(moves) / below_it
            worst = max(worst, share)
            symmetric = abs(moves[0] - moves[1]) <= 1e-6 * below_it
            if symmetric:
                low = within(float(tops[level]), 0.15 * float(tops[-1])) and steps == [level]
                failed = failed or exceeds(share, 0.50 if low else 0.20)
                limit = 0.50 if low else limit
            else:
                words = "set-backs on one face"
                limit = 0.10
                for side in (0, 1):
                    lost[side] += moves[side]
                    failed = failed or exceeds(moves[side] / below_it, 0.10)
        total = max(lost.values()) / base
        if exceeds(total, 0.30) and not failed:
            words, worst, limit = "sum of set-backs on one face over the base dimension", total, 0.30
        failed = failed or exceeds(total, 0.30)
        row = _test(f"{words} along {axis}", worst, limit, "max", "4.2.3.3(5)")
        rows.append({**row, "met": not failed})
    return rows


@rule(clause="EN 1990 6.4.3.4, 3.2.4", tex=r"\sum G_k + P + A_{Ed} + \sum \psi_2 Q_k")
def load_combinations() -> list[dict[str, Any]]:
    """The seismic design situation; psi_2 by category of use (not psi_E, which is for masses)."""
    return [
        {"name": "6.12b", "factors": {"G": 1.0, "P": 1.0, "A_Ed": 1.0, f"Q {category}": psi}}
        for category, psi in tables.PSI_2.items()
    ]


@rule(clause="4.3.3.5.1")
def direction_rule(regular_in_plan: bool | None = None) -> list[str]:
    """How the two horizontal components act together."""
    rules = ["SRSS of the effects of the two components, or 100 % with 30 % (4.3.3.5.1(2), (3), Eq. 4.18 and 4.19)"]
    if regular_in_plan:
        rules.append(
            "regular in plan with walls or bracing as the only primary elements: directions may be taken apart "
            "(4.3.3.5.1(8))"
        )
    return rules


@rule(clause="4.3.3.5.1")
def directions_together() -> str:
    """Why both components act together."""
    return "the components act simultaneously (4.3.3.5.1(1)P)"


RULES = (
    regular_in_plan,
    regular_in_elevation,
    cited(shared.static_governed_by, "4.3.3.2.2"),
    torsionally_flexible,
    plan_regularity,
    elevation_regularity,
    regularity_consequences,
    torsion_effects,
    infill_effects,
    system_checks,
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
    directions_together,
)
