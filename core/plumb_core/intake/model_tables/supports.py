"""Supports: what is fixed, and springs."""

from __future__ import annotations

from plumb_core.intake.columns import Column
from plumb_core.intake.model_tables.dofs import DOFS
from plumb_core.intake.model_tables.kind import ModelTableKind, Values

SPRINGS = tuple(
    Column(f"spring_{d}", f"spring {d}", f"(spring|k){d}|{d}spring", "kN/m" if d[0] == "u" else "kN*m/rad")
    for d in DOFS
)


def row(values: Values) -> Values:
    """A support with its springs in one."""
    rest = {k: v for k, v in values.items() if not k.startswith("spring_")}
    springs = {d: values[f"spring_{d}"] for d in DOFS if f"spring_{d}" in values}
    return rest | ({"springs": springs} if springs else {})


def fault(values: Values) -> tuple[str, str] | None:
    """A support that does nothing."""
    if values.get("fixed") or any(c.name in values for c in SPRINGS):
        return None
    return (
        "this support has neither a fixed direction nor a spring",
        "State what is fixed (fixed, pinned, or some of ux uy uz rx ry rz), or give a spring.",
    )


KIND = ModelTableKind(
    "supports",
    "supports",
    (
        Column("node", "node", r"node|joint|support|id|name", None, True),
        Column("fixed", "what is fixed", r"fixed|restraint|restraints|fixity|dof|held", None),
        *SPRINGS,
    ),
    rank=50,
    row=row,
    fault=fault,
    dofs=("fixed",),
)
