"""Equivalent lateral force procedure of ASCE/SEI 7-16, hand-worked for every branch."""

from __future__ import annotations

import copy
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from plumb_core.errors import InputRefused
from plumb_core.solve import solve
from submissions import BRIEF

# S_DS = 2/3 S_S, S_D1 = 2/3 S_1: class B without measured velocity makes hand work easy
ROCK = {"site_class": "B", "velocity_measured": False, "T_L": 6.0}


def static(
    *,
    S_S: float = 1.5,
    S_1: float = 0.3,
    R: float = 5.0,
    T: float | None = None,
    risk_category: str = "II",
    stories: int = 1,
    height: float = 3.5,
    weight: float = 1000.0,
    site: dict[str, Any] | None = None,
    **system: Any,
) -> dict[str, Any]:
    own = {"period_type": "other", "R": R} | system
    base_area = own.pop("A_B", None)
    request: dict[str, Any] = {
        "kind": "static",
        "edition": "asce7-16",
        "site": ROCK | {"S_S": S_S, "S_1": S_1} | (site or {}),
        "occupancy": {"risk_category": risk_category},
        "system": {"X": own, "Y": {}},
        "stories": [{"name": f"L{i}", "height": height, "weight": weight} for i in range(stories)],
        "period": {"X": {"analysis": T}} if T else {},
    }
    if base_area:
        request["system"]["A_B"] = base_area
    return solve(request)["X"]  # type: ignore[no-any-return]


def test_12_8_2_governs_a_stiff_building() -> None:
    # S_DS = 1.0; T_a = 0.0488 x 3.5^0.75 = 0.12486 s; S_D1/T = 0.2/0.12486 = 1.60 > 1.0; C_s = 1.0/5
    result = static()
    assert result["T_a"] == pytest.approx(0.0488 * 3.5**0.75)
    assert (result["coefficient"], result["governed_by"]) == (pytest.approx(0.2), "12.8-2")
    assert result["V"] == pytest.approx(200.0)


def test_12_8_3_governs_beyond_t_s() -> None:
    # S_D1 = 0.2, C_u = 1.5; 20 stories of 4 m: T_a = 0.0488 x 80^0.75 = 1.30543, cap 1.95814; T = 1.5
    # C_s = 0.2/(1.5 x 5) = 0.026667; the minimum is 0.044 x 0.5 = 0.022
    result = static(S_S=0.75, T=1.5, stories=20, height=4.0)
    assert result["T"] == 1.5
    assert (result["coefficient"], result["governed_by"]) == (pytest.approx(0.2 / 7.5), "12.8-3")


def test_12_8_4_governs_beyond_t_l() -> None:
    # T_L = 1.0 s: C_s = 0.2 x 1.0/(1.5^2 x 3) = 0.0296296 against 0.2/(1.5 x 3) = 0.0444 and minimum 0.022
    result = static(S_S=0.75, T=1.5, stories=20, height=4.0, R=3.0, site={"T_L": 1.0})
    assert (result["coefficient"], result["governed_by"]) == (pytest.approx(0.2 / 6.75), "12.8-4")


def test_12_8_5_minimum_governs_and_wins_over_the_maximum() -> None:
    # S_DS = 1.0, I_e = 1.25: 0.044 x 1.25 = 0.055 against 0.2/(1.5 x 8/1.25) = 0.020833
    result = static(S_S=1.5, T=1.5, stories=20, height=4.0, R=8.0, risk_category="III")
    assert (result["coefficient"], result["governed_by"]) == (pytest.approx(0.055), "12.8-5")


def test_0_01_is_the_least_minimum() -> None:
    # S_DS = 0.18: 0.044 x 0.18 = 0.00792 < 0.01; S_D1 = 0.04, C_u = 1.7, T_a = 0.0488 x 80^0.75, T = 2.2
    # 0.04/(2.2 x 8) = 0.00227
    result = static(S_S=0.27, S_1=0.06, T=2.2, stories=20, height=4.0, R=8.0)
    assert (result["coefficient"], result["governed_by"]) == (pytest.approx(0.01), "12.8-5")


def test_12_8_6_takes_the_mapped_s_1() -> None:
    # class D, S_1 = 0.6: 0.5 x 0.6/(8/1.0) = 0.0375; C_u T_a = 1.4 x 0.0488 x 200^0.75 = 3.634, T = 3.6
    # S_D1 = 2/3 x 1.5 x 1.7 x 0.6 = 1.02: 1.02/(3.6 x 8) = 0.035417; 0.044 x 2/3 x 1.0 = 0.02933
    site = {"site_class": "D", "velocity_measured": True}
    result = static(S_S=1.0 / 1.1, S_1=0.6, T=3.6, stories=50, height=4.0, R=8.0, site=site)
    assert (result["coefficient"], result["governed_by"]) == (pytest.approx(0.0375), "12.8-6")
    below = static(S_S=1.0 / 1.1, S_1=0.5999, T=3.6, stories=50, height=4.0, R=8.0, site=site)
    assert below["governed_by"] != "12.8-6"


@pytest.mark.parametrize(
    ("period_type", "C_t", "x"),
    [
        ("steel_mrf", 0.0724, 0.8),
        ("rc_mrf", 0.0466, 0.9),
        ("steel_ebf", 0.0731, 0.75),
        ("steel_brbf", 0.0731, 0.75),
        ("other", 0.0488, 0.75),
    ],
)
def test_approximate_period_of_every_type(period_type: str, C_t: float, x: float) -> None:
    assert static(stories=8, height=4.0, period_type=period_type)["T_a"] == pytest.approx(C_t * 32.0**x)


def test_0_1_n_for_moment_frames() -> None:
    assert static(stories=8, height=3.6, period_type="rc_mrf", T_a_formula="12.8-8")["T_a"] == pytest.approx(0.8)
    for wrong in (
        {"stories": 13, "height": 3.6, "period_type": "rc_mrf"},
        {"stories": 8, "height": 2.99, "period_type": "rc_mrf"},
        {"stories": 8, "height": 3.6, "period_type": "other"},
    ):
        with pytest.raises(InputRefused) as refused:
            static(T_a_formula="12.8-8", **wrong)  # type: ignore[arg-type]
        assert refused.value.problems[0].path == "/system/X/T_a_formula"


def test_wall_period_by_hand() -> None:
    # h_n = 24 m; two walls A = 1.5 m2, D = 6 m: 1 + 0.83 x 16 = 14.28; C_w = 100/600 x 2 x 1.5/14.28 = 0.0350140
    # T_a = 0.0062 x 24/sqrt(0.0350140) = 0.795217
    wall = {"A_i": 1.5, "D_i": 6.0}
    result = static(stories=6, height=4.0, T_a_formula="12.8-9", walls=[wall, wall], A_B=600.0)
    assert result["T_a"] == pytest.approx(0.795217, rel=1e-5)
    with pytest.raises(InputRefused):
        static(stories=6, height=4.0, T_a_formula="12.8-9")
    with pytest.raises(InputRefused):
        static(stories=10, height=4.0, T_a_formula="12.8-9", walls=[wall], A_B=600.0)


@pytest.mark.parametrize(
    ("S_D1", "C_u"),
    [(0.05, 1.7), (0.1, 1.7), (0.125, 1.65), (0.15, 1.6), (0.2, 1.5), (0.25, 1.45), (0.3, 1.4), (0.4, 1.4), (0.8, 1.4)],
)
def test_period_limit(S_D1: float, C_u: float) -> None:
    result = static(S_1=1.5 * S_D1, T=9.0, stories=8, height=4.0)
    assert result["T_limit"] == pytest.approx(C_u * 0.0488 * 32.0**0.75)
    assert result["T"] == result["T_limit"]


def test_analysis_period_is_used_where_it_is_shorter() -> None:
    assert static(T=0.3, stories=8, height=4.0)["T"] == 0.3
    assert static(stories=8, height=4.0)["T"] == static(stories=8, height=4.0)["T_a"]


@pytest.mark.parametrize(("T", "k"), [(0.2, 1.0), (0.5, 1.0), (1.0, 1.25), (1.5, 1.5), (2.4, 1.95)])
def test_exponent(T: float, k: float) -> None:
    assert static(T=T, stories=40, height=4.0)["exponent"] == pytest.approx(k)


def test_exponent_stays_2_beyond_2_5_s() -> None:
    assert static(T=2.9, stories=60, height=4.0)["exponent"] == 2.0


def test_forces_shears_and_overturning_by_hand() -> None:
    # two stories of 4 m, T_a = 0.23 s so k = 1; C_s = S_DS/R = 0.2; w h = 4000, 8000; V = 0.2 x 2000 = 400
    # F = 133.33, 266.67; V = 400, 266.67; M = 266.67 x 8 + 133.33 x 4 = 2666.67, 266.67 x 4 = 1066.67
    result = static(S_1=0.9, stories=2, height=4.0)
    assert result["F"] == pytest.approx([400 / 3, 800 / 3])
    assert result["V_story"] == pytest.approx([400.0, 800 / 3])
    assert result["M_story"] == pytest.approx([8000 / 3, 3200 / 3])


def test_category_a_takes_one_percent_of_each_weight() -> None:
    result = static(S_S=0.1, S_1=0.03, stories=3)
    assert (result["coefficient"], result["governed_by"], result["exponent"]) == (0.01, "1.4-1", None)
    assert result["F"] == pytest.approx([10.0, 10.0, 10.0])


@pytest.mark.parametrize(
    ("change", "S_DS"),
    [
        ({}, 1.0),  # S_DS = 1.2: 1.0 > 0.7 x 1.2
        ({"S_S": 2.4}, 1.12),  # S_DS = 1.6: 0.7 x 1.6 = 1.12
        ({"S_S": 1.2}, 0.8),  # no cap below 1.0
        ({"regular": False}, 1.2),
        ({"rho": 1.3}, 1.2),
        ({"stories": 6}, 1.2),
        ({"risk_category": "III"}, 1.2 * 1.25),
        ({"stories": 5, "height": 12.0}, 1.2),  # T_a = 0.0488 x 60^0.75 = 1.05 s > 0.5 s
    ],
)
def test_cap_of_12_8_1_3_and_each_of_its_conditions(change: dict[str, Any], S_DS: float) -> None:
    site = {"short_period_cap": True}
    result = static(**({"S_S": 1.8, "S_1": 0.9, "regular": True, "rho": 1.0, "site": site} | change))  # type: ignore[arg-type]
    # S_1 = 0.9 keeps 12.8-3 away: S_D1 = 0.6, 0.6/1.05 = 0.57 only in the last case
    expected = min(S_DS, 0.6 / result["T"] * (1.25 if change.get("risk_category") else 1.0)) / 5.0
    assert result["coefficient"] == pytest.approx(expected)


def test_cap_of_12_8_1_3_is_not_taken_on_what_is_not_stated_or_on_soft_soil() -> None:
    assert static(S_S=1.8, S_1=0.9)["coefficient"] == pytest.approx(0.24)
    soft = {"site_class": "E", "velocity_measured": True}
    # class E: F_a = 1.2, S_DS = 1.44
    assert static(S_S=1.8, S_1=0.5, regular=True, rho=1.0, site=soft)["coefficient"] == pytest.approx(0.288)


def test_exception_2_as_first_printed_raises_the_upper_bound() -> None:
    """Class D, S_1 = 0.36, S_S = 1.2, Supplement 1: T_S = 0.4656/0.816 = 0.57059; 1.5 T_S = 0.85588.

    At T = 0.8 < 1.5 T_S: 12.8-2, 0.816/8 = 0.102.  At T = 1.2: 1.5 x 0.4656/(1.2 x 8) = 0.07275.
    """
    site = {"site_class": "D", "velocity_measured": True, "supplements": [1]}
    short = static(S_S=1.2, S_1=0.36, R=8.0, T=0.8, stories=10, height=4.0, site=site)
    assert (short["coefficient"], short["governed_by"]) == (pytest.approx(0.102), "12.8-2")
    long = static(S_S=1.2, S_1=0.36, R=8.0, T=1.2, stories=20, height=4.0, site=site)
    assert (long["coefficient"], long["governed_by"]) == (pytest.approx(0.07275), "12.8-3")


def test_category_by_s_ds_alone() -> None:
    """S_DS = 0.4 (C), S_D1 = 0.3 (D): T_S = 0.75 s; a low stiff building may take C, a tall one may not."""
    request = copy.deepcopy(BRIEF) | {"kind": "static", "steps": True, "occupancy": {"risk_category": "II"}}
    request["site"] = ROCK | {"S_S": 0.6, "S_1": 0.45, "category_by_S_DS_alone": True, "diaphragms_rigid": True}
    request["period"] = {}
    for count, expected in ((2, "C"), (8, "D")):
        request["stories"] = [{"name": f"L{i}", "height": 4.0, "weight": 500.0} for i in range(count)]
        steps = {s["id"]: s for s in solve(request)["steps"]}
        assert steps["design_category"]["value"] == expected


def test_a_missing_input_names_its_place_and_all_others() -> None:
    with pytest.raises(InputRefused) as refused:
        solve(
            {
                "kind": "static",
                "edition": "asce7-16",
                "site": {"S_S": 1.0, "S_1": 0.3},
                "occupancy": {},
                "system": {"X": {"period_type": "other"}, "Y": {}},
                "stories": [{"name": "L1", "height": 3.0}],
            }
        )
    assert {p.path for p in refused.value.problems} == {
        "/site/site_class",
        "/site/T_L",
        "/occupancy/risk_category",
        "/system/X/R",
        "/stories/0/weight",
    }


buildings = st.fixed_dictionaries(
    {
        "S_S": st.floats(0.05, 3.0),
        "S_1": st.floats(0.02, 1.2),
        "R": st.floats(1.0, 8.0),
        "stories": st.integers(1, 60),
        "height": st.floats(2.5, 6.0),
        "weight": st.floats(10.0, 1e5),
        "risk_category": st.sampled_from(["I", "II", "III", "IV"]),
        "T": st.one_of(st.none(), st.floats(0.05, 8.0)),
    }
)


@settings(deadline=None)
@given(buildings)
def test_what_always_holds(building: dict[str, Any]) -> None:
    result = static(**building)
    assert sum(result["F"]) == pytest.approx(result["V"], rel=1e-9)
    assert result["V_story"][0] == pytest.approx(result["V"], rel=1e-9)
    # overturning at the base is the sum of force times height above the base
    moments = [f * building["height"] * (i + 1) for i, f in enumerate(result["F"])]
    assert result["M_story"][0] == pytest.approx(sum(moments), rel=1e-9)
    assert result["coefficient"] >= 0.01
    heavier = static(**(building | {"weight": building["weight"] * 1.1}))
    assert heavier["V"] == pytest.approx(1.1 * result["V"], rel=1e-9)
    stronger = static(**(building | {"S_S": building["S_S"] * 1.05, "S_1": building["S_1"] * 1.05}))
    # category A requires less than the bounds do, so rising out of it is a step up as well
    assert stronger["V"] >= result["V"] * (1 - 1e-9)
