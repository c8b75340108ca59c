"""Headings: which column of a table holds what, in which unit; the same for submitted tables and for those of a model."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from plumb_core.documents.submission import Source
from plumb_core.intake.cells import UNITS, CellProblem, factor, known_unit, plain_number, uses_decimal_comma
from plumb_core.intake.sheets import Sheet

HEADING_ROWS = 12
"""Headings stand in the first rows of a table, below its title."""


@dataclass(frozen=True, slots=True)
class Column:
    """A column that a kind of table can have.

    Attributes
    ----------
    name : as the reader of the kind calls it
    title : in words
    headings : pattern of the headings that are taken for it, as `normal` leaves them
    unit : the core's unit of its numbers, '' for numbers without one; None for texts
    required : whether there is no table without it
    quantity : the quantity of the vocabulary that it states, '' where it is none
    positive : whether its numbers are above zero
    plain : whether a number without a unit is one without dimension
    words : what a text can be, where it is one of a few, with what the table has for each
    """

    name: str
    title: str
    headings: str
    unit: str | None = None
    required: bool = False
    quantity: str = ""
    positive: bool = False
    plain: bool = False
    words: Mapping[str, Any] | None = None


@dataclass
class Reading:
    """How a table is read; everything in it can be set by the reviewer.

    columns : column name -> 0-based index.  units : column name -> unit label.  cases : case -> direction.
    order : `bottom_up` or `top_down`, how the stories stand in the table.
    both : values without a direction hold for X and Y.
    """

    header_row: int | None = None
    columns: dict[str, int] = field(default_factory=dict)
    units: dict[str, str] = field(default_factory=dict)
    cases: dict[str, str] = field(default_factory=dict)
    order: str = ""
    both: bool = False


def normal(text: str) -> str:
    """A heading or a name without what is in brackets, spaces and signs, in small letters."""
    text = re.sub(r"[\[(].*?[\])]", "", text)
    return re.sub(r"[\s_,.\-{}$\\:/']", "", text).lower()


def heading_unit(text: str) -> str:
    """The unit that a heading states: in brackets at its end, or after its last comma."""
    match = re.search(r"[\[(]([^\])]+)[\])]\s*$", text) or re.search(r",\s*([^,]+)$", text)
    return match.group(1).strip() if match else ""


def recognised(headings: Iterable[str], columns: Sequence[Column]) -> dict[str, int]:
    """Index of each column among the headings that it is recognised by."""
    at: dict[str, int] = {}
    for index, text in enumerate(headings):
        plain = normal(re.sub(r",\s*[^,]+$", "", text))
        for column in columns:
            if column.name not in at and re.fullmatch(column.headings, plain):
                at[column.name] = index
                break
    return at


def find_headings(sheet: Sheet, columns: Sequence[Column], least: int = 2) -> tuple[int | None, dict[str, int]]:
    """Row of the headings that the most columns are recognised in, and those columns; (None, {}) for fewer than `least`."""
    best: tuple[int | None, dict[str, int]] = (None, {})
    for index, row in enumerate(sheet.rows[:HEADING_ROWS]):
        at = recognised((c.text for c in row), columns)
        if len(at) > len(best[1]):
            best = (index, at)
    return best if len(best[1]) >= least else (None, {})


def guess_kind(sheet: Sheet, kinds: Mapping[str, Sequence[Column]]) -> str:
    """The kind whose columns fit a sheet's headings best ('' if none does); headings that a kind doesn't know speak against it."""
    best, kind = 0.0, ""
    for row in sheet.rows[:HEADING_ROWS]:
        texts = [c.text for c in row]
        stated = max(1, sum(1 for t in texts if t))
        for candidate, columns in kinds.items():
            at = recognised(texts, columns)
            score = len(at) / stated + 0.01 * len(at)
            if score > best and at and all(c.name in at for c in columns if c.required):
                best, kind = score, candidate
    return kind


_TOTAL = re.compile(r"(?i)^(total|sum|Σ|grand total|subtotal)\b")
_SAFE_NAME = re.compile(r"[\w .,+\-/()#&°'–]{1,60}")


class TableReader:
    """A sheet read as a table of a kind: its columns, their units, its rows, and every problem at its place.

    Parameters
    ----------
    sheet : the cells
    columns : that the kind can have
    given : what the reviewer has set; the rest is recognised
    file : name of the exhibit, for the provenance of values
    """

    def __init__(self, sheet: Sheet, columns: Sequence[Column], given: Reading, file: str = "", least: int = 2):
        self.sheet, self.file, self.given = sheet, file, given
        self.by_name = {c.name: c for c in columns}
        self.problems: list[CellProblem] = []
        self.skipped: list[int] = []
        header, at = find_headings(sheet, columns, least)
        self.header = header if given.header_row is None else given.header_row
        self.columns = dict(given.columns) or at
        self.units = dict(given.units)
        self.decimal_comma = uses_decimal_comma([c.text for row in sheet.rows for c in row])

    def problem(self, row: int | None, column: int | None, message: str, remedy: str, *, holds_up: bool = True) -> None:
        """Note a problem.

        holds_up : whether the table can't be taken in with it; else the row is left out
        """
        self.problems.append(CellProblem(row, column, message, remedy, holds_up))

    # columns

    def check_columns(self) -> None:
        """Note columns that point nowhere and required ones that are lacking, and find the units of the others."""
        width = len(self.sheet.rows[0]) if self.sheet.rows else 0
        for name, index in self.columns.items():
            if name not in self.by_name or not 0 <= index < width:
                said = f"there is no column {name!r} at place {index + 1}"
                self.problem(None, None, said, "Point at the column again.")
        if self.problems:
            return
        for column in self.by_name.values():
            if column.required and column.name not in self.columns:
                said = f"no column is recognised as {column.title}"
                self.problem(None, None, said, f"Point at the column that holds it: {column.title}.")
        for name in self.columns:
            if self.by_name[name].unit is not None:
                self.find_unit(self.by_name[name])

    def find_unit(self, column: Column) -> None:
        """Find the unit of a column of numbers, in what the reviewer has set, its heading, or a row of units."""
        core_unit = column.unit or ""
        index = self.columns[column.name]
        written = self.units.get(column.name) or self._stated_unit(index)
        label = known_unit(written, core_unit) if written else "-" if column.plain else None
        if label is not None:
            self.units[column.name] = label
            return
        self.units.pop(column.name, None)
        said = f"{written!r} is no unit of {column.title}" if written else f"the unit of {column.title} is missing"
        self.problem(self.header, index, said, f"Choose the unit: {', '.join(UNITS[core_unit])}.")

    def _stated_unit(self, index: int) -> str:
        if self.header is None:
            return ""
        unit = heading_unit(self.sheet.rows[self.header][index].text)
        below = self.header + 1
        if not unit and below < len(self.sheet.rows) and self.is_unit_row(below):
            unit = self.sheet.rows[below][index].text.strip("[]() ")
        return unit

    def is_unit_row(self, row: int) -> bool:
        """Whether a row holds units and nothing else."""
        cells = [c.text.strip("[]() ") for c in self.sheet.rows[row] if c.text]
        # a 1 can be written for no unit, but a row of numbers is none of units
        named = any(plain_number(c, self.decimal_comma) is None for c in cells)
        return named and all(c in ("-", "") or any(known_unit(c, u) for u in UNITS) for c in cells)

    # rows and cells

    def rows(self) -> list[int]:
        """Rows that hold values; headings (repeated ones too), blank rows and totals are left out."""
        kept = []
        first = self.columns.get("story", self.columns.get("name", 0))
        start = -1 if self.header is None else self.header
        heading = [c.text for c in self.sheet.rows[self.header]] if self.header is not None else None
        for i, row in enumerate(self.sheet.rows):
            texts = [c.text for c in row]
            blank = not any(texts[c] for c in self.columns.values())
            total = any(_TOTAL.match(t) for t in (texts[first], texts[0]))
            unit_row = i == start + 1 and self.header is not None and self.is_unit_row(i)
            if i <= start or blank or texts == heading or total or unit_row:
                self.skipped.append(i)
            else:
                kept.append(i)
        if not kept:
            self.problem(None, None, "there are no rows of values in it", "Paste the table with its rows of values.")
        return kept

    def text(self, row: int, name: str) -> str:
        """Text of a cell; '' where the table has no such column."""
        index = self.columns.get(name)
        return self.sheet.rows[row][index].text if index is not None else ""

    def is_formula(self, row: int, name: str) -> bool:
        """Whether a cell holds a formula, which is noted as a problem."""
        index = self.columns[name]
        if self.sheet.rows[row][index].formula:
            self.problem(row, index, "this cell holds a formula", "Hand in the value: copy and paste as values.")
            return True
        return False

    def number(self, row: int, name: str, title: str = "", *, positive: bool | None = None) -> tuple[float, str] | None:
        """(number, as plain text) of a cell with its sign, or None with the problem noted."""
        index, column = self.columns[name], self.by_name[name]
        title = title or column.title
        text = self.sheet.rows[row][index].text
        if self.is_formula(row, name):
            return None
        if not text:
            self.problem(row, index, f"{title} is missing", "Give a number, or leave the whole row out.")
            return None
        plain = plain_number(text, self.decimal_comma)
        if plain is None or abs(float(plain)) == float("inf"):
            self.problem(row, index, f"{text[:40]!r} is no number", "Give a number.")
            return None
        if (column.positive if positive is None else positive) and float(plain) <= 0:
            self.problem(row, index, f"{title} is {plain}; it has to be above zero", "Mend the value.")
            return None
        return float(plain), plain

    def scaled(self, row: int, name: str) -> float | None:
        """Number of a cell in the core's unit; None where it is bad, or its unit isn't known."""
        number = self.number(row, name)
        unit = self.units.get(name)
        return None if number is None or unit is None else number[0] * factor(unit, self.by_name[name].unit or "")

    def word(self, row: int, name: str) -> Any:
        """What a cell that is one of a few words stands for; None with the problem noted."""
        column = self.by_name[name]
        words = column.words or {}
        text = self.text(row, name)
        word = " ".join(text.lower().split())
        if word not in words:
            said = f"{text[:40]!r} isn't understood as {column.title}"
            self.problem(row, self.columns[name], said, f"Write one of: {', '.join(words)}.")
        return words.get(word)

    def name(self, row: int, column: str, title: str) -> str | None:
        """A name that a cell holds, or None with the problem noted."""
        text, index = self.text(row, column), self.columns[column]
        if self.is_formula(row, column):
            return None
        if not text:
            self.problem(row, index, f"{title} is missing", f"Name the {title}.")
        elif not is_safe_name(text):
            remedy = "Use up to 60 letters, digits, spaces and . , + - / ( ) # &."
            self.problem(row, index, f"{text[:40]!r} can't be a name", remedy)
        else:
            return text
        return None

    def source(self, row: int, name: str) -> Source:
        """Where a cell stands."""
        index = self.columns[name]
        letter = (chr(64 + index // 26) if index >= 26 else "") + chr(65 + index % 26)
        return Source(file=self.file, sheet=self.sheet.name, row=row + 1, column=letter)


def is_safe_name(text: str) -> bool:
    """Whether a text can be the name of a story or of a case."""
    return _SAFE_NAME.fullmatch(text) is not None
