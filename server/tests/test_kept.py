"""What is stored permanently is kept by the database itself, anyone who asks it."""

from __future__ import annotations

import pytest
from django.db import IntegrityError, connection, transaction
from plumb_server.accounts.models import User
from plumb_server.demo.people import LEAD
from plumb_server.findings.models import Attachment, Finding, FurtherCheck
from plumb_server.reports.models import Countersignature, Report
from plumb_server.reviews.models import Review
from plumb_server.submissions.models import Submission

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
        "UPDATE findings_furthercheck SET evidence = '{}'",
        "DELETE FROM findings_furthercheck",
        "UPDATE findings_attachment SET data = ''",
        "DELETE FROM findings_attachment",
        "UPDATE reports_countersignature SET pdf = ''",
        "DELETE FROM reports_countersignature",
        "TRUNCATE findings_attachment",
        "TRUNCATE reviews_auditentry",
        "TRUNCATE reports_report CASCADE",
        "TRUNCATE findings_message",
        "TRUNCATE submissions_claim",
        "TRUNCATE submissions_submission CASCADE",
    ],
)
def test_the_database_refuses(statement: str, clinic: Review) -> None:
    user = User.objects.get(email=LEAD)
    digest = "0" * 64
    report = Report.objects.create(
        review=clinic, number=1, pdf=b"%PDF", sha256=digest, input_hash=digest, issued_by=user
    )
    Countersignature.objects.create(report=report, by=user)
    finding = clinic.findings.get(number=1)
    FurtherCheck.objects.create(finding=finding, check_id="V.X", evidence={}, author=user)
    Attachment.objects.create(finding=finding, name="a.png", author=user)
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
    issued = clinic.findings.get(number=1)
    draft = Finding.objects.create(review=clinic, number=2, author=issued.author, title="t", text="t")
    with connection.cursor() as cursor:
        cursor.execute("UPDATE findings_finding SET text = 'x' WHERE id = %s", [draft.pk])
        assert cursor.rowcount == 1
        cursor.execute("UPDATE findings_finding SET status = 'withdrawn' WHERE id = %s", [issued.pk])
        assert cursor.rowcount == 1
        cursor.execute("UPDATE findings_finding SET status = 'issued' WHERE id = %s", [issued.pk])
        assert cursor.rowcount == 1


@pytest.mark.parametrize(
    "change", ["status = 'draft'", "text = 'x'", "issued_at = NULL", "issued_at = now()", "severity = 'note'"]
)
def test_what_was_issued_once_stays_also_while_it_is_withdrawn(change: str, clinic: Review) -> None:
    finding = clinic.findings.get(number=1)
    with connection.cursor() as cursor:
        cursor.execute("UPDATE findings_finding SET status = 'withdrawn' WHERE id = %s", [finding.pk])
    for statement in (f"UPDATE findings_finding SET {change}", "DELETE FROM findings_finding"):
        with (
            pytest.raises(IntegrityError, match="stays"),
            transaction.atomic(),
            connection.cursor() as cursor,
        ):
            cursor.execute(f"{statement} WHERE id = %s", [finding.pk])


def test_the_database_notes_what_is_issued(clinic: Review) -> None:
    author = clinic.findings.get(number=1).author
    finding = Finding.objects.create(review=clinic, number=2, author=author, title="t", text="t")
    with connection.cursor() as cursor:
        cursor.execute("UPDATE findings_finding SET status = 'issued' WHERE id = %s", [finding.pk])
    finding.refresh_from_db()
    assert finding.issued_at is not None


@pytest.mark.parametrize("table", ["submissions_claim", "submissions_exhibit", "submissions_claimtable"])
def test_nothing_is_moved_into_an_accepted_submission(table: str, clinic: Review) -> None:
    accepted = clinic.submissions.get()
    draft = Submission.objects.create(review=clinic, number=9, author=accepted.author)
    exhibit = draft.exhibits.create(name="x.csv", size=1, sha256="0" * 64)
    claims = draft.claims.model.objects
    made = exhibit.tables.create(sheet="", kind="parameters", reading={})
    claims.create(table=made, submission=draft, quantity="k_p", number=1.0, text="1")
    other = accepted.exhibits.first()
    assert other is not None
    into = {
        "submissions_claim": ("submission_id", accepted.pk, "submission_id", draft.pk),
        "submissions_exhibit": ("submission_id", accepted.pk, "submission_id", draft.pk),
        "submissions_claimtable": ("exhibit_id", other.pk, "exhibit_id", exhibit.pk),
    }[table]
    with (
        pytest.raises(IntegrityError, match="can't be changed"),
        transaction.atomic(),
        connection.cursor() as cursor,
    ):
        cursor.execute(f"UPDATE {table} SET {into[0]} = %s WHERE {into[2]} = %s", [into[1], into[3]])
