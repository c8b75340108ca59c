"""Reading exhibits: in the background, each in a process of its own within limits of memory and time, with progress."""

from __future__ import annotations

import time
from typing import Any

from django.conf import settings
from django.db import transaction
from plumb_core.intake.reader import read_whole
from plumb_core.intake.sheet_documents import sheets_of, summary_of
from plumb_core.intake.sheets import Sheet

from plumb_server.submissions import contents
from plumb_server.submissions.models import Exhibit, ExhibitReading
from plumb_server.web.problems import Conflict, UnprocessableContent
from plumb_server.web.queue import defer
from plumb_server.web.reader_process import read_in_process

QUEUE, TASK = "readings", "read_exhibit"
MOST_ATTEMPTS = 3
"""Times that a reading is begun; a file that ends its worker is not begun for ever."""
NOTE_EVERY = 0.4
"""s between notes of progress."""
REGION_SECONDS = 15
"""s that a region of a page may take."""

Status = ExhibitReading.Status


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
            # as many files of a member at a time as there are cores: a hundred of one do not hold up those of others
            lock = f"{QUEUE} of {exhibit.author_id}, {exhibit.pk % settings.READINGS_AT_ONCE}"
            defer(TASK, QUEUE, lock, exhibit.author_id, exhibit=exhibit.pk)
    if settings.JOBS_AT_ONCE:
        carry_out(reading, apart=False)
    return reading


def read_by_this_engine(exhibit: Exhibit) -> None:
    """Begin the reading of an exhibit that was read by an earlier engine, or never.

    It is read again when it is opened.
    """
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
    """Read an exhibit and store its tables, or the reason why there are none.

    apart : in a process of its own within limits; files of the demo and of tests need none
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
            data = contents.contents(exhibit.sha256)
            reported = read_in_process(data, exhibit.name, settings.READING_SECONDS, progress=_Noter(reading))
        else:
            reported = read_whole(contents.contents(exhibit.sha256), exhibit.name)
    except Stopped:
        return
    if "tables" not in reported:
        _end(reading, Status.REFUSED, reported["refused"]["message"], reported["refused"]["remedy"])
        return
    contents.keep_read(exhibit.sha256, exhibit.name, reported["tables"])
    reading.tables, reading.pages = summary_of(reported["tables"]), len(reported["tables"]["pages"])
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
    reported = read_in_process(contents.contents(exhibit.sha256), exhibit.name, REGION_SECONDS, label)
    if "tables" not in reported:
        raise UnprocessableContent([{"path": "/sheet", **reported["refused"]}])
    reading = ExhibitReading.objects.filter(exhibit=exhibit).first()
    if reading is not None:
        reading.regions = reading.regions | {label: reported["tables"]["pages"][0]["tables"][0]}
        reading.save(update_fields=["regions"])
    return sheets_of(reported["tables"])[0]
