"""Which requirements of the edition a submission shows, and the gap of each that is missing."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence, Set
from dataclasses import replace
from typing import Literal

from plumb_core.checks.check import Check
from plumb_core.checks.context import Context
from plumb_core.checks.requirements.lists import requirements_of
from plumb_core.checks.requirements.requirement import Evidence, Requirement
from plumb_core.checks.verdict import Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents import results
from plumb_core.editions.edition import Edition
from plumb_core.quantities import QUANTITIES, Kind, Scope
from plumb_core.rules import Key

Status = Literal["shown", "missing", "not_applicable", "open"]
MOST_CHECKS = 60
"""Checks of a requirement that are listed."""


def with_gaps(context: Context, checks: Sequence[Check]) -> list[Check]:
    """The checks with exactly one gap for each requirement that is missing.

    What checkers say about it is gathered there; where they say nothing the requirement itself states it.
    """
    said = _gaps(context.edition, checks)
    gathered = {id(c) for of_one in said.values() for c in of_one}
    others = [c for c in checks if id(c) not in gathered]
    asked = {c.key.name for c in checks if c.verdict is Verdict.QUESTION}
    made = [_gap(context, r, said.get(r.id, []), asked) for r in requirements_of(context.edition)]
    return [*others, *(c for c in made if c is not None)]


def _gaps(edition: Edition, checks: Sequence[Check]) -> dict[str, list[Check]]:
    """The gaps among the checks by the requirement that they belong to."""
    found: dict[str, list[Check]] = {}
    required = requirements_of(edition)
    for check in checks:
        if check.verdict is not Verdict.GAP:
            continue
        of_place = [r for r in required if check.key.name == r.at(edition)]
        of_code = [r for r in required if r.code and check.slip in (r.code, *r.also)]
        of_name = [r for r in required if check.key.name in r.names]
        of = next(iter((*of_place, *of_code, *of_name)), None) if check.kind != "missing_mode" else None
        if of is not None:
            found.setdefault(of.id, []).append(check)
    return found


def _gap(context: Context, requirement: Requirement, said: Sequence[Check], asked: Set[str]) -> Check | None:
    """The gap of a requirement; None where it is shown, does not apply or is open."""
    if said:
        return replace(said[0], note="; ".join(dict.fromkeys(c.note for c in said)))
    status, why = _status(context, requirement, list(requirement.shown(context)), asked)
    if status != "missing":
        return None
    name = requirement.at(context.edition)
    note = f"{requirement.words}: {why}{_ours(context, name)}"
    return Check(
        "gap",
        Key(name),
        QUANTITIES[name].symbol,
        verdict=Verdict.GAP,
        clause=_clause(context, requirement),
        note=note,
        slip=requirement.code,
    )


def _ours(context: Context, name: str) -> str:
    """What we find for a value of the building that is not stated, in words; empty where there is no single value."""
    of_building = QUANTITIES[name].scope is Scope.BUILDING and QUANTITIES[name].kind in (Kind.NUMBER, Kind.TEXT)
    if not of_building or name not in context.independent.rules:
        return ""
    ours = context.ours(context.independent, Key(name)).value
    return "" if ours is None else f"; ours is {figures(ours)} {QUANTITIES[name].unit}".rstrip()


def _clause(context: Context, requirement: Requirement) -> str:
    rules = context.independent.rules
    return next(rules[n].clause for n in requirement.clause_of if n in rules)


def requirements_shown(context: Context, checks: Sequence[Check]) -> list[results.RequirementResult]:
    """Each requirement of the edition with its status, its level and its checks."""
    by_name: dict[str, list[Check]] = {}
    for check in checks:
        by_name.setdefault(check.key.name, []).append(check)
        for key in check.covers:
            by_name.setdefault(key.name, []).append(check)
    gaps = _gaps(context.edition, checks)
    asked = {c.key.name for c in checks if c.verdict is Verdict.QUESTION}
    return [_result(context, r, by_name, gaps, asked) for r in requirements_of(context.edition)]


def _result(
    context: Context,
    requirement: Requirement,
    by_name: dict[str, list[Check]],
    gaps: Mapping[str, list[Check]],
    asked: Set[str],
) -> results.RequirementResult:
    evidence = list(requirement.shown(context))
    status, why = _status(context, requirement, evidence, asked)
    gap = gaps.get(requirement.id, [])
    if gap and status != "missing":
        status, why = "missing", gap[0].note
    found = gap or _checks(requirement, evidence, by_name, status)
    return {
        "id": requirement.id,
        "clause": _clause(context, requirement),
        "words": requirement.words,
        "stage": requirement.stage,
        "status": status,
        "level": _level(evidence, by_name) if status == "shown" else None,
        "why": why,
        "checks": list(dict.fromkeys(c.id for c in found))[:MOST_CHECKS],
        "slip": (gap[0].slip if gap else requirement.code) or None,
    }


def _status(
    context: Context, requirement: Requirement, evidence: Sequence[Evidence], asked: Set[str]
) -> tuple[Status, str]:
    missing = [e.place for e in evidence if not e.keys]
    because = context.not_used.get(requirement.at(context.edition)) or requirement.when(context)
    if because is None and missing:
        return "open", f"not decided: {requirement.open_words or 'a value of the brief'} is not known"
    if because and missing:
        return "not_applicable", because
    if not missing:
        return "shown", ""
    if requirement.at(context.edition) in asked:
        return "open", "a question about it is not answered"
    if context.claims.awaits(*requirement.names):
        return "open", "a table that may show it is not read yet"
    where = " and ".join(p for p in missing if p)
    return "missing", f"not in the submission{f' in {where}' if where else ''}"


JUDGED_BY = (("drift_", "drift_ratio"), ("displacement_", "drift_ratio"), ("mass_ratio", "mass_sum"))
"""Beginnings of quantities that are judged by what is made of them, and what that is."""


def _of(keys: Iterable[Key], by_name: dict[str, list[Check]]) -> Iterator[Check]:
    """Checks of values, and of what is made of them, in their directions; the cases of a value have the same."""
    for name, direction in dict.fromkeys((key.name, key.direction) for key in keys):
        names = [name, *(made for begins, made in JUDGED_BY if name.startswith(begins))]
        yield from (c for n in names for c in by_name.get(n, ()) if direction in (None, c.key.direction))


def _checks(
    requirement: Requirement, evidence: Sequence[Evidence], by_name: dict[str, list[Check]], status: Status
) -> list[Check]:
    if status in ("missing", "open"):
        doubtful = (Verdict.OPEN, Verdict.QUESTION)
        return [
            c for n in (*requirement.names, *requirement.clause_of) for c in by_name.get(n, ()) if c.verdict in doubtful
        ]
    return [c for e in evidence for c in _of(e.keys, by_name)]


def _level(evidence: Sequence[Evidence], by_name: dict[str, list[Check]]) -> int | None:
    """The level at which it is rechecked: the least over its places of the best of each; None where one is not."""
    best = [max((c.level or 0 for c in _of(e.keys, by_name)), default=0) for e in evidence]
    least = min(best, default=0)
    return least or None
