"""What requests bring along."""

from __future__ import annotations

import json
import math
import re
from datetime import date
from typing import Any

from drf_spectacular.utils import OpenApiParameter
from rest_framework import serializers
from rest_framework.exceptions import ParseError
from rest_framework.parsers import JSONParser
from rest_framework.request import Request

from plumb_server.web.problems import PreconditionRequired, UnprocessableContent


class PlainJSONParser(JSONParser):
    """JSON that can be kept: not nested without end, no text and no number that a database cannot hold."""

    def parse(self, stream: Any, media_type: Any = None, parser_context: Any = None) -> Any:
        try:
            return plain_json(stream.read())
        except ValueError as error:
            raise ParseError(str(error)) from None


def plain_json(body: bytes) -> Any:
    """The document of a body; raises ValueError where it cannot be read or kept."""
    try:
        parsed = json.loads(body, parse_constant=_no_constant, parse_int=_whole, parse_float=_finite)
    except RecursionError:
        raise ValueError("the JSON is nested too deeply") from None
    rest = [parsed]
    while rest:
        value = rest.pop()
        if isinstance(value, dict):
            rest += [*value, *value.values()]
        elif isinstance(value, list):
            rest += value
        elif isinstance(value, str) and _NO_TEXT.search(value):
            raise ValueError("a text has a character that cannot be stored (NUL, or half of a surrogate pair)")
    return parsed


WIDEST = 2**63
"""Whole numbers of this size and beyond fit into no column, and into no answer."""


def _whole(text: str) -> int:
    # a text of many digits is not even made a number
    if len(text) > len(str(WIDEST)) or not -WIDEST <= (number := int(text)) < WIDEST:
        raise ValueError(f"the whole number {text[:24]}… does not fit into 64 bits; give a smaller one")
    return number


def _finite(text: str) -> float:
    if not math.isfinite(number := float(text)):
        raise ValueError(f"the number {text[:24]} is too large; give a smaller one")
    return number


def _no_constant(name: str) -> Any:
    raise ValueError(f"{name} is not a JSON number")


_NO_TEXT = re.compile("[\x00\ud800-\udfff]")


def sent(serializer: type[serializers.Serializer[Any]], request: Request) -> dict[str, Any]:
    """The body of a request as a serializer has it; refused with the fields where it has not."""
    given = serializer(data=request.data)
    given.is_valid(raise_exception=True)
    return dict(given.validated_data)


IF_MATCH = OpenApiParameter("If-Match", str, "header", required=True, description="revision that was changed, quoted")


class BasedOnSerializer(serializers.Serializer[Any]):
    """What an undo is based on."""

    based_on = serializers.IntegerField()


def based_on(request: Request) -> int:
    """The revision that a change was made on, from If-Match; refused where it is not said."""
    match = re.fullmatch(r'(?:W/)?"([0-9]{1,9})"', request.headers.get("If-Match", "").strip(), re.ASCII)
    if match is None:
        raise PreconditionRequired
    return int(match.group(1))


def date_parameter(name: str, text: str) -> date:
    """A day of the query; raises UnprocessableContent where it is none."""
    try:
        return date.fromisoformat(text)
    except ValueError:
        remedy = "Give it as YYYY-MM-DD."
        words = f"{text[:40]!r} is no date"
        raise UnprocessableContent([{"path": f"/{name}", "message": words, "remedy": remedy}]) from None


def number_parameter(request: Request, name: str) -> int | None:
    """A whole number of the query, None where it is none: digits of other scripts are none."""
    text = request.query_params.get(name, "")
    return int(text) if re.fullmatch(r"[0-9]{1,9}", text, re.ASCII) else None
