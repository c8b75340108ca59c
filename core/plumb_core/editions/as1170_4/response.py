"""Dynamic analysis, drift and P-Delta of AS 1170.4-2007: 6.6, 6.7, section 7.  It has no irregularities."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.editions import shared
from plumb_core.editions.as1170_4 import ground, tables
from plumb_core.editions.levels import factor_of
from plumb_core.editions.shared import Irregularity
from plumb_core.errors import RuleRefused
from plumb_core.limits import within
from plumb_core.rules import Array, Governed, cited, rule, without


@rule(clause="7.4.4")
def modal_combination(T_modes: Array) -> str:
    """CQC where frequencies lie within 15 %, else SRSS will do."""
    # frequencies within 15 % of the lower: f_j <= 1.15 f_i, so T_j >= T_i / 1.15, the bound itself being within
    return "CQC" if shared.closely_spaced(T_modes, 1.0 / 1.15 * (1 - 1e-8)) else "SRSS or CQC"


@rule(clause="7.4")
def modal_rules() -> list[str]:
    """What the standard asks of the modal analysis."""
    return [
        "modes for at least 90 % of the mass; in three dimensions modes that are not part of the seismic "
        "system, and those "
        "under 0.05 T_1, may be excluded (7.4.2, 7.4.3)",
        "a recognized combination that minds closely spaced modes (7.4.4)",
        "no rule that scales the dynamic base shear to the static one",
        "torsion by an eccentricity of 0.1 b with both signs (6.6)",
    ]


@rule(clause="7.4", tex=r"\q{factor_required} = 1")
def factor_required() -> float:
    """Modal results are not scaled to the static base shear."""
    return 1.0


@rule(clause="7.2", tex=r"\q{spectrum_factor} = \frac{\q{S_p}}{\q{mu}}")
def spectrum_factor(S_p: float, mu: float) -> float:
    """Factor on the elastic ordinates in the modal analysis, in multiples of g."""
    return S_p / mu


@rule(clause="7.4")
def scaled() -> list[str]:
    """Responses that a scale factor applies to: none."""
    return []


@rule(clause="2.2")
def vertical_irregularities() -> list[Irregularity]:
    """The 2007 edition defines no irregularity; its categories go by importance, hazard, soil and height."""
    return []


@rule(clause="6.7.1", tex=r"\q{amplifier} = \frac{\q{mu}}{\q{S_p}}")
def amplifier(mu: float, S_p: float) -> float:
    """Design over elastic deflection."""
    return mu / S_p


@rule(clause="6.7.2, 5.4.4", tex=r"\q{drift_limit} = 0.015")
def drift_limit() -> float:
    """Limit of the story drift over the story height."""
    return 0.015


@rule(clause="6.7.3.1", tex=r"\q{theta} = \frac{\q{Delta}\,\q{P}}{h\,\q{mu}\,\q{V_drift}}")
def theta(P: Array, Delta: Array, V_drift: Array, h: Array, mu: float) -> Array:
    """Interstory stability coefficient m, shape (n_stories,).

    Design drift times weight above over h mu times force above.
    """
    return P * Delta / (h * mu * V_drift)


@rule(clause="6.7.3.1", tex=r"\q{theta_limit} = 0.2")
def theta_limit() -> float:
    """Greatest coefficient; above it the structure may be unstable."""
    return 0.2


@rule(
    clause="6.7.3.2", tex=r"\q{theta_amplification} = \frac{0.9}{1-\q{theta}} \ge 1\text{ for }0.1 < \q{theta} \le 0.2"
)
def theta_amplification(theta: Array, p_delta_included: bool = False) -> list[float | None]:
    """Multiplier of forces and deflections up to 0.2; beyond it no factor will do."""
    if p_delta_included:
        return [1.0] * len(theta)
    return shared.second_order_amplified(theta, 0.1, 0.2, lambda t: max(1.0, 0.9 / (1.0 - t)))


@rule(clause="6.7.3")
def second_order(theta: Array, p_delta_included: bool = False) -> list[str]:
    """What 6.7.3 requires at each story."""
    amplified = "in the model" if p_delta_included else "forces and deflections multiplied by 0.9/(1 - m)"
    words = ((0.1, "need not be considered"), (0.2, amplified))
    return [
        next((w for limit, w in words if within(t, limit)), "potentially unstable: to be redesigned")
        for t in theta.tolist()
    ]


@rule(clause="6.7.2, 6.7.3.2")
def drift_second_order(drift_ratio: Array, theta_amplification: list[float | None]) -> list[float | None]:
    """Design story drift over the story height with its second order amplification; null where no factor will do."""
    return [None if a is None else float(r * a) for r, a in zip(drift_ratio, theta_amplification, strict=True)]


@rule(clause="5.4.5, 5.5.5", tex=r"\q{separation} = 0.01\,\q{h_n}\text{ above 15 m, or walls to the base}")
def separation(h_n: float, walls_to_base: bool = False) -> Governed:
    """Set-back from the boundary that is deemed to avoid pounding, m: 1 % of the height of structures above 15 m.

    None up to 15 m, and none where the primary elements are structural walls that go down to the base.
    """
    if within(h_n, 15.0):
        return Governed(0.0, "5.4.5, up to 15 m")
    if walls_to_base:
        return Governed(0.0, "5.4.5, structural walls to the base")
    return Governed(0.01 * h_n, "5.4.5, 1 % of the height")


@rule(clause="2.2, 3.1, Table 3.1", tex=r"\q{level_factors}: \max(k_p\,\q{Z},\ \text{Table 3.3}) / \q{kpZ}")
def level_factors(
    levels: Sequence[Mapping[str, Any]],
    Z: float,
    kpZ: float,
    importance_level: int | None = None,
    S_a_level: Array | None = None,
    T_level: Array | None = None,
) -> dict[str, float | None]:
    """Factor of each action level on the design action: by the probability factor of its return period (Table 3.1).

    Serviceability of importance level 4 is that under the design action of importance level 2 (2.2), where nothing
    else is
    declared.
    """

    def of_period(years: float) -> float:
        k_p = tables.TABLE_3_1.get(f"1/{years:g}")
        if k_p is None:
            known = ", ".join(p.removeprefix("1/") for p in tables.TABLE_3_1)
            raise RuleRefused(
                "levels", f"Table 3.1 has no probability factor for {years:g} years", f"Use one of: {known}."
            )
        return float(ground.kpZ.function(k_p=k_p, Z=Z).value) / kpZ

    factors = {level["name"]: factor_of(level, S_a_level, T_level, of_period) for level in levels}
    for level in levels:
        if factors[level["name"]] is None and level["kind"] == "serviceability" and importance_level == 4:
            factors[level["name"]] = of_period(500)
    return factors


@rule(clause="5.3, 6.7.1, 6.7.2")
def drift_notes(importance_level: int | None = None) -> list[str]:
    """What holds for the drifts."""
    serviceable = (
        "importance level 4: a special study shows that it stays serviceable after the design action of "
        "importance level 2 "
        "(2.2); declare that action level with its drift limit"
    )
    return [
        *([serviceable] if importance_level == 4 else []),
        "the two axes one at a time, with torsion (6.7.2)",
        "no drift check is stated for category I (5.3)",
    ]


RULES = (
    cited(shared.mass_target, "7.4.2"),
    cited(shared.mass_sum, "7.4.2"),
    cited(shared.modes_enough, "7.4.2, 7.4.3"),
    cited(shared.modes_verdict, "7.4.2, 7.4.3"),
    modal_combination,
    modal_rules,
    factor_required,
    spectrum_factor,
    scaled,
    cited(shared.torsion_ratio, "no rule of the standard; greatest over average"),
    vertical_irregularities,
    amplifier,
    cited(shared.Delta, "6.7.1"),
    cited(shared.drift_ratio, "6.7.2"),
    drift_limit,
    theta,
    theta_limit,
    theta_amplification,
    second_order,
    drift_second_order,
    cited(shared.drift_at_edges, "6.7.1, with the torsion of 6.6"),
    level_factors,
    cited(shared.V_base_drift_same, "6.7.1"),
    cited(shared.factor_drift_none, "7.4"),
    cited(without(shared.theta_verdict, "theta_checked", "theta_exempt"), "6.7.3.1"),
    cited(without(shared.drift_verdict, "drift_limits"), "6.7.2, 6.7.3"),
    drift_notes,
    separation,
)
