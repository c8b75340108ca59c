"""Warnings that a careful analyst would give about a frame, each with its cause and its remedy."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

import numpy as np
import scipy.sparse as sp
from scipy.sparse.csgraph import connected_components

from plumb_core.constants import GRAVITY
from plumb_core.dynamics.structure import Array, Ints, Structure, Warning
from plumb_core.dynamics.tables import Tables

NEAR = 1e-3
"""m, within which two nodes are at the same place."""
FEW = 12
"""Ids named in a warning; the count states how many more there are."""


def _names(ids: Iterable[str]) -> str:
    listed = list(ids)
    return ", ".join(listed[:FEW]) + (f" and {len(listed) - FEW} more" if len(listed) > FEW else "")


def about_tables(tables: Tables) -> list[Warning]:
    """What shows before anything is computed."""
    return [
        w
        for look in (
            _zero_length,
            _coincident,
            _duplicates,
            _unsupported,
            _unconnected_nodes,
            _floors,
            _one_plane,
            _tension_only,
            _member_ends,
        )
        for w in look(tables)
    ]


def _zero_length(tables: Tables) -> Iterable[Warning]:
    for k in np.flatnonzero(tables.length < NEAR):
        member = tables.frame.members[k]
        yield Warning(
            "zero_length",
            f"member {member.id} has no length",
            f"its ends {member.i} and {member.j} are at one place",
            "Remove the member, or move a node.",
            f"/members/{k}",
            True,
            (member.i, member.j),
            (member.id,),
        )


def _coincident(tables: Tables) -> Iterable[Warning]:
    keys = np.round(tables.at / NEAR).astype(np.int64)
    _, which, counts = np.unique(keys, axis=0, return_inverse=True, return_counts=True)
    which = which.ravel()
    for group in np.flatnonzero(counts > 1)[:FEW]:
        ids = tuple(tables.frame.nodes[k].id for k in np.flatnonzero(which == group))
        yield Warning(
            "coincident_nodes",
            f"nodes {_names(ids)} are at one place",
            "members that end in different ones are not connected",
            "Use one node, unless the gap is meant.",
            f"/nodes/{int(np.flatnonzero(which == group)[1])}",
            False,
            ids,
        )


def _duplicates(tables: Tables) -> Iterable[Warning]:
    pairs = np.sort(np.stack([tables.i, tables.j], axis=1), axis=1)
    _, which, counts = np.unique(pairs, axis=0, return_inverse=True, return_counts=True)
    which = which.ravel()
    for group in np.flatnonzero(counts > 1)[:FEW]:
        at = np.flatnonzero(which == group)
        ids = tuple(tables.frame.members[k].id for k in at)
        yield Warning(
            "duplicate_members",
            f"members {_names(ids)} join the same two nodes",
            "their stiffness and mass count twice",
            "Remove all but one, unless they are meant side by side.",
            f"/members/{at[1]}",
            False,
            (),
            ids,
        )


def _links(tables: Tables) -> tuple[int, Ints]:
    """Number of connected parts and the part of each node; rigid diaphragms connect."""
    n = len(tables.at)
    a, b = [tables.i], [tables.j]
    for diaphragm, nodes in zip(tables.frame.diaphragms, tables.floor_nodes, strict=True):
        if diaphragm.rigid:
            a.append(np.full(len(nodes), nodes[0]))
            b.append(nodes)
    i, j = np.concatenate(a), np.concatenate(b)
    count, part = connected_components(sp.coo_array((np.ones(len(i)), (i, j)), shape=(n, n)), directed=False)
    return count, part


def _unsupported(tables: Tables) -> Iterable[Warning]:
    count, part = _links(tables)
    supported = tables.supported
    joined = np.bincount(np.concatenate([tables.i, tables.j]), minlength=len(tables.at)) > 0
    if not supported.any():
        yield Warning(
            "no_supports",
            "nothing is supported",
            "the table of supports is empty or fixes nothing",
            "Give the supports of the columns and walls at the base.",
            "/supports",
            True,
        )
        return
    for p in range(count):
        mine = part == p
        if joined[mine].any() and not supported[mine].any():
            ids = tuple(tables.frame.nodes[k].id for k in np.flatnonzero(mine))
            yield Warning(
                "unsupported",
                f"a part of the frame is not supported: nodes {_names(ids)}",
                "no member leads from it to a support",
                "Connect it, support it, or remove it.",
                f"/nodes/{int(np.flatnonzero(mine)[0])}",
                True,
                ids,
            )


def _unconnected_nodes(tables: Tables) -> Iterable[Warning]:
    n = len(tables.at)
    joined = np.bincount(np.concatenate([tables.i, tables.j]), minlength=n) > 0
    stored = joined | (tables.springs > 0).any(axis=1) | (tables.rigid_of >= 0) | tables.fixed.all(axis=1)
    place = {node.id: k for k, node in enumerate(tables.frame.nodes)}
    massive = np.zeros(n, dtype=bool)
    massive[[place[m.node] for m in tables.frame.masses if m.mx + m.my + m.mz > 0]] = True
    heavy = tuple(tables.frame.nodes[k].id for k in np.flatnonzero(~stored & massive))
    if heavy:
        yield Warning(
            "mass_without_stiffness",
            f"nodes {_names(heavy)} have mass but no stiffness",
            "no member ends there",
            "Connect them, put them into a diaphragm, or take their mass to another node.",
            "/masses",
            True,
            heavy,
        )
    idle = tuple(tables.frame.nodes[k].id for k in np.flatnonzero(~stored & ~massive))
    if idle:
        yield Warning(
            "loose_node",
            f"nodes {_names(idle)} have neither stiffness nor mass",
            "no member ends there; they are excluded",
            "Remove them, or connect them.",
            f"/nodes/{place[idle[0]]}",
            False,
            idle,
        )


def _floors(tables: Tables) -> Iterable[Warning]:
    frame = tables.frame
    for k, (diaphragm, nodes) in enumerate(zip(frame.diaphragms, tables.floor_nodes, strict=True)):
        if not diaphragm.rigid:
            continue
        fixed = nodes[tables.fixed[nodes][:, (0, 1, 5)].any(axis=1)]
        if len(fixed):
            ids = tuple(frame.nodes[n].id for n in fixed)
            yield Warning(
                "diaphragm_supported",
                f"nodes {_names(ids)} of diaphragm {diaphragm.id} are supported horizontally",
                "a rigid floor cannot move if one of its nodes is supported",
                "Remove these nodes from the diaphragm, or remove the diaphragm.",
                f"/diaphragms/{k}/nodes",
                True,
                ids,
            )
        height = np.ptp(tables.at[nodes, 2])
        if height > 0.5:
            yield Warning(
                "diaphragm_not_level",
                f"the nodes of diaphragm {diaphragm.id} are up to {height:.3g} m apart in height",
                "a rigid diaphragm moves in its own plane only",
                "Check the nodes of this floor.",
                f"/diaphragms/{k}/nodes",
                False,
                tuple(frame.nodes[n].id for n in nodes),
            )
    in_floor = np.zeros(len(tables.at), dtype=bool)
    for nodes in tables.floor_nodes:
        in_floor[nodes] = True
    # a level is a floor where members lie flat in it
    flat = np.abs(tables.chord[:, 2]) < 1e-3 * np.maximum(tables.length, 1e-12)
    beam_nodes = np.unique(np.concatenate([tables.i[flat], tables.j[flat]])) if flat.any() else np.zeros(0, dtype=int)
    bare = beam_nodes[~in_floor[beam_nodes] & (tables.at[beam_nodes, 2] > tables.base + 0.05)]
    levels: dict[float, list[int]] = {}
    for n in bare:
        levels.setdefault(round(float(tables.at[n, 2]), 1), []).append(int(n))
    for z, nodes_here in sorted(levels.items()):
        if len(nodes_here) >= 3:
            yield Warning(
                "no_diaphragm",
                f"the floor at {z:g} m has no diaphragm",
                "its nodes move independently; story values are averages",
                "Give a diaphragm for this floor; rigid: false says that it is meant to be flexible.",
                "/diaphragms",
                False,
                tuple(frame.nodes[n].id for n in nodes_here),
            )


def _one_plane(tables: Tables) -> Iterable[Warning]:
    at = tables.at[:, :2] - tables.at[:, :2].mean(axis=0)
    spread = np.linalg.svd(at, compute_uv=False) / np.sqrt(len(at))
    if spread[-1] < 1e-3 and spread[0] > 1e-3:
        yield Warning(
            "one_plane",
            "all nodes lie in one vertical plane",
            "a plane frame does not cover the other direction or torsion",
            "Model the building in 3D, or assess one direction only.",
            "/nodes",
        )


def _tension_only(tables: Tables) -> Iterable[Warning]:
    ids = tuple(m.id for m in tables.frame.members if m.axial == "tension_only")
    if ids:
        how, what = {
            "half": (
                "have half their stiffness, in tension and compression",
                "right for pairs of diagonals; a single one is too soft",
            ),
            "both": (
                "have their full stiffness in tension and compression",
                "pairs of diagonals are twice as stiff as in reality",
            ),
            "none": ("are excluded", "the frame is softer than with them"),
        }[tables.frame.tension_only]
        yield Warning(
            "tension_only",
            f"tension-only members ({len(ids)}) {how}",
            f"a linear analysis cannot switch members off; {what}",
            "Choose half, both or none to fit how they are arranged.",
            "/tension_only",
            False,
            (),
            ids,
        )


def _member_ends(tables: Tables) -> Iterable[Warning]:
    for k, member in enumerate(tables.frame.members):
        free_at_both = set(member.release_i) & set(member.release_j)
        if free_at_both & {"ux", "uy", "uz", "rx"}:
            yield Warning(
                "released_both_ends",
                (
                    f"member {member.id} is released in "
                    f"{', '.join(sorted(free_at_both & {'ux', 'uy', 'uz', 'rx'}))} at both ends"
                ),
                "it turns or slides freely and transfers no force in this way",
                "Release one end only.",
                f"/members/{k}",
                False,
                (),
                (member.id,),
            )


def about_equations(tables: Tables, built: Structure, sources: Mapping[str, Array]) -> list[Warning]:
    """What shows once stiffness and mass are there."""
    warnings = []
    diagonal = built.K.diagonal()
    positive = diagonal[diagonal > 0]
    if len(positive):
        L2 = np.square(np.maximum(tables.length, 1e-9))
        bending = tables.material("E") * np.maximum(tables.section("Iy"), tables.section("Iz")) / (L2 * tables.length)
        usual = bending[bending > 0]
        if len(usual) and usual.max() / np.median(usual) > 1e6:
            k = int(np.argmax(bending))
            member = tables.frame.members[k]
            warnings.append(
                Warning(
                    "stiffness_range",
                    f"member {member.id} is {usual.max() / np.median(usual):.1g} times as stiff as the usual one",
                    "sections, materials or lengths in different units, or a very short member",
                    "Check section, material and length; use offsets for rigid ends.",
                    f"/members/{k}",
                    False,
                    (),
                    (member.id,),
                )
            )
    if not built.masses.any():
        warnings.append(
            Warning(
                "no_mass",
                "nothing has mass",
                "no floors, masses or densities are given",
                "Give the mass of the floors, or member_mass with densities.",
                "/floors",
                True,
            )
        )
    counted = sources["members"][:, 0].sum()
    floor_sum = sum(f.mass for f in tables.frame.floors)
    if counted > 0 and floor_sum > 0:
        warnings.append(
            Warning(
                "members_beside_floors",
                f"members add {counted:.4g} t to the {floor_sum:.4g} t given for the floors",
                "the mass of a floor often includes its beams and columns",
                "Switch member_mass off if the floor masses include the members.",
                "/member_mass",
            )
        )
    return warnings


def about_weights(built: Structure, weights: Mapping[str, float]) -> list[Warning]:
    """Floors whose mass is not that of the static method: weights (kN) by floor name."""
    warnings = []
    for k, name in enumerate(built.floors.names):
        if name in weights:
            modal = float(built.floors.mass[k].mean()) * GRAVITY
            if abs(modal - weights[name]) > 0.02 * weights[name]:
                warnings.append(
                    Warning(
                        "weight_differs",
                        f"floor {name} weighs {modal:.5g} kN in the model, {weights[name]:.5g} kN in the static method",
                        "mass is missing, counted twice, or in another unit",
                        "Compare the make-up of both.",
                        f"/floors/{k}",
                    )
                )
    return warnings
