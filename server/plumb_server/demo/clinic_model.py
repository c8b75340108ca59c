"""The Port Maren Clinic in the reference model, both depths, and the modes that its submission states.

Seven lines of columns along X by four along Y, walls in X in the middle bay of the two outer lines, moment frames in Y.
It is set in the Hesper Isles.
"""

from __future__ import annotations

import copy
import math
from functools import cache
from typing import Any

from plumb_core.answers.reference_model import request_to
from plumb_core.documents.brief import Brief
from plumb_core.documents.model import ReferenceModel
from plumb_core.documents.reading import read
from plumb_core.solve import solve

from plumb_server.demo.buildings import CLINIC_BRIEF

X, Y = [6.0 * i for i in range(7)], [7.5 * j for j in range(4)]
STORIES = CLINIC_BRIEF["stories"]
WALL_BAYS = ((2, 0), (3, 0), (2, 3), (3, 3))
"""Bays along X (bay, line along Y) with a wall in their middle."""
OMITTED_MASS = ("L6", 0.55)
"""The story whose mass the submission's analysis has only in part, and that part."""
STATED_MODES = 5

_WALL_LINES = [4.15e5, 3.6e5, 3.2e5, 2.8e5, 2.5e5, 2.2e5, 1.9e5, 1.6e5]
_FRAME_LINES = [3.4e4, 3.5e4, 3.4e4, 3.4e4, 3.3e4, 3.1e4, 2.9e4, 2.6e4]


def lateral_lines() -> list[dict[str, Any]]:
    """Walls along X on the two outer lines, seven frames along Y; stiffness by story, kN/m."""
    lines = []
    for story in range(len(STORIES)):
        lines += [
            {"story": story, "at": [18.0, y], "angle": 0.0, "stiffness": _WALL_LINES[story], "name": f"wall {y:g}"}
            for y in (Y[0], Y[-1])
        ]
        for k, x in enumerate(X):
            lines.append(
                {
                    "story": story,
                    "at": [x, 11.25],
                    "angle": 90.0,
                    "stiffness": _FRAME_LINES[story],
                    "name": f"frame {k + 1}",
                }
            )
    return lines


def frame() -> dict[str, Any]:
    """The three-dimensional frame: columns, beams, walls as wide columns, rigid floors with the brief's weights."""
    z = [0.0]
    for story in STORIES:
        z.append(z[-1] + story["height"])
    nodes, members, supports, diaphragms, floors = [], [], [], [], []
    fixed = ["ux", "uy", "uz", "rx", "ry", "rz"]
    for k, level in enumerate(z):
        here = {f"{i}{j}-{k}": [x, y, level] for i, x in enumerate(X) for j, y in enumerate(Y)}
        here |= {f"w{b}{j}-{k}": [(X[b] + X[b + 1]) / 2, Y[j], level] for b, j in WALL_BAYS}
        nodes += [{"id": name, "at": at} for name, at in here.items()]
        if k == 0:
            supports += [{"node": name, "fixed": fixed} for name in here]
            continue

        def add(name: str, i: str, j: str, section: str, group: str, k: int = k) -> None:
            members.append({"id": f"{name}-{k}", "i": i, "j": j, "section": section, "material": "C40", "group": group})

        for name in here:
            stem = name.split("-")[0]
            wall = stem.startswith("w")
            add(
                f"{'wall' if wall else 'col'} {stem}",
                f"{stem}-{k - 1}",
                name,
                "wall" if wall else "column",
                "walls" if wall else "columns",
            )
        for j in range(len(Y)):
            for i in range(len(X) - 1):
                if (i, j) in WALL_BAYS:
                    add(f"bx {i}{j} a", f"{i}{j}-{k}", f"w{i}{j}-{k}", "beam X", "beams")
                    add(f"bx {i}{j} b", f"w{i}{j}-{k}", f"{i + 1}{j}-{k}", "beam X", "beams")
                else:
                    add(f"bx {i}{j}", f"{i}{j}-{k}", f"{i + 1}{j}-{k}", "beam X", "beams")
        for i in range(len(X)):
            for j in range(len(Y) - 1):
                add(f"by {i}{j}", f"{i}{j}-{k}", f"{i}{j + 1}-{k}", "beam Y", "beams")
        story = STORIES[k - 1]["name"]
        diaphragms.append({"id": story, "nodes": list(here)})
        floors.append(
            {
                "diaphragm": story,
                "mass": round(STORIES[k - 1]["weight"] / 9.80665, 2),
                "centre": [18.0, 11.25],
                "outline": [[0.0, 0.0], [36.0, 0.0], [36.0, 22.5], [0.0, 22.5]],
            }
        )
    return {
        "nodes": nodes,
        "materials": [{"id": "C40", "E": 3.0e7, "nu": 0.2, "density": 2.5}],
        "sections": [
            {"id": "column", "A": 0.4225, "Iy": 0.014876, "Iz": 0.014876, "J": 0.0251, "Ay": 0.352, "Az": 0.352},
            {"id": "beam X", "A": 0.15, "Iy": 0.003125, "Iz": 0.001125, "J": 0.0028, "Ay": 0.125, "Az": 0.125},
            {"id": "beam Y", "A": 0.245, "Iy": 0.01000, "Iz": 0.00250, "J": 0.0069, "Ay": 0.204, "Az": 0.204},
            {"id": "wall", "A": 1.925, "Iy": 4.8526, "Iz": 0.01965, "J": 0.0750, "Ay": 1.604, "Az": 1.604},
        ],
        "members": members,
        "supports": supports,
        "diaphragms": diaphragms,
        "floors": floors,
        "stiffness_factors": {
            "columns": {"Iy": 0.7, "Iz": 0.7},
            "beams": {"Iy": 0.35, "Iz": 0.35, "J": 0.35},
            "walls": {"Iy": 0.5, "Iz": 0.5},
        },
    }


def clinic_model() -> dict[str, Any]:
    """The reviewer's reference model of the clinic: lateral lines and frame; the frame answers."""
    return {
        "use": "frame",
        "lateral_lines": lateral_lines(),
        "floors": [{"name": s["name"], "centre": [18.0, 11.25]} for s in STORIES],
        "frame": frame(),
        "analysis": {"modes": 18, "eccentricity": 0.05},
    }


@cache
def submitted_modes() -> dict[str, Any]:
    """Modes of the submitter's model: part of the mass of one story excluded.

    Its axes are exchanged when it is written.
    """
    theirs = copy.deepcopy(clinic_model())
    for floor in theirs["frame"]["floors"]:
        if floor["diaphragm"] == OMITTED_MASS[0]:
            floor["mass"] = round(floor["mass"] * OMITTED_MASS[1], 2)
    return solve(request_to("modal", read(Brief, CLINIC_BRIEF), read(ReferenceModel, theirs)))


def submitted_drifts(forces: dict[str, list[float]]) -> dict[tuple[str, str], list[list[float]]]:
    """Drifts of both ends of the stories on the submitter's model, m, by direction and side.

    Under story forces in kN.
    """
    request = request_to("static_response", read(Brief, CLINIC_BRIEF), read(ReferenceModel, clinic_model()))
    answer = solve(request | {"forces": forces})
    sides = {1: "+", -1: "-"}
    return {
        (case["direction"], sides[int(math.copysign(1, case["eccentricity"]))]): [
            [abs(v) for v in row["edges"][case["direction"]]["drift"]] for row in case["stories"]
        ]
        for case in answer["cases"]
        if case["eccentricity"]
    }
