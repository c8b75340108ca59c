"""The headless contract through the command itself."""

from __future__ import annotations

import copy
import io
import json
from pathlib import Path
from typing import Any

import jsonschema
import pytest
from plumb_core.cli import DOCUMENTS, main, schema
from plumb_core.solve import solve
from submissions import BRIEF, document, own_claims


def run(arguments: list[str], capsys: Any, stdin: str | None = None, monkeypatch: Any = None) -> tuple[int, str, str]:
    if stdin is not None:
        monkeypatch.setattr("sys.stdin", io.TextIOWrapper(io.BytesIO(stdin.encode())))
    status = main(arguments)
    captured = capsys.readouterr()
    return status, captured.out, captured.err


@pytest.fixture
def request_file(tmp_path: Path, static_request: dict[str, Any]) -> Path:
    path = tmp_path / "request.json"
    path.write_text(json.dumps(static_request))
    return path


def test_editions(capsys: Any) -> None:
    status, out, _ = run(["editions"], capsys)
    assert status == 0
    assert {e["id"] for e in json.loads(out)} == {
        "asce7-05",
        "asce7-10",
        "asce7-16",
        "asce7-22",
        "ubc97",
        "en1998-1",
        "is1893-2002",
        "is1893-2016",
        "as1170.4",
        "custom",
    }


def test_solve_a_file_twice_gives_the_same_bytes(capsys: Any, request_file: Path) -> None:
    first = run(["solve", str(request_file)], capsys)
    second = run(["solve", str(request_file)], capsys)
    assert first == second
    result = json.loads(first[1])
    assert result["engine"]
    # T = 1.4 x 0.0488 x 32.1^0.75; C_s = 0.6984 x 1.25/(6 T)
    T = 1.4 * 0.0488 * 32.1**0.75
    assert result["X"]["coefficient"] == pytest.approx(0.6984 * 1.25 / (6 * T), rel=1e-9)
    assert result["X"]["governed_by"] == "12.8-3"


def test_solve_from_standard_input(capsys: Any, monkeypatch: Any, static_request: dict[str, Any]) -> None:
    status, out, _ = run(["solve", "-"], capsys, json.dumps(static_request | {"steps": True}), monkeypatch)
    assert status == 0
    steps = {s["id"]: s for s in json.loads(out)["steps"]}
    assert steps["C_s.X"]["clause"].startswith("12.8.1.1")
    assert "C_s_upper.X" in steps["C_s.X"]["inputs"]


def test_lines_answer_line_by_line_and_refuse_in_their_line(
    capsys: Any, monkeypatch: Any, static_request: dict[str, Any]
) -> None:
    lines = "\n".join([json.dumps(static_request), "{not json", json.dumps({"kind": "nothing"})])
    status, out, _ = run(["solve", "--lines", "-"], capsys, lines, monkeypatch)
    results = [json.loads(line) for line in out.splitlines()]
    assert status == 0
    assert results[0]["X"]["V"] > 0
    assert results[1]["errors"][0]["path"] == "/"
    assert results[2]["errors"][0]["path"] == "/kind"


def bad(change: dict[str, Any]) -> dict[str, Any]:
    request: dict[str, Any] = copy.deepcopy(BRIEF) | {"kind": "static"}
    for path, value in change.items():
        *above, last = path.split("/")
        at: Any = request
        for key in above:
            at = at[int(key)] if isinstance(at, list) else at[key]
        at[last] = value
    return request


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"site/S_S": -1.0}, "/site/S_S"),
        ({"stories/3/height": -3.9}, "/stories/3/height"),
        ({"stories/3/weight": 0.0}, "/stories/3/weight"),
        ({"stories/3/name": "L1"}, "/stories/3/name"),
        ({"site/colour": "red"}, "/site/colour"),
        ({"edition": "asce7-99"}, "/edition"),
        ({"site/site_class": "Z"}, "/site/site_class"),
        ({"system/X/period_type": "brick"}, "/system/X/period_type"),
        ({"site/S_S": "1.2"}, "/site/S_S"),
        ({"site/supplements": [3]}, "/site/supplements"),
        ({"stories": []}, "/stories"),
    ],
)
def test_bad_input_ends_with_2_names_the_place_and_prints_nothing(
    change: dict[str, Any], path: str, capsys: Any, monkeypatch: Any
) -> None:
    status, out, err = run(["solve", "-"], capsys, json.dumps(bad(change)), monkeypatch)
    assert (status, out) == (2, "")
    errors = json.loads(err)["errors"]
    assert path in [e["path"] for e in errors]
    assert all(e["message"] and e["remedy"] for e in errors)


@pytest.mark.parametrize("word", ["NaN", "Infinity", "-Infinity", "1e999"])
def test_what_is_no_finite_number_is_refused(
    word: str, capsys: Any, monkeypatch: Any, static_request: dict[str, Any]
) -> None:
    text = json.dumps(static_request).replace('"S_S": 1.2', f'"S_S": {word}')
    status, out, err = run(["solve", "-"], capsys, text, monkeypatch)
    assert (status, out) == (2, "")
    assert json.loads(err)["errors"]


def test_every_problem_is_named_at_once(capsys: Any, monkeypatch: Any) -> None:
    request = bad({"site/S_S": -1.0, "stories/0/height": 0.0, "edition": "x", "stories/5/name": "L2"})
    _, _, err = run(["solve", "-"], capsys, json.dumps(request), monkeypatch)
    assert {e["path"] for e in json.loads(err)["errors"]} == {
        "/site/S_S",
        "/stories/0/height",
        "/edition",
        "/stories/5/name",
    }


def test_recheck_a_document(capsys: Any, tmp_path: Path) -> None:
    path = tmp_path / "clinic.plumb.json"
    path.write_text(json.dumps(document(BRIEF, own_claims(BRIEF))))
    status, out, _ = run(["recheck", str(path)], capsys)
    assert status == 0
    assert json.loads(out)["origins"] == []


@pytest.mark.parametrize("name", DOCUMENTS)
def test_schemas_are_printed(name: str, capsys: Any) -> None:
    status, out, _ = run(["schema", name], capsys)
    assert status == 0
    assert isinstance(json.loads(out), dict)


def test_a_file_that_is_not_there(capsys: Any) -> None:
    status, out, err = run(["solve", "/nowhere/at/all.json"], capsys)
    assert (status, out) == (2, "")
    assert "cannot read" in json.loads(err)["errors"][0]["message"]


def test_the_editions_of_a_document_side_by_side(capsys: Any, tmp_path: Path) -> None:
    brief = BRIEF | {
        "comparison_editions": ["asce7-10"],
        "comparisons": {"asce7-10": {"site": {"S_S": 1.2, "S_1": 0.36, "T_L": 8.0}}},
    }
    file = tmp_path / "x.plumb.json"
    file.write_text(json.dumps(document(brief, [])))
    status, out, _ = run(["across", str(file)], capsys)
    found = json.loads(out)
    assert (status, [e["id"] for e in found["editions"]]) == (0, ["asce7-16", "asce7-10"])
    # class D: F_v 1.94 and 1.68, F_a 1.02 both; V = min of both bounds, T beyond T_S: ratio of S_D1, 1.68/(1.94 x 1.5)
    ratio = next(p["ratio"] for p in found["shear_ratios"] if p["direction"] == "X")
    assert ratio == pytest.approx(1.68 / (1.94 * 1.5))


@pytest.mark.parametrize("kind", ["scaling", "torsion", "drift"])
def test_results_of_the_later_kinds_fit_the_printed_schema(kind: str) -> None:
    body: dict[str, Any] = {
        "scaling": {"X": {"static": 2.0, "dynamic": 1.0}},
        "torsion": {"rows": [{"story": "L1", "ends": [1.0, 1.5]}]},
        "drift": {
            "system": {"X": {"C_d": 5.0}},
            "occupancy": {"risk_category": "II"},
            "stories": [{"name": "L1", "height": 4.0}],
            "elastic_drift": [0.01],
        },
    }[kind]
    answer = solve({"kind": kind, "edition": "asce7-16", **body})
    jsonschema.validate(answer, schema("result"))
    for key in answer:
        if key not in ("steps", "X"):
            with pytest.raises(jsonschema.ValidationError):
                jsonschema.validate({k: v for k, v in answer.items() if k != key}, schema("result"))
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate(answer | {"more": 1.0}, schema("result"))


def test_a_code_of_the_catalogue_is_explained(capsys: Any) -> None:
    status, out, _ = run(["rules", "S54"], capsys)
    assert status == 0
    assert out.startswith("S54  Period above its upper limit")
    assert "ASCE 7 12.8.2" in out
    status, out, _ = run(["rules"], capsys)
    assert (status, len(out.splitlines())) == (0, 93)
    status, out, err = run(["rules", "S54", "S99"], capsys)
    assert (status, out) == (2, "")
    assert json.loads(err)["errors"][0]["path"] == "/S99"
