"""Action levels: factors by hand from the clauses, their drifts in a request and in a recheck."""

from __future__ import annotations

from typing import Any

import pytest
from facts import both_sides, case, checks_of, document, drifts, facts_of, stories, systems
from plumb_core.errors import InputRefused
from plumb_core.solve import solve
from test_all_editions import OCCUPANCY, SITES


def level(kind: str = "serviceability", name: str = "SLS", **more: Any) -> dict[str, Any]:
    return {"name": name, "kind": kind, **more}


def asked(edition: str, *levels: dict[str, Any], **more: Any) -> dict[str, Any]:
    """Drifts of 7 mm of three stories of 3.5 m, 0.2 % of their height before any factor."""
    made = {
        "kind": "drift",
        "edition": edition,
        "site": SITES[edition],
        "occupancy": OCCUPANCY[edition],
        "system": systems(edition),
        "stories": stories(),
        "elastic_drift": [0.007] * 3,
        "period": {d: {"analysis": 0.9} for d in "XY"},
        "levels": list(levels),
        **({"structure_type": "none"} if edition == "en1998-1" else {}),
    }
    return solve({**made, **more})


def test_a_level_without_cases_has_the_design_drifts_times_its_factor() -> None:
    # C_d 5, I_e 1: 5 x 0.007 / 3.5 = 0.010; a quarter of it is 0.0025
    (found,) = asked("asce7-16", level(factor=0.25, drift_limit=0.004))["levels"]
    assert found["ratio"] == pytest.approx([0.0025] * 3)
    assert found["verdicts"] == [True] * 3
    (found,) = asked("asce7-16", level(factor=0.5, drift_limit=0.004))["levels"]
    assert found["ratio"] == pytest.approx([0.005] * 3)
    assert found["verdicts"] == [False] * 3


def test_a_level_without_limit_is_not_decided() -> None:
    (found,) = asked("asce7-16", level(factor=0.25))["levels"]
    assert found["verdicts"] is None
    assert found["needs"] == "its drift limit"


def test_the_factor_of_a_spectrum_is_read_at_the_period() -> None:
    # S_D1 = 2/3 x 1.8 x 0.5 = 0.60; T = min(C_u T_a, 0.9) with C_u 1.4 and T_a = 0.0488 x 10.5^0.75 = 0.2846: 0.3985 s,
    # on the plateau with S_DS = 2/3 x 1.02 x 1.2 = 0.816 (F_a between 1.1 at 1.00 and 1.0 at 1.25 g)
    spectrum = {"T": [0.0, 2.0], "S_a": [0.204, 0.204]}
    (found,) = asked("asce7-16", level(spectrum=spectrum, drift_limit=0.004))["levels"]
    assert found["factor"] == pytest.approx(0.204 / 0.816, rel=1e-6)


def test_importance_level_4_of_as_1170() -> None:
    # k_p Z = 1.5 x 0.12 = 0.18; serviceability under that of importance level 2: 1.0 x 0.12 = 0.12
    four = {"occupancy": {"importance_level": 4}}
    (found,) = asked("as1170.4", level(drift_limit=0.005), **four)["levels"]
    assert found["factor"] == pytest.approx(0.12 / 0.18)
    # mu / S_p = 2 / 0.77: 0.007 / 3.5 x 2.597 x 2/3
    assert found["ratio"] == pytest.approx([0.002 * 2 / 0.77 * 2 / 3] * 3)
    # 1/250: k_p 0.75, and the least hazard of Table 3.3 begins at k_p = 1.0
    (found,) = asked("as1170.4", level(return_period=250, drift_limit=0.005), **four)["levels"]
    assert found["factor"] == pytest.approx(0.75 * 0.12 / 0.18)
    with pytest.raises(InputRefused, match="300 years"):
        asked("as1170.4", level(return_period=300, drift_limit=0.005), **four)


def test_damage_limitation_of_en_1998_is_the_edition_s_own_check() -> None:
    # q 3: d_r = 0.021; nu 0.5 of class II: 0.5 x 0.021 / 3.5 = 0.003
    assert asked("en1998-1")["stories"][0]["ratio"] == pytest.approx(0.003)
    found = asked("en1998-1", level("damage_limitation", "DL", factor=0.4, drift_limit=0.002))
    assert "levels" not in found
    assert found["stories"][0]["ratio"] == pytest.approx(0.4 * 0.021 / 3.5)
    assert found["stories"][0]["limit"] == pytest.approx(0.002)
    assert found["stories"][0]["ok"] is False
    # 95 years: (95 / 475)^(1/3) = 0.5848, and gamma_I is 1.0 in class II
    found = asked("en1998-1", level("damage_limitation", "DL", return_period=95))
    assert found["stories"][0]["ratio"] == pytest.approx(0.5848 * 0.021 / 3.5, rel=1e-4)


def test_serviceability_of_en_1998_is_a_check_of_its_own() -> None:
    (found,) = asked("en1998-1", level(factor=0.3, drift_limit=0.002))["levels"]
    assert found["ratio"] == pytest.approx([0.3 * 0.021 / 3.5] * 3)


@pytest.mark.parametrize(
    ("levels", "words"),
    [
        ([level("design", factor=0.5)], "spectrum of the design action"),
        ([level(factor=0.5, return_period=95)], "both given"),
        ([level(), level()], "same name"),
        ([level(return_period=95, drift_limit=0.01)], "no rule for an action of 95 years"),
    ],
)
def test_levels_that_say_too_much_or_nothing_are_refused(levels: list[dict[str, Any]], words: str) -> None:
    with pytest.raises(InputRefused, match=words):
        asked("asce7-16", *levels)


def recheck_with(*levels: dict[str, Any], edition: str = "asce7-16") -> dict[str, Any]:
    """Design drifts of 3 mm, well within the limit, and a case of serviceability with elastic drifts of 21 mm."""
    cases, claims = both_sides((0.003, 0.003))
    return document(
        edition,
        cases=[*cases, case("SLS X", eccentricity=0.0, level="elastic")],
        claims=[*claims, *drifts("SLS X", "X", (0.021, 0.021))],
        levels=list(levels),
    )


def test_cases_of_a_level_have_its_limit_and_no_other() -> None:
    # 0.021 / 3.5 = 0.006
    found = checks_of(recheck_with(level(cases=["SLS X"], drift_limit=0.005)))
    own = {c["story"]: c for c in found.values() if c["kind"] == "level"}
    assert {c["verdict"] for c in own.values()} == {"breaches"}
    assert own["L1"]["theirs"]["value"] == pytest.approx(0.006)
    assert own["L1"]["limit"]["value"] == 0.005
    design = [c for c in found.values() if c["kind"] == "drift"]
    assert {c["verdict"] for c in design} == {"agrees"}
    assert design[0]["theirs"]["value"] == pytest.approx(5 * 0.003 / 3.5)
    found = checks_of(recheck_with(level(cases=["SLS X"], drift_limit=0.007)))
    assert {c["verdict"] for c in found.values() if c["kind"] == "level"} == {"agrees"}


def test_a_level_without_what_it_needs_stays_open() -> None:
    found = checks_of(recheck_with(level(cases=["SLS X"])))
    (one,) = [c for c in found.values() if c["kind"] == "level"]
    assert one["verdict"] == "open"
    assert "drift limit" in one["note"]


def test_a_declared_limit_of_the_design_action_counts_where_it_is_stricter() -> None:
    # 5 x 0.003 / 3.5 = 0.00429
    found = checks_of(recheck_with(level("design", "ULS", drift_limit=0.004), level(cases=["SLS X"], drift_limit=0.01)))
    assert {c["verdict"] for c in found.values() if c["kind"] == "drift"} == {"breaches"}
    facts = facts_of(recheck_with(level("design", "ULS", drift_limit=0.004)))
    assert facts["drift_limit", "X"]["source"] == "declared"
    found = checks_of(recheck_with(level("design", "ULS", drift_limit=0.5), level(cases=["SLS X"], drift_limit=0.01)))
    assert {c["limit"]["value"] for c in found.values() if c["kind"] == "drift"} == {0.020}


def test_drifts_of_damage_limitation_are_held_as_its_cases_say() -> None:
    # nu d_r stated: 0.0105 / 3.5 = 0.003 whatever the name of the case
    cases, claims = [case("Case 7", eccentricity=0.0, level="amplified")], drifts("Case 7", "X", (0.0105, 0.0105))
    made = document(
        "en1998-1", cases=cases, claims=claims, levels=[level("damage_limitation", "DL", factor=0.5, cases=["Case 7"])]
    )
    found = [c for c in checks_of(made).values() if c["kind"] == "drift"]
    assert found[0]["theirs"]["value"] == pytest.approx(0.003, rel=1e-6)
