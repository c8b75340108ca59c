"""The clinic's second round: findings that were issued, the answers to them, and the submission that followed."""

from __future__ import annotations

import io
from typing import Any

from openpyxl import load_workbook

from plumb_server.accounts.models import User
from plumb_server.demo.buildings import CLINIC
from plumb_server.demo.people import LEAD, REVIEWER, SUBMITTER
from plumb_server.demo.seed import accepted_submission
from plumb_server.findings import matrix
from plumb_server.findings.services import change_finding, file_finding, write_message
from plumb_server.rechecks.services import run_recheck
from plumb_server.reports.models import Printing
from plumb_server.reports.printing import basis_of, carry_out
from plumb_server.reviews.access import Access, access
from plumb_server.reviews.models import Review, Role

FINDINGS: tuple[tuple[str, str, str], ...] = (
    ("w.L5", "Seismic weight of L5 is a tenth of the others", "The weight of L5 was left in tonnes. Corrected in S1."),
    ("V.Y", "Base shear in Y is not C_s W", "Two digits were exchanged in the summary. Corrected in S1."),
    ("k.Y", "Vertical distribution in Y does not follow the exponent k", "The exponent is now taken from the period."),
    ("T.X", "Period used in X exceeds its upper limit", ""),
)
"""Check, title and answer of each finding of the first round, beside the one of F_v."""


def second_round(*, printed: bool = False) -> None:
    """File and issue the findings on the clinic's S0, answer them, and submit S1, where that is not done yet.

    printed : issue the report of the first round too, and let the answers come back in the response matrix
    """
    review = Review.objects.filter(title=CLINIC, team__user__email=LEAD, team__role=Role.LEAD).last()
    if review is None or review.status == Review.Status.CLOSED:
        return
    # else somebody went on with the demo
    if review.submissions.count() == 1 and review.findings.count() == 1:
        go_on(review, printed=printed)


def go_on(review: Review, *, printed: bool = False) -> None:
    """The second round of a review whose first is the clinic's."""
    first = review.submissions.get()
    people = {email: User.objects.get(email=email) for email in (LEAD, REVIEWER, SUBMITTER)}
    checks: dict[str, dict[str, Any]] = {c["id"]: c for c in run_recheck(review, first).sheet["checks"]}
    for name, title, answer in FINDINGS:
        finding = file_finding(
            review,
            people[REVIEWER],
            checks=[name],
            submission=first,
            severity="must",
            title=title,
            clause=checks[name]["clause"],
            text=checks[name]["draft"],
        )
        change_finding(finding, access(people[LEAD], review.pk), {"status": "issued"}, finding.revision)
        if answer and not printed:
            write_message(finding, access(people[SUBMITTER], review.pk, tuple(Role)), answer)
    if printed:
        _issued_report(review, people[LEAD])
        _answered_matrix(review, access(people[SUBMITTER], review.pk, tuple(Role)))
    accepted_submission(review, people, "clinic-S1-")


def _issued_report(review: Review, lead: User) -> None:
    """The report of the first round, signed by its lead."""
    printing = Printing.objects.create(review=review, asked_by=lead, basis=basis_of(review), issues=True)
    carry_out(printing)
    assert printing.report is not None, printing.message


def _answered_matrix(review: Review, submitter: Access) -> None:
    """The response matrix, with the answers of the design team."""
    book = load_workbook(io.BytesIO(matrix.workbook(review)))
    sheet = book[matrix.FINDINGS]
    answers = {title: answer for _, title, answer in FINDINGS if answer}
    for row in sheet.iter_rows(min_row=matrix.HEADER_ROW + 1):
        title = str(row[1].value).split("\n")[0]
        if title in answers:
            row[5].value, row[6].value, row[7].value = answers[title], "corrected", "S1"
    data = io.BytesIO()
    book.save(data)
    name = "responses-port-maren-clinic.xlsx"
    matrix.import_answers(submitter, matrix.read_answers(review, data.getvalue(), name, apart=False), name)
