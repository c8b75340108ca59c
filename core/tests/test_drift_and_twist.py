"""Drift with its second order effects, torsion of buildings irregular anywhere, and what follows: worked by hand."""

from __future__ import annotations

from typing import Any

import pytest
from asking import stories
from plumb_core.errors import InputRefused
from plumb_core.solve import solve

C = {"S_S": 1.5, "S_1": 0.5, "T_L": 8.0, "site_class": "C"}
"""F_a = 1.2, F_v = 1.5 (7-16): S_DS = 1.2, category D."""
SITES: dict[str, dict[str, Any]] = dict.fromkeys(("asce7-05", "asce7-10", "asce7-16"), C) | {
    "asce7-22": {"S_MS": 1.8, "S_M1": 0.75, "S_1": 0.5, "T_L": 8.0, "site_class": "C"}
}
US = list(SITES)


def drift(edition: str, own: dict[str, Any], elastic: list[float], **more: Any) -> dict[str, Any]:
    return solve(
        {
            "kind": "drift",
            "edition": edition,
            "occupancy": {"risk_category": "II"},
            "system": {"X": own},
            "stories": stories(len(elastic), height=3.5),
            "elastic_drift": elastic,
        }
        | more
    )


# 12.12.1.1


@pytest.mark.parametrize("edition", US)
@pytest.mark.parametrize(
    ("own", "limit"),
    [
        # moment frames are known by their system, not only by the type of their period: 0.020/1.3
        ({"lateral_system": "C_RC_SMF", "rho": 1.3}, 0.020 / 1.3),
        ({"lateral_system": "C_RC_SMF", "rho": 1.0}, 0.020),
        ({"period_type": "rc_mrf", "C_d": 5.5, "rho": 1.3}, 0.020 / 1.3),
        # dual systems are not moment frames only, whatever the period type says; nor are frames beside walls
        ({"lateral_system": "D_SMF_special_RC_SW", "period_type": "rc_mrf", "rho": 1.3}, 0.020),
        ({"lateral_system": "C_RC_SMF", "beside_systems": [{"lateral_system": "B_special_RC_SW"}], "rho": 1.3}, 0.020),
        # not stated: 1.3 in category D, as for the combinations (12.3.4.2)
        ({"lateral_system": "C_RC_SMF"}, 0.020 / 1.3),
    ],
)
def test_moment_frames_in_high_categories(edition: str, own: dict[str, Any], limit: float) -> None:
    assert drift(edition, own, [0.004], site=SITES[edition])["stories"][0]["limit"] == pytest.approx(limit)


def test_an_assumed_redundancy_factor_is_a_step_and_a_note() -> None:
    found = drift("asce7-16", {"lateral_system": "C_RC_SMF"}, [0.004], site=C, steps=True)
    step = next(s for s in found["steps"] if s["id"] == "rho.X")
    assert (step["value"], step["governed_by"]) == (1.3, "12.3.4.2, assumed: not stated")
    assert found["notes"][0] == "limit by 12.12.1.1, rho 1.3 by 12.3.4.2, assumed: not stated"


@pytest.mark.parametrize(("category", "limit"), [("I", None), ("II", None), ("III", 0.020), ("IV", 0.015)])
def test_note_c_stands_at_categories_i_and_ii(category: str, limit: float | None) -> None:
    own = {"C_d": 2.0}
    found = drift("asce7-16", own, [0.1], occupancy={"risk_category": category}, structure_type="low_rise_detailed")
    assert found["stories"][0]["limit"] == limit


# 12.8.7


def test_a_drift_is_judged_with_its_second_order_amplification() -> None:
    # theta = P Delta I/(V h C_d) with Delta = C_d delta: P delta/(V h) = 41510 x 0.0166 / (1660 x 3.5) = 0.1186
    own = {"C_d": 4.0, "R": 5.0, "rho": 1.0}
    row = drift("asce7-16", own, [0.0166], P=[41510.0], V=[1660.0])["stories"][0]
    theta = 41510 * 0.0166 / (1660 * 3.5)
    assert theta == pytest.approx(0.1186, abs=2e-5)
    # Delta/h = 4 x 0.0166/3.5 = 0.018971; 1/(1 - 0.1186) = 1.1345; 0.021524 exceeds 0.020
    assert (row["theta"], row["ratio"]) == (pytest.approx(theta), pytest.approx(0.018971, abs=1e-6))
    assert row["amplification"] == pytest.approx(1.1345, abs=1e-4)
    assert row["ratio_second_order"] == pytest.approx(0.021524, abs=2e-6)
    assert (row["ok"], row["theta_ok"], row["second_order"]) == (False, True, "amplified by 1/(1 - theta)")


def test_with_p_delta_in_the_model_nothing_is_amplified_and_theta_is_divided() -> None:
    own = {"C_d": 4.0, "R": 5.0, "rho": 1.0}
    # theta = 0.1300 is above theta_max = 0.5/4 = 0.125; 0.13/1.13 = 0.115 is below it
    given = {"P": [45500.0], "V": [1660.0], "elastic_drift": [0.0166]}
    bare = drift("asce7-16", own, [0.0166], **given)["stories"][0]
    assert (bare["theta_ok"], bare["amplification"], bare["ok"]) == (False, None, None)
    told = drift("asce7-16", own, [0.0166], second_order="included", **given)["stories"][0]
    assert (told["theta_ok"], told["amplification"], told["ok"]) == (True, 1.0, True)


@pytest.mark.parametrize(
    ("theta", "factor", "words"),
    [
        (0.10, 1.0, "need not be considered"),
        (0.15, 1 / 0.85, "action effects multiplied by 1/(1 - theta)"),
        (0.20, 1.25, "action effects multiplied by 1/(1 - theta)"),
        (0.25, None, "second order analysis required"),
        (0.31, None, "not permitted: above 0.3"),
    ],
)
def test_en_1998_1_amplifies_up_to_0_2_only(theta: float, factor: float | None, words: str) -> None:
    # theta = P q d_e/(V h) = P x 3 x 0.001/(1000 x 3.5)
    P = theta * 1000 * 3.5 / 0.003
    row = drift(
        "en1998-1", {"q": 3.0}, [0.001], P=[P], V=[1000.0], structure_type="none", occupancy={"importance_class": "II"}
    )["stories"][0]
    assert (row["amplification"], row["second_order"]) == (factor if factor is None else pytest.approx(factor), words)


@pytest.mark.parametrize(("m", "factor"), [(0.1, 1.0), (0.15, 0.9 / 0.85), (0.2, 0.9 / 0.8), (0.21, None)])
def test_as_1170_4_amplifies_drifts(m: float, factor: float | None) -> None:
    # m = d_st P/(h mu V), d_st = mu/S_p x 0.001: P x 0.001/(0.77 x 3.5 x 1000)
    P = m * 0.77 * 3.5 * 1000 / 0.001
    row = drift("as1170.4", {"mu": 2.0, "S_p": 0.77}, [0.001], P=[P], V=[1000.0])["stories"][0]
    assert row["amplification"] == (factor if factor is None else pytest.approx(factor))
    expected = None if factor is None else pytest.approx(0.001 * 2 / 0.77 / 3.5 * factor)
    assert row["ratio_second_order"] == expected


def test_flat_slabs_and_offsets_of_is_1893_2016() -> None:
    own = {"lateral_system": "flat_slab_walls"}
    floors = stories(4, height=3.5)
    floors[2]["offset"] = True
    found = drift("is1893-2016", own, [0.004, 0.004, 0.004, 0.004], stories=floors)
    # 0.2 % in the story with the offset and in the one below it; the roof at 0.1 % of the height for flat slabs
    assert [s["limit"] for s in found["stories"]] == [0.004, 0.002, 0.002, 0.004]
    assert found["roof"] == {"ratio": pytest.approx(0.016 / 14.0), "limit": 0.001, "ok": False}
    assert "roof" not in drift("is1893-2016", {"lateral_system": "RC_SMRF"}, [0.004])


# Torsion


def twist(edition: str, rows: list[dict[str, Any]], **more: Any) -> list[dict[str, Any]]:
    named = [{"story": f"L{i + 1}", **row} for i, row in enumerate(rows)]
    return list(solve({"kind": "torsion", "edition": edition, "rows": named} | more)["rows"])


IRREGULAR = {"ends": [1.0, 2.0], "displacement_ends": [5.0, 9.0]}
REGULAR = {"ends": [1.0, 1.1], "displacement_ends": [6.0, 10.5]}


@pytest.mark.parametrize("edition", [*US, "ubc97"])
def test_a_x_holds_at_every_level_of_a_building_irregular_anywhere(edition: str) -> None:
    # regular by its drifts (1.048), but 10.5/(1.2 x 8.25) = 1.0606, squared 1.1249
    found = twist(edition, [IRREGULAR, REGULAR])
    assert [r["class"] for r in found] == ["torsional", "regular"]
    assert found[1]["amplification"] == pytest.approx((10.5 / 9.9) ** 2)
    # in a building that is regular everywhere there is none
    assert twist(edition, [REGULAR, REGULAR])[1]["amplification"] == 1.0


def test_without_displacements_a_level_of_an_irregular_building_has_no_a_x() -> None:
    assert twist("asce7-16", [IRREGULAR, {"ends": [1.0, 1.1]}])[1]["amplification"] is None


LOW = {"S_S": 0.3, "S_1": 0.08, "T_L": 8.0, "site_class": "B"}
"""S_DS = 2/3 x 0.9 x 0.3 = 0.18 (7-16), 0.2 (7-10): category B."""


def test_a_x_is_for_categories_c_to_f_and_not_for_light_frames_of_7_05() -> None:
    II = {"occupancy": {"risk_category": "II"}}
    assert twist("asce7-16", [IRREGULAR], site=LOW, **II)[0]["amplification"] == 1.0
    assert twist("asce7-16", [IRREGULAR], site=C, **II)[0]["amplification"] == pytest.approx((9 / 8.4) ** 2)
    light = {"system": {"X": {}, "Y": {}, "light_frame": True}}
    assert twist("asce7-05", [IRREGULAR], site=C, **II, **light)[0]["amplification"] == 1.0
    assert twist("asce7-10", [IRREGULAR], site=C, **II, **light)[0]["amplification"] == pytest.approx((9 / 8.4) ** 2)


@pytest.mark.parametrize(
    ("edition", "expected"),
    [
        *((e, "extreme") for e in US),
        ("ubc97", "torsional"),
        ("is1893-2002", "torsional"),
        ("is1893-2016", "extreme"),
        ("custom", "extreme"),
        ("en1998-1", None),
    ],
)
def test_a_pure_twist_is_beyond_every_limit(edition: str, expected: str | None) -> None:
    row = twist(edition, [{"ends": [1.0, -1.0], "displacement_ends": [2.0, -2.0]}])[0]
    assert (row["ratio"], row["class"]) == (None, expected)
    if edition in US:
        assert row["amplification"] == 3.0


def test_is_1893_2016_judges_by_displacements() -> None:
    # ends 3 and 1: ratio 3.0; the drifts beside say 1.2 and are not asked
    row = twist("is1893-2016", [{"ends": [1.0, 1.2], "displacement_ends": [3.0, 1.0]}])[0]
    assert (row["ratio"], row["class"], row["consequences"]) == (
        3.0,
        "extreme",
        ["the configuration has to be revised (Table 5 item i)"],
    )
    assert twist("is1893-2016", [{"displacement_ends": [3.0, 1.0]}])[0]["ratio"] == 3.0


def test_rows_of_displacements_only_give_a_x_and_no_class() -> None:
    row = twist("asce7-16", [{"displacement_ends": [3.0, 1.0]}])[0]
    # 3/(1.2 x 2) = 1.25, squared 1.5625; the irregularity itself is judged on drifts
    assert (row["ratio"], row["class"], row["amplification"]) == (None, None, pytest.approx(1.5625))


@pytest.mark.parametrize(
    ("edition", "words", "there"),
    [
        ("asce7-05", "redundancy factor 1.3 (12.3.4.2)", False),
        ("asce7-10", "redundancy factor 1.3 (12.3.4.2)", False),
        ("asce7-16", "redundancy factor 1.3 (12.3.4.2)", True),
        ("asce7-22", "redundancy factor 1.3 (12.3.4.2)", True),
        ("asce7-16", "the static method is not permitted, but for the low buildings of Table 12.6-1", True),
        ("asce7-22", "the static method is not permitted, but for the low buildings of Table 12.6-1", False),
    ],
)
def test_what_follows_from_extreme_torsion_by_edition(edition: str, words: str, there: bool) -> None:
    assert (words in twist(edition, [{"max": 1.5, "avg": 1.0}])[0]["consequences"]) is there


def test_a_row_has_one_way_to_say_its_drifts() -> None:
    with pytest.raises(InputRefused) as refused:
        twist("asce7-16", [{"max": 1.1, "displacement_ends": [1.0, 1.1]}, {}])
    assert [p.path for p in refused.value.problems] == ["/rows/0", "/rows/1"]
