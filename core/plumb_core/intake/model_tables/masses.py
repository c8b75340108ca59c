"""Masses at nodes."""

from __future__ import annotations

from plumb_core.intake.columns import Column
from plumb_core.intake.model_tables.kind import ModelTableKind, Values


def row(values: Values) -> Values:
    """A mass at a node; one without a direction holds for all three."""
    if "m" not in values:
        return values
    every = values["m"]
    return {"mx": every, "my": every, "mz": every} | {k: v for k, v in values.items() if k != "m"}


def fault(values: Values) -> tuple[str, str] | None:
    """A row without a mass."""
    if values.keys() & {"m", "mx", "my", "mz", "iz"}:
        return None
    return "this node has no mass", "Give its mass, or exclude the row."


KIND = ModelTableKind(
    "masses",
    "masses",
    (
        Column("node", "node", r"node|joint|id|name", None, True),
        Column("m", "mass", r"m|mass", "t"),
        Column("mx", "mass along X", r"mx|massx", "t"),
        Column("my", "mass along Y", r"my|massy", "t"),
        Column("mz", "mass along Z", r"mz|massz", "t"),
        Column("iz", "inertia about the vertical", r"iz|inertia", "t*m^2"),
        Column(
            "source",
            "source",
            r"source|kind|type",
            None,
            words={"point": "point", "load": "point", "equipment": "equipment"},
        ),
    ),
    rank=70,
    row=row,
    fault=fault,
)
