"""Facts of a recheck: conditions that its checks depend on, with their sources.

The questions where they contradict.

Precedence, for every quantity: found by our own computation, declared in the brief, stated by the submission, assumed.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import TYPE_CHECKING, Any

from plumb_core import DIRECTIONS
from plumb_core.checks.claims import ClaimSet, theirs
from plumb_core.checks.kinds import KINDS
from plumb_core.derivation import key_id, plain
from plumb_core.documents import results
from plumb_core.documents.brief import Brief
from plumb_core.facts import declared_torsion
from plumb_core.quantities import QUANTITIES, Kind, Scope
from plumb_core.rules import Evaluation, Fact, Key, Step, resolved
from plumb_core.rules.facts import Source

if TYPE_CHECKING:
    from plumb_core.checks.check import Check
    from plumb_core.checks.stages.twist.inputs import TorsionFound

INCLUDED = {"included": True, "not included": False, "not needed": False}


def facts_of_submission(
    brief: Brief, independent: Evaluation, claims: ClaimSet, torsion: TorsionFound
) -> dict[Key, Fact]:
    """Facts that rest on the submission's results or statements as well as on the brief."""
    facts = [
        *_torsion(independent, claims, torsion),
        _second_order(brief, claims),
        _drift_at(brief),
        *_scaling_share(independent, torsion),
    ]
    return {fact.key: fact for fact in facts if fact is not None}


def _torsion(independent: Evaluation, claims: ClaimSet, torsion: TorsionFound) -> Iterator[Fact | None]:
    """Torsional irregularity.

    As found from the static cases, as a type among the declared ones, and about which axes.
    """
    if "torsion_class" not in independent.rules:
        return
    declared: dict[str, bool] = dict(independent.inputs.get(Key("irregularities")) or {})
    clause = independent.rules["torsion_class"].clause
    # one direction alone shows no regular building
    found = None if torsion.degree is None else True if torsion.degree else False if torsion.complete else None
    types = {} if found is None else {"torsional": found, "extreme_torsional": torsion.degree == 2}
    if "extreme_torsional" in types and not types["extreme_torsional"] and not declared.get("extreme_torsional"):
        del types["extreme_torsional"]
    where = {"found": torsion.where}
    if types:
        both = {name: present or declared.get(name, False) for name, present in types.items()}
        against = {name: declared[name] for name in types if name in declared and declared[name] != types[name]}
        merged = {**declared, **both}
        changes = "class of torsion, edges, amplification, redundancy and permission depend on it"
        contradicted = resolved(
            Key("irregularities"), found=types, declared=against or None, where=where, clause=clause, changes=changes
        )
        if contradicted is not None:
            source: Source = "found" if any(types.values()) else "declared" if declared else "found"
            yield Fact(
                contradicted.key,
                merged,
                source,
                torsion.where,
                contradicted.contradicted_by if against else None,
                clause,
                changes,
            )
    words = declared_torsion(declared)
    if words is None and all(independent.inputs.get(Key("regular", d)) is True for d in DIRECTIONS):
        words = False
    stated = [_single(claims, Key("torsion_stated", d)) for d in DIRECTIONS]
    known = [s for s in stated if s in ("none", "torsional", "extreme")]
    yield resolved(
        Key("torsion_irregular"),
        found=found,
        declared=words,
        submitted=any(s != "none" for s in known) if known else None,
        assumed=False,
        where=where,
        clause=clause,
        changes="where drifts are taken, and A_x",
    )
    if torsion.degree is not None and torsion.complete:
        yield Fact(
            Key("torsion_both"),
            all(torsion.by_direction.get(d, 0) for d in DIRECTIONS),
            "found",
            torsion.where,
            None,
            clause,
        )


def _second_order(brief: Brief, claims: ClaimSet) -> Fact | None:
    """Whether second order effects are in the analysis that gave the drifts."""
    return resolved(
        Key("p_delta_included"),
        declared=None if brief.second_order is None else brief.second_order == "included",
        submitted=INCLUDED.get(str(_single(claims, Key("second_order_stated")))),
        assumed=False,
        where={"submitted": f"second order effects {_single(claims, Key('second_order_stated'))}"},
    )


def _drift_at(brief: Brief) -> Fact | None:
    if brief.drift_at is None:
        return None
    return Fact(Key("drift_at"), brief.drift_at, "declared")


def _scaling_share(independent: Evaluation, torsion: TorsionFound) -> Iterator[Fact]:
    """Share of the scaling where an edition makes it depend on regularity that is not declared: by what is found.

    Regular is assumed where the cases show no torsional irregularity; types that no table shows are not tested.
    """
    rule = independent.rules.get("scaling_share")
    if rule is None or all(p.name != "regular_known" for p in rule.parameters) or torsion.degree != 0:
        return
    for d in DIRECTIONS:
        if independent.get("scaling_share", d) is None and not independent.get("irregular_types", d):
            share = independent.assuming(inputs={Key("regular", d): True}).get("scaling_share", d)
            if share is not None:
                where = "regularity is not declared; no irregularity is found"
                yield Fact(Key("scaling_share", d), share, "assumed", where, None, rule.clause)


def _single(claims: ClaimSet, key: Key) -> Any:
    of_key = claims.by_key.get(key)
    return theirs(of_key.single[0]) if of_key is not None and of_key.single else None


# What a recheck shows of its facts

_SOURCES: Mapping[str, str] = {
    "input": "declared",
    "adopted": "submitted",
    "assumed": "assumed",
    "rule": "found",
    "found": "found",
    "declared": "declared",
    "submitted": "submitted",
}
FOUND = (
    "design_category",
    "static_governed_by",
    "static_permitted",
    "system_permission",
    "site_class_used",
    "only_moment_frames",
    "regular_known",
    "drift_at",
    "site_spectrum",
    "rho",
    "diaphragm_class",
    "T_for_drift",
    "V_base_drift",
    "gravity",
    "P",
)
"""Quantities of rules that decide which check applies, in addition to the inputs, which are all shown."""


def facts_shown(evaluation: Evaluation, checks: Sequence[Check]) -> list[results.FactResult]:
    """Every fact of the independent side with its source, what contradicts it, and the checks that use it."""
    steps = {step.key: step for step in evaluation.steps()}
    for name in FOUND:
        for direction in DIRECTIONS if QUANTITIES[name].scope is Scope.DIRECTION else (None,):
            key = evaluation.key(name, direction)
            if key not in steps and key.name in evaluation.rules and evaluation.get(name, direction) is not None:
                steps[key] = evaluation.at(key)
    shown = [s for s in steps.values() if _is_fact(s, evaluation)]
    # What is declared of regularity has its own fact, with what contradicts it
    declared = {s.key.direction for s in shown if s.key.name == "regular"}
    shown = [s for s in shown if s.key.name != "regular_known" or s.key.direction not in declared]
    known = {s.key for s in shown}
    shown += [
        Step(key, fact.value, fact.source, fact.clause) for key, fact in evaluation.facts.items() if key not in known
    ]
    users = _users(evaluation, checks, {s.key for s in shown})
    # without loads the seismic weight is assumed for P_x
    gravity_known = "gravity" not in evaluation.rules or evaluation.get("gravity") is not None
    listed = [_shown(s, evaluation.facts.get(s.key), users.get(s.key, []), gravity_known) for s in shown]
    return sorted(listed, key=lambda f: (f["quantity"], f["direction"] or "", f["case"] or ""))


def _is_fact(step: Step, evaluation: Evaluation) -> bool:
    key = step.key
    if key in evaluation.facts or key.name in FOUND:
        return True
    kind = QUANTITIES[key.name].kind
    return step.source in ("input", "adopted", "assumed") and kind in (Kind.NUMBER, Kind.TEXT, Kind.FLAG)


def _users(evaluation: Evaluation, checks: Iterable[Check], keys: set[Key]) -> dict[Key, list[str]]:
    """Ids of the checks that depend on each of the keys."""
    by_key: dict[tuple[Key, tuple[Key, ...], tuple[str, ...]], list[str]] = {}
    for check in checks:
        by_key.setdefault((check.key, check.upstream, KINDS[check.kind].uses), []).append(check.id)
    users: dict[Key, list[str]] = {}
    for (key, upstream, uses), ids in by_key.items():
        above = set(evaluation.ancestors(key))
        for other in (*upstream, *(evaluation.key(name, key.direction) for name in uses)):
            above |= {other, *evaluation.ancestors(other)}
        for fact in (above | {key}) & keys:
            users.setdefault(fact, []).extend(ids)
    return users


def _shown(step: Step, fact: Fact | None, used_by: list[str], gravity_known: bool) -> results.FactResult:
    quantity = QUANTITIES[step.key.name]
    against = fact.contradicted_by if fact is not None else None
    return {
        "quantity": step.key.name,
        "direction": step.key.direction,  # type: ignore[typeddict-item]
        "story": None,
        "case": step.key.case,
        "value": _value(step.value),
        "source": "assumed" if step.key.name == "P" and not gravity_known else _SOURCES[step.source],  # type: ignore[typeddict-item]
        "contradicted_by": None if against is None else {"value": _value(against.value), "source": against.source},
        "clause": step.clause,
        "used_by": used_by,
        "id": key_id(step.key),
        "symbol": quantity.symbol,
        "meaning": quantity.meaning,
        "unit": quantity.unit,
        "where": fact.where if fact is not None else step.governed.governed_by if step.governed else "",
    }


def _value(value: Any) -> Any:
    """A value as JSON; declared irregularities as the types that are there."""
    if isinstance(value, Mapping):
        return [name for name, present in value.items() if present]
    return plain(value)
