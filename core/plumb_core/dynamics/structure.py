"""What both depths of model become: stiffness, mass, floors, and how floors move with the degrees of freedom."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np
import numpy.typing as npt
import scipy.sparse as sp

from plumb_core.dynamics.factor import Factor, threads_for

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class Warning:
    """Something a careful analyst would remark on: what, why, what to do about it, and where.

    stops : nothing is computed before it is corrected.  path : JSON pointer into the model.
    nodes, members : ids of what it is about.
    """

    code: str
    message: str
    cause: str
    remedy: str
    path: str = "/"
    stops: bool = False
    nodes: tuple[str, ...] = ()
    members: tuple[str, ...] = ()

    def as_json(self) -> dict[str, Any]:
        """Return the part as a document."""
        return {
            "code": self.code,
            "message": self.message,
            "cause": self.cause,
            "remedy": self.remedy,
            "path": self.path,
            "stops": self.stops,
            "nodes": list(self.nodes),
            "members": list(self.members),
        }


@dataclass(frozen=True)
class Floors:
    """Floors from bottom to top.

    z : elevation, h : height of the story below, m, shape (n,)
    below : index of the floor below, -1 for the base, shape (n,)
    centre : point that the floor's displacement is of (centre of mass), m, shape (n, 2)
    mass : t in X and Y, shape (n, 2); inertia : t m2 about the centre, shape (n,)
    corners : points of each floor's plan, m, each of shape (k, 2)
    gravity : weight for second order effects, kN, shape (n,)
    """

    names: list[str]
    z: Array
    h: Array
    below: Ints
    centre: Array
    mass: Array
    inertia: Array
    corners: list[Array]
    gravity: Array
    rigid: npt.NDArray[np.bool_]

    def __len__(self) -> int:
        return len(self.names)

    @cached_property
    def carried(self) -> Array:
        """(n, n): 1 where the story below floor i carries floor j, so that shears are `carried @ forces`."""
        carried_over = np.eye(len(self))
        for j in range(len(self)):
            i = self.below[j]
            while i >= 0:
                carried_over[i, j] = 1.0
                i = self.below[i]
        return carried_over

    @cached_property
    def points(self) -> Array:
        """Corners of all floors, (n, c, 2), those of floors with fewer filled up with their last one."""
        most = max(len(c) for c in self.corners)
        return np.array([np.concatenate([c, np.repeat(c[-1:], most - len(c), axis=0)]) for c in self.corners])

    @cached_property
    def ends(self) -> Ints:
        """Corners at the two ends of each floor, (n, 2, 2): for X those least and furthest along Y, for Y along X."""
        across = self.points[:, :, ::-1]
        return np.stack([across.argmin(axis=1), across.argmax(axis=1)], axis=2)

    @cached_property
    def levers(self) -> Array:
        """(n, n): height of floor j above the bottom of story i, where that story carries it, m."""
        bottom = self.z - self.h
        return self.carried * (self.z[None, :] - bottom[:, None])

    @cached_property
    def breadth(self) -> Array:
        """Plan dimension at right angles to X and to Y, m, shape (n, 2)."""
        return np.asarray(np.ptp(self.points, axis=1)[:, ::-1])


@dataclass(frozen=True)
class Structure:
    """Equations of motion of a building and how its floors follow from them.

    K : stiffness, kN/m, sparse (n, n).  masses : its diagonal mass matrix, t or t m2, shape (n,); 0 for massless ones
    influence : rigid-body displacement of each degree of freedom for a unit of X, Y, rotation about the vertical
        through
        the mass centre `axis`, and Z, shape (n, 4)
    at_floors : sparse (n, 3 n_floors): floor displacements (X, Y, RZ of each) are its transpose times the
        displacements,
        and it spreads forces and moments at floors over the degrees of freedom
    floor_of : floor to which the inertia force of a degree of freedom is counted, shape (n,)
    node_ids, node_at : what moves and where; `spread` and `mass_table` are made when they are required
    """

    K: sp.csc_array
    masses: Array
    influence: Array
    at_floors: sp.csc_array
    floor_of: Ints
    floors: Floors
    axis: Array
    node_ids: list[str]
    node_at: Array
    make_spread: Callable[[], sp.csr_array]
    dof_node: Ints
    """index of a node that each degree of freedom belongs to, shape (n,)"""
    make_mass_table: Callable[[], list[dict[str, Any]]]
    warnings: list[Warning] = field(default_factory=list)

    @cached_property
    def spread(self) -> sp.csr_array:
        """(6 n_nodes, n): ux uy uz rx ry rz of every node from the displacements."""
        return self.make_spread()

    @cached_property
    def mass_table(self) -> list[dict[str, Any]]:
        """Mass by floor and source, t, with inertia (t m2) and centre (m)."""
        return self.make_mass_table()

    @cached_property
    def factor(self) -> Factor:
        """Factorisation of the stiffness matrix."""
        with threads_for(self.n):
            return Factor(self.K)

    @cached_property
    def massive(self) -> Ints:
        """Degrees of freedom that have mass."""
        return np.flatnonzero(self.masses > 0)

    @cached_property
    def total(self) -> Array:
        """Moving mass in X and Y (t), inertia about the vertical through the mass centre (t m2), mass in Z.

        Shape (4,).
        """
        return np.asarray(self.masses @ self.influence**2)

    @property
    def n(self) -> int:
        """Number of degrees of freedom."""
        return len(self.masses)

    @cached_property
    def tally(self) -> sp.csr_array:
        """(3 n_floors, n): forces on the degrees of freedom summed by floor, as X, Y and moment about `axis`."""
        rows = (3 * self.floor_of[:, None] + np.arange(3)).ravel()
        columns = np.repeat(np.arange(self.n), 3)
        values = self.influence[:, :3].ravel()
        keep = values != 0
        return sp.csr_array((values[keep], (rows[keep], columns[keep])), shape=(3 * len(self.floors), self.n))

    @cached_property
    def _to_floors(self) -> sp.csr_array:
        return self.at_floors.T.tocsr()

    def floor_displacements(self, u: Array) -> Array:
        """X, Y, RZ of every floor at its centre for displacements `u` (n,) or (n, k).

        (n_floors, 3) or (k, n_floors, 3).
        """
        displacements = self._to_floors @ u
        return np.asarray(displacements).T.reshape(*u.shape[1:], len(self.floors), 3)

    def floor_forces(self, inertia_force: Array) -> Array:
        """X, Y (kN) and moment about `axis` (kN m) by floor of forces on the degrees of freedom; shapes as above."""
        forces = self.tally @ inertia_force
        return np.asarray(forces).T.reshape(*inertia_force.shape[1:], len(self.floors), 3)
