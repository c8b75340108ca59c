"""What became of deviations and of open findings in the next submission."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from functools import cached_property
from typing import NamedTuple

from plumb_core.checks.claims import may_state
from plumb_core.checks.verdict import Verdict
from plumb_core.difference.written import moved
from plumb_core.documents.differences import ComparedFinding, State
from plumb_core.documents.results import CheckResult, StepResult
from plumb_core.documents.submission import Claim, OpenPart
from plumb_core.quantities import QUANTITIES

DEVIATES = (Verdict.DIFFERS.value, Verdict.BREACHES.value)
REQUESTS = (Verdict.GAP.value, Verdict.QUESTION.value)
"""Verdicts that request a statement."""
UNDECIDED = (*REQUESTS, Verdict.OPEN.value)
WORST_FIRST: tuple[State, ...] = ("open", "changed but not right", "undecided", "settled")
WHY: Mapping[State, str] = {
    "settled": "resolved by the numbers",
    "open": "still there",
    "changed but not right": "changed, and not right",
    "undecided": "it cannot be decided: what it rests on is not stated, not compared or questioned now",
}

Checks = Mapping[str, CheckResult]
Place = tuple[str, str | None, str | None, int | None, str]


class Submitted(NamedTuple):
    """A submission with its recheck: what the comparison of two of them needs."""

    label: str
    checks: Sequence[CheckResult]
    claims: Sequence[Claim]
    steps: Sequence[StepResult] = ()
    """of the carried side: what a submitted value follows from"""
    open: Sequence[OpenPart] = ()
    """what is not read yet, and missing in nothing"""

    def awaits(self, name: str) -> bool:
        """Whether what is not read yet may state a quantity."""
        return any(may_state(part, (name,)) for part in self.open)


class OpenFinding(NamedTuple):
    """A finding that requires something, with the ids of its checks."""

    number: int
    title: str
    checks: tuple[str, ...]


def deviates(check: CheckResult) -> bool:
    """Whether a check is a deviation."""
    return check["verdict"] in DEVIATES and check["role"] is not None


def starts_anew(was: CheckResult, now: CheckResult) -> bool:
    """Whether a deviation that came from others before is one of its own now."""
    return was["role"] == "inherited" and now["role"] == "origin"


def place_of_claim(claim: Claim) -> Place:
    """Where a submitted value stands."""
    return claim.quantity, claim.direction, claim.story, claim.point, claim.case


def place_of_check(check: CheckResult) -> Place:
    """Where the submitted value of a check stands."""
    return check["quantity"], check["direction"], check["story"], check["point"], check["case"]


class Pair:
    """Two submissions, an earlier and a later one.

    Attributes
    ----------
    was, now : the checks of both by their ids
    """

    def __init__(self, before: Submitted, after: Submitted):
        self.before, self.after = before, after
        self.was = {c["id"]: c for c in before.checks}
        self.now = {c["id"]: c for c in after.checks}
        self.states = {name: self.state(name) for name, check in self.was.items() if deviates(check)}
        """what became of each deviation"""

    def state(self, name: str) -> State:
        """What became of a check that deviated."""
        was, now = self.was[name], self.now.get(name)
        if now is None:
            return "undecided" if was["kind"] == "value" else self._of_vanished(was)
        if (was["theirs"] is not None and now["theirs"] is None) or now["verdict"] in UNDECIDED:
            return "undecided"
        if not deviates(now):
            return "settled"
        return "changed but not right" if moved(was, now) else "open"

    def of_finding(self, finding: OpenFinding) -> ComparedFinding:
        """The state of a finding: the worst of its checks.

        What agrees is evidence, and decides nothing: a finding of such checks alone is the reviewer's to decide.
        """
        of_checks: dict[str, State] = {}
        for name in finding.checks:
            of_check = self._in_finding(name)
            if of_check is not None:
                of_checks[name] = of_check
        state: State = next((s for s in WORST_FIRST if s in of_checks.values()), "undecided")
        return {"number": finding.number, "title": finding.title, "state": state, "checks": of_checks}

    def _in_finding(self, name: str) -> State | None:
        """The state of a check that a finding names; None where it agreed, and agrees still."""
        if name in self.states:
            return self.states[name]
        was, now = self.was.get(name), self.now.get(name)
        if was is None:
            return "undecided"
        if now is not None and deviates(now):
            return "changed but not right"
        if was["verdict"] in REQUESTS:
            if now is None:
                return self._of_vanished(was)
            return "open" if now["verdict"] == was["verdict"] else "undecided" if _requests(now) else "settled"
        return "undecided" if now is None or _requests(now) or was["verdict"] == Verdict.OPEN.value else None

    def _of_vanished(self, was: CheckResult) -> State:
        """What became of a check that is made only where something is out, and is not made now.

        It is settled where nothing replaced it, and all that it may have been made from is stated still.
        """
        of_place = [c for c in self._now_by_quantity[was["quantity"]] if _near(was["direction"], c["direction"])]
        if any(deviates(c) and c["role"] == "origin" and c["id"] not in self.states for c in of_place):
            return "changed but not right"
        # what was as undecided before as it is now says nothing
        if any(_requests(c) and not self._was_as_undecided(c) for c in of_place):
            return "undecided"
        if self.after.awaits(was["quantity"]):
            return "undecided"
        if was["verdict"] == Verdict.GAP.value:
            stated = self.stated[1].get(was["quantity"], set())
            return "settled" if any(_near(was["direction"], place[1]) for place in stated) else "undecided"
        return "undecided" if self._lost(was) else "settled"

    def _was_as_undecided(self, now: CheckResult) -> bool:
        was = self.was.get(now["id"])
        return was is not None and was["verdict"] == now["verdict"]

    def _lost(self, was: CheckResult) -> bool:
        """Whether something is not stated any more that a check may have been made from.

        A quantity that is nowhere stated any more, or a value of the same stage at the same place.
        """
        if self.stated[0].keys() - self.stated[1].keys():
            return True
        of_stage = {name for name in self.stated[0] if name in QUANTITIES and QUANTITIES[name].stage == was["stage"]}
        return any(
            _near(was["direction"], direction) and _near(was["story"], story)
            for name in of_stage
            for _, direction, story, _, _ in self.stated[0][name] - self.stated[1].get(name, set())
        )

    @cached_property
    def _now_by_quantity(self) -> Mapping[str, list[CheckResult]]:
        found = defaultdict(list)
        for check in self.after.checks:
            found[check["quantity"]].append(check)
        return found

    @cached_property
    def stated(self) -> tuple[dict[str, set[Place]], dict[str, set[Place]]]:
        """The places that each of the two submissions states, by quantity."""
        return _places(self.before.claims), _places(self.after.claims)


def _near(one: str | None, other: str | None) -> bool:
    """Whether both may be of one direction, or one story."""
    return one is None or other is None or one == other


def _requests(check: CheckResult) -> bool:
    return check["verdict"] in UNDECIDED


def _places(claims: Iterable[Claim]) -> dict[str, set[Place]]:
    found: dict[str, set[Place]] = {}
    for claim in claims:
        found.setdefault(claim.quantity, set()).add(place_of_claim(claim))
    return found
