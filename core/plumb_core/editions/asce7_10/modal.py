"""Modal response spectrum analysis of ASCE/SEI 7-10, 12.9."""

from __future__ import annotations

from plumb_core.editions import shared
from plumb_core.editions.asce7_16 import modal as later
from plumb_core.rules import cited, rule


@rule(clause="12.9")
def modal_rules() -> list[str]:
    """What the standard asks of the modal analysis."""
    return [
        "modes for at least 90 % of the mass in each orthogonal direction (12.9.1)",
        "SRSS, CQC or CQC-4; CQC or CQC-4 where closely spaced modes are significantly correlated (12.9.3)",
        "forces divided by R/I_e, displacements then multiplied by C_d/I_e (12.9.2)",
        "forces scaled by 0.85 V/V_t where V_t < 0.85 V (12.9.4.1); drifts by 0.85 C_s W/V_t only where Eq. "
        "12.8-6 governs "
        "C_s (12.9.4.2)",
        "A_x is not needed where accidental torsion is in the dynamic model (12.9.5)",
    ]


@rule(clause="12.9.4.1", tex=r"\q{scaling_share} = 0.85")
def scaling_share() -> float:
    """Share of the static base shear that the modal one must reach."""
    return 0.85


RULES = (
    cited(shared.mass_target, "12.9.1"),
    cited(shared.mass_sum, "12.9.1"),
    cited(shared.modes_enough, "12.9.1"),
    cited(shared.modes_verdict, "12.9.1"),
    cited(later.modal_combination, "12.9.3"),
    modal_rules,
    scaling_share,
    cited(later.spectrum_factor, "12.9.2"),
    cited(shared.factor_required, "12.9.4.1"),
    later.scaled_by("12.8-6", "12.9.4.1, 12.9.4.2"),
)
