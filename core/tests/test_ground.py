"""Ground motion values of ASCE/SEI 7-16 against the printed tables and hand-worked values."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from plumb_core.errors import InputRefused
from plumb_core.solve import solve

# typed from the tables, column by column, and not from the module's text blocks
FA_COLUMNS = {
    0.25: "A 0.8 B 0.9 C 1.3 D 1.6 E 2.4",
    0.50: "A 0.8 B 0.9 C 1.3 D 1.4 E 1.7",
    0.75: "A 0.8 B 0.9 C 1.2 D 1.2 E 1.3",
    1.00: "A 0.8 B 0.9 C 1.2 D 1.1 E 1.2",
    1.25: "A 0.8 B 0.9 C 1.2 D 1.0 E 1.2",
    1.50: "A 0.8 B 0.9 C 1.2 D 1.0 E 1.2",
}
FV_COLUMNS = {
    0.1: "A 0.8 B 0.8 C 1.5 D 2.4 E 4.2",
    0.2: "A 0.8 B 0.8 C 1.5 D 2.2 E 3.3",
    0.3: "A 0.8 B 0.8 C 1.5 D 2.0 E 2.8",
    0.4: "A 0.8 B 0.8 C 1.5 D 1.9 E 2.4",
    0.5: "A 0.8 B 0.8 C 1.5 D 1.8 E 2.2",
    0.6: "A 0.8 B 0.8 C 1.4 D 1.7 E 2.0",
}


def cells(columns: dict[float, str]) -> list[tuple[str, float, float]]:
    found = []
    for at, column in columns.items():
        words = column.split()
        found += [(words[i], at, float(words[i + 1])) for i in range(0, len(words), 2)]
    return found


def ground(risk_category: str = "II", **site: Any) -> dict[str, Any]:
    values = {"S_S": 0.5, "S_1": 0.15, "T_L": 8.0, "site_class": "D"} | site
    return solve(
        {"kind": "ground", "edition": "asce7-16", "site": values, "occupancy": {"risk_category": risk_category}}
    )


@pytest.mark.parametrize(("site_class", "at", "expected"), cells(FA_COLUMNS))
def test_every_cell_of_table_11_4_1(site_class: str, at: float, expected: float) -> None:
    assert ground(S_S=at, site_class=site_class)["F_a"] == pytest.approx(expected, abs=1e-12)


@pytest.mark.parametrize(("site_class", "at", "expected"), cells(FV_COLUMNS))
def test_every_cell_of_table_11_4_2(site_class: str, at: float, expected: float) -> None:
    assert ground(S_1=at, site_class=site_class)["F_v"] == pytest.approx(expected, abs=1e-12)


@pytest.mark.parametrize(
    ("site", "symbol", "expected"),
    [
        # class D, S_S = 0.6: 1.4 + (0.6 - 0.5)/0.25 x (1.2 - 1.4) = 1.4 - 0.4 x 0.2 = 1.32
        ({"S_S": 0.6}, "F_a", 1.32),
        # class D, S_1 = 0.36: 2.0 + 0.6 x (1.9 - 2.0) = 1.94
        ({"S_1": 0.36}, "F_v", 1.94),
        # class E, S_S = 0.9: 1.3 + 0.6 x (1.2 - 1.3) = 1.24
        ({"S_S": 0.9, "site_class": "E"}, "F_a", 1.24),
        # beyond the ends the end values hold
        ({"S_S": 0.05}, "F_a", 1.6),
        ({"S_S": 3.0}, "F_a", 1.0),
        ({"S_1": 0.02}, "F_v", 2.4),
        ({"S_1": 1.4}, "F_v", 1.7),
    ],
)
def test_interpolation_by_hand(site: dict[str, Any], symbol: str, expected: float) -> None:
    assert ground(**site)[symbol] == pytest.approx(expected, abs=1e-12)


def test_class_d_by_default_keeps_f_a_at_1_2() -> None:
    assert ground(S_S=1.5, class_by_default=True)["F_a"] == 1.2
    # below 1.2 is lifted, above is left: at S_S = 0.5 the table gives 1.4
    assert ground(S_S=0.5, class_by_default=True)["F_a"] == pytest.approx(1.4)
    assert ground(S_S=1.5, S_1=0.6, class_by_default=True)["F_v"] == pytest.approx(1.7)


def test_class_b_without_measured_velocity_takes_1_0() -> None:
    unmeasured = ground(site_class="B", velocity_measured=False)
    assert (unmeasured["F_a"], unmeasured["F_v"]) == (1.0, 1.0)
    measured = ground(site_class="B")
    assert (measured["F_a"], measured["F_v"]) == (0.9, 0.8)


def test_class_f_needs_a_site_response_analysis() -> None:
    with pytest.raises(InputRefused) as refused:
        ground(site_class="F")
    (problem,) = refused.value.problems
    assert problem.path == "/site/site_class"
    assert "F_a and F_v" in problem.remedy
    given_values = ground(site_class="F", F_a=1.1, F_v=2.1)
    assert given_values["S_MS"] == pytest.approx(0.55)
    assert given_values["site_specific_required"] is True


def test_values_by_hand_with_supplement_3() -> None:
    """S_S = 1.2, S_1 = 0.36, class D.

    F_a = 1.1 + (1.2 - 1.0)/0.25 x (1.0 - 1.1) = 1.02; S_MS = 1.224; S_DS = 0.816.
    F_v = 1.94; S_M1 = 1.5 x 1.94 x 0.36 = 1.0476; S_D1 = 0.6984.
    T_S = 0.6984/0.816 = 0.855882; T_0 = 0.171176.
    """
    result = ground(S_S=1.2, S_1=0.36)
    expected = {
        "F_a": 1.02,
        "S_MS": 1.224,
        "S_DS": 0.816,
        "F_v": 1.94,
        "S_M1": 1.0476,
        "S_D1": 0.6984,
        "T_S": 0.8558823529,
        "T_0": 0.1711764706,
    }
    for symbol, value in expected.items():
        assert result[symbol] == pytest.approx(value, rel=1e-9), symbol
    assert result["design_category"] == "D"
    assert result["site_specific_required"] is True
    assert any("exception 2" in note for note in result["notes"])


@pytest.mark.parametrize("supplements", [[], [1]])
def test_before_supplement_3_s_m1_is_the_plain_product(supplements: list[int]) -> None:
    # 1.94 x 0.36 = 0.6984
    assert ground(S_S=1.2, S_1=0.36, supplements=supplements)["S_M1"] == pytest.approx(0.6984)


def test_supplement_3_raises_only_class_d_from_0_2() -> None:
    assert ground(S_1=0.19)["S_M1"] == pytest.approx(0.19 * (2.4 - 0.9 * 0.2))
    assert ground(S_1=0.2)["S_M1"] == pytest.approx(1.5 * 2.2 * 0.2)
    assert ground(S_1=0.3, site_class="C")["S_M1"] == pytest.approx(0.45)
    assert ground(S_1=0.3, isolated_or_damped=True)["S_M1"] == pytest.approx(0.6)


def test_first_printing_has_no_f_v_for_class_e_above_0_1() -> None:
    assert ground(S_1=0.1, site_class="E", supplements=[])["F_v"] == pytest.approx(4.2)
    with pytest.raises(InputRefused) as refused:
        ground(S_1=0.2, site_class="E", supplements=[])
    assert "Supplement 1" in refused.value.problems[0].remedy


@pytest.mark.parametrize(
    ("site", "expected"),
    [
        ({"site_class": "D", "S_1": 0.199}, False),
        ({"site_class": "D", "S_1": 0.2}, True),
        ({"site_class": "E", "S_S": 0.99, "S_1": 0.19}, False),
        ({"site_class": "E", "S_S": 1.0, "S_1": 0.19}, True),
        ({"site_class": "E", "S_S": 0.5, "S_1": 0.2}, True),
        ({"site_class": "C", "S_S": 2.0, "S_1": 0.7}, False),
        ({"site_class": "C", "S_1": 0.6, "isolated_or_damped": True}, True),
        ({"site_class": "C", "S_1": 0.59, "isolated_or_damped": True}, False),
    ],
)
def test_triggers_of_11_4_8(site: dict[str, Any], expected: bool) -> None:
    assert ground(**site)["site_specific_required"] is expected


# class B, velocity not measured: F = 1.0, so S_DS = 2/3 S_S and S_D1 = 2/3 S_1
def category(S_DS: float, S_D1: float, risk_category: str) -> str:
    result = ground(risk_category, S_S=1.5 * S_DS, S_1=1.5 * S_D1, site_class="B", velocity_measured=False)
    return str(result["design_category"])


@pytest.mark.parametrize(
    ("S_DS", "expected", "expected_iv"),
    [
        (0.1669, "A", "A"),
        (0.1671, "B", "C"),
        (0.3299, "B", "C"),
        (0.3301, "C", "D"),
        (0.4999, "C", "D"),
        (0.5001, "D", "D"),
    ],
)
def test_table_11_6_1(S_DS: float, expected: str, expected_iv: str) -> None:
    assert [category(S_DS, 0.05, c) for c in ("I", "II", "III")] == [expected] * 3
    assert category(S_DS, 0.05, "IV") == expected_iv


@pytest.mark.parametrize(
    ("S_D1", "expected", "expected_iv"),
    [
        (0.0669, "A", "A"),
        (0.0671, "B", "C"),
        (0.1329, "B", "C"),
        (0.1331, "C", "D"),
        (0.1999, "C", "D"),
        (0.2001, "D", "D"),
    ],
)
def test_table_11_6_2(S_D1: float, expected: str, expected_iv: str) -> None:
    assert [category(0.12, S_D1, c) for c in ("I", "II", "III")] == [expected] * 3
    assert category(0.12, S_D1, "IV") == expected_iv


def test_near_fault_categories() -> None:
    assert ground("III", S_S=1.5, S_1=0.75)["design_category"] == "E"
    assert ground("IV", S_S=1.5, S_1=0.75)["design_category"] == "F"
    assert ground("IV", S_S=1.5, S_1=0.7499)["design_category"] == "D"


def test_low_hazard_is_category_a_by_11_4_2_only_where_that_is_declared() -> None:
    # class E: S_D1 = 2/3 x 4.2 x 0.04 = 0.112 is B by Table 11.6-2; 11.4.2 permits A, which lowers the force
    assert ground(S_S=0.15, S_1=0.04, site_class="E")["design_category"] == "B"
    assert ground(S_S=0.15, S_1=0.04, site_class="E", category_A_by_map=True)["design_category"] == "A"
    assert ground(S_S=0.15, S_1=0.041, site_class="E", category_A_by_map=True)["design_category"] == "B"


@pytest.mark.parametrize(("risk_category", "expected"), [("I", 1.0), ("II", 1.0), ("III", 1.25), ("IV", 1.5)])
def test_importance(risk_category: str, expected: float) -> None:
    assert ground(risk_category)["I_e"] == expected


@given(st.floats(0.01, 3.0), st.floats(0.01, 3.0), st.sampled_from("ABCDE"), st.sampled_from(["I", "II", "III", "IV"]))
def test_more_hazard_never_gives_less_design_acceleration(a: float, b: float, site_class: str, risk: str) -> None:
    low, high = sorted((a, b))
    assert ground(risk, S_S=low, site_class=site_class)["S_DS"] <= ground(risk, S_S=high, site_class=site_class)[
        "S_DS"
    ] * (1 + 1e-12)
