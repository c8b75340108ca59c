"""Stories: heights, seismic weights, and masses of the analysis."""

from __future__ import annotations

import re

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind

STORY = r"story|storey|level|floor|storyname"


def _guess_order(names: list[str]) -> str:
    """`top_down` where the numbers in the names fall, as most tables of stories stand, else `bottom_up`."""
    numbers = [int(m.group(1)) for m in (re.search(r"(\d+)\D*$", n) for n in names) if m]
    return "top_down" if len(numbers) > 1 and numbers[0] > numbers[-1] else "bottom_up"


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each story, bottom to top."""
    claims: list[Claim] = []
    seen: dict[str, int] = {}
    for row in numbers:
        story = reader.name(row, "story", "story")
        if story in seen:
            said = f"the name {story!r} stands in row {seen[story] + 1} too"
            reader.problem(row, reader.columns["story"], said, "Give each story a name of its own.")
            story = None
        if story:
            seen[story] = row
        claims += reader.claims_of(row, story or "")
    names = list(seen)
    reader.order = reader.order or _guess_order(names)
    if reader.order == "top_down":
        names.reverse()
        claims.reverse()
    return Rows(claims, names)


KIND = TableKind(
    "stories",
    "stories",
    (
        Column("story", "story", STORY, required=True),
        Column("h", "story height", r"(story|storey|floor)?height|hsx|h", "m", True, "h", positive=True),
        Column("w", "seismic weight", r"(story|storey|seismic|floor)?weight|wx|w", "kN", False, "w", positive=True),
        Column("m", "mass in the analysis", r"(story|storey|floor|modal)?mass|m", "t", False, "m", positive=True),
    ),
    rows,
    rank=20,
)
