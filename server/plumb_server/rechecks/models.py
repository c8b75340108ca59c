"""Rechecks, stored under what they were asked."""

from __future__ import annotations

from django.db import models

from plumb_server.reviews.models import Review


class Recheck(models.Model):
    """A run of the core, stored under the hash of its inputs and the engine's version."""

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="rechecks")
    input_hash = models.CharField(max_length=64)
    engine = models.CharField(max_length=20)
    result = models.JSONField()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["review", "input_hash"], name="a_question_once")]
