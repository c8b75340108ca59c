"""People, reviews and clients that the tests start from."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest
from asking import Api
from django.conf import settings
from django.contrib.auth.hashers import Argon2PasswordHasher
from django.db import connection
from plumb_server.demo.people import LEAD, READER, REVIEWER, STRANGER, SUBMITTER
from plumb_server.demo.seed import seed
from plumb_server.reviews.models import Review


@pytest.fixture(scope="session", autouse=True)
def quick_passwords() -> None:
    """Passwords are hashed as in service, with less work: the tests sign in hundreds of times."""
    Argon2PasswordHasher.time_cost, Argon2PasswordHasher.memory_cost, Argon2PasswordHasher.parallelism = 1, 64, 1


@pytest.fixture(scope="session", autouse=True)
def exhibits(tmp_path_factory: pytest.TempPathFactory) -> None:
    """A folder of the tests' own for exhibits, which are read where they are submitted."""
    settings.STORAGES["exhibits"]["OPTIONS"] = {"location": str(tmp_path_factory.mktemp("exhibits"))}
    settings.JOBS_AT_ONCE = True


@pytest.fixture(scope="session")
def django_db_setup(exhibits: None, quick_passwords: None, django_db_setup: None, django_db_blocker: Any) -> None:
    """The demo is made once; each test rolls back what it changes."""
    with django_db_blocker.unblock():
        seed()


@pytest.fixture
def may_be_emptied(transactional_db: None) -> None:
    """Tests that commit empty the database in the end, which it refuses by itself."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT tgrelid::regclass FROM pg_trigger WHERE tgname = 'never_emptied'")
        for (table,) in cursor.fetchall():
            cursor.execute(f"DROP TRIGGER never_emptied ON {table}")


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
