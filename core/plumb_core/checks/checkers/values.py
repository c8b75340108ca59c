"""Every submitted value against its independent and its carried value, and against the code's limit on it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from plumb_core.checks.check import Check, Limit, Role, Verdict
from plumb_core.checks.claims import AddedUp, rounding, theirs
from plumb_core.checks.context import Context, Ours, read_off
from plumb_core.checks.judging import outcome_of
from plumb_core.checks.registry import checker
from plumb_core.documents.submission import Claim
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Key, Step

ELSEWHERE = (
    "T_points",
    "m",
    "V_dynamic",
    "V_scaled",
    "factor_used",
    "factor_required",
    "torsion_stated",
    "A_x",
    "theta",
    "theta_greatest",
    "live_share",
    "mass_target",
    "diaphragms",
    "base_level",
    "tension_only",
    "second_order_stated",
    "directions_by",
    "log_line",
    "edition_stated",
    "combined_by",
    "modes_count",
    "damping_modes",
    "damping",
)
"""Quantities whose claims aren't held against a rule here: the periods of their table are where ours is read; the others
have a checker of their own."""


@checker
def values(context: Context) -> Iterator[Check]:
    """One check for every value of a rule or an input, stated once or again for another case.

    Under another assumption those are made anew whose steps are other ones.
    """
    not_used = context.not_used
    for key, of_key in context.claims.by_key.items():
        if key.name in ELSEWHERE or (key.name == "w" and context.has_make_up):
            continue
        made_from = (*_steps(context, key), not_used.get(key.name, ""))
        known = context.made.get(key)
        if known is None or not all(map(_unchanged, known[0], made_from)):
            stated: list[tuple[int | None, Claim]] = [(None, claim) for claim in of_key.single]
            stated += sorted(of_key.indexed.items())
            stated += of_key.again
            checks = [check_of(context, key, index, claim, *made_from) for index, claim in stated]
            known = context.made[key] = (made_from, checks)
        yield from known[1]


def _steps(context: Context, key: Key) -> tuple[Step | Ours, Step | Ours | None, Step | None]:
    """What checks of a key are made from: our step, the carried one (None for an input), and that of the limit."""
    independent = context.step(context.independent, key)
    is_input = key in context.independent.inputs
    carried = None if is_input or key in context.independent.adopted else context.step(context.carried, key)
    limit = None
    if key.name in context.edition.limits:
        limit = context.limit_step(context.edition.limits[key.name][0], key.direction)
    return independent, carried, limit


def _unchanged(one: Any, other: Any) -> bool:
    return one is other or (isinstance(one, Ours | str) and one == other)


def check_of(
    context: Context,
    key: Key,
    index: int | None,
    claim: Claim,
    independent_step: Step | Ours,
    carried_step: Step | Ours | None,
    limit_step: Step | None = None,
    not_used: str = "",
) -> Check:
    """The check of one submitted value against steps of both sides."""
    quantity = QUANTITIES[key.name]
    place = (claim.story or "") if quantity.kind is Kind.STORIES else "" if index is None else str(index + 1)
    where = f"point {place}" if quantity.kind is Kind.POINTS else place
    again = (claim.case or "again") if _is_again(context, key, index, claim) else ""
    label = " ".join(part for part in (quantity.symbol, key.direction, where, again) if part)
    clause = _clause(context, key)
    if key in context.independent.adopted:
        note = "taken over from the submission: the brief has no value of its own"
        return Check("value", key, label, claim, place, index, clause=clause, note=note)
    if not_used:
        return Check(
            "value", key, label, claim, place, index, verdict=Verdict.NOTE, level=3, clause=clause, note=not_used
        )
    value, floor = theirs(claim), rounding(claim)
    own = read_off(independent_step, index)
    recomputed = None if carried_step is None else read_off(carried_step, index).value
    independent = None if own.value is None else context.compared(key.name, value, own.value, floor)
    carried = None if recomputed is None else context.compared(key.name, value, recomputed, floor)
    if independent is None and carried is None:
        return Check("value", key, label, claim, place, index, clause=clause, note=own.why)
    verdict, role, follows = outcome_of(independent, carried)
    limit, breached = _limit(context, key, value, floor, limit_step)
    if breached:
        verdict, role = Verdict.BREACHES, role or Role.ORIGIN
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
        level=2 if own.value is None or own.rests_on_adopted else 3,
        limit=limit,
        follows=follows,
        clause=clause,
        note=f"not stated: the {claim.source.note} stands for it" if isinstance(claim, AddedUp) else "",
    )


def _clause(context: Context, key: Key) -> str:
    own = context.independent
    return own.rules[key.name].clause if key.name in own.rules and key not in own.inputs else ""


def _is_again(context: Context, key: Key, index: int | None, claim: Claim) -> bool:
    """Whether the same place has been stated before, by this or by another case."""
    of_key = context.claims.by_key.get(key)
    if of_key is None:
        # what is made of a base reaction stands for a value that isn't stated
        return False
    return claim is not (of_key.single[0] if index is None else of_key.indexed[index])


def _limit(
    context: Context, key: Key, value: float | str, floor: float, bound: Step | None
) -> tuple[Limit | None, bool]:
    """The code's limit on a value, where it has one that is finite, and whether the value breaches it."""
    if bound is None or isinstance(value, str) or math.isinf(bound.value):
        return None, False
    name, side = context.edition.limits[key.name]
    limit = Limit(
        float(bound.value),
        side,
        name,
        QUANTITIES[name].symbol,
        context.independent.rules[name].clause,
        bound.governed.governed_by if bound.governed else None,
    )
    held = context.compared(key.name, value, limit.value, floor)
    return limit, not held.agrees and (held.multiples > 0) == (side == "max")
