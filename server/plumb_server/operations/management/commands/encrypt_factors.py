"""`manage.py encrypt_factors`: encrypts the secrets of second factors with the present key; see docs/operations.md."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandError

from plumb_server.accounts.factors import UnknownKey, encrypt_anew


class Command(BaseCommand):
    help = "Encrypt the secrets of second factors with the first of PLUMB_FACTOR_KEYS."

    def handle(self, *args: Any, **options: Any) -> None:
        try:
            self.stdout.write(f"{encrypt_anew()} encrypted")
        except UnknownKey as unknown:
            raise CommandError(f"{unknown} was encrypted with none of PLUMB_FACTOR_KEYS; nothing was changed") from None
