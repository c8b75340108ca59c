"""Imports of large exports: kept as they come, and read by a process of its own, which gives its memory back."""

from __future__ import annotations

import subprocess
import sys
from datetime import timedelta
from typing import IO

from django.conf import settings
from django.core.files.base import File
from django.core.files.storage import storages
from django.db import transaction
from django.utils import timezone
from plumb_core.errors import InputRefused
from rest_framework.exceptions import Throttled

from plumb_server.accounts.models import User
from plumb_server.exchange.models import Import
from plumb_server.exchange.services import import_review
from plumb_server.web.queue import defer
from plumb_server.web.requests import plain_json

QUEUE, TASK = "imports", "carry_out_import"
AT_ONCE = 4_000_000
"""Bytes of a document that is imported within the request."""
MOST_ATTEMPTS = 2
MOST_WAITING = 3
"""Imports of one person that may wait or run."""
LONGEST = timedelta(minutes=10)
RETENTION = timedelta(days=7)
"""How long it is stored what became of an import."""
Status = Import.Status


def begin(user: User, document: IO[bytes], size: int) -> Import:
    """Keep a document as it comes, and put its import into the queue."""
    if Import.objects.filter(asked_by=user, status__in=(Status.QUEUED, Status.RUNNING)).count() >= MOST_WAITING:
        raise Throttled(60, f"{MOST_WAITING} of your imports are not done yet; start the next one when they are")
    waiting = Import(asked_by=user, size=size)
    with document:
        storages["exhibits"].save(waiting.place, File(document))
    with transaction.atomic():
        waiting.save()
        if not settings.JOBS_AT_ONCE:
            defer(TASK, QUEUE, f"{QUEUE} of {user.pk}", user.pk, waiting=str(waiting.pk))
    if settings.JOBS_AT_ONCE:
        carry_out(waiting)
        waiting.refresh_from_db()
    return waiting


def carry_out_apart(waiting: Import) -> None:
    """Import in a process of its own: what a large document takes is given back when it ends."""
    if waiting.attempts >= MOST_ATTEMPTS:
        _fail(waiting, "the import stopped its process twice", "Contact the operator.")
        return
    # the process of a worker that ended may be at it still: this waits for it, and finds nothing left to do then
    begun = Import.objects.filter(pk=waiting.pk, status__in=(Status.QUEUED, Status.RUNNING))
    if not begun.update(attempts=waiting.attempts + 1, status=Status.RUNNING):
        return
    command = [sys.executable, str(settings.ROOT / "server" / "manage.py"), "carry_out_import", str(waiting.pk)]
    try:
        done = subprocess.run(command, timeout=LONGEST.total_seconds(), check=False)
    except subprocess.TimeoutExpired:
        _fail(waiting, "the import takes too long", "Export the review with fewer values.")
        return
    if done.returncode:
        _fail(waiting, "the import failed unexpectedly", "Try again, or contact the operator.")


@transaction.atomic
def _fail(waiting: Import, message: str, remedy: str) -> None:
    """Say why an import failed, unless a process of it was done after all."""
    stored = Import.objects.select_for_update().get(pk=waiting.pk)
    if stored.open:
        _end(stored, Status.FAILED, message, remedy)


def carry_out(waiting: Import) -> None:
    """Import a document that waits, all of it or nothing, and once: the row is locked until it is done."""
    with transaction.atomic():
        stored = Import.objects.select_for_update(of=("self",)).select_related("asked_by").get(pk=waiting.pk)
        if stored.open:
            _carry_out(stored)


def _carry_out(waiting: Import) -> None:
    with storages["exhibits"].open(waiting.place) as file:
        body = file.read()
    try:
        review = import_review(waiting.asked_by, plain_json(body))
    except InputRefused as refused:
        waiting.problems = [problem.as_json() for problem in refused.problems]
        _end(waiting, Status.REFUSED)
        return
    except ValueError as unreadable:
        _end(waiting, Status.REFUSED, str(unreadable), "Export the review again.")
        return
    waiting.review = review
    _end(waiting, Status.DONE)


def _end(waiting: Import, status: Import.Status, message: str = "", remedy: str = "") -> None:
    waiting.status = status
    if message:
        waiting.problems = [{"path": "/", "message": message, "remedy": remedy}]
    waiting.save()
    transaction.on_commit(lambda: storages["exhibits"].delete(waiting.place))


def tidy() -> None:
    """Forget what became of imports a while ago, and their documents."""
    for old in Import.objects.filter(asked_at__lt=timezone.now() - RETENTION):
        storages["exhibits"].delete(old.place)
        old.delete()
