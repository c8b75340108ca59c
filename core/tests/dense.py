"""A frame solved a second way, for the tests.

Member by member, from flexibilities, dense, without any of the product's code.

Each member is a cantilever's flexibility matrix, inverted and carried over by equilibrium; diaphragms are a
transformation
matrix applied to the dense whole; the eigenproblem is the general dense one on the massive coordinates.
"""

from __future__ import annotations

from typing import Any

import numpy as np
import scipy.linalg

DOFS = ["ux", "uy", "uz", "rx", "ry", "rz"]


def _member(
    xi: np.ndarray,
    xj: np.ndarray,
    section: dict[str, Any],
    material: dict[str, Any],
    roll: float,
    released: list[int],
    factor: float,
) -> np.ndarray:
    E = material["E"]
    G = E / (2 * (1 + material["nu"]))
    L = float(np.linalg.norm(xj - xi))
    ex = (xj - xi) / L
    if abs(ex[2]) > 1 - 1e-10:
        ey = np.array([0.0, 1.0, 0.0])
        ez = np.cross(ex, ey)
    else:
        up = np.array([0.0, 0.0, 1.0])
        ez = up - (up @ ex) * ex
        ez /= np.linalg.norm(ez)
        ey = np.cross(ez, ex)
    c, s = np.cos(np.radians(roll)), np.sin(np.radians(roll))
    R = np.array([ex, c * ey + s * ez, c * ez - s * ey])
    sy = L / (G * section["Ay"]) if section.get("Ay") else 0.0
    sz = L / (G * section["Az"]) if section.get("Az") else 0.0
    A, Iy, Iz, J = section["A"], section["Iy"], section["Iz"], section["J"]
    # end j displaced by unit forces at j, end i held
    f = np.zeros((6, 6))
    f[0, 0] = L / (E * A)
    f[1, 1], f[1, 5], f[5, 1], f[5, 5] = (
        L**3 / (3 * E * Iz) + sy,
        L**2 / (2 * E * Iz),
        L**2 / (2 * E * Iz),
        L / (E * Iz),
    )
    f[2, 2], f[2, 4], f[4, 2], f[4, 4] = (
        L**3 / (3 * E * Iy) + sz,
        -(L**2) / (2 * E * Iy),
        -(L**2) / (2 * E * Iy),
        L / (E * Iy),
    )
    f[3, 3] = L / (G * J)
    kjj = np.linalg.inv(f)
    # forces at i balance those at j
    H = -np.eye(6)
    H[4, 2], H[5, 1] = L, -L
    B = np.concatenate([H, np.eye(6)])
    k = factor * B @ kjj @ B.T
    if released:
        keep = [d for d in range(12) if d not in released]
        full = np.zeros((12, 12))
        full[np.ix_(keep, keep)] = k[np.ix_(keep, keep)] - k[np.ix_(keep, released)] @ np.linalg.solve(
            k[np.ix_(released, released)], k[np.ix_(released, keep)]
        )
        k = full
    T = scipy.linalg.block_diag(R, R, R, R)
    return T.T @ k @ T


class DenseFrame:
    """K, M and the influence vectors of a frame document, with all diaphragms rigid."""

    def __init__(self, frame: dict[str, Any]):
        nodes = {n["id"]: k for k, n in enumerate(frame["nodes"])}
        at = np.array([n["at"] for n in frame["nodes"]], dtype=float)
        sections = {s["id"]: s for s in frame["sections"]}
        materials = {m["id"]: m for m in frame["materials"]}
        n = len(nodes)
        K, M = np.zeros((6 * n, 6 * n)), np.zeros((6 * n, 6 * n))
        for member in frame["members"]:
            i, j = nodes[member["i"]], nodes[member["j"]]
            section, material = sections[member["section"]], materials[member["material"]]
            released = [DOFS.index(d) for d in member.get("release_i", [])] + [
                6 + DOFS.index(d) for d in member.get("release_j", [])
            ]
            factor = 0.5 if member.get("axial") == "tension_only" else 1.0
            k = _member(at[i], at[j], section, material, member.get("roll", 0.0), released, factor)
            dofs = [6 * i + d for d in range(6)] + [6 * j + d for d in range(6)]
            K[np.ix_(dofs, dofs)] += k
            if frame.get("member_mass"):
                half = material["density"] * section["A"] * np.linalg.norm(at[j] - at[i]) / 2
                for node in (i, j):
                    for d in range(3):
                        M[6 * node + d, 6 * node + d] += half
        for mass in frame.get("masses", []):
            node = nodes[mass["node"]]
            for d, key in ((0, "mx"), (1, "my"), (2, "mz"), (5, "iz")):
                M[6 * node + d, 6 * node + d] += mass.get(key, 0.0)
        # coordinates: free node movements, then X Y RZ of each diaphragm about the origin
        fixed = {6 * nodes[s["node"]] + DOFS.index(d) for s in frame["supports"] for d in s["fixed"]}
        slaved = {6 * nodes[x] + d for dia in frame.get("diaphragms", []) for x in dia["nodes"] for d in (0, 1, 5)}
        own = [d for d in range(6 * n) if d not in fixed and d not in slaved]
        diaphragms = frame.get("diaphragms", [])
        T = np.zeros((6 * n, len(own) + 3 * len(diaphragms)))
        for c, d in enumerate(own):
            T[d, c] = 1.0
        self.first = len(own)
        for k, dia in enumerate(diaphragms):
            c = len(own) + 3 * k
            for x in dia["nodes"]:
                p = nodes[x]
                T[6 * p, c], T[6 * p, c + 2] = 1.0, -at[p, 1]
                T[6 * p + 1, c + 1], T[6 * p + 1, c + 2] = 1.0, at[p, 0]
                T[6 * p + 5, c + 2] = 1.0
        self.K, self.M = T.T @ K @ T, T.T @ M @ T
        for k, dia in enumerate(diaphragms):
            for floor in frame.get("floors", []):
                if floor["diaphragm"] == dia["id"]:
                    (x, y), m = floor["centre"], floor["mass"]
                    rows = np.array([[1, 0, -y], [0, 1, x], [0, 0, 1]], dtype=float)
                    at_c = len(own) + 3 * k + np.arange(3)
                    self.M[np.ix_(at_c, at_c)] += rows.T @ np.diag([m, m, floor["inertia"]]) @ rows
        r = np.zeros((6 * n, 2))
        r[0::6, 0] = r[1::6, 1] = 1.0
        self.r = np.linalg.lstsq(T, np.where(np.isin(np.arange(6 * n), list(fixed))[:, None], 0.0, r), rcond=None)[0]

    def modes(self) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """(periods falling, shapes with unit modal mass, shares in X and Y)."""
        # massless coordinates condensed out by a dense solution of the general problem K^-1 M
        flexible = np.linalg.solve(self.K, self.M)
        values, vectors = np.linalg.eig(flexible)
        values, vectors = values.real, vectors.real
        order = np.argsort(values)[::-1]
        rank = int(np.linalg.matrix_rank(self.M, tol=1e-9 * np.abs(self.M).max()))
        values, vectors = values[order][:rank], vectors[:, order][:, :rank]
        # repeated roots come with vectors that are not orthogonal: made so
        for i in range(rank):
            for j in range(i):
                vectors[:, i] -= vectors[:, j] * (vectors[:, j] @ self.M @ vectors[:, i])
            vectors[:, i] /= np.sqrt(vectors[:, i] @ self.M @ vectors[:, i])
        gamma = vectors.T @ self.M @ self.r
        total = np.array([self.r[:, d] @ self.M @ self.r[:, d] for d in (0, 1)])
        return 2 * np.pi * np.sqrt(values), vectors, gamma**2 / total
