"""What monitors and proxies ask, and what holds for every answer."""

from __future__ import annotations

import logging
from typing import Any

import pytest
from asking import Api
from django.db import OperationalError, connection
from plumb_server.web import views

pytestmark = pytest.mark.django_db


def test_health_tells_of_database_worker_queue_and_disk(demo: None) -> None:
    told = Api().get("/health/").json()
    assert (told["status"], told["workers"], told["database"]) == ("degraded", 0, "answers")
    assert "no worker is active" in told["wrong"][0]
    with connection.cursor() as cursor:
        cursor.execute("INSERT INTO procrastinate_workers DEFAULT VALUES")
    assert Api().get("/health/").json()["status"] == "ok"
    with connection.cursor() as cursor:
        cursor.execute("UPDATE procrastinate_workers SET last_heartbeat = now() - interval '2 minutes'")
    assert Api().get("/health/").json()["status"] == "degraded"


def test_a_full_disk_is_told(demo: None, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(views, "LEAST_DISK", 10**18)
    assert "the disk is nearly full" in Api().get("/health/").json()["wrong"]


def test_without_a_database_it_is_503_and_later(lead: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    from django.db.backends.postgresql.base import DatabaseWrapper

    def gone(*_: Any, **__: Any) -> Any:
        raise OperationalError("the connection is lost")

    lead.raise_request_exception = False
    with monkeypatch.context() as patch:
        patch.setattr(DatabaseWrapper, "cursor", gone)
        answers = [lead.get(path) for path in ("/health/", "/api/reviews/", "/api/session/")]
        answers.append(lead.send("POST", "/_allauth/browser/v1/auth/login", {"email": "a@b.example", "password": "x"}))
    assert [(a.status_code, a["Retry-After"]) for a in answers] == [(503, "5")] * 4
    assert answers[1]["Content-Type"] == "application/problem+json"
    # back by itself
    assert lead.get("/api/reviews/").status_code == 200


def test_metrics_are_told_to_who_shows_the_key(demo: None, settings: Any) -> None:
    assert Api().get("/metrics/").status_code == 404
    settings.METRICS_KEY = "let me see"
    assert Api().get("/metrics/", headers={"Authorization": "Bearer no"}).status_code == 404
    told = Api().get("/metrics/", headers={"Authorization": "Bearer let me see"}).content.decode()
    assert "plumb_workers 0.0" in told
    assert "django_http_responses_total_by_status" in told


@pytest.mark.parametrize("method", ["get", "post", "head", "options"])
@pytest.mark.parametrize("path", ["/", "/api/session/", "/_allauth/browser/v1/auth/session", "/assets/x.js"])
def test_only_names_of_ours_are_answered_to(method: str, path: str) -> None:
    answer = getattr(Api(), method)(path, headers={"Host": "elsewhere.example"})
    assert answer.status_code == 400
    assert Api().get("/health/", headers={"Host": "10.0.0.7"}).status_code == 200


def test_health_needs_no_tls_and_the_rest_does(demo: None, settings: Any) -> None:
    settings.SECURE_SSL_REDIRECT = True
    settings.SECURE_REDIRECT_EXEMPT = [r"^health/$", r"^metrics/$"]
    assert Api().get("/health/").status_code == 200
    assert Api().get("/api/session/").status_code == 301


def test_each_request_has_a_number_that_a_failure_names(lead: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    from plumb_server.rechecks import views as rechecks

    assert lead.get("/api/session/", headers={"X-Request-ID": "from-the-proxy-7"})["X-Request-ID"] == "from-the-proxy-7"
    assert lead.get("/api/session/", headers={"X-Request-ID": "<script>"})["X-Request-ID"] != "<script>"

    def fail(*_: Any) -> Any:
        raise RuntimeError("inside")

    monkeypatch.setattr(rechecks, "core_solve", fail)
    lead.raise_request_exception = False
    logging.getLogger("django.request").disabled = True
    answer = lead.send("POST", "/api/solve/", {})
    logging.getLogger("django.request").disabled = False
    assert answer["X-Request-ID"] in answer.json()["errors"][0]["remedy"]
