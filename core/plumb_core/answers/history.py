"""Linear time history of the reference model."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.answers.modal import modes_of
from plumb_core.answers.structure import usable_structure
from plumb_core.constants import GRAVITY, Progress, quiet
from plumb_core.documents.model_requests import (
    TimeHistoryRequest,
)
from plumb_core.dynamics.history import (
    Newmark,
    exact_oscillators,
    rayleigh_damping,
    time_history,
)
from plumb_core.dynamics.modes import Modes
from plumb_core.dynamics.response import Settings, Spectrum, by_story, spectrum_response
from plumb_core.dynamics.structure import Array, Warning
from plumb_core.errors import InputRefused, Problem

TO_MS2 = {"g": GRAVITY, "m/s2": 1.0, "cm/s2": 0.01, "mm/s2": 0.001}


MOST_STEPS = 500_000
"""Steps of a time history; as many as a record may have."""


MOST_VALUES = 50_000_000
"""Values kept of a time history: of each step the modes, and three of each floor."""


def _refuse_too_many(steps: float, path: str, remedy: str) -> None:
    if steps > MOST_STEPS:
        raise InputRefused([Problem(path, f"this takes {steps:.3g} steps; at most {MOST_STEPS} are taken", remedy)])


def _record(request: TimeHistoryRequest) -> tuple[float, Array]:
    """(step in s, ground acceleration in m/s2 at the steps)."""
    if (request.record is None) == (request.harmonic is None):
        raise InputRefused([Problem("/record", "give either a record or a harmonic motion", "Give one of the two.")])
    if request.harmonic is not None:
        h = request.harmonic
        dt = h.period / 100.0
        _refuse_too_many(h.duration / dt, "/harmonic/duration", "Shorten the motion, or lengthen its period.")
        t = np.arange(0.0, h.duration + dt / 2, dt)
        return dt, h.amplitude * GRAVITY * np.sin(2.0 * np.pi * t / h.period)
    record = request.record
    assert record is not None
    a = np.array(record.a) * TO_MS2[record.unit]
    if (record.dt is None) == (record.t is None):
        raise InputRefused([Problem("/record/dt", "a record needs either its step or its times", "Give dt or t.")])
    if record.dt is not None:
        return record.dt, a
    t = np.array(record.t)
    if len(t) != len(a):
        raise InputRefused([Problem("/record/t", f"{len(t)} times for {len(a)} values", "Give one time a value.")])
    steps = np.diff(t)
    if np.any(steps <= 0):
        raise InputRefused(
            [Problem("/record/t", "the times do not increase", "Sort the record by time, each time once.")]
        )
    dt = float(steps.min())
    if np.allclose(steps, dt, rtol=1e-3):
        return float(steps.mean()), a
    _refuse_too_many((t[-1] - t[0]) / dt, "/record/t", "Give the record at even steps.")
    # between its points the record goes linearly, so that reading it at the shortest step changes nothing but corners
    grid = np.arange(t[0], t[-1] + dt / 2, dt)
    return dt, np.interp(grid, t, a)


def history(request: TimeHistoryRequest, progress: Progress = quiet) -> dict[str, Any]:
    """Envelopes and histories under a ground motion.

    What a spectrum analysis by the record's own spectrum gives.
    """
    built = usable_structure(request)
    dt, acceleration = _record(request)
    modes = modes_of(request, built, progress)
    retained = len(acceleration) * max(len(modes), 3 * len(built.floors))
    if retained > MOST_VALUES:
        raise InputRefused(
            [
                Problem(
                    "/modes",
                    (
                        f"{len(acceleration)} steps of {len(modes)} modes and {len(built.floors)} floors are "
                        f"{retained:.3g} values"
                    ),
                    "Use a shorter or coarser record, or fewer modes.",
                )
            ]
        )
    axis: Literal[0, 1] = 0 if request.direction == "X" else 1
    damping = np.full(len(modes), request.damping)
    if request.rayleigh is not None:
        at = (2.0 * np.pi / request.rayleigh.periods[0], 2.0 * np.pi / request.rayleigh.periods[1])
        damping = rayleigh_damping(modes.omega, at, request.damping)
    method = Newmark(request.newmark.gamma, request.newmark.beta) if request.newmark is not None else None
    warnings = [*built.warnings, *modes.warnings]
    if method is not None:
        limit = min(method.stable_step(float(w), float(z)) for w, z in zip(modes.omega, damping, strict=True))
        if dt > limit:
            raise InputRefused(
                [
                    Problem(
                        "/newmark",
                        f"a step of {dt:g} s is not stable: the shortest mode allows {limit:.3g} s",
                        "Use beta = 0.25, a shorter step, or fewer modes.",
                    )
                ]
            )
    if method is not None and dt > float(modes.T.min()) / 5:
        warnings.append(
            Warning(
                "long_step",
                f"the step of {dt:g} s is long for the shortest mode of {modes.T.min():.3g} s",
                "Newmark's method lengthens its period",
                "Use the exact method, or a shorter step.",
                "/newmark",
            )
        )
    motion = time_history(built, modes, axis, dt, acceleration, damping, method, progress)
    entry = _duhamel_spectrum(modes, dt, acceleration, damping)
    by_spectrum = spectrum_response(
        built, modes, {request.direction: entry}, Settings(combine="CQC", damping=request.damping)
    )
    result: dict[str, Any] = {
        "dt": dt,
        "steps_taken": len(acceleration),
        "peak_ground": float(np.abs(acceleration).max() / GRAVITY),
        "base_shear": dict(zip(("X", "Y", "MZ"), motion.envelope["base"].tolist(), strict=True)),
        "stories": by_story(built.floors, motion.envelope),
        "by_spectrum": {
            "base_shear": dict(zip(("X", "Y", "MZ"), by_spectrum["base"].tolist(), strict=True)),
            "ordinates": (motion.peaks / GRAVITY).tolist(),
        },
        "modes": [{"T": float(t), "damping": float(z)} for t, z in zip(modes.T, damping, strict=True)],
        "warnings": [w.as_json() for w in warnings],
    }
    if request.histories:
        result["histories"] = {
            "t": motion.t.tolist(),
            "base_shear": {d: motion.base[:, k].tolist() for k, d in enumerate(DIRECTIONS)},
            "top": {d: motion.displacement[:, -1, k].tolist() for k, d in enumerate(DIRECTIONS)},
            "displacement": {
                name: motion.displacement[:, i, axis].tolist() for i, name in enumerate(built.floors.names)
            },
            "shear": {name: motion.shear[:, i, axis].tolist() for i, name in enumerate(built.floors.names)},
        }
    return result


def _duhamel_spectrum(modes: Modes, dt: float, acceleration: Array, damping: Array) -> Spectrum:
    """The record's pseudo-acceleration spectrum (g) at the periods of the modes, by the exact method."""
    by_damping: Mapping[float, float] = dict(zip(modes.T.tolist(), damping.tolist(), strict=True))

    def ordinates(T: Array) -> Array:
        omega = 2.0 * np.pi / T
        ratio = np.array([by_damping.get(float(t), float(damping[0])) for t in T])
        d, _ = exact_oscillators(omega, ratio, dt, acceleration)
        return np.asarray(np.abs(d).max(axis=0) * omega**2 / GRAVITY)

    return ordinates
