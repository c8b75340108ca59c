"""`manage.py put_back FOLDER`: what a backup has beside the database, and whether all is there; see bin/restore."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from plumb_server.operations.keeping import put_back
from plumb_server.web.problems import Conflict


class Command(BaseCommand):
    help = "Put the exhibits of a backup into the storage, bring its database up to this release, and verify both."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("folder", type=Path)

    def handle(self, *args: Any, folder: Path, **options: Any) -> None:
        try:
            # files are named by what is in them: those that are there already are the same
            put_back(folder / "exhibits.tar")
        except Conflict as conflict:
            raise CommandError(str(conflict.detail)) from None
        # a backup of an earlier release is brought up to this one; what was kept then is counted
        call_command("migrate", verbosity=0)
        call_command("grant_roles")
        call_command("check_kept", against=folder / "counts.json")
