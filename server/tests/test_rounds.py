"""From submission to submission: what became of findings, and their closure by the reviewer."""

from __future__ import annotations

from typing import Any

import pytest
from asking import Api
from plumb_server.accounts.models import User
from plumb_server.demo.people import LEAD
from plumb_server.demo.rounds import second_round
from plumb_server.findings.models import Finding
from plumb_server.reviews.models import Review
from plumb_server.submissions import services
from plumb_server.submissions.models import ExhibitReading
from plumb_server.submissions.readings import carry_out

pytestmark = pytest.mark.django_db


@pytest.fixture
def rounds(clinic: Review) -> Review:
    """The clinic with its second submission."""
    second_round()
    return clinic


def base(review: Review) -> str:
    return f"/api/reviews/{review.pk}/"


def test_what_became_of_each_finding(lead: Api, rounds: Review) -> None:
    """S1 has F_v, w.L5 and V.Y right, k.Y changed and not right, T.X as before (demo/submissions.py)."""
    found = lead.get(base(rounds) + "difference/").json()
    assert (found["before"], found["after"]) == ("S0", "S1")
    states = {f["number"]: f["state"] for f in found["findings"]}
    assert states == {1: "settled", 2: "settled", 3: "settled", 4: "changed but not right", 5: "open"}
    new = [c["check"] for c in found["new"] if c["finding"] is None]
    assert "F.Y.L6.Static Y" in new
    # 0.4 % on one mass, which no finding requires
    mass = next(c for c in found["changed"] if c["check"] == "m.L2")
    assert mass["why"] == "no finding requires it"
    later = next(c for c in found["changed"] if c["check"] == "V_scaled.X")
    assert later["why"].endswith("it may follow from a value that was required to change")
    assert mass["moved"] == pytest.approx(0.004, abs=2e-4)
    assert found["files"]["came"][0].startswith("clinic-S1-")
    assert len(found["files"]["came"]) == len(found["files"]["went"]) == 11


def test_it_is_the_reviewer_who_closes(lead: Api, rounds: Review) -> None:
    path = base(rounds) + "findings/"
    before = {f["number"]: f for f in lead.get(path).json()}
    assert before[1]["status"] == "answered"

    def close(*numbers: int) -> Any:
        listed = [{"number": n, "revision": before[n]["revision"]} for n in numbers]
        return lead.send("PATCH", path, {"findings": listed, "resolved": True})

    refused = close(1, 4, 5)
    assert refused.status_code == 409
    assert "finding 4: changed but not right; finding 5: open" in refused.json()["detail"]
    # all or none
    assert {f["status"] for f in lead.get(path).json()} == {"answered", "issued"}
    closed = {f["number"]: f for f in close(1, 2, 3).json()}
    assert {n: f["status"] for n, f in closed.items()} == {1: "settled", 2: "settled", 3: "settled"}
    last = closed[2]["thread"][-1]["text"]
    assert last.splitlines() == [
        "Closed on S1: resolved by the numbers.",
        "w L5: 569.0 kN, now 5580.0 kN",
    ]
    assert {4, 5} == {f["number"] for f in lead.get(base(rounds) + "difference/").json()["findings"]}


def test_the_history_of_a_finding_is_a_mark_in_each_submission(lead: Api, rounds: Review) -> None:
    of = {h["number"]: h["marks"] for h in lead.get(base(rounds) + "findings/history/").json()}
    assert [(m["submission"], m["verdict"]) for m in of[1]] == [("S0", "differs"), ("S1", "agrees")]
    assert [(m["submission"], m["role"]) for m in of[4]] == [("S0", "origin"), ("S1", "origin")]
    assert abs(of[4][1]["multiples"]) < abs(of[4][0]["multiples"])


def submitted_loads(review: Review, frame_of_roof: float) -> None:
    """Another submission: two stories of 900 kN and 1000 kN, and the loads that they are made up of."""
    stories = "Story,Height (m),Seismic weight (kN)\nRoof,3.6,900.0\nL1,4.0,1000.0\n"
    make_up = (
        f"Story,Load,Kind,Amount (kN),Share\nRoof,Frame,dead,{frame_of_roof},1.00\n,Plant,equipment,100.0,1.00\n"
        "L1,Frame,dead,900.0,1.00\n,Plant,equipment,100.0,1.00\n"
    )
    lead = User.objects.get(email=LEAD)
    submission = services.open_submission(review, lead)
    for name, text in (("stories", stories), ("make-up", make_up)):
        name = f"{submission.label}-{name}.csv"
        exhibit = services.add_exhibit(submission, lead, name=name, data=text.encode())
        carry_out(ExhibitReading.objects.get_or_create(exhibit=exhibit)[0], apart=False)
        services.accept_table(exhibit, lead, services.sheets_of(exhibit)[0], "", None)
    services.accept_submission(submission, lead)


def test_a_check_that_is_made_only_where_something_is_out_is_resolved_when_it_is_gone(
    lead: Api, new_review: str
) -> None:
    review = Review.objects.get(pk=new_review)
    submitted_loads(review, 650.0)
    checks = lead.get(base(review) + "recheck/").json()["checks"]
    wrong = next(c["id"] for c in checks if c["id"].startswith("make_up_w"))
    body = {"checks": [wrong], "severity": "must", "title": "Loads of the roof", "text": "750 kN in all.", "clause": ""}
    filed = lead.send("POST", base(review) + "findings/", body).json()
    issued = lead.send(
        "PATCH", f"/api/findings/{filed['id']}/", {"status": "issued"}, based_on=filed["revision"]
    ).json()
    submitted_loads(review, 800.0)
    found = lead.get(base(review) + "difference/").json()
    assert [f["state"] for f in found["findings"]] == ["settled"]
    (marks,) = (h["marks"] for h in lead.get(base(review) + "findings/history/").json())
    assert [m["verdict"] for m in marks] == ["differs", "agrees"]
    listed = [{"number": 1, "revision": issued["revision"]}]
    closed = lead.send("PATCH", base(review) + "findings/", {"findings": listed, "resolved": True})
    assert closed.json()[0]["thread"][-1]["text"].endswith(" kN, nothing is out there now")


def test_two_submissions_are_required(lead: Api, clinic: Review) -> None:
    answer = lead.get(base(clinic) + "difference/")
    assert (answer.status_code, answer.json()["errors"][0]["path"]) == (422, "/before")


def test_a_review_of_the_demo_somebody_went_on_with_is_left_alone(lead: Api, rounds: Review) -> None:
    second_round()
    assert (rounds.submissions.count(), rounds.findings.count()) == (2, 5)


def test_findings_are_changed_together_or_not_at_all(lead: Api, rounds: Review) -> None:
    path = base(rounds) + "findings/"
    known = {f["number"]: f for f in lead.get(path).json()}
    reviewer = next(m for m in lead.get(base(rounds)).json()["team"] if m["role"] == "reviewer")
    listed = [{"number": n, "revision": known[n]["revision"]} for n in (4, 5)]
    body = {"findings": listed, "assignee": reviewer["id"], "due": "2026-12-24"}
    changed = lead.send("PATCH", path, body).json()
    assert [(f["assignee"]["name"], f["due"]) for f in changed] == [("Jonas Reed", "2026-12-24")] * 2
    # based on what is no more
    stale = lead.send("PATCH", path, body | {"due": None})
    assert stale.status_code == 412
    assert "due" in stale.json()["errors"][0]["message"]
    unknown = lead.send("PATCH", path, {"findings": [{"number": 99, "revision": 1}], "due": None})
    assert (unknown.status_code, unknown.json()["errors"][0]["path"]) == (422, "/findings")
    stranger = lead.send("PATCH", path, {"findings": [{"number": 4, "revision": 4}], "assignee": 10**6})
    assert stranger.status_code in (400, 422)


def test_merged_findings_are_continued_as_one(lead: Api, rounds: Review) -> None:
    known = {f["number"]: f for f in lead.get(base(rounds) + "findings/").json()}
    merged = lead.send("POST", f"/api/findings/{known[4]['id']}/merge/", {"numbers": [3, 5]}).json()
    assert [c["check_id"] for c in merged["further"]] == ["V.Y", "T.X"]
    assert "Merged from finding 5" in merged["thread"][-1]["text"]
    after = {f["number"]: f for f in lead.get(base(rounds) + "findings/").json()}
    assert [(after[n]["status"], after[n]["merged_into"]) for n in (3, 5)] == [("withdrawn", 4)] * 2
    # what is linked counts for what becomes of it
    states = {f["number"]: f["checks"] for f in lead.get(base(rounds) + "difference/").json()["findings"]}
    assert states[4] == {"k.Y": "changed but not right", "V.Y": "settled", "T.X": "open"}
    again = lead.send("POST", f"/api/findings/{known[4]['id']}/merge/", {"numbers": [5]})
    assert again.status_code == 409


def test_a_check_is_linked_once_with_its_evidence(lead: Api, rounds: Review) -> None:
    finding = Finding.objects.get(review=rounds, number=4)
    path = f"/api/findings/{finding.pk}/checks/"
    linked = lead.send("POST", path, {"check_id": "F.Y.L6.Static Y"}).json()["further"]
    assert [(c["check_id"], c["submission"], c["evidence"]["verdict"]) for c in linked] == [
        ("F.Y.L6.Static Y", "S1", "differs")
    ]
    assert lead.send("POST", path, {"check_id": "F.Y.L6.Static Y"}).status_code == 409
    assert lead.send("POST", path, {"check_id": "nothing"}).status_code == 422


def test_the_demo_has_a_report_of_the_first_round_and_a_matrix_that_came_back(lead: Api, clinic: Review) -> None:
    second_round(printed=True)
    assert clinic.reports.get().issued_by.name == "Ilse Varga"
    actions = [e["action"] for e in lead.get(base(clinic) + "audit/").json()]
    assert actions.index("report issued") > actions.index("response matrix imported") > actions.index("exhibit added")
    answers = {f["number"]: f["thread"][-1]["text"] for f in lead.get(base(clinic) + "findings/").json() if f["thread"]}
    assert answers[2].endswith("Action: corrected\nReference: S1")
    assert 5 not in answers


def test_what_was_linked_goes_with_an_export(lead: Api, rounds: Review) -> None:
    finding = Finding.objects.get(review=rounds, number=4)
    lead.send("POST", f"/api/findings/{finding.pk}/checks/", {"check_id": "F.Y.L6.Static Y"})
    Finding.objects.filter(pk=finding.pk).update(due="2026-12-24")
    exported = lead.get(base(rounds) + "export/").json()
    answer = lead.send("POST", "/api/reviews/import/", exported).json()
    assert "id" in answer, answer
    brought = Review.objects.get(pk=answer["id"])
    again = brought.findings.get(number=4)
    assert again.checks == ["k.Y", "F.Y.L6.Static Y"]
    assert str(again.due) == "2026-12-24"
