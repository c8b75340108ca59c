"""Jobs of the queue: files that are read."""

from __future__ import annotations

from procrastinate.contrib.django import app

from plumb_server.submissions.models import ExhibitReading
from plumb_server.submissions.readings import QUEUE, TASK, carry_out


@app.task(queue=QUEUE, name=TASK)
def read_exhibit(exhibit: int, member: int | None = None) -> None:
    """Read an exhibit; one that is read, stopped or gone meanwhile is left alone."""
    reading = ExhibitReading.objects.filter(pk=exhibit).first()
    if reading is not None and reading.open:
        carry_out(reading)
