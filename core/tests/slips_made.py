"""Submissions with a slip upstream and all its consequences, for every slip that a place of an edition allows."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from typing import Any

import numpy as np
from plumb_core.briefs import brief_evaluation
from plumb_core.causes.search import Cause, causes_of
from plumb_core.causes.slip import Attempt, Place, plain
from plumb_core.causes.slips import slips
from plumb_core.checks.check import Check
from plumb_core.checks.recheck import all_checks, context_of
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.editions import EDITIONS
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.quantities import QUANTITIES, Kind, Scope
from plumb_core.rules import Evaluation, Key
from test_stages import right

STATED = (
    "I_e", "I", "gamma_I", "F_a", "F_v", "S_DS", "S_D1", "C_a", "C_v", "S", "kpZ", "R", "q", "mu", "S_p", "C_d",
    "Omega_0", "h", "h_x", "h_n", "w", "W", "T_a", "T_limit", "T", "C_s_plateau", "C_s_upper", "C_s_lower", "C_s",
    "coefficient", "k", "V", "F_t", "F", "V_story", "M_story", "amplifier", "S_a", "spectrum_factor", "rho", "lambda_",
)  # fmt: skip
POINTS = (0.0, 0.1, 0.2, 0.5, 0.8, 1.0, 2.0, 4.0)
LEAST_CHANGE = 0.03


@cache
def base(edition: str) -> tuple[dict[str, Any], Evaluation]:
    """The brief of a right submission, and its evaluation."""
    brief = dict(right(edition).brief)
    evaluation = brief_evaluation(read(Brief, brief))
    return brief, evaluation.assuming(inputs={Key("T_points"): np.array(POINTS)})


def keys(evaluation: Evaluation) -> Iterator[Key]:
    """The keys that the submission states, in the order of their evaluation."""
    for name in STATED:
        for direction in ("X", "Y") if QUANTITIES[name].scope is Scope.DIRECTION else (None,):
            key = Key(name, direction)
            if name in evaluation.rules or key in evaluation.inputs:
                yield key


def value_of(evaluation: Evaluation, key: Key) -> Any:
    """A value that can be stated; None where there is none."""
    try:
        value = evaluation.at(key).value
    except (MissingInput, RuleRefused):
        return None
    return None if value is None or isinstance(value, list | dict | bool) else value


def claims(evaluation: Evaluation, stories: list[str], digits: int = 5) -> list[dict[str, Any]]:
    """What the submission states, rounded."""
    stated: list[dict[str, Any]] = []
    for key in keys(evaluation):
        value = value_of(evaluation, key)
        if value is None:
            continue
        for i, single in enumerate(np.atleast_1d(value).tolist()):
            claim: dict[str, Any] = {"quantity": key.name, "direction": key.direction}
            if QUANTITIES[key.name].kind is Kind.STORIES:
                claim["story"] = stories[i]
            if QUANTITIES[key.name].kind is Kind.POINTS:
                claim["point"] = i
            text = single if isinstance(single, str) else written(single, digits)
            stated.append(claim | {"value": single if isinstance(single, str) else float(text), "text": text})
    stated += [{"quantity": "T_points", "point": i, "value": T, "text": str(T)} for i, T in enumerate(POINTS)]
    return stated


def written(value: float, digits: int = 5) -> str:
    """A number of so many digits, never with an exponent."""
    text = f"{value:.{digits}g}"
    return text if "e" not in text else f"{value:.10f}" if abs(value) < 1 else f"{value:.0f}"


def document(edition: str, evaluation: Evaluation) -> dict[str, Any]:
    brief, _ = base(edition)
    stated = claims(evaluation, [s["name"] for s in brief["stories"]])
    return {"format": "plumb-recheck", "version": 1, "brief": brief, "submission": {"label": "S0", "claims": stated}}


def place_of(edition: str, evaluation: Evaluation, key: Key) -> Place | None:
    rule = None if key in evaluation.inputs else evaluation.rules.get(key.name)
    value = value_of(evaluation, key)
    if value is None:
        return None
    arguments = evaluation.arguments(key) if rule is not None else {}
    return Place(key, rule, evaluation, EDITIONS[edition], plain(value), arguments, {}, {})


def attempts(edition: str, evaluation: Evaluation, key: Key) -> Iterator[Attempt]:
    """The slips that change a value visibly, and give one that could be stated."""
    place = place_of(edition, evaluation, key)
    if place is None or isinstance(place.value, str):
        return
    mine = np.atleast_1d(place.value)
    with np.errstate(all="ignore"):
        for attempt in (a for s in slips() for a in s.function(place)):
            if attempt.value is None or isinstance(attempt.value, str | bool):
                continue
            other = np.atleast_1d(attempt.value)
            changed = np.abs(other - mine) / np.maximum(np.abs(mine), 1e-9)
            if np.all(np.isfinite(other)) and np.all(other >= 0) and np.max(changed) >= LEAST_CHANGE:
                yield attempt


def found_in(made: dict[str, Any]) -> tuple[list[Check], list[Cause]]:
    with np.errstate(all="ignore"):
        context = context_of(made)
        checks = all_checks(context)
        return checks, causes_of(context, checks)


def same_value(one: Any, other: Any) -> bool:
    """Whether two slips cannot be told from one another: they give the same numbers."""
    if one is None or isinstance(one, str) or np.shape(one) != np.shape(other):
        return False
    return bool(np.allclose(one, other, rtol=2e-3))
