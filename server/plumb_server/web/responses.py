"""Answers that are sent as they are stored."""

from __future__ import annotations

import gzip
import json
from collections.abc import Callable
from typing import Any

import orjson
from django.http import HttpResponse, HttpResponseNotModified
from rest_framework.renderers import JSONRenderer
from rest_framework.request import Request


class PlainRenderer(JSONRenderer):
    """JSON by a quicker writer."""

    def render(self, data: Any, accepted_media_type: Any = None, renderer_context: Any = None) -> bytes:
        return b"" if data is None else dumped(data)


def dumped(data: Any) -> bytes:
    """JSON; also of numbers beyond 64 bits, which were stored before they were refused."""
    try:
        return orjson.dumps(data, default=str)
    except TypeError:
        return json.dumps(data, default=str).encode()


def stored_json(request: Request, retained: Callable[[], bytes], tag: str) -> HttpResponse:
    """JSON that is kept as gzip; nothing but its tag, and not even read, where the asker has it already."""
    named = f'"{tag}"'
    requested = request.headers.get("If-None-Match", "")
    response: HttpResponse
    if named in (part.strip().removeprefix("W/") for part in requested.split(",")):
        response = HttpResponseNotModified()
    elif "gzip" in request.headers.get("Accept-Encoding", ""):
        response = HttpResponse(retained(), content_type="application/json", headers={"Content-Encoding": "gzip"})
    else:
        response = HttpResponse(gzip.decompress(retained()), content_type="application/json")
    response["ETag"] = named
    # it may be kept, and is asked after each time: who may see it can change
    response["Cache-Control"] = "private, no-cache"
    response["Vary"] = "Accept-Encoding, Cookie"
    return response
