"""Models that several tests of the dynamics start from."""

from __future__ import annotations

from typing import Any

import pytest
from plumb_core.errors import InputRefused
from plumb_core.solve import solve

SQUARE = [[-9.0, -6.0], [9.0, -6.0], [9.0, 6.0], [-9.0, 6.0]]


def shear_building(count: int, stiffness: float = 80_000.0, mass: float = 120.0, half: float = 5.0) -> dict[str, Any]:
    """Uniform, symmetric: two lines each way at `half` from the middle; each story has `stiffness` in X and in Y."""
    stories = [
        {
            "name": f"L{i + 1}",
            "height": 3.5,
            "mass": mass,
            "inertia": mass * 39.0,
            "centre": [0.0, 0.0],
            "corners": SQUARE,
        }
        for i in range(count)
    ]
    lines = [
        {"story": i, "at": [x, y], "angle": angle, "stiffness": stiffness / 2}
        for i in range(count)
        for x, y, angle in ((0.0, -half, 0.0), (0.0, half, 0.0), (-half, 0.0, 90.0), (half, 0.0, 90.0))
    ]
    return {"stories": stories, "lateral_lines": lines}


def modal(model: dict[str, Any], **more: Any) -> dict[str, Any]:
    return solve({"kind": "modal", **model, **more})


def response(model: dict[str, Any], **more: Any) -> dict[str, Any]:
    flat = {"T": [0.0, 10.0], "S_a": [1.0, 1.0]}
    return solve({"kind": "response", "spectrum": flat, **model, **more})


def refused(model: dict[str, Any], **more: Any) -> list[Any]:
    """The problems that a modal analysis of the model is refused for."""
    with pytest.raises(InputRefused) as found:
        modal(model, **more)
    assert all(p.message and p.remedy for p in found.value.problems)
    return list(found.value.problems)


def periods(answer: dict[str, Any]) -> list[float]:
    return [m["T"] for m in answer["modes"]]


STEEL = {"id": "S", "E": 2.0e8, "nu": 0.3, "density": 7.85}


def node(name: str, x: float, y: float, z: float) -> dict[str, Any]:
    return {"id": name, "at": [x, y, z]}


def member(name: str, i: str, j: str, **more: Any) -> dict[str, Any]:
    return {"id": name, "i": i, "j": j, "section": "1", "material": "S", **more}


def support(name: str, fixed: str = "ux uy uz rx ry rz") -> dict[str, Any]:
    return {"node": name, "fixed": fixed.split()}


def section(A: float = 0.02, I: float = 1e-3, **more: Any) -> dict[str, Any]:
    return {"id": "1", "A": A, "Iy": I, "Iz": I, "J": 2 * I, **more}


def frame(
    nodes: list[dict[str, Any]], members: list[dict[str, Any]], supports: list[dict[str, Any]], **more: Any
) -> dict[str, Any]:
    return {
        "frame": {
            "nodes": nodes,
            "members": members,
            "supports": supports,
            "materials": [STEEL],
            "sections": [section()],
            **more,
        }
    }


def small_building() -> dict[str, Any]:
    """Two bays by one, three stories, eccentric, with a brace, a pinned beam, a rolled column and all kinds of mass."""
    at = {(i, j): (6.0 * i, 5.0 * j) for i in range(3) for j in range(2)}
    nodes = [node(f"{i}{j}{k}", x, y, 3.4 * k) for k in range(4) for (i, j), (x, y) in at.items()]
    members, diaphragms, floors = [], [], []
    for k in range(1, 4):
        for i, j in at:
            members.append(
                member(f"c{i}{j}{k}", f"{i}{j}{k - 1}", f"{i}{j}{k}", section="2", roll=30.0 if i == 2 else 0.0)
            )
        for j in range(2):
            for i in range(2):
                pinned = {"release_i": ["ry", "rz"], "release_j": ["ry"]} if (i, j) == (1, 1) else {}
                members.append(member(f"x{i}{j}{k}", f"{i}{j}{k}", f"{i + 1}{j}{k}", **pinned))
        for i in range(3):
            members.append(member(f"y{i}{k}", f"{i}0{k}", f"{i}1{k}"))
        members.append(
            member(
                f"d{k}",
                f"00{k - 1}",
                f"10{k}",
                section="3",
                axial="tension_only",
                release_i=["ry", "rz"],
                release_j=["ry", "rz"],
            )
        )
        diaphragms.append({"id": f"L{k}", "nodes": [f"{i}{j}{k}" for i, j in at]})
        floors.append({"diaphragm": f"L{k}", "mass": 40.0 - 4 * k, "inertia": 700.0, "centre": [6.4, 2.2]})
    sections = [
        {"id": "1", "A": 0.012, "Iy": 4.5e-4, "Iz": 8e-5, "J": 2e-6, "Ay": 0.006, "Az": 0.005},
        {"id": "2", "A": 0.02, "Iy": 6e-4, "Iz": 3e-4, "J": 9e-4},
        {"id": "3", "A": 0.003, "Iy": 1e-6, "Iz": 1e-6, "J": 1e-6},
    ]
    return frame(
        nodes,
        members,
        [support(f"{i}{j}0") for i, j in at],
        sections=sections,
        diaphragms=diaphragms,
        floors=floors,
        member_mass=True,
        masses=[{"node": "211", "mx": 6.0, "my": 6.0, "mz": 6.0}, {"node": "002", "mx": 3.0, "my": 3.0}],
    )
