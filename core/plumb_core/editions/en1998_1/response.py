"""Modal analysis, drift, second order effects and separation of EN 1998-1:2004.

4.3.3.3, 4.3.4, 4.4.2.2, 4.4.2.7, 4.4.3.2.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.en1998_1 import tables
from plumb_core.editions.levels import factor_of
from plumb_core.editions.shared import Irregularity
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.limits import reaches, within
from plumb_core.rules import Array, Governed, cited, rule, without

DRIFT_LIMIT = {"brittle": 0.005, "ductile": 0.0075, "none": 0.010}
"""4.4.3.2(1): brittle elements attached, ductile elements, none that interfere."""


@rule(clause="4.3.3.3.1(3)", tex=r"\q{mass_target} = 0.90")
def mass_target() -> float:
    """Share of the mass, the first of two alternatives."""
    return 0.90


@rule(clause="4.3.3.3.1(3)")
def modes_enough(mass_sum: float, mass_target: float) -> bool:
    """Whether 4.3.3.3.1(3) is met: 90 % of the mass, or all modes above 5 % of it.

    A list that stops decides the second alternative where what it excludes is at most 5 % of the mass; then the first
    is met too.  The rule of (5) applies only where (3) cannot be met, so it is never plain "enough" (see
    `modes_verdict`).
    """
    return reaches(mass_sum, mass_target) or within(1.0 - mass_sum, 0.05)


@rule(clause="4.3.3.3.1(3), (5), Eq. 4.13 and 4.14")
def modes_verdict(
    mass_sum: float,
    mass_target: float,
    T_modes: Array | None = None,
    N: int | None = None,
    mass_share: Array | None = None,
) -> dict[str, Any]:
    """Which alternative is met.

    90 %, all modes above 5 % where the list decides it, or at least 3 sqrt(n) modes to 0.20 s.
    """
    left = f"; {1.0 - mass_sum:.1%} is excluded" + (", so no mode above 5 % is" if within(1.0 - mass_sum, 0.05) else "")
    if modes_enough.function(mass_sum, mass_target):
        return {"met": True, "words": f"{mass_sum:.1%} of the mass: 4.3.3.3.1(3) is met{left}"}
    if mass_share is not None and _fallen(mass_share):
        return {
            "met": None,
            "words": f"{mass_sum:.1%} of the mass: 90 % not met; the last modes are below 5 %: show that all "
            f"modes above 5 % are "
            "taken into account (second dash of 4.3.3.3.1(3))",
        }
    if T_modes is None or N is None:
        return {
            "met": False,
            "words": f"{mass_sum:.1%} of the mass: 90 % not met{left}, of which modes above 5 % may be part",
        }
    fallback = reaches(len(T_modes), 3.0 * N**0.5) and within(float(np.min(T_modes)), 0.20)
    if fallback:
        return {
            "met": None,
            "words": (
                f"{mass_sum:.1%} of the mass: 90 % not met; the fallback of 4.3.3.3.1(5) is met; show "
                f"that (3) cannot be met"
            ),
        }
    return {"met": False, "words": f"{mass_sum:.1%} of the mass: 90 % not met, nor the fallback of 4.3.3.3.1(5)"}


SMALL, LAST = 0.05, 2


def _fallen(mass_share: Array) -> bool:
    """Whether the last modes that take part in the direction are below 5 % each, so that all above it may be listed."""
    taking_part = [float(s) for s in mass_share if s > 1e-3]
    return len(taking_part) > LAST and all(s < SMALL for s in taking_part[-LAST:])


@rule(clause="4.3.3.3.2, Eq. 4.15")
def modal_combination(T_modes: Array) -> str:
    """SRSS where each period is at most 0.9 of the next longer one, else CQC."""
    return "CQC" if shared.closely_spaced(T_modes, 0.9) else "SRSS or CQC"


@rule(clause="4.3.3.3")
def modal_rules() -> list[str]:
    """What the code asks of the modal analysis."""
    return [
        "effective modal masses of at least 90 %, or all modes above 5 % of the mass; where neither can be met "
        "at least "
        "3 sqrt(n) modes with T_k <= 0.20 s (4.3.3.3.1)",
        "SRSS where T_j <= 0.9 T_i for any two modes, else a more accurate one such as CQC (4.3.3.3.2)",
        "modal results are not scaled to the static base shear; the design spectrum has its own lower bound beta a_g",
        "accidental torsion as static moments e_a F_i, with both signs (4.3.3.3.3)",
    ]


@rule(clause="4.3.3.3", tex=r"\q{factor_required} = 1")
def factor_required() -> float:
    """Modal results are not scaled to the static base shear."""
    return 1.0


@rule(clause="4.3.3.3")
def scaled() -> list[str]:
    """Responses that a scale factor applies to: none."""
    return []


@rule(clause="4.2.3.3")
def vertical_irregularities() -> list[Irregularity]:
    """The code judges elevation by its setbacks and in words.

    It has no numbers for stiffness, mass or strength of a story.
    """
    return []


@rule(clause="4.3.4(1)P, Eq. 4.23", tex=r"\q{amplifier} = \q{q}")
def amplifier(q: float) -> float:
    """Displacement behaviour factor q_d, taken as q.

    The bound of d_s by the elastic spectrum (2) is not used.
    """
    return q


@rule(clause="4.4.3.2(2)", tex=r"\q{nu} = 4.4.3.2(\q{importance_class})")
def nu(importance_class: str) -> float:
    """Reduction factor for the damage limitation action, recommended values."""
    return tables.NU[importance_class]


@rule(clause="2.1(4), note; 4.2.5", tex=r"\q{level_factors}: \left(T_L/475\right)^{1/3}/\q{gamma_I}")
def level_factors(
    levels: Sequence[Mapping[str, Any]],
    gamma_I: float,
    S_a_level: Array | None = None,
    T_level: Array | None = None,
) -> dict[str, float | None]:
    """Factor of each action level on the design action: by its return period with the recommended exponent k = 3."""

    def of_period(years: float) -> float:
        return float((years / 475.0) ** (1.0 / 3.0) / gamma_I)

    return {level["name"]: factor_of(level, S_a_level, T_level, of_period) for level in levels}


@rule(clause="4.4.3.2(1), Eq. 4.31 to 4.33", tex=r"\q{drift_ratio} = \frac{\q{nu}\,\q{Delta}}{h}")
def drift_ratio(Delta: Array, nu: float, h: Array) -> Array:
    """Nu d_r over the story height, shape (n_stories,)."""
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
def theta_amplification(theta: Array, p_delta_included: bool = False) -> list[float | None]:
    """Multiplier of the seismic action effects up to 0.2, none with second order effects in the model.

    Above 0.2 no factor will do.
    """
    if p_delta_included:
        return [1.0] * len(theta)
    return shared.second_order_amplified(theta, 0.1, 0.2, lambda t: 1.0 / (1.0 - t))


@rule(clause="4.4.2.2(2) to (4)")
def second_order(theta: Array, p_delta_included: bool = False) -> list[str]:
    """What 4.4.2.2 requires at each story."""
    analysis = "second order analysis, which is in the model" if p_delta_included else "second order analysis required"
    words = ((0.1, "need not be considered"), (0.2, "action effects multiplied by 1/(1 - theta)"), (0.3, analysis))
    return [next((w for limit, w in words if within(t, limit)), "not permitted: above 0.3") for t in theta.tolist()]


@rule(
    clause="4.4.2.7",
    tex=(
        r"\q{separation} = \sqrt{d_{s1}^2 + d_{s2}^2},\ d_{s1} = \q{q}\,\q{delta_own};\ \times 0.7\text{ with "
        r"floors level}"
    ),
)
def separation(
    q: float,
    delta_own: float,
    delta_other: float | None = None,
    same_property: bool | None = None,
    floors_level: bool = False,
) -> Governed:
    """Least separation, m: to the property line the own displacement; on one property the root of the sum of squares.

    With floors at the same level 0.7 of it.
    """
    computed = q * delta_own
    if delta_other is not None and same_property is None:
        raise MissingInput("same_property")
    if delta_other is None or not same_property:
        value, words = computed, "4.4.2.7(2) a, property line"
    else:
        value, words = math.hypot(computed, delta_other), "4.4.2.7(2) b"
    return Governed(0.7 * value, f"{words}, (3) floors level") if floors_level else Governed(value, words)


@rule(clause="4.2.3.2, 4.3.1(7), 4.4.2.2")
def drift_notes() -> list[str]:
    """What holds for the displacements behind the drifts."""
    return [
        "concrete, composite and masonry with half the uncracked stiffness (4.3.1(7))",
        "displacements with the torsional effects of the action (4.3.4(3))",
        "theta above 0.2: second order analysis (4.4.2.2)",
    ]


@rule(clause="", defines="drift_at")
def drift_at_centre() -> str:
    """Where the story drift is taken: difference of the average displacements at the top and bottom of the story."""
    return "centre"


@rule(clause="4.4.2.2(2), EN 1990 6.4.3.4, Eq. 6.12b", tex=r"\q{gravity} = \sum G_k + \sum \psi_2 Q_k")
def gravity(loads: Sequence[Sequence[Mapping[str, Any]]]) -> Array:
    """Vertical load of each floor in the seismic design situation, kN, shape (n_stories,): with psi_2, not psi_E."""
    return np.array([sum(_in_situation(load) for load in story) for story in loads])


def _in_situation(load: Mapping[str, Any]) -> float:
    kind = load["kind"]
    if kind == "given":
        raise MissingInput("loads")
    if kind in shared.DEAD_KINDS:
        return float(load["amount"])
    if kind == "snow":
        return 0.2 * float(load["amount"]) if load.get("category") == "above_1000_m" else 0.0
    category = "E" if kind == "storage" else "H" if kind == "roof_live" else load.get("category")
    if category not in tables.PSI_2:
        raise MissingInput("loads")
    return tables.PSI_2[category] * float(load["amount"])


RULES = (
    mass_target,
    cited(shared.mass_sum, "4.3.3.3.1(2)P"),
    modes_enough,
    modes_verdict,
    modal_combination,
    modal_rules,
    factor_required,
    scaled,
    cited(shared.torsion_ratio, "no rule of the code; greatest over average"),
    vertical_irregularities,
    amplifier,
    nu,
    level_factors,
    cited(shared.Delta, "4.4.2.2(2) with 4.3.4(1)P, Eq. 4.23"),
    drift_ratio,
    drift_limit,
    theta,
    theta_limit,
    theta_amplification,
    second_order,
    cited(drift_at_centre, "4.4.2.2(2)"),
    gravity,
    cited(shared.V_base_drift_same, "4.3.3.2.2"),
    cited(shared.factor_drift_none, "4.3.3.3"),
    cited(without(shared.theta_verdict, "theta_checked", "theta_exempt"), "4.4.2.2(4)"),
    cited(without(shared.drift_verdict, "drift_limits", "drift_second_order"), "4.4.3.2(1), 4.4.2.2(4)"),
    drift_notes,
    separation,
)
