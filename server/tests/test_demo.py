"""The demo holds exactly the slips that were made, and its clean review none."""

from __future__ import annotations

from typing import Any

import pytest
from plumb_core.across import across
from plumb_core.intake.sheets import read_file
from plumb_server.demo.seed import seed
from plumb_server.demo.submissions import (
    ANALYSIS_SLIPS,
    EXCHANGE_SLIPS,
    FILES,
    GRANARY_SLIPS,
    MODAL_SLIPS,
    SLIPS,
    file_bytes,
    tables,
)
from plumb_server.rechecks.services import run_recheck
from plumb_server.reviews.models import Review

pytestmark = pytest.mark.django_db


def result(title: str) -> dict[str, Any]:
    review = Review.objects.get(title=title)
    found: dict[str, Any] = run_recheck(review, review.submissions.latest_with_values()).sheet
    return found


NOT_SHOWN = ["gap_rho", "gap_F_px", "gap_story_stiffness"]
GAPS: dict[str, list[str]] = {
    "Port Maren Clinic": [
        "gap_rho",
        "gap_design_category",
        "case_missing_eccentricity.Y-",
        *NOT_SHOWN[1:],
        "gap_load_amount",
    ],
    "Sable Quay Library": NOT_SHOWN,
    "Quillon Exchange": [],
    "Aldermouth Granary Lofts": [*NOT_SHOWN, "gap_directions_by", "gap_combination_terms", "gap_load_amount"],
}
"""What each review does not show though its edition requires it."""


def gaps_of(found: dict[str, Any]) -> list[str]:
    """The gaps, which are those of the requirements that are missing, one of each."""
    missing = [r for r in found["requirements"] if r["status"] == "missing"]
    gaps = [c["id"] for c in found["checks"] if c["verdict"] == "gap"]
    assert sorted(gaps) == sorted(i for r in missing for i in r["checks"])
    return gaps


def test_the_clinic_has_exactly_its_slips_as_origins(demo: None) -> None:
    found = result("Port Maren Clinic")
    slips = (*SLIPS, *MODAL_SLIPS, *ANALYSIS_SLIPS)
    assert sorted(found["origins"]) == sorted(
        c["id"] for c in found["checks"] if c["id"] in slips or c["id"].split(".Static")[0] in slips
    )
    assert len(found["origins"]) == len(slips) == 11
    assert gaps_of(found) == GAPS["Port Maren Clinic"]
    # both directions are brought up to a static base shear that is itself too low
    breached = ["T.X", "scaled_by_factor_used.X", "scaled_by_factor_used.Y", "target_mass_sum.Y"]
    assert [c["id"] for c in found["checks"] if c["verdict"] == "breaches"] == breached
    assert found["counts"]["question"] == 0


def test_the_upstream_slip_is_inherited_all_the_way_down(demo: None) -> None:
    checks = {c["id"]: c for c in result("Port Maren Clinic")["checks"]}
    for inherited in (
        "S_M1",
        "S_D1",
        "T_S",
        "C_s.X",
        "V.X",
        "F.X.L8.Static X",
        "V_story.X.L1.Static X",
        "M_story.X.L1.Static X",
    ):
        assert checks[inherited]["role"] == "inherited", inherited
        assert "F_v" in checks[inherited]["rests_on"], inherited


@pytest.mark.parametrize(
    ("title", "slips", "questions"),
    [
        (
            "Quillon Exchange",
            EXCHANGE_SLIPS,
            ["combination_load_combinations.directions"],
        ),
        # declared regular, and its own displacements are torsionally irregular: 90 % of the static shear will not do
        # in X
        ("Aldermouth Granary Lofts", GRANARY_SLIPS, ["fact_regular.X", "fact_regular.Y"]),
    ],
)
def test_the_other_reviews_have_exactly_their_slips(
    demo: None, title: str, slips: tuple[str, ...], questions: list[str]
) -> None:
    found = result(title)
    assert sorted(found["origins"]) == sorted(slips)
    assert gaps_of(found) == GAPS[title]
    assert [c["id"] for c in found["checks"] if c["verdict"] == "question"] == questions


@pytest.mark.parametrize("title", ["Port Maren Clinic", "Quillon Exchange", "Aldermouth Granary Lofts"])
def test_their_comparisons_lack_nothing(demo: None, title: str) -> None:
    found = across(Review.objects.get(title=title).read_brief())
    assert [e["needs"] for e in found["editions"]] == [[], [], []]
    assert len(found["shear_ratios"]) == 4


def test_nothing_of_the_library_deviates(demo: None) -> None:
    found = result("Sable Quay Library")
    # modes are open where there is no reference model, declarations are for the record; its brief has weights, no loads
    assert {(c["verdict"], c["kind"]) for c in found["checks"] if c["verdict"] != "agrees"} == {
        ("open", "mode"),
        ("note", "declared"),
        ("note", "drift_open"),
        ("note", "process"),
        ("note", "catalogue"),
        ("gap", "gap"),
    }
    assert gaps_of(found) == GAPS["Sable Quay Library"]
    assert all(c["follows"] for c in found["checks"])
    assert {c["stage"] for c in found["checks"]} >= {"weight", "modes", "lateral", "scaling", "twist", "drift"}


def test_the_files_are_those_that_the_script_makes(db: None) -> None:
    for name, table in tables().items():
        kept, made = (read_file(data, name)[0].rows for data in ((FILES / name).read_bytes(), file_bytes(name, table)))
        assert kept == made, name


def test_seeding_again_changes_nothing(demo: None) -> None:
    before = list(Review.objects.values_list("pk", flat=True))
    seed()
    assert list(Review.objects.values_list("pk", flat=True)) == before


def test_every_value_of_the_clinic_counts_and_what_is_not_rechecked_has_a_reason(demo: None) -> None:
    coverage = result("Port Maren Clinic")["coverage"]
    # five modes with X, Y and rotation at eight floors
    assert (coverage["claims"], len(coverage["not_rechecked"])) == (515, 5 * 8 * 3)
    assert coverage["rechecked"] == 515 - 120
    assert {n["why"].split(" and ")[0] for n in coverage["not_rechecked"]} == {
        "mode shapes match the modes with those of the reference model"
    }
    # the exchange has no reference model
    reasons = {n["why"] for n in result("Quillon Exchange")["coverage"]["not_rechecked"]}
    assert "the reference model has not been analysed" in reasons
    assert not any(why.startswith("mode shapes match") for why in reasons)
