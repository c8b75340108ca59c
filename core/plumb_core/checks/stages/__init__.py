"""The stages of scaling, twist and drift of a recheck: a package each with its inputs and with what is shown.

`staged` adds their rules, inputs and facts to both evaluations; every claim is read once.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from plumb_core import DIRECTIONS
from plumb_core.checks.claims import ClaimSet, theirs
from plumb_core.checks.facts import facts_of_submission
from plumb_core.checks.results import CaseResults
from plumb_core.checks.stages.drift.inputs import (
    Governing,
    conditions_of,
    drifts_of_levels,
    governing_drifts,
    shear_with_drifts,
    static_mean,
)
from plumb_core.checks.stages.rules import stage_rules
from plumb_core.checks.stages.scaling.inputs import QUANTITIES_OF_SCALING, curve_off, inputs_of_modes, modal_shear
from plumb_core.checks.stages.twist.inputs import (
    TorsionFound,
    Twist,
    inputs_of_displacements,
    torsion_found,
    twists_of,
)
from plumb_core.documents.brief import Brief, Level
from plumb_core.documents.thresholds import level
from plumb_core.facts import cases_of_levels, with_declared_facts, with_levels
from plumb_core.rules import Evaluation, Fact, Key

QUANTITIES_OF_STAGES = (
    *QUANTITIES_OF_SCALING,
    "A_x",
    "theta",
    "theta_greatest",
    "torsion_stated",
    "amplifier",
    "drift_limit",
)
"""Quantities whose claims require the rules of the stages."""


@dataclass(frozen=True)
class Staged:
    """Both evaluations with the rules, inputs and facts of the stages, and what was read from the tables for them.

    Attributes
    ----------
    twists : of every case whose ends are stated
    torsion : what they show of torsional irregularity
    drifts : of each direction that states any, those that are compared with the limit
    """

    independent: Evaluation
    carried: Evaluation
    twists: tuple[Twist, ...]
    torsion: TorsionFound
    drifts: tuple[Governing, ...]


def staged(
    brief: Brief, independent: Evaluation, carried: Evaluation, claims: ClaimSet, results: CaseResults
) -> Staged:
    """Add the stages to both evaluations."""
    twists = twists_of(results, independent, level(brief.thresholds, "tiny_drift"))
    torsion = torsion_found(twists, claims.cases, claims.stories)
    facts = facts_of_submission(brief, independent, claims, torsion)
    independent = with_levels(with_declared_facts(independent.with_(facts=facts)), brief.levels)
    carried = carried.with_(facts={**independent.facts, **_carried_facts(claims, independent)})
    if not results.values and not any(key.name in QUANTITIES_OF_STAGES for key in claims.by_key):
        return Staged(independent, carried, twists, torsion, ())
    rules = stage_rules(tuple(independent.rules.values()))
    adopted: dict[Key, Any] = inputs_of_modes(claims) | inputs_of_displacements(twists)
    for key in (Key("combined_by"), Key("damping_modes")):
        of_key = claims.by_key.get(key)
        if of_key is not None and of_key.single:
            adopted[key] = theirs(of_key.single[0])
    independent = independent.with_(rules=rules, adopted=adopted)
    drifts, more = _drifts(independent, claims, results, cases_of_levels(brief.levels))
    independent = independent.with_(adopted=more)
    carried = carried.with_(rules=rules, adopted=adopted | more)
    carried = carried.assuming(inputs=curve_off(independent, carried, claims))
    return Staged(independent, carried, twists, torsion, drifts)


def _carried_facts(claims: ClaimSet, independent: Evaluation) -> Mapping[Key, Fact]:
    """Facts that the submission goes on from where it states others than ours.

    Whether the building is irregular in torsion.
    """
    key = Key("torsion_irregular")
    stated = [
        str(theirs(of_key.single[0]))
        for d in DIRECTIONS
        if (of_key := claims.by_key.get(Key("torsion_stated", d))) is not None and of_key.single
    ]
    if not stated or any(s not in ("none", "torsional", "extreme") for s in stated):
        return {}
    return {key: Fact(key, any(s != "none" for s in stated), "submitted")}


def _drifts(
    independent: Evaluation, claims: ClaimSet, results: CaseResults, levels: Mapping[str, Level]
) -> tuple[tuple[Governing, ...], dict[Key, Any]]:
    """The drifts of each direction that are compared with the limit, and the inputs that they are of the rules."""
    drifts = []
    adopted: dict[Key, Any] = {}
    for direction in DIRECTIONS:
        before = modal_shear(claims, results, direction, "before")
        # a factor multiplies their own base shear, whatever it should have been
        on_theirs = {} if before is None else {Key("V_dynamic", direction): float(theirs(before))}
        under = independent.assuming(inputs=on_theirs) if on_theirs else independent
        conditions = conditions_of(under, claims, direction, levels)
        governing = governing_drifts(results, direction, conditions)
        ours = drifts_of_levels(results, direction, conditions, levels)
        if ours:
            adopted[Key("level_results", direction)] = ours
        if governing is not None:
            drifts.append(governing)
            adopted[Key("delta_e", direction)] = governing.elastic
        found = static_mean(results, direction, len(claims.stories))
        if found is not None:
            adopted[Key("delta_e_mean", direction)], case = found
            shears = shear_with_drifts(results, claims, independent, direction, case)
            if shears is not None:
                adopted[Key("V_drift", direction)] = shears
        elif governing is not None:
            adopted |= _of_modal_drifts(independent, governing, before, direction)
    return tuple(drifts), adopted


def _of_modal_drifts(independent: Evaluation, governing: Governing, before: Any, direction: str) -> dict[Key, Any]:
    """Drifts of the stability coefficient where only modal cases state any.

    With the story shears of the same base shear.
    """
    V, shears = independent.get("V", direction), independent.get("V_story", direction)
    V_t = float(theirs(before)) if before is not None else independent.get("V_dynamic", direction)
    if V is None or shears is None or not V_t:
        return {}
    factor = max(governing.factors.values(), default=1.0)
    return {Key("delta_e_mean", direction): governing.elastic, Key("V_drift", direction): shears * (V_t * factor / V)}
