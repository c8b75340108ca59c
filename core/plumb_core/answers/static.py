"""An edition's story forces on the reference model."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.answers.structure import usable_structure
from plumb_core.constants import GRAVITY, Progress, quiet
from plumb_core.documents.base import Direction
from plumb_core.documents.model_requests import (
    StaticResponseRequest,
)
from plumb_core.dynamics.modes import find_modes
from plumb_core.dynamics.response import by_story
from plumb_core.dynamics.static import static_response
from plumb_core.dynamics.structure import Array, Structure
from plumb_core.errors import InputRefused, Problem
from plumb_core.inputs import edition_rules, evaluated, inputs_of
from plumb_core.rules import Evaluation, Key

CASE = "under the forces"
"""Name of the case under which the model's own displacements are amplified."""


def _edition_forces(request: StaticResponseRequest, built: Structure) -> tuple[dict[Direction, Array], Evaluation]:
    """The edition's forces at the floors; the model's own periods where none are given."""
    period = {d: getattr(request.period, d).analysis for d in DIRECTIONS}
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    if "w" not in {k.name for k in inputs} and "loads" not in {k.name for k in inputs}:
        inputs[Key("w")] = built.floors.mass.mean(axis=1) * GRAVITY
        inputs[Key("h")] = built.floors.h
    if any(p is None for p in period.values()):
        modes = find_modes(built, 12)
        for k, d in enumerate(DIRECTIONS):
            if period[d] is None:
                inputs[Key("T_analysis", d)] = float(modes.T[np.argmax(modes.share[:, k])])
    evaluation = Evaluation(edition_rules(request.edition, request.site, request.system), inputs)
    if request.forces is not None:
        return {d: np.array(f, dtype=float) for d, f in request.forces.items()}, evaluation
    requested: tuple[Direction, ...] = ("X", "Y") if request.direction == "both" else (request.direction,)
    steps = evaluated(evaluation, [Key("F", d) for d in requested], request.stories)
    return {d: np.asarray(steps[Key("F", d)].value, dtype=float) for d in requested}, evaluation


def static(request: StaticResponseRequest, progress: Progress = quiet) -> dict[str, Any]:
    """Displacements, edge drifts, torsion ratios and A_x under the edition's forces, without and with eccentricity."""
    built = usable_structure(request)
    forces, evaluation = _edition_forces(request, built)
    for d, f in forces.items():
        if len(f) != len(built.floors):
            raise InputRefused(
                [
                    Problem(
                        "/stories",
                        f"{len(f)} story forces in {d} for {len(built.floors)} floors of the model",
                        "Give one story for each floor of the model, bottom to top.",
                    )
                ]
            )
    eccentricity = request.eccentricity
    if eccentricity is None:
        stated = evaluation.get("eccentricity")
        eccentricity = float(stated) if stated is not None else 0.05

    found_factor = evaluation.get("eccentricity_factor")
    factor = 1.0 if found_factor is None else float(found_factor)
    has_amplifier = "A_x_case" in evaluation.rules
    irregular = has_amplifier and _irregular_anywhere(built, forces, eccentricity, evaluation)

    def amplifier(greatest: Array, average: Array) -> Array:
        displaced = {Key("displacement_max", None, CASE): greatest, Key("displacement_avg", None, CASE): average}
        under = evaluation.assuming(inputs={**displaced, Key("torsion_irregular"): irregular}, cases={CASE: None})
        return np.asarray(under.value("A_x_case", case=CASE))

    cases = []
    for k, (d, f) in enumerate(forces.items()):
        progress("static response", k / len(forces))
        for case in static_response(built, d, f, eccentricity, amplifier if has_amplifier else None, factor):
            rows = by_story(built.floors, case.results, (d,))
            for i, row in enumerate(rows):
                row["A_x"] = None if case.A_x is None else float(case.A_x[i])
                row["A_x_first"] = None if case.A_x is None else float(case.rounds[0][i])
                row["e_s"] = None if case.e_s is None else float(case.e_s[i])
                row["e_d"] = None if case.e_d is None else float(case.e_d[i])
            cases.append(
                {
                    "direction": d,
                    "eccentricity": case.sign * eccentricity,
                    "base_shear": dict(zip(("X", "Y", "MZ"), case.results["base"].tolist(), strict=True)),
                    "rounds": len(case.rounds),
                    "stories": rows,
                }
            )
    return {
        "eccentricity": eccentricity,
        "eccentricity_factor": factor,
        "torsion_irregular": irregular if has_amplifier else None,
        "forces": {d: f.tolist() for d, f in forces.items()},
        "cases": cases,
        "warnings": [w.as_json() for w in built.warnings],
    }


def _irregular_anywhere(
    built: Structure, forces: Mapping[Direction, Array], eccentricity: float, evaluation: Evaluation
) -> bool:
    """Whether a story is torsionally irregular by its drifts in any direction and sense, with A_x = 1.0."""
    drifts: dict[Key, Any] = {}
    cases: dict[str, str | None] = {}
    for d, f in forces.items():
        for case in static_response(built, d, f, eccentricity):
            ends = case.results["edge_drift"][:, DIRECTIONS.index(d)]
            greatest, average = np.abs(ends[:, :2]).max(axis=1), np.abs(ends[:, 2])
            moving = greatest > 0
            if not moving.any():
                continue
            name = f"{d} {case.sign:+d}"
            cases[name] = d
            drifts |= {Key("drift_max", d, name): greatest[moving], Key("drift_avg", d, name): average[moving]}
    # without a case that moves there is nothing that could be irregular
    return bool(cases) and bool(evaluation.assuming(inputs=drifts, cases=cases).value("torsion_irregular"))
