"""Errors as problem details (RFC 9457), with the places, what was wrong and what to do."""

from __future__ import annotations

import sys
from typing import Any

from django.core.exceptions import PermissionDenied
from django.db import InterfaceError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from plumb_core.errors import InputRefused
from rest_framework import exceptions, status
from rest_framework.response import Response

MEDIA_TYPE = "application/problem+json"


class Remedied(exceptions.APIException):
    """Something that can't be done, at its place; `remedy` says what would."""

    place = "/"

    def __init__(self, message: str, remedy: str, path: str = ""):
        super().__init__(message)
        self.errors = [{"path": path or self.place, "message": message, "remedy": remedy}]


class Conflict(Remedied):
    """The state of things doesn't allow it."""

    status_code = status.HTTP_409_CONFLICT
    default_detail = "that can't be done now"


class TooMuch(Remedied):
    """More than there is room for."""

    status_code = status.HTTP_413_REQUEST_ENTITY_TOO_LARGE
    default_detail = "more than may be handed in"
    place = "/file"


class Outdated(exceptions.APIException):
    """A change that is based on what isn't so any more; `errors` tell what changed meanwhile."""

    status_code = status.HTTP_412_PRECONDITION_FAILED
    default_detail = "somebody changed it meanwhile"

    def __init__(self, errors: list[dict[str, Any]]):
        super().__init__(self.default_detail)
        self.errors = errors


class Baseless(exceptions.APIException):
    """A change that doesn't say what it is based on."""

    status_code = status.HTTP_428_PRECONDITION_REQUIRED
    default_detail = "the change doesn't say what it is based on"

    def __init__(self) -> None:
        super().__init__(self.default_detail)
        remedy = 'Send If-Match with the revision that was changed, such as If-Match: "3".'
        self.errors = [{"path": "/", "message": self.default_detail, "remedy": remedy}]


class Unusable(exceptions.APIException):
    """The request can't be used; `errors` names every problem."""

    status_code = status.HTTP_422_UNPROCESSABLE_ENTITY
    default_detail = "this can't be used as it stands"

    def __init__(self, errors: list[dict[str, Any]]):
        super().__init__(self.default_detail)
        self.errors = errors


TITLES = {
    400: "not understood",
    401: "not signed in",
    403: "not allowed",
    404: "not found",
    405: "not possible here",
    409: "not now",
    412: "changed meanwhile",
    413: "too large",
    415: "format not taken",
    422: "can't be used",
    428: "based on what?",
    429: "too often",
    503: "not now",
}
REMEDIES = {
    401: "Sign in.",
    403: "Sign in again; if it stays, ask the lead of the review.",
    404: "Check the address; you see only reviews that you are a member of.",
    429: "Wait a minute and try again.",
}


def document(code: int, title: str, detail: str, errors: list[dict[str, Any]] | None = None) -> dict[str, Any]:
    named = errors or [{"path": "/", "message": detail, "remedy": REMEDIES.get(code, "Mend it and send it again.")}]
    return {"type": "about:blank", "title": title, "status": code, "detail": detail, "errors": named}


def problem(code: int, title: str, detail: str, errors: list[dict[str, Any]] | None = None) -> JsonResponse:
    return JsonResponse(document(code, title, detail, errors), status=code, content_type=MEDIA_TYPE)


def _flat(detail: Any, path: str = "") -> list[dict[str, Any]]:
    """DRF's nested error lists as one list with places."""
    if isinstance(detail, dict):
        return [
            e
            for key, value in detail.items()
            for e in _flat(value, path if key == "non_field_errors" else f"{path}/{key}")
        ]
    if isinstance(detail, list):
        nested = any(isinstance(d, (dict, list)) for d in detail)
        return [e for i, value in enumerate(detail) for e in _flat(value, f"{path}/{i}" if nested else path)]
    return [{"path": path or "/", "message": str(detail), "remedy": "Mend this value and send it again."}]


def handle(error: Exception, context: dict[str, Any]) -> Response | None:
    """DRF's exception handler."""
    errors: list[dict[str, Any]] | None = None
    if isinstance(error, InputRefused):
        error = Unusable([p.as_json() for p in error.problems])
    if isinstance(error, Http404):
        error = exceptions.NotFound("there is nothing here, or it isn't yours to see")
    elif isinstance(error, PermissionDenied):
        error = exceptions.PermissionDenied()
    if not isinstance(error, exceptions.APIException):
        return None
    if isinstance(getattr(error, "errors", None), list):
        # exceptions of the application name every problem themselves
        errors = error.errors
    elif isinstance(error, exceptions.ValidationError):
        errors = _flat(error.detail)
    detail = "; ".join(e["message"] for e in errors) if errors else str(error.detail)
    code = error.status_code
    headers = {"Retry-After": str(int(error.wait or 60))} if isinstance(error, exceptions.Throttled) else None
    response = Response(document(code, TITLES.get(code, "error"), detail, errors), status=code, headers=headers)
    response.content_type = MEDIA_TYPE
    return response


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    return problem(
        403,
        "not allowed",
        "the page is out of date",
        [{"path": "/", "message": "the page is out of date", "remedy": "Load the page again."}],
    )


def _without_database() -> HttpResponse:
    """While the database is away, or takes too long; what asks again is answered when it is back."""
    said = "the database doesn't answer"
    answer = problem(
        503, "not now", said, [{"path": "/", "message": said, "remedy": "Try again in a moment; nothing was saved."}]
    )
    answer.headers["Retry-After"] = "5"
    return answer


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    return problem(404, "not found", "there is nothing at this address")


def failure(request: HttpRequest) -> HttpResponse:
    """Something that nobody foresaw; the traceback is in the server's log."""
    if isinstance(sys.exc_info()[1], OperationalError | InterfaceError):
        return _without_database()
    named = request.META.get("HTTP_X_REQUEST_ID", "")
    remedy = f"Try again; if it stays, report what you did, with the number {named}."
    return problem(
        500,
        "failed",
        "the server failed at this; nothing was saved",
        [{"path": "/", "message": "the server failed at this", "remedy": remedy}],
    )
