"""The submitted values, by what they are values of."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Container, Iterable, Mapping
from dataclasses import dataclass, field
from functools import cached_property

from plumb_core import DIRECTIONS
from plumb_core.checks.check import AddedUp, Subject, is_of_modes
from plumb_core.checks.modes import ModeTable
from plumb_core.digits import half_unit
from plumb_core.documents.base import Direction
from plumb_core.documents.submission import Claim, LoadCase, OpenPart, Source, Submission
from plumb_core.errors import Problem
from plumb_core.quantities import QUANTITIES, Kind, Scope
from plumb_core.rules import Key


@dataclass(frozen=True, slots=True)
class ClaimsOfKey:
    """The claims of one key: a single value, or values by story or point.

    Attributes
    ----------
    single : values without a place; the first one is carried on
    indexed : values by the index of their story or point
    again : values stated another time for a story (another case of the same direction); checked, not carried on
    """

    single: list[Claim] = field(default_factory=list)
    indexed: dict[int, Claim] = field(default_factory=dict)
    again: list[tuple[int, Claim]] = field(default_factory=list)

    @property
    def all(self) -> list[Claim]:
        """All claims of the key."""
        return [*self.single, *self.indexed.values(), *(claim for _, claim in self.again)]


@dataclass(frozen=True)
class ClaimSet:
    """The values that a submission states, and the load cases that it names.

    Attributes
    ----------
    claims : in the order of the submission
    cases : load cases by name, with their roles
    stories : names of the stories, bottom to top: those of the brief, else those of the submission
    by_key : claims that are rechecked by rules, with totals that are added up where only their parts are stated
    of_cases : results of load cases, and loads of the weight make-up, each under the name of its case or load
    unplaced : claims of stories that are not among `stories`
    open : parts of the submission that are not read yet
    rounded : ids of the claims whose column shows rounding to integers
    """

    claims: tuple[Claim, ...]
    cases: Mapping[str, LoadCase]
    stories: tuple[str, ...]
    by_key: Mapping[Key, ClaimsOfKey]
    of_cases: Mapping[Key, ClaimsOfKey]
    unplaced: tuple[Claim, ...]
    open: tuple[OpenPart, ...] = ()
    rounded: frozenset[int] = frozenset()

    @classmethod
    def of(
        cls,
        submission: Submission,
        stories: Iterable[str],
        sums: Mapping[str, str] | None = None,
        open_parts: Iterable[OpenPart] = (),
    ) -> ClaimSet:
        """The claims of a submission beside a brief with these stories.

        sums : story quantity -> the quantity that its values add up to
        """
        rounded = rounded_to_integers(submission.claims)
        named = tuple(stories) or submitted_stories(submission.claims)
        places = {name: i for i, name in enumerate(named)}
        cases = {c.name: c for c in submission.cases}
        by_key: dict[Key, ClaimsOfKey] = {}
        of_cases: dict[Key, ClaimsOfKey] = {}
        unplaced = []
        held_at: dict[tuple[str, str | None, str], tuple[ClaimsOfKey, Kind]] = {}
        for claim in submission.claims:
            place = (claim.quantity, claim.direction, claim.case)
            known = held_at.get(place)
            if known is None:
                if is_of_modes(claim):
                    continue
                key = key_of(claim, cases)
                at = (by_key if key.case is None else of_cases).setdefault(key, ClaimsOfKey())
                known = held_at[place] = at, QUANTITIES[claim.quantity].kind
            at, kind = known
            if kind is Kind.STORIES:
                index = places.get(claim.story or "")
                if index is None:
                    unplaced.append(claim)
                elif index in at.indexed:
                    at.again.append((index, claim))
                else:
                    at.indexed[index] = claim
            elif kind is Kind.POINTS:
                at.indexed[claim.point or 0] = claim
            else:
                at.single.append(claim)
        stored = {key: c for key, c in by_key.items() if c.single or c.indexed}
        for part, total in (sums or {}).items():
            for direction in DIRECTIONS:
                parts = stored.get(Key(part, direction))
                if parts and len(parts.indexed) == len(named) and Key(total, direction) not in stored:
                    stored[Key(total, direction)] = ClaimsOfKey(
                        [_added_up(total, direction, parts.indexed.values(), rounded)]
                    )
        named_cases = {key.case for key in of_cases if key.case is not None and not key.name.startswith("load_")}
        cases |= {name: LoadCase(name=name) for name in sorted(named_cases - cases.keys())}
        return cls(
            tuple(submission.claims), cases, named, stored, of_cases, tuple(unplaced), tuple(open_parts), rounded
        )

    def rounding(self, claim: Subject) -> float:
        """Half a unit of the last digit that was written, in the core's unit; 0 for a text and for an exact number."""
        return half_of_last_digit(claim, self.rounded)

    def awaits(self, *names: str) -> bool:
        """Whether a part of the submission that is not read yet may state one of these quantities."""
        return any(may_state(part, names) for part in self.open)

    @cached_property
    def cases_of_quantity(self) -> Mapping[tuple[str, str | None], frozenset[str]]:
        """Load cases that state a quantity, by quantity and direction."""
        found: dict[tuple[str, str | None], set[str]] = defaultdict(set)
        for claim in self.claims:
            if claim.case:
                found[claim.quantity, claim.direction].add(claim.case)
        return defaultdict(frozenset, {key: frozenset(cases) for key, cases in found.items()})

    @cached_property
    def modes(self) -> ModeTable:
        """What is claimed of modes."""
        return ModeTable.of(c for c in self.claims if is_of_modes(c))


def may_state(part: OpenPart, names: Iterable[str]) -> bool:
    """Whether a part of a submission that is not read yet may state one of these quantities."""
    if not part.kind:
        return True
    if part.kind == "parameters":
        return any(n in QUANTITIES and QUANTITIES[n].kind in (Kind.NUMBER, Kind.TEXT) for n in names)
    return any(n in part.quantities for n in names)


ROUNDED_COLUMN, ROUNDED_RESULTS = 3, 2
"""Different numbers of a quantity in a file, none with decimals, that show rounding to integers.

Of ratios, and of results with
a unit."""


def rounded_to_integers(claims: Iterable[Claim]) -> frozenset[int]:
    """Return the ids of the claims whose column shows rounding to integers.

    It has at least three different numbers, none with decimals; two of a quantity with a unit, as of a building of two
    stories.

    A number without decimals that is alone in its column is exact.
    """
    columns: dict[tuple[str, str, str], list[Claim] | None] = {}
    for claim in claims:
        quantity = QUANTITIES.get(claim.quantity)
        if quantity is None or (quantity.kind in (Kind.NUMBER, Kind.TEXT) and quantity.scope is not Scope.CASE):
            continue
        place = (claim.quantity, claim.source.file, claim.source.sheet)
        known = columns.get(place, _NOTHING)
        if known is None:
            continue
        if not _INTEGER.match(claim.text):
            columns[place] = None
        elif known is _NOTHING:
            columns[place] = [claim]
        else:
            known.append(claim)
    shown = [
        c
        for (name, *_), c in columns.items()
        if c and len({claim.text for claim in c}) >= (ROUNDED_RESULTS if QUANTITIES[name].unit else ROUNDED_COLUMN)
    ]
    return frozenset(id(claim) for column in shown for claim in column)


def half_of_last_digit(claim: Subject, rounded: Container[int] = ()) -> float:
    """Half a unit of the last digit that was written, in the core's unit.

    0 for a text, and for a number without decimals.

    rounded : ids of the claims whose column shows that its numbers are rounded to integers
    """
    if isinstance(claim, AddedUp):
        return claim.half
    if not isinstance(claim.value, float):
        return 0.0
    if isinstance(claim, Claim) and _INTEGER.match(claim.text) and id(claim) not in rounded:
        return 0.0
    return half_unit(claim.text) * claim.scale


_INTEGER = re.compile(r"\s*[+\-\u2212]?\d+\s*$")
_NOTHING: list[Claim] = []


def _added_up(total: str, direction: Direction, parts: Iterable[Claim], rounded: Container[int]) -> AddedUp:
    stated = list(parts)
    symbol = QUANTITIES[stated[0].quantity].symbol
    return AddedUp(
        quantity=total,
        direction=direction,
        value=sum(float(theirs(c)) for c in stated),
        unit=QUANTITIES[total].unit,
        source=Source(note=f"sum of the submitted {symbol}"),
        half=sum(half_of_last_digit(c, rounded) for c in stated),
    )


NOT_STATIC = ("modal", "gravity", "combination", "time_history", "other")
"""Kinds of cases whose story forces are results of an analysis, not forces of the static method."""


def key_of(claim: Claim, cases: Mapping[str, LoadCase]) -> Key:
    """Whose value of what a claim is.

    Forces of a static case are those of the static method in its direction; those of any other case are its results.
    """
    scope = QUANTITIES[claim.quantity].scope
    if not claim.case or scope is Scope.BUILDING:
        return Key(claim.quantity, claim.direction)
    role = cases.get(claim.case)
    if scope is Scope.DIRECTION and (role is None or role.kind not in NOT_STATIC):
        return Key(claim.quantity, claim.direction)
    stated = role.direction if role is not None and role.direction in ("X", "Y") else None
    return Key(claim.quantity, claim.direction or stated, claim.case)


def submitted_stories(claims: Iterable[Claim]) -> tuple[str, ...]:
    """Names of the stories that a submission lists, bottom to top."""
    return tuple(dict.fromkeys(c.story for c in claims if c.quantity in ("h", "w") and c.story))


_SIZED = frozenset(name for name, q in QUANTITIES.items() if q.sized)


def theirs(claim: Subject) -> float | str:
    """The submitted value as it is compared: its size, where results are signed against the axis."""
    return claim.value if isinstance(claim.value, str) else size(claim.quantity, claim.value)


def size(quantity: str, value: float) -> float:
    """A value of a quantity as it is compared."""
    return abs(value) if quantity in _SIZED else value


def problems_of(submission: Submission) -> list[Problem]:
    """What is wrong with claims beside their form: unknown quantities, and places that do not fit them."""
    problems = []
    names = [c.name for c in submission.cases]
    for i, case in enumerate(submission.cases):
        if case.name in names[:i]:
            problems.append(
                Problem(f"/submission/cases/{i}/name", f"case {case.name!r} is listed twice", "Name each case once.")
            )
    # most claims are of a form that was assessed before
    sound: set[tuple[str, str | None, bool, bool, bool, type]] = set()
    for i, claim in enumerate(submission.claims):
        form = (
            claim.quantity,
            claim.direction,
            claim.case == "",
            not claim.story,
            claim.point is None,
            type(claim.value),
        )
        if form in sound:
            continue
        found = _problems_of_claim(claim, f"/submission/claims/{i}")
        if found:
            problems += found
        else:
            sound.add(form)
    return problems + _problems_of_points(submission.claims)


def _problems_of_claim(claim: Claim, path: str) -> list[Problem]:
    quantity = QUANTITIES.get(claim.quantity)
    if quantity is None or not quantity.checked:
        known = ", ".join(n for n, q in QUANTITIES.items() if q.checked)
        words = f"quantity {claim.quantity!r} is not in the vocabulary"
        return [Problem(f"{path}/quantity", words, f"Use one of: {known}.")]
    problems = []
    if quantity.scope is Scope.CASE:
        if not claim.case:
            words = f"{quantity.symbol} is a load case's value"
            problems.append(Problem(f"{path}/case", words, "Name the case."))
    elif (quantity.scope is Scope.DIRECTION) != (claim.direction is not None):
        wants = "X or Y" if quantity.scope is Scope.DIRECTION else "no direction"
        problems.append(Problem(f"{path}/direction", f"{quantity.symbol} takes {wants}", f"Give {wants}."))
    if (quantity.kind is Kind.TEXT) != isinstance(claim.value, str):
        wants = "a text" if quantity.kind is Kind.TEXT else "a number"
        problems.append(Problem(f"{path}/value", f"{quantity.symbol} is {wants}", f"Give {wants}."))
    if quantity.kind in (Kind.STORIES, Kind.SHAPES) and not claim.story:
        problems.append(Problem(f"{path}/story", f"{quantity.symbol} is a story's value", "Name the story."))
    numbered = {Kind.POINTS: "point", Kind.MODES: "mode", Kind.SHAPES: "mode"}.get(quantity.kind)
    if numbered and claim.point is None:
        words = f"{quantity.symbol} is a {numbered}'s value"
        problems.append(Problem(f"{path}/point", words, f"Number the {numbered} in `point`."))
    return problems


def _problems_of_points(claims: list[Claim]) -> list[Problem]:
    """Points of their spectrum are numbered from 0 without gaps, each with its period."""
    points = [
        (i, claim)
        for i, claim in enumerate(claims)
        if (q := QUANTITIES.get(claim.quantity)) and q.kind is Kind.POINTS and claim.point is not None
    ]
    periods = {claim.point for _, claim in points if claim.quantity == "T_points"}
    without_gaps = set(range(len(periods)))
    return [
        Problem(
            f"/submission/claims/{i}/point",
            f"point {claim.point} has no period, or the points before it have gaps",
            "Number the points from 0, and give each its period (T_points).",
        )
        for i, claim in points
        if claim.point not in periods or claim.point not in without_gaps
    ]
