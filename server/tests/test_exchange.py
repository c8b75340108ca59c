"""Reviews out and in again: what comes from elsewhere is rechecked, and marked where the recheck says otherwise."""

from __future__ import annotations

import copy
import json
from typing import Any

import pytest
from asking import STORIES, Api
from plumb_server.findings.models import Finding
from plumb_server.reports.services import page
from plumb_server.reviews.models import Review
from plumb_server.submissions.models import ClaimTable, Exhibit

pytestmark = pytest.mark.django_db


_exported: list[bytes] = []


@pytest.fixture
def exported(lead: Api, clinic: Review) -> dict[str, Any]:
    """The clinic's export; each test gets one of its own to change."""
    if not _exported:
        _exported.append(lead.get(f"/api/reviews/{clinic.pk}/export/").content)
    document: dict[str, Any] = json.loads(_exported[0])
    return document


def taken_in(lead: Api, document: Any) -> Review:
    answer = lead.send("POST", "/api/reviews/import/", document)
    assert answer.status_code == 201, answer.content
    return Review.objects.get(pk=answer.json()["id"])


def test_an_export_tells_people_dates_and_what_was_done(exported: dict[str, Any], clinic: Review) -> None:
    about = exported["review"]
    assert {(p["name"], p["role"]) for p in about["team"]} >= {("Ilse Varga", "lead"), ("Mira Oduya", "submitter")}
    assert [e["action"] for e in about["audit"]] == list(clinic.audit.order_by("id").values_list("action", flat=True))
    assert (about["findings"][0]["author"], about["exported_by"]) == ("Jonas Reed", "Ilse Varga")


CASES = "Load case\tKind\tDirection\tEccentricity\nEX\tstatic\tX\t0.05\nEY\tstatic\tY\t0\n"


def test_a_table_of_load_cases_comes_with_an_export(lead: Api, new_review: str) -> None:
    """It holds no values, and the roles of the cases rest on it."""
    path = f"/api/reviews/{new_review}/"
    assert lead.send("POST", path + "tables/", {"text": STORIES}).status_code == 201
    made = lead.send("POST", path + "tables/", {"text": CASES, "kind": "cases"})
    assert made.status_code == 201, made.content
    document = lead.get(path + "export/").json()
    assert [t["kind"] for t in document["review"]["tables"]] == ["stories", "cases"]
    again = taken_in(lead, document)
    submission = again.submissions.get()
    tables = ClaimTable.objects.filter(exhibit__submission=submission).order_by("pk")
    assert sorted((t.kind, t.count) for t in tables) == [("cases", 0), ("stories", 4)]
    assert [(c.name, c.kind, c.eccentricity) for c in submission.cases.all()] == [
        ("EX", "static", 0.05),
        ("EY", "static", 0.0),
    ]
    once_more = lead.get(f"/api/reviews/{again.pk}/export/").json()
    assert sorted(t["kind"] for t in once_more["review"]["tables"]) == ["cases", "stories"]


def test_an_honest_finding_is_told_to_say_what_the_recheck_says(lead: Api, exported: dict[str, Any]) -> None:
    review = taken_in(lead, exported)
    finding = review.findings.get()
    assert (finding.origin["author"], finding.origin["differs"], finding.origin["unknown"]) == ("Jonas Reed", [], [])
    assert review.origin["exported_by"] == "Ilse Varga"
    assert "The recheck here gives the same values." in page(review)


def test_forged_evidence_is_replaced_by_the_rechecks_and_marked(lead: Api, exported: dict[str, Any]) -> None:
    evidence = exported["review"]["findings"][0]["evidence"]
    evidence[0]["independent"]["value"] = 9.99
    evidence[0]["derivation"][0]["tex"] = r"\frac{"
    review = taken_in(lead, exported)
    finding = review.findings.get()
    assert finding.origin["differs"] == ["F_v"]
    assert finding.evidence[0]["independent"]["value"] == pytest.approx(1.94)
    html = page(review)
    assert "differs from the recheck here" in html
    assert "9.99" not in html


@pytest.mark.parametrize(
    "evidence",
    [[{}], [{"id": 7}], [{"id": "F_v"}], [{"id": "no_such_check", "label": "x"}], [{"id": "F_v", "theirs": "much"}]],
)
def test_evidence_that_is_none_is_marked_and_breaks_nothing(
    evidence: list[Any], lead: Api, exported: dict[str, Any]
) -> None:
    exported["review"]["findings"][0]["evidence"] = evidence
    review = taken_in(lead, exported)
    finding = review.findings.get()
    assert finding.origin["differs"] or finding.origin["unknown"]
    assert lead.get(f"/api/reviews/{review.pk}/findings/").status_code == 200
    assert lead.get(f"/api/reviews/{review.pk}/report/preview/").status_code == 200


BROKEN: list[tuple[str, Any]] = [
    ("review", 7),
    ("review", []),
    ("review/title", None),
    ("review/title", ""),
    ("review/title", "x" * 1000),
    ("review/findings", {}),
    ("review/findings", [7]),
    ("review/findings/0/number", -1),
    ("review/findings/0/number", 10**12),
    ("review/findings/0/number", "1"),
    ("review/findings/0/severity", "dire"),
    ("review/findings/0/status", "lost"),
    ("review/findings/0/title", "x" * 500),
    ("review/findings/0/checks", "F_v"),
    ("review/findings/0/checks", [{}]),
    ("review/findings/0/evidence", "none"),
    ("review/findings/0/thread", ["x"]),
    ("review/findings/0/thread", [{"author": {}, "at": "x", "text": 7}]),
    ("review/tables", "x"),
    ("review/tables", [{"sha256": "x"}]),
    ("review/team", [7]),
    ("review/audit", [{"at": "yesterday", "action": "x"}]),
    ("submission/exhibits", [7]),
    ("submission/exhibits/0/content", 7),
    ("submission/exhibits/0/sha256", "x"),
    ("submission/exhibits/0/name", ""),
    ("submission/claims/0/point", 10**12),
    ("submission/claims/0/source", {"row": -1}),
    ("submission/claims/0/source", {"row": 10**12}),
    ("submission/claims/0/unit", "x" * 100),
    ("submission/claims/0/case", "x" * 100),
    ("submission/claims/0/scale", 0.0),
    ("submission/cases", [7]),
    ("model", 7),
    ("model", {"use": "both"}),
    ("brief", []),
    ("brief/stories", [{"name": "L1"}]),
    ("version", 2),
]


@pytest.mark.parametrize(("place", "value"), BROKEN, ids=[f"{p} = {str(v)[:12]}" for p, v in BROKEN])
def test_what_cannot_be_so_is_refused_with_its_place_and_nothing_is_kept(
    place: str, value: Any, lead: Api, exported: dict[str, Any]
) -> None:
    *parts, last = [int(p) if p.isdigit() else p for p in place.split("/")]
    at: Any = exported
    for part in parts:
        at = at[part]
    at[last] = value
    before = Review.objects.count(), Exhibit.objects.count(), Finding.objects.count()
    answer = lead.send("POST", "/api/reviews/import/", exported)
    assert answer.status_code == 422, answer.content[:300]
    assert answer.json()["errors"][0]["path"].startswith("/" + place.split("/")[0])
    assert (Review.objects.count(), Exhibit.objects.count(), Finding.objects.count()) == before


def test_two_findings_of_one_number_are_refused(lead: Api, exported: dict[str, Any]) -> None:
    findings = exported["review"]["findings"]
    findings.append(copy.deepcopy(findings[0]))
    assert lead.send("POST", "/api/reviews/import/", exported).status_code == 422


def test_how_a_table_was_read_is_taken_over_only_where_it_can_be(lead: Api, exported: dict[str, Any]) -> None:
    for table in exported["review"]["tables"]:
        table["reading"] = {"spell": "cast", "columns": "all"}
    review = taken_in(lead, exported)
    body = {"text": "Story\tHeight (m)\nL1\t4\n"}
    assert lead.send("POST", f"/api/reviews/{review.pk}/tables/read/", body).status_code == 200


def test_an_export_never_grows_larger_than_what_is_taken_in(lead: Api, clinic: Review, settings: Any) -> None:
    """The largest files are excluded, by name; the values of their tables are there all the same."""
    sizes = sorted(clinic.submissions.get().exhibits.values_list("size", flat=True))
    settings.MAX_IMPORT = 2 * (sum(sizes[:-1]) * 4 // 3 + len(sizes))
    exported = json.loads(lead.get(f"/api/reviews/{clinic.pk}/export/").content)
    left = [e["name"] for e in exported["submission"]["exhibits"] if e["content"] is None]
    assert len(left) == 1
    settings.MAX_IMPORT = 120_000_000
    review = taken_in(lead, exported)
    assert review.submissions.get().claims.count() == clinic.submissions.get().claims.count()
    assert left[0] in [e.name for e in review.submissions.get().exhibits.all()]
