"""The web application's page, for every address that is not the API's; and what monitors ask."""

from __future__ import annotations

import hmac
import os
import shutil
from typing import Any

from django.conf import settings
from django.core.files.storage import storages
from django.db import DatabaseError, connection
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from prometheus_client import CONTENT_TYPE_LATEST, REGISTRY, CollectorRegistry, generate_latest, multiprocess
from prometheus_client.core import GaugeMetricFamily

ALIVE_WITHIN = 60
"""s since a worker gave a sign of life."""
WAITS_TOO_LONG = 300
"""s that the oldest job may wait before it is stated."""
LEAST_DISK = 1_000_000_000
"""bytes"""


@ensure_csrf_cookie
def application(request: HttpRequest) -> HttpResponse:
    """Return the page of the web application."""
    page = settings.WEB / "index.html"
    if not page.is_file():
        return HttpResponse("The web application is not built; run bin/start.", status=503, content_type="text/plain")
    return HttpResponse(page.read_bytes(), headers={"Cache-Control": "no-cache"})


def _storage_responds() -> bool:
    """Whether the storage of exhibits answers, wherever it is."""
    try:
        storages["exhibits"].exists("nothing")
    except Exception:  # noqa: BLE001 - every kind of storage has failures of its own
        return False
    return True


def _state() -> dict[str, Any]:
    """Database, workers, queue and disk as they are; raises DatabaseError where the database does not respond."""
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT (SELECT count(*) FROM procrastinate_workers WHERE last_heartbeat > now() - "
            "make_interval(secs => %s)), "
            "count(*), COALESCE(max(extract(epoch FROM now() - at)), 0) FROM ("
            "SELECT (SELECT max(e.at) FROM procrastinate_events e WHERE e.job_id = j.id) AS at "
            "FROM procrastinate_jobs j WHERE j.status = 'todo') waiting",
            [ALIVE_WITHIN],
        )
        workers, waiting, oldest = cursor.fetchone()
    return {
        "workers": workers,
        "waiting": waiting,
        "oldest_s": round(float(oldest)),
        "storage": _storage_responds(),
        "disk_free": shutil.disk_usage(settings.EXHIBITS if settings.EXHIBITS.is_dir() else settings.ROOT).free,
    }


def health(request: HttpRequest) -> HttpResponse:
    """For a proxy or monitor: 503 where nothing works; 200 with what is wrong where something does not."""
    try:
        state = _state()
    except DatabaseError:
        return JsonResponse(
            {"status": "down", "database": "does not respond"}, status=503, headers={"Retry-After": "5"}
        )
    wrong = []
    if not state["workers"]:
        wrong.append("no worker is active: files are not read, reports are not printed")
    if state["oldest_s"] > WAITS_TOO_LONG:
        wrong.append(f"a job waits for {state['oldest_s']} s")
    if not state["storage"]:
        wrong.append("the storage of exhibits does not respond: files are neither taken nor shown")
    if state["disk_free"] < LEAST_DISK:
        wrong.append("the disk is nearly full")
    return JsonResponse({"status": "degraded" if wrong else "ok", "wrong": wrong, "database": "answers", **state})


class _State:
    """What `health` states, as metrics."""

    def collect(self) -> Any:
        for name, value in _state().items():
            yield GaugeMetricFamily(f"plumb_{name}", f"{name.replace('_', ' ')}, as /health/ reports it", value=value)


def metrics(request: HttpRequest) -> HttpResponse:
    """Prometheus metrics of all processes, for who shows the key."""
    shown = request.headers.get("Authorization", "").removeprefix("Bearer ")
    if not settings.METRICS_KEY or not hmac.compare_digest(shown.encode(), settings.METRICS_KEY.encode()):
        raise Http404
    registry = REGISTRY
    if "PROMETHEUS_MULTIPROC_DIR" in os.environ:
        registry = CollectorRegistry()
        multiprocess.MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    entry = CollectorRegistry()
    entry.register(_State())
    return HttpResponse(generate_latest(registry) + generate_latest(entry), content_type=CONTENT_TYPE_LATEST)
