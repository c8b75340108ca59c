"""Sections: areas and second moments."""

from __future__ import annotations

from plumb_core.intake.columns import Column
from plumb_core.intake.model_tables.kind import ModelTableKind

KIND = ModelTableKind(
    "sections",
    "sections",
    (
        Column("id", "section", r"section|id|name|label|profile", None, True),
        Column("A", "area", r"a|area", "m^2", True),
        Column("Iy", "I_y (bending in local x-z)", r"iy|iyy|imajor", "m^4", True),
        Column("Iz", "I_z", r"iz|izz|iminor", "m^4", True),
        Column("J", "torsion constant", r"j|it|torsion|torsionconstant", "m^4", True),
        Column("Ay", "shear area along y", r"ay|sheary|shearareay", "m^2"),
        Column("Az", "shear area along z", r"az|shearz|shearareaz", "m^2"),
    ),
    rank=30,
)
