"""`manage.py tidy`: takes away what nobody needs any more.

Ended sessions, counts, jobs that were done, drafts of reports.
"""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand
from django.db import connection
from django.utils import timezone

from plumb_server.accounts.models import ApiToken, Invitation
from plumb_server.exchange.imports import tidy as tidy_imports
from plumb_server.reference.models import Run
from plumb_server.reports.models import Printing
from plumb_server.reports.printing import RETENTION

JOB_RETENTION = timedelta(days=7)
INVITATION_RETENTION = timedelta(days=90)


class Command(BaseCommand):
    help = "Delete data that is no longer needed."

    def handle(self, *args: Any, **options: Any) -> None:
        now = timezone.now()
        call_command("clearsessions")
        tidy_imports()
        Run.objects.filter(review=None, created_at__lt=now - JOB_RETENTION).delete()
        Printing.objects.filter(asked_at__lt=now - RETENTION).delete()
        Invitation.objects.filter(accepted_at=None, expires_at__lt=now - INVITATION_RETENTION).delete()
        ApiToken.objects.filter(expires_at__lt=now).delete()
        with connection.cursor() as cursor:
            cursor.execute("DELETE FROM web_counts WHERE expires < now()")
            cursor.execute(
                "DELETE FROM procrastinate_jobs WHERE status IN ('failed', 'aborted', 'cancelled', "
                "'succeeded') AND id IN "
                "(SELECT job_id FROM procrastinate_events GROUP BY job_id HAVING max(at) < now() - %s)",
                (JOB_RETENTION,),  # type: ignore[arg-type]
            )
