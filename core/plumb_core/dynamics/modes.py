"""Modes of a structure: eigen solution, load-dependent Ritz vectors, participation and the kind of each mode."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from plumb_core.constants import Progress, quiet
from plumb_core.dynamics.factor import NotStable, negative_eigenvalues, threads_for
from plumb_core.dynamics.structure import Array, Structure, Warning

Kind = Literal["X", "Y", "twist", "mixed", "local"]

DENSE = 200
"""Massive degrees of freedom up to which all modes are found at once."""
BLOCK = 12
"""Vectors solved for at once."""
COUNTED = 20_000
"""Degrees of freedom up to which the modes are counted by the signs of the pivots.

Beyond, that takes longer than the modes.
"""
TARGETS = ("X", "Y", "RZ")


@dataclass(frozen=True)
class Modes:
    """The k modes of a structure by rising frequency, normalised to unit modal mass.

    Attributes
    ----------
    omega : circular frequency, rad/s, shape (k,)
    shapes : displacements at the n equations, shape (n, k)
    gamma : participation factors in X, Y, RZ, Z, shape (k, 4)
    share : effective modal mass (RZ: inertia) over the moving one, in X, Y, RZ, Z, shape (k, 4)
    floors : X, Y (m) and RZ (rad) at the floors, shape (k, n_floors, 3)
    forces : X, Y (kN) and moment about the axis (kN m) at the floors for a unit of modal acceleration, shape (k,
        n_floors, 3)
    at_floors : share of each mode's kinetic energy in the movement of the floors, shape (k,)
    every : whether the model has no other modes
    method : `eigen` or `ritz`
    counted_by : how it was made sure that none is missing
    warnings : about the modes
    """

    omega: Array
    shapes: Array
    gamma: Array
    share: Array
    floors: Array
    forces: Array
    at_floors: Array
    every: bool
    method: str
    counted_by: str
    warnings: list[Warning]

    def __len__(self) -> int:
        return len(self.omega)

    @property
    def T(self) -> Array:
        """Periods, s, shape (k,)."""
        return np.asarray(2.0 * np.pi / self.omega)

    @property
    def kinds(self) -> list[Kind]:
        """What each mode mostly moves along or about."""
        return [kind_of(s, e) for s, e in zip(self.share[:, :3], self.at_floors, strict=True)]

    @property
    def cumulative(self) -> Array:
        """Running sums of the shares, shape (k, 4)."""
        return np.asarray(np.cumsum(self.share, axis=0))


def kind_of(share: Sequence[float] | Array, at_floors: float = 1.0) -> Kind:
    """Kind of a mode by its shares in X, Y, RZ: two thirds of their sum name it; local where the floors hardly move."""
    total = float(np.sum(share))
    if at_floors < 0.5 or total < 1e-9:
        return "local"
    names: tuple[Kind, ...] = ("X", "Y", "twist")
    most = int(np.argmax(share))
    return names[most] if share[most] >= 2.0 / 3.0 * total else "mixed"


def _described(
    structure: Structure,
    omega: Array,
    shapes: Array,
    every: bool,
    method: str,
    counted_by: str,
    warnings: list[Warning],
) -> Modes:
    inertia = shapes * structure.masses[:, None]
    gamma = inertia.T @ structure.influence
    total = np.where(structure.total > 0, structure.total, np.inf)
    floors = structure.floor_displacements(shapes)
    f = structure.floors
    by_floor = (
        f.mass[None, :, 0] * floors[:, :, 0] ** 2
        + f.mass[None, :, 1] * floors[:, :, 1] ** 2
        + f.inertia[None, :] * floors[:, :, 2] ** 2
    )
    return Modes(
        omega=omega,
        shapes=shapes,
        gamma=gamma,
        share=gamma**2 / total,
        floors=floors,
        forces=structure.floor_forces(inertia),
        at_floors=np.minimum(by_floor.sum(axis=1), 1.0),
        every=every,
        method=method,
        counted_by=counted_by,
        warnings=warnings,
    )


class _Compliance:
    """The standard problem: D^(1/2) K^-1 D^(1/2) over the massive degrees of freedom, with eigenvalues 1/omega^2."""

    def __init__(self, structure: Structure):
        self.structure = structure
        self.at = structure.massive
        self.root = np.sqrt(structure.masses[self.at])
        self.m = len(self.at)
        self.solutions = 0

    def times(self, v: Array) -> Array:
        return (
            self.root * self.displacements(v)[self.at]
            if v.ndim == 1
            else self.root[:, None] * self.displacements(v)[self.at]
        )

    def displacements(self, v: Array) -> Array:
        """K^-1 D^(1/2) v on all degrees of freedom, (n,) or (n, k)."""
        load = np.zeros((self.structure.n, *v.shape[1:]))
        load[self.at] = (self.root * v.T).T
        self.solutions += 1 if v.ndim == 1 else v.shape[1]
        return self.structure.factor.solve(load)


class _Krylov:
    """An orthonormal basis grown in blocks by the compliance, with the compliance projected on it (block Lanczos).

    Blocks make two things better than one vector at a time: periods that come in pairs are found together, and a
    block of
    loads is solved for in a fraction of the time of its columns.  Orthogonality is kept in full.
    """

    def __init__(self, compliance: _Compliance, start: Array):
        self.compliance = compliance
        self.basis = np.zeros((compliance.m, 0))
        self.projected = np.zeros((0, 0))
        self.coupling = np.zeros((0, 0))
        self.block = self._new(start)

    @property
    def size(self) -> int:
        return int(self.basis.shape[1] + self.block.shape[1])

    def _new(self, block: Array) -> Array:
        """What of a block is new to the basis, orthonormal."""
        before = np.linalg.norm(block, axis=0)
        for _ in range(2):
            block = block - self.basis @ (self.basis.T @ block)
        q, r = np.linalg.qr(block)
        retained = np.abs(np.diag(r)) > 1e-10 * np.maximum(before, 1e-300)
        # columns that hang on earlier ones spoil the rest of q: taken again without them
        return q if retained.all() else np.linalg.qr(block[:, retained])[0]

    def extend(self, fresh: Array | None = None) -> bool:
        """Take the block into the basis and form the next; False when nothing new is left.

        Fresh : vectors to add to it.
        """
        if not self.block.shape[1]:
            return False
        image = self.compliance.times(self.block)
        p, b = self.basis.shape[1], self.block.shape[1]
        self.basis = np.concatenate([self.basis, self.block], axis=1)
        columns = self.basis.T @ image
        projected = np.zeros((p + b, p + b))
        projected[:p, :p] = self.projected
        projected[:, p:] = columns
        projected[p:, :] = columns.T
        self.projected = projected
        remainder = image - self.basis @ columns
        self.block = self._new(image if fresh is None else np.concatenate([image, fresh], axis=1))
        # What the compliance takes the last block to outside the basis: the residual of the approximations
        self.coupling = np.asarray(np.linalg.qr(remainder, mode="r"))
        return True

    def approximations(self) -> tuple[Array, Array, Array]:
        """(eigenvalues falling, their vectors in the basis, sizes of their residuals)."""
        values, vectors = np.linalg.eigh((self.projected + self.projected.T) / 2.0)
        values, vectors = values[::-1], vectors[:, ::-1]
        last = vectors[-self.coupling.shape[1] :]
        return values, vectors, np.linalg.norm(self.coupling @ last, axis=0)


def _loads(structure: Structure, compliance: _Compliance) -> Array:
    """Loads of X, Y and twist over the massive degrees of freedom, those that there are."""
    loads = structure.influence[compliance.at][:, :3]
    return np.asarray((compliance.root * loads[:, np.abs(loads).max(axis=0) > 0].T).T)


def eigen_modes(structure: Structure, count: int, progress: Progress = quiet, verify: bool = False) -> Modes:
    """The lowest modes, or all where the model has no more; checked that none is missing.

    Parameters
    ----------
    count : how many
    progress : called with the phase and the share done
    verify : whether they are counted by the signs of the pivots also where that takes long

    Raises
    ------
    NotStable : for a mechanism
    """
    compliance = _Compliance(structure)
    progress("factorising", 0.1)
    _ = structure.factor
    progress("modes", 0.2)
    m = compliance.m
    warnings: list[Warning] = []
    if m <= max(DENSE, 3 * count):
        values, vectors = _all(compliance)
        counted_by = "all modes at once"
    else:
        values, vectors, counted_by = _lowest(structure, compliance, count, progress, verify)
        if not counted_by:
            warnings.append(
                Warning(
                    "modes_missing",
                    "a mode may be missing from the list",
                    "the count of eigenvalues and the list differ",
                    "Request another number of modes.",
                )
            )
    k = min(count, m)
    progress("participation", 0.95)
    omega = 1.0 / np.sqrt(values[:k])
    if k < len(values) and abs(values[k] / values[k - 1] - 1.0) < 1e-6:
        warnings.append(
            Warning(
                "repeated_cut",
                f"mode {k} is one of two modes with equal periods, and the list ends between them",
                "the requested number of modes splits the pair",
                "Request one more mode.",
            )
        )
    return _described(
        structure, omega, _shapes(structure, compliance, omega, vectors[:, :k]), k == m, "eigen", counted_by, warnings
    )


def _shapes(structure: Structure, compliance: _Compliance, omega: Array, vectors: Array) -> Array:
    """Displacements (n, k) of modes from their vectors over the massive degrees of freedom."""
    shapes = compliance.displacements(vectors) * omega**2
    shapes[compliance.at] = (vectors.T / compliance.root).T
    return _signed(structure, shapes)


def _all(compliance: _Compliance) -> tuple[Array, Array]:
    flexibility = compliance.times(np.eye(compliance.m))
    values, vectors = np.linalg.eigh((flexibility + flexibility.T) / 2.0)
    return values[::-1], vectors[:, ::-1]


def _lowest(
    structure: Structure, compliance: _Compliance, count: int, progress: Progress, verify: bool
) -> tuple[Array, Array, str]:
    """(eigenvalues falling, vectors, how it was checked that none is missing) of a few more than `count` modes."""
    random = np.random.default_rng(1)
    loads = _loads(structure, compliance)
    krylov = _Krylov(
        compliance, np.concatenate([loads, random.standard_normal((compliance.m, BLOCK - loads.shape[1]))], axis=1)
    )
    by_pivots = verify or structure.n <= COUNTED
    expected, tries, look_at = count + 1, 0, 2 * (count + 1)
    while True:
        grows = krylov.extend() and krylov.size < compliance.m
        if grows and krylov.basis.shape[1] < look_at:
            continue
        # looking costs as the cube of the basis: a tenth more of it each time
        look_at = int(1.1 * krylov.basis.shape[1])
        values, vectors, residuals = krylov.approximations()
        settled = residuals[:expected] < 1e-9 * values[:expected]
        progress("modes", 0.2 + 0.5 * float(settled.mean()))
        if grows and not settled.all():
            continue
        if not by_pivots:
            return values[:expected], krylov.basis @ vectors[:, :expected], "block iteration from random starts"
        progress("counting modes", 0.75)
        # between the last mode and the next, or just above a group of equal ones
        shift = float(1.0 / values[count - 1]) * (1.0 - 1e-7)
        if negative_eigenvalues(structure.K, structure.masses, shift) == int(
            np.count_nonzero(1.0 / values[:expected] < shift)
        ):
            return values[:expected], krylov.basis @ vectors[:, :expected], "signs of the pivots"
        tries += 1
        if tries == 3 or not grows:
            return values[:expected], krylov.basis @ vectors[:, :expected], ""
        krylov.extend(random.standard_normal((compliance.m, BLOCK)))


def _signed(structure: Structure, shapes: Array) -> Array:
    """Shapes whose greatest floor movement is positive, so that the same question has the same answer."""
    floors = structure.floor_displacements(shapes)
    radius = np.sqrt(np.divide(structure.floors.inertia, np.maximum(structure.floors.mass.mean(axis=1), 1e-300)))
    movement = (floors * np.stack([np.ones_like(radius), np.ones_like(radius), radius], axis=1)).reshape(
        shapes.shape[1], -1
    )
    most = np.argmax(
        np.abs(np.round(movement / np.maximum(np.abs(movement).max(axis=1, keepdims=True), 1e-300), 6)), axis=1
    )
    sign = np.sign(movement[np.arange(len(most)), most])
    return np.asarray(shapes * np.where(sign == 0, 1.0, sign))


def ritz_modes(structure: Structure, count: int, progress: Progress = quiet) -> Modes:
    """Load-dependent Ritz vectors for X, Y and twist, Wilson, Yuan and Dickens (1982).

    As modes of the reduced problem.
    """
    compliance = _Compliance(structure)
    progress("factorising", 0.1)
    _ = structure.factor
    progress("Ritz vectors", 0.3)
    krylov = _Krylov(compliance, _loads(structure, compliance))
    while krylov.size < count and krylov.extend():
        pass
    basis = np.concatenate([krylov.basis, krylov.block], axis=1)[:, :count]
    reduced = basis.T @ compliance.times(basis)
    values, vectors = np.linalg.eigh((reduced + reduced.T) / 2.0)
    omega = 1.0 / np.sqrt(values[::-1])
    shapes = _shapes(structure, compliance, omega, basis @ vectors[:, ::-1])
    return _described(structure, omega, shapes, basis.shape[1] == compliance.m, "ritz", "does not apply", [])


def modes_to_target(
    structure: Structure,
    target: float,
    directions: Sequence[str] = ("X", "Y"),
    method: str = "eigen",
    most: int = 2000,
    progress: Progress = quiet,
) -> Modes:
    """As many modes as it takes for the sums of the shares to reach `target` in every asked direction."""
    columns = [TARGETS.index(d) for d in directions]
    count = 12
    while True:
        modes = find_modes(structure, count, method, progress)
        reached = np.all(modes.cumulative[:, columns] >= target - 1e-9, axis=1)
        if reached.any():
            return first_modes(modes, int(np.argmax(reached)) + 1)
        if modes.every or len(modes) < count or count >= most:
            return modes
        count = min(2 * count, most)


def first_modes(modes: Modes, count: int) -> Modes:
    """The first `count` of the modes."""
    if count >= len(modes):
        return modes
    by_mode = ("omega", "gamma", "share", "floors", "forces", "at_floors")
    fewer = {name: getattr(modes, name)[:count] for name in by_mode}
    return replace(modes, shapes=modes.shapes[:, :count], every=False, **fewer)


def find_modes(
    structure: Structure, count: int, method: str = "eigen", progress: Progress = quiet, verify: bool = False
) -> Modes:
    """Modes by either method; raises NotStable for a mechanism."""
    with threads_for(structure.n):
        if method == "ritz":
            return ritz_modes(structure, count, progress)
        return eigen_modes(structure, count, progress, verify)


def rayleigh_periods(structure: Structure, forces: Array | None = None) -> Array:
    """Rayleigh's period in X and Y, s, shape (2,): a second opinion on the first mode of each direction.

    forces : at the floors, kN, shape (n_floors, 2); by default weights times heights above the base.
    """
    u_by_direction = []
    for d in (0, 1):
        if forces is None:
            base = float((structure.floors.z - structure.floors.h).min())
            height = structure.node_at[structure.dof_node, 2] - base
            load = structure.masses * structure.influence[:, d] * np.maximum(height, 0.0)
        else:
            spread = np.zeros(3 * len(structure.floors))
            spread[d::3] = forces[:, d]
            load = np.asarray(structure.at_floors @ spread)
        u = structure.factor.solve(load)
        work = float(load @ u)
        u_by_direction.append(2.0 * np.pi * np.sqrt(float(structure.masses @ u**2) / work) if work > 0 else np.nan)
    return np.array(u_by_direction)


def mechanism(structure: Structure, unstable: NotStable) -> Warning:
    """What a stiffness that is not positive definite says about the model: which nodes move freely, and how."""
    movement = np.abs(unstable.mode)
    most = np.argsort(movement)[::-1]
    nodes = list(dict.fromkeys(structure.node_ids[structure.dof_node[d]] for d in most[:200] if movement[d] > 0.1))[:12]
    if unstable.negative:
        return Warning(
            "unstable",
            "the geometric stiffness of gravity exceeds the lateral stiffness",
            "the building is unstable under gravity",
            "Check the gravity loads and the stiffness of the lateral system.",
            "/",
            True,
            tuple(nodes),
        )
    on_floors = set(np.flatnonzero(np.diff(structure.at_floors.tocsr().indptr)).tolist())
    floors = [
        structure.floors.names[structure.floor_of[d]]
        for d in most[:200]
        if movement[d] > 0.1 and d in on_floors and structure.floors.rigid[structure.floor_of[d]]
    ]
    named = ", ".join([*(f"floor {name}" for name in dict.fromkeys(floors)), *(nodes if not floors else ())])
    return Warning(
        "mechanism",
        f"the model is a mechanism: {named} can move without resistance",
        "releases, pinned ends or missing members allow a movement without resistance",
        "Fix or connect these nodes, or remove a release.",
        "/",
        True,
        tuple(nodes),
    )


def local_modes_warning(modes: Modes) -> list[Warning]:
    """Modes in which the floors hardly move."""
    local = [i + 1 for i, kind in enumerate(modes.kinds) if kind == "local"]
    if not local:
        return []
    return [
        Warning(
            "local_modes",
            f"{len(local)} of {len(modes)} modes are local (first: mode {local[0]})",
            "masses at nodes away from the floors move independently, or vertically",
            (
                "Assign the masses to the floors, exclude vertical mass, or disregard these modes when judging the "
                "number of modes."
            ),
        )
    ]
