"""Requests of the headless contract: one document in, one answer out."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from plumb_core import ENGINE
from plumb_core.answers.building import _irregularity
from plumb_core.answers.common import Answer
from plumb_core.answers.deformation import _drift, _separation, _torsion
from plumb_core.answers.forces import _modes, _scaling, _static, _system, _weight
from plumb_core.answers.ground import _ground, _spectrum
from plumb_core.constants import Progress, quiet
from plumb_core.derivation import steps_json
from plumb_core.documents.model_requests import ModelRequest
from plumb_core.documents.reading import read_request
from plumb_core.documents.requests import (
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
    WeightRequest,
)

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

    progress : called with the phase and the share done of what takes long
    """
    request: Request = read_request(document)
    head = {"engine": ENGINE, "kind": request.kind, "edition": request.edition}
    if isinstance(request, ModelRequest):
        # imported here: only models need the solver
        from plumb_core.answers.own_model import answer as model_answer

        return head | model_answer(request, progress)
    result, evaluation = _ANSWERS[type(request)](request)
    answer = {**head, **result}
    if request.steps:
        answer["steps"] = steps_json(evaluation)
    return answer
