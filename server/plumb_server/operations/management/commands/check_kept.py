"""`manage.py check_kept`: whether everything that is stored permanently is there, byte for byte; its counts as JSON."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from plumb_server.operations.keeping import counts, wrong


class Command(BaseCommand):
    help = "Check exhibits and issued reports against their SHA-256, and count what is kept."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--against", type=Path, help="counts of a backup that there should be")

    def handle(self, *args: Any, against: Path | None, **options: Any) -> None:
        if found := wrong():
            raise CommandError("\n".join(found))
        here = counts()
        if against is not None:
            kept = json.loads(against.read_text())
            differ = [f"{kind}: {here.get(kind)} and not {n}" for kind, n in kept.items() if here.get(kind) != n]
            if differ:
                raise CommandError(f"what is here is not what was kept: {'; '.join(differ)}")
        self.stdout.write(json.dumps(here, sort_keys=True))
