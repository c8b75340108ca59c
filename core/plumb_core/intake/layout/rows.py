"""What a row of a sheet is: blank, a line of text, units, or data."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from plumb_core.intake.cells import Cell, is_unit_text
from plumb_core.intake.numbers import readings, with_unit

Rows = list[list[Cell]]
Shift = tuple[int, int]
"""Rows and columns between the first cell of a sheet and that of a part of it."""


def held(row: Sequence[Cell], most: int = 1_000_000) -> list[str]:
    """Texts of the cells that are not blank, the first ones."""
    texts: list[str] = []
    for cell in row:
        if cell.text:
            texts.append(cell.text)
            if len(texts) >= most:
                break
    return texts


def texts_of(row: Sequence[Cell]) -> tuple[str, ...]:
    """Texts of all cells."""
    return tuple(c.text for c in row)


def is_blank(row: Sequence[Cell]) -> bool:
    """Whether nothing is in a row."""
    return not held(row, 1)


def is_number(text: str) -> bool:
    """Whether a text is a number, with its unit or without."""
    return bool(readings(text)) or bool(readings(with_unit(text)[0]))


def is_data(row: Sequence[Cell]) -> bool:
    """Whether a number is in a row."""
    return any(c.text and is_number(c.text) for c in row)


def is_line(row: Sequence[Cell]) -> bool:
    """Whether a row is a line of text: one cell, or one that is merged over all."""
    first = held(row, 2)
    if len(first) < 2:
        return bool(first) and (bool(row[0].text) or len(first[0].split()) > 3)
    return first[0] == first[1] and bool(row[0].text) and len(set(held(row))) == 1


def is_units(row: Sequence[Cell]) -> bool:
    """Whether a row holds units and nothing else."""
    texts = held(row)
    return bool(texts) and all(is_unit_text(t) for t in texts)


def placed(row: Sequence[Cell], i: int, shift: Shift = (0, 0)) -> list[Cell]:
    """The cells of the row i with the places where they are on their sheet."""
    return [c if c.at is not None else replace(c, at=(i + shift[0], k + shift[1])) for k, c in enumerate(row)]


def even(rows: Rows) -> Rows:
    """Rows of one length."""
    width = max((len(r) for r in rows), default=0)
    return [r if len(r) == width else [*r, *[Cell("")] * (width - len(r))] for r in rows]
