"""Values and steps of evaluations as JSON."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Evaluation, Key, Step


def plain(value: Any) -> Any:
    """A value of the core as JSON has it; no limit (infinity) is null."""
    if isinstance(value, np.ndarray):
        return value.tolist()
    if isinstance(value, np.generic):
        return value.item()
    if isinstance(value, float) and math.isinf(value):
        return None
    return value


def key_id(key: Key) -> str:
    """A key as text: `S_DS`, or `V.X` for a direction's quantity."""
    return key[0] if key[1] is None else f"{key[0]}.{key[1]}"


def step_json(step: Step) -> dict[str, Any]:
    """A step of a derivation as JSON."""
    quantity = QUANTITIES[step.key[0]]
    governed = step.governed
    return {
        "id": key_id(step.key),
        "quantity": step.key[0],
        "direction": step.key[1],
        "symbol": quantity.symbol,
        "symbol_tex": quantity.tex,
        "meaning": quantity.meaning,
        "unit": quantity.unit,
        "value": plain(step.value),
        "source": step.source,
        "clause": step.clause,
        "tex": step.tex,
        "inputs": [key_id(k) for k in step.inputs],
        "governed_by": governed.governed_by if governed else None,
        "candidates": [{"label": c.label, "value": c.value, "role": c.role} for c in governed.candidates]
        if governed
        else [],
        "margin": governed.margin if governed else None,
    }


def steps_json(evaluation: Evaluation) -> list[dict[str, Any]]:
    """All steps of an evaluation that a person may want to read, inputs first."""
    return [step_json(s) for s in evaluation.steps() if QUANTITIES[s.key[0]].kind is not Kind.DATA]
