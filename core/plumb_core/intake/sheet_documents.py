"""What was read from a file, as JSON: its tables, and for pages the place of each cell."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from plumb_core.intake.cells import Cell
from plumb_core.intake.pdf import PageRead
from plumb_core.intake.sheets import Sheet

SheetDocument = dict[str, Any]


def document_of(sheets: Iterable[Sheet], pages: Iterable[PageRead] = ()) -> SheetDocument:
    """Tables of a file, and its pages with their tables' places, pt from the top left corner."""
    return {"sheets": [_sheet(s) for s in sheets], "pages": [_page(p) for p in pages]}


def sheets_of(document: SheetDocument) -> list[Sheet]:
    """The tables of what was kept."""
    made: dict[str, Cell] = {}
    return [_made(s, made) for s in document["sheets"]]


def summary_of(document: SheetDocument) -> list[dict[str, Any]]:
    """What states one table of a file from the others.

    Label, page, kind, rows that hold values, and its first heading line.
    """
    return [
        {
            "label": _label(s),
            "page": s["page"],
            "kind": s["kind"],
            "rows": len(s["rows"]) - len(s["lines"]) - (s["header"] is not None),
            "title": next(iter(s["notes"]), "")[:200],
        }
        for s in document["sheets"]
    ]


def _label(sheet: SheetDocument) -> str:
    return Sheet(sheet["name"], (), part=sheet["part"]).label


def _sheet(sheet: Sheet) -> SheetDocument:
    return {
        "name": sheet.name,
        "page": sheet.page,
        "part": sheet.part,
        "kind": sheet.kind,
        "header": sheet.header,
        "lines": sorted(sheet.lines),
        "notes": list(sheet.notes),
        "unused": sorted(sheet.unused),
        "shift": list(sheet.shift),
        "groups": sorted(sheet.groups),
        "rows": [[_cell(c) for c in row] for row in sheet.rows],
    }


def _cell(cell: Cell) -> Any:
    """Its text, where there is nothing more to it."""
    if cell.at is None and not cell.formula and not cell.absent and cell.confidence is None:
        return cell.text
    known = {"text": cell.text, "at": cell.at, "formula": cell.formula, "absent": cell.absent}
    return known if cell.confidence is None else known | {"confidence": cell.confidence}


def _made(sheet: SheetDocument, made: dict[str, Cell]) -> Sheet:
    return Sheet(
        name=sheet["name"],
        rows=tuple(tuple(_cell_of(c, made) for c in row) for row in sheet["rows"]),
        page=sheet["page"],
        part=sheet["part"],
        kind=sheet["kind"],
        header=sheet["header"],
        lines=frozenset(sheet["lines"]),
        notes=tuple(sheet["notes"]),
        unused=frozenset(sheet["unused"]),
        shift=(sheet["shift"][0], sheet["shift"][1]),
        groups=frozenset(sheet["groups"]),
    )


def _cell_of(cell: Any, made: dict[str, Cell]) -> Cell:
    if isinstance(cell, str):
        if (known := made.get(cell)) is None:
            known = made[cell] = Cell(cell)
        return known
    at = cell["at"]
    return Cell(cell["text"], cell["formula"], (at[0], at[1]) if at else None, cell["absent"], cell.get("confidence"))


def _page(page: PageRead) -> SheetDocument:
    return {
        "number": page.number,
        "width": page.width,
        "height": page.height,
        "has_text": page.has_text,
        "tables": [
            {
                "sheet": f"page {page.number}, table {i}",
                "box": _rounded(t.box),
                "cells": [[_rounded(c) if c else None for c in row] for row in t.cells],
            }
            for i, t in enumerate(page.tables, 1)
        ],
    }


def _rounded(box: tuple[float, float, float, float]) -> list[float]:
    return [round(float(v), 1) for v in box]
