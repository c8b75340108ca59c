"""Large exports are imported by jobs: kept as they come, read apart, all of it or nothing."""

from __future__ import annotations

import json
from typing import Any

import pytest
from asking import Api
from django.core.files.storage import storages
from plumb_server.exchange import imports, tasks
from plumb_server.exchange.models import Import
from plumb_server.reviews.models import Review
from procrastinate.contrib.django.models import ProcrastinateJob


@pytest.fixture
def exported(lead: Api, clinic: Review) -> dict[str, Any]:
    document: dict[str, Any] = json.loads(lead.get(f"/api/reviews/{clinic.pk}/export/").content)
    return document


@pytest.fixture
def large(monkeypatch: pytest.MonkeyPatch) -> None:
    """Every document counts as large."""
    monkeypatch.setattr(imports, "AT_ONCE", 100)


@pytest.mark.usefixtures("large")
def test_a_large_export_is_imported_by_a_job(
    lead: Api, reviewer: Api, exported: dict[str, Any], settings: Any, django_capture_on_commit_callbacks: Any
) -> None:
    settings.JOBS_AT_ONCE = False
    before = Review.objects.count()
    asked = lead.send("POST", "/api/reviews/import/", exported)
    assert (asked.status_code, asked.json()["status"]) == (202, "queued")
    assert Review.objects.count() == before
    (job,) = ProcrastinateJob.objects.filter(task_name="carry_out_import")
    assert job.args["waiting"] == asked.json()["id"]
    path = f"/api/imports/{asked.json()['id']}/"
    assert reviewer.get(path).status_code == 404
    waiting = Import.objects.get()
    assert storages["exhibits"].exists(waiting.place)
    with django_capture_on_commit_callbacks(execute=True):
        imports.carry_out(waiting)
    told = lead.get(path).json()
    assert told["status"] == "done"
    assert lead.get(f"/api/reviews/{told['review']}/").json()["title"] == "Port Maren Clinic"
    assert not storages["exhibits"].exists(waiting.place)
    # once: a job that comes again finds nothing to do
    tasks.carry_out_import(str(waiting.pk))
    # nor does a second process that was begun before the first was done
    imports.carry_out(waiting)
    imports.carry_out_apart(waiting)
    assert Review.objects.count() == before + 1


@pytest.mark.usefixtures("large")
@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda d: d["brief"].update(edition="nowhere"), "edition"),
        (lambda d: d["submission"]["claims"][0].update(quantity="no such"), "vocabulary"),
        (lambda d: d["brief"].update(weight=2**70), "64 bits"),
    ],
)
def test_what_cannot_be_imported_is_said_and_nothing_is_kept(
    lead: Api, exported: dict[str, Any], change: Any, says: str, django_capture_on_commit_callbacks: Any
) -> None:
    before = Review.objects.count()
    change(exported)
    with django_capture_on_commit_callbacks(execute=True):
        asked = lead.send("POST", "/api/reviews/import/", exported).json()
    assert asked["status"] == "refused", asked
    assert says in json.dumps(asked["problems"])
    assert all(p["message"] and p["remedy"] for p in asked["problems"])
    assert Review.objects.count() == before
    assert not storages["exhibits"].exists(Import.objects.get().place)


@pytest.mark.usefixtures("large")
def test_a_few_imports_wait_at_a_time(lead: Api, exported: dict[str, Any], settings: Any) -> None:
    settings.JOBS_AT_ONCE = False
    codes = [lead.send("POST", "/api/reviews/import/", exported).status_code for _ in range(imports.MOST_WAITING + 1)]
    assert codes == [202] * imports.MOST_WAITING + [429]


@pytest.mark.usefixtures("large")
def test_an_import_that_ends_its_process_is_not_begun_for_ever(
    lead: Api, exported: dict[str, Any], settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    settings.JOBS_AT_ONCE = False
    asked = lead.send("POST", "/api/reviews/import/", exported).json()
    # the process does nothing, and says so
    monkeypatch.setattr(imports.sys, "executable", "/bin/false")
    tasks.carry_out_import(asked["id"])
    told = lead.get(f"/api/imports/{asked['id']}/").json()
    assert (told["status"], told["problems"][0]["message"]) == ("failed", "the import failed unexpectedly")
    Import.objects.update(status="running", attempts=imports.MOST_ATTEMPTS)
    tasks.carry_out_import(asked["id"])
    assert lead.get(f"/api/imports/{asked['id']}/").json()["problems"][0]["message"].endswith("twice")
