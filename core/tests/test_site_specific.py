"""Site-specific values with the floors of the codes, and permissions of the ground that are declared.

Worked by hand.
"""

from __future__ import annotations

from typing import Any

import pytest
from asking import ground, spectrum, static, stories
from hypothesis import given, settings
from hypothesis import strategies as st
from plumb_core.errors import InputRefused
from plumb_core.rules import Key

II = {"risk_category": "II"}
D = {"S_S": 1.5, "S_1": 0.6, "T_L": 8.0, "site_class": "D"}


def test_class_d_by_default_as_the_brief_of_the_audit_has_it() -> None:
    found = ground("asce7-16", D | {"class_by_default": True}, II)
    assert [found[n] for n in ("F_a", "F_v", "S_DS", "S_D1")] == pytest.approx([1.2, 1.7, 1.2, 1.02])


def test_near_source_coefficients_of_ubc() -> None:
    found = ground("ubc97", {"zone": "4", "soil": "S_D", "source_type": "A", "source_distance_km": 2.0}, {"I": 1.0})
    # 0.44 x 1.5, 0.64 x 2.0
    assert (found["C_a"], found["C_v"]) == (pytest.approx(0.66), pytest.approx(1.28))


# 11.4.8 and its supplements


def test_a_site_specific_f_v_is_not_raised_by_half() -> None:
    # 2/3 x 2.2 x 0.6 = 0.88; raised it would be 1.32
    assert ground("asce7-16", D | {"F_v": 2.2}, II)["S_D1"] == pytest.approx(0.88)
    assert ground("asce7-16", D, II)["S_D1"] == pytest.approx(2 / 3 * 1.5 * 1.7 * 0.6)


def test_nor_is_the_upper_bound_as_first_printed() -> None:
    # T = 1.5 s, R = 8: S_D1/(T R) = 0.88/12 with F_v of a study; 1.5 x 0.68/12 by the table
    own = {"period_type": "other", "R": 8.0}
    floors = stories(20, height=4.0)
    given = D | {"S_1": 0.59, "supplements": [1]}
    by_table = static("asce7-16", given, II, own, floors, 1.5)["coefficient"]
    by_study = static("asce7-16", given | {"F_v": 1.71}, II, own, floors, 1.5)["coefficient"]
    # F_v at S_1 = 0.59 is 1.71: the same number, once from the table with the exception, once from a study without it
    assert by_table == pytest.approx(1.5 * by_study)
    assert by_study == pytest.approx(2 / 3 * 1.71 * 0.59 / 12)


def test_exceptions_of_11_4_8_are_not_for_isolated_structures() -> None:
    E = {"S_S": 1.2, "S_1": 0.1, "T_L": 8.0, "site_class": "E"}
    assert ground("asce7-16", E, II)["F_a"] == 1.2
    with pytest.raises(InputRefused, match="isolated or damped"):
        ground("asce7-16", E | {"isolated_or_damped": True}, II)
    notes = ground("asce7-16", D | {"isolated_or_damped": True, "F_v": 2.5}, II)["notes"]
    assert (
        "site class D with S_1 >= 0.2: hazard analysis by 11.4.8, its exceptions are not for isolated or "
        "damped structures"
    ) in notes


@pytest.mark.parametrize(("edition", "F_a"), [("asce7-05", 1.0), ("asce7-10", 1.0), ("asce7-16", 1.2)])
def test_rock_by_default_is_class_d_with_a_note(edition: str, F_a: float) -> None:
    found = ground(edition, {"S_S": 1.5, "S_1": 0.1, "T_L": 8.0, "site_class": "B", "class_by_default": True}, II)
    assert (found["F_a"], found["F_v"]) == (F_a, 2.4)
    assert any("B by default" in n and "D is taken" in n for n in found["notes"])


def test_ubc_takes_s_d_by_default() -> None:
    found = ground("ubc97", {"zone": "3", "soil": "S_B", "class_by_default": True}, {"I": 1.0})
    assert (found["C_a"], found["C_v"]) == (0.36, 0.54)
    assert any("S_D is taken" in n for n in found["notes"])


@pytest.mark.parametrize(
    ("edition", "N", "s_u", "expected"),
    [
        # N = 30 is D, s_u = 40 kPa is E: the softer holds (20.3.3, 1636.2); EN 3.1.2(2) takes N before c_u
        ("asce7-16", 30.0, 40.0, "E"),
        ("asce7-16", 10.0, 120.0, "E"),
        ("asce7-16", 60.0, 120.0, "C"),
        ("ubc97", 30.0, 40.0, "S_E"),
        ("en1998-1", 30.0, 40.0, "C"),
    ],
)
def test_where_blow_count_and_strength_differ_the_softer_holds(
    edition: str, N: float, s_u: float, expected: str
) -> None:
    from plumb_core.editions import EDITIONS
    from plumb_core.rules import Evaluation

    evaluation = Evaluation(EDITIONS[edition].rules({}), {Key("N_SPT"): N, Key("s_u"): s_u})
    assert evaluation.value("soil_by_measurement") == expected


# Chapter 21


def study(**values: Any) -> dict[str, Any]:
    return D | {"site_specific": values}


def test_design_values_of_a_study_are_held_to_eighty_percent() -> None:
    # 21.3, class D with S_1 >= 0.2: F_v = 2.5, so S_D1 >= 0.8 x 2/3 x 2.5 x 0.6 = 0.8; S_DS >= 0.8 x 2/3 x 1.0 x 1.5
    # = 0.8
    found = ground("asce7-16", study(S_DS=1.1, S_D1=0.95), II)
    assert (found["S_DS"], found["S_D1"], found["S_MS"], found["S_M1"]) == (
        1.1,
        0.95,
        pytest.approx(1.65),
        pytest.approx(1.425),
    )
    low = ground("asce7-16", study(S_DS=0.7, S_D1=0.7), II)
    assert (low["S_DS"], low["S_D1"]) == (pytest.approx(0.8), pytest.approx(0.8))
    assert sum("below 80 %" in n for n in low["notes"]) == 2
    # 7-10: F_a = 1.0, F_v = 1.5: 0.8 and 0.48
    early = ground("asce7-10", study(S_DS=0.7, S_D1=0.4), II)
    assert (early["S_DS"], early["S_D1"]) == (pytest.approx(0.8), pytest.approx(0.48))


POINTS = {"T": [0.0, 0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 8.0], "S_a": [0.5, 1.1, 1.2, 1.15, 0.9, 0.5, 0.2, 0.1]}


@pytest.mark.parametrize(
    ("edition", "S_DS", "S_D1"),
    [
        # 7-16: 0.9 x 1.2; the greatest T S_a over 1 to 5 s of the curve, linear between (1, 0.9), (2, 0.5), (5, 0.2):
        # at 2 s 1.0, between 2 and 5 s T (0.7 - 0.1 T) is greatest at 3.5 s: 1.225
        ("asce7-16", 1.08, 1.225),
        # 7-05, 7-10: S_a(0.2) = 1.2; the greater of S_a(1) = 0.9 and 2 S_a(2) = 1.0
        ("asce7-10", 1.2, 1.0),
        ("asce7-05", 1.2, 1.0),
    ],
)
def test_design_values_follow_from_the_curve_of_a_study(edition: str, S_DS: float, S_D1: float) -> None:
    found = ground(edition, study(**POINTS), II)
    assert (found["S_DS"], found["S_D1"]) == (pytest.approx(S_DS), pytest.approx(S_D1, rel=1e-3))


def test_7_22_takes_nine_tenths_of_t_s_a() -> None:
    site = {"S_MS": 1.5, "S_M1": 0.9, "S_1": 0.6, "T_L": 8.0, "site_class": "D", "site_specific": POINTS}
    found = ground("asce7-22", site, II)
    assert (found["S_DS"], found["S_D1"]) == (pytest.approx(1.08), pytest.approx(0.9 * 1.225, rel=1e-3))


def test_the_curve_is_held_to_eighty_percent_of_the_general_one() -> None:
    # general values of 21.3: S_DS = 1.0, S_D1 = 1.0; at 5 s 0.8 x 1.0/5 = 0.16 < 0.2; at 8 s 0.8/8 = 0.1; at 2 s 0.4
    # < 0.5
    found = spectrum("asce7-16", study(**POINTS), II, [0.0, 0.2, 2.0, 5.0], {"R": 8.0})
    assert found["elastic"] == pytest.approx([0.5, 1.2, 0.5, 0.2])
    weak = study(T=POINTS["T"], S_a=[a / 2 for a in POINTS["S_a"]])
    # half of it is below the floor: 0.8 x (0.4, 1.0, 0.5, 0.2)
    assert spectrum("asce7-16", weak, II, [0.0, 0.2, 2.0, 5.0])["elastic"] == pytest.approx([0.32, 0.8, 0.4, 0.16])


def test_a_period_outside_the_study_is_refused() -> None:
    with pytest.raises(InputRefused, match="outside the site-specific spectrum"):
        spectrum("asce7-16", study(**POINTS), II, [9.0])


def test_class_f_has_values_with_a_study_alone() -> None:
    F = D | {"site_class": "F"}
    with pytest.raises(InputRefused):
        ground("asce7-16", F, II)
    # the floor is that of class E: F_a = 1.0, F_v = 4.0: 0.8 x 2/3 x 4.0 x 0.6 = 1.28
    found = ground("asce7-16", F | {"site_specific": {"S_DS": 1.0, "S_D1": 1.1}}, II)
    assert (found["S_DS"], found["S_D1"]) == (1.0, pytest.approx(1.28))


@settings(max_examples=30, deadline=None)
@given(scale=st.floats(0.05, 5.0), T=st.floats(0.0, 8.0))
def test_no_study_lowers_the_spectrum_below_its_floor(scale: float, T: float) -> None:
    scaled = study(T=POINTS["T"], S_a=[a * scale for a in POINTS["S_a"]])
    found = spectrum("asce7-16", scaled, II, [T])["elastic"][0]
    general = 0.4 + 3.0 * T if T < 0.2 else min(1.0, 1.0 / T)
    assert found >= 0.8 * general * (1 - 1e-9)


def test_studies_under_the_other_codes() -> None:
    own = {"T": [0.0, 0.2, 0.5, 1.0, 4.0], "S_a": [0.1, 0.25, 0.25, 0.125, 0.03]}
    # EN: S_e as given; S_d reduced as the code's at the same period: at 0.5 s by q = 3, at 4 s the lower bound 0.2 x
    # 0.25
    en = {"a_gR": 0.25, "ground_type": "C", "spectrum_type": 1, "site_specific": own}
    found = spectrum("en1998-1", en, {"importance_class": "II"}, [0.5, 4.0], {"q": 3.0})
    assert found["elastic"] == pytest.approx([0.25, 0.03])
    assert found["reduced"] == pytest.approx([0.25 / 3, 0.05])
    # IS 2016: not below the code's, (0.24/2) x 2.5 = 0.3 at 0.5 s, 0.12 x 0.34 at 4 s; 2002 names no floor
    indian = {"zone": "IV", "soil": "II", "site_specific": own}
    assert spectrum("is1893-2016", indian, {"use": "other"}, [0.5, 4.0])["elastic"] == pytest.approx([0.3, 0.12 * 0.34])
    assert spectrum("is1893-2002", indian, {"use": "other"}, [0.5, 4.0])["elastic"] == pytest.approx([0.25, 0.03])
    # AS: S_p/mu of it for strength
    aus = {"Z": 0.12, "subsoil": "C_e", "site_specific": own}
    assert spectrum("as1170.4", aus, {"importance_level": 2}, [0.5], {"mu": 2.0, "S_p": 0.77})[
        "reduced"
    ] == pytest.approx([0.25 * 0.385])
    # UBC: the modal spectrum; the static force stays with C_a and C_v
    ubc = {"zone": "3", "soil": "S_D", "site_specific": own}
    assert spectrum("ubc97", ubc, {"I": 1.0}, [0.5], {"R": 5.0})["reduced"] == pytest.approx([0.05])


@pytest.mark.parametrize(
    ("values", "path"),
    [
        ({"T": [0.0, 1.0]}, ""),
        ({}, ""),
        ({"T": [0.0, 1.0, 0.5], "S_a": [1.0, 1.0, 1.0]}, "/T"),
        ({"T": [0.0, 1.0], "S_a": [1.0, 1.0, 1.0]}, "/T"),
    ],
)
def test_a_study_that_says_nothing_is_refused_with_its_place(values: dict[str, Any], path: str) -> None:
    with pytest.raises(InputRefused) as refused:
        ground("asce7-16", study(**values), II)
    assert f"/site/site_specific{path}" in [p.path for p in refused.value.problems]


# Permissions


LOW_RISE = {"period_type": "other", "R": 5.0, "regular": True, "rho": 1.0}


def test_12_8_1_3_is_declared_never_taken_and_its_conditions_are_checked() -> None:
    high = {"S_S": 2.0, "S_1": 0.7, "T_L": 8.0, "site_class": "C"}
    # S_DS = 2/3 x 1.2 x 2.0 = 1.6: 0.7 x 1.6 = 1.12
    assert static("asce7-16", high, II, LOW_RISE, stories(2))["coefficient"] == pytest.approx(1.6 / 5)
    taken = static("asce7-16", high | {"short_period_cap": True}, II, LOW_RISE, stories(2))
    assert taken["coefficient"] == pytest.approx(1.12 / 5)
    assert any("reduced by 12.8.1.3, as declared" in n for n in taken["notes"])
    lacking = static(
        "asce7-16",
        high | {"short_period_cap": True},
        {"risk_category": "III"},
        LOW_RISE | {"regular": False},
        stories(2),
    )
    assert lacking["coefficient"] == pytest.approx(1.6 * 1.25 / 5)
    assert (
        "X: 12.8.1.3 is declared, but not met: no irregularity, risk category I or II; the full S_DS is used"
        in lacking["notes"]
    )


def test_the_cap_of_7_10_keeps_the_submitted_s_ds() -> None:
    # S_S taken as 1.5: S_DS x 1.5/2.0; it scales whatever S_DS is carried on
    from plumb_core.briefs import brief_evaluation
    from plumb_core.documents.brief import Brief
    from plumb_core.documents.reading import read
    from plumb_core.rules import Evaluation

    brief = read(
        Brief,
        {
            "edition": "asce7-10",
            "site": {"S_S": 2.0, "S_1": 0.7, "T_L": 8.0, "site_class": "B", "short_period_cap": True},
            "occupancy": II,
            "system": {"X": LOW_RISE, "Y": LOW_RISE},
            "stories": stories(2),
        },
    )
    own = brief_evaluation(brief)
    carried = Evaluation(own.rules, own.inputs, pins={Key("S_DS"): 1.2})
    assert own.value("S_DS_static", "X") == pytest.approx(1.0)
    assert carried.value("S_DS_static", "X") == pytest.approx(0.9)


def test_sub_soil_classes_of_as_1170_4() -> None:
    from plumb_core.editions import EDITIONS
    from plumb_core.errors import RuleRefused
    from plumb_core.rules import Evaluation

    def classed(**found: Any) -> str:
        return str(
            Evaluation(EDITIONS["as1170.4"].rules({}), {Key(n): v for n, v in found.items()}).value(
                "soil_by_measurement"
            )
        )

    assert classed(v_s30=1600.0, rock=True) == "A_e"
    assert classed(v_s30=500.0, rock=True) == "B_e"
    # deep gravel is as stiff as soft rock, and no rock
    assert classed(v_s30=450.0, rock=False, site_period=0.8) == "D_e"
    assert classed(v_s30=450.0, rock=False, site_period=0.5) == "C_e"
    assert classed(very_soft_thickness=10.5) == "E_e"
    assert classed(v_s30=140.0, very_soft_thickness=9.0) == "D_e"
    with pytest.raises(RuleRefused, match="rock"):
        classed(v_s30=450.0, site_period=0.5)
    with pytest.raises(RuleRefused, match="thickness"):
        classed(v_s30=140.0)


def test_ways_of_as_1170_4_that_need_no_period_ask_for_none() -> None:
    # category I: k_p Z = 0.10 on rock, up to 12 m; 0.1 of each weight, neither ductility nor period
    tenth = static(
        "as1170.4", {"Z": 0.1, "subsoil": "B_e"}, {"importance_level": 2}, {}, stories(3), static_method="5.3"
    )
    assert (tenth["coefficient"], tenth["T"], tenth["T_a"], tenth["exponent"]) == (0.1, None, None, None)
    assert tenth["F"] == pytest.approx([100.0] * 3)
    # K_s of three stories on class C_e: 1.8, 3.6, 5.5 from the bottom; k_p Z S_p/mu = 0.12 x 0.385 = 0.0462
    simple = static(
        "as1170.4",
        {"Z": 0.12, "subsoil": "C_e"},
        {"importance_level": 2},
        {"mu": 2.0, "S_p": 0.77},
        stories(3),
        static_method="5.4.2.3",
    )
    assert simple["F"] == pytest.approx([46.2 * k for k in (1.8, 3.6, 5.5)])
    assert simple["T"] is None
    # category III (level 4 above 12 m) requires dynamics
    with pytest.raises(InputRefused, match="category II"):
        static(
            "as1170.4",
            {"Z": 0.12, "subsoil": "C_e"},
            {"importance_level": 4},
            {"mu": 2.0, "S_p": 0.77},
            stories(4),
            static_method="5.4.2.3",
        )


def test_vertical_ordinates_take_s_p_where_only_one_direction_has_a_system() -> None:
    # 0.5 x 0.12 x 3.68 = 0.2208, times S_p = 0.67 for design
    found = spectrum(
        "as1170.4", {"Z": 0.12, "subsoil": "C_e"}, {"importance_level": 2}, [0.2], {"mu": 3.0, "S_p": 0.67}
    )
    assert (found["vertical"], found["vertical_reduced"]) == (pytest.approx([0.2208]), pytest.approx([0.2208 * 0.67]))


def test_vertical_design_spectrum_of_en_1998_1() -> None:
    # a_vg = 0.9 x 0.25 = 0.225; on the plateau 0.225 x 2.5/1.5 = 0.375 (q at most 1.5), at T = 0 two thirds of a_vg
    site = {"a_gR": 0.25, "ground_type": "C", "spectrum_type": 1}
    found = spectrum("en1998-1", site, {"importance_class": "II"}, [0.0, 0.1, 0.3], {"q": 3.9})
    assert found["vertical_reduced"] == pytest.approx([0.15, 0.375, 0.1875])
