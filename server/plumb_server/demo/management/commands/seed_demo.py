"""Make the demo's people and reviews; what is there already is left as it is."""

from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from plumb_server.demo.buildings import CLINIC, EXCHANGE, GRANARY, LIBRARY
from plumb_server.demo.rounds import second_round
from plumb_server.demo.seed import seed
from plumb_server.rechecks.services import run_recheck
from plumb_server.reviews.models import Review


class Command(BaseCommand):
    help = "Make the demo's people and reviews where they are not there yet."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--first-round", action="store_true", help="without the clinic's second submission")

    @transaction.atomic
    def handle(self, *args: object, **options: Any) -> None:
        seed()
        if not options["first_round"]:
            second_round(printed=True)
            # as they are after somebody opened them: the list of reviews draws what was rechecked
            for review in Review.objects.filter(title__in=(CLINIC, LIBRARY, EXCHANGE, GRANARY)):
                run_recheck(review, review.submissions.latest_with_values())
