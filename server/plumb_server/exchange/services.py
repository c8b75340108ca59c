"""A whole review as one document (`.plumb.json`), out and in again."""

from __future__ import annotations

import base64
import hashlib
from collections import Counter
from typing import Any

from django.conf import settings
from django.db import transaction
from django.utils import timezone
from plumb_core.checks.earlier_ids import present_id
from plumb_core.documents import submission as core
from plumb_core.documents.reading import read, read_recheck
from plumb_core.errors import InputRefused, Problem
from plumb_core.intake.columns import Reading
from pydantic import TypeAdapter, ValidationError

from plumb_server.accounts.models import User
from plumb_server.exchange.documents import ExhibitPart, ReviewPart, TablePart, evidence_read, number_problems
from plumb_server.findings.models import Finding, Message
from plumb_server.rechecks.models import Recheck
from plumb_server.rechecks.services import review_document, run_recheck
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

OF_A_FINDING = ("number", "severity", "status", "title", "clause", "text", "checks", "evidence", "origin")
WITHOUT_A_FILE = "values without a file"
COMPARED = ("theirs", "carried", "independent", "verdict")
"""Parts of the evidence of a finding that a recheck here has to reproduce."""


def export_review(review: Review, submission: Submission | None, user: User) -> dict[str, Any]:
    """A review as a recheck document with its exhibits, findings, people and audit trail."""
    document = review_document(review, submission)
    exhibits = list(submission.exhibits.all()) if submission else []
    tables = ClaimTable.objects.filter(exhibit__submission=submission).select_related("exhibit") if submission else []
    stored = _with_contents(exhibits)
    document["submission"]["exhibits"] = [
        {
            "name": e.name,
            "sha256": e.sha256,
            "pasted": e.pasted,
            "content": base64.b64encode(contents(e.sha256)).decode() if e.pk in stored else None,
        }
        for e in exhibits
    ]
    tables = list(tables)
    turn = {table.pk: i for i, table in enumerate(tables)}
    of_claims = submission.claims.order_by("id").values_list("table_id", flat=True) if submission else []
    document["review"] = {
        "title": review.title,
        "place": review.place,
        "client": review.client,
        "description": review.description,
        "accepted": bool(submission and submission.status == Submission.Status.ACCEPTED),
        "tables": [
            {
                "sha256": t.exhibit.sha256,
                "kind": t.kind,
                "sheet": t.sheet,
                "reading": t.reading,
                "open_parts": t.open_parts,
            }
            for t in tables
        ],
        # files may have one name: by it alone it is not known which of them a value is from
        "table_of_claim": [turn[pk] for pk in of_claims],
        "findings": [
            _finding(f) for f in review.findings.select_related("author").prefetch_related("thread__author", "further")
        ],
        "exported_at": timezone.now().isoformat(),
        "exported_by": str(user),
        "team": [
            {"name": m.user.name, "firm": m.user.firm, "role": m.role} for m in review.team.select_related("user")
        ],
        "audit": [
            {"at": e.at.isoformat(), "actor": str(e.actor), "action": e.action, "detail": e.detail}
            for e in review.audit.select_related("actor").order_by("id")
        ],
        "reports": [
            {
                "number": r.number,
                "sha256": r.sha256,
                "input_hash": r.input_hash,
                "issued_by": str(r.issued_by),
                "issued_at": r.issued_at.isoformat(),
            }
            for r in review.reports.select_related("issued_by").defer("pdf")
        ],
        "origin": review.origin,
    }
    return document


def _with_contents(exhibits: list[Exhibit]) -> set[int]:
    """Keys of the exhibits whose files an export holds: the small ones first, as many as can be imported again."""
    room, stored = settings.MAX_IMPORT // 2, set()
    for exhibit in sorted(exhibits, key=lambda e: e.size):
        room -= exhibit.size * 4 // 3
        if room >= 0:
            stored.add(exhibit.pk)
    return stored


def _finding(finding: Finding) -> dict[str, Any]:
    thread = [{"author": m.author.name, "at": m.at.isoformat(), "text": m.text} for m in finding.thread.all()]
    reported: dict[str, str | None] = {"author": str(finding.author), "created_at": finding.created_at.isoformat()}
    reported["changed_at"] = finding.changed_at.isoformat()
    reported["due"] = finding.due.isoformat() if finding.due else None
    # checks that were linked later are of the finding as the first ones are
    linked = {
        "checks": finding.all_checks,
        "evidence": [*finding.evidence, *(link.evidence for link in finding.further.all())],
    }
    return {name: getattr(finding, name) for name in OF_A_FINDING} | linked | {"thread": thread} | reported


@transaction.atomic
def import_review(user: User, document: Any) -> Review:
    """A new review from an exported document, with its findings; all of it or nothing.

    What is imported is rechecked: the evidence of a finding is what the recheck here says. Where that is another
    than the
    document states, or says nothing of it, the finding is marked so.
    """
    checked = read_recheck(document)
    about = _about(checked.review or {})
    if problems := number_problems(checked.submission.claims):
        raise InputRefused(problems)
    review = create_review(
        user,
        brief=document["brief"],
        title=about.title,
        place=about.place,
        client=about.client,
        description=about.description,
    )
    review.origin = {
        "exported_by": about.exported_by,
        "exported_at": about.exported_at.isoformat() if about.exported_at else None,
        "team": [person.model_dump() for person in about.team],
        "audit": [entry.model_dump(mode="json") for entry in about.audit],
        "reports": [report.model_dump(mode="json") for report in about.reports],
        "before": about.origin,
    }
    review.save(update_fields=["origin"])
    if document.get("model"):
        ModelRevision.objects.create(review=review, number=1, document=document["model"], author=user)
    submission = open_submission(review, user)
    _take_in(submission, user, checked.submission, about)
    if about.accepted and checked.submission.claims:
        accept_submission(submission, user)
    review.record(user, "review imported", claims=len(checked.submission.claims), exported_by=about.exported_by)
    recheck = run_recheck(review, review.submissions.latest_with_values())
    _import_findings(review, user, about, recheck)
    return review


def _about(review: dict[str, Any]) -> ReviewPart:
    """What an export says of a review; raises InputRefused naming every problem."""
    try:
        about = read(ReviewPart, review)
    except InputRefused as refused:
        raise InputRefused([Problem(f"/review{p.path}", p.message, p.remedy) for p in refused.problems]) from None
    seen: set[int] = set()
    for i, finding in enumerate(about.findings):
        if finding.number in seen:
            words = f"there are two findings {finding.number}"
            raise InputRefused([Problem(f"/review/findings/{i}/number", words, "Export the review again.")])
        seen.add(finding.number)
    return about


def _take_in(submission: Submission, user: User, given: core.Submission, about: ReviewPart) -> None:
    """Exhibits, tables, claims and cases of an exported submission."""
    exhibits = _exhibits(submission, user, given.exhibits)
    by_name = {e.name: e for e in exhibits}
    listed = {(t.sha256, t.sheet): t for t in about.tables}
    tables: dict[tuple[str, str], ClaimTable] = {}
    claims = []
    by_sum = {e.sha256: e for e in exhibits}
    of_claim = [about.tables[i] if 0 <= i < len(about.tables) else None for i in about.table_of_claim]
    for i, claim in enumerate(given.claims):
        named = of_claim[i] if len(of_claim) == len(given.claims) else None
        exhibit = by_sum.get(named.sha256) if named else by_name.get(claim.source.file)
        if exhibit is None:
            exhibit = _without_a_file(submission, user, claim.source.file or WITHOUT_A_FILE)
            by_name[claim.source.file] = exhibit
        key = (exhibit.sha256, named.sheet if named and exhibit.sha256 == named.sha256 else claim.source.sheet)
        if key not in tables:
            known = listed.get(key)
            tables[key] = ClaimTable.objects.create(
                exhibit=exhibit,
                kind=known.kind if known else "imported",
                sheet=key[1],
                **_how(known),
            )
        claims.append((tables[key], claim))
    # tables of load cases, and those of which every part is open, hold no claims
    for key, known in listed.items():
        if key not in tables and key[0] in by_sum:
            tables[key] = ClaimTable.objects.create(
                exhibit=by_sum[key[0]], kind=known.kind, sheet=known.sheet, **_how(known)
            )
    if not keep_claims(submission, claims):
        raise InputRefused(
            [Problem("/submission/claims", "the same value is claimed twice", "Leave one of the two claims out.")]
        )
    counts = Counter(table.pk for table, _ in claims)
    for table in tables.values():
        table.count = counts[table.pk]
    ClaimTable.objects.bulk_update(tables.values(), ["count"])
    keep_cases(submission, given.cases)


def _how(table: TablePart | None) -> dict[str, Any]:
    """How a table was read, and what of it is open."""
    parts = [p.model_dump(mode="json", exclude_none=True) for p in table.open_parts] if table else []
    return {"reading": _reading(table), "open_parts": parts}


def _without_a_file(submission: Submission, user: User, name: str) -> Exhibit:
    """An exhibit of which only the name is known."""
    return add_exhibit(submission, user, name=name, data=name.encode(), pasted=True)


def _reading(table: TablePart | None) -> dict[str, Any]:
    """How a table was read, where this version can read tables so; empty where it cannot."""
    stated = (table.reading or table.mapping) if table else {}
    heading = stated.get("heading", [])
    try:
        how = READING.validate_python({k: v for k, v in stated.items() if k not in ClaimTable.OF_SHEET})
        notes = HEADING.validate_python(stated.get("notes", []))
        return vars(how) | {"heading": HEADING.validate_python(heading), "notes": notes}
    except ValidationError:
        return {}


READING, HEADING = TypeAdapter(Reading), TypeAdapter(list[str])


def _exhibits(submission: Submission, user: User, exhibits: list[dict[str, Any]]) -> list[Exhibit]:
    retained = []
    for i, given in enumerate(exhibits):
        path = f"/submission/exhibits/{i}"
        try:
            exhibit = ExhibitPart.model_validate(given)
            data = None if exhibit.content is None else base64.b64decode(exhibit.content, validate=True)
        except (ValidationError, ValueError):
            words = "the exhibit's name, sha256 or content is missing, or is not as expected"
            raise InputRefused([Problem(path, words, "Export the review again.")]) from None
        if data is None:
            # the export would have become too large to be imported
            retained.append(_without_a_file(submission, user, exhibit.name))
            continue
        if hashlib.sha256(data).hexdigest() != exhibit.sha256:
            remedy = "Export the review again; this file was changed after the export."
            raise InputRefused([Problem(f"{path}/content", f"{exhibit.name} does not match its SHA-256", remedy)])
        retained.append(add_exhibit(submission, user, name=exhibit.name, data=data, pasted=exhibit.pasted))
    return retained


def _import_findings(review: Review, user: User, about: ReviewPart, recheck: Recheck) -> None:
    """Findings of an exported review; their threads are kept with the names they were written under."""
    by_id = {c["id"]: c for c in recheck.sheet["checks"]}
    submission = review.submissions.latest_with_values()
    for given in about.findings:
        evidence, differs, unknown = [], [], []
        for words in given.evidence:
            name = str(words.get("id", ""))[:200]
            entry, stated = by_id.get(present_id(name)), evidence_read(words)
            label = (entry or stated or {"label": name or "a check without a name"})["label"]
            if entry is None:
                unknown.append(label)
            elif stated is None or any(entry[part] != stated[part] for part in COMPARED):
                differs.append(label)
            if (known := entry or stated) is not None:
                evidence.append(known)
        if evidence and evidence[0]["id"] in by_id:
            evidence[0] = evidence[0] | {"derivation": recheck.derivation("independent", evidence[0]["step"])}
        finding = Finding.objects.create(
            review=review,
            author=user,
            submission=submission,
            checks=[present_id(check) for check in given.checks],
            evidence=evidence,
            origin={
                "author": given.author,
                "created_at": given.created_at.isoformat() if given.created_at else None,
                "differs": differs,
                "unknown": unknown,
            },
            **{n: getattr(given, n) for n in ("number", "severity", "status", "title", "clause", "text", "due")},
        )
        for message in given.thread:
            said_at = message.at.isoformat() if message.at else ""
            text = f"{message.author}, {said_at}: {message.text}"[:5000]
            Message.objects.create(finding=finding, author=user, text=text)
