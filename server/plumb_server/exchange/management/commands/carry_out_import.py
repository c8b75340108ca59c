"""`manage.py carry_out_import ID`: imports a document that waits; run by the worker as a process of its own."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from plumb_server.exchange.imports import carry_out
from plumb_server.exchange.models import Import


class Command(BaseCommand):
    help = "Import a document that waits."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("waiting")

    def handle(self, *args: Any, waiting: str, **options: Any) -> None:
        carry_out(Import.objects.get(pk=waiting))
