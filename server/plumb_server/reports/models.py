"""Issued reports, kept as they were signed, and the jobs that print them."""

from __future__ import annotations

import hashlib
import uuid

from django.conf import settings
from django.db import models

from plumb_server.reviews.models import Review
from plumb_server.reviews.numbers import NumberedQuerySet
from plumb_server.web.problems import Conflict


class Report(models.Model):
    """One issued report: the PDF, and the hash of the recheck it rests on."""

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="reports")
    number = models.PositiveIntegerField()
    pdf = models.BinaryField()
    sha256 = models.CharField(max_length=64)
    input_hash = models.CharField(max_length=64)
    issued_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    issued_at = models.DateTimeField(auto_now_add=True)

    objects = NumberedQuerySet.as_manager()

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["review", "number"], name="report_numbers")]

    def as_signed(self) -> bytes:
        """The PDF; raises Conflict where its sum is not that of what was signed."""
        data = bytes(self.pdf)
        if hashlib.sha256(data).hexdigest() != self.sha256:
            raise Conflict(
                f"report {self.number} differs from what was signed: its SHA-256 does not match",
                "Ask the operator to restore it from the backup.",
            )
        return data


class Printing(models.Model):
    """A report that is being set as PDF, to look at or to be issued; kept for a while, an issued report permanently."""

    class Status(models.TextChoices):
        QUEUED = "queued"
        PRINTING = "printing"
        DONE = "done"
        REFUSED = "refused"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="printings")
    asked_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    asked_at = models.DateTimeField(auto_now_add=True)
    basis = models.CharField(max_length=64)
    """hash of what was in the review when it was requested"""
    issues = models.BooleanField(default=False)
    status = models.CharField(max_length=10, choices=Status, default=Status.QUEUED)
    attempts = models.PositiveIntegerField(default=0)
    message = models.CharField(max_length=300, blank=True)
    remedy = models.CharField(max_length=300, blank=True)
    pdf = models.BinaryField(null=True)
    report = models.ForeignKey(Report, on_delete=models.CASCADE, null=True, related_name="+")

    class Meta:
        ordering = ["-asked_at"]

    @property
    def open(self) -> bool:
        """Whether it waits or runs."""
        return self.status in (Printing.Status.QUEUED, Printing.Status.PRINTING)
