"""Facts of a brief: declarations beside what the brief's own tables show.

A request and a recheck resolve them by the same function, so that both give the same answer.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from plumb_core import DIRECTIONS
from plumb_core.rules import Evaluation, Fact, Governed, Key, resolved

COMPARED = ("regular_in_plan", "regular_in_elevation", "torsionally_flexible")
"""Declarations that a rule of the edition can contradict."""


def with_declared_facts(evaluation: Evaluation) -> Evaluation:
    """The evaluation with a fact for every declaration that our own computation contradicts; otherwise as it is."""
    facts: dict[Key, Fact] = {}
    for name in COMPARED:
        key = Key(name)
        if name in evaluation.rules and key in evaluation.inputs and key not in evaluation.facts:
            found = evaluation.assuming(inputs={key: None}).get(name)
            _add(facts, key, found, evaluation, "tests of the edition on the brief's own tables")
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
    fact = resolved(
        key, found=found, declared=declared, where={"found": where}, clause=rule.clause if rule is not None else ""
    )
    if fact is not None:
        facts[key] = fact
