"""A whole review as one document (`.plumb.json`), out and in again."""

from __future__ import annotations

import base64
import hashlib
from typing import Any

from django.db import transaction
from plumb_core.checks.earlier_ids import present_id
from plumb_core.checks.recheck import recheck as core_recheck
from plumb_core.documents import submission as core
from plumb_core.documents.reading import read_recheck
from plumb_core.errors import InputRefused, Problem

from plumb_server.accounts.models import User
from plumb_server.findings.models import Finding, Message
from plumb_server.rechecks.services import review_document
from plumb_server.reference.models import ModelRevision
from plumb_server.reviews.models import Review
from plumb_server.reviews.services import create_review
from plumb_server.submissions.contents import contents
from plumb_server.submissions.models import ClaimTable, Exhibit, Submission
from plumb_server.submissions.services import (
    accept_submission,
    add_exhibit,
    keep_cases,
    keep_claims,
    open_submission,
)

OF_A_FINDING = ("number", "severity", "status", "title", "clause", "text", "checks", "evidence")
WITHOUT_A_FILE = "values without a file"


def export_review(review: Review, submission: Submission | None) -> dict[str, Any]:
    """A review as a recheck document with its exhibits and findings."""
    document = review_document(review, submission)
    exhibits = submission.exhibits.all() if submission else []
    tables = ClaimTable.objects.filter(exhibit__submission=submission) if submission else []
    document["submission"]["exhibits"] = [
        {
            "name": e.name,
            "sha256": e.sha256,
            "pasted": e.pasted,
            "content": base64.b64encode(contents(e.sha256)).decode(),
        }
        for e in exhibits
    ]
    document["review"] = {
        "title": review.title,
        "place": review.place,
        "client": review.client,
        "description": review.description,
        "accepted": bool(submission and submission.status == Submission.Status.ACCEPTED),
        "tables": [
            {"sha256": t.exhibit.sha256, "kind": t.kind, "sheet": t.sheet, "reading": t.reading} for t in tables
        ],
        "findings": [_finding(f) for f in review.findings.prefetch_related("thread__author")],
    }
    return document


def _finding(finding: Finding) -> dict[str, Any]:
    thread = [{"author": m.author.name, "at": m.at.isoformat(), "text": m.text} for m in finding.thread.all()]
    return {name: getattr(finding, name) for name in OF_A_FINDING} | {"thread": thread}


@transaction.atomic
def import_review(user: User, document: Any) -> Review:
    """A new review from an exported document, with its findings; all of it or nothing."""
    checked = read_recheck(document)
    core_recheck(document)
    about = checked.review or {}
    review = create_review(
        user,
        brief=document["brief"],
        title=str(about.get("title") or "Imported review")[:120],
        place=str(about.get("place", ""))[:120],
        client=str(about.get("client", ""))[:120],
        description=str(about.get("description", ""))[:2000],
    )
    if document.get("model"):
        ModelRevision.objects.create(review=review, number=1, document=document["model"], author=user)
    submission = open_submission(review, user)
    _take_in(submission, user, checked.submission, about)
    if about.get("accepted") and checked.submission.claims:
        accept_submission(submission, user)
    review.record(user, "review imported", claims=len(checked.submission.claims))
    findings = about.get("findings", [])
    _import_findings(review, user, findings if isinstance(findings, list) else [])
    return review


def _take_in(submission: Submission, user: User, given: core.Submission, about: dict[str, Any]) -> None:
    """Exhibits, tables, claims and cases of an exported submission."""
    exhibits = _exhibits(submission, user, given.exhibits)
    by_name = {e.name: e for e in exhibits}
    listed = {(t.get("sha256"), t.get("sheet")): t for t in about.get("tables", []) if isinstance(t, dict)}
    tables: dict[tuple[str, str], ClaimTable] = {}
    claims = []
    for claim in given.claims:
        exhibit = by_name.get(claim.source.file)
        if exhibit is None:
            name = claim.source.file or WITHOUT_A_FILE
            exhibit = add_exhibit(submission, user, name=name, data=name.encode(), pasted=True)
            by_name[claim.source.file] = exhibit
        key = (exhibit.sha256, claim.source.sheet)
        if key not in tables:
            known = listed.get(key, {})
            tables[key] = ClaimTable.objects.create(
                exhibit=exhibit,
                kind=str(known.get("kind", "imported"))[:20],
                sheet=claim.source.sheet[:120],
                # exports of earlier versions call it a mapping
                reading=known.get("reading", known.get("mapping", {})),
            )
        claims.append((tables[key], claim))
    if not keep_claims(submission, claims):
        raise InputRefused(
            [Problem("/submission/claims", "the same value is claimed twice", "Leave one of the two claims out.")]
        )
    keep_cases(submission, given.cases)


def _exhibits(submission: Submission, user: User, exhibits: list[dict[str, Any]]) -> list[Exhibit]:
    kept = []
    for i, given in enumerate(exhibits):
        path = f"/submission/exhibits/{i}"
        try:
            data = base64.b64decode(given["content"], validate=True)
            digest, name = str(given["sha256"]), str(given["name"])
        except (KeyError, ValueError, TypeError):
            said = "the exhibit's name, sha256 or content is missing"
            raise InputRefused([Problem(path, said, "Export the review again.")]) from None
        if hashlib.sha256(data).hexdigest() != digest:
            remedy = "Export the review again; this file was changed on the way."
            raise InputRefused([Problem(f"{path}/content", f"{name} isn't what its SHA-256 says", remedy)])
        kept.append(add_exhibit(submission, user, name=name, data=data, pasted=bool(given.get("pasted"))))
    return kept


def _import_findings(review: Review, user: User, findings: list[Any]) -> None:
    """Findings of an exported review; their threads are kept with the names they were written under."""
    for i, given in enumerate(findings):
        if not isinstance(given, dict) or any(name not in given for name in OF_A_FINDING):
            said = "the finding is not complete"
            raise InputRefused([Problem(f"/review/findings/{i}", said, "Export the review again.")])
        stated = {name: given[name] for name in OF_A_FINDING}
        if isinstance(stated["checks"], list):
            stated["checks"] = [present_id(str(check)) for check in stated["checks"]]
        finding = Finding(review=review, author=user, **stated)
        finding.full_clean(exclude=["review", "author", "submission", "checks", "evidence"])
        finding.submission = review.submissions.latest_with_values()
        finding.save()
        for message in given.get("thread", []):
            said = f"{message.get('author', '')}, {message.get('at', '')}: {message.get('text', '')}"
            Message.objects.create(finding=finding, author=user, text=said)
