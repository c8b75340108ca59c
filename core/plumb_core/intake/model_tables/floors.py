"""Floors: their levels, masses, and whether they are rigid."""

from __future__ import annotations

from plumb_core.intake.columns import Column
from plumb_core.intake.model_tables.kind import ModelTableKind, Values


def row(values: Values) -> Values:
    """A floor with its centre in one."""
    if "x" not in values or "y" not in values:
        return values
    rest = {k: v for k, v in values.items() if k not in ("x", "y")}
    return rest | {"centre": [values["x"], values["y"]]}


YES_NO = {
    "yes": True,
    "true": True,
    "1": True,
    "rigid": True,
    "no": False,
    "false": False,
    "0": False,
    "flexible": False,
}


KIND = ModelTableKind(
    "floors",
    "floors",
    (
        Column("diaphragm", "floor", r"floor|diaphragm|story|storey|level|name", None, True),
        Column("z", "level", r"z|elevation|level|height", "m"),
        Column("mass", "mass", r"mass|m|floormass", "t"),
        Column("x", "centre x", r"x|centrex|centerx", "m"),
        Column("y", "centre y", r"y|centrey|centery", "m"),
        Column("inertia", "rotational inertia", r"inertia|j|rotationalinertia|iz", "t*m^2"),
        Column("rigid", "rigid (yes, no)", r"rigid|stiffness|inplane", None, words=YES_NO),
    ),
    rank=60,
    row=row,
)
