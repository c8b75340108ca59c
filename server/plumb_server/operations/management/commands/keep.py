"""`manage.py keep FOLDER -- DUMP...`: one state of the database, its counts and its exhibits; see bin/backup."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from plumb_server.operations.keeping import Incomplete, keep


class Command(BaseCommand):
    help = "Write one state of the installation into a folder."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("folder", type=Path)
        parser.add_argument("dump", nargs="+", help="command that dumps the database")

    def handle(self, *args: Any, folder: Path, dump: list[str], **options: Any) -> None:
        try:
            keep(folder, dump)
        except Incomplete as incomplete:
            raise CommandError(str(incomplete)) from None
