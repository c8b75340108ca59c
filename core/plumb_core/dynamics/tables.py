"""The tables of a frame as arrays."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from plumb_core.documents.model import Frame
from plumb_core.dynamics.members import DOFS
from plumb_core.dynamics.structure import Array, Ints

Flags = npt.NDArray[np.bool_]


@dataclass
class Tables:
    """A frame as arrays; n nodes, m members.

    at : (n, 3) m.  i, j : node of each end (m,).  ends : flexible ends (2, m, 3) m.  offsets : node to end (2, m, 3) m.
    rigid_of : rigid diaphragm of each node, -1 for none (n,).  floor_nodes : nodes of each diaphragm.
    roll : degrees (m,).  line_mass : t/m (m,).  tension_only : (m,).  releases : of local forces at i, then at j (m,
        12).
    group : index of each member's group in `groups` (m,).
    """

    frame: Frame
    at: Array
    i: Ints
    j: Ints
    offsets: Array
    fixed: Flags
    springs: Array
    rigid_of: Ints
    floor_nodes: list[Ints]
    roll: Array
    line_mass: Array
    tension_only: Flags
    releases: Flags
    group: Ints
    groups: list[str]

    @cached_property
    def ends(self) -> Array:
        """Indices of the end nodes of the members, shape (n, 2)."""
        return np.stack([self.at[self.i], self.at[self.j]]) + self.offsets

    @cached_property
    def chord(self) -> Array:
        """Vectors from the first to the second end, m, shape (n, 3)."""
        return np.asarray(self.ends[1] - self.ends[0])

    @cached_property
    def length(self) -> Array:
        """Lengths of the members, m, shape (n,)."""
        return np.asarray(np.linalg.norm(self.chord, axis=1))

    def section(self, name: str, fill: float = np.nan) -> Array:
        """A value of each member's section, shape (m,); `fill` where it is not given."""
        values = [fill if (v := getattr(s, name)) is None else v for s in self.frame.sections]
        return np.array(values, dtype=float)[self._section_of]

    def material(self, name: str, fill: float = np.nan) -> Array:
        """Return a property of the materials of the members, shape (n,)."""
        values = [fill if (v := getattr(s, name)) is None else v for s in self.frame.materials]
        return np.array(values, dtype=float)[self._material_of]

    @cached_property
    def _section_of(self) -> Ints:
        place = {s.id: k for k, s in enumerate(self.frame.sections)}
        return np.array([place[m.section] for m in self.frame.members])

    @cached_property
    def _material_of(self) -> Ints:
        place = {s.id: k for k, s in enumerate(self.frame.materials)}
        return np.array([place[m.material] for m in self.frame.members])

    @cached_property
    def base(self) -> float:
        """Elevation of the lowest support, m."""
        return float(self.at[self.supported, 2].min() if self.supported.any() else self.at[:, 2].min())

    @cached_property
    def supported(self) -> Flags:
        """Nodes that are fixed or sprung in any way, (n,)."""
        return np.asarray(self.fixed.any(axis=1) | (self.springs > 0).any(axis=1))


def tables_of(frame: Frame) -> Tables:
    """The frame as arrays; references are those of a frame that `problems_of_frame` finds nothing in."""
    place = {node.id: k for k, node in enumerate(frame.nodes)}
    at = np.array([node.at for node in frame.nodes])
    m = len(frame.members)
    offsets = np.zeros((2, m, 3))
    for end, name in enumerate(("offset_i", "offset_j")):
        given = [(k, o) for k, member in enumerate(frame.members) if (o := getattr(member, name)) is not None]
        if given:
            offsets[end, [k for k, _ in given]] = [o for _, o in given]
    fixed = np.zeros((len(at), 6), dtype=bool)
    springs = np.zeros((len(at), 6))
    for support in frame.supports:
        node = place[support.node]
        fixed[node, [DOFS.index(d) for d in support.fixed]] = True
        if support.springs is not None:
            springs[node] += [getattr(support.springs, d) or 0.0 for d in DOFS]
    floor_nodes = [np.array([place[n] for n in d.nodes]) for d in frame.diaphragms]
    rigid_of = np.full(len(at), -1)
    for k, (diaphragm, nodes) in enumerate(zip(frame.diaphragms, floor_nodes, strict=True)):
        if diaphragm.rigid:
            rigid_of[nodes] = k
    groups = sorted({x.group for x in frame.members})
    number = {name: k for k, name in enumerate(groups)}
    return Tables(
        frame,
        at,
        np.array([place[x.i] for x in frame.members]),
        np.array([place[x.j] for x in frame.members]),
        offsets,
        fixed,
        springs,
        rigid_of,
        floor_nodes,
        roll=np.array([x.roll for x in frame.members]),
        line_mass=np.array([x.line_mass for x in frame.members]),
        tension_only=np.array([x.axial == "tension_only" for x in frame.members]),
        releases=_releases(frame),
        group=np.array([number[x.group] for x in frame.members]),
        groups=groups,
    )


def _releases(frame: Frame) -> Flags:
    flags = np.zeros((len(frame.members), 12), dtype=bool)
    for k, member in enumerate(frame.members):
        if member.release_i or member.release_j:
            flags[k, [DOFS.index(d) for d in member.release_i]] = True
            flags[k, [6 + DOFS.index(d) for d in member.release_j]] = True
    return flags
