"""Pasted or uploaded tables of a frame: columns recognised, units asked for, every problem at its cell."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from plumb_core.documents.base import Finite, NotNegative, Part, Point
from plumb_core.documents.model import Id, Node, Support
from plumb_core.documents.reading import read
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.tables import CellProblem
from plumb_core.intake.units import UNITS, factor, known_unit, plain_number, uses_decimal_comma

DOFS = ("ux", "uy", "uz", "rx", "ry", "rz")


@dataclass(frozen=True, slots=True)
class FrameColumn:
    """A column of a frame's table: patterns of headings, and its unit in the core; without a unit it is text.

    words : what the text can be, where it is one of a few, with what the frame has for each.
    """

    name: str
    title: str
    headings: str
    unit: str | None = None
    required: bool = False
    words: Mapping[str, Any] | None = None


_YES_NO = {
    "yes": True,
    "true": True,
    "1": True,
    "rigid": True,
    "no": False,
    "false": False,
    "0": False,
    "flexible": False,
}
_ACTS = {"tension": "tension_only", "tension only": "tension_only", "tension-only": "tension_only",
         "both": "both", "tension and compression": "both"}  # fmt: skip
_SPRINGS = tuple(
    FrameColumn(f"spring_{d}", f"spring {d}", f"(spring|k){d}|{d}spring", "kN/m" if d[0] == "u" else "kN*m/rad")
    for d in DOFS
)

FRAME_TABLES: dict[str, tuple[FrameColumn, ...]] = {
    "nodes": (
        FrameColumn("id", "node", r"node|joint|point|id|name|label", None, True),
        FrameColumn("x", "x", r"x|xcoordinate", "m", True),
        FrameColumn("y", "y", r"y|ycoordinate", "m", True),
        FrameColumn("z", "z (upwards)", r"z|zcoordinate|elevation|level", "m", True),
    ),
    "members": (
        FrameColumn("id", "member", r"member|element|bar|id|name|label", None, True),
        FrameColumn("i", "node at the start", r"i|nodei|start|startnode|from|firstnode", None, True),
        FrameColumn("j", "node at the end", r"j|nodej|end|endnode|to|secondnode", None, True),
        FrameColumn("section", "section", r"section|sectionname|profile", None, True),
        FrameColumn("material", "material", r"material|materialname", None),
        FrameColumn("roll", "roll", r"roll|rotation|angle|beta", "degree"),
        FrameColumn("group", "group", r"group|type|kind|use", None),
        FrameColumn("release_i", "released at the start", r"(released?|releases?)(i|start|atstart|ati)", None),
        FrameColumn("release_j", "released at the end", r"(released?|releases?)(j|end|atend|atj)", None),
        FrameColumn("axial", "acts in (tension, both)", r"axial|acts|actsin", None, words=_ACTS),
        FrameColumn("line_mass", "mass on it", r"linemass|mass|massperlength|masson(it)?", "t/m"),
    ),
    "sections": (
        FrameColumn("id", "section", r"section|id|name|label|profile", None, True),
        FrameColumn("A", "area", r"a|area", "m^2", True),
        FrameColumn("Iy", "I_y (bending in local x-z)", r"iy|iyy|imajor", "m^4", True),
        FrameColumn("Iz", "I_z", r"iz|izz|iminor", "m^4", True),
        FrameColumn("J", "torsion constant", r"j|it|torsion|torsionconstant", "m^4", True),
        FrameColumn("Ay", "shear area along y", r"ay|sheary|shearareay", "m^2"),
        FrameColumn("Az", "shear area along z", r"az|shearz|shearareaz", "m^2"),
    ),
    "materials": (
        FrameColumn("id", "material", r"material|id|name|label", None, True),
        FrameColumn("E", "modulus of elasticity", r"e|modulus|youngsmodulus|elasticmodulus", "kN/m^2", True),
        FrameColumn("nu", "Poisson's ratio", r"nu|ν|poisson|poissonsratio|poissonratio", ""),
        FrameColumn("density", "density", r"density|rho|ρ|massdensity", "t/m^3"),
    ),
    "supports": (
        FrameColumn("node", "node", r"node|joint|support|id|name", None, True),
        FrameColumn("fixed", "what is fixed", r"fixed|restraint|restraints|fixity|dof|held", None),
        *_SPRINGS,
    ),
    "floors": (
        FrameColumn("diaphragm", "floor", r"floor|diaphragm|story|storey|level|name", None, True),
        FrameColumn("z", "level", r"z|elevation|level|height", "m"),
        FrameColumn("mass", "mass", r"mass|m|floormass", "t"),
        FrameColumn("x", "centre x", r"x|centrex|centerx", "m"),
        FrameColumn("y", "centre y", r"y|centrey|centery", "m"),
        FrameColumn("inertia", "rotational inertia", r"inertia|j|rotationalinertia|iz", "t*m^2"),
        FrameColumn("rigid", "rigid (yes, no)", r"rigid|stiffness|inplane", None, words=_YES_NO),
    ),
    "masses": (
        FrameColumn("node", "node", r"node|joint|id|name", None, True),
        FrameColumn("m", "mass", r"m|mass", "t"),
        FrameColumn("mx", "mass along X", r"mx|massx", "t"),
        FrameColumn("my", "mass along Y", r"my|massy", "t"),
        FrameColumn("mz", "mass along Z", r"mz|massz", "t"),
        FrameColumn("iz", "inertia about the vertical", r"iz|inertia", "t*m^2"),
        FrameColumn("source", "source", r"source|kind|type", None,
                    words={"point": "point", "load": "point", "equipment": "equipment"}),
    ),
}  # fmt: skip

_ALL = {
    "fixed": DOFS,
    "fix": DOFS,
    "encastre": DOFS,
    "all": DOFS,
    "pinned": DOFS[:3],
    "pin": DOFS[:3],
    "hinged": DOFS[:3],
    "roller": ("uz",),
}


@dataclass
class FrameTableRead:
    """What was made of a table: its kind, how it was read, the rows as the frame document has them, and every problem."""

    kind: str
    columns: dict[str, int]
    units: dict[str, str]
    rows: list[dict[str, Any]] = field(default_factory=list)
    problems: list[CellProblem] = field(default_factory=list)
    header: int | None = None


def _normal(text: str) -> str:
    text = re.sub(r"[\[(].*?[\])]", "", text)
    text = text.split(",")[0]
    return re.sub(r"[\s_.\-{}$\\:/']", "", text).lower()


def _written_unit(text: str) -> str:
    match = re.search(r"[\[(]([^\])]+)[\])]\s*$", text) or re.search(r",\s*([^,]+)$", text)
    return match.group(1).strip() if match else ""


def _recognised(row: list[str], kind: str) -> dict[str, int]:
    found: dict[str, int] = {}
    for index, text in enumerate(row):
        for column in FRAME_TABLES[kind]:
            if column.name not in found and re.fullmatch(column.headings, _normal(text)):
                found[column.name] = index
                break
    return found


def _guess(sheet: Sheet) -> tuple[str, int | None, dict[str, int]]:
    """(kind, row of the headings, columns) that fit a sheet best; columns beyond those a kind knows speak against it."""
    best: tuple[float, str, int | None, dict[str, int]] = (0.0, "nodes", None, {})
    for number, row in enumerate(sheet.rows[:12]):
        texts = [c.text for c in row]
        stated = max(1, sum(1 for t in texts if t))
        for kind, columns in FRAME_TABLES.items():
            found = _recognised(texts, kind)
            if all(c.name in found for c in columns if c.required):
                score = len(found) / stated + 0.01 * len(found)
                if score > best[0]:
                    best = (score, kind, number, found)
    return best[1], best[2], best[3]


def _heading(sheet: Sheet, kind: str) -> tuple[int | None, dict[str, int]]:
    """Row of the headings that a kind recognises the most columns of, and those columns."""
    best: tuple[int | None, dict[str, int]] = (None, {})
    for number, row in enumerate(sheet.rows[:12]):
        found = _recognised([c.text for c in row], kind)
        if len(found) > len(best[1]):
            best = (number, found)
    return best


def _dofs(text: str) -> list[str] | None:
    """Degrees of freedom that a cell names: `fixed`, `pinned`, `ux uy`, or six figures 0 and 1; None if it can't be told."""
    plain = text.strip().lower()
    if plain in _ALL:
        return list(_ALL[plain])
    if re.fullmatch(r"[01](?:[\s,;/]*[01]){5}", plain):
        flags = re.findall(r"[01]", plain)
        return [d for d, f in zip(DOFS, flags, strict=True) if f == "1"]
    words = [w for w in re.split(r"[\s,;+/]+", plain) if w]
    return words if words and all(w in DOFS for w in words) else [] if plain in ("", "-", "none") else None


class _Reader:
    def __init__(self, sheet: Sheet, kind: str, header: int | None, columns: dict[str, int], units: Mapping[str, str]):
        self.sheet = sheet
        self.read = FrameTableRead(kind, columns, dict(units), header=header)
        self.by_name = {c.name: c for c in FRAME_TABLES[kind]}
        self.decimal_comma = uses_decimal_comma([c.text for row in sheet.rows for c in row])

    def problem(self, row: int | None, column: int | None, message: str, remedy: str) -> None:
        self.read.problems.append(CellProblem(row, column, message, remedy))

    def find_units(self) -> None:
        for name, index in self.read.columns.items():
            unit = self.by_name[name].unit
            if unit is None:
                continue
            accepted = UNITS[unit]
            written = self.read.units.get(name, "")
            if not written and self.read.header is not None:
                written = _written_unit(self.sheet.rows[self.read.header][index].text)
            label = known_unit(written, unit) or ("-" if unit == "" and not written else None)
            if label is None:
                self.read.units.pop(name, None)
                said = (
                    f"{written!r} is no unit of {self.by_name[name].title}"
                    if written
                    else f"the unit of {self.by_name[name].title} is missing"
                )
                self.problem(self.read.header, index, said, f"Choose the unit: {', '.join(accepted)}.")
            else:
                self.read.units[name] = label

    def value(self, row: int, name: str) -> Any:
        """A cell as the document has it; None where it is blank or bad (then with its problem)."""
        index, column = self.read.columns[name], self.by_name[name]
        cell = self.sheet.rows[row][index]
        if cell.formula:
            self.problem(row, index, "this cell holds a formula", "Hand in the value: copy and paste as values.")
            return None
        if not cell.text:
            if column.required:
                self.problem(row, index, f"{column.title} is missing", "Give it, or leave the whole row out.")
            return None
        if name in ("fixed", "release_i", "release_j"):
            found = _dofs(cell.text)
            if found is None:
                self.problem(
                    row,
                    index,
                    f"{cell.text[:40]!r} names no degrees of freedom",
                    "Write fixed, pinned, or some of ux uy uz rx ry rz.",
                )
            return found
        if column.words is not None:
            word = " ".join(cell.text.lower().split())
            if word not in column.words:
                said = f"{cell.text[:40]!r} isn't understood as {column.title}"
                self.problem(row, index, said, f"Write one of: {', '.join(column.words)}.")
            return column.words.get(word)
        if column.unit is None:
            return cell.text[:60]
        plain = plain_number(cell.text, self.decimal_comma)
        if plain is None:
            self.problem(row, index, f"{cell.text[:40]!r} is no number", "Give a number.")
            return None
        unit = self.read.units.get(name)
        return None if unit is None else float(plain) * factor(unit, column.unit)

    def rows(self) -> None:
        start = -1 if self.read.header is None else self.read.header
        for number in range(start + 1, len(self.sheet.rows)):
            if not any(self.sheet.rows[number][c].text for c in self.read.columns.values()):
                continue
            values = {name: v for name in self.read.columns if (v := self.value(number, name)) is not None}
            if self.read.kind == "supports" and not values.get("fixed") and not any(c.name in values for c in _SPRINGS):
                self.problem(
                    number, self.read.columns["node"], "this support neither fixes nor springs anything",
                    "Say what is fixed (fixed, pinned, or some of ux uy uz rx ry rz), or give a spring.",
                )  # fmt: skip
            if self.read.kind == "masses" and not values.keys() & {"m", "mx", "my", "mz", "iz"}:
                self.problem(
                    number, self.read.columns["node"], "this node has no mass", "Give its mass, or leave the row out."
                )
            self.read.rows.append(_document_row(self.read.kind, values))


def _document_row(kind: str, values: dict[str, Any]) -> dict[str, Any]:
    if kind == "nodes":
        return {"id": values.get("id"), "at": [values.get(c) for c in "xyz"]}
    if kind == "floors" and "x" in values and "y" in values:
        rest = {k: v for k, v in values.items() if k not in ("x", "y")}
        return rest | {"centre": [values["x"], values["y"]]}
    if kind == "supports":
        springs = {d: v for d in DOFS if (v := values.pop(f"spring_{d}", None)) is not None}
        return values | ({"springs": springs} if springs else {})
    if kind == "masses" and "m" in values:
        every = values.pop("m")
        return {"mx": every, "my": every, "mz": every} | values
    return values


def read_frame_table(
    sheet: Sheet, kind: str = "", columns: Mapping[str, int] | None = None, units: Mapping[str, str] | None = None
) -> FrameTableRead:
    """Read a sheet as a table of a frame ('' = whatever it looks like); rows only count where there are no problems."""
    guessed, header, found = _guess(sheet)
    if kind and kind != guessed:
        header, found = _heading(sheet, kind)
    reader = _Reader(sheet, kind or guessed, header, dict(columns) if columns else found, units or {})
    for column in FRAME_TABLES[reader.read.kind]:
        if column.required and column.name not in reader.read.columns:
            reader.problem(
                None,
                None,
                f"no column is recognised as {column.title}",
                f"Point at the column that holds it: {column.title}.",
            )
    if not reader.read.problems:
        reader.find_units()
        reader.rows()
        if not reader.read.rows and not reader.read.problems:
            reader.problem(None, None, "there are no rows of values in it", "Paste the table with its rows.")
    return reader.read


LEVEL = 0.05
"""m, within which a node belongs to the level of a floor."""


class FloorRow(Part):
    """A row of the table of floors."""

    diaphragm: Id
    z: Finite | None = None
    mass: NotNegative | None = None
    inertia: NotNegative | None = None
    centre: Point | None = None
    rigid: bool = True


class _Levels(Part):
    """The tables that floors and their levels are found from."""

    nodes: list[Node] = []
    supports: list[Support] = []
    floors: list[FloorRow] = []


def frame_of_tables(tables: Mapping[str, list[dict[str, Any]]]) -> dict[str, Any]:
    """A frame document from the rows of its tables; floors take the nodes of their level, into a rigid diaphragm unless they say no.

    Floors without a level are those of the levels of the nodes above the base, bottom to top.  Members without a material take the first.
    Raises InputRefused for rows of nodes, supports and floors that can't be read; the others are told when the frame is.
    """
    found = read(_Levels, {kind: tables.get(kind, []) for kind in ("nodes", "supports", "floors")})
    frame: dict[str, Any] = {
        kind: [dict(row) for row in tables.get(kind, [])]
        for kind in ("nodes", "materials", "sections", "members", "supports", "masses")
    }
    if frame["materials"]:
        for member in frame["members"]:
            member.setdefault("material", frame["materials"][0].get("id"))
    held = {s.node for s in found.supports}
    free = [n for n in found.nodes if n.id not in held]
    levels = sorted({round(n.at[2], 2) for n in free})
    diaphragms, floors = [], []
    for k, (floor, row) in enumerate(zip(found.floors, tables.get("floors", []), strict=True)):
        z = floor.z if floor.z is not None else levels[k] if k < len(levels) else None
        own = [n.id for n in free if z is not None and abs(n.at[2] - z) < LEVEL]
        diaphragms.append({"id": floor.diaphragm, "nodes": own, "rigid": floor.rigid})
        if floor.mass is not None:
            floors.append({key: row[key] for key in ("diaphragm", "mass", "inertia", "centre") if key in row})
    # masses at nodes that aren't equipment stand for what members weigh as well
    told = floors or any(m.get("source", "point") == "point" for m in frame["masses"])
    frame |= {"diaphragms": diaphragms, "floors": floors, "member_mass": not told}
    return frame
