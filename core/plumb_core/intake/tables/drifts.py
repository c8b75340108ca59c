"""Story drifts by load case: of two ends, or the greatest and the mean; as lengths, ratios or in percent."""

from __future__ import annotations

from plumb_core.intake.columns import Column
from plumb_core.intake.movements import PLACE, rows
from plumb_core.intake.tables.kind import TableKind

_DELTA = r"(delta|δ|d)(max|maximum)|(max|maximum)(delta|δ)"
_MEAN = r"(delta|δ|d)(avg|average|mean)|(avg|average|mean)(delta|δ)"
"""Symbols of both drifts and displacements; see `doubts`."""


def _column(name: str, title: str, pattern: str) -> Column:
    return Column(name, title, pattern, "m or share", False, name)


KIND = TableKind(
    "drifts",
    "story drifts by case",
    (
        *PLACE,
        _column(
            "drift_end_1", "drift at end 1", r"(story|storey)?drift(ratio)?(at)?(end)?(1|a|one)|driftend(1|a|one)ratio"
        ),
        _column(
            "drift_end_2", "drift at end 2", r"(story|storey)?drift(ratio)?(at)?(end)?(2|b|two)|driftend(2|b|two)ratio"
        ),
        _column(
            "drift_max",
            "greatest drift",
            _DELTA
            + r"|(greatest|max|maximum|largest)(story|storey)?(drift)?(ratio)?(end)?|drift(max|maximum)"
            + r"|(larger|greater)end",
        ),
        _column(
            "drift_avg",
            "mean drift",
            _MEAN + r"|(mean|average|avg)(story|storey)?(drift)?(ratio)?|drift(avg|average|mean)",
        ),
        _column("drift_single", "drift", r"(inter)?(story|storey)?drifts?(ratio)?|driftratio(story|storey)?"),
    ),
    rows,
    rank=34,
    values="drifts",
    about=r"drift",
)
