"""Irregularities of the building by an edition."""

from __future__ import annotations

from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.answers.common import Answer, _if_known
from plumb_core.documents.requests import (
    IrregularityRequest,
)
from plumb_core.facts import with_declared_facts
from plumb_core.inputs import edition_rules, inputs_of
from plumb_core.rules import Evaluation, Key

BUILDING_TESTS = ("horizontal_irregularities", "plan_regularity", "elevation_regularity", "regularity_consequences")


def _irregularity(request: IrregularityRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories)
    for d, ratios in request.drift_ratio.items():
        inputs[Key("drift_ratio", d)] = np.array(ratios, dtype=float)
    if request.lateral_lines is not None or request.frame is not None:
        # imported here: only a model needs the solver
        from plumb_core.answers.structure import plan_stiffness

        inputs[Key("floors_known")] = plan_stiffness(request)
    rules = edition_rules(request.edition, request.site, request.system)
    evaluation = with_declared_facts(Evaluation(rules, inputs))
    result: dict[str, Any] = {}
    for d in DIRECTIONS:
        irregular = _if_known(evaluation, "vertical_irregularities", d) or []
        result[d] = [{**f, "story": request.stories[f["story"]].name} for f in irregular]
    result["consequences"] = {
        d: _if_known(evaluation, "vertical_consequences", d) or []
        for d in DIRECTIONS
        if "vertical_consequences" in evaluation.rules
    }
    names = [n for n in BUILDING_TESTS if n in evaluation.rules]
    result |= {n: _if_known(evaluation, n) or [] for n in names}
    if "plan_regularity" in evaluation.rules:
        result |= {n: _if_known(evaluation, n) for n in ("regular_in_plan", "torsionally_flexible")}
    # of the model it is stated whichever the edition; it can be written into a brief
    if "plan_regularity" in evaluation.rules or Key("floors_known") in inputs:
        result["plan_stiffness"] = inputs.get(Key("floors_known"))
    return result, evaluation
