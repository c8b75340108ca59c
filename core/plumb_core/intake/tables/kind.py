"""What a kind of table is: its columns, and how its rows become claims."""

from __future__ import annotations

import re
from collections.abc import Callable, Collection, Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from plumb_core.documents.submission import Claim, LoadCase
from plumb_core.editions import Edition
from plumb_core.intake.cells import UNITS, CellProblem, factor
from plumb_core.intake.columns import PLAUSIBLE, Column, Reading, TableReader, is_safe_name
from plumb_core.intake.numbers import readings, with_unit
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.story_names import BASE, closest_story, matched, order_of, rank_of
from plumb_core.quantities import QUANTITIES

OUT = "out of proportion"
RATIOS = ("-", "%", "\u2030")
"""Units of drifts that are shares of the height."""
LARGEST_RATIO = 0.08
"""Of a drift to the height of its story; no building stands with more."""
FAR_OFF = 30.0
"""A larger difference from the brief indicates a misread value, not a deviation."""


@dataclass(frozen=True)
class Building:
    """What is known of the building and its load cases when a table is read.

    Attributes
    ----------
    stories : names that rows may refer to, bottom to top; empty if none are known yet
    heights, weights : of the stories as the brief has them, m and kN
    cases : roles of load cases by name
    """

    stories: Sequence[str] = ()
    heights: Mapping[str, float] = field(default_factory=dict)
    cases: Mapping[str, LoadCase] = field(default_factory=dict)
    weights: Mapping[str, float] = field(default_factory=dict)


class ClaimReader(TableReader):
    """A reader whose rows become claims.

    Parameters
    ----------
    known : the stories, their heights and the load cases that rows may refer to
    edition : of the review; names and texts that editions use for different things are read as it has them
    """

    def __init__(
        self,
        sheet: Sheet,
        columns: Sequence[Column],
        given: Reading,
        file: str,
        known: Building,
        edition: Edition | None,
        proposed: Reading | None = None,
    ):
        super().__init__(sheet, columns, given, file, proposed=proposed)
        self.known, self.heights, self.edition = list(known.stories), known.heights, edition
        self.roles = dict(known.cases)
        """roles of the load cases that are known from elsewhere"""
        self.directions = dict(self.given.cases)
        """direction of each case that was met"""
        self.order = given.order
        self.brief_values: Mapping[str, Mapping[str, float]] = {"h": known.heights, "w": known.weights}
        """what the brief has, by quantity and story"""
        self.beside: list[tuple[int, int, str]] = []
        self._stories: dict[str, str] = {}
        self._scales: dict[tuple[str, str, str], tuple[float, str, tuple[float, float] | None]] = {}
        self._listed = False

    @cached_property
    def stated(self) -> list[Column]:
        """The columns that state quantities, as far as the table has them; requested once the columns are known."""
        return [c for c in self.by_name.values() if c.quantity and c.name in self.columns]

    def claim(self, row: int, column: str, quantity: str, number: tuple[float, str], unit: str, **place: Any) -> Claim:
        """A number as a claim, with its sign as it was written."""
        how = self._scales.get((column, quantity, unit))
        if how is None:
            how = self._scales[column, quantity, unit] = self._scale_of(column, quantity, unit)
        scale, label, usual = how
        value = number[0] * scale
        if usual is None or not usual[0] <= abs(value) <= usual[1]:
            self._mark(row, column, quantity, value, scale, place.get("story"))
        return Claim.made_of(
            quantity=quantity,
            value=value,
            text=number[1],
            unit=label,
            scale=scale,
            source=self.source(row, column),
            **place,
        )

    def _scale_of(self, column: str, quantity: str, unit: str) -> tuple[float, str, tuple[float, float] | None]:
        """Scale and label of a unit, and the range of values without a mark; None where each value is compared."""
        scale = factor(unit, self.by_name[column].unit or QUANTITIES[quantity].unit)
        usual = None if quantity in self.brief_values else PLAUSIBLE.get(quantity, (0.0, float("inf")))
        if usual is not None and self.by_name[column].unit == "m or share" and unit in RATIOS:
            usual = (usual[0], min(usual[1], LARGEST_RATIO))
        return scale, "" if unit == "-" else unit, usual

    def _mark(self, row: int, column: str, quantity: str, value: float, scale: float, story: str | None) -> None:
        """Mark a value that is out of all proportion for its quantity: a unit or a separator misread shows so."""
        ours = self.brief_values.get(quantity, {}).get(story or "") if quantity in self.brief_values else None
        if ours and column in self.columns:
            self.beside.append((row, self.columns[column], f"{ours / scale:.5g}"))
        if ours and value and not 1 / FAR_OFF < abs(value) / ours < FAR_OFF:
            unit = QUANTITIES[quantity].unit
            words = f"{value:.4g} {unit} where the brief has {ours:.4g} {unit} is {OUT}"
            remedy = "Check its unit and its digits."
            self.problem(row, self.columns.get(column, self.columns["story"]), words, remedy, extent="nothing")
            return
        bounds = PLAUSIBLE.get(quantity)
        if bounds is None:
            return
        entry = self.by_name[column].quantity == quantity and column in self.columns
        least, most = bounds
        if self.by_name[column].unit == "m or share" and self.units.get(column) in RATIOS:
            most = LARGEST_RATIO
        if entry and value and not least <= abs(value) <= most:
            known = QUANTITIES[quantity]
            words = f"{known.meaning.lower()} of {value:.4g} {known.unit}".rstrip() + f" is {OUT}"
            remedy = f"Check its unit and its digits; usual is {least:g} to {most:g} {known.unit}".rstrip() + "."
            self.problem(row, self.columns[column], words, remedy, extent="nothing")

    def repeats(
        self, seen: dict[Hashable, int], key: Hashable, row: int, column: str, what: str, compared: Sequence[str] = ()
    ) -> bool:
        """Whether an earlier row is for the same; of two different rows both stay open, of two alike the second.

        Parameters
        ----------
        seen : row of each key that was met; the present one is added
        column : that says what the row is for
        what : the row is for, in words
        compared : columns in which two rows that are alike have the same texts; by default those of the values
        """
        before = seen.setdefault(key, row)
        if before == row:
            return False
        alike = self.alike(row, before, compared or [c.name for c in self.stated])
        at = {r: self.sheet.place(r, self.columns[column])[0] + 1 for r in (before, row)}
        # the larger values first: they are the safer ones
        larger, smaller = sorted((before, row), key=self._size, reverse=True)
        choices = [
            (f"use row {at[used]}", {"left_out": [*self.given.left_out, other]})
            for used, other in ((larger, smaller), (smaller, larger))
        ]
        words = (
            f"{what} is in row {at[before]} and in row {at[row]}, with {'the same' if alike else 'different'} values"
        )
        rows = [] if alike else [before]
        self.problem(row, self.columns[column], words, "Choose the row to be used.", choices=choices, rows=rows)
        return True

    def alike(self, row: int, before: int, columns: Iterable[str]) -> bool:
        """Whether two rows have the same texts in these columns."""
        return all(self.text(row, n) == self.text(before, n) for n in columns)

    def _size(self, row: int) -> float:
        """The greatest number of a row."""
        texts = (with_unit(c.text)[0] for c in self.sheet.rows[row])
        return max((abs(float(v)) for t in texts for v in readings(t).values()), default=0.0)

    def ask_for_case(self) -> None:
        """Offer the cases that are known as answers to the question which case the rows belong to."""
        requested = next((p for p in self.problems if p.row is None and "recognised as case" in p.message), None)
        if requested is not None:
            self.problems.remove(requested)
            words = "the load case of these rows is not stated"
            choices = [(name, {"case": name}) for name in self.roles]
            self.problem(None, None, words, "Name the case, or select its column.", choices=choices)

    def unmark(self, column: int) -> None:
        """Take the marks of a column's values back, where one question represents them."""
        self.problems = [p for p in self.problems if p.extent != "nothing" or p.column != column or p.row is None]

    def ask_about_units(self) -> None:
        """One question for a column most of whose values are out of proportion.

        Its unit or its decimals are misread.
        """
        for column in self.stated:
            index = self.columns[column.name]
            here = [p for p in self.problems if p.extent == "nothing" and p.column == index]
            marks = [p for p in here if p.message.endswith(OUT)]
            stored = sum(1 for row in self.sheet.rows[(self.header or 0) + 1 :] if row[index].text)
            # a share far above the whole is one in percent, even where the others are small
            share = column.quantity.startswith("mass_r") and marks
            if (not share and (len(marks) < 2 or 2 * len(marks) <= stored)) or column.name in self.given.units:
                continue
            self.unmark(index)
            unit = self.units.get(column.name, "-")
            words = f"most values of {column.title} are out of proportion in {unit}"
            likely = self._plausible_units(column, index)
            if unit in RATIOS and re.search(r"(?i)ratio", self._heading()[index]):
                likely.sort(key=lambda u: u not in RATIOS)
            remedy = f"Check the unit; probably it is {likely[0]}." if likely else "Check the unit and the digits."
            units = [*likely, *(u for u in UNITS[column.unit or ""] if u not in likely)]
            choices = [(u, {"units": {column.name: u}}) for u in units]
            self.problem(self.header, index, words, remedy, choices=choices)

    def _plausible_units(self, column: Column, index: int) -> list[str]:
        """Units in which all values of a column are such as its quantity can have."""
        bounds = PLAUSIBLE.get(column.quantity)
        if bounds is None:
            return []
        texts = [with_unit(row[index].text)[0] for row in self.sheet.rows[(self.header or 0) + 1 :]]
        values = [abs(float(v)) for t in texts if (v := next(iter(readings(t).values()), ""))]
        core = column.unit or ""
        most = {u: LARGEST_RATIO if core == "m or share" and u in RATIOS else bounds[1] for u in UNITS[core]}
        return [u for u in UNITS[core] if all(bounds[0] <= v * factor(u, core) <= most[u] for v in values if v)]

    def claims_of(
        self, row: int, story: str | None = None, leave_out: Collection[str] = (), **place: Any
    ) -> list[Claim]:
        """Claims of the columns of a row that state quantities and whose numbers and units can be read."""
        claims = []
        stated = [c for c in self.stated if self.sheet.rows[row][self.columns[c.name]].text]
        # a blank cell beside values is not stated
        for column in stated or self.stated:
            if column.name in leave_out:
                continue
            number = self.number(row, column.name)
            if number and column.name in self.units and story != "":
                unit = self.units[column.name]
                claims.append(self.claim(row, column.name, column.quantity, number, unit, story=story, **place))
        return claims

    def known_story(self, row: int) -> str | None:
        """The story of a row; None where it is missing, or not among those that are known."""
        if not self._listed:
            self._ask_about_all_stories()
        written = self.text(row, "story")
        if (known := self._stories.get(written)) is not None:
            return known
        if BASE.match(self.text(row, "story")) and self.text(row, "story") not in self.known and self.is_bare(row):
            self.skipped.append(row)
            return None
        story = self.name(row, "story", "story")
        found = self.matched_story(row, story) if story else None
        if found and self.known:
            # the same name is in thousands of rows
            self._stories[written] = found
        return found

    def _ask_about_all_stories(self) -> None:
        """One question where the names of the stories match those of the brief in part only.

        Such names often count from another floor: 2nd to 5th floor of a building with L1 to L4.
        """
        self._listed = True
        if len(self.known) < 2 or self.given.stories or self.columns.get("story") is None:
            return
        start = -1 if self.header is None else self.header
        excluded = self.sheet.lines | set(self.given.left_out)
        written = (self.text(r, "story") for r in range(start + 1, len(self.sheet.rows)) if r not in excluded)
        names = [n for n in dict.fromkeys(written) if n and is_safe_name(n) and not BASE.match(n)]
        by_name = {n: matched(n, self.known) for n in names}
        left = [n for n, story in by_name.items() if story is None]
        same = [n for n in names if n in self.known]
        if not left or same or len(names) != len(self.known) or len(left) == len(names):
            return
        ranks = [rank_of(n) for n in names]
        order = order_of(ranks) or "top_down"
        upwards = names[::-1] if order == "top_down" else names
        by_order = dict(zip(upwards, self.known, strict=True))
        numbered = {n: story for n, story in by_name.items() if story}

        def pairs(matching: Mapping[str, str]) -> str:
            return ", ".join(f"{n} is {story}" for n, story in matching.items())

        words = (
            f"{', '.join(left)} cannot be matched by its number"
            if len(left) == 1
            else f"{', '.join(left)} cannot be matched"
        )
        rows = [
            r for r in range(start + 1, len(self.sheet.rows)) if self.text(r, "story") in left and r not in excluded
        ]
        self.problem(
            self.header,
            self.columns["story"],
            f"{words}; by their order {pairs(by_order)}, by their numbers {pairs(numbered)}",
            "Choose how the stories are matched.",
            extent="table",
            choices=[
                (f"by their order: {pairs(by_order)}", {"stories": by_order}),
                (f"by their numbers, without {', '.join(left)}", {"stories": numbered, "left_out": rows}),
            ],
        )
        self._stories |= by_order

    def matched_story(self, row: int, story: str) -> str | None:
        """The known story that a name represents, as the reviewer says or by its place.

        None with the question noted.
        """
        reported = self.given.stories.get(story, "")
        if is_safe_name(reported):
            return reported
        known = matched(story, self.known) if self.known else story
        if known is None:
            likely = closest_story(story, self.known)
            words = f"story {story!r} is not among the stories known so far"
            first = f"Probably {likely}; " if likely else ""
            remedy = f"{first}use one of: {', '.join(self.known)}; or accept the table of stories first."
            first_ones = sorted(self.known, key=lambda k: k != likely)
            choices = [(f"it is {k}", {"stories": {story: k}}) for k in first_ones]
            self.problem(row, self.columns["story"], words, remedy[0].upper() + remedy[1:], choices=choices)
        return known

    def is_bare(self, row: int) -> bool:
        """Whether a row holds no values but zeros."""
        values = [n for n, c in self.by_name.items() if c.unit is not None and n in self.columns and n != "level"]
        return all(self.text(row, n).strip(" 0.,") == "" for n in values)


@dataclass
class Rows:
    """What the rows of a table came to.

    Claims, the stories that it lists (bottom to top), and the roles of its cases.
    """

    claims: list[Claim] = field(default_factory=list)
    stories: list[str] = field(default_factory=list)
    cases: list[LoadCase] = field(default_factory=list)


@dataclass(frozen=True)
class TableKind:
    """A kind of table.

    Attributes
    ----------
    id, title : as documents and as people call it
    columns : that it can have
    rows : makes claims of the rows that hold values; problems are noted on the reader
    rank : place where kinds are offered, the smallest first
    values : what its columns of values are called, where it needs one of them at least
    across : column of the values that may be under a heading for each case
    about : pattern of words that say that a table is of this kind, where no column states
    """

    id: str
    title: str
    columns: tuple[Column, ...]
    rows: Callable[[ClaimReader, list[int]], Rows]
    rank: int
    values: str = ""
    across: str = ""
    about: str = ""


@dataclass
class TableRead:
    """What was made of a table: its claims, without rows and columns that stay open.

    Attributes
    ----------
    reading : how it was read
    skipped : rows excluded: headings, blank rows, totals
    stories : names of the stories, bottom to top
    cases : roles of the load cases, as far as their names and the reviewer state them
    why : what describes each column how it is read
    unsure : columns of which the table itself does not state all
    beside : (row, column, text) of what the brief has at the place of the values, in the unit of the table
    unused : headings of columns of numbers that are not used, by index
    """

    kind: str
    reading: Reading
    claims: list[Claim]
    problems: list[CellProblem]
    skipped: list[int]
    stories: list[str]
    cases: list[LoadCase]
    why: dict[str, list[str]] = field(default_factory=dict)
    unsure: set[str] = field(default_factory=set)
    beside: list[tuple[int, int, str]] = field(default_factory=list)
    unused: dict[int, str] = field(default_factory=dict)

    @property
    def held_up(self) -> bool:
        """Whether nothing of the table can be accepted before a question is answered."""
        return any(p.holds_up for p in self.problems)
