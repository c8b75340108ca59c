"""The run log: its lines, as they stand."""

from __future__ import annotations

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind

LONGEST = 300
"""Letters of a line that are kept."""


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """One claim a line, numbered from 0."""
    return Rows(
        [
            Claim(
                quantity="log_line",
                point=number,
                value=reader.text(row, "line")[:LONGEST],
                text=reader.text(row, "line")[:LONGEST],
                source=reader.source(row, "line"),
            )
            for number, row in enumerate(numbers)
        ]
    )


KIND = TableKind(
    "log",
    "run log",
    (Column("line", "line", r"line|log|runlog|message|warning|warnings|messages", required=True),),
    rows,
    rank=90,
)
