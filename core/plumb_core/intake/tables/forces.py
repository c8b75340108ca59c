"""Lateral forces, story shears and overturning moments by load case."""

from __future__ import annotations

from collections.abc import Hashable

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column, is_safe_name
from plumb_core.intake.names import axis_named, direction_in, role_of
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind
from plumb_core.intake.tables.stories import STORY


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each case and story, with their signs; the case is often written only in the first row of its block."""
    claims: list[Claim] = []
    case, story_above = "", ""
    seen: dict[Hashable, int] = {}
    for row in numbers:
        case = reader.text(row, "case") or case
        direction = direction_of(reader, row, case)
        if not reader.text(row, "story") and story_above and reader.text(row, "case"):
            # the story is written only in the first row of its cases
            story: str | None = story_above
        else:
            story = reader.known_story(row)
        story_above = story or ""
        along = axis_named(reader.text(row, "direction"))
        if story is None or (along and direction and along != direction):
            # What acts across the direction of its case
            continue
        before = seen.get((case, story))
        if before is not None and reader.alike(row, before, [c.name for c in reader.stated]):
            # at the top and at the bottom of a story
            reader.skipped.append(row)
            continue
        if reader.repeats(seen, (case, story), row, "story", f"story {story!r} in case {case!r}"):
            continue
        others = [n for n in reader.columns if n in ACROSS and not _belongs(reader, n, direction)]
        entry = story if direction else ""
        claims += reader.claims_of(row, entry, leave_out=others, direction=direction, case=case)
    cases = [role_of(name, direction) for name, direction in reader.directions.items() if name not in reader.roles]
    return Rows(claims, cases=cases)


ACROSS = {"F": "F_of_Y", "V_story": "V_of_Y", "F_of_Y": "F", "V_of_Y": "V_story"}
"""Columns of the values along X and Y, where a table has both side by side, each with the other."""


def _belongs(reader: ClaimReader, column: str, direction: str | None) -> bool:
    """Whether a column holds the values along its case's own direction, where the table has one for each."""
    return ACROSS[column] not in reader.columns or column.endswith("_of_Y") == (direction == "Y")


def direction_of(reader: ClaimReader, row: int, case: str) -> str | None:
    """The direction of a case, from the reviewer or from its name; None with the problem noted."""
    index = reader.columns["case"]
    if not case or not is_safe_name(case):
        words = f"{case[:40]!r} is not a valid name of a case" if case else "the case is missing"
        reader.problem(row, index, words, "Name the case, such as Static X.")
        return None
    role = reader.roles.get(case)
    if role is not None and role.direction in ("X", "Y"):
        return role.direction
    entry = axis_named(reader.text(row, "direction"))
    if entry and not direction_in(case):
        reader.directions.setdefault(case, entry)
        return entry
    if case not in reader.directions and direction_in(case):
        reader.directions[case] = direction_in(case)
    direction = reader.directions.get(case)
    if direction not in ("X", "Y"):
        words = f"the direction of case {case!r} is not clear"
        choices = [(f"{case} acts along {d}", {"cases": {case: d}}) for d in "XY"]
        reader.problem(row, index, words, "Choose X or Y for this case.", choices=choices)
        return None
    return direction


KIND = TableKind(
    "forces",
    "story forces by case",
    (
        Column("case", "case", r"case|loadcase|load|combination|loadcombination", required=True),
        Column("direction", "direction", r"direction|dir|axis"),
        Column("story", "story", STORY, required=True),
        Column(
            "F",
            "force at the level",
            r"(design|seismic)?(lateral|story|storey|lateralstory)?(seismic)?(level)?forcex?|fx|fi|f",
            "kN",
            False,
            "F",
        ),
        Column(
            "V_story",
            "story shear",
            r"(lateral|seismic)*(sum|cumulative)?(story|storey)?(force)?shear(force)?x?|vx|vi|v",
            "kN",
            False,
            "V_story",
        ),
        Column(
            "F_of_Y",
            "force along Y, beside that along X",
            r"(lateral|story|storey|lateralstory)?forcey|fy",
            "kN",
            False,
            "F",
        ),
        Column(
            "V_of_Y",
            "story shear along Y, beside that along X",
            r"(story|storey)?(force)?shear(force)?y|vy",
            "kN",
            False,
            "V_story",
        ),
        Column(
            "M_story",
            "overturning at the bottom of the story",
            r"(story)?overturning(story)?(moment)?|moment|storymoment|m|mx|my",
            "kN*m",
            False,
            "M_story",
        ),
    ),
    rows,
    rank=30,
    values="forces, shears or moments",
    about=r"force|shear|overturning",
)
