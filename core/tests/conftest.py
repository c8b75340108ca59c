"""Fixtures that several tests start from; and every answer that any test requires is compared with its schema."""

from __future__ import annotations

import copy
import functools
from collections.abc import Callable
from typing import Any

import plumb_core.checks.recheck
import plumb_core.solve
import pytest
from plumb_core.documents.answers import SOLVED
from plumb_core.documents.results import RECHECKED
from pydantic import TypeAdapter
from submissions import BRIEF


def _held_to(schema: TypeAdapter[Any], function: Callable[..., Any]) -> Callable[..., Any]:
    """The function, failing where what it gives does not fit its schema; `__wrapped__` is the function itself."""

    @functools.wraps(function)
    def held(*arguments: Any, **named: Any) -> Any:
        answer = function(*arguments, **named)
        schema.validate_python(answer)
        return answer

    return held


# before any test module imports them
plumb_core.solve.solve = _held_to(SOLVED, plumb_core.solve.solve)
plumb_core.checks.recheck.recheck = _held_to(RECHECKED, plumb_core.checks.recheck.recheck)


@pytest.fixture
def brief() -> dict[str, Any]:
    return copy.deepcopy(BRIEF)


@pytest.fixture
def static_request(brief: dict[str, Any]) -> dict[str, Any]:
    return {"kind": "static", **brief}
