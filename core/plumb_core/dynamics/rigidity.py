"""Centres of rigidity and torsional radii of the floors, under forces that act over the whole height.

A building has no centre of rigidity of a floor by itself; here it is the set of points, one a floor, through which
given
forces of one direction turn no floor.  For shear-type lines of equal proportions over the height that is the usual
centre.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from plumb_core.dynamics.structure import Array, Structure


@dataclass(frozen=True)
class PlanStiffness:
    """Stiffness of the floors in plan, each of shape (n_floors, 2): along X and Y.

    e_0 : distance between centres of rigidity and mass along the axis, m (it belongs to the stiffness at right angles).
    r : torsional radius, root of torsional over lateral stiffness at right angles to the axis, m.
    l_s : radius of gyration of the floor mass about its centre, m, shape (n_floors,)
    """

    e_0: Array
    r: Array
    l_s: Array


def flexibility(structure: Structure) -> Array:
    """Displacements (m, rad) of the floors' X, Y and rotation under unit forces (kN) and moments (kN m) there, (3n.

    3n).
    """
    loads = structure.at_floors.toarray()
    return np.asarray(structure.at_floors.T @ structure.factor.solve(loads))


def offsets(flexible: Array, axis: int, forces: Array) -> Array:
    """Distance of the centres of rigidity from the centres of mass across the direction of the forces, m, shape (n,).

    axis : 0 for forces (kN, (n,)) along X, whose offsets run along Y; 1 for Y, whose offsets run along X.
    """
    turn = flexible[2::3, 2::3]
    moments = -np.linalg.solve(turn, flexible[2::3, axis::3] @ forces)
    acting = np.abs(forces) > 1e-12 * np.abs(forces).max()
    safe = np.where(acting, forces, 1.0)
    # a force in X whose point moves along +Y turns the floor the negative way
    return np.where(acting, (-1.0 if axis == 0 else 1.0) * moments / safe, 0.0)


def plan_stiffness(structure: Structure) -> PlanStiffness:
    """Eccentricity and torsional radius of each floor, under forces in proportion to mass times height."""
    floors = structure.floors
    height = floors.z - floors.z[0] + floors.h[0]
    flexible = flexibility(structure)
    n = len(floors)
    e_0, r = np.zeros((n, 2)), np.zeros((n, 2))
    for axis in (0, 1):
        forces = floors.mass[:, axis] * height
        off = offsets(flexible, axis, forces)
        moments = forces * (-off if axis == 0 else off)
        lateral = flexible[axis::3, axis::3] @ forces + flexible[axis::3, 2::3] @ moments
        turned = flexible[2::3, 2::3] @ forces
        # forces along X state the offset along Y, and the radius that belongs to it
        e_0[:, 1 - axis] = np.abs(off)
        r[:, 1 - axis] = np.sqrt(lateral / turned)
    return PlanStiffness(e_0, r, np.sqrt(floors.inertia / floors.mass.mean(axis=1)))
