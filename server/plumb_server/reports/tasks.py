"""Jobs of the queue: reports that are printed."""

from __future__ import annotations

from procrastinate.contrib.django import app

from plumb_server.reports.models import Printing
from plumb_server.reports.printing import QUEUE, TASK, carry_out


@app.task(queue=QUEUE, name=TASK)
def print_report(printing: str, member: int | None = None) -> None:
    """Print a report; one that is done, refused or gone meanwhile is left alone."""
    waiting = Printing.objects.filter(pk=printing).first()
    if waiting is not None and waiting.open:
        carry_out(waiting)
