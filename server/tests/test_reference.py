"""The reviewer's reference model.

Its states, runs at once and through the queue, cancelling, and workers that end in the middle.
"""

from __future__ import annotations

import asyncio
import os
import signal
import subprocess
import sys
import time
from pathlib import Path
from typing import Any

import pytest
from asking import Api
from django.conf import settings
from django.db import connection
from django.utils import timezone
from plumb_server.demo.clinic_model import clinic_model
from plumb_server.rechecks.models import Recheck
from plumb_server.reference import runs, tasks
from plumb_server.reference.models import ModelRevision, Run
from plumb_server.reviews.models import Review
from procrastinate.contrib.django import app
from procrastinate.contrib.django.models import ProcrastinateJob

pytestmark = pytest.mark.django_db


def _path(review: Review, rest: str = "") -> str:
    return f"/api/reviews/{review.pk}/{rest}"


def _ask(api: Api, review: Review, kind: str = "modal") -> Any:
    return api.send("POST", _path(review, "runs/"), {"kind": kind})


def _lines() -> dict[str, Any]:
    return clinic_model() | {"use": "lines"}


def test_the_clinics_model_answers_at_once(lead: Api, clinic: Review) -> None:
    answer = _ask(lead, clinic)
    assert answer.status_code == 200
    run = answer.json()
    assert run["status"] == "done"
    assert [m["kind"] for m in run["result"]["modes"][:3]] == ["Y", "X", "twist"]
    assert len(run["result"]["nodes"]["ids"]) == len(clinic_model()["frame"]["nodes"])


def test_the_same_question_is_asked_once(lead: Api, clinic: Review, monkeypatch: pytest.MonkeyPatch) -> None:
    first = _ask(lead, clinic).json()

    def never(*_: Any) -> Any:
        raise AssertionError("it was solved again")

    monkeypatch.setattr(runs, "solve", never)
    assert _ask(lead, clinic).json()["id"] == first["id"]


def test_a_run_whose_process_ended_in_the_middle_is_solved_when_it_is_asked_again(lead: Api, clinic: Review) -> None:
    run = Run.objects.get(pk=_ask(lead, clinic).json()["id"])
    Run.objects.filter(pk=run.pk).update(status=Run.Status.RUNNING, result=None, seen_at=timezone.now())
    assert _ask(lead, clinic).json()["status"] == "running"
    Run.objects.filter(pk=run.pk).update(seen_at=timezone.now() - 2 * runs.AT_ONCE_ENDS)
    assert _ask(lead, clinic).json()["status"] == "done"


def test_a_run_that_ends_its_worker_is_begun_three_times_only(lead: Api, clinic: Review) -> None:
    run = Run.objects.get(pk=_ask(lead, clinic).json()["id"])
    run.status, run.attempts = Run.Status.RUNNING, runs.MOST_ATTEMPTS
    run.save()
    failed = runs.carry_out(run)
    assert (failed.status, failed.problems[0]["message"]) == ("failed", "the analysis stopped its worker 3 times")


@pytest.mark.parametrize("kind", ["model", "response_X", "response_Y", "static_response"])
def test_every_kind_of_question_is_answered(lead: Api, clinic: Review, kind: str) -> None:
    run = _ask(lead, clinic, kind).json()
    assert run["status"] == "done", run["problems"]
    assert run["result"]["kind"] == kind.split("_")[0] or run["result"]["kind"] == kind


def test_a_changed_model_is_a_new_question_and_can_be_undone(lead: Api, clinic: Review) -> None:
    before = _ask(lead, clinic).json()
    state = lead.get(_path(clinic, "model/")).json()
    state["model"]["analysis"]["modes"] = 6
    saved = lead.send("PUT", _path(clinic, "model/"), {"based_on": state["number"], "model": state["model"]})
    assert saved.status_code == 200
    after = _ask(lead, clinic).json()
    assert after["id"] != before["id"]
    assert len(after["result"]["modes"]) == 6
    undone = lead.send("POST", _path(clinic, "model/undo/"), {"based_on": saved.json()["number"]})
    assert undone.json()["model"]["analysis"]["modes"] == 18
    assert _ask(lead, clinic).json()["id"] == before["id"]


def test_two_people_at_one_model(lead: Api, clinic: Review) -> None:
    late = lead.send("PUT", _path(clinic, "model/"), {"based_on": 0, "model": _lines()})
    assert late.status_code == 412


def test_a_bad_model_is_refused_with_its_places_and_nothing_is_saved(lead: Api, clinic: Review) -> None:
    model = clinic_model()
    model["frame"]["members"][0]["section"] = "none"
    before = ModelRevision.objects.filter(review=clinic).count()
    refused = lead.send("PUT", _path(clinic, "model/"), {"based_on": 1, "model": model})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["path"] == "/frame/members/0/section"
    assert ModelRevision.objects.filter(review=clinic).count() == before


def test_a_mechanism_is_a_refused_run_that_says_why(lead: Api, clinic: Review) -> None:
    model = clinic_model()
    model["frame"]["supports"] = []
    lead.send("PUT", _path(clinic, "model/"), {"based_on": 1, "model": model})
    run = _ask(lead, clinic).json()
    assert run["status"] == "refused"
    assert "nothing is supported" in run["problems"][0]["message"]
    assert _ask(lead, clinic, "model").json()["result"]["usable"] is False


def test_a_review_without_a_model_says_what_to_do(lead: Api, demo: None) -> None:
    library = Review.objects.get(title="Sable Quay Library")
    assert lead.get(_path(library, "model/")).json() == {"number": 0, "can_undo": False, "model": {}}
    refused = _ask(lead, library)
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["remedy"] == "Add the walls and frames of each story."


def test_only_the_team_sees_the_model(clinic: Review, signed_in: Any) -> None:
    from plumb_server.demo.people import READER, STRANGER, SUBMITTER

    run = runs.run_for(clinic, "modal", {"kind": "modal", "stories": [], "lateral_lines": None})
    for person in (SUBMITTER, READER, STRANGER):
        api = signed_in(person)
        assert api.get(_path(clinic, "model/")).status_code == 404
        assert _ask(api, clinic).status_code == 404
        assert api.get(f"/api/runs/{run.pk}/").status_code == 404


def test_the_recheck_holds_submitted_modes_against_the_model(lead: Api, clinic: Review) -> None:
    found = lead.get(_path(clinic, "recheck/")).json()
    assert found["modes"]["comparison"]["swapped"]
    checks = {c["id"]: c for c in found["checks"]}
    assert checks["T_mode.1"]["level"] == 3
    # without the answer of the model another recheck is kept beside it
    Run.objects.filter(review=clinic).update(status=Run.Status.RUNNING)
    waiting = lead.get(_path(clinic, "recheck/")).json()
    assert {c["id"]: c for c in waiting["checks"]}["T_mode.1"]["verdict"] == "open"
    assert Recheck.objects.filter(review=clinic).count() >= 2


def test_an_exported_review_carries_its_model(lead: Api, clinic: Review) -> None:
    document = lead.get(_path(clinic, "export/")).json()
    assert document["model"]["use"] == "frame"
    made = lead.send("POST", "/api/reviews/import/", document).json()
    again = Review.objects.get(pk=made["id"])
    assert _ask(lead, again).json()["result"]["modes"][0]["T"] == pytest.approx(
        _ask(lead, clinic).json()["result"]["modes"][0]["T"]
    )


# the queue


@pytest.fixture
def queued(clinic: Review, monkeypatch: pytest.MonkeyPatch) -> Review:
    """The clinic with every model counted as large."""
    monkeypatch.setattr(runs, "AT_ONCE", 0)
    Run.objects.all().delete()
    return clinic


def _carry_out_all() -> None:
    for job in ProcrastinateJob.objects.filter(status="todo"):
        tasks.carry_out_run(**job.args)


def test_a_large_model_is_a_job_and_its_answer_is_kept(lead: Api, queued: Review) -> None:
    answer = _ask(lead, queued)
    assert answer.status_code == 202
    run = answer.json()
    assert run["status"] == "queued"
    assert ProcrastinateJob.objects.filter(args__run=run["id"], status="todo").count() == 1
    assert _ask(lead, queued).json()["id"] == run["id"]
    assert ProcrastinateJob.objects.filter(args__run=run["id"]).count() == 1
    _carry_out_all()
    done = lead.get(f"/api/runs/{run['id']}/").json()
    assert done["status"] == "done"
    assert done["result"]["modes"]


def test_a_run_is_cancelled_before_and_while_it_is_solved(
    lead: Api, queued: Review, monkeypatch: pytest.MonkeyPatch
) -> None:
    run = _ask(lead, queued).json()
    assert lead.send("POST", f"/api/runs/{run['id']}/cancel/").json()["status"] == "cancelled"
    _carry_out_all()
    assert Run.objects.get(pk=run["id"]).status == "cancelled"
    # asked again it is queued anew; this time somebody cancels while it runs
    assert _ask(lead, queued).json()["status"] == "queued"
    solve = runs.solve

    def slowly(request: Any, progress: Any) -> Any:
        lead.send("POST", f"/api/runs/{run['id']}/cancel/")
        return solve(request, progress)

    monkeypatch.setattr(runs, "solve", slowly)
    _carry_out_all()
    stopped = Run.objects.get(pk=run["id"])
    assert stopped.status == "cancelled"
    assert stopped.result is None


def test_progress_is_told_by_phase(queued: Review, lead: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    told = []
    monkeypatch.setattr(runs, "PROGRESS_INTERVAL", 0.0)
    real = runs._Teller.__call__

    def telling(self: Any, phase: str, share: float) -> None:
        real(self, phase, share)
        told.append((Run.objects.get(pk=self.run.pk).phase, share))

    monkeypatch.setattr(runs._Teller, "__call__", telling)
    _ask(lead, queued)
    _carry_out_all()
    phases = [p for p, _ in told]
    assert phases[0] == "reading"
    assert {"assembling", "factorising", "modes", "participation"} <= set(phases)
    assert [s for _, s in told] == sorted(s for _, s in told)


def test_a_failure_of_its_own_is_said_and_can_be_tried_again(
    lead: Api, queued: Review, monkeypatch: pytest.MonkeyPatch
) -> None:
    run = _ask(lead, queued).json()
    solve = runs.solve
    monkeypatch.setattr(runs, "solve", lambda *_: 1 / 0)
    with pytest.raises(ZeroDivisionError):
        _carry_out_all()
    failed = lead.get(f"/api/runs/{run['id']}/").json()
    assert failed["status"] == "failed"
    assert failed["problems"][0]["remedy"]
    monkeypatch.setattr(runs, "solve", solve)
    assert _ask(lead, queued).json()["status"] == "queued"


@pytest.mark.django_db(transaction=True)
def test_a_worker_that_is_killed_in_the_middle_loses_nothing(
    monkeypatch: pytest.MonkeyPatch, may_be_emptied: None
) -> None:
    """A real worker takes the job and is killed; its job is put back, and the next worker finishes it."""
    from plumb_server.accounts.models import User
    from plumb_server.reviews.services import create_review

    user = User.objects.create(email="somebody@hesper.example")
    review = create_review(user, brief={"edition": "asce7-16"}, title="Held up")
    stories = [{"name": f"L{i}", "height": 3.0, "mass": 10.0, "inertia": 90.0, "centre": [0.0, 0.0]} for i in range(3)]
    lines = [
        {"story": i, "at": at, "angle": a, "stiffness": 1e4}
        for i in range(3)
        for at, a in (([0.0, 3.0], 0.0), ([0.0, -3.0], 0.0), ([3.0, 0.0], 90.0))
    ]
    monkeypatch.setattr(runs, "AT_ONCE", 0)
    run = runs.run_for(review, "modal", {"kind": "modal", "stories": stories, "lateral_lines": lines})
    server = Path(__file__).parents[1]
    # the worker waits in the middle of the run until it is killed
    hang = (
        "import django; django.setup()\n"
        "import time\n"
        "from plumb_server.reference import runs\n"
        "runs.solve = lambda request, progress: (progress('modes', 0.3), time.sleep(600))\n"
        "from django.core.management import call_command\n"
        "call_command('run_worker')\n"
    )
    own = settings.DATABASES["default"]
    env = {
        **os.environ,
        "DJANGO_SETTINGS_MODULE": "plumb_server.settings",
        "PYTHONPATH": str(server),
        "PLUMB_DB_NAME": connection.settings_dict["NAME"],
        "PLUMB_DB_HOST": str(own["HOST"]),
        "PLUMB_DB_PORT": str(own["PORT"]),
    }
    worker = subprocess.Popen([sys.executable, "-c", hang], env=env, cwd=server)
    try:
        _wait_for(lambda: Run.objects.get(pk=run.pk).phase == "modes")
        # what comes by the clock may be there too
        assert ProcrastinateJob.objects.get(queue_name="runs").status == "doing"
    finally:
        worker.send_signal(signal.SIGKILL)
        worker.wait()
    assert Run.objects.get(pk=run.pk).status == "running"

    # the next worker finds the job as soon as the dead one counts as silent
    monkeypatch.setattr(tasks, "SILENT", 1.0)
    time.sleep(1.2)

    async def next_worker() -> int:
        async with app.open_async():
            found = await tasks.requeue_stalled_jobs()
            await app.run_worker_async(queues=["runs"], wait=False, install_signal_handlers=False, listen_notify=False)
            return found

    with app.replace_connector(app.connector.get_worker_connector()):  # type: ignore[attr-defined]
        assert asyncio.run(next_worker()) >= 1
    with connection.cursor() as cursor:  # what the worker's threads leave open would keep the test database alive
        cursor.execute(
            "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid "
            "<> pg_backend_pid()"
        )
    done = Run.objects.get(pk=run.pk)
    assert done.status == "done"
    assert done.attempts == 2
    assert len(done.result["modes"]) == 9


def _wait_for(condition: Any, seconds: float = 30.0) -> None:
    end = time.monotonic() + seconds
    while not condition():
        assert time.monotonic() < end, "it did not happen"
        time.sleep(0.1)


# frames from a grid and from tables


def test_a_grid_becomes_a_frame_over_the_briefs_stories(lead: Api, clinic: Review) -> None:
    grid = {
        "bays_x": [6.0, 6.0],
        "bays_y": [7.0],
        "columns": {"width": 0.5, "depth": 0.5},
        "beams_x": {"width": 0.3, "depth": 0.6},
        "beams_y": {"width": 0.3, "depth": 0.6},
    }
    frame = lead.send("POST", _path(clinic, "model/frame/"), {"grid": grid}).json()["frame"]
    assert [d["id"] for d in frame["diaphragms"]] == [f"L{i}" for i in range(1, 9)]
    assert frame["floors"][0]["mass"] == pytest.approx(6480 / 9.80665)
    wrong = lead.send("POST", _path(clinic, "model/frame/"), {"grid": {**grid, "bays_x": []}})
    assert wrong.status_code == 422
    assert wrong.json()["errors"][0]["path"] == "/bays_x"


def test_tables_are_read_and_become_a_frame(lead: Api, clinic: Review) -> None:
    path = _path(clinic, "model/table/")
    asked = lead.send("POST", path, {"text": "Node\tX\tY\tZ\n1\t0\t0\t0\n2\t0\t0\t3\n"}).json()
    assert asked["kind"] == "nodes"
    assert asked["rows"] == []
    assert "unit of x is missing" in asked["problems"][0]["message"]
    units = {"x": "m", "y": "m", "z": "m"}
    nodes = lead.send("POST", path, {"text": "Node\tX\tY\tZ\n1\t0\t0\t0\n2\t0\t0\t3\n", "units": units}).json()["rows"]
    frame = lead.send(
        "POST",
        _path(clinic, "model/frame/"),
        {"tables": {"nodes": nodes, "floors": [{"diaphragm": "L1", "z": 3.0, "mass": 5.0}]}},
    ).json()["frame"]
    assert frame["diaphragms"] == [{"id": "L1", "nodes": ["2"], "rigid": True}]
    for bad in ({"text": "x", "kind": "roofs"}, {"content": "%%%", "name": "a.csv"}):
        assert lead.send("POST", path, bad).status_code == 422


# ground records


RECORD = "Vessel Point, accelerations in cm/s2, dt = 0.02 s\n" + "\n".join(
    f"{v}" for v in (0, 120, -240, 90, 0, -30) * 40
)


def test_a_record_is_read_and_what_it_lacks_is_asked_for(lead: Api, clinic: Review, stranger: Api) -> None:
    path = _path(clinic, "model/record/")
    read = lead.send("POST", path, {"text": RECORD}).json()
    assert (read["unit"], read["dt"], len(read["a"])) == ("cm/s2", 0.02, 240)
    bare = "\n".join(RECORD.splitlines()[1:])
    assert [e["path"] for e in lead.send("POST", path, {"text": bare}).json()["errors"]] == ["/unit"]
    assert [e["path"] for e in lead.send("POST", path, {"text": bare, "unit": "g"}).json()["errors"]] == ["/dt"]
    assert lead.send("POST", path, {"text": bare, "unit": "g", "dt": 0.01}).json()["dt"] == 0.01
    long = lead.send("POST", path, {"text": "0.1\n" * 60_001, "unit": "g", "dt": 0.01})
    assert "at most 60000 are accepted" in long.json()["errors"][0]["message"]
    assert stranger.send("POST", path, {"text": RECORD}).status_code == 404


def test_a_case_of_theirs_is_run_under_its_record(lead: Api, clinic: Review) -> None:
    state = lead.get(_path(clinic, "model/")).json()
    record = lead.send("POST", _path(clinic, "model/record/"), {"text": RECORD}).json()
    record |= {"name": "Vessel Point", "case": "TH X", "direction": "X", "factor": 1.5}
    model = state["model"] | {"records": [record]}
    saved = lead.send("PUT", _path(clinic, "model/"), {"based_on": state["number"], "model": model})
    assert saved.status_code == 200
    run = _ask(lead, clinic, "history TH X").json()
    assert run["status"] == "done"
    # 240 cm/s2 times 1.5
    assert run["result"]["peak_ground"] == pytest.approx(3.6 / 9.80665)
    assert set(run["result"]["histories"]) >= {"t", "displacement"}
    assert _ask(lead, clinic, "history TH Y").status_code == 422
    assert _ask(lead, clinic, "anything").status_code == 422
