"""Reviews, their teams, briefs, submissions, claims, rechecks and the audit trail."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models


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
    members = models.ManyToManyField(settings.AUTH_USER_MODEL, through="Membership", related_name="reviews")

    class Meta:
        ordering = ["-created_at"]

    def __str__(self) -> str:
        return self.title


class Membership(models.Model):
    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="team")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["review", "user"], name="one_role_per_member")]


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


class Submission(models.Model):
    """One revision handed in; immutable once accepted (a trigger of the database sees to it)."""

    class Status(models.TextChoices):
        DRAFT = "draft"
        ACCEPTED = "accepted"

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="submissions")
    number = models.PositiveIntegerField()
    status = models.CharField(max_length=10, choices=Status, default=Status.DRAFT)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    accepted_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["review", "number"], name="submission_numbers")]

    @property
    def label(self) -> str:
        return f"S{self.number}"


class ExhibitManager(models.Manager["Exhibit"]):
    def get_queryset(self) -> models.QuerySet[Exhibit]:
        # contents can be many megabytes; they are fetched when they are asked for
        return super().get_queryset().defer("data")


class Exhibit(models.Model):
    """A file or pasted block of a submission, byte for byte."""

    objects = ExhibitManager()

    submission = models.ForeignKey(Submission, on_delete=models.CASCADE, related_name="exhibits")
    name = models.CharField(max_length=200)
    data = models.BinaryField()
    size = models.PositiveIntegerField()
    sha256 = models.CharField(max_length=64)
    pasted = models.BooleanField(default=False)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["submission", "sha256"], name="an_exhibit_once")]


class ClaimTable(models.Model):
    """A table that was read from an exhibit and accepted: how it was read, and the claims it gave."""

    exhibit = models.ForeignKey(Exhibit, on_delete=models.CASCADE, related_name="tables")
    kind = models.CharField(max_length=20)
    sheet = models.CharField(max_length=120)
    mapping = models.JSONField()
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]


class Claim(models.Model):
    """One submitted value with its provenance; fields as in the core's documents."""

    table = models.ForeignKey(ClaimTable, on_delete=models.CASCADE, related_name="claims")
    submission = models.ForeignKey(Submission, on_delete=models.CASCADE, related_name="claims")
    quantity = models.CharField(max_length=30)
    direction = models.CharField(max_length=1, blank=True)
    story = models.CharField(max_length=60, blank=True)
    point = models.IntegerField(null=True)
    case = models.CharField(max_length=60, blank=True)
    number = models.FloatField(null=True)
    text = models.CharField(max_length=60)
    unit = models.CharField(max_length=20, blank=True)
    scale = models.FloatField(default=1.0)
    row = models.PositiveIntegerField(null=True)
    column = models.CharField(max_length=4, blank=True)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(
                fields=["submission", "quantity", "direction", "story", "point", "case"],
                name="a_value_is_claimed_once",
                nulls_distinct=False,
            )
        ]


class Recheck(models.Model):
    """A run of the core, stored under the hash of its inputs and the engine's version."""

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="rechecks")
    input_hash = models.CharField(max_length=64)
    engine = models.CharField(max_length=20)
    result = models.JSONField()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["review", "input_hash"], name="a_question_once")]


class AuditEntry(models.Model):
    """Who did what when; a trigger of the database refuses changes to it."""

    review = models.ForeignKey(Review, on_delete=models.PROTECT, related_name="audit")
    actor = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    action = models.CharField(max_length=60)
    detail = models.JSONField(default=dict)

    class Meta:
        ordering = ["-id"]
