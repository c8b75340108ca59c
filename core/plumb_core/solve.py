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
from plumb_core.inputs import edition_rules, evaluated, inputs_of, why_not
from plumb_core.limits import reaches, within
from plumb_core.model import answer as model_answer
from plumb_core.model import plan_stiffness
from plumb_core.model_requests import ModelRequest
from plumb_core.reading import read_request
from plumb_core.requests import (
    DriftRequest,
    GroundRequest,
    IrregularityRequest,
    ModesRequest,
    Request,
    ScalingRequest,
    SeparationRequest,
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
    rules = edition_rules(request.edition, request.site, request.system)
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
        "vertical_reduced": _if_known(evaluation, "S_a_vertical_reduced", direction)
        if reduced and "S_a_vertical_reduced" in rules
        else None,
    }
    if wanted:
        result["damped"] = plain(steps["S_a_damped", None].value)
    return result | {"notes": steps["ground_notes", None].value}, evaluation


STATIC_KEYS = ("T_a", "T_limit", "T", "coefficient", "W", "V", "k", "F", "V_story", "M_story", "static_notes")


def _static(request: StaticRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    evaluation = Evaluation(edition_rules(request.edition, request.site, request.system), inputs)
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
        by_weight = "k" not in at or (governed is not None and governed.governed_by in _BY_WEIGHT)
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
        if ("podium", d) in inputs and "two_stage" in evaluation.rules:
            result[d]["two_stage"] = evaluated(evaluation, [("two_stage", d)])["two_stage", d].value
        notes += [f"{d}: {note}" for note in at["static_notes"].value]
    return result | {"notes": notes}, evaluation


_BY_WEIGHT = ("1.4-1", "11.7-1", "30-11")
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
    evaluation = Evaluation(edition_rules(request.edition, request.site, request.system), inputs)
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
            "ok": enough_factor(used, required),
        }
    return result | {"notes": evaluation.value("modal_rules") if "modal_rules" in evaluation.rules else []}, evaluation


PRINTED = 5e-5
"""A factor printed to four digits after the point is short by no more than half of the last one."""


def enough_factor(used: float, required: float) -> bool:
    """Whether a scale factor reaches the required one, as printed to four digits."""
    return reaches(used + PRINTED, required)


def _ends(ends: list[float] | None) -> tuple[float, float] | None:
    return None if ends is None else (max(abs(e) for e in ends), abs(sum(ends)) / 2.0)


def _torsion_inputs(row: TorsionRow) -> dict[Key, Any]:
    drifts = _ends(row.ends) if row.ends is not None else (row.max, row.avg) if row.max is not None else None
    displacements = _ends(row.displacement_ends)
    given: dict[Key, Any] = {}
    if drifts is not None:
        given |= {("drift_max", None): drifts[0], ("drift_avg", None): drifts[1]}
    if displacements is not None:
        given |= {("displacement_max", None): displacements[0], ("displacement_avg", None): displacements[1]}
    return given


def _torsion(request: TorsionRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system)
    rules = edition_rules(request.edition, request.site, request.system)
    judged = [Evaluation(rules, inputs | _torsion_inputs(row)) for row in request.rows]
    classes = [_if_known(e, "torsion_class") if "torsion_class" in rules else None for e in judged]
    # A_x holds at every level of a building that is irregular anywhere; where no story could be judged it is taken as such
    known = [c for c in classes if c is not None]
    irregular = any(c != "regular" for c in known) or not known
    rows = []
    for i, (row, evaluation, found) in enumerate(zip(request.rows, judged, classes, strict=True)):
        amplification = None
        if "A_x" in rules:
            own = Evaluation(rules, {**evaluation.inputs, ("torsion_irregular", None): irregular})
            try:
                amplification = float(own.value("A_x"))
            except MissingInput:
                amplification = 1.0 if not irregular else None
            except RuleRefused as refused:
                raise InputRefused([Problem(f"/rows/{i}", refused.message, refused.remedy)]) from None
        consequences = _if_known(evaluation, "torsion_consequences") if "torsion_consequences" in rules else None
        rows.append({
            "story": row.story, "case": row.case, "direction": row.direction,
            "ratio": _if_known(evaluation, "torsion_ratio"),
            "class": found, "amplification": amplification, "consequences": consequences or [],
        })  # fmt: skip
    notes = []
    if "A_x" in rules and any(r["amplification"] is None for r in rows):
        notes.append(
            "A_x takes displacements of the level, not drifts: give displacement_ends at every story of a building that is irregular"
        )
    return {"rows": rows, "irregular": irregular if known else None, "notes": notes}, Evaluation(rules, inputs)


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
    if request.second_order is not None:
        inputs["p_delta_included", None] = request.second_order == "included"
    evaluation = Evaluation(edition_rules(request.edition, request.site, request.system), inputs)
    theta_keys = _first(evaluation.rules, ("theta", "theta_limit"), d) if second_order else []
    targets: list[Key] = [("Delta", d), ("drift_ratio", d), ("drift_limit", d), *theta_keys]
    steps = evaluated(evaluation, targets, request.stories)
    limit_step = steps["drift_limit", d]
    limits = _if_known(evaluation, "drift_limits", d) or [float(limit_step.value)] * len(request.stories)
    theta = steps["theta", d].value if theta_keys else None
    theta_limit = float(steps["theta_limit", d].value) if theta_keys else None

    def beside(name: str) -> list[Any] | None:
        """Values by story that go with theta, None where the edition has no such rule."""
        return _if_known(evaluation, name, d) if theta_keys and name in evaluation.rules else None

    checked, exempt = beside("theta_checked"), beside("theta_exempt")
    amplification, amplified, words = (
        beside("theta_amplification"),
        beside("drift_second_order"),
        beside("second_order"),
    )
    rows = []
    for i, story in enumerate(request.stories):
        ratio = float(steps["drift_ratio", d].value[i])
        held = ratio if amplified is None else amplified[i]
        row = {
            "name": story.name,
            "design_drift": float(steps["Delta", d].value[i]),
            "ratio": ratio,
            "limit": plain(limits[i]),
            "ok": held is not None and within(held, limits[i]),
            "theta": None,
            "theta_limit": theta_limit,
            "theta_ok": None,
        }
        if theta is not None and theta_limit is not None:
            row["theta"] = float(theta[i])
            compared = float(theta[i]) if checked is None else checked[i]
            row["theta_ok"] = within(compared, theta_limit) or bool(exempt is not None and exempt[i])
            row["amplification"] = None if amplification is None else amplification[i]
            row["ratio_second_order"] = ratio if amplified is None else held
            row["second_order"] = None if words is None else words[i]
        rows.append(row)
    notes = [*(_if_known(evaluation, "drift_notes", d) or [])]
    if limit_step.governed is not None:
        notes.insert(0, f"limit by {limit_step.governed.governed_by}")
    result: dict[str, Any] = {"stories": rows, "notes": notes}
    roof = _if_known(evaluation, "roof_drift_limit", d) if "roof_drift_limit" in evaluation.rules else None
    if roof is not None:
        top = float(np.sum(steps["Delta", d].value))
        height = sum(s.height for s in request.stories)
        result["roof"] = {"ratio": top / height, "limit": roof, "ok": within(top / height, roof)}
    return result, evaluation


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


BUILDING_TESTS = ("horizontal_irregularities", "plan_regularity", "elevation_regularity", "regularity_consequences")


def _irregularity(request: IrregularityRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories)
    for d, ratios in request.drift_ratio.items():
        inputs["drift_ratio", d] = np.array(ratios, dtype=float)
    if request.lateral_lines is not None or request.frame is not None:
        inputs["floors_known", None] = plan_stiffness(request)
    evaluation = Evaluation(edition_rules(request.edition, request.site, request.system), inputs)
    result: dict[str, Any] = {}
    for d in DIRECTIONS:
        found = _if_known(evaluation, "vertical_irregularities", d) or []
        result[d] = [{**f, "story": request.stories[f["story"]].name} for f in found]
    result["consequences"] = {
        d: _if_known(evaluation, "vertical_consequences", d) or []
        for d in DIRECTIONS
        if "vertical_consequences" in evaluation.rules
    }
    names = [n for n in BUILDING_TESTS if n in evaluation.rules]
    result |= {n: _if_known(evaluation, n) or [] for n in names}
    if "plan_regularity" in evaluation.rules:
        result |= {n: _if_known(evaluation, n) for n in ("regular_in_plan", "torsionally_flexible")}
    # of the model it is told whichever the edition; it can be written into a brief
    if "plan_regularity" in evaluation.rules or ("floors_known", None) in inputs:
        result["plan_stiffness"] = inputs.get(("floors_known", None))
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
        inputs["mass_share_RZ" if d == "RZ" else "mass_share", None if d == "RZ" else d] = np.array(share)
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    asked = [d for d in DIRECTIONS if d in request.mass_share]
    names = [n for n in ("mass_sum", "mass_target", "modes_enough", "modes_verdict") if n in evaluation.rules]
    steps = evaluated(evaluation, [evaluation.key(n, d) for d in asked for n in names])
    result: dict[str, Any] = {
        d: {
            "sum": steps["mass_sum", d].value,
            "target": steps["mass_target", None].value,
            "enough": bool(steps["modes_enough", d].value),
            "verdict": steps["modes_verdict", d].value["words"],
        }
        for d in asked
    }
    result["combination"] = _if_known(evaluation, "modal_combination")
    if "modal_tests" in evaluation.rules:
        result["tests"] = _if_known(evaluation, "modal_tests") or []
    return result | {"notes": _if_known(evaluation, "modal_rules") or []}, evaluation


SYSTEM_KEYS = ("R", "Omega_0", "C_d", "rho", "q_0", "q", "mu", "S_p", "height_limit", "system_permission", "static_permitted",
               "load_combinations", "direction_rule", "redundancy_checks", "two_stage", "torsion_effects")  # fmt: skip


def _system(request: SystemRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    evaluation = Evaluation(edition_rules(request.edition, request.site, request.system), inputs)
    result: dict[str, Any] = {}
    for d in DIRECTIONS:
        names = [n for n in SYSTEM_KEYS if n in evaluation.rules or (n, d) in inputs]
        result[d] = {n: _if_known(evaluation, n, d) for n in names}
        # what couldn't be said, and why; no limit is said
        result[d]["open"] = {n: why for n in names if result[d][n] is None and (why := why_not(evaluation, n, d))}
    return result, evaluation


def _separation(request: SeparationRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories)
    d = request.direction
    inputs["delta_own", d] = request.displacement
    given = {"delta_other": request.other_displacement, "same_property": request.same_property,
             "floors_level": request.floors_level, "walls_to_base": request.walls_to_base}  # fmt: skip
    inputs |= {(n, d if n == "delta_other" else None): v for n, v in given.items() if v is not None}
    evaluation = Evaluation(edition_rules(request.edition, request.site, request.system), inputs)
    if "separation" not in evaluation.rules:
        raise InputRefused(
            [
                Problem(
                    "/edition",
                    f"{request.edition} has no rule for the separation of buildings",
                    "Choose another edition.",
                )
            ]
        )
    step = evaluated(evaluation, [("separation", d)], request.stories)["separation", d]
    return {
        "required": step.value,
        "governed_by": step.governed.governed_by if step.governed else None,
        "gap": request.gap,
        "ok": None if request.gap is None else reaches(request.gap, float(step.value)),
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
    SeparationRequest: _separation,
}


def solve(document: Any, progress: Progress = quiet) -> dict[str, Any]:
    """Answer one request document; raises InputRefused naming every problem.

    progress : told the phase and the share done of what takes long
    """
    request: Request = read_request(document)
    head = {"engine": ENGINE, "kind": request.kind, "edition": request.edition}
    if isinstance(request, ModelRequest):
        return head | model_answer(request, progress)
    result, evaluation = _ANSWERS[type(request)](request)
    answer = {**head, **result}
    if request.steps:
        answer["steps"] = steps_json(evaluation)
    return answer
