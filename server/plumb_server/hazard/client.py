"""Adapter to a hazard service that answers as `hazard/README.md` has it.

Timeout, one more try, clear words when it is down.
"""

from __future__ import annotations

import json
import logging
import threading
import time
from http.client import HTTPException
from typing import Any
from urllib.error import HTTPError, URLError
from urllib.parse import urlencode
from urllib.request import urlopen

from django.conf import settings
from django.core.cache import cache
from rest_framework import exceptions, status

logger = logging.getLogger(__name__)


class HazardUnavailable(exceptions.APIException):
    """The service does not respond; typed values always will do."""

    status_code = status.HTTP_503_SERVICE_UNAVAILABLE
    default_detail = "the hazard service does not respond"

    def __init__(self) -> None:
        super().__init__()
        self.errors = [
            {
                "path": "/hazard",
                "message": self.default_detail,
                "remedy": "Try again later, or enter the values.",
            }
        ]


class HazardRefused(exceptions.APIException):
    """The service cannot answer this question (a place outside its area, an edition that it does not hold)."""

    status_code = status.HTTP_422_UNPROCESSABLE_ENTITY

    def __init__(self, detail: str):
        super().__init__(detail)
        self.errors = [{"path": "/hazard", "message": detail, "remedy": "Correct the request, or enter the values."}]


MOST_AT_ONCE = 2
"""Look-ups of one process at a time: a service that hangs holds no more of its threads."""
FAILURES = 3
"""Failures in a row after which the service is left alone."""
LEFT_ALONE = 30
"""s for which it is then left alone; every process knows."""
_turns = threading.BoundedSemaphore(MOST_AT_ONCE)


def _get(path: str, **query: Any) -> Any:
    failing = f"hazard failures {settings.HAZARD_URL}"
    if cache.get(failing, 0) >= FAILURES or not _turns.acquire(blocking=False):
        raise HazardUnavailable
    try:
        answer = _answer(f"{settings.HAZARD_URL}{path}" + (f"?{urlencode(query)}" if query else ""))
    except HazardUnavailable:
        cache.set(failing, cache.get(failing, 0) + 1, LEFT_ALONE)
        raise
    finally:
        _turns.release()
    if cache.get(failing):
        cache.delete(failing)
    return answer


def _answer(url: str) -> Any:
    deadline = time.monotonic() + settings.HAZARD_TIMEOUT
    for last in (False, True):
        try:
            # the address is the installation's own setting, never a user's
            with urlopen(url, timeout=max(0.01, deadline - time.monotonic())) as answer:
                return json.loads(_whole(answer, deadline))
        except HTTPError as error:
            if error.code in (400, 404):
                raise HazardRefused(json.loads(_whole(error, deadline)).get("detail", "refused")) from None
            problem: Exception = error
        except (URLError, HTTPException, TimeoutError, OSError, ValueError) as error:
            problem = error
        if last or time.monotonic() > deadline:
            logger.warning("hazard service at %s: %s", settings.HAZARD_URL, problem)
            break
    raise HazardUnavailable


def _whole(answer: Any, deadline: float) -> bytes:
    """What is answered; raises TimeoutError where it comes too slowly, ValueError where it is too much."""
    whole = b""
    while piece := answer.read1(PIECE):
        whole += piece
        if time.monotonic() > deadline:
            raise TimeoutError("the answer comes too slowly")
        if len(whole) > MOST_BYTES:
            raise ValueError("the answer is too long")
    return whole


PIECE, MOST_BYTES = 65_536, 1_000_000


def values(edition: str, latitude: float, longitude: float, site_class: str = "") -> dict[str, Any]:
    """Values of an edition at a place, with version and date of the data; raises HazardRefused, HazardUnavailable."""
    query: dict[str, Any] = {"edition": edition, "latitude": latitude, "longitude": longitude}
    if site_class:
        query["site_class"] = site_class
    return dict(_get("/v1/values", **query))
