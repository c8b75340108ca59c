"""Irregularity in plan and height, redundancy, systems over and beside each other, podiums, separation.

Worked by hand.
"""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from asking import ground, static, stories
from hypothesis import given, settings
from hypothesis import strategies as st
from plumb_core.editions import plans
from plumb_core.errors import InputRefused
from plumb_core.solve import solve

C = {"S_S": 1.5, "S_1": 0.5, "T_L": 8.0, "site_class": "C"}
D_SITE = {"site": C, "occupancy": {"risk_category": "II"}}
"""S_DS = 1.2, S_1 < 0.75: category D."""
E_SITE = {"site": C | {"S_1": 0.8}, "occupancy": {"risk_category": "II"}}
B_SITE = {"site": {"S_S": 0.3, "S_1": 0.08, "T_L": 8.0, "site_class": "B"}, "occupancy": {"risk_category": "II"}}


def irregular(edition: str, floors: list[dict[str, Any]], **more: Any) -> dict[str, Any]:
    return solve({"kind": "irregularity", "edition": edition, "stories": floors} | more)


def soft(count: int = 4, first: float = 0.5) -> list[dict[str, Any]]:
    return [{**s, "stiffness": {"X": 1000.0 * (first if i == 0 else 1.0)}} for i, s in enumerate(stories(count))]


# 12.3.2.2


@pytest.mark.parametrize("edition", ["asce7-05", "asce7-10", "asce7-16", "asce7-22", "ubc97"])
def test_steady_drifts_take_soft_stories_away(edition: str) -> None:
    assert irregular(edition, soft())["X"]
    # no drift ratio exceeds 1.3 times that above; the top two stories are not assessed
    steady = {"X": [0.0065, 0.005, 0.004, 0.001]}
    assert irregular(edition, soft(), drift_ratio=steady)["X"] == []
    assert irregular(edition, soft(), drift_ratio={"X": [0.0066, 0.005, 0.004, 0.001]})["X"]
    # they say nothing of the other direction
    assert irregular(edition, soft(), drift_ratio={"Y": steady["X"]})["X"]


@pytest.mark.parametrize(
    ("count", "place", "found"),
    [(2, D_SITE, False), (2, B_SITE, False), (2, E_SITE, True), (3, D_SITE, True), (2, {}, True)],
)
@pytest.mark.parametrize("edition", ["asce7-05", "asce7-16"])
def test_low_buildings_are_exempt_by_exception_2(edition: str, count: int, place: dict[str, Any], found: bool) -> None:
    assert bool(irregular(edition, soft(count), **place)["X"]) is found


def test_weak_stories_are_never_exempt() -> None:
    weak = [{**s, "strength": {"X": 100.0 * (0.6 if i == 0 else 1.0)}} for i, s in enumerate(stories(2))]
    assert [f["kind"] for f in irregular("asce7-16", weak, **D_SITE)["X"]] == ["5b extreme weak story"]


def test_roofs_of_is_1893_2002_are_not_looked_at_light_or_heavy() -> None:
    # the roof weighs 2.5 times the floor below; 2016 has no such exemption
    floors = [{"name": n, "height": 3.5, "weight": w} for n, w in (("L1", 1000.0), ("L2", 1000.0), ("Roof", 2500.0))]
    assert irregular("is1893-2002", floors)["X"] == []
    assert [f["story"] for f in irregular("is1893-2016", floors)["X"]] == ["Roof"]


def test_amendments_of_is_1893_2016_are_declared() -> None:
    floors = soft(4, 0.9)
    assert [f["kind"] for f in irregular("is1893-2016", floors)["X"]] == ["soft story"]
    assert irregular("is1893-2016", floors, site={"amendments": [1]})["X"] == []
    assert irregular("is1893-2016", soft(4, 0.79), site={"amendments": [1, 2]})["X"]
    with pytest.raises(InputRefused):
        irregular("is1893-2016", floors, site={"amendments": [2]})


# Consequences


def test_what_follows_from_irregularity_in_height() -> None:
    weak = [{**s, "strength": {"X": 100.0 * (0.6 if i == 0 else 1.0)}} for i, s in enumerate(stories(4))]
    assert irregular("asce7-16", weak, **D_SITE)["consequences"]["X"] == [
        "vertical irregularity 5b is not permitted (12.3.3.1)"
    ]
    assert irregular("asce7-16", weak, **E_SITE)["consequences"]["X"] == [
        "vertical irregularity 5b is not permitted (12.3.3.1)"
    ]
    # four stories: more than two, so in B the weak story needs Omega_0
    assert "12.3.3.2" in irregular("asce7-16", weak, **B_SITE)["consequences"]["X"][0]
    assert irregular("asce7-16", weak[:2], **B_SITE)["consequences"]["X"] == []
    declared = {"system": {"irregularities": {"in_plane_discontinuity": True}}}
    found = irregular("asce7-16", stories(4), **D_SITE, **declared)["consequences"]["X"]
    assert ["12.3.3.3" in f for f in found] == [True, False]
    assert "12.3.3.4" in found[1]
    # the number of the type differs by edition; both say the same
    assert (
        irregular("asce7-22", stories(4), **declared)["consequences"]["X"]
        == irregular("asce7-16", stories(4), **declared)["consequences"]["X"]
    )


def test_horizontal_types_are_there_none_or_not_tested() -> None:
    said = {"irregularities": {"out_of_plane_offset": True, "diaphragm_discontinuity": False}}
    found = irregular("asce7-16", stories(3), system=said, **D_SITE)
    states = {r["type"]: r["state"] for r in found["horizontal_irregularities"]}
    assert states == {
        "torsional": "not tested",
        "extreme_torsional": "not tested",
        "reentrant_corner": "not tested",
        "diaphragm_discontinuity": "none",
        "out_of_plane_offset": "there",
        "nonparallel_systems": "not tested",
    }
    follows = found["regularity_consequences"]
    assert any("12.3.3.3" in f for f in follows)
    assert any("12.3.3.4" in f for f in follows)
    assert follows[-1] == "not tested: 1a torsional, 1b extreme torsional, 2 reentrant corner, 5 nonparallel system"


L_PLAN = [[0.0, 0.0], [30.0, 0.0], [30.0, 10.0], [6.0, 10.0], [6.0, 20.0], [0.0, 20.0]]
"""Beyond the re-entrant corner (6, 10): 24 of 30 m along X, 10 of 20 m along Y."""


def test_projections_beyond_a_reentrant_corner() -> None:
    assert plans.reentrant_corners(L_PLAN) == [(pytest.approx(0.8), pytest.approx(0.5))]
    assert plans.reentrant_corners(L_PLAN[::-1]) == [(pytest.approx(0.8), pytest.approx(0.5))]
    assert plans.reentrant_corners([[0, 0], [4, 0], [4, 3], [0, 3]]) == []
    # the notch between corner, (30, 10), (6, 20): a triangle of 24 x 10/2 over 30 x 10 + 6 x 10
    assert plans.recess(L_PLAN) == pytest.approx(120.0 / 360.0)


@settings(max_examples=50, deadline=None)
@given(
    angle=st.sampled_from([0, 90, 180, 270]),
    move=st.tuples(st.floats(-50, 50), st.floats(-50, 50)),
    start=st.integers(0, 5),
)
def test_a_plan_turned_and_moved_has_the_same_corners(angle: int, move: tuple[float, float], start: int) -> None:
    c, s = np.cos(np.radians(angle)), np.sin(np.radians(angle))
    turned = (np.array(L_PLAN) @ np.array([[c, s], [-s, c]]) + np.array(move))[[(i + start) % 6 for i in range(6)]]
    (found,) = plans.reentrant_corners(turned.tolist())
    assert sorted(found) == pytest.approx([0.5, 0.8], rel=1e-6)
    assert plans.recess(turned.tolist()) == pytest.approx(1 / 3, rel=1e-6)


def _outlined(notch: tuple[float, float]) -> list[dict[str, Any]]:
    """A plan of 40 x 20 m with a corner of the given size cut out."""
    x, y = notch
    corners = [[0.0, 0.0], [40.0, 0.0], [40.0, 20.0 - y], [40.0 - x, 20.0 - y], [40.0 - x, 20.0], [0.0, 20.0]]
    return [{**s, "corners": corners} for s in stories(2)]


@pytest.mark.parametrize(
    ("edition", "notch", "there"),
    [
        # 15 % both ways is 6 x 3 m; in 7-22 20 %: 8 x 4 m; in IS 1893:2016 one way will do
        ("asce7-16", (6.0, 3.0), False),
        ("asce7-16", (6.1, 3.1), True),
        ("asce7-16", (30.0, 2.9), False),
        ("asce7-22", (7.9, 3.9), False),
        ("asce7-22", (8.1, 4.1), True),
        ("ubc97", (6.1, 3.1), True),
        ("is1893-2002", (30.0, 2.9), False),
        ("is1893-2016", (30.0, 2.9), True),
    ],
)
def test_reentrant_corners_from_the_outline(edition: str, notch: tuple[float, float], there: bool) -> None:
    rows = irregular(edition, _outlined(notch))["horizontal_irregularities"]
    assert next(r for r in rows if r["type"] == "reentrant_corner")["state"] == ("there" if there else "none")


def test_a_declaration_that_the_outline_contradicts_is_told() -> None:
    rows = irregular("asce7-16", _outlined((10.0, 6.0)), system={"irregularities": {"reentrant_corner": False}})[
        "horizontal_irregularities"
    ]
    row = next(r for r in rows if r["type"] == "reentrant_corner")
    assert (row["state"], row["basis"]) == (
        "there",
        "projections of 25% in both directions, the limit is 15%; declared as none",
    )


def test_regularity_in_plan_of_en_1998_1_as_declared() -> None:
    floors = [
        {**s, "plan": [20.0, 12.0], "plan_stiffness": {"e_0": {"X": 2.0, "Y": 1.0}, "r": {"X": 8.0, "Y": 7.0}}}
        for s in stories(3)
    ]
    floors = [{**f, "corners": [[0.0, 0.0], [20.0, 0.0], [20.0, 12.0], [0.0, 12.0]]} for f in floors]
    # symmetry and stiffness of the floors, 4.2.3.2(2) and (4), can only be declared
    assert irregular("en1998-1", floors)["regular_in_plan"] is None
    said = {"symmetric_in_plan": True, "irregularities": {"diaphragm_discontinuity": False}}
    found = irregular("en1998-1", floors, system=said)
    torn = said | {"irregularities": {"diaphragm_discontinuity": True}}
    assert irregular("en1998-1", floors, system=torn)["regular_in_plan"] is False
    # l_s of 20 x 12 m is 6.733 m; 2/8 = 0.25, 1/7 = 0.143; slenderness 1.67
    tests = {t["words"]: t["value"] for t in found["plan_regularity"]}
    assert tests["r_x / l_s"] == pytest.approx(8 / 6.7330, rel=1e-4)
    assert tests["slenderness L_max/L_min"] == pytest.approx(20 / 12)
    assert (found["regular_in_plan"], found["torsionally_flexible"]) == (True, False)
    # a torsional radius below l_s: torsionally flexible, whose q_0 is 2.0 in DCM
    soft_in_torsion = [
        {**f, "plan_stiffness": {"e_0": {"X": 0.0, "Y": 0.0}, "r": {"X": 6.0, "Y": 7.0}}} for f in floors
    ]
    assert irregular("en1998-1", soft_in_torsion)["torsionally_flexible"] is True
    request = {
        "kind": "system",
        "edition": "en1998-1",
        "stories": soft_in_torsion,
        "system": {"X": {"lateral_system": "rc_walls", "alpha_0": 3.0}, "ductility_class": "DCM"},
    }
    assert solve(request)["X"]["q"] == pytest.approx(2.0)
    # not known: requested, never taken as regular
    assert irregular("en1998-1", stories(3))["regular_in_plan"] is None


@pytest.mark.parametrize(
    ("steps", "met"),
    [
        # each floor symmetric: 20 m, 16 m (20 %), 12.8 m (20 %); then one more than 20 %
        ([(0, 20), (2, 18), (3.6, 16.4)], True),
        ([(0, 20), (2.1, 17.9), (3.6, 16.4)], False),
        # on one face at most 10 % of the floor below each, 30 % of the base in sum
        ([(0, 20), (0, 18), (0, 16.2)], True),
        ([(0, 20), (0, 17.9), (0, 17.9)], False),
    ],
)
def test_setbacks_of_en_1998_1(steps: list[tuple[float, float]], met: bool) -> None:
    floors = [
        {**s, "corners": [[a, 0.0], [b, 0.0], [b, 12.0], [a, 12.0]]}
        for s, (a, b) in zip(stories(3), steps, strict=True)
    ]
    assert irregular("en1998-1", floors)["elevation_regularity"][0]["met"] is met


@pytest.mark.parametrize(
    ("plan", "elevation", "words"),
    [
        (True, True, "plane models, lateral force method, q"),
        (True, False, "plane models, modal analysis, 0.8 q"),
        (False, True, "a spatial model, lateral force method, q"),
        (False, False, "a spatial model, modal analysis, 0.8 q"),
    ],
)
def test_table_4_1(plan: bool, elevation: bool, words: str) -> None:
    found = irregular("en1998-1", stories(3), system={"regular_in_plan": plan, "regular_in_elevation": elevation})
    assert found["regularity_consequences"][0] == f"Table 4.1: {words}"
    # 10.5 m is above the 10 m up to which plane models may be in with 1.25
    assert len(found["regularity_consequences"]) == 1
    low = irregular("en1998-1", stories(2), system={"regular_in_plan": plan, "regular_in_elevation": elevation})
    assert ("1.25" in low["regularity_consequences"][-1]) is not plan


# Modes of IS 1893:2016


def test_first_modes_of_is_1893_2016() -> None:
    request = {
        "kind": "modes",
        "edition": "is1893-2016",
        "site": {"zone": "IV", "soil": "II"},
        "T": [1.0, 0.92, 0.8, 0.3],
        "mass_share": {"X": [0.1, 0.5, 0.04, 0.3], "Y": [0.05, 0.1, 0.65, 0.1], "RZ": [0.6, 0.1, 0.05, 0.1]},
    }
    tests = {t["words"]: t for t in solve(request)["tests"]}
    # X: 0.64 < 0.65; Y: 0.80; the lateral periods 0.92 and 0.80: 0.12/0.92 = 13 %; the first mode is torsional
    # and its period of 1.0 s is above both lateral ones (second condition of Table 5 i)
    assert [t["met"] for t in tests.values()] == [False, True, True, False, False]
    assert tests["the two lateral periods at least 10 % of the larger apart (zones IV and V)"][
        "value"
    ] == pytest.approx(0.12 / 0.92)
    low = solve(request | {"site": {"zone": "II", "soil": "II"}})["tests"]
    assert len(low) == 4
    without = solve({**request, "mass_share": {d: request["mass_share"][d] for d in ("X", "Y")}})["tests"]  # type: ignore[index]
    assert without[-1]["met"] is None


# 12.3.4


def rho(edition: str, place: dict[str, Any], **own: Any) -> tuple[float, dict[str, Any]]:
    building = own.pop("irregularities", None)
    found = solve(
        {"kind": "system", "edition": edition, "steps": True, "system": {"X": own, "irregularities": building}, **place}
    )
    return found["X"]["rho"], found["X"]


REMOVAL = {"story": "L1", "shear_share": 1.0, "element": "wall", "strength_loss": 0.33, "extreme_torsion": False}


@pytest.mark.parametrize(
    ("redundancy", "expected"),
    [
        (None, 1.3),
        ({"stories": [REMOVAL]}, 1.0),
        ({"stories": [REMOVAL | {"strength_loss": 0.34}]}, 1.3),
        ({"stories": [REMOVAL | {"extreme_torsion": True}]}, 1.3),
        ({"stories": [REMOVAL | {"extreme_torsion": None}]}, 1.3),
        # a story with no more than 35 % of the base shear is not asked
        ({"stories": [REMOVAL, REMOVAL | {"story": "L4", "shear_share": 0.35, "strength_loss": 0.9}]}, 1.0),
        ({"stories": [REMOVAL, REMOVAL | {"story": "L3", "shear_share": 0.36, "strength_loss": 0.9}]}, 1.3),
        ({"regular_in_plan": True, "perimeter_bays": 2}, 1.0),
        ({"regular_in_plan": False, "perimeter_bays": 4}, 1.3),
        ({"perimeter_bays": 2}, 1.3),
    ],
)
@pytest.mark.parametrize("edition", ["asce7-05", "asce7-16"])
def test_redundancy_by_12_3_4_2(edition: str, redundancy: dict[str, Any] | None, expected: float) -> None:
    assert rho(edition, D_SITE, redundancy=redundancy)[0] == expected
    assert rho(edition, B_SITE, redundancy=redundancy)[0] == 1.0


def test_extreme_torsion_leaves_1_3_in_category_d_from_7_16_on() -> None:
    shown = {"redundancy": {"stories": [REMOVAL]}, "irregularities": {"extreme_torsional": True}}
    assert [rho(e, D_SITE, **shown)[0] for e in ("asce7-10", "asce7-16")] == [1.0, 1.3]
    assert rho("asce7-16", E_SITE, **shown)[0] == 1.0


@pytest.mark.parametrize(
    ("own", "expected"),
    [
        # braces: 250/1000; 2 - 6.1/(0.25 x sqrt(900)) = 1.18667
        (
            {"element_shears": [{"story": "L1", "element": "brace", "shear": 250.0, "story_shear": 1000.0}]},
            2 - 6.1 / 7.5,
        ),
        # walls: 400 x (3.05/6.1)/1000 = 0.2: 2 - 6.1/6 = 0.98 is raised to 1.0
        (
            {
                "element_shears": [
                    {"story": "L1", "element": "wall", "shear": 400.0, "story_shear": 1000.0, "length": 6.1}
                ]
            },
            1.0,
        ),
        ({"r_max": 0.9}, 1.5),
        # the greatest of the lower two thirds: the top story of three is not assessed
        (
            {
                "element_shears": [
                    {"story": n, "element": "brace", "shear": s, "story_shear": 1000.0}
                    for n, s in (("L1", 250.0), ("L2", 300.0), ("L3", 900.0))
                ]
            },
            2 - 6.1 / 9,
        ),
        # dual systems: 80 % of it
        ({"r_max": 0.9, "lateral_system": "dual_SCBF_SMRF"}, 1.2),
    ],
)
def test_redundancy_of_ubc_by_eq_30_3(own: dict[str, Any], expected: float) -> None:
    request = {
        "kind": "system",
        "edition": "ubc97",
        "site": {"zone": "3", "soil": "S_D"},
        "occupancy": {"I": 1.0},
        "stories": stories(3),
        "system": {"X": own, "A_B": 900.0},
    }
    assert solve(request)["X"]["rho"] == pytest.approx(expected)


def test_special_moment_frames_of_ubc_say_where_rho_is_too_great() -> None:
    request = {
        "kind": "system",
        "edition": "ubc97",
        "site": {"zone": "4", "soil": "S_D"},
        "occupancy": {"I": 1.0},
        "steps": True,
        "system": {"X": {"lateral_system": "SMRF_steel", "r_max": 0.5}, "A_B": 900.0},
    }
    step = next(s for s in solve(request)["steps"] if s["id"] == "rho.X")
    assert step["value"] == pytest.approx(1.5)
    assert "more than the 1.25" in step["governed_by"]


# Systems


def factors(edition: str, place: dict[str, Any], **own: Any) -> list[float]:
    found = solve({"kind": "system", "edition": edition, "system": {"X": own}, "stories": stories(6), **place})["X"]
    return [found[n] for n in ("R", "Omega_0", "C_d") if n in found]


def test_systems_over_each_other() -> None:
    # special walls (5/2.5/5) under a special frame (8/3/5.5): 7-05 takes the least R with the greatest Omega_0 and
    # C_d above,
    # 7-16 the row with the least R
    own = {
        "lateral_system": "A_special_RC_shear_wall",
        "stacked_systems": [{"lateral_system": "C_RC_SMF", "from_story": "L4"}],
    }
    assert factors("asce7-05", D_SITE, **own) == [5.0, 3.0, 5.5]
    assert factors("asce7-16", D_SITE, **own) == [5.0, 2.5, 5.0]


def test_systems_side_by_side() -> None:
    # 7-16, 12.2.3.3: the least R with its own Omega_0 and C_d; 7-05, 12.2.3.2: the greatest of them
    own = {"lateral_system": "C_RC_SMF", "beside_systems": [{"lateral_system": "B_special_RC_SW"}]}
    assert factors("asce7-16", D_SITE, **own) == [6.0, 2.5, 5.0]
    assert factors("asce7-05", D_SITE, **own) == [6.0, 3.0, 5.5]
    assert (
        factors(
            "ubc97",
            {"site": {"zone": "3", "soil": "S_D"}},
            lateral_system="SMRF_conc",
            beside_systems=[{"lateral_system": "BF_conc_wall"}],
        )[0]
        == 5.5
    )


@pytest.mark.parametrize(
    ("weight", "exempt", "R"),
    [(100.0, "supported", 6.0), (800.0, "supported", 3.5), (100.0, None, 3.5), (100.0, "rooftop", 6.0)],
)
def test_light_upper_parts_are_exempt_where_declared_and_true(weight: float, exempt: str | None, R: float) -> None:
    # 12.2.3.1, exceptions: up to 10 % of the weight; 100/5100 is 2 %, 800/5800 is 14 %
    floors = [*stories(5), {"name": "Tank", "height": 3.5, "weight": weight}]
    own = {
        "lateral_system": "B_special_RC_SW",
        "stacked_systems": [{"lateral_system": "C_steel_OMF", "from_story": "Tank", "exempt": exempt}],
    }
    found = solve({"kind": "system", "edition": "asce7-16", "system": {"X": own}, "stories": floors, **D_SITE})["X"]
    assert found["R"] == R
    assert ("declared exempt" in found["system_permission"]) is (weight > 500)


@pytest.mark.parametrize(
    ("zone", "other", "R"),
    [("3", "BW_conc_wall", 4.5), ("4", "BW_conc_wall", 4.5), ("2B", "BW_conc_wall", 8.5), ("3", "BF_conc_wall", 8.5)],
)
def test_a_bearing_wall_in_one_axis_limits_the_other_in_ubc(zone: str, other: str, R: float) -> None:
    site = {"zone": zone, "soil": "S_D"} | ({"source_type": "C", "source_distance_km": 20.0} if zone == "4" else {})
    found = solve(
        {
            "kind": "system",
            "edition": "ubc97",
            "site": site,
            "system": {"X": {"lateral_system": "SMRF_conc"}, "Y": {"lateral_system": other}},
        }
    )
    assert found["X"]["R"] == R


def test_rows_of_table_16_n_that_end() -> None:
    def R(count: int) -> float:
        return float(
            solve(
                {
                    "kind": "system",
                    "edition": "ubc97",
                    "site": {"zone": "3", "soil": "S_D"},
                    "stories": stories(count),
                    "system": {"X": {"lateral_system": "BW_light_wood"}},
                }
            )["X"]["R"]
        )

    # up to three stories; above them the row for other light-framed walls
    assert (R(3), R(4)) == (5.5, 4.5)
    found = solve(
        {
            "kind": "system",
            "edition": "ubc97",
            "site": {"zone": "2A", "soil": "S_D"},
            "stories": stories(3),
            "system": {"X": {"lateral_system": "wall_frame_interaction_conc"}},
        }
    )["X"]
    assert found["system_permission"] == "not permitted in zone 2A"


def test_the_static_method_says_when_a_system_is_not_permitted_or_its_period_type_does_not_fit() -> None:
    notes = static(
        "asce7-16",
        C,
        {"risk_category": "II"},
        {"lateral_system": "C_RC_OMF", "period_type": "other", "rho": 1.0, "regular": True},
        stories(4),
    )["notes"]
    assert "X: lateral system not permitted in category D" in notes
    assert "X: period type other does not fit the lateral system C_RC_OMF: rc_mrf by Table 12.8-2" in notes
    fits = static(
        "asce7-16",
        C,
        {"risk_category": "II"},
        {"lateral_system": "C_RC_SMF", "period_type": "rc_mrf", "rho": 1.0, "regular": True},
        stories(4),
    )["notes"]
    assert [n for n in fits if n.startswith("X")] == []


@pytest.mark.parametrize(
    ("edition", "system", "words"),
    [
        ("as1170.4", "RC_other", "AS 3600"),
        ("as1170.4", "steel_OMRF", "AS 4100"),
        ("is1893-2002", "steel_CBF", "IS 800"),
    ],
)
def test_material_standards_that_override_a_row_are_named(edition: str, system: str, words: str) -> None:
    site, occupancy = (
        ({"Z": 0.12, "subsoil": "C_e"}, {"importance_level": 2})
        if edition == "as1170.4"
        else ({"zone": "IV", "soil": "II"}, {"use": "other"})
    )
    notes = static(edition, site, occupancy, {"lateral_system": system, "period_type": "other", "d": 20.0}, stories(4))[
        "notes"
    ]
    assert any(words in n for n in notes)


def test_light_frames_of_7_05_are_permitted_the_static_method_at_any_height() -> None:
    own = {"period_type": "other", "R": 6.5, "rho": 1.0}
    bare = static("asce7-05", C, {"risk_category": "II"}, own, stories(5))["notes"]
    light = static("asce7-05", C, {"risk_category": "II"}, own, stories(5), light_frame=True)["notes"]
    assert any("Table 12.6-1" in n for n in bare)
    assert not any("Table 12.6-1" in n for n in light)


@pytest.mark.parametrize(
    ("more", "floors", "words"),
    [
        ({"stacked_systems": [{"lateral_system": "SMRF_steel", "from_story": "L4"}]}, 7, "1629.8.4 item 3"),
        ({}, 7, ""),
    ],
)
def test_systems_that_change_over_the_height_ask_for_dynamics_in_ubc(
    more: dict[str, Any], floors: int, words: str
) -> None:
    own = {"lateral_system": "BF_conc_wall", "period_type": "other", "regular": True} | more
    notes = " ".join(static("ubc97", {"zone": "3", "soil": "S_D"}, {"I": 1.0}, own, stories(floors))["notes"])
    assert (words in notes) if words else "static force procedure" not in notes


def test_soft_soil_with_a_long_period_asks_for_dynamics_in_ubc() -> None:
    site = {"zone": "3", "soil": "S_F", "C_a": 0.36, "C_v": 0.9}
    own = {"R": 8.5, "period_type": "steel_mrf", "regular": True}
    assert "static force procedure: not permitted: soil profile S_F" in " ".join(
        static("ubc97", site, {"I": 1.0}, own, stories(6))["notes"]
    )
    assert "static force procedure" not in " ".join(static("ubc97", site, {"I": 1.0}, own, stories(3))["notes"])


def test_where_6_4_3_and_7_7_1_of_is_1893_2016_differ_permission_is_open() -> None:
    def said(zone: str, count: int, **own: Any) -> str:
        found = solve(
            {
                "kind": "system",
                "edition": "is1893-2016",
                "site": {"zone": zone, "soil": "II"},
                "occupancy": {"use": "other"},
                "stories": stories(count),
                "system": {"X": {"R": 5.0, "period_type": "rc_mrf", "regular": True} | own},
            }
        )
        return str(found["X"]["static_permitted"])

    # T_a = 0.075 h^0.75: 7 m 0.323 s, 10.5 m 0.437 s, 14 m 0.543 s
    assert said("II", 2) == "permitted"
    assert said("IV", 2).startswith("open: 6.4.3 permits it")
    assert said("II", 3).startswith("open: 7.7.1 permits it")
    assert said("IV", 3).startswith("not permitted")
    assert said("II", 2, regular=False).startswith("not permitted")


def test_directions_of_is_1893_2016_one_at_a_time_where_orthogonal() -> None:
    def rules(**more: Any) -> list[str]:
        found = solve(
            {
                "kind": "system",
                "edition": "is1893-2016",
                "site": {"zone": "IV", "soil": "II"},
                "system": {"X": {"R": 5.0}, **more},
            }
        )
        return list(found["X"]["direction_rule"])

    assert "one horizontal direction at a time (6.3.2.1)" in rules(irregularities={"nonparallel_systems": False})[0]
    assert "6.3.2.2" in rules(irregularities={"nonparallel_systems": True})[0]


@pytest.mark.parametrize(
    ("zone", "soil", "more", "words"),
    [("V", "II", {}, "zone V"), ("II", "III", {}, "soft soil"), ("II", "II", {}, "neither zone nor soil")],
)
def test_triggers_of_vertical_shaking_in_is_1893_2016(zone: str, soil: str, more: dict[str, Any], words: str) -> None:
    assert any(words in n for n in ground("is1893-2016", {"zone": zone, "soil": soil}, {"use": "other"})["notes"])


# Diaphragms


def test_diaphragm_forces_with_both_bounds() -> None:
    """Four equal stories of 1000 kN at 3.5 m, T <= 0.5 s, C_s = 1.2/5 = 0.24, V = 960, F = 96, 192, 288, 384.

    Sums above over sums of weights: 960/4000, 864/3000, 672/2000, 384/1000 of 1000 kN: 240, 288, 336, 384; bounds
    240 and 480.
    """
    own = {"R": 5.0, "period_type": "other", "rho": 1.0, "regular": True}
    found = static("asce7-16", C, {"risk_category": "II"}, own, stories(4))
    assert found["diaphragm"] == pytest.approx([240.0, 288.0, 336.0, 384.0])
    # R = 10: half of it, held up by 0.2 S_DS I w = 240
    assert static("asce7-16", C, {"risk_category": "II"}, own | {"R": 10.0}, stories(4))["diaphragm"] == pytest.approx(
        [240.0] * 4
    )
    # R = 2: 2.5 times, held down by 0.4 S_DS I w = 480
    assert static("asce7-16", C, {"risk_category": "II"}, own | {"R": 2.0}, stories(4))["diaphragm"] == pytest.approx(
        [480.0] * 4
    )
    # UBC: 0.5 C_a I w = 180 and C_a I w = 360; V = 2.5 x 0.36/5 W = 720: sums over weights 180, 216, 252, 288
    ubc = static(
        "ubc97",
        {"zone": "3", "soil": "S_D"},
        {"I": 1.0},
        {"R": 5.0, "period_type": "other", "regular": True},
        stories(4),
    )
    assert ubc["diaphragm"] == pytest.approx([180.0, 216.0, 252.0, 288.0])


# Podiums


PODIUM = {
    "from_story": "L3",
    "stiffness_ratio": 10.0,
    "T_whole": 0.55,
    "T_upper": 0.5,
    "R_upper": 6.5,
    "rho_upper": 1.0,
}


def podium(edition: str, place: dict[str, Any], own: dict[str, Any], **more: Any) -> dict[str, Any]:
    request = {
        "kind": "static",
        "edition": edition,
        "stories": stories(6),
        **place,
        "system": {"X": {"period_type": "other", "podium": PODIUM | more, **own}},
    }
    return dict(solve(request)["X"]["two_stage"])


def test_two_stage_analysis_of_a_podium() -> None:
    """S_DS = 0.96 (F_a = 1.2, S_S = 1.2), S_D1 = 0.5: upper C_s = 0.96/6.5 over 4000 kN; lower 0.96/5 over 2000 kN.

    Handed down times (6.5/1.0)/(5/1.3) = 1.69.
    """
    place = {"site": C | {"S_S": 1.2}, "occupancy": {"risk_category": "II"}}
    found = podium("asce7-16", place, {"R": 5.0, "rho": 1.3})
    assert found["permitted"] is True
    assert (found["V_upper"], found["factor"]) == (pytest.approx(0.96 / 6.5 * 4000), pytest.approx(1.69))
    assert found["V_base"] == pytest.approx(0.96 / 5 * 2000 + 1.69 * 0.96 / 6.5 * 4000)
    # k = 1 up to 0.5 s: the upper forces go by the height above the transfer level, 1 : 2 : 3 : 4
    assert found["F"][2:] == pytest.approx([0.96 / 6.5 * 400 * n for n in (1, 2, 3, 4)])
    # a factor below 1 is not used: transferred forces are never reduced
    assert podium("asce7-16", place, {"R": 8.0, "rho": 1.0})["factor"] == 1.0


@pytest.mark.parametrize(
    ("more", "permitted"), [({"stiffness_ratio": 9.9}, False), ({"T_whole": 0.551}, False), ({"T_whole": None}, None)]
)
def test_conditions_of_two_stage_analysis(more: dict[str, Any], permitted: bool | None) -> None:
    assert podium("asce7-16", D_SITE, {"R": 5.0, "rho": 1.0}, **more)["permitted"] is permitted


def test_podium_of_ubc() -> None:
    # C_a = 0.36, C_v = 0.54: at 0.5 s min(0.54/0.5, 0.9)/6.5 = 0.9/6.5 over 4000; lower 0.9/4.5 over 2000; factor
    # 6.5/4.5
    found = podium(
        "ubc97",
        {"site": {"zone": "3", "soil": "S_D"}, "occupancy": {"I": 1.0}},
        {"R": 4.5, "rho": 1.0, "regular": True},
    )
    assert found["V_base"] == pytest.approx(0.9 / 4.5 * 2000 + 6.5 / 4.5 * 0.9 / 6.5 * 4000)


def test_a_podium_that_starts_nowhere_is_refused() -> None:
    with pytest.raises(InputRefused) as refused:
        podium("asce7-16", D_SITE, {"R": 5.0, "rho": 1.0}, from_story="L1")
    assert [p.path for p in refused.value.problems] == ["/system/X/podium"]


# Separation


def apart(edition: str, own: dict[str, Any], **more: Any) -> float:
    return float(
        solve({"kind": "separation", "edition": edition, "system": {"X": own}, "displacement": 0.02} | more)["required"]
    )


def test_separation_by_every_code() -> None:
    II = {"occupancy": {"risk_category": "III"}}
    # 12.12.3: 5 x 0.02/1.25 = 0.08; with a neighbour of 0.06: 0.1
    assert apart("asce7-16", {"C_d": 5.0}, **II) == pytest.approx(0.08)
    assert apart("asce7-10", {"C_d": 5.0}, other_displacement=0.06, **II) == pytest.approx(0.1)
    # UBC 33-2: 0.7 x 8.5 x 0.02 = 0.119
    assert apart("ubc97", {"R": 8.5}, other_displacement=0.05) == pytest.approx((0.119**2 + 0.05**2) ** 0.5)
    # EN: 4 x 0.02 = 0.08; one property: the root, times 0.7 with floors level; another property: its own
    en = {"other_displacement": 0.06, "same_property": True}
    assert apart("en1998-1", {"q": 4.0}, **en) == pytest.approx(0.1)
    assert apart("en1998-1", {"q": 4.0}, **en, floors_level=True) == pytest.approx(0.07)
    assert apart("en1998-1", {"q": 4.0}, **en | {"same_property": False}) == pytest.approx(0.08)
    with pytest.raises(InputRefused) as refused:
        apart("en1998-1", {"q": 4.0}, other_displacement=0.06)
    assert [p.path for p in refused.value.problems] == ["/same_property"]
    # IS 2002: R times the sum, R/2 + 25 mm with floors level; 2016: R_1 D_1 + R_2 D_2 (the other as given)
    assert apart("is1893-2002", {"R": 5.0}, other_displacement=0.01) == pytest.approx(0.15)
    assert apart("is1893-2002", {"R": 5.0}, other_displacement=0.01, floors_level=True) == pytest.approx(0.1)
    assert apart("is1893-2016", {"R": 5.0}, other_displacement=0.03) == pytest.approx(0.13)
    # AS: 1 % of 21 m; none up to 15 m, none with walls to the base
    assert apart("as1170.4", {}, stories=stories(6)) == pytest.approx(0.21)
    assert apart("as1170.4", {}, stories=stories(4)) == 0.0
    assert apart("as1170.4", {}, stories=stories(6), walls_to_base=True) == 0.0


@pytest.mark.parametrize(("gap", "ok"), [(0.1, True), (0.099, False), (None, None)])
def test_a_gap_is_held_to_the_separation(gap: float | None, ok: bool | None) -> None:
    request = {
        "kind": "separation",
        "edition": "asce7-16",
        "occupancy": {"risk_category": "III"},
        "system": {"X": {"C_d": 5.0}},
        "displacement": 0.02,
        "other_displacement": 0.06,
    }
    assert solve(request | ({} if gap is None else {"gap": gap}))["ok"] is ok


# Weight


@pytest.mark.parametrize(
    ("edition", "weight"),
    [("asce7-05", 96.0), ("asce7-16", 96.0), ("ubc97", 96.0), ("is1893-2016", 100.0), ("is1893-2002", 0.0)],
)
def test_partitions_stated_as_nothing_have_their_least_weight(edition: str, weight: float) -> None:
    # 200 m2: 0.48 kPa by ASCE 7 and UBC, 0.5 kPa by IS 1893:2016
    loads = [{"kind": "dead", "amount": 500.0}, {"kind": "partition", "amount": 0.0, "area": 200.0}]
    found = solve({"kind": "weight", "edition": edition, "stories": [{"name": "L1", "height": 3.0, "loads": loads}]})
    assert found["W"] == pytest.approx(500.0 + weight)
    assert found["stories"][0]["loads"][1]["share"] == (None if weight else 1.0)


def test_an_intensity_stands_in_for_the_area_of_partitions() -> None:
    # 60 kN at 0.3 kPa are 200 m2
    loads = [{"kind": "partition", "amount": 60.0, "intensity": 0.3}]
    found = solve({"kind": "weight", "edition": "asce7-16", "stories": [{"name": "L1", "height": 3.0, "loads": loads}]})
    assert found["W"] == pytest.approx(96.0)
