"""Tables on the pages of a PDF: ruled ones, and blocks of text that is in columns, of scanned pages too."""

from __future__ import annotations

import io
import time
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field, replace
from itertools import pairwise
from statistics import median
from typing import Any

from plumb_core.intake.numbers import readings
from plumb_core.intake.ocr import scanned_words

MAX_BYTES = 100_000_000
MAX_PAGES = 300
MAX_SECONDS = 60.0
"""Time that a file may take; hostile files are made to take for ever."""
LEAST_ROWS = 3
"""Lines of a block in columns that count as a table: headings and two rows of values."""
GAP = 0.6
"""Of the size of the letters: words that are further apart are in different columns."""
SAME_LINE = 3.0
"""pt; what differs less in height is on one line."""

BETWEEN = 24.0
"""pt between tables side by side at least."""
MAX_SCANNED = 40
"""Pages without text of which the image is read; each takes about a second."""
ABOVE = 80.0
"""pt over a table that its title is in."""

Box = tuple[float, float, float, float]
"""Left, top, right and bottom on a page, pt from its top left corner."""


@dataclass(frozen=True, slots=True)
class PageTable:
    """A table on a page.

    Attributes
    ----------
    page : its number, from 1
    rows : texts of the cells
    cells : the place of each cell; None where there is none
    box : the place of the table
    above : lines of text over it
    confidence : with which the text of each cell was read off an image; empty where it is text
    """

    page: int
    rows: list[list[str]]
    cells: list[list[Box | None]]
    box: Box
    above: tuple[str, ...] = ()
    confidence: list[list[float]] = field(default_factory=list)


class PdfRefused(ValueError):
    """The file cannot be read; carries the remedy."""

    def __init__(self, message: str, remedy: str):
        self.message, self.remedy = message, remedy
        super().__init__(message)


def tables_of(data: bytes) -> list[PageTable]:
    """Every table of a PDF, in the order of its pages.

    Raises PdfRefused for a file that is none, is locked, is too long, or has no text.
    """
    found: list[PageTable] = []
    started, letters, scanned = time.monotonic(), 0, 0
    with _opened(data) as book:
        for number, page in enumerate(book.pages, 1):
            if time.monotonic() - started > MAX_SECONDS:
                raise PdfRefused(
                    f"the document takes longer than {MAX_SECONDS:.0f} s to read, at page {number}",
                    "Upload only the pages with the tables.",
                )
            letters += len(page.chars)
            scanned += not page.chars
            found += _tables(page, number, scanned=scanned <= MAX_SCANNED)
            # What a page was read into is not kept while the next ones are
            page.close()
    if letters == 0 and not found:
        raise PdfRefused(
            "the pages have no text: they are images",
            "Upload the tables as text or as a workbook, or enter their values.",
        )
    return found


@dataclass(frozen=True, slots=True)
class PageRead:
    """What is on a page: its size in pt, its tables, and whether there is text on it at all."""

    number: int
    width: float
    height: float
    tables: list[PageTable]
    has_text: bool


def pages_of(data: bytes, first: int = 1, last: int | None = None) -> Iterator[PageRead]:
    """Pages of a PDF one after the other, from the first to the last (both from 1).

    Raises PdfRefused as `tables_of` does.
    """
    scanned = 0
    with _opened(data) as book:
        for number in range(first, min(last or len(book.pages), len(book.pages)) + 1):
            page = book.pages[number - 1]
            scanned += not page.chars
            tables = list(_tables(page, number, scanned=scanned <= MAX_SCANNED))
            yield PageRead(number, float(page.width), float(page.height), tables, bool(page.chars))
            page.close()


def page_count(data: bytes) -> int:
    """Number of pages; raises PdfRefused as `tables_of` does."""
    with _opened(data) as book:
        return len(book.pages)


def table_in(data: bytes, number: int, box: Box) -> PageTable | None:
    """What is in a region of a page, as a table; None where no table is visible there."""
    with _cropped(data, number, box) as page:
        return max(_tables(page, number), key=lambda t: sum(map(len, t.rows)), default=None)


def text_in(data: bytes, number: int, box: Box) -> str:
    """The words in a region of a page, line by line."""
    with _cropped(data, number, box) as page:
        return str(page.extract_text() or "").strip()


@contextmanager
def _cropped(data: bytes, number: int, box: Box) -> Iterator[Any]:
    """A region of a page; raises PdfRefused where there is no such page, or next to nothing of it."""
    with _opened(data) as book:
        if not 1 <= number <= len(book.pages):
            raise PdfRefused(f"there is no page {number}", f"The document has {len(book.pages)} pages.")
        page = book.pages[number - 1]
        left, top, right, bottom = box
        inside = (max(left, 0.0), max(top, 0.0), min(right, float(page.width)), min(bottom, float(page.height)))
        if inside[2] - inside[0] < 5 or inside[3] - inside[1] < 5:
            raise PdfRefused("the region is too small", "Drag over the table, its headings and its values.")
        yield page.crop(inside)


@contextmanager
def _opened(data: bytes) -> Iterator[Any]:
    """The document; what the library raises is refused with a remedy."""
    # imported here: reading PDFs is the only use, and the imports are slow
    import pdfplumber
    from pdfminer.pdfdocument import PDFPasswordIncorrect

    try:
        with pdfplumber.open(io.BytesIO(data)) as book:
            if len(book.pages) > MAX_PAGES:
                raise PdfRefused(
                    f"the document has {len(book.pages)} pages; at most {MAX_PAGES} are read",
                    "Upload only the pages with the tables.",
                )
            yield book
    except PdfRefused:
        raise
    except Exception as error:  # noqa: BLE001  # the library raises whatever its parsers raise
        if any(isinstance(part, PDFPasswordIncorrect) for part in (error, *error.args)):
            raise PdfRefused("the document is locked with a password", "Save it without a password.") from None
        raise PdfRefused(
            f"this is not a readable PDF ({type(error).__name__})", "Save it again, or upload the tables."
        ) from None


def _tables(page: Any, number: int, *, scanned: bool = True) -> Iterator[PageTable]:
    found: list[PageTable] = []
    if scanned and not page.chars and page.images:
        read = [Phrase(_cell(w.text), w.left, w.right, w.top, w.bottom, w.confidence) for w in scanned_words(page)]
        found = [replace(b, page=number) for b in blocks_of(read)]
        yield from (replace(t, above=_over(t, read, found)) for t in found)
        return
    for table in page.find_tables():
        rows = [[_cell(c) for c in row] for row in table.extract()]
        if _holds_values(rows):
            found.append(PageTable(number, rows, [list(r.cells) for r in table.rows], table.bbox))
    words = page.extract_words(keep_blank_chars=True, x_tolerance_ratio=GAP)
    phrases = [Phrase(_cell(w["text"]), w["x0"], w["x1"], w["top"], w["bottom"]) for w in words]
    # text in columns only where no ruled table takes it in
    if not found:
        found = [replace(b, page=number) for b in blocks_of(phrases)]
    yield from (replace(t, above=_over(t, phrases, found)) for t in found)


def _over(table: PageTable, phrases: list[Phrase], others: list[PageTable]) -> tuple[str, ...]:
    """Lines of text close over a table, from the top; what other tables hold is none of it."""
    top = table.box[1]
    near = [
        p
        for p in phrases
        if top - ABOVE <= p.top < top - SAME_LINE and not any(o.box[1] - 1 <= p.top <= o.box[3] + 1 for o in others)
    ]
    lines: dict[float, list[str]] = {}
    for phrase in sorted(near, key=lambda p: (p.top, p.left)):
        at = next((t for t in lines if abs(t - phrase.top) <= SAME_LINE), phrase.top)
        lines.setdefault(at, []).append(phrase.text)
    return tuple(" ".join(parts) for parts in lines.values())


def _cell(text: str | None) -> str:
    return " ".join((text or "").split())


def _holds_values(rows: list[list[str]]) -> bool:
    """Whether a ruled block is a table of values.

    Numbers in its cells, by themselves or among words, as in 1.2 D + 1.0 L.
    """
    return len(rows) >= 2 and max(map(len, rows)) >= 2 and any(d.isdigit() for row in rows for c in row for d in c)


@dataclass(frozen=True, slots=True)
class Phrase:
    """Words without a gap between them: text, left and right edge, top and bottom on the page, pt.

    confidence : with which they were read off an image; 1 for text
    """

    text: str
    left: float
    right: float
    top: float
    bottom: float
    confidence: float = 1.0


def blocks_of(phrases: Iterable[Phrase]) -> Iterator[PageTable]:
    """Tables of text that is in columns: lines of two phrases and more, under one another without a line between."""
    lines: list[list[Phrase]] = []
    for phrase in sorted(phrases, key=lambda p: (p.top, p.left)):
        if lines and abs(lines[-1][0].top - phrase.top) <= SAME_LINE:
            lines[-1].append(phrase)
        else:
            lines.append([phrase])
    block: list[list[Phrase]] = []
    for line in [*lines, []]:
        if len(line) >= 2:
            block.append(line)
            continue
        if _complete(block):
            yield _columns(block)
        block = []


def _complete(block: list[list[Phrase]]) -> bool:
    return len(block) >= LEAST_ROWS and sum(any(readings(p.text) for p in line) for line in block) >= LEAST_ROWS - 1


def _columns(block: list[list[Phrase]]) -> PageTable:
    """Lines as rows: what overlaps across the page is one column."""
    edges: list[list[float]] = []
    for left, right in sorted((p.left, p.right) for line in block for p in line):
        if edges and left <= edges[-1][1]:
            edges[-1][1] = max(edges[-1][1], right)
        else:
            edges.append([left, right])
    edges = _with_gaps(edges)
    rows: list[list[str]] = []
    cells: list[list[Box | None]] = []
    confidence: list[list[float]] = []
    for line in block:
        row = [""] * len(edges)
        boxes: list[Box | None] = [None] * len(edges)
        least = [1.0] * len(edges)
        for phrase in sorted(line, key=lambda p: p.left):
            at = next(i for i, (left, right) in enumerate(edges) if left <= phrase.left <= right)
            row[at] = f"{row[at]} {phrase.text}".strip()
            least[at] = min(least[at], phrase.confidence)
            boxes[at] = _around(boxes[at], (phrase.left, phrase.top, phrase.right, phrase.bottom))
        rows.append(row)
        cells.append(boxes)
        confidence.append(least)
    complete: Box | None = None
    for box in (b for boxes in cells for b in boxes if b):
        complete = _around(complete, box)
    if all(p.confidence == 1.0 for line in block for p in line):
        confidence = []
    return PageTable(0, rows, cells, complete or (0.0, 0.0, 0.0, 0.0), confidence=confidence)


def _with_gaps(edges: list[list[float]]) -> list[list[float]]:
    """The columns with a blank one in each gap that is much wider than the others: tables side by side."""
    gaps = [b[0] - a[1] for a, b in pairwise(edges)]
    if len(gaps) < 3:
        return edges
    wide = max(BETWEEN, 2.0 * median(gaps))
    parted: list[list[float]] = []
    for i, edge in enumerate(edges):
        parted.append(edge)
        if i < len(gaps) and gaps[i] > wide:
            middle = (edge[1] + edges[i + 1][0]) / 2.0
            parted.append([middle, middle])
    return parted


def _around(one: Box | None, other: Box) -> Box:
    if one is None:
        return other
    return min(one[0], other[0]), min(one[1], other[1]), max(one[2], other[2]), max(one[3], other[3])
