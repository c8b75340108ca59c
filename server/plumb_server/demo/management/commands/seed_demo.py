"""Make the demo's people and reviews; what is there already is left as it is."""

from django.core.management.base import BaseCommand
from django.db import transaction

from plumb_server.demo.seed import seed


class Command(BaseCommand):
    help = "Make the demo's people and reviews where they are not there yet."

    @transaction.atomic
    def handle(self, *args: object, **options: object) -> None:
        seed()
