"""`python -m plumb_core.intake.reader NAME`: reads a file from standard input in a process of its own, within limits.

A file from outside can be made to take hours and gigabytes. The process that reads it ends at its limits of memory and of time,
and nothing else with it. What was read goes to standard output as JSON (`kept`, or `refused` with message and remedy); on
standard error one line after each page states how far it is: `page 12 of 40`.
"""

from __future__ import annotations

import argparse
import json
import re
import resource
import sys
from dataclasses import replace
from typing import Any

from plumb_core.intake.layout.tables import arranged
from plumb_core.intake.pdf import PageRead, PageTable, PdfRefused, page_count, pages_of, table_in, text_in
from plumb_core.intake.sheet_documents import document_of
from plumb_core.intake.sheets import SheetRefused, read_file, read_text, sheet_of_page, sheets_of_pages


def main(arguments: list[str] | None = None) -> int:
    """Read the file; returns 0, or 1 where it is refused."""
    parser = argparse.ArgumentParser(prog="reader", description="Read a file within limits.")
    parser.add_argument("--memory", type=int, default=2_000_000_000, help="bytes that the process may take")
    parser.add_argument("--seconds", type=int, default=120, help="of processor time")
    parser.add_argument("--region", default="", help="part of a page: page N, region LEFT TOP RIGHT BOTTOM, in pt")
    parser.add_argument("name", help="name of the file")
    chosen = parser.parse_args(arguments)
    resource.setrlimit(resource.RLIMIT_AS, (chosen.memory, chosen.memory))
    resource.setrlimit(resource.RLIMIT_CPU, (chosen.seconds, chosen.seconds + 5))
    reported = read_whole(sys.stdin.buffer.read(), chosen.name, chosen.region)
    json.dump(reported, sys.stdout, ensure_ascii=False, separators=(",", ":"))
    return 0 if "kept" in reported else 1


def read_whole(data: bytes, name: str, region: str = "") -> dict[str, Any]:
    """`kept` of a file, or of a region of a page of it; or why it is `refused`, with message and remedy."""
    try:
        if region:
            return {"kept": _region(data, region)}
        if data[:5] == b"%PDF-":
            return {"kept": _pages(data)}
        return {"kept": document_of(arranged(read_file(data, name)))}
    except (SheetRefused, PdfRefused) as refused:
        return {"refused": {"message": refused.message, "remedy": refused.remedy}}
    except MemoryError:
        words = "reading this file exceeds the memory limit"
        return {"refused": {"message": words, "remedy": "Upload only the tables."}}


def _pages(data: bytes) -> dict[str, Any]:
    """Pages with their tables; a document without tables is kept too, its pages are there to be assessed."""
    count = page_count(data)
    pages: list[PageRead] = []
    for page in pages_of(data):
        pages.append(page)
        print(f"page {page.number} of {count}", file=sys.stderr, flush=True)
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


if __name__ == "__main__":
    sys.exit(main())
