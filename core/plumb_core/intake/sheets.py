"""Files and pasted text become sheets of cells; nothing is interpreted yet."""

from __future__ import annotations

import csv
import datetime
import io
import re
import zipfile
from dataclasses import dataclass, replace
from typing import Any

from plumb_core.intake.cells import Cell
from plumb_core.intake.pdf import PdfRefused, tables_of
from plumb_core.intake.wide import long_form

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

    page : of the document that it stands on, from 1; None where it has no pages
    """

    name: str
    rows: tuple[tuple[Cell, ...], ...]
    page: int | None = None


def _sheet(name: str, rows: list[list[Cell]]) -> Sheet:
    # what only looks empty doesn't count: workbooks often hold formats far below and beside their tables
    rows = [_without_blanks(r) for r in rows]
    while rows and not rows[-1]:
        rows.pop()
    if len(rows) > MAX_ROWS or any(len(r) > MAX_COLUMNS for r in rows):
        raise SheetRefused(
            f"the table {name!r} has more than {MAX_ROWS} rows or {MAX_COLUMNS} columns",
            "Hand in the table alone, without the rest of the sheet.",
        )
    rows = long_form(rows)
    width = max((len(r) for r in rows), default=0)
    return Sheet(name, tuple(tuple(r) + (Cell(""),) * (width - len(r)) for r in rows))


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
    lines = [line for line in text.splitlines() if line.strip()]
    separator = next((s for s in "\t;," if sum(s in line for line in lines) * 2 >= len(lines)), None)
    if separator is None:
        raise SheetRefused("no columns are to be seen in it", "Copy the cells of a table, with the headings.")
    try:
        rows = [[_text_cell(c) for c in row] for row in csv.reader(io.StringIO(text), delimiter=separator)]
    except csv.Error as error:
        raise SheetRefused(
            f"the text can't be read as a table: {error}", "Save it as CSV or paste the cells."
        ) from None
    return _sheet(name, rows)


def _as_seen(value: object, number_format: str) -> Cell:
    """A cell as its format shows it, where the format changes what is read: percent, thousands left out, dates."""
    if value is None:
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
        return Cell(f"{shown:.12g}{' %' if '%' in first else ''}")
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
    sheets, on_page = [], 0
    for i, (page, table) in enumerate(tables):
        on_page = on_page + 1 if i and tables[i - 1][0] == page else 1
        named = _sheet(f"page {page}, table {on_page}", [[_text_cell(text) for text in row] for row in table])
        sheets.append(replace(named, page=page))
    return sheets


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
