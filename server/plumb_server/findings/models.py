"""Findings: numbered remarks with the checks they rest on, their thread and status."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.conf import settings
from django.db import models
from django.utils import timezone

from plumb_server.reviews.models import Review
from plumb_server.reviews.numbers import NumberedQuerySet
from plumb_server.submissions.models import Exhibit, Submission
from plumb_server.web.problems import Conflict

if TYPE_CHECKING:
    from plumb_server.reviews.access import Access


class FindingQuerySet(NumberedQuerySet):
    def visible_to(self, entry: Access) -> FindingQuerySet:
        """Those that a member sees; outside of the team nobody sees a draft, or what was withdrawn."""
        return self if entry.on_team else self.filter(status__in=Finding.VISIBLE_OUTSIDE)

    def unsettled(self) -> FindingQuerySet:
        """Those that still wait for something."""
        return self.exclude(status__in=Finding.CLOSED)


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

    NEXT = {
        Status.DRAFT: (Status.ISSUED, Status.WITHDRAWN),
        Status.ISSUED: (Status.ANSWERED, Status.SETTLED, Status.WITHDRAWN),
        Status.ANSWERED: (Status.ISSUED, Status.SETTLED, Status.WITHDRAWN),
        Status.SETTLED: (Status.ISSUED,),
        Status.WITHDRAWN: (Status.DRAFT,),
    }
    """Which states follow which."""
    CLOSED = (Status.SETTLED, Status.WITHDRAWN)
    VISIBLE_OUTSIDE = (Status.ISSUED, Status.ANSWERED, Status.SETTLED)
    """States in which the submitter and readers see a finding."""

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
    """those checks as they was when the finding was filed, the first with its derivation"""
    submission = models.ForeignKey(Submission, on_delete=models.PROTECT, null=True, related_name="findings")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)
    origin = models.JSONField(null=True)
    """of a finding that was imported.

    Who filed it when, and which of its checks the recheck here says otherwise (`differs`) or
    not at all (`unknown`)"""
    issued_at = models.DateTimeField(null=True)
    """when it was issued first; set by the database, which then keeps its text as it is"""
    revision = models.PositiveIntegerField(default=1)
    """counts its changes: each states which one it is based on"""
    assignee = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")
    """who acts next"""
    due = models.DateField(null=True)
    merged_into = models.ForeignKey("self", on_delete=models.PROTECT, null=True, related_name="merged")

    objects = FindingQuerySet.as_manager()

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["review", "number"], name="finding_numbers")]

    @property
    def all_checks(self) -> list[str]:
        """Ids of the checks that it rests on, those that were linked later last."""
        return [*self.checks, *(link.check_id for link in self.further.all())]

    @property
    def next_states(self) -> list[str]:
        """The states that it can be moved to."""
        if self.status == self.Status.WITHDRAWN and self.issued_at is not None:
            # others have seen it under its number: it comes back as it was, or another finding is written
            return [str(self.Status.ISSUED)]
        return [str(status) for status in self.NEXT[self.Status(self.status)]]

    def move_to(self, status: str) -> None:
        """Move on to another state, not saved yet; refused where it does not follow."""
        if status not in self.next_states:
            raise Conflict(
                f"a finding that is {self.status} cannot become {status}",
                f"It can become: {', '.join(self.next_states)}.",
                "/status",
            )
        self.status = status
        if status == self.Status.ISSUED and self.issued_at is None:
            self.issued_at = timezone.now()


class Message(models.Model):
    """One contribution to a finding's thread."""

    finding = models.ForeignKey(Finding, on_delete=models.CASCADE, related_name="thread")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    text = models.TextField(max_length=5000)

    class Meta:
        ordering = ["id"]


class FurtherCheck(models.Model):
    """A check that was linked to a finding after it was filed, as it was then."""

    finding = models.ForeignKey(Finding, on_delete=models.CASCADE, related_name="further")
    check_id = models.CharField(max_length=200)
    evidence = models.JSONField()
    submission = models.ForeignKey(Submission, on_delete=models.PROTECT, null=True, related_name="+")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["finding", "check_id"], name="a_further_check_once")]


class Attachment(models.Model):
    """A picture of a finding, or a marked region of a page of an exhibit."""

    finding = models.ForeignKey(Finding, on_delete=models.CASCADE, related_name="attachments")
    name = models.CharField(max_length=200)
    media_type = models.CharField(max_length=40, blank=True)
    """of a picture; empty for a region"""
    data = models.BinaryField(null=True)
    sha256 = models.CharField(max_length=64, blank=True)
    exhibit = models.ForeignKey(Exhibit, on_delete=models.PROTECT, null=True, related_name="+")
    page = models.PositiveIntegerField(null=True)
    """of the exhibit, from 1"""
    region = models.JSONField(null=True)
    """left, top, right, bottom as shares of the page"""
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]


class Remark(models.Model):
    """A text of the office's library, with placeholders for the values of the check that it is used for."""

    code = models.CharField(max_length=20, blank=True)
    """of the catalogue's test that it belongs to; empty for any"""
    title = models.CharField(max_length=200)
    text = models.TextField(max_length=5000)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    changed_at = models.DateTimeField(auto_now=True)
    revision = models.PositiveIntegerField(default=1)

    class Meta:
        ordering = ["code", "title", "id"]
        constraints = [models.UniqueConstraint(fields=["code", "title"], name="a_remark_once")]
