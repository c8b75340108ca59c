"""Limits of requests, uploads and storage, and the cost of frequent requests."""

from __future__ import annotations

import base64
import gzip
import io
import json
import re
import time
import zipfile
from typing import Any

import openpyxl
import pytest
from asking import PARAMETERS, STORIES, Api
from django.core.cache import cache
from django.core.files.base import ContentFile
from django.db import connection
from django.test.utils import CaptureQueriesContext
from plumb_server.rechecks.models import Recheck
from plumb_server.reference import runs
from plumb_server.reference import services as tables
from plumb_server.reference.tasks import carry_out_run
from plumb_server.reviews.models import Review
from plumb_server.submissions.models import Exhibit, ExhibitReading
from plumb_server.web.limits import ComputeThrottle
from procrastinate.contrib.django.models import ProcrastinateJob

pytestmark = pytest.mark.django_db

STORIES_OF_LINES = [
    {"name": f"L{i}", "height": 3.0, "mass": 10.0, "inertia": 90.0, "centre": [0.0, 0.0]} for i in range(3)
]
LINES = {
    "kind": "modal",
    "stories": STORIES_OF_LINES,
    "lateral_lines": [
        {"story": i, "at": at, "angle": angle, "stiffness": 1e4}
        for i in range(3)
        for at, angle in (([0.0, 3.0], 0.0), ([0.0, -3.0], 0.0), ([3.0, 0.0], 90.0))
    ],
}


# computing


def test_a_model_too_large_for_a_request_is_solved_by_a_worker(
    lead: Api, reviewer: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    at_once = lead.send("POST", "/api/solve/", LINES)
    assert at_once.status_code == 200
    monkeypatch.setattr(runs, "AT_ONCE", 0)
    asked = lead.send("POST", "/api/solve/", LINES)
    assert (asked.status_code, asked.json()["status"]) == (202, "queued")
    path = f"/api/runs/{asked.json()['id']}/"
    assert reviewer.get(path).status_code == 404
    carry_out_run(asked.json()["id"])
    assert lead.get(path).json()["result"]["modes"] == at_once.json()["modes"]
    # asked again it is there
    again = lead.send("POST", "/api/solve/", LINES)
    assert (again.status_code, again.json()["modes"]) == (200, at_once.json()["modes"])


def storied(stories: int, lines: int, **more: Any) -> dict[str, Any]:
    """A request to a model of lateral lines: as it is sent, not read yet."""
    return {"kind": "modal", "stories": [{}] * stories, "lateral_lines": [{}] * lines, **more}


@pytest.mark.parametrize(
    ("request_", "at_once"),
    [
        # measured: 0.34 s, 2.0 s, 0.06 s, 0.14 s, 0.01 s
        (storied(300, 19_800, modes=30), False),
        (storied(300, 1_200), False),
        (storied(50, 200), True),
        (storied(300, 1_200, modes=30), True),
        (storied(10, 40), True),
        # 1 s and 0.02 s of a time history
        (storied(300, 1_200, kind="time_history", modes=12, record={"a": [0.0] * 4000}), False),
        (storied(5, 20, kind="time_history", record={"a": [0.0] * 4000}), True),
        ({"kind": "modal", "frame": {"nodes": [{}] * 400}}, True),
        ({"kind": "modal", "frame": {"nodes": [{}] * 4000}}, False),
        ({"kind": "spectrum", "edition": "asce7-16", "T": [0.1] * 4000}, True),
        ({"brief": {"stories": [{}] * 200}, "model": {"lateral_lines": [{}] * 4000}}, False),
        ({"brief": {"stories": [{}] * 8}, "model": {"lateral_lines": [{}] * 40}}, True),
        ({"brief": [], "model": {"analysis": 3, "records": "x", "frame": {"nodes": 7}}}, True),
    ],
)
def test_the_work_of_a_request_is_measured_before_it_is_begun(request_: dict[str, Any], at_once: bool) -> None:
    assert runs.too_large(request_) is not at_once


def test_a_recheck_of_a_large_model_is_a_run(lead: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    stories = [{"name": f"L{i}", "height": 3.5, "weight": 900.0} for i in range(3)]
    document = {
        "format": "plumb-recheck",
        "version": 1,
        "brief": {"edition": "asce7-16", "stories": stories},
        "model": {
            "lateral_lines": LINES["lateral_lines"],
            "floors": [{k: v for k, v in story.items() if k != "height"} for story in STORIES_OF_LINES],
        },
        "submission": {"label": "S0", "claims": [{"quantity": "T_mode", "point": 0, "value": 1.0, "text": "1.0"}]},
    }
    at_once = lead.send("POST", "/api/recheck/", document)
    assert at_once.status_code == 200, at_once.content
    monkeypatch.setattr(runs, "AT_ONCE", 0)
    asked = lead.send("POST", "/api/recheck/", document)
    assert (asked.status_code, asked.json()["kind"]) == (202, "recheck")
    carry_out_run(asked.json()["id"])
    again = lead.send("POST", "/api/recheck/", document)
    assert again.status_code == 200
    assert [c["id"] for c in again.json()["checks"]] == [c["id"] for c in at_once.json()["checks"]]
    assert again.json()["counts"] == at_once.json()["counts"]


def test_one_members_many_jobs_do_not_delay_anothers_first(
    lead: Api, reviewer: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(runs, "AT_ONCE", 0)
    of_lead = [lead.send("POST", "/api/solve/", LINES | {"modes": n}).json()["id"] for n in (1, 2, 3, 4)]
    of_reviewer = reviewer.send("POST", "/api/solve/", LINES).json()["id"]
    waiting = ProcrastinateJob.objects.filter(status="todo").order_by("-priority", "id")
    assert [job.args["run"] for job in waiting] == [of_lead[0], of_reviewer, *of_lead[1:]]


def test_a_workbook_that_unpacks_to_much_holds_no_request(
    lead: Api, new_review: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A sheet of 200,000 rows in a small file: read apart, and ended at its limit, however quick the machine is."""
    monkeypatch.setattr(tables, "READ_SECONDS", 1)
    small, made = io.BytesIO(), io.BytesIO()
    book = openpyxl.Workbook()
    book.active.append([1.0] * 12)
    book.save(small)
    # its one row many times over, which the library would take long to write
    with zipfile.ZipFile(small) as packed, zipfile.ZipFile(made, "w", zipfile.ZIP_DEFLATED) as large:
        for name in packed.namelist():
            part = packed.read(name)
            row = re.search(rb"<row .*</row>", part) if name == "xl/worksheets/sheet1.xml" else None
            if row is not None:
                # without their places the rows follow each other
                part = part.replace(row[0], re.sub(rb' (r|spans)="[^"]*"', b"", row[0]) * 200_000)
            large.writestr(name, part)
    body = {"name": "nodes.xlsx", "sheet": "", "kind": "nodes", "content": base64.b64encode(made.getvalue()).decode()}
    begun = time.monotonic()
    answer = lead.send("POST", f"/api/reviews/{new_review}/model/table/", body)
    assert answer.status_code == 422, answer.content
    assert time.monotonic() - begun < 15


def test_what_is_too_large_and_wrong_is_refused_before_it_waits(lead: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(runs, "AT_ONCE", 0)
    refused = lead.send("POST", "/api/solve/", LINES | {"modes": -1})
    assert (refused.status_code, refused.json()["errors"][0]["path"]) == (422, "/modes")


def test_a_recheck_of_more_claims_than_a_request_takes_is_refused(lead: Api) -> None:
    claims = [{"quantity": "V", "direction": "X", "value": 1.0, "case": str(i)} for i in range(20_001)]
    document = {"brief": {"edition": "asce7-16"}, "submission": {"claims": claims}}
    answer = lead.send("POST", "/api/recheck/", document)
    assert (answer.status_code, answer.json()["errors"][0]["path"]) == (413, "/submission/claims")


def test_a_person_computes_so_much_a_minute(lead: Api, reviewer: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    cache.clear()
    monkeypatch.setattr(ComputeThrottle, "get_rate", lambda self: "3/min")
    assert [lead.send("POST", "/api/solve/", LINES).status_code for _ in range(4)] == [200, 200, 200, 429]
    assert reviewer.send("POST", "/api/solve/", LINES).status_code == 200
    cache.clear()


# submitting


def hands_in(person: Api, review: Any, name: str, data: bytes = b"Story,Height (m)\nL1,4\n") -> Any:
    return person.upload(f"/api/reviews/{review}/exhibits/", ContentFile(data, name=name))


def test_a_review_takes_so_many_bytes(lead: Api, new_review: str, settings: Any) -> None:
    settings.MAX_REVIEW_BYTES = 60
    assert hands_in(lead, new_review, "a.csv", b"a,b\n" + b"1" * 40).status_code == 201
    refused = hands_in(lead, new_review, "b.csv", b"a,b\n" + b"2" * 40)
    assert refused.status_code == 413
    assert "of this review" in refused.json()["errors"][0]["message"]
    assert Exhibit.objects.filter(submission__review=new_review).count() == 1


def test_a_member_hands_in_so_much_a_day_and_others_go_on(
    lead: Api, reviewer: Api, submitter: Api, clinic: Review, settings: Any
) -> None:
    handed = sum(Exhibit.objects.filter(author__email="mira.oduya@calder-finch.example").values_list("size", flat=True))
    settings.MAX_MEMBER_BYTES_A_DAY = handed + 30
    assert hands_in(submitter, clinic.pk, "a.csv").status_code == 201
    refused = hands_in(submitter, clinic.pk, "b.csv", b"Story,Height (m)\nL1,5\n")
    assert refused.status_code == 413
    assert "within a day" in refused.json()["errors"][0]["message"]
    assert hands_in(reviewer, clinic.pk, "c.csv", b"Story,Height (m)\nL1,6\n").status_code == 201


def test_a_submission_takes_so_many_files(lead: Api, new_review: str, settings: Any) -> None:
    settings.MAX_EXHIBITS = 2
    codes = [hands_in(lead, new_review, f"{i}.csv", f"a,b\n1,{i}\n".encode()).status_code for i in range(3)]
    assert codes == [201, 201, 413]


def test_a_members_files_wait_in_a_line_of_bounded_length(lead: Api, new_review: str, settings: Any) -> None:
    settings.MAX_WAITING_READINGS = 1
    exhibit = hands_in(lead, new_review, "a.csv").json()["id"]
    ExhibitReading.objects.filter(exhibit=exhibit).update(status="queued")
    waits = hands_in(lead, new_review, "b.csv", b"a,b\n1,2\n")
    assert (waits.status_code, waits["Retry-After"]) == (429, "30")
    ExhibitReading.objects.filter(exhibit=exhibit).update(status="read")
    assert hands_in(lead, new_review, "b.csv", b"a,b\n1,2\n").status_code == 201


# frequent requests


def test_the_list_of_reviews_takes_as_many_queries_for_many_as_for_one(lead: Api, clinic: Review) -> None:
    def queries() -> int:
        with CaptureQueriesContext(connection) as captured:
            assert lead.get("/api/reviews/").status_code == 200
        return len(captured)

    lead.get("/api/reviews/")
    few = queries()
    for i in range(12):
        lead.send("POST", "/api/reviews/", {"title": f"R{i}", "brief": {"edition": "asce7-16"}})
    # the session, the person, the list, its length
    assert queries() == few <= 5


def test_the_list_is_told_in_pages_and_searched(lead: Api, clinic: Review) -> None:
    everything = lead.get("/api/reviews/")
    assert int(everything["X-Total"]) == len(everything.json()) == 4
    page = lead.get("/api/reviews/?limit=2&offset=1")
    assert [r["id"] for r in page.json()] == [r["id"] for r in everything.json()[1:3]]
    found = lead.get("/api/reviews/?words=maren")
    assert ([r["title"] for r in found.json()], found["X-Total"]) == (["Port Maren Clinic"], "1")


def test_what_a_member_sees_open_in_the_list_is_what_the_register_shows(
    lead: Api, submitter: Api, reader: Api, clinic: Review
) -> None:
    lead.send(
        "POST", f"/api/reviews/{clinic.pk}/findings/", {"title": "T", "text": "x", "severity": "note", "checks": []}
    )
    for person, expected in ((lead, 2), (submitter, 1), (reader, 1)):
        (listed,) = [r for r in person.get("/api/reviews/").json() if r["title"] == clinic.title]
        assert (listed["open_findings"], listed["submission"]) == (expected, "S0")


def test_what_never_changes_is_sent_once(lead: Api) -> None:
    for path in ("/api/editions/", "/api/vocabulary/"):
        first = lead.get(path, headers={"Accept-Encoding": "gzip"})
        assert json.loads(gzip.decompress(first.content))
        assert lead.get(path, headers={"If-None-Match": first["ETag"]}).status_code == 304


def test_a_stored_sheet_that_is_known_is_not_even_read(lead: Api, clinic: Review) -> None:
    path = f"/api/reviews/{clinic.pk}/recheck/"
    tag = lead.get(path)["ETag"]
    with CaptureQueriesContext(connection) as captured:
        assert lead.get(path, headers={"If-None-Match": tag}).status_code == 304
    asked = " ".join(q["sql"] for q in captured.captured_queries)
    assert "sheet_gz" not in asked
    assert '"document"' not in asked


def test_rechecks_that_nobody_asks_for_any_more_are_dropped(lead: Api, clinic: Review, monkeypatch: Any) -> None:
    from plumb_server.rechecks import services

    monkeypatch.setattr(services, "RETAINED", 2)
    monkeypatch.setattr(services, "PRUNED_AT_ONCE", 0)
    lead.sign(clinic.pk)
    signed = clinic.reports.get().input_hash
    path = f"/api/reviews/{clinic.pk}/brief/"
    told = lead.get(f"/api/reviews/{clinic.pk}/").json()
    for i in range(5):
        told["brief"]["site"]["S_S"] = 1.3 + 0.01 * i
        lead.send("PUT", path, {"brief": told["brief"], "based_on": 1 + i})
    assert clinic.rechecks.filter(input_hash=signed).exists()
    assert clinic.rechecks.count() <= 4
    # What was dropped is computed again
    assert lead.get(f"/api/reviews/{clinic.pk}/recheck/").status_code == 200


def test_nothing_is_computed_while_a_review_is_locked(lead: Api, new_review: str, monkeypatch: Any) -> None:
    """The recheck after a change of the brief, the evidence of a finding and the reading of a table come outside."""
    from plumb_server.findings import services as findings
    from plumb_server.rechecks import services as rechecks
    from plumb_server.submissions import services as submissions

    held: set[str] = set()
    locked = Review.locked

    def note(review: Review) -> Review:
        # the row is locked until the outermost transaction of the change ends
        held.add(connection.savepoint_ids[depth])
        return locked(review)

    def outside(act: Any) -> Any:
        def run(*args: Any, **kwargs: Any) -> Any:
            assert not held & {*connection.savepoint_ids}
            return act(*args, **kwargs)

        return run

    depth = len(connection.savepoint_ids)
    monkeypatch.setattr(Review, "locked", note)
    monkeypatch.setattr(rechecks, "core_recheck", outside(rechecks.core_recheck))
    monkeypatch.setattr(submissions, "read_in", outside(submissions.read_in))
    monkeypatch.setattr(findings, "run_recheck", outside(findings.run_recheck))
    base = f"/api/reviews/{new_review}/"
    assert lead.send("POST", base + "tables/", {"text": STORIES}).status_code == 201
    assert lead.send("POST", base + "tables/", {"text": PARAMETERS}).status_code == 201
    brief = {"edition": "asce7-16", "site": {"S_S": 1.0}}
    assert lead.send("PUT", base + "brief/", {"brief": brief, "based_on": 1}).status_code == 200
    body = {"title": "t", "text": "x", "severity": "note", "checks": []}
    assert lead.send("POST", base + "findings/", body).status_code == 201
    assert held
    assert Recheck.objects.filter(review=new_review).exists()


def test_the_name_of_a_file_is_refused_where_it_is_too_long(lead: Api, new_review: str) -> None:
    file = ContentFile(b"Story,Height (m)\nL1,4\n", name="a" * 240 + ".csv")
    answer = lead.upload(f"/api/reviews/{new_review}/exhibits/", file)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["message"] == "the name of the file has 244 characters; the limit is 200"


HUGE = [2**63, -(2**63) - 1, 2**70, 10**400]


@pytest.mark.parametrize("number", HUGE)
def test_a_number_that_cannot_be_kept_is_refused_wherever_it_is(number: int, lead: Api, clinic: Review) -> None:
    brief = clinic.current_brief().document
    stories = [{**brief["stories"][0], "weight": number}, *brief["stories"][1:]]
    based_on = clinic.current_brief().number
    bodies = {
        ("PUT", f"/api/reviews/{clinic.pk}/brief/"): {"brief": {**brief, "stories": stories}, "based_on": based_on},
        ("POST", f"/api/reviews/{clinic.pk}/what-if/"): {"patch": {"stories": stories}},
        ("POST", "/api/solve/"): {"kind": "static", "stories": stories},
        ("POST", "/api/recheck/"): {"brief": {"stories": stories}},
        ("POST", f"/api/reviews/{clinic.pk}/tables/"): {"text": "x", "options": {"header_row": number}},
    }
    for (method, path), body in bodies.items():
        refused = lead.send(method, path, body)
        assert refused.status_code == 400, path
        assert "64 bits" in refused.content.decode(), path
    assert lead.get(f"/api/reviews/{clinic.pk}/").status_code == 200


def test_a_number_beyond_all_is_refused_too(lead: Api) -> None:
    headers = {"X-CSRFToken": lead.cookies["csrftoken"].value}
    body = '{"kind": "static", "x": 1e400}'
    answer = lead.generic("POST", "/api/solve/", body, content_type="application/json", headers=headers)
    assert answer.status_code == 400
    assert "too large" in answer.content.decode()


def test_what_was_stored_before_can_still_be_read(lead: Api, clinic: Review) -> None:
    document = clinic.current_brief().document
    document["stories"][0]["weight"] = 2**70
    clinic.briefs.update(document=document)
    for path in (f"/api/reviews/{clinic.pk}/", f"/api/reviews/{clinic.pk}/recheck/"):
        assert lead.get(path).status_code == 200, path
