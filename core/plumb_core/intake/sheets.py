"""Files and pasted text become sheets of cells; nothing is interpreted yet."""

from __future__ import annotations

import csv
import io
import zipfile
from dataclasses import dataclass

MAX_BYTES = 20_000_000
MAX_UNPACKED = 100_000_000
MAX_ROWS = 50_000
MAX_COLUMNS = 60


class SheetRefused(ValueError):
    """The file can't be read as a table; carries the remedy."""

    def __init__(self, message: str, remedy: str):
        self.message = message
        self.remedy = remedy
        super().__init__(message)


@dataclass(frozen=True, slots=True)
class Cell:
    """Text of a cell as it stood; `formula` where the cell holds a formula and not a value."""

    text: str
    formula: bool = False


@dataclass(frozen=True, slots=True)
class Sheet:
    """A table of cells; all rows have the same length."""

    name: str
    rows: tuple[tuple[Cell, ...], ...]


def _sheet(name: str, rows: list[list[Cell]]) -> Sheet:
    if len(rows) > MAX_ROWS or any(len(r) > MAX_COLUMNS for r in rows):
        raise SheetRefused(
            f"the table {name!r} has more than {MAX_ROWS} rows or {MAX_COLUMNS} columns",
            "Hand in the table alone, without the rest of the sheet.",
        )
    width = max((len(r) for r in rows), default=0)
    return Sheet(name, tuple(tuple(r) + (Cell(""),) * (width - len(r)) for r in rows))


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


def _xlsx_cell(value: object) -> Cell:
    if value is None:
        return Cell("")
    if isinstance(value, bool):
        return Cell(str(value))
    if isinstance(value, (int, float)):
        return Cell(f"{value:.12g}")
    text = str(value).strip()
    return Cell(text, formula=text.startswith("="))


def _read_xlsx(data: bytes) -> list[Sheet]:
    # imported here: reading workbooks is the only use, and the import is slow
    from openpyxl import load_workbook  # type: ignore[import-untyped]

    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            if sum(i.file_size for i in packed.infolist()) > MAX_UNPACKED:
                raise SheetRefused("the workbook unpacks to more than 100 MB", "Hand in the tables alone.")
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=False)
        sheets = []
        for sheet in book.worksheets:
            rows = [
                [_xlsx_cell(v) for v in row[:MAX_COLUMNS]]
                for row in sheet.iter_rows(max_row=MAX_ROWS, values_only=True)
            ]
            sheets.append(_sheet(str(sheet.title), rows))
    except SheetRefused:
        raise
    except Exception as error:  # openpyxl raises whatever its parsers raise
        raise SheetRefused(
            f"this is no workbook that can be read ({type(error).__name__})", "Save it again as XLSX, or as CSV."
        ) from None
    return sheets


def read_file(data: bytes, name: str) -> list[Sheet]:
    """The sheets of a CSV, text or XLSX file; raises SheetRefused with the remedy."""
    if len(data) > MAX_BYTES:
        raise SheetRefused(f"{name} is larger than {MAX_BYTES // 1_000_000} MB", "Hand in the tables alone.")
    if data[:4] == b"PK\x03\x04":
        return _read_xlsx(data)
    for encoding in ("utf-8-sig", "utf-16", "cp1252"):
        if encoding == "utf-16" and data[:2] not in (b"\xff\xfe", b"\xfe\xff"):
            continue
        try:
            return [read_text(data.decode(encoding), name)]
        except UnicodeDecodeError:
            continue
    raise SheetRefused(f"{name} is neither text nor a workbook", "Hand in CSV, XLSX or pasted text.")
