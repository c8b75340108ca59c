"""Bad models give the warning with its cause, place and remedy; never a traceback or a silent number."""

from __future__ import annotations

import json
from typing import Any

import pytest
from modelling import frame, member, modal, node, refused, section, shear_building, small_building, support
from plumb_core.cli import main
from plumb_core.solve import solve


def inspected(model: dict[str, Any]) -> dict[str, dict[str, Any]]:
    """Warnings by code."""
    return {w["code"]: w for w in solve({"kind": "model", **model})["warnings"]}


def building() -> dict[str, Any]:
    return small_building()


def test_a_sound_model_has_no_stopping_warning() -> None:
    found = solve({"kind": "model", **building()})
    assert found["usable"]
    assert {w["code"] for w in found["warnings"]} == {"tension_only", "members_beside_floors"}


def test_mechanism_names_the_nodes_that_move() -> None:
    model = building()
    # both columns' ends of the top story pinned: the roof slides
    for m in model["frame"]["members"]:
        if m["id"].startswith("c") and m["id"].endswith("3"):
            m["release_i"] = m["release_j"] = ["ry", "rz"]
    warning = inspected(model)["mechanism"]
    assert warning["stops"]
    assert any(n.endswith("3") for n in warning["nodes"])
    assert not any(n.endswith("1") for n in warning["nodes"])
    assert "floor L3" in warning["message"]
    assert "mechanism" in refused(model)[0].message


def test_story_without_stiffness_in_a_direction() -> None:
    model = shear_building(3)
    model["lateral_lines"] = [x for x in model["lateral_lines"] if not (x["story"] == 1 and x["angle"] == 90.0)]
    problem = refused(model)[0]
    assert problem.path == "/stories/1"
    assert "L2" in problem.message
    assert "in Y" in problem.message


def test_gravity_beyond_the_stiffness_is_unstable() -> None:
    model = shear_building(2, 8_000.0)
    model["stories"][0]["gravity"] = model["stories"][1]["gravity"] = 20_000.0
    assert "gravity" in refused(model, p_delta=True)[0].message


def test_no_supports_and_unsupported_parts() -> None:
    model = building()
    model["frame"]["supports"] = []
    assert inspected(model)["no_supports"]["stops"]
    model = building()
    model["frame"]["nodes"] += [node("p", 30, 0, 0), node("q", 30, 0, 3)]
    model["frame"]["members"].append(member("far", "p", "q"))
    warning = inspected(model)["unsupported"]
    assert set(warning["nodes"]) == {"p", "q"}
    assert refused(model)[0].path == "/frame/nodes/24"


def test_nodes_without_stiffness_or_mass() -> None:
    model = building()
    model["frame"]["nodes"].append(node("idle", 40, 0, 0))
    assert not inspected(model)["loose_node"]["stops"]
    assert modal(model, modes=3)["modes"]
    model["frame"]["masses"].append({"node": "idle", "mx": 2.0})
    assert inspected(model)["mass_without_stiffness"]["nodes"] == ["idle"]


def test_member_of_zero_length_and_coincident_nodes() -> None:
    model = building()
    model["frame"]["nodes"].append(node("again", 0, 0, 3.4))
    model["frame"]["members"].append(member("nothing", "001", "again"))
    found = inspected(model)
    assert found["zero_length"]["members"] == ["nothing"]
    assert set(found["coincident_nodes"]["nodes"]) == {"001", "again"}
    assert refused(model)[0].path.startswith("/frame/members/")


def test_duplicate_members() -> None:
    model = building()
    model["frame"]["members"].append(member("twin", "001", "000", section="2"))
    assert inspected(model)["duplicate_members"]["members"] == ["c001", "twin"]


def test_floor_without_diaphragm() -> None:
    model = building()
    model["frame"]["diaphragms"] = model["frame"]["diaphragms"][:2]
    model["frame"]["floors"] = model["frame"]["floors"][:2]
    warning = inspected(model)["no_diaphragm"]
    assert "10.2" in warning["message"]
    model["frame"]["diaphragms"].append(
        {"id": "roof", "nodes": [f"{i}{j}3" for i in range(3) for j in range(2)], "rigid": False}
    )
    assert "no_diaphragm" not in inspected(model)


def test_supported_node_in_a_diaphragm() -> None:
    model = building()
    model["frame"]["supports"].append(support("001", "ux"))
    assert inspected(model)["diaphragm_supported"]["nodes"] == ["001"]


def test_one_plane() -> None:
    model = frame(
        [node("a", 0, 0, 0), node("b", 5, 0, 0), node("c", 0, 0, 3), node("d", 5, 0, 3)],
        [member("1", "a", "c"), member("2", "b", "d"), member("3", "c", "d")],
        [support("a"), support("b")],
        member_mass=True,
    )
    assert "one_plane" in inspected(model)


def test_wildly_different_stiffness() -> None:
    model = building()
    model["frame"]["sections"].append({**section(I=2e6), "id": "mm"})
    model["frame"]["members"][0]["section"] = "mm"
    assert inspected(model)["stiffness_range"]["members"] == [model["frame"]["members"][0]["id"]]
    lines = shear_building(3)
    for x in lines["lateral_lines"]:
        if x["story"] == 2:
            x["stiffness"] *= 1e4
    assert "stiffness_jump" in inspected(lines)


def test_nothing_has_mass() -> None:
    model = building()
    model["frame"] |= {"floors": [], "masses": [], "member_mass": False}
    assert refused(model)[0].message.startswith("nothing has mass")


def test_local_modes() -> None:
    model = building()
    model["frame"]["nodes"].append(node("tip", 0, -3, 6.8))
    model["frame"]["members"].append(member("whip", "002", "tip", section="3"))
    model["frame"]["masses"].append({"node": "tip", "mx": 0.5, "my": 0.5, "mz": 0.5})
    found = modal(model, modes=8)
    assert "local" in [m["kind"] for m in found["modes"]]
    assert any(w["code"] == "local_modes" for w in found["warnings"])


def test_mass_far_from_the_weights_of_the_static_method() -> None:
    model = shear_building(2)
    model["stories"][0]["weight"] = 120.0 * 9.80665
    model["stories"][1]["weight"] = 2 * 120.0 * 9.80665
    warnings = solve({"kind": "model", **model})["warnings"]
    assert [w["path"] for w in warnings if w["code"] == "weight_differs"] == ["/floors/1"]


def test_each_source_of_mass_has_its_own_column() -> None:
    model = building()
    for m in model["frame"]["members"]:
        if m["id"].startswith("x"):
            m["line_mass"] = 0.8
    model["frame"]["masses"].append({"node": "112", "mx": 2.0, "my": 2.0, "source": "equipment"})
    rows = solve({"kind": "model", **model})["mass"]
    second = rows[1]
    # beams of two bays of 6 m by two lines, columns half above and half below, braces and beams along Y
    assert second["lines"] == pytest.approx(0.8 * 6.0 * 4)
    assert second["equipment"] == pytest.approx(2.0)
    assert second["point"] == pytest.approx(3.0)
    assert second["floors"] == pytest.approx(32.0)
    brace = 7.85 * 0.003 * (36 + 3.4**2) ** 0.5
    expected = 7.85 * (0.02 * 3.4 * 6 + 0.012 * (6.0 * 4 + 5.0 * 3)) + brace / 2 + brace / 2
    assert second["members"] == pytest.approx(expected)
    assert second["total"] == pytest.approx(
        sum(second[k] for k in ("members", "lines", "point", "equipment", "floors"))
    )


def test_references_and_ids_are_named_with_their_places() -> None:
    model = building()
    f = model["frame"]
    f["members"][0]["section"] = "none such"
    f["members"][1]["id"] = f["members"][2]["id"]
    f["diaphragms"][0]["nodes"].append("nowhere")
    f["diaphragms"][1]["nodes"].append("001")
    f["stiffness_factors"] = {"nobody": {}}
    paths = {p.path for p in refused(model)}
    assert {
        "/frame/members/0/section",
        "/frame/members/2/id",
        "/frame/diaphragms/0/nodes/6",
        "/frame/diaphragms/1/nodes/6",
        "/frame/stiffness_factors/nobody",
    } <= paths


@pytest.mark.parametrize(
    "wrong",
    [
        {},
        {"lateral_lines": []},
        {**shear_building(2), "frame": small_building()["frame"]},
        {"stories": shear_building(2)["stories"]},
    ],
)
def test_a_model_is_one_of_two(wrong: dict[str, Any]) -> None:
    assert refused(wrong)


def test_lines_that_lack_something_are_all_named() -> None:
    model = shear_building(2)
    del model["stories"][0]["mass"], model["stories"][1]["inertia"], model["stories"][1]["corners"]
    model["lateral_lines"].append({"story": 9, "at": [0, 0], "angle": 0.0, "stiffness": 1.0})
    assert refused(model)[0].path == "/lateral_lines/8/story"
    model["lateral_lines"].pop()
    assert {p.path for p in refused(model)} == {"/stories/0/mass", "/stories/1/inertia"}


def test_bad_models_exit_with_two_on_the_command_line(tmp_path: Any, capsys: pytest.CaptureFixture[str]) -> None:
    model = building()
    model["frame"]["supports"] = []
    file = tmp_path / "bad.json"
    file.write_text(json.dumps({"kind": "modal", **model}))
    assert main(["solve", str(file)]) == 2
    told = json.loads(capsys.readouterr().err)["errors"]
    assert told[0]["path"] == "/frame/supports"
    assert told[0]["remedy"]
