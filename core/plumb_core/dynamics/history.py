"""Linear time history of a structure by its modes.

Exact for piecewise-linear ground acceleration, or Newmark's method.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from scipy.linalg import expm

from plumb_core.constants import Progress, quiet
from plumb_core.dynamics.modes import Modes
from plumb_core.dynamics.response import reported
from plumb_core.dynamics.structure import Array, Structure

CHUNK = 400
"""Steps whose story results are formed at once."""


@dataclass(frozen=True)
class Newmark:
    """Newmark's parameters (N. M. Newmark, 1959); 1/2 and 1/4 are the average acceleration."""

    gamma: float = 0.5
    beta: float = 0.25

    def stable_step(self, omega: float, damping: float) -> float:
        """Longest stable step, s; infinite where any is. T. J. R. Hughes, The Finite Element Method (1987), 9.1."""
        if 2.0 * self.beta >= self.gamma >= 0.5:
            return float("inf")
        half = self.gamma / 2.0 - self.beta
        excess = self.gamma - 0.5
        return float((damping * excess + np.sqrt(max(half + (damping * excess) ** 2, 0.0))) / half / omega)


def rayleigh_damping(omega: Array, at: tuple[float, float], ratio: float) -> Array:
    """Damping ratios at `omega` of mass- and stiffness-proportional damping with `ratio` at two frequencies (rad/s)."""
    i, j = at
    a0, a1 = 2.0 * ratio * i * j / (i + j), 2.0 * ratio / (i + j)
    return np.asarray(a0 / (2.0 * omega) + a1 * omega / 2.0)


def exact_oscillators(omega: Array, damping: Array, dt: float, acceleration: Array) -> tuple[Array, Array]:
    """Relative displacement and velocity (n_steps, k) of oscillators under ground acceleration (n_steps,), from rest.

    Exact for an acceleration that goes linearly between the steps: the state is carried by the matrix exponential.
    """
    k = len(omega)
    system = np.zeros((k, 4, 4))
    system[:, 0, 1] = 1.0
    system[:, 1, 0], system[:, 1, 1], system[:, 1, 2] = -(omega**2), -2.0 * damping * omega, -1.0
    system[:, 2, 3] = 1.0 / dt
    carried = expm(system * dt)[:, :2, :]
    # the third state is the acceleration at the start of the step, the fourth its change over the step
    a = np.ascontiguousarray(carried.transpose(1, 2, 0))
    n = len(acceleration)
    d, v = np.zeros((n, k)), np.zeros((n, k))
    for s in range(n - 1):
        p, change = acceleration[s], acceleration[s + 1] - acceleration[s]
        d[s + 1] = a[0, 0] * d[s] + a[0, 1] * v[s] + a[0, 2] * p + a[0, 3] * change
        v[s + 1] = a[1, 0] * d[s] + a[1, 1] * v[s] + a[1, 2] * p + a[1, 3] * change
    return d, v


def newmark_oscillators(
    omega: Array, damping: Array, dt: float, acceleration: Array, method: Newmark
) -> tuple[Array, Array]:
    """As `exact_oscillators`, by Newmark's method (1959)."""
    g, b = method.gamma, method.beta
    n, k = len(acceleration), len(omega)
    d, v = np.zeros((n, k)), np.zeros((n, k))
    a = np.full(k, -acceleration[0])
    effective = 1.0 + 2.0 * damping * omega * g * dt + omega**2 * b * dt**2
    for s in range(n - 1):
        ahead = d[s] + dt * v[s] + dt**2 * (0.5 - b) * a
        rate = v[s] + dt * (1.0 - g) * a
        a = (-acceleration[s + 1] - 2.0 * damping * omega * rate - omega**2 * ahead) / effective
        d[s + 1] = ahead + b * dt**2 * a
        v[s + 1] = rate + g * dt * a
    return d, v


@dataclass(frozen=True)
class History:
    """Movements under a ground acceleration.

    Attributes
    ----------
    t : instants, s, shape (n_steps,)
    envelope : greatest in size over time, by name as `response.reported` has them, in its units, without the first axis
    base : X, Y (kN) and MZ (kN m) over time, shape (n_steps, 3)
    displacement : of each floor X, Y (m) and RZ (rad), shape (n_steps, n_floors, 3)
    shear : of each story along X and Y, kN, shape (n_steps, n_floors, 2)
    peaks : greatest pseudo-acceleration of each mode's oscillator, m/s2, shape (k,): the record's own spectrum at
        our periods
    """

    t: Array
    envelope: dict[str, Array]
    base: Array
    displacement: Array
    shear: Array
    peaks: Array


def time_history(
    structure: Structure,
    modes: Modes,
    axis: Literal[0, 1],
    dt: float,
    acceleration: Array,
    damping: Array,
    method: Newmark | None = None,
    progress: Progress = quiet,
) -> History:
    """Response from rest to a ground acceleration.

    Parameters
    ----------
    modes : k modes of the structure
    axis : of the acceleration, 0 along X, 1 along Y
    dt : step of the record, s
    acceleration : of the ground, m/s2, shape (n_steps,)
    damping : ratio to critical of each mode, shape (k,)
    method : Newmark's, or None for the exact answer to an acceleration that goes linearly between the steps
    progress : called with the phase and the share done
    """
    progress("oscillators", 0.5)
    oscillators = (
        exact_oscillators(modes.omega, damping, dt, acceleration)
        if method is None
        else newmark_oscillators(modes.omega, damping, dt, acceleration, method)
    )
    d = oscillators[0]
    q = d * modes.gamma[:, axis]
    modal_forces = modes.forces * (modes.omega**2)[:, None, None]
    floors = structure.floors
    envelope: dict[str, Array] = {}
    displacement = np.zeros((len(d), len(floors), 3))
    shear = np.zeros((len(d), len(floors), 2))
    base = np.zeros((len(d), 3))
    for start in range(0, len(d), CHUNK):
        progress("stories", 0.6 + 0.4 * start / len(d))
        part = slice(start, start + CHUNK)
        movement = np.tensordot(q[part], modes.floors, axes=1)
        forces = np.tensordot(q[part], modal_forces, axes=1)
        response = reported(floors, movement, forces)
        displacement[part], shear[part], base[part] = movement, response["shear"][:, :, :2], response["base"]
        for name, values in response.items():
            most = np.abs(values).max(axis=0)
            envelope[name] = np.maximum(envelope[name], most) if name in envelope else most
    peaks = np.abs(d).max(axis=0) * modes.omega**2
    return History(np.arange(len(d), dtype=np.float64) * dt, envelope, base, displacement, shear, peaks)
