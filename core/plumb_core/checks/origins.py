"""Which deviations start where: a pure function over the finished checks."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

from plumb_core.checks.check import AddedUp, Check
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.kinds import KINDS
from plumb_core.checks.verdict import DeviationRole
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Key


def with_origins(checks: Sequence[Check], context: Context) -> list[Check]:
    """The checks, each deviating one with the ids of the origins that it rests on.

    A deviation is inherited from the origins above it in the rules; a sum that does not close, from its wrong parts
    or its
    wrong total; a total that is not stated, from the parts that alone put it out; a value that another case repeats,
    from the
    first that states it.
    """
    first = _first_of_repeated(checks, context)
    first |= _gathered(checks, first)
    origins: dict[Key, list[str]] = {}
    for check in checks:
        if check.role is DeviationRole.ORIGIN and check.level != 1 and id(check) not in first:
            origins.setdefault(check.key, []).append(check.id)
    added_up = _put_out_by_parts(checks, first, context)
    for check, _ in added_up.values():
        origins.pop(check.key)
    above: dict[Key, tuple[str, ...]] = {}
    adjacent = _related(checks)
    linked = []
    for check in checks:
        if id(check) in first:
            linked.append(_resting_on(check, (first[id(check)],), DeviationRole.INHERITED, context))
        elif id(check) in added_up:
            linked.append(_resting_on(check, added_up[id(check)][1], DeviationRole.INHERITED, context))
        else:
            linked.append(_linked(check, origins, above, adjacent, context))
    return linked


def _first_of_repeated(checks: Sequence[Check], context: Context) -> dict[int, str]:
    """For origins that only repeat the value of their place, id() of the check -> id of the first that states it."""
    # a place may be stated by hundreds of cases: each value and its rounding is taken once
    places: dict[tuple[Key, int | None], list[tuple[float | str, float, str]]] = {}
    repeated: dict[int, str] = {}
    for check in checks:
        if check.role is not DeviationRole.ORIGIN or check.kind != "value" or check.claim is None:
            continue
        earlier = places.setdefault((check.key, check.index), [])
        value, half = theirs(check.claim), context.claims.rounding(check.claim)
        same = next((i for v, h, i in earlier if _same_value(v, h, value, half)), None)
        if same is not None:
            repeated[id(check)] = same
        earlier.append((value, half, check.id))
    return repeated


FACTORS = tuple(
    r
    for plain in (10.0, 100.0, 1000.0, 9.80665, 4.44822, 2.20462, 3.28084, 1.35582, 25.4, 39.3701, 6.89476, 102.0, 1e6)
    for r in (plain, 1.0 / plain)
)
"""Ratios of a value in another unit, or with its point in another place, to the right one."""
NEAR = 0.011


def _gathered(checks: Sequence[Check], repeated: Mapping[int, str]) -> dict[int, str]:
    """For origins that have the cause of an earlier one, id() of the check -> id of that one.

    Values of one quantity of a file that are all off by one ratio have one cause, and so have all values of a unit
    whose
    ratio is that of another unit or of a moved point.
    """
    causes: dict[tuple[object, ...], list[Check]] = {}
    for check in checks:
        ratio = _ratio(check)
        if ratio is None or id(check) in repeated or check.claim is None:
            continue
        quantity = QUANTITIES[check.key.name]
        known = next((f for f in FACTORS if abs(ratio / f - 1.0) <= NEAR), None)
        file = check.claim.source.file
        if known is not None and quantity.unit:
            causes.setdefault(("unit", file, quantity.unit.split("*")[0], known), []).append(check)
        elif known is not None:
            causes.setdefault(("share", file, check.key.name, known), []).append(check)
        elif quantity.kind is not Kind.NUMBER:
            group = causes.setdefault(
                ("ratio", file, check.key.name, check.key.direction, round(math.log(ratio), 1)), []
            )
            if not group or abs(ratio / (_ratio(group[0]) or 1.0) - 1.0) <= NEAR:
                group.append(check)
    return {id(c): members[0].id for members in causes.values() if len(members) > 1 for c in members[1:]}


def _ratio(check: Check) -> float | None:
    """Theirs over ours of an origin, None where it is no ratio of two numbers."""
    shown = check.shown
    if (
        check.role is not DeviationRole.ORIGIN
        or check.kind not in ("value", "reaction", "mass", "load")
        or shown is None
    ):
        return None
    if isinstance(shown.theirs, str) or isinstance(shown.ours, str) or not shown.ours or not shown.theirs:
        return None
    ratio = shown.theirs / shown.ours
    return ratio if ratio > 0 else None


def _same_value(one: float | str, half_of_one: float, other: float | str, half_of_other: float) -> bool:
    """Whether two submitted values are the same, as far as their digits state."""
    if isinstance(one, str) or isinstance(other, str):
        return one == other
    return abs(one - other) <= (half_of_one + half_of_other) * (1 + 1e-9)


def _put_out_by_parts(
    checks: Sequence[Check], repeated: Mapping[int, str], context: Context
) -> dict[int, tuple[Check, tuple[str, ...]]]:
    """Totals that are added up and that wrong parts alone put out.

    Id() of the check -> it, and the ids of those parts.
    """
    totals = [
        c
        for c in checks
        if isinstance(c.claim, AddedUp) and c.role is DeviationRole.ORIGIN and c.independent is not None
    ]
    if not totals:
        return {}
    put_out: dict[int, tuple[Check, tuple[str, ...]]] = {}
    for total in totals:
        part = next(p for p, t in context.edition.sums.items() if t == total.key.name)
        wrong = [
            c
            for c in checks
            if c.key == Key(part, total.key.direction)
            and c.role is DeviationRole.ORIGIN
            and c.independent is not None
            and id(c) not in repeated
        ]
        off = sum(float(c.independent.theirs) - float(c.independent.ours) for c in wrong if c.independent is not None)
        side = total.independent
        if wrong and side is not None and abs(float(side.theirs) - off - float(side.ours)) <= side.tolerance:
            put_out[id(total)] = (total, tuple(c.id for c in wrong))
    return put_out


def _related(checks: Sequence[Check]) -> dict[Key, tuple[Key, ...]]:
    """What values rest on beside their own rule: those that inherit from a table of the submission."""
    adjacent: dict[Key, tuple[Key, ...]] = {}
    for check in checks:
        if check.upstream and check.role is DeviationRole.INHERITED:
            adjacent[check.key] = tuple(dict.fromkeys((*adjacent.get(check.key, ()), *check.upstream)))
    return adjacent


def _all_above(key: Key, adjacent: Mapping[Key, tuple[Key, ...]], context: Context) -> frozenset[Key]:
    """Everything that a value rests on, by rules and beside them."""
    seen = context.carried.ancestors(key)
    if not adjacent:
        return seen
    todo = [u for k in (key, *seen) for u in adjacent.get(k, ())]
    found = set(seen)
    while todo:
        new = todo.pop()
        if new in found:
            continue
        for each in (new, *context.carried.ancestors(new)):
            if each not in found:
                found.add(each)
                todo += adjacent.get(each, ())
    return frozenset(found)


def _linked(
    check: Check,
    origins: dict[Key, list[str]],
    above: dict[Key, tuple[str, ...]],
    adjacent: Mapping[Key, tuple[Key, ...]],
    context: Context,
) -> Check:
    linked_by = KINDS[check.kind].linked_by
    if (check.role is None and check.follows) or linked_by == "none":
        return check
    if linked_by == "weights":
        weights = tuple(origins.get(Key("w"), ())) if check.role is DeviationRole.INHERITED else ()
        return _resting_on(check, weights, check.role, context)
    if linked_by == "total":
        return _sum(check, origins, context) if check.role is DeviationRole.ORIGIN else check
    if check.upstream and check.role is not None:
        return check if check.role is DeviationRole.ORIGIN else _from_upstream(check, origins, adjacent, context)
    if check.role is DeviationRole.INHERITED or not check.follows:
        if check.key not in above:
            ancestors = _all_above(check.key, adjacent, context)
            starts = [i for key, ids in origins.items() if key in ancestors and key != check.key for i in ids]
            above[check.key] = tuple(starts)
        return _resting_on(check, above[check.key], check.role, context)
    return check


def _from_upstream(
    check: Check, origins: dict[Key, list[str]], adjacent: Mapping[Key, tuple[Key, ...]], context: Context
) -> Check:
    """A check without a rule of its own: what it rests on, and everything above that."""
    above = {a for key in check.upstream for a in (key, *_all_above(key, adjacent, context))}
    starts = [i for key, ids in origins.items() if key in above for i in ids if i != check.id]
    return _resting_on(check, tuple(dict.fromkeys((*check.rests_on, *starts))), DeviationRole.INHERITED, context)


def _sum(check: Check, origins: dict[Key, list[str]], context: Context) -> Check:
    total = Key(context.edition.sums[check.key.name], check.key.direction)
    rests_on = (*origins.get(check.key, ()), *origins.get(total, ()))
    return _resting_on(check, rests_on, DeviationRole.INHERITED if rests_on else DeviationRole.ORIGIN, context)


def _resting_on(check: Check, origins: tuple[str, ...], role: DeviationRole | None, context: Context) -> Check:
    """The check with the origins that it rests on; the same check with the same origins is the same one again."""
    if origins == check.rests_on and role is check.role:
        return check
    known = context.linked.get(id(check))
    if known is not None and known[0] is check and known[1].rests_on == origins and known[1].role is role:
        return known[1]
    linked = check.resting_on(origins, role)
    context.linked[id(check)] = (check, linked)
    return linked
