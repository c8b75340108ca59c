"""What a person knows of their reviews: until where they saw them, which they put away, what they want to be told."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from plumb_server.reviews.models import AuditEntry, Review


class Visit(models.Model):
    """How far somebody has seen a review, and whether they put it away."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="visits")
    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="visits")
    entry = models.PositiveBigIntegerField(default=0)
    """the last entry of the audit trail that was there at the last visit"""
    at = models.DateTimeField(null=True)
    archived = models.BooleanField(default=False)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "review"], name="one_visit_per_member")]


class NoticeChoice(models.Model):
    """Of what somebody is sent mail, at once or once a day, and the key of their calendar."""

    KINDS = ("issued", "answered", "submitted", "due")

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="notices")
    issued = models.BooleanField(default=True)
    answered = models.BooleanField(default=True)
    submitted = models.BooleanField(default=True)
    due = models.BooleanField(default=True)
    daily = models.BooleanField(default=False)
    """everything once a day in place of each as it happens"""
    entry = models.PositiveBigIntegerField(default=0)
    """the last entry of the audit trail that their mail has reached"""
    digest_on = models.DateField(null=True)
    """day of the last mail that comes once a day"""
    calendar_digest = models.CharField(max_length=64, blank=True, db_index=True)
    """hash of the key in the address of their calendar; empty where they have none"""

    @classmethod
    def of(cls, user: object) -> NoticeChoice:
        """The choice of a person; without one, all notices from now on."""
        latest = AuditEntry.objects.order_by("-pk").values_list("pk", flat=True).first() or 0
        choice, _ = cls.objects.get_or_create(user=user, defaults={"entry": latest})
        return choice
