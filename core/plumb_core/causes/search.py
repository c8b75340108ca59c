"""The search for causes: the fewest slips that give the submitted numbers.

Each slip is applied at its place with everything above it as it is submitted, and judged by every submitted value that
it reaches.  A cause is worth the bits by which its agreement is unlikely to be chance, less the bits that it takes to
state it (minimum description length).  Slips that explain several origins come first; what no slip pays for is left
without a cause.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import combinations
from typing import Any

import numpy as np

from plumb_core.causes.agreement import NOTHING, REACH, Agreement, Stated, agreement, value_at
from plumb_core.causes.beam import Move
from plumb_core.causes.given import Given, given_otherwise
from plumb_core.causes.sets import sets_below
from plumb_core.causes.slip import Attempt, Place, Slip, plain
from plumb_core.causes.slips import slips
from plumb_core.checks.catalogue.registry import catalogue_tests
from plumb_core.checks.check import Check, Subject
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.verdict import DeviationRole
from plumb_core.digits import half_unit
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.rules import Evaluation, Key

LEAST = 1.0
"""Bits that a cause has to be worth beyond its cost."""
PAIR = 3.0
"""Further bits of two slips at one place."""
MOST_OTHERS = 3
MOST_AT_A_PLACE = 40
"""Slips of a place that are tried in pairs."""
TYPED = 16.0
"""Bits of a value without a pattern: all its digits, and that it was mistyped."""
GIVEN_BY_PLACE = frozenset(
    (
        "S12",
        "S13",
        "S14",
        "S15",
        "S17",
        "S22",
        "S24",
        "S25",
        "S28",
        "S38",
        "S43",
        "S54",
        "S56",
        "S57",
        "S58",
        "S59",
        "S85",
    )
)
"""Codes that tests give by the place of a deviation; they say of no mistake that its numbers show it."""
OF_VALUES = ("value", "reaction", "mass", "make_up", "sum")
"""Kinds of checks that compare a value; what others find their numbers show."""
NO_VALUES = ("permission", "drift")
TYPED_CODES = {"V": "S57", "V_static": "S57", "F": "S58"}
ABOVE_ALL = 1000
"""Depth of an input that was otherwise throughout."""
Progress = Callable[[float], bool]
"""Called with the share that is done; gives false where the search should stop."""


@dataclass(frozen=True)
class Found:
    """A slip with what it explains.

    Attributes
    ----------
    attempt : the slip
    at : the keys that they were applied at
    origins : ids of the origins that they explain
    bits, closeness : what the agreement says less the cost, and how close it is
    """

    attempt: Attempt
    at: tuple[Key, ...]
    origins: frozenset[str]
    bits: float
    closeness: float


@dataclass(frozen=True)
class Cause:
    """A cause of deviations.

    Attributes
    ----------
    found : the slips
    code : of the catalogue; empty where it has none
    explains : ids of the checks whose submitted values it reproduces
    leaves : ids of deviating checks below it that it does not reproduce
    others : the next best explanations
    """

    found: Found
    code: str
    explains: tuple[str, ...]
    leaves: tuple[str, ...] = ()
    others: tuple[Cause, ...] = field(default=())


def causes_of(context: Context, checks: Sequence[Check], progress: Progress = lambda share: True) -> list[Cause]:
    """The causes of the deviations of a recheck, by weight.

    Parameters
    ----------
    context : of the recheck
    checks : all its checks, with their codes
    progress : is told the share that is done, and can stop the search
    """
    with np.errstate(all="ignore"):
        search = Search(context, checks)
        candidates = list(search.candidates(progress))
        return search.chosen(candidates)


class Search:
    """The search over one recheck."""

    def __init__(self, context: Context, checks: Sequence[Check]):
        self.context = context
        self.checks = checks
        self.by_id = {c.id: c for c in checks}
        self.origins = [c for c in checks if c.role is DeviationRole.ORIGIN]
        self.below: dict[str, list[Check]] = {}
        self.of_key: dict[Key, list[Check]] = {}
        for check in checks:
            for origin in check.rests_on if check.role is not None else ():
                self.below.setdefault(origin, []).append(check)
            if check.subject is not None and (check.carried or check.independent) is not None:
                self.of_key.setdefault(check.key, []).append(check)
        self.evaluations = 0
        self._stated: dict[Key, tuple[list[Check], list[Stated]]] = {}
        self._numbers: dict[Key, tuple[Any, ...] | None] = {}
        self.effects: dict[Key, list[tuple[Move, Any]]] = {}
        """What each slip alone gives at a key."""

    # Places

    def keys(self) -> list[Key]:
        """Keys at which deviations start, in the order of the checks."""
        return list(dict.fromkeys(c.key for c in self.origins if c.key in self.of_key))

    def _compares(self, check: Check, value: Any) -> bool:
        """Whether a check compares its value with that of the key, and not with something made of it."""
        side = check.carried or check.independent
        mine = value_at(value, check.index)
        if side is None or mine is None:
            return False
        if isinstance(mine, str) or isinstance(side.ours, str):
            return str(mine) == str(side.ours)
        return abs(mine - side.ours) <= 1e-6 * max(abs(mine), abs(side.ours), 1e-9)

    def place(self, key: Key) -> Place | None:
        """A key as a place; None where neither a rule nor a value of ours is there."""
        place = self.place_under(self.context.carried, key)
        if place is not None and place.rule is None and key in self.context.carried.adopted:
            # theirs was adopted for want of ours: what it is compared with are the values of the checks
            place = replace(place, value=self._of_checks(key))
        if place is not None and key in self.of_key:
            self.of_key[key] = [c for c in self.of_key[key] if self._compares(c, place.value)]
        return place

    def place_under(self, carried: Evaluation, key: Key) -> Place | None:
        """A key as a place of an evaluation, with what is submitted of it."""
        rule = None if key in carried.inputs or key in carried.facts else carried.rules.get(key.name)
        try:
            step = carried.unpinned(key)
            arguments = carried.arguments(key) if rule is not None else {}
        except (MissingInput, RuleRefused):
            return None
        by_index: dict[int | None, float | str] = {}
        texts: dict[int | None, str] = {}
        for check in self.of_key.get(key, ()):
            if check.subject is not None and check.index not in by_index:
                by_index[check.index] = theirs(check.subject)
                texts[check.index] = check.subject.text
        return Place(key, rule, carried, self.context.edition, plain(step.value), arguments, by_index, texts)

    def _of_checks(self, key: Key) -> Any:
        """Our values of a key as its checks have them, by story; None where they have none."""
        ours = {c.index: (c.carried or c.independent) for c in self.of_key.get(key, ())}
        found = {i: float(c.ours) for i, c in ours.items() if c is not None and isinstance(c.ours, float)}
        if None in found:
            return found[None]
        if not found:
            return None
        values = np.full(max(i for i in found if i is not None) + 1, np.nan)
        for i, each in found.items():
            values[i] = each
        return values

    def nodes(self, key: Key) -> list[Key]:
        """The key and what is not stated between it and the submitted values above it."""
        carried = self.context.carried
        seen: list[Key] = []
        todo = [key]
        while todo:
            each = todo.pop(0)
            if each in seen:
                continue
            seen.append(each)
            try:
                above = carried.unpinned(each).inputs
            except (MissingInput, RuleRefused):
                continue
            todo += [a for a in above if a not in carried.pins and a not in carried.inputs and a.name in carried.rules]
        return seen

    # Judging

    def stated(self, key: Key) -> tuple[list[Check], list[Stated]]:
        """The checks of a key with their submitted values; its checks are settled once its place is known."""
        known = self._stated.get(key)
        if known is None or len(known[0]) != len(self.of_key.get(key, ())):
            known = self._stated[key] = self._stated_of(key)
        return known

    def _stated_of(self, key: Key) -> tuple[list[Check], list[Stated]]:
        of_key = [c for c in self.of_key.get(key, ()) if c.subject is not None]
        found = []
        for check in of_key:
            subject = check.subject
            ours = check.carried.ours if check.carried is not None else check.independent and check.independent.ours
            half = _half(subject) if subject is not None else 0.0
            value = theirs(subject) if subject is not None else 0.0
            compared = check.carried or check.independent
            found.append(Stated(value, half, ours, compared is not None and not compared.agrees))
        return of_key, found

    def judged(self, key: Key, value: Any, attempt: Attempt) -> tuple[frozenset[str], Agreement]:
        """What a value at a key says of the claims there: ids of the origins it explains, and the agreement."""
        if not self._may_reproduce(key, value):
            return frozenset(), NOTHING
        return self.judged_together([(key, value)], attempt)

    def _may_reproduce(self, key: Key, value: Any) -> bool:
        """Whether a value is near any submitted one that deviates: most are not, and need no closer look."""
        if key not in self._numbers:
            self._numbers[key] = self._as_numbers(key)
        numbers = self._numbers[key]
        if numbers is None or value is None or isinstance(value, str | bool):
            return True
        theirs_of_key, halves, places = numbers
        if isinstance(value, np.ndarray):
            padded = np.append(value, np.nan)
            under = padded[np.minimum(places, len(value))]
        else:
            under = np.full(len(places), float(value))
        return bool(np.any(np.abs(theirs_of_key - under) <= np.maximum(halves * 1.01, REACH * np.abs(under)) + 1e-12))

    def _as_numbers(self, key: Key) -> tuple[Any, ...] | None:
        """The submitted numbers of a key that deviate, half of their last digits, and their places; None with texts."""
        checks, stated = self.stated(key)
        if any(isinstance(s.theirs, str) or isinstance(s.ours, str) for s in stated):
            return None
        off = [(s.theirs, s.half, c.index) for c, s in zip(checks, stated, strict=True) if s.deviates]
        if any(i is None for _, _, i in off) and any(i is not None for _, _, i in off):
            return None
        return (
            np.array([t for t, _, _ in off], dtype=float),
            np.array([h for _, h, _ in off], dtype=float),
            np.array([0 if i is None else i for _, _, i in off], dtype=int),
        )

    def judged_together(self, values: Sequence[tuple[Key, Any]], attempt: Attempt) -> tuple[frozenset[str], Agreement]:
        """What the values of several keys say together: those that all deviate by one ratio are one observation."""
        checks, stated, under = list[Check](), list[Stated](), list[float | str | None]()
        for key, value in values:
            of_key, theirs_of_key = self.stated(key)
            checks += of_key
            stated += theirs_of_key
            under += [value_at(value, c.index) for c in of_key]
        if attempt.only_deviating:
            off = [i for i, s in enumerate(stated) if s.deviates]
            checks, stated, under = ([part[i] for i in off] for part in (checks, stated, under))  # type: ignore[assignment]
        judged = agreement(stated, under)
        reproduced = [checks[i] for i in judged.reproduced]
        origins = {c.id for c in reproduced if c.role is DeviationRole.ORIGIN}
        return frozenset(origins), judged

    # Candidates

    def candidates(self, progress: Progress) -> Iterator[Found]:
        """Every slip at every place that reproduces something."""
        keys = self.keys()
        targets: dict[Key, list[tuple[Key, int]]] = {}
        # which checks are of the keys themselves is known once their places are
        places = {key: self.place(key) for key in keys}
        for key in keys:
            for depth, node in enumerate(self.nodes(key)):
                targets.setdefault(node, []).append((key, depth))
        gathered: dict[tuple[str, str], list[tuple[Attempt, Key, frozenset[str], Agreement]]] = {}
        for done, (node, reached) in enumerate(targets.items()):
            if not progress(done / max(1, len(targets))):
                return
            place = places[node] if node in places else self.place(node)
            if place is None:
                continue
            attempts = [(s, a) for s in slips() for a in s.function(place) if a.value is not None]
            self.evaluations += len(attempts)
            hit = False
            for slip, attempt in attempts:
                for origins, judged in self._reach(node, reached, slip, attempt):
                    if origins:
                        hit = True
                        gathered.setdefault((node.name, attempt.name), []).append((attempt, node, origins, judged))
            if not hit and node in keys and place.rule is not None:
                for pair, origins, judged in self._pairs(place, [a for _, a in attempts]):
                    gathered.setdefault((node.name, pair.name), []).append((pair, node, origins, judged))
        for otherwise in given_otherwise(self.context.carried, self.context.edition):
            members = list(self._under(otherwise, keys))
            if members:
                gathered["given", otherwise.name] = members
        found = [self._found(members) for members in gathered.values()]
        explained = frozenset(i for f in found if f.bits >= LEAST for i in f.origins)
        yield from found
        yield from (self._found(members) for members in sets_below(self, keys, explained))
        yield from self._named()

    def _reach(
        self, node: Key, reached: Iterable[tuple[Key, int]], slip: Slip, attempt: Attempt
    ) -> Iterator[tuple[frozenset[str], Agreement]]:
        """What an attempt at a node says at the keys below it, each with how far above it the node is."""
        for key, depth in reached:
            value = attempt.value
            if key == node:
                origins, judged = self.judged(key, value, attempt)
            elif isinstance(value, str | bool) or attempt.only_deviating:
                continue
            else:
                self.evaluations += 1
                under = self.context.carried.assuming(inputs={node: attempt.value})
                try:
                    value = plain(under.unpinned(key).value)
                except (MissingInput, RuleRefused):
                    continue
                origins, judged = self.judged(key, value, attempt)
            if not isinstance(value, str | bool) and not attempt.only_deviating:
                self.effects.setdefault(key, []).append((Move(node, attempt, slip, None, depth), value))
            if judged is not NOTHING:
                yield origins, judged

    def _under(self, otherwise: Given, keys: Sequence[Key]) -> Iterator[tuple[Attempt, Key, frozenset[str], Agreement]]:
        """What an input that was otherwise throughout says at the keys below it."""
        carried = self.context.carried
        reached = carried.reached(otherwise.inputs)
        below = [k for k in keys if k in reached and k not in otherwise.inputs]
        if not below:
            return
        at = next(iter(otherwise.inputs))
        under = otherwise.under(carried)
        words, code, cost = otherwise.words, otherwise.code, otherwise.cost
        attempt = Attempt(otherwise.name, None, words, code, cost, otherwise.parameters)
        for key in below:
            self.evaluations += 1
            try:
                value = plain(under.unpinned(key).value)
            except (MissingInput, RuleRefused):
                continue
            origins, judged = self.judged(key, value, attempt)
            self.effects.setdefault(key, []).append((Move(at, attempt, None, otherwise, ABOVE_ALL), value))
            if judged is not NOTHING:
                # one input, wherever it shows
                yield attempt, at, origins, judged

    def _pairs(self, place: Place, attempts: Sequence[Attempt]) -> Iterator[tuple[Attempt, frozenset[str], Agreement]]:
        """Two slips at one place: both change other arguments of its rule."""
        changing = [
            a
            for a in attempts
            if len(a.parameters) == 1 and set(a.parameters) <= place.arguments.keys() and _literal(a.parameters)
        ][:MOST_AT_A_PLACE]
        for one, other in combinations(changing, 2):
            if one.parameters.keys() == other.parameters.keys():
                continue
            both = {**one.parameters, **other.parameters}
            value = place.under(**both)
            self.evaluations += 1
            if value is None:
                continue
            pair = Attempt(
                f"{one.name} and {other.name}",
                value,
                f"{one.words}; {other.words}",
                one.code,
                one.cost + other.cost + PAIR,
                both,
                parts=(one, other),
            )
            origins, judged = self.judged(place.key, value, pair)
            if origins and judged.bits > pair.cost + LEAST:
                yield pair, origins, judged

    def _found(self, members: Sequence[tuple[Attempt, Key, frozenset[str], Agreement]]) -> Found:
        """One slip over all places where it reproduces something; its cost is paid once."""
        attempt = members[0][0]
        # two variants of one name that explain the same at one place are one observation
        members = list({(at, ids): (a, at, ids, judged) for a, at, ids, judged in members}.values())
        origins = frozenset(i for _, _, ids, _ in members for i in ids)
        bits = sum(judged.bits for _, _, _, judged in members) - attempt.cost
        # what it was done to in the other direction takes a bit to say
        bits -= 0.5 * (len({at for _, at, _, _ in members}) - 1)
        closeness = max(judged.closeness for _, _, _, judged in members)
        return Found(attempt, tuple(dict.fromkeys(at for _, at, _, _ in members)), origins, bits, closeness)

    def _named(self) -> Iterator[Found]:
        """Origins whose mistake a test of the catalogue has shown by its numbers, and values without a pattern."""
        shown: dict[tuple[str, str, str], list[Check]] = {}
        for check in self.origins:
            # what is not permitted is no value that a mistake could have given
            value = check.kind == "axes" or (check.subject is not None and check.kind not in NO_VALUES)
            if check.slip and value and (check.slip not in GIVEN_BY_PLACE or check.kind not in OF_VALUES):
                words = check.note if check.kind == "axes" else catalogue_tests()[check.slip].title.lower()
                shown.setdefault((check.slip, check.key.name, words), []).append(check)
            bits = self._followed(check)
            if bits > TYPED:
                code = check.slip or TYPED_CODES.get(check.key.name, "")
                typed = Attempt("typed value", None, "typed value", code, TYPED)
                yield Found(typed, (check.key,), frozenset((check.id,)), min(bits - TYPED, LEAST), 0.0)
        for (code, _, words), of_one in shown.items():
            attempt = Attempt(f"test {code}", None, words, code, 4.0)
            keys = tuple(dict.fromkeys(c.key for c in of_one))
            # tests of the catalogue compare to 1 %
            yield Found(attempt, keys, frozenset(c.id for c in of_one), LEAST + 1.6, 0.01)

    def _followed(self, check: Check) -> float:
        """Bits of the values below an origin that follow from it alone."""
        stated = [
            Stated(theirs(c.subject), _half(c.subject), c.independent.ours, True)
            for c in self.below.get(check.id, ())
            if c.kind == "value"
            and c.key.name != check.key.name
            and c.subject is not None
            and c.carried is not None
            and c.carried.agrees
            and c.independent is not None
        ]
        under = [s.theirs for s in stated]
        return agreement(stated, under).bits if stated else 0.0

    # Choice

    def chosen(self, candidates: Sequence[Found]) -> list[Cause]:
        """The fewest causes: the one that explains most bits first, until none pays for itself."""
        left = {c.id for c in self.origins}
        usable = [f for f in candidates if f.bits >= LEAST and f.origins]
        # ties are decided by the order of the slips, and are shown as others
        usable.sort(key=lambda f: -round(f.bits, 6))
        causes = []
        while left:
            # what explains nothing twice comes before what does
            best = next((f for f in usable if f.origins <= left), next(iter(usable), None))
            if best is None:
                break
            others = [f for f in usable if f is not best and f.origins & best.origins and f.origins <= left]
            causes.append(self._cause(best, others[:MOST_OTHERS]))
            left -= best.origins
            usable = [f for f in usable if f.origins & left]
        return sorted(causes, key=lambda c: -round(c.found.bits, 6))

    def _cause(self, found: Found, others: Sequence[Found] = ()) -> Cause:
        explained, leaves = list(found.origins), list[str]()
        for origin in found.origins:
            for check in self.below.get(origin, ()):
                (explained if set(check.rests_on) <= found.origins else leaves).append(check.id)
        order = {c.id: i for i, c in enumerate(self.checks)}
        explains = tuple(sorted(dict.fromkeys(explained), key=order.__getitem__))
        return Cause(
            found,
            self._code(found),
            explains,
            tuple(sorted(dict.fromkeys(leaves), key=order.__getitem__)),
            tuple(self._cause(f) for f in others),
        )

    def _code(self, found: Found) -> str:
        """The code of a cause: of its slip, else of the test that names its origin."""
        attempt = found.attempt
        if attempt.code and not attempt.names_place:
            return attempt.code
        codes = [self.by_id[i].slip for i in sorted(found.origins) if self.by_id[i].slip]
        shown = [c for c in codes if c not in GIVEN_BY_PLACE]
        return next(iter(shown), attempt.code or next(iter(codes), ""))


WHOLE = 0.003
"""Relative precision of a number of few digits: 1, 0.1 and 8 are mostly meant exactly."""


def _half(subject: Subject) -> float:
    """Half a unit of the last digit that was written, in the core's unit."""
    half = half_unit(subject.text) * abs(subject.scale)
    return half if isinstance(subject.value, str) else min(half, WHOLE * abs(subject.value))


def _literal(parameters: Mapping[str, Any]) -> bool:
    return all(isinstance(v, float | str) for v in parameters.values())
