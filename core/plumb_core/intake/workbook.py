"""Workbooks as they are seen.

What is hidden is not there, formats that change a value are applied, merged cells are filled.

The parts of an XLSX file are read as a stream, once: the usual library builds every cell twice to state formulas
from values, and
took half a minute for a hundred thousand rows.
"""

from __future__ import annotations

import io
import re
import zipfile
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass, field
from functools import cache, lru_cache
from typing import IO, Any
from xml.etree.ElementTree import iterparse
from xml.parsers.expat import ParserCreate

from plumb_core.intake.cells import Cell, is_unit_text

_COLUMN = re.compile(r"([A-Z]+)(\d+)")
_BLANK = Cell("")
_SPACES = (
    "{http://schemas.openxmlformats.org/spreadsheetml/2006/main}",
    "{http://purl.oclc.org/ooxml/spreadsheetml/main}",
    "{http://schemas.openxmlformats.org/package/2006/relationships}",
)
"""Namespaces of the format, the older and the strict one."""


class WorkbookRefused(ValueError):
    """The file is too large, or no workbook; carries the remedy."""

    def __init__(self, message: str, remedy: str):
        self.message, self.remedy = message, remedy
        super().__init__(message)


@dataclass(frozen=True)
class Limits:
    """What a workbook may hold: bytes when it is unpacked, rows and columns of a sheet."""

    unpacked: int
    rows: int
    columns: int


@dataclass
class _Book:
    """What the cells of all sheets refer to."""

    texts: list[str] = field(default_factory=list)
    formats: list[str] = field(default_factory=list)
    from_1904: bool = False
    made: dict[tuple[str, str, str], Cell] = field(default_factory=dict)


def read_workbook(data: bytes, limits: Limits) -> list[tuple[str, list[list[Cell]]]]:
    """(name, rows) of the sheets of a workbook that are visible; raises WorkbookRefused."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            if sum(i.file_size for i in packed.infolist()) > limits.unpacked:
                raise WorkbookRefused(
                    f"the workbook unpacks to more than {limits.unpacked // 1_000_000} MB", "Upload only the tables."
                )
            book, sheets = _book(packed)
            return [(name, _rows(packed, part, book, name, limits)) for name, part in sheets]
    except WorkbookRefused:
        raise
    except Exception as error:  # noqa: BLE001  # the parsers raise whatever a broken file makes them
        raise WorkbookRefused(
            f"this is not a readable workbook ({type(error).__name__})", "Save it again as XLSX, or as CSV."
        ) from None


class _BegunError(Exception):
    """The first element of a part is reached."""


def _elements(packed: zipfile.ZipFile, part: str, *names: str) -> Iterator[tuple[str, Any]]:
    """(name without its namespace, element) of the elements of these names, as they end; what was read is not kept."""
    with packed.open(part) as file:
        _refuse_entities(file)
    expected = {space + name: name for space in _SPACES for name in names}
    with packed.open(part) as file:
        for _, element in iterparse(file, events=("end",)):
            name = expected.get(element.tag)
            if name is not None:
                yield name, element
                element.clear()


def _refuse_entities(file: IO[bytes]) -> None:
    """Refuse a part with a document type: workbooks have none, and entities that grow or reach out are in one."""

    def refuse(*_: Any) -> None:
        raise WorkbookRefused(
            "the workbook has a document type declaration, which is not allowed", "Save it again as XLSX."
        )

    def begun(*_: Any) -> None:
        raise _BegunError

    parser = ParserCreate()
    parser.StartDoctypeDeclHandler = refuse
    parser.StartElementHandler = begun
    with suppress(_BegunError):
        parser.ParseFile(file)


def _attribute(element: Any, name: str) -> str:
    """An attribute, whatever its namespace."""
    return next((v for k, v in element.attrib.items() if k.rpartition("}")[2] == name), "")


def _book(packed: zipfile.ZipFile) -> tuple[_Book, list[tuple[str, str]]]:
    """What the sheets refer to, and (name, part) of those that are visible."""
    book = _Book()
    sheets: list[tuple[str, str]] = []
    parts = set(packed.namelist())
    links = _elements(packed, "xl/_rels/workbook.xml.rels", "Relationship")
    targets = {e.get("Id"): (e.get("Target"), e.get("Type", "")) for _, e in links}
    for name, element in _elements(packed, "xl/workbook.xml", "sheet", "workbookPr"):
        if name == "workbookPr":
            book.from_1904 = element.get("date1904") in ("1", "true")
            continue
        target, kind = targets.get(_attribute(element, "id"), ("", ""))
        if element.get("state", "visible") == "visible" and target and kind.endswith("/worksheet"):
            part = target.lstrip("/") if target.startswith("/") else f"xl/{target}"
            sheets.append((element.get("name") or "", part))
    if "xl/sharedStrings.xml" in parts:
        book.texts = [_text_of(e) for _, e in _elements(packed, "xl/sharedStrings.xml", "si")]
    if "xl/styles.xml" in parts:
        book.formats = _formats(packed)
    return book, sheets


def _text_of(element: Any) -> str:
    """Text of a string in runs, without its phonetic guide."""
    texts = []
    for part in element:
        name = part.tag.rpartition("}")[2]
        if name == "t":
            texts.append(part.text or "")
        elif name == "r":
            texts += [t.text or "" for t in part if t.tag.rpartition("}")[2] == "t"]
    return "".join(texts)


def _formats(packed: zipfile.ZipFile) -> list[str]:
    """The number format of each cell style."""
    from openpyxl.styles.numbers import BUILTIN_FORMATS  # type: ignore[import-untyped]

    entry: dict[int, str] = {}
    used: list[int] = []
    for name, element in _elements(packed, "xl/styles.xml", "numFmt", "cellXfs"):
        if name == "numFmt":
            entry[int(element.get("numFmtId"))] = element.get("formatCode", "")
        else:
            used = [int(xf.get("numFmtId", 0)) for xf in element]
    return [entry.get(i, BUILTIN_FORMATS.get(i, "General")) for i in used]


def _rows(packed: zipfile.ZipFile, part: str, book: _Book, name: str, limits: Limits) -> list[list[Cell]]:
    """The cells of a worksheet; hidden rows and columns keep their places and are blank."""
    rows: list[list[Cell]] = []
    hidden: list[tuple[int, int]] = []
    merged: list[tuple[int, int, int, int]] = []
    unseen: set[int] = set()
    for kind, element in _elements(packed, part, "col", "row", "mergeCell"):
        if kind == "col":
            if element.get("hidden") in ("1", "true"):
                hidden.append((int(element.get("min")), int(element.get("max"))))
        elif kind == "mergeCell":
            merged.append(_block(element.get("ref") or "A1"))
        else:
            number = int(element.get("r") or len(rows) + 1)
            cells = _cells(element, book)
            if not cells:
                continue
            if number > limits.rows or len(cells) > limits.columns:
                raise WorkbookRefused(
                    f"the table {name!r} has more than {limits.rows} rows or {limits.columns} columns",
                    "Upload only the table, without the rest of the sheet.",
                )
            rows += [[] for _ in range(number - len(rows) - 1)]
            rows.append(cells)
            if element.get("hidden") in ("1", "true"):
                unseen.add(number - 1)
    for block in merged:
        _fill(rows, block)
    for i in unseen:
        rows[i] = []
    for first, last in hidden:
        for row in rows:
            for column in range(first - 1, min(last, len(row))):
                row[column] = _BLANK
    return rows


def _cells(row: Any, book: _Book) -> list[Cell]:
    """The cells of a row up to the last that is not blank."""
    cells: list[Cell] = []
    made = book.made
    for element in row:
        get = element.get
        known = None
        if len(element) == 1:
            # as nearly all cells are: a value, or a text without runs
            part = element[0]
            if part.tag[-2:] == "}v" and part.text:
                known = made.get((get("t", "n"), get("s", ""), part.text))
            elif part.tag[-3:] == "}is" and len(part) == 1 and part[0].text:
                known = made.get(("is", "", part[0].text))
        cell = known or _cell(element, book)
        if not cell.text:
            continue
        reference, following = get("r"), len(cells)
        column = _number_of(reference.rstrip("0123456789")) if reference else following
        if column == following:
            cells.append(cell)
            continue
        if column > following:
            cells += [_BLANK] * (column - following)
        cells[column : column + 1] = [cell]
    return cells


def _cell(element: Any, book: _Book) -> Cell:
    get = element.get
    kind, style = get("t", "n"), get("s", "")
    formula, value = None, ""
    for part in element:
        name = part.tag[-2:]
        if name == "}v":
            value = part.text or ""
        elif name == "}f":
            formula = part.text or ""
        elif name == "is":
            text = _text_of(part)
            return book.made.setdefault(("is", "", text), Cell(text.strip()))
    if not value:
        return Cell(f"={formula}", formula=True) if formula is not None and kind != "str" else _BLANK
    known = book.made.get((kind, style, value))
    if known is None:
        known = book.made[kind, style, value] = _as_seen(kind, value, style, book)
    return known


def _as_seen(kind: str, value: str, style: str, book: _Book) -> Cell:
    """A value as its format shows it, where the format changes what is read.

    Percent, thousands excluded, units, dates.
    """
    shown = book.formats[int(style)] if style and int(style) < len(book.formats) else "General"
    if re.fullmatch(r"\s*;;;?\s*", shown):
        return _BLANK
    if kind == "s":
        return Cell(book.texts[int(value)].strip())
    if kind == "b":
        return Cell("True" if value == "1" else "False")
    if kind != "n":
        return Cell(value.strip())
    return Cell(_number_shown(float(value), shown, book.from_1904))


_SHOWN_UNIT = re.compile(r'"\s*([^"]+?)\s*"\s*$')


@lru_cache(maxsize=500)
def _how_shown(number_format: str) -> tuple[bool, float, str]:
    """Whether a format shows dates, what it multiplies numbers by, and what it writes behind them."""
    from openpyxl.styles.numbers import is_date_format

    section = number_format.split(";")[0]
    digits = re.sub(r'"[^"]*"|\\.|\[[^\]]*\]|_.', "", section)
    # each comma behind the last digit leaves three digits out
    scaled = re.search(r"[0#?](,+)(?![0#?])", digits)
    factor = (100.0 if "%" in digits else 1.0) / (1000.0 ** len(scaled.group(1)) if scaled else 1.0)
    unit = _SHOWN_UNIT.search(section)
    # a k behind thousands excluded is no kip
    behind = f" {unit.group(1)}" if unit and unit.group(1) != "k" and is_unit_text(unit.group(1)) else ""
    return bool(is_date_format(number_format)), factor, " %" if "%" in digits else behind


def _number_shown(value: float, number_format: str, from_1904: bool) -> str:
    date, factor, behind = _how_shown(number_format)
    if date:
        from openpyxl.utils.datetime import (  # type: ignore[import-untyped]
            CALENDAR_MAC_1904,
            CALENDAR_WINDOWS_1900,
            from_excel,
        )

        return str(from_excel(value, CALENDAR_MAC_1904 if from_1904 else CALENDAR_WINDOWS_1900))
    return f"{value * factor:.12g}{behind}"


@cache
def _number_of(letters: str) -> int:
    """0-based number of a column by its letters."""
    number = 0
    for letter in letters:
        number = 26 * number + ord(letter) - 64
    return number - 1


def _block(reference: str) -> tuple[int, int, int, int]:
    """First row, first column, last row, last column of a block of cells, 0-based."""
    ends = [_COLUMN.fullmatch(part) for part in reference.replace("$", "").split(":")]
    places = [(int(m.group(2)) - 1, _number_of(m.group(1))) for m in ends if m]
    return (*places[0], *places[-1])


def _fill(rows: list[list[Cell]], block: tuple[int, int, int, int]) -> None:
    """Write the first cell of a merged block into all that it covers, as far as the sheet holds rows."""
    top, left, bottom, right = block
    cell = rows[top][left] if top < len(rows) and left < len(rows[top]) else _BLANK
    if not cell.text:
        return
    # What is merged beyond the widest row covers nothing
    width = max(map(len, rows))
    for row in rows[top : bottom + 1]:
        last = min(right, width - 1)
        if len(row) <= last:
            row += [_BLANK] * (last + 1 - len(row))
        row[left : last + 1] = [cell] * (last + 1 - left)
