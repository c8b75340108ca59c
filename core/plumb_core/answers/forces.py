"""Lateral forces, seismic weight, systems and scaling by an edition."""

from __future__ import annotations

from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.answers.common import Answer, _first, _if_known
from plumb_core.derivation import plain
from plumb_core.documents.requests import (
    ModesRequest,
    ScalingRequest,
    StaticRequest,
    SystemRequest,
    WeightRequest,
)
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, Problem
from plumb_core.facts import with_declared_facts
from plumb_core.inputs import edition_rules, evaluated, inputs_of, why_not
from plumb_core.limits import enough_factor
from plumb_core.rules import Evaluation, Key

STATIC_KEYS = ("T_a", "T_limit", "T", "coefficient", "W", "V", "k", "F", "V_story", "M_story", "static_notes")


def _static(request: StaticRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    rules = edition_rules(request.edition, request.site, request.system)
    evaluation = with_declared_facts(Evaluation(rules, inputs))
    # a direction whose system is left empty is not requested, unless both are
    requested = [d for d in DIRECTIONS if getattr(request.system, d).model_fields_set] or list(DIRECTIONS)
    names = [n for n in STATIC_KEYS if n in evaluation.rules or n == "W"]
    # a period from analysis does without the approximate one where the code does not limit it
    if "T_limit" not in evaluation.rules and all(Key("T_analysis", d) in inputs for d in requested):
        names = [n for n in names if n != "T_a" or all(evaluation.get("T_a", d) is not None for d in requested)]
    targets = [evaluation.key(n, d) for d in requested for n in names]
    steps = evaluated(evaluation, [*targets, Key("ground_notes")], request.stories)
    result: dict[str, Any] = {}
    notes: list[str] = list(steps[Key("ground_notes")].value)
    for d in requested:
        at = {n: steps[evaluation.key(n, d)] for n in names}
        governed = at["coefficient"].governed
        by_weight = "k" not in at or (
            governed is not None and governed.governed_by in EDITIONS[request.edition].forces_by_weight
        )
        result[d] = {
            **{n: plain(at[n].value) if n in at else None for n in ("T_a", "T_limit", "T")},
            "coefficient": at["coefficient"].value,
            "governed_by": governed.governed_by if governed else None,
            "W": at["W"].value,
            "V": at["V"].value,
            "exponent": None if by_weight else at["k"].value,
            **{n: plain(at[n].value) for n in ("F", "V_story", "M_story")},
            "accidental_torsion": _if_known(evaluation, "M_ta", d),
            "diaphragm": _if_known(evaluation, "F_px", d),
        }
        if Key("podium", d) in inputs and "two_stage" in evaluation.rules:
            result[d]["two_stage"] = evaluated(evaluation, [Key("two_stage", d)])[Key("two_stage", d)].value
        notes += [f"{d}: {note}" for note in at["static_notes"].value]
    return result | {"notes": notes}, evaluation


def _scaling(request: ScalingRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system)
    inputs[Key("site_spectrum")] = request.site_spectrum
    requested = [d for d in DIRECTIONS if getattr(request, d) is not None]
    if not requested:
        raise InputRefused([Problem("/X", "no base shears are given", "Give static and dynamic for X, Y or both.")])
    for d in requested:
        shears = getattr(request, d)
        inputs |= {Key("V_static", d): shears.static, Key("V_dynamic", d): shears.dynamic}
        if request.regular is not None:
            inputs[Key("regular", d)] = request.regular
        if shears.static_coefficient_governed_by is not None:
            inputs[Key("static_governed_by", d)] = shears.static_coefficient_governed_by
    rules = edition_rules(request.edition, request.site, request.system)
    evaluation = with_declared_facts(Evaluation(rules, inputs))
    share = _first(evaluation.rules, ("scaling_share",))
    targets: list[Key] = [Key(n, d) for d in requested for n in (*(k.name for k in share), "factor_required", "scaled")]
    steps = evaluated(evaluation, targets)
    result: dict[str, Any] = {}
    for d in requested:
        required = float(steps[Key("factor_required", d)].value)
        used = getattr(request, d).factor_used or 1.0
        result[d] = {
            "share": steps[Key("scaling_share", d)].value if share else None,
            "factor_required": required,
            "applies_to": steps[Key("scaled", d)].value,
            "ok": enough_factor(used, required),
        }
    return result | {"notes": evaluation.value("modal_rules") if "modal_rules" in evaluation.rules else []}, evaluation


def _weight(request: WeightRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, None, request.stories)
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    steps = evaluated(evaluation, [Key("w"), Key("W")], request.stories)
    made = _if_known(evaluation, "w_shares") or [[] for _ in request.stories]
    return {
        "W": steps[Key("W")].value,
        "stories": [
            {"name": s.name, "weight": float(w), "loads": loads}
            for s, w, loads in zip(request.stories, steps[Key("w")].value, made, strict=True)
        ],
    }, evaluation


def _modes(request: ModesRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, None, request.stories)
    inputs[Key("T_modes")] = np.array(request.T)
    for d, share in request.mass_share.items():
        if len(share) != len(request.T):
            raise InputRefused(
                [
                    Problem(
                        f"/mass_share/{d}", f"{len(share)} shares for {len(request.T)} modes", "Give one share a mode."
                    )
                ]
            )
        inputs[Key("mass_share_RZ") if d == "RZ" else Key("mass_share", d)] = np.array(share)
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    requested = [d for d in DIRECTIONS if d in request.mass_share]
    names = [n for n in ("mass_sum", "mass_target", "modes_enough", "modes_verdict") if n in evaluation.rules]
    steps = evaluated(evaluation, [evaluation.key(n, d) for d in requested for n in names])
    result: dict[str, Any] = {
        d: {
            "sum": steps[Key("mass_sum", d)].value,
            "target": steps[Key("mass_target")].value,
            "enough": bool(steps[Key("modes_enough", d)].value),
            "verdict": steps[Key("modes_verdict", d)].value["words"],
        }
        for d in requested
    }
    result["combination"] = _if_known(evaluation, "modal_combination")
    if "modal_tests" in evaluation.rules:
        result["tests"] = _if_known(evaluation, "modal_tests") or []
    return result | {"notes": _if_known(evaluation, "modal_rules") or []}, evaluation


SYSTEM_KEYS = (
    "R",
    "Omega_0",
    "C_d",
    "rho",
    "q_0",
    "q",
    "mu",
    "S_p",
    "height_limit",
    "system_permission",
    "static_permitted",
    "load_combinations",
    "direction_rule",
    "redundancy_checks",
    "two_stage",
    "torsion_effects",
    "system_checks",
    "infill_effects",
)


def _system(request: SystemRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    rules = edition_rules(request.edition, request.site, request.system)
    evaluation = with_declared_facts(Evaluation(rules, inputs))
    result: dict[str, Any] = {}
    for d in DIRECTIONS:
        names = [n for n in SYSTEM_KEYS if n in evaluation.rules or Key(n, d) in inputs]
        result[d] = {n: _if_known(evaluation, n, d) for n in names}
        # What could not be said, and why; no limit is said
        result[d]["open"] = {n: why for n in names if result[d][n] is None and (why := why_not(evaluation, n, d))}
    return result, evaluation
