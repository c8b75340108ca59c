"""Findings: numbered remarks with the checks they rest on, their thread and status."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from plumb_server.reviews.models import Review, Submission


class Finding(models.Model):
    class Severity(models.TextChoices):
        MUST = "must", "must be answered"
        SHOULD = "should", "should be answered"
        NOTE = "note", "for the record"

    class Status(models.TextChoices):
        DRAFT = "draft"
        ISSUED = "issued"
        ANSWERED = "answered"
        SETTLED = "settled"
        WITHDRAWN = "withdrawn"

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="findings")
    number = models.PositiveIntegerField()
    severity = models.CharField(max_length=10, choices=Severity, default=Severity.MUST)
    status = models.CharField(max_length=10, choices=Status, default=Status.DRAFT)
    title = models.CharField(max_length=200)
    clause = models.CharField(max_length=200, blank=True)
    text = models.TextField(max_length=5000)
    checks = models.JSONField(default=list)
    """ids of the checks it rests on"""
    evidence = models.JSONField(default=list)
    """those checks as they stood when the finding was filed, the first with its derivation"""
    submission = models.ForeignKey(Submission, on_delete=models.PROTECT, null=True, related_name="findings")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["review", "number"], name="finding_numbers")]


class Message(models.Model):
    """One contribution to a finding's thread."""

    finding = models.ForeignKey(Finding, on_delete=models.CASCADE, related_name="thread")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    text = models.TextField(max_length=5000)

    class Meta:
        ordering = ["id"]
