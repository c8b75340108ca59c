"""The drifts of a direction that are compared with their limit.

Where they are taken, of which cases, and how scaled.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from plumb_core.checks.claims import ClaimSet, theirs
from plumb_core.checks.results import CaseResults
from plumb_core.documents.brief import Level
from plumb_core.documents.submission import LoadCase
from plumb_core.rules import Array, Evaluation, Key

DRIFTS = (
    "drift_end_1",
    "drift_end_2",
    "drift_max",
    "drift_avg",
    "drift_single",
    "displacement_end_1",
    "displacement_end_2",
    "displacement_centre",
    "displacement_single",
)
"""What drifts of a case are read from."""
DAMAGE_LIMITATION = re.compile(r"damage|\bdls\b|\bnu\b|\u03bd", re.IGNORECASE)
"""Names of cases whose amplified drifts are those of the damage limitation action."""


class Pair(NamedTuple):
    """A case with reduced results and the one with amplified results that is alike in everything else; drifts in m."""

    reduced: str
    amplified: str
    small: Array
    large: Array


@dataclass(frozen=True)
class Governing:
    """The drifts of a direction that are compared with their limit.

    Attributes
    ----------
    direction : of the drifts
    elastic : under the reduced action, m, shape (n_stories,), scaled as the code requires; the greatest over the
        cases, NaN where one of them has none
    case : that governs at each story, or has no drift there
    at_edges : whether they are the greatest of the two ends, not their mean
    level_stated : whether every case says whether its results are reduced
    pairs : reduced and amplified cases that belong together
    factors : by which the drifts of a case are multiplied to give those that the code requires, where it is not 1
    """

    direction: str
    elastic: Array
    case: tuple[str, ...]
    at_edges: bool
    level_stated: bool
    pairs: tuple[Pair, ...]
    factors: Mapping[str, float]


@dataclass(frozen=True)
class Conditions:
    """What decides which drifts are compared.

    Attributes
    ----------
    at_edges : whether the greatest of the ends counts
    required : scale factor that modal drifts require
    used : scale factor of their scaled results, None where it is not known
    elastic_share : of elastic results in reduced ones
    amplifier : of amplified results over reduced ones
    nu : of drifts that are stated for the damage limitation action; 1 where the edition has none
    with_nu : cases of the declared level of damage limitation, where the edition has a nu
    apart : cases of other declared action levels, which the design drift does not count
    """

    at_edges: bool
    required: float
    used: float | None
    elastic_share: float | None
    amplifier: float | None
    nu: float = 1.0
    with_nu: frozenset[str] = frozenset()
    apart: frozenset[str] = frozenset()


def conditions_of(
    evaluation: Evaluation, claims: ClaimSet, direction: str, levels: Mapping[str, Level] | None = None
) -> Conditions:
    """What decides which drifts of a direction are compared, by the facts of an evaluation."""
    amplifier = evaluation.get("amplifier", direction)
    share = evaluation.get("spectrum_factor", direction)
    used = claims.by_key.get(Key("factor_used", direction))
    with_nu = {
        c for c, level in (levels or {}).items() if level.kind == "damage_limitation" and "nu" in evaluation.rules
    }
    return Conditions(
        at_edges=evaluation.get("drift_at") == "edges",
        required=float(evaluation.get("factor_drift", direction) or 1.0),
        used=float(theirs(used.single[0])) if used is not None and used.single else None,
        # where the design spectrum contains the reduction itself, drifts are amplified by it
        elastic_share=share if share is not None else 1.0 / amplifier if amplifier else None,
        amplifier=amplifier,
        nu=float(evaluation.get("nu") or 1.0),
        with_nu=frozenset(with_nu),
        apart=frozenset(levels or ()) - with_nu,
    )


def governing_drifts(results: CaseResults, direction: str, conditions: Conditions) -> Governing | None:
    """The greatest drifts of a direction, of the modal cases where there are any, else of the static ones.

    Modal drifts are multiplied by the factor that the code requires of drifts; results after scaling are divided by the
    factor of their case first.
    """
    drawn: dict[str, Array] = {}
    for case, d in results.seismic(results.with_values(*DRIFTS)):
        ends = results.drifts(d, case) if d == direction and case not in conditions.apart else None
        if ends is None:
            continue
        at = ends.greatest if conditions.at_edges and not np.all(np.isnan(ends.greatest)) else ends.mean
        if not np.all(np.isnan(at)):
            drawn[case] = at
    if not drawn:
        return None
    roles = {case: results.cases.get(case) or LoadCase(name=case) for case in drawn}
    pairs = tuple(
        Pair(r, a, drawn[r], drawn[a])
        for a in drawn
        if roles[a].level == "amplified"
        for r in drawn
        if roles[r].level == "reduced" and alike(roles[a], roles[r]) and not np.any(np.isnan(drawn[r] + drawn[a]))
    )
    paired = {p.amplified for p in pairs}
    reduced = {
        case: drift * back
        for case, drift in drawn.items()
        if case not in paired and (back := _to_reduced(roles[case], conditions)) is not None
    }
    modal = [c for c in reduced if roles[c].kind in ("modal", "time_history")]
    # a case before scaling needs no division
    retained = [c for c in modal if roles[c].step in ("before", None)] or modal or list(reduced)
    if not retained:
        return None
    factors = {c: f for c in retained if (f := _scaled_by(roles[c], conditions)) != 1.0}
    values = np.array([reduced[c] * factors.get(c, 1.0) for c in retained])
    # of a case without a drift at a story nobody knows whether it governs there; argmax takes a NaN first
    worst = np.argmax(values, axis=0)
    return Governing(
        direction,
        values[worst, np.arange(values.shape[1])],
        tuple(retained[i] for i in worst),
        conditions.at_edges,
        all(roles[c].level is not None for c in drawn),
        pairs,
        factors,
    )


def drifts_of_levels(
    results: CaseResults, direction: str, conditions: Conditions, levels: Mapping[str, Level]
) -> dict[str, Array]:
    """Greatest drift of each story over the cases of each declared action level, m, by the name of the level.

    Results of a reduced spectrum of the level are amplified as design drifts are.
    """
    found: dict[str, Array] = {}
    for case, d in results.seismic(results.with_values(*DRIFTS)):
        if d != direction or case not in conditions.apart:
            continue
        ends = results.drifts(d, case)
        role = results.cases.get(case) or LoadCase(name=case)
        factor = conditions.amplifier if role.level == "reduced" else 1.0
        if ends is None or factor is None:
            continue
        at = ends.greatest if conditions.at_edges and not np.all(np.isnan(ends.greatest)) else ends.mean
        name = levels[case].name
        if not np.all(np.isnan(at)):
            found[name] = np.maximum(found.get(name, 0.0), at * factor)
    return found


def _to_reduced(role: LoadCase, conditions: Conditions) -> float | None:
    """Factor from the results of a case to those of the reduced action; None where it is not known."""
    declared = role.name in conditions.with_nu
    if role.level == "elastic":
        share = conditions.elastic_share
        return share / conditions.nu if share is not None and declared else share
    if role.level == "amplified":
        if not conditions.amplifier:
            return None
        stated_with_nu = conditions.nu if declared or DAMAGE_LIMITATION.search(role.name) else 1.0
        return 1.0 / (conditions.amplifier * stated_with_nu)
    return 1.0 / conditions.nu if declared else 1.0


def _scaled_by(role: LoadCase, conditions: Conditions) -> float:
    """Factor from the drifts of a case to those with the scaling that the code requires of drifts."""
    if role.kind != "modal":
        return 1.0
    if role.step == "after":
        used = role.factor if role.factor is not None and role.factor > 0 else conditions.used
        return conditions.required / used if used else 1.0
    return conditions.required if role.step == "before" else 1.0


def alike(one: LoadCase, other: LoadCase) -> bool:
    """Whether two cases differ in nothing but their names and the level of their results."""
    return (one.kind, one.direction, one.eccentricity, one.step) == (
        other.kind,
        other.direction,
        other.eccentricity,
        other.step,
    )


def static_mean(results: CaseResults, direction: str, stories: int) -> tuple[Array, str] | None:
    """Greatest over the static cases of the reduced drift at the mean of the ends, m, and the case that it is of.

    NaN at the stories where one of them has none.
    """
    stated = []
    for case, d in results.seismic(results.with_values(*DRIFTS), "reduced"):
        if d != direction or (results.cases.get(case) or LoadCase(name=case)).kind not in ("static", None):
            continue
        drift = results.drifts(d, case)
        if drift is not None and len(drift.mean) == stories and not np.all(np.isnan(drift.mean)):
            stated.append((drift.mean, case))
    if not stated:
        return None
    return np.max([mean for mean, _ in stated], axis=0), max(stated, key=lambda w: float(np.nanmax(w[0])))[1]


def shear_with_drifts(
    results: CaseResults, claims: ClaimSet, evaluation: Evaluation, direction: str, case: str
) -> Array | None:
    """Story shears of the static case that gave the drifts, kN, where its base shear is not that for strength.

    The story shears of the edition in the ratio of the base reaction of the case; None where they are those for
    strength.
    """
    reaction = results.claim(f"reaction_{direction}", direction, case) or results.claim(
        f"reaction_{direction}", None, case
    )
    V, shears = evaluation.get("V", direction), evaluation.get("V_story", direction)
    if reaction is None or V is None or shears is None:
        return None
    for_drift = evaluation.get("V_base_drift", direction)
    stated = abs(float(reaction.value))
    # only a base shear for drift of its own counts; one that is wrong is found by its own check
    if for_drift is None or abs(for_drift / V - 1.0) < 0.02 or abs(stated / for_drift - 1.0) > 0.02:
        return None
    return np.asarray(shears * (for_drift / V), dtype=float)
