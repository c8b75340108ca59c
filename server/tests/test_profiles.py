"""Profiles of tables: learnt from a submission, proposed for like tables, seen by the people one reviews with."""

from __future__ import annotations

from typing import Any

import pytest
from asking import Api
from plumb_server.demo.people import REVIEWER
from plumb_server.reviews.models import Membership, Review, Role
from plumb_server.submissions.models import ReadingProfile

pytestmark = pytest.mark.django_db

TEXT = "Level;Height;Load at level\nL2;3.6;900\nL1;4.0;1000\n"
ANSWERS = {"header_row": 0, "columns": {"story": 0, "h": 1, "w": 2}, "units": {"h": "m", "w": "kN"}}


def accepted(api: Api, review: str, text: str = TEXT, reading: dict[str, Any] | None = None) -> int:
    """Accept a pasted table; the id of its submission."""
    body = {"text": text, "name": "stories", "kind": "stories", "reading": reading or ANSWERS}
    answer = api.send("POST", f"/api/reviews/{review}/tables/", body)
    assert answer.status_code == 201, answer.json()
    return int(Review.objects.get(pk=review).submissions.get().pk)


def learnt(api: Api, submission: int, name: str = "Carrow and Finch") -> dict[str, Any]:
    answer = api.send("POST", f"/api/submissions/{submission}/profile/", {"name": name})
    assert answer.status_code == 201, answer.json()
    told: dict[str, Any] = answer.json()
    return told


def test_answers_become_a_profile_that_is_proposed_for_like_tables_of_another_review(
    lead: Api, new_review: str, clinic: Review
) -> None:
    profile = learnt(lead, accepted(lead, new_review))
    assert [(t["kind"], t["heading"]) for t in profile["tables"]] == [("stories", ["Level", "Height", "Load at level"])]
    other = lead.send("POST", "/api/reviews/", {"title": "Other", "brief": {"edition": "ubc97"}}).json()["id"]
    body = {"text": TEXT.replace("900", "700"), "name": "stories", "kind": "stories"}
    read = lead.send("POST", f"/api/reviews/{other}/tables/read/", body).json()
    assert read["claims"] == 0, "it is proposed, not used"
    assert read["profile"]["name"] == "Carrow and Finch"
    answered = lead.send("POST", f"/api/reviews/{other}/tables/read/", body | {"reading": read["profile"]["reading"]})
    assert (answered.json()["claims"], answered.json()["problems"]) == (4, [])
    assert answered.json()["profile"] is None


def test_the_same_name_again_adds_to_the_profile(lead: Api, new_review: str) -> None:
    submission = accepted(lead, new_review)
    first = learnt(lead, submission)
    again = learnt(lead, submission)
    assert (again["id"], again["revision"], len(again["tables"])) == (first["id"], 2, 1)


def test_a_submission_without_tables_teaches_nothing(lead: Api, new_review: str) -> None:
    lead.upload(f"/api/reviews/{new_review}/exhibits/", _note())
    submission = Review.objects.get(pk=new_review).submissions.get().pk
    answer = lead.send("POST", f"/api/submissions/{submission}/profile/", {"name": "x"})
    assert answer.status_code == 409
    assert not ReadingProfile.objects.exists()


def _note() -> Any:
    from django.core.files.base import ContentFile

    return ContentFile(b"Story;Height\nL1;3\n", name="note.csv")


def test_a_profile_is_there_for_colleagues_and_nobody_else(
    lead: Api, reviewer: Api, submitter: Api, stranger: Api, new_review: str, clinic: Review
) -> None:
    """The reviewer is on the clinic's team with the lead; the submitter is in the same review, and no colleague."""
    profile = learnt(lead, accepted(lead, new_review))
    assert [p["name"] for p in reviewer.get("/api/profiles/").json()] == ["Carrow and Finch"]
    assert reviewer.get("/api/profiles/").json()[0]["own"] is False
    for other in (submitter, stranger):
        assert other.get("/api/profiles/").json() == []
        assert other.get(f"/api/profiles/{profile['id']}/").status_code == 404
    assert reviewer.send("DELETE", f"/api/profiles/{profile['id']}/").status_code == 403
    Membership.objects.filter(user__email=REVIEWER).update(role=Role.READER)
    assert reviewer.get("/api/profiles/").json() == []


def test_a_profile_is_edited_on_the_revision_that_was_seen(lead: Api, new_review: str) -> None:
    profile = learnt(lead, accepted(lead, new_review))
    at = f"/api/profiles/{profile['id']}/"
    tables = [t | {"units": t["units"] | {"w": "MN"}} for t in profile["tables"]]
    body = {"name": "Carrow, new tables", "tables": tables}
    changed = lead.send("PUT", at, body, based_on=1).json()
    assert (changed["name"], changed["revision"]) == ("Carrow, new tables", 2)
    assert lead.get(at).json()["tables"][0]["units"]["w"] == "MN"
    refused = lead.send("PUT", at, body, based_on=1)
    assert refused.status_code == 412
    assert lead.send("PUT", at, body).status_code == 428
    wrong = {"name": "x", "tables": [tables[0] | {"units": {"w": "furlong"}}]}
    answer = lead.send("PUT", at, wrong, based_on=2)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["path"] == "/tables/0/units/w"
    assert lead.get(at).json()["revision"] == 2


def test_a_profile_is_exported_imported_and_deleted(lead: Api, new_review: str) -> None:
    profile = learnt(lead, accepted(lead, new_review))
    document = {"name": "From a colleague", "tables": profile["tables"]}
    made = lead.send("POST", "/api/profiles/", document)
    assert made.status_code == 201
    assert made.json()["tables"] == profile["tables"]
    assert lead.send("POST", "/api/profiles/", document).status_code == 409
    rename = {"name": "Carrow and Finch", "tables": []}
    taken = lead.send("PUT", f"/api/profiles/{made.json()['id']}/", rename, based_on=1)
    assert taken.status_code == 409
    assert lead.send("DELETE", f"/api/profiles/{made.json()['id']}/").status_code == 204
    assert len(lead.get("/api/profiles/").json()) == 1


def test_what_was_settled_about_a_title_is_settled_for_the_next_table_like_it(lead: Api, new_review: str) -> None:
    def drifts(case: str) -> dict[str, Any]:
        rows = "".join(f"{case};L{i};{9 + i}.1;{8 + i}.2\n" for i in (2, 1))
        head = "Case;Story;Drift end 1 (mm);Drift end 2 (mm)\n"
        return {"text": f"Maximum considered story drifts, case {case};;;\n{head}{rows}", "name": f"drifts {case}"}

    accepted(lead, new_review)
    at = f"/api/reviews/{new_review}/tables/"
    (question,) = lead.send("POST", f"{at}read/", drifts("EX")).json()["problems"]
    assert "maximum considered" in question["message"]
    answer = lead.send("POST", at, drifts("EX") | {"reading": question["choices"][0]["sets"]})
    assert answer.status_code == 201, answer.json()
    assert lead.send("POST", f"{at}read/", drifts("EY")).json()["problems"] == []
