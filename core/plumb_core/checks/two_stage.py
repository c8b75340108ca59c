"""Two-stage analysis of a building on a podium: whether the submitted static forces are those of both parts."""

from __future__ import annotations

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.claims import ClaimSet, theirs
from plumb_core.editions import podiums
from plumb_core.rules import Evaluation, Fact, Key


def with_two_stage(evaluation: Evaluation, claims: ClaimSet) -> Evaluation:
    """Return the evaluation with the forces of both parts where the submitted forces are of a two-stage analysis.

    Only where a podium is declared and no condition of the two-stage analysis fails.
    """
    if "two_stage" not in evaluation.rules or not any(Key("podium", d) in evaluation.inputs for d in DIRECTIONS):
        return evaluation
    facts = {}
    for direction in DIRECTIONS:
        both = evaluation.get("two_stage", direction)
        if both is None or both["permitted"] is False:
            continue
        if _nearer(evaluation, claims, direction, np.asarray(both["F"], dtype=float), float(both["V_base"])):
            key = Key("two_stage_used", direction)
            clause = evaluation.rules["two_stage"].clause
            facts[key] = Fact(key, True, "submitted", "static forces of both parts", None, clause)
    if not facts:
        return evaluation
    return evaluation.with_(rules=podiums.alternatives(evaluation.rules), facts=facts)


def _nearer(evaluation: Evaluation, claims: ClaimSet, direction: str, F: np.ndarray, V_base: float) -> bool:
    """Whether the submitted forces, or the base shear.

    Are nearer to those of both parts than to those of one structure.
    """
    stated = claims.by_key.get(Key("F", direction))
    single = evaluation.get("F", direction)
    if stated is not None and stated.indexed and single is not None:
        off = [
            (abs(float(theirs(c)) - float(F[i])), abs(float(theirs(c)) - float(single[i])))
            for i, c in stated.indexed.items()
        ]
        return sum(a for a, _ in off) < sum(b for _, b in off)
    total = next(
        (c.single[0] for n in ("V", "V_static") if (c := claims.by_key.get(Key(n, direction))) and c.single), None
    )
    V = evaluation.get("V", direction)
    if total is None or V is None:
        return False
    return abs(float(theirs(total)) - V_base) < abs(float(theirs(total)) - float(V))
