"""From the structural input of a request to a structure that can be analysed, and what is found wrong with it."""

from __future__ import annotations

from typing import Any

from plumb_core import DIRECTIONS
from plumb_core.constants import Progress, quiet
from plumb_core.documents.model_requests import (
    InspectRequest,
    ModelPart,
)
from plumb_core.dynamics import rigidity
from plumb_core.dynamics.factor import NotStable
from plumb_core.dynamics.frame import structure_of_frame
from plumb_core.dynamics.inspect import about_tables, about_weights
from plumb_core.dynamics.lines import structure_of_lines
from plumb_core.dynamics.modes import mechanism
from plumb_core.dynamics.structure import Structure, Warning
from plumb_core.dynamics.tables import tables_of
from plumb_core.errors import InputRefused, Problem


def structure_of(request: ModelPart) -> Structure:
    """The structure that a request describes; raises InputRefused with every reason why there is none."""
    if (request.lateral_lines is None) == (request.frame is None):
        raise InputRefused(
            [
                Problem(
                    "/lateral_lines", "a model is either lateral lines with stories, or a frame", "Give one of the two."
                )
            ]
        )
    if request.lateral_lines is not None:
        if not request.stories:
            raise InputRefused([Problem("/stories", "lateral lines need stories", "Give the stories, bottom to top.")])
        built = structure_of_lines(request.stories, request.lateral_lines, request.p_delta)
    else:
        assert request.frame is not None
        frame = request.frame if not request.p_delta else request.frame.model_copy(update={"p_delta": True})
        built = structure_of_frame(frame)
    weights = {s.name: s.weight for s in request.stories if s.weight is not None}
    built.warnings.extend(about_weights(built, weights))
    return built


def _stopped(request: ModelPart, warnings: list[Warning]) -> InputRefused:
    prefix = "/frame" if request.frame is not None else ""
    return InputRefused(
        [
            Problem(
                (w.path if w.path.startswith("/stories") else f"{prefix}{w.path}").rstrip("/") or "/",
                f"{w.message}: {w.cause}",
                w.remedy,
            )
            for w in warnings
        ]
    )


def usable_structure(request: ModelPart) -> Structure:
    """Return the structure of a model; a model that is not stable is refused.

    Mechanisms, and gravity that takes more than the stiffness.
    """
    built = structure_of(request)
    stopping = [w for w in built.warnings if w.stops]
    if stopping:
        raise _stopped(request, stopping)
    try:
        _ = built.factor
    except NotStable as unstable:
        raise _stopped(request, [mechanism(built, unstable)]) from None
    return built


def inspect(request: InspectRequest, progress: Progress = quiet) -> dict[str, Any]:
    """Mass, floors and warnings; never refused for what a warning can say."""
    warnings: list[Warning] = []
    built = None
    if request.frame is not None and request.lateral_lines is None:
        warnings = about_tables(tables_of(request.frame))
    if not any(w.stops for w in warnings):
        built = structure_of(request)
        warnings = built.warnings
        if not any(w.stops for w in warnings):
            progress("factorising", 0.5)
            try:
                _ = built.factor
            except NotStable as unstable:
                warnings = [*warnings, mechanism(built, unstable)]
    return {
        "usable": not any(w.stops for w in warnings),
        "warnings": [w.as_json() for w in warnings],
        "degrees_of_freedom": built.n if built else None,
        "mass": built.mass_table if built else [],
        "floors": _floors(built) if built else [],
    }


def _floors(built: Structure) -> list[dict[str, Any]]:
    f = built.floors
    return [
        {
            "name": f.names[i],
            "z": float(f.z[i]),
            "height": float(f.h[i]),
            "centre": f.centre[i].tolist(),
            "mass": float(f.mass[i].mean()),
            "inertia": float(f.inertia[i]),
            "corners": f.corners[i].tolist(),
            "rigid": bool(f.rigid[i]),
        }
        for i in range(len(f))
    ]


def plan_stiffness(request: ModelPart) -> list[dict[str, Any]]:
    """Eccentricity, torsional radius and radius of gyration of the floors of the request's model.

    As the rules take them.
    """
    built = usable_structure(request)
    stiffness = rigidity.plan_stiffness(built)
    return [
        {
            "story": name,
            "plan": None,
            "e_0": dict(zip(DIRECTIONS, stiffness.e_0[i].tolist(), strict=True)),
            "r": dict(zip(DIRECTIONS, stiffness.r[i].tolist(), strict=True)),
            "l_s": float(stiffness.l_s[i]),
        }
        for i, name in enumerate(built.floors.names)
    ]
