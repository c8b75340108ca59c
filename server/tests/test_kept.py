"""What is stored permanently is kept by the database itself, anyone who asks it."""

from __future__ import annotations

import pytest
from django.db import IntegrityError, connection, transaction
from plumb_server.accounts.models import User
from plumb_server.demo.people import LEAD
from plumb_server.reports.models import Report
from plumb_server.reviews.models import Review

pytestmark = pytest.mark.django_db


@pytest.mark.parametrize(
    "statement",
    [
        "UPDATE reviews_auditentry SET action = 'x'",
        "DELETE FROM reviews_auditentry",
        "UPDATE submissions_claim SET number = 1 WHERE quantity = 'V'",
        "DELETE FROM submissions_claim",
        'INSERT INTO submissions_claim (table_id, submission_id, quantity, direction, story, "case", text, '
        "unit, scale, "
        "\"column\") SELECT table_id, submission_id, 'W', '', 'nowhere', '', '1', '', 1, '' FROM "
        "submissions_claim LIMIT 1",
        "UPDATE submissions_exhibit SET name = 'x'",
        "UPDATE submissions_claimtable SET reading = '{}'",
        "DELETE FROM submissions_claimtable",
        "UPDATE submissions_submission SET status = 'draft'",
        "UPDATE findings_message SET text = 'x'",
        "DELETE FROM findings_message",
        *(
            f"UPDATE findings_finding SET {column} = {value}"
            for column, value in (
                ("title", "'x'"),
                ("text", "'x'"),
                ("severity", "'note'"),
                ("clause", "'x'"),
                ("checks", "'[]'"),
                ("evidence", "'[]'"),
                ("number", "number + 100"),
            )
        ),
        "DELETE FROM findings_finding",
        "UPDATE reports_report SET pdf = ''",
        "UPDATE reports_report SET sha256 = ''",
        "DELETE FROM reports_report",
        "TRUNCATE reviews_auditentry",
        "TRUNCATE reports_report CASCADE",
        "TRUNCATE findings_message",
        "TRUNCATE submissions_claim",
        "TRUNCATE submissions_submission CASCADE",
    ],
)
def test_the_database_refuses(statement: str, clinic: Review) -> None:
    user = User.objects.get(email=LEAD)
    Report.objects.create(review=clinic, number=1, pdf=b"%PDF", sha256="0" * 64, input_hash="0" * 64, issued_by=user)
    with connection.cursor() as cursor:
        # a table with checks outstanding cannot be emptied, anyone who asks
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
    with (
        pytest.raises(IntegrityError, match=r"stays|can't be changed"),
        transaction.atomic(),
        connection.cursor() as cursor,
    ):
        cursor.execute(statement)


def test_a_draft_can_be_written_anew_and_an_issued_finding_be_moved_on(clinic: Review) -> None:
    finding = clinic.findings.get(number=1)
    with connection.cursor() as cursor:
        cursor.execute("UPDATE findings_finding SET status = 'withdrawn' WHERE id = %s", [finding.pk])
        cursor.execute("UPDATE findings_finding SET text = 'x', status = 'draft' WHERE id = %s", [finding.pk])
        assert cursor.rowcount == 1
