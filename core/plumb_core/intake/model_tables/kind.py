"""What a kind of table of a model is: its columns, and how a row becomes one of the frame's document."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from plumb_core.intake.cells import CellProblem
from plumb_core.intake.columns import Column, Reading, TableReader
from plumb_core.intake.model_tables.dofs import dofs_in
from plumb_core.intake.sheets import Sheet

Values = dict[str, Any]
NAME_LENGTH = 60


def as_it_is(values: Values) -> Values:
    """A row whose columns are called as the document calls them."""
    return values


def no_fault(values: Values) -> tuple[str, str] | None:
    """For kinds whose rows need nothing beyond their required columns."""
    return None


@dataclass(frozen=True)
class ModelTableKind:
    """A kind of table of a model.

    Attributes
    ----------
    id, title : as documents and as people call it
    columns : that it can have; texts named in `dofs` hold degrees of freedom
    rank : place where kinds are offered, the smallest first
    row : the document's row of the values of a row
    fault : what is wrong with the values of a row as a whole, with its remedy; None for nothing
    """

    id: str
    title: str
    columns: tuple[Column, ...]
    rank: int
    row: Callable[[Values], Values] = as_it_is
    fault: Callable[[Values], tuple[str, str] | None] = no_fault
    dofs: tuple[str, ...] = ()


@dataclass
class ModelTableRead:
    """What was made of a table: how it was read, the rows as the frame document has them, and every problem."""

    kind: str
    columns: dict[str, int]
    units: dict[str, str]
    rows: list[Values] = field(default_factory=list)
    problems: list[CellProblem] = field(default_factory=list)
    header: int | None = None


class ModelReader(TableReader):
    """A reader whose rows become rows of a frame."""

    def __init__(self, sheet: Sheet, kind: ModelTableKind, given: Reading):
        super().__init__(sheet, kind.columns, given, least=1)
        self.kind = kind

    def value(self, row: int, name: str) -> Any:
        """A cell as the document has it; None where it is blank or bad (then with its problem)."""
        column, text = self.by_name[name], self.text(row, name)
        if self.is_formula(row, name):
            return None
        if not text:
            if column.required:
                statement = f"{column.title} is missing"
                self.problem(row, self.columns[name], statement, "Give it, or exclude the row.")
            return None
        if name in self.kind.dofs:
            dofs = dofs_in(text)
            if dofs is None:
                statement = f"{text[:40]!r} is not a list of degrees of freedom"
                self.problem(row, self.columns[name], statement, "Write fixed, pinned, or some of ux uy uz rx ry rz.")
            return dofs
        if column.words is not None:
            return self.word(row, name)
        return text[:NAME_LENGTH] if column.unit is None else self.scaled(row, name)

    def read_rows(self) -> list[Values]:
        """The document's rows; only those count that have no problems."""
        rows = []
        for number in self.rows():
            values = {name: v for name in self.columns if (v := self.value(number, name)) is not None}
            fault = self.kind.fault(values)
            if fault:
                self.problem(number, self.columns.get(self.kind.columns[0].name), *fault)
            rows.append(self.kind.row(values))
        return rows
