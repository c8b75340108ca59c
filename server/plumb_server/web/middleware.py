"""Limits and headers that hold for every answer."""

from __future__ import annotations

import re
import uuid
from collections.abc import Callable

from django.conf import settings
from django.core.exceptions import DisallowedHost
from django.http import HttpRequest, HttpResponse

from plumb_server.web.problems import problem
from plumb_server.web.requests import plain_json

Answer = Callable[[HttpRequest], HttpResponse]

POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; "
    "object-src 'none'; frame-ancestors 'self'; base-uri 'none'; form-action 'self'"
)


MOST = {"/exhibits/": "MAX_EXHIBIT", "/reviews/import/": "MAX_IMPORT"}
"""Settings that say how many bytes a body may have, by how its address ends."""


FOR_MONITORS = ("/health/", "/metrics/")


class Doorkeeper:
    """Refuse what comes to a name that is not ours, and a body that is too large before any of it is read."""

    def __init__(self, answer: Answer):
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if request.path not in FOR_MONITORS:
            try:
                request.get_host()
            except DisallowedHost:
                return problem(400, "this application does not serve that host name")
        size = request.headers.get("Content-Length", "0")
        most = getattr(settings, next((entry for end, entry in MOST.items() if request.path.endswith(end)), "MAX_BODY"))
        if size.isascii() and size.isdigit() and int(size) > most:
            return problem(
                413,
                f"the request has {int(size) / 1e6:.0f} MB; the limit is {most / 1e6:.0f} MB",
                [{"path": "/file", "message": "the file is too large", "remedy": "Upload only the tables."}],
            )
        # read by the accounts library, which takes any JSON: what cannot be kept is refused before
        of_accounts = request.path.startswith("/_allauth/") or request.path == "/api/session/"
        refused = _unreadable(request) if of_accounts and request.method not in ("GET", "HEAD") else None
        return refused or self.answer(request)


MOST_OF_ACCOUNTS = 100_000
"""Bytes of a body about an account."""


def _unreadable(request: HttpRequest) -> HttpResponse | None:
    body = request.body if int(request.headers.get("Content-Length") or 0) <= MOST_OF_ACCOUNTS else b"?"
    if not body or request.content_type != "application/json":
        return None
    try:
        plain_json(body)
    except ValueError as error:
        return problem(400, str(error))
    return None


REQUEST_ID = re.compile(r"[0-9a-zA-Z-]{8,64}")


class Headers:
    """A number for each request, under which the log describes it; and nothing kept by browsers that is somebody's own.

    Pages load nothing but the application's own files; styles may be inline, scripts may not.
    """

    def __init__(self, answer: Answer):
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponse:
        # a proxy may have numbered the request; what is not a number of such a kind is none
        if not REQUEST_ID.fullmatch(request.META.get("HTTP_X_REQUEST_ID", "")):
            request.META["HTTP_X_REQUEST_ID"] = uuid.uuid4().hex
        response = self.answer(request)
        response.headers.setdefault("Content-Security-Policy", POLICY)
        response.headers.setdefault("X-Request-ID", request.META["HTTP_X_REQUEST_ID"])
        if request.path.startswith(OF_PEOPLE):
            # What was seen by who was signed in is not there for anyone who comes next
            response.headers.setdefault("Cache-Control", "no-store")
        return response


OF_PEOPLE = ("/api/", "/_allauth/", "/accounts/")
