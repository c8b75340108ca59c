"""What a kind of table is: its columns, and how its rows become claims."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from plumb_core.documents.submission import Case, Claim
from plumb_core.editions import Edition
from plumb_core.intake.cells import CellProblem, factor
from plumb_core.intake.columns import PLAUSIBLE, Column, Reading, TableReader
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.story_names import matched
from plumb_core.quantities import QUANTITIES


@dataclass(frozen=True)
class Building:
    """What is known of the building and its load cases when a table is read.

    Attributes
    ----------
    stories : names that rows may refer to, bottom to top; empty if none are known yet
    heights : of the stories, m
    cases : roles of load cases by name
    """

    stories: Sequence[str] = ()
    heights: Mapping[str, float] = field(default_factory=dict)
    cases: Mapping[str, Case] = field(default_factory=dict)


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
        self.directions = dict(given.cases)
        """direction of each case that was met"""
        self.order = given.order

    @property
    def stated(self) -> list[Column]:
        """The columns that state quantities, as far as the table has them."""
        return [c for c in self.by_name.values() if c.quantity and c.name in self.columns]

    def claim(self, row: int, column: str, quantity: str, number: tuple[float, str], unit: str, **place: Any) -> Claim:
        """A number as a claim, with its sign as it was written."""
        scale = factor(unit, self.by_name[column].unit or QUANTITIES[quantity].unit)
        self._mark(row, column, quantity, number[0] * scale)
        return Claim(
            quantity=quantity,
            value=number[0] * scale,
            text=number[1],
            unit="" if unit == "-" else unit,
            scale=scale,
            source=self.source(row, column),
            **place,
        )

    def _mark(self, row: int, column: str, quantity: str, value: float) -> None:
        """Mark a value that is out of all proportion for its quantity: a unit or a separator misread shows so."""
        own = self.by_name[column].quantity == quantity and column in self.columns
        least, most = PLAUSIBLE.get(quantity, (0.0, float("inf")))
        if own and value and not least <= abs(value) <= most:
            known = QUANTITIES[quantity]
            said = f"{known.meaning.lower()} of {value:.4g} {known.unit}".rstrip() + " is out of proportion"
            remedy = f"Look at its unit and its digits; usual is {least:g} to {most:g} {known.unit}".rstrip() + "."
            self.problem(row, self.columns[column], said, remedy, holds_up=False)

    def claims_of(self, row: int, story: str | None = None, **place: Any) -> list[Claim]:
        """Claims of all columns of a row that state quantities and whose numbers and units can be read."""
        claims = []
        for column in self.stated:
            number = self.number(row, column.name)
            if number and column.name in self.units and story != "":
                unit = self.units[column.name]
                claims.append(self.claim(row, column.name, column.quantity, number, unit, story=story, **place))
        return claims

    def known_story(self, row: int) -> str | None:
        """The story of a row; None where it is missing, or not among those that are known."""
        story = self.name(row, "story", "story")
        if story and self.known:
            story = matched(story, self.known) or story
        if story and self.known and story not in self.known:
            self.problem(
                row,
                self.columns["story"],
                f"story {story!r} is not among the stories known so far",
                f"Use one of: {', '.join(self.known)}; or accept the table of stories first.",
            )
            return None
        return story


@dataclass
class Rows:
    """What the rows of a table came to: claims, the stories that it lists (bottom to top), and the roles of its cases."""

    claims: list[Claim] = field(default_factory=list)
    stories: list[str] = field(default_factory=list)
    cases: list[Case] = field(default_factory=list)


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
    """

    id: str
    title: str
    columns: tuple[Column, ...]
    rows: Callable[[ClaimReader, list[int]], Rows]
    rank: int
    values: str = ""


@dataclass
class TableRead:
    """What was made of a table: claims only count where `problems` is empty.

    Attributes
    ----------
    reading : how it was read
    skipped : rows left out: headings, blank rows, totals
    stories : names of the stories, bottom to top
    cases : roles of the load cases, as far as their names and the reviewer tell them
    """

    kind: str
    reading: Reading
    claims: list[Claim]
    problems: list[CellProblem]
    skipped: list[int]
    stories: list[str]
    cases: list[Case]
