"""People who sign in."""

from __future__ import annotations

from django.contrib.auth.models import AbstractUser
from django.db import models


class User(AbstractUser):
    """A person; signs in with the e-mail address, which is also the user name."""

    name = models.CharField(max_length=120)
    firm = models.CharField(max_length=120, blank=True)

    def __str__(self) -> str:
        return self.name or self.username
