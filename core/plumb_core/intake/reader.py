"""Reading a file from outside within limits of memory and processor time.

A hostile file can take hours and gigabytes to read. `serve` is the body of a process that reads one file and ends at
its limits, so that nothing else ends with it. It answers with JSON: `tables`, or `refused` with message and remedy.
"""

from __future__ import annotations

import json
import re
import resource
from collections.abc import Callable
from dataclasses import replace
from typing import Any, Protocol

from plumb_core.intake.layout.tables import arranged
from plumb_core.intake.pdf import PageRead, PageTable, PdfRefused, page_count, pages_of, table_in, text_in
from plumb_core.intake.pictures import as_page, is_picture
from plumb_core.intake.sheet_documents import document_of
from plumb_core.intake.sheets import SheetRefused, read_file, read_text, sheet_of_page, sheets_of_pages


class Connection(Protocol):
    """What `serve` needs of a connection: messages of bytes."""

    def recv_bytes(self) -> bytes:
        """Return the next message."""

    def send_bytes(self, message: bytes, /) -> None:
        """Send a message."""


def serve(connection: Connection, name: str, region: str, memory: int, seconds: int, plain: bool = False) -> None:
    """Read one file: receive its bytes, send the progress after each page, and send the result.

    Parameters
    ----------
    connection : for the bytes of the file in, and messages of JSON out
    name : name of the file
    region : part of a page as a label of `REGION`; empty for the whole file
    memory : bytes of address space that the process may use
    seconds : s of processor time that it may use
    plain : the sheets of a workbook as they are, without looking for several tables in one
    """
    data = connection.recv_bytes()
    resource.setrlimit(resource.RLIMIT_AS, (memory, memory))
    resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds + 5))

    def send(message: dict[str, Any]) -> None:
        connection.send_bytes(json.dumps(message, ensure_ascii=False, separators=(",", ":")).encode())

    send(read_whole(data, name, region, lambda page, pages: send({"page": page, "pages": pages}), plain=plain))


Progress = Callable[[int, int], None]
"""Called after each page with its number and the number of pages."""


def read_whole(
    data: bytes, name: str, region: str = "", progress: Progress | None = None, *, plain: bool = False
) -> dict[str, Any]:
    """Read a file, or a region of a page of it.

    plain : the sheets of a workbook as they are, without looking for several tables in one

    Returns
    -------
    dict
        `tables`: the document of `sheet_documents`; or `refused` with message and remedy
    """
    try:
        if region:
            return {"tables": _region(as_page(data), region)}
        if data[:5] == b"%PDF-" or is_picture(data):
            return {"tables": _pages(as_page(data), progress)}
        sheets = read_file(data, name)
        return {"tables": document_of(sheets if plain else arranged(sheets))}
    except (SheetRefused, PdfRefused) as refused:
        return {"refused": {"message": refused.message, "remedy": refused.remedy}}
    except MemoryError:
        words = "reading this file exceeds the memory limit"
        return {"refused": {"message": words, "remedy": "Upload only the tables."}}


def _pages(data: bytes, progress: Progress | None) -> dict[str, Any]:
    """Return the pages with their tables; pages without tables are kept, for the reviewer to look at."""
    count = page_count(data)
    pages: list[PageRead] = []
    for page in pages_of(data):
        pages.append(page)
        if progress is not None:
            progress(page.number, count)
    tables = [t for p in pages for t in p.tables]
    return document_of(arranged(sheets_of_pages(tables)), pages)


REGION = re.compile(r"page (\d{1,4}), region (\d{1,5}) (\d{1,5}) (\d{1,5}) (\d{1,5})")
"""Label of a part of a page: left, top, right and bottom, pt."""


def _region(data: bytes, label: str) -> dict[str, Any]:
    """What is in a part of a page: a table, or words that are read as if they were pasted."""
    match = REGION.fullmatch(label)
    if match is None:
        raise PdfRefused(f"{label!r} is not a region of a page", "Drag over the table on its page.")
    number, left, top, right, bottom = map(int, match.groups())
    box = (float(left), float(top), float(right), float(bottom))
    table = table_in(data, number, box)
    if table is None:
        words = text_in(data, number, box)
        # of prose, the lines that say what something is
        stated = [_stated(line) for line in words.splitlines() if "=" in line or ":" in line]
        try:
            sheet = replace(read_text("\n".join(stated) or words, label), page=number)
        except SheetRefused as refused:
            statement = f"no table was found there, only {words[:80]!r}" if words else "nothing was found there"
            raise PdfRefused(statement, "Drag over a table, or enter the value shown on the page.") from refused
        table = PageTable(number, [], [], box)
    else:
        sheet = sheet_of_page(table, label)
    page = document_of(arranged([sheet]), [PageRead(number, 0.0, 0.0, [table], True)])
    page["pages"][0]["tables"][0]["sheet"] = label
    return page


_IN_PROSE = re.compile(r"(?:\S+\s+){3,}?(\S+(?:\s+[XY])?)\s*=\s*(.+?)\.?\s*")


def _stated(line: str) -> str:
    """A line that says what something is; of a sentence, its symbol and its value: ... is T X = 0.61 s."""
    match = _IN_PROSE.fullmatch(line)
    return f"{match.group(1)} = {match.group(2)}" if match else line
