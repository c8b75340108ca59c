"""What a recheck evaluates beside the edition's rules: modal base shear, twist and drift of the submitted cases.

The rules are those of the edition at other places (an ordinate at the periods of their modes, a stability coefficient at
the mean of the ends), and a few that hold under every edition.  Their inputs are read off the submission's tables.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any, NamedTuple

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.claims import ClaimSet, theirs
from plumb_core.checks.results import CaseResults, Ends
from plumb_core.documents.submission import Case
from plumb_core.dynamics.combine import ModalRule
from plumb_core.editions import Edition
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.rules import Array, Evaluation, Key, Rule, cited, renamed, rule

TINY_OF_HEIGHT, TINY_OF_GREATEST = 0.0002, 0.05
"""Drifts below these shares of the story height and of the case's greatest say nothing of twist."""

AT_MODES = {"T_points": "T_modes", "S_a": "S_a_m", "S_a_damped": "S_a_m_damped", "S_a_reduced": "S_a_modes"}
AT_MEAN = {"delta_e": "delta_e_mean", "Delta": "Delta_mean"}
OF_GOVERNING = {"displacement_max": "displacement_far", "displacement_avg": "displacement_mean", "A_x_case": "A_x"}


@rule(clause="", tex=r"\q{V_static} = \q{V}")
def V_static(V: float) -> float:
    """Static base shear that the modal one is held to."""
    return V


@rule(clause="", tex=r"\q{V_scaled} = \q{factor_used}\,\q{V_dynamic}")
def V_scaled(factor_used: float, V_dynamic: float) -> float:
    """Base shear of the modal analysis after scaling."""
    return factor_used * V_dynamic


@rule(
    clause="",
    tex=r"\q{V_dynamic} = \sqrt{\sum_m\sum_n \rho_{mn}\,V_m V_n},\ V_m = \q{mass_share}\,\q{W}\,\q{S_a_modes}\,\q{curve_off}",
)
def V_dynamic(
    mass_share: Array,
    S_a_modes: Array,
    T_modes: Array,
    W: float,
    curve_off: Array | None = None,
    combined_by: str = "CQC",
    damping_modes: float = 0.05,
) -> float:
    """Base shear of the modes of a direction, kN: share of the mass x weight x reduced ordinate, combined.

    A. K. Chopra, Dynamics of Structures, 13.8: the base shear of a mode is its effective modal mass times its ordinate.
    """
    of_modes = mass_share * W * S_a_modes * (1.0 if curve_off is None else curve_off)
    by = combined_by if combined_by in ("CQC", "SRSS", "ABS") else "CQC"
    return float(ModalRule(by, 2.0 * np.pi / T_modes, damping_modes, rigid=False)(of_modes))  # type: ignore[arg-type]


@rule(clause="", tex=r"\q{P} = \sum_{i \ge x} w_i")
def P(w: Array) -> Array:
    """Vertical load at and above each story, kN, shape (n_stories,): the seismic weight where no other is stated."""
    return np.asarray(np.cumsum(w[::-1])[::-1])


@rule(clause="", tex=r"\q{V_drift} = \q{V_story}")
def V_drift(V_story: Array) -> Array:
    """Story shear that goes with the static drifts, kN, shape (n_stories,)."""
    return V_story


@rule(clause="", tex=r"\q{theta_greatest} = \max_x \theta_x")
def theta_greatest(theta: Array) -> float:
    """Greatest stability coefficient of the direction."""
    return float(np.max(theta))


COMMON = (V_static, V_scaled, V_dynamic, P, V_drift, theta_greatest)


@cache
def _stage_rules(rules: tuple[Rule, ...]) -> dict[str, Rule]:
    """Rules beside those of an edition, which are given."""
    own = {r.name: r for r in rules}
    clause = own["scaling_share"].clause if "scaling_share" in own else ""
    made = {r.name: cited(r, clause) if r in (V_static, V_scaled) else r for r in COMMON}
    at_modes = [renamed(own[name], AT_MODES) for name in ("S_a", "S_a_damped", "S_a_reduced") if name in own]
    at_mean = [renamed(own[name], AT_MEAN) for name in ("Delta", "theta") if name in own]
    governing = [renamed(own["A_x_case"], OF_GOVERNING)] if "A_x_case" in own else []
    return made | {r.name: r for r in (*at_modes, *at_mean, *governing)}


@dataclass(frozen=True)
class Twist:
    """Twist of one case in its direction.

    Attributes
    ----------
    case, direction : whose
    drift, displacement : of the ends; None where they aren't stated
    ratio : by which the edition judges, shape (n_stories,); NaN where it is none
    tiny : stories whose drifts are too small to say anything
    classes : of the stories; None where the edition has none
    """

    case: str
    direction: str
    drift: Ends | None
    displacement: Ends | None
    ratio: Array
    tiny: Array
    classes: tuple[str, ...] | None


def twists_of(results: CaseResults, evaluation: Evaluation) -> list[Twist]:
    """Twist of every case whose ends are stated, by the edition's ratio and classes; all cases in one evaluation."""
    pairs = results.seismic(
        results.with_values(
            *(f"{what}_{n}" for what in ("drift", "displacement") for n in ("end_1", "end_2", "max", "avg"))
        )
    )
    stated = [(case, d, results.drifts(d, case), results.ends("displacement", d, case)) for case, d in pairs]
    usable = [s for s in stated if any(e is not None and not np.all(np.isnan(e.greatest)) for e in s[2:])]

    if not usable or "torsion_ratio" not in evaluation.rules:
        return []
    h = evaluation.inputs.get(Key("h"))
    nothing = np.full(results.stories, np.nan)
    columns: dict[str, Array] = {}
    for what, at in (("drift", 2), ("displacement", 3)):
        for which in ("greatest", "mean"):
            parts = [nothing if s[at] is None else getattr(s[at], which) for s in usable]
            columns[f"{what}_{'max' if which == 'greatest' else 'avg'}"] = np.concatenate(parts)
    ratio, classes = _judged(evaluation, columns)
    found = []
    for number, (case, d, drift, displacement) in enumerate(usable):
        own = slice(number * results.stories, (number + 1) * results.stories)
        found.append(
            Twist(
                case,
                d,
                drift,
                displacement,
                ratio[own],
                _tiny(drift, h, results.stories),
                tuple(classes[own]) if classes is not None else None,
            )
        )
    return found


def _judged(evaluation: Evaluation, columns: Mapping[str, Array]) -> tuple[Array, list[str] | None]:
    """Ratio and class of every row; rows without values have a ratio that is no number and the class regular."""
    names = [p.name for p in evaluation.rules["torsion_ratio"].parameters]
    by_rows = {n: columns[n] for n in names if n in columns}
    # the ratio of IS 1893:2016 is read off displacements where they are stated, off drifts elsewhere
    groups = [("displacement_max", "displacement_avg"), ("drift_max", "drift_avg")]
    length = len(next(iter(columns.values())))
    ratio = np.full(length, np.nan)
    for pair in groups:
        if any(n not in by_rows for n in pair):
            continue
        known = ~np.isnan(by_rows[pair[0]]) & ~np.isnan(by_rows[pair[1]]) & (by_rows[pair[0]] > 0) & np.isnan(ratio)
        if known.any():
            own = Evaluation(
                evaluation.rules, {Key(n, "X", "all"): by_rows[n][known] for n in pair}, cases={"all": "X"}
            )
            ratio[known] = own.value("torsion_ratio", "X", "all")
    if "torsion_class" not in evaluation.rules:
        return ratio, None
    classes = np.full(length, "regular", dtype=object)
    known = ~np.isnan(ratio)
    if known.any():
        inputs = {**evaluation.inputs, Key("torsion_ratio", "X", "all"): ratio[known]}
        classes[known] = Evaluation(evaluation.rules, inputs, cases={"all": "X"}).value("torsion_class", "X", "all")
    return ratio, list(classes)


def _tiny(drift: Ends | None, h: Array | None, stories: int) -> Array:
    if drift is None or np.all(np.isnan(drift.greatest)):
        return np.zeros(stories, dtype=bool)
    least = TINY_OF_GREATEST * np.nanmax(drift.greatest)
    heights = np.zeros(stories) if h is None or len(h) != stories else h
    return np.asarray(drift.greatest < np.maximum(least, TINY_OF_HEIGHT * heights))


@dataclass(frozen=True)
class Staged:
    """Both evaluations with the rules and inputs of the stages, and what was read off the tables for them.

    Attributes
    ----------
    twists : of every case whose ends are stated
    irregular : whether any story that isn't tiny is irregular in any case; None where the edition has no class or nothing is
        stated
    drifts : of each direction that states any, those that are held to the limit
    """

    independent: Evaluation
    carried: Evaluation
    twists: tuple[Twist, ...] = ()
    irregular: bool | None = None
    drifts: tuple[Governing, ...] = ()


def staged(
    edition: Edition, independent: Evaluation, carried: Evaluation, claims: ClaimSet, results: CaseResults
) -> Staged:
    """Add the stages to both evaluations, where the submission states anything of them."""
    if not results.values and not _states_a_stage(claims):
        return Staged(independent, carried)
    rules = _stage_rules(tuple(independent.rules.values()))
    inputs: dict[Key, Any] = _of_modes(claims)
    twists = tuple(twists_of(results, independent))
    judged = [t for t in twists if t.classes is not None]
    irregular = any(_irregular(t) for t in judged) if judged else None
    if irregular is not None:
        inputs[Key("torsion_irregular")] = irregular
    inputs |= _of_displacements(twists)
    drifts = _governing(edition, independent, results, irregular)
    inputs |= {Key("delta_e", g.direction): g.elastic for g in drifts}
    for direction in DIRECTIONS:
        mean = _static_mean(results, direction, len(claims.stories))
        if mean is not None:
            inputs[Key("delta_e_mean", direction)] = mean
    named = {Key("combined_by"), Key("damping_modes")}
    told = {k: theirs(claims.by_key[k].single[0]) for k in named if k in claims.by_key and claims.by_key[k].single}
    adopted = frozenset({*inputs, *told})
    given = {**inputs, **told}
    independent = _with(independent, rules, given, adopted)
    carried = _with(carried, rules, given, adopted)
    carried = carried.assuming(inputs=_curve_off(independent, carried, claims))
    return Staged(independent, carried, twists, irregular, drifts)


def _with(
    evaluation: Evaluation, rules: Mapping[str, Rule], inputs: Mapping[Key, Any], adopted: frozenset[Key]
) -> Evaluation:
    """The evaluation with further rules and with inputs that are theirs."""
    return Evaluation(
        {**evaluation.rules, **rules},
        {**evaluation.inputs, **inputs},
        evaluation.adopted | adopted,
        evaluation.pins,
        evaluation.pin,
        evaluation.cases,
    )


def _states_a_stage(claims: ClaimSet) -> bool:
    return any(key.name in OF_STAGES for key in claims.by_key)


OF_STAGES = (
    "V_static",
    "V_dynamic",
    "V_scaled",
    "factor_used",
    "factor_required",
    "spectrum_factor",
    "A_x",
    "theta",
    "theta_greatest",
    "torsion_stated",
    "amplifier",
    "drift_limit",
)
"""Quantities that ask for the rules of the stages."""


def _of_modes(claims: ClaimSet) -> dict[Key, Any]:
    """Periods and shares of their modes, of those modes that state both."""
    table = claims.modes
    inputs: dict[Key, Any] = {}
    periods = {m: T for m in table.numbers if (T := table.period(m)) is not None}
    kept = [m for m in periods if any(table.claim(Key("mass_ratio", d), m) is not None for d in DIRECTIONS)]
    if not kept:
        return {}
    inputs[Key("T_modes")] = np.array([periods[m] for m in kept])
    for d in DIRECTIONS:
        shares = [table.claim(Key("mass_ratio", d), m) for m in kept]
        if all(s is not None for s in shares):
            inputs[Key("mass_share", d)] = np.array([max(float(s.value), 0.0) for s in shares if s is not None])
    return inputs


def _curve_off(independent: Evaluation, carried: Evaluation, claims: ClaimSet) -> dict[Key, Any]:
    """Their spectrum and their factor on it over what follows from their own values, at the periods of their modes.

    A wrong curve and a wrong factor are carried into the modal base shear with it; what follows from a wrong coefficient
    is carried already.
    """
    T = independent.inputs.get(Key("T_modes"))
    if T is None:
        return {}
    curve = _their_curve(carried, claims, T)
    off: dict[Key, Any] = {}
    for d in DIRECTIONS:
        factor = claims.by_key.get(Key("spectrum_factor", d))
        ours = _recomputed(carried, Key("spectrum_factor", d))
        ratio = float(theirs(factor.single[0])) / float(ours) if factor and factor.single and ours else 1.0
        if abs(ratio - 1.0) > 0.005 or curve is not None:
            off[Key("curve_off", d)] = (np.ones(len(T)) if curve is None else curve) * (
                ratio if abs(ratio - 1.0) > 0.005 else 1.0
            )
    return off


def _recomputed(carried: Evaluation, key: Key) -> Any:
    try:
        return carried.unpinned(key).value
    except (MissingInput, RuleRefused):
        return None


def _their_curve(carried: Evaluation, claims: ClaimSet, T: Array) -> Array | None:
    points, ordinates = claims.by_key.get(Key("T_points")), claims.by_key.get(Key("S_a"))
    if points is None or ordinates is None or points.indexed.keys() != ordinates.indexed.keys():
        return None
    ours = _recomputed(carried, Key("S_a"))
    if ours is None:
        return None
    order = sorted(points.indexed)
    stated = np.array([float(ordinates.indexed[i].value) for i in order])
    at = np.array([float(points.indexed[i].value) for i in order])
    with np.errstate(divide="ignore", invalid="ignore"):
        off = np.where(np.asarray(ours) > 0, stated / np.asarray(ours), 1.0)
    # what is ours rounded is ours
    off = np.where(np.abs(off - 1.0) <= 0.005, 1.0, off)
    if len(at) < 2 or np.all(off == 1.0):
        return None
    return np.asarray(np.interp(T, at, off))


def _irregular(twist: Twist) -> bool:
    return twist.classes is not None and any(
        c != "regular" and not tiny for c, tiny in zip(twist.classes, twist.tiny, strict=True)
    )


def _of_displacements(twists: tuple[Twist, ...]) -> dict[Key, Any]:
    """Displacements of the ends of each direction, at each story those of the case that turns the most."""
    inputs: dict[Key, Any] = {}
    for d in DIRECTIONS:
        ends = [
            t.displacement
            for t in twists
            if t.direction == d and t.displacement is not None and not np.any(np.isnan(t.displacement.greatest))
        ]
        if not ends:
            continue
        greatest, mean = (np.array([getattr(e, n) for e in ends]) for n in ("greatest", "mean"))
        with np.errstate(divide="ignore", invalid="ignore"):
            turns = np.where(mean > 0, greatest / mean, np.inf)
        worst = np.argmax(turns, axis=0)
        stories = np.arange(greatest.shape[1])
        inputs[Key("displacement_far", d)] = greatest[worst, stories]
        inputs[Key("displacement_mean", d)] = mean[worst, stories]
    return inputs


DRIFTS = (
    "drift_end_1",
    "drift_end_2",
    "drift_max",
    "drift_avg",
    "displacement_end_1",
    "displacement_end_2",
    "displacement_centre",
)
"""What drifts of a case are read off."""


class Pair(NamedTuple):
    """A case with reduced results and the one with amplified results that is alike in everything else; drifts in m."""

    reduced: str
    amplified: str
    small: Array
    large: Array


@dataclass(frozen=True)
class Governing:
    """The drifts of a direction that are held to the limit.

    Attributes
    ----------
    direction : of the drifts
    elastic : under the reduced action, m, shape (n_stories,); the greatest over the cases
    case : that governs at each story
    at_edges : whether they are the greatest of the two ends, not their mean
    level_stated : whether every case says whether its results are reduced
    pairs : reduced and amplified cases that belong together
    """

    direction: str
    elastic: Array
    case: tuple[str, ...]
    at_edges: bool
    level_stated: bool
    pairs: tuple[Pair, ...]


def governing_drifts(
    results: CaseResults,
    direction: str,
    at_edges: bool,
    step: str,
    elastic_share: float | None,
    amplifier: float | None,
) -> Governing | None:
    """The greatest drifts of a direction, of the modal cases where there are any, else of the static ones.

    step : of the modal cases that count, where both are there.  elastic_share : of elastic results in reduced ones.
    amplifier : by which a case is brought back whose results are amplified and that has no reduced one beside it.
    """
    drawn: dict[str, Array] = {}
    for case, d in results.seismic(results.with_values(*DRIFTS)):
        ends = results.drifts(d, case) if d == direction else None
        if ends is None:
            continue
        at = ends.greatest if at_edges and not np.all(np.isnan(ends.greatest)) else ends.mean
        if not np.any(np.isnan(at)):
            drawn[case] = at
    if not drawn:
        return None
    roles = {case: results.cases.get(case) or Case(name=case) for case in drawn}
    pairs = tuple(
        Pair(r, a, drawn[r], drawn[a])
        for a in drawn
        if roles[a].level == "amplified"
        for r in drawn
        if roles[r].level == "reduced" and alike(roles[a], roles[r])
    )
    back = {"elastic": elastic_share, "amplified": 1.0 / amplifier if amplifier else None}
    paired = {p.amplified for p in pairs}
    reduced = {
        case: drift * (1.0 if (level := roles[case].level) in ("reduced", None) else back[level] or 0.0)
        for case, drift in drawn.items()
        if case not in paired and (roles[case].level in ("reduced", None) or back[roles[case].level or ""] is not None)
    }
    modal = [c for c in reduced if roles[c].kind in ("modal", "time_history")]
    kept = [c for c in modal if roles[c].step in (step, None)] or modal or list(reduced)
    if not kept:
        return None
    values = np.array([reduced[c] for c in kept])
    worst = np.argmax(values, axis=0)
    return Governing(
        direction,
        values[worst, np.arange(values.shape[1])],
        tuple(kept[i] for i in worst),
        at_edges,
        all(roles[c].level is not None for c in drawn),
        pairs,
    )


def alike(one: Case, other: Case) -> bool:
    """Whether two cases differ in nothing but their names and the level of their results."""
    return (one.kind, one.direction, one.eccentricity, one.step) == (
        other.kind,
        other.direction,
        other.eccentricity,
        other.step,
    )


def _governing(
    edition: Edition, evaluation: Evaluation, results: CaseResults, irregular: bool | None
) -> tuple[Governing, ...]:
    at_edges = edition.drift_at == "edges where irregular" and bool(irregular)
    found = []
    for direction in DIRECTIONS:
        scaled = _known(evaluation, "scaled", direction) or []
        amplifier = _known(evaluation, "amplifier", direction)
        share = _known(evaluation, "spectrum_factor", direction)
        governing = governing_drifts(
            results,
            direction,
            at_edges,
            "after" if "drifts" in scaled else "before",
            # where the design spectrum holds the reduction itself, it is the one that drifts are amplified by
            share if share is not None else 1.0 / amplifier if amplifier else None,
            amplifier,
        )
        if governing is not None:
            found.append(governing)
    return tuple(found)


def _known(evaluation: Evaluation, name: str, direction: str | None) -> Any:
    try:
        return evaluation.value(name, direction)
    except (MissingInput, RuleRefused):
        return None


def _static_mean(results: CaseResults, direction: str, stories: int) -> Array | None:
    """Greatest over the static cases of the reduced drift at the mean of the ends, m."""
    cases = [
        drift.mean
        for case, d in results.seismic(results.with_values(*DRIFTS), "reduced")
        if d == direction
        and (results.cases.get(case) is None or results.cases[case].kind in ("static", None))
        and (drift := results.drifts(d, case)) is not None
    ]
    whole = [c for c in cases if len(c) == stories and not np.any(np.isnan(c))]
    return np.max(whole, axis=0) if whole else None
