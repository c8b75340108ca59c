"""Stories: heights, seismic weights, and masses of the analysis."""

from __future__ import annotations

from collections.abc import Collection, Hashable, Mapping
from itertools import pairwise

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import PLAUSIBLE, Column, is_safe_name
from plumb_core.intake.doubts import ask_about_accumulation
from plumb_core.intake.story_names import BASE, matched, order_of, rank_of
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind

STORY = r"story|storey|level|floor|storyname|storylevel|levelx|storynumber|levelnumber"


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each story, bottom to top; heights from the levels where only those are stated."""
    claims: list[list[Claim]] = []
    seen: dict[str, int] = {}
    base: float | None = None
    levels: dict[str, Claim] = {}
    names = _matched(reader, numbers)
    empty = {c.name for c in reader.stated if not any(reader.text(row, c.name) for row in numbers)}
    measured = "h" in reader.columns or "level" in reader.columns
    written = {reader.text(row, "story") for row in numbers} - {""}
    if not measured and reader.stated and written and all(n in names or BASE.match(n) for n in written):
        # the heights are those of the stories that are known
        return Rows(_of_known(reader, numbers, names, empty))
    if not measured:
        words = "no column is recognised as story height"
        reader.problem(None, None, words, "Select its column: story height, or level.")
        return Rows()
    for row in numbers:
        if BASE.match(reader.text(row, "story")) and reader.is_bare(row):
            level = _claim(reader, row, "level") if "level" in reader.columns else None
            base = float(level.value) if level is not None else base
            reader.skipped.append(row)
            continue
        story = reader.name(row, "story", "story")
        story = names.get(story, story) if story else story
        if story in seen:
            words = f"the name {story!r} is also in row {seen[story] + 1}"
            reader.problem(row, reader.columns["story"], words, "Give each story a different name.")
            story = None
        if story:
            seen[story] = row
        claims.append(_of_row(reader, row, story or "", empty))
        level = _claim(reader, row, "level") if "level" in reader.columns else None
        if story and level is not None:
            levels[story] = level.model_copy(update={"story": story})
    stories = list(seen)
    reader.order = reader.order or _order_by(levels) or _order_by_names(reader, stories)
    if reader.order == "top_down":
        stories.reverse()
        claims.reverse()
    elif reader.order == "by_name":
        reader.order = ""
        order = _by_rank(stories) or []
        if len(claims) == len(stories):
            claims = [claims[i] for i in order]
        stories = [stories[i] for i in order]
    flat = [c for of_row in claims for c in of_row]
    if "h" in reader.columns and "level" not in reader.columns:
        _ask_about_levels(reader, [c for c in flat if c.quantity == "h"])
    if "w" in reader.columns:
        ask_about_accumulation(reader, [c for c in flat if c.quantity == "w"])
    if "h" not in reader.columns:
        lowest = float(levels[stories[0]].value) if stories and stories[0] in levels else 0.0
        if base is None and lowest > PLAUSIBLE["h"][1]:
            words = "the level of the base is not stated, and the height of the lowest story would be out of proportion"
            reader.problem(reader.header, reader.columns["level"], words, "Add a row Base with its level.")
        flat = [*_heights(reader, stories, seen, levels, base or 0.0), *flat]
    return Rows(flat, stories)


def _of_known(reader: ClaimReader, numbers: list[int], names: Mapping[str, str], empty: Collection[str]) -> list[Claim]:
    """Claims of stories that are known, in a table without heights."""
    claims: list[Claim] = []
    seen: dict[Hashable, int] = {}
    for row in numbers:
        story = names.get(reader.text(row, "story"))
        if story is None or reader.repeats(seen, story, row, "story", f"story {story!r}"):
            continue
        claims += _of_row(reader, row, story, empty)
    if "w" in reader.columns:
        order = {story: i for i, story in enumerate(reader.known)}
        weights = [c for c in claims if c.quantity == "w"]
        ask_about_accumulation(reader, sorted(weights, key=lambda c: order.get(c.story or "", 0)))
    return claims


def _matched(reader: ClaimReader, numbers: list[int]) -> dict[str, str]:
    """The brief's name of each story; a name that may represent a story that no other row names is asked about."""
    rows = {reader.text(row, "story"): row for row in numbers if reader.text(row, "story")}
    found = {name: reader.given.stories.get(name) or matched(name, reader.known) for name in rows}
    left = [k for k in reader.known if k not in found.values()]
    names = {name: story for name, story in found.items() if story}
    if names and left:
        for name, row in rows.items():
            if not found[name] and is_safe_name(name) and not BASE.match(name):
                reader.matched_story(row, name)
    return names


def _by_rank(names: list[str]) -> list[int] | None:
    """Places of the names from the lowest story to the highest, by their numbers; None where a name has none."""
    ranks = [rank_of(n) for n in names]
    if any(r is None for r in ranks) or len(set(ranks)) != len(ranks) or len(names) < 3:
        return None
    return sorted(range(len(names)), key=lambda i: ranks[i] or 0.0)


def _order_by_names(reader: ClaimReader, names: list[str]) -> str:
    """Order of the stories by their names, or by those of the brief; if neither gives an order, there is a question."""
    in_letters = sorted(names) in (names, names[::-1]) and not order_of(rank_of(n) for n in names)
    if not reader.known and in_letters and _by_rank(names) is not None:
        # in the order of letters, as a program lists L1, L10, L2
        return "by_name"
    places = [reader.known.index(n) if n in reader.known else None for n in names]
    reported = order_of(rank_of(n) for n in names) or order_of(None if p is None else float(p) for p in places)
    if not reported and not reader.proposed_order and len(names) > 1:
        words = "it is not clear which of the stories is the lowest"
        reader.problem(
            reader.header,
            reader.columns["story"],
            words,
            "State the order of the stories: bottom up or top down.",
            choices=[("top story first", {"order": "top_down"}), ("bottom story first", {"order": "bottom_up"})],
        )
    return reported or reader.proposed_order or "bottom_up"


def _ask_about_levels(reader: ClaimReader, heights: list[Claim]) -> None:
    """Heights that rise from story to story by what a story is high are levels above the base."""
    values = [float(c.value) for c in heights]
    low, high = PLAUSIBLE["h"]

    def rises(heights: list[float]) -> bool:
        return all(low <= b - a <= high for a, b in pairwise(heights))

    if len(values) < 2 or not (rises(values) or rises(values[::-1])):
        return
    # two stories can be so; of three each is hardly higher than the one below by a story
    if len(values) == 2 and max(values) < TWICE * min(values):
        return
    reader.unmark(reader.columns["h"])
    others = {name: at for name, at in reader.columns.items() if name != "h"}
    if rises(values):
        words = "the story heights increase from story to story, like levels above the base"
        remedy = "Select the column as level, or correct the heights."
        choices = [("they are levels", {"columns": others | {"level": reader.columns["h"]}})]
    else:
        words = "the story heights increase from the top downwards, like depths below the top"
        remedy, choices = "Correct the heights, or exclude the column.", []
    reader.problem(reader.header, reader.columns["h"], words, remedy, choices=choices)


def _of_row(reader: ClaimReader, row: int, story: str, empty: Collection[str] = ()) -> list[Claim]:
    """Claims of a row; the height is required, what else is blank is not stated where it need not be."""
    claims = []
    for column in reader.stated:
        blank = not reader.text(row, column.name)
        stored = reader.sheet.rows[row][reader.columns[column.name]].text
        if blank and (column.name in MAY_BE_BLANK or column.name in empty or (stored and column.name != "h")):
            # nothing in the whole column, or a sign that states it
            continue
        number = reader.number(row, column.name)
        if number and column.name in reader.units and story:
            direction = column.name[-1].upper() if column.quantity in ("x_m", "b") else None
            # a dimension along one axis lies across the other
            across = {"X": "Y", "Y": "X"}[direction] if column.quantity == "b" and direction else direction
            unit = reader.units[column.name]
            claims.append(reader.claim(row, column.name, column.quantity, number, unit, story=story, direction=across))
    return claims


def _claim(reader: ClaimReader, row: int, column: str) -> Claim | None:
    number = reader.number(row, column)
    if number is None or column not in reader.units:
        return None
    return reader.claim(row, column, "h", number, reader.units[column])


def _order_by(levels: Mapping[str, Claim]) -> str:
    """Order of the stories by their levels; '' where there are none."""
    heights = [float(c.value) for c in levels.values()]
    return "" if len(heights) < 2 else "top_down" if heights[0] > heights[-1] else "bottom_up"


def _heights(
    reader: ClaimReader, names: list[str], at: Mapping[str, int], levels: Mapping[str, Claim], base: float
) -> list[Claim]:
    """Heights of the stories as differences of their levels, from the base (0 where no row states it)."""
    made, below = [], base
    for name in names:
        claim = levels.get(name)
        if claim is None:
            continue
        height = round(float(claim.value) - below, 9)
        below = float(claim.value)
        if height <= 0:
            words = f"the level of {name!r} is not above that of the story below"
            reader.problem(
                at[name], reader.columns["level"], words, "Correct the levels, or state the order of the stories."
            )
            continue
        made.append(claim.model_copy(update={"value": height, "text": f"{height / claim.scale:.12g}"}))
    return made


TWICE = 1.7
"""Of two heights: what is as much higher than the other is a level two stories up."""
MAY_BE_BLANK = ("x_m_x", "x_m_y", "J_m", "plan_x", "plan_y")

KIND = TableKind(
    "stories",
    "stories",
    (
        Column("story", "story", STORY, required=True),
        Column("h", "story height", r"(story|storey|floor)?height|hsx|hi|h", "m", False, "h", positive=True),
        Column(
            "level",
            "level",
            r"level|elevation|(height|level)abovebase|(base)?(height|level)above|baseheight(above)?|baselevel|z|storylevel|hx",
            "m",
        ),
        Column(
            "w",
            "seismic weight",
            r"(story|storey|seismic|floor)?weight(this(story|storey|floor|level))?|seismicstoryweight|storyweightthis|wx|wi|w",
            "kN",
            False,
            "w",
            positive=True,
        ),
        Column(
            "m",
            "mass in the analysis",
            r"(story|storey|floor|modal|seismic)?mass|m|mi|mx",
            "t",
            False,
            "m",
            positive=True,
        ),
        Column(
            "x_m_x", "centre of mass along X", r"(centre|center)(ofmass)?x|(mass)?centrex|xm|xcm|cmx", "m", False, "x_m"
        ),
        Column(
            "x_m_y", "centre of mass along Y", r"(centre|center)(ofmass)?y|(mass)?centrey|ym|ycm|cmy", "m", False, "x_m"
        ),
        Column(
            "J_m",
            "mass moment of inertia",
            r"(mass(moment(of)?)?)?inertia|massmomentinertia|momentinertia|jm|mmi",
            "t*m^2",
            False,
            "J_m",
            positive=True,
        ),
        Column("plan_x", "plan dimension along X", r"plan(dimension)?x|lx|bx", "m", False, "b", positive=True),
        Column("plan_y", "plan dimension along Y", r"plan(dimension)?y|ly|by", "m", False, "b", positive=True),
    ),
    rows,
    rank=20,
)
