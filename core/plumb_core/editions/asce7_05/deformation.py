"""Torsion, drift and P-Delta of ASCE/SEI 7-05 where they differ from 7-10.

Light frames exempt from A_x, theta without I.
"""

from __future__ import annotations

from plumb_core.editions import shared
from plumb_core.editions.asce7_10 import deformation as later
from plumb_core.editions.asce7_16.deformation import A_x_case_by, C_s_drift_by
from plumb_core.editions.asce7_16.deformation import separation as by_root
from plumb_core.rules import Array, Governed, cited, rule


@rule(clause="12.8.7, Eq. 12.8-16", tex=r"\q{theta} = \frac{\q{P}\,\q{Delta}}{\q{V_drift}\,h\,\q{C_d}}")
def theta(P: Array, Delta: Array, V_drift: Array, h: Array, C_d: float) -> Array:
    """Stability coefficient of each story, shape (n_stories,), as printed in this edition: without I."""
    return P * Delta / (V_drift * h * C_d)


@rule(clause="12.12.3, by the measure of 7-10", tex=by_root.tex)
def separation(C_d: float, I_e: float, delta_own: float, delta_other: float | None = None) -> Governed:
    """Least separation, m; the clause requires a sufficient distance without an equation of its own."""
    found: Governed = by_root.function(C_d, I_e, delta_own, delta_other)
    return found if delta_other is None else Governed(found.value, "12.12.3, root of the sum of squares")


@rule(clause="12.8.6.2, 12.8.7")
def drift_notes(design_category: str = "") -> list[str]:
    """What holds for the forces behind the drifts."""
    return [
        "the period for drift is not limited by C_u T_a (12.8.6.2); the redundancy factor is 1.0",
        "gravity loads in P_x with no factor above 1.0 (12.8.7)",
    ]


RULES = (
    *later.RULES,
    A_x_case_by(True),
    theta,
    C_s_drift_by("12.8.6.2", True, "12.8-6"),
    cited(shared.factor_drift_none, "12.9.4"),
    drift_notes,
    # the clause requires a sufficient distance; the root of the sum of squares is the later editions' measure
    separation,
)
