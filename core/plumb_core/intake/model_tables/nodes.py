"""Nodes."""

from __future__ import annotations

from plumb_core.intake.columns import Column
from plumb_core.intake.model_tables.kind import ModelTableKind, Values


def row(values: Values) -> Values:
    """A node as the frame has it."""
    return {"id": values.get("id"), "at": [values.get(c) for c in "xyz"]}


KIND = ModelTableKind(
    "nodes",
    "nodes",
    (
        Column("id", "node", r"node|joint|point|id|name|label", None, True),
        Column("x", "x", r"x|xcoordinate", "m", True),
        Column("y", "y", r"y|ycoordinate", "m", True),
        Column("z", "z (upwards)", r"z|zcoordinate|elevation|level", "m", True),
    ),
    rank=10,
    row=row,
)
