"""Sound requests made unsound, for tests that nothing falls over."""

from __future__ import annotations

import copy
import json
import math
import warnings
from collections.abc import Iterator
from typing import Any

from hypothesis import strategies as st
from plumb_core.errors import InputRefused, Problem
from plumb_core.solve import solve

VALUES: list[Any] = [0, -1, 1e-9, 1e9, 1e30, None, "", [], {}, "x", True, [0, 0, 0], 0.5, 3, math.nan, [[]], {"a": 1}]
FACTORS = [1e-6, 1e-3, -1.0, 1e3, 1e6]


def places(document: Any, at: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    steps = (
        document.items() if isinstance(document, dict) else enumerate(document) if isinstance(document, list) else ()
    )
    for key, value in steps:
        yield (*at, key)
        yield from places(value, (*at, key))


def finite(value: Any) -> bool:
    if isinstance(value, dict):
        return all(map(finite, value.values()))
    if isinstance(value, list):
        return all(map(finite, value))
    return not isinstance(value, float) or math.isfinite(value)


@st.composite
def mangled(draw: st.DrawFn, requests: list[dict[str, Any]]) -> dict[str, Any]:
    """One of the requests with one to three of its values taken away, replaced, repeated or scaled."""
    document = copy.deepcopy(draw(st.sampled_from(requests)))
    for _ in range(draw(st.integers(1, 3))):
        at = draw(st.sampled_from([p for p in places(document) if p != ("kind",)] or [("kind",)]))
        holder = document
        for key in at[:-1]:
            holder = holder[key]
        value = holder[at[-1]]
        ways = ["replace", "remove", *(["scale"] * 4 if isinstance(value, int | float) else ["repeat"])]
        match draw(st.sampled_from(ways)):
            case "replace":
                holder[at[-1]] = copy.deepcopy(draw(st.sampled_from(VALUES)))
            case "remove":
                del holder[at[-1]]
            case "scale":
                holder[at[-1]] = value * draw(st.sampled_from(FACTORS))
            case "repeat" if isinstance(holder, list):
                holder.append(copy.deepcopy(value))
    return document


def answered(document: dict[str, Any]) -> tuple[dict[str, Any], list[Problem]]:
    """(answer, none) or (none, the problems it is refused for)."""
    try:
        return solve(document), []
    except InputRefused as no:
        return {}, list(no.problems)


def stands(document: dict[str, Any]) -> None:
    """Whatever the request is, it is answered with finite numbers or refused with places: never a traceback."""
    with warnings.catch_warnings():
        # What NumPy warns of would be a silent number
        warnings.simplefilter("error", RuntimeWarning)
        found, problems = answered(document)
    assert finite(found)
    json.dumps(found, allow_nan=False)
    assert all(p.path.startswith("/") and p.message and p.remedy for p in problems)
    assert bool(found) is not bool(problems)
