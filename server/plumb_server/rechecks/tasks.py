"""Jobs of the queue: searches for causes of large rechecks."""

from __future__ import annotations

from procrastinate.contrib.django import app

from plumb_server.rechecks.models import CauseSearch
from plumb_server.rechecks.searches import QUEUE, TASK, carry_out


@app.task(queue=QUEUE, name=TASK)
def find_causes(search: str, member: int | None = None) -> None:
    """Carry out a search; one that is done, stopped or gone meanwhile is left alone."""
    waiting = CauseSearch.objects.filter(pk=search).first()
    if waiting is not None and waiting.open:
        carry_out(waiting)
