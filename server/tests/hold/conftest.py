"""An application for these tests, as it is put into service."""

from __future__ import annotations

import os
from collections.abc import Iterator
from pathlib import Path

import pytest
from clusters import Cluster
from living import Application, Person


@pytest.fixture(scope="session")
def django_db_setup() -> None:
    """These tests speak with an application of their own, on a database of its own."""


@pytest.fixture(scope="session")
def application() -> Iterator[Application]:
    own = Application("plumb_hold_" + os.environ.get("PYTEST_XDIST_WORKER", "main"))
    try:
        own.make()
        own.begin()
        yield own
    finally:
        own.end()


@pytest.fixture(scope="session")
def lead(application: Application) -> Person:
    return Person(application.address)


@pytest.fixture(scope="session")
def clinic(lead: Person) -> str:
    return str(next(r for r in lead.get("/api/reviews/") if r["title"] == "Port Maren Clinic")["id"])


@pytest.fixture
def cluster() -> Iterator[Cluster]:
    own = Cluster(Path("/tmp") / f"plumb-cluster-{os.getpid()}")
    try:
        own.make()
        yield own
    finally:
        own.end()
