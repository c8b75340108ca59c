"""The same building under several editions: values side by side, curves, and why the base shears part."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS, ENGINE
from plumb_core.briefs import brief_evaluation
from plumb_core.derivation import key_id, plain, steps_json
from plumb_core.documents.brief import Brief
from plumb_core.documents.side_by_side import (
    Across,
    AcrossCell,
    AcrossCells,
    AcrossRow,
    AcrossSpectrum,
    BuildingTest,
    Need,
    Points,
    Proposal,
    RatioFactor,
    ShearRatio,
    Words,
)
from plumb_core.editions import EDITIONS
from plumb_core.editions.edition import ASPECTS, Edition
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.inputs import lacking, missing_in_a_case, why_not
from plumb_core.quantities import QUANTITIES, Scope
from plumb_core.rules import Evaluation, Key

ROWS = {
    "importance": "Importance",
    "short_period": "Short-period or peak value",
    "one_second": "1 s value or soil factor",
    "category": "Category, zone or seismicity",
    "reduction": "Reduction of the elastic force",
    "approximate_period": "Approximate period",
    "period_limit": "Limit on the period",
    "period": "Period used",
    "coefficient": "V/W",
    "weight": "Seismic weight",
    "base_shear": "Base shear",
    "exponent": "Exponent over the height",
    "eccentricity": "Accidental eccentricity",
    "mass_target": "Mass that modes have to reach",
    "scaling_share": "Dynamic over static base shear",
    "drift_amplifier": "Design over elastic drift",
    "drift_limit": "Limit of the story drift",
    "theta_limit": "Limit of the stability coefficient",
    "permission": "System or method permitted",
}
"""Rows of the side-by-side table; `Edition.side_by_side` says which quantity of an edition is in which."""

GRID = np.unique(np.round(np.concatenate([np.linspace(0.0, 0.2, 9), np.geomspace(0.2, 10.0, 56)]), 4))
"""Periods of the curves, s; the corner periods of an edition are added to it."""

PERIODS = np.round(np.geomspace(0.1, 6.0, 36), 4)
"""Periods at which the base shear coefficient is drawn, s."""

_FAILED = (MissingInput, RuleRefused)


def _value(evaluation: Evaluation, name: str, direction: str | None = None) -> Any:
    try:
        return evaluation.value(name, direction)
    except _FAILED:
        return None


def needs(brief: Brief, edition: str) -> list[Need]:
    """What an edition needs beyond what is known of the building: inputs by name and direction.

    For the class of the soil with proposals, which nobody adopts silently: `basis` says where they come from.
    """
    evaluation = brief_evaluation(brief, edition)
    targets: list[Key] = [Key("S_a"), *(Key("V", d) for d in DIRECTIONS), *(Key("drift_ratio", d) for d in DIRECTIONS)]
    known = {Key("T_points"), Key("delta_e", "X"), Key("delta_e", "Y")}
    open_keys = [
        k
        for k in dict.fromkeys([*lacking(evaluation, targets), *missing_in_a_case(evaluation, targets)])
        if k not in known and QUANTITIES[k.name].part not in ("stories", "period")
    ]
    stored = EDITIONS[edition]
    governing = brief_evaluation(brief)
    result = []
    for name, direction, _ in open_keys:
        entry: Need = {"name": name, "direction": direction}  # type: ignore[typeddict-item]
        if name == stored.soil[0]:
            entry["proposals"], entry["basis"] = _soil_proposals(brief, stored, evaluation)
        elif name in stored.inputs and (value := governing.inputs.get(Key(name, direction))) is not None:
            # the same symbol, but defined (or mapped) otherwise
            entry["basis"] = f"{QUANTITIES[name].symbol} of {EDITIONS[brief.edition].title} is {value}"
        result.append(entry)
    return result


def _soil_proposals(brief: Brief, edition: Edition, evaluation: Evaluation) -> tuple[list[Proposal], str]:
    """Classes of the soil that may be meant, and where they come from."""
    measured = _value(evaluation, "soil_by_measurement")
    if measured is not None:
        return [{"value": measured, "share": 1.0}], "from what was measured in the ground"
    governing = EDITIONS[brief.edition]
    given = getattr(brief.site, governing.soil[0], None) if governing.soil[0] else None
    if given is None or given not in governing.soil[1]:
        return [], ""
    low, high = governing.soil[1][given]
    # soils are spaced by ratios of velocity, so overlaps are measured on a logarithmic scale
    proposals: list[Proposal] = []
    for name, (least, most) in edition.soil[1].items():
        overlap = (
            math.log(min(high, most) / max(low, least)) / math.log(high / low)
            if min(high, most) > max(low, least)
            else 0.0
        )
        if overlap > 0.02:
            proposals.append({"value": name, "share": round(overlap, 2)})
    proposals.sort(key=lambda p: -p["share"])
    basis = (
        f"{given} of {governing.title} means {low:g} to {high:g} m/s"
        if high < 5000
        else f"{given} of {governing.title} means above {low:g} m/s"
    )
    return proposals, basis


def _cell(evaluation: Evaluation, edition: Edition, row: str, direction: str | None) -> AcrossCell | None:
    name = edition.side_by_side.get(row)
    if name is None:
        return None
    quantity = QUANTITIES[name]
    try:
        step = evaluation.step(name, direction)
    except _FAILED:
        return {
            "quantity": name,
            "symbol": quantity.symbol,
            "symbol_tex": quantity.tex,
            "value": None,
            "unit": quantity.unit,
            "step": "",
            "governed_by": None,
            "clause": "",
            "note": why_not(evaluation, name, direction),
        }
    unlimited = isinstance(step.value, float) and math.isinf(step.value)
    return {
        "quantity": name,
        "symbol": quantity.symbol,
        "symbol_tex": quantity.tex,
        "value": plain(step.value),
        "unit": quantity.unit,
        "step": key_id(step.key),
        "governed_by": step.governed.governed_by if step.governed else None,
        "clause": step.clause,
        "note": "no limit" if unlimited else "",
    }


def _rows(evaluations: dict[str, Evaluation]) -> list[AcrossRow]:
    rows: list[AcrossRow] = []
    for row, label in ROWS.items():
        cells: list[AcrossCells] = []
        for identity, evaluation in evaluations.items():
            edition = EDITIONS[identity]
            name = edition.side_by_side.get(row)
            both = name is not None and QUANTITIES[name].scope is Scope.DIRECTION
            if both:
                x, y = (_cell(evaluation, edition, row, d) for d in DIRECTIONS)
                cells.append({"edition": identity, "X": x, "Y": y})
            else:
                cells.append({"edition": identity, "both": _cell(evaluation, edition, row, None)})
        if any(any(c.get(k) for k in ("X", "Y", "both")) for c in cells):
            rows.append({"id": row, "label": label, "cells": cells})
    return rows


def _spectrum(evaluation: Evaluation, edition: Edition) -> AcrossSpectrum | None:
    corners = [c for c in (_value(evaluation, name) for name in edition.corner_periods) if c]
    T = np.unique(np.concatenate([GRID, corners]))
    curve = evaluation.inputs.get(Key("curve"))
    if curve:
        T = np.unique(np.concatenate([T, curve["T"]]))
        T = T[(curve["T"][0] <= T) & (curve["T"][-1] >= T) & ((T > 0) | ("S_a" in curve))]
    T = T[(edition.longest_period or GRID[-1]) >= T]
    drawn = evaluation.assuming(inputs={Key("T_points"): T})
    elastic = _value(drawn, "S_a")
    if elastic is None:
        return None
    reduced = {d: _value(drawn, "S_a_reduced", d) for d in DIRECTIONS}
    return {"T": T.tolist(), "elastic": plain(elastic), "reduced": {"X": plain(reduced["X"]), "Y": plain(reduced["Y"])}}


def _against_period(evaluation: Evaluation, direction: str) -> Points | None:
    """V/W drawn over the period: only what rests on the period is computed again at each."""
    if _value(evaluation, "coefficient", direction) is None:
        return None
    periods, values = [], []
    for period in PERIODS.tolist():
        at = evaluation.assuming(pins={Key("T", direction): period})
        value = _value(at, "coefficient", direction)
        if value is not None:
            periods.append(period)
            values.append(float(value))
    return {"T": periods, "coefficient": values}


def _without(
    evaluation: Evaluation, edition: Edition, direction: str, reference: float, aspects: list[str]
) -> list[float] | None:
    """V/W as it is, and with one ingredient after the other removed."""
    pins: dict[Key, Any] = {}
    coefficients = [_value(evaluation, "coefficient", direction)]
    for aspect in aspects:
        if aspect == "period":
            pins[Key("T", direction)] = reference
        for name, value in edition.aspects.get(aspect, {}).items():
            pins[evaluation.key(name, direction)] = value
        swapped = evaluation.assuming(pins=pins)
        coefficients.append(_value(swapped, "coefficient", direction))
    return None if any(v is None or v <= 0 for v in coefficients) else [float(v) for v in coefficients]


def _shear_ratios(evaluations: dict[str, Evaluation], governing: str) -> list[ShearRatio]:
    """Why the base shears part: factors whose product is the ratio of the base shears, the farthest from 1 first."""
    result: list[ShearRatio] = []
    for direction in DIRECTIONS:
        ours = evaluations[governing]
        reference = _value(ours, "T_analysis", direction) or _value(ours, "T_a", direction)
        for identity, evaluation in evaluations.items():
            if identity == governing or not reference:
                continue
            # What one of the two cannot remove on its own stays with the hazard
            both = [EDITIONS[governing].aspects, EDITIONS[identity].aspects]
            aspects = [a for a in ASPECTS if a == "period" or all(a in stored for stored in both)]
            base = _without(ours, EDITIONS[governing], direction, reference, aspects)
            other = _without(evaluation, EDITIONS[identity], direction, reference, aspects)
            weights = _value(evaluation, "W"), _value(ours, "W")
            if base is None or other is None or not all(weights):
                continue
            factors: list[RatioFactor] = [
                {
                    "aspect": aspect,
                    "factor": (other[i] / other[i + 1]) / (base[i] / base[i + 1]),
                    "governing": base[i] / base[i + 1],
                    "other": other[i] / other[i + 1],
                }
                for i, aspect in enumerate(aspects)
            ]
            factors.append(
                {"aspect": "weight", "factor": weights[0] / weights[1], "governing": weights[1], "other": weights[0]}
            )
            hazard = "hazard" if "soil" in aspects else "hazard_and_soil"
            factors.append(
                {"aspect": hazard, "factor": other[-1] / base[-1], "governing": base[-1], "other": other[-1]}
            )
            factors.sort(key=lambda f: -abs(math.log(f["factor"])))
            ratio = other[0] * weights[0] / (base[0] * weights[1])
            result.append(
                {"edition": identity, "direction": direction, "ratio": ratio, "period": reference, "factors": factors}
            )
    return result


WORDS = (
    "direction_rule",
    "load_combinations",
    "modal_rules",
    "ground_notes",
    "static_notes",
    "regularity_consequences",
    "vertical_consequences",
    "drift_notes",
)


def _words(evaluation: Evaluation) -> Words:
    """What the edition asks in words; what holds in one direction only says in which."""
    by_name: dict[str, Any] = {}
    for name in WORDS:
        if QUANTITIES[name].scope is not Scope.DIRECTION:
            value = _value(evaluation, name)
        else:
            each = {d: _value(evaluation, name, d) or [] for d in DIRECTIONS}
            if each["X"] == each["Y"]:
                value = each["X"]
            elif name == "load_combinations":
                value = [{**c, "name": f"{d}: {c['name']}"} for d in DIRECTIONS for c in each[d]]
            else:
                value = [w for w in each["X"] if w in each["Y"]]
                value += [f"{d}: {w}" for d in DIRECTIONS for w in each[d] if w not in value]
        if value:
            by_name[name] = value
    words: Any = by_name
    reported: Words = words
    return reported


_STATES = {True: "met", False: "not met", None: "not tested"}


def _test(group: str, direction: str | None, words: str, state: str, **more: Any) -> BuildingTest:
    empty = {"value": None, "limit": None, "basis": "", "clause": ""}
    reported: Any = {"group": group, "direction": direction, "words": words, "state": state, **empty, **more}
    test: BuildingTest = reported
    return test


def tests(evaluation: Evaluation, stories: list[str]) -> list[BuildingTest]:
    """Tests of the building that an edition names, one by one: irregularities, regularity, redundancy, two stages.

    Each with its group, direction (None for the building), words and `state`: met or not met for a condition, there
    or none
    for an irregularity, not tested for either.
    """
    rows = [
        _test("Irregularities in plan", None, r["words"], r["state"], basis=r["basis"], clause=r["clause"])
        for r in _value(evaluation, "horizontal_irregularities") or []
    ]
    for group, name in (("Regularity in plan", "plan_regularity"), ("Regularity in elevation", "elevation_regularity")):
        rows += [
            _test(group, None, r["words"], _STATES[r["met"]], value=r["value"], limit=r["limit"], clause=r["clause"])
            for r in _value(evaluation, name) or []
        ]
    for d in DIRECTIONS:
        rows += [
            _test(
                "Irregularities in height",
                d,
                r["kind"],
                "there",
                value=r["ratio"],
                limit=r["limit"],
                basis=stories[r["story"]],
                clause=r["clause"],
            )
            for r in _value(evaluation, "vertical_irregularities", d) or []
        ]
        rows += [
            _test("Redundancy", d, r["words"], _STATES[r["met"]], basis=r["story"], clause=r["clause"])
            for r in _value(evaluation, "redundancy_checks", d) or []
        ]
        two_stage = _value(evaluation, "two_stage", d)
        rows += [
            _test("Two-stage analysis", d, r["words"], _STATES[r["met"]], value=r["value"], limit=r["limit"])
            for r in (two_stage or {}).get("conditions", [])
        ]
    return rows


def across(brief: Brief) -> Across:
    """The brief under its governing edition and all its comparison editions.

    Returns editions with what each still needs, rows of values, spectra, V/W over the period, story shears, and for
    each
    comparison edition and direction the factors whose product is the ratio of its base shear to the governing one.
    """
    with np.errstate(all="ignore"):
        identities = list(dict.fromkeys([brief.edition, *brief.comparison_editions]))
        evaluations = {i: brief_evaluation(brief, i) for i in identities}
        rows = _rows(evaluations)
        return {
            "engine": ENGINE,
            "governing": brief.edition,
            "editions": [
                {
                    "id": i,
                    "title": EDITIONS[i].title,
                    "short": EDITIONS[i].short,
                    "needs": needs(brief, i),
                    "measured_soil": _value(evaluations[i], "soil_by_measurement"),
                    "words": _words(evaluations[i]),
                    "tests": tests(evaluations[i], [s.name for s in brief.stories]),
                }
                for i in identities
            ],
            "rows": rows,
            "spectra": {i: _spectrum(e, EDITIONS[i]) for i, e in evaluations.items()},
            "coefficients": {
                i: {"X": _against_period(e, "X"), "Y": _against_period(e, "Y")} for i, e in evaluations.items()
            },
            "story_shears": {
                i: {"X": plain(_value(e, "V_story", "X")), "Y": plain(_value(e, "V_story", "Y"))}
                for i, e in evaluations.items()
            },
            "weights": {
                i: {"w": plain(_value(e, "w")), "loads": _value(e, "w_shares")} for i, e in evaluations.items()
            },
            "shear_ratios": _shear_ratios(evaluations, brief.edition),
            "steps": {i: steps_json(e) for i, e in evaluations.items()},
        }
