"""Adapter to a hazard service that answers as `hazard/README.md` has it.

Timeout, one more try, clear words when it is down.
"""

from __future__ import annotations

import json
import logging
from http.client import HTTPException
from typing import Any
from urllib.error import HTTPError, URLError
from urllib.parse import urlencode
from urllib.request import urlopen

from django.conf import settings
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


def _get(path: str, **query: Any) -> Any:
    url = f"{settings.HAZARD_URL}{path}" + (f"?{urlencode(query)}" if query else "")
    for last in (False, True):
        try:
            # the address is the installation's own setting, never a user's
            with urlopen(url, timeout=settings.HAZARD_TIMEOUT) as answer:
                return json.loads(answer.read())
        except HTTPError as error:
            if error.code in (400, 404):
                raise HazardRefused(json.loads(error.read()).get("detail", "refused")) from None
            problem: Exception = error
        except (URLError, HTTPException, TimeoutError, OSError, ValueError) as error:
            problem = error
        if last:
            logger.warning("hazard service at %s: %s", settings.HAZARD_URL, problem)
    raise HazardUnavailable


def values(edition: str, latitude: float, longitude: float, site_class: str = "") -> dict[str, Any]:
    """Values of an edition at a place, with version and date of the data; raises HazardRefused, HazardUnavailable."""
    query: dict[str, Any] = {"edition": edition, "latitude": latitude, "longitude": longitude}
    if site_class:
        query["site_class"] = site_class
    return dict(_get("/v1/values", **query))
