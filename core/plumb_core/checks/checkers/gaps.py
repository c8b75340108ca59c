"""What a submission has to state and does not, and values that cannot be placed."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check
from plumb_core.checks.claims import key_of
from plumb_core.checks.context import Context
from plumb_core.checks.registry import checker
from plumb_core.checks.verdict import Verdict
from plumb_core.checks.wording import figures
from plumb_core.quantities import QUANTITIES, Kind, Scope
from plumb_core.rules import Key


@checker("gap")
def gaps(context: Context) -> Iterator[Check]:
    """What the edition asks to be shown and the submission does not state."""
    not_used = context.not_used
    for name in context.edition.asked_for:
        quantity = QUANTITIES[name]
        for direction in DIRECTIONS if quantity.scope is Scope.DIRECTION else (None,):
            key = Key(name, direction)
            if key in context.claims.by_key or name in not_used:
                continue
            rule = context.independent.rules.get(name)
            if context.claims.awaits(name):
                yield Check(
                    "gap",
                    key,
                    " ".join(part for part in (quantity.symbol, direction) if part),
                    clause=rule.clause if rule else "",
                    note="not read yet: a table with an unanswered question may state it",
                )
                continue
            yield Check(
                "gap",
                key,
                " ".join(part for part in (quantity.symbol, direction) if part),
                verdict=Verdict.GAP,
                clause=rule.clause if rule else "",
                note=f"{quantity.meaning} is not stated in the submission{_ours(context, key)}",
            )


def _ours(context: Context, key: Key) -> str:
    """What we find for a value that is not stated, in words; empty where there is no single value."""
    if QUANTITIES[key.name].kind not in (Kind.NUMBER, Kind.TEXT):
        return ""
    our_step = context.ours(context.independent, key)
    return "" if our_step.value is None else f"; ours is {figures(our_step.value)} {QUANTITIES[key.name].unit}".rstrip()


@checker("unplaced")
def unplaced(context: Context) -> Iterator[Check]:
    """Values of stories that the brief does not know: nothing can be compared with them."""
    for claim in context.claims.unplaced:
        symbol = QUANTITIES[claim.quantity].symbol
        yield Check(
            "unplaced",
            key_of(claim, context.claims.cases),
            " ".join(part for part in (symbol, claim.direction, claim.story) if part),
            claim,
            claim.story or "",
            note=f"story {claim.story} is not among the stories of the brief",
        )
