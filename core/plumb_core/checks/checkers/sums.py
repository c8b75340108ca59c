"""Submitted story values that add up to a submitted total (level 1: consistent with itself)."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core import DIRECTIONS
from plumb_core.checks.check import AddedUp, Check, Derived
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.judging import outcome_of
from plumb_core.checks.registry import checker
from plumb_core.documents.submission import Source
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Key


@checker("sum")
def sums(context: Context) -> Iterator[Check]:
    """The sum of the first case of each direction against the total that is stated."""
    for part, total in context.edition.sums.items():
        for direction in DIRECTIONS:
            key = Key(part, direction)
            parts, stated = context.claims.by_key.get(key), context.claims.by_key.get(Key(total, direction))
            if not parts or not stated or len(parts.indexed) < len(context.claims.stories):
                continue
            if isinstance(stated.single[0], AddedUp):
                continue
            if context.independent.get("two_stage_used", direction):
                # the base shear of a two-stage analysis has the reactions of the upper part times their factor
                continue
            symbol, claims = QUANTITIES[part].symbol, parts.indexed.values()
            added = sum(float(theirs(c)) for c in claims)
            complete = stated.single[0]
            floor = sum(context.claims.rounding(c) for c in claims) + context.claims.rounding(complete)
            source = Source(note=f"sum of the submitted {symbol}")
            carried = context.compared(total, added, float(theirs(complete)), floor)
            verdict, role, _ = outcome_of(None, carried)
            yield Check(
                "sum",
                key,
                f"Σ{symbol} = {total} {direction}",
                Derived(part, added, direction=direction, unit=QUANTITIES[part].unit, source=source),
                carried=carried,
                verdict=verdict,
                role=role,
                level=1,
                clause=context.independent.rules[part].clause,
                note=f"submitted {total} compared with the sum of the submitted {symbol}",
            )
