"""A regular frame from its grid: the tables that a reviewer would otherwise type."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import accumulate
from typing import Any

from plumb_core.constants import GRAVITY
from plumb_core.documents.model import Grid, Panel, Rectangle
from plumb_core.errors import InputRefused, Problem

PINNED = ["ux", "uy", "uz"]
FIXED = [*PINNED, "rx", "ry", "rz"]


def rectangle(name: str, section: Rectangle) -> dict[str, Any]:
    """Properties of a solid rectangle; Iy is that of bending over its depth.  Torsion: Roark's Formulas, table 10.7."""
    a, b = max(section.width, section.depth) / 2.0, min(section.width, section.depth) / 2.0
    J = a * b**3 * (16.0 / 3.0 - 3.36 * b / a * (1.0 - b**4 / (12.0 * a**4)))
    A = section.width * section.depth
    return {
        "id": name,
        "A": A,
        "Iy": section.width * section.depth**3 / 12.0,
        "Iz": section.depth * section.width**3 / 12.0,
        "J": J,
        "Ay": 5.0 / 6.0 * A,
        "Az": 5.0 / 6.0 * A,
    }


def _problems(grid: Grid, count: int) -> list[Problem]:
    problems = []
    if not count:
        problems.append(Problem("/stories", "the brief has no stories", "Give the stories in the brief first."))
    for k, panel in enumerate(grid.panels):
        bays, lines = (grid.bays_x, grid.bays_y) if panel.along == "X" else (grid.bays_y, grid.bays_x)
        for name, value, most, word in (
            ("line", panel.line, len(lines) + 1, "lines"),
            ("bay", panel.bay, len(bays), "bays"),
            ("to_story", panel.to_story, count, "stories"),
        ):
            if value > most:
                problems.append(
                    Problem(
                        f"/panels/{k}/{name}",
                        f"there are {most} {word}, not {value}",
                        f"Give a number from 1 to {most}.",
                    )
                )
        if panel.from_story > panel.to_story:
            problems.append(
                Problem(f"/panels/{k}/from_story", "the lowest story is above the highest", "Exchange the two.")
            )
    return problems


class _Builder:
    def __init__(self, grid: Grid, heights: Sequence[float]):
        self.grid = grid
        self.x = [0.0, *accumulate(grid.bays_x)]
        self.y = [0.0, *accumulate(grid.bays_y)]
        self.z = [0.0, *accumulate(heights)]
        self.nodes: dict[str, list[float]] = {}
        self.members: list[dict[str, Any]] = []
        self.sections: dict[str, dict[str, Any]] = {
            name: rectangle(name, section)
            for name, section in (("column", grid.columns), ("beam X", grid.beams_x), ("beam Y", grid.beams_y))
        }

    def node(self, i: int, j: int, k: int) -> str:
        name = f"{i + 1}.{j + 1}.{k}"
        self.nodes[name] = [self.x[i], self.y[j], self.z[k]]
        return name

    def middle(self, panel: Panel, k: int) -> str:
        """Node in the middle of a panel's bay at level k, where a wall is."""
        i, j = (panel.bay - 1, panel.line - 1) if panel.along == "X" else (panel.line - 1, panel.bay - 1)
        name = f"{'x' if panel.along == 'X' else 'y'}{panel.line}.{panel.bay}.{k}"
        if panel.along == "X":
            self.nodes[name] = [(self.x[i] + self.x[i + 1]) / 2.0, self.y[j], self.z[k]]
        else:
            self.nodes[name] = [self.x[i], (self.y[j] + self.y[j + 1]) / 2.0, self.z[k]]
        return name

    def member(self, name: str, i: str, j: str, section: str, group: str, **more: Any) -> None:
        self.members.append({"id": name, "i": i, "j": j, "section": section, "material": "1", "group": group, **more})

    def walls(self) -> dict[tuple[str, int, int, int], Panel]:
        """Walls by (along, line, bay, level of a floor that they reach)."""
        return {
            (p.along, p.line, p.bay, k): p
            for p in self.grid.panels
            if p.kind == "wall"
            for k in range(p.from_story - 1, p.to_story + 1)
        }

    def frame(self) -> None:
        walls = self.walls()
        for k in range(len(self.z)):
            for i in range(len(self.x)):
                for j in range(len(self.y)):
                    here = self.node(i, j, k)
                    if k:
                        self.member(f"column {here}", self.node(i, j, k - 1), here, "column", "columns")
            if k:
                self._beams(k, walls)
        for panel in self.grid.panels:
            (self._wall if panel.kind == "wall" else self._braces)(panel)

    def _beams(self, k: int, walls: dict[tuple[str, int, int, int], Panel]) -> None:
        for along, section in (("X", "beam X"), ("Y", "beam Y")):
            bays, lines = (self.x, self.y) if along == "X" else (self.y, self.x)
            for line in range(len(lines)):
                for bay in range(len(bays) - 1):
                    i, j = (bay, line) if along == "X" else (line, bay)
                    a = self.node(i, j, k)
                    b = self.node(i + 1, j, k) if along == "X" else self.node(i, j + 1, k)
                    name = f"beam {along}{line + 1}.{bay + 1}.{k}"
                    wall = walls.get((along, line + 1, bay + 1, k))
                    if wall is None:
                        self.member(name, a, b, section, "beams")
                    else:
                        middle = self.middle(wall, k)
                        self.member(f"{name} a", a, middle, section, "beams")
                        self.member(f"{name} b", middle, b, section, "beams")

    def _wall(self, panel: Panel) -> None:
        length = (self.grid.bays_x if panel.along == "X" else self.grid.bays_y)[panel.bay - 1]
        name = f"wall {length:g} m"
        self.sections[name] = rectangle(name, Rectangle(width=self.grid.wall_thickness, depth=length))
        for k in range(panel.from_story, panel.to_story + 1):
            # Iy of a vertical member bends along X; a wall along Y is turned
            turned = {} if panel.along == "X" else {"roll": 90.0}
            self.member(
                f"wall {panel.along}{panel.line}.{panel.bay}.{k}",
                self.middle(panel, k - 1),
                self.middle(panel, k),
                name,
                "walls",
                **turned,
            )

    def _braces(self, panel: Panel) -> None:
        A = self.grid.brace_area
        # pinned at both ends, so that bending of its own hardly matters; a round bar's inertia
        self.sections.setdefault(
            "brace", {"id": "brace", "A": A, "Iy": A**2 / 12.566, "Iz": A**2 / 12.566, "J": A**2 / 6.283}
        )
        i, j = (panel.bay - 1, panel.line - 1) if panel.along == "X" else (panel.line - 1, panel.bay - 1)
        di, dj = (1, 0) if panel.along == "X" else (0, 1)
        pins = {"release_i": ["ry", "rz"], "release_j": ["ry", "rz"]}
        for k in range(panel.from_story, panel.to_story + 1):
            name = f"brace {panel.along}{panel.line}.{panel.bay}.{k}"
            self.member(f"{name} a", self.node(i, j, k - 1), self.node(i + di, j + dj, k), "brace", "braces", **pins)
            self.member(f"{name} b", self.node(i + di, j + dj, k - 1), self.node(i, j, k), "brace", "braces", **pins)


def frame_of_grid(grid: Grid, stories: Sequence[tuple[str, float, float | None]]) -> dict[str, Any]:
    """Frame document of a grid over stories (name, height in m, weight in kN or None), bottom to top.

    Floors are rigid, with the brief's weights spread over the plan; without weights the members bring their own mass.
    Raises InputRefused naming every line, bay or story that is not there.
    """
    problems = _problems(grid, len(stories))
    if problems:
        raise InputRefused(problems)
    built = _Builder(grid, [height for _, height, _ in stories])
    built.frame()
    base = [name for name, at in built.nodes.items() if at[2] == 0.0]
    corners = [[0.0, 0.0], [built.x[-1], 0.0], [built.x[-1], built.y[-1]], [0.0, built.y[-1]]]
    floors, diaphragms = [], []
    for k, (name, _, weight) in enumerate(stories, start=1):
        diaphragms.append({"id": name, "nodes": [n for n, at in built.nodes.items() if at[2] == built.z[k]]})
        if weight is not None:
            floors.append({"diaphragm": name, "mass": weight / GRAVITY, "outline": corners})
    used = {m["group"] for m in built.members}
    cracking = {"columns": grid.cracking.columns, "beams": grid.cracking.beams, "walls": grid.cracking.walls}
    return {
        "nodes": [{"id": name, "at": at} for name, at in built.nodes.items()],
        "materials": [{"id": "1", "E": grid.E, "nu": grid.nu, "density": grid.density}],
        "sections": list(built.sections.values()),
        "members": built.members,
        "supports": [{"node": name, "fixed": FIXED if grid.base == "fixed" else PINNED} for name in base],
        "diaphragms": diaphragms,
        "floors": floors,
        "stiffness_factors": {g: {"Iy": f, "Iz": f} for g, f in cracking.items() if g in used and f != 1.0},
        "member_mass": not floors,
    }
