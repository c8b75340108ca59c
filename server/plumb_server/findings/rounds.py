"""Submission to submission: what became of deviations and findings, from the rechecks that are stored.

What the numbers settle is said; closing a finding is the reviewer's.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import cache
from typing import Any

from cachetools import LRUCache
from plumb_core.difference.compared import compared
from plumb_core.difference.states import DEVIATES, OpenFinding, Pair, Submitted
from plumb_core.documents.differences import ComparedValue, DifferenceResult

from plumb_server.findings.models import Finding
from plumb_server.rechecks.services import claims_as_core, run_recheck
from plumb_server.reviews.models import Review
from plumb_server.submissions.models import Submission
from plumb_server.web.problems import Conflict, UnprocessableContent

_compared: LRUCache[tuple[Any, ...], DifferenceResult] = LRUCache(16)


def submissions_with_values(review: Review) -> list[Submission]:
    """The submissions of which values are accepted, the earliest first."""
    return list(review.submissions.filter(exhibits__tables__count__gt=0).distinct().order_by("number"))


def pair_of(review: Review, before: int | None, after: int | None) -> tuple[Submission, Submission]:
    """Two submissions by their numbers, by default the last two that state values.

    Raises UnprocessableContent where there are no two.
    """
    with_values = submissions_with_values(review)
    by_number = {s.number: s for s in with_values}
    later = by_number.get(after) if after is not None else next(reversed(with_values), None)
    earlier_ones = [s for s in with_values if later is not None and s.number < later.number]
    earlier = by_number.get(before) if before is not None else next(reversed(earlier_ones), None)
    if later is None or earlier is None or earlier.number >= later.number:
        raise UnprocessableContent(
            [
                {
                    "path": "/before" if later is not None else "/after",
                    "message": "there are no two submissions with values to compare",
                    "remedy": "Accept the tables of the next submission, or choose an earlier and a later one.",
                }
            ]
        )
    return earlier, later


def difference_of(review: Review, before: Submission, after: Submission) -> DifferenceResult:
    """What became of the earlier submission's deviations, and of the findings that are open."""
    rechecks = [run_recheck(review, submission) for submission in (before, after)]
    findings = [
        OpenFinding(f.number, f.title, tuple(f.all_checks))
        for f in review.findings.unsettled().prefetch_related("further")
    ]
    key = (*(r.input_hash for r in rechecks), tuple(findings))
    known = _compared.get(key)
    if known is None:
        sides = [
            Submitted(s.label, r.sheet["checks"], claims_as_core(s), r.steps["carried"], s.open_parts())
            for s, r in zip((before, after), rechecks, strict=True)
        ]
        known = _compared[key] = compared(sides[0], sides[1], findings)
    return known


def histories(review: Review) -> list[dict[str, Any]]:
    """Of each finding, the worst of its checks in each submission with values, in their order.

    Where none of its checks is made any more, and that settles them, they agree.
    """
    submissions = submissions_with_values(review)
    rechecks = [run_recheck(review, s) for s in submissions]
    sheets = [{c["id"]: c for c in r.sheet["checks"]} for r in rechecks]

    @cache
    def side(at: int) -> Submitted:
        one = submissions[at]
        return Submitted(one.label, rechecks[at].sheet["checks"], claims_as_core(one), (), one.open_parts())

    @cache
    def pair(before: int, after: int) -> Pair:
        return Pair(side(before), side(after))

    def marks(finding: Finding) -> Iterator[dict[str, Any]]:
        names = tuple(finding.all_checks)
        last: int | None = None
        for at, sheet in enumerate(sheets):
            there = [sheet[name] for name in names if name in sheet]
            mark = _mark(submissions[at].label, there)
            if there:
                last = at
            elif last is not None:
                state = pair(last, at).of_finding(OpenFinding(finding.number, finding.title, names))["state"]
                mark["verdict"] = "agrees" if state == "settled" else None
            yield mark

    return [{"number": f.number, "marks": list(marks(f))} for f in review.findings.prefetch_related("further")]


WORST_FIRST = ("breaches", "differs", "question", "gap", "open", "note", "agrees")


def _mark(label: str, checks: list[dict[str, Any]]) -> dict[str, Any]:
    worst = min(checks, key=lambda c: (WORST_FIRST.index(c["verdict"]), -abs(c["multiples"] or 0.0)), default=None)
    return {
        "submission": label,
        "verdict": worst["verdict"] if worst else None,
        "role": worst["role"] if worst else None,
        "multiples": worst["multiples"] if worst else None,
        "check": worst["label"] if worst else None,
    }


def closing_texts(review: Review, findings: Sequence[Finding]) -> dict[int, str]:
    """What is written into the thread of each finding when its closure is confirmed, by its key.

    Raises Conflict naming the findings that the numbers of the last submission do not settle.
    """
    difference = difference_of(review, *pair_of(review, None, None))
    states = {each["number"]: each["state"] for each in difference["findings"]}
    unresolved = [f for f in findings if states.get(f.number) != "settled"]
    if unresolved:
        words = "; ".join(f"finding {f.number}: {states.get(f.number, 'closed already')}" for f in unresolved)
        raise Conflict(
            f"not resolved by the numbers of {difference['after']}: {words}",
            "Close such a finding in the register, with your reason.",
            "/findings",
        )
    return {f.pk: _words_of_closing(difference, f) for f in findings}


def _before(value: ComparedValue) -> str:
    """What stood for a value that deviated: of a check that has none, that it did."""
    return value["before"] or ("not stated" if value["was"] not in DEVIATES else "out")


def _now(value: ComparedValue) -> str:
    """What stands for a value now; a check that is made only where something is out is made no more."""
    return f"now {value['after'] or 'not stated'}" if value["now"] else "nothing is out there now"


def _words_of_closing(difference: DifferenceResult, finding: Finding) -> str:
    of_finding = set(finding.all_checks)
    values = [
        f"{each['label']}: {_before(each)}, {_now(each)}"
        for each in difference["settled"]
        if each["check"] in of_finding
    ]
    head = f"Closed on {difference['after']}: resolved by the numbers."
    return "\n".join([head, *values[:20], *([f"and {len(values) - 20} more"] if len(values) > 20 else [])])
