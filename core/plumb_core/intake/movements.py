"""What story drifts and displacements by load case share."""

from __future__ import annotations

from collections.abc import Hashable

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column, is_safe_name
from plumb_core.intake.names import axis_named, direction_in, role_of
from plumb_core.intake.tables.cases import CASE
from plumb_core.intake.tables.kind import RATIOS, ClaimReader, Rows
from plumb_core.intake.tables.stories import STORY

PLACE = (
    Column("case", "case", CASE, required=True),
    Column("direction", "direction of the movement", r"direction|dir|axis"),
    Column("story", "story", STORY, required=True),
)


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each case, direction and story; case and direction are often written once for each block."""
    claims: list[Claim] = []
    case, along = "", ""
    seen: dict[Hashable, int] = {}
    names: dict[str, None] = {}
    known: dict[tuple[str, str], str] = {}
    for row in numbers:
        new = reader.text(row, "case")
        if new and new != case:
            case, along = new, ""
        along = reader.text(row, "direction") or along
        if not is_safe_name(case):
            words = f"{case[:40]!r} is not a valid name of a case" if case else "the case is missing"
            reader.problem(row, reader.columns["case"], words, "Name the case, such as Static X.")
            continue
        at = (case, along)
        direction = known.get(at) or _direction(reader, row, case, along)
        if direction is not None:
            known[at] = direction
        story = reader.known_story(row)
        if story is None or direction is None:
            continue
        what = f"story {story!r} in case {case!r} along {direction}"
        if reader.repeats(seen, (case, direction, story), row, "story", what):
            continue
        names[case] = None
        claims += _of_row(reader, row, story, direction, case)
    return Rows(
        claims, cases=[role_of(name, reader.directions.get(name, "")) for name in names if name not in reader.roles]
    )


def _direction(reader: ClaimReader, row: int, case: str, along: str) -> str | None:
    """The direction of a row: its own, else that of its case; None with the problem noted."""
    entry = axis_named(along)
    if entry:
        return entry
    role = reader.roles.get(case)
    of_case = reader.directions.get(case) or (role.direction if role is not None else None) or direction_in(case)
    if not along.strip() and of_case in ("X", "Y"):
        return of_case
    index = reader.columns.get("direction", reader.columns["case"])
    words = f"{along[:20]!r} is not a direction" if along.strip() else f"the direction of case {case!r} is not clear"
    choices = [] if along.strip() else [(f"{case} moves along {d}", {"cases": {case: d}}) for d in "XY"]
    reader.problem(row, index, words, "Write X or Y in a column of directions.", choices=choices)
    return None


def _of_row(reader: ClaimReader, row: int, story: str, direction: str, case: str) -> list[Claim]:
    claims = []
    for column in reader.stated:
        unit = reader.units.get(column.name)
        if unit is None:
            continue
        stored = reader.sheet.rows[row][reader.columns[column.name]].text
        # short texts can be signs that nothing is stated
        if not stored or (len(stored) <= 4 and not reader.text(row, column.name)):
            continue
        number = reader.number(row, column.name)
        if number is None:
            continue
        claim = reader.claim(
            row, column.name, column.quantity, number, unit, story=story, direction=direction, case=case
        )
        if unit in RATIOS and column.unit == "m or share":
            height = reader.heights.get(story)
            if height is None:
                words = f"the drift is a ratio, and the height of story {story!r} is not known"
                reader.problem(
                    row, reader.columns[column.name], words, "Accept the table of stories first, or give lengths."
                )
                continue
            claim = claim.model_copy(update={"value": float(claim.value) * height, "scale": claim.scale * height})
        claims.append(claim)
    return claims
