"""Submission to submission: each deviation is in one group, each open finding has the state of its worst check."""

from __future__ import annotations

import copy
import json
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from mangling import mangled
from plumb_core.checks.recheck import recheck
from plumb_core.cli import main
from plumb_core.difference.compared import compared, difference
from plumb_core.difference.states import OpenFinding, Submitted
from plumb_core.documents.differences import DIFFERENCE
from plumb_core.documents.reading import read_recheck
from plumb_core.errors import InputRefused
from plumb_core.rules import Key
from slips_made import base, document, written
from test_catalogue import SEEDS, Seed
from test_facts import STORIES, weighed
from timing import process_seconds

EDITION = "asce7-16"
GROUPS = ("settled", "open", "undecided", "new")


def submitted(label: str, **factors: float) -> dict[str, Any]:
    """A submission with some values typed wrong, and all that follows from them; all others are right."""
    _, evaluation = base(EDITION)
    pins = {}
    for name, factor in factors.items():
        quantity, _, direction = name.partition("__")
        key = Key(quantity, direction or None)
        pins[key] = float(written(evaluation.at(key).value * factor))
    made = document(EDITION, evaluation.assuming(pins=pins))
    made["submission"]["label"] = label
    return made


def claim(made: dict[str, Any], quantity: str, direction: str | None = None) -> dict[str, Any]:
    return next(c for c in made["submission"]["claims"] if (c["quantity"], c.get("direction")) == (quantity, direction))


def with_findings(made: dict[str, Any], *findings: tuple[int, str, list[str]]) -> dict[str, Any]:
    parts = [
        {"number": n, "title": f"Finding {n}", "status": status, "checks": checks} for n, status, checks in findings
    ]
    return {**made, "review": {"findings": parts}}


def ids(group: list[dict[str, Any]]) -> set[str]:
    return {each["check"] for each in group}


def test_each_deviation_is_in_one_group() -> None:
    """F_a is corrected, V in X is changed and not right, W stays wrong, R in Y is not stated any more, rho is new."""
    old = submitted("S0", F_a=1.2, V__X=1.3, W=1.1, R__Y=0.7)
    new = submitted("S1", V__X=1.17, W=1.1, R__Y=0.7, rho__X=1.25)
    new["submission"]["claims"].remove(claim(new, "R", "Y"))
    told = difference(old, new)
    assert (told["before"], told["after"]) == ("S0", "S1")
    assert "F_a" in ids(told["settled"])
    states = {each["check"]: each["why"] for each in told["open"]}
    assert states["V.X"] == "changed, and not right"
    assert states["W"] == "still there"
    assert "R.Y" in ids(told["undecided"])
    assert "rho.X" in ids(told["new"])
    # none is in two groups
    assert sum(len(told[g]) for g in GROUPS) == len(set().union(*(ids(told[g]) for g in GROUPS)))
    (of_V,) = [each for each in told["open"] if each["check"] == "V.X"]
    assert of_V["moved"] == pytest.approx(1.17 / 1.3 - 1.0, abs=1e-4)
    assert (of_V["was"], of_V["now"]) == ("differs", "differs")


def test_a_value_that_nobody_asked_about_is_listed_with_how_far_it_moved() -> None:
    """0.4 % on the weight: within the tolerance, and another number; nothing follows from it."""
    old = with_findings(submitted("S0", F_a=1.2), (3, "issued", ["F_a"]))
    new = submitted("S1")
    weight = claim(new, "W")
    weight |= {"value": weight["value"] * 1.004, "text": f"{weight['value'] * 1.004:.1f}"}
    told = difference(old, new)
    (moved,) = [each for each in told["changed"] if each["check"] == "W"]
    assert moved["moved"] == pytest.approx(0.004, abs=2e-4)
    assert (moved["was"], moved["now"], moved["finding"]) == ("agrees", "agrees", None)
    assert moved["why"] == "no finding requires it"
    # what follows from a finding's value was required to change
    assert {each["finding"] for each in told["settled"]} == {3}
    assert not {"S_MS", "S_DS", "C_s.X"} & ids(told["changed"])


def test_a_finding_has_the_state_of_its_worst_check() -> None:
    old = with_findings(
        submitted("S0", F_a=1.2, V__X=1.3, W=1.1),
        (1, "issued", ["F_a"]),
        (2, "answered", ["F_a", "W"]),
        (4, "issued", ["V.X"]),
        (5, "settled", ["W"]),
        (6, "issued", ["no_such_check"]),
    )
    told = difference(old, submitted("S1", V__X=1.17, W=1.1))
    assert {f["number"]: f["state"] for f in told["findings"]} == {
        1: "settled",
        2: "open",
        4: "changed but not right",
        6: "undecided",
    }


def test_what_came_and_went_is_named() -> None:
    old, new = submitted("S0"), submitted("S1")
    for made, case, file in ((old, "EQ one", "a.csv"), (new, "EQ two", "b.csv")):
        made["submission"]["cases"] = [{"name": case, "kind": "static", "direction": "X"}]
        forces = [c for c in made["submission"]["claims"] if c["quantity"] == "F" and c["direction"] == "X"]
        for each in forces:
            each |= {"case": case, "source": {"file": file}}
    told = difference(old, new)
    assert told["cases"] == {"came": ["EQ two"], "went": ["EQ one"]}
    assert told["files"] == {"came": ["b.csv"], "went": ["a.csv"]}
    assert told["stories"] == {"came": [], "went": []}
    # the forces of one case are gone, and those of another one are there
    assert told["values"] == {"came": [f"F_x X: {len(forces)} values"], "went": [f"F_x X: {len(forces)} values"]}


@settings(max_examples=12, deadline=None)
@given(st.dictionaries(st.sampled_from(["F_a", "F_v", "W", "V__X", "T_a__Y"]), st.sampled_from([0.8, 1.15, 1.4])))
def test_a_submission_compared_with_itself_has_changed_nothing(factors: dict[str, float]) -> None:
    made = submitted("S0", **factors)
    told = difference(made, copy.deepcopy(made))
    assert (told["settled"], told["new"], told["changed"], told["undecided"]) == ([], [], [], [])
    assert all(each["why"] == "still there" and not each["moved"] for each in told["open"])
    # and there and back: what is new one way is settled the other
    right = submitted("S1")
    assert ids(difference(made, right)["settled"]) == ids(difference(right, made)["new"])


def test_the_command_and_what_it_refuses(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    old, new = tmp_path / "old.json", tmp_path / "new.json"
    old.write_text(json.dumps(submitted("S0", W=1.1)))
    new.write_text(json.dumps(submitted("S1")))
    assert main(["compare", str(old), str(new)]) == 0
    told = json.loads(capsys.readouterr().out)
    assert "W" in ids(told["settled"])
    new.write_text("{}")
    assert main(["compare", str(old), str(new)]) == 2
    assert "errors" in json.loads(capsys.readouterr().err)
    with pytest.raises(InputRefused):
        difference([], {})


def test_a_deviation_that_was_inherited_and_starts_here_now_is_new() -> None:
    """F_a was wrong, and V in X with it; now F_a is right, and V in X has a slip of its own."""
    told = difference(submitted("S0", F_a=1.2), submitted("S1", V__X=1.1))
    assert "F_a" in ids(told["settled"])
    (fresh,) = [each for each in told["new"] if each["check"] == "V.X"]
    assert fresh["why"] == "it came from another deviation before, and starts here now"
    assert "V.X" not in ids(told["open"])


@pytest.mark.parametrize("code", sorted(SEEDS))
def test_a_slip_that_is_corrected_leaves_nothing_there(code: str) -> None:
    """Many checks are made only where something is out: that they are gone is then what settles them."""
    editions, change = SEEDS[code]
    right, wrong = Seed(editions[0]), Seed(editions[0])
    change(wrong)
    told = difference(wrong.document, right.document)
    assert told["open"] == told["new"] == []
    stated = {(c["quantity"], c.get("direction")) for c in right.claims}
    for each in told["undecided"]:
        # what the slip stated, and nobody states any more
        name, _, direction = each["check"].partition(".")
        assert (name, direction or None) not in stated


def make_up(label: str, *, of_L2: float = 1.0, stated: bool = True) -> dict[str, Any]:
    """Weights, with the loads that they are made up of."""
    made = weighed({("Structure", "L2"): of_L2}, dict.fromkeys(STORIES, 3600.0))
    made["submission"]["label"] = label
    if not stated:
        of_loads = ("load_amount", "load_share", "load_kind")
        kept = [c for c in made["submission"]["claims"] if c["quantity"] not in of_loads]
        made["submission"]["claims"] = kept
    return made


def test_a_deviation_is_not_settled_by_a_table_that_is_gone() -> None:
    """The loads of L2 do not add up to its weight: corrected it is settled, without the loads nobody can say."""
    wrong = make_up("S0", of_L2=0.85)
    (name,) = ids(difference(wrong, wrong)["open"])
    assert name.startswith("load_amount.") or name.startswith("make_up_w.")
    finding = with_findings(wrong, (1, "issued", [name]))
    for later, state in ((make_up("S1"), "settled"), (make_up("S1", stated=False), "undecided")):
        told = difference(finding, later)
        assert [f["state"] for f in told["findings"]] == [state]
        assert name in ids(told[state])


def test_what_is_not_read_yet_has_not_gone() -> None:
    """The table of the loads is there, and a question about it is open."""
    wrong = make_up("S0", of_L2=0.85)
    later = make_up("S1", stated=False)
    # two loads of three stories, with what counts of them, and what they are
    assert sorted(text.split(": ")[1] for text in difference(wrong, later)["values"]["went"]) == [
        "2 values",
        "6 values",
        "6 values",
    ]
    later["open"] = [{"file": "loads.csv", "kind": "weights", "quantities": ["load_amount", "load_share", "load_kind"]}]
    told = difference(wrong, later)
    assert told["values"]["went"] == []
    assert (told["settled"], told["open"], len(told["undecided"])) == ([], [], 1)


def test_the_problems_of_both_documents_are_named() -> None:
    old, new = (copy.deepcopy(submitted(label)) for label in ("S0", "S1"))
    old["brief"]["edition"] = "none such"
    new["submission"]["claims"][2]["value"] = []
    with pytest.raises(InputRefused) as refused:
        difference(old, new)
    paths = [p.path for p in refused.value.problems]
    assert [p for p in paths if p.startswith("/old/brief/edition")]
    assert [p for p in paths if p.startswith("/new/submission/claims/2/value")]
    assert len(paths) == len([p for p in paths if p.startswith(("/old/", "/new/"))])


def test_what_agrees_decides_nothing() -> None:
    """A finding about a value that agrees is the reviewer's; as evidence beside a deviation it does not count."""
    old = submitted("S0", F_a=1.2)
    old = with_findings(old, (1, "issued", ["W"]), (2, "issued", ["F_a", "W"]), (3, "issued", []))
    told = {f["number"]: f for f in difference(old, submitted("S1"))["findings"]}
    assert {n: f["state"] for n, f in told.items()} == {1: "undecided", 2: "settled", 3: "undecided"}
    assert (told[1]["checks"], told[2]["checks"]) == ({}, {"F_a": "settled"})
    # a value that deviates now does
    told = {f["number"]: f for f in difference(old, submitted("S1", W=1.1))["findings"]}
    assert told[1]["state"] == told[2]["state"] == "changed but not right"


@pytest.mark.parametrize(("factor", "state"), [(1.0, "settled"), (1.3, "changed but not right"), (None, "open")])
def test_a_gap_is_settled_by_a_right_value(factor: float | None, state: str) -> None:
    """R in both directions is not stated; then it is, rightly, or wrongly in X, or not."""
    old = submitted("S0")
    old["submission"]["claims"] = [c for c in old["submission"]["claims"] if c["quantity"] != "R"]
    old = with_findings(old, (1, "issued", ["gap_R"]))
    new = {**submitted("S1"), "submission": old["submission"]} if factor is None else submitted("S1", R__X=factor)
    assert [f["state"] for f in difference(old, new)["findings"]] == [state]


@settings(max_examples=100, deadline=None)
@given(st.data())
def test_whatever_is_wrong_with_a_document_it_is_compared_or_refused_with_its_places(data: st.DataObject) -> None:
    old = with_findings(submitted("S0", F_a=1.2), (1, "issued", ["F_a"]), (2, "answered", ["gap_R", "W"]))
    new = submitted("S1", V__X=1.2)
    for made in (old, new):
        # few enough that findings and labels are met as often as claims
        made["submission"]["claims"] = made["submission"]["claims"][:8]
    pair = data.draw(mangled([{"old": old, "new": new}]))
    told, problems = None, []
    try:
        told = difference(pair.get("old"), pair.get("new"))
    except InputRefused as no:
        problems = no.problems
    assert all(p.path.startswith("/") and p.message and p.remedy for p in problems)
    assert bool(problems) is (told is None)
    if told is not None:
        json.dumps(told, allow_nan=False)
        assert DIFFERENCE.validate_python(told) == told


@pytest.mark.timing
def test_ten_thousand_values_are_compared_in_half_a_second() -> None:
    """Forces of many cases: in the later submission those of every tenth case are others, and wrong."""
    sides = []
    for label, factors in (("S0", (1.0, 1.004)), ("S1", (1.0, 1.2))):
        made = submitted(label)
        forces = [c for c in made["submission"]["claims"] if c["quantity"] == "F"]
        for i in range(10_000 // len(forces)):
            factor = factors[i % 10 == 0]
            cased = ({**c, "case": f"Case {i}", "value": c["value"] * factor, "text": ""} for c in forces)
            made["submission"]["claims"] += cased
        document = read_recheck(made)
        answer = recheck(document)
        sides.append(Submitted(label, answer["checks"], document.submission.claims, answer["steps"]["carried"]))
    before, after = sides
    findings = [OpenFinding(i, "", (check["id"],)) for i, check in enumerate(before.checks[:60])]
    told = compared(before, after, findings)
    assert len(before.claims) >= 10_000
    assert len(told["new"]) >= 500
    assert process_seconds(lambda: compared(before, after, findings), repeats=5) < 0.5
