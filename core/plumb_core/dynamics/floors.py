"""What floors have in common in both depths of model: plan outlines and the second order effect of what they carry."""

from __future__ import annotations

import numpy as np
import scipy.sparse as sp

from plumb_core.dynamics.structure import Array, Floors, Ints


def outline_properties(corners: Array) -> tuple[Array, float]:
    """Centroid (m) and polar radius of gyration squared about it (m2) of a polygon, corners (k, 2) in either sense."""
    shifted = corners - corners[0]
    x, y = shifted.T
    x1, y1 = np.roll(x, -1), np.roll(y, -1)
    cross = x * y1 - x1 * y
    area = cross.sum() / 2.0
    if abs(area) < 1e-12:
        return corners.mean(axis=0), 0.0
    centroid = np.array([((x + x1) * cross).sum(), ((y + y1) * cross).sum()]) / (6.0 * area)
    second = ((x * x + x * x1 + x1 * x1 + y * y + y * y1 + y1 * y1) * cross).sum() / 12.0
    return corners[0] + centroid, float(second / area - centroid @ centroid)


def leaning_columns(floors: Floors, dofs: Ints, size: int) -> sp.csc_array:
    """Stiffness (negative) of gravity loads leaning on the stories, (size, size).

    Each floor's weight passes down through every story under it at its own place in plan: -P/h on the relative
    displacement of the floors at the centre of what the story carries, and -(P r2)/h on their relative rotation, with r
    the radius of gyration of that load in plan.  dofs : equation numbers of X, Y, RZ at each floor's centre, (n, 3).
    """
    n = len(floors)
    carried = floors.carried
    P = carried @ floors.gravity
    safe = np.where(P > 0, P, 1.0)
    centre = (carried @ (floors.gravity[:, None] * floors.centre)) / safe[:, None]
    mass = floors.mass.mean(axis=1)
    square = np.divide(floors.inertia, mass, out=np.zeros(n), where=mass > 0)
    distance = ((floors.centre[None, :, :] - centre[:, None, :]) ** 2).sum(axis=2)
    polar = (carried * floors.gravity[None, :] * (square[None, :] + distance)).sum(axis=1)
    rows, columns, values = [], [], []
    for i in range(n):
        below = floors.below[i]
        arms = []
        for sign, floor in ((1.0, i), (-1.0, below)):
            if floor < 0:
                continue
            dx, dy = centre[i] - floors.centre[floor]
            arms.append((dofs[floor], sign * np.array([[1.0, 0.0, -dy], [0.0, 1.0, dx], [0.0, 0.0, 1.0]])))
        at = np.concatenate([a[0] for a in arms])
        b = np.concatenate([a[1] for a in arms], axis=1)
        k = -(b.T * np.array([P[i], P[i], polar[i]])) @ b / floors.h[i]
        rows.append(np.repeat(at, len(at)))
        columns.append(np.tile(at, len(at)))
        values.append(k.ravel())
    r, c, v = np.concatenate(rows), np.concatenate(columns), np.concatenate(values)
    keep = (r >= 0) & (c >= 0)
    return sp.coo_array((v[keep], (r[keep], c[keep])), shape=(size, size)).tocsc()
