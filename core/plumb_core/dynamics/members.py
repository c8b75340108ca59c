"""Stiffness of straight members, for all members at once.

Degrees of freedom of a member: ux uy uz rx ry rz at end i, then at end j.  Timoshenko's beam with exact shape
functions:
J. S. Przemieniecki, Theory of Matrix Structural Analysis (1968), section 5.6.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]

DOFS = ("ux", "uy", "uz", "rx", "ry", "rz")
VERTICAL = 1e-6
"""Horizontal share of the length below which a member counts as vertical."""


def local_axes(chord: Array, roll: Array) -> tuple[Array, Array]:
    """Lengths (m, shape (m,)) and axes (shape (m, 3, 3), rows x y z) of members along `chord` (m, 3).

    `roll` in radians.

    z lies in the vertical plane through the member and points up; for vertical members y is global Y.
    """
    L = np.linalg.norm(chord, axis=1)
    x = chord / L[:, None]
    horizontal = np.hypot(x[:, 0], x[:, 1])
    vertical = horizontal < VERTICAL
    safe = np.where(vertical, 1.0, horizontal)
    # y lies level, to the left of the member; z = x cross y
    y = np.stack([-x[:, 1] / safe, x[:, 0] / safe, np.zeros(len(L))], axis=1)
    z = np.stack([-x[:, 2] * x[:, 0] / safe, -x[:, 2] * x[:, 1] / safe, horizontal], axis=1)
    y[vertical] = (0.0, 1.0, 0.0)
    z[vertical] = np.stack([-x[vertical, 2], np.zeros(int(vertical.sum())), x[vertical, 0]], axis=1)
    c, s = np.cos(roll)[:, None], np.sin(roll)[:, None]
    return L, np.stack([x, c * y + s * z, c * z - s * y], axis=1)


def local_stiffness(L: Array, EA: Array, GJ: Array, EIy: Array, EIz: Array, GAy: Array, GAz: Array) -> Array:
    """Stiffness in local axes, shape (m, 12, 12).

    L in m; EA, GAy, GAz in kN; GJ, EIy, EIz in kN m2, each of shape (m,).  Infinite GAy or GAz: without shear
    deformation.
    """
    k = np.zeros((len(L), 12, 12))
    _bar(k, EA / L, 0)
    _bar(k, GJ / L, 3)
    # x-y plane: deflection uy, rotation rz;  x-z plane: deflection uz, rotation -ry
    _beam(k, L, EIz, GAy, 1, 5, 1.0)
    _beam(k, L, EIy, GAz, 2, 4, -1.0)
    return k


def _bar(k: Array, stiffness: Array, dof: int) -> None:
    k[:, dof, dof] = k[:, dof + 6, dof + 6] = stiffness
    k[:, dof, dof + 6] = k[:, dof + 6, dof] = -stiffness


def _beam(k: Array, L: Array, EI: Array, GA: Array, v: int, r: int, sign: float) -> None:
    phi = 12.0 * EI / (GA * L**2)
    a = EI / (L**3 * (1.0 + phi))
    ends = (v, v + 6)
    turns = (r, r + 6)
    for i, p in enumerate(ends):
        for j, q in enumerate(ends):
            k[:, p, q] = 12.0 * a if i == j else -12.0 * a
        for q in turns:
            k[:, p, q] = k[:, q, p] = sign * (1 - 2 * i) * 6.0 * L * a
    for i, p in enumerate(turns):
        for j, q in enumerate(turns):
            k[:, p, q] = a * L**2 * ((4.0 + phi) if i == j else (2.0 - phi))


def released(k: Array, released_dofs: npt.NDArray[np.bool_]) -> Array:
    """Stiffness with end forces released (m, 12 flags): static condensation, once for each pattern of releases."""
    freed = k.copy()
    patterns, which = np.unique(released_dofs, axis=0, return_inverse=True)
    for number, pattern in enumerate(patterns):
        if not pattern.any():
            continue
        at = np.flatnonzero(which.ravel() == number)
        r, c = np.flatnonzero(pattern), np.flatnonzero(~pattern)
        rr, rc = k[np.ix_(at, r, r)], k[np.ix_(at, r, c)]
        # translations and rotations have different units: scaled to a unit diagonal before what is singular is dropped
        scale = np.sqrt(np.maximum(np.einsum("mii->mi", rr), 1e-300))
        inverse = np.linalg.pinv(rr / (scale[:, :, None] * scale[:, None, :]), rcond=1e-10, hermitian=True)
        inverse /= scale[:, :, None] * scale[:, None, :]
        condensed = np.zeros((len(at), 12, 12))
        condensed[np.ix_(np.arange(len(at)), c, c)] = k[np.ix_(at, c, c)] - rc.transpose(0, 2, 1) @ inverse @ rc
        freed[at] = condensed
    return freed


def chord_stiffness(N: Array, L: Array) -> Array:
    """Geometric stiffness of the turning chord, local axes, (m, 12, 12): N (kN, tension positive) over L (m)."""
    k = np.zeros((len(L), 12, 12))
    for dof in (1, 2):
        _bar(k, N / L, dof)
    return k
