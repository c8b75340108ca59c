"""Torsion and separation of ASCE/SEI 7-10 where they differ from 7-16."""

from __future__ import annotations

from plumb_core.editions import shared
from plumb_core.editions.asce7_16 import deformation as later
from plumb_core.editions.asce7_16 import irregularity
from plumb_core.rules import cited, rule


@rule(clause="12.3.3, 12.7.3, 12.8.4, 12.12.1")
def torsion_consequences(torsion_class: list[str], design_category: str = "") -> list[list[str]]:
    """What follows from the irregularity; the redundancy factor of extreme torsion came with 7-16."""
    return later.consequences(torsion_class, design_category, later.BY_DESIGN)


rho = irregularity.rho_by(False)
RULES = (
    *later.RULES,
    cited(shared.factor_drift, "12.9.4.2"),
    torsion_consequences,
    rho,
    cited(later.separation, "12.12.3, Eq. 12.12-1 and 12.12-2"),
)
