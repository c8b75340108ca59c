"""Modal analysis, torsion, drift and second order effects of EN 1998-1:2004: 4.2.3, 4.3.3.3, 4.3.4, 4.4.2.2, 4.4.3.2."""

from __future__ import annotations

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.en1998_1 import tables
from plumb_core.editions.shared import Irregularity
from plumb_core.errors import RuleRefused
from plumb_core.rules import Array, cited, rule

DRIFT_LIMIT = {"brittle": 0.005, "ductile": 0.0075, "none": 0.010}
"""4.4.3.2(1): brittle elements attached, ductile elements, none that interfere."""


@rule(clause="4.3.3.3.1(3)", tex=r"\q{mass_target} = 0.90")
def mass_target() -> float:
    """Share of the mass, the first of two alternatives."""
    return 0.90


@rule(clause="4.3.3.3.1(3), (5)")
def modes_enough(mass_sum: float, mass_target: float, T_modes: Array | None = None, N: int | None = None) -> bool:
    """Whether enough modes are there: 90 % of the mass, or at least 3 sqrt(n) modes down to 0.20 s.

    The other alternative, all modes above 5 % of the mass, can't be read from a list that stops.
    """
    if mass_sum >= mass_target - 1e-9:
        return True
    if T_modes is None or N is None:
        return False
    return bool(len(T_modes) >= 3.0 * N**0.5 and np.min(T_modes) <= 0.20)


@rule(clause="4.3.3.3.2, Eq. 4.15")
def modal_combination(T_modes: Array) -> str:
    """SRSS where each period is at most 0.9 of the next longer one, else CQC."""
    return "CQC" if shared.closely_spaced(T_modes, 0.9) else "SRSS or CQC"


@rule(clause="4.3.3.3")
def modal_rules() -> list[str]:
    """What the code asks of the modal analysis."""
    return [
        "effective modal masses of at least 90 %, or all modes above 5 % of the mass; where neither can be met at least "
        "3 sqrt(n) modes with T_k <= 0.20 s (4.3.3.3.1)",
        "SRSS where T_j <= 0.9 T_i for any two modes, else a more accurate one such as CQC (4.3.3.3.2)",
        "modal results aren't scaled to the static base shear; the design spectrum has its own lower bound beta a_g",
        "accidental torsion as static moments e_a F_i, with both signs (4.3.3.3.3)",
    ]


@rule(clause="4.3.3.3", tex=r"\q{factor_required} = 1")
def factor_required() -> float:
    """This code doesn't scale modal results to the static base shear."""
    return 1.0


@rule(clause="4.3.3.3")
def scaled() -> list[str]:
    """Responses that a scale factor applies to: none."""
    return []


@rule(clause="4.2.3.3")
def vertical_irregularities() -> list[Irregularity]:
    """The code judges elevation by its setbacks and in words; it has no numbers for stiffness, mass or strength of a story."""
    return []


@rule(clause="4.3.4, Eq. 4.23", tex=r"\q{amplifier} = \q{q}")
def amplifier(q: float) -> float:
    """Displacement behaviour factor q_d, taken as q."""
    return q


@rule(clause="4.4.3.2(2)", tex=r"\q{nu} = 4.4.3.2(\q{importance_class})")
def nu(importance_class: str) -> float:
    """Reduction factor for the damage limitation action, recommended values."""
    return tables.NU[importance_class]


@rule(clause="4.4.3.2(1), Eq. 4.31 to 4.33", tex=r"\q{drift_ratio} = \frac{\q{nu}\,\q{Delta}}{h}")
def drift_ratio(Delta: Array, nu: float, h: Array) -> Array:
    """nu d_r over the story height, shape (n_stories,)."""
    return nu * Delta / h


@rule(clause="4.4.3.2(1), Eq. 4.31 to 4.33", tex=r"\q{drift_limit} = 4.4.3.2(\q{structure_type})")
def drift_limit(structure_type: str) -> float:
    """Limit of nu d_r over the story height, by the non-structural elements."""
    if structure_type not in DRIFT_LIMIT:
        raise RuleRefused(
            "structure_type",
            f"4.4.3.2 has no non-structural elements of type {structure_type!r}",
            f"Use one of: {', '.join(DRIFT_LIMIT)}.",
        )
    return DRIFT_LIMIT[structure_type]


@rule(clause="4.4.2.2(2), Eq. 4.28", tex=r"\q{theta} = \frac{\q{P}\,\q{Delta}}{\q{V_drift}\,h}")
def theta(P: Array, Delta: Array, V_drift: Array, h: Array) -> Array:
    """Interstory drift sensitivity coefficient, shape (n_stories,); d_r with q and without nu."""
    return P * Delta / (V_drift * h)


@rule(clause="4.4.2.2(4)", tex=r"\q{theta_limit} = 0.3")
def theta_limit() -> float:
    """Greatest coefficient."""
    return 0.3


@rule(clause="4.4.2.2(3)", tex=r"\q{theta_amplification} = \frac{1}{1-\q{theta}}\text{ for }0.1 < \q{theta} \le 0.2")
def theta_amplification(theta: Array) -> Array:
    """Multiplier of the seismic action effects up to 0.2; above it the code asks for a second order analysis."""
    return np.where((theta > 0.1) & (theta < 1.0), 1.0 / np.where(theta < 1.0, 1.0 - theta, 1.0), 1.0)


@rule(clause="4.2.3.2, 4.3.1(7), 4.4.2.2")
def drift_notes() -> list[str]:
    """What holds for the displacements behind the drifts."""
    return [
        "concrete, composite and masonry with half the uncracked stiffness (4.3.1(7))",
        "displacements with the torsional effects of the action (4.3.4)",
        "theta above 0.2: second order analysis (4.4.2.2)",
    ]


RULES = (
    mass_target,
    cited(shared.mass_sum, "4.3.3.3.1(2)P"),
    modes_enough,
    modal_combination,
    modal_rules,
    factor_required,
    scaled,
    cited(shared.torsion_ratio, "no rule of the code; greatest over average"),
    vertical_irregularities,
    amplifier,
    nu,
    cited(shared.Delta, "4.4.2.2(2), Eq. 4.23"),
    drift_ratio,
    drift_limit,
    theta,
    theta_limit,
    theta_amplification,
    drift_notes,
)
