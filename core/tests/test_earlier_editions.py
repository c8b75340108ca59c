"""ASCE/SEI 7-05 (Supplement 2) and 7-10: what they have otherwise than 7-16, hand-worked."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from plumb_core.errors import InputRefused
from plumb_core.solve import solve

EARLIER = ("asce7-05", "asce7-10")

# typed from the tables, column by column; both editions have the same two tables
FA_COLUMNS = {
    0.25: "A 0.8 B 1.0 C 1.2 D 1.6 E 2.5",
    0.50: "A 0.8 B 1.0 C 1.2 D 1.4 E 1.7",
    0.75: "A 0.8 B 1.0 C 1.1 D 1.2 E 1.2",
    1.00: "A 0.8 B 1.0 C 1.0 D 1.1 E 0.9",
    1.25: "A 0.8 B 1.0 C 1.0 D 1.0 E 0.9",
}
FV_COLUMNS = {
    0.1: "A 0.8 B 1.0 C 1.7 D 2.4 E 3.5",
    0.2: "A 0.8 B 1.0 C 1.6 D 2.0 E 3.2",
    0.3: "A 0.8 B 1.0 C 1.5 D 1.8 E 2.8",
    0.4: "A 0.8 B 1.0 C 1.4 D 1.6 E 2.4",
    0.5: "A 0.8 B 1.0 C 1.3 D 1.5 E 2.4",
}


def cells(columns: dict[float, str]) -> list[tuple[str, float, float]]:
    split = {at: column.split() for at, column in columns.items()}
    return [(w[i], at, float(w[i + 1])) for at, w in split.items() for i in range(0, len(w), 2)]


def ground(edition: str, risk_category: str = "II", **site: Any) -> dict[str, Any]:
    values = {"S_S": 0.5, "S_1": 0.15, "T_L": 8.0, "site_class": "D"} | site
    return solve({"kind": "ground", "edition": edition, "site": values, "occupancy": {"risk_category": risk_category}})


def static(
    edition: str,
    *,
    stories: int = 1,
    height: float = 3.5,
    T: float | None = None,
    risk_category: str = "II",
    site: dict[str, Any] | None = None,
    A_B: float | None = None,
    **system: Any,
) -> dict[str, Any]:
    """Class B, whose coefficients are 1.0 here: S_DS = 2/3 S_S, S_D1 = 2/3 S_1."""
    own_system: dict[str, Any] = {"X": {"period_type": "other", "R": 5.0} | system, "Y": {}}
    if A_B:
        own_system["A_B"] = A_B
    return solve(
        {
            "kind": "static",
            "edition": edition,
            "site": {"S_S": 1.5, "S_1": 0.3, "T_L": 6.0, "site_class": "B"} | (site or {}),
            "occupancy": {"risk_category": risk_category},
            "system": own_system,
            "stories": [{"name": f"L{i}", "height": height, "weight": 1000.0} for i in range(stories)],
            "period": {"X": {"analysis": T}} if T else {},
        }
    )


@pytest.mark.parametrize("edition", EARLIER)
@pytest.mark.parametrize(("site_class", "at", "expected"), cells(FA_COLUMNS))
def test_every_cell_of_table_11_4_1(edition: str, site_class: str, at: float, expected: float) -> None:
    assert ground(edition, S_S=at, site_class=site_class)["F_a"] == pytest.approx(expected, abs=1e-12)


@pytest.mark.parametrize("edition", EARLIER)
@pytest.mark.parametrize(("site_class", "at", "expected"), cells(FV_COLUMNS))
def test_every_cell_of_table_11_4_2(edition: str, site_class: str, at: float, expected: float) -> None:
    assert ground(edition, S_1=at, site_class=site_class)["F_v"] == pytest.approx(expected, abs=1e-12)


@pytest.mark.parametrize("edition", EARLIER)
def test_values_by_hand(edition: str) -> None:
    """S_S = 1.2, S_1 = 0.36, class D: F_a = 1.1 - 0.8 x 0.1 = 1.02, S_DS = 0.816.

    F_v = 1.8 - 0.6 x 0.2 = 1.68; S_M1 = 0.6048, without the half more of a later supplement; S_D1 = 0.4032.
    """
    result = ground(edition, S_S=1.2, S_1=0.36)
    for symbol, value in {"F_a": 1.02, "S_DS": 0.816, "F_v": 1.68, "S_M1": 0.6048, "S_D1": 0.4032}.items():
        assert result[symbol] == pytest.approx(value), symbol
    assert result["T_S"] == pytest.approx(0.4032 / 0.816)
    assert (result["design_category"], result["site_specific_required"]) == ("D", False)


@pytest.mark.parametrize("edition", EARLIER)
def test_a_default_class_has_no_floor_and_rock_no_rule_for_velocity(edition: str) -> None:
    assert ground(edition, S_S=1.5, class_by_default=True)["F_a"] == 1.0
    assert ground(edition, site_class="B", velocity_measured=True)["F_a"] == 1.0
    assert ground(edition, S_S=1.5, site_class="E")["F_a"] == pytest.approx(0.9)


@pytest.mark.parametrize("edition", EARLIER)
def test_site_specific_study_only_for_class_f_and_isolated_structures(edition: str) -> None:
    assert ground(edition, S_S=2.0, S_1=0.8, site_class="E")["site_specific_required"] is False
    assert ground(edition, S_1=0.6, isolated_or_damped=True)["site_specific_required"] is True
    with pytest.raises(InputRefused) as refused:
        ground(edition, site_class="F")
    assert refused.value.problems[0].path == "/site/site_class"


@pytest.mark.parametrize("edition", EARLIER)
def test_base_shear_bounds_by_hand(edition: str) -> None:
    # S_DS = 1.0, R = 5: 12.8-2 gives 0.2 for a stiff building with S_1 = 0.9 (S_D1 = 0.6)
    assert static(edition, site={"S_1": 0.9})["X"]["coefficient"] == pytest.approx(0.2)
    # S_D1 = 0.2, C_u = 1.5; T = 1.5 s: 0.2/(1.5 x 5) = 0.026667 against 0.044 x 1.0 = 0.044 (Supplement 2 in 7-05)
    slender = static(edition, T=1.5, stories=20, height=4.0)["X"]
    assert (slender["coefficient"], slender["governed_by"]) == (pytest.approx(0.044), "12.8-5")


@pytest.mark.parametrize("edition", EARLIER)
@pytest.mark.parametrize(
    ("change", "S_DS"),
    [
        ({"regular": True}, 1.0),  # S_S = 2.1 taken as 1.5: 2/3 x 1.5
        ({"regular": True, "risk_category": "IV"}, 1.5),  # no condition on the category here: 1.0 x 1.5
        ({"regular": False}, 1.4),
        ({}, 1.4),
        ({"regular": True, "stories": 6}, 1.4),
    ],
)
def test_12_8_1_3_takes_s_s_as_1_5(edition: str, change: dict[str, Any], S_DS: float) -> None:
    site = {"S_S": 2.1, "S_1": 1.8}
    result = static(edition, site=site | {"short_period_cap": True}, **change)["X"]
    assert result["coefficient"] == pytest.approx(S_DS / 5.0)
    # a permission that is not declared is not applied
    I_e = 1.5 if change.get("risk_category") == "IV" else 1.0
    assert static(edition, site=site, **change)["X"]["coefficient"] == pytest.approx(1.4 * I_e / 5.0)


@pytest.mark.parametrize("edition", EARLIER)
def test_wall_period_by_hand(edition: str) -> None:
    """h_n = 45 m (no limit of height), A_B = 800 m2; walls A = 2.0, D = 8.0: h_i = 45 and h_i = 15.

    45: 1 + 0.83 x (45/8)^2 = 27.2617; 2/27.2617 = 0.0733630.  15: (45/15)^2 = 9; 1 + 0.83 x (15/8)^2 = 3.91797;
    18/3.91797 = 4.594216.  C_w = 100/800 x 4.667579 = 0.583447; T_a = 0.0062 x 45/sqrt(0.583447) = 0.365262.
    """
    walls = [{"A_i": 2.0, "D_i": 8.0}, {"A_i": 2.0, "D_i": 8.0, "h_i": 15.0}]
    result = static(edition, stories=10, height=4.5, T_a_formula="12.8-9", walls=walls, A_B=800.0)["X"]
    assert result["T_a"] == pytest.approx(0.365262, rel=1e-5)


def test_0_1_n_asks_for_every_story_in_7_05_and_for_the_average_in_7_10() -> None:
    def request(edition: str) -> dict[str, Any]:
        return {
            "kind": "static",
            "edition": edition,
            "site": {"S_S": 1.5, "S_1": 0.3, "T_L": 6.0, "site_class": "B"},
            "occupancy": {"risk_category": "II"},
            "system": {"X": {}, "Y": {"period_type": "rc_mrf", "R": 5.0, "T_a_formula": "12.8-8"}},
            "stories": [{"name": "L1", "height": 4.0, "weight": 1.0}, {"name": "L2", "height": 2.9, "weight": 1.0}],
        }

    assert solve(request("asce7-10"))["Y"]["T_a"] == pytest.approx(0.2)
    with pytest.raises(InputRefused) as refused:
        solve(request("asce7-05"))
    # the place names the direction that was refused
    assert refused.value.problems[0].path == "/system/Y/T_a_formula"


def test_category_a_under_each_edition() -> None:
    low = {"S_S": 0.1, "S_1": 0.03}
    for edition, label in (("asce7-05", "11.7-1"), ("asce7-10", "1.4-1"), ("asce7-16", "1.4-1")):
        result = static(edition, site=low, stories=3)["X"]
        assert (result["coefficient"], result["governed_by"], result["exponent"]) == (0.01, label, None)


def test_braces_against_buckling_have_no_row_in_7_05() -> None:
    assert static("asce7-10", period_type="steel_brbf")["X"]["T_a"] == pytest.approx(0.0731 * 3.5**0.75)
    with pytest.raises(InputRefused):
        static("asce7-05", period_type="steel_brbf")


@pytest.mark.parametrize(
    ("edition", "change", "word"),
    [
        ("asce7-05", {"stories": 30, "height": 4.0, "regular": True, "T": 1.5}, "T >= 3.5 T_S"),
        ("asce7-10", {"stories": 30, "height": 4.0, "regular": True, "T": 1.5}, "taller than 160 ft"),
        ("asce7-05", {"stories": 5, "regular": False}, "irregular structure"),
        ("asce7-10", {"stories": 5, "regular": False}, "irregular structure"),
        ("asce7-10", {"stories": 5}, "not stated"),
    ],
)
def test_where_the_static_method_is_permitted(edition: str, change: dict[str, Any], word: str) -> None:
    # S_DS = 1.0, S_D1 = 0.2: category D; T_S = 0.2 s, 3.5 T_S = 0.7 s
    assert any(word in note for note in static(edition, **change)["notes"])


sites = st.fixed_dictionaries(
    {"S_S": st.floats(0.05, 3.0), "S_1": st.floats(0.02, 1.2), "site_class": st.sampled_from("ABCDE")}
)


@settings(deadline=None)
@given(st.sampled_from(EARLIER), sites, st.integers(1, 40), st.floats(2.5, 6.0))
def test_what_always_holds(edition: str, site: dict[str, Any], stories: int, height: float) -> None:
    result = static(edition, site=site, stories=stories, height=height)["X"]
    assert sum(result["F"]) == pytest.approx(result["V"], rel=1e-9)
    assert result["coefficient"] >= 0.01
    assert result["T_a"] <= result["T_limit"]
