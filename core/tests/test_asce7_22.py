"""ASCE/SEI 7-22: values per site class, two-period and multi-period, worked by hand."""

from __future__ import annotations

from typing import Any

import pytest
from asking import ground, spectrum, static, stories
from plumb_core.editions.asce7_22.ground import VELOCITY
from plumb_core.errors import InputRefused

RISK_II = {"risk_category": "II"}
WALLS = {"period_type": "other", "R": 5.0, "C_d": 5.0}
MCE = {"T": [0.0, 0.1, 0.2, 0.5, 1.0, 1.5, 2.0, 5.0, 10.0], "S_a": [0.6, 1.2, 1.5, 1.3, 0.8, 0.5, 0.42, 0.15, 0.06]}


def site(**more: Any) -> dict[str, Any]:
    return {"S_MS": 1.5, "S_M1": 0.9, "S_1": 0.4, "T_L": 8.0, "site_class": "CD"} | more


def test_design_values_are_two_thirds() -> None:
    found = ground("asce7-22", site(), RISK_II)
    assert (found["S_DS"], found["S_D1"], found["T_S"], found["T_0"]) == pytest.approx((1.0, 0.6, 0.6, 0.12))
    assert "F_a" not in found


def test_two_period_equations_moved_on_by_one() -> None:
    # S_DS = 1, S_D1 = 0.6, R/I_e = 5: 12.8-3 = 0.2; T = 1.5: 12.8-4 = 0.6/(1.5 x 5) = 0.08
    assert static("asce7-22", site(), RISK_II, WALLS, stories(1))["governed_by"] == "12.8-3"
    twenty = stories(20, height=4.0)
    found = static("asce7-22", site(), RISK_II, WALLS, twenty, T=1.5)
    assert (found["coefficient"], found["governed_by"]) == (pytest.approx(0.08), "12.8-4")
    # T_L = 1: 12.8-5 = 0.6 x 1/(1.5^2 x 5) = 0.05333
    found = static("asce7-22", site(T_L=1.0), RISK_II, WALLS, twenty, T=1.5)
    assert (found["coefficient"], found["governed_by"]) == (pytest.approx(0.6 / 11.25), "12.8-5")
    # 12.8-6: 0.044 x 1.0 = 0.044 against 0.6/(1.8 x 8) = 0.0416
    found = static("asce7-22", site(), RISK_II, WALLS | {"R": 8.0}, twenty, T=1.8)
    assert (found["coefficient"], found["governed_by"]) == (pytest.approx(0.044), "12.8-6")
    # 12.8-7: S_1 of class BC: 0.5 x 0.7/8 = 0.04375 is below 0.044; with R = 6 it is 0.058333 against 0.6/(1.8 x 6)
    # = 0.0556
    found = static("asce7-22", site(S_1=0.7), RISK_II, WALLS | {"R": 6.0}, twenty, T=1.8)
    assert (found["coefficient"], found["governed_by"]) == (pytest.approx(0.35 / 6), "12.8-7")


def test_period_formulas_moved_on_by_one() -> None:
    frame = {"period_type": "rc_mrf", "R": 8.0}
    four = stories(4, height=3.1)
    assert static("asce7-22", site(), RISK_II, frame, four)["T_a"] == pytest.approx(0.0466 * 12.4**0.9)
    assert static("asce7-22", site(), RISK_II, frame | {"T_a_formula": "12.8-9"}, four)["T_a"] == pytest.approx(0.4)


def test_multi_period_spectrum_is_read_between_its_points() -> None:
    # 2/3 of: half way between 0.2 and 0.5 s 1.4; 1.25 s 0.65; beyond 10 s (T_L = 12): 0.06 x 10/T, then 0.06 x 10 x
    # 12/T^2
    found = spectrum("asce7-22", site(mce=MCE, T_L=12.0), RISK_II, [0.0, 0.35, 1.25, 11.0, 15.0])
    assert found["elastic"] == pytest.approx([2 / 3 * v for v in (0.6, 1.4, 0.65, 0.6 / 11, 7.2 / 225)])


def test_design_values_from_the_multi_period_spectrum() -> None:
    given = {"S_1": 0.4, "T_L": 8.0, "mce": MCE}
    # S_MS = 0.9 x 1.5; class C (stiff): T S_a over 1 to 2 s: 0.8, 0.75, 0.84 -> 0.9 x 0.84 = 0.756 < S_a(1) = 0.8
    stiff = ground("asce7-22", given | {"site_class": "C"}, RISK_II)
    assert (stiff["S_MS"], stiff["S_M1"]) == (pytest.approx(1.35), pytest.approx(0.8))
    # class D: over 1 to 5 s: 5 x 0.15 = 0.75 is less; raise it: 5 x 0.25 = 1.25 -> 1.125
    soft = ground(
        "asce7-22", given | {"site_class": "D", "mce": {**MCE, "S_a": [*MCE["S_a"][:7], 0.25, 0.06]}}, RISK_II
    )
    assert soft["S_M1"] == pytest.approx(1.125)


def test_method_1_reads_the_spectrum_and_takes_no_rising_branch() -> None:
    # T_a of one story 3.5 m is 0.125 s, below the peak at 0.2 s: 2/3 x 1.5/5 = 0.2
    low = static("asce7-22", site(mce=MCE), RISK_II, WALLS, stories(1))
    assert (low["coefficient"], low["governed_by"]) == (pytest.approx(0.2), "12.8-2")
    tall = static("asce7-22", site(mce=MCE), RISK_II, WALLS, stories(20, height=4.0), T=1.5)
    assert tall["coefficient"] == pytest.approx(2 / 3 * 0.5 / 5)


def test_a_site_without_values_or_spectrum_is_asked_for_the_values() -> None:
    with pytest.raises(InputRefused) as refused:
        ground("asce7-22", {"S_1": 0.4, "T_L": 8.0, "site_class": "C"}, RISK_II)
    assert {p.path for p in refused.value.problems} == {"/site/S_MS", "/site/S_M1"}


def test_site_values_of_an_earlier_edition_are_refused_by_name() -> None:
    with pytest.raises(InputRefused) as refused:
        ground("asce7-22", site(F_a=1.2), RISK_II)
    (problem,) = refused.value.problems
    assert (problem.path, problem.message) == ("/site/F_a", "F_a is not a site value of asce7-22")


@pytest.mark.parametrize(
    ("value", "message"),
    [
        ({"T": [0.1, 0.1], "S_a": [1.0, 1.0]}, "do not increase"),
        ({"T": [0.1, 0.2], "S_a": [1.0, 1.0, 1.0]}, "2 periods for 3"),
    ],
)
def test_a_curve_has_to_be_one(value: dict[str, list[float]], message: str) -> None:
    with pytest.raises(InputRefused, match=message):
        ground("asce7-22", site(mce=value), RISK_II)


@pytest.mark.parametrize(
    ("feet", "name"),
    [(5010, "A"), (3010, "B"), (2110, "BC"), (1450, "C"), (1010, "CD"), (710, "D"), (505, "DE"), (490, "E")],
)
def test_classes_by_velocity(feet: float, name: str) -> None:
    # the bounds in feet are 5000, 3000, 2100, 1450, 1000, 700, 500
    from plumb_core.editions.shared import stiffest

    assert stiffest(feet * 0.3048, VELOCITY, "E") == name


def test_category_and_study() -> None:
    assert ground("asce7-22", site(S_1=0.75), RISK_II)["design_category"] == "E"
    assert ground("asce7-22", site(S_MS=0.2, S_M1=0.09, S_1=0.03, S_S=0.12), RISK_II)["design_category"] == "A"
    assert ground("asce7-22", site(site_class="F"), RISK_II)["site_specific_required"] is True
