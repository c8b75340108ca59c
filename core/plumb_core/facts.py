"""Facts of a brief: declarations beside what the brief's own tables show.

A request and a recheck resolve them by the same function, so that both give the same answer.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core import DIRECTIONS
from plumb_core.documents.brief import Level
from plumb_core.editions.levels import rules_of_levels
from plumb_core.rules import Evaluation, Fact, Governed, Key, resolved

COMPARED = ("regular_in_plan", "regular_in_elevation", "torsionally_flexible")
"""Declarations that a rule of the edition can contradict."""


CONSEQUENCES = {
    "static_permitted": "the permission of the static method",
    "system_permission": "the permission of the system",
    "q": "the behaviour factor",
    "rho": "the redundancy factor",
    "scaling_share": "the share of the scaling",
    "drift_at": "the place of the drifts",
    "drift_limit": "the drift limit",
    "load_combinations": "the load combinations",
}
"""What a contradicted declaration may change, in words."""


def changed_by(evaluation: Evaluation, key: Key) -> str:
    """What depends on a fact, in words; empty where none of it does."""
    reached = {other.name for other in evaluation.reached([key])} - {key.name}
    words = [statement for name, statement in CONSEQUENCES.items() if name in reached and name in evaluation.rules]
    if not words:
        return ""
    return (
        f"{' and '.join(filter(None, (', '.join(words[:-1]), words[-1])))} depend{'s' if len(words) == 1 else ''} on it"
    )


def with_declared_facts(evaluation: Evaluation) -> Evaluation:
    """The evaluation with a fact for every declaration that our own computation contradicts; otherwise as it is."""
    facts: dict[Key, Fact] = {}
    for name in COMPARED:
        key = Key(name)
        if name in evaluation.rules and key in evaluation.inputs and key not in evaluation.facts:
            under = evaluation.assuming(inputs={key: None})
            _add(facts, key, under.get(name), evaluation, _failed(under, key))
    evaluation = evaluation.with_(facts=facts) if facts else evaluation
    facts = {}
    for direction in DIRECTIONS:
        key = Key("regular", direction)
        if evaluation.inputs.get(key) is True and key not in evaluation.facts:
            types = evaluation.get("irregular_types", direction)
            if types:
                _add(facts, key, False, evaluation, _types(evaluation, types))
        key = Key("rho", direction)
        if key in evaluation.inputs and key not in evaluation.facts and "rho" in evaluation.rules:
            found = _decided_rho(evaluation, key)
            if found is not None and found.value > float(evaluation.inputs[key]) + 1e-9:
                _add(facts, key, found.value, evaluation, found.governed_by)
    return evaluation.with_(facts=facts) if facts else evaluation


def _failed(evaluation: Evaluation, key: Key) -> str:
    """The failed tests that a quantity is decided by, each with its value and limit."""
    tests = [t for k in evaluation.ancestors(key) if k.name.endswith("_regularity") for t in evaluation.get(*k) or ()]
    failed = [
        t["words"] + ("" if t["value"] is None else f" {t['value']:.3g}, the limit is {t['limit']:.3g}")
        for t in tests
        if t["met"] is False
    ]
    return "; ".join(failed)


def _types(evaluation: Evaluation, types: Sequence[str]) -> str:
    """Types of irregularity in words, a torsional one with the ratio that shows it."""
    fact = evaluation.facts.get(Key("irregularities"))
    shown = f": {fact.where}" if fact is not None and fact.where else ""
    return ", ".join(t.replace("_", " ") + (shown if "torsional" in t else "") for t in types)


def _decided_rho(evaluation: Evaluation, key: Key) -> Governed | None:
    """The redundancy factor where an irregularity decides it, whatever is declared."""
    under = evaluation.assuming(inputs={key: None})
    if under.get("rho", key.direction) is None:
        return None
    governed = under.at(key).governed
    return governed if governed is not None and "irregularity" in governed.governed_by else None


def _add(facts: dict[Key, Fact], key: Key, found: Any, evaluation: Evaluation, where: str) -> None:
    declared = evaluation.inputs[key]
    if found is None or found == declared:
        return
    rule = evaluation.rules.get(key.name)
    clause, changes = rule.clause if rule is not None else "", changed_by(evaluation, key)
    fact = resolved(key, found=found, declared=declared, where={"found": where}, clause=clause, changes=changes)
    if fact is not None:
        facts[key] = fact


def with_levels(evaluation: Evaluation, levels: Sequence[Level]) -> Evaluation:
    """The evaluation with the declared action levels; as it is where there are none.

    A level whose check is the edition's own check of the drift (the design action; damage limitation in EN 1998-1)
    declares
    the factor and the limit of that check; its limit counts where it is below the edition's.
    """
    if not levels:
        return evaluation
    entry = [level for level in levels if _of_edition(level, evaluation)]
    rules = rules_of_levels(evaluation.rules)
    every = evaluation.with_(rules=rules, inputs={Key("levels"): [level.model_dump() for level in levels]})
    facts: dict[Key, Fact] = {}
    for level in entry:
        for d in DIRECTIONS:
            factor = (every.get("level_factors", d) or {}).get(level.name)
            if factor is not None and level.kind == "damage_limitation":
                facts[Key("nu")] = Fact(Key("nu"), factor, "declared", level.name)
            limit, declared = every.get("drift_limit", d), level.drift_limit
            if limit is not None and declared is not None and declared < limit:
                facts[Key("drift_limit", d)] = Fact(Key("drift_limit", d), declared, "declared", level.name)
    apart = [level.model_dump() for level in levels if level not in entry]
    return evaluation.with_(rules=rules if apart else {}, inputs={Key("levels"): apart} if apart else {}, facts=facts)


def declared_torsion(irregularities: Mapping[Any, bool] | None) -> bool | None:
    """Whether a torsional irregularity is declared by its types; None where neither type was assessed."""
    types = irregularities or {}
    stated = [types[name] for name in ("torsional", "extreme_torsional") if name in types]
    return any(stated) if stated else None


def cases_of_levels(levels: Sequence[Level]) -> dict[str, Level]:
    """Load cases by name whose results are of another action level than the design action."""
    return {case: level for level in levels if level.kind != "design" for case in level.cases}


def _of_edition(level: Level, evaluation: Evaluation) -> bool:
    """Whether the edition's own check of the drift is that of the level."""
    return level.kind == "design" or (level.kind == "damage_limitation" and "nu" in evaluation.rules)
