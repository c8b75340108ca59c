"""Rules and helpers that say the same in every code; an edition cites them under its own clause."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from itertools import pairwise
from typing import Any

import numpy as np

from plumb_core.editions import plans
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.limits import below, exceeds, reaches, within
from plumb_core.rules import Array, Governed, Rule, rule

# loads of the US codes as they print them in SI (10, 30 and 45 psf)
PARTITIONS = 0.48
"""Least partition load, kPa."""
SNOW_30_PSF, SNOW_45_PSF = 1.44, 2.16
"""Snow loads, kPa, above which a share counts."""


# Geometry and sums


@rule(clause="", tex=r"\q{h_n} = \sum h_{sx}")
def h_n(h: Array) -> float:
    """Structural height, m, from the story heights."""
    return float(np.sum(h))


@rule(clause="", tex=r"\q{h_x} = \sum_{i \le x} h_{sx,i}")
def h_x(h: Array) -> Array:
    """Height of each level above the base, m, shape (n_stories,)."""
    return np.cumsum(h)


@rule(clause="", tex=r"\q{N} = \text{number of stories}")
def N(h: Array) -> int:
    """Number of stories above the base."""
    return len(h)


@rule(clause="", tex=r"\q{W} = \sum w_x")
def W(w: Array) -> float:
    """Effective seismic weight, kN."""
    return float(np.sum(w))


@rule(clause="", tex=r"\q{w} = \sum \text{share} \times \text{load}")
def w(w_shares: Sequence[Sequence[Mapping[str, Any]]]) -> Array:
    """Seismic weight of each story, kN, shape (n_stories,), from its loads and their shares."""
    weights = np.array([sum(load["counted"] for load in story) for story in w_shares], dtype=float)
    if np.any(weights <= 0):
        place = int(np.argmax(weights <= 0))
        raise RuleRefused(
            "loads",
            f"the loads of story {place + 1} from the bottom come to {weights[place]:.4g} kN of seismic weight",
            "Check the signs of its loads: what is taken off is more than what is there.",
        )
    return weights


@rule(clause="", tex=r"\q{V} = \q{coefficient}\times\q{W}")
def V(coefficient: float, W: float) -> float:
    """Base shear, kN."""
    return coefficient * W


@rule(clause="", tex=r"\q{V_story} = \sum_{i \ge x} F_i")
def V_story(F: Array) -> Array:
    """Story shear, kN, shape (n_stories,)."""
    return np.cumsum(F[::-1])[::-1]


@rule(clause="", tex=r"\q{M_story} = \sum_{i \ge x} V_i\,h_{s,i}")
def M_story(V_story: Array, h: Array) -> Array:
    """Overturning moment at the bottom of each story, kN m, shape (n_stories,): sum of story shear times height."""
    return np.cumsum((V_story * h)[::-1])[::-1]


@rule(clause="", tex=r"\q{M_ta} = \pm\,\q{eccentricity}\,b\,F_x")
def M_ta(F: Array, b: Array, eccentricity: float) -> Array:
    """Accidental torsion moment at each level, kN m, shape (n_stories,), without amplification.

    To be taken with both signs.
    """
    return F * b * eccentricity


@rule(clause="", tex=r"\q{mass_sum} = \sum \q{mass_share}")
def mass_sum(mass_share: Array) -> float:
    """Sum of the effective modal masses of a direction as a share of the mass."""
    return float(np.sum(mass_share))


@rule(clause="", tex=r"\q{mass_target} = 0.90")
def mass_target() -> float:
    """Share of the mass that the modes have to reach in each direction."""
    return 0.90


@rule(clause="", tex=r"\q{mass_sum} \ge \q{mass_target}")
def modes_enough(mass_sum: float, mass_target: float) -> bool:
    """Whether the modes reach the target in the direction."""
    return reaches(mass_sum, mass_target)


@rule(clause="")
def modes_verdict(mass_sum: float, mass_target: float) -> dict[str, Any]:
    """Whether the modes reach the target, and by which alternative."""
    met = reaches(mass_sum, mass_target)
    return {
        "met": met,
        "words": f"{mass_sum:.1%} of the mass, {mass_target:.0%} requested" + ("" if met else ": not met"),
    }


@rule(
    clause="", tex=r"\q{factor_required} = \max\left(1,\ \q{scaling_share}\,\frac{\q{V_static}}{\q{V_dynamic}}\right)"
)
def factor_required(scaling_share: float, V_static: float, V_dynamic: float) -> float:
    """Scale factor for the modal results; never below 1, for the rule only raises."""
    return max(1.0, scaling_share * V_static / V_dynamic)


@rule(clause="", tex=r"\q{spectrum_factor} = \frac{\q{I}}{\q{R}}")
def spectrum_factor(I: float, R: float) -> float:
    """Factor on the elastic ordinates in the modal analysis, in multiples of g."""
    return I / R


@rule(clause="", tex=r"\q{torsion_ratio} = \frac{\q{drift_max}}{\q{drift_avg}}")
def torsion_ratio(drift_max: Array, drift_avg: Array) -> Array:
    """Greatest over average story drift of the two ends, shape (n_stories,).

    Infinite for a pure twist, whose average is nothing.
    """
    return over(drift_max, drift_avg)


@rule(clause="", tex=r"\text{a class other than regular, in any case}")
def torsion_irregular(torsion_class: Mapping[str, list[str]] | None = None) -> bool:
    """Whether any story of the building is torsionally irregular in any case.

    Taken as such where none could be judged.
    """
    return not torsion_class or any(c != "regular" for classes in torsion_class.values() for c in classes)


A_X_TEX = r"\q{A_x_case} = \left(\frac{\q{displacement_max}}{1.2\,\q{displacement_avg}}\right)^2,\ 1 \le A_x \le 3"


@rule(clause="", tex=A_X_TEX)
def A_x_case(displacement_max: Array, displacement_avg: Array, torsion_irregular: bool = True) -> Array:
    """Torsional amplification factor of each level.

    From its *displacements* (the irregularity is judged on drifts), (n_stories,).

    At every level of a building that is irregular at any story, its regular stories included; 1 in a regular building.
    """
    amplification = amplification_of_torsion(displacement_max, displacement_avg)
    return amplification if torsion_irregular else np.ones_like(amplification)


@rule(clause="", tex=r"\q{A_x} = \max_\text{cases} A_x")
def A_x(A_x_case: Mapping[str, Array]) -> Array:
    """Torsional amplification factor of each level in the direction, shape (n_stories,): the greatest of its cases."""
    return np.asarray(np.max(list(A_x_case.values()), axis=0))


@rule(clause="", tex=r"\q{Delta} = \q{amplifier}\,\q{delta_e}")
def Delta(amplifier: float, delta_e: Array) -> Array:
    """Design story drift, m, shape (n_stories,)."""
    return amplifier * delta_e


@rule(clause="", tex=r"\q{drift_ratio} = \q{Delta}/h")
def drift_ratio(Delta: Array, h: Array) -> Array:
    """Design story drift over the story height, shape (n_stories,)."""
    return Delta / h


# Gravity loads of second order effects


def gravity_by(kinds: Mapping[str, float], clause: str, words: str) -> Rule:
    """Rule for the vertical load of each floor for P-Delta from its loads: `kinds` -> share of the load."""

    @rule(clause=clause, tex=rf"\q{{gravity}} = \text{{{words}}}")
    def gravity(loads: Sequence[Sequence[Mapping[str, Any]]]) -> Array:
        """Vertical load of each floor for P-Delta, kN, shape (n_stories,)."""
        return np.array([sum(kinds.get(load["kind"], 0.0) * _known_amount(load) for load in story) for story in loads])

    return gravity


def _known_amount(load: Mapping[str, Any]) -> float:
    """Amount of a load; refused where only a seismic weight is known, which is no vertical load."""
    if load["kind"] == "given":
        raise MissingInput("loads")
    return float(load["amount"])


DEAD_KINDS = ("dead", "partition", "equipment", "landscaping")
DEAD_AND_LIVE = dict.fromkeys((*DEAD_KINDS, "live", "storage"), 1.0)
"""Kinds of load of P_x where it is dead plus live load."""


# Conditions and verdicts


@rule(clause="", tex=r"\q{static_governed_by} = \text{equation that governed }\q{coefficient}")
def static_governed_by(coefficient: Governed) -> str:
    """Equation that governed the static coefficient."""
    return coefficient.governed_by


@rule(clause="")
def site_spectrum(site_specific: Mapping[str, Any] | None = None) -> bool:
    """Whether the modal analysis uses the spectrum of a site-specific study."""
    return bool(site_specific and site_specific.get("T"))


@rule(clause="", defines="drift_at")
def drift_at_edges() -> str:
    """Where the drift is taken that is compared with its limit: at the greater end."""
    return "edges"


@rule(
    clause="",
    tex=r"\q{theta_verdict}\text{: }\q{theta_checked}\text{ or }\q{theta} \le \q{theta_limit}\text{, or exempt}",
)
def theta_verdict(
    theta: Array, theta_limit: float, theta_checked: Array | None = None, theta_exempt: Sequence[bool] | None = None
) -> list[bool]:
    """Whether the stability coefficient of each story is within its limit."""
    compared = theta if theta_checked is None else theta_checked
    exempt = theta_exempt if theta_exempt is not None else [False] * len(theta)
    return [within(t, theta_limit) or bool(e) for t, e in zip(compared.tolist(), exempt, strict=True)]


@rule(clause="", tex=r"\q{drift_verdict}\text{: }\q{drift_second_order}\text{ or }\q{drift_ratio} \le \q{drift_limit}")
def drift_verdict(
    drift_ratio: Array,
    drift_limit: float,
    drift_limits: Sequence[float] | None = None,
    drift_second_order: Sequence[float | None] | None = None,
    theta_verdict: Sequence[bool] | None = None,
) -> list[bool | None]:
    """Whether the design drift of each story is within its limit, with its second order amplification.

    None where the stability coefficient exceeds its limit: the drift of an unstable story is not decided.
    """
    limits = drift_limits if drift_limits is not None else [drift_limit] * len(drift_ratio)
    compared = drift_second_order if drift_second_order is not None else drift_ratio.tolist()
    stable = theta_verdict if theta_verdict is not None else [True] * len(drift_ratio)
    return [
        within(ratio, limit) if ratio is not None and fine else None
        for ratio, limit, fine in zip(compared, limits, stable, strict=True)
    ]


@rule(clause="", defines="V_base_drift", tex=r"\q{V_base_drift} = \q{V}")
def V_base_drift_same(V: float) -> float:
    """Base shear for drift, kN: that for strength."""
    return V


@rule(clause="", tex=r"\q{V_base_drift} = \q{C_s_drift}\,\q{W}")
def V_base_drift(C_s_drift: float, W: float) -> float:
    """Base shear for drift, kN."""
    return C_s_drift * W


@rule(clause="", tex=r"\q{T_for_drift} = \q{T_analysis}\text{, else }\q{T_a}")
def T_for_drift(T_a: float, T_analysis: float | None = None) -> float:
    """Period of the base shear for drift, s: from analysis without its upper limit, else the approximate one."""
    return T_a if T_analysis is None else T_analysis


@rule(
    clause="",
    tex=(
        r"\q{factor_drift} = "
        r"\max\left(1,\ \q{scaling_share}\,\frac{\q{V_base_drift}}{\q{V_dynamic}}\right)\text{ where drifts are scaled}"
    ),
)
def factor_drift(scaled: Sequence[str], scaling_share: float, V_base_drift: float, V_dynamic: float) -> float:
    """Scale factor that modal drifts require; 1 where the code does not scale them."""
    return max(1.0, scaling_share * V_base_drift / V_dynamic) if "drifts" in scaled else 1.0


@rule(clause="", defines="factor_drift", tex=r"\q{factor_drift} = 1")
def factor_drift_none() -> float:
    """Scale factor that modal drifts require: none."""
    return 1.0


@rule(clause="", defines="drift_verdict", tex=drift_verdict.tex)
def drift_verdict_alone(
    drift_ratio: Array, drift_limit: float, drift_limits: Sequence[float] | None = None
) -> list[bool | None]:
    """Whether the design drift of each story is within its limit; second order effects do not enter."""
    verdicts: list[bool | None] = drift_verdict.function(drift_ratio, drift_limit, drift_limits)
    return verdicts


@rule(clause="")
def irregular_types(
    horizontal_irregularities: Sequence[Mapping[str, Any]] | None = None,
    vertical_irregularities: Sequence[Irregularity] | None = None,
    irregularities: Mapping[str, bool] | None = None,
    podium: Mapping[str, Any] | None = None,
) -> list[str]:
    """Types of irregularity that are there, in plan and in height: found from the brief's tables or declared.

    Above a podium that is declared each part is a structure of its own: the step between them is no irregularity in
    height.
    """
    types = plans.there(horizontal_irregularities or ())
    types |= {name for name, present in (irregularities or {}).items() if present}
    if podium is None:
        types |= {type_of(str(found["kind"])) for found in vertical_irregularities or ()}
    return [name for name in TYPES if name in types]


@rule(clause="")
def regular_known(
    irregular_types: Sequence[str], regular: bool | None = None, irregularities: Mapping[str, bool] | None = None
) -> str:
    """Whether the building is regular: "regular", "irregular", or "" where that is not known.

    Irregular by any type that is there; regular as declared, or where every type is declared as not there.
    """
    if irregular_types or regular is False:
        return "irregular"
    tested = irregularities or {}
    if regular or all(tested.get(name) is False for name in TYPES if name not in GRAVER):
        return "regular"
    return ""


# Helpers for rules

TYPES = (
    "torsional",
    "extreme_torsional",
    "reentrant_corner",
    "diaphragm_discontinuity",
    "out_of_plane_offset",
    "nonparallel_systems",
    "soft_story",
    "extreme_soft_story",
    "mass",
    "vertical_geometric",
    "in_plane_discontinuity",
    "weak_story",
    "extreme_weak_story",
)
"""Types of irregularity, in plan and then in height, as a brief declares them."""
GRAVER = {"extreme_torsional": "torsional", "extreme_soft_story": "soft_story", "extreme_weak_story": "weak_story"}
"""Graver degrees: where the type is not there, the graver degree is not either."""


def type_of(kind: str) -> str:
    """Type of a vertical irregularity by the words of the edition's table: "1b extreme soft story"."""
    if "soft" in kind:
        return "extreme_soft_story" if "extreme" in kind else "soft_story"
    if "weak" in kind:
        return "extreme_weak_story" if "extreme" in kind or "below 65" in kind else "weak_story"
    return "mass" if "mass" in kind else "vertical_geometric"


def over(greatest: Array, other: Array) -> Array:
    """`greatest` over `other`, infinite where the other one is nothing beside it."""
    nothing = np.abs(other) <= 1e-12 * np.abs(greatest)
    return np.asarray(np.where(nothing, math.inf, greatest / np.where(nothing, 1.0, other)))


def amplification_of_torsion(displacement_max: Array, displacement_avg: Array) -> Array:
    """(delta_max / (1.2 delta_avg))^2, from 1 to 3."""
    # beyond the root of 3 it is 3, however far
    ratio = np.minimum(over(displacement_max, displacement_avg) / 1.2, 2.0)
    return np.asarray(np.clip(ratio**2, 1.0, 3.0))


def torsion_classes(ratio: Array, torsional: float, extreme: float = math.inf) -> list[str]:
    """Class of each story: more than `extreme`, more than `torsional`, or regular."""
    return [
        "extreme" if exceeds(r, extreme) else "torsional" if exceeds(r, torsional) else "regular"
        for r in ratio.tolist()
    ]


def second_order_amplified(
    theta: Array, start: float, end: float, factor: Callable[[float], float]
) -> list[float | None]:
    """Factor on the effects of each story: 1 up to `start`, `factor` up to `end`, none beyond."""
    return [1.0 if within(t, start) else factor(t) if within(t, end) else None for t in theta.tolist()]


def read_points(T: Array, points: Mapping[str, Any], name: str) -> Array:
    """Ordinates between the points of a curve (T in s, S_a in g), read linearly; refused outside them."""
    T = np.asarray(T, dtype=float)
    periods, values = np.asarray(points["T"], dtype=float), np.asarray(points["S_a"], dtype=float)
    outside = (periods[0] > T) | (periods[-1] < T)
    if outside.any():
        raise RuleRefused(
            name,
            (
                f"{T[outside][0]:g} s is outside the site-specific spectrum, which goes from {periods[0]:g} to "
                f"{periods[-1]:g} s"
            ),
            "Give points of the study up to that period.",
        )
    return np.asarray(np.interp(T, periods, values))


def period_type_note(
    table: Sequence[tuple[str, tuple[str, ...]]], lateral_system: str, period_type: str, clause: str
) -> list[str]:
    """A note where the structure type of the approximate period is not that of the lateral system.

    table : beginnings of ids of systems and the types that fit, the first that matches holds; `other` where none does
    """
    if not lateral_system or not period_type:
        return []
    fits = next((types for beginning, types in table if lateral_system.startswith(beginning)), ("other",))
    if period_type in fits:
        return []
    return [
        f"period type {period_type} does not fit the lateral system {lateral_system}: {' or '.join(fits)} by {clause}"
    ]


def permission_note(system_permission: str) -> list[str]:
    """A note where the lateral system is not permitted here, or is too tall."""
    return (
        []
        if not system_permission or system_permission.startswith("permitted")
        else [f"lateral system {system_permission}"]
    )


def stiffest(value: float, bounds: Sequence[tuple[str, float]], softest: str) -> str:
    """Class of the ground: the first whose lower bound the value is above.

    The last bound still belongs to its class.
    """
    last = bounds[-1]
    for name, bound in bounds:
        if exceeds(value, bound) or ((name, bound) == last and reaches(value, bound)):
            return name
    return softest


def measured(
    velocity: Sequence[tuple[str, float]],
    blows: Sequence[tuple[str, float]],
    strength: Sequence[tuple[str, float]],
    softest: str,
    v_s30: float | None,
    N_SPT: float | None,
    s_u: float | None,
    *,
    softer_holds: bool = False,
) -> str:
    """Class from what was measured: velocity before blow count before shear strength.

    softer_holds : where blow count and shear strength class the soil differently, the softer of the two classes
    """
    classes = [
        stiffest(value, bounds, softest)
        for value, bounds in ((v_s30, velocity), (N_SPT, blows), (s_u, strength))
        if value is not None and bounds
    ]
    if classes and (v_s30 is not None or not softer_holds):
        return classes[0]
    if classes:
        order = [name for name, _ in (velocity or blows)] + [softest]
        return max(classes, key=order.index)
    raise RuleRefused(
        "v_s30",
        "nothing that was measured in the ground is given",
        "Give v_s30 (m/s), the blow count or the undrained shear strength of the top 30 m.",
    )


def shares(
    loads: Sequence[Sequence[Mapping[str, Any]]],
    share: Callable[[Mapping[str, Any], bool], tuple[float, str]],
    partitions: float = 0.0,
) -> list[list[dict[str, Any]]]:
    """What of each load counts as seismic weight.

    share : called with a load and whether it is on the top story, gives the share and the words for it.  A weight that
        was given as such (kind `given`) counts in full.  partitions : least weight of partitions over their area, kPa.
    The share of partitions stated as nothing is null: their least weight counts all the same.
    """
    counted = []
    for number, story in enumerate(loads):
        rows = []
        for load in story:
            part: float | None
            part, why = (
                (1.0, "given as seismic weight") if load["kind"] == "given" else share(load, number == len(loads) - 1)
            )
            weight = part * load["amount"]
            if load["kind"] == "partition" and exceeds(least := partitions * _area(load), weight):
                weight, part = least, least / load["amount"] if load["amount"] else None
            rows.append({**load, "share": part, "counted": weight, "why": why})
        counted.append(rows)
    return counted


def _area(load: Mapping[str, Any]) -> float:
    """Area of a load, m2: as given, else from its amount and intensity; 0 where neither states."""
    if load.get("area"):
        return float(load["area"])
    return float(load["amount"] / load["intensity"]) if load.get("intensity") and load["amount"] > 0 else 0.0


def intensity(load: Mapping[str, Any]) -> float:
    """Intensity of a load, kPa; refused where the share depends on it and it is not given."""
    if load.get("intensity") is None:
        raise RuleRefused(
            "loads",
            f"the share of {load.get('name') or load['kind']} depends on its intensity, which is not given",
            "Give the intensity of the load in kPa.",
        )
    return float(load["intensity"])


def closely_spaced(T_modes: Array, ratio: float) -> bool:
    """Whether a period is more than `ratio` times the next longer one."""
    T = np.sort(np.asarray(T_modes, dtype=float))[::-1]
    return any(exceeds(shorter, ratio * longer) for longer, shorter in pairwise(T.tolist()))


Irregularity = dict[str, Any]


def _found(story: int, kind: str, ratio: float, limit: float, clause: str) -> Irregularity:
    return {"story": story, "kind": kind, "ratio": float(ratio), "limit": limit, "clause": clause}


def less_than_above(
    values: Array | None, grades: Sequence[tuple[str, float, float | None]], clause: str
) -> list[Irregularity]:
    """Stories whose stiffness or strength falls short of those above.

    grades : (kind, share of the story above, share of the mean of the three above or None), the gravest first
    """
    irregular: list[Irregularity] = []
    for i in range(0 if values is None else len(values) - 1):
        assert values is not None
        above = values[i] / values[i + 1]
        mean = values[i] / np.mean(values[i + 1 : i + 4]) if i + 3 < len(values) else np.inf
        for kind, limit, mean_limit in grades:
            if below(above, limit):
                irregular.append(_found(i, kind, above, limit, clause))
                break
            if mean_limit is not None and below(mean, mean_limit):
                irregular.append(_found(i, kind, mean, mean_limit, clause))
                break
    return irregular


def more_than_adjacent(
    values: Array | None,
    limit: float,
    kind: str,
    clause: str,
    *,
    only_below: bool = False,
    light_roof_exempt: bool = False,
    roof_exempt: bool = False,
) -> list[Irregularity]:
    """Stories whose value exceeds `limit` times that of a story next to it.

    only_below : compare with the story below only.  light_roof_exempt : a roof lighter than the floor below is no
        trigger.
    roof_exempt : the roof is not assessed, light or heavy.
    """
    irregular: list[Irregularity] = []
    if values is None:
        return irregular
    top = len(values) - 1
    for i in range(len(values) - roof_exempt):
        adjacent = [values[i - 1]] if i else []
        if not only_below and i < top and not ((roof_exempt or light_roof_exempt) and i + 1 == top):
            adjacent.append(values[i + 1])
        ratio = max((values[i] / other for other in adjacent), default=0.0)
        if exceeds(ratio, limit):
            irregular.append(_found(i, kind, ratio, limit, clause))
    return irregular


def steady_drift(drift_ratio: Array | None, limit: float) -> bool:
    """Whether no story drift ratio exceeds `limit` times that of the story above.

    The top two stories are not assessed.
    """
    if drift_ratio is None or len(drift_ratio) < 3:
        return False
    return all(within(lower, limit * upper) for lower, upper in pairwise(drift_ratio[:-1].tolist()))
