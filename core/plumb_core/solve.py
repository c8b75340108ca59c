"""Requests of the headless contract: one document in, one answer out."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS, ENGINE
from plumb_core.derivation import plain, steps_json
from plumb_core.dynamics.modes import Progress, quiet
from plumb_core.dynamics.structure import GRAVITY
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, MissingInput, Problem, RuleRefused
from plumb_core.inputs import edition_rules, evaluated, inputs_of
from plumb_core.model import answer as model_answer
from plumb_core.model_requests import ModelPart
from plumb_core.reading import read_request
from plumb_core.requests import (
    DriftRequest,
    GroundRequest,
    IrregularityRequest,
    ModesRequest,
    Request,
    ScalingRequest,
    SpectrumRequest,
    StaticRequest,
    SystemRequest,
    TorsionRequest,
    TorsionRow,
    WeightRequest,
)
from plumb_core.rules import Evaluation, Key, Rule

Answer = tuple[dict[str, Any], Evaluation]


def _first(rules: Mapping[str, Rule], names: tuple[str, ...], direction: str | None = None) -> list[Key]:
    """Keys of those names that the edition has rules for."""
    return [(name, direction) for name in names if name in rules]


def _if_known(evaluation: Evaluation, name: str, direction: str | None = None) -> Any:
    """Value of a quantity as JSON, None where the edition has no rule for it or lacks an input."""
    try:
        return plain(evaluation.value(name, direction))
    except (MissingInput, RuleRefused):
        return None


def _ground(request: GroundRequest) -> Answer:
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs_of(request.site, request.occupancy))
    edition = EDITIONS[request.edition]
    names = edition.ground_keys
    steps = evaluated(evaluation, [(n, None) for n in (*names, "ground_notes")])
    result = {edition.own_symbols.get(name, name): plain(steps[name, None].value) for name in names}
    return result | {"notes": steps["ground_notes", None].value}, evaluation


def _spectrum(request: SpectrumRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system)
    inputs["T_points", None] = np.array(request.T)
    rules = edition_rules(request.edition, request.site)
    if request.damping is not None:
        if "S_a_damped" not in rules and request.damping != 0.05:
            raise InputRefused(
                [
                    Problem(
                        "/damping",
                        f"{request.edition} has no rule for a damping other than 5 %",
                        "Leave the damping out, or give 0.05.",
                    )
                ]
            )
        inputs["damping", None] = request.damping
    evaluation = Evaluation(rules, inputs)
    direction = request.direction
    # without a system there is nothing to reduce by; with one, what it lacks is asked for
    reduced: list[Key] = [("S_a_reduced", direction)] if "system" in request.model_fields_set else []
    wanted = [("S_a_damped", None)] if request.damping is not None and "S_a_damped" in rules else []
    steps = evaluated(evaluation, [("S_a", None), ("ground_notes", None), *reduced, *wanted])
    T = np.array(request.T)
    result = {
        "T": request.T,
        "elastic": plain(steps["S_a", None].value),
        "reduced": plain(steps[reduced[0]].value) if reduced else None,
        "displacement": plain(steps["S_a", None].value * GRAVITY * (T / (2.0 * np.pi)) ** 2),
        "vertical": _if_known(evaluation, "S_a_vertical") if "S_a_vertical" in rules else None,
    }
    if wanted:
        result["damped"] = plain(steps["S_a_damped", None].value)
    return result | {"notes": steps["ground_notes", None].value}, evaluation


STATIC_KEYS = ("T_a", "T_limit", "T", "coefficient", "W", "V", "k", "F", "V_story", "M_story", "static_notes")


def _static(request: StaticRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    # a direction whose system is left empty is not asked for, unless both are
    asked = [d for d in DIRECTIONS if getattr(request.system, d).model_fields_set] or list(DIRECTIONS)
    names = [n for n in STATIC_KEYS if n in evaluation.rules or n == "W"]
    targets = [evaluation.key(n, d) for d in asked for n in names]
    steps = evaluated(evaluation, [*targets, ("ground_notes", None)], request.stories)
    result: dict[str, Any] = {}
    notes: list[str] = list(steps["ground_notes", None].value)
    for d in asked:
        at = {n: steps[evaluation.key(n, d)] for n in names}
        governed = at["coefficient"].governed
        by_weight = governed is not None and governed.governed_by in _BY_WEIGHT
        result[d] = {
            "T_a": plain(at["T_a"].value),
            "T_limit": plain(at["T_limit"].value) if "T_limit" in at else None,
            **{n: plain(at[n].value) for n in ("T", "coefficient")},
            "governed_by": governed.governed_by if governed else None,
            "W": at["W"].value,
            "V": at["V"].value,
            "exponent": None if by_weight else at["k"].value,
            **{n: plain(at[n].value) for n in ("F", "V_story", "M_story")},
            "accidental_torsion": _if_known(evaluation, "M_ta", d),
        }
        notes += [f"{d}: {note}" for note in at["static_notes"].value]
    return result | {"notes": notes}, evaluation


_BY_WEIGHT = ("1.4-1", "11.7-1", "30-11", "5.3", "5.4.2.3")
"""Equations whose forces follow the weights alone: there is no exponent."""


def _scaling(request: ScalingRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system)
    inputs["site_spectrum", None] = request.site_spectrum
    asked = [d for d in DIRECTIONS if getattr(request, d) is not None]
    if not asked:
        raise InputRefused([Problem("/X", "no base shears are given", "Give static and dynamic for X, Y or both.")])
    for d in asked:
        shears = getattr(request, d)
        inputs |= {("V_static", d): shears.static, ("V_dynamic", d): shears.dynamic}
        if request.regular is not None:
            inputs["regular", d] = request.regular
        if shears.static_coefficient_governed_by is not None:
            inputs["static_governed_by", d] = shears.static_coefficient_governed_by
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    share = _first(evaluation.rules, ("scaling_share",))
    targets: list[Key] = [(n, d) for d in asked for n in (*(k[0] for k in share), "factor_required", "scaled")]
    steps = evaluated(evaluation, targets)
    result: dict[str, Any] = {}
    for d in asked:
        required = float(steps["factor_required", d].value)
        used = getattr(request, d).factor_used or 1.0
        result[d] = {
            "share": steps["scaling_share", d].value if share else None,
            "factor_required": required,
            "applies_to": steps["scaled", d].value,
            # the rounding of binary fractions is no shortfall
            "ok": used >= required * (1 - 1e-9),
        }
    return result | {"notes": evaluation.value("modal_rules") if "modal_rules" in evaluation.rules else []}, evaluation


def _ends(greatest: float | None, average: float | None, ends: list[float] | None) -> tuple[float, float] | None:
    if ends is not None:
        return max(abs(e) for e in ends), abs(sum(ends)) / 2.0
    return (greatest, average) if greatest is not None and average is not None else None


def _torsion_row(row: TorsionRow, place: int, rules: dict[str, Rule], inputs: dict[Key, Any]) -> dict[str, Any]:
    drifts = _ends(row.max, row.avg, row.ends)
    assert drifts is not None
    given = inputs | {("drift_max", None): drifts[0], ("drift_avg", None): drifts[1]}
    displacements = _ends(None, None, row.displacement_ends)
    if displacements is not None:
        given |= {("displacement_max", None): displacements[0], ("displacement_avg", None): displacements[1]}
    evaluation = Evaluation(rules, given)
    try:
        ratio = evaluation.value("torsion_ratio")
        found = evaluation.value("torsion_class") if "torsion_class" in rules else None
        amplification = None
        if "A_x" in rules:
            if displacements is not None:
                amplification = evaluation.value("A_x")
            elif found == "regular":
                amplification = 1.0
    except RuleRefused as refused:
        raise InputRefused([Problem(f"/rows/{place}", refused.message, refused.remedy)]) from None
    return {
        "story": row.story,
        "case": row.case,
        "direction": row.direction,
        "ratio": ratio,
        "class": found,
        "amplification": amplification,
        "consequences": (_if_known(evaluation, "torsion_consequences") if "torsion_consequences" in rules else None)
        or [],
    }


def _torsion(request: TorsionRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system)
    rules = edition_rules(request.edition, request.site)
    rows = [_torsion_row(row, i, rules, inputs) for i, row in enumerate(request.rows)]
    notes = []
    if "A_x" in rules and any(r["amplification"] is None for r in rows):
        notes.append(
            "A_x takes displacements of the level, not drifts: give displacement_ends where a story is irregular"
        )
    return {"rows": rows, "notes": notes}, Evaluation(rules, inputs)


def _drift(request: DriftRequest) -> Answer:
    d = request.direction
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    if request.elastic_drift is not None:
        elastic = np.abs(np.array(request.elastic_drift, dtype=float))
    else:
        elastic = np.abs(np.diff(np.array(request.elastic_displacement, dtype=float), prepend=0.0))
    inputs["delta_e", d] = elastic
    given = {"structure_type": request.structure_type, "T_drift": request.T, "shear_ratio": request.shear_ratio}
    inputs |= {(n, None if n == "structure_type" else d): v for n, v in given.items() if v is not None}
    second_order = request.P is not None and request.V is not None
    if second_order:
        inputs |= {("P", d): np.array(request.P, dtype=float), ("V_drift", d): np.array(request.V, dtype=float)}
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    theta_keys = _first(evaluation.rules, ("theta", "theta_limit"), d) if second_order else []
    targets: list[Key] = [("Delta", d), ("drift_ratio", d), ("drift_limit", d), *theta_keys]
    steps = evaluated(evaluation, targets, request.stories)
    limit = float(steps["drift_limit", d].value)
    theta = steps["theta", d].value if theta_keys else None
    theta_limit = float(steps["theta_limit", d].value) if theta_keys else None
    exempt = evaluation.value("theta_exempt", d) if theta_keys and "theta_exempt" in evaluation.rules else None
    amplification = _if_known(evaluation, "theta_amplification", d) if theta_keys else None
    rows = []
    for i, story in enumerate(request.stories):
        ratio = float(steps["drift_ratio", d].value[i])
        row = {
            "name": story.name,
            "design_drift": float(steps["Delta", d].value[i]),
            "ratio": ratio,
            "limit": plain(limit),
            "ok": ratio <= limit * (1 + 1e-9),
            "theta": None,
            "theta_limit": theta_limit,
            "theta_ok": None,
        }
        if theta is not None and theta_limit is not None:
            row["theta"] = float(theta[i])
            row["theta_ok"] = bool(theta[i] <= theta_limit * (1 + 1e-9) or (exempt is not None and exempt[i]))
            if amplification is not None:
                row["amplification"] = amplification[i]
        rows.append(row)
    return {"stories": rows, "notes": _if_known(evaluation, "drift_notes", d) or []}, evaluation


def _weight(request: WeightRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, None, request.stories)
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    steps = evaluated(evaluation, [("w", None), ("W", None)], request.stories)
    made = _if_known(evaluation, "w_shares") or [[] for _ in request.stories]
    return {
        "W": steps["W", None].value,
        "stories": [
            {"name": s.name, "weight": float(w), "loads": loads}
            for s, w, loads in zip(request.stories, steps["w", None].value, made, strict=True)
        ],
    }, evaluation


def _irregularity(request: IrregularityRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, None, request.stories)
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    result: dict[str, Any] = {}
    for d in DIRECTIONS:
        found = _if_known(evaluation, "vertical_irregularities", d) or []
        result[d] = [{**f, "story": request.stories[f["story"]].name} for f in found]
    return result, evaluation


def _modes(request: ModesRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, None, request.stories)
    inputs["T_modes", None] = np.array(request.T)
    for d, share in request.mass_share.items():
        if len(share) != len(request.T):
            raise InputRefused(
                [
                    Problem(
                        f"/mass_share/{d}", f"{len(share)} shares for {len(request.T)} modes", "Give one share a mode."
                    )
                ]
            )
        inputs["mass_share", d] = np.array(share)
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    asked = [d for d in DIRECTIONS if d in request.mass_share]
    names = [n for n in ("mass_sum", "mass_target", "modes_enough") if n in evaluation.rules]
    steps = evaluated(evaluation, [evaluation.key(n, d) for d in asked for n in names])
    result: dict[str, Any] = {
        d: {
            "sum": steps["mass_sum", d].value,
            "target": steps["mass_target", None].value,
            "enough": bool(steps["modes_enough", d].value),
        }
        for d in asked
    }
    result["combination"] = _if_known(evaluation, "modal_combination")
    return result | {"notes": _if_known(evaluation, "modal_rules") or []}, evaluation


SYSTEM_KEYS = ("R", "Omega_0", "C_d", "q_0", "q", "mu", "S_p", "height_limit", "system_permission", "static_permitted",
               "load_combinations", "direction_rule")  # fmt: skip


def _system(request: SystemRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    return {
        d: {n: _if_known(evaluation, n, d) for n in SYSTEM_KEYS if n in evaluation.rules or (n, d) in inputs}
        for d in DIRECTIONS
    }, evaluation


_ANSWERS: dict[type[Any], Callable[[Any], Answer]] = {
    GroundRequest: _ground,
    SpectrumRequest: _spectrum,
    StaticRequest: _static,
    ScalingRequest: _scaling,
    TorsionRequest: _torsion,
    DriftRequest: _drift,
    WeightRequest: _weight,
    IrregularityRequest: _irregularity,
    ModesRequest: _modes,
    SystemRequest: _system,
}


def solve(document: Any, progress: Progress = quiet) -> dict[str, Any]:
    """Answer one request document; raises InputRefused naming every problem.

    progress : told the phase and the share done of what takes long
    """
    request: Request = read_request(document)
    head = {"engine": ENGINE, "kind": request.kind, "edition": request.edition}
    if isinstance(request, ModelPart):
        return head | model_answer(request, progress)
    result, evaluation = _ANSWERS[type(request)](request)
    answer = {**head, **result}
    if request.steps:
        answer["steps"] = steps_json(evaluation)
    return answer
