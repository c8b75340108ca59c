"""What a test of the catalogue sees: the context, and the checks that were made of it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from functools import cached_property

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.documents.submission import Claim
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Key


@dataclass(frozen=True, slots=True)
class Named:
    """A check whose deviation a mistake of the catalogue explains.

    Attributes
    ----------
    check : its id
    words : added to its note
    exact : whether numbers show this mistake and no other one; it comes before what only the place suggests
    gathers : ids of other origins that the same mistake explains
    instead_of : codes of checkers that this one is nearer to the cause than
    """

    check: str
    words: str = ""
    exact: bool = False
    gathers: tuple[str, ...] = ()
    instead_of: tuple[str, ...] = ()


class Found:
    """The context of a recheck and its checks, by what tests look for."""

    def __init__(self, context: Context, checks: Iterable[Check]):
        self.context = context
        self.checks = list(checks)

    @cached_property
    def origins_by_name(self) -> dict[str, list[Check]]:
        """Checks at which a deviation starts, by their quantity."""
        found: dict[str, list[Check]] = {}
        for check in self.checks:
            if check.role is DeviationRole.ORIGIN:
                found.setdefault(check.key.name, []).append(check)
        return found

    def origins(self, *names: str, kinds: Iterable[str] = ()) -> list[Check]:
        """Checks at which a deviation of these quantities starts; of all quantities where none is named."""
        among = [c for n in (names or self.origins_by_name) for c in self.origins_by_name.get(n, ())]
        chosen = frozenset(kinds)
        return [c for c in among if not chosen or c.kind in chosen]

    def alike(self, check: Check) -> int:
        """How many values of the quantity of an origin have its cause, itself included."""
        return 1 + self._resting[check.key.name, check.id]

    @cached_property
    def _resting(self) -> Counter[tuple[str, str]]:
        """How many checks of a quantity rest on an origin."""
        return Counter((c.key.name, origin) for c in self.checks for origin in dict.fromkeys(c.rests_on))

    def spoken(self, code: str) -> Iterator[Named]:
        """The checks of checkers that speak for a code."""
        return (Named(c.id) for c in self.checks if c.slip == code)

    def claims(self, name: str, direction: str | None = None) -> list[Claim]:
        """All submitted values of a quantity that belongs to no case."""
        of_key = self.context.claims.by_key.get(Key(name, direction))
        return of_key.all if of_key is not None else []

    def single(self, name: str, direction: str | None = None) -> Claim | None:
        """The submitted value of a quantity without a place; None where it is not stated."""
        of_key = self.context.claims.by_key.get(Key(name, direction))
        return of_key.single[0] if of_key is not None and of_key.single else None

    def number(self, name: str, direction: str | None = None) -> float | None:
        """The submitted number of a quantity."""
        claim = self.single(name, direction)
        return None if claim is None or isinstance(claim.value, str) else float(theirs(claim))

    def stated(self, name: str) -> list[tuple[str | None, Claim]]:
        """The submitted single values of a quantity with their directions."""
        return [(d, c) for d in (None, *DIRECTIONS) if (c := self.single(name, d)) is not None]

    def leading_period(self, direction: str) -> float | None:
        """Period of the submitted mode with the greatest share of the mass in a direction, s; None without shares."""
        table, key = self.context.claims.modes, Key("mass_ratio", direction)
        shares = {m: float(c.value) for m in table.numbers if (c := table.claim(key, m)) is not None}
        return table.period(max(shares, key=lambda m: shares[m])) if max(shares.values(), default=0.0) > 0 else None

    def ours(self, name: str, direction: str | None = None) -> float | None:
        """Our number of a quantity; None where there is none."""
        value = self.context.independent.get(name, direction)
        return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else None


def ratio_of(check: Check) -> float | None:
    """Theirs over ours; None where they are no two numbers of one sign."""
    shown = check.independent or check.carried
    if shown is None or isinstance(shown.theirs, str) or isinstance(shown.ours, str) or not shown.ours:
        return None
    ratio = shown.theirs / shown.ours
    return ratio if ratio > 0 else None


def near(value: float | None, target: float, within: float = 0.01) -> bool:
    """Whether a value is a target but for a relative difference."""
    return value is not None and target != 0.0 and abs(value / target - 1.0) <= within


def spoken_check(
    code: str,
    name: str,
    direction: str | None,
    note: str,
    *,
    verdict: Verdict = Verdict.QUESTION,
    claim: Claim | None = None,
    clause: str = "",
    place: str = "",
    rests_on: Iterable[Check] = (),
) -> Check:
    """A question or a note of a test, at a quantity.

    rests_on : checks that it is a consequence of
    """
    label = " ".join(part for part in (QUANTITIES[name].symbol, direction) if part)
    return Check(
        "catalogue",
        Key(name, direction),
        label,
        claim,
        place=f"{code}.{place}" if place else code,
        verdict=verdict,
        level=1,
        note=note,
        slip=code,
        clause=clause,
        rests_on=tuple(c.id for c in rests_on),
    )
