"""Which answer belongs to which request to the reference model."""

from __future__ import annotations

from typing import Any

from plumb_core.answers.history import history
from plumb_core.answers.modal import modal
from plumb_core.answers.response import response
from plumb_core.answers.static import static
from plumb_core.answers.structure import inspect
from plumb_core.constants import Progress, quiet
from plumb_core.documents.model_requests import (
    InspectRequest,
    ModalRequest,
    ModelRequest,
    ResponseRequest,
    StaticResponseRequest,
    TimeHistoryRequest,
)

ANSWERS = {
    InspectRequest: inspect,
    ModalRequest: modal,
    ResponseRequest: response,
    StaticResponseRequest: static,
    TimeHistoryRequest: history,
}


def answer(request: ModelRequest, progress: Progress = quiet) -> dict[str, Any]:
    """The answer to a request to the model."""
    return ANSWERS[type(request)](request, progress)  # type: ignore[operator, no-any-return]
