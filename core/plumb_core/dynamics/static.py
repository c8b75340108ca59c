"""Static response of the model to forces at its floors, with accidental eccentricity and its amplification."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from plumb_core.dynamics.response import AXES, Axis, reported
from plumb_core.dynamics.rigidity import flexibility, offsets
from plumb_core.dynamics.structure import Array, Structure

Amplifier = Callable[[Array, Array], Array]
"""A_x of floors from the greatest and the average displacement of their two ends."""
ROUNDS = 25


@dataclass(frozen=True)
class StaticCase:
    """Results of one direction and one sense of the eccentricity.

    Attributes
    ----------
    direction : of the forces
    sign : 0 without, +1 or -1 for the side to which the accidental eccentricity moves the mass
    results : by name as `response.reported` has them, in its units, signed, without the first axis
    A_x : amplification of the accidental eccentricity of each floor, shape (n_floors,); None where there is no rule
        for it
    rounds : A_x of each round of its iteration, each of shape (n_floors,)
    e_s, e_d : static and design eccentricity of each floor from the centre of rigidity, m, shape (n_floors,); None
        where the
        code has no such rule
    """

    direction: Axis
    sign: int
    results: dict[str, Array]
    A_x: Array | None
    rounds: list[Array]
    e_s: Array | None = None
    e_d: Array | None = None


def _solved(structure: Structure, axis: int, forces: Array, moments: Array) -> dict[str, Array]:
    floors = structure.floors
    load = np.zeros(3 * len(floors))
    load[axis::3] = forces
    load[2::3] = moments
    u = structure.factor.solve(np.asarray(structure.at_floors @ load))
    # moments about the building's axis: the forces act at the floors' own centres
    acting = np.zeros((1, len(floors), 3))
    acting[0, :, axis] = forces
    arm = floors.centre - structure.axis
    acting[0, :, 2] = moments + forces * (-arm[:, 1] if axis == 0 else arm[:, 0])
    results = reported(floors, structure.floor_displacements(u)[None], acting)
    return {name: value[0] for name, value in results.items()}


def static_response(
    structure: Structure,
    direction: Axis,
    forces: Array,
    eccentricity: float,
    amplifier: Amplifier | None = None,
    static_factor: float = 1.0,
) -> list[StaticCase]:
    """Response to forces at the centres of mass: without and with eccentricity either way.

    Parameters
    ----------
    direction : of the forces
    forces : on each floor, kN, shape (n_floors,)
    eccentricity : accidental, as a share of the plan breadth at right angles; 0 gives the case without alone
    amplifier : the code's A_x of greatest and average displacements; repeated with amplified moments until it converges
    static_factor : on the static eccentricity e_s where the accidental one adds to it: e_d = factor e_s + share b, or
        e_s - share b; 1 leaves the forces at the centres of mass with the accidental one either way

    Returns
    -------
    list of StaticCase
        Without eccentricity, then with it in both senses.
    """
    axis = AXES.index(direction)
    floors = structure.floors
    breadth = floors.breadth[:, axis]
    cases = [StaticCase(direction, 0, _solved(structure, axis, forces, np.zeros(len(floors))), None, [])]
    if not eccentricity:
        return cases
    e_s = None if static_factor == 1.0 else -offsets(flexibility(structure), axis, forces)
    for sign in (1, -1):
        moved, e_d, to = sign * eccentricity * breadth, None, sign
        if e_s is not None:
            side = np.where(e_s < -1e-9 * breadth, -1.0, 1.0)
            # the first case adds to the static eccentricity, whichever its side: mirror images mirror their cases
            to = sign if float(np.sum(side * np.abs(forces))) >= 0 else -sign
            moved = ((static_factor - 1.0) * e_s if sign > 0 else 0.0) + side * moved
            e_d = e_s + moved
        # a force in X with its point moved along +Y turns the floor the negative way
        turn = (-1.0 if axis == 0 else 1.0) * moved * forces
        results = _solved(structure, axis, forces, turn)
        if amplifier is None:
            cases.append(StaticCase(direction, to, results, None, [], e_s, e_d))
            continue
        rounds: list[Array] = []
        for _ in range(ROUNDS):
            A_x = _amplification(results, direction, len(floors), amplifier)
            settled = bool(rounds) and bool(np.allclose(A_x, rounds[-1], rtol=1e-6))
            rounds.append(A_x)
            if settled or np.all(A_x == 1.0):
                break
            results = _solved(structure, axis, forces, turn * A_x)
        cases.append(StaticCase(direction, to, results, rounds[-1], rounds, e_s, e_d))
    return cases


def _amplification(results: dict[str, Array], direction: Axis, n: int, amplifier: Amplifier) -> Array:
    values = np.ones(n)
    ends = results["end"][:, AXES.index(direction)]
    greatest, average = np.abs(ends[:, :2]).max(axis=1), np.abs(ends[:, 2])
    moving = greatest > 0
    if moving.any():
        values[moving] = amplifier(greatest[moving], average[moving])
    return values
