"""Findings from checks, their states and threads."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from plumb_server.accounts.models import User
from plumb_server.findings.models import Finding, Message
from plumb_server.rechecks.services import run_recheck
from plumb_server.reviews.access import Access
from plumb_server.reviews.models import Review, Role
from plumb_server.submissions.models import Submission
from plumb_server.web.problems import Conflict, Unusable

Status = Finding.Status


def evidence_of(review: Review, submission: Submission | None, check_ids: list[str]) -> list[dict[str, Any]]:
    """The checks of a finding, the first with its independent derivation; raises Unusable for unknown ids."""
    recheck = run_recheck(review, submission)
    by_id = {c["id"]: c for c in recheck.sheet["checks"]}
    unknown = [i for i in check_ids if i not in by_id]
    if unknown:
        raise Unusable(
            [
                {
                    "path": "/checks",
                    "message": f"there is no check {i!r} in the recheck of this submission",
                    "remedy": "Choose the check again on the sheet.",
                }
                for i in unknown
            ]
        )
    evidence = [by_id[i] for i in check_ids]
    if evidence:
        # what follows from the first is told by its numbers; fifty derivations would say the same fifty times
        evidence[0] = evidence[0] | {"derivation": recheck.derivation("independent", evidence[0]["step"])}
    return evidence


@transaction.atomic
def file_finding(
    review: Review, user: User, *, checks: list[str], submission: Submission | None, **fields: Any
) -> Finding:
    """A new finding with the next number; its evidence is kept as it stands now."""
    review.locked()
    number = review.findings.next_number()
    finding = Finding.objects.create(
        review=review,
        number=number,
        author=user,
        checks=checks,
        evidence=evidence_of(review, submission, checks),
        submission=submission,
        **fields,
    )
    review.record(user, "finding filed", finding=number, severity=finding.severity)
    return finding


@transaction.atomic
def change_finding(finding: Finding, own: Access, changes: dict[str, Any]) -> Finding:
    """Edit the text of a draft, or move the finding on to another state."""
    finding.review.locked()
    status = changes.pop("status", None)
    if changes and finding.status != Status.DRAFT:
        raise Conflict("the finding has been issued; its text stays as it is", "Write to its thread, or withdraw it.")
    for name, value in changes.items():
        setattr(finding, name, value)
    if status and status != finding.status:
        before = finding.status
        finding.move_to(status)
        finding.review.record(own.user, f"finding {status}", finding=finding.number, before=before)
    if changes:
        finding.review.record(own.user, "finding changed", finding=finding.number, fields=sorted(changes))
    finding.save()
    return finding


@transaction.atomic
def write_message(finding: Finding, own: Access, text: str) -> Message:
    """Add to the thread; a submitter's message answers an issued finding."""
    finding.review.locked()
    message = Message.objects.create(finding=finding, author=own.user, text=text)
    if own.role == Role.SUBMITTER and finding.status == Status.ISSUED:
        finding.status = Status.ANSWERED
        finding.save()
    finding.review.record(own.user, "message written", finding=finding.number)
    return message
