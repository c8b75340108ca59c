"""`manage.py check_kept`: whether everything that is stored permanently is there, byte for byte; its counts as JSON."""

from __future__ import annotations

import hashlib
import json
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from plumb_server.accounts.models import User
from plumb_server.findings.models import Finding, Message
from plumb_server.reports.models import Report
from plumb_server.reviews.models import AuditEntry, Review
from plumb_server.submissions.contents import contents
from plumb_server.submissions.models import Claim, Exhibit
from plumb_server.web.problems import Conflict

COUNTED = (User, Review, AuditEntry, Exhibit, Claim, Finding, Message, Report)


class Command(BaseCommand):
    help = "Check exhibits and issued reports against their SHA-256, and count what is kept."

    def handle(self, *args: Any, **options: Any) -> None:
        wrong = []
        for name, sha256 in Exhibit.objects.values_list("name", "sha256").distinct():
            try:
                contents(sha256)
            except Conflict as conflict:
                wrong.append(f"{name}: {conflict.detail}")
        wrong += [
            f"report {report.number} of review {report.review_id} is not what was signed"
            for report in Report.objects.iterator(chunk_size=20)
            if hashlib.sha256(bytes(report.pdf)).hexdigest() != report.sha256
        ]
        if wrong:
            raise CommandError("\n".join(wrong))
        self.stdout.write(json.dumps({kind.__name__: kind.objects.count() for kind in COUNTED}, sort_keys=True))
