"""Which requirements of the edition a submission shows."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from plumb_core.checks.check import Check
from plumb_core.checks.context import Context
from plumb_core.checks.requirements.lists import requirements_of
from plumb_core.checks.requirements.requirement import Evidence, Requirement
from plumb_core.checks.verdict import Verdict
from plumb_core.documents import results
from plumb_core.rules import Key

Status = Literal["shown", "missing", "not_applicable", "open"]
MOST_CHECKS = 60
"""Checks of a requirement that are listed."""


def requirements_shown(context: Context, checks: Sequence[Check]) -> list[results.RequirementResult]:
    """Each requirement of the edition with its status, its level and its checks."""
    by_name: dict[str, list[Check]] = {}
    for check in checks:
        by_name.setdefault(check.key.name, []).append(check)
        for key in check.covers:
            by_name.setdefault(key.name, []).append(check)
    return [_result(context, r, by_name) for r in requirements_of(context.edition)]


def _result(context: Context, requirement: Requirement, by_name: dict[str, list[Check]]) -> results.RequirementResult:
    evidence = list(requirement.shown(context))
    status, why = _status(context, requirement, evidence)
    found = _checks(requirement, evidence, by_name, status)
    rules = context.independent.rules
    clause = next(rules[n].clause for n in requirement.clause_of if n in rules)
    return {
        "id": requirement.id,
        "clause": clause,
        "words": requirement.words,
        "stage": requirement.stage,
        "status": status,
        "level": _level(evidence, by_name) if status == "shown" else None,
        "why": why,
        "checks": list(dict.fromkeys(c.id for c in found))[:MOST_CHECKS],
        "slip": requirement.code or None,
    }


def _status(context: Context, requirement: Requirement, evidence: Sequence[Evidence]) -> tuple[Status, str]:
    missing = [e.place for e in evidence if not e.keys]
    because = requirement.when(context)
    if because is None and missing:
        return "open", f"not decided: {requirement.open_words or 'a value of the brief'} is not known"
    if because and missing:
        return "not_applicable", because
    if not missing:
        return "shown", ""
    if context.claims.awaits(*requirement.names):
        return "open", "a table that may show it is not read yet"
    where = " and ".join(p for p in missing if p)
    return "missing", f"not in the submission{f' in {where}' if where else ''}"


JUDGED_BY = (("drift_", "drift_ratio"), ("displacement_", "drift_ratio"), ("mass_ratio", "mass_sum"))
"""Beginnings of quantities that are judged by what is made of them, and what that is."""


def _of(key: Key, by_name: dict[str, list[Check]]) -> list[Check]:
    """Checks of a value, and of what is made of it, in its direction."""
    names = [key.name, *(made for begins, made in JUDGED_BY if key.name.startswith(begins))]
    return [c for n in names for c in by_name.get(n, ()) if key.direction in (None, c.key.direction)]


def _checks(
    requirement: Requirement, evidence: Sequence[Evidence], by_name: dict[str, list[Check]], status: Status
) -> list[Check]:
    if status in ("missing", "open"):
        gaps = (Verdict.GAP, Verdict.OPEN, Verdict.QUESTION)
        return [
            c for n in (*requirement.names, *requirement.clause_of) for c in by_name.get(n, ()) if c.verdict in gaps
        ]
    return [c for e in evidence for key in e.keys for c in _of(key, by_name)]


def _level(evidence: Sequence[Evidence], by_name: dict[str, list[Check]]) -> int | None:
    """The level at which it is rechecked: the least over its places of the best of each; None where one is not."""
    best = [max((c.level or 0 for key in e.keys for c in _of(key, by_name)), default=0) for e in evidence]
    least = min(best, default=0)
    return least or None
