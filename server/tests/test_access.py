"""Who sees and does what.  To strangers a review does not exist."""

from __future__ import annotations

from typing import Any

import pytest
from asking import Api
from plumb_server.findings.models import Finding
from plumb_server.reviews.models import Review
from plumb_server.submissions.models import Exhibit, Submission

pytestmark = pytest.mark.django_db

READS = ["", "recheck/", "export/", "audit/", "findings/", "reports/", "report/preview/"]
SEEN_BY: dict[str, set[str]] = {
    "lead": set(READS),
    "reviewer": set(READS),
    "submitter": {"", "findings/"},
    "reader": {"", "findings/", "reports/"},
    "stranger": set(),
}


@pytest.mark.parametrize("role", SEEN_BY)
def test_what_each_role_can_read(role: str, clinic: Review, request: Any) -> None:
    client: Api = request.getfixturevalue(role)
    for path in READS:
        answer = client.get(f"/api/reviews/{clinic.pk}/{path}")
        assert answer.status_code == (200 if path in SEEN_BY[role] else 404), path


WRITES: list[tuple[str, str, Any]] = [
    ("PUT", "brief/", {"brief": {"edition": "asce7-16"}, "based_on": 99}),
    ("POST", "brief/undo/", {"based_on": 99}),
    ("PATCH", "", {"place": "Elsewhere"}),
    ("POST", "tables/read/", {"text": "a\tb\n1\t2"}),
    ("POST", "tables/", {"text": "a\tb\n1\t2"}),
    ("POST", "findings/", {"title": "t", "text": "x", "checks": []}),
]


@pytest.mark.parametrize("role", ["submitter", "reader", "stranger"])
@pytest.mark.parametrize(("method", "path", "body"), WRITES, ids=[f"{m} {p}" for m, p, _ in WRITES])
def test_only_the_team_changes_things(
    role: str, method: str, path: str, body: Any, clinic: Review, request: Any
) -> None:
    client: Api = request.getfixturevalue(role)
    assert client.send(method, f"/api/reviews/{clinic.pk}/{path}", body).status_code == 404


@pytest.mark.parametrize(("method", "path", "body"), WRITES, ids=[f"{m} {p}" for m, p, _ in WRITES])
def test_the_team_does(method: str, path: str, body: Any, clinic: Review, reviewer: Api) -> None:
    # refused for its contents at most, not for who asks
    assert reviewer.send(method, f"/api/reviews/{clinic.pk}/{path}", body, 1).status_code in (200, 201, 409, 412, 422)


LEADS_ONLY: list[tuple[str, str, Any]] = [
    ("POST", "team/", {"email": "avel.tran@northlight.example", "role": "reader"}),
    ("PATCH", "", {"status": "closed"}),
]


@pytest.mark.parametrize(("method", "path", "body"), LEADS_ONLY, ids=[f"{m} {p}" for m, p, _ in LEADS_ONLY])
def test_what_only_a_lead_does(
    method: str, path: str, body: Any, clinic: Review, reviewer: Api, reader: Api, lead: Api
) -> None:
    address = f"/api/reviews/{clinic.pk}/{path}"
    assert reviewer.send(method, address, body, 1).status_code == 403
    assert reader.send(method, address, body, 1).status_code == 404
    assert lead.send(method, address, body, 1).status_code in (200, 201, 202)


def test_signed_out_nothing_is_to_be_had(clinic: Review) -> None:
    for path in READS:
        assert Api().get(f"/api/reviews/{clinic.pk}/{path}").status_code == 403


def test_strangers_see_no_review_in_their_list(stranger: Api, lead: Api, clinic: Review) -> None:
    assert stranger.get("/api/reviews/").json() == []
    assert clinic.title in [r["title"] for r in lead.get("/api/reviews/").json()]


def test_things_of_a_review_can_not_be_reached_by_their_own_number(stranger: Api, reader: Api, clinic: Review) -> None:
    exhibit = Exhibit.objects.filter(submission__review=clinic).first()
    submission = Submission.objects.get(review=clinic)
    finding = Finding.objects.get(review=clinic)
    assert exhibit is not None
    for client in (stranger, reader):
        assert client.get(f"/api/exhibits/{exhibit.pk}/file/").status_code == 404
        assert client.send("POST", f"/api/submissions/{submission.pk}/accept/").status_code == 404
        assert client.send("PATCH", f"/api/findings/{finding.pk}/", {"text": "x"}).status_code == 404
    assert stranger.send("POST", f"/api/findings/{finding.pk}/messages/", {"text": "x"}).status_code == 404


def test_a_submitter_sees_neither_brief_nor_drafts(submitter: Api, lead: Api, clinic: Review) -> None:
    review = submitter.get(f"/api/reviews/{clinic.pk}/").json()
    assert review["brief"] == {"edition": "asce7-16"}
    finding = {"title": "Draft", "text": "not yet", "severity": "note", "checks": ["V.Y"]}
    assert lead.send("POST", f"/api/reviews/{clinic.pk}/findings/", finding).status_code == 201
    assert [f["number"] for f in submitter.get(f"/api/reviews/{clinic.pk}/findings/").json()] == [1]
    assert len(lead.get(f"/api/reviews/{clinic.pk}/findings/").json()) == 2


def test_a_submitter_hands_in_the_next_submission(submitter: Api, clinic: Review) -> None:
    from django.core.files.base import ContentFile

    file = ContentFile(b"Story,Height (m)\nL1,4\n", name="S1-stories.csv")
    answer = submitter.upload(f"/api/reviews/{clinic.pk}/exhibits/", file)
    assert answer.status_code == 201
    assert [s.label for s in clinic.submissions.all()] == ["S1", "S0"]


def test_a_report_is_issued_by_the_lead_alone(clinic: Review, reviewer: Api, reader: Api, lead: Api) -> None:
    address = f"/api/reviews/{clinic.pk}/reports/"
    assert reviewer.send("POST", address).status_code == 403
    assert reader.send("POST", address).status_code == 404
    assert lead.sign(clinic.pk).status_code == 202


def test_the_headless_contract_needs_a_session(demo: None, reader: Api) -> None:
    request = {
        "kind": "ground",
        "edition": "asce7-16",
        "occupancy": {"risk_category": "II"},
        "site": {"S_S": 1.5, "S_1": 0.6, "site_class": "B", "velocity_measured": False},
    }
    assert Api().send("POST", "/api/solve/", request).status_code == 403
    result = reader.send("POST", "/api/solve/", request)
    assert result.json()["S_DS"] == pytest.approx(1.0)
    refused = reader.send("POST", "/api/solve/", request | {"site": {"S_S": -1.0}})
    assert refused.status_code == 422
    assert "/site/S_S" in [e["path"] for e in refused.json()["errors"]]
