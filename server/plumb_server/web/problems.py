"""Errors as problem details (RFC 9457), with the places, what was wrong and what to do."""

from __future__ import annotations

import sys
from http import HTTPStatus
from typing import Any

from django.core.exceptions import PermissionDenied
from django.db import InterfaceError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from plumb_core.errors import InputRefused
from rest_framework import exceptions, status
from rest_framework.response import Response

MEDIA_TYPE = "application/problem+json"


class RemediedError(exceptions.APIException):
    """Something that is not possible, with its place and a remedy."""

    place = "/"

    def __init__(self, message: str, remedy: str, path: str = ""):
        super().__init__(message)
        self.errors = [{"path": path or self.place, "message": message, "remedy": remedy}]


class Conflict(RemediedError):
    """The current state of the resource does not allow the request."""

    status_code = status.HTTP_409_CONFLICT
    default_detail = "this is not possible now"


class Unavailable(RemediedError):
    """Something that the application rests on does not respond."""

    status_code = status.HTTP_503_SERVICE_UNAVAILABLE
    default_detail = "this does not respond now"


class ContentTooLarge(RemediedError):
    """The request exceeds a limit of size or number."""

    status_code = status.HTTP_413_REQUEST_ENTITY_TOO_LARGE
    default_detail = "more than the upload limit"
    place = "/file"


class PreconditionFailed(exceptions.APIException):
    """A change that is based on an outdated revision; `errors` name the changes since then."""

    status_code = status.HTTP_412_PRECONDITION_FAILED
    default_detail = "somebody changed it in the meantime"

    def __init__(self, errors: list[dict[str, Any]]):
        super().__init__(self.default_detail)
        self.errors = errors


class PreconditionRequired(exceptions.APIException):
    """A change without the revision it is based on."""

    status_code = status.HTTP_428_PRECONDITION_REQUIRED
    default_detail = "the request does not state which revision it is based on"

    def __init__(self) -> None:
        super().__init__(self.default_detail)
        remedy = 'Send If-Match with the revision that was changed, such as If-Match: "3".'
        self.errors = [{"path": "/", "message": self.default_detail, "remedy": remedy}]


class UnprocessableContent(exceptions.APIException):
    """The request cannot be processed; `errors` names every problem."""

    status_code = status.HTTP_422_UNPROCESSABLE_ENTITY
    default_detail = "this cannot be used"

    def __init__(self, errors: list[dict[str, Any]]):
        super().__init__(self.default_detail)
        self.errors = errors


# reason phrases of RFC 9110 that are newer than the standard library's
_RENAMED = {413: "Content too large", 422: "Unprocessable content"}
REMEDIES = {
    401: "Sign in.",
    403: "Sign in again. If this persists, ask the lead of the review.",
    404: "Check the address; you see only reviews that you are a member of.",
    429: "Wait a minute and try again.",
}


def title_of(code: int) -> str:
    """Return the standard reason phrase of a status code, as the title of a problem (RFC 9110, 15)."""
    return _RENAMED.get(code) or HTTPStatus(code).phrase.capitalize()


def document(code: int, detail: str, errors: list[dict[str, Any]] | None = None) -> dict[str, Any]:
    """Return a problem document; without `errors`, the detail is its only error."""
    remedy = REMEDIES.get(code, "Correct it and send it again.")
    listed = errors or [{"path": "/", "message": detail, "remedy": remedy}]
    return {"type": "about:blank", "title": title_of(code), "status": code, "detail": detail, "errors": listed}


def problem(code: int, detail: str, errors: list[dict[str, Any]] | None = None) -> JsonResponse:
    """Return a response with a problem document."""
    return JsonResponse(document(code, detail, errors), status=code, content_type=MEDIA_TYPE)


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
    return [{"path": path or "/", "message": str(detail), "remedy": "Correct this value and send it again."}]


def handle(error: Exception, context: dict[str, Any]) -> Response | None:
    """DRF's exception handler."""
    errors: list[dict[str, Any]] | None = None
    if isinstance(error, InputRefused):
        error = UnprocessableContent([p.as_json() for p in error.problems])
    if isinstance(error, Http404):
        error = exceptions.NotFound("there is nothing here, or you have no access to it")
    elif isinstance(error, PermissionDenied):
        error = exceptions.PermissionDenied()
    if not isinstance(error, exceptions.APIException):
        return None
    # exceptions of the application list every problem
    listed = getattr(error, "errors", None)
    if isinstance(listed, list):
        errors = listed
    elif isinstance(error, exceptions.ValidationError):
        errors = _flat(error.detail)
    detail = "; ".join(e["message"] for e in errors) if errors else str(error.detail)
    code = error.status_code
    headers = (
        {"Retry-After": str(int(getattr(error, "wait", None) or 60))}
        if isinstance(error, exceptions.Throttled)
        else None
    )
    response = Response(document(code, detail, errors), status=code, headers=headers)
    response.content_type = MEDIA_TYPE
    return response


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    """Answer a request without a valid CSRF token."""
    return problem(
        403,
        "the page is out of date",
        [{"path": "/", "message": "the page is out of date", "remedy": "Reload the page."}],
    )


def _without_database() -> HttpResponse:
    """Answer while the database is unavailable or too slow; the client may try again later."""
    detail = "the database does not respond"
    answer = problem(
        503, detail, [{"path": "/", "message": detail, "remedy": "Try again in a moment; nothing was saved."}]
    )
    answer.headers["Retry-After"] = "5"
    return answer


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """Answer an unknown address."""
    return problem(404, "there is nothing at this address")


def failure(request: HttpRequest) -> HttpResponse:
    """Answer an unexpected error; the traceback is in the log of the server."""
    if isinstance(sys.exc_info()[1], OperationalError | InterfaceError):
        return _without_database()
    named = request.META.get("HTTP_X_REQUEST_ID", "")
    remedy = f"Try again. If this persists, report what you did, with the number {named}."
    return problem(
        500,
        "the server failed to process this; nothing was saved",
        [{"path": "/", "message": "the server failed to process this", "remedy": remedy}],
    )
