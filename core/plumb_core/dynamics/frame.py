"""Three-dimensional frame: tables of nodes and members become stiffness, mass and floors, all members at once.

Each node has ux uy uz rx ry rz.  A rigid diaphragm replaces ux, uy, rz of its nodes by X, Y, RZ of its centre of
mass, an
exact constraint: every member's stiffness is taken to those before it is added.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
import scipy.sparse as sp

from plumb_core.constants import GRAVITY
from plumb_core.documents.model import FloorMass, Frame
from plumb_core.dynamics.factor import SINGULAR, NotStable
from plumb_core.dynamics.floors import leaning_columns, outline_properties
from plumb_core.dynamics.inspect import about_equations, about_tables
from plumb_core.dynamics.members import chord_stiffness, local_axes, local_stiffness, released
from plumb_core.dynamics.structure import Array, Floors, Ints, Structure, Warning
from plumb_core.dynamics.tables import Flags, Tables, tables_of
from plumb_core.errors import InputRefused, Problem

SAME_LEVEL = 0.05
"""m, within which nodes and floors are on one level."""
SOURCES = ("members", "lines", "point", "equipment", "floors")
"""Columns of the mass table: each mass is in exactly one."""
_TENSION_ONLY = {"half": 0.5, "both": 1.0, "none": 0.0}


# Mass


def node_masses(tables: Tables) -> dict[str, Array]:
    """Mass at the nodes by source, each (n, 4): mx, my, mz (t), iz (t m2); the floors' own are not in it."""
    frame = tables.frame
    n = len(tables.at)
    masses = {source: np.zeros((n, 4)) for source in SOURCES[:-1]}
    vertical = 1.0 if frame.vertical_mass else 0.0
    along = {
        "members": tables.material("density") * tables.section("A") * tables.length if frame.member_mass else None,
        "lines": tables.line_mass * tables.length,
    }
    for source, mass in along.items():
        if mass is not None and mass.any():
            # half to each end
            share = np.bincount(tables.i, mass / 2, n) + np.bincount(tables.j, mass / 2, n)
            masses[source][:, :3] = share[:, None] * (1.0, 1.0, vertical)
    place = {node.id: k for k, node in enumerate(frame.nodes)}
    for entry in frame.masses:
        masses[entry.source][place[entry.node]] += (entry.mx, entry.my, entry.mz, entry.iz)
    return masses


@dataclass
class _Centres:
    """Mass of each floor with its centre: what the rigid diaphragms move about."""

    centre: Array
    mass: Array
    inertia: Array
    gravity: Array


def _floor_levels(tables: Tables) -> tuple[list[str], list[Ints], Flags]:
    """Names and nodes of the floors, bottom to top; levels of nodes where the frame names no diaphragm."""
    frame, at = tables.frame, tables.at
    if frame.diaphragms:
        order = sorted(range(len(frame.diaphragms)), key=lambda k: float(at[tables.floor_nodes[k], 2].mean()))
        return (
            [frame.diaphragms[k].id for k in order],
            [tables.floor_nodes[k] for k in order],
            np.array([frame.diaphragms[k].rigid for k in order]),
        )
    above = np.flatnonzero(at[:, 2] > tables.base + SAME_LEVEL)
    if not len(above):
        return ["top"], [np.arange(len(at))], np.zeros(1, dtype=bool)
    above = above[np.argsort(at[above, 2], kind="stable")]
    breaks = np.flatnonzero(np.diff(at[above, 2]) > SAME_LEVEL) + 1
    levels = np.split(above, breaks)
    return [f"{at[nodes, 2].mean():.6g} m" for nodes in levels], levels, np.zeros(len(levels), dtype=bool)


def _below(z: Array, middle: Array) -> Ints:
    """Index of the floor below each, -1 for none; where a level holds several (towers), the one nearest in plan."""
    lower = z < z[:, None] - SAME_LEVEL
    highest = np.where(lower, z, -np.inf).max(axis=1)
    level = lower & (z > highest[:, None] - SAME_LEVEL)
    away = ((middle - middle[:, None]) ** 2).sum(axis=2)
    return np.where(level.any(axis=1), np.argmin(np.where(level, away, np.inf), axis=1), -1)


def _summed(values: Array, of: Ints, n: int) -> Array:
    """Values, (k,) or (k, c), summed by what they are of, (k,): (n,) or (n, c)."""
    if values.ndim == 1:
        return np.bincount(of, values, n).astype(float)
    return np.stack([_summed(column, of, n) for column in values.T], axis=1)


def _outline(floor: FloorMass, box: Array) -> tuple[Array, float]:
    """Centroid and polar radius of gyration squared of a floor's plan.

    The box about its nodes where no outline is given.
    """
    if floor.outline:
        return outline_properties(np.array(floor.outline))
    a, b = box[2] - box[0]
    return (box[0] + box[2]) / 2.0, float(a * a + b * b) / 12.0


def _boxes(at: Array, levels: Sequence[Ints]) -> Array:
    """Corners of the box about the nodes of each floor, (n_floors, 4, 2)."""
    starts = np.cumsum([0, *(len(nodes) for nodes in levels[:-1])])
    points = at[np.concatenate(levels), :2]
    low, high = np.minimum.reduceat(points, starts), np.maximum.reduceat(points, starts)
    (x0, y0), (x1, y1) = low.T, high.T
    return np.stack([low, np.stack([x1, y0], axis=1), high, np.stack([x0, y1], axis=1)], axis=1)


# Equations


@dataclass
class _Equations:
    """Numbers of the degrees of freedom: `of_node` (n, 6), -1 where fixed.

    `of_floor` (n_floors, 3), -1 for flexible floors.
    """

    of_node: Ints
    of_floor: Ints
    count: int

    def without(self, idle: Flags) -> _Equations:
        """The equations that are left, in their order, when the idle ones are dropped."""
        again = np.append(np.where(idle, -1, np.cumsum(~idle) - 1), -1)
        return _Equations(again[self.of_node], again[self.of_floor], int((~idle).sum()))


def _numbered(tables: Tables, rigid_floor_of: Ints, n_floors: int) -> _Equations:
    numbers = np.full((len(tables.at), 6), -1)
    free = ~tables.fixed
    in_rigid = rigid_floor_of >= 0
    free[np.ix_(in_rigid, np.array([0, 1, 5]))] = False
    count = int(free.sum())
    numbers[free] = np.arange(count)
    of_floor = np.full((n_floors, 3), -1)
    used = np.unique(rigid_floor_of[in_rigid])
    of_floor[used] = count + np.arange(3 * len(used)).reshape(-1, 3)
    for k, dof in enumerate((0, 1, 5)):
        numbers[in_rigid, dof] = of_floor[rigid_floor_of[in_rigid], k]
    return _Equations(numbers, of_floor, count + 3 * len(used))


def _node_maps(tables: Tables, rigid_floor_of: Ints, centre: Array) -> Array:
    """(n, 6, 6): displacements of a node from those that its equations represent."""
    maps = np.broadcast_to(np.eye(6), (len(tables.at), 6, 6)).copy()
    nodes = np.flatnonzero(rigid_floor_of >= 0)
    arm = tables.at[nodes, :2] - centre[rigid_floor_of[nodes]]
    maps[nodes, 0, 5] = -arm[:, 1]
    maps[nodes, 1, 5] = arm[:, 0]
    return maps


def _end_maps(maps: Array, node: Ints, offset: Array) -> Array:
    """(m, 6, 6): displacements of the flexible end at `offset` from its node."""
    end_map = maps[node]
    if offset.any():
        x, y, z = offset.T
        turn = np.zeros((len(node), 6, 6))
        turn[:] = np.eye(6)
        turn[:, 0, 4], turn[:, 0, 5] = z, -y
        turn[:, 1, 3], turn[:, 1, 5] = -z, x
        turn[:, 2, 3], turn[:, 2, 4] = y, -x
        end_map = turn @ end_map
    return end_map


@dataclass
class _Elements:
    """Members ready to be added up.

    Local stiffness, lengths and the maps from equations to local displacements (m, 12, 12).
    """

    local: Array
    length: Array
    maps: Array
    dofs: Ints
    EA: Array

    def taken_to_equations(self, local: Array) -> Array:
        return self.maps.transpose(0, 2, 1) @ (local @ self.maps)


def _factors(tables: Tables, name: str) -> Array | float:
    factors = tables.frame.stiffness_factors
    if not factors:
        return 1.0
    by_group = [getattr(factors[group], name) if group in factors else 1.0 for group in tables.groups]
    return np.array(by_group)[tables.group]


def _elements(tables: Tables, maps: Array, equations: _Equations) -> _Elements:
    E, nu = tables.material("E"), tables.material("nu")
    G = tables.material("G")
    G = np.where(np.isnan(G), E / (2.0 * (1.0 + nu)), G)
    L, axes = local_axes(tables.chord, np.radians(tables.roll))
    EA = E * tables.section("A") * _factors(tables, "A")
    local = local_stiffness(
        L,
        EA,
        G * tables.section("J") * _factors(tables, "J"),
        E * tables.section("Iy") * _factors(tables, "Iy"),
        E * tables.section("Iz") * _factors(tables, "Iz"),
        G * tables.section("Ay", np.inf),
        G * tables.section("Az", np.inf),
    )
    if tables.releases.any():
        local = released(local, tables.releases)
    if tables.tension_only.any():
        acting = np.where(tables.tension_only, _TENSION_ONLY[tables.frame.tension_only], 1.0)
        local, EA = local * acting[:, None, None], EA * acting
    turned = np.zeros((len(L), 12, 12))
    for end, node in enumerate((tables.i, tables.j)):
        by_axes = np.zeros((len(L), 6, 6))
        by_axes[:, :3, :3] = by_axes[:, 3:, 3:] = axes
        turned[:, 6 * end : 6 * end + 6, 6 * end : 6 * end + 6] = by_axes @ _end_maps(maps, node, tables.offsets[end])
    dofs = np.concatenate([equations.of_node[tables.i], equations.of_node[tables.j]], axis=1)
    return _Elements(local, L, turned, dofs, EA)


def _added_up(blocks: Array, dofs: Ints, size: int) -> sp.csc_array:
    """Blocks (m, d, d) added at their equations (m, d); -1 is excluded."""
    rows = np.broadcast_to(dofs[:, :, None], blocks.shape)
    columns = np.broadcast_to(dofs[:, None, :], blocks.shape)
    at = np.flatnonzero((rows >= 0) & (columns >= 0) & (blocks != 0))
    numbers = dofs.astype(np.int32)
    d = blocks.shape[1]
    total = sp.coo_array(
        (
            blocks.reshape(-1)[at],
            (np.repeat(numbers.reshape(-1), d)[at], np.repeat(numbers, d, axis=0).reshape(-1)[at]),
        ),
        shape=(size, size),
    )
    return total.tocsc()


def _spread(maps: Array, equations: _Equations) -> sp.csr_array:
    """(6 n_nodes, n): movements of every node from its equations."""
    n = len(maps)
    rows = np.broadcast_to(np.arange(6 * n).reshape(n, 6, 1), maps.shape)
    columns = np.broadcast_to(equations.of_node[:, None, :], maps.shape)
    keep = (columns >= 0) & (maps != 0)
    return sp.csr_array((maps[keep], (rows[keep], columns[keep])), shape=(6 * n, equations.count))


def _nodes_of(equations: _Equations) -> Ints:
    """A node that each equation belongs to, (n,)."""
    nodes = np.zeros(equations.count, dtype=np.int64)
    for dof in range(5, -1, -1):
        numbers = equations.of_node[:, dof]
        nodes[numbers[numbers >= 0]] = np.flatnonzero(numbers >= 0)
    return nodes


def _spring_blocks(tables: Tables, maps: Array) -> tuple[Array, Ints]:
    nodes = np.flatnonzero((tables.springs > 0).any(axis=1))
    entry = maps[nodes]
    return entry.transpose(0, 2, 1) @ (tables.springs[nodes][:, :, None] * entry), nodes


# The whole


def structure_of_frame(frame: Frame) -> Structure:
    """The frame's equations; raises InputRefused where they cannot be set up, with every reason."""
    return assembled(*read_tables(frame))


def read_tables(frame: Frame) -> tuple[Tables, list[Warning]]:
    """The frame as arrays, and what is to be said about them; raises InputRefused where that stops everything."""
    tables = tables_of(frame)
    warnings = about_tables(tables)
    stopping = [w for w in warnings if w.stops]
    if stopping:
        raise InputRefused([Problem(f"/frame{w.path}", f"{w.message}: {w.cause}", w.remedy) for w in stopping])
    return tables, warnings


def assembled(tables: Tables, warnings: list[Warning]) -> Structure:
    """The equations of tables that nothing stops."""
    return _Assembly(tables, warnings).structure()


class _Assembly:
    def __init__(self, tables: Tables, warnings: list[Warning]):
        self.tables, self.warnings = tables, warnings
        self.names, self.levels, self.rigid = _floor_levels(tables)
        self.sources = node_masses(tables)
        self.masses = np.asarray(sum(self.sources.values()))
        self.z = np.array([tables.at[nodes, 2].mean() for nodes in self.levels])
        self.rigid_floor_of = np.full(len(tables.at), -1)
        for k, nodes in enumerate(self.levels):
            if self.rigid[k]:
                self.rigid_floor_of[nodes] = k
        self.nearest = self._nearest_floor()
        self._spread_flexible_floors()
        if tables.frame.concentrate:
            self._concentrate()
        self.floors = self._floors()

    def _nearest_floor(self) -> Ints:
        """Floor that each node's mass is counted to.

        Its own, else the nearest in height, of several the nearest in plan.
        """
        at = self.tables.at
        nearest = np.full(len(at), -1)
        for k, nodes in enumerate(self.levels):
            nearest[nodes] = k
        lone = np.flatnonzero(nearest < 0)
        distance = np.abs(at[lone, 2, None] - self.z)
        middle = np.array([at[nodes, :2].mean(axis=0) for nodes in self.levels])
        plan = np.sqrt(((at[lone, None, :2] - middle) ** 2).sum(axis=2))
        nearest[lone] = np.argmin(np.round(distance / SAME_LEVEL) * 1e6 + plan, axis=1)
        return nearest

    def _spread_flexible_floors(self) -> None:
        """A mass given for a flexible floor goes to its nodes in equal parts."""
        entry = np.zeros_like(self.masses)
        for k in np.flatnonzero(~self.rigid):
            given = sum(f.mass for f in self.tables.frame.floors if f.diaphragm == self.names[k])
            entry[self.levels[k], :2] += given / len(self.levels[k])
        self.sources["floors"] = entry
        self.masses = self.masses + entry

    def _concentrate(self) -> None:
        """Horizontal mass of nodes between rigid floors goes to the nearest of them; its place in plan is kept."""
        lone = (self.rigid_floor_of < 0) & self.rigid[self.nearest] & ~self.tables.fixed[:, :2].all(axis=1)
        self.lifted = np.where(lone[:, None], self.masses, 0.0)
        self.lifted[:, 2] = 0.0
        self.masses = self.masses - self.lifted

    def _floors(self) -> Floors:
        """Floors with the mass that sits on them."""
        frame, at = self.tables.frame, self.tables.at
        lifted = self.lifted if frame.concentrate else np.zeros_like(self.masses)
        n = len(self.names)
        corners = _boxes(at, self.levels)
        # everything with mass in plan: nodes on the floors, what is lifted to them, what is given for the floors
        # themselves
        entry, extra = np.concatenate(self.levels), np.flatnonzero((lifted[:, :2] > 0).any(axis=1))
        of = [np.repeat(np.arange(n), [len(nodes) for nodes in self.levels]), self.nearest[extra]]
        points, m = [at[entry, :2], at[extra, :2]], [self.masses[entry], lifted[extra]]
        turning = [values[:, 3] for values in m]
        gravity, self.floor_own = np.zeros(n), np.zeros(n)
        place_of = {name: k for k, name in enumerate(self.names) if self.rigid[k]}
        for floor in frame.floors:
            k = place_of.get(floor.diaphragm)
            if k is None:
                continue
            middle, square = _outline(floor, corners[k])
            place = middle if floor.centre is None else np.array(floor.centre)
            inertia_own = floor.inertia
            if inertia_own is None:
                inertia_own = floor.mass * (square + float(((middle - place) ** 2).sum()))
            of.append(np.array([k]))
            points.append(place[None])
            m.append(np.full((1, 2), floor.mass))
            turning.append(np.array([inertia_own]))
            self.floor_own[k] += floor.mass
            gravity[k] += floor.gravity if floor.gravity is not None else floor.mass * GRAVITY
        at_floor, P, J = np.concatenate(of), np.concatenate(points), np.concatenate(turning)
        M = np.concatenate([values[:, :2] for values in m])
        mass = _summed(M, at_floor, n)
        # about this point the diaphragm's mass matrix is diagonal, also where mx and my differ
        weights = np.where(mass[at_floor, ::-1] > 0, M[:, ::-1], 1.0)
        centre = _summed(weights * P, at_floor, n) / _summed(weights, at_floor, n)
        arm = P - centre[at_floor]
        inertia = _summed(J + M[:, 0] * arm[:, 1] ** 2 + M[:, 1] * arm[:, 0] ** 2, at_floor, n)
        gravity += _summed((self.masses + lifted)[:, :2].mean(axis=1), self.nearest, n) * GRAVITY
        below = _below(self.z, corners.mean(axis=1))
        h = self.z - np.where(below >= 0, self.z[below], self.tables.base)
        return Floors(self.names, self.z, h, below, centre, mass, inertia, list(corners), gravity, self.rigid)

    def structure(self) -> Structure:
        tables, floors = self.tables, self.floors
        maps = _node_maps(tables, self.rigid_floor_of, floors.centre)
        equations = _numbered(tables, self.rigid_floor_of, len(floors))
        elements = _elements(tables, maps, equations)
        K = self._stiffness(elements, maps, equations)
        mass = self._diagonal(equations)
        # What has neither stiffness nor mass (a released rotation) is not a degree of freedom
        diagonal = K.diagonal()
        idle = (diagonal <= SINGULAR * np.abs(diagonal).max(initial=0.0)) & (mass <= 0)
        idle[equations.of_floor[equations.of_floor >= 0]] = False
        if idle.any():
            keep = np.flatnonzero(~idle)
            equations = equations.without(idle)
            K, mass = K[keep][:, keep].tocsc(), mass[keep]
            elements.dofs = np.concatenate([equations.of_node[tables.i], equations.of_node[tables.j]], axis=1)
        influence, axis = self._influence(equations, mass)
        dof_node = _nodes_of(equations)
        built = Structure(
            K=K,
            masses=mass,
            influence=influence,
            at_floors=self._at_floors(equations, mass),
            floor_of=self.nearest[dof_node],
            floors=floors,
            axis=axis,
            node_ids=[node.id for node in tables.frame.nodes],
            node_at=tables.at,
            make_spread=lambda: _spread(maps, equations),
            dof_node=dof_node,
            warnings=self.warnings,
            make_mass_table=self._by_floor_and_source,
        )
        if tables.frame.p_delta:
            built = self._with_second_order(built, elements, equations)
        built.warnings.extend(about_equations(tables, built, self.sources))
        return built

    def _stiffness(self, elements: _Elements, maps: Array, equations: _Equations) -> sp.csc_array:
        blocks = elements.taken_to_equations(elements.local)
        K = _added_up(blocks, elements.dofs, equations.count)
        if (self.tables.springs > 0).any():
            springs, nodes = _spring_blocks(self.tables, maps)
            K = K + _added_up(springs, equations.of_node[nodes], equations.count)
        return K.tocsc()

    def _diagonal(self, equations: _Equations) -> Array:
        mass = np.zeros(equations.count)
        free_nodes = self.rigid_floor_of < 0
        for column, dof in enumerate((0, 1, 2, 5)):
            numbers = equations.of_node[:, dof]
            use = (numbers >= 0) & (free_nodes if dof != 2 else True)
            np.add.at(mass, numbers[use], self.masses[use, column])
        for k in np.flatnonzero(self.rigid):
            mass[equations.of_floor[k]] = (*self.floors.mass[k], self.floors.inertia[k])
        return mass

    def _influence(self, equations: _Equations, mass: Array) -> tuple[Array, Array]:
        count = equations.count
        place = np.zeros((count, 2))
        r = np.zeros((count, 4))
        for dof, column in ((0, 0), (1, 1), (5, 2), (2, 3)):
            numbers = equations.of_node[:, dof]
            r[numbers[numbers >= 0], column] = 1.0
            place[numbers[numbers >= 0]] = self.tables.at[numbers >= 0, :2]
        for k in np.flatnonzero(self.rigid):
            place[equations.of_floor[k]] = self.floors.centre[k]
        mx, my = mass * r[:, 0], mass * r[:, 1]
        # as for a floor: the axis about which rotation does not couple with translation
        axis = np.array(
            [
                my @ place[:, 0] / my.sum() if my.any() else place[:, 0].mean(),
                mx @ place[:, 1] / mx.sum() if mx.any() else place[:, 1].mean(),
            ]
        )
        r[:, 2] += -r[:, 0] * (place[:, 1] - axis[1]) + r[:, 1] * (place[:, 0] - axis[0])
        return r, axis

    def _at_floors(self, equations: _Equations, mass: Array) -> sp.csc_array:
        """Of a rigid floor its own equations.

        Of a flexible one the mean movement and rotation of its nodes, by mass.
        """
        rows, columns, values = [], [], []
        for k in range(len(self.floors)):
            if self.rigid[k]:
                rows.append(equations.of_floor[k])
                columns.append(3 * k + np.arange(3))
                values.append(np.ones(3))
                continue
            nodes = self.levels[k]
            arm = self.tables.at[nodes, :2] - self.floors.centre[k]
            ways = []
            for c, sign in ((0, -1.0), (1, 1.0)):
                numbers = equations.of_node[nodes, c]
                free = numbers >= 0
                m = mass[numbers[free]]
                ways.append((numbers[free], m if m.any() else np.ones(len(m)), sign * arm[free, 1 - c]))
            polar = sum(float((m * lever**2).sum()) for _, m, lever in ways)
            for c, (numbers, m, lever) in enumerate(ways):
                if len(numbers):
                    rows += [numbers, numbers]
                    columns += [np.full(len(numbers), 3 * k + c), np.full(len(numbers), 3 * k + 2)]
                    values += [m / m.sum(), m * lever / polar if polar > 0 else np.zeros(len(m))]
        shape = (equations.count, 3 * len(self.floors))
        return sp.csc_array((np.concatenate(values), (np.concatenate(rows), np.concatenate(columns))), shape=shape)

    def _with_second_order(self, built: Structure, elements: _Elements, equations: _Equations) -> Structure:
        """Stiffness less what gravity takes.

        Of stories on rigid floors by their loads, of other members by their thrust.
        """
        K = built.K
        if self.rigid.any():
            # What is on flexible floors comes down through the members all the way, below
            leaning = replace(self.floors, gravity=np.where(self.rigid, self.floors.gravity, 0.0))
            K = K + leaning_columns(leaning, equations.of_floor, equations.count)
        if not self.rigid.all():
            loads = np.zeros(equations.count)
            numbers = equations.of_node[:, 2]
            unmatched = ~self.rigid[self.nearest] & (numbers >= 0)
            loads[numbers[unmatched]] = -GRAVITY * self.masses[unmatched, :2].mean(axis=1)
            if loads.any():
                try:
                    u = built.factor.solve(loads)
                except NotStable:
                    # a mechanism without any gravity; anyone who factorises the stiffness finds it and says where
                    return built
                padded = np.append(u, 0.0)
                local = np.einsum("mij,mj->mi", elements.maps, padded[elements.dofs])
                N = elements.EA / elements.length * (local[:, 6] - local[:, 0])
                K = K + _added_up(
                    elements.taken_to_equations(chord_stiffness(N, elements.length)), elements.dofs, equations.count
                )
        return replace(built, K=K.tocsc())

    def _by_floor_and_source(self) -> list[dict[str, object]]:
        """Mass by floor and source, t: what is on it and what is between, at the nearest floor."""
        moving = ~self.tables.fixed[:, :2].all(axis=1)
        n = len(self.names)
        by_source: dict[str, Array] = {
            source: np.asarray(np.bincount(self.nearest[moving], values[moving, :2].mean(axis=1), n), dtype=float)
            for source, values in self.sources.items()
        }
        by_source["floors"] = by_source["floors"] + self.floor_own
        return [
            {
                "floor": name,
                **{source: float(by_source[source][k]) for source in SOURCES},
                "total": float(sum(by_source[source][k] for source in SOURCES)),
                "inertia": float(self.floors.inertia[k]),
                "centre": self.floors.centre[k].tolist(),
            }
            for k, name in enumerate(self.names)
        ]
