"""Conditions of systems, diaphragms and infills, and facts of the reference model: worked by hand from the clauses."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
from facts import both_sides, checks_of, claim, document, stories, systems
from modelling import response, shear_building
from plumb_core.checks.recheck import recheck
from plumb_core.errors import InputRefused
from plumb_core.solve import solve
from test_all_editions import FACTORS, OCCUPANCY, SITES, STUDY
from test_model_response import G, _off_centre

ROOF_OF_20 = [{"name": f"L{i}", "height": 3.0, "weight": 3000.0, "plan": [30.0, 20.0]} for i in range(1, 21)]


def system_of(edition: str, lateral_system: str, *, site: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    """Answer of `system` in X; what is declared of the direction and of the building distinguished by name."""
    building = {n: more.pop(n) for n in ("infills", "diaphragm_spans", "irregularities") if n in more}
    made = {"lateral_system": lateral_system, "period_type": "other", **more}
    return solve(
        {
            "kind": "system",
            "edition": edition,
            "site": site or SITES[edition],
            "occupancy": OCCUPANCY[edition],
            "system": {"X": made, "Y": made, **building},
            "stories": stories() if edition != "asce7-16" else ROOF_OF_20,
        }
    )["X"]


@pytest.mark.parametrize(
    ("share", "types", "said"),
    [
        # 60 m: above 160 ft (48.8 m), below 240 ft (73.2 m) in category D
        (0.60, {}, "permitted up to 73.2 m (12.2.5.4)"),
        (0.65, {}, "no increase with 65% of the force in one plane"),
        (0.60, {"extreme_torsional": True}, "no increase with an extreme torsional irregularity"),
        (None, {}, "open: above 48.8 m"),
    ],
)
def test_height_increase_of_12_2_5_4(share: float | None, types: dict[str, bool], said: str) -> None:
    found = system_of("asce7-16", "B_steel_SCBF", plane_share=share, irregularities=types)
    assert said in found["system_permission"]


def test_height_increase_is_not_for_moment_frames_nor_above_the_raised_limit() -> None:
    # intermediate frames of steel in D: 35 ft, which has no increase
    assert "too tall" in system_of("asce7-16", "C_steel_IMF", plane_share=0.1)["system_permission"]


@pytest.mark.parametrize(("share", "met"), [(0.25, True), (0.24, False), (None, None)])
def test_frames_of_dual_systems_resist_a_quarter(share: float | None, met: bool | None) -> None:
    (row,) = system_of("asce7-10", "D_SMF_special_RC_SW", frame_share=share)["system_checks"]
    assert (row["met"], row["limit"], row["clause"]) == (met, 0.25, "12.2.5.1")


def test_a_dual_system_whose_frames_are_too_weak_is_told_in_a_recheck() -> None:
    made = document("asce7-10", claims=[claim("W", 10800.0)], system=systems("asce7-10", frame_share=0.2))
    for d in "XY":
        made["brief"]["system"][d] |= {"lateral_system": "D_SMF_special_RC_SW"}
    found = [c for c in checks_of(made).values() if c["kind"] == "system"]
    assert {(c["verdict"], c["direction"]) for c in found} == {("breaches", "X"), ("breaches", "Y")}
    assert all("25 %" in c["note"] and "12.2.5.1" in c["clause"] for c in found)


@pytest.mark.parametrize(("system", "share", "met"), [("rc_walls", 0.65, True), ("rc_walls", 0.6, False)])
def test_walls_of_en_1998_1_resist_their_share(system: str, share: float, met: bool) -> None:
    # 5.1.2: a wall system where walls resist at least 65 % of the base shear
    rows = system_of("en1998-1", system, wall_share=share, q=3.0)["system_checks"]
    assert [(r["met"], r["limit"]) for r in rows] == [(met, 0.65)]


def test_infills_of_en_1998_1() -> None:
    # eta = 1 + 300 / 1200 = 1.25; at most q; below 1.1 none is needed
    base = {"plan": "regular", "open_story": "L1", "story_shear": 1200.0}
    found = system_of("en1998-1", "rc_frame_multi_bay", q=3.0, infills={**base, "strength_reduction": 300.0})
    assert found["infill_effects"]["eta"] == pytest.approx(1.25)
    found = system_of("en1998-1", "rc_frame_multi_bay", q=3.0, infills={**base, "strength_reduction": 9000.0})
    assert found["infill_effects"]["eta"] == 3.0
    found = system_of("en1998-1", "rc_frame_multi_bay", q=3.0, infills={**base, "strength_reduction": 60.0})
    assert "no increase is needed" in " ".join(found["infill_effects"]["words"])


def test_irregular_infills_double_the_eccentricity_that_is_looked_for() -> None:
    # 4.3.6.3.1(2): 2 x 0.05 of the plan
    made = document("en1998-1", claims=[claim("eccentricity", 0.05)])
    assert checks_of(made)["eccentricity"]["verdict"] == "agrees"
    made["brief"]["system"] |= {"infills": {"plan": "irregular"}}
    one = checks_of(made)["eccentricity"]
    assert (one["verdict"], one["independent"]["value"]) == ("differs", 0.10)


def test_an_open_story_of_is_1893_2016() -> None:
    # Table 6, 7.10.3: stiffness at least 80 %, strength at least 90 % of the story above; 2 % of walls in zones III
    # to V
    infills = {
        "plan": "regular", "open_story": "L1", "stiffness_ratio": 0.8, "strength_ratio": 0.85, "wall_density": 0.02,
    }  # fmt: skip
    rows = system_of("is1893-2016", "RC_SMRF", infills=infills, d=20.0)["infill_effects"]["conditions"]
    assert [r["met"] for r in rows] == [True, False, True]


def test_diaphragms_that_are_flexible_have_no_torsion_rules() -> None:
    # 12.3.1.3: deflection above twice the drift of the supporting elements
    for ratio, flexible in ((2.0, False), (2.1, True)):
        made = document("asce7-16", claims=[claim("W", 10800.0)])
        made["brief"]["system"] |= {"diaphragm_spans": {"deflection_ratio": ratio}}
        cases, claims = both_sides((0.004, 0.008))
        made["submission"] |= {"cases": cases, "claims": claims}
        told = {c["id"] for c in checks_of(made).values() if c["kind"] == "twist" and c["verdict"] == "differs"}
        missing = {c["id"] for c in checks_of(made).values() if c["kind"] == "case_missing"}
        assert not (flexible and (told or missing)), (ratio, told, missing)


def test_the_alternative_diaphragm_forces_of_12_10_3() -> None:
    # three stories of 3.5 m and 3600 kN; S_DS 0.816, S_D1 0.6, R 5, Omega_0 2.5, C_s 0.1632, z_s 1.0
    # gamma_m1 = 1 + 0.5 (1 - 1/3) = 1.3333; gamma_m2 = 0.9 (2/3)^2 = 0.4
    # C_s2 = min((0.45 + 0.25) 0.816, 0.816, 0.6 / (0.03 x 2) = 10) = 0.5712
    # C_p0 = 0.3264; gamma_m1 Omega_0 C_s = 0.544; C_pi = max(0.2611, 0.4896) = 0.4896
    # C_pn = hypot(0.544, 0.22848) = 0.59003
    # levels at 1/3, 2/3 and 1: C_p = 0.3264 + (0.4896 - 0.3264)(1/3)/0.8 = 0.3944; (2/3)/0.8: 0.4624; 0.5900
    request = {
        "kind": "static",
        "edition": "asce7-16",
        "site": SITES["asce7-16"],
        "occupancy": OCCUPANCY["asce7-16"],
        "system": {**systems("asce7-16"), "diaphragm_spans": {"R_s": 1.4, "construction": "precast"}},
        "stories": stories(),
    }
    found = solve(request)["X"]["diaphragm"]
    assert found == pytest.approx([c * 3600 / 1.4 for c in (0.3944, 0.4624, 0.59003)], rel=1e-4)


# Studies, and what a code says beside its numbers


def spectrum_of(edition: str, importance: dict[str, Any], **study: Any) -> float:
    """Ordinate at 0.4 s, where the study has 1.0 g."""
    made = {"edition": edition, "site": {**SITES[edition], "site_specific": {**STUDY, **study}}, "T": [0.4]}
    return float(solve({"kind": "spectrum", **made, "occupancy": importance})["elastic"][0])


def test_importance_multiplies_a_study_of_the_reference_return_period_alone() -> None:
    # gamma_I 1.2 of class III; k_p 1.3 of level 3, 0.75 of level 1, which lowers and so has to be stated
    assert spectrum_of("en1998-1", {"importance_class": "III"}, return_period=475) == pytest.approx(1.2)
    assert spectrum_of("en1998-1", {"importance_class": "III"}, return_period=975) == pytest.approx(1.0)
    assert spectrum_of("as1170.4", {"importance_level": 3}, return_period=500) == pytest.approx(1.3)
    assert spectrum_of("as1170.4", {"importance_level": 3}, return_period=1000) == pytest.approx(1.0)
    assert spectrum_of("as1170.4", {"importance_level": 1}) == pytest.approx(1.0)
    assert spectrum_of("as1170.4", {"importance_level": 1}, return_period=500) == pytest.approx(0.75)


def test_the_simplified_method_of_ubc_takes_soil_s_e_where_nothing_is_known() -> None:
    # 1630.2.3.2: S_D in zones 3 and 4, S_E in zones 1, 2A, 2B; Table 16-Q: C_a 0.34 in zone 2B on S_E; V = 3 C_a W / R
    made = {
        "kind": "static",
        "edition": "ubc97",
        "site": {"zone": "2B", "class_by_default": True, "soil": "S_D"},
        "occupancy": {"occupancy_category": "4"},
        "system": {**systems("ubc97"), "static_method": "1630.2.3"},
        "stories": stories()[:2],
    }
    assert solve(made)["X"]["V"] == pytest.approx(3.0 * 0.34 / 5.5 * 7200.0, rel=1e-6)


# the reference model


def test_damping_of_the_modes_changes_the_ordinates_of_is_1893_2002() -> None:
    # 0.3 s on medium soil: the plateau, 2.5; zone IV, I 1, R 5: 0.24 / 2 x 2.5 = 0.30 g before R.  2 % of damping: x
    # 1.4
    T = 0.3
    model = shear_building(1, (2 * math.pi / T) ** 2 * 120.0, 120.0)
    curve = {"edition": "is1893-2002", "site": {"zone": "IV", "soil": "II"}, "occupancy": {"use": "other"}}
    shears = {z: response(model, spectrum=curve, damping=z)["base_shear"]["X"] for z in (0.05, 0.02)}
    assert shears[0.05] == pytest.approx(120 * G * 0.30, rel=1e-6)
    assert shears[0.02] == pytest.approx(1.4 * shears[0.05], rel=1e-6)


def test_damping_of_the_modes_changes_the_ordinates_of_en_1998_1() -> None:
    # eta = sqrt(10 / (5 + 10)) = 0.8165 on the plateau
    model = shear_building(1, (2 * math.pi / 0.3) ** 2 * 120.0, 120.0)
    curve = {"edition": "en1998-1", "site": SITES["en1998-1"], "occupancy": OCCUPANCY["en1998-1"]}
    five, ten = (response(model, spectrum=curve, damping=z)["base_shear"]["X"] for z in (0.05, 0.10))
    assert ten / five == pytest.approx(math.sqrt(10 / 15), rel=1e-6)


def test_residual_mass_counts_where_the_mass_is_shifted_too() -> None:
    # three equal stories, one mode: all of the mass moves with the ground at a period of zero, CURVE's 0.4 g
    curve = {"T": [0.0, 4.0], "S_a": [0.5, 0.5]}
    asked = {"spectrum": curve, "combine": "SRSS", "modes": 1, "eccentricity": 0.05}
    plain = response(shear_building(3), **asked, residual_mass=True)
    shifted = response(shear_building(3), **asked, residual_mass=True, eccentricity_as="mass")
    without = response(shear_building(3), **asked, eccentricity_as="mass")
    assert shifted["base_shear"]["X"] > 1.001 * without["base_shear"]["X"]
    assert shifted["base_shear"]["X"] == pytest.approx(plain["base_shear"]["X"], rel=0.02)


def test_mirror_images_have_mirror_results() -> None:
    # stiffness to one side of the mass, and to the other: the sides of the accidental eccentricity change places
    request = {
        "kind": "static_response",
        "edition": "is1893-2016",
        "site": {"zone": "IV", "soil": "II"},
        "occupancy": {"use": "other"},
        "system": {d: {**FACTORS["is1893-2016"], "period_type": "other"} for d in "XY"},
        "direction": "X",
    }
    found = []
    for k in ((60_000.0, 30_000.0), (30_000.0, 60_000.0)):
        answer = solve({**_off_centre(2, k, (-6.0, 6.0)), **request})
        found.append({c["eccentricity"] > 0: c for c in answer["cases"] if c["eccentricity"]})
    for side in (True, False):
        one, other = (
            [story["edges"]["X"]["drift"] for story in answer[own]["stories"]]
            for answer, own in zip(found, (side, not side), strict=True)
        )
        assert np.array(one) == pytest.approx(np.array(other)[:, ::-1], rel=1e-9)


def test_as_1170_4_moves_the_mass_by_a_tenth() -> None:
    request = {
        "kind": "static_response",
        "edition": "as1170.4",
        "site": SITES["as1170.4"],
        "occupancy": OCCUPANCY["as1170.4"],
        "system": {d: {**FACTORS["as1170.4"], "period_type": "other"} for d in "XY"},
        "direction": "X",
    }
    answer = solve({**shear_building(2), **request})
    assert sorted({c["eccentricity"] for c in answer["cases"]}) == pytest.approx([-0.1, 0.0, 0.1])


# Further provisions of UBC 1997 and IS 1893:2016


def ubc_drift(count: int, structure_type: str) -> dict[str, Any]:
    """Drifts of 40 mm of stories of 3.5 m: 0.7 x 5.5 x 0.04 / 3.5 = 0.044, far above 0.025."""
    return solve(
        {
            "kind": "drift",
            "edition": "ubc97",
            "site": SITES["ubc97"],
            "occupancy": OCCUPANCY["ubc97"],
            "system": systems("ubc97"),
            "stories": stories()[:count],
            "elastic_drift": [0.04] * count,
            "structure_type": structure_type,
        }
    )


def test_single_story_steel_of_ubc_has_no_drift_limit() -> None:
    assert ubc_drift(1, "other")["stories"][0]["ok"] is False
    (row,) = ubc_drift(1, "single_story_steel")["stories"]
    assert (row["limit"], row["ok"]) == (None, True)
    with pytest.raises(InputRefused, match="single-story"):
        ubc_drift(2, "single_story_steel")


def test_a_penthouse_of_ubc_is_no_vertical_irregularity() -> None:
    # Table 16-L type 3: 130 % of the width of an adjacent story; one-story penthouses need not be considered
    def kinds(widths: list[float]) -> set[str]:
        rows = [s | {"width": {"X": w, "Y": w}} for s, w in zip(stories(), widths, strict=True)]
        # a penthouse is a lighter story on top
        rows[-1]["weight"] = 600.0
        request = {"kind": "irregularity", "edition": "ubc97", "system": systems("ubc97"), "stories": rows}
        return {r["kind"] for r in solve(request)["X"]}

    assert kinds([30.0, 30.0, 12.0]) == set()
    assert kinds([30.0, 20.0, 18.0]) == {"3 vertical geometric"}


def test_torsion_about_both_axes_of_ubc_requires_both_directions() -> None:
    # 1633.1: plan irregularity 1 about both major axes; about one of them it does not
    for both in (True, False):
        (cases_x, claims_x), (cases_y, claims_y) = (
            both_sides((0.004, 0.0082)),
            both_sides((0.004, 0.0082) if both else (0.004, 0.0042), direction="Y"),
        )
        made = document("ubc97", cases=cases_x + cases_y, claims=claims_x + claims_y)
        facts = {f["quantity"]: f["value"] for f in recheck(made, steps=False)["facts"]}
        assert facts["torsion_both"] is both


def test_separation_of_is_1893_2016_with_floors_level() -> None:
    # 7.11.3: half the sum of R_1 D_1 and R_2 D_2 and 25 mm: (5 x 0.02 + 0.03) / 2 + 0.025
    request = {
        "kind": "separation",
        "edition": "is1893-2016",
        "site": SITES["is1893-2016"],
        "occupancy": OCCUPANCY["is1893-2016"],
        "system": {"X": {"R": 5.0}},
        "displacement": 0.02,
        "other_displacement": 0.03,
        "floors_level": True,
    }
    assert solve(request)["required"] == pytest.approx(0.09)
