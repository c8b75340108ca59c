"""Results of the reference model in addition to the submitted load cases."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core.answers.reference_model import history_of
from plumb_core.checks.context import Context
from plumb_core.checks.stages.drift.inputs import DRIFTS
from plumb_core.rules import Array

MOVEMENTS = (*DRIFTS, "displacement_max", "displacement_avg")
"""Quantities of the movements of load cases."""


def history_answer(context: Context, case: str) -> Mapping[str, Any] | None:
    """The reference model under the record of a case of theirs; None where it has none, or other stories."""
    ours = context.reference.get(history_of(case))
    return ours if ours is not None and len(ours["stories"]) == len(context.claims.stories) else None


def matched_cases(context: Context, answer: Mapping[str, Any], direction: str) -> list[tuple[str, Mapping[str, Any]]]:
    """Their reduced static cases along a direction whose side is stated, each with ours of the same side."""
    found = []
    for case, along in context.results.seismic(context.results.with_values(*MOVEMENTS), "reduced"):
        role = context.claims.cases[case]
        if along != direction or role.kind != "static" or role.eccentricity is None:
            continue
        side = np.sign(role.eccentricity)
        ours = next(
            (c for c in answer["cases"] if c["direction"] == direction and np.sign(c["eccentricity"]) == side), None
        )
        if ours is not None:
            found.append((case, ours))
    return found


def floor_ends(ours: Mapping[str, Any], what: str, direction: str) -> Array:
    """Movements of both ends of the stories of a case of ours, m, shape (n_stories, 2)."""
    return np.asarray(np.abs(np.array([row["edges"][direction][what] for row in ours["stories"]], dtype=float)))
