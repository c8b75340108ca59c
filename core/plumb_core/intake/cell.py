"""A cell of a table, before anything is interpreted."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Cell:
    """Text of a cell as it stood.

    Attributes
    ----------
    formula : whether it holds a formula and no value
    at : (row, column) where it stood, 0-based, where that isn't where it is now
    """

    text: str
    formula: bool = False
    at: tuple[int, int] | None = None
