"""Headings: which column of a table holds what, in which unit.

The same for submitted tables and for those of a model.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from math import log10
from typing import Any

from plumb_core.documents.submission import Source
from plumb_core.intake.cells import UNITS, AnswerOption, Cell, CellProblem, Extent, factor, is_unit_text, known_unit
from plumb_core.intake.numbers import STYLES, Style, plain_in, readings, style_of, with_unit
from plumb_core.intake.ocr import SURE
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.words import are_known, in_order

HEADING_ROWS = 12
"""Headings are in the first rows of a table, below its title."""


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
    order : `bottom_up` or `top_down`, how the stories are in the table.
    both : values without a direction apply to X and Y.  numbers : `point` or `comma`, how decimals are written.
    stories : name in the table -> name of the story.  case : that all rows belong to, where the table names none.
    left_out, taken_in : rows that the reviewer excludes, and those that hold values though they do not look so.
    confirmed : doubts about the table that the reviewer has settled, by their names.
    """

    header_row: int | None = None
    columns: dict[str, int] = field(default_factory=dict)
    units: dict[str, str] = field(default_factory=dict)
    cases: dict[str, str] = field(default_factory=dict)
    order: str = ""
    both: bool = False
    numbers: str = ""
    stories: dict[str, str] = field(default_factory=dict)
    case: str = ""
    left_out: list[int] = field(default_factory=list)
    taken_in: list[int] = field(default_factory=list)
    confirmed: list[str] = field(default_factory=list)


PLAUSIBLE: Mapping[str, tuple[float, float]] = {
    "h": (1.5, 12.0),
    **dict.fromkeys(("drift_end_1", "drift_end_2", "drift_max", "drift_avg", "drift_single"), (0.0, 0.3)),
    "S_a": (0.0, 6.0),
    "T_points": (0.0, 30.0),
    "T_mode": (0.002, 30.0),
    "f_mode": (0.03, 500.0),
    "mass_ratio": (0.0, 1.02),
    "mass_running": (0.0, 1.02),
    "mass_ratio_RZ": (0.0, 1.02),
    "mass_running_RZ": (0.0, 1.02),
}
"""What values of a quantity can be in the core's unit, where that states 3.600 from 3600 (office setting)."""


USUAL: Mapping[str, float] = {
    "drift": 0.01,
    "displacement": 0.05,
    "h": 3.5,
    "w": 5000.0,
    "m": 500.0,
    "F": 300.0,
    "V": 1500.0,
    "M_": 15000.0,
    "T_": 0.5,
    "S_a": 0.4,
    "reaction_M": 20000.0,
    "reaction": 2000.0,
    "mass_r": 0.3,
    "load_amount": 2000.0,
    "load_intensity": 3.0,
    "load_area": 500.0,
    "story_stiffness": 3e5,
    "story_strength": 3000.0,
}
"""What values of quantities that begin so are about, in the core's unit: it only states which unit is offered first."""


_BRACKET = re.compile(r"[\[(]\s*(.*?)\s*[\])]")


def normal(text: str) -> str:
    """A heading or a name without spaces, signs and units in brackets, in small letters.

    Other brackets hold meaning.
    """
    text = _BRACKET.sub(lambda m: "" if is_unit_text(m.group(1)) else m.group(1), text)
    return re.sub(r"[\s_,.\-{}$\\:/']", "", text).lower()


_UNIT_AT_END = re.compile(r"(?<=\w)\s+(sec|secs|seconds|mm|cm|kN|kNm|kN-m|kips?|Hz|rad/s|%|tonnes?)\.?$")
"""A unit behind a heading, without brackets or a comma."""


def heading_unit(text: str) -> str:
    """The unit that a heading states: in brackets at its end, or after its last comma."""
    # an axis in brackets is no unit
    brackets = [b for b in _BRACKET.findall(text) if b and b.upper() not in ("X", "Y", "Z") and not are_known(b)]
    if brackets:
        # a unit before a word that only says which value is meant: Sa (g) (design)
        return next((b for b in brackets if is_unit_text(b)), "" if len(brackets) > 1 else brackets[-1])
    match = re.search(r",\s*([^,]+)$", text) or _UNIT_AT_END.search(text)
    return match.group(1).strip() if match else ""


@lru_cache(maxsize=5_000)
def _heading(text: str) -> tuple[tuple[str, ...], bool]:
    """A heading as patterns are matched with it, as it is and with its words in order; and whether it is in metres."""
    text, unit = unicodedata.normalize("NFKC", text), heading_unit(text)
    bare = re.sub(r",\s*[^,]+$", "", text) if unit and "," in text else _UNIT_AT_END.sub("", text)
    words = _BRACKET.sub(lambda m: " " if is_unit_text(m.group(1)) else f" {m.group(1)} ", bare)
    return tuple(dict.fromkeys((normal(bare), in_order(words)))), known_unit(unit, "m") is not None


def recognised(headings: Iterable[str], columns: Sequence[Column]) -> dict[str, int]:
    """Index of each column among the headings that it is recognised by."""
    at: dict[str, int] = {}
    for index, text in enumerate(headings):
        name = next((n for n in recognised_as(text, columns) if n not in at), None)
        if name is not None:
            at[name] = index
    return at


def recognised_as(text: str, columns: Sequence[Column]) -> list[str]:
    """Names of the columns that a heading fits, the first the likeliest."""
    if not text:
        return []
    forms, measured = _heading(text)
    unit = heading_unit(text)
    # a symbol of one letter is what its unit can be of
    symbol = unit if len(forms[0]) == 1 and unit and is_unit_text(unit) else ""
    # What is measured in metres is no name
    fit = (c for c in columns if not (measured and c.unit is None))
    fit = (c for c in fit if not (symbol and c.unit is not None and known_unit(symbol, c.unit) is None))
    return [c.name for c in fit if any(re.fullmatch(c.headings, form) for form in forms)]


def find_headings(sheet: Sheet, columns: Sequence[Column], least: int = 2) -> tuple[int | None, dict[str, int]]:
    """Row of the headings that the most columns are recognised in, and those columns.

    (None, {}) for fewer than `least`.
    """
    best: tuple[int | None, dict[str, int]] = (None, {})
    for index, row in enumerate(sheet.rows[:HEADING_ROWS]):
        at = recognised((c.text for c in row), columns)
        if len(at) > len(best[1]):
            best = (index, at)
    return best if len(best[1]) >= least else (None, {})


def guess_kind(sheet: Sheet, kinds: Mapping[str, Sequence[Column]]) -> str:
    """The kind whose columns fit a sheet's headings best ('' if none does).

    Headings that a kind does not know are evidence against it.
    """
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


def likely_kinds(sheet: Sheet, kinds: Mapping[str, Sequence[Column]]) -> list[str]:
    """Kinds of tables, the likeliest first: by how many of a row's headings each knows; the others in their order."""
    score = dict.fromkeys(kinds, 0.0)
    for row in sheet.rows[:HEADING_ROWS]:
        texts = [c.text for c in row]
        for kind, columns in kinds.items():
            at = recognised(texts, columns)
            values = sum(1 for c in columns if c.name in at and c.quantity)
            score[kind] = max(score[kind], len(at) + 0.5 * values)
    return sorted(kinds, key=lambda k: -score[k])


NOT_STATED = ("-", "\u2013", "\u2014", "\u2212", "--", "n/a", "n.a.", "na", "nil", "\u2026", "...")
"""What people write into a cell that states nothing."""


def _states_nothing(text: str) -> bool:
    return len(text) <= 4 and text.lower() in NOT_STATED


@lru_cache(maxsize=20_000)
def _is_total(text: str) -> bool:
    return _TOTAL.match(text) is not None


@lru_cache(maxsize=2_000)
def letter_of(index: int) -> str:
    """The letter of a column, 0-based: A to Z, AA and so on."""
    letters = ""
    while index >= 0:
        index, rest = divmod(index, 26)
        letters, index = chr(65 + rest) + letters, index - 1
    return letters


def _without_mark(text: str) -> str:
    """A number without the sign of a footnote behind it."""
    if text[-1:].isascii() and text[-1:] not in "*#":
        return text
    bare = re.sub(r"(?<=[\d)])\s*[*\u2020\u2021#\u00b9\u00b2\u00b3]+$", "", text)
    return bare if bare != text and readings(bare) else text


_COMMA_LANGUAGE = re.compile(
    r"(?i)geschoss|h\u00f6he|hoehe|gewicht|kraft|\bmasse\b|verschieb|niveau|hauteur|poids|effort|tranchant|\u00e9tage|d\u00e9plac|"
    r"altura|\bpeso\b|fuerza|cortante|planta|desplaz|altezza|taglio|piano|spostam|periode|gr\u00f6(\u00df|ss)e|einheit|\bwert\b"
)
"""Words of tables in languages that write decimals with a comma."""

VERTICAL_Y = re.compile(
    r"(?i)\by\b\W*(axis\s+)?(is\s+|=\s*)?(the\s+)?(vertical|up\b|upwards?)|\bvertical\W+(axis\W+)?(is\s+)?y\b"
)
_NAMED_UNITS = re.compile(r"(?i)(?:\bunits?\b\s*[:=]?\s*|\bin\s+|[\[(])([^\[\]()]+)")


def units_in(note: str) -> list[str]:
    """What a line of text names as units: behind the word, behind "in", and in brackets."""
    found = []
    for match in _NAMED_UNITS.finditer(note):
        for word in re.split(r"\s*[,;/&]\s*|\s+and\s+|\s+in\s+", match.group(1)):
            # a unit is the first word of what is there, or all of it
            for unit in (word.strip(), word.strip().split(" ")[0] if word.strip() else ""):
                if unit and unit not in ("-", "1") and is_unit_text(unit):
                    found.append(unit)
                    break
    return found


_TOTAL = re.compile(
    r"(?i)^\W*(grand |sub-?)?(totals?|sums?|subtotals?|sommes?|totale|totali|totaux|summe|gesamt|suma|somma)\b|^\W*Σ"
    r"|^\W*(max|maximum|min|minimum|mean|average|avg|mittelwert|moyenne|media|promedio)\W*$"
)
_SAFE_NAME = re.compile(r"[\w .,+\-/()#&°'–%:]{1,60}")


def _over(given: Reading, proposed: Reading | None) -> Reading:
    """What the reviewer has set, over what is remembered of tables like it.

    Columns, directions of cases, names of stories.

    Units, order and number format are not used from earlier answers: the table says them itself, or they are proposed.
    """
    if proposed is None:
        return given
    return replace(
        given,
        header_row=proposed.header_row if given.header_row is None else given.header_row,
        columns=given.columns or proposed.columns,
        cases=proposed.cases | given.cases,
        stories=proposed.stories | given.stories,
        both=given.both or proposed.both,
        confirmed=list(dict.fromkeys([*proposed.confirmed, *given.confirmed])),
    )


class TableReader:
    """A sheet read as a table of a kind: its columns, their units, its rows, and every problem at its place.

    Parameters
    ----------
    sheet : the cells
    columns : that the kind can have
    given : what the reviewer has set; the rest is recognised
    file : name of the exhibit, for the provenance of values
    proposed : how a table like it was read before: what this one says itself comes first
    """

    def __init__(
        self,
        sheet: Sheet,
        columns: Sequence[Column],
        given: Reading,
        file: str = "",
        least: int = 2,
        proposed: Reading | None = None,
    ):
        self.file, self.given = file, _over(given, proposed)
        self.pointed = bool(given.columns)
        """whether the reviewer has selected the columns, as opposed to a remembered answer"""
        self.proposed_units = dict(proposed.units) if proposed else {}
        self.proposed_order = proposed.order if proposed else ""
        self.by_name = {c.name: c for c in columns}
        self.problems: list[CellProblem] = []
        self.why: dict[str, list[str]] = {}
        self.unsure: set[str] = set()
        self.skipped: list[int] = []
        header, at = find_headings(sheet, columns, least)
        if sheet.header is not None:
            header, at = sheet.header, recognised((c.text for c in sheet.rows[sheet.header]), columns)
        given = self.given
        there = given.header_row is not None and given.header_row < len(sheet.rows)
        self.header = given.header_row if there else header
        self.columns = dict(given.columns) or at
        if given.case and "case" in self.by_name and "case" not in self.columns and sheet.rows:
            # the reviewer says which case all rows belong to
            self.columns["case"] = len(sheet.rows[0])
            sheet = replace(sheet, rows=tuple((*r, Cell(given.case)) for r in sheet.rows))
        self.sheet = sheet
        self.units = dict(given.units)
        self._styles: dict[str, Style | None] = {}

    def problem(
        self,
        row: int | None,
        column: int | None,
        message: str,
        remedy: str,
        *,
        extent: Extent | None = None,
        choices: Iterable[tuple[str, Mapping[str, Any]]] = (),
        rows: Iterable[int] = (),
        columns: Iterable[int] = (),
    ) -> None:
        """Note a problem.

        extent : what stays open until it is answered; by default the row of a cell of values, the column of a heading
            of values, else the table
        choices : answers to it, each in words and with what it sets of the reading, the likeliest first
        rows, columns : further ones that it concerns
        """
        answers = tuple(AnswerOption(label, sets) for label, sets in choices)
        reach = extent or self._extent(row, column)
        self.problems.append(CellProblem(row, column, message, remedy, reach, answers, tuple(rows), tuple(columns)))

    def _extent(self, row: int | None, column: int | None) -> Extent:
        if row is None:
            return "table"
        if row != self.header:
            return "row"
        name = next((n for n, i in self.columns.items() if i == column), None)
        return "column" if name in self.by_name and self.by_name[name or ""].quantity else "table"

    def known_by(self, column: str, why: str, *, sure: bool = True) -> None:
        """Note why a column is read as it is; `sure` where the table itself states it."""
        self.why.setdefault(column, []).append(why)
        if not sure:
            self.unsure.add(column)

    # columns

    def check_columns(self) -> None:
        """Note columns that point nowhere and required ones that are lacking, and find the units of the others."""
        width = len(self.sheet.rows[0]) if self.sheet.rows else 0
        for name, index in self.columns.items():
            if name not in self.by_name or not 0 <= index < width:
                words = f"there is no column {name!r} at place {index + 1}"
                self.problem(None, None, words, "Select the column again.")
        if self.problems:
            return
        if not self.given.columns:
            self._ask_where_two_fit()
        if not self.pointed:
            self._ask_about_the_vertical()
        for column in self.by_name.values():
            if column.required and column.name not in self.columns:
                words = f"no column is recognised as {column.title}"
                free = [i for i, c in enumerate(self._heading()) if c and i not in self.columns.values()]
                choices = [
                    (f"it is {self._heading()[i]}", {"columns": self.columns | {column.name: i}}) for i in free[:6]
                ]
                self.problem(None, None, words, f"Select its column: {column.title}.", choices=choices)
        for name in self.columns:
            if self.by_name[name].unit is not None:
                self.find_unit(self.by_name[name])

    def columns_stand(self) -> bool:
        """Whether all columns are there."""
        width = len(self.sheet.rows[0]) if self.sheet.rows else 0
        return bool(self.columns) and all(0 <= i < width for i in self.columns.values())

    def _heading(self) -> list[str]:
        return [] if self.header is None else [c.text for c in self.sheet.rows[self.header]]

    def _ask_where_two_fit(self) -> None:
        """A heading that fits a column which another heading was taken for: which of the two is meant is asked."""
        if self.header is None:
            return
        used = {index: name for name, index in self.columns.items()}
        for index, cell in enumerate(self.sheet.rows[self.header]):
            if index in used or not cell.text:
                continue
            name = next(iter(recognised([cell.text], list(self.by_name.values()))), "")
            if name in self.columns:
                title, other = self.by_name[name].title, self.sheet.rows[self.header][self.columns[name]].text
                words = f"{other!r} and {cell.text!r} both look like {title}"
                here = {"columns": self.columns | {name: index}}
                self.problem(
                    self.header,
                    index,
                    words,
                    f"Select its column: {title}.",
                    extent="column" if self.by_name[name].quantity else "table",
                    choices=[(f"it is {other}", {"columns": dict(self.columns)}), (f"it is {cell.text}", here)],
                    columns=[self.columns[name]],
                )

    def _ask_about_the_vertical(self) -> None:
        """Axes of which another than Z is vertical.

        Nothing of it is read before the reviewer has pointed at the columns.
        """
        filled = ([c.text for c in row if c.text] for row in self.sheet.rows)
        lines = [texts[0] for texts in filled if len(texts) == 1]
        if any(VERTICAL_Y.search(note) for note in (*self.sheet.notes, *lines)):
            self.problem(None, None, "Y is vertical in this table", "Select the columns of the building's X and Y.")

    def find_unit(self, column: Column) -> None:
        """Find the unit of a column of numbers, in what the reviewer has set, its heading, or a row of units."""
        core_unit = column.unit or ""
        index = self.columns[column.name]
        written = self.units.get(column.name) or self._stated_unit(index)
        label = known_unit(written, core_unit) if written else self._unit_from_context(column, index, core_unit)
        if written and label is not None:
            by = "you state it" if self.given.units.get(column.name) else "stated"
            self.known_by(column.name, f"unit {label}: {by}")
        if label is not None:
            self.units[column.name] = label
            return
        self.units.pop(column.name, None)
        words = f"{written!r} is not a unit of {column.title}" if written else f"the unit of {column.title} is missing"
        # columns of the same unit without it are answered with this one
        alike = [
            n for n in self.columns if self.by_name[n].unit == core_unit and not self._stated_unit(self.columns[n])
        ]
        choices = [(unit, {"units": dict.fromkeys([column.name, *alike], unit)}) for unit in self._likely(column)]
        self.problem(self.header, index, words, f"Choose the unit: {', '.join(UNITS[core_unit])}.", choices=choices)

    def _likely(self, column: Column) -> list[str]:
        """Units of a column, the one first in which its values are most like what its quantity usually is."""
        units = list(UNITS[column.unit or ""])
        usual = next((v for q, v in USUAL.items() if column.quantity.startswith(q) and column.quantity), None)
        below = self.sheet.rows[(-1 if self.header is None else self.header) + 1 :]
        texts = [with_unit(row[self.columns[column.name]].text)[0] for row in below[:200]]
        # 0,600 is six tenths or six hundred
        middles = []
        for style in STYLES:
            values = sorted(abs(float(v)) for t in texts if (v := readings(t).get(style)))
            middles += [values[len(values) // 2]] if values and values[len(values) // 2] else []
        if usual is None or not middles:
            return units

        def unlike(unit: str) -> float:
            return min(abs(log10(m * factor(unit, column.unit or "") / usual)) for m in middles)

        return sorted(units, key=unlike)

    def _unit_from_context(self, column: Column, index: int, core_unit: str) -> str | None:
        """The unit of a column whose heading has none: of its cells, of a note, as before, or none at all."""
        ratio = core_unit == "m or share" and self.header is not None
        words = [self.sheet.rows[self.header or 0][index].text, *self.sheet.notes]
        ratio = ratio and any(re.search(r"(?i)ratio|\bindex\b|\bindices\b", w) for w in words)
        found = (
            (self._unit_of_cells(index, core_unit), "in its cells", True),
            (self._unit_of_shares(column, index), "the column adds up to it", False),
            (self._unit_of_notes(core_unit, ratio), "from a note on the table", False),
            ("-" if ratio else None, "a ratio without a unit has none", True),
            (self.proposed_units.get(column.name), "as in the last similar table", False),
            ("-" if column.plain else None, "without one, it has none", True),
        )
        for label, why, sure in found:
            if label is not None:
                self.known_by(column.name, f"unit {label}: {why}", sure=sure)
                return label
        return None

    def _unit_of_shares(self, column: Column, index: int) -> str | None:
        """Shares of the mass add up to nearly one, or to nearly a hundred percent; None where they do neither."""
        if not column.quantity.startswith(("mass_ratio", "mass_running")):
            return None
        shares = [n for n in self.columns if self.by_name[n].quantity.startswith(("mass_ratio", "mass_running"))]
        # of a table whose other shares state theirs, as those about the vertical seldom do
        reported = {self._adds_up(self.by_name[n], self.columns[n]) for n in shares} - {None}
        return self._adds_up(column, index) or (reported.pop() if len(reported) == 1 else None)

    def _adds_up(self, column: Column, index: int) -> str | None:
        below = self.sheet.rows[(-1 if self.header is None else self.header) + 1 :]
        styles = {s for row in below for s in readings(row[index].text)}
        values = [
            float(v) for row in below if (v := readings(row[index].text).get("point" if "point" in styles else "comma"))
        ]
        complete = max(values, default=0.0) if column.quantity.startswith("mass_running") else sum(values)
        return "-" if 0.5 <= complete <= 1.02 else "%" if 50.0 <= complete <= 102.0 else None

    def _unit_of_notes(self, core_unit: str, ratio: bool = False) -> str | None:
        """The one unit of a quantity that the lines over and under the table name; None for none, or several.

        ratio : whether the values are ratios, which have no unit but percent or per mille
        """
        named = [unit for note in self.sheet.notes for unit in units_in(note)]
        labels = {label for unit in named if (label := known_unit(unit, core_unit))}
        labels = labels & {"%", "\u2030"} if ratio else labels - {"-", "%"}
        if core_unit == "kN*m" and not labels:
            force = {label for unit in named if (label := known_unit(unit, "kN"))}
            length = {label for unit in named if (label := known_unit(unit, "m"))}
            labels = {known_unit(f"{f} {m}", core_unit) or "" for f in force for m in length} - {""}
        return labels.pop() if len(labels) == 1 else None

    def _stated_unit(self, index: int) -> str:
        if self.header is None:
            return ""
        unit = heading_unit(self.sheet.rows[self.header][index].text)
        below = self.header + 1
        if not unit and below < len(self.sheet.rows) and self.is_unit_row(below):
            unit = self.sheet.rows[below][index].text.strip("[]() ")
        return unit

    def _unit_of_cells(self, index: int, core_unit: str) -> str | None:
        """The unit that is written after the numbers of a column, the same in all of its cells.

        None where there is none.
        """
        below = self.sheet.rows[(-1 if self.header is None else self.header) + 1 :]
        numbers = [with_unit(_without_mark(row[index].text)) for row in below if row[index].text]
        labels = {known_unit(unit, core_unit) for number, unit in numbers if readings(number)}
        label = labels.pop() if len(labels) == 1 else None
        return label

    def is_unit_row(self, row: int) -> bool:
        """Whether a row holds units and nothing else."""
        cells = [c.text.strip("[]() ") for c in self.sheet.rows[row] if c.text]
        # a 1 can be written for no unit, but a row of numbers is none of units
        named = any(not readings(c) for c in cells)
        return named and all(c in ("-", "") or any(known_unit(c, u) for u in UNITS) for c in cells)

    # rows and cells

    def rows(self) -> list[int]:
        """Rows that hold values; headings (repeated ones too), blank rows and totals are excluded."""
        retained = []
        first = self.columns.get("story", self.columns.get("name", 0))
        start = -1 if self.header is None else self.header
        heading = [c.text for c in self.sheet.rows[self.header]] if self.header is not None else None
        places = list(self.columns.values())
        beyond = (
            max(
                (i for i, text in enumerate(heading or ()) if text),
                default=len(self.sheet.rows[0]) if self.sheet.rows else 0,
            )
            + 1
        )
        for i, row in enumerate(self.sheet.rows):
            expected = i in self.given.taken_in
            if i <= start or i in self.given.left_out or (i in self.sheet.lines and not expected):
                self.skipped.append(i)
                continue
            blank = not any(row[c].text for c in places)
            total = _is_total(row[first].text) or _is_total(row[0].text)
            again = heading is not None and row[first].text == heading[first] and [c.text for c in row] == heading
            unit_row = i == start + 1 and self.header is not None and self.is_unit_row(i)
            if (blank or again or total or unit_row) and not expected:
                self.skipped.append(i)
            else:
                retained.append(i)
                if len(row) > beyond:
                    self._ask_about_more_cells(i, beyond)
                short = next((c for c in places if row[c].absent), None)
                if short is not None:
                    words = "the row has fewer cells than the table has headings"
                    self.problem(
                        i, short, words, "Give every row as many cells as there are headings, including blank cells."
                    )
        if retained and self._is_sum(retained[-1], retained[:-1], first):
            self.skipped.append(retained.pop())
        if not retained:
            self.problem(None, None, "there are no rows of values in it", "Paste the table with its rows of values.")
        return retained

    def _is_sum(self, row: int, above: Sequence[int], first: int) -> bool:
        """Whether a last row without a name has the sums of the rows above, of values that add up."""
        if self.sheet.rows[row][first].text or len(above) < 2:
            return False
        found = False
        for name, index in self.columns.items():
            text = self.sheet.rows[row][index].text
            if not text or self.by_name[name].unit is None:
                continue
            values = [readings(self.sheet.rows[r][index].text) for r in (*above, row)]
            sums = [[float(v[s]) for v in values if s in v] for s in STYLES]
            agrees = any(len(x) == len(values) and abs(sum(x[:-1]) - x[-1]) <= 0.005 * abs(x[-1]) for x in sums)
            if not agrees or self.by_name[name].quantity not in ("w", "m", "F", "load_amount"):
                return False
            found = True
        return found

    def _ask_about_more_cells(self, row: int, beyond: int) -> None:
        """A number beyond the last heading: a separator that is in a number has parted it."""
        for index, cell in enumerate(self.sheet.rows[row][beyond:], beyond):
            if cell.text and readings(cell.text) and index not in self.sheet.unused:
                words = "the row has more cells than the table has headings"
                remedy = "Save the table with another separator, or with quotes around its cells."
                self.problem(row, index, words, remedy)
                return

    def text(self, row: int, name: str) -> str:
        """Text of a cell; '' where the table has no such column, or the cell says that nothing is stated."""
        index = self.columns.get(name)
        text = self.sheet.rows[row][index].text if index is not None else ""
        if len(text) <= 4 and text.lower() in NOT_STATED and self.by_name[name].unit is not None:
            return ""
        return text

    def is_formula(self, row: int, name: str) -> bool:
        """Whether a cell holds a formula, which is noted as a problem."""
        index = self.columns[name]
        if self.sheet.rows[row][index].formula:
            self.problem(row, index, "this cell holds a formula", "Enter the value: copy and paste as values.")
            return True
        return False

    def style(self, name: str) -> Style | None:
        """How the decimals of a column are written; None with the question noted at its heading."""
        if (known := self._styles.get(name)) is not None:
            return known
        if self.given.numbers in STYLES:
            return "comma" if self.given.numbers == "comma" else "point"
        if name not in self._styles:
            below = self.sheet.rows[(-1 if self.header is None else self.header) + 1 :]
            index = self.columns[name]
            texts = [with_unit(_without_mark(row[index].text))[0] for row in below]
            cells = (c.text for row in below for c in row)
            comma = any(_COMMA_LANGUAGE.search(t) for t in (*self._heading(), *self.sheet.notes))
            written = style_of(texts, cells, self._plausible(name, texts), comma_usual=comma)
            if written.style is None:
                remedy = f"State how decimals are written: as in {' or '.join(STYLES.values())}."
                words = f"it is not clear how the numbers are written: {written.why}"
                choices = [(f"as in {example}", {"numbers": style}) for style, example in STYLES.items()]
                self.problem(self.header, index, words, remedy, choices=choices)
            elif written.style == "comma":
                self.known_by(name, f"decimals with a comma: {written.why}")
            self._styles[name] = written.style
        return self._styles[name]

    def _plausible(self, name: str, texts: list[str]) -> list[Style]:
        """Styles in which all numbers of a column are such as its quantity can have.

        None where nothing is known of it.
        """
        column = self.by_name[name]
        bounds, unit = PLAUSIBLE.get(column.quantity), self.units.get(name)
        if bounds is None or unit is None or unit not in UNITS[column.unit or ""]:
            return []
        by = factor(unit, column.unit or "")
        styles: list[Style] = []
        for style in STYLES:
            values = [abs(float(found[style])) * by for text in texts if style in (found := readings(text))]
            if values and all(bounds[0] <= v <= bounds[1] for v in values if v):
                styles.append(style)
        return styles

    def number(self, row: int, name: str, title: str = "", *, positive: bool | None = None) -> tuple[float, str] | None:
        """(number, as plain text) of a cell with its sign, or None with the problem noted."""
        index, column = self.columns[name], self.by_name[name]
        cell, known = self.sheet.rows[row][index], self._styles.get(name)
        above_zero = column.positive if positive is None else positive
        unusual = known is None or cell.formula or cell.confidence is not None
        written = None if unusual or known is None else plain_in(cell.text, known)
        if written is not None:
            # as nearly all cells of a long table are
            value = float(written)
            if abs(value) != float("inf") and (value > 0 or not above_zero):
                return value, written
        title = title or column.title
        text = cell.text
        if self.is_formula(row, name) or self._is_unsure(row, index):
            return None
        if not text or _states_nothing(text):
            self.problem(row, index, f"{title} is missing", "Enter a number, or exclude the row.")
            return None
        style = self.style(name)
        if style is None:
            return None
        text, unit = with_unit(_without_mark(text))
        if unit and not is_unit_text(unit):
            self.problem(row, index, f"{self.sheet.rows[row][index].text[:40]!r} is not a number", "Give a number.")
            return None
        if unit and (label := self.units.get(name)) is not None and known_unit(unit, column.unit or "") != label:
            words = f"{unit[:20]!r} is in the cell, but the column is in {label}"
            self.problem(row, index, words, "Give all values of a column in one unit.")
            return None
        plain = readings(text).get(style)
        value = float("inf") if plain is None else float(plain)
        if plain is None or abs(value) == float("inf"):
            self.problem(row, index, f"{text[:40]!r} is not a number", "Give a number.")
            return None
        if above_zero and value <= 0:
            self.problem(row, index, f"{title} is {plain}; it has to be above zero", "Correct the value.")
            return None
        return value, plain

    def _is_unsure(self, row: int, index: int) -> bool:
        """Whether a number was read off an image with little confidence, and nobody has confirmed it."""
        cell = self.sheet.rows[row][index]
        place = self.sheet.place(row, index)
        key = f"row {place[0] + 1}, column {letter_of(place[1])}"
        if cell.confidence is None or cell.confidence >= SURE or not cell.text or key in self.given.confirmed:
            return False
        words = f"{cell.text[:40]!r} was read off an image with {cell.confidence:.0%} confidence"
        choices = [(f"it is {cell.text[:40]}", {"confirmed": [*self.given.confirmed, key]})]
        self.problem(row, index, words, "Compare it with the page; exclude the row where it is wrong.", choices=choices)
        return True

    def scaled(self, row: int, name: str) -> float | None:
        """Number of a cell in the core's unit; None where it is bad, or its unit is not known."""
        number = self.number(row, name)
        unit = self.units.get(name)
        return None if number is None or unit is None else number[0] * factor(unit, self.by_name[name].unit or "")

    def word(self, row: int, name: str) -> Any:
        """What a cell that is one of a few words represents; None with the problem noted."""
        column = self.by_name[name]
        words = column.words or {}
        text = self.text(row, name)
        word = " ".join(text.lower().split())
        if word not in words:
            statement = f"{text[:40]!r} is not recognised as {column.title}"
            self.problem(row, self.columns[name], statement, f"Write one of: {', '.join(words)}.")
        return words.get(word)

    def name(self, row: int, column: str, title: str) -> str | None:
        """A name that a cell holds, or None with the problem noted."""
        text, index = self.text(row, column), self.columns[column]
        if self.is_formula(row, column):
            return None
        if not text:
            self.problem(row, index, f"{title} is missing", f"Name the {title}.")
        elif not is_safe_name(text):
            remedy = "Use up to 60 letters, digits, spaces and . , : + - / ( ) # & %."
            self.problem(row, index, f"{text[:40]!r} is not a valid name", remedy)
        else:
            return text
        return None

    def source(self, row: int, name: str) -> Source:
        """Place of a cell."""
        index = self.columns[name]
        sheet = self.sheet
        cell = sheet.rows[row][index]
        note = "" if cell.confidence is None else f"read off an image with {cell.confidence:.0%} confidence"
        row, index = cell.at or (row + sheet.shift[0], index + sheet.shift[1])
        return Source.made_of(file=self.file, sheet=self.sheet.name, row=row + 1, column=letter_of(index), note=note)


@lru_cache(maxsize=20_000)
def is_safe_name(text: str) -> bool:
    """Whether a text can be the name of a story or of a case."""
    return _SAFE_NAME.fullmatch(text) is not None
