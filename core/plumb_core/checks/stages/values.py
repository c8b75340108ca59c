"""Values of evaluations and of claims as the stages show them."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.reference import floor_ends, history_answer, matched_cases
from plumb_core.documents import results
from plumb_core.rules import Array, Evaluation, Key


def number(evaluation: Evaluation, name: str, direction: str | None = None) -> float | None:
    """Value of a quantity as a number; None where there is none."""
    value = evaluation.get(name, direction)
    return None if value is None else float(value)


def listed(values: Array | None) -> list[float | None]:
    """An array as JSON, null where it is not finite."""
    if values is None:
        return []
    plain: list[float | None] = np.asarray(values, dtype=float).tolist()
    if np.isfinite(values).all():
        return plain
    return [v if v is not None and math.isfinite(v) else None for v in plain]


def by_direction(value: Any) -> results.ByDirection:
    """Values by story of each direction, from a function of the direction."""
    found = {d: value(d) for d in DIRECTIONS}
    return {
        "X": None if found["X"] is None else listed(np.asarray(found["X"], dtype=float)),
        "Y": None if found["Y"] is None else listed(np.asarray(found["Y"], dtype=float)),
    }


def stated_by_story(context: Context, name: str, direction: str) -> Array | None:
    """Submitted values by story, NaN where none is stated; None where none is at all."""
    of_key = context.claims.by_key.get(Key(name, direction))
    if of_key is None:
        return None
    values = np.full(len(context.claims.stories), np.nan)
    for i, claim in of_key.indexed.items():
        values[i] = float(theirs(claim))
    return values


def stated(context: Context, name: str, direction: str) -> float | None:
    """A submitted value of a direction; None where none is stated."""
    of_key = context.claims.by_key.get(Key(name, direction))
    return float(theirs(of_key.single[0])) if of_key is not None and of_key.single else None


def reference_case(context: Context, case: str, direction: str) -> Mapping[str, Any] | None:
    """The case of the reference model that belongs to one of theirs; None where there is none."""
    if (history := history_answer(context, case)) is not None:
        return history
    answer = context.reference.get("static_response")
    if answer is None or len(answer["cases"][0]["stories"]) != len(context.claims.stories):
        return None
    return dict(matched_cases(context, answer, direction)).get(case)


def reference_ends(ours: Mapping[str, Any] | None, what: str, direction: str) -> list[list[float | None]]:
    """Movements of both ends of the reference model; empty where there are none."""
    return [] if ours is None else [listed(end) for end in floor_ends(ours, what, direction).T]
