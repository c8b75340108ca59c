"""Signing in and out."""

from __future__ import annotations

import json
from typing import Any

import pytest
from asking import Api
from django.core.cache import cache
from plumb_server.accounts.models import User
from plumb_server.demo.people import LEAD, PASSWORD, REVIEWER

pytestmark = pytest.mark.django_db


def test_nobody_is_signed_in_at_first(demo: None) -> None:
    assert Api().get("/api/session/").json()["person"] is None


def test_sign_in_and_out(demo: None) -> None:
    client = Api()
    client.get("/api/session/")
    answer = client.send("POST", "/api/session/", {"email": LEAD.upper(), "password": PASSWORD})
    assert answer.json()["person"]["name"] == "Ilse Varga"
    assert client.send("DELETE", "/api/session/").status_code == 204
    assert client.get("/api/reviews/").status_code == 403


def test_a_wrong_password_is_said_without_saying_which_part_is_wrong(demo: None) -> None:
    client = Api()
    client.get("/api/session/")
    for email in (LEAD, "nobody@nowhere.example"):
        answer = client.send("POST", "/api/session/", {"email": email, "password": "wrong"})
        assert answer.status_code == 422
        assert answer["Content-Type"] == "application/problem+json"
        assert answer.json()["errors"][0]["message"] == "the e-mail address and the password do not match"


def test_signing_in_without_the_csrf_token_is_refused(demo: None) -> None:
    answer = Api().send("POST", "/api/session/", {"email": LEAD, "password": PASSWORD})
    assert answer.status_code == 403
    assert "Reload the page" in answer.json()["errors"][0]["remedy"]


def test_passwords_are_kept_with_argon2(demo: None) -> None:
    assert User.objects.get(email=LEAD).password.startswith("argon2")


def test_changes_without_the_csrf_token_are_refused(lead: Api, clinic: Any) -> None:
    answer = lead.generic("PUT", f"/api/reviews/{clinic.pk}/brief/", "{}", content_type="application/json")
    assert answer.status_code == 403


def test_every_answer_forbids_foreign_scripts(demo: None) -> None:
    policy = Api().get("/api/session/")["Content-Security-Policy"]
    assert "default-src 'self'" in policy
    assert "script-src" not in policy  # falls back to default-src, without 'unsafe-inline'


def test_too_many_attempts_are_slowed_down(demo: None, settings: Any) -> None:
    cache.clear()
    client = Api()
    client.get("/api/session/")
    # whatever address an attempt says that it comes from
    codes = [
        client.post(
            "/api/session/",
            json.dumps({"email": f"nobody{i}@nowhere.example", "password": "x"}),
            content_type="application/json",
            headers={"X-CSRFToken": client.cookies["csrftoken"].value, "X-Forwarded-For": f"10.0.0.{i}"},
        ).status_code
        for i in range(31)
    ]
    cache.clear()
    assert codes[:30] == [422] * 30
    assert codes[30] == 429


def test_an_account_takes_no_more_attempts_after_ten_failures(demo: None, settings: Any) -> None:
    cache.clear()
    client = Api()
    client.get("/api/session/")

    def attempt(email: str, password: str) -> int:
        return int(client.send("POST", "/api/session/", {"email": email, "password": password}).status_code)

    assert [attempt(LEAD, "x") for _ in range(10)] == [422] * 10
    # not even the right password, and nobody is stated whether there is such an account
    assert attempt(LEAD.upper(), PASSWORD) == 429
    assert [attempt("nobody@nowhere.example", "x") for _ in range(11)][-1] == 429
    assert attempt(REVIEWER, PASSWORD) == 200
    cache.clear()


def test_bodies_that_cannot_be_kept_are_refused(lead: Api) -> None:
    deep = "[" * 3000 + "]" * 3000
    headers = {"X-CSRFToken": lead.cookies["csrftoken"].value}
    for body in (deep, '{"title": "a\\u0000b"}', '{"title": "\\ud800"}'):
        answer = lead.generic("POST", "/api/reviews/", body, content_type="application/json", headers=headers)
        assert answer.status_code == 400, body[:20]
    anonymous = Api()
    anonymous.get("/api/session/")
    headers = {"X-CSRFToken": anonymous.cookies["csrftoken"].value}
    assert (
        anonymous.generic("POST", "/api/session/", deep, content_type="application/json", headers=headers).status_code
        == 400
    )


def test_unknown_addresses_and_broken_bodies_are_problems_too(lead: Api) -> None:
    for answer, code in (
        (lead.get("/api/nothing/like/it/"), 404),
        (lead.get("/api/reviews/not-a-uuid/"), 404),
        (lead.send("DELETE", "/api/editions/"), 405),
    ):
        assert (answer.status_code, answer["Content-Type"]) == (code, "application/problem+json")
        assert answer.json()["errors"][0]["remedy"]
    broken = lead.generic(
        "POST",
        "/api/solve/",
        "{not json",
        content_type="application/json",
        headers={"X-CSRFToken": lead.cookies["csrftoken"].value},
    )
    assert broken.status_code == 400


def test_a_failure_is_a_problem_and_tells_nothing_of_the_inside(lead: Api, monkeypatch: Any) -> None:
    from plumb_server.rechecks import views

    def fail(*_: Any) -> Any:
        raise RuntimeError("secret inside")

    monkeypatch.setattr(views, "core_solve", fail)
    lead.raise_request_exception = False
    answer = lead.send("POST", "/api/solve/", {})
    assert (answer.status_code, answer["Content-Type"]) == (500, "application/problem+json")
    assert "secret" not in answer.content.decode()
