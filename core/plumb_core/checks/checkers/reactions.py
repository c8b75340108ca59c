"""Base reactions of load cases against the base shears and the overturning that they have to be."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.judging import outcome_of
from plumb_core.checks.registry import checker
from plumb_core.checks.verdict import DeviationRole
from plumb_core.documents.submission import Claim, LoadCase
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Evaluation, Key

ABOUT = {"X": "reaction_MY", "Y": "reaction_MX"}
"""Moment at the base that forces along a direction give."""


@checker("reaction")
def reactions(context: Context) -> Iterator[Check]:
    """Horizontal reactions of each case along its own direction; the others are counted as covered."""
    named = sorted(
        {k.case for k in context.results.values if k.name.startswith("reaction_") and k.case},
        key=list(context.claims.cases).index,
    )
    for case in named:
        role = context.claims.cases[case]
        made = list(_of_case(context, case, role))
        stated = tuple(k for k in context.results.values if k.case == case and k.name.startswith("reaction_"))
        for number, check in enumerate(made):
            yield check if number else replace(check, covers=stated)


def _of_case(context: Context, case: str, role: LoadCase) -> Iterator[Check]:
    if role.direction not in DIRECTIONS or role.level not in ("reduced", None):
        return
    direction = role.direction
    shear = _claim(context, f"reaction_{direction}", case)
    if role.kind == "static":
        if shear is not None:
            carried, upstream = _of_forces(context, shear, case, direction)
            sides = (_ours(context, context.independent, "V", direction), carried)
            yield _check(context, shear, case, direction, sides, upstream, "the static base shear")
        moment = _claim(context, ABOUT[direction], case)
        if moment is not None:
            sides = tuple(  # type: ignore[assignment]
                _ours(context, e, "M_story", direction) for e in (context.independent, context.carried)
            )
            yield _check(
                context,
                moment,
                case,
                direction,
                sides,
                (Key("M_story", direction), Key("F", direction)),
                "the sum of force x height",
            )
    elif role.kind == "modal" and shear is not None and role.step is not None:
        stated = context.modal_shear(direction, role.step)
        name = "V_dynamic" if role.step == "before" else "V_scaled"
        if stated is not None and Key(name, direction) in context.claims.by_key:
            words = f"the modal base shear {role.step} scaling"
            value = _nearest(context, direction, role.step, float(theirs(shear)), float(theirs(stated)))
            yield _check(context, shear, case, direction, (None, value), (Key(name, direction),), words)


def _of_forces(context: Context, shear: Claim, case: str, direction: str) -> tuple[float | None, tuple[Key, ...]]:
    """Base shear that a static reaction follows from, and its keys: as stated, or the sum of the forces of the case.

    The nearer of the two where both are stated: one of them may be wrong.
    """
    V = _ours(context, context.carried, "V", direction)
    forces = context.claims.by_key.get(Key("F", direction))
    of_case = [c for c in forces.all if c.case == case] if forces is not None else []
    if len(of_case) < len(context.claims.stories):
        return V, (Key("V", direction),)
    added = sum(float(theirs(c)) for c in of_case)
    value = float(theirs(shear))
    if V is None or abs(value - added) < abs(value - V):
        return added, (Key("F", direction), Key("V", direction))
    return V, (Key("V", direction),)


def _nearest(context: Context, direction: str, step: str, value: float, stated: float) -> float:
    """The stated base shear, or what their own factor makes of it where that is nearer.

    One of the two may be mistyped.
    """
    before = context.modal_shear(direction, "before")
    used = context.claims.by_key.get(Key("factor_used", direction))
    if step == "before" or before is None or used is None or not used.single:
        return stated
    product = float(theirs(before)) * float(theirs(used.single[0]))
    return min(stated, product, key=lambda v: abs(v - value))


def _claim(context: Context, name: str, case: str) -> Claim | None:
    role = context.claims.cases[case].direction
    for d in dict.fromkeys((role if role in DIRECTIONS else None, None)):
        claim = context.results.claim(name, d, case)
        if claim is not None:
            return claim
    return None


def _ours(context: Context, evaluation: Evaluation, name: str, direction: str) -> float | None:
    step = context.step(evaluation, Key(name, direction))
    value = getattr(step, "value", None)
    if value is None:
        return None
    if evaluation is context.carried and Key(name, direction) in context.claims.by_key:
        value = context.carried.value(name, direction)
    return float(value[0]) if name == "M_story" else float(value)


def _check(
    context: Context,
    claim: Claim,
    case: str,
    direction: str,
    sides: tuple[float | None, float | None],
    upstream: tuple[Key, ...],
    said: str,
) -> Check:
    value, floor = float(theirs(claim)), context.claims.rounding(claim)
    independent, carried = (
        None if side is None else context.compared(claim.quantity, value, side, floor) for side in sides
    )
    key = Key(claim.quantity, direction, case)
    label = f"{QUANTITIES[claim.quantity].symbol} {case}"
    if independent is None and carried is None:
        return Check("reaction", key, label, claim, note=f"{said} is not known")
    verdict, role, follows = outcome_of(independent, carried)
    return Check(
        "reaction",
        key,
        label,
        claim,
        independent=independent,
        carried=carried,
        verdict=verdict,
        role=role,
        level=3 if independent is not None else 1,
        follows=follows,
        note=f"compared with {said}",
        upstream=upstream if role is DeviationRole.INHERITED else (),
        slip="S68" if role is DeviationRole.ORIGIN else "",
    )
