"""Documents are read whole or not at all; what cannot be read is named with its place and its remedy."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from plumb_core.documents.consistency import problems_across
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.documents.requests import KINDS, Request
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, Problem


def _general_remedy(context: Mapping[str, Any]) -> str:
    return "Correct the value; `plumb schema` describes it."


_REMEDIES: dict[str, Callable[[Mapping[str, Any]], str]] = {
    "extra_forbidden": lambda c: "Remove the key, or correct its spelling; `plumb schema` lists the keys.",
    "missing": lambda c: "Give this value.",
    "greater_than": lambda c: f"Give a number greater than {c.get('gt')}.",
    "greater_than_equal": lambda c: f"Give a number of at least {c.get('ge')}.",
    "less_than_equal": lambda c: f"Give a number of at most {c.get('le')}.",
    "finite_number": lambda c: "Give a finite number.",
    "literal_error": lambda c: f"Use one of: {c.get('expected')}.",
    "string_type": lambda c: "Give a text in quotation marks.",
    "too_short": lambda c: "Give at least one.",
    "list_type": lambda c: "Give a list.",
    "float_type": lambda c: "Give a number without quotation marks.",
    "bool_type": lambda c: "Give true or false.",
    "edition": lambda c: f"Use one of: {', '.join(EDITIONS)}.",
}


def _problem(error: Mapping[str, Any]) -> Problem:
    context: dict[str, Any] = dict(error.get("ctx") or {})
    # unions add the names of their members to the place; only keys and indices of the document are kept
    path = "".join(f"/{part}" for part in error["loc"] if not str(part).startswith(("float", "str", "tagged")))
    remedy = _REMEDIES.get(error["type"], _general_remedy)
    message = str(error["msg"])
    return Problem(path or "/", message[0].lower() + message[1:], remedy(context))


Model = TypeVar("Model", bound=BaseModel)


def read(model: type[Model], document: Any) -> Model:
    """`document` as the model; raises InputRefused naming every problem."""
    problems = problems_across(document, "")
    if isinstance(document, dict) and "brief" in document:
        problems += problems_across(document["brief"], "/brief")
    try:
        result = model.model_validate(document)
    except ValidationError as refused:
        problems += [_problem(error) for error in refused.errors(include_url=False)]
        raise InputRefused(dict.fromkeys(problems)) from None
    if problems:
        raise InputRefused(problems)
    return result


def read_request(document: Any) -> Request:
    """A request document as its model; raises InputRefused naming every problem."""
    if not isinstance(document, dict):
        raise InputRefused([Problem("/", "a request is a JSON object", "Give an object with a `kind`.")])
    kind = document.get("kind")
    if not isinstance(kind, str) or kind not in KINDS:
        raise InputRefused(
            [
                Problem(
                    "/kind",
                    f"kind {kind!r} is not known" if "kind" in document else "kind is missing",
                    f"Use one of: {', '.join(KINDS)}.",
                )
            ]
        )
    return read(KINDS[kind], document)


def read_recheck(document: Any) -> RecheckDocument:
    """A recheck document as its model; raises InputRefused naming every problem."""
    return read(RecheckDocument, document)
