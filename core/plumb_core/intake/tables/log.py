"""The run log: its lines, as they are written."""

from __future__ import annotations

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind

MAX_LINE = 500
"""Characters of a line."""


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """One claim a line, numbered from 0."""
    for row in numbers:
        length = len(reader.text(row, "line"))
        if length > MAX_LINE:
            words = f"the line has {length} characters; the limit is {MAX_LINE}"
            reader.problem(row, reader.columns["line"], words, "Shorten the line, or exclude the row.")
    return Rows(
        [
            Claim(
                quantity="log_line",
                point=number,
                value=reader.text(row, "line"),
                text=reader.text(row, "line"),
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
