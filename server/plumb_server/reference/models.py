"""The reviewer's reference model of a building in its states, and the runs that ask it."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models

from plumb_server.reviews.models import Review, State


class ModelRevision(State):
    """One state of a review's reference model."""

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="model_revisions")

    class Meta(State.Meta):
        constraints = [models.UniqueConstraint(fields=["review", "number"], name="model_numbers")]


class Run(models.Model):
    """A question to a review's reference model and its answer.

    Kept under the hash of the question and the engine's version.

    A run that is not finished when its worker ends is taken up again by the next one; nothing but time is lost.
    """

    class Status(models.TextChoices):
        QUEUED = "queued"
        RUNNING = "running"
        DONE = "done"
        REFUSED = "refused"
        CANCELLED = "cancelled"
        FAILED = "failed"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="runs", null=True)
    asked_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="runs", null=True)
    """who sees a run that belongs to no review.

    A request of the headless contract that is too large to be solved at once.
    """
    kind = models.CharField(max_length=80)
    input_hash = models.CharField(max_length=64)
    engine = models.CharField(max_length=20)
    request = models.JSONField()
    status = models.CharField(max_length=10, choices=Status, default=Status.QUEUED)
    phase = models.CharField(max_length=60, blank=True)
    share = models.FloatField(default=0.0)
    """of the work that is done, 0 to 1"""
    cancel = models.BooleanField(default=False)
    """somebody requested it to stop"""
    attempts = models.PositiveIntegerField(default=0)
    result = models.JSONField(null=True)
    problems = models.JSONField(default=list)
    created_at = models.DateTimeField(auto_now_add=True)
    seen_at = models.DateTimeField(auto_now=True)
    """last sign of life"""
    finished_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-created_at"]
        constraints = [
            models.UniqueConstraint(
                fields=["review", "asked_by", "input_hash"], name="a_run_once", nulls_distinct=False
            )
        ]

    @property
    def open(self) -> bool:
        return self.status in (self.Status.QUEUED, self.Status.RUNNING)


def current_model(review: Review) -> ModelRevision | None:
    """The reviewer's reference model in its present state, None where there is none yet."""
    return review.model_revisions.first()
