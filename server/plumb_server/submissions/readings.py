"""Reading exhibits: never in the request, in a process of its own within limits of memory and time, with progress."""

from __future__ import annotations

import json
import re
import subprocess
import sys
import tempfile
import threading
import time
from typing import IO, Any

from django.conf import settings
from django.db import transaction
from plumb_core.intake.reader import read_whole
from plumb_core.intake.sheet_documents import sheets_of, summary_of
from plumb_core.intake.sheets import Sheet
from procrastinate.contrib.django import app

from plumb_server.submissions import contents
from plumb_server.submissions.models import Exhibit, ExhibitReading
from plumb_server.web.problems import Conflict, UnprocessableContent

QUEUE, TASK = "readings", "read_exhibit"
MOST_ATTEMPTS = 3
"""Times that a reading is begun; a file that ends its worker is not begun for ever."""
NOTE_EVERY = 0.4
"""s between notes of progress."""
REGION_SECONDS = 15
"""s that a region of a page may take."""

Status = ExhibitReading.Status
_PAGE = re.compile(rb"page (\d+) of (\d+)")


class Stopped(Exception):
    """Somebody requested the reading to stop."""


def begin(exhibit: Exhibit) -> ExhibitReading:
    """Put the reading of an exhibit into the queue; one that waits, runs or is done stays as it is."""
    with transaction.atomic():
        reading, created = ExhibitReading.objects.select_for_update().get_or_create(exhibit=exhibit)
        done = reading.status == Status.READ and contents.reading_of(exhibit.sha256, exhibit.name) is not None
        if not created and (reading.open or done):
            return reading
        reading.status, reading.share, reading.phase, reading.attempts = Status.QUEUED, 0.0, "", 0
        reading.message = reading.remedy = ""
        reading.save()
        if not settings.JOBS_AT_ONCE:
            # one of a member's files at a time: those of others do not wait for a hundred of one
            app.configure_task(TASK, queue=QUEUE, lock=f"{QUEUE} of {exhibit.author_id}").defer(exhibit=exhibit.pk)
    if settings.JOBS_AT_ONCE:
        carry_out(reading, apart=False)
    return reading


def read_by_this_engine(exhibit: Exhibit) -> None:
    """Begin the reading of an exhibit that was read by an earlier engine, or never: it is read again when it is opened."""
    reading = ExhibitReading.objects.filter(exhibit=exhibit).first()
    unread = reading is None or reading.status == Status.READ
    if unread and not exhibit.pasted and contents.reading_of(exhibit.sha256, exhibit.name) is None:
        begin(exhibit)
        exhibit.refresh_from_db()


def stop(exhibit: Exhibit) -> ExhibitReading:
    """Stop a reading; one that is done stays as it is."""
    ExhibitReading.objects.filter(exhibit=exhibit, status__in=(Status.QUEUED, Status.READING)).update(
        status=Status.STOPPED, message="the reading was stopped", remedy="Read the file again."
    )
    return ExhibitReading.objects.get(exhibit=exhibit)


def carry_out(reading: ExhibitReading, *, apart: bool = True) -> None:
    """Read an exhibit and keep what came of it, or why nothing did.

    apart : in a process of its own within limits; files of ours, of the demo and of tests, need none
    """
    exhibit = reading.exhibit
    reading.attempts += 1
    if reading.attempts > MOST_ATTEMPTS:
        _end(reading, Status.REFUSED, "reading the file stopped its worker three times", "Upload only the tables.")
        return
    reading.status = Status.READING
    reading.save(update_fields=["status", "attempts"])
    try:
        if apart:
            reported = _in_a_process(exhibit.sha256, [exhibit.name], settings.READING_SECONDS, _Noter(reading))
        else:
            reported = read_whole(contents.contents(exhibit.sha256), exhibit.name)
    except Stopped:
        return
    if "kept" not in reported:
        _end(reading, Status.REFUSED, reported["refused"]["message"], reported["refused"]["remedy"])
        return
    contents.keep_read(exhibit.sha256, exhibit.name, reported["kept"])
    reading.tables, reading.pages = summary_of(reported["kept"]), len(reported["kept"]["pages"])
    _end(reading, Status.READ, "", "")


def _end(reading: ExhibitReading, status: ExhibitReading.Status, message: str, remedy: str) -> None:
    reading.status, reading.message, reading.remedy = status, message[:300], remedy[:300]
    reading.share, reading.phase = 1.0, ""
    reading.save()


class _Noter:
    """Notes how far a reading is, now and then, and stops it where somebody requested that."""

    def __init__(self, reading: ExhibitReading):
        self.reading, self.last = reading, 0.0

    def __call__(self, page: int, pages: int) -> None:
        now = time.monotonic()
        if now - self.last < NOTE_EVERY:
            return
        self.last = now
        running = ExhibitReading.objects.filter(pk=self.reading.pk, status=Status.READING)
        noted = running.update(share=page / pages if pages else 0.0, phase=f"page {page} of {pages}" if pages else "")
        if not noted:
            raise Stopped


def _in_a_process(sha256: str, arguments: list[str], seconds: int, note: _Noter | None = None) -> dict[str, Any]:
    """What the reader of the core describes a file, in a process of its own; ends it where it takes too long or is stopped."""
    command = [sys.executable, "-m", "plumb_core.intake.reader", "--memory", str(settings.READING_MEMORY)]
    command += ["--seconds", str(seconds), *arguments]
    with tempfile.TemporaryFile() as used, tempfile.TemporaryFile() as out:
        used.write(contents.contents(sha256))
        used.seek(0)
        with subprocess.Popen(command, stdin=used, stdout=out, stderr=subprocess.PIPE) as process:
            at = _Place(process.stderr)
            deadline = time.monotonic() + 2 * seconds
            try:
                while process.poll() is None:
                    if time.monotonic() > deadline:
                        process.kill()
                    if note is not None:
                        note(at.page, at.pages)
                    time.sleep(0.05)
            except BaseException:
                process.kill()
                raise
        out.seek(0)
        text = out.read()
    try:
        reported: dict[str, Any] = json.loads(text)
    except ValueError:
        # it was ended at one of its limits
        words = "reading this file exceeds the limit of time or memory"
        return {"refused": {"message": words, "remedy": "Upload only the tables, or the pages that have them."}}
    return reported


class _Place:
    """How far a reader is, by the lines that it writes."""

    def __init__(self, lines: IO[bytes] | None):
        self.page = self.pages = 0
        self.lines = lines
        threading.Thread(target=self._follow, daemon=True).start()

    def _follow(self) -> None:
        for line in self.lines or ():
            if match := _PAGE.search(line):
                self.page, self.pages = int(match.group(1)), int(match.group(2))


def read_document(exhibit: Exhibit) -> dict[str, Any]:
    """What was read from an exhibit; raises where it is still being read, or cannot be."""
    reading = ExhibitReading.objects.filter(exhibit=exhibit).first()
    known = contents.reading_of(exhibit.sha256, exhibit.name)
    if reading is None or (reading.status == Status.READ and known is None):
        reading = begin(exhibit)
        known = contents.reading_of(exhibit.sha256, exhibit.name)
    if reading.status == Status.REFUSED:
        raise UnprocessableContent([{"path": "/file", "message": reading.message, "remedy": reading.remedy}])
    if reading.status == Status.STOPPED:
        raise Conflict(reading.message, reading.remedy)
    if known is None:
        raise Conflict(f"{exhibit.name} is still being read", "Wait until it is read.")
    return known


def sheets_read(exhibit: Exhibit) -> list[Sheet]:
    """The tables of an exhibit."""
    return sheets_of(read_document(exhibit))


def region_read(exhibit: Exhibit, label: str) -> Sheet:
    """What is in a region of a page, as a table; raises UnprocessableContent where there is none."""
    reported = _in_a_process(exhibit.sha256, [exhibit.name, "--region", label], REGION_SECONDS)
    if "kept" not in reported:
        raise UnprocessableContent([{"path": "/sheet", **reported["refused"]}])
    reading = ExhibitReading.objects.filter(exhibit=exhibit).first()
    if reading is not None:
        reading.regions = reading.regions | {label: reported["kept"]["pages"][0]["tables"][0]}
        reading.save(update_fields=["regions"])
    return sheets_of(reported["kept"])[0]
