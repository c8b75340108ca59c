"""Response spectrum analysis: every quantity formed mode by mode, then combined.

The residual mass of the modes can be added as a static response.  Accidental eccentricity is
taken
as static moments at the floors, or as floors whose mass is shifted, whose modes are found in the span of the modes
and the
floors' static displacements.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np

from plumb_core.constants import GRAVITY
from plumb_core.dynamics.combine import CombinationRule, DirectionRule, ModalRule, combine_directions
from plumb_core.dynamics.factor import threads_for
from plumb_core.dynamics.modes import Modes
from plumb_core.dynamics.structure import Array, Floors, Ints, Structure

Axis = Literal["X", "Y"]
AXES: tuple[Axis, Axis] = ("X", "Y")
Spectrum = Callable[[Array], Array]
"""Ordinates (g) at periods (s)."""


@dataclass(frozen=True)
class Settings:
    """How modal maxima are combined.

    Attributes
    ----------
    combine : rule for the modes of one direction
    damping : ratio to critical, of every mode
    residual_period : s, at which the ordinate for what the modes exclude is read; None leaves it out
    eccentricity : share of the plan breadth at right angles to the excitation
    eccentricity_as : as moments at the floors, or as shifted mass
    sign_of : mode (from 1) whose signs the results take; None leaves them without sign
    """

    combine: CombinationRule = "CQC"
    damping: float = 0.05
    residual_period: float | None = None
    eccentricity: float = 0.0
    eccentricity_as: Literal["moments", "mass"] = "moments"
    sign_of: int | None = None


def _at_points(floors: Floors, movement: Array, of: Ints) -> Array:
    """Displacements X, Y of the floors' corners (k, n, c, 2) that move with floors `of` (n,) of movements (k.

    N_floors, 3).
    """
    arm = floors.points - floors.centre[of][:, None, :]
    moved = movement[:, of, :]
    turn = moved[:, :, None, 2]
    return np.stack([moved[:, :, None, 0] - turn * arm[..., 1], moved[:, :, None, 1] + turn * arm[..., 0]], axis=-1)


def _ends(floors: Floors, at_corners: Array) -> Array:
    """(k, n, 2, 3): of X and Y the values at the two ends of each floor and their average.

    From those at corners (k, n, c, 2).
    """
    rows = np.arange(len(floors))[:, None, None]
    axes = np.arange(2)[None, :, None]
    pair = at_corners[:, rows, floors.ends, axes]
    return np.concatenate([pair, 0.5 * (pair[..., :1] + pair[..., 1:])], axis=-1)


def reported(floors: Floors, movement: Array, forces: Array) -> dict[str, Array]:
    """Everything that is reported, linear in movements and forces of k modes, cases or instants.

    Parameters
    ----------
    floors : n floors, of c corners each
    movement : of each floor X, Y (m) and RZ (rad), shape (k, n, 3)
    forces : on each floor X, Y (kN) and MZ (kN m about the building's axis), shape (k, n, 3)

    Returns
    -------
    dict by name
        base : X, Y (kN) and MZ (kN m), shape (k, 3)
        force, shear : of each floor, and of what is on the story below it, as `forces`, shape (k, n, 3)
        overturning : under each story from the forces above along X and along Y, kN m, shape (k, n, 2)
        displacement : as `movement`, shape (k, n, 3)
        drift : of the corners against the same points of the floor below, along X and Y, m, shape (k, n, c, 2)
        edge_drift, end : drifts and displacements of the two ends at the edges and their average, m, shape (k, n, 2,
            3), of
            X and Y
    """
    below = np.maximum(floors.below, 0)
    here = _at_points(floors, movement, np.arange(len(floors)))
    under = _at_points(floors, movement, below) * (floors.below >= 0)[None, :, None, None]
    drift = here - under
    return {
        "base": forces.sum(axis=1),
        "force": forces,
        "shear": floors.carried @ forces,
        "overturning": floors.levers @ forces[:, :, :2],
        "displacement": movement,
        "drift": drift,
        "edge_drift": _ends(floors, drift),
        "end": _ends(floors, here),
    }


def _modal(
    structure: Structure, modes: Modes, axis: int, spectrum: Spectrum, settings: Settings
) -> tuple[Array, Array]:
    """Peak movements and forces of the floors mode by mode, (k, n_floors, 3).

    The residual last where it is required.
    """
    acceleration = spectrum(modes.T) * GRAVITY * modes.gamma[:, axis]
    movement = modes.floors * (acceleration / modes.omega**2)[:, None, None]
    forces = modes.forces * acceleration[:, None, None]
    if settings.residual_period is not None:
        left = structure.masses * (structure.influence[:, axis] - modes.shapes @ modes.gamma[:, axis])
        at = float(spectrum(np.array([settings.residual_period]))[0]) * GRAVITY
        u = structure.factor.solve(left) * at
        movement = np.concatenate([movement, structure.floor_displacements(u)[None]])
        forces = np.concatenate([forces, structure.floor_forces(left * at)[None]])
    return movement, forces


def _combined(
    structure: Structure, modes: Modes, axis: int, spectrum: Spectrum, settings: Settings
) -> dict[str, Array]:
    movement, forces = _modal(structure, modes, axis, spectrum, settings)
    rule = ModalRule(settings.combine, modes.omega, settings.damping, settings.residual_period is not None)
    by_mode = reported(structure.floors, movement, forces)
    combined = rule.of_each(by_mode)
    if settings.sign_of is not None:
        chosen = settings.sign_of - 1
        combined = {name: np.where(by_mode[name][chosen] < 0, -1.0, 1.0) * value for name, value in combined.items()}
    return combined


def _added(results: dict[str, Array], more: Mapping[str, Array]) -> dict[str, Array]:
    """Results made greater in size by those of the accidental moments, their signs kept."""
    return {name: value + np.where(value < 0, -1.0, 1.0) * np.abs(more[name]) for name, value in results.items()}


def _with_moments(structure: Structure, results: dict[str, Array], axis: int, share: float) -> dict[str, Array]:
    """Accidental moments: force of each floor times its eccentricity, all in one sense, as a static load."""
    floors = structure.floors
    breadth = floors.breadth[:, axis]
    moments = share * breadth * np.abs(results["force"][:, axis])
    load = np.zeros(3 * len(floors))
    load[2::3] = moments
    u = structure.factor.solve(np.asarray(structure.at_floors @ load))
    forces = np.zeros((1, len(floors), 3))
    forces[0, :, 2] = moments
    static = reported(floors, structure.floor_displacements(u)[None], forces)
    return _added(results, {name: value[0] for name, value in static.items()})


class Shifted:
    """Modes of the structure with its floors' mass shifted.

    In the span of its modes and its floors' static displacements.

    For masses on rigid floors alone that span holds all modes there are, so that nothing is approximated.
    """

    def __init__(self, structure: Structure, modes: Modes):
        self.structure = structure
        f, k = len(structure.floors), len(modes)
        static = structure.factor.solve(structure.at_floors.toarray())
        flexibility = np.asarray(structure.at_floors.T @ static)
        # K static = unit loads, so that no product with K is needed to see what of the static movements the modes hold
        floors = modes.floors.reshape(k, -1)
        stored = floors / modes.omega[:, None] ** 2
        rest = flexibility - floors.T @ stored
        # the remainder, scaled by the energy of the whole, without what is there already but for a hundred
        # millionth
        scale = 1.0 / np.sqrt(np.maximum(np.diag(flexibility), 1e-300))
        values, vectors = np.linalg.eigh(scale[:, None] * rest * scale)
        keep = values > 1e-8
        turn = scale[:, None] * vectors[:, keep] / np.sqrt(values[keep])
        # products with the mass need the massive degrees of freedom only
        at = structure.massive
        unit = modes.shapes[at] / modes.omega
        moving = static[at] @ turn - modes.shapes[at] @ (stored @ turn)
        heavy = structure.masses[at, None] * moving
        coupling = unit.T @ heavy
        # a basis orthonormal in stiffness: the modes, then what they exclude
        self.projected = np.block([[np.diag(1.0 / modes.omega**2), coupling], [coupling.T, moving.T @ heavy]])
        self.floors = np.concatenate([(floors / modes.omega[:, None]).T, rest @ turn], axis=1).reshape(f, 3, -1)
        by_mode = modes.forces.reshape(k, -1) / modes.omega[:, None]
        self.forces = np.concatenate([by_mode.T, structure.tally[:, at] @ heavy], axis=1)
        self.influence = np.concatenate([modes.gamma / modes.omega[:, None], heavy.T @ structure.influence[at]])
        self.rigid = np.asarray(structure.at_floors.T @ structure.influence).reshape(f, 3, 4)
        inertia = structure.masses[:, None] * structure.influence
        self.whole = np.stack([structure.floor_forces(inertia[:, k]) for k in range(inertia.shape[1])])

    def modes(self, shift: Array, count: int) -> tuple[Array, Array, Array, Array]:
        """(omega, gamma, movements, forces per unit acceleration) with floors shifted by `shift` (n_floors, 2), m."""
        floors = self.structure.floors
        m, f = floors.mass.mean(axis=1), len(floors)
        extra = np.zeros((f, 3, 3))
        extra[:, 0, 2] = extra[:, 2, 0] = -m * shift[:, 1]
        extra[:, 1, 2] = extra[:, 2, 1] = m * shift[:, 0]
        extra[:, 2, 2] = m * (shift**2).sum(axis=1)
        flat = self.floors.reshape(3 * f, -1)
        mass = self.projected + flat.T @ (extra @ self.floors).reshape(3 * f, -1)
        values, vectors = np.linalg.eigh((mass + mass.T) / 2.0)
        # the basis is orthonormal in stiffness: eigenvalues of its mass are 1/omega^2
        values, vectors = values[::-1][:count], vectors[:, ::-1][:, :count]
        positive = values > 1e-12 * values[0]
        values, vectors = values[positive], vectors[:, positive]
        omega = 1.0 / np.sqrt(values)
        vectors = vectors / np.sqrt(values)
        influence = self.influence + flat.T @ (extra @ self.rigid).reshape(3 * f, -1)
        gamma = vectors.T @ influence
        movement = (flat @ vectors).T.reshape(-1, f, 3)
        forces = (self.forces @ vectors).T.reshape(-1, f, 3)
        more = (extra @ movement[:, :, :, None])[..., 0]
        return omega, gamma, movement, forces + self._about_axis(more)

    def _about_axis(self, forces: Array) -> Array:
        """Forces (k, n_floors, 3) with their moments about the building's axis instead of the floors' centres."""
        arm = self.structure.floors.centre - self.structure.axis
        turned = forces.copy()
        turned[:, :, 2] += arm[:, 0] * forces[:, :, 1] - arm[:, 1] * forces[:, :, 0]
        return turned

    def remainder(self, shift: Array, axis: int, gamma: Array, forces: Array) -> tuple[Array, Array]:
        """Movements and forces (1, n_floors, 3) of the inertia that the modes exclude, per unit acceleration.

        As a static load.

        gamma, forces : of the modes with this shift, as `modes` gives them
        """
        floors = self.structure.floors
        m = floors.mass.mean(axis=1)
        extra = np.zeros((1, len(floors), 3))
        rigid = self.rigid[:, :, axis]
        extra[0, :, 0] = -m * shift[:, 1] * rigid[:, 2]
        extra[0, :, 1] = m * shift[:, 0] * rigid[:, 2]
        extra[0, :, 2] = m * (shift[:, 0] * rigid[:, 1] - shift[:, 1] * rigid[:, 0])
        left = self.whole[axis][None] + self._about_axis(extra) - np.tensordot(gamma[:, axis], forces, axes=1)[None]
        arm = floors.centre - self.structure.axis
        load = left[0].copy()
        load[:, 2] -= arm[:, 0] * left[0, :, 1] - arm[:, 1] * left[0, :, 0]
        u = self.structure.factor.solve(np.asarray(self.structure.at_floors @ load.ravel()))
        return self.structure.floor_displacements(u)[None], left


def _with_shifted_mass(
    structure: Structure,
    modes: Modes,
    results: dict[str, Array],
    axis: int,
    spectrum: Spectrum,
    settings: Settings,
    shifted: Shifted,
) -> dict[str, Array]:
    """Envelope over the mass where it is and shifted either way."""
    floors = structure.floors
    breadth = floors.breadth[:, axis]
    for sign in (1.0, -1.0):
        shift = np.zeros((len(floors), 2))
        shift[:, 1 - axis] = sign * settings.eccentricity * breadth
        omega, gamma, movement, forces = shifted.modes(shift, len(modes))
        acceleration = spectrum(2.0 * np.pi / omega) * GRAVITY * gamma[:, axis]
        peaks = [movement * (acceleration / omega**2)[:, None, None], forces * acceleration[:, None, None]]
        if settings.residual_period is not None:
            at = float(spectrum(np.array([settings.residual_period]))[0]) * GRAVITY
            more = shifted.remainder(shift, axis, gamma, forces)
            peaks = [np.concatenate([peak, at * added]) for peak, added in zip(peaks, more, strict=True)]
        rule = ModalRule(settings.combine, omega, settings.damping, settings.residual_period is not None)
        by_mode = reported(floors, *peaks)
        for name, shifted_value in rule.of_each(by_mode).items():
            results[name] = np.where(results[name] < 0, -1.0, 1.0) * np.maximum(np.abs(results[name]), shifted_value)
    return results


def spectrum_response(
    structure: Structure,
    modes: Modes,
    spectra: Mapping[str, Spectrum],
    settings: Settings,
    direction_rule: DirectionRule | None = None,
    shifted: Shifted | None = None,
) -> dict[str, Array]:
    """Combined maxima for excitation along each of the directions that a spectrum is given for.

    Parameters
    ----------
    modes : k modes of the structure
    spectra : ordinates (m/s2) over periods (s) by direction: X, Y, Z
    direction_rule : how several directions are combined; SRSS where none is named
    shifted : modes with shifted mass, where they are at hand already

    Returns
    -------
    dict
        By name as `reported` has them, in its units, without the first axis: `base` (3,), `force` (n, 3), ...; without
        sign unless the settings name a mode whose signs they take.
    """
    with threads_for(structure.n):
        return _all_directions(structure, modes, spectra, settings, direction_rule, shifted)


def _all_directions(
    structure: Structure,
    modes: Modes,
    spectra: Mapping[str, Spectrum],
    settings: Settings,
    direction_rule: DirectionRule | None,
    shifted: Shifted | None,
) -> dict[str, Array]:
    parts = []
    if settings.eccentricity and settings.eccentricity_as == "mass" and shifted is None:
        shifted = Shifted(structure, modes)
    for direction, spectrum in spectra.items():
        axis = {"X": 0, "Y": 1, "Z": 3}[direction]
        results = _combined(structure, modes, axis, spectrum, settings)
        if settings.eccentricity and axis < 2:
            if settings.eccentricity_as == "moments":
                results = _with_moments(structure, results, axis, settings.eccentricity)
            elif shifted is not None:
                results = _with_shifted_mass(structure, modes, results, axis, spectrum, settings, shifted)
        parts.append(results)
    if len(parts) == 1:
        return parts[0]
    return {name: combine_directions([p[name] for p in parts], direction_rule or "SRSS") for name in parts[0]}


def by_story(floors: Floors, results: Mapping[str, Array], directions: Sequence[Axis] = AXES) -> list[dict[str, Any]]:
    """The results as rows of stories, bottom to top.

    Parameters
    ----------
    results : by name as `reported` has them, of one combination, case or envelope (no first axis)
    directions : whose ends are stated

    Returns
    -------
    list of dict
        For each story `force` and `shear` (kN), `overturning` (kN m), `displacement` (m, rad), `drift` of each
        corner (m) and
        `edges` of each direction (m).
    """
    rows = []
    for i, name in enumerate(floors.names):
        corners = floors.corners[i].tolist()
        row: dict[str, Any] = {
            "name": name,
            **{
                key: dict(zip(axes, results[key][i].tolist(), strict=False))
                for key, axes in (
                    ("force", AXES),
                    ("shear", AXES),
                    ("overturning", AXES),
                    ("displacement", (*AXES, "RZ")),
                )
            },
            "drift": [
                {"corner": corner, "X": x, "Y": y}
                for corner, (x, y) in zip(corners, results["drift"][i].tolist(), strict=False)
            ],
            "edges": {d: _edge(results, AXES.index(d), i) for d in directions},
        }
        rows.append(row)
    return rows


def _edge(results: Mapping[str, Array], axis: int, floor: int) -> dict[str, Any]:
    """Drifts and displacements of the two ends, their averages, and greatest over average."""
    a, b, mean = np.abs(results["edge_drift"][floor, axis]).tolist()
    p, q, middle = np.abs(results["end"][floor, axis]).tolist()
    greatest = max(a, b)
    return {
        "drift": [a, b],
        "average": mean,
        "ratio": greatest / mean if mean > 1e-12 * max(greatest, 1e-300) else None,
        "displacement": [p, q],
        "displacement_average": middle,
    }
