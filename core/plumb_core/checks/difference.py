"""What is different between two rechecks: for what-if, for causes, and from submission to submission."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from plumb_core.checks.check import Check
from plumb_core.checks.verdict import Verdict


@dataclass(frozen=True, slots=True)
class Flip:
    """A check whose verdict changed."""

    check: str
    before: Verdict
    after: Verdict


@dataclass(frozen=True, slots=True)
class Difference:
    """What changed from one recheck to another, by the ids of checks, in the order of the later one.

    Attributes
    ----------
    flips : checks of both whose verdict changed
    settled : checks that deviated before and agree now
    moved : checks of both with the same verdict whose submitted or own value changed
    appeared, disappeared : checks that one of the two does not have
    """

    flips: tuple[Flip, ...]
    settled: tuple[str, ...]
    moved: tuple[str, ...]
    appeared: tuple[str, ...]
    disappeared: tuple[str, ...]


DEVIATING = (Verdict.DIFFERS, Verdict.BREACHES, Verdict.QUESTION, Verdict.GAP)


def difference(before: Iterable[Check], after: Iterable[Check]) -> Difference:
    """The difference between the checks of two rechecks."""
    earlier = {c.id: c for c in before}
    later = {c.id: c for c in after}
    both = [(earlier[i], c) for i, c in later.items() if i in earlier]
    flipped = [(old, new) for old, new in both if old.verdict is not new.verdict]
    return Difference(
        flips=tuple(Flip(new.id, old.verdict, new.verdict) for old, new in flipped),
        settled=tuple(n.id for o, n in flipped if o.verdict in DEVIATING and n.verdict is Verdict.AGREES),
        moved=tuple(n.id for o, n in both if o.verdict is n.verdict and _values(o) != _values(n)),
        appeared=tuple(i for i in later if i not in earlier),
        disappeared=tuple(i for i in earlier if i not in later),
    )


def _values(check: Check) -> tuple[float | str | None, ...]:
    return (
        check.subject.value if check.subject else None,
        check.carried.ours if check.carried else None,
        check.independent.ours if check.independent else None,
    )
