"""Submission to submission: what became of each deviation and of each open finding.

A check is found again by its id.  What the numbers settle is said; closing a finding is the reviewer's.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from typing import Any

from plumb_core import ENGINE
from plumb_core.checks.earlier_ids import present_id
from plumb_core.checks.recheck import recheck
from plumb_core.difference.changed import came_and_went, changed
from plumb_core.difference.states import WHY, Checks, OpenFinding, Pair, Submitted, deviates, starts_anew
from plumb_core.difference.written import relative, text, written_of
from plumb_core.documents.differences import CameAndWent, ComparedValue, DifferenceResult
from plumb_core.documents.reading import read_recheck
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.documents.results import CheckResult
from plumb_core.errors import InputRefused, Problem

CLOSED = ("settled", "withdrawn")
"""Statuses of findings that require nothing any more."""


def difference(old: Any, new: Any) -> DifferenceResult:
    """Compare two recheck documents of one review.

    Raises InputRefused naming every problem of either, at ``/old`` and ``/new``.
    Where the earlier one has findings, what the open ones name was required to change; else every deviation was.
    """
    sides: list[RecheckDocument] = []
    problems: list[Problem] = []
    for name, document in (("old", old), ("new", new)):
        try:
            sides.append(read_recheck(document))
        except InputRefused as refused:
            problems += [replace(p, path=f"/{name}{p.path.rstrip('/')}") for p in refused.problems]
    if problems:
        raise InputRefused(problems)
    before, after = sides
    return compared(_rechecked(before), _rechecked(after), _open_findings(before))


def compared(before: Submitted, after: Submitted, findings: Sequence[OpenFinding]) -> DifferenceResult:
    """Compare two rechecked submissions of one review.

    findings : those that are open; without any, every deviation was required to change.
    """
    pair = Pair(before, after)
    required = _required(pair.was, findings)
    groups: dict[str, list[ComparedValue]] = {"settled": [], "open": [], "undecided": []}
    for name, state in pair.states.items():
        was, now = pair.was[name], pair.now.get(name)
        if now is not None and state != "settled" and starts_anew(was, now):
            continue
        groups.get(state, groups["open"]).append(_compared(was, now, required.get(name), WHY[state]))
    fresh = [
        _compared(one, other, None, _why_new(one, other))
        for name, other in pair.now.items()
        if deviates(other)
        and ((one := pair.was.get(name)) is None or name not in pair.states or starts_anew(one, other))
    ]
    spoken_of = pair.states.keys() | required.keys() | {each["check"] for each in fresh}
    return {
        "engine": ENGINE,
        "before": before.label,
        "after": after.label,
        "settled": groups["settled"],
        "open": groups["open"],
        "undecided": groups["undecided"],
        "new": fresh,
        "changed": changed(pair, spoken_of, required.keys()),
        "findings": [pair.of_finding(f) for f in findings],
        "values": came_and_went(pair),
        "cases": _names(*({c.case for c in s.claims if c.case} for s in (before, after))),
        "stories": _names(*({c.story for c in s.claims if c.story} for s in (before, after))),
        "files": _names(*({c.source.file for c in s.claims} - {""} for s in (before, after))),
    }


def _rechecked(document: RecheckDocument) -> Submitted:
    result = recheck(document)
    steps = result["steps"]["carried"]
    submission = document.submission
    return Submitted(submission.label, result["checks"], submission.claims, steps, document.open)


def _open_findings(document: RecheckDocument) -> list[OpenFinding]:
    """The findings of an exported review that require something, in their order."""
    stated = (document.review or {}).get("findings")
    found = []
    for i, each in enumerate(stated if isinstance(stated, list) else [], 1):
        if isinstance(each, Mapping) and each.get("status") not in CLOSED and isinstance(each.get("checks"), list):
            names = tuple(present_id(str(name)) for name in each["checks"])
            number = each.get("number")
            found.append(OpenFinding(number if isinstance(number, int) else i, str(each.get("title", "")), names))
    return found


def _required(was: Checks, findings: Iterable[OpenFinding]) -> dict[str, int | None]:
    """Checks whose values were required to change, and those that rest on them -> the finding that requires it."""
    of_check: dict[str, int | None] = {}
    for finding in findings:
        for name in finding.checks:
            of_check.setdefault(name, finding.number)
    if not of_check:
        of_check = {name: None for name, check in was.items() if check["role"] is not None}
    for name, check in was.items():
        above = next((origin for origin in check["rests_on"] if origin in of_check), None)
        if above is not None:
            of_check.setdefault(name, of_check[above])
    return of_check


def _why_new(was: CheckResult | None, now: CheckResult) -> str:
    if was is None:
        return "it was not stated" if now["kind"] == "value" else "it was no deviation"
    return "it came from another deviation before, and starts here now" if deviates(was) else "it was no deviation"


def _compared(was: CheckResult | None, now: CheckResult | None, finding: int | None, why: str) -> ComparedValue:
    check = was or now
    assert check is not None
    one, other = (None if c is None else written_of(c) for c in (was, now))
    before, after = (None if c is None or c["theirs"] is None else c["theirs"] for c in (was, now))
    return {
        "check": check["id"],
        "label": check["label"],
        "finding": finding,
        "before": before and text(before["text"] or before["value"], before["unit"], check["quantity"]),
        "after": after and text(after["text"] or after["value"], after["unit"], check["quantity"]),
        "was": "" if was is None else was["verdict"],
        "now": "" if now is None else now["verdict"],
        "moved": relative(one and one.value, other and other.value),
        "why": why,
    }


def _names(before: Iterable[str], after: Iterable[str]) -> CameAndWent:
    one, other = set(before), set(after)
    return {"came": sorted(other - one), "went": sorted(one - other)}
