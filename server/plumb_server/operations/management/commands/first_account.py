"""`manage.py first_account ADDRESS NAME`: the administrator of a new office; everybody else is invited by them."""

from __future__ import annotations

from typing import Any

from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.core.validators import validate_email
from django.db import transaction

from plumb_server.accounts.models import User


class Command(BaseCommand):
    help = "Make the account of the office's first administrator."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("address")
        parser.add_argument("name")

    @transaction.atomic
    def handle(self, *args: Any, address: str, name: str, **options: Any) -> None:
        try:
            validate_email(address)
        except ValidationError:
            raise CommandError(f"{address} is not an e-mail address") from None
        if User.objects.filter(email=address.lower()).exists():
            raise CommandError(f"{address} has an account already")
        User.objects.create_user(address, None, name=name, is_staff=True, of_office=True)
        self.stdout.write("Made. On the sign-in page, 'Forgot your password?' sends a link to choose a password.")
