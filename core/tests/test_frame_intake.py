"""Frames from a grid and from pasted tables."""

from __future__ import annotations

import math
from typing import Any

import pytest
from modelling import modal, small_building
from plumb_core.documents.model import Frame, Grid, Rectangle
from plumb_core.documents.reading import read
from plumb_core.errors import InputRefused
from plumb_core.grid import frame_of_grid, rectangle
from plumb_core.intake.model_tables import model_table_kinds
from plumb_core.intake.model_tables.frame import frame_of_tables
from plumb_core.intake.reading import read_model_table
from plumb_core.intake.sheets import read_text
from plumb_core.solve import solve

STORIES = [("L1", 4.0, 3000.0), ("L2", 3.5, 2800.0), ("L3", 3.5, 2000.0)]


def grid(**more: Any) -> Grid:
    return read(
        Grid,
        {
            "bays_x": [6.0, 6.0, 5.0],
            "bays_y": [7.0, 7.0],
            "columns": {"width": 0.5, "depth": 0.5},
            "beams_x": {"width": 0.3, "depth": 0.6},
            "beams_y": {"width": 0.3, "depth": 0.6},
            **more,
        },
    )


def test_a_grid_has_its_columns_beams_floors_and_supports() -> None:
    frame = read(Frame, frame_of_grid(grid(), STORIES))
    groups = [m.group for m in frame.members]
    assert len(frame.nodes) == 4 * 3 * 4
    assert groups.count("columns") == 12 * 3
    assert groups.count("beams") == (3 * 3 + 2 * 4) * 3
    assert len(frame.supports) == 12
    assert [d.id for d in frame.diaphragms] == ["L1", "L2", "L3"]
    assert all(len(d.nodes) == 12 for d in frame.diaphragms)
    found = solve({"kind": "model", "frame": frame_of_grid(grid(), STORIES)})
    assert found["usable"]
    assert found["warnings"] == []
    assert [f["mass"] for f in found["floors"]] == pytest.approx([w / 9.80665 for _, _, w in STORIES])
    assert found["floors"][0]["centre"] == pytest.approx([8.5, 7.0])
    # a uniform rectangle of 17 by 14 m
    assert found["floors"][0]["inertia"] == pytest.approx(3000 / 9.80665 * (17**2 + 14**2) / 12)


def test_walls_and_braces_stiffen_their_direction_only() -> None:
    def first(direction: str, **more: Any) -> float:
        found = modal({"frame": frame_of_grid(grid(**more), STORIES)}, modes=9)
        return next(m["T"] for m in found["modes"] if m["kind"] == direction)

    plain = {d: first(d) for d in "XY"}
    for kind in ("wall", "braces"):
        panels = [{"kind": kind, "along": "X", "line": line, "bay": 2, "to_story": 3} for line in (1, 3)]
        assert first("X", panels=panels) < 0.85 * plain["X"]
        assert first("Y", panels=panels) == pytest.approx(plain["Y"], rel=0.05)
        panels = [{"kind": kind, "along": "Y", "line": line, "bay": 1, "to_story": 3} for line in (1, 4)]
        assert first("Y", panels=panels) < 0.85 * plain["Y"]


def test_panels_that_are_nowhere_are_all_named() -> None:
    panels = [
        {"kind": "wall", "along": "X", "line": 9, "bay": 4, "to_story": 7},
        {"kind": "wall", "along": "Y", "line": 1, "bay": 1, "from_story": 3, "to_story": 2},
    ]
    with pytest.raises(InputRefused) as refused:
        frame_of_grid(grid(panels=panels), STORIES)
    assert {p.path for p in refused.value.problems} == {
        "/panels/0/line",
        "/panels/0/bay",
        "/panels/0/to_story",
        "/panels/1/from_story",
    }
    with pytest.raises(InputRefused) as empty:
        frame_of_grid(grid(), [])
    assert empty.value.problems[0].path == "/stories"


def test_section_properties_of_a_rectangle() -> None:
    found = rectangle("r", Rectangle(width=0.3, depth=0.6))
    assert found["A"] == pytest.approx(0.18)
    assert found["Iy"] == pytest.approx(0.3 * 0.6**3 / 12)
    assert found["Iz"] == pytest.approx(0.6 * 0.3**3 / 12)
    # torsion of a square: 2.25 a^4 with half side a, 0.1406 of the fourth power of the side
    assert rectangle("s", Rectangle(width=0.5, depth=0.5))["J"] == pytest.approx(0.1406 * 0.5**4, rel=2e-3)
    assert rectangle("thin", Rectangle(width=0.02, depth=2.0))["J"] == pytest.approx(2.0 * 0.02**3 / 3, rel=0.01)


NODES = "Node\tX [mm]\tY [mm]\tZ [mm]\n1\t0\t0\t0\n2\t0\t0\t3000\n"


def test_each_kind_is_recognised_by_its_columns() -> None:
    texts = {
        "nodes": NODES,
        "members": "Member,Start,End,Section,Material,Roll (deg)\nm1,1,2,C,S,0\n",
        "sections": "Section,Area [cm2],Iy [cm4],Iz [cm4],J [cm4]\nC,100,2000,2000,3000\n",
        "materials": "Material,E [MPa],nu,Density [kg/m3]\nS,200000,0.3,7850\n",
        "supports": "Node,Fixed\n1,fixed\n",
        "floors": "Floor,Level [m],Mass [t]\nL1,3,20\n",
    }
    for kind, text in texts.items():
        found = read_model_table(read_text(text, "t"))
        assert (found.kind, found.problems) == (kind, []), kind


def test_units_of_the_tables_are_turned_into_the_cores() -> None:
    assert read_model_table(read_text(NODES, "n")).rows[1] == {"id": "2", "at": [0.0, 0.0, 3.0]}
    section = read_model_table(
        read_text("Section,Area [cm2],Iy [cm4],Iz [cm4],J [cm4]\nC,100,2000,1000,3000\n", "s")
    ).rows[0]
    assert section == {
        "id": "C",
        "A": pytest.approx(0.01),
        "Iy": pytest.approx(2e-5),
        "Iz": pytest.approx(1e-5),
        "J": pytest.approx(3e-5),
    }
    material = read_model_table(read_text("Material,E [MPa],nu,Density [kg/m3]\nS,200000,0.3,7850\n", "m")).rows[0]
    assert material == {"id": "S", "E": pytest.approx(2e8), "nu": 0.3, "density": pytest.approx(7.85)}


def test_a_missing_unit_is_asked_for_never_assumed() -> None:
    text = "Node,X,Y,Z\n1,0,0,0\n"
    asked = read_model_table(read_text(text, "n"))
    assert [p.message for p in asked.problems] == [
        "the unit of x is missing",
        "the unit of y is missing",
        "the unit of z (upwards) is missing",
    ]
    answered = read_model_table(read_text(text, "n"), units={"x": "ft", "y": "ft", "z": "ft"})
    assert answered.problems == []


@pytest.mark.parametrize(
    ("cell", "dofs"), [("fixed", 6), ("pinned", 3), ("ux uy", 2), ("1 1 1 0 0 0", 3), ("111000", 3)]
)
def test_supports_are_written_in_several_ways(cell: str, dofs: int) -> None:
    found = read_model_table(read_text(f"Node\tFixed\n1\t{cell}\n", "s"), "supports")
    assert len(found.rows[0]["fixed"]) == dofs


@pytest.mark.parametrize(
    ("text", "kind", "message"),
    [
        ("Node,X [m],Y [m],Z [m]\n1,0,zero,0\n", "nodes", "'zero' is not a number"),
        ("Node,X [m],Y [m],Z [m]\n,0,0,0\n", "nodes", "node is missing"),
        ("Node,Fixed\n1,somehow\n", "supports", "is not a list of degrees of freedom"),
        ("Node,X [m]\n1,0\n", "nodes", "no column is recognised as y"),
        ("Node,X [m],Y [m],Z [m]\n", "nodes", "no rows of values"),
    ],
)
def test_what_is_wrong_stands_at_its_cell(text: str, kind: str, message: str) -> None:
    found = read_model_table(read_text(text, "t"), kind)
    assert any(message in p.message and p.remedy for p in found.problems)


def test_a_frame_from_tables_has_the_modes_of_the_document_it_came_from() -> None:
    frame = small_building()["frame"] | {"masses": [], "member_mass": False}
    for m in frame["members"]:
        m.pop("axial", None)
    rows = {
        "nodes": "Node,X [m],Y [m],Z [m]\n"
        + "".join(f"{n['id']},{n['at'][0]},{n['at'][1]},{n['at'][2]}\n" for n in frame["nodes"]),
        "members": "Member,Start,End,Section,Roll (deg),Release start,Release end\n"
        + "".join(
            f"{m['id']},{m['i']},{m['j']},{m['section']},{m.get('roll', 0)},{' '.join(m.get('release_i', []))},"
            f"{' '.join(m.get('release_j', []))}\n"
            for m in frame["members"]
        ),
        "sections": "Section,A [m2],Iy [m4],Iz [m4],J [m4],Ay [m2],Az [m2]\n"
        + "".join(
            f"{s['id']},{s['A']},{s['Iy']},{s['Iz']},{s['J']},{s.get('Ay', '')},{s.get('Az', '')}\n"
            for s in frame["sections"]
        ),
        "materials": "Material,E [kN/m2],nu,Density [t/m3]\nS,200000000,0.3,7.85\n",
        "supports": "Node,Fixed\n" + "".join(f"{s['node']},fixed\n" for s in frame["supports"]),
        "floors": "Floor,Mass [t],Inertia [t m2],x [m],y [m]\n"
        + "".join(
            f"{f['diaphragm']},{f['mass']},{f['inertia']},{f['centre'][0]},{f['centre'][1]}\n" for f in frame["floors"]
        ),
    }
    tables = {}
    for kind, text in rows.items():
        found = read_model_table(read_text(text, kind), kind)
        assert found.problems == [], (kind, found.problems)
        tables[kind] = found.rows
    built = frame_of_tables(tables)
    # ids of nodes look like numbers; they stay as written
    assert {d["id"] for d in built["diaphragms"]} == {"L1", "L2", "L3"}
    own, original = (modal({"frame": f}, modes=9) for f in (built, frame))
    assert [m["T"] for m in own["modes"]] == pytest.approx([m["T"] for m in original["modes"]], rel=1e-9)


def test_every_column_of_a_table_is_found_by_its_own_title_or_name() -> None:
    for kind, columns in ((k.id, k.columns) for k in model_table_kinds().values()):
        text = (
            "\t".join(f"{c.name}{f' [{c.unit}]' if c.unit else ''}" for c in columns)
            + "\n"
            + "\t".join("1" for _ in columns)
            + "\n"
        )
        found = read_model_table(read_text(text, "t"), kind)
        assert set(found.columns) == {c.name for c in columns}, kind
        assert [p.message for p in found.problems if "unit" in p.message] == [], kind


def test_supports_with_springs() -> None:
    text = "Node,Fixed,spring ux (kN/m),spring rz (kN m/rad)\n1,uy uz,5000,\n2,,,250\n3,fixed,,\n"
    found = read_model_table(read_text(text, "s"), "supports")
    assert found.problems == []
    assert found.rows == [
        {"node": "1", "fixed": ["uy", "uz"], "springs": {"ux": 5000.0}},
        {"node": "2", "springs": {"rz": 250.0}},
        {"node": "3", "fixed": ["ux", "uy", "uz", "rx", "ry", "rz"]},
    ]
    idle = read_model_table(read_text("Node,Fixed\n1,\n", "s"), "supports")
    assert [p.message for p in idle.problems] == ["this support has neither a fixed direction nor a spring"]


def test_masses_at_nodes_of_two_sources() -> None:
    text = "Node,Mass [kg],Source\n5,12000,\n6,800,Equipment\n"
    found = read_model_table(read_text(text, "m"))
    assert (found.kind, found.problems) == ("masses", [])
    assert found.rows == [
        {"node": "5", "mx": 12.0, "my": 12.0, "mz": 12.0},
        {"node": "6", "mx": 0.8, "my": 0.8, "mz": 0.8, "source": "equipment"},
    ]
    assert "no mass" in read_model_table(read_text("Node,Mass [t]\n5,\n", "m"), "masses").problems[0].message


def test_words_that_a_column_does_not_know_are_named_with_those_it_does() -> None:
    found = read_model_table(read_text("Floor,Mass [t],Rigid\nL1,20,somewhat\n", "f"), "floors")
    assert found.problems[0].message == "'somewhat' is not recognised as rigid (yes, no)"
    assert "flexible" in found.problems[0].remedy


def test_a_floor_that_is_not_rigid_stays_flexible() -> None:
    nodes = [{"id": f"{x}{y}{z}", "at": [6.0 * x, 5.0 * y, 3.0 * z]} for z in (0, 1, 2) for x in (0, 1) for y in (0, 1)]
    tables = {
        "nodes": nodes,
        "supports": [{"node": n["id"], "fixed": ["ux"]} for n in nodes if n["at"][2] == 0],
        "floors": read_model_table(read_text("Floor,Mass [t],Rigid\nL1,20,yes\nL2,20,flexible\n", "f")).rows,
    }
    built = frame_of_tables(tables)
    assert [(d["id"], len(d["nodes"]), d["rigid"]) for d in built["diaphragms"]] == [("L1", 4, True), ("L2", 4, False)]


@pytest.mark.parametrize(
    ("tables", "path"),
    [
        ({"nodes": [{}]}, "/nodes/0/id"),
        ({"nodes": [{"id": "1", "at": "abc"}]}, "/nodes/0/at"),
        ({"nodes": [{"id": "1", "at": [None, 0, 0]}]}, "/nodes/0/at/0"),
        ({"supports": [{"node": {}}]}, "/supports/0/node"),
        ({"floors": [{"z": "x", "diaphragm": "L1"}]}, "/floors/0/z"),
    ],
)
def test_rows_that_are_no_rows_are_named(tables: Any, path: str) -> None:
    with pytest.raises(InputRefused) as no:
        frame_of_tables(tables)
    assert path in {p.path for p in no.value.problems}


@pytest.mark.parametrize(
    ("floors", "masses", "members_bring_theirs"),
    [
        ([], [], True),
        ([{"diaphragm": "L1", "mass": 20.0}], [], False),
        ([], [{"node": "1", "mx": 5.0}], False),
        ([], [{"node": "1", "mx": 0.5, "source": "equipment"}], True),
    ],
)
def test_members_bring_their_mass_where_nothing_else_stands_for_it(
    floors: Any, masses: Any, members_bring_theirs: bool
) -> None:
    built = frame_of_tables({"nodes": [{"id": "1", "at": [0, 0, 3.0]}], "floors": floors, "masses": masses})
    assert built["member_mass"] is members_bring_theirs


def test_tension_only_and_mass_along_a_member() -> None:
    text = "Member,Start,End,Section,Acts in,Line mass [kg/m]\nd,1,2,C,Tension only,\nb,2,3,C,both,250\n"
    found = read_model_table(read_text(text, "m"))
    assert found.problems == []
    assert [row.get("axial") for row in found.rows] == ["tension_only", "both"]
    assert found.rows[1]["line_mass"] == pytest.approx(0.25)


def test_degrees_and_radians_of_roll() -> None:
    text = "Member,Start,End,Section,Roll (rad)\nm,1,2,C,1.5707963267948966\n"
    assert read_model_table(read_text(text, "m")).rows[0]["roll"] == pytest.approx(90.0)
    assert math.isclose(read_model_table(read_text(text.replace("rad", "deg"), "m")).rows[0]["roll"], math.pi / 2)
