"""Causes, what-if and sensitivity of a review: nothing of it changes what is stored."""

from __future__ import annotations

from typing import Any

import pytest
from conftest import Api
from plumb_server.rechecks import searches, tasks
from plumb_server.rechecks.models import CauseSearch, Recheck
from plumb_server.reviews.models import BriefRevision, Review
from procrastinate.contrib.django.models import ProcrastinateJob


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


def waiting(lead: Api, clinic: Review, monkeypatch: pytest.MonkeyPatch, settings: Any) -> CauseSearch:
    """A search of a recheck that counts as large, in the queue."""
    settings.JOBS_AT_ONCE = False
    monkeypatch.setattr(searches, "AT_ONCE", 10)
    answer = lead.get(path(clinic, "causes"))
    assert (answer.status_code, answer.json()) == (202, {"status": "queued", "share": 0.0})
    return CauseSearch.objects.get(recheck__review=clinic)


def test_a_large_search_is_a_job(lead: Api, clinic: Review, monkeypatch: pytest.MonkeyPatch, settings: Any) -> None:
    search = waiting(lead, clinic, monkeypatch, settings)
    shares = []
    monkeypatch.setattr(searches, "PROGRESS_INTERVAL", 0.0)
    noted = searches._note
    monkeypatch.setattr(searches, "_note", lambda s, **v: shares.append(v.get("share")) or noted(s, **v))
    # another request for the same asks for no second job
    lead.get(path(clinic, "causes"))
    assert ProcrastinateJob.objects.filter(task_name="find_causes").count() == 1
    tasks.find_causes(str(search.pk))
    given = [s for s in shares if s is not None]
    assert given == sorted(given)
    assert len(given) > 5
    found = lead.get(path(clinic, "causes"))
    assert found.status_code == 200
    assert len(found.json()["causes"]) == 10


def test_a_search_is_stopped_in_the_middle_and_begun_anew(
    lead: Api, clinic: Review, monkeypatch: pytest.MonkeyPatch, settings: Any
) -> None:
    search = waiting(lead, clinic, monkeypatch, settings)
    monkeypatch.setattr(searches, "PROGRESS_INTERVAL", 0.0)
    noted = searches._note

    def stopped_meanwhile(s: CauseSearch, **values: Any) -> bool:
        if values.get("share", 0.0) > 0.3:
            assert lead.send("DELETE", path(clinic, "causes")).json()["status"] == "stopped"
        return noted(s, **values)

    monkeypatch.setattr(searches, "_note", stopped_meanwhile)
    tasks.find_causes(str(search.pk))
    assert Recheck.objects.filter(review=clinic, causes_gz__isnull=False).count() == 0
    answer = lead.get(path(clinic, "causes"))
    assert (answer.status_code, answer.json()["status"]) == (202, "stopped")
    assert 0.0 < answer.json()["share"] <= 0.35
    monkeypatch.setattr(searches, "_note", noted)
    assert lead.send("POST", path(clinic, "causes")).json() == {"status": "queued", "share": 0.0}
    tasks.find_causes(str(search.pk))
    assert lead.get(path(clinic, "causes")).status_code == 200


def test_a_search_of_a_review_that_is_another_by_then_finds_nothing(
    lead: Api, clinic: Review, monkeypatch: pytest.MonkeyPatch, settings: Any
) -> None:
    search = waiting(lead, clinic, monkeypatch, settings)
    current = clinic.current_brief()
    changed = current.document | {"tolerance": 0.02}
    lead.send("PUT", path(clinic, "brief"), {"brief": changed, "based_on": current.number})
    tasks.find_causes(str(search.pk))
    search.refresh_from_db()
    assert search.status == CauseSearch.Status.STOPPED
    assert search.recheck.causes_gz is None


def test_a_search_that_ends_its_worker_is_not_begun_for_ever(
    lead: Api, clinic: Review, monkeypatch: pytest.MonkeyPatch, settings: Any
) -> None:
    search = waiting(lead, clinic, monkeypatch, settings)
    CauseSearch.objects.update(attempts=3, status=CauseSearch.Status.RUNNING)
    tasks.find_causes(str(search.pk))
    assert lead.get(path(clinic, "causes")).json()["status"] == "failed"


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
