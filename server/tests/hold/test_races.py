"""Two people at once: nothing is lost, nothing is done twice, and who comes second is stated."""

from __future__ import annotations

from typing import Any

import pytest
from living import Application, Person, as_owner, at_once
from plumb_server.demo.people import LEAD, REVIEWER, SUBMITTER

ROUNDS = 5


@pytest.fixture(scope="module")
def two(application: Application) -> tuple[Person, Person]:
    return Person(application.address, LEAD), Person(application.address, REVIEWER)


def new_finding(person: Person, review: str) -> dict[str, Any]:
    body = {"title": "Begun", "text": "Begun.", "severity": "note", "checks": ["V.Y"]}
    answer = person.send("POST", f"/api/reviews/{review}/findings/", body)
    assert answer.status_code == 201, answer.text
    made: dict[str, Any] = answer.json()
    return made


def finding_now(person: Person, review: str, made: dict[str, Any]) -> dict[str, Any]:
    return next(f for f in person.get(f"/api/reviews/{review}/findings/") if f["id"] == made["id"])


@pytest.mark.parametrize(
    ("one", "other"),
    [
        ({"title": "One"}, {"text": "Other."}),
        ({"status": "issued"}, {"text": "Other."}),
        ({"status": "issued"}, {"status": "withdrawn"}),
        ({"severity": "must"}, {"severity": "should"}),
    ],
    ids=["title and text", "issue and edit", "issue and withdraw", "the same field"],
)
def test_of_two_changes_of_a_finding_one_holds_and_the_other_is_told(
    one: dict[str, str], other: dict[str, str], two: tuple[Person, Person], clinic: str
) -> None:
    for _ in range(ROUNDS):
        made = new_finding(two[0], clinic)
        path = f"/api/findings/{made['id']}/"
        answers = at_once(
            lambda path=path: two[0].send("PATCH", path, one, 1), lambda path=path: two[1].send("PATCH", path, other, 1)
        )
        assert sorted(a.status_code for a in answers) == [200, 412]
        kept = one if answers[0].status_code == 200 else other
        now = finding_now(two[0], clinic, made)
        assert {name: now[name] for name in kept} == kept
        assert now["revision"] == 2


def test_a_finding_that_is_settled_while_it_is_answered_stays_settled(
    two: tuple[Person, Person], clinic: str, application: Application
) -> None:
    submitter = Person(application.address, SUBMITTER)
    for _ in range(ROUNDS):
        made = new_finding(two[0], clinic)
        path = f"/api/findings/{made['id']}/"
        assert two[0].send("PATCH", path, {"status": "issued"}, 1).status_code == 200
        settled, answered = at_once(
            lambda path=path: two[0].send("PATCH", path, {"status": "settled"}, 2),
            lambda path=path: submitter.send("POST", path + "messages/", {"text": "We agree."}),
        )
        assert answered.status_code == 201
        now = finding_now(two[0], clinic, made)
        assert len(now["thread"]) == 1
        assert (settled.status_code, now["status"]) in ((200, "settled"), (412, "answered"))


def test_a_review_that_is_closed_while_it_is_edited_stays_closed(two: tuple[Person, Person]) -> None:
    lead = two[0]
    for i in range(ROUNDS):
        made = lead.send("POST", "/api/reviews/", {"title": f"Race {i}", "brief": {"edition": "asce7-16"}}).json()
        path = f"/api/reviews/{made['id']}/"
        other = Person(str(lead.client.base_url))
        closed, edited = at_once(
            lambda path=path: lead.send("PATCH", path, {"status": "closed"}, 1),
            lambda path=path, other=other: other.send("PATCH", path, {"title": "Another"}, 1),
        )
        now = lead.get(path)
        assert sorted((closed.status_code, edited.status_code)) == [200, 412]
        assert (now["status"] == "closed") == (closed.status_code == 200)
        assert (now["title"] == "Another") == (edited.status_code == 200)


def test_an_undo_by_two_undoes_one_change(two: tuple[Person, Person], clinic: str) -> None:
    path = f"/api/reviews/{clinic}/"
    for i in range(ROUNDS // 2):
        for value in (1.25, 1.3 + 0.01 * i):
            told = two[0].get(path)
            told["brief"]["site"]["S_S"] = value
            body = {"brief": told["brief"], "based_on": told["brief_number"]}
            assert two[0].send("PUT", path + "brief/", body).status_code == 200
        number = two[0].get(path)["brief_number"]
        answers = at_once(
            *(lambda p=p: p.send("POST", path + "brief/undo/", {"based_on": number}) for p in two)  # noqa: B023
        )
        assert sorted(a.status_code for a in answers) == [200, 412]
        assert two[0].get(path)["brief"]["site"]["S_S"] == 1.25


def test_a_table_is_removed_once_however_many_ask(two: tuple[Person, Person]) -> None:
    lead = two[0]
    made = lead.send("POST", "/api/reviews/", {"title": "Tables", "brief": {"edition": "asce7-16"}}).json()
    path = f"/api/reviews/{made['id']}/"
    people = [Person(str(lead.client.base_url)) for _ in range(8)]
    for i in range(3):
        text = f"Story\tHeight (m)\tWeight (kN)\nL2\t3.{i}\t900\nL1\t4.0\t1000\n"
        table = lead.send("POST", path + "tables/", {"text": text})
        assert table.status_code == 201, table.text
        answers = at_once(*(lambda p=p: p.send("DELETE", f"/api/tables/{table.json()['id']}/") for p in people))  # noqa: B023
        assert sorted(a.status_code for a in answers) == [204, *[404] * 7]
        removed = [e for e in lead.get(path + "audit/") if e["action"] == "table removed"]
        assert len(removed) == i + 1


def test_one_is_added_to_a_team_once(two: tuple[Person, Person]) -> None:
    lead = two[0]
    for i in range(ROUNDS // 2):
        made = lead.send("POST", "/api/reviews/", {"title": f"Team {i}", "brief": {"edition": "asce7-16"}}).json()
        path = f"/api/reviews/{made['id']}/team/"
        people = [lead, Person(str(lead.client.base_url))]
        answers = at_once(
            *(lambda p=p, path=path: p.send("POST", path, {"email": REVIEWER, "role": "reviewer"}) for p in people)
        )
        assert sorted(a.status_code for a in answers) == [201, 409]


def test_numbers_of_findings_are_given_out_once(two: tuple[Person, Person], clinic: str) -> None:
    people = [two[0], two[1], Person(str(two[0].client.base_url)), Person(str(two[0].client.base_url))]
    made = at_once(*(lambda p=p: [new_finding(p, clinic)["number"] for _ in range(3)] for p in people))
    numbers = [n for some in made for n in some]
    assert len(set(numbers)) == len(numbers)


def test_the_same_question_at_once_is_computed_once(
    two: tuple[Person, Person], clinic: str, application: Application
) -> None:
    told = two[0].get(f"/api/reviews/{clinic}/")
    told["brief"]["site"]["S_S"] = 1.777
    body = {"brief": told["brief"], "based_on": told["brief_number"]}
    assert two[0].send("PUT", f"/api/reviews/{clinic}/brief/", body).status_code == 200
    with as_owner(application.database) as db:
        db.execute("DELETE FROM rechecks_recheck")
    people = [Person(application.address) for _ in range(6)]
    answers = at_once(*(lambda p=p: p.client.get(f"/api/reviews/{clinic}/recheck/") for p in people))
    assert {a.status_code for a in answers} == {200}
    assert len({a.headers["ETag"] for a in answers}) == 1
    with as_owner(application.database) as db:
        assert db.execute("SELECT count(*) FROM rechecks_recheck").fetchone() == (1,)
