"""Rules of a recheck beside those of an edition: modal base shear, and drift and stability of the submitted cases.

The rules are those of the edition at other places (an ordinate at the periods of their modes, a stability
coefficient at
the mean of the ends), and a few that hold under every edition.
"""

from __future__ import annotations

from functools import cache

import numpy as np

from plumb_core.dynamics.combine import ModalRule
from plumb_core.errors import MissingInput
from plumb_core.rules import Array, Rule, cited, renamed, rule

AT_MODES = {"T_points": "T_modes", "S_a": "S_a_m", "S_a_damped": "S_a_m_damped", "S_a_reduced": "S_a_modes"}
AT_MEAN = {"delta_e": "delta_e_mean", "Delta": "Delta_mean"}
OF_GOVERNING = {"displacement_max": "displacement_far", "displacement_avg": "displacement_mean", "A_x_case": "A_x"}


@rule(clause="", tex=r"\q{V_static} = \q{V}")
def V_static(V: float) -> float:
    """Static base shear that the modal one is compared with."""
    return V


@rule(clause="", tex=r"\q{V_scaled} = \q{factor_used}\,\q{V_dynamic}")
def V_scaled(factor_used: float, V_dynamic: float) -> float:
    """Base shear of the modal analysis after scaling."""
    return factor_used * V_dynamic


@rule(
    clause="",
    tex=(
        r"\q{V_dynamic} = \sqrt{\sum_m\sum_n \rho_{mn}\,V_m V_n},\ V_m = "
        r"\q{mass_share}\,\q{W}\,\q{S_a_modes}\,\q{curve_off}"
    ),
)
def V_dynamic(
    mass_share: Array,
    S_a_modes: Array,
    T_modes: Array,
    W: float,
    curve_off: Array | None = None,
    combined_by: str = "CQC",
    damping_modes: float = 0.05,
) -> float:
    """Base shear of the modes of a direction, kN: share of the mass x weight x reduced ordinate, combined.

    A. K. Chopra, Dynamics of Structures, 13.8: the base shear of a mode is its effective modal mass times its ordinate.
    """
    of_modes = mass_share * W * S_a_modes * (1.0 if curve_off is None else curve_off)
    if combined_by == "close modes absolute":
        return close_absolute(of_modes, T_modes)
    by = combined_by if combined_by in ("CQC", "SRSS", "ABS") else "CQC"
    return float(ModalRule(by, 2.0 * np.pi / T_modes, damping_modes, rigid=False)(of_modes))  # type: ignore[arg-type]


def close_absolute(of_modes: Array, T_modes: Array) -> float:
    """SRSS of the modes, with the absolute sum of those whose frequencies lie within 10 % of the lowest of their group.

    IS 1893:2002, 7.8.4.4 b.
    """
    groups: list[tuple[float, float]] = []
    for i in np.argsort(-T_modes).tolist():
        T, value = float(T_modes[i]), abs(float(of_modes[i]))
        if groups and groups[-1][0] / 1.1 * (1 - 1e-8) <= T:
            groups[-1] = (groups[-1][0], groups[-1][1] + value)
        else:
            groups.append((T, value))
    return float(np.sqrt(sum(value**2 for _, value in groups)))


@rule(
    clause="", tex=r"\q{P} = \sum_{i \ge x} \q{gravity}\text{, or }\sum_{i \ge x} w_i\text{ where no loads are known}"
)
def P(gravity: Array | None = None, w: Array | None = None) -> Array:
    """Vertical load at and above each story, kN, shape (n_stories,).

    The seismic weight where the loads are not known.
    """
    of_floor = gravity if gravity is not None else w
    if of_floor is None:
        raise MissingInput("w")
    return np.asarray(np.cumsum(of_floor[::-1])[::-1])


@rule(clause="", tex=r"\q{V_drift} = \q{V_story}")
def V_drift(V_story: Array) -> Array:
    """Story shear that belongs to the static drifts, kN, shape (n_stories,)."""
    return V_story


@rule(clause="", tex=r"\q{theta_greatest} = \max_x \theta_x")
def theta_greatest(theta: Array) -> float:
    """Greatest stability coefficient of the direction."""
    return float(np.max(theta))


COMMON = (V_static, V_scaled, V_dynamic, P, V_drift, theta_greatest)


@cache
def stage_rules(rules: tuple[Rule, ...]) -> dict[str, Rule]:
    """Rules beside those of an edition, which are given."""
    of_edition = {r.name: r for r in rules}
    clause = of_edition["scaling_share"].clause if "scaling_share" in of_edition else ""
    made = {r.name: cited(r, clause) if r in (V_static, V_scaled) else r for r in COMMON}
    at_modes = [
        renamed(of_edition[name], AT_MODES) for name in ("S_a", "S_a_damped", "S_a_reduced") if name in of_edition
    ]
    at_mean = [renamed(of_edition[name], AT_MEAN) for name in ("Delta", "theta") if name in of_edition]
    governing = [renamed(of_edition["A_x_case"], OF_GOVERNING)] if "A_x_case" in of_edition else []
    return made | {r.name: r for r in (*at_modes, *at_mean, *governing)}
