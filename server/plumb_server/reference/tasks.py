"""Jobs of the queue: runs of large models, and taking up what a worker that ended left behind."""

from __future__ import annotations

import logging

from procrastinate.contrib.django import app

from plumb_server.reference.models import Run
from plumb_server.reference.runs import QUEUE, TASK, carry_out

log = logging.getLogger(__name__)
SILENT = 10.0
"""s without a sign of life after which a worker counts as ended."""


@app.task(queue=QUEUE, name=TASK)
def carry_out_run(run: str, member: int | None = None) -> None:
    """Carry out a run; one that is done, cancelled or gone meanwhile is left alone."""
    waiting = Run.objects.filter(pk=run).first()
    if waiting is not None and waiting.open:
        carry_out(waiting)


async def requeue_stalled_jobs() -> int:
    """Put jobs of workers that ended in the middle back into the queue; how many there were."""
    manager = app.job_manager
    count = 0
    for job in await manager.get_stalled_jobs(seconds_since_heartbeat=SILENT):
        log.warning("job %s is taken up again: its worker ended", job.id)
        await manager.retry_job(job)
        count += 1
    return count
