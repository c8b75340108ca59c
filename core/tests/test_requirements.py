"""What each edition requires a submission to show: shown, missing, not applicable or open."""

from __future__ import annotations

from typing import Any

import pytest
from plumb_core.checks.requirements.lists import COMMON, requirements_of
from plumb_core.editions import EDITIONS as ALL
from plumb_core.quantities import QUANTITIES, STAGES
from test_catalogue import Seed
from test_stages import EDITIONS


def of(answer: dict[str, Any]) -> dict[str, dict[str, Any]]:
    return {r["id"]: r for r in answer["requirements"]}


SHOWN = ("weight", "loads", "torsion", "base_shear", "forces", "modes", "eccentricity", "combinations", "drift")
MISSING = ("importance", "ground", "system", "period", "curve")


@pytest.mark.parametrize("edition", EDITIONS)
def test_a_right_submission_shows_what_its_tables_have(edition: str) -> None:
    answer = Seed(edition).answer()
    found = of(answer)
    assert {i: found[i]["status"] for i in SHOWN if i in found} == {i: "shown" for i in SHOWN if i in found}
    assert {i: found[i]["status"] for i in MISSING} == dict.fromkeys(MISSING, "missing")
    ids = {c["id"] for c in answer["checks"]}
    for each in found.values():
        assert set(each["checks"]) <= ids
        assert each["clause"]
        assert bool(each["why"]) == (each["status"] != "shown")
    assert all(found[i]["checks"] for i in SHOWN if i in found)
    assert found["drift"]["level"] == 2
    counts = answer["coverage"]
    applying = [r for r in found.values() if r["status"] != "not_applicable"]
    assert counts["requirements"] == len(applying)
    assert counts["shown"] + counts["missing"] <= counts["requirements"]


@pytest.mark.parametrize(
    ("names", "requirement"),
    [
        (("drift_end_1", "drift_end_2", "displacement_end_1", "displacement_end_2"), "drift"),
        (("combination_terms",), "combinations"),
        (("load_amount", "load_intensity"), "loads"),
        (("mass_ratio",), "modes"),
        (("combined_by",), "mode_combination"),
        (("F",), "forces"),
    ],
)
@pytest.mark.parametrize("edition", ["asce7-16", "en1998-1", "is1893-2016"])
def test_what_is_not_in_the_tables_is_missing_and_nothing_else(
    edition: str, names: tuple[str, ...], requirement: str
) -> None:
    seeded = Seed(edition)
    before = of(seeded.answer())
    seeded.drop(*names)
    after = of(seeded.answer())
    assert before[requirement]["status"] == "shown"
    assert after[requirement]["status"] == "missing"
    rest = {"loads", "torsion", "drift", "weight", "forces", "method", "directions", "combinations", requirement}
    assert {i: r["status"] for i, r in after.items() if i not in rest} == {
        i: r["status"] for i, r in before.items() if i not in rest
    }


def test_one_direction_is_not_both() -> None:
    seeded = Seed("asce7-16")
    seeded.document["submission"]["claims"] = [
        c for c in seeded.claims if not (c["quantity"] == "mass_ratio" and c.get("direction") == "Y")
    ]
    modes = of(seeded.answer())["modes"]
    assert (modes["status"], modes["why"]) == ("missing", "not in the submission in Y")
    assert modes["slip"] == "S44"


@pytest.mark.parametrize(
    ("S_S", "category", "applies"),
    # 2/3 F_a S_S: with F_a of 1.6 and 1.6 S_DS is 0.107 (A) and 0.267 (B); with 1.02 of 1.2 it is 0.82 (D)
    [(0.10, "A", False), (0.25, "B", False), (1.2, "D", True)],
)
def test_redundancy_is_required_in_high_categories(S_S: float, category: str, applies: bool) -> None:
    seeded = Seed("asce7-16")
    seeded.brief["site"] |= {"S_S": S_S, "S_1": 0.04 if S_S < 1 else 0.5}
    found = of(seeded.answer())["redundancy"]
    if applies:
        assert found["status"] == "missing"
    else:
        assert (found["status"], found["why"]) == (
            "not_applicable",
            f"not required in seismic design category {category}",
        )


@pytest.mark.parametrize(("zone", "status"), [("1", "not_applicable"), ("3", "missing")])
def test_redundancy_is_required_in_high_zones(zone: str, status: str) -> None:
    seeded = Seed("ubc97")
    site = {k: v for k, v in seeded.brief["site"].items() if k not in ("source_type", "source_distance_km")}
    seeded.brief["site"] = site | {"zone": zone}
    assert of(seeded.answer())["redundancy"]["status"] == status


def test_what_our_side_lacks_leaves_a_requirement_open() -> None:
    """Without the ground motion there is no category, and nobody knows what it requires."""
    seeded = Seed("asce7-16")
    del seeded.brief["site"]["S_1"]
    found = of(seeded.answer())
    assert found["redundancy"]["status"] == "open"
    assert found["redundancy"]["why"] == "not decided: the seismic design category is not known"
    # what is shown is shown whatever the category
    assert found["drift"]["status"] == "shown"


def test_what_may_be_in_a_table_that_is_not_read_is_open() -> None:
    seeded = Seed("asce7-16")
    seeded.drop("drift_end_1", "drift_end_2", "displacement_end_1", "displacement_end_2")
    seeded.document["open"] = [
        {
            "file": "drifts.csv",
            "kind": "drifts",
            "quantities": ["drift_end_1", "drift_end_2"],
            "question": "which unit?",
        }
    ]
    drift = of(seeded.answer())["drift"]
    assert (drift["status"], drift["why"]) == ("open", "a table that may show it is not read yet")


def test_without_a_modal_analysis_its_requirements_do_not_apply() -> None:
    seeded = Seed("asce7-16")
    modal = seeded.cases_of("modal")
    seeded.drop("V_dynamic", "V_scaled", "factor_used", "mass_ratio", "mass_running", "T_mode", "combined_by")
    seeded.document["submission"]["cases"] = [
        c for c in seeded.document["submission"]["cases"] if c["name"] not in modal
    ]
    seeded.document["submission"]["claims"] = [c for c in seeded.claims if c.get("case") not in modal]
    found = of(seeded.answer())
    for name in ("modes", "curve", "mode_combination", "scaling"):
        assert (found[name]["status"], found[name]["why"]) == ("not_applicable", "no modal analysis is submitted")


def test_every_edition_has_its_own_list_with_its_own_clauses() -> None:
    lists = {e.id: requirements_of(e) for e in ALL.values()}
    assert len(lists.pop("custom")) >= 5
    for edition, requirements in lists.items():
        ids = [r.id for r in requirements]
        assert len(set(ids)) == len(ids) >= 15, edition
        rules = ALL[edition].rules({})
        assert all(any(n in rules for n in r.clause_of) for r in requirements)
    assert "scaling" not in {r.id for r in lists["en1998-1"]}
    assert "scaling" in {r.id for r in lists["is1893-2016"]}


def test_requirements_name_quantities_and_stages_that_exist() -> None:
    for requirement in COMMON:
        assert set(requirement.names) <= QUANTITIES.keys(), requirement.id
        assert requirement.stage in STAGES, requirement.id
