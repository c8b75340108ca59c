"""Files and pasted text become sheets of cells; nothing is interpreted yet."""

from __future__ import annotations

import csv
import io
import re
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, replace

from plumb_core.intake import pdf
from plumb_core.intake.cells import Cell
from plumb_core.intake.collector import paused
from plumb_core.intake.pdf import PageTable, PdfRefused, tables_of
from plumb_core.intake.pictures import as_page, is_picture
from plumb_core.intake.workbook import Limits, WorkbookRefused, read_workbook

MAX_BYTES = 20_000_000
MAX_UNPACKED = 100_000_000
MAX_ROWS = 500_000
MAX_COLUMNS = 1_000


class SheetRefused(ValueError):
    """The file cannot be read as a table; carries the remedy."""

    def __init__(self, message: str, remedy: str):
        self.message = message
        self.remedy = remedy
        super().__init__(message)


@dataclass(frozen=True, slots=True)
class Sheet:
    """A table of cells; all rows have the same length.

    Attributes
    ----------
    page : of the document that it is on, from 1; None where it has no pages
    part : number of the table on its sheet, from 1; None where it is the only one
    kind : of table that it looks like, once it is arranged; '' where it looks like none
    header : row of its headings, once they are found
    lines : rows that are lines of text and hold no values
    notes : what those lines say, and those over the table
    unused : columns that another table is made of
    shift : rows and columns between the first cell of its sheet and its first cell
    groups : rows that are written out of one row for several stories
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
    shift: tuple[int, int] = (0, 0)
    groups: frozenset[int] = frozenset()

    def place(self, row: int, column: int) -> tuple[int, int]:
        """Row and column, 0-based, where a cell is on its sheet."""
        at = self.rows[row][column].at if row < len(self.rows) and column < len(self.rows[row]) else None
        return at or (row + self.shift[0], column + self.shift[1])

    @property
    def label(self) -> str:
        """What states the table from the others of its file."""
        return self.name if self.part is None else f"{self.name}, table {self.part}"


_BLANK, _ABSENT = Cell(""), Cell("", absent=True)


def _sheet(name: str, rows: list[list[Cell]], beyond: Cell = _BLANK) -> Sheet:
    """A sheet of rows that may end early; `beyond` marks the end."""
    # What only looks empty does not count: workbooks often hold formats far below and beside their tables
    rows = [_without_blanks(r) if not beyond.absent or not any(c.text for c in r) else r for r in rows]
    while rows and not rows[-1]:
        rows.pop()
    if len(rows) > MAX_ROWS or any(len(r) > MAX_COLUMNS for r in rows):
        raise SheetRefused(
            f"the table {name!r} has more than {MAX_ROWS} rows or {MAX_COLUMNS} columns",
            "Upload only the table, without the rest of the sheet.",
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
        raise SheetRefused(f"the text is larger than {MAX_BYTES // 1_000_000} MB", "Upload one table at a time.")
    if "\x00" in text:
        raise SheetRefused("the text has binary data", "Copy the cells of the table and paste them as text.")
    if not text.strip():
        raise SheetRefused("there is nothing in it", "Copy the table with its headings and paste it.")
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    lines = [line for line in text.split("\n") if line.strip()]
    if _is_log(lines, name):
        return _log_sheet(name, text)
    separator = next((s for s in "\t;" if sum(s in line for line in lines) * 2 >= len(lines)), None)
    if separator is None:
        rows = _between_bars(text) or _of_fixed_width(text) or _equations(lines)
        if rows is None and (rows := _between_commas(text, lines)) is not None:
            return _sheet(name, rows, _ABSENT)
        if rows is None and (rows := _between_blanks(text)) is None:
            if _LOG.search(name):
                return _log_sheet(name, text)
            raise SheetRefused(
                "no columns were found in it",
                (
                    "Copy the cells of a table with its headings. For a run log, name the file a log or use "
                    "the heading Line."
                ),
            )
        return _sheet(name, rows)
    return _sheet(name, _separated(text, separator), _ABSENT)


_LOG = re.compile(r"(?i)(?<![a-z])(run ?)?(log|lines?|messages?|warnings?)(?![a-z])")
"""Names of files and headings of lines of text."""
_LOG_LINE = re.compile(
    r"(?i)^[\W\d]*(warning|error|fatal|note|info|caution)\b\W|\*+\s*(warning|error)|\b(number of )?equations\b|"
    r"\bmodes?\b.*\b(found|extracted|requested|computed)\b|\b(found|extracted|computed) \d+ modes?\b|"
    r"\banalysis\b.*\b(complete|completed|finished|started|begun|begins|ends|terminated|"
    r"stopped|aborted|failed)\b|\bsingular|ill-?condition|"
    r"\bconverge(d|nce)?\b|\beigen(value|values|solution)?\b|"
    r"\biterations?\b|\binstabilit|\bno stiffness\b|\bdegrees of freedom\b|\b(elapsed|cpu|run) time\b|"
    r"\b(lost|accuracy) digits?\b|\bsolver\b|\bassembl(ed|ing)\b|\bfactori[sz](ed|ing)\b|\bjoints?\b.*\bnot connected\b"
)
"""Lines that only the log of an analysis has."""


SAMPLE = 200
"""Lines of a text by which a log is known."""


def _is_log(lines: list[str], name: str) -> bool:
    """Whether lines are a run log: by their heading, or as many of them are such as only a log has."""
    lines = lines[:SAMPLE]
    columns = sum(bool(re.search(r"\t|;|\|", line)) for line in lines)
    hits = sum(bool(_LOG_LINE.search(line)) for line in lines)
    if columns * 2 >= len(lines):
        return hits == len(lines)
    if _LOG.fullmatch(lines[0].strip()):
        return True
    if _has_columns(lines) and 2 * hits < len(lines):
        # notes over a table
        return False
    prose = sum(len(re.findall(r"[A-Za-z]{2,}", line)) >= 2 for line in lines)
    named = bool(_LOG.search(name))
    return ((hits >= 2 or (named and hits >= 1) or (hits == len(lines))) and prose * 2 >= len(lines)) or (
        named and prose * 5 >= 4 * len(lines) and not _has_columns(lines)
    )


def _has_columns(lines: list[str]) -> bool:
    """Whether most lines have several cells, between commas or wide blanks."""
    return any(sum(bool(re.search(p, line)) for line in lines) * 2 >= len(lines) for p in (",", r"\S {2,}\S"))


def _log_sheet(name: str, text: str) -> Sheet:
    """Lines of a log below a heading; a heading of their own is not repeated."""
    lines = text.split("\n")
    while lines and not lines[-1].strip():
        lines.pop()
    start = next(i for i, line in enumerate(lines) if line.strip())
    own = bool(_LOG.fullmatch(lines[start].strip()))
    head = [] if own else [[Cell("Line")]]
    rows = [[Cell(line.strip().strip("\ufeff"), at=None if own else (i, 0))] for i, line in enumerate(lines)]
    sheet = _sheet(name, head + rows)
    return replace(sheet, kind="log", header=start if own else 0)


def _separated(text: str, separator: str) -> list[list[Cell]]:
    made: dict[str, Cell] = {}

    def cell(text: str) -> Cell:
        # the same text is in many cells of a long table
        if (known := made.get(text)) is None:
            known = made[text] = _text_cell(text)
        return known

    try:
        return [[cell(c) for c in row] for row in csv.reader(io.StringIO(text), delimiter=separator)]
    except csv.Error as error:
        raise SheetRefused(
            f"the text cannot be read as a table: {error}", "Save it as CSV or paste the cells."
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
    lines = ["" if _RULE.fullmatch(line) else line for line in text.expandtabs(8).split("\n")]
    # a line over the first blank one, and lines without numbers over the headings, can be titles with wide blanks
    for titles in range(4):
        rows = _in_columns(lines, titles)
        if rows is not None:
            return rows
    return None


_RULE = re.compile(r"[\s\-=_+|.\u2500]*[\-=_\u2500]{2}[\s\-=_+|.\u2500]*")
"""A line of dashes."""


def _in_columns(lines: list[str], titles: int) -> list[list[Cell]] | None:
    """Cells of lines in columns of letters, the first lines that are not blank as one cell each."""
    first = [i for i, line in enumerate(lines) if line.strip()][:titles]
    phrases = [
        [(line.strip(), 0, len(line))]
        if i in first
        else [(m.group(), m.start(), m.end()) for m in re.finditer(r"\S+(?: \S+)*", line)]
        for i, line in enumerate(lines)
    ]
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
    alone = {i for i, phrase in enumerate(phrases) if len(phrase) == 1}
    return rows if all("  " not in c.text for i, row in enumerate(rows) if i not in alone for c in row) else None


_EQUATION = re.compile(r"\s*([^=:]{1,40}?)\s*[=:]\s*([^=:]{1,60}?)\s*")


def _equations(lines: list[str]) -> list[list[Cell]] | None:
    """Lines of a name and a value, such as T_a = 0.62 s."""
    pairs = [m for line in lines if (m := _EQUATION.fullmatch(line)) and re.match(r"[-+]?[\d.]", m.group(2))]
    if len(pairs) < 1 or len(pairs) < 0.8 * len(lines):
        return None
    reported = [m for line in lines if (m := _EQUATION.fullmatch(line))]
    return [[Cell("Item"), Cell("Value")], *([_text_cell(m.group(1)), _text_cell(m.group(2))] for m in reported)]


def _between_blanks(text: str) -> list[list[Cell]] | None:
    """Words between single blanks, where every line has as many and most are numbers."""
    rows = [line.split() for line in text.split("\n") if line.strip()]
    if len(rows) < 2 or len(rows[0]) < 2 or any(len(r) != len(rows[0]) for r in rows):
        return None
    if sum(bool(re.match(r"[-+]?\.?\d", c)) for r in rows[1:] for c in r) * 2 < sum(map(len, rows[1:])):
        return None
    return [[_text_cell(c) for c in r] for r in rows]


def _read_xlsx(data: bytes) -> list[Sheet]:
    try:
        sheets = read_workbook(data, Limits(MAX_UNPACKED, MAX_ROWS, MAX_COLUMNS))
    except WorkbookRefused as refused:
        raise SheetRefused(refused.message, refused.remedy) from None
    return [_sheet(name, rows) for name, rows in sheets]


def _read_pdf(data: bytes) -> list[Sheet]:
    try:
        tables = tables_of(as_page(data))
    except PdfRefused as refused:
        raise SheetRefused(refused.message, refused.remedy) from None
    if not tables:
        raise SheetRefused("no tables were found in the document", "Paste the tables, or upload a workbook.")
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
    cells = [[_text_cell(text) for text in row] for row in table.rows]
    if table.confidence:
        cells = [
            [replace(cell, confidence=c) for cell, c in zip(row, of_row, strict=True)]
            for row, of_row in zip(cells, table.confidence, strict=True)
        ]
    sheet = _sheet(name, cells)
    return replace(sheet, page=table.page, notes=table.above)


@paused()
def read_file(data: bytes, name: str) -> list[Sheet]:
    """The sheets of a CSV, text, XLSX, PDF, PNG or JPEG file; raises SheetRefused with the remedy."""
    most = pdf.MAX_BYTES if data[:5] == b"%PDF-" else MAX_BYTES
    if len(data) > most:
        raise SheetRefused(f"{name} is larger than {most // 1_000_000} MB", "Upload only the tables.")
    if data[:4] == b"PK\x03\x04":
        return _read_xlsx(data)
    if data[:5] == b"%PDF-" or is_picture(data):
        return _read_pdf(data)
    for encoding in ("utf-8-sig", "utf-16", "cp1252"):
        if encoding == "utf-16" and data[:2] not in (b"\xff\xfe", b"\xfe\xff"):
            continue
        try:
            return [read_text(data.decode(encoding), name)]
        except UnicodeDecodeError:
            continue
    raise SheetRefused(f"{name} is neither text nor a workbook", "Upload CSV, XLSX or PDF, or paste text.")
