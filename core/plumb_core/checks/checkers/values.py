"""Every submitted value against its independent and its carried value, and against the code's limit on it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from plumb_core.checks.check import Check
from plumb_core.checks.context import Context, OurValue
from plumb_core.checks.making import check_of
from plumb_core.checks.registry import checker
from plumb_core.documents.submission import Claim
from plumb_core.rules import Key, Step

OF_OTHER_CHECKERS = (
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
"""Quantities whose claims are not compared with a rule here: the periods of their table are where ours is read.

The others
have a checker of their own."""


@checker("value")
def values(context: Context) -> Iterator[Check]:
    """One check for every value of a rule or an input, stated once or again for another case.

    Under another assumption those are made anew whose steps are other ones.
    """
    not_used = context.not_used
    for key, of_key in context.claims.by_key.items():
        if key.name in OF_OTHER_CHECKERS or (key.name == "w" and context.has_make_up):
            continue
        made_from = (*_steps(context, key), not_used.get(key.name, ""))
        known = context.made.get(key)
        if known is None or not all(map(_unchanged, known[0], made_from)):
            stated: list[tuple[int | None, Claim]] = [(None, claim) for claim in of_key.single]
            stated += sorted(of_key.indexed.items())
            stated += of_key.again
            checks = [check_of(context, key, index, claim, *made_from) for index, claim in stated]
            if key.name == "S_a" and checks:
                # our curve is read at the periods of their table
                checks[0] = replace(checks[0], covers=(Key("T_points"),))
            known = context.made[key] = (made_from, checks)
        yield from known[1]


def _steps(context: Context, key: Key) -> tuple[Step | OurValue, Step | OurValue | None, Step | None]:
    """What checks of a key are made from: our step, the carried one (None for an input), and that of the limit."""
    independent = context.step(context.independent, key)
    is_input = key in context.independent.inputs
    carried = None if is_input or key in context.independent.adopted else context.step(context.carried, key)
    limit = None
    if key.name in context.edition.limits:
        limit = context.limit_step(context.edition.limits[key.name][0], key.direction)
    return independent, carried, limit


def _unchanged(one: Any, other: Any) -> bool:
    return one is other or (isinstance(one, OurValue | str) and one == other)
