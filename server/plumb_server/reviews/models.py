"""Reviews, their teams, briefs and the audit trail."""

from __future__ import annotations

import uuid
from typing import Any

from django.conf import settings
from django.db import models
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read

from plumb_server.accounts.models import Invitation, User
from plumb_server.web.problems import Conflict


class Role(models.TextChoices):
    """What a member may do; see product and `reviews.access`."""

    LEAD = "lead"
    REVIEWER = "reviewer"
    SUBMITTER = "submitter"
    READER = "reader"


class Review(models.Model):
    """One building under review."""

    class Status(models.TextChoices):
        OPEN = "open"
        CLOSED = "closed"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    title = models.CharField(max_length=120)
    place = models.CharField(max_length=120, blank=True)
    client = models.CharField(max_length=120, blank=True)
    description = models.TextField(blank=True, max_length=2000)
    status = models.CharField(max_length=10, choices=Status, default=Status.OPEN)
    created_at = models.DateTimeField(auto_now_add=True)
    revision = models.PositiveIntegerField(default=1)
    """counts the changes of these fields: each states which one it is based on"""
    origin = models.JSONField(null=True)
    """of a review that was imported: who exported it when, its people, audit trail and reports there"""
    members = models.ManyToManyField(settings.AUTH_USER_MODEL, through="Membership", related_name="reviews")

    class Meta:
        ordering = ["-created_at"]

    def __str__(self) -> str:
        return self.title

    def locked(self) -> Review:
        """The review's row, locked for the rest of the transaction; refused where the review is closed.

        Every change of what belongs to a review begins here: numbers are given out once, and nothing of a closed review
        changes.
        """
        review = Review.objects.select_for_update().get(pk=self.pk)
        if review.status == Review.Status.CLOSED:
            raise Conflict("the review is closed", "The lead can reopen it.")
        return review

    def record(self, actor: User, action: str, **detail: Any) -> None:
        """Leave an entry in the audit trail."""
        AuditEntry.objects.create(review=self, actor=actor, action=action, detail=detail)

    def current_brief(self) -> BriefRevision:
        """The current brief."""
        revision = self.briefs.first()
        assert revision is not None, "a review is created with its first brief"
        return revision

    def read_brief(self) -> Brief:
        """The brief as the core's model."""
        return read(Brief, self.current_brief().document)


class Membership(models.Model):
    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="team")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["review", "user"], name="one_role_per_member")]


class Place(models.Model):
    """A role in the team of a review that is held for somebody who is invited."""

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="places")
    role = models.CharField(max_length=10, choices=Role)
    invitation = models.ForeignKey(Invitation, on_delete=models.CASCADE, related_name="places")

    def __str__(self) -> str:
        return f"{self.review.title}, as {self.role}"

    def take(self, user: User) -> None:
        """Take the role up; a closed review takes nobody in any more."""
        review = self.review.locked()
        _, created = Membership.objects.get_or_create(review=review, user=user, defaults={"role": self.role})
        if created:
            review.record(user, "invitation accepted", member=user.email, role=self.role)


class OfficeThresholds(models.Model):
    """The office's thresholds of questions, as the core's documents have them; there is one row."""

    document = models.JSONField(default=dict)
    revision = models.PositiveIntegerField(default=0)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, null=True, related_name="+")
    updated_at = models.DateTimeField(auto_now=True, null=True)

    ONLY = 1

    class Meta:
        constraints = [models.CheckConstraint(condition=models.Q(pk=1), name="thresholds_once")]

    @classmethod
    def current(cls) -> OfficeThresholds:
        """The row, or one with the defaults where nobody has set any."""
        return cls.objects.select_related("author").filter(pk=cls.ONLY).first() or cls(pk=cls.ONLY)

    @classmethod
    def current_revision(cls) -> int:
        """The number of its last change, without what was set; 0 where nobody has set any."""
        return cls.objects.filter(pk=cls.ONLY).values_list("revision", flat=True).first() or 0

    @classmethod
    def locked(cls) -> OfficeThresholds:
        """The row, locked until the transaction ends."""
        cls.objects.get_or_create(pk=cls.ONLY)
        return cls.objects.select_for_update().get(pk=cls.ONLY)


class State(models.Model):
    """One state of a document of a review; the newest holds.  An undo is a new state that restores an earlier one."""

    review: models.ForeignKey[Review, Review]
    number = models.PositiveIntegerField()
    document = models.JSONField()
    undo_to = models.PositiveIntegerField(null=True)
    """number of the state that an undo restores; None for the first"""
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        abstract = True
        ordering = ["-number"]


class BriefRevision(State):
    """One state of a brief."""

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="briefs")

    class Meta(State.Meta):
        constraints = [models.UniqueConstraint(fields=["review", "number"], name="brief_numbers")]


class AuditEntry(models.Model):
    """Who did what when; a trigger of the database refuses changes to it."""

    review = models.ForeignKey(Review, on_delete=models.PROTECT, related_name="audit")
    actor = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    action = models.CharField(max_length=60)
    detail = models.JSONField(default=dict)

    class Meta:
        ordering = ["-id"]
