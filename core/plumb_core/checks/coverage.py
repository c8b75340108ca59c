"""Coverage: which submitted values are rechecked and at which level, and which are not and why."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence

from plumb_core.checks.check import AddedUp, Check
from plumb_core.checks.context import Context
from plumb_core.documents import results
from plumb_core.documents.submission import Claim

NO_CHECK = "neither a rule of the edition nor a check uses it"
BY_MODEL = "a mode is rechecked against the modes of a reference model, and there is none"
BY_SHAPE = "mode shapes match the modes with those of the reference model and are not compared by themselves"


def coverage(
    context: Context, checks: Sequence[Check], requirements: Sequence[results.RequirementResult]
) -> results.Coverage:
    """Coverage of the submitted values and of the requirements; derived values do not count."""
    level: dict[int, int] = {}
    why: dict[int, str] = {}
    unchecked: list[str] = []
    for check in checks:
        claim = check.claim
        if claim is not None and not isinstance(claim, AddedUp):
            if check.level is None:
                why.setdefault(id(claim), check.note)
                unchecked.append(check.id)
            else:
                level[id(claim)] = max(level.get(id(claim), 0), check.level)
        if check.level is None:
            continue
        for key in check.covers:
            of_key = context.claims.of_cases.get(key) or context.claims.by_key.get(key)
            for covered in of_key.all if of_key is not None else ():
                level.setdefault(id(covered), check.level)
    # a claim that a check found again under another name keeps its place
    missing = [claim for claim in context.claims.claims if id(claim) not in level]
    return {
        "claims": len(context.claims.claims),
        "rechecked": len(context.claims.claims) - len(missing),
        "recomputed": sum(found in (1, 2) for found in level.values()),
        "independent": sum(found == 3 for found in level.values()),
        "requirements": sum(r["status"] != "not_applicable" for r in requirements),
        "shown": sum(r["status"] == "shown" for r in requirements),
        "missing": sum(r["status"] == "missing" for r in requirements),
        "unchecked": unchecked,
        "reasons": _reasons(why.get(id(claim)) or _why(context, claim) for claim in missing),
        "not_rechecked": [_place(claim, why.get(id(claim)) or _why(context, claim)) for claim in missing],
    }


def _reasons(reasons: Iterable[str]) -> list[results.Reason]:
    """How many values are not rechecked for each reason."""
    return [{"why": why, "values": values} for why, values in Counter(reasons).items()]


def _why(context: Context, claim: Claim) -> str:
    """Why nothing rechecks a value that no check names."""
    if claim.point is None or claim.quantity in ("T_points", "S_a"):
        return NO_CHECK
    return BY_SHAPE if context.modes_compared is not None else BY_MODEL


def _place(claim: Claim, why: str) -> results.NotRechecked:
    return {
        "quantity": claim.quantity,
        "direction": claim.direction,
        "story": claim.story,
        "point": claim.point,
        "case": claim.case,
        "why": why,
    }
