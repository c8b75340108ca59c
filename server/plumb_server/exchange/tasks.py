"""Jobs of the queue: large exports that are imported."""

from __future__ import annotations

from procrastinate.contrib.django import app

from plumb_server.exchange.imports import QUEUE, TASK, carry_out_apart
from plumb_server.exchange.models import Import


@app.task(queue=QUEUE, name=TASK)
def carry_out_import(waiting: str, member: int | None = None) -> None:
    """Carry out an import; one that is done, refused or gone meanwhile is left alone."""
    found = Import.objects.filter(pk=waiting).first()
    if found is not None and found.open:
        carry_out_apart(found)
