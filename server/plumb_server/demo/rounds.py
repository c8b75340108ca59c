"""The clinic's second round: findings that were issued, the answers to them, and the submission that followed."""

from __future__ import annotations

from typing import Any

from plumb_server.accounts.models import User
from plumb_server.demo.buildings import CLINIC
from plumb_server.demo.people import LEAD, REVIEWER, SUBMITTER
from plumb_server.demo.seed import accepted_submission
from plumb_server.findings.services import change_finding, file_finding, write_message
from plumb_server.rechecks.services import run_recheck
from plumb_server.reviews.access import access
from plumb_server.reviews.models import Review, Role

FINDINGS: tuple[tuple[str, str, str], ...] = (
    ("w.L5", "Seismic weight of L5 is a tenth of the others", "The weight of L5 was left in tonnes. Corrected in S1."),
    ("V.Y", "Base shear in Y is not C_s W", "Two digits were exchanged in the summary. Corrected in S1."),
    ("k.Y", "Vertical distribution in Y does not follow the exponent k", "The exponent is now taken from the period."),
    ("T.X", "Period used in X exceeds its upper limit", ""),
)
"""Check, title and answer of each finding of the first round, beside the one of F_v."""


def second_round() -> None:
    """File and issue the findings on the clinic's S0, answer them, and submit S1, where that is not done yet."""
    review = Review.objects.filter(title=CLINIC, team__user__email=LEAD, team__role=Role.LEAD).last()
    if review is None or review.status == Review.Status.CLOSED:
        return
    first = review.submissions.last()
    # somebody went on with the demo
    if first is None or review.submissions.count() != 1 or review.findings.count() != 1:
        return
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
        if answer:
            write_message(finding, access(people[SUBMITTER], review.pk, tuple(Role)), answer)
    accepted_submission(review, people, "clinic-S1-")
