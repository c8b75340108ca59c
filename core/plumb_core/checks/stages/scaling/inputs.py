"""Inputs of the modal base shear, read from their modes, their spectrum and their factors."""

from __future__ import annotations

from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.claims import ClaimSet, theirs
from plumb_core.checks.results import CaseResults
from plumb_core.documents.submission import Claim, Source
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.rules import Array, Evaluation, Key

QUANTITIES_OF_SCALING = ("V_static", "V_dynamic", "V_scaled", "factor_used", "factor_required", "spectrum_factor")


def modal_shear(claims: ClaimSet, results: CaseResults, direction: str, step: str) -> Claim | None:
    """The modal base shear of a direction before or after scaling: as stated, else the reaction of its modal case."""
    name = "V_dynamic" if step == "before" else "V_scaled"
    of_key = claims.by_key.get(Key(name, direction))
    if of_key is not None and of_key.single:
        return of_key.single[0]
    reactions = [
        (abs(role.eccentricity or 0.0), claim)
        for case, role in claims.cases.items()
        if role.kind == "modal"
        and role.direction == direction
        and role.step == step
        and role.level in ("reduced", None)
        for d in (direction, None)
        if (claim := results.claim(f"reaction_{direction}", d, case)) is not None
    ]
    if not reactions:
        return None
    claim = min(reactions, key=lambda r: r[0])[1]
    source = Source(**{**claim.source.model_dump(), "note": f"base reaction of {claim.case}"})
    return claim.model_copy(
        update={
            "quantity": name,
            "direction": direction,
            "case": "",
            "source": source,
            "value": abs(float(claim.value)),
        }
    )


def inputs_of_modes(claims: ClaimSet) -> dict[Key, Any]:
    """Periods and shares of their modes, of those modes that state both."""
    table = claims.modes
    inputs: dict[Key, Any] = {}
    periods = {m: T for m in table.numbers if (T := table.period(m)) is not None}
    retained = [m for m in periods if any(table.claim(Key("mass_ratio", d), m) is not None for d in DIRECTIONS)]
    if not retained:
        return {}
    inputs[Key("T_modes")] = np.array([periods[m] for m in retained])
    for d in DIRECTIONS:
        shares = [table.claim(Key("mass_ratio", d), m) for m in retained]
        if all(s is not None for s in shares):
            inputs[Key("mass_share", d)] = np.array([max(float(s.value), 0.0) for s in shares if s is not None])
    twist = [table.claim(Key("mass_ratio_RZ"), m) for m in retained]
    if all(s is not None for s in twist):
        inputs[Key("mass_share_RZ")] = np.array([max(float(s.value), 0.0) for s in twist if s is not None])
    return inputs


def curve_off(independent: Evaluation, carried: Evaluation, claims: ClaimSet) -> dict[Key, Any]:
    """Their spectrum and their factor on it over what follows from their own values, at the periods of their modes.

    A wrong curve and a wrong factor are carried into the modal base shear with it; what follows from a wrong
    coefficient
    is carried already.
    """
    T = independent.inputs.get(Key("T_modes"))
    if T is None:
        return {}
    curve = _their_curve(carried, claims, T)
    off: dict[Key, Any] = {}
    for d in DIRECTIONS:
        factor = claims.by_key.get(Key("spectrum_factor", d))
        ours = _recomputed(carried, Key("spectrum_factor", d))
        ratio = float(theirs(factor.single[0])) / float(ours) if factor and factor.single and ours else 1.0
        if abs(ratio - 1.0) > 0.005 or curve is not None:
            off[Key("curve_off", d)] = (np.ones(len(T)) if curve is None else curve) * (
                ratio if abs(ratio - 1.0) > 0.005 else 1.0
            )
    return off


def _recomputed(carried: Evaluation, key: Key) -> Any:
    try:
        return carried.unpinned(key).value
    except (MissingInput, RuleRefused):
        return None


def _their_curve(carried: Evaluation, claims: ClaimSet, T: Array) -> Array | None:
    points, ordinates = claims.by_key.get(Key("T_points")), claims.by_key.get(Key("S_a"))
    if points is None or ordinates is None or points.indexed.keys() != ordinates.indexed.keys():
        return None
    ours = _recomputed(carried, Key("S_a"))
    if ours is None:
        return None
    order = sorted(points.indexed)
    stated = np.array([float(ordinates.indexed[i].value) for i in order])
    at = np.array([float(points.indexed[i].value) for i in order])
    with np.errstate(divide="ignore", invalid="ignore"):
        off = np.where(np.asarray(ours) > 0, stated / np.asarray(ours), 1.0)
    # What is ours rounded is ours
    off = np.where(np.abs(off - 1.0) <= 0.005, 1.0, off)
    if len(at) < 2 or np.all(off == 1.0):
        return None
    return np.asarray(np.interp(T, at, off))
