"""Findings from checks, their states and threads."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from django.db import transaction

from plumb_server.accounts.models import User
from plumb_server.findings.models import Finding, FurtherCheck, Message
from plumb_server.rechecks.services import run_recheck
from plumb_server.reviews.access import Access
from plumb_server.reviews.conflicts import changes_since
from plumb_server.reviews.models import Review, Role
from plumb_server.submissions.models import Submission
from plumb_server.web.problems import Conflict, PreconditionFailed, UnprocessableContent

Status = Finding.Status


def evidence_of(review: Review, submission: Submission | None, check_ids: list[str]) -> list[dict[str, Any]]:
    """The checks of a finding, the first with its independent derivation.

    Raises UnprocessableContent for unknown ids.
    """
    recheck = run_recheck(review, submission)
    by_id = {c["id"]: c for c in recheck.sheet["checks"]}
    unknown = [i for i in check_ids if i not in by_id]
    if unknown:
        raise UnprocessableContent(
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
        # What follows from the first is stated by its numbers; fifty derivations would say the same fifty times
        evidence[0] = evidence[0] | {"derivation": recheck.derivation("independent", evidence[0]["step"])}
    return evidence


def file_finding(
    review: Review, user: User, *, checks: list[str], submission: Submission | None, **fields: Any
) -> Finding:
    """A new finding with the next number; its evidence is kept in its present state."""
    # computed before the review is locked: nobody waits for it
    evidence = evidence_of(review, submission, checks)
    with transaction.atomic():
        review.locked()
        number = review.findings.next_number()
        finding = Finding.objects.create(
            review=review,
            number=number,
            author=user,
            checks=checks,
            evidence=evidence,
            submission=submission,
            **fields,
        )
        review.record(user, "finding filed", finding=number, severity=finding.severity)
    return finding


def _locked(finding: Finding) -> Finding:
    """Return the finding in its present state, its row locked for the rest of the transaction."""
    finding.review.locked()
    locked: Finding = Finding.objects.select_for_update().get(pk=finding.pk)
    return locked


def _saved(finding: Finding, *columns: str) -> None:
    """Save the columns that changed, and no others; the next change states that it is based on this one."""
    finding.revision += 1
    finding.save(update_fields=[*columns, "revision", "changed_at"])


@transaction.atomic
def change_finding(finding: Finding, entry: Access, changes: dict[str, Any], based_on: int) -> Finding:
    """Edit the text of a draft, or move the finding on to another state.

    based_on : revision that the change was made on; refused with what changed meanwhile where it is another by now
    """
    stored = _locked(finding)
    if stored.revision != based_on:
        raise PreconditionFailed(
            changes_since(
                stored.review, f"finding {stored.number}", detail__finding=stored.number, detail__revision__gt=based_on
            )
        )
    status = changes.pop("status", None)
    changes = {name: value for name, value in changes.items() if getattr(stored, name) != value}
    if changes.get("assignee"):
        _require_member(stored.review, changes["assignee"])
    if changes.keys() - AT_WORK and stored.status != Status.DRAFT:
        raise Conflict(
            "the finding has been issued; its text cannot be changed", "Write a message in its thread, or withdraw it."
        )
    for name, value in changes.items():
        setattr(stored, name, value)
    columns = list(changes)
    if status and status != stored.status:
        before = stored.status
        stored.move_to(status)
        columns += ["status", "issued_at"]
        stored.review.record(
            entry.user, f"finding {status}", finding=stored.number, before=before, revision=stored.revision + 1
        )
    if changes:
        stored.review.record(
            entry.user, "finding changed", finding=stored.number, fields=sorted(changes), revision=stored.revision + 1
        )
    if columns:
        _saved(stored, *columns)
    return stored


AT_WORK = {"assignee", "due"}
"""What can be changed of a finding that was issued: who acts, and until when."""


def _require_member(review: Review, user: User) -> None:
    if not review.team.filter(user=user, user__is_active=True).exists():
        raise UnprocessableContent(
            [
                {
                    "path": "/assignee",
                    "message": "there is nobody of that id on the team of the review",
                    "remedy": "Choose a member of the team.",
                }
            ]
        )


@transaction.atomic
def change_many(
    entry: Access, changes: Sequence[tuple[Finding, int]], what: Mapping[str, Any], texts: Mapping[int, str]
) -> list[Finding]:
    """Change several findings alike, all of them or none.

    Parameters
    ----------
    changes
        Each finding with the revision that the change is based on.
    what
        Fields as of `change_finding`.
    texts
        What is written into the thread of a finding first, by its key.
    """
    # in the order of their keys, so that two at once wait for each other instead of both failing
    for finding, _ in sorted(changes, key=lambda each: each[0].pk):
        if finding.pk in texts:
            write_message(finding, entry, texts[finding.pk])
    return [change_finding(finding, entry, dict(what), revision) for finding, revision in changes]


@transaction.atomic
def merge(entry: Access, target: Finding, others: Sequence[Finding]) -> Finding:
    """Continue several findings as one: their checks are linked to it, their texts go into its thread."""
    stored = _locked(target)
    if stored.status in Finding.CLOSED:
        raise Conflict(
            f"finding {stored.number} is {stored.status}", "Merge into a finding that is not closed.", "/into"
        )
    known = set(stored.all_checks)
    _require_room(stored, len({e["id"] for other in others for e in other.evidence} - known))
    for each in sorted(others, key=lambda f: f.number):
        other = Finding.objects.select_for_update().get(pk=each.pk)
        if other.pk == stored.pk or other.status in Finding.CLOSED:
            raise Conflict(
                f"finding {other.number} cannot be merged into finding {stored.number}",
                "Choose other findings that are not closed.",
                "/numbers",
            )
        for evidence in other.evidence:
            if evidence["id"] not in known:
                known.add(evidence["id"])
                without = {part: content for part, content in evidence.items() if part != "derivation"}
                FurtherCheck.objects.create(
                    finding=stored,
                    check_id=evidence["id"],
                    evidence=without,
                    submission=other.submission,
                    author=entry.user,
                )
        words = f"Merged from finding {other.number}, {other.title}:\n{other.text}"
        Message.objects.create(finding=stored, author=entry.user, text=words[:5000])
        other.merged_into = stored
        before, other.status = other.status, Status.WITHDRAWN
        _saved(other, "merged_into", "status")
        stored.review.record(
            entry.user,
            "finding merged",
            finding=other.number,
            before=before,
            into=stored.number,
            revision=other.revision,
        )
    _saved(stored)
    stored.review.record(
        entry.user,
        "findings merged into it",
        finding=stored.number,
        others=sorted(f.number for f in others),
        revision=stored.revision,
    )
    return stored


MOST_CHECKS = 500
"""Checks of a finding, those that were linked later included."""


def _require_room(finding: Finding, further: int) -> None:
    if len(finding.all_checks) + further > MOST_CHECKS:
        raise Conflict(
            f"finding {finding.number} would rest on more than {MOST_CHECKS} checks", "File another finding.", "/check"
        )


def link_check(finding: Finding, entry: Access, check: str, submission: Submission | None) -> Finding:
    """Link a further check to a finding, as the recheck of a submission has it now."""
    (evidence,) = evidence_of(finding.review, submission, [check])
    with transaction.atomic():
        stored = _locked(finding)
        if check in stored.all_checks:
            raise Conflict(f"finding {stored.number} rests on {check} already", "Nothing needs to be done.", "/check")
        if stored.status in Finding.CLOSED:
            raise Conflict(f"finding {stored.number} is {stored.status}", "Reopen it first.", "/check")
        _require_room(stored, 1)
        evidence.pop("derivation", None)
        FurtherCheck.objects.create(
            finding=stored, check_id=check, evidence=evidence, submission=submission, author=entry.user
        )
        _saved(stored)
        stored.review.record(entry.user, "check linked", finding=stored.number, check=check, revision=stored.revision)
    return stored


@transaction.atomic
def write_message(finding: Finding, entry: Access, text: str) -> Message:
    """Add to the thread; a submitter's message answers an issued finding."""
    stored = _locked(finding)
    message = Message.objects.create(finding=stored, author=entry.user, text=text)
    detail: dict[str, Any] = {"finding": stored.number}
    if entry.role == Role.SUBMITTER and stored.status == Status.ISSUED:
        stored.status = Status.ANSWERED
        _saved(stored, "status")
        detail["revision"] = stored.revision
    stored.review.record(entry.user, "message written", **detail)
    return message
