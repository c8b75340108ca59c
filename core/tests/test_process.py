"""What an analysis as a whole leaves to ask.

Each slip in a submission that has it, and its silence in one that has not.
"""

from __future__ import annotations

import copy
from typing import Any

import pytest
from canonical import Made
from test_stages import modal_alone, rechecked, right, stated, with_items


def asked(made: Made) -> dict[str, tuple[str, str]]:
    """Verdict and slip of what is asked and noted of the whole, by id."""
    checks = rechecked(made)["checks"]
    return {c["id"]: (c["verdict"], c["slip"]) for c in checks if c["kind"] in ("process", "combination") and c["slip"]}


def questions(made: Made) -> set[str]:
    return {slip for verdict, slip in asked(made).values() if verdict in ("question", "gap")}


def with_brief(made: Made, change: Any) -> Made:
    brief = copy.deepcopy(made.brief)
    change(brief)
    return Made(made.edition, brief, made.tables, made.values)


def test_one_base_shear_for_both_directions_is_asked_about() -> None:
    # 0.92 s and 0.71 s on the falling branch, and no limit of the period
    made = right("en1998-1")
    x = f"{made.values['static']['X']['V']:.1f}"
    assert x != f"{made.values['static']['Y']['V']:.1f}"
    one = stated(made, "Static base shear", 3, x)
    assert asked(one)["process_V_static.both"] == ("question", "S55")
    assert "process_V_static.both" not in asked(made)


def test_one_period_for_two_systems_is_asked_about() -> None:
    made = right("en1998-1")
    one = with_items(made, "Period used;;0.92;0.92;s")
    assert asked(one)["process_T.both"] == ("question", "S55")
    note = next(c for c in rechecked(one)["checks"] if c["id"] == "process_T.both")["note"]
    assert "is 0.92 in both directions" in note
    assert "process_T.both" not in asked(with_items(made, "Period used;;0.92;0.71;s"))


def tall(irregular: bool) -> Made:
    """20 stories of 3.5 m, 70 m in all, above the 160 ft of Table 12.6-1; static forces alone."""

    def change(brief: dict[str, Any]) -> None:
        brief["stories"] = [brief["stories"][0] | {"name": f"L{i + 1}"} for i in range(20)]
        for d in "XY":
            brief["system"][d]["regular"] = not irregular
            brief["period"][d] = {"analysis": 1.0}

    made = with_brief(right("asce7-16"), change)
    tables = {"parameters": "Item;Value;X;Y;Unit\nStatic base shear;;9000;9000;kN\n"}
    return Made(made.edition, made.brief, tables, made.values)


def test_static_forces_alone_where_they_are_not_permitted() -> None:
    answer = {c["id"]: (c["verdict"], c["slip"]) for c in rechecked(tall(irregular=True))["checks"]}
    assert {i: answer[i] for i in answer if i.startswith("permission_static")} == {
        "permission_static_permitted.X": ("breaches", "S60"),
        "permission_static_permitted.Y": ("breaches", "S60"),
    }
    assert "S60" not in questions(tall(irregular=False))
    # with a modal analysis beside it nothing is asked
    modal = with_items(tall(irregular=True), "Dynamic base shear before scaling;;8000;8000;kN")
    assert "S60" not in questions(modal)


def test_drifts_of_scaled_results_are_noted_where_the_code_leaves_drifts_unscaled() -> None:
    made = modal_alone(right("asce7-16"))
    lines = [
        line.replace(";before;;reduced", ";after;;reduced") if "modes +e" in line or "modes -e" in line else line
        for line in made.tables["cases"].splitlines()
    ]
    after = Made(made.edition, made.brief, made.tables | {"cases": "\n".join(lines) + "\n"}, made.values)
    assert max(made.values["factors"].values()) > 1.0, "nothing to scale, nothing to test"
    slips = {i: v for i, v in asked(after).items() if v[1] == "S69"}
    assert {v for v, _ in slips.values()} == {"note"}
    assert set(slips) == {f"process_scaled.{d}.drifts" for d in "XY" if made.values["factors"][d] > 1.0}
    assert "S69" not in {slip for _, slip in asked(made).values()}


def test_results_of_combined_modes_are_noted_as_not_concurrent() -> None:
    made = right("asce7-16")
    assert asked(made)["process_modal_combination.maxima"] == ("note", "S88")
    static = Made(made.edition, made.brief, {k: made.tables[k] for k in ("cases", "forces")}, made.values)
    assert "process_modal_combination.maxima" not in asked(static)


def test_periods_of_another_state_of_the_structure_have_one_ratio() -> None:
    made = right("asce7-16")

    def slips(x: str, y: str) -> list[tuple[str, str | None]]:
        checks = rechecked(with_items(made, f"Period from analysis;;{x};{y};s"))["checks"]
        return [(c["id"], c["slip"]) for c in checks if c["kind"] == "taken_from"]

    # 1.2 times 0.92 s and 0.71 s
    assert slips("1.104", "0.852") == [("taken_from_T_analysis.X", "S89"), ("taken_from_T_analysis.Y", "S89")]
    assert slips("1.104", "0.71") == [("taken_from_T_analysis.X", None)]
    assert slips("0.92", "0.71") == []


def test_modal_results_without_their_modes_are_a_gap() -> None:
    made = right("asce7-16")
    assert asked(made.without("modes"))["process_modes_count.run"] == ("gap", "S90")
    assert "process_modes_count.run" not in asked(made)


@pytest.mark.parametrize(("level", "verdict"), [("Base", "note"), ("foundation", "note"), ("L1", "question")])
def test_a_base_at_a_floor_of_the_building_is_asked_about(level: str, verdict: str) -> None:
    made = stated(right("asce7-16"), "Base level", 1, level)
    assert [(c["verdict"], c["slip"]) for c in rechecked(made)["checks"] if c["quantity"] == "base_level"] == [
        (verdict, "S40" if verdict == "question" else None)
    ]


def test_discontinuous_elements_ask_for_the_overstrength() -> None:
    made = right("asce7-16")

    def offset(brief: dict[str, Any]) -> None:
        for d in "XY":
            brief["system"][d] |= {"Omega_0": 3.0}
        brief["system"]["irregularities"] = {"out_of_plane_offset": True}

    lacking = with_brief(made, offset)
    found = asked(lacking)
    assert {i for i in found if "overstrength" in i} == {
        "combination_load_combinations.overstrength X",
        "combination_load_combinations.overstrength Y",
    }
    with_them = lacking.tables["combinations"] + "".join(f"O{d};1.3 D + 1.0 L + 3.0 {d} static +\n" for d in "XY")
    complete = Made(made.edition, lacking.brief, made.tables | {"combinations": with_them}, made.values)
    assert not [i for i in asked(complete) if "overstrength" in i]
    assert not [i for i in asked(made) if "overstrength" in i]


def test_imposed_load_that_no_combination_takes_is_asked_about() -> None:
    made = right("asce7-16")
    bare = Made(
        made.edition,
        made.brief,
        made.tables | {"combinations": made.tables["combinations"].replace(" + 1 L", "").replace(" + 0 L", "")},
        made.values,
    )
    assert bare.tables["combinations"] != made.tables["combinations"]
    assert asked(bare)["combination_load_combinations.imposed load"] == ("question", "S86")
    assert "combination_load_combinations.imposed load" not in asked(made)
