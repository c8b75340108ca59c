"""Declared action levels: the story drifts of each against its limit."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check, Derived, limit_of
from plumb_core.checks.compare import compare
from plumb_core.checks.context import Context
from plumb_core.checks.making import one_origin
from plumb_core.checks.registry import checker
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import Source
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Key


@checker("level")
def levels(context: Context) -> Iterator[Check]:
    """Story drifts of each declared action level with a check of its own; one origin for a direction and level."""
    if "level_drifts" not in context.independent.rules:
        return
    stated = {governing.direction for governing in context.drifts}
    for d in DIRECTIONS:
        for level in context.independent.get("level_drifts", d) or ():
            if level["ratio"] is None and d not in stated:
                continue
            if level["verdicts"] is None:
                yield Check(
                    "level",
                    Key("level_drifts", d),
                    f"Δ/h {d} {level['name']}",
                    place=level["name"],
                    note=f"{level['name']} in {d} is not decided: {level['needs']} is missing",
                )
                continue
            yield from one_origin(list(_stories(context, d, level)), ("S85", ""))


def _stories(context: Context, d: str, level: dict[str, Any]) -> Iterator[Check]:
    symbol, limit = QUANTITIES["drift_ratio"].symbol, level["limit"]
    covered = tuple(k for k in context.results.values if k.case in level["cases"] and k.direction == d)
    by = "separate load cases" if level["cases"] else f"{figures(level['factor'])} times the design drift"
    for i, (ratio, verdict) in enumerate(zip(level["ratio"], level["verdicts"], strict=True)):
        story = context.claims.stories[i]
        check = Check(
            "level",
            Key("level_drifts", d),
            f"{symbol} {d} {story} {level['name']}",
            Derived("drift_ratio", ratio, direction=d, story=story, text=f"{ratio:.5f}", source=Source(note=by)),
            f"{level['name']}.{story}",
            i,
            independent=compare(ratio, ratio if verdict else limit, 0.001, 0.0),
            verdict=Verdict.AGREES if verdict else Verdict.BREACHES,
            role=None if verdict else DeviationRole.ORIGIN,
            level=2,
            limit=limit_of("drift_limit", limit, "max", "declared", level["name"]),
            clause=context.independent.rules["level_factors"].clause,
            note=f"{level['name']}: the drift in {d} at {story} is {figures(ratio)} of the height by {by}, its limit "
            f"{figures(limit)}",
        )
        yield replace(check, covers=covered) if i == 0 else check
