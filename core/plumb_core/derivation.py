"""Values and steps of evaluations as JSON."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from plumb_core.documents import results
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Evaluation, Key, Step


def plain(value: Any) -> Any:
    """A value of the core as JSON has it; no limit (infinity) is null."""
    if isinstance(value, np.ndarray):
        listed = value.tolist()
        # to look in a list is quicker than to ask numpy, for as many stories as there are
        infinite = math.inf in listed if value.ndim == 1 else bool(np.isinf(value).any())
        return [plain(v) for v in listed] if infinite else listed
    if isinstance(value, np.generic):
        value = value.item()
    if isinstance(value, float) and math.isinf(value):
        return None
    return value


def key_id(key: Key) -> str:
    """A key as text: `S_DS`, `V.X` for a direction's quantity, `drift_max.X.EX+` for a case's."""
    name, direction, case = key
    if direction is not None:
        name = f"{name}.{direction}"
    return name if case is None else f"{name}.{case}"


def step_json(step: Step) -> results.StepResult:
    """A step of a derivation as JSON."""
    quantity = QUANTITIES[step.key.name]
    governed = step.governed
    return {
        "id": key_id(step.key),
        "quantity": step.key.name,
        "direction": step.key.direction,  # type: ignore[typeddict-item]
        "case": step.key.case,
        "symbol": quantity.symbol,
        "symbol_tex": quantity.tex,
        "meaning": quantity.meaning,
        "unit": quantity.unit,
        "value": plain(step.value),
        "source": step.source,
        "clause": step.clause,
        "tex": step.tex,
        "inputs": [key_id(k) for k in step.inputs if QUANTITIES[k.name].kind is not Kind.DATA],
        "governed_by": governed.governed_by if governed else None,
        "candidates": [{"label": c.label, "value": c.value, "role": c.role} for c in governed.candidates]
        if governed
        else [],
        "margin": governed.margin if governed else None,
    }


def steps_json(evaluation: Evaluation) -> list[results.StepResult]:
    """All steps of an evaluation that a person may want to read, inputs first."""
    return [step_json(s) for s in evaluation.steps() if QUANTITIES[s.key.name].kind is not Kind.DATA]


def derivation_of(steps: list[results.StepResult], expected: str) -> list[results.StepResult]:
    """The steps that a value rests on, inputs first, itself last; empty where there is no such step."""
    by_id = {step["id"]: step for step in steps}
    found: dict[str, None] = {}

    def visit(step_id: str) -> None:
        if step_id in by_id and step_id not in found:
            for above in by_id[step_id]["inputs"]:
                visit(above)
            found[step_id] = None

    visit(expected)
    return [by_id[step_id] for step_id in found]
