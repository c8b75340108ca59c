"""Values that cannot be placed."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core.checks.check import Check
from plumb_core.checks.claims import key_of
from plumb_core.checks.context import Context
from plumb_core.checks.registry import checker
from plumb_core.quantities import QUANTITIES


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
