"""How checks are made: of one value against both sides, and of values along the height with one origin."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace

from plumb_core.checks.check import AddedUp, Check, Subject, limit_of
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context, OurValue, read_off
from plumb_core.checks.judging import outcome_of
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.documents.results import Limit
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Key, Step


def check_of(
    context: Context,
    key: Key,
    index: int | None,
    claim: Subject,
    independent_step: Step | OurValue,
    carried_step: Step | OurValue | None,
    limit_step: Step | None = None,
    not_used: str = "",
) -> Check:
    """The check of one submitted value against steps of both sides."""
    quantity = QUANTITIES[key.name]
    place = (claim.story or "") if quantity.kind is Kind.STORIES else "" if index is None else str(index + 1)
    where = f"point {place}" if quantity.kind is Kind.POINTS else place
    several = bool(claim.case) and len(context.claims.cases_of_quantity[claim.quantity, claim.direction]) > 1
    again = claim.case if several else "again" if _is_repeated(context, key, index, claim) else ""
    label = " ".join(part for part in (quantity.symbol, key.direction, where, again) if part)
    clause = _clause(context, key)
    if key in context.independent.adopted:
        note = "from the submission: the brief has no value"
        return Check("value", key, label, claim, place, index, clause=clause, note=note)
    if not_used:
        return Check(
            "value", key, label, claim, place, index, verdict=Verdict.NOTE, level=3, clause=clause, note=not_used
        )
    value, floor = theirs(claim), context.claims.rounding(claim)
    ours = read_off(independent_step, index)
    recomputed = None if carried_step is None else read_off(carried_step, index).value
    independent = None if ours.value is None else context.compared(key.name, value, ours.value, floor)
    carried = None if recomputed is None else context.compared(key.name, value, recomputed, floor)
    if independent is None and carried is None:
        return Check("value", key, label, claim, place, index, clause=clause, note=ours.why)
    verdict, role, follows = outcome_of(independent, carried)
    limit, breached = _limit(context, key, value, floor, limit_step)
    if breached:
        verdict, role = Verdict.BREACHES, role or DeviationRole.ORIGIN
    return Check(
        "value",
        key,
        label,
        claim,
        place,
        index,
        carried=carried,
        independent=independent,
        verdict=verdict,
        role=role,
        level=2 if ours.value is None or ours.rests_on_adopted else 3,
        limit=limit,
        follows=follows,
        clause=clause,
        note=f"not stated: the {claim.source.note} is used" if isinstance(claim, AddedUp) else "",
    )


def _clause(context: Context, key: Key) -> str:
    ours = context.independent
    return ours.rules[key.name].clause if key.name in ours.rules and key not in ours.inputs else ""


def _is_repeated(context: Context, key: Key, index: int | None, claim: Subject) -> bool:
    """Whether the same place has been stated before, by this or by another case."""
    of_key = context.claims.by_key.get(key)
    if of_key is None:
        # What is made of a base reaction represents a value that is not stated
        return False
    return claim is not (of_key.single[0] if index is None else of_key.indexed[index])


def _limit(
    context: Context, key: Key, value: float | str, floor: float, bound: Step | None
) -> tuple[Limit | None, bool]:
    """The code's limit on a value, where it has one that is finite, and whether the value breaches it."""
    if bound is None or isinstance(value, str) or math.isinf(bound.value):
        return None, False
    name, side = context.edition.limits[key.name]
    governed_by = bound.governed.governed_by if bound.governed else None
    limit = limit_of(name, float(bound.value), side, context.independent.rules[name].clause, governed_by)
    stored = context.compared(key.name, value, limit["value"], floor)
    return limit, not stored.agrees and (stored.multiples > 0) == (side == "max")


def one_origin(checks: list[Check], slip: tuple[str, str] = ("", "")) -> Iterator[Check]:
    """Checks of one quantity along the height: those that deviate follow from the worst of them."""
    off = [c for c in checks if c.role is DeviationRole.ORIGIN]
    if not off:
        yield from checks
        return
    # of those that are as far off as their digits state, the first
    worst = max(off, key=lambda c: round(abs(c.shown.multiples), 1) if c.shown else 0.0)
    for check in checks:
        if check is worst:
            words = "; ".join(p for p in (check.note, slip[1]) if p)
            yield replace(check, slip=slip[0], note=words)
        elif check.role is DeviationRole.ORIGIN:
            yield replace(check, role=DeviationRole.INHERITED, rests_on=(worst.id,), upstream=(check.key,))
        else:
            yield check
