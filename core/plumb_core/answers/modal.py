"""Modes of the reference model, and a submission's modes beside them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.answers.structure import _floors, usable_structure
from plumb_core.constants import Progress, quiet
from plumb_core.documents import results
from plumb_core.documents.model_requests import (
    ModalRequest,
    SubmittedModePart,
)
from plumb_core.dynamics.matching import SubmittedMode, match_modes
from plumb_core.dynamics.modes import Modes, find_modes, local_modes_warning, modes_to_target, rayleigh_periods
from plumb_core.dynamics.structure import Array, Structure, Warning

NODE_SHAPES = 12
"""Modes whose movements of all nodes are reported, where they are required."""


def modes_of(request: Any, built: Structure, progress: Progress = quiet) -> Modes:
    """Modes as a request requires them: a number, or up to a target; all that there are of lateral lines by default."""
    if request.target is not None and request.modes is None:
        return modes_to_target(built, request.target, request.target_directions, request.method, progress=progress)
    if request.modes is None and request.frame is not None:
        return modes_to_target(built, 0.9, request.target_directions, request.method, progress=progress)
    return find_modes(built, request.modes or built.n, request.method, progress, request.verify)


def _clean(values: Array, size: float) -> list[float]:
    """Values as JSON; what is nothing beside `size` is 0, so that rounding is not read as movement."""
    return [float(v) for v in np.where(np.abs(values) < 1e-12 * size, 0.0, values)]


def modal(request: ModalRequest, progress: Progress = quiet) -> dict[str, Any]:
    """Modes with participation, running sums, and the comparison with submitted ones."""
    progress("assembling", 0.02)
    built = usable_structure(request)
    modes = modes_of(request, built, progress)
    target = request.target or 0.9
    share = np.where(modes.share < 1e-15, 0.0, modes.share)
    cumulative = np.cumsum(share, axis=0)
    rows = []
    for i, kind in enumerate(modes.kinds):
        biggest = float(np.abs(modes.floors[i]).max())
        rows.append(
            {
                "T": float(modes.T[i]),
                "f": float(1.0 / modes.T[i]),
                "omega": float(modes.omega[i]),
                "gamma": dict(
                    zip(("X", "Y", "RZ"), _clean(modes.gamma[i, :3], float(np.abs(modes.gamma[i]).max())), strict=True)
                ),
                "mass_ratio": dict(zip(("X", "Y", "RZ"), share[i, :3].tolist(), strict=True)),
                "kind": kind,
                "at_floors": float(modes.at_floors[i]),
                "shape": [_clean(row, biggest) for row in modes.floors[i]],
            }
        )
    enough = {d: bool(cumulative[-1, k] >= target - 1e-9) for k, d in enumerate(DIRECTIONS)}
    rayleigh = rayleigh_periods(built)
    warnings = [*built.warnings, *modes.warnings, *local_modes_warning(modes)]
    if request.modes is not None and len(modes) < request.modes:
        warnings.append(
            Warning(
                "fewer_modes",
                f"the model has {len(modes)} modes, {request.modes} were requested",
                "no more modes are possible with its mass",
                "Nothing needs to be done.",
            )
        )
    if not all(enough.values()):
        short = [d for d, e in enough.items() if not e]
        warnings.append(
            Warning(
                "too_few_modes",
                (
                    f"the modes reach "
                    f"{', '.join(f'{cumulative[-1, DIRECTIONS.index(d)]:.1%} in {d}' for d in short)} of the "
                    f"mass, the target is {target:.0%}"
                ),
                "modes of high frequency are not included",
                "Request more modes, or add the residual mass.",
            )
        )
    result: dict[str, Any] = {
        "modes": rows,
        "cumulative": {d: cumulative[:, k].tolist() for k, d in enumerate(("X", "Y", "RZ"))},
        "enough": enough,
        "target": target,
        "reached_at": {d: _reached(cumulative[:, k], target) for k, d in enumerate(DIRECTIONS)},
        "mass": {"X": float(built.total[0]), "Y": float(built.total[1]), "RZ": float(built.total[2])},
        "centre": built.axis.tolist(),
        "rayleigh": {d: None if np.isnan(rayleigh[k]) else float(rayleigh[k]) for k, d in enumerate(DIRECTIONS)},
        "counted_by": modes.counted_by,
        "floors": _floors(built),
        "mass_table": built.mass_table,
        "warnings": [w.as_json() for w in warnings],
    }
    if request.shapes == "nodes":
        result["nodes"] = {"ids": built.node_ids, "shapes": _node_shapes(built, modes)}
    if request.submitted is not None:
        result["comparison"] = compare_modes(request.submitted, result)
    return result


def _reached(cumulative: Array, target: float) -> int | None:
    reached = cumulative >= target - 1e-9
    return int(np.argmax(reached)) + 1 if reached.any() else None


def _node_shapes(built: Structure, modes: Modes) -> list[list[list[float]]]:
    """ux, uy, uz of every node in the first modes, four digits of the greatest."""
    shown = []
    for k in range(min(NODE_SHAPES, len(modes))):
        u = np.asarray(built.spread @ modes.shapes[:, k]).reshape(-1, 6)[:, :3]
        shown.append(np.round(u / max(float(np.abs(u).max()), 1e-300), 4).tolist())
    return shown


def _submitted_mode(part: SubmittedModePart, names: list[str]) -> SubmittedMode:
    shape = None
    if part.shape:
        shape = np.full((len(names), 3), np.nan)
        for row in part.shape:
            if row.story in names:
                shape[names.index(row.story)] = [np.nan if v is None else v for v in (row.X, row.Y, row.RZ)]
    given = part.mass_ratio
    return SubmittedMode(part.T, (given.get("X"), given.get("Y"), given.get("RZ")), shape)


def compare_modes(submitted: list[SubmittedModePart], answer: Mapping[str, Any]) -> results.ModeComparison:
    """Their modes beside ours (an answer to `modal`).

    Matched rows in the order of ours, and their sums against the target.
    """
    modes, floors, target = answer["modes"], answer["floors"], answer["target"]
    theirs = [_submitted_mode(p, [f["name"] for f in floors]) for p in submitted]
    share = np.array([[m["mass_ratio"][d] for d in ("X", "Y", "RZ")] for m in modes])
    weights = np.array([[f["mass"], f["mass"], f["inertia"]] for f in floors])
    matching = match_modes(
        theirs, np.array([m["T"] for m in modes]), share, np.array([m["shape"] for m in modes]), weights
    )
    theirs_of = {m.ours: m for m in matching.matches}
    matched = {m.theirs for m in matching.matches}
    last = max((m.ours for m in matching.matches), default=-1)
    rows: list[results.MatchedMode] = []
    for j in range(len(modes)):
        match = theirs_of.get(j)
        rows.append(
            {
                "ours": j + 1,
                "theirs": match.theirs + 1 if match else None,
                "mac": match.mac if match else None,
                "likeness": match.likeness if match else None,
            }
        )

    def stated(axis: Literal["X", "Y", "RZ"]) -> float | None:
        shares = [p.mass_ratio[axis] for p in submitted if axis in p.mass_ratio]
        return float(sum(shares)) if shares else None

    sums: results.SumsOfModes = {"X": stated("X"), "Y": stated("Y"), "RZ": stated("RZ")}

    def enough(total: float | None) -> bool | None:
        return None if total is None else bool(total >= target - 1e-9)

    return {
        "rows": rows,
        "unmatched": [i + 1 for i in range(len(theirs)) if i not in matched],
        "missing": [j + 1 for j in range(last + 1) if j not in theirs_of and max(share[j, :2]) > 0.005],
        "swapped": matching.swapped,
        "likeness": {"as_submitted": matching.as_submitted, "exchanged": matching.exchanged},
        "sums": sums,
        "enough": {"X": enough(sums["X"]), "Y": enough(sums["Y"])},
    }
