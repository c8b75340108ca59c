"""Tables on the pages of a PDF: ruled ones, and blocks of text that stands in columns. Scanned pages hold none."""

from __future__ import annotations

import io
import time
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from plumb_core.intake.numbers import readings

MAX_PAGES = 300
MAX_SECONDS = 60.0
"""Time that a file may take; hostile files are made to take for ever."""
LEAST_ROWS = 3
"""Lines of a block in columns that count as a table: headings and two rows of values."""
GAP = 0.6
"""Of the size of the letters: words that stand further apart are in different columns."""
SAME_LINE = 3.0
"""pt; what differs less in height stands on one line."""

Table = list[list[str]]


class PdfRefused(ValueError):
    """The file can't be read; carries the remedy."""

    def __init__(self, message: str, remedy: str):
        self.message, self.remedy = message, remedy
        super().__init__(message)


def tables_of(data: bytes) -> list[tuple[int, Table]]:
    """(page from 1, table) of every table of a PDF, in the order of its pages.

    Raises PdfRefused for a file that is none, is locked, is too long, or has no text.
    """
    # imported here: reading PDFs is the only use, and the imports are slow
    import pdfplumber
    from pdfminer.pdfdocument import PDFPasswordIncorrect

    started = time.monotonic()
    found: list[tuple[int, Table]] = []
    letters = 0
    try:
        with pdfplumber.open(io.BytesIO(data)) as book:
            if len(book.pages) > MAX_PAGES:
                raise PdfRefused(
                    f"the document has {len(book.pages)} pages; at most {MAX_PAGES} are read",
                    "Hand in the pages with the tables.",
                )
            for number, page in enumerate(book.pages, 1):
                if time.monotonic() - started > MAX_SECONDS:
                    raise PdfRefused(
                        f"the document takes longer than {MAX_SECONDS:.0f} s to read, at page {number}",
                        "Hand in the pages with the tables.",
                    )
                letters += len(page.chars)
                found += [(number, table) for table in _tables(page)]
                # what a page was read into isn't kept while the next ones are
                page.close()
    except PdfRefused:
        raise
    except Exception as error:  # the library raises whatever its parsers raise
        if any(isinstance(part, PDFPasswordIncorrect) for part in (error, *error.args)):
            raise PdfRefused("the document is locked with a password", "Save it without a password.") from None
        raise PdfRefused(
            f"this is no PDF that can be read ({type(error).__name__})", "Save it again, or hand in the tables."
        ) from None
    if letters == 0:
        raise PdfRefused(
            "the pages hold no text: they are pictures of pages",
            "Hand in the tables as text, as a workbook, or type their values.",
        )
    return found


def _tables(page: Any) -> Iterator[Table]:
    ruled = [[[_cell(c) for c in row] for row in table] for table in page.extract_tables()]
    yield from (table for table in ruled if _holds_values(table))
    # text in columns only where no ruled table takes it in
    if not any(map(_holds_values, ruled)):
        words = page.extract_words(keep_blank_chars=True, x_tolerance_ratio=GAP)
        yield from blocks_of(Phrase(_cell(w["text"]), w["x0"], w["x1"], w["top"]) for w in words)


def _cell(text: str | None) -> str:
    return " ".join((text or "").split())


def _holds_values(table: Table) -> bool:
    return len(table) >= 2 and max(map(len, table)) >= 2 and any(readings(c) for row in table for c in row)


@dataclass(frozen=True, slots=True)
class Phrase:
    """Words without a gap between them: text, left and right edge and height on the page, pt."""

    text: str
    left: float
    right: float
    top: float


def blocks_of(phrases: Iterable[Phrase]) -> Iterator[Table]:
    """Tables of text that stands in columns: lines of two phrases and more, under one another without a line between."""
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


def _columns(block: list[list[Phrase]]) -> Table:
    """Lines as rows: what overlaps across the page is one column."""
    edges: list[list[float]] = []
    for left, right in sorted((p.left, p.right) for line in block for p in line):
        if edges and left <= edges[-1][1]:
            edges[-1][1] = max(edges[-1][1], right)
        else:
            edges.append([left, right])
    rows = []
    for line in block:
        row = [""] * len(edges)
        for phrase in sorted(line, key=lambda p: p.left):
            at = next(i for i, (left, right) in enumerate(edges) if left <= phrase.left <= right)
            row[at] = f"{row[at]} {phrase.text}".strip()
        rows.append(row)
    return rows
