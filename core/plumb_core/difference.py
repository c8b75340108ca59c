"""Submission to submission: what became of each deviation and of each open finding.

A check is found again by its id.  What the numbers settle is said; closing a finding is the reviewer's.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence, Set
from typing import Any, NamedTuple

from plumb_core import ENGINE
from plumb_core.checks.claims import size, theirs
from plumb_core.checks.earlier_ids import present_id
from plumb_core.checks.recheck import recheck
from plumb_core.checks.verdict import Verdict
from plumb_core.checks.wording import figures
from plumb_core.digits import half_unit
from plumb_core.documents.differences import CameAndWent, ComparedFinding, ComparedValue, DifferenceResult, State
from plumb_core.documents.reading import read_recheck
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.documents.results import CheckResult, StepResult
from plumb_core.documents.submission import Claim
from plumb_core.quantities import QUANTITIES, STAGES

CLOSED = ("settled", "withdrawn")
"""Statuses of findings that require nothing any more."""
DEVIATES = (Verdict.DIFFERS.value, Verdict.BREACHES.value)
Checks = Mapping[str, CheckResult]
WORST_FIRST: tuple[State, ...] = ("open", "changed but not right", "undecided", "settled")


class Submitted(NamedTuple):
    """A submission with its recheck: what the comparison of two of them needs."""

    label: str
    checks: Sequence[CheckResult]
    claims: Sequence[Claim]
    steps: Sequence[StepResult] = ()
    """of the carried side: what a submitted value follows from"""


class OpenFinding(NamedTuple):
    """A finding that requires something, with the ids of its checks."""

    number: int
    title: str
    checks: tuple[str, ...]


def difference(old: Any, new: Any) -> DifferenceResult:
    """Compare two recheck documents of one review; raises InputRefused naming every problem of either.

    Where the earlier one has findings, what the open ones name was required to change; else every deviation was.
    """
    before, after = read_recheck(old), read_recheck(new)
    return compared(_rechecked(before), _rechecked(after), _open_findings(before))


def compared(before: Submitted, after: Submitted, findings: Sequence[OpenFinding]) -> DifferenceResult:
    """Compare two rechecked submissions of one review.

    findings : those that are open; without any, every deviation was required to change.
    """
    was = {c["id"]: c for c in before.checks}
    now = {c["id"]: c for c in after.checks}
    required = _required(was, findings)
    groups: dict[str, list[ComparedValue]] = {"settled": [], "open": [], "undecided": []}
    states: dict[str, State] = {}
    for name, check in was.items():
        if _deviates(check):
            other = now.get(name)
            states[name] = state = _state(check, other)
            if other is not None and state != "settled" and _starts_anew(check, other):
                continue
            groups.get(state, groups["open"]).append(_compared(check, other, required.get(name), _WHY[state]))
    fresh = [
        _compared(one, other, None, _why_new(one))
        for name, other in now.items()
        if _deviates(other) and ((one := was.get(name)) is None or name not in states or _starts_anew(one, other))
    ]
    spoken_of = states.keys() | required.keys() | {each["check"] for each in fresh}
    return {
        "engine": ENGINE,
        "before": before.label,
        "after": after.label,
        "settled": groups["settled"],
        "open": groups["open"],
        "undecided": groups["undecided"],
        "new": fresh,
        "changed": _changed((before, after), (was, now), spoken_of, required.keys()),
        "findings": [_finding(f, was, now, states) for f in findings],
        "cases": _names(*({c.case for c in s.claims if c.case} for s in (before, after))),
        "stories": _names(*({c.story for c in s.claims if c.story} for s in (before, after))),
        "files": _names(*({c.source.file for c in s.claims} - {""} for s in (before, after))),
    }


def _rechecked(document: RecheckDocument) -> Submitted:
    result = recheck(document)
    steps = result["steps"]["carried"]
    return Submitted(document.submission.label, result["checks"], document.submission.claims, steps)


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


Place = tuple[str, str | None, str | None, int | None, str]


def _changed(
    sides: tuple[Submitted, Submitted], checks: tuple[Checks, Checks], spoken_of: Set[str], required: Set[str]
) -> list[ComparedValue]:
    """Submitted values that are others, of which no deviation and no finding speaks, checked or not.

    What follows from a value that was required to change was required with it.
    """
    claims = [{_place(c): c for c in side.claims} for side in sides]
    of_places = [_by_place(of_side.values()) for of_side in checks]
    follows = _following(sides[1].steps, {checks[0][name]["step"] for name in required if name in checks[0]})
    first = min((_turn(checks[0][name]["stage"]) for name in required if name in checks[0]), default=len(STAGES))
    found = []
    for place, other in claims[1].items():
        was = claims[0].get(place)
        if was is None or not _another(_written(was), _written(other)):
            continue
        of_place = [of_side.get(place) for of_side in of_places]
        if any(c is not None and (c["id"] in spoken_of or c["step"] in follows) for c in of_place):
            continue
        check = next((c for c in of_place if c is not None), None)
        found.append(
            ComparedValue(
                check="" if check is None else check["id"],
                label=_label(place) if check is None else check["label"],
                finding=None,
                before=_text(was.text or was.value, was.unit, was.quantity),
                after=_text(other.text or other.value, other.unit, other.quantity),
                was="" if of_place[0] is None else of_place[0]["verdict"],
                now="" if of_place[1] is None else of_place[1]["verdict"],
                moved=_relative(theirs(was), theirs(other)),
                why=MAY_FOLLOW if (stage := _stage(place, check)) in RESULTS and _turn(stage) > first else NOT_REQUIRED,
            )
        )
    # what cannot follow from anything that was required comes first
    return sorted(found, key=lambda each: each["why"] != NOT_REQUIRED)


RESULTS = ("spectrum", "modes", "lateral", "scaling", "twist", "drift")
"""Stages whose values follow from those of earlier ones."""
NOT_REQUIRED = "no finding requires it"
MAY_FOLLOW = "no finding names it; it may follow from a value that was required to change"


def _stage(place: Place, check: CheckResult | None) -> str:
    return check["stage"] if check is not None else QUANTITIES[place[0]].stage if place[0] in QUANTITIES else ""


def _turn(stage: str) -> int:
    """The place of a stage among the stages."""
    return STAGES.index(stage) if stage in STAGES else len(STAGES)


def _by_place(checks: Iterable[CheckResult]) -> dict[Place, CheckResult]:
    """The check of each submitted value; where there are several, the one of the value itself."""
    found: dict[Place, CheckResult] = {}
    for check in checks:
        if check["theirs"] is not None and (check["kind"] == "value" or _place_of(check) not in found):
            found[_place_of(check)] = check
    return found


def _following(steps: Sequence[StepResult], required: Set[str]) -> set[str]:
    """Ids of the steps that rest on one of the required ones; inputs stand before what rests on them."""
    following = set(required)
    for step in steps:
        if not following.isdisjoint(step["inputs"]):
            following.add(step["id"])
    return following


def _place(claim: Claim) -> Place:
    return claim.quantity, claim.direction, claim.story, claim.point, claim.case


def _label(place: Place) -> str:
    name, *where = place
    symbol = QUANTITIES[name].symbol if name in QUANTITIES else name
    return " ".join(str(part) for part in (symbol, *where) if part not in (None, ""))


def _place_of(check: CheckResult) -> Place:
    return check["quantity"], check["direction"], check["story"], check["point"], check["case"]


def _deviates(check: CheckResult) -> bool:
    return check["verdict"] in DEVIATES and check["role"] is not None


def _starts_anew(was: CheckResult, now: CheckResult) -> bool:
    """Whether a deviation that came from others before is one of its own now."""
    return was["role"] == "inherited" and now["role"] == "origin"


def _why_new(was: CheckResult | None) -> str:
    if was is None:
        return "it was not stated"
    return "it came from another deviation before, and starts here now" if _deviates(was) else "it was no deviation"


def _state(was: CheckResult, now: CheckResult | None) -> State:
    if now is None or (was["theirs"] is not None and now["theirs"] is None) or now["verdict"] == Verdict.OPEN.value:
        return "undecided"
    if not _deviates(now):
        return "settled"
    return "changed but not right" if _moved(was, now) else "open"


_WHY: Mapping[State, str] = {
    "settled": "resolved by the numbers",
    "open": "still there",
    "changed but not right": "changed, and not right",
    "undecided": "it cannot be decided: the value is not stated, or not compared, any more",
}


class _Written(NamedTuple):
    """A submitted value: in the core's unit, its text, and what turns the written number into that unit."""

    value: float | str
    text: str
    scale: float | None


def _written(claim: Claim) -> _Written:
    return _Written(theirs(claim), claim.text, claim.scale)


def _written_of(check: CheckResult) -> _Written | None:
    stated = check["theirs"]
    if stated is None:
        return None
    value = stated["value"]
    if isinstance(value, str):
        return _Written(value, stated["text"], None)
    try:
        number = float(stated["text"])
    except ValueError:
        number = 0.0
    # of a zero the written number does not say its unit
    return _Written(size(check["quantity"], value), stated["text"], abs(value / number) if value and number else None)


def _moved(was: CheckResult, now: CheckResult) -> bool:
    """Whether the submitted value of a check is another one."""
    one, other = _written_of(was), _written_of(now)
    if one is None or other is None:
        return (one is None) != (other is None)
    return _another(one, other)


def _another(one: _Written, other: _Written) -> bool:
    """Whether a submitted value is another one, as far as its digits say."""
    a, b = one.value, other.value
    if isinstance(a, str) or isinstance(b, str):
        return str(a) != str(b)
    if a == b:
        return False
    halves = half_unit(one.text) * (one.scale or other.scale or 1.0)
    halves += half_unit(other.text) * (other.scale or one.scale or 1.0)
    return abs(a - b) > halves * (1 + 1e-9)


def _relative(one: float | str | None, other: float | str | None) -> float | None:
    return other / one - 1.0 if isinstance(one, float) and isinstance(other, float) and one else None


def _compared(was: CheckResult | None, now: CheckResult | None, finding: int | None, why: str) -> ComparedValue:
    check = was or now
    assert check is not None
    one, other = (None if c is None else _written_of(c) for c in (was, now))
    before, after = (None if c is None or c["theirs"] is None else c["theirs"] for c in (was, now))
    return {
        "check": check["id"],
        "label": check["label"],
        "finding": finding,
        "before": before and _text(before["text"] or before["value"], before["unit"], check["quantity"]),
        "after": after and _text(after["text"] or after["value"], after["unit"], check["quantity"]),
        "was": "" if was is None else was["verdict"],
        "now": "" if now is None else now["verdict"],
        "moved": _relative(one and one.value, other and other.value),
        "why": why,
    }


def _text(written: float | str, unit: str, quantity: str) -> str:
    """A submitted value as it was written, with its unit; a sum of several in figures and our unit."""
    standing = QUANTITIES[quantity].unit.replace("*", " ") if quantity in QUANTITIES else ""
    if isinstance(written, str):
        return f"{written} {unit or standing}".strip()
    return f"{figures(written)} {standing}".strip()


def _finding(finding: OpenFinding, was: Checks, now: Checks, states: Mapping[str, State]) -> ComparedFinding:
    """The state of a finding: the worst of its checks; a gap is settled when the value is stated."""
    of_checks: dict[str, State] = {}
    for name in finding.checks:
        if name in states:
            of_checks[name] = states[name]
        elif (one := was.get(name)) is None:
            of_checks[name] = "undecided"
        else:
            other = now.get(name)
            asked = one["verdict"] in (Verdict.GAP.value, Verdict.QUESTION.value)
            same = other is not None and other["verdict"] == one["verdict"]
            of_checks[name] = "open" if asked and same else "settled"
    state: State = next((s for s in WORST_FIRST if s in of_checks.values()), "undecided")
    return {"number": finding.number, "title": finding.title, "state": state, "checks": of_checks}


def _names(before: Iterable[str], after: Iterable[str]) -> CameAndWent:
    one, other = set(before), set(after)
    return {"came": sorted(other - one), "went": sorted(one - other)}
