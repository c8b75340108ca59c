"""Points of a design spectrum."""

from __future__ import annotations

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each point, numbered from 0; the periods have to rise."""
    claims: list[Claim] = []
    last = -1.0
    for point, row in enumerate(numbers):
        for column in ("T_points", "S_a"):
            number = reader.number(row, column)
            if number is None or column not in reader.units:
                continue
            if number[0] < 0:
                reader.problem(row, reader.columns[column], "it is below zero", "Correct the value.")
            if column == "T_points":
                if number[0] <= last:
                    words = "the periods have to increase from row to row"
                    remedy = "Sort the table by period, without repeats."
                    reader.problem(row, reader.columns[column], words, remedy)
                last = number[0]
            claims.append(reader.claim(row, column, column, number, reader.units[column], point=point))
    return Rows(claims)


KIND = TableKind(
    "spectrum",
    "spectrum points",
    (
        Column("T_points", "period", r"period|t|tn", "s", True, "T_points"),
        Column(
            "S_a",
            "spectral acceleration",
            r"(design)?(spectral)?(sa|acceleration|ordinate|accelerationsa)(design)?|se|sd|designsa",
            "g",
            True,
            "S_a",
        ),
    ),
    rows,
    rank=40,
)
