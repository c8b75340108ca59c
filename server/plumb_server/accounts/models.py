"""People who sign in, what they sign in with beside a password, invitations, and the records of what was done."""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta
from typing import Any

from django.conf import settings
from django.contrib.auth.models import AbstractUser, BaseUserManager
from django.db import IntegrityError, models, transaction
from django.utils import timezone


class PeopleManager(BaseUserManager["User"]):
    """Addresses are kept in lower case: one person, however the address is typed."""

    def create_user(self, email: str, password: str | None = None, **fields: Any) -> User:
        """A person with an address that is known to be theirs."""
        user = self.model(email=email.strip().lower(), **fields)
        user.set_password(password)
        user.save()
        user.verify_address()
        return user

    def get_by_natural_key(self, email: str | None) -> User:
        return self.get(email=(email or "").strip().lower())


class User(AbstractUser):
    """A person; signs in with the e-mail address.  `is_staff` administers the office: accounts, not reviews."""

    username = None  # type: ignore[assignment]  # the e-mail address is the name
    email = models.EmailField("e-mail address", unique=True)
    name = models.CharField(max_length=120)
    firm = models.CharField(max_length=120, blank=True)
    of_office = models.BooleanField(default=False)
    """belongs to the office: its administrator said so; who belongs finds who belongs"""

    USERNAME_FIELD = "email"
    REQUIRED_FIELDS = ["name"]
    objects = PeopleManager()  # type: ignore[misc, assignment]

    def __str__(self) -> str:
        return self.name or self.email

    def save(self, *args: Any, **kwargs: Any) -> None:
        self.email = self.email.lower()
        super().save(*args, **kwargs)

    def verify_address(self) -> None:
        """Note that the address is known to be theirs."""
        # the library's models are there only when all apps are
        from allauth.account.models import EmailAddress

        EmailAddress.objects.get_or_create(user=self, email=self.email, defaults={"primary": True, "verified": True})


def digest_of(secret: str) -> str:
    """What is kept of a secret that was given out: it is long and random, so a plain hash will do."""
    return hashlib.sha256(secret.encode()).hexdigest()


class ApiToken(models.Model):
    """A personal key for scripts; only its hash is kept."""

    class Scope(models.TextChoices):
        COMPUTE = "compute", "solve and recheck documents"
        READ = "read", "also read reviews"
        WRITE = "write", "also change reviews"

    LONGEST = timedelta(days=366)
    BEGINS = "vp_"

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="tokens")
    name = models.CharField(max_length=60)
    digest = models.CharField(max_length=64, unique=True)
    scope = models.CharField(max_length=10, choices=Scope)
    created_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-created_at"]

    @classmethod
    def issue(cls, user: User, name: str, scope: str, days: int) -> tuple[ApiToken, str]:
        """(the token, the key itself, which is shown only once)."""
        key = cls.BEGINS + secrets.token_urlsafe(32)
        expires = timezone.now() + min(timedelta(days=days), cls.LONGEST)
        return cls.objects.create(user=user, name=name, digest=digest_of(key), scope=scope, expires_at=expires), key


class Invitation(models.Model):
    """Somebody is asked to come in; anyone who holds the link reads the mail of that address."""

    LASTS = timedelta(days=14)

    email = models.EmailField()
    digest = models.CharField(max_length=64, unique=True)
    invited_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    accepted_at = models.DateTimeField(null=True)
    to_office = models.BooleanField(default=False)
    """by the administrator of the office: who accepts belongs to it"""

    class Meta:
        ordering = ["-created_at"]

    @property
    def open(self) -> bool:
        """Whether it can still be accepted."""
        return self.accepted_at is None and self.expires_at > timezone.now()


class AddressChange(models.Model):
    """An address that was changed: whoever reads the mail of the earlier one can undo it for a while."""

    UNDONE_WITHIN = timedelta(days=7)

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    before = models.EmailField()
    digest = models.CharField(max_length=64, unique=True)
    at = models.DateTimeField(auto_now_add=True)
    undone_at = models.DateTimeField(null=True)

    @classmethod
    def noted(cls, user: User, before: str) -> str:
        """Note that somebody's address was another one; the key of the link that undoes it."""
        key = secrets.token_urlsafe(32)
        cls.objects.create(user=user, before=before, digest=digest_of(key))
        return key

    @property
    def open(self) -> bool:
        """Whether it can still be undone."""
        return self.undone_at is None and self.at + self.UNDONE_WITHIN > timezone.now()


class Record(models.Model):
    """Who signed in, failed to, exported or downloaded something; a trigger of the database refuses changes to it."""

    at = models.DateTimeField(auto_now_add=True, db_index=True)
    kind = models.CharField(max_length=40)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, null=True, related_name="records")
    email = models.CharField(max_length=254, blank=True)
    """as it was typed, where nobody signed in"""
    address = models.CharField(max_length=45, blank=True)
    detail = models.JSONField(default=dict)

    class Meta:
        ordering = ["-id"]


class SignedWith(models.Model):
    """An authentication that a report was signed with: each is good for one signature, however many ask at once."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    authenticated_at = models.FloatField()
    """seconds since 1970, as the session has it"""

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "authenticated_at"], name="one_signature_each")]

    @classmethod
    def used(cls, user: User, authenticated_at: float) -> bool:
        """Whether something was signed with this authentication."""
        return cls.objects.filter(user=user, authenticated_at=authenticated_at).exists()

    @classmethod
    def first(cls, user: User, authenticated_at: float) -> bool:
        """Whether nothing was signed with this authentication so far; from now on something is."""
        try:
            # the database decides between two at once
            with transaction.atomic():
                cls.objects.create(user=user, authenticated_at=authenticated_at)
        except IntegrityError:
            return False
        return True
