"""Modal response spectrum analysis of ASCE/SEI 7-16, 12.9.1: modes, combination, scaling to the static base shear."""

from __future__ import annotations

from plumb_core.editions import shared
from plumb_core.rules import Array, Candidate, Governed, Rule, cited, rule

CLOSE = 0.9
"""Periods nearer than 10 % count as closely spaced; the standard leaves the measure to the engineer."""


@rule(clause="12.9.1.1", tex=r"\q{mass_target} = 1.0\text{, or }0.90\text{ by the exception}")
def mass_target() -> Governed:
    """Share of the mass: all of it, with modes under 0.05 s as one rigid mode, or 90 % by the exception."""
    return Governed(
        0.90, "12.9.1.1 exception", (Candidate("12.9.1.1", 1.0, "base"), Candidate("12.9.1.1 exception", 0.90, "upper"))
    )


@rule(clause="12.9.1.3")
def modal_combination(T_modes: Array) -> str:
    """CQC where periods are closely spaced, else SRSS will do."""
    return "CQC" if shared.closely_spaced(T_modes, CLOSE) else "SRSS or CQC"


@rule(clause="12.9.1")
def modal_rules() -> list[str]:
    """What the standard asks of the modal analysis."""
    return [
        "modes for 100 % of the mass, those under 0.05 s lumped into one rigid mode of 0.05 s, or 90 % in each "
        "orthogonal direction (12.9.1.1)",
        "SRSS, CQC or CQC-4; CQC or CQC-4 where closely spaced modes are significantly correlated (12.9.1.3)",
        "forces divided by R/I_e, displacements then multiplied by C_d/I_e (12.9.1.2)",
        "forces scaled by V/V_t where V_t < V (12.9.1.4.1); drifts by C_s W/V_t only where Eq. 12.8-6 governs C_s "
        "(12.9.1.4.2)",
        "A_x is not needed where accidental torsion is in the dynamic model (12.9.1.5)",
    ]


@rule(clause="12.9.1.4.1", tex=r"\q{scaling_share} = 1.0")
def scaling_share() -> float:
    """Share of the static base shear that the modal one must reach."""
    return 1.0


@rule(clause="12.9.1.2", tex=r"\q{spectrum_factor} = \frac{\q{I_e}}{\q{R}}")
def spectrum_factor(I_e: float, R: float) -> float:
    """Factor on the elastic ordinates in the modal analysis, in multiples of g."""
    return I_e / R


def scaled_by(near_fault: str, clause: str) -> Rule:
    """Rule: forces are scaled, drifts too where the near-fault minimum (equation `near_fault`) governs C_s."""

    @rule(clause=clause)
    def scaled(static_governed_by: str = "") -> list[str]:
        """Responses that the scale factor applies to: forces, and drifts where the near-fault minimum governed C_s."""
        return ["forces", "drifts"] if static_governed_by == near_fault else ["forces"]

    return scaled


RULES = (
    mass_target,
    cited(shared.mass_sum, "12.9.1.1"),
    cited(shared.modes_enough, "12.9.1.1"),
    cited(shared.modes_verdict, "12.9.1.1"),
    modal_combination,
    modal_rules,
    scaling_share,
    spectrum_factor,
    cited(shared.factor_required, "12.9.1.4.1"),
    scaled_by("12.8-6", "12.9.1.4.1, 12.9.1.4.2"),
)
