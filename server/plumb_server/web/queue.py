"""The queue of jobs: nobody's many jobs delay the first one of somebody else."""

from __future__ import annotations

from django.db import connection
from procrastinate.contrib.django import app

LEAST_PRIORITY = -1000


def defer(task: str, queue: str, lock: str, member: int | None, **arguments: str | int) -> None:
    """Put a job into the queue; who has jobs there already waits behind those who have fewer.

    Parameters
    ----------
    task, queue : by name
    lock : jobs of one lock are carried out one after another
    member : who the job is for; each job that they have open already lowers its priority
    arguments : of the task
    """
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT count(*) FROM procrastinate_jobs WHERE status IN ('todo', 'doing') AND queue_name = %s "
            "AND args->>'member' = %s",
            [queue, str(member)],
        )
        (waiting,) = cursor.fetchone() or (0,)
    priority = max(LEAST_PRIORITY, -waiting)
    app.configure_task(task, queue=queue, lock=lock, priority=priority).defer(**arguments, member=member)
