"""Lateral lines on rigid diaphragms: three degrees of freedom a floor (X, Y, RZ at its centre of mass)."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import scipy.sparse as sp

from plumb_core.constants import GRAVITY
from plumb_core.documents.brief import Story
from plumb_core.documents.model import LateralLine
from plumb_core.dynamics.floors import leaning_columns, outline_properties
from plumb_core.dynamics.structure import Array, Floors, Structure, Warning
from plumb_core.errors import InputRefused, Problem


def _floor(story: Story) -> tuple[float | None, float | None, Array | None, Array | None]:
    """(mass, inertia about the centre, centre, corners) of a story's floor; None for what cannot be stated."""
    mass = story.mass if story.mass is not None else None if story.weight is None else story.weight / GRAVITY
    corners = None if story.corners is None else np.array(story.corners)
    centre = None if story.centre is None else np.array(story.centre)
    if corners is None and story.plan is not None:
        half = np.array(story.plan) / 2.0
        middle = np.zeros(2) if centre is None else centre
        corners = middle + half * np.array([(-1, -1), (1, -1), (1, 1), (-1, 1)])
    inertia = story.inertia
    if corners is not None:
        entry, square = outline_properties(corners)
        if centre is None:
            centre = entry
        if inertia is None and mass is not None:
            # a uniform plan; with a centre of mass elsewhere, its inertia about that point
            inertia = mass * (square + float(np.sum((entry - centre) ** 2)))
    return mass, inertia, centre, corners


def floors_of(stories: Sequence[Story]) -> Floors:
    """Floors of a table of stories; raises InputRefused naming every story with missing values."""
    floors = [_floor(s) for s in stories]
    problems = []
    for i, (mass, inertia, centre, _) in enumerate(floors):
        if mass is None:
            problems.append(
                Problem(f"/stories/{i}/mass", "the mass of the floor is not given", "Give mass in t, or weight in kN.")
            )
        if inertia is None and mass is not None:
            problems.append(
                Problem(
                    f"/stories/{i}/inertia",
                    "the rotational inertia of the floor is not given",
                    "Give inertia in t m2, or the plan or corners it follows from.",
                )
            )
        if centre is None:
            problems.append(
                Problem(
                    f"/stories/{i}/centre", "the centre of mass is not given", "Give centre as [x, y], or the corners."
                )
            )
    if problems:
        raise InputRefused(problems)
    masses = np.array([f[0] for f in floors], dtype=float)
    h = np.array([s.height for s in stories])
    centre = np.array([f[2] for f in floors])
    return Floors(
        names=[s.name for s in stories],
        z=np.cumsum(h),
        h=h,
        below=np.arange(len(stories)) - 1,
        centre=centre,
        mass=np.stack([masses, masses], axis=1),
        inertia=np.array([f[1] for f in floors], dtype=float),
        corners=[centre[i : i + 1] if f[3] is None else f[3] for i, f in enumerate(floors)],
        gravity=np.array(
            [s.gravity if s.gravity is not None else m * GRAVITY for s, m in zip(stories, masses, strict=True)]
        ),
        rigid=np.ones(len(stories), dtype=bool),
    )


def _shears(floors: Floors, story: Array, at: Array, direction: Array, stiffness: Array) -> sp.csc_array:
    """Stiffness of shear-type elements between consecutive floors, (3n, 3n)."""
    story = story.astype(int)

    def row(floor: Array) -> Array:
        arm = at - floors.centre[floor]
        return np.stack(
            [direction[:, 0], direction[:, 1], arm[:, 0] * direction[:, 1] - arm[:, 1] * direction[:, 0]], axis=1
        )

    below = story - 1
    b = np.concatenate([row(story), -row(np.maximum(below, 0)) * (below >= 0)[:, None]], axis=1)
    dofs = np.concatenate([3 * story[:, None] + np.arange(3), 3 * np.maximum(below, 0)[:, None] + np.arange(3)], axis=1)
    values = stiffness[:, None, None] * b[:, :, None] * b[:, None, :]
    rows = np.broadcast_to(dofs[:, :, None], values.shape)
    columns = np.broadcast_to(dofs[:, None, :], values.shape)
    size = 3 * len(floors)
    return sp.coo_array((values.ravel(), (rows.ravel(), columns.ravel())), shape=(size, size)).tocsc()


def structure_of_lines(stories: Sequence[Story], lines: Sequence[LateralLine], p_delta: bool = False) -> Structure:
    """The model of lateral lines.

    Raises InputRefused for lines of stories that do not exist or floors with missing values.
    """
    problems = [
        Problem(
            f"/lateral_lines/{i}/story",
            f"there is no story {line.story}: the topmost is {len(stories) - 1}",
            "Count the stories from 0 at the bottom.",
        )
        for i, line in enumerate(lines)
        if line.story >= len(stories)
    ]
    if problems:
        raise InputRefused(problems)
    floors = floors_of(stories)
    n = len(floors)
    angle = np.radians([line.angle for line in lines])
    # the sine and cosine of right angles are exact, so that lines along X do not act in Y by rounding
    direction = np.where(np.abs(v := np.stack([np.cos(angle), np.sin(angle)], axis=1)) < 1e-12, 0.0, v)
    at = np.array([line.at for line in lines])
    story = np.array([line.story for line in lines])
    stiffness = np.array([line.stiffness for line in lines])
    K = _shears(floors, story, at, direction, stiffness)
    if p_delta:
        K = (K + leaning_columns(floors, 3 * np.arange(n)[:, None] + np.arange(3), 3 * n)).tocsc()
    mass = np.column_stack([floors.mass, floors.inertia]).ravel()
    axis = floors.mass[:, 0] @ floors.centre / floors.mass[:, 0].sum()
    influence = np.zeros((3 * n, 4))
    influence[0::3, 0] = influence[1::3, 1] = influence[2::3, 2] = 1.0
    influence[0::3, 2] = -(floors.centre[:, 1] - axis[1])
    influence[1::3, 2] = floors.centre[:, 0] - axis[0]
    spread = sp.csr_array(
        (np.ones(3 * n), ((6 * np.arange(n)[:, None] + (0, 1, 5)).ravel(), np.arange(3 * n))), shape=(6 * n, 3 * n)
    )
    return Structure(
        K=K,
        masses=mass,
        influence=influence,
        at_floors=sp.csc_array(sp.eye_array(3 * n)),
        floor_of=np.repeat(np.arange(n), 3),
        floors=floors,
        axis=axis,
        node_ids=floors.names,
        node_at=np.column_stack([floors.centre, floors.z]),
        make_spread=lambda: spread,
        dof_node=np.repeat(np.arange(n), 3),
        warnings=_line_warnings(floors, story, at, direction, stiffness),
        make_mass_table=lambda: [
            {"floor": name, "stories": m, "total": m, "inertia": j, "centre": c.tolist()}
            for name, m, j, c in zip(floors.names, floors.mass[:, 0], floors.inertia, floors.centre, strict=True)
        ],
    )


def _line_warnings(floors: Floors, story: Array, at: Array, direction: Array, stiffness: Array) -> list[Warning]:
    warnings = []
    for i, name in enumerate(floors.names):
        mine = story == i
        # stiffness of the story about the centre of mass, X Y RZ, scaled so that translations and rotation compare
        arm = at[mine] - floors.centre[i]
        radius = max(float(np.sqrt(floors.inertia[i] / floors.mass[i, 0])), 1e-9)
        b = np.column_stack(
            [direction[mine], (arm[:, 0] * direction[mine, 1] - arm[:, 1] * direction[mine, 0]) / radius]
        )
        k = (b * stiffness[mine, None]).T @ b
        values, vectors = np.linalg.eigh(k) if mine.any() else (np.zeros(3), np.eye(3))
        if values[0] <= 1e-12 * max(values[-1], 1e-300):
            weak = np.abs(vectors[:, 0])
            way = ("in X", "in Y", "against twisting")[int(np.argmax(weak))]
            warnings.append(
                Warning(
                    "mechanism",
                    f"story {name} has no stiffness {way}",
                    "its lateral lines do not resist that movement",
                    f"Add lateral lines that resist it {way}.",
                    f"/stories/{i}",
                    True,
                    (name,),
                )
            )
    if not warnings:
        sums = np.array([stiffness[story == i].sum() for i in range(len(floors))])
        for i in range(1, len(floors)):
            ratio = sums[i] / sums[i - 1]
            if not 1e-3 < ratio < 1e3:
                warnings.append(
                    Warning(
                        "stiffness_jump",
                        f"story {floors.names[i]} is {ratio:.2g} times as stiff as the story below",
                        "the sums of the line stiffnesses differ by more than a thousand",
                        "Check the unit of the stiffness of these lines (kN/m).",
                        f"/stories/{i}",
                        False,
                        (floors.names[i],),
                    )
                )
    return warnings
