"""Findings from filing to closure."""

from __future__ import annotations

from typing import Any

import pytest
from asking import Api
from plumb_server.accounts.models import User
from plumb_server.demo.people import LEAD, SUBMITTER
from plumb_server.findings.models import Finding
from plumb_server.findings.services import change_finding, write_message
from plumb_server.reviews.access import EVERYBODY, access
from plumb_server.reviews.models import Review
from plumb_server.web.problems import PreconditionFailed

pytestmark = pytest.mark.django_db


def file(client: Api, review: Review, checks: list[str]) -> Any:
    body = {
        "title": "Base shear differs",
        "text": "Please correct.",
        "severity": "must",
        "clause": "12.8.1",
        "checks": checks,
    }
    return client.send("POST", f"/api/reviews/{review.pk}/findings/", body)


def test_a_finding_gets_the_next_number_and_keeps_its_evidence(reviewer: Api, clinic: Review) -> None:
    finding = file(reviewer, clinic, ["V.Y", "F.Y.L8.Static Y"]).json()
    assert (finding["number"], finding["status"], finding["author"]) == (2, "draft", "Jonas Reed")
    assert [e["id"] for e in finding["evidence"]] == ["V.Y", "F.Y.L8.Static Y"]
    # the first check's derivation is kept for the report: it begins with inputs and ends with the value itself
    first, second = clinic.findings.get(number=2).evidence
    assert first["derivation"][0]["source"] in ("input", "adopted")
    assert first["derivation"][-1]["id"] == "V.Y"
    assert "derivation" not in second
    assert finding["submission"] == "S0"


def test_a_finding_on_a_check_that_is_not_there_is_refused(reviewer: Api, clinic: Review) -> None:
    answer = file(reviewer, clinic, ["V.Z"])
    assert (answer.status_code, answer.json()["errors"][0]["path"]) == (422, "/checks")
    assert clinic.findings.count() == 1


def test_from_draft_to_settled(lead: Api, submitter: Api, clinic: Review) -> None:
    finding = file(lead, clinic, ["V.Y"]).json()
    path = f"/api/findings/{finding['id']}/"
    assert lead.send("PATCH", path, {"text": "Please correct it."}, 1).json()["text"] == "Please correct it."
    assert lead.send("PATCH", path, {"status": "issued"}, 2).json()["status"] == "issued"
    assert submitter.send("POST", path + "messages/", {"text": "Corrected in S1."}).status_code == 201
    seen = next(f for f in submitter.get(f"/api/reviews/{clinic.pk}/findings/").json() if f["number"] == 2)
    assert (seen["status"], seen["thread"][0]["author"], seen["next_states"]) == ("answered", "Mira Oduya", [])
    assert lead.send("PATCH", path, {"status": "settled"}, 4).json()["status"] == "settled"


def test_an_issued_text_stays_as_it_is(lead: Api, clinic: Review) -> None:
    issued = clinic.findings.get(number=1)
    answer = lead.send("PATCH", f"/api/findings/{issued.pk}/", {"text": "something else"}, issued.revision)
    assert answer.status_code == 409
    issued.refresh_from_db()
    assert issued.text != "something else"


@pytest.mark.parametrize("status", list(Finding.NEXT))
def test_states_follow_each_other_only_as_laid_down(status: str, lead: Api, clinic: Review) -> None:
    author = clinic.findings.get(number=1).author
    for number, target in enumerate(Finding.NEXT, start=10):
        finding = Finding.objects.create(
            review=clinic, number=number, author=author, title="t", text="t", status=status
        )
        answer = lead.send("PATCH", f"/api/findings/{finding.pk}/", {"status": target}, finding.revision)
        allowed = target == status or target in Finding.NEXT[status]
        assert answer.status_code == (200 if allowed else 409), target


def test_what_was_issued_comes_back_as_it_was_or_not_at_all(lead: Api, clinic: Review) -> None:
    """The submitter has answered this text under this number."""
    path = f"/api/findings/{file(lead, clinic, ['V.Y']).json()['id']}/"
    for revision, status in enumerate(("issued", "withdrawn"), start=1):
        assert lead.send("PATCH", path, {"status": status}, revision).status_code == 200
    assert lead.send("PATCH", path, {"status": "draft"}, 3).status_code == 409
    assert lead.send("PATCH", path, {"text": "another text"}, 3).status_code == 409
    again = lead.send("PATCH", path, {"status": "issued"}, 3).json()
    assert again["status"] == "issued"
    # one that nobody outside has seen may still be written anew
    path = f"/api/findings/{file(lead, clinic, ['k.Y']).json()['id']}/"
    for revision, status in enumerate(("withdrawn", "draft"), start=1):
        assert lead.send("PATCH", path, {"status": status}, revision).status_code == 200
    assert lead.send("PATCH", path, {"text": "another text"}, 3).json()["text"] == "another text"


def test_a_reader_reads_the_register_and_writes_nothing(reader: Api, clinic: Review) -> None:
    (finding,) = reader.get(f"/api/reviews/{clinic.pk}/findings/").json()
    assert reader.send("POST", f"/api/findings/{finding['id']}/messages/", {"text": "x"}).status_code == 404


def test_an_empty_remark_is_refused(reviewer: Api, clinic: Review) -> None:
    answer = reviewer.send("POST", f"/api/reviews/{clinic.pk}/findings/", {"title": "", "text": " ", "checks": []})
    assert {e["path"] for e in answer.json()["errors"]} == {"/title", "/text"}


def test_a_change_states_what_it_is_based_on_and_is_told_what_changed_meanwhile(
    lead: Api, reviewer: Api, clinic: Review
) -> None:
    finding = file(lead, clinic, ["V.Y"]).json()
    path = f"/api/findings/{finding['id']}/"
    assert lead.send("PATCH", path, {"text": "Mine."}).status_code == 428
    assert reviewer.send("PATCH", path, {"title": "Theirs"}, 1).json()["revision"] == 2
    late = lead.send("PATCH", path, {"text": "Mine."}, 1)
    assert late.status_code == 412
    assert late.json()["errors"][0]["message"] == "Jonas Reed changed its title in the meantime"
    # based on what is there now, it changes its own field and no other
    both = lead.send("PATCH", path, {"text": "Mine."}, 2).json()
    assert (both["title"], both["text"], both["revision"]) == ("Theirs", "Mine.", 3)
    assert lead.send("PATCH", path, {"text": "Mine."}, 3).json()["revision"] == 3


@pytest.mark.parametrize(
    ("one", "other"),
    [
        ({"title": "A"}, {"text": "B"}),
        ({"status": "issued"}, {"text": "B"}),
        ({"status": "issued"}, {"status": "withdrawn"}),
    ],
)
def test_of_two_changes_at_once_one_is_told_so(
    one: dict[str, str], other: dict[str, str], lead: Api, clinic: Review
) -> None:
    """Both read the finding before either wrote it, as two requests at once do."""
    made = Finding.objects.get(pk=file(lead, clinic, ["V.Y"]).json()["id"])
    own = access(User.objects.get(email=LEAD), clinic.pk)
    first, second = Finding.objects.get(pk=made.pk), Finding.objects.get(pk=made.pk)
    change_finding(first, own, dict(one), first.revision)
    with pytest.raises(PreconditionFailed):
        change_finding(second, own, dict(other), second.revision)
    made.refresh_from_db()
    assert {name: getattr(made, name) for name in one} == one
    assert made.revision == 2


def test_an_answer_to_a_finding_that_was_settled_meanwhile_stays_an_answer_in_its_thread(
    lead: Api, submitter: Api, clinic: Review
) -> None:
    finding = clinic.findings.get(number=1)
    old = Finding.objects.get(pk=finding.pk)
    own = access(User.objects.get(email=LEAD), clinic.pk)
    change_finding(finding, own, {"status": "settled"}, finding.revision)
    write_message(old, access(User.objects.get(email=SUBMITTER), clinic.pk, EVERYBODY), "Late.")
    finding.refresh_from_db()
    assert finding.status == "settled"
