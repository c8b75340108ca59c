"""Rechecks, stored under what they were asked."""

from __future__ import annotations

import gzip
import uuid
from collections.abc import Iterable
from functools import cached_property
from typing import Any, Literal

import orjson
from django.db import models, transaction
from plumb_core import ENGINE
from plumb_core.checks.result import sheet_of
from plumb_core.derivation import derivation_of
from plumb_core.documents import results

from plumb_server.rechecks.pages import in_pages, whole
from plumb_server.reviews.models import Review
from plumb_server.submissions.models import Submission
from plumb_server.web.responses import dumped


class Recheck(models.Model):
    """A run of the core, stored under the hash of its inputs and the engine's version.

    Kept as the compressed bytes that are sent: a stored answer is neither read nor written anew.
    """

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="rechecks")
    submission = models.ForeignKey(Submission, on_delete=models.CASCADE, related_name="rechecks", null=True)
    input_hash = models.CharField(max_length=64)
    state = models.CharField(max_length=64, default="", db_index=True)
    """hash of which revisions it was asked of: the same state need not be read to be known"""
    engine = models.CharField(max_length=20)
    sheet_gz = models.BinaryField()
    """the core's `Sheet` as JSON, gzip; of a large one with the checks that are seen first"""
    steps_gz = models.BinaryField()
    """the core's `Steps` as JSON, gzip"""
    causes_gz = models.BinaryField(null=True)
    """the core's `Causes` as JSON, gzip; null until somebody looks at them"""
    summary = models.JSONField(null=True)
    """what the list of reviews draws of it: the marks of its small line"""
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["review", "input_hash"], name="a_question_once")]

    @staticmethod
    def store(
        review: Review, submission: Submission | None, input_hash: str, state: str, result: results.RecheckResult
    ) -> Recheck:
        """Keep a result of the core.

        Where another request keeps the same at the same time, both have the same answer and one of them is kept.
        """
        sheet, pages = in_pages(sheet_of(result), input_hash)
        fresh = Recheck(
            review=review,
            submission=submission,
            input_hash=input_hash,
            state=state,
            engine=ENGINE,
            summary={"marks": _marks(result["checks"])},
            sheet_gz=_packed(sheet),
            steps_gz=_packed(result["steps"]),
        )
        rest = [SheetPage(number=number, checks_gz=_packed(page)) for number, page in enumerate(pages, 1)]
        # a sheet is never seen without its pages
        with transaction.atomic():
            Recheck.objects.bulk_create([fresh], ignore_conflicts=True)
            kept = Recheck.objects.defer(*STORED).get(review=review, input_hash=input_hash)
            for page in rest:
                page.recheck = kept
            SheetPage.objects.bulk_create(rest, ignore_conflicts=True)
        kept.sheet_gz, kept.steps_gz = fresh.sheet_gz, fresh.steps_gz
        return kept

    def store_causes(self, causes: results.CausesResult) -> None:
        """Keep the causes of its deviations."""
        self.causes_gz = _packed(causes)
        self.save(update_fields=["causes_gz"])

    @property
    def sheet_json(self) -> bytes:
        """The sheet as JSON; of a large one with the checks that are seen first."""
        return gzip.decompress(self.sheet_gz)

    @cached_property
    def sheet(self) -> dict[str, Any]:
        """The core's `Sheet`, whole."""
        return dict(whole(orjson.loads(self.sheet_json), (page.read() for page in self.pages.order_by("number"))))

    def derivation(self, side: Literal["independent", "carried"], step: str) -> list[results.StepResult]:
        """The steps that a value of a side rests on, inputs first, itself last; empty where there is no such step."""
        return derivation_of(self.steps[side], step)

    @property
    def steps(self) -> results.Steps:
        """The core's `Steps`."""
        return orjson.loads(gzip.decompress(self.steps_gz))  # type: ignore[no-any-return]


MOST_MARKS = 40


def _marks(checks: Iterable[results.CheckResult]) -> list[dict[str, Any]]:
    """Where deviations start and limits are not met, the furthest from the line first."""
    out = [c for c in checks if c["role"] == "origin" or c["verdict"] == "breaches"]
    out.sort(key=lambda c: -abs(c["multiples"] or 0.0))
    return [{part: c[part] for part in ("stage", "verdict", "multiples")} for c in out[:MOST_MARKS]]


STORED = ("sheet_gz", "steps_gz", "causes_gz")
"""What is read only when it is required."""


class SheetPage(models.Model):
    """Checks of a large sheet that are sent apart, compressed as they are sent."""

    recheck = models.ForeignKey(Recheck, on_delete=models.CASCADE, related_name="pages")
    number = models.PositiveIntegerField()
    """from 1"""
    checks_gz = models.BinaryField()
    """the core's `CheckPage` as JSON, gzip"""

    class Meta:
        constraints = [models.UniqueConstraint(fields=["recheck", "number"], name="a_page_once")]

    def read(self) -> results.CheckPage:
        """The checks of the page."""
        return orjson.loads(gzip.decompress(self.checks_gz))  # type: ignore[no-any-return]


class CauseSearch(models.Model):
    """The search for the causes of a large recheck, as a job: how far it is, and whether it should stop.

    What it finds is kept with the recheck.
    """

    class Status(models.TextChoices):
        QUEUED = "queued"
        RUNNING = "running"
        DONE = "done"
        STOPPED = "stopped"
        FAILED = "failed"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    recheck = models.OneToOneField(Recheck, on_delete=models.CASCADE, related_name="search")
    status = models.CharField(max_length=10, choices=Status, default=Status.QUEUED)
    share = models.FloatField(default=0.0)
    """of the work that is done, 0 to 1"""
    attempts = models.PositiveIntegerField(default=0)

    @property
    def open(self) -> bool:
        """Whether it waits or runs."""
        return self.status in (self.Status.QUEUED, self.Status.RUNNING)


def _packed(document: Any) -> bytes:
    return gzip.compress(dumped(document), compresslevel=4, mtime=0)
