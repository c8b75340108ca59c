"""Modal response spectrum analysis of ASCE/SEI 7-05, 12.9: as 7-10, but drifts are never scaled."""

from __future__ import annotations

from plumb_core.editions.asce7_10 import modal as next_edition
from plumb_core.rules import rule


@rule(clause="12.9.4")
def scaled() -> list[str]:
    """Responses that the scale factor applies to: forces, never drifts."""
    return ["forces"]


@rule(clause="12.9")
def modal_rules() -> list[str]:
    """What the standard asks of the modal analysis."""
    return [
        "modes for at least 90 % of the mass in each orthogonal direction (12.9.1)",
        "SRSS or CQC; CQC where closely spaced modes couple translation and torsion (12.9.3)",
        "forces divided by R/I, displacements then multiplied by C_d/I (12.9.2)",
        "forces scaled by 0.85 V/V_t where V_t < 0.85 V; drifts are not scaled (12.9.4)",
        "A_x is not needed where accidental torsion is in the dynamic model (12.9.5)",
    ]


RULES = (*next_edition.RULES, scaled, modal_rules)
