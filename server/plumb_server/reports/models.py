"""Issued reports, kept as they were signed."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from plumb_server.reviews.models import Review
from plumb_server.reviews.numbers import NumberedQuerySet


class Report(models.Model):
    """One issued report: the PDF, and the hash of the recheck it rests on."""

    objects = NumberedQuerySet.as_manager()

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="reports")
    number = models.PositiveIntegerField()
    pdf = models.BinaryField()
    sha256 = models.CharField(max_length=64)
    input_hash = models.CharField(max_length=64)
    issued_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    issued_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["review", "number"], name="report_numbers")]
