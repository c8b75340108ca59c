"""Mode shapes: movements and rotations of the floors."""

from __future__ import annotations

from collections.abc import Hashable

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind
from plumb_core.intake.tables.modes import MODE, claims_of_mode, mode_number
from plumb_core.intake.tables.stories import STORY


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each mode and story; the number of the mode is often written only in the first row of its block."""
    claims: list[Claim] = []
    seen: dict[Hashable, int] = {}
    mode: int | None = None
    for row in numbers:
        if reader.text(row, "mode"):
            mode = mode_number(reader, row)
        story = reader.known_story(row)
        if mode is None or story is None:
            continue
        if reader.repeats(seen, (mode, story), row, "story", f"story {story!r} of mode {mode}"):
            continue
        claims += claims_of_mode(reader, row, mode, story=story)
    return Rows(claims)


KIND = TableKind(
    "shapes",
    "mode shapes",
    (
        MODE,
        Column("story", "story", STORY, required=True),
        Column("mode_u_X", "movement in X", r"(movement|displacement|shape|φ|phi|u)?x", "m", False, "mode_u"),
        Column("mode_u_Y", "movement in Y", r"(movement|displacement|shape|φ|phi|u)?y", "m", False, "mode_u"),
        Column("mode_rz", "rotation about Z", r"(rotation|movement|shape|φ|phi)?(about)?r?z", "rad", False, "mode_rz"),
    ),
    rows,
    rank=60,
    values="values",
)
