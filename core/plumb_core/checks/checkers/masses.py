"""Masses of the analysis against their own seismic weights and against ours."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core.checks.check import Check
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.judging import OPEN, outcome_of
from plumb_core.checks.registry import checker
from plumb_core.constants import GRAVITY
from plumb_core.rules import Key

MASS, WEIGHT = Key("m"), Key("w")


@checker("mass")
def masses(context: Context) -> Iterator[Check]:
    """The mass of each floor: level 1 against their own weight over g, level 3 against ours."""
    stated, weights = context.claims.by_key.get(MASS), context.claims.by_key.get(WEIGHT)
    for i, claim in sorted(stated.indexed.items()) if stated else ():
        mass, floor = theirs(claim), context.claims.rounding(claim)
        weight = weights.indexed.get(i) if weights else None
        carried = independent = None
        note = ""
        if weight is not None:
            share = floor + context.claims.rounding(weight) / GRAVITY
            carried = context.compared("m", mass, float(theirs(weight)) / GRAVITY, share)
            note = "mass of the analysis compared with the submitted seismic weight over g"
        our_step = context.ours(context.independent, WEIGHT, i)
        if (
            isinstance(our_step.value, float)
            and not our_step.rests_on_adopted
            and WEIGHT not in context.independent.adopted
        ):
            independent = context.compared("m", mass, our_step.value / GRAVITY, floor)
        unchecked = carried is None and independent is None
        verdict, role, follows = OPEN if unchecked else outcome_of(independent, carried)
        yield Check(
            "mass",
            MASS,
            f"m {claim.story}",
            claim,
            claim.story or "",
            i,
            carried=carried,
            independent=independent,
            verdict=verdict,
            role=role,
            level=None if unchecked else 3 if independent is not None else 1,
            follows=follows,
            note=our_step.why if unchecked else note,
        )
