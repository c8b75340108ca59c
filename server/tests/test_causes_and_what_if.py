"""Causes, what-if and sensitivity of a review: nothing of it changes what is stored."""

from __future__ import annotations

from typing import Any

from conftest import Api
from plumb_server.rechecks.models import Recheck
from plumb_server.reviews.models import BriefRevision, Review


def path(review: Review, part: str) -> str:
    return f"/api/reviews/{review.pk}/{part}/"


def test_the_causes_of_the_clinic_explain_nearly_all_that_deviates(lead: Api, clinic: Review) -> None:
    found = lead.get(path(clinic, "causes")).json()
    codes = {c["slips"][0]["code"] for c in found["causes"]}
    assert codes >= {"S07", "S11", "S28", "S54", "S57", "S58"}
    recheck = lead.get(path(clinic, "recheck")).json()
    deviating = [c["id"] for c in recheck["checks"] if c["role"] and c["verdict"] in ("differs", "breaches")]
    assert found["deviating"] == len(deviating)
    assert 0.95 * found["deviating"] <= found["explained"] < found["deviating"] + 1
    assert all(set(c["explains"]) <= {c["id"] for c in recheck["checks"]} for c in found["causes"])


def test_causes_are_found_once_and_a_recheck_does_not_wait_for_them(lead: Api, clinic: Review) -> None:
    lead.get(path(clinic, "recheck"))
    assert Recheck.objects.filter(review=clinic, causes_gz__isnull=False).count() == 0
    first = lead.get(path(clinic, "causes"))
    assert Recheck.objects.filter(review=clinic, causes_gz__isnull=False).count() == 1
    assert lead.get(path(clinic, "causes")).content == first.content


def test_what_if_changes_nothing_that_is_stored(lead: Api, clinic: Review) -> None:
    before = lead.get(path(clinic, "recheck")).json()
    revisions = BriefRevision.objects.filter(review=clinic).count()
    patch = {"site": {"site_class": "C"}}
    answer = lead.send("POST", path(clinic, "what-if"), {"patch": patch}).json()
    assert {f["check"]: (f["from"], f["to"]) for f in answer["flips"]}["site_class"] == ("agrees", "differs")
    assert answer["before"]["differs"] == before["counts"]["differs"]
    assert answer["sheet"]["counts"] != before["counts"]
    assert lead.get(path(clinic, "recheck")).json() == before
    assert BriefRevision.objects.filter(review=clinic).count() == revisions


def test_their_value_in_place_of_ours_and_ours_in_place_of_theirs(lead: Api, clinic: Review) -> None:
    for side in ("theirs", "ours"):
        answer = lead.send("POST", path(clinic, "what-if"), {side: ["F_v"]}).json()
        verdicts = {c["id"]: c["verdict"] for c in answer["sheet"]["checks"]}
        assert verdicts["F_v"] == "agrees", side
        flipped = {f["check"]: f["to"] for f in answer["flips"]}
        # what follows from their coefficient agrees once it is ours as well
        if side == "theirs":
            assert flipped["S_M1"] == "agrees"


def test_a_patch_that_cannot_be_is_refused_at_its_field(lead: Api, clinic: Review) -> None:
    refused = lead.send("POST", path(clinic, "what-if"), {"patch": {"site": {"site_class": "Q"}}})
    assert refused.status_code == 422
    assert "site_class" in refused.content.decode()


def test_sensitivity_is_sorted_by_effect(lead: Api, clinic: Review) -> None:
    found: list[dict[str, Any]] = lead.get(path(clinic, "sensitivity")).json()
    effects = [max(abs(v["change"]) for v in s["values"]) for s in found]
    assert effects == sorted(effects, reverse=True)
    assert {s["input"] for s in found} >= {"Site class", "Hazard", "Risk category"}
    # 10 % more of S_S and S_1 is at most 10 % more force
    (more,) = [s for s in found if (s["input"], s["after"]) == ("Hazard", "+10 %")]
    assert 0 < max(v["change"] for v in more["values"]) <= 0.1 + 1e-9


def test_headless_recheck_has_its_causes(lead: Api, clinic: Review) -> None:
    claims = [{"quantity": "F_v", "value": 1.68, "text": "1.68"}]
    document = {
        "format": "plumb-recheck",
        "version": 1,
        "brief": clinic.current_brief().document,
        "submission": {"label": "S0", "claims": claims},
    }
    answer = lead.send("POST", "/api/recheck/", document).json()
    assert answer["origins"] == ["F_v"]
    assert [(c["slips"][0]["code"], c["explains"]) for c in answer["causes"]] == [("S11", ["F_v"])]
    assert {"requirements", "coverage"} <= answer.keys()
