"""Write the files of the demo's submissions (see `demo/submissions.py` for the slips in them)."""

from django.core.management.base import BaseCommand

from plumb_server.demo.submissions import FILES, file_bytes, tables


class Command(BaseCommand):
    help = "Write the demo's submission files to demo/files/."

    def handle(self, *args: object, **options: object) -> None:
        FILES.mkdir(exist_ok=True)
        for name, table in tables().items():
            (FILES / name).write_bytes(file_bytes(name, table))
            self.stdout.write(name)
