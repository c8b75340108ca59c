"""A recheck under assumptions: merge patches of the brief, and what flips."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from plumb_core import DIRECTIONS
from plumb_core.checks.recheck import context_of
from plumb_core.cli import main
from plumb_core.errors import InputRefused
from plumb_core.sensitivity import sensitivity
from plumb_core.what_if import merge_patch, what_if
from test_stages import right, taken_in

CLINIC = Path(__file__).parent / "data" / "demo" / "port-maren.plumb.json"


@pytest.mark.parametrize(
    ("target", "patch", "result"),
    [
        # RFC 7396, appendix A
        ({"a": "b"}, {"a": "c"}, {"a": "c"}),
        ({"a": "b"}, {"b": "c"}, {"a": "b", "b": "c"}),
        ({"a": "b"}, {"a": None}, {}),
        ({"a": ["b"]}, {"a": "c"}, {"a": "c"}),
        ({"a": {"b": "c"}}, {"a": {"b": "d", "c": None}}, {"a": {"b": "d"}}),
        ({"a": [{"b": "c"}]}, {"a": [1]}, {"a": [1]}),
        (["a", "b"], ["c", "d"], ["c", "d"]),
        ({"a": "b"}, ["c"], ["c"]),
        ({"e": None}, {"a": 1}, {"e": None, "a": 1}),
        ([1, 2], {"a": "b", "c": None}, {"a": "b"}),
        ({}, {"a": {"bb": {"ccc": None}}}, {"a": {"bb": {}}}),
    ],
)
def test_a_merge_patch(target: Any, patch: Any, result: Any) -> None:
    assert merge_patch(target, patch) == result


def test_what_flips_under_another_class_of_the_soil() -> None:
    document = json.loads(CLINIC.read_text())
    answer = what_if(document, {"site": {"site_class": "C"}})
    flips = {f["check"]: (f["from"], f["to"]) for f in answer["flips"]}
    assert flips["site_class"] == ("agrees", "differs")
    # Table 11.4-1 has other coefficients for class C at S_S = 1.0
    assert flips["F_a"] == ("agrees", "differs")
    assert what_if(document, {})["flips"] == []


def test_the_command_writes_what_flips_and_changes_no_file(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    patch = tmp_path / "patch.json"
    patch.write_text('{"site": {"site_class": "C"}}')
    before = CLINIC.read_bytes()
    assert main(["recheck", str(CLINIC), "--with", str(patch)]) == 0
    assert any(f["check"] == "site_class" for f in json.loads(capsys.readouterr().out)["flips"])
    assert CLINIC.read_bytes() == before


@pytest.mark.parametrize("patch", [{"site": {"site_class": "Q"}}, [1], {"mood": 1}])
def test_a_patch_that_cannot_be_is_refused(patch: Any) -> None:
    with pytest.raises(InputRefused):
        what_if(json.loads(CLINIC.read_text()), patch)


def test_the_damping_of_the_modes_is_varied_where_there_are_modes() -> None:
    """Two modes of 0.6 and 0.5 s: CQC by A. Der Kiureghian (1981), the correlation worked out here."""
    edition = "asce7-16"
    document = taken_in(right(edition)).document
    shown = {(s["input"], s["after"]): s for s in sensitivity(document)}
    lower, higher = (shown["Damping of the modes", after] for after in ("3 %", "7 %"))
    assert lower["before"].startswith("5 %")
    assert lower["patch"] == {}
    changes = [
        {v["direction"]: v["change"] for v in s["values"] if v["quantity"] == "V_dynamic"} for s in (lower, higher)
    ]
    with np.errstate(all="ignore"):
        context = context_of(document)
    for d in DIRECTIONS:
        shares, ordinates, T, W = (context.independent.value(n, d) for n in ("mass_share", "S_a_modes", "T_modes", "W"))
        V = shares * W * ordinates
        for change, damping in zip(changes, (0.03, 0.07), strict=True):
            assert change[d] == pytest.approx(cqc(V, T, damping) / cqc(V, T, 0.05) - 1.0, abs=1e-9)
    # no brief without modes has it
    brief_alone = document.model_copy(update={"submission": document.submission.model_copy(update={"claims": []})})
    assert not [s for s in sensitivity(brief_alone) if s["input"] == "Damping of the modes"]


def cqc(V: Any, T: Any, damping: float) -> float:
    total = 0.0
    for Vi, Ti in zip(V, T, strict=True):
        for Vj, Tj in zip(V, T, strict=True):
            r = Ti / Tj
            rho = 8 * damping**2 * (1 + r) * r**1.5 / ((1 - r**2) ** 2 + 4 * damping**2 * r * (1 + r) ** 2)
            total += rho * Vi * Vj
    return float(total**0.5)
