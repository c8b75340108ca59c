"""Issued reports, kept as they were signed, and the jobs that print them."""

from __future__ import annotations

import hashlib
import uuid

from django.conf import settings
from django.db import models

from plumb_server.reviews.models import Review
from plumb_server.reviews.numbers import NumberedQuerySet
from plumb_server.web.problems import Conflict


class Letterhead(models.Model):
    """The office's letterhead; there is one row."""

    ONLY = 1

    name = models.CharField(max_length=120, blank=True)
    lines = models.TextField(max_length=600, blank=True)
    """address and what else stands below the name"""
    footer = models.CharField(max_length=160, blank=True)
    """at the foot of each page"""
    logo = models.BinaryField(null=True)
    logo_type = models.CharField(max_length=20, blank=True)
    revision = models.PositiveIntegerField(default=0)

    class Meta:
        constraints = [models.CheckConstraint(condition=models.Q(pk=1), name="letterhead_once")]

    @classmethod
    def current(cls) -> Letterhead:
        """The row, or an empty one where nobody has written any."""
        return cls.objects.filter(pk=cls.ONLY).first() or cls(pk=cls.ONLY)


class ReportPlan(models.Model):
    """Which sections the report of a review has, and whether it requires two signatures."""

    review = models.OneToOneField(Review, on_delete=models.CASCADE, related_name="report_plan")
    sections = models.JSONField(default=list)
    """ids in their order; empty for all"""
    two_signatures = models.BooleanField(default=False)
    revision = models.PositiveIntegerField(default=1)


class Report(models.Model):
    """One issued report: the PDF, and the hash of the recheck it rests on."""

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="reports")
    number = models.PositiveIntegerField()
    pdf = models.BinaryField()
    sha256 = models.CharField(max_length=64)
    input_hash = models.CharField(max_length=64)
    issued_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    issued_at = models.DateTimeField(auto_now_add=True)
    certificate = models.CharField(max_length=300, blank=True)
    """subject of the certificate that the PDF is signed with; empty for a plain signed-by line"""
    two_signatures = models.BooleanField(default=False)
    """whether it counts only when it is countersigned"""

    objects = NumberedQuerySet.as_manager()

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["review", "number"], name="report_numbers")]

    @property
    def complete(self) -> bool:
        """Whether it has the signatures that it requires: before, only the team sees it."""
        return not self.two_signatures or hasattr(self, "countersignature")

    def as_signed(self) -> bytes:
        """The PDF; raises Conflict where its sum is not that of what was signed."""
        second = Countersignature.objects.filter(report=self, pdf__isnull=False).first()
        data = bytes((second or self).pdf or b"")
        if hashlib.sha256(data).hexdigest() != (second or self).sha256:
            raise Conflict(
                f"report {self.number} differs from what was signed: its SHA-256 does not match",
                "Ask the operator to restore it from the backup.",
            )
        return data


class Countersignature(models.Model):
    """The second signature of a report that requires two."""

    report = models.OneToOneField(Report, on_delete=models.CASCADE, related_name="countersignature")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    certificate = models.CharField(max_length=300, blank=True)
    pdf = models.BinaryField(null=True)
    """the report with both signatures; null where the second was given without a certificate"""
    sha256 = models.CharField(max_length=64, blank=True)


class Printing(models.Model):
    """A report that is being made, to look at or to be issued; kept for a while, an issued report permanently."""

    class Kind(models.TextChoices):
        REPORT = "report", "the report"
        LETTER = "letter", "a letter of the open findings"

    class Format(models.TextChoices):
        PDF = "pdf"
        DOCX = "docx"
        XLSX = "xlsx"

    class Status(models.TextChoices):
        QUEUED = "queued"
        PRINTING = "printing"
        TO_SIGN = "to_sign"
        DONE = "done"
        REFUSED = "refused"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="printings")
    asked_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    asked_at = models.DateTimeField(auto_now_add=True)
    basis = models.CharField(max_length=64)
    """hash of what was in the review when it was requested"""
    issues = models.BooleanField(default=False)
    with_certificate = models.BooleanField(default=False)
    """whether it waits for a certificate when it is set, which is used in a request and stored nowhere"""
    kind = models.CharField(max_length=10, choices=Kind, default=Kind.REPORT)
    format = models.CharField(max_length=4, choices=Format, default=Format.PDF)
    share = models.FloatField(default=0.0)
    """of the work that is done, 0 to 1"""
    status = models.CharField(max_length=10, choices=Status, default=Status.QUEUED)
    attempts = models.PositiveIntegerField(default=0)
    message = models.CharField(max_length=300, blank=True)
    remedy = models.CharField(max_length=300, blank=True)
    pdf = models.BinaryField(null=True)
    """what was made, in its format"""
    report = models.ForeignKey(Report, on_delete=models.CASCADE, null=True, related_name="+")

    class Meta:
        ordering = ["-asked_at"]

    @property
    def open(self) -> bool:
        """Whether it waits or runs."""
        return self.status in (Printing.Status.QUEUED, Printing.Status.PRINTING)
