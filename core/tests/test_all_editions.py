"""What has to hold under every edition.

Shape of answers, continuity, monotony, invariance, no number that is not one.
"""

from __future__ import annotations

import copy
import math
from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from plumb_core.across import across
from plumb_core.briefs import with_governing
from plumb_core.catalogue import editions
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.editions import EDITIONS
from plumb_core.editions.edition import ASPECTS
from plumb_core.errors import InputRefused
from plumb_core.quantities import QUANTITIES
from plumb_core.solve import solve
from timing import process_seconds

SITES: dict[str, dict[str, Any]] = {
    "asce7-05": {"S_S": 1.2, "S_1": 0.5, "T_L": 6.0, "site_class": "D"},
    "asce7-10": {"S_S": 1.2, "S_1": 0.5, "T_L": 6.0, "site_class": "D"},
    "asce7-16": {"S_S": 1.2, "S_1": 0.5, "T_L": 6.0, "site_class": "D"},
    "asce7-22": {"S_MS": 1.4, "S_M1": 0.9, "S_1": 0.4, "T_L": 6.0, "site_class": "D"},
    "ubc97": {"zone": "4", "soil": "S_D", "source_type": "A", "source_distance_km": 4.0},
    "en1998-1": {"a_gR": 0.25, "ground_type": "C", "spectrum_type": 1},
    "is1893-2002": {"zone": "IV", "soil": "II"},
    "is1893-2016": {"zone": "IV", "soil": "II"},
    "as1170.4": {"Z": 0.12, "subsoil": "D_e"},
    "custom": {
        "T": [0.0, 0.2, 0.6, 4.0],
        "S_a": [0.4, 1.0, 1.0, 0.15],
        "own": {"period_coefficient": 0.05, "drift_limit": 0.02},
    },
}
OCCUPANCY: dict[str, dict[str, Any]] = {
    **{f"asce7-{y}": {"risk_category": "II"} for y in ("05", "10", "16", "22")},
    "ubc97": {"I": 1.0},
    "en1998-1": {"importance_class": "II"},
    "is1893-2002": {"use": "other"},
    "is1893-2016": {"use": "other"},
    "as1170.4": {"importance_level": 2},
    "custom": {},
}
FACTORS: dict[str, dict[str, Any]] = {
    **{f"asce7-{y}": {"R": 5.0, "Omega_0": 2.5, "C_d": 5.0} for y in ("05", "10", "16", "22")},
    "ubc97": {"R": 5.5, "regular": True},
    "en1998-1": {"q": 3.0},
    "is1893-2002": {"R": 4.0, "d": 20.0},
    "is1893-2016": {"R": 4.0, "d": 20.0},
    "as1170.4": {"mu": 2.0, "S_p": 0.77},
    "custom": {"R": 4.0},
}
ALL = list(EDITIONS)

STUDY = {"T": [0.0, 0.1, 0.2, 0.4, 0.6, 1.0, 2.0, 4.0, 10.0], "S_a": [0.4, 0.7, 1.0, 1.0, 0.8, 0.5, 0.25, 0.1, 0.03]}
VARIANTS: dict[str, tuple[str, dict[str, Any], dict[str, Any]]] = {e: (e, {}, {}) for e in ALL}
"""Name -> edition, what the site declares, what the building declares: each edition under every choice that it has."""
for _edition, _held in EDITIONS.items():
    for _name in (*_held.permissions, *(name for name, c in _held.choices.items() if not c.sets)):
        VARIANTS[f"{_edition} {_name}"] = (_edition, {_name: True}, {})
    for _name, _choice in _held.choices.items():
        for _set in _choice.sets:
            if _set != _choice.standing:
                VARIANTS[f"{_edition} {_name} {[*_set]}"] = (_edition, {_name: [*_set]}, {})
    if "site_specific" in _held.inputs:
        VARIANTS[f"{_edition} study"] = (_edition, {"site_specific": STUDY}, {})
    if _held.permissions:
        VARIANTS[f"{_edition} all permissions"] = (_edition, dict.fromkeys(_held.permissions, True), {})
for _edition in ("asce7-05", "asce7-10", "asce7-16", "asce7-22"):
    VARIANTS[f"{_edition} values of a study"] = (_edition, {"site_specific": {"S_DS": 1.0, "S_D1": 0.8}}, {})
VARIANTS["asce7-16 F_v of a study"] = ("asce7-16", {"F_v": 2.0}, {})
VARIANTS["asce7-22 multi-period"] = (
    "asce7-22",
    {"mce": {"T": [0.0, 0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0], "S_a": [0.6, 1.2, 1.5, 1.5, 0.9, 0.45, 0.18, 0.08]}},
    {},
)
VARIANTS["ubc97 zone 3"] = ("ubc97", {"zone": "3"}, {})
VARIANTS["en1998-1 type 2"] = ("en1998-1", {"spectrum_type": 2}, {})
MANY = list(VARIANTS)


def site_of(variant: str) -> dict[str, Any]:
    edition, more, _ = VARIANTS[variant]
    return SITES[edition] | more


def request(
    variant: str, kind: str, floors: list[dict[str, Any]], T: float | None = None, **more: Any
) -> dict[str, Any]:
    edition, _, building = VARIANTS[variant]
    system = FACTORS[edition] | ({} if edition == "custom" else {"period_type": "other"})
    more = {"system": {"X": system, **building}} | more
    return {
        "kind": kind,
        "edition": edition,
        "site": site_of(variant),
        "occupancy": OCCUPANCY[edition],
        "stories": floors,
        "period": {"X": {"analysis": T}} if T else {},
    } | more


def building(count: int, height: float = 3.3, weight: float = 4000.0) -> list[dict[str, Any]]:
    return [{"name": f"L{i + 1}", "height": height, "weight": weight, "plan": [30.0, 20.0]} for i in range(count)]


def curve(variant: str, T: list[float]) -> dict[str, Any]:
    edition = VARIANTS[variant][0]
    return solve(
        {
            "kind": "spectrum",
            "edition": edition,
            "site": site_of(variant),
            "occupancy": OCCUPANCY[edition],
            "T": T,
            "system": {"X": FACTORS[edition]},
        }
    )


def numbers(value: Any) -> list[float]:
    if isinstance(value, dict):
        return [n for v in value.values() for n in numbers(v)]
    if isinstance(value, list):
        return [n for v in value for n in numbers(v)]
    return [value] if isinstance(value, float) else []


@pytest.mark.parametrize("edition", MANY)
@settings(max_examples=15, deadline=None)
@given(
    count=st.integers(1, 60),
    height=st.floats(2.2, 8.0),
    weight=st.floats(10.0, 1e5),
    T=st.one_of(st.none(), st.floats(0.05, 3.9)),
)
def test_static_forces_add_up_and_are_numbers(
    edition: str, count: int, height: float, weight: float, T: float | None
) -> None:
    # the curves of the 2002 edition and of the reviewer's own end at 4 s; that they refuse more is tested with them
    assume(VARIANTS[edition][0] not in ("is1893-2002", "custom") or count * height < 150.0)
    found = solve(request(edition, "static", building(count, height, weight), T))["X"]
    assert all(math.isfinite(n) for n in numbers(found))
    assert found["V"] == pytest.approx(found["coefficient"] * found["W"])
    assert sum(found["F"]) == pytest.approx(found["V"])
    assert found["V_story"][0] == pytest.approx(found["V"])
    heights = np.cumsum([height] * count)
    assert found["M_story"][0] == pytest.approx(float(np.dot(found["F"], heights)))
    assert all(a >= b for a, b in zip(found["V_story"], found["V_story"][1:], strict=False))


@pytest.mark.parametrize("edition", MANY)
@settings(max_examples=10, deadline=None)
@given(factor=st.floats(0.01, 100.0))
def test_forces_scale_with_the_weights(edition: str, factor: float) -> None:
    once = solve(request(edition, "static", building(5)))["X"]
    scaled = solve(request(edition, "static", building(5, weight=4000.0 * factor)))["X"]
    assert scaled["F"] == pytest.approx([factor * f for f in once["F"]])


@pytest.mark.parametrize("edition", MANY)
@settings(max_examples=15, deadline=None)
@given(T=st.floats(0.25, 3.9), step=st.floats(1.0, 1.5))
def test_ordinates_do_not_rise_beyond_the_plateau(edition: str, T: float, step: float) -> None:
    later = min(T * step, 4.0)
    found = curve(edition, [T, later])
    assert found["elastic"][1] <= found["elastic"][0] * (1 + 1e-12)
    assert found["reduced"][1] <= found["reduced"][0] * (1 + 1e-12)


CORNERS: dict[str, list[float]] = {
    # S_DS = 0.8 x 1.024 and S_D1 by the tables of the site above; the names of corners come from the answer
    **{f"asce7-{y}": [] for y in ("05", "10", "16", "22")},
    "ubc97": [],
    "en1998-1": [0.2, 0.6, 2.0],
    "is1893-2002": [0.1],
    "is1893-2016": [0.1],
    "as1170.4": [0.1, 1.5],
    "custom": [0.2, 0.6],
}


@pytest.mark.parametrize("edition", MANY)
def test_continuity_at_the_corner_periods(edition: str) -> None:
    own = VARIANTS[edition][0]
    corners = [0.2, 0.6, 1.0] if "study" in edition else list(CORNERS[own])
    if own.startswith(("asce7", "ubc")):
        ground = solve({"kind": "ground", "edition": own, "site": site_of(edition), "occupancy": OCCUPANCY[own]})
        corners += [ground["T_0"], ground.get("T_S") or ground["T_s"]] + ([6.0] if own.startswith("asce7") else [])
    if edition == "en1998-1 type 2":
        corners = [0.1, 0.25, 1.2]
    for corner in corners:
        left, right = curve(edition, [corner * (1 - 1e-9), corner * (1 + 1e-9)])["elastic"]
        # C_e of AS 1170.4 has 1.25 and 1.874 = 1.4993 x 1.25, and its classes meet their plateau within rounding
        assert left == pytest.approx(right, rel=1e-3 if own == "as1170.4" else 1e-6), corner


@pytest.mark.parametrize(
    ("edition", "T", "step"),
    [
        ("is1893-2002", 0.55, 1.36 / 0.55 / 2.5),
        ("is1893-2016", 0.55, 1.36 / 0.55 / 2.5),
        ("en1998-1", 6.0, 0.025 * 4 * math.pi**2),
    ],
)
def test_the_jumps_that_the_codes_have(edition: str, T: float, step: float) -> None:
    left, right = curve(edition, [T, T * (1 + 1e-9)])["elastic"]
    assert right / left == pytest.approx(step, rel=1e-6)


@pytest.mark.parametrize("edition", MANY)
def test_every_kind_answers(edition: str) -> None:
    floors = building(4)
    assert "notes" in solve(
        {k: request(edition, "ground", floors)[k] for k in ("kind", "edition", "site", "occupancy")}
    )
    assert solve(request(edition, "static", floors))["X"]["V"] > 0
    drift = solve(
        {
            **request(
                edition, "drift", floors, structure_type="ductile" if VARIANTS[edition][0] == "en1998-1" else None
            ),
            "T": 0.5,
            "elastic_drift": [0.001] * 4,
            "P": [100.0] * 4,
            "V": [100.0] * 4,
        }
    )
    assert all(
        set(row) >= {"name", "design_drift", "ratio", "limit", "ok", "theta", "theta_limit", "theta_ok"}
        for row in drift["stories"]
    )
    scaling = solve(
        {
            "kind": "scaling",
            "edition": VARIANTS[edition][0],
            "site": site_of(edition),
            "regular": True,
            "X": {"static": 2.0, "dynamic": 1.0, "factor_used": 2.0},
        }
    )
    assert scaling["X"]["ok"] is True
    torsion = solve(
        {
            "kind": "torsion",
            "edition": VARIANTS[edition][0],
            "site": site_of(edition),
            "rows": [{"story": "L1", "max": 1.1, "avg": 1.0}],
        }
    )
    assert torsion["rows"][0]["class"] in ("regular", None)


@pytest.mark.parametrize("edition", MANY)
def test_derivations_cite_a_clause_for_every_rule(edition: str) -> None:
    steps = solve({**request(edition, "static", building(4)), "steps": True})["steps"]
    ruled = [s for s in steps if s["source"] == "rule"]
    assert len(ruled) > 8
    assert all(s["clause"] for s in ruled)
    ids = {s["id"] for s in steps}
    assert all(i in ids or QUANTITIES[i.split(".")[0]].kind.value == "data" for s in ruled for i in s["inputs"])


@pytest.mark.parametrize("edition", ALL)
def test_inputs_and_tables_of_an_edition_hang_together(edition: str) -> None:
    held = EDITIONS[edition]
    rules = held.rules({})
    assert {*held.inputs} <= QUANTITIES.keys()
    assert {*held.options} <= {*held.inputs}
    assert {*held.definitions} <= {*held.inputs}
    assert {*held.words} <= {*held.options, "period_type", "T_a_formula"}
    for name, words in held.words.items():
        own = {"period_type": held.period_types, "T_a_formula": held.formulas}.get(name) or held.options[name]
        # words of several editions may hold more than this one has
        assert {*words} <= {*own} or name == "period_type"
        assert {*own} - {*words} <= {*held.formulas} or name == "period_type"
    assert {*held.walls_with} <= {*held.formulas, *held.period_types}
    assert {c: s.standing in s.sets or not s.sets for c, s in held.choices.items()} == dict.fromkeys(held.choices, True)
    assert {*held.aspects} <= {*ASPECTS}
    assert {*held.side_by_side.values()} <= rules.keys() | {*held.inputs}
    assert {*held.ground_keys} <= rules.keys() | {*held.inputs}
    for pins in held.aspects.values():
        assert {*pins} <= rules.keys() | {*held.inputs}
    if held.soil[0]:
        assert {*held.soil[1]} <= {*held.options[held.soil[0]]}


def test_no_edition_is_named_outside_the_editions() -> None:
    """Editions differ by their rules: no other part of the core asks which one it has before it."""
    from pathlib import Path

    import plumb_core

    root = Path(plumb_core.__file__).parent
    for source in root.rglob("*.py"):
        if "editions" not in source.parts:
            text = source.read_text()
            assert not any(f'"{edition}"' in text for edition in ALL), source


@pytest.mark.parametrize("edition", ALL)
def test_a_permission_lowers_no_force_unless_it_is_declared_and_never_raises_one(edition: str) -> None:
    def force(**declared: bool) -> float:
        asked = request(edition, "static", building(3))
        # all that the permissions request is stated as met
        asked["site"] = asked["site"] | declared
        asked["system"]["X"] = asked["system"]["X"] | (
            {"rho": 1.0, "regular": True} if edition.startswith("asce7") else {}
        )
        return float(solve(asked)["X"]["V"])

    bare = force()
    for name in EDITIONS[edition].permissions:
        assert force(**{name: False}) == bare
        assert force(**{name: True}) <= bare * (1 + 1e-12)


def test_every_choice_of_the_site_is_a_choice_of_an_edition() -> None:
    """What a site can declare is either a quantity, a part of one, or a choice that an edition has."""
    from plumb_core.documents.brief import Site

    choices = {c for held in EDITIONS.values() for c in held.declared}
    parts = {"T", "S_a", "S_d", "read", "mce", "own", "site_specific"}
    assert {n for n in Site.model_fields if n not in QUANTITIES} <= choices | parts


# Side by side

COMPARED = ["asce7-05", "asce7-22", "ubc97", "en1998-1", "is1893-2016", "as1170.4", "custom"]


def brief(**more: Any) -> dict[str, Any]:
    both = {"R": 5.0, "Omega_0": 2.5, "C_d": 5.0, "period_type": "other"}
    others = {"period_type": "other"}
    return copy.deepcopy(
        {
            "edition": "asce7-16",
            "site": SITES["asce7-16"],
            "occupancy": {"risk_category": "II"},
            "system": {"X": both, "Y": both},
            "stories": building(6),
            "period": {"X": {"analysis": 0.9}, "Y": {"analysis": 0.9}},
            "comparison_editions": COMPARED,
            "comparisons": {
                e: {
                    "site": SITES[e],
                    "occupancy": OCCUPANCY[e],
                    "system": {d: FACTORS[e] | ({} if e == "custom" else others) for d in ("X", "Y")},
                }
                for e in COMPARED
            },
        }
        | more
    )


def test_the_same_value_as_alone() -> None:
    found = across(read(Brief, brief()))
    row = next(r for r in found["rows"] if r["id"] == "base_shear")
    assert [c["edition"] for c in row["cells"]] == ["asce7-16", *COMPARED]
    for cell in row["cells"]:
        alone = solve(request(cell["edition"], "static", building(6), 0.9))["X"]
        assert cell["X"]["value"] == pytest.approx(alone["V"])
        assert found["story_shears"][cell["edition"]]["X"] == pytest.approx(alone["V_story"])


def test_the_factors_of_a_shear_ratio_multiply_to_the_ratio_of_the_base_shears() -> None:
    found = across(read(Brief, brief()))
    shears = {c["edition"]: c["X"]["value"] for r in found["rows"] if r["id"] == "base_shear" for c in r["cells"]}
    assert len(found["shear_ratios"]) == 2 * len(COMPARED)
    for shear_ratio in found["shear_ratios"]:
        product = math.prod(f["factor"] for f in shear_ratio["factors"])
        assert product == pytest.approx(shear_ratio["ratio"])
        assert shear_ratio["ratio"] == pytest.approx(shears[shear_ratio["edition"]] / shears["asce7-16"])


def test_an_importance_of_1_25_is_a_factor_of_its_own() -> None:
    changed = brief()
    changed["comparisons"]["ubc97"]["occupancy"] = {"I": 1.25}
    for edition in ("custom", "ubc97"):
        found = across(read(Brief, changed))
        shear_ratio = next(p for p in found["shear_ratios"] if p["edition"] == edition and p["direction"] == "X")
        factor = next(f["factor"] for f in shear_ratio["factors"] if f["aspect"] == "importance")
        assert factor == pytest.approx(1.25 if edition == "ubc97" else 1.0)


def test_the_coefficient_over_the_period_agrees_with_the_static_method() -> None:
    found = across(read(Brief, brief()))
    for edition in ("asce7-16", "ubc97", "en1998-1", "is1893-2016", "as1170.4"):
        drawn = found["coefficients"][edition]["X"]
        used = next(
            c["X"]["value"] for r in found["rows"] if r["id"] == "period" for c in r["cells"] if c["edition"] == edition
        )
        V_W = next(
            c["X"]["value"]
            for r in found["rows"]
            if r["id"] == "coefficient"
            for c in r["cells"]
            if c["edition"] == edition
        )
        at = float(np.exp(np.interp(np.log(used), np.log(drawn["T"]), np.log(drawn["coefficient"]))))
        assert at == pytest.approx(V_W, rel=0.02), edition


def test_what_an_edition_needs_beyond_what_is_known() -> None:
    bare = brief(comparisons={})
    found = {e["id"]: {(n["name"], n["direction"]) for n in e["needs"]} for e in across(read(Brief, bare))["editions"]}
    assert found["asce7-16"] == set()
    # the systems' factors and the site class carry over between 7-05 and 7-16, mapped values do not
    assert found["asce7-05"] == {("S_S", None), ("S_1", None), ("T_L", None)}
    S_S = next(
        n
        for e in across(read(Brief, bare))["editions"]
        if e["id"] == "asce7-05"
        for n in e["needs"]
        if n["name"] == "S_S"
    )
    assert S_S["basis"] == "S_S of ASCE/SEI 7-16 is 1.2"
    assert ("site_class", None) in found["asce7-22"]
    assert ("R", "X") in found["ubc97"]
    assert {("q", "X"), ("a_gR", None), ("ground_type", None)} <= found["en1998-1"]


def test_a_class_of_soil_is_proposed_and_never_converted() -> None:
    bare = brief(comparisons={})
    editions = {e["id"]: e for e in across(read(Brief, bare))["editions"]}
    soil = next(n for n in editions["en1998-1"]["needs"] if n["name"] == "ground_type")
    # class D of 7-16 is 180 to 370 m/s, type C 180 to 360
    assert soil["proposals"][0]["value"] == "C"
    assert soil["basis"] == "D of ASCE/SEI 7-16 means 180 to 370 m/s"
    measured = brief(comparisons={}, site=SITES["asce7-16"] | {"v_s30": 250.0})
    editions = {e["id"]: e for e in across(read(Brief, measured))["editions"]}
    soil = next(n for n in editions["asce7-22"]["needs"] if n["name"] == "site_class")
    assert soil["proposals"] == [{"value": "D", "share": 1.0}]


@pytest.mark.timing
def test_all_editions_both_directions_sixty_stories_in_time() -> None:
    """Ground, spectrum and static method of every edition: under 60 ms with derivations, 20 ms without of process time.

    `bench/editions.py` prints medians of the clock.
    """

    def taken(steps: bool) -> float:
        documents = []
        for edition in ALL:
            both = request(
                edition,
                "static",
                building(60, 3.0 if edition not in ("is1893-2002", "custom") else 1.5),
                1.5,
                steps=steps,
            )
            both["system"]["Y"] = both["system"]["X"]
            common = {k: both[k] for k in ("edition", "site", "occupancy", "system", "steps")}
            documents += [both, {**common, "kind": "spectrum", "T": [0.05 * i for i in range(60)]}]
            documents.append({k: v for k, v in common.items() if k != "system"} | {"kind": "ground"})
        return process_seconds(lambda: [solve.__wrapped__(document) for document in documents], repeats=60)

    assert taken(True) < 0.060
    assert taken(False) < 0.020


def test_what_was_measured_in_the_ground_stands_once_for_every_edition_compared() -> None:
    site = SITES["asce7-16"] | {"s_u": 30.0, "rock": False, "very_soft_thickness": 12.0}
    compared = brief(comparisons={}, site=site, comparison_editions=["as1170.4", "ubc97"])
    soils = {e["id"]: e["measured_soil"] for e in across(read(Brief, compared))["editions"]}
    # more than 10 m of very soft soil is E_e; 25 to 50 kPa is S_E
    assert (soils["as1170.4"], soils["ubc97"]) == ("E_e", "S_E")
    # an edition that does not request it leaves it alone, in a brief; requested one thing it refuses what it cannot use
    read(Brief, compared | {"comparison_editions": []})
    with pytest.raises(InputRefused, match="rock is not a site value of asce7-16"):
        solve({"kind": "ground", "edition": "asce7-16", "site": site, "occupancy": {"risk_category": "II"}})


def test_a_measurement_changed_later_holds_under_editions_that_governed_before() -> None:
    first = read(Brief, brief(comparisons={}, comparison_editions=["ubc97"], site=SITES["asce7-16"] | {"v_s30": 500.0}))
    later = with_governing(first, "ubc97").model_dump(mode="json", exclude_none=True, exclude_unset=True)
    later["site"]["v_s30"] = 250.0
    soils = {e["id"]: e["measured_soil"] for e in across(read(Brief, later))["editions"]}
    assert soils == {"ubc97": "S_D", "asce7-16": "D"}


def test_across_names_the_direction_of_what_holds_in_one_only() -> None:
    walls = {"lateral_system": "A_special_RC_shear_wall"}
    held = brief(
        comparisons={}, comparison_editions=[], system={"X": {**walls, "rho": 1.0}, "Y": {**walls, "rho": 1.3}}
    )
    (described,) = across(read(Brief, held))["editions"]
    combinations = {c["name"]: c["factors"]["Q_E"] for c in described["words"]["load_combinations"]}
    assert (combinations["X: 2.3.6-6"], combinations["Y: 2.3.6-6"]) == (1.0, 1.3)
    assert all(not note.startswith(("X: ", "Y: ")) for note in described["words"]["modal_rules"])


def test_across_lists_the_tests_of_the_building_one_by_one() -> None:
    walls = {"lateral_system": "A_special_RC_shear_wall"}
    redundancy = {"stories": [{"story": "L1", "shear_share": 1.0, "element": "wall", "strength_loss": 0.4}]}
    podium = {"from_story": "L2", "stiffness_ratio": 12.0, "T_whole": 0.56, "T_upper": 0.50, "R_upper": 8.0}
    stories = building(4, 3.5)
    stories[0]["stiffness"], stories[1]["stiffness"] = {"X": 100.0, "Y": 100.0}, {"X": 170.0, "Y": 100.0}
    for story in stories[2:]:
        story["stiffness"] = {"X": 170.0, "Y": 100.0}
    held = brief(
        comparisons={},
        comparison_editions=[],
        stories=stories,
        system={
            "X": {**walls, "redundancy": redundancy},
            "Y": {**walls, "podium": podium},
            "irregularities": {"nonparallel_systems": False},
        },
    )
    (described,) = across(read(Brief, held))["editions"]
    states = {(t["group"], t["direction"], t["words"]): t["state"] for t in described["tests"]}
    assert states["Irregularities in plan", None, "5 nonparallel system"] == "none"
    assert states["Irregularities in plan", None, "4 out-of-plane offset"] == "not tested"
    # 100/170 is 0.588, below 0.6
    assert states["Irregularities in height", "X", "1b extreme soft story"] == "there"
    assert not [t for t in described["tests"] if t["group"] == "Irregularities in height" and t["direction"] == "Y"]
    # 40 % of the strength belongs to one wall
    assert [t["state"] for t in described["tests"] if t["group"] == "Redundancy"] == ["not met"]
    # twelve times as stiff; 0.56/0.50 is 1.12
    assert [t["state"] for t in described["tests"] if t["group"] == "Two-stage analysis"] == ["met", "not met"]


def test_the_catalogue_names_permissions_and_what_may_be_left_open() -> None:
    held = {e["id"]: e for e in editions()}
    assert [p["name"] for p in held["asce7-16"]["permissions"]] == [
        "short_period_cap",
        "category_by_S_DS_alone",
        "category_A_by_map",
        "low_vertical_effect",
    ]
    for e in held.values():
        assert not {p["name"] for p in e["permissions"]} & {c["name"] for c in e["choices"]}
        assert all(p["words"] for p in e["permissions"])
    forms = {i["name"]: i["form"] for e in held.values() for i in e["inputs"]}
    # rock or not, and neither is assumed; a class by default is declared or it is not
    assert (forms["rock"], forms["class_by_default"]) == ("yes_no", "flag")
