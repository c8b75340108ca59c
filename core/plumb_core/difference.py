"""Submission to submission: what became of each deviation and of each open finding.

A check is found again by its id.  What the numbers settle is said; closing a finding is the reviewer's.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Set
from typing import Any, NamedTuple

import numpy as np

from plumb_core import ENGINE
from plumb_core.checks.check import Check, Subject
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.earlier_ids import present_id
from plumb_core.checks.recheck import all_checks, context_of
from plumb_core.checks.verdict import Verdict
from plumb_core.digits import half_unit
from plumb_core.documents.differences import CameAndWent, ComparedFinding, ComparedValue, DifferenceResult, State
from plumb_core.documents.reading import read_recheck
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.documents.submission import Claim
from plumb_core.quantities import QUANTITIES

CLOSED = ("settled", "withdrawn")
"""Statuses of findings that require nothing any more."""
DEVIATES = (Verdict.DIFFERS, Verdict.BREACHES)
WORST_FIRST: tuple[State, ...] = ("open", "changed but not right", "undecided", "settled")


class _Side(NamedTuple):
    """One of the two submissions, rechecked."""

    document: RecheckDocument
    context: Context
    checks: Mapping[str, Check]


def difference(old: Any, new: Any) -> DifferenceResult:
    """Compare two recheck documents of one review; raises InputRefused naming every problem of either.

    Where the earlier one has findings, what the open ones name was required to change; else every deviation was.
    """
    with np.errstate(all="ignore"):
        before, after = _rechecked(old), _rechecked(new)
    findings = _open_findings(before.document)
    required = _required(before, findings)
    settled: list[ComparedValue] = []
    still: list[ComparedValue] = []
    undecided: list[ComparedValue] = []
    states: dict[str, State] = {}
    for name, check in before.checks.items():
        if check.verdict not in DEVIATES or check.role is None:
            continue
        other = after.checks.get(name)
        states[name] = state = _state(check, other)
        group = {"settled": settled, "undecided": undecided}.get(state, still)
        group.append(_compared(check, other, required.get(name), _why(state)))
    fresh = [
        _compared(was := before.checks.get(name), other, None, "it was no deviation" if was else "it was not stated")
        for name, other in after.checks.items()
        if other.verdict in DEVIATES and other.role is not None and name not in states
    ]
    spoken_of = states.keys() | required.keys() | {each["check"] for each in fresh}
    return {
        "engine": ENGINE,
        "before": before.document.submission.label,
        "after": after.document.submission.label,
        "settled": settled,
        "open": still,
        "undecided": undecided,
        "new": fresh,
        "changed": _changed(before, after, spoken_of),
        "findings": [_finding(f, before, after, states) for f in findings],
        "cases": _names(*({c.case for c in s.document.submission.claims if c.case} for s in (before, after))),
        "stories": _names(*({c.story for c in s.document.submission.claims if c.story} for s in (before, after))),
        "files": _names(*({c.source.file for c in s.document.submission.claims} - {""} for s in (before, after))),
    }


def _rechecked(document: Any) -> _Side:
    read = read_recheck(document)
    context = context_of(read)
    return _Side(read, context, {c.id: c for c in all_checks(context)})


class _Finding(NamedTuple):
    number: int
    title: str
    checks: tuple[str, ...]


def _open_findings(document: RecheckDocument) -> list[_Finding]:
    """The findings of an exported review that require something, in their order."""
    stated = (document.review or {}).get("findings")
    found = []
    for i, each in enumerate(stated if isinstance(stated, list) else [], 1):
        if isinstance(each, Mapping) and each.get("status") not in CLOSED and isinstance(each.get("checks"), list):
            names = tuple(present_id(str(name)) for name in each["checks"])
            number = each.get("number")
            found.append(_Finding(number if isinstance(number, int) else i, str(each.get("title", "")), names))
    return found


def _required(before: _Side, findings: Iterable[_Finding]) -> dict[str, int | None]:
    """Checks whose values were required to change, and those that rest on them -> the finding that requires it."""
    of_check: dict[str, int | None] = {}
    for finding in findings:
        for name in finding.checks:
            of_check.setdefault(name, finding.number)
    if not of_check:
        of_check = {c.id: None for c in before.checks.values() if c.role is not None}
    for check in before.checks.values():
        above = next((origin for origin in check.rests_on if origin in of_check), None)
        if above is not None:
            of_check.setdefault(check.id, of_check[above])
    return of_check


Place = tuple[str, str | None, str | None, int | None, str]


def _changed(before: _Side, after: _Side, spoken_of: Set[str]) -> list[ComparedValue]:
    """Submitted values that are others, of which no deviation and no finding speaks, checked or not."""
    sides = [{_place(c): c for c in side.document.submission.claims} for side in (before, after)]
    checks = [
        {_place(c.claim): c for c in side.checks.values() if isinstance(c.claim, Claim) and c.kind == "value"}
        for side in (before, after)
    ]
    found = []
    for place, other in sides[1].items():
        was = sides[0].get(place)
        of_place = [of.get(place) for of in checks]
        if was is None or not _another(was, other) or any(c is not None and c.id in spoken_of for c in of_place):
            continue
        check = next((c for c in of_place if c is not None), None)
        found.append(
            ComparedValue(
                check="" if check is None else check.id,
                label=_label(place) if check is None else check.label,
                finding=None,
                before=_text(was),
                after=_text(other),
                was="" if of_place[0] is None else of_place[0].verdict.value,
                now="" if of_place[1] is None else of_place[1].verdict.value,
                moved=_relative(theirs(was), theirs(other)),
                why="no finding requires it",
            )
        )
    return found


def _place(claim: Claim) -> Place:
    return claim.quantity, claim.direction, claim.story, claim.point, claim.case


def _label(place: Place) -> str:
    name, *where = place
    symbol = QUANTITIES[name].symbol if name in QUANTITIES else name
    return " ".join(str(part) for part in (symbol, *where) if part not in (None, ""))


def _state(was: Check, now: Check | None) -> State:
    if now is None or (was.subject is not None and now.subject is None) or now.verdict is Verdict.OPEN:
        return "undecided"
    if now.verdict not in DEVIATES or now.role is None:
        return "settled"
    return "changed but not right" if _moved(was, now) else "open"


def _why(state: State) -> str:
    return {
        "settled": "resolved by the numbers",
        "open": "still there",
        "changed but not right": "changed, and not right",
        "undecided": "it cannot be decided: the value is not stated, or not compared, any more",
    }[state]


def _moved(was: Check, now: Check) -> bool:
    """Whether the submitted value of a check is another one."""
    if was.subject is None or now.subject is None:
        return (was.subject is None) != (now.subject is None)
    return _another(was.subject, now.subject)


def _another(one: Subject, other: Subject) -> bool:
    """Whether a submitted value is another one, as far as its digits say."""
    a, b = theirs(one), theirs(other)
    if isinstance(a, str) or isinstance(b, str):
        return str(a) != str(b)
    halves = sum(half_unit(s.text) * abs(s.scale) for s in (one, other))
    return abs(a - b) > halves * (1 + 1e-9)


def _relative(one: float | str | None, other: float | str | None) -> float | None:
    return other / one - 1.0 if isinstance(one, float) and isinstance(other, float) and one else None


def _compared(was: Check | None, now: Check | None, finding: int | None, why: str) -> ComparedValue:
    check = was or now
    assert check is not None
    subjects = [None if c is None else c.subject for c in (was, now)]
    one, other = (None if s is None else theirs(s) for s in subjects)
    return {
        "check": check.id,
        "label": check.label,
        "finding": finding,
        "before": _text(subjects[0]),
        "after": _text(subjects[1]),
        "was": "" if was is None else was.verdict.value,
        "now": "" if now is None else now.verdict.value,
        "moved": _relative(one, other),
        "why": why,
    }


def _text(subject: Subject | None) -> str | None:
    """A submitted value as it was written, with its unit."""
    if subject is None:
        return None
    unit = subject.unit or (
        QUANTITIES[subject.quantity].unit.replace("*", " ") if subject.quantity in QUANTITIES else ""
    )
    return f"{subject.text} {unit}".strip()


def _finding(finding: _Finding, before: _Side, after: _Side, states: Mapping[str, State]) -> ComparedFinding:
    """The state of a finding: the worst of its checks; a gap is settled when the value is stated."""
    of_checks: dict[str, State] = {}
    for name in finding.checks:
        if name in states:
            of_checks[name] = states[name]
        elif (was := before.checks.get(name)) is None:
            of_checks[name] = "undecided"
        else:
            now = after.checks.get(name)
            asked = was.verdict in (Verdict.GAP, Verdict.QUESTION)
            of_checks[name] = "open" if asked and now is not None and now.verdict is was.verdict else "settled"
    state: State = next((s for s in WORST_FIRST if s in of_checks.values()), "undecided")
    return {"number": finding.number, "title": finding.title, "state": state, "checks": of_checks}


def _names(before: Iterable[str], after: Iterable[str]) -> CameAndWent:
    one, other = set(before), set(after)
    return {"came": sorted(other - one), "went": sorted(one - other)}
