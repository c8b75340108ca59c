"""A frame from the rows of its tables: floors take the nodes of their level."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from pydantic import Field

from plumb_core.documents.base import Finite, NotNegative, Part, Point
from plumb_core.documents.model import Id, Node, Support
from plumb_core.documents.reading import read

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

    nodes: list[Node] = Field(default_factory=list)
    supports: list[Support] = Field(default_factory=list)
    floors: list[FloorRow] = Field(default_factory=list)


def frame_of_tables(tables: Mapping[str, list[dict[str, Any]]]) -> dict[str, Any]:
    """A frame document from the rows of its tables.

    Floors take the nodes of their level, into a rigid diaphragm unless they say no.

    Floors without a level are those of the levels of the nodes above the base, bottom to top.  Members without a
    material take the first.
    Raises InputRefused for rows of nodes, supports and floors that cannot be read; the others are stated when the
    frame is.
    """
    stated = read(_Levels, {kind: tables.get(kind, []) for kind in ("nodes", "supports", "floors")})
    frame: dict[str, Any] = {
        kind: [dict(row) for row in tables.get(kind, [])]
        for kind in ("nodes", "materials", "sections", "members", "supports", "masses")
    }
    if frame["materials"]:
        for member in frame["members"]:
            member.setdefault("material", frame["materials"][0].get("id"))
    stored = {s.node for s in stated.supports}
    free = [n for n in stated.nodes if n.id not in stored]
    levels = sorted({round(n.at[2], 2) for n in free})
    diaphragms, floors = [], []
    for k, (floor, row) in enumerate(zip(stated.floors, tables.get("floors", []), strict=True)):
        z = floor.z if floor.z is not None else levels[k] if k < len(levels) else None
        entry = [n.id for n in free if z is not None and abs(n.at[2] - z) < LEVEL]
        diaphragms.append({"id": floor.diaphragm, "nodes": entry, "rigid": floor.rigid})
        if floor.mass is not None:
            floors.append({key: row[key] for key in ("diaphragm", "mass", "inertia", "centre") if key in row})
    # masses at nodes that are not equipment represent what members weigh as well
    reported = floors or any(m.get("source", "point") == "point" for m in frame["masses"])
    frame |= {"diaphragms": diaphragms, "floors": floors, "member_mass": not reported}
    return frame
