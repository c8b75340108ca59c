"""People, reviews and clients that the tests start from."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

import pytest
from django.test import Client
from plumb_server.accounts.models import User
from plumb_server.demo.people import LEAD, READER, REVIEWER, STRANGER, SUBMITTER
from plumb_server.demo.seed import seed
from plumb_server.reviews.models import Review

STORIES = "Story\tHeight (m)\tWeight (kN)\nL2\t3.6\t900\nL1\t4.0\t1000\n"
PARAMETERS = "Item\tValue\tX\tY\tUnit\nS_DS\t1.0\t\t\tg\nV\t\t400\t380\tkN\n"


class Api(Client):
    """A client that speaks JSON and hands the CSRF token on, as the web application does."""

    def __init__(self, email: str | None = None):
        super().__init__(enforce_csrf_checks=True)
        if email:
            self.force_login(User.objects.get(username=email))
            self.get("/api/session/")

    def send(self, method: str, path: str, body: Any = None) -> Any:
        headers = {"X-CSRFToken": self.cookies["csrftoken"].value} if "csrftoken" in self.cookies else {}
        return self.generic(method, path, json.dumps(body), content_type="application/json", headers=headers)

    def upload(self, path: str, file: Any) -> Any:
        return self.post(path, {"file": file}, headers={"X-CSRFToken": self.cookies["csrftoken"].value})


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup: None, django_db_blocker: Any) -> None:
    """The demo is made once; each test rolls back what it changes."""
    with django_db_blocker.unblock():
        seed()


@pytest.fixture
def demo(db: None) -> None:
    """The demo's people and reviews."""


@pytest.fixture
def clinic(demo: None) -> Review:
    return Review.objects.get(title="Port Maren Clinic")


@pytest.fixture
def signed_in(demo: None) -> Callable[[str], Api]:
    return Api


@pytest.fixture
def lead(demo: None) -> Api:
    return Api(LEAD)


@pytest.fixture
def reviewer(demo: None) -> Api:
    return Api(REVIEWER)


@pytest.fixture
def submitter(demo: None) -> Api:
    return Api(SUBMITTER)


@pytest.fixture
def reader(demo: None) -> Api:
    return Api(READER)


@pytest.fixture
def stranger(demo: None) -> Api:
    return Api(STRANGER)


@pytest.fixture
def new_review(lead: Api) -> str:
    """Id of a new review with an almost empty brief."""
    answer = lead.send("POST", "/api/reviews/", {"title": "Gull Rock Station", "brief": {"edition": "asce7-16"}})
    assert answer.status_code == 201
    return str(answer.json()["id"])
