"""Displacements of the levels by load case: of two ends, the greatest and the mean, or at the centre of mass."""

from __future__ import annotations

from plumb_core.intake.columns import Column
from plumb_core.intake.movements import PLACE, rows
from plumb_core.intake.tables.kind import TableKind

_DELTA = r"(delta|δ|d)(max|maximum)|(max|maximum)(delta|δ)"
_MEAN = r"(delta|δ|d)(avg|average|mean)|(avg|average|mean)(delta|δ)"
"""Symbols of both drifts and displacements; see `doubts`."""


def _column(name: str, title: str, pattern: str) -> Column:
    return Column(name, title, pattern, "m", False, name)


KIND = TableKind(
    "displacements",
    "displacements by case",
    (
        *PLACE,
        _column("displacement_end_1", "displacement at end 1", r"(story|level)?displacement(at)?(end)?(1|a|one)"),
        _column("displacement_end_2", "displacement at end 2", r"(story|level)?displacement(at)?(end)?(2|b|two)"),
        _column(
            "displacement_max",
            "greatest displacement",
            _DELTA + r"|(greatest|max|maximum|largest)(story|level)?(displacement)?|displacement(max|maximum)",
        ),
        _column(
            "displacement_avg",
            "mean displacement",
            _MEAN + r"|(mean|average|avg)(displacement)?|displacement(avg|average|mean)",
        ),
        _column(
            "displacement_centre",
            "displacement at the centre of mass",
            r"displacement(atthe|at)?(centreofmass|centerofmass|centre|center|cm)|"
            r"(atthe|at)(centreofmass|centerofmass|centre|center|cm)(displacement)?|"
            r"(centreofmass|centerofmass|centre|center|cm)displacement|(mass)?displacementcentre",
        ),
        _column("displacement_single", "displacement", r"(story|level|floor|lateral)?displacements?|u"),
    ),
    rows,
    rank=36,
    values="displacements",
    about=r"displacement",
)
