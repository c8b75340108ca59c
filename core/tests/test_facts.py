"""Facts reach verdicts: what is found, declared, submitted or assumed is used by every check that depends on it."""

from __future__ import annotations

from typing import Any

import pytest
from facts import (
    STORIES,
    WEIGHT,
    both_sides,
    case,
    checks_of,
    claim,
    deviating,
    document,
    drifts,
    facts_of,
    origins,
    static_of,
    stories,
    systems,
)
from plumb_core.rules import Key, resolved
from plumb_core.solve import solve

DRIFT = "drift_drift_ratio.X.L1"
ASCE = ("asce7-05", "asce7-10", "asce7-16", "asce7-22")


# Precedence


def test_found_precedes_declared_precedes_submitted_precedes_assumed() -> None:
    key = Key("design_category")
    said = {"found": "D", "declared": "C", "submitted": "B", "assumed": "A"}
    for number, source in enumerate(said):
        known = dict(list(said.items())[number:])
        fact = resolved(key, **known)
        assert fact is not None
        assert (fact.source, fact.value) == (source, said[source])
    assert resolved(key) is None


def test_of_a_found_and_a_declared_value_the_safer_one_is_used() -> None:
    for found, declared in ((True, False), (False, True)):
        fact = resolved(Key("torsion_irregular"), found=found, declared=declared)
        assert fact is not None
        assert fact.value is True
        assert fact.contradicted_by is not None
        assert fact.contradicted_by.value is False
    agreed = resolved(Key("torsion_irregular"), found=True, declared=True)
    assert agreed is not None
    assert agreed.contradicted_by is None


# Torsion: static cases judge


def test_ends_of_modal_cases_are_combined_maxima_and_judge_nothing() -> None:
    # static 1.05 and modal 1.3
    roles, claims = both_sides((0.00105, 0.00095))
    modal = [case("M+", "modal"), case("M-", "modal", eccentricity=-0.05)]
    claims += drifts("M+", "X", (0.0013, 0.0007)) + drifts("M-", "X", (0.0013, 0.0007))
    made = document(cases=roles + modal, claims=[*claims, claim("torsion_stated", "none", "X")])
    assert checks_of(made)["twist_torsion_stated.X"]["verdict"] == "agrees"
    assert not [i for i in origins(made) if "torsion" in i or "drift" in i]
    assert facts_of(made)["drift_at", None]["value"] == "centre"


def test_a_missing_static_side_is_a_gap_though_the_modal_cases_are_complete() -> None:
    modal = [case("M+", "modal"), case("M-", "modal", eccentricity=-0.05)]
    claims = [c for n in ("S+", "M+", "M-") for c in drifts(n, "X", (0.00105, 0.00095))]
    gaps = [
        i for i, c in checks_of(document(cases=[case("S+"), *modal], claims=claims)).items() if c["verdict"] == "gap"
    ]
    assert "case_missing_eccentricity.X-" in gaps
    assert "case_missing_eccentricity.X+" not in gaps


def turning(edition: str = "asce7-16", **more: Any) -> dict[str, Any]:
    """Ratio 1.3 / 1.0 in X, declared regular."""
    roles, claims = both_sides((0.0013, 0.0007))
    return document(edition, cases=roles, claims=claims, **{"system": systems(edition, regular=True), **more})


@pytest.mark.parametrize("edition", [*ASCE, "ubc97"])
def test_an_irregularity_that_is_found_is_used_and_asked_about_at_the_declaration(edition: str) -> None:
    made = turning(edition)
    facts = facts_of(made)
    torsion = facts["torsion_irregular", None]
    assert (torsion["value"], torsion["source"]) == (True, "found")
    assert torsion["contradicted_by"] == {"value": False, "source": "declared"}
    assert "1.3 at L" in torsion["where"]
    regular = facts["regular", "X"]
    assert (regular["value"], regular["contradicted_by"]) == (False, {"value": True, "source": "declared"})
    question = checks_of(made)["fact_regular.X"]
    assert question["verdict"] == "question"
    assert "declared yes, found no" in question["note"]
    assert "1.3 at L" in question["note"]


def test_none_stated_with_a_x_of_one_is_one_origin() -> None:
    roles, claims = both_sides((0.0013, 0.0007))
    claims += [
        claim(f"displacement_end_{k}", c["value"] * (1 + STORIES.index(c["story"])), "X", c["story"], c["case"])
        for c in claims
        for k in (int(c["quantity"][-1]),)
    ]
    claims += [claim("torsion_stated", "none", "X"), claim("torsion_stated", "none", "Y")]
    claims += [claim("A_x", 1.0, "X", story, text="1.0") for story in STORIES]
    made = document(cases=roles, claims=claims)
    # (1.3 / 1.2)^2 = 1.174
    assert checks_of(made)["A_x.X.L1"]["independent"]["value"] == pytest.approx(1.1736, rel=1e-4)
    assert origins(made) == ["twist_torsion_stated.X"]
    assert checks_of(made)["A_x.X.L1"]["rests_on"] == ["twist_torsion_stated.X"]


def test_a_declared_irregularity_requires_the_edges_of_a_submission_that_has_the_centre_alone() -> None:
    claims = [
        claim("displacement_centre", 0.005 * (i + 1), "X", n, c) for c in ("S+", "S-") for i, n in enumerate(STORIES)
    ]
    declared = systems("asce7-16") | {"irregularities": {"torsional": True}}
    made = document(cases=[case("S+"), case("S-", eccentricity=-0.05)], claims=claims, system=declared)
    assert deviating(made)["drift_open_delta_e.X.edges"] == "question"
    plain = document(cases=[case("S+"), case("S-", eccentricity=-0.05)], claims=claims)
    assert "drift_open_delta_e.X.edges" not in deviating(plain)


@pytest.mark.parametrize("edition", ["asce7-16", "asce7-22"])
def test_a_redundancy_factor_of_one_against_an_extreme_irregularity(edition: str) -> None:
    roles, claims = both_sides((0.005, 0.002))
    stated = [claim("rho", 1.0, "X", text="1.0"), claim("torsion_stated", "extreme", "X")]
    made = document(edition, cases=roles, claims=[*claims, *stated], system=systems(edition, rho=1.0))
    found = deviating(made)
    # 5/3.5 = 1.43 is above 1.4: 1.3 in category D whatever is declared (12.3.4.2)
    assert found["rho.X"] == "differs"
    assert found["fact_rho.X"] == "question"
    assert facts_of(made)["rho", "X"]["value"] == 1.3


def test_condition_b_of_the_redundancy_is_not_met_where_torsion_is_found() -> None:
    roles, claims = both_sides((0.0044, 0.0026))
    bays = {"redundancy": {"regular_in_plan": True, "perimeter_bays": 2}}
    stated = [claim("rho", 1.0, "X", text="1.0"), claim("torsion_stated", "torsional", "X")]
    made = document(cases=roles, claims=[*claims, *stated], system=systems("asce7-16", **bays))
    assert deviating(made)["rho.X"] == "differs"
    regular = document(claims=stated[:1], system=systems("asce7-16", **bays))
    assert "rho.X" not in deviating(regular)


# What is permitted


@pytest.mark.parametrize(
    ("edition", "site", "more", "words"),
    [
        ("asce7-16", {}, {"irregularities": {"extreme_weak_story": True}}, "extreme weak story"),
        ("asce7-10", {"S_S": 2.0, "S_1": 0.8}, {"irregularities": {"extreme_soft_story": True}}, "extreme soft story"),
        ("is1893-2016", {}, {"irregularities": {"in_plane_discontinuity": True}}, "in-plane discontinuity"),
    ],
)
def test_a_declared_irregularity_that_is_not_permitted(
    edition: str, site: dict[str, Any], more: dict[str, Any], words: str
) -> None:
    made = document(edition, system=systems(edition) | more)
    made["brief"]["site"] = made["brief"]["site"] | site
    check = checks_of(made)["permission_system_permission.X"]
    assert check["verdict"] == "breaches"
    assert "not permitted" in check["note"]
    assert words in check["note"]


def test_extreme_torsion_found_in_category_e() -> None:
    roles, claims = both_sides((0.005, 0.002))
    site = {"S_S": 2.0, "S_1": 0.8, "T_L": 8.0, "site_class": "C"}
    made = document(cases=roles, claims=claims, site=site)
    assert "extreme torsional" in checks_of(made)["permission_system_permission.X"]["note"]


def test_systems_that_are_not_permitted_or_too_tall() -> None:
    walls = {d: {"lateral_system": "B_ordinary_RC_SW", "period_type": "other"} for d in "XY"}
    assert "not permitted in category D" in checks_of(document(system=walls))["permission_system_permission.X"]["note"]
    braces = {d: {"lateral_system": "B_steel_SCBF", "period_type": "other"} for d in "XY"}

    def of(number: int, **more: Any) -> dict[str, Any]:
        high = [{"name": f"L{i}", "height": 4.0, "weight": WEIGHT} for i in range(number)]
        own = {d: braces[d] | more for d in "XY"}
        return checks_of(document(system=own, stories=high)).get("permission_system_permission.X", {})

    # 160 ft are 48.8 m, 240 ft 73.2 m (12.2.5.4)
    assert of(12) == {}
    assert of(15)["verdict"] == "question"
    assert of(15, plane_share=0.55) == {}
    assert "too tall" in of(15, plane_share=0.7)["note"]
    assert "too tall" in of(20, plane_share=0.55)["note"]


def test_a_soft_story_that_the_stiffness_of_the_brief_shows() -> None:
    soft = [s | {"stiffness": {"X": k, "Y": 9e5}} for s, k in zip(stories(), (5e5, 9e5, 9e5), strict=True)]
    found = deviating(document(stories=soft))
    assert found["irregularity_vertical_irregularities.X.L1.1b"] == "question"
    declared = systems("asce7-16") | {"irregularities": {"extreme_soft_story": True}}
    said = checks_of(document(stories=soft, system=declared))["irregularity_vertical_irregularities.X.L1.1b"]
    assert said["verdict"] == "note"


@pytest.mark.parametrize(
    ("types", "said"),
    [
        ({"torsional": True}, "not permitted"),
        ({"soft_story": True}, "not permitted"),
        ({"reentrant_corner": True}, "permitted"),
        ({"weak_story": True}, "permitted"),
    ],
)
@pytest.mark.parametrize("edition", ["asce7-05", "asce7-10", "asce7-16"])
def test_table_12_6_1_is_decided_by_the_declared_types(edition: str, types: dict[str, bool], said: str) -> None:
    made = document(edition, system=systems(edition) | {"irregularities": types})
    assert facts_of(made)["static_permitted", "X"]["value"].startswith(said)


def test_7_22_permits_the_static_method_for_all() -> None:
    made = document("asce7-22", system=systems("asce7-22") | {"irregularities": {"torsional": True}})
    assert facts_of(made)["static_permitted", "X"]["value"] == "permitted"


# Second order effects and stability


def swaying(theta: float = 0.118, **more: Any) -> dict[str, Any]:
    """Design drift 0.0190 of the height with C_d/I_e = 4 under a vertical load that gives theta."""
    own = {d: {"period_type": "other", "R": 5.0, "Omega_0": 2.5, "C_d": 4.0} for d in "XY"}
    V = static_of(document(system=own))["X"]["V"]
    delta_e = 0.0190 * 3.5 / 4.0
    # theta = P Delta I_e / (V h C_d) = P delta_e / (V h); three equal floors
    gravity = theta * V * 3.5 / delta_e / 3.0
    roles, claims = both_sides((delta_e, delta_e))
    claims += [claim("second_order_stated", str(more.pop("stated")))] if "stated" in more else []
    return document(cases=roles, claims=claims, system=own, stories=stories(gravity=gravity), **more)


def test_second_order_effects_that_are_not_in_the_analysis_amplify_the_drift() -> None:
    check = checks_of(swaying(stated="not included"))[DRIFT]
    # 0.0190 / (1 - 0.118) = 0.02154 above 0.020
    assert check["theirs"]["value"] == pytest.approx(0.0190 / (1 - 0.118), rel=1e-4)
    assert check["verdict"] == "breaches"


def test_second_order_effects_that_are_in_the_analysis_amplify_nothing() -> None:
    check = checks_of(swaying(stated="included"))[DRIFT]
    assert (check["verdict"], check["theirs"]["value"]) == ("agrees", pytest.approx(0.0190, rel=1e-4))
    # as declared in the brief, where the submission does not say
    assert checks_of(swaying(second_order="included"))[DRIFT]["verdict"] == "agrees"


def test_second_order_effects_that_nothing_tells_are_assumed_left_out_and_asked_about() -> None:
    made = swaying()
    fact = facts_of(made)["p_delta_included", None]
    assert (fact["value"], fact["source"]) == (False, "assumed")
    assert DRIFT in fact["used_by"]
    assert deviating(made)["stability_theta_greatest.X.L1"] == "question"


def test_the_drift_of_an_unstable_story_is_not_decided() -> None:
    # theta limit 0.5 / C_d = 0.125
    checks = checks_of(swaying(0.20, stated="not included"))
    assert checks["stability_theta_greatest.X.L1"]["verdict"] == "breaches"
    assert checks[DRIFT]["verdict"] == "open"
    assert "not decided: unstable" in checks[DRIFT]["note"]


def test_the_vertical_load_is_dead_plus_live_where_the_brief_has_loads() -> None:
    loads = [
        {"name": "floor", "kind": "dead", "amount": 3000.0},
        {"name": "office", "kind": "live", "amount": 1200.0, "intensity": 2.0},
    ]
    loaded = [{"name": n, "height": 3.5, "loads": loads} for n in STORIES]
    roles, claims = both_sides((0.005, 0.005))
    made = document(cases=roles, claims=claims, stories=loaded)
    assert facts_of(made)["P", "X"]["value"] == pytest.approx([12600.0, 8400.0, 4200.0])
    V = static_of(made)["X"]["V"]
    theta = 12600.0 * 0.005 / (V * 3.5)
    right = document(cases=roles, claims=[*claims, claim("theta_greatest", round(theta, 5), "X")], stories=loaded)
    assert "theta_greatest.X" not in deviating(right)


def test_a_coefficient_of_a_load_that_is_not_known_is_a_question_and_no_origin() -> None:
    roles, claims = both_sides((0.005, 0.005))
    V = static_of(document())["X"]["V"]
    # dead plus live 1.4 times the seismic weight
    theta = 1.4 * 3 * WEIGHT * 0.005 / (V * 3.5)
    made = document(cases=roles, claims=[*claims, claim("theta_greatest", round(theta, 5), "X")])
    assert deviating(made) == {"drift_open_P.X.loads": "question"}
    assert origins(made) == []
    # less than the seismic weight is no dead plus live load
    low = document(cases=roles, claims=[*claims, claim("theta_greatest", round(0.5 * theta / 1.4, 5), "X")])
    assert origins(low) == ["theta_greatest.X"]


def test_p_of_en_1998_1_has_psi_2_and_not_psi_e() -> None:
    loads = [
        {"name": "floor", "kind": "dead", "amount": 3000.0},
        {"name": "office", "kind": "live", "amount": 1000.0, "category": "B"},
    ]
    loaded = [{"name": n, "height": 3.5, "loads": loads} for n in STORIES]
    roles, claims = both_sides((0.005, 0.005))
    flags = {"regular_in_plan": True, "regular_in_elevation": True}
    made = document("en1998-1", cases=roles, claims=claims, stories=loaded, system=systems("en1998-1") | flags)
    # 3000 + 0.3 x 1000
    assert facts_of(made)["P", "X"]["value"] == pytest.approx([9900.0, 6600.0, 3300.0])


# Drifts: where, of which base shear


@pytest.mark.parametrize(
    ("S_S", "S_1", "category", "verdict"), [(0.25, 0.06, "B", "agrees"), (1.2, 0.5, "D", "breaches")]
)
def test_the_edges_of_irregular_buildings_count_in_category_c_to_f(
    S_S: float, S_1: float, category: str, verdict: str
) -> None:
    # mean 0.0180 and greater end 0.0225 of the height against 0.020
    roles, claims = both_sides((0.0225 * 3.5 / 5, 0.0135 * 3.5 / 5))
    site = {"S_S": S_S, "S_1": S_1, "T_L": 8.0, "site_class": "C"}
    included = claim("second_order_stated", "included")
    light = stories(gravity=100.0)
    made = document(cases=roles, claims=[*claims, included], site=site, stories=light)
    assert facts_of(made)["design_category", None]["value"] == category
    assert checks_of(made)[DRIFT]["verdict"] == verdict


@pytest.mark.parametrize(
    ("edition", "amplifier", "limit"),
    [
        ("ubc97", 0.7 * 5.5, 0.020),
        ("is1893-2002", 1.0, 0.004),
        ("is1893-2016", 1.0, 0.004),
        ("as1170.4", 2 / 0.77, 0.015),
    ],
)
def test_the_greater_end_counts_in_regular_buildings_too(edition: str, amplifier: float, limit: float) -> None:
    # 1.065 times the limit at the greater end, 0.97 times at the mean: 1630.9.1 of UBC, all critical locations
    a, b = (f * limit * 3.5 / amplifier for f in (1.065, 0.875))
    roles, claims = both_sides((a, b))
    light = stories(gravity=100.0)
    assert checks_of(document(edition, cases=roles, claims=claims, stories=light))[DRIFT]["verdict"] == "breaches"
    declared = document(edition, cases=roles, claims=claims, stories=light, drift_at="centre")
    assert checks_of(declared)[DRIFT]["verdict"] == "agrees"
    assert facts_of(declared)["drift_at", None]["source"] == "declared"


def near_fault(edition: str) -> dict[str, Any]:
    """S_1 0.75, R 8, T 3.0 s: 0.5 S_1 I_e / R = 0.0469 governs (12.8-6, 12.8-7 in 7-22)."""
    site = {"S_S": 1.0, "S_1": 0.75, "T_L": 8.0, "site_class": "C"}
    if edition == "asce7-22":
        site = {"S_MS": 1.2, "S_M1": 1.0, "S_1": 0.75, "T_L": 8.0, "site_class": "C"}
    own = {d: {"period_type": "steel_mrf", "R": 8.0, "Omega_0": 3.0, "C_d": 5.5} for d in "XY"}
    tall = [{"name": n, "height": 20.0, "weight": WEIGHT} for n in STORIES]
    return document(edition, site=site, system=own, stories=tall, period={d: {"analysis": 3.0} for d in "XY"})


@pytest.mark.parametrize(
    ("edition", "equation", "share"),
    [
        ("asce7-05", "12.8-6", 0.0),
        ("asce7-10", "12.8-6", 0.85),
        ("asce7-16", "12.8-6", 1.0),
        ("asce7-22", "12.8-7", 1.0),
    ],
)
def test_drifts_are_scaled_where_the_near_fault_minimum_governs_our_own_coefficient(
    edition: str, equation: str, share: float
) -> None:
    made = near_fault(edition)
    static = static_of(made)["X"]
    assert static["governed_by"] == equation
    # 0.5 x 0.75 / 8 of 10800 kN; the modal base shear is 0.7 of it
    V = 0.5 * 0.75 / 8 * 10800.0
    assert static["V"] == pytest.approx(V)
    made["submission"]["cases"] = [case("M", "modal", eccentricity=0.0, step="before")]
    made["submission"]["claims"] = [*drifts("M", "X", (0.03, 0.03)), claim("V_dynamic", round(0.7 * V, 2), "X")]
    factor = max(1.0, share / 0.7)
    check = checks_of(made)[DRIFT]
    assert check["theirs"]["value"] == pytest.approx(5.5 * 0.03 * factor / 20.0, rel=1e-3)
    assert facts_of(made)["static_governed_by", "X"]["value"] == equation


def test_scaled_drifts_alone_are_divided_by_their_factor_where_the_code_does_not_scale_drifts() -> None:
    roles = [case("M", "modal", eccentricity=0.0, step="after", factor=1.38)]
    d = 0.0207 * 3.5 / 5
    check = checks_of(document(cases=roles, claims=drifts("M", "X", (d, d))))[DRIFT]
    # 0.0207 / 1.38 = 0.0150
    assert (check["verdict"], check["theirs"]["value"]) == ("agrees", pytest.approx(0.0150, rel=1e-4))


def test_unscaled_drifts_are_permitted_in_is_1893_2002() -> None:
    roles = [case("B", "modal", eccentricity=0.0, step="before"), case("A", "modal", eccentricity=0.0, step="after")]
    claims = drifts("B", "X", (0.00257 * 3.5,) * 2) + drifts("A", "X", (0.00491 * 3.5,) * 2)
    made = document("is1893-2002", cases=roles, claims=[*claims, claim("factor_used", 1.91, "X")])
    check = checks_of(made)[DRIFT]
    assert (check["verdict"], check["theirs"]["value"]) == ("agrees", pytest.approx(0.00257, rel=1e-4))
    assert "process_scaled.X.drifts" not in deviating(made)


def test_base_shear_for_drift_of_ubc_1997() -> None:
    """Zone 2A, S_B, T 3.0 s: C_v I / (R T) = 0.15 / (5.5 x 3.0) without Eq. 30-6 and the limit of the period."""
    made = document(
        "ubc97",
        site={"zone": "2A", "soil": "S_B"},
        occupancy={"I": 1.0},
        system={d: {"R": 5.5, "period_type": "other"} for d in "XY"},
        stories=[{"name": n, "height": 20.0, "weight": WEIGHT} for n in STORIES],
        period={d: {"analysis": 3.0} for d in "XY"},
    )
    fact = facts_of(made)["V_base_drift", "X"]
    assert fact["value"] == pytest.approx(0.15 / (5.5 * 3.0) * 10800.0, rel=1e-6)
    # for strength 0.11 C_a I (30-6) is the floor, and T is at most 1.4 T_a
    assert static_of(made)["X"]["V"] > 1.9 * fact["value"]


# Scaling


def test_required_and_used_factors_are_compared_within_their_digits() -> None:
    V = static_of(document())["X"]["V"]
    before = round(V / 1.0613, 1)
    stated = [claim("V_static", round(V, 1), "X"), claim("V_dynamic", before, "X"), claim("factor_used", 1.061, "X")]
    assert checks_of(document(claims=stated))["scaled_by_factor_used.X"]["verdict"] == "agrees"
    short = [*stated[:2], claim("factor_used", 1.03, "X")]
    assert checks_of(document(claims=short))["scaled_by_factor_used.X"]["verdict"] == "breaches"


@pytest.mark.parametrize(("ends", "share"), [((0.0050, 0.0048), 0.9), ((0.0065, 0.0035), 1.0)])
def test_the_share_of_ubc_follows_from_what_is_found_where_regularity_is_not_declared(
    ends: tuple[float, float], share: float
) -> None:
    roles, claims = both_sides(ends)
    both, more = both_sides((0.005, 0.005), direction="Y")
    own = {d: {"period_type": "other", "R": 5.5} for d in "XY"}
    made = document("ubc97", cases=roles + both, claims=claims + more, system=own)
    V = static_of(made)["X"]["V"]
    made["submission"]["claims"] += [claim("V_dynamic", round(V / 2, 2), "X"), claim("factor_used", 1.8, "X")]
    verdict = checks_of(made)["scaled_by_factor_used.X"]["verdict"]
    assert verdict == ("agrees" if share == 0.9 else "breaches")


# One cause, one origin


def forces(made: dict[str, Any], **by: float) -> list[dict[str, Any]]:
    static = static_of(made)["X"]
    return [
        claim(q, round(static[q][i] * by.get(q, 1.0), 3), "X", story, "S+")
        for i, story in enumerate(STORIES)
        for q in ("F", "V_story", "M_story")
    ]


def test_forces_in_another_unit_are_one_origin() -> None:
    made = document()
    made["submission"]["cases"] = [case("S+")]
    kip = 1 / 4.4482216
    claims = forces(made, F=kip, V_story=kip, M_story=kip)
    made["submission"]["claims"] = [*claims, claim("V", round(static_of(made)["X"]["V"] * kip, 2), "X")]
    assert len(origins(made)) == 1


@pytest.mark.parametrize("column", ["F", "V_story", "M_story"])
def test_a_column_off_by_ten_is_one_origin(column: str) -> None:
    made = document()
    made["submission"]["cases"] = [case("S+")]
    made["submission"]["claims"] = [*forces(made, **{column: 10.0}), claim("V", static_of(made)["X"]["V"], "X")]
    assert origins(made) == [f"{column}.X.L1.S+"]


def test_reactions_follow_from_the_forces_of_their_case() -> None:
    made = document()
    V = static_of(made)["X"]["V"]
    made["submission"]["cases"] = [case("S+")]
    stated = [claim("V", V, "X"), claim("reaction_X", round(1.1 * V, 2), "X", case="S+")]
    made["submission"]["claims"] = [*forces(made, F=1.1, V_story=1.1), *stated]
    assert origins(made) == ["F.X.L1.S+"]
    assert checks_of(made)["reaction_X.X.S+"]["rests_on"] == ["F.X.L1.S+"]


def test_a_number_without_decimals_is_exact() -> None:
    made = document(claims=[claim("rho", 1.0, "X", text="1"), claim("F_a", 1.0, text="1")])
    assert deviating(made) == {"rho.X": "differs", "F_a": "differs"}


def test_a_column_of_integers_is_rounded() -> None:
    V = static_of(document())["X"]["V_story"]
    # in MN a unit is coarse; three different numbers without decimals show that they are rounded
    made = document()
    made["submission"]["cases"] = [case("S+")]
    made["submission"]["claims"] = [
        claim("V_story", float(round(v / 100)) * 100, "X", story, "S+", text=str(round(v / 100))) | {"scale": 100.0}
        for v, story in zip(V, STORIES, strict=True)
    ]
    assert deviating(made) == {}


@pytest.mark.parametrize(
    ("edition", "name", "value", "value_of_brief"),
    [
        ("asce7-16", "site_class", "c", "D"),
        ("ubc97", "zone", "3", "4"),
        ("ubc97", "soil", "S_C", "S_D"),
        ("en1998-1", "ground_type", "Type B", "C"),
        ("as1170.4", "subsoil", "C_e", "D_e"),
    ],
)
def test_a_wrong_class_with_all_that_follows_from_it_is_one_origin(
    edition: str, name: str, value: str, value_of_brief: str
) -> None:
    made = document(edition)
    assert made["brief"]["site"][name] == value_of_brief
    site = made["brief"]["site"] | {name: {"c": "C", "Type B": "B"}.get(value, value)}
    ground = solve({"kind": "ground", "edition": edition, "site": site, "occupancy": made["brief"]["occupancy"]})
    stated = {"T_s": "T_S"}
    claims = [claim(name, value)]
    for symbol, number in ground.items():
        if isinstance(number, float) and symbol not in ("T_0",):
            claims.append(claim(stated.get(symbol, symbol), float(f"{number:.4g}")))
    made["submission"]["claims"] = claims
    assert origins(made) == [name]


# Weights


def weighed(change: dict[tuple[str, str], float], weights: dict[str, float] | None = None) -> dict[str, Any]:
    """A make-up of 3000 kN of structure and 600 kN of cladding a story, with amounts changed by load and story."""
    claims = []
    for story in STORIES:
        for load, amount in (("Structure", 3000.0), ("Cladding", 600.0)):
            value = amount * change.get((load, story), 1.0)
            claims += [
                claim("load_amount", value, story=story, case=load),
                claim("load_share", 1.0, story=story, case=load),
            ]
        total = sum(float(c["value"]) for c in claims if c["quantity"] == "load_amount" and c["story"] == story)
        claims.append(claim("w", (weights or {}).get(story, total), story=story))
    claims += [claim("load_kind", "dead", case=load) for load in ("Structure", "Cladding")]
    return document(claims=claims)


def test_a_slipped_load_is_the_origin_of_the_weights() -> None:
    made = weighed({("Cladding", "L2"): 10.0})
    assert origins(made) == ["load_amount.Cladding.L2"]
    w = checks_of(made)["w.L2"]
    assert (w["role"], w["rests_on"]) == ("inherited", ["load_amount.Cladding.L2"])
    assert "The deviation results from " in w["draft"]


def test_a_make_up_that_is_off_does_not_agree_with_right_weights() -> None:
    made = weighed(
        {(load, story): 0.85 for load in ("Structure", "Cladding") for story in STORIES}, dict.fromkeys(STORIES, WEIGHT)
    )
    (origin,) = origins(made)
    assert origin.startswith("make_up_w.")


def test_a_make_up_that_is_off_is_seen_without_weights_of_our_own() -> None:
    """3600 kN stated, 3000 kN * 0.85 + 600 kN = 3150 kN made up of: their own numbers contradict each other."""
    made = weighed({("Structure", "L2"): 0.85}, dict.fromkeys(STORIES, WEIGHT))
    for story in made["brief"]["stories"]:
        del story["weight"]
    (origin,) = [name for name in origins(made) if name.startswith("make_up_w.")]
    check = checks_of(made)[origin]
    assert (check["verdict"], check["level"], check["theirs"]["value"]) == ("differs", 1, pytest.approx(3150.0))
    # and none where they agree
    right = weighed({}, dict.fromkeys(STORIES, WEIGHT))
    for story in right["brief"]["stories"]:
        del story["weight"]
    assert not [name for name in origins(right) if name.startswith("make_up_w.")]


# Combinations


def combinations(*terms: str, **brief: Any) -> dict[str, Any]:
    claims = [claim("combination_terms", text, case=f"C{i}") for i, text in enumerate(terms)]
    edition = brief.pop("edition", "asce7-16")
    return document(edition, cases=[case("EX"), case("EY", direction="Y")], claims=claims, **brief)


RIGHT = [
    f"{dead} {sign} 1.3 {main} + {share} {other}"
    for dead in ("1.363 D + 1.0 L", "0.737 D")
    for sign in "+-"
    for main, other in (("EX", "EY"), ("EY", "EX"))
    for share in ("0.39",)
]


def test_a_whole_of_one_direction_alone_is_no_combination_of_both() -> None:
    assert deviating(combinations(*RIGHT)) == {}
    alone = [t if "1.3 EX" in t else t.replace(" + 0.39 EX", "") for t in RIGHT]
    shared = systems("asce7-16") | {"shared_columns": True}
    found = checks_of(combinations(*alone, system=shared))["combination_load_combinations.directions"]
    assert found["verdict"] == "question"
    assert "1.0 Y with 0.3 X" in found["note"]


def test_columns_of_two_systems_are_asked_about_once() -> None:
    alone = [t.split(" + 0.39")[0] for t in RIGHT]
    found = checks_of(combinations(*alone))["combination_load_combinations.directions"]
    assert "are there columns and walls of two intersecting systems" in found["note"]
    assert deviating(combinations(*alone, system=systems("asce7-16") | {"shared_columns": False})) == {}


@pytest.mark.parametrize(("factor", "asked"), [(1.2, False), (0.3, True)])
def test_the_factor_of_the_imposed_load_of_is_1893(factor: float, asked: bool) -> None:
    terms = [
        f"{dead} {sign} {action} {d}"
        for d in ("EX", "EY")
        for sign in "+-"
        for dead, action in ((f"1.2 D + {factor} L", 1.2), ("1.5 D", 1.5), ("0.9 D", 1.5))
    ]
    found = deviating(combinations(*terms, edition="is1893-2016"))
    assert bool(found) is asked


@pytest.mark.parametrize(("live", "asked"), [("+ 0.3 L", ""), ("+ 0.05 L", "live factor"), ("", "imposed load")])
def test_the_imposed_load_of_en_1998_1_has_psi_2(live: str, asked: str) -> None:
    loads = [
        {"name": "floor", "kind": "dead", "amount": 3000.0},
        {"name": "office", "kind": "live", "amount": 1000.0, "category": "B"},
    ]
    terms = [f"1.0 D {live} {s} 1.0 {a} + 0.3 {b}" for s in "+-" for a, b in (("EX", "EY"), ("EY", "EX"))]
    flags = {"regular_in_plan": True, "regular_in_elevation": True}
    loaded = [{"name": n, "height": 3.5, "loads": loads} for n in STORIES]
    made = combinations(*terms, edition="en1998-1", stories=loaded, system=systems("en1998-1") | flags)
    assert [i for i in deviating(made) if "combination" in i and asked in i] == (
        [] if not asked else list(deviating(made))
    )


def test_combinations_with_overstrength_are_not_required_of_everybody_in_7_05() -> None:
    assert deviating(combinations(*RIGHT, edition="asce7-05")) == {}


# Podiums


PODIUM = {"from_story": "L3", "stiffness_ratio": 12.0, "T_whole": 0.31, "T_upper": 0.30, "R_upper": 8.0}


def on_podium(edition: str = "asce7-16", **podium: Any) -> dict[str, Any]:
    own = systems(edition, podium=PODIUM | podium)
    floors = [{"name": f"L{i + 1}", "height": 3.5, "weight": 5000.0} for i in range(7)]
    return document(edition, system=own, stories=floors)


@pytest.mark.parametrize("two", [True, False])
def test_static_forces_of_a_podium_are_those_of_both_parts_or_of_one_structure(two: bool) -> None:
    made = on_podium()
    static = static_of(made)["X"]
    F, V = (static["two_stage"]["F"], static["two_stage"]["V_base"]) if two else (static["F"], static["V"])
    claims = [claim("F", round(f, 2), "X", s["name"], "S+") for f, s in zip(F, made["brief"]["stories"], strict=True)]
    made["submission"] = {"label": "S0", "cases": [case("S+")], "claims": [*claims, claim("V", round(V, 2), "X")]}
    assert [o for o in origins(made) if not o.startswith("permission")] == []
    assert (("two_stage_used", "X") in facts_of(made)) is two


def test_the_period_of_the_part_above_a_podium_has_its_own_limit() -> None:
    made = on_podium(T_upper=3.0, T_whole=3.1)
    both = static_of(made)["X"]["two_stage"]
    # 5 stories of 3.5 m: C_u T_a = 1.4 x 0.0488 x 17.5^0.75
    limit = 1.4 * 0.0488 * 17.5**0.75
    assert both["T_upper"] == pytest.approx(limit, rel=1e-6)
    assert both["V_upper"] == pytest.approx(25000.0 * max(0.9 / (limit * 8.0), 0.044 * 0.816), abs=25000 * 0.102)


def test_f_t_of_the_part_above_a_podium_of_ubc() -> None:
    made = on_podium("ubc97", T_upper=1.0, T_whole=1.05, R_upper=5.5)
    made["brief"]["site"] = {"zone": "3", "soil": "S_D"}
    for d in "XY":
        made["brief"]["system"][d]["rho"] = 1.0
    both = static_of(made)["X"]["two_stage"]
    T, V = both["T_upper"], both["V_upper"]
    share = 0.07 * T if T > 0.7 else 0.0
    # equal weights and heights: the top of five has 5/15 of the rest
    assert both["F"][-1] == pytest.approx(share * V + (1 - share) * V / 3.0, rel=1e-9)
    assert both["F"][-1] > V / 3.0 or share == 0.0
    assert [c["words"] for c in both["conditions"]][-1].startswith("both parts regular")


# EN 1998-1


def set_back() -> dict[str, Any]:
    """10 m of 30 m are lost on one face above the first story: 33 % (4.2.3.3(5))."""
    floors = [
        {"name": n, "height": 3.5, "weight": WEIGHT, "plan": [x, 20.0], "centre": [x / 2, 10.0]}
        for n, x in zip(STORIES, (30.0, 20.0, 20.0), strict=True)
    ]
    frame = {"lateral_system": "rc_frame_multi_bay", "period_type": "rc_mrf"}
    own = {"ductility_class": "DCM", "X": frame, "Y": frame, "regular_in_plan": True}
    return document("en1998-1", stories=floors, system=own, period={d: {"analysis": 0.6} for d in "XY"})


@pytest.mark.parametrize("declared", [None, True])
def test_a_set_back_makes_q_smaller_and_forbids_the_static_method(declared: bool | None) -> None:
    made = set_back()
    if declared is not None:
        made["brief"]["system"]["regular_in_elevation"] = declared
    # 3.0 x 1.3 x 0.8
    made["submission"]["claims"] = [claim("q", 3.12, "X"), claim("q", 3.9, "Y")]
    found = deviating(made)
    assert "q.X" not in found
    assert found["q.Y"] == "differs"
    assert ("fact_regular_in_elevation" in found) is (declared is True)
    parts = {n: made["brief"][n] for n in ("edition", "site", "occupancy", "system", "stories", "period")}
    answer = solve({"kind": "system", **parts})["X"]
    assert answer["q"] == pytest.approx(3.12)
    assert answer["static_permitted"].startswith("not permitted: irregular in elevation")


def test_the_sum_of_set_backs_on_one_face_shows_the_value_that_fails() -> None:
    floors = [
        {"name": f"L{i}", "height": 3.5, "weight": WEIGHT, "plan": [x, 20.0], "centre": [x / 2, 10.0]}
        for i, x in enumerate((30.0, 27.5, 25.0, 22.8, 20.6))
    ]
    made = document("en1998-1", stories=floors)
    parts = {n: made["brief"][n] for n in ("edition", "site", "occupancy", "system", "stories")}
    row = solve({"kind": "irregularity", **parts})["elevation_regularity"][0]
    assert (row["met"], row["limit"]) == (False, 0.30)
    assert row["value"] == pytest.approx(9.4 / 30.0)


def test_second_order_effects_in_the_model_amplify_nothing_in_en_1998_1() -> None:
    request = {
        "kind": "drift",
        "edition": "en1998-1",
        "site": {},
        "occupancy": {"importance_class": "II"},
        "system": {"X": {"q": 3.0}},
        "stories": [{"name": "L1", "height": 3.5, "weight": WEIGHT}],
        "structure_type": "none",
        "elastic_drift": [0.005],
        "P": [30000.0],
        "V": [1000.0],
    }
    # theta = 30000 x 0.015 / (1000 x 3.5) = 0.1286
    (row,) = solve(request)["stories"]
    assert row["theta"] == pytest.approx(0.12857, rel=1e-4)
    assert row["amplification"] == pytest.approx(1 / (1 - 0.128571), rel=1e-5)
    (included,) = solve(request | {"second_order": "included"})["stories"]
    assert included["amplification"] == 1.0


def test_drifts_stated_for_the_damage_limitation_action_are_compared_as_such() -> None:
    # q 3.0, nu 0.5: 1.5 times the elastic drift
    roles, claims = both_sides((0.005, 0.005))
    roles += [case("D+", level="amplified"), case("D-", eccentricity=-0.05, level="amplified")]
    claims += drifts("D+", "X", (0.0075, 0.0075)) + drifts("D-", "X", (0.0075, 0.0075))
    flags = {"regular_in_plan": True, "regular_in_elevation": True}
    made = document("en1998-1", cases=roles, claims=claims, system=systems("en1998-1") | flags)
    assert origins(made) == []


@pytest.mark.parametrize(
    ("shares", "verdict"), [((0.60, 0.20, 0.03, 0.026), "question"), ((0.60, 0.13, 0.07, 0.056), "breaches")]
)
def test_modes_below_90_percent_of_which_the_last_are_small_are_a_question(
    shares: tuple[float, ...], verdict: str
) -> None:
    claims = [
        claim(q, v, d, text=f"{v:.4f}") | {"point": i}
        for i, share in enumerate(shares)
        for q, v, d in (("T_mode", 1.0 / (i + 1), None), ("mass_ratio", share, "X"), ("mass_ratio", share, "Y"))
    ]
    flags = {"regular_in_plan": True, "regular_in_elevation": True}
    made = document("en1998-1", claims=claims, system=systems("en1998-1") | flags)
    assert sum(shares) == pytest.approx(0.856)
    assert checks_of(made)["target_mass_sum.X"]["verdict"] == verdict


# IS 1893


def test_torsion_of_is_1893_2016_is_irregular_beside_its_class() -> None:
    rows = [{"story": n, "case": "E", "direction": "X", "displacement_ends": [0.02, 0.009]} for n in STORIES]
    answer = solve({"kind": "torsion", "edition": "is1893-2016", "site": {"zone": "IV", "soil": "II"}, "rows": rows})
    # 20 / 9 = 2.22 is above 2.0
    assert {r["class"] for r in answer["rows"]} == {"extreme"}
    assert answer["irregular"] is True


@pytest.mark.parametrize(
    ("zone", "offset", "limits"),
    [
        ("II", "out_of_plane", [0.004, 0.004, 0.004]),
        ("II", "in_plane", [0.004, 0.002, 0.004]),
        ("IV", "out_of_plane", [0.002, 0.002, 0.004]),
        ("IV", True, [0.002, 0.002, 0.004]),
    ],
)
def test_offsets_of_is_1893_2016_by_kind_and_zone(zone: str, offset: bool | str, limits: list[float]) -> None:
    floors = [s | ({"offset": offset} if s["name"] == "L2" else {}) for s in stories()]
    request = {
        "kind": "drift",
        "edition": "is1893-2016",
        "site": {"zone": zone, "soil": "II"},
        "occupancy": {},
        "system": {},
    }
    answer = solve(request | {"stories": floors, "elastic_drift": [0.01] * 3})
    assert [s["limit"] for s in answer["stories"]] == limits


def test_roof_drift_of_flat_slabs_in_a_recheck() -> None:
    own = {d: {"lateral_system": "flat_slab_walls", "period_type": "other", "d": 20.0} for d in "XY"}
    roles, claims = both_sides((0.004, 0.004))
    made = document("is1893-2016", cases=roles, claims=claims, system=own)
    # 12 mm over 10.5 m is 0.00114, the limit 0.001
    assert deviating(made)["drift_roof_drift_ratio.X"] == "breaches"


def test_r_times_displacements_beside_drifts_are_no_origin() -> None:
    roles, claims = both_sides((0.003, 0.003))
    roles += [case("R+", level="amplified"), case("R-", eccentricity=-0.05, level="amplified")]
    claims += drifts("R+", "X", (0.012, 0.012)) + drifts("R-", "X", (0.012, 0.012))
    made = document(
        "is1893-2016", cases=roles, claims=claims, system={d: {"R": 4.0, "period_type": "rc_mrf"} for d in "XY"}
    )
    assert [o for o in origins(made) if "amplif" in o] == []


@pytest.mark.parametrize(("period_type", "asked"), [("steel_mrf", False), ("rc_mrf", True)])
def test_two_percent_of_damping_is_what_is_1893_2002_has_for_steel(period_type: str, asked: bool) -> None:
    own = {d: {"R": 5.0, "period_type": period_type} for d in "XY"}
    stated = [claim("damping", 0.02), claim("damping_modes", 0.02)]
    found = deviating(document("is1893-2002", system=own, claims=stated))
    assert ("declared_damping" in found) is asked


# Factors of systems


def test_omega_0_and_c_d_go_with_the_least_r_side_by_side() -> None:
    own = {
        "X": {
            "lateral_system": "C_RC_SMF",
            "period_type": "rc_mrf",
            "beside_systems": [{"lateral_system": "A_ordinary_RC_shear_wall"}],
        }
    }
    place = {"occupancy": {"risk_category": "II"}, "stories": stories()}
    site = {"S_S": 0.3, "S_1": 0.1, "T_L": 8.0, "site_class": "C"}
    for edition, C_d in (("asce7-05", 5.5), ("asce7-10", 4.0), ("asce7-16", 4.0)):
        found = solve({"kind": "system", "edition": edition, "site": site, "system": own, **place})["X"]
        assert (found["R"], found["C_d"]) == (4.0, C_d)


def test_a_rooftop_structure_that_is_exempt_does_not_set_the_height_limit() -> None:
    floors = [{"name": f"L{i}", "height": 4.0, "weight": 100.0 if i == 11 else WEIGHT} for i in range(12)]
    own = {
        d: {
            "lateral_system": "C_steel_SMF",
            "period_type": "steel_mrf",
            "stacked_systems": [{"lateral_system": "C_steel_IMF", "from_story": "L11", "exempt": "rooftop"}],
        }
        for d in "XY"
    }
    # intermediate frames are limited to 35 ft in category D
    assert "permission_system_permission.X" not in checks_of(document(system=own, stories=floors))


def test_redundancy_requires_every_story_above_35_percent_of_the_base_shear() -> None:
    removal = {"element": "brace", "strength_loss": 0.2, "extreme_torsion": False}
    place = {"edition": "asce7-16", "occupancy": {"risk_category": "II"}, "stories": stories()}
    site = {"S_S": 1.2, "S_1": 0.5, "T_L": 6.0, "site_class": "D"}

    def rho(*listed: tuple[str, float, dict[str, Any]]) -> float:
        shown = [{"story": n, "shear_share": share, **how} for n, share, how in listed]
        own = {"X": {"R": 5.0, "period_type": "other", "redundancy": {"stories": shown}}}
        return float(solve({"kind": "system", "site": site, "system": own, **place})["X"]["rho"])

    # shares of three equal stories with k = 1: 1.0, 0.83, 0.5
    whole = [(n, share, removal) for n, share in zip(STORIES, (1.0, 0.83, 0.5), strict=True)]
    assert rho(*whole) == 1.0
    assert rho(whole[0]) == 1.3
    assert rho(("L3", 0.5, {"element": "other"})) == 1.3


# Submitted and not read


def test_what_is_submitted_and_not_read_is_no_gap() -> None:
    roles, claims = both_sides((0.005, 0.005))
    made = document(cases=roles, claims=claims)
    assert checks_of(made)["gap_drift_ratio.Y"]["verdict"] == "gap"
    assert checks_of(made)["gap_F_a"]["verdict"] == "gap"
    made["open"] = [
        {
            "file": "drifts.csv",
            "kind": "drifts",
            "quantities": ["drift_end_1", "drift_end_2"],
            "question": "Which unit?",
        },
        {"file": "parameters.csv", "kind": "parameters", "rows": [7], "question": "Which parameter?"},
    ]
    checks = checks_of(made)
    assert "gap_drift_ratio.Y" not in checks
    assert "gap_F_a" not in checks
    assert "case_missing_eccentricity.Y+" not in checks


# Declarations of the run, and means


@pytest.mark.parametrize(
    ("lines", "asked"),
    [
        (["warning: negative stiffness at joint 12", "run complete"], True),
        (["run complete", "ERROR in load case 3"], True),
        (["no warnings", "0 errors", "Warnings: none"], False),
        (["run complete"], False),
    ],
)
def test_lines_of_the_log_that_warn_are_asked_about(lines: list[str], asked: bool) -> None:
    found = checks_of(document(claims=[claim("log_line", line) | {"point": i} for i, line in enumerate(lines)]))[
        "declared_log_line"
    ]
    assert (found["verdict"], found["slip"]) == (("question", "S91") if asked else ("note", None))


@pytest.mark.parametrize(("mean", "asked"), [(0.0052, False), (0.0044, True)])
def test_a_mean_that_is_not_that_of_the_ends_is_asked_about(mean: float, asked: bool) -> None:
    # ends of 4.0 and 6.4 mm: their mean is 5.2 mm; 4.4 mm is that of other joints too
    cases, claims = both_sides((0.004, 0.0064))
    means = [claim("drift_avg", mean, "X", s, f"X {sign}") for s in STORIES for sign in "+-"]
    found = [c for c in checks_of(document(cases=cases, claims=claims + means)).values() if c["slip"] == "S72"]
    assert [(c["verdict"], c["story"]) for c in found] == ([("question", "L1")] if asked else [])


def test_a_contradicted_declaration_says_what_was_found_where_and_what_it_changes() -> None:
    made = document(
        "ubc97", claims=[claim("W", 10800.0)], system={**systems("ubc97"), "irregularities": {"mass": True}}
    )
    note = checks_of(made)["fact_regular.X"]["note"]
    assert "declared yes, found no (mass); no is used" in note
    assert "the share of the scaling" in note
    # plans of 30, 21 and 12 m: 9 of 21 m is 43 % at the top
    narrower = [s | {"plan": [30.0 - 9.0 * i, 20.0]} for i, s in enumerate(stories())]
    made = document("en1998-1", claims=[claim("W", 10800.0)], stories=narrower)
    made["brief"]["system"] |= {"regular_in_elevation": True}
    note = checks_of(made)["fact_regular_in_elevation"]["note"]
    assert "set-backs along X 0.429, the limit is 0.2" in note
    assert "the permission of the static method" in note
