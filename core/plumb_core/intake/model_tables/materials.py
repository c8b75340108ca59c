"""Materials."""

from __future__ import annotations

from plumb_core.intake.columns import Column
from plumb_core.intake.model_tables.kind import ModelTableKind

KIND = ModelTableKind(
    "materials",
    "materials",
    (
        Column("id", "material", r"material|id|name|label", None, True),
        Column("E", "modulus of elasticity", r"e|modulus|youngsmodulus|elasticmodulus", "kN/m^2", True),
        Column("nu", "Poisson's ratio", r"nu|ν|poisson|poissonsratio|poissonratio", "", plain=True),
        Column("density", "density", r"density|rho|ρ|massdensity", "t/m^3"),
    ),
    rank=40,
)
