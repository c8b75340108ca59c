"""Files and pasted text become sheets of cells; nothing is interpreted yet."""

from __future__ import annotations

import csv
import datetime
import io
import re
import zipfile
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any

from plumb_core.intake.cells import Cell, is_unit_text
from plumb_core.intake.pdf import PageTable, PdfRefused, tables_of

MAX_BYTES = 20_000_000
MAX_UNPACKED = 100_000_000
MAX_ROWS = 500_000
MAX_COLUMNS = 1_000


class SheetRefused(ValueError):
    """The file can't be read as a table; carries the remedy."""

    def __init__(self, message: str, remedy: str):
        self.message = message
        self.remedy = remedy
        super().__init__(message)


@dataclass(frozen=True, slots=True)
class Sheet:
    """A table of cells; all rows have the same length.

    Attributes
    ----------
    page : of the document that it stands on, from 1; None where it has no pages
    part : number of the table on its sheet, from 1; None where it is the only one
    kind : of table that it looks like, once it is arranged; '' where it looks like none
    header : row of its headings, once they are found
    lines : rows that are lines of text and hold no values
    notes : what those lines say, and those over the table
    unused : columns that another table is made of
    """

    name: str
    rows: tuple[tuple[Cell, ...], ...]
    page: int | None = None
    part: int | None = None
    kind: str = ""
    header: int | None = None
    lines: frozenset[int] = frozenset()
    notes: tuple[str, ...] = ()
    unused: frozenset[int] = frozenset()

    @property
    def label(self) -> str:
        """What tells the table from the others of its file."""
        return self.name if self.part is None else f"{self.name}, table {self.part}"


_BLANK, _ABSENT = Cell(""), Cell("", absent=True)


def _sheet(name: str, rows: list[list[Cell]], beyond: Cell = _BLANK) -> Sheet:
    """A sheet of rows that may end early; `beyond` stands where they do."""
    # what only looks empty doesn't count: workbooks often hold formats far below and beside their tables
    rows = [_without_blanks(r) if not beyond.absent or not any(c.text for c in r) else r for r in rows]
    while rows and not rows[-1]:
        rows.pop()
    if len(rows) > MAX_ROWS or any(len(r) > MAX_COLUMNS for r in rows):
        raise SheetRefused(
            f"the table {name!r} has more than {MAX_ROWS} rows or {MAX_COLUMNS} columns",
            "Hand in the table alone, without the rest of the sheet.",
        )
    width = max((len(r) for r in rows), default=0)
    return Sheet(name, tuple(tuple(r) + (beyond,) * (width - len(r)) for r in rows))


def _without_blanks(row: list[Cell]) -> list[Cell]:
    end = len(row)
    while end and not row[end - 1].text:
        end -= 1
    return row[:end]


def _text_cell(text: str) -> Cell:
    text = text.strip().strip("\ufeff\u00a0")
    return Cell(text, formula=text.startswith("=") and len(text) > 1)


def read_text(text: str, name: str = "pasted") -> Sheet:
    """A pasted block or CSV text as a sheet; the separator is a tab, a semicolon or a comma.

    Raises SheetRefused where no table can be made of it.
    """
    if len(text) > MAX_BYTES:
        raise SheetRefused(f"the text is larger than {MAX_BYTES // 1_000_000} MB", "Hand in one table at a time.")
    if "\x00" in text:
        raise SheetRefused("the text holds binary data", "Copy the cells of the table and paste them as text.")
    if not text.strip():
        raise SheetRefused("there is nothing in it", "Copy the table with its headings and paste it.")
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    lines = [line for line in text.split("\n") if line.strip()]
    separator = next((s for s in "\t;" if sum(s in line for line in lines) * 2 >= len(lines)), None)
    if separator is None:
        rows = _between_bars(text) or _of_fixed_width(text) or _equations(lines)
        if rows is None and (rows := _between_commas(text, lines)) is not None:
            return _sheet(name, rows, _ABSENT)
        if rows is None and (rows := _between_blanks(text)) is None:
            if not _LOG.search(name) and not _LOG.fullmatch(lines[0].strip()):
                raise SheetRefused(
                    "no columns are to be seen in it",
                    "Copy the cells of a table, with the headings; name a run log so, or head it with the word Line.",
                )
            rows = [[_text_cell(line)] for line in text.split("\n")]
        return _sheet(name, rows)
    return _sheet(name, _separated(text, separator), _ABSENT)


_LOG = re.compile(r"(?i)(?<![a-z])(run ?)?(log|lines?|messages?|warnings?)(?![a-z])")
"""Names of files and headings of lines of text."""


def _separated(text: str, separator: str) -> list[list[Cell]]:
    try:
        return [[_text_cell(c) for c in row] for row in csv.reader(io.StringIO(text), delimiter=separator)]
    except csv.Error as error:
        raise SheetRefused(
            f"the text can't be read as a table: {error}", "Save it as CSV or paste the cells."
        ) from None


def _between_commas(text: str, lines: list[str]) -> list[list[Cell]] | None:
    return _separated(text, ",") if sum("," in line for line in lines) * 2 >= len(lines) else None


def _between_bars(text: str) -> list[list[Cell]] | None:
    """Cells between upright bars, as in plain-text documents; lines of dashes are rules."""
    lines = text.split("\n")
    if sum(line.count("|") >= 1 for line in lines) * 2 < sum(bool(line.strip()) for line in lines):
        return None
    rows = []
    for line in lines:
        cells = line.strip().strip("|").split("|")
        rule = all(re.fullmatch(r"\s*[:+=\-\u2500]*\s*", c) for c in cells) and "-" in line + line.replace("=", "-")
        rows.append([] if rule else [_text_cell(c) for c in cells])
    return rows


def _of_fixed_width(text: str) -> list[list[Cell]] | None:
    """Cells in columns of letters: two blanks part them, and what overlaps down the page is one column."""
    lines = text.expandtabs(8).split("\n")
    phrases = [[(m.group(), m.start(), m.end()) for m in re.finditer(r"\S+(?: \S+)*", line)] for line in lines]
    wide = [p for p in phrases if len(p) > 1]
    if len(wide) < 2 or len(wide) * 2 < sum(map(bool, phrases)):
        return None
    edges: list[list[int]] = []
    for left, right in sorted((a, b) for p in wide for _, a, b in p):
        if edges and left < edges[-1][1]:
            edges[-1][1] = max(edges[-1][1], right)
        else:
            edges.append([left, right])
    rows = []
    for phrase in phrases:
        row = [""] * len(edges)
        for words, left, _ in phrase if len(phrase) > 1 else ():
            at = next(i for i, (a, b) in enumerate(edges) if a <= left <= b)
            row[at] = f"{row[at]}  {words}".strip()
        if len(phrase) == 1:
            row[0] = phrase[0][0]
        rows.append([_text_cell(c) for c in row])
    return rows if all("  " not in c.text for row in rows for c in row) else None


_EQUATION = re.compile(r"\s*([^=:]{1,40}?)\s*[=:]\s*([^=:]{1,60}?)\s*")


def _equations(lines: list[str]) -> list[list[Cell]] | None:
    """Lines of a name and a value, such as T_a = 0.62 s."""
    pairs = [m for line in lines if (m := _EQUATION.fullmatch(line)) and re.match(r"[-+]?[\d.]", m.group(2))]
    if len(pairs) < 1 or len(pairs) < 0.8 * len(lines):
        return None
    told = [m for line in lines if (m := _EQUATION.fullmatch(line))]
    return [[Cell("Item"), Cell("Value")], *([_text_cell(m.group(1)), _text_cell(m.group(2))] for m in told)]


def _between_blanks(text: str) -> list[list[Cell]] | None:
    """Words between single blanks, where every line has as many and most are numbers."""
    rows = [line.split() for line in text.split("\n") if line.strip()]
    if len(rows) < 2 or len(rows[0]) < 2 or any(len(r) != len(rows[0]) for r in rows):
        return None
    if sum(bool(re.match(r"[-+]?\.?\d", c)) for r in rows[1:] for c in r) * 2 < sum(map(len, rows[1:])):
        return None
    return [[_text_cell(c) for c in r] for r in rows]


_SHOWN_UNIT = re.compile(r'"\s*([^"]+?)\s*"\s*$')


def _as_seen(value: object, number_format: str) -> Cell:
    """A cell as its format shows it, where the format changes what is read: percent, thousands left out, units, dates."""
    if value is None or re.fullmatch(r"\s*;;;?\s*", number_format):
        return Cell("")
    if isinstance(value, bool):
        return Cell(str(value))
    if isinstance(value, (int, float)):
        first = re.sub(r'"[^"]*"|\\.|\[[^\]]*\]|_.', "", number_format.split(";")[0])
        shown = float(value) * 100.0 if "%" in first else float(value)
        # each comma behind the last digit leaves three digits out
        scaled = re.search(r"[0#?](,+)(?![0#?])", first)
        if scaled:
            shown /= 1000.0 ** len(scaled.group(1))
        unit = _SHOWN_UNIT.search(number_format.split(";")[0])
        behind = " %" if "%" in first else ""
        # a k behind thousands left out is no kip
        if unit and unit.group(1) != "k" and is_unit_text(unit.group(1)):
            behind = f" {unit.group(1)}"
        return Cell(f"{shown:.12g}{behind}")
    if isinstance(value, (datetime.date, datetime.time, datetime.timedelta)):
        return Cell(str(value))
    return Cell(str(value).strip())


def _sheet_as_seen(sheet: Any, formulas: Any) -> list[list[Cell]]:
    """The cells of a worksheet without hidden rows and columns, merged ones filled; a formula without a value is one."""
    hidden = {
        k for c, d in sheet.column_dimensions.items() if d.hidden for k in range(d.min or 0, (d.max or d.min or 0) + 1)
    }
    merged = {}
    for block in sheet.merged_cells.ranges:
        for row in range(block.min_row, block.max_row + 1):
            for column in range(block.min_col, block.max_col + 1):
                merged[row, column] = (block.min_row, block.min_col)
    rows: list[list[Cell]] = []
    for number, row in enumerate(sheet.iter_rows(), 1):
        if sheet.row_dimensions[number].hidden:
            # the row keeps its place, so that rows are still told by their numbers
            rows.append([])
            continue
        cells: list[Cell] = []
        for place, cell in enumerate(row, 1):
            if place in hidden:
                # the column keeps its place, so that columns are still told by their letters
                cells.append(Cell(""))
                continue
            at = merged.get((number, place))
            source = sheet.cell(*at) if at else cell
            held = formulas.cell(source.row, source.column).value
            if isinstance(held, str) and held.startswith("=") and source.value is None:
                cells.append(Cell(held, formula=True))
            else:
                cells.append(_as_seen(source.value, source.number_format or ""))
        rows.append(cells)
    return rows


def _read_xlsx(data: bytes) -> list[Sheet]:
    # imported here: reading workbooks is the only use, and the import is slow
    from openpyxl import load_workbook  # type: ignore[import-untyped]

    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            if sum(i.file_size for i in packed.infolist()) > MAX_UNPACKED:
                raise SheetRefused("the workbook unpacks to more than 100 MB", "Hand in the tables alone.")
        values = load_workbook(io.BytesIO(data), data_only=True)
        formulas = load_workbook(io.BytesIO(data), data_only=False)
        sheets = [
            _sheet(str(sheet.title), _sheet_as_seen(sheet, formulas[sheet.title]))
            for sheet in values.worksheets
            if sheet.sheet_state == "visible"
        ]
    except SheetRefused:
        raise
    except Exception as error:  # openpyxl raises whatever its parsers raise
        raise SheetRefused(
            f"this is no workbook that can be read ({type(error).__name__})", "Save it again as XLSX, or as CSV."
        ) from None
    return sheets


def _read_pdf(data: bytes) -> list[Sheet]:
    try:
        tables = tables_of(data)
    except PdfRefused as refused:
        raise SheetRefused(refused.message, refused.remedy) from None
    if not tables:
        raise SheetRefused("no tables are to be seen in the document", "Paste the tables, or hand in a workbook.")
    return sheets_of_pages(tables)


def sheets_of_pages(tables: Iterable[PageTable]) -> list[Sheet]:
    """Tables of a PDF as sheets, each named by its page and its number on it."""
    sheets: list[Sheet] = []
    on_page: Counter[int] = Counter()
    for table in tables:
        on_page[table.page] += 1
        sheets.append(sheet_of_page(table, f"page {table.page}, table {on_page[table.page]}"))
    return sheets


def sheet_of_page(table: PageTable, name: str) -> Sheet:
    """A table of a page as a sheet; the lines over it are its notes."""
    sheet = _sheet(name, [[_text_cell(text) for text in row] for row in table.rows])
    return replace(sheet, page=table.page, notes=table.above)


def read_file(data: bytes, name: str) -> list[Sheet]:
    """The sheets of a CSV, text, XLSX or PDF file; raises SheetRefused with the remedy."""
    if len(data) > MAX_BYTES:
        raise SheetRefused(f"{name} is larger than {MAX_BYTES // 1_000_000} MB", "Hand in the tables alone.")
    if data[:4] == b"PK\x03\x04":
        return _read_xlsx(data)
    if data[:5] == b"%PDF-":
        return _read_pdf(data)
    for encoding in ("utf-8-sig", "utf-16", "cp1252"):
        if encoding == "utf-16" and data[:2] not in (b"\xff\xfe", b"\xfe\xff"):
            continue
        try:
            return [read_text(data.decode(encoding), name)]
        except UnicodeDecodeError:
            continue
    raise SheetRefused(f"{name} is neither text nor a workbook", "Hand in CSV, XLSX, PDF or pasted text.")
