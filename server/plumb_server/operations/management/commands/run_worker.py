"""`manage.py run_worker`: carries out the jobs of the queue; any number may run, on any number of machines."""

from __future__ import annotations

import asyncio
import contextlib
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from procrastinate.contrib.django import app

from plumb_server.reference.tasks import SILENT, requeue_stalled_jobs

LOOK_EVERY = 5.0
"""s between looks for jobs whose worker ended."""


async def _look() -> None:
    while True:
        await requeue_stalled_jobs()
        await asyncio.sleep(LOOK_EVERY)


async def _work() -> None:
    async with app.open_async():
        await _carry_on()


async def _carry_on() -> None:
    looking = asyncio.create_task(_look())
    try:
        await app.run_worker_async(
            queues=["runs", "readings", "reports", "causes", "imports", "notices"],
            # readings wait for processes of their own; a run is not delayed by those of one member
            concurrency=settings.READINGS_AT_ONCE + 2,
            update_heartbeat_interval=SILENT / 4,
            stalled_worker_timeout=10 * SILENT,
            fetch_job_polling_interval=2.0,
            # a pooler of transactions passes no notices on
            listen_notify=not settings.POOLED,
            shutdown_graceful_timeout=2.0,
            delete_jobs="successful",
        )
    finally:
        looking.cancel()
        with contextlib.suppress(asyncio.CancelledError):
            await looking


class Command(BaseCommand):
    help = "Carry out the jobs of the queue."

    def handle(self, *args: Any, **options: Any) -> None:
        with app.replace_connector(app.connector.get_worker_connector()):  # type: ignore[attr-defined]
            asyncio.run(_work())
