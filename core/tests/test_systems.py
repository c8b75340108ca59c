"""Tables of lateral systems: every row against a second reading of the tables, and the rules that read them."""

from __future__ import annotations

import math
from typing import Any

import pytest
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused
from plumb_core.solve import solve

# R/Omega_0/C_d and the greatest heights (ft) in category B to F, read a second time on its own
READ_AGAIN = {
    "asce7-10": """
A_special_RC_shear_wall                       5/2.5/5      NL NL 160 160 100
A_ordinary_RC_shear_wall                      4/2.5/4      NL NL NP NP NP
A_intermediate_precast_SW                     4/2.5/4      NL NL 40 40 40
A_ordinary_precast_SW                         3/2.5/3      NL NP NP NP NP
A_special_RM_SW                               5/2.5/3.5    NL NL 160 160 100
A_intermediate_RM_SW                          3.5/2.5/2.25   NL NL NP NP NP
A_ordinary_RM_SW                              2/2.5/1.75   NL 160 NP NP NP
A_light_frame_wood_WSP                        6.5/3/4      NL NL 65 65 65
A_light_frame_CFS_WSP_or_steel_sheet          6.5/3/4      NL NL 65 65 65
A_light_frame_other_panels                    2/2.5/2      NL NL 35 NP NP
A_CFS_flat_strap                              4/2/3.5    NL NL 65 65 65
B_steel_EBF                                   8/2/4      NL NL 160 160 100
B_steel_SCBF                                  6/2/5      NL NL 160 160 100
B_steel_OCBF                                  3.25/2/3.25   NL NL 35 35 NP
B_steel_BRBF                                  8/2.5/5      NL NL 160 160 100
B_steel_SPSW                                  7/2/6      NL NL 160 160 100
B_special_RC_SW                               6/2.5/5      NL NL 160 160 100
B_ordinary_RC_SW                              5/2.5/4.5    NL NL NP NP NP
B_intermediate_precast_SW                     5/2.5/4.5    NL NL 40 40 40
B_composite_plate_SW                          6.5/2.5/5.5    NL NL 160 160 100
B_composite_special_SW                        6/2.5/5      NL NL 160 160 100
B_composite_SCBF                              5/2/4.5    NL NL 160 160 100
B_special_RM_SW                               5.5/2.5/4      NL NL 160 160 100
B_light_frame_wood_WSP                        7/2.5/4.5    NL NL 65 65 65
C_steel_SMF                                   8/3/5.5    NL NL NL NL NL
C_steel_STMF                                  7/3/5.5    NL NL 160 100 NP
C_steel_IMF                                   4.5/3/4      NL NL 35 NP NP
C_steel_OMF                                   3.5/3/3      NL NL NP NP NP
C_RC_SMF                                      8/3/5.5    NL NL NL NL NL
C_RC_IMF                                      5/3/4.5    NL NL NP NP NP
C_RC_OMF                                      3/3/2.5    NL NP NP NP NP
C_composite_SMF                               8/3/5.5    NL NL NL NL NL
C_composite_IMF                               5/3/4.5    NL NL NP NP NP
D_SMF_steel_EBF                               8/2.5/4      NL NL NL NL NL
D_SMF_steel_SCBF                              7/2.5/5.5    NL NL NL NL NL
D_SMF_BRBF                                    8/2.5/5      NL NL NL NL NL
D_SMF_SPSW                                    8/2.5/6.5    NL NL NL NL NL
D_SMF_special_RC_SW                           7/2.5/5.5    NL NL NL NL NL
D_SMF_ordinary_RC_SW                          6/2.5/5      NL NL NP NP NP
D_SMF_composite_plate_SW                      7.5/2.5/6      NL NL NL NL NL
D_SMF_special_RM_SW                           5.5/3/5      NL NL NL NL NL
E_IMF_SCBF                                    6/2.5/5      NL NL 35 NP NP
E_IMF_special_RC_SW                           6.5/2.5/5      NL NL 160 100 100
E_IMF_ordinary_RC_SW                          5.5/2.5/4.5    NL NL NP NP NP
F_SW_frame_interactive_ordinary_RC            4.5/2.5/4      NL NP NP NP NP
G_cantilever_steel_special                    2.5/1.25/2.5    35 35 35 35 35
G_cantilever_steel_ordinary                   1.25/1.25/1.25   35 35 NP NP NP
G_cantilever_RC_special                       2.5/1.25/2.5    35 35 35 35 35
G_cantilever_RC_intermediate                  1.5/1.25/1.5    35 35 NP NP NP
G_cantilever_RC_ordinary                      1/1.25/1      35 NP NP NP NP
G_cantilever_timber                           1.5/1.5/1.5    35 35 35 NP NP
H_steel_not_detailed                          3/3/3      NL NL NP NP NP
C_CFS_special_bolted_MF                       3.5/3/3.5    35 35 35 35 35
""",
    "asce7-05": """
B_steel_EBF_moment_conn_away_from_links       8/2/4      NL NL 160 160 100
B_steel_EBF_nonmoment_conn_away_from_links    7/2/4      NL NL 160 160 100
B_steel_BRBF_moment_beam_col                  8/2.5/5      NL NL 160 160 100
B_steel_BRBF_nonmoment_beam_col               7/2/5.5    NL NL 160 160 100
G_cantilever_steel_intermediate               1.5/1.25/1.5   35 35 35 NP NP
B_composite_EBF 8/2/4 NL NL 160 160 100
""",
    "asce7-22": """
A_RC_ductile_coupled_walls                    8/2.5/8      NL NL 160 160 100
B_RC_ductile_coupled_walls                    8/2.5/8      NL NL 160 160 100
D_SMF_RC_ductile_coupled_walls                8/2.5/8      NL NL NL NL NL
B_coupled_composite_plate_SW_concrete_filled  8/2.5/5.5    NL NL 160 160 100
D_SMF_coupled_composite_plate_SW_concrete_filled 8/2.5/5.5    NL NL NL NL NL
A_CLT_shear_walls                             3/3/3      65 65 65 65 65
A_CLT_high_aspect_ratio_only                  4/3/4      65 65 65 65 65
""",
}
ROWS = [(edition, *line.split()) for edition, text in READ_AGAIN.items() for line in text.strip().splitlines()]


def feet(text: str) -> float:
    return math.inf if text == "NL" else 0.0 if text == "NP" else float(text) * 0.3048


@pytest.mark.parametrize("row", ROWS, ids=lambda r: f"{r[0]} {r[1]}")
def test_table_12_2_1(row: tuple[str, ...]) -> None:
    edition, name, factors, *heights = row
    editions = ["asce7-10", "asce7-16", "asce7-22"] if edition == "asce7-10" else [edition]
    for identity in editions:
        system = EDITIONS[identity].systems[name]
        assert [system.factors[n] for n in ("R", "Omega_0", "C_d")] == [float(v) for v in factors.split("/")]
        assert [system.heights[c] for c in "BCDEF"] == [feet(h) for h in heights]


def test_the_editions_of_asce_7_hold_as_many_systems_as_were_counted() -> None:
    # 75 rows each in 7-05, 7-10 and 7-16, seven more in 7-22
    assert [len(EDITIONS[f"asce7-{y}"].systems) for y in ("05", "10", "16", "22")] == [75, 75, 75, 82]
    assert "B_steel_EBF" not in EDITIONS["asce7-05"].systems


# R of UBC Table 16-N by group, read in the order of the table; Omega_0 2.8 but for these
UBC_R = {
    "BW": [5.5, 4.5, 4.5, 4.5, 2.8, 4.4, 2.8, 2.8],
    "BF": [7.0, 6.5, 5.0, 5.5, 5.5, 5.6, 5.6, 5.6, 6.4],
    "dual": [8.5, 4.2, 6.5, 5.5, 4.2, 4.2, 6.0, 8.5, 4.2, 6.5, 4.2, 6.5, 4.2, 7.5, 4.2],
}
UBC_2_2 = {
    "BW_tension_only",
    "BW_steel_braced",
    "BW_conc_braced",
    "BW_timber_braced",
    "BF_OCBF",
    "BF_conc_braced",
    "BF_timber_braced",
    "BF_SCBF",
}


def test_table_16_n_of_ubc() -> None:
    systems = EDITIONS["ubc97"].systems
    for group, expected in UBC_R.items():
        assert [s.factors["R"] for n, s in systems.items() if n.startswith(group + "_")] == expected
    others = {
        "SMRF_steel": 8.5,
        "SMRF_conc": 8.5,
        "MMRWF": 6.5,
        "IMRF_conc": 5.5,
        "OMRF_steel": 4.5,
        "OMRF_conc": 3.5,
        "STMF": 6.5,
        "cantilever_column": 2.2,
        "wall_frame_interaction_conc": 5.5,
    }
    assert {n: systems[n].factors["R"] for n in others} == others
    assert len(systems) == 32 + len(others)
    for name, system in systems.items():
        expected_omega = 2.2 if name in UBC_2_2 else 2.0 if name == "cantilever_column" else 2.8
        assert system.factors["Omega_0"] == expected_omega, name
    assert systems["BF_EBF"].heights["4"] == pytest.approx(240 * 0.3048)
    assert systems["OMRF_conc"].heights["2B"] == 0.0
    assert systems["IMRF_conc"].heights == {"3": 0.0, "4": 0.0}


def test_response_reduction_factors_of_is_1893() -> None:
    old, new = EDITIONS["is1893-2002"].systems, EDITIONS["is1893-2016"].systems
    assert {n: s.factors["R"] for n, s in old.items()} == {
        "RC_OMRF": 3.0,
        "RC_SMRF": 5.0,
        "steel_CBF": 4.0,
        "steel_EBF": 5.0,
        "steel_SMRF": 5.0,
        "masonry": 1.5,
        "masonry_bands": 2.5,
        "masonry_bands_bars": 3.0,
        "RC_wall": 3.0,
        "RC_ductile_wall": 4.0,
        "dual_wall_OMRF": 3.0,
        "dual_wall_SMRF": 4.0,
        "dual_ductile_wall_OMRF": 4.5,
        "dual_ductile_wall_SMRF": 5.0,
    }
    assert {n: s.factors["R"] for n, s in new.items()} == {
        "RC_OMRF": 3.0,
        "RC_SMRF": 5.0,
        "steel_OMRF": 3.0,
        "steel_SMRF": 5.0,
        "steel_OBF": 4.0,
        "steel_SBF": 4.5,
        "steel_EBF": 5.0,
        "masonry": 1.5,
        "masonry_bands": 2.0,
        "masonry_bands_bars": 2.5,
        "masonry_reinforced": 3.0,
        "masonry_confined": 3.0,
        "RC_wall": 3.0,
        "RC_ductile_wall": 4.0,
        "dual_wall_OMRF": 3.0,
        "dual_wall_SMRF": 4.0,
        "dual_ductile_wall_OMRF": 4.0,
        "dual_ductile_wall_SMRF": 5.0,
        "flat_slab_walls": 3.0,
    }


def test_ductility_factors_of_as_1170_4() -> None:
    systems = EDITIONS["as1170.4"].systems
    by_mu: dict[tuple[float, float], int] = {}
    for system in systems.values():
        key = (system.factors["mu"], system.factors["S_p"])
        by_mu[key] = by_mu.get(key, 0) + 1
    # five at mu 4, five at 3, eleven at 2, and masonry below
    assert by_mu == {(4.0, 0.67): 5, (3.0, 0.67): 5, (2.0, 0.77): 11, (1.5, 0.77): 1, (1.25, 0.77): 1, (1.0, 0.77): 1}


def system(edition: str, **own: Any) -> dict[str, Any]:
    request = {"kind": "system", "edition": edition, "system": {"X": own}}
    return dict(solve(request)["X"])


# system, class, expected q: q_0 x overstrength by hand
@pytest.mark.parametrize(
    ("name", "ductility", "expected"),
    [
        ("rc_frame_multi_bay", "DCM", 3.9),
        ("rc_frame_multi_bay", "DCH", 5.85),
        ("rc_frame_one_bay", "DCM", 3.6),
        ("rc_frame_one_story", "DCH", 4.95),
        ("rc_dual_frame", "DCM", 3.9),
        ("rc_dual_wall", "DCM", 3.6),
        ("rc_coupled_walls", "DCH", 5.4),
        ("rc_walls", "DCM", 3.0),
        ("rc_walls", "DCH", 4.4),
        ("rc_two_walls", "DCH", 4.0),
        ("rc_light_walls", "DCM", 3.0),
        ("rc_torsionally_flexible", "DCM", 2.0),
        ("rc_torsionally_flexible", "DCH", 3.0),
        ("rc_inverted_pendulum", "DCM", 1.5),
        ("rc_inverted_pendulum", "DCH", 2.0),
        ("steel_mrf", "DCM", 4.0),
        ("steel_mrf", "DCH", 6.5),
        ("steel_mrf_one_bay", "DCH", 6.0),
        ("steel_mrf_one_story", "DCH", 5.5),
        ("steel_cbf_diagonal", "DCH", 4.0),
        ("steel_cbf_v", "DCM", 2.0),
        ("steel_cbf_v", "DCH", 2.5),
        ("steel_ebf", "DCM", 4.0),
        ("steel_ebf", "DCH", 6.0),
        ("steel_inverted_pendulum", "DCM", 2.0),
        ("steel_mrf_cbf", "DCH", 4.8),
        ("steel_infill_in_contact", "DCH", 2.0),
        ("steel_infill_isolated", "DCM", 4.0),
        ("steel_infill_isolated", "DCH", 6.5),
        ("timber_panels_glued", "DCM", 2.0),
        ("timber_panels_nailed_glued", "DCH", 3.0),
        ("timber_panels_nailed", "DCH", 5.0),
        ("timber_trusses_doweled", "DCM", 2.0),
        ("timber_trusses", "DCH", 3.0),
        ("timber_mixed", "DCM", 2.0),
        ("composite_mrf", "DCH", 6.5),
        ("composite_cbf_v", "DCM", 2.0),
        ("composite_ebf", "DCH", 6.0),
        ("composite_inverted_pendulum", "DCM", 2.0),
        ("timber_frames", "DCM", 2.5),
        ("timber_frames", "DCH", 4.0),
        ("masonry_unreinforced", "DCM", 1.5),
        ("masonry_confined", "DCM", 2.0),
        ("masonry_reinforced", "DCM", 2.5),
        ("steel_mrf", "DCL", 1.5),
        ("rc_walls", "DCL", 1.5),
    ],
)
def test_behaviour_factors_of_en_1998_1(name: str, ductility: str, expected: float) -> None:
    request = {
        "kind": "system",
        "edition": "en1998-1",
        "system": {
            "X": {"lateral_system": name, "alpha_0": 2.0},
            "ductility_class": ductility,
            "regular_in_plan": True,
        },
    }
    assert solve(request)["X"]["q"] == pytest.approx(expected)


@pytest.mark.parametrize(
    ("name", "ductility", "instead"),
    [
        ("timber_panels_glued", "DCH", "DCM"),
        ("timber_trusses_doweled", "DCH", "DCM"),
        ("timber_panels_nailed", "DCM", "DCH"),
        ("timber_trusses", "DCM", "DCH"),
    ],
)
def test_classes_that_table_8_1_does_not_give_are_refused(name: str, ductility: str, instead: str) -> None:
    request = {
        "kind": "system",
        "edition": "en1998-1",
        "system": {"X": {"lateral_system": name}, "ductility_class": ductility},
    }
    found = solve(request)["X"]
    assert found["q"] is None
    assert found["open"]["q"].endswith(f"Take {instead} for this system.")


@pytest.mark.parametrize(
    ("name", "ratio", "expected"),
    [("steel_mrf", 2.5, 8.0), ("composite_mrf", 2.5, 8.0), ("rc_frame_multi_bay", 2.0, 6.75)],
)
def test_an_overstrength_ratio_is_capped(name: str, ratio: float, expected: float) -> None:
    # DCH: 5 x 1.6 = 8.0 by 6.3.2(4), 7.3.2(4); 4.5 x 1.5 = 6.75 by 5.2.2.2(8)
    own = {"X": {"lateral_system": name, "alpha_u_1": ratio}, "ductility_class": "DCH", "regular_in_plan": True}
    assert solve({"kind": "system", "edition": "en1998-1", "system": own})["X"]["q"] == pytest.approx(expected)


@pytest.mark.parametrize(
    ("own", "asked"),
    [({"lateral_system": "rc_walls"}, "α_0"), ({"lateral_system": "rc_frame_multi_bay"}, "regular in plan")],
)
def test_what_the_behaviour_factor_needs_is_asked_for(own: dict[str, Any], asked: str) -> None:
    request = {"kind": "system", "edition": "en1998-1", "system": {"X": own, "ductility_class": "DCM"}}
    found = solve(request)["X"]
    assert found["q"] is None
    assert found["open"]["q"].startswith(asked)


def test_regularity_in_elevation_that_is_not_stated_is_shown_as_assumed() -> None:
    request = {
        "kind": "system",
        "edition": "en1998-1",
        "steps": True,
        "system": {"X": {"lateral_system": "rc_frame_multi_bay"}, "ductility_class": "DCM", "regular_in_plan": True},
    }
    step = next(s for s in solve(request)["steps"] if s["id"] == "q.X")
    assert (step["value"], step["governed_by"]) == (pytest.approx(3.9), "5.1, regular in elevation assumed: not stated")


@pytest.mark.parametrize(
    ("extra", "expected"),
    [
        # walls with alpha_0 = 1.2: k_w = 2.2/3; 3.0 x 1.2 x 0.7333 = 2.64
        ({"X": {"lateral_system": "rc_dual_wall", "alpha_0": 1.2}}, 2.64),
        # k_w not below 0.5: 3.6 x 0.5
        ({"X": {"lateral_system": "rc_dual_wall", "alpha_0": 0.2}}, 1.8),
        # not regular in plan: (1 + 1.3)/2 = 1.15; 3.0 x 1.15
        ({"X": {"lateral_system": "rc_frame_multi_bay"}, "regular_in_plan": False}, 3.45),
        # not regular in elevation: 0.8 x 3.9
        ({"X": {"lateral_system": "rc_frame_multi_bay"}, "regular_in_elevation": False}, 3.12),
        # an overstrength ratio of the reviewer's own; composite walls have no default
        ({"X": {"lateral_system": "composite_walls", "alpha_u_1": 1.1}}, 3.3),
    ],
)
def test_reductions_of_the_behaviour_factor(extra: dict[str, Any], expected: float) -> None:
    request = {
        "kind": "system",
        "edition": "en1998-1",
        "system": {"ductility_class": "DCM", "regular_in_plan": True} | extra,
    }
    assert solve(request)["X"]["q"] == pytest.approx(expected)


SITE_D = {"S_S": 1.0, "S_1": 0.4, "T_L": 8.0, "site_class": "C"}


def test_height_limits_and_permission_in_the_category() -> None:
    stories = [{"name": f"L{i}", "height": 3.6} for i in range(14)]  # 50.4 m, above 160 ft = 48.77 m
    request = {
        "kind": "system",
        "edition": "asce7-16",
        "site": SITE_D,
        "occupancy": {"risk_category": "II"},
        "stories": stories,
        "system": {"X": {"lateral_system": "B_special_RC_SW"}, "Y": {"lateral_system": "B_ordinary_RC_SW"}},
    }
    answer = solve(request)
    assert answer["X"]["height_limit"] == pytest.approx(48.768)
    # 12.2.5.4: up to 240 ft where no plane carries more than 60 %, which has to be stated
    assert answer["X"]["system_permission"].startswith("open: above 48.8 m; permitted up to 73.2 m in category D")
    for share, words in (
        (0.6, "permitted up to 73.2 m (12.2.5.4)"),
        (0.61, "too tall: permitted up to 48.8 m in category D"),
    ):
        stated = {"X": request["system"]["X"] | {"plane_share": share}}
        found = solve(request | {"system": stated})["X"]["system_permission"]
        assert found.startswith(words)
    assert answer["Y"]["system_permission"] == "not permitted in category D"
    assert solve(request | {"stories": stories[:13]})["X"]["system_permission"] == "permitted up to 48.8 m"


def test_systems_over_each_other_take_the_least_r() -> None:
    # 12.2.3.1: walls of R = 5 under a frame of R = 8, and the other way round: 5 each time, with that system's factors
    stacked = [{"lateral_system": "C_RC_SMF", "from_story": "L3"}]
    below = system("asce7-16", lateral_system="A_special_RC_shear_wall", stacked_systems=stacked)
    above = system(
        "asce7-16",
        lateral_system="C_RC_SMF",
        stacked_systems=[{"lateral_system": "A_special_RC_shear_wall", "from_story": "L3"}],
    )
    assert [below[n] for n in ("R", "Omega_0", "C_d")] == [above[n] for n in ("R", "Omega_0", "C_d")] == [5.0, 2.5, 5.0]


def test_a_system_of_another_edition_is_named_with_its_remedy() -> None:
    with pytest.raises(InputRefused) as refused:
        system("asce7-16", lateral_system="BF_EBF")
    (problem,) = refused.value.problems
    assert (problem.path, problem.message) == ("/system/X/lateral_system", "asce7-16 has no lateral system 'BF_EBF'")
    assert "B_steel_EBF" in problem.remedy


def test_a_factor_that_neither_is_given_nor_follows_is_asked_for_itself() -> None:
    request = {
        "kind": "spectrum",
        "edition": "asce7-16",
        "site": SITE_D,
        "occupancy": {"risk_category": "II"},
        "T": [0.5],
        "system": {"X": {}},
    }
    with pytest.raises(InputRefused) as refused:
        solve(request)
    assert [p.path for p in refused.value.problems] == ["/system/X/R"]
