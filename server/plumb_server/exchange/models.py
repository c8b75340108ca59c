"""Large exports that wait to be imported, or were."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models

from plumb_server.reviews.models import Review


class Import(models.Model):
    """An exported review that is imported by a job, for the person who sent it; its document lies in the storage."""

    class Status(models.TextChoices):
        QUEUED = "queued"
        RUNNING = "running"
        DONE = "done"
        REFUSED = "refused"
        FAILED = "failed"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    asked_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    asked_at = models.DateTimeField(auto_now_add=True)
    size = models.PositiveIntegerField()
    status = models.CharField(max_length=10, choices=Status, default=Status.QUEUED)
    attempts = models.PositiveIntegerField(default=0)
    review = models.ForeignKey(Review, on_delete=models.CASCADE, null=True, related_name="+")
    problems = models.JSONField(default=list)

    @property
    def open(self) -> bool:
        """Whether it waits or runs."""
        return self.status in (self.Status.QUEUED, self.Status.RUNNING)

    @property
    def place(self) -> str:
        """Name of its document in the storage of exhibits."""
        return f"imports/{self.pk}.json"
