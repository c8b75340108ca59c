"""Spectrum of the reviewer as points, with their own factors and limits.

The curve (`site.T` with `site.S_a` in g or `site.S_d` in m) is read linearly, or logarithmically in both period and
ordinate; nothing is read outside it.  Factors and limits are in `site.own`; what is not given there has the default
that `OWN` names.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.edition import Edition
from plumb_core.errors import RuleRefused
from plumb_core.rules import Array, Candidate, Governed, Rule, bounded, cited, rule, rule_set, without

GRAVITY = 9.80665
OWN = {
    "period_coefficient": None,
    "period_exponent": 0.75,
    "period_limit": None,
    "mass_factor": 1.0,
    "minimum": 0.0,
    "exponent": 1.0,
    "eccentricity": 0.05,
    "mass_target": 0.90,
    "scaling_share": 1.0,
    "torsion_limit": 1.2,
    "torsion_extreme": 1.4,
    "drift_factor": 1.0,
    "drift_limit": None,
    "theta_limit": 0.10,
}
"""The reviewer's own factors with their defaults; None: not limited, or to be given where it is needed."""

_CLAUSE = "the reviewer's own"


def _own(own: Mapping[str, Any] | None, name: str) -> float:
    value = (own or {}).get(name)
    if value is None:
        value = OWN[name]
    if value is None:
        raise RuleRefused("own", f"own factor {name} is not given", f"Give site.own.{name}.")
    return float(value)


def read_curve(T: Array, curve: Mapping[str, Any]) -> Array:
    """Ordinates of the curve at periods T (s), g; refused outside its points."""
    T = np.asarray(T, dtype=float)
    periods = np.asarray(curve["T"], dtype=float)
    displacement = "S_d" in curve
    values = np.asarray(curve["S_d" if displacement else "S_a"], dtype=float)
    outside = (periods[0] > T) | (periods[-1] < T)
    if outside.any() or (displacement and np.any(T == 0)):
        bad = T[outside][0] if outside.any() else 0.0
        raise RuleRefused(
            "curve",
            f"{bad:g} s is outside the curve, which goes from {periods[0]:g} to {periods[-1]:g} s"
            + (" (a displacement says nothing of the acceleration at 0 s)" if displacement and bad == 0 else ""),
            "Add points to the curve, or request periods inside it.",
        )
    ordinates = np.interp(T, periods, values)
    if curve.get("read", "linear") == "log":
        usable = (periods > 0) & (values > 0)
        inside = periods[usable][0] <= T
        ordinates[inside] = np.exp(np.interp(np.log(T[inside]), np.log(periods[usable]), np.log(values[usable])))
    if displacement:
        ordinates = ordinates * (2.0 * np.pi / np.where(T > 0, T, 1.0)) ** 2 / GRAVITY
    return np.asarray(ordinates)


@rule(clause=_CLAUSE, tex=r"\q{S_a} = \q{curve}(\q{T_points})")
def S_a(T_points: Array, curve: Mapping[str, Sequence[float]]) -> Array:
    """Elastic spectral acceleration read off the curve, g, shape of `T_points` (s)."""
    return read_curve(T_points, curve)


@rule(clause=_CLAUSE, tex=r"\q{S_a_reduced} = S_a\,\frac{\q{I}}{\q{R}}")
def S_a_reduced(S_a: Array, R: float, I: float) -> Array:
    """Ordinates divided by the reviewer's own R and multiplied by their importance factor, g."""
    return np.asarray(S_a) * I / R


@rule(clause=_CLAUSE, tex=r"\q{I} = 1")
def I() -> float:  # noqa: E743 - the codes' symbol
    """Importance factor where none is given."""
    return 1.0


@rule(clause=_CLAUSE)
def ground_notes() -> list[str]:
    """Nothing to note."""
    return []


@rule(clause=_CLAUSE, tex=r"\q{T_a} = C\,\q{h_n}^{x}\ \text{or}\ \q{T_analysis}")
def T_a(h_n: float, own: Mapping[str, Any] | None = None, T_analysis: float | None = None) -> Governed:
    """Approximate period by the reviewer's own coefficient, s; without one, the analysis period."""
    if (own or {}).get("period_coefficient") is None and T_analysis is not None:
        return Governed(T_analysis, "analysis")
    return Governed(_own(own, "period_coefficient") * h_n ** _own(own, "period_exponent"), _CLAUSE)


@rule(clause=_CLAUSE, tex=r"\q{T_limit} = \text{limit}\times\q{T_a}")
def T_limit(T_a: float, own: Mapping[str, Any] | None = None) -> float:
    """Upper limit on the period, s; infinite where none is given."""
    limit = (own or {}).get("period_limit")
    return math.inf if limit is None else float(limit) * T_a


@rule(clause=_CLAUSE, tex=r"\q{T} = \min(\q{T_analysis},\ \q{T_limit})\ \text{or}\ \q{T_a}")
def T(T_a: float, T_limit: float, T_analysis: float | None = None) -> Governed:
    """Period used, s."""
    if T_analysis is None:
        return Governed(T_a, "T_a", (Candidate("T_a", T_a, "base"),))
    analysis = Governed(T_analysis, "analysis")
    return analysis if math.isinf(T_limit) else bounded(analysis, upper=Governed(T_limit, "limit"))


@rule(clause=_CLAUSE, tex=r"\q{S_a_T} = \q{curve}(\q{T})")
def S_a_T(T: float, curve: Mapping[str, Sequence[float]]) -> float:
    """Elastic ordinate at the period used, g."""
    return float(read_curve(np.array([T]), curve)[0])


@rule(clause=_CLAUSE, tex=r"\q{C_s_lower} = \text{minimum}")
def C_s_lower(own: Mapping[str, Any] | None = None) -> Governed:
    """Least coefficient."""
    return Governed(_own(own, "minimum"), "minimum")


@rule(
    clause=_CLAUSE,
    tex=r"\q{coefficient} = \max\left(\text{mass factor}\times\q{S_a_T}\,\frac{\q{I}}{\q{R}},\ \q{C_s_lower}\right)",
)
def coefficient(
    S_a_T: float,
    R: float,
    I: float,
    C_s_lower: Governed,
    own: Mapping[str, Any] | None = None,
) -> Governed:
    """Base shear as a fraction of the weight."""
    return bounded(Governed(_own(own, "mass_factor") * S_a_T * I / R, "curve"), lower=C_s_lower)


@rule(clause=_CLAUSE, tex=r"\q{k} = \text{exponent}")
def k(own: Mapping[str, Any] | None = None) -> float:
    """Exponent of the vertical distribution."""
    return _own(own, "exponent")


@rule(clause=_CLAUSE, tex=r"\q{F} = \q{V}\,\frac{w_x h_x^{\q{k}}}{\sum w_i h_i^{\q{k}}}")
def F(w: Array, h_x: Array, k: float, V: float) -> Array:
    """Lateral force at each level, kN, shape (n_stories,)."""
    return np.asarray(V * w * h_x**k / np.sum(w * h_x**k))


@rule(clause=_CLAUSE, tex=r"\q{eccentricity} = \text{own}")
def eccentricity(own: Mapping[str, Any] | None = None) -> float:
    """Accidental eccentricity as a share of the plan dimension."""
    return _own(own, "eccentricity")


@rule(clause=_CLAUSE)
def static_notes(T_limit: float = math.inf) -> list[str]:
    """Nothing to note."""
    return []


@rule(clause=_CLAUSE)
def w_shares(loads: Sequence[Sequence[Mapping[str, Any]]]) -> list[list[dict[str, Any]]]:
    """Share of each load: as given with it (`share`), else dead load in full and no live load."""

    def share(load: Mapping[str, Any], top: bool) -> tuple[float, str]:
        if load.get("share") is not None:
            return float(load["share"]), "the reviewer's own share"
        return (
            (0.0, "live load without a share")
            if load["kind"] in ("live", "storage", "roof_live", "snow")
            else (1.0, "in full")
        )

    return shared.shares(loads, share)


@rule(clause=_CLAUSE, tex=r"\q{mass_target} = \text{own}")
def mass_target(own: Mapping[str, Any] | None = None) -> float:
    """Share of the mass."""
    return _own(own, "mass_target")


@rule(clause=_CLAUSE, tex=r"\q{scaling_share} = \text{own}")
def scaling_share(own: Mapping[str, Any] | None = None) -> float:
    """Share of the static base shear."""
    return _own(own, "scaling_share")


@rule(clause=_CLAUSE)
def scaled() -> list[str]:
    """Responses that the scale factor applies to."""
    return ["forces"]


@rule(clause=_CLAUSE)
def torsion_class(torsion_ratio: Array, own: Mapping[str, Any] | None = None) -> list[str]:
    """Torsional irregularity of each story by the reviewer's own limits."""
    return shared.torsion_classes(torsion_ratio, _own(own, "torsion_limit"), _own(own, "torsion_extreme"))


@rule(clause=_CLAUSE)
def drift_at(torsion_irregular: bool | None = None) -> str:
    """Where the story drift is taken: at the greater end of irregular buildings, else at the centre."""
    return "edges" if torsion_irregular else "centre"


@rule(clause=_CLAUSE, tex=r"\q{amplifier} = \text{own}")
def amplifier(own: Mapping[str, Any] | None = None) -> float:
    """Design over elastic drift."""
    return _own(own, "drift_factor")


@rule(clause=_CLAUSE, tex=r"\q{drift_limit} = \text{own}")
def drift_limit(own: Mapping[str, Any] | None = None) -> float:
    """Limit of the story drift over the story height; infinite where none is given."""
    limit = (own or {}).get("drift_limit")
    return math.inf if limit is None else float(limit)


@rule(clause=_CLAUSE, tex=r"\q{theta} = \frac{\q{P}\,\q{Delta}}{\q{V_drift}\,h\,\q{amplifier}}")
def theta(P: Array, Delta: Array, V_drift: Array, h: Array, amplifier: float) -> Array:
    """Stability coefficient with the elastic drift, shape (n_stories,)."""
    return P * Delta / (V_drift * h * amplifier)


@rule(clause=_CLAUSE, tex=r"\q{theta_limit} = \text{own}")
def theta_limit(own: Mapping[str, Any] | None = None) -> float:
    """Greatest stability coefficient."""
    return _own(own, "theta_limit")


_RULES = rule_set(
    S_a,
    S_a_reduced,
    I,
    ground_notes,
    w_shares,
    T_a,
    T_limit,
    T,
    S_a_T,
    C_s_lower,
    coefficient,
    k,
    F,
    eccentricity,
    static_notes,
    mass_target,
    scaling_share,
    scaled,
    torsion_class,
    drift_at,
    amplifier,
    drift_limit,
    theta,
    theta_limit,
    *(
        cited(r, _CLAUSE)
        for r in (
            shared.h_n,
            shared.h_x,
            shared.N,
            shared.W,
            shared.w,
            shared.V,
            shared.V_story,
            shared.M_story,
            shared.M_ta,
            shared.mass_sum,
            shared.modes_enough,
            shared.modes_verdict,
            shared.factor_required,
            shared.spectrum_factor,
            shared.torsion_ratio,
            shared.torsion_irregular,
            shared.A_x_case,
            shared.A_x,
            shared.Delta,
            shared.drift_ratio,
            shared.V_base_drift_same,
            shared.factor_drift,
            without(shared.theta_verdict, "theta_checked", "theta_exempt"),
            without(shared.drift_verdict, "drift_limits", "drift_second_order"),
            shared.static_governed_by,
        )
    ),
)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set; the choices are all in `site.own`."""
    return _RULES


EDITION = Edition(
    id="custom",
    title="The reviewer's own spectrum",
    short="own spectrum",
    year=0,
    rules=rules,
    inputs=("curve", "own", "I", "R"),
    period_types=(),
    ground_keys=("I",),
    limits={"T": ("T_limit", "max"), "coefficient": ("C_s_lower", "min")},
    sums={"F": "V"},
    aspects={"minimum": {"C_s_lower": 0.0}, "importance": {"I": 1.0}, "reduction": {"R": 1.0}},
    rank=99,
    parameter_names={"I": "i importancefactor", "coefficient": "cs seismicresponsecoefficient"},
    side_by_side={
        "importance": "I",
        "reduction": "R",
        "approximate_period": "T_a",
        "period_limit": "T_limit",
        "period": "T",
        "coefficient": "coefficient",
        "weight": "W",
        "base_shear": "V",
        "exponent": "k",
        "eccentricity": "eccentricity",
        "mass_target": "mass_target",
        "scaling_share": "scaling_share",
        "drift_amplifier": "amplifier",
        "drift_limit": "drift_limit",
        "theta_limit": "theta_limit",
    },
)
