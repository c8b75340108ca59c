"""Findings from checks, their states and threads."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.db.models import Max
from plumb_core.errors import InputRefused, Problem

from plumb_server.accounts.models import User
from plumb_server.findings.models import Finding, Message
from plumb_server.reviews.access import Access
from plumb_server.reviews.models import Review, Role, Submission
from plumb_server.reviews.services import latest_submission, locked, record, run_recheck
from plumb_server.web.problems import Conflict, Unusable

Status = Finding.Status

STEPS: dict[str, tuple[str, ...]] = {
    Status.DRAFT: (Status.ISSUED, Status.WITHDRAWN),
    Status.ISSUED: (Status.ANSWERED, Status.SETTLED, Status.WITHDRAWN),
    Status.ANSWERED: (Status.ISSUED, Status.SETTLED, Status.WITHDRAWN),
    Status.SETTLED: (Status.ISSUED,),
    Status.WITHDRAWN: (Status.DRAFT,),
}
"""Which states follow which."""

CLOSED = (Status.SETTLED, Status.WITHDRAWN)

VISIBLE_OUTSIDE = (Status.ISSUED, Status.ANSWERED, Status.SETTLED)
"""States in which submitter and readers see a finding."""


def derivation(steps: list[dict[str, Any]], key: str) -> list[dict[str, Any]]:
    """The steps that a value rests on, inputs first, itself last."""
    by_id = {s["id"]: s for s in steps}
    wanted: dict[str, None] = {}

    def visit(step_id: str) -> None:
        if step_id in by_id and step_id not in wanted:
            for above in by_id[step_id]["inputs"]:
                visit(above)
            wanted[step_id] = None

    visit(key)
    return [by_id[i] for i in wanted]


def evidence_of(review: Review, submission: Submission | None, check_ids: list[str]) -> list[dict[str, Any]]:
    """The checks of a finding, the first with its independent derivation; raises Unusable for unknown ids."""
    result = run_recheck(review, submission).result
    by_id = {c["id"]: c for c in result["checks"]}
    unknown = [i for i in check_ids if i not in by_id]
    if unknown:
        raise Unusable([{"path": "/checks", "message": f"there is no check {i!r} in the recheck of this submission",
                         "remedy": "Choose the check again on the sheet."} for i in unknown])  # fmt: skip
    evidence = [by_id[i] for i in check_ids]
    if evidence:
        # what follows from the first is told by its numbers; fifty derivations would say the same fifty times
        evidence[0] = evidence[0] | {"derivation": derivation(result["steps"]["independent"], evidence[0]["step"])}
    return evidence


@transaction.atomic
def file_finding(
    review: Review, user: User, *, checks: list[str], submission: Submission | None, **fields: Any
) -> Finding:
    """A new finding with the next number; its evidence is kept as it stands now."""
    locked(review)
    number = (review.findings.aggregate(highest=Max("number"))["highest"] or 0) + 1
    finding = Finding.objects.create(
        review=review, number=number, author=user, checks=checks, evidence=evidence_of(review, submission, checks),
        submission=submission, **fields,
    )  # fmt: skip
    record(review, user, "finding filed", finding=number, severity=finding.severity)
    return finding


@transaction.atomic
def change_finding(finding: Finding, own: Access, changes: dict[str, Any]) -> Finding:
    """Edit the text of a draft, or move the finding on to another state."""
    locked(finding.review)
    status = changes.pop("status", None)
    if changes and finding.status != Status.DRAFT:
        raise Conflict("the finding has been issued; its text stays as it is", "Write to its thread, or withdraw it.")
    for name, value in changes.items():
        setattr(finding, name, value)
    if status and status != finding.status:
        if status not in STEPS[finding.status]:
            raise Conflict(f"a finding that is {finding.status} can't become {status}",
                           f"It can become: {', '.join(STEPS[finding.status])}.", "/status")  # fmt: skip
        record(finding.review, own.user, f"finding {status}", finding=finding.number, before=finding.status)
        finding.status = status
    if changes:
        record(finding.review, own.user, "finding changed", finding=finding.number, fields=sorted(changes))
    finding.save()
    return finding


@transaction.atomic
def write_message(finding: Finding, own: Access, text: str) -> Message:
    """Add to the thread; a submitter's message answers an issued finding."""
    locked(finding.review)
    message = Message.objects.create(finding=finding, author=own.user, text=text)
    if own.role == Role.SUBMITTER and finding.status == Status.ISSUED:
        finding.status = Status.ANSWERED
        finding.save()
    record(finding.review, own.user, "message written", finding=finding.number)
    return message


def visible(own: Access) -> Any:
    """The findings that a member sees."""
    findings = own.review.findings.select_related("author", "submission").prefetch_related("thread__author")
    return findings if own.on_team else findings.filter(status__in=VISIBLE_OUTSIDE)


EXPORTED = ("number", "severity", "status", "title", "clause", "text", "checks", "evidence")


def exported_findings(review: Review) -> list[dict[str, Any]]:
    return [
        {name: getattr(f, name) for name in EXPORTED}
        | {"thread": [{"author": m.author.name, "at": m.at.isoformat(), "text": m.text} for m in f.thread.all()]}
        for f in review.findings.prefetch_related("thread__author")
    ]


@transaction.atomic
def import_findings(review: Review, user: User, findings: list[dict[str, Any]]) -> None:
    """Findings of an exported review; their threads are kept with the names they were written under."""
    for i, given in enumerate(findings):
        if not isinstance(given, dict) or any(name not in given for name in EXPORTED):
            raise InputRefused([Problem(f"/review/findings/{i}", "the finding is not complete",
                                        "Export the review again.")])  # fmt: skip
        finding = Finding(review=review, author=user, **{name: given[name] for name in EXPORTED})
        finding.full_clean(exclude=["review", "author", "submission", "checks", "evidence"])
        finding.submission = latest_submission(review)
        finding.save()
        for message in given.get("thread", []):
            Message.objects.create(
                finding=finding,
                author=user,
                text=f"{message.get('author', '')}, {message.get('at', '')}: {message.get('text', '')}",
            )
