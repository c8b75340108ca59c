"""What happens to reviews: briefs, submissions, claims, rechecks.  Every change leaves an audit entry."""

from __future__ import annotations

import base64
import hashlib
from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import Max
from django.utils import timezone
from plumb_core import ENGINE
from plumb_core.answers.reference_model import request_to
from plumb_core.briefs import with_governing
from plumb_core.checks.modal import QUANTITY_KINDS
from plumb_core.checks.recheck import recheck as core_recheck
from plumb_core.documents.brief import Brief
from plumb_core.documents.model import ReferenceModel
from plumb_core.documents.reading import read
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, Problem
from plumb_core.intake.columns import Reading
from plumb_core.intake.reading import kind_of, read_table
from plumb_core.intake.sheets import Sheet, SheetRefused, read_file, read_text
from plumb_core.intake.tables import TABLES
from plumb_core.intake.tables.kind import TableRead
from plumb_core.quantities import QUANTITIES

from plumb_server.accounts.models import User
from plumb_server.hashing import input_hash
from plumb_server.reference.models import ModelRevision
from plumb_server.reference.runs import stored_answer
from plumb_server.reviews.models import (
    AuditEntry,
    BriefRevision,
    Claim,
    ClaimTable,
    Exhibit,
    Membership,
    Recheck,
    Review,
    Role,
    Submission,
)
from plumb_server.reviews.states import next_state, undone
from plumb_server.web.problems import Conflict, Unusable


def record(review: Review, actor: User, action: str, **detail: Any) -> None:
    AuditEntry.objects.create(review=review, actor=actor, action=action, detail=detail)


# reviews and briefs


@transaction.atomic
def create_review(user: User, *, brief: dict[str, Any], **fields: Any) -> Review:
    """A new review with its first brief; whoever creates it leads it."""
    checked = canonical_brief(brief)
    review = Review.objects.create(**fields)
    Membership.objects.create(review=review, user=user, role=Role.LEAD)
    BriefRevision.objects.create(review=review, number=1, document=checked, author=user)
    record(review, user, "review created", title=review.title)
    return review


def canonical_brief(brief: Any) -> dict[str, Any]:
    """A brief as the core reads it; raises InputRefused naming every problem."""
    return read(Brief, brief).model_dump(mode="json", exclude_none=True)


def read_brief(review: Review) -> Brief:
    """The brief as the core's model."""
    return read(Brief, current_brief(review).document)


def govern(review: Review, user: User, edition: str, based_on: int) -> BriefRevision:
    """Another edition governs; what was given under the one before is kept as its part of the comparison."""
    return save_brief(review, user, with_governing(read_brief(review), edition).model_dump(mode="json"), based_on)


def current_brief(review: Review) -> BriefRevision:
    revision = review.briefs.first()
    assert revision is not None, "a review is created with its first brief"
    return revision


def locked(review: Review) -> Review:
    """The review's row, locked, so that numbers are given out once."""
    locked = Review.objects.select_for_update().get(pk=review.pk)
    if locked.status == Review.Status.CLOSED:
        raise Conflict("the review is closed", "The lead can open it again.")
    return locked


@transaction.atomic
def save_brief(review: Review, user: User, brief: Any, based_on: int) -> BriefRevision:
    """A new state of the brief; refused where somebody else changed it meanwhile."""
    checked = canonical_brief(brief)
    locked(review)
    saved = next_state(BriefRevision, review, user, checked, based_on, "brief")
    if saved is None:
        return current_brief(review)
    record(review, user, "brief changed", number=saved.number)
    return saved


@transaction.atomic
def undo_brief(review: Review, user: User) -> BriefRevision:
    """Back to the state before the last change that isn't undone yet."""
    locked(review)
    saved, restored = undone(BriefRevision, review, user, "brief")
    record(review, user, "brief change undone", number=saved.number, restores=restored)
    return saved


# submissions and exhibits


def draft_submission(review: Review, user: User) -> Submission:
    """The submission that is being taken in; opened where none is."""
    open_one = open_draft(review)
    if open_one:
        return open_one
    highest = review.submissions.aggregate(highest=Max("number"))["highest"]
    submission = Submission.objects.create(review=review, number=0 if highest is None else highest + 1, author=user)
    record(review, user, "submission opened", submission=submission.label)
    return submission


def _open(submission: Submission) -> None:
    if submission.status == Submission.Status.ACCEPTED:
        raise Conflict(f"{submission.label} is accepted and can't be changed", "Open the next submission.")


@transaction.atomic
def open_submission(review: Review, user: User) -> Submission:
    return draft_submission(locked(review), user)


@transaction.atomic
def accept_submission(submission: Submission, user: User) -> Submission:
    """Close a submission for good."""
    locked(submission.review)
    submission.refresh_from_db()
    _open(submission)
    if not submission.claims.exists():
        raise Conflict(f"{submission.label} holds no values yet", "Accept at least one table first.")
    submission.status = Submission.Status.ACCEPTED
    submission.accepted_at = timezone.now()
    submission.save(update_fields=["status", "accepted_at"])
    record(submission.review, user, "submission accepted", submission=submission.label)
    return submission


@transaction.atomic
def add_exhibit(submission: Submission, user: User, *, name: str, data: bytes, pasted: bool = False) -> Exhibit:
    """Keep a file as it is; the same bytes twice are the same exhibit."""
    locked(submission.review)
    _open(submission)
    if not data:
        raise Unusable([{"path": "/file", "message": f"{name} is empty", "remedy": "Choose the file again."}])
    digest = hashlib.sha256(data).hexdigest()
    exhibit, created = Exhibit.objects.get_or_create(
        submission=submission,
        sha256=digest,
        defaults={"name": name[:200], "data": data, "size": len(data), "pasted": pasted},
    )
    if created:
        record(submission.review, user, "exhibit added", submission=submission.label, name=name, sha256=digest)
    return exhibit


def sheets_of(exhibit: Exhibit) -> list[Sheet]:
    """The tables of an exhibit; raises Unusable where it holds none that can be read."""
    return sheets_from(bytes(exhibit.data), exhibit.name)


def sheets_from(data: bytes | str, name: str) -> list[Sheet]:
    try:
        return [read_text(data, name)] if isinstance(data, str) else read_file(data, name)
    except SheetRefused as refused:
        raise Unusable([{"path": "/text" if isinstance(data, str) else "/file", "message": refused.message,
                         "remedy": refused.remedy}]) from None  # fmt: skip


def known_stories(review: Review, submission: Submission | None) -> list[str]:
    """Stories that rows of forces may refer to: those of the brief, else those of the submission's own table."""
    own = [s["name"] for s in current_brief(review).document.get("stories", [])]
    if own or submission is None:
        return own
    return list(dict.fromkeys(submission.claims.filter(quantity="h").order_by("id").values_list("story", flat=True)))


def remembered_mapping(review: Review, kind: str, sheet: Sheet) -> dict[str, Any] | None:
    """How the last table of this kind with the same headings was read in this review; None for new headings."""
    headings = [[c.text for c in row] for row in sheet.rows[:12]]
    for table in ClaimTable.objects.filter(exhibit__submission__review=review, kind=kind).order_by("-id")[:20]:
        known = dict(table.mapping)
        heading = known.pop("heading", None)
        if heading and heading in headings:
            return known | {"header_row": headings.index(heading)}
    return None


def _heading(sheet: Sheet, header_row: int | None) -> list[str]:
    return [c.text for c in sheet.rows[header_row]] if header_row is not None else []


def open_draft(review: Review) -> Submission | None:
    """The submission that is being taken in, if one is."""
    return review.submissions.filter(status=Submission.Status.DRAFT).first()


def read_sheet(review: Review, sheet: Sheet, file: str, kind: str, mapping: dict[str, Any] | None) -> TableRead:
    """Read one sheet as a table of a kind ('' = whatever it looks like); nothing is saved."""
    kind = kind or kind_of(sheet) or "parameters"
    if kind not in TABLES:
        raise Unusable([{"path": "/kind", "message": f"{kind!r} is no kind of table",
                         "remedy": f"Use one of: {', '.join(TABLES)}."}])  # fmt: skip
    stories = known_stories(review, open_draft(review))
    known = remembered_mapping(review, kind, sheet) if mapping is None else mapping
    edition = EDITIONS[current_brief(review).document["edition"]]
    return read_table(
        sheet, kind, Reading(**known) if known else None, file=file, known_stories=stories, edition=edition
    )


@transaction.atomic
def accept_table(exhibit: Exhibit, user: User, sheet: Sheet, kind: str, mapping: dict[str, Any] | None) -> ClaimTable:
    """Turn a table into claims, all of them or none; raises Unusable naming every cell that stands in the way."""
    submission = exhibit.submission
    locked(submission.review)
    _open(submission)
    result = read_sheet(submission.review, sheet, exhibit.name, kind, mapping)
    if result.problems:
        raise Unusable([
            {"path": f"/rows/{p.row}/{p.column}" if p.row is not None else "/table", "message": p.message,
             "remedy": p.remedy} for p in result.problems])  # fmt: skip
    used = vars(result.mapping) | {"heading": _heading(sheet, result.mapping.header_row)}
    table = ClaimTable.objects.create(exhibit=exhibit, kind=result.kind, sheet=sheet.name, mapping=used)
    claims = [
        Claim(
            table=table, submission=submission, quantity=c.quantity, direction=c.direction or "", story=c.story or "",
            point=c.point, case=c.case, number=None if isinstance(c.value, str) else c.value, text=c.text[:60],
            unit=c.unit, scale=c.scale, row=c.source.row, column=c.source.column,
        )
        for c in result.claims
    ]  # fmt: skip
    try:
        with transaction.atomic():
            Claim.objects.bulk_create(claims)
    except IntegrityError:
        raise Conflict(
            "a value of this table was accepted before in this submission",
            "Remove the table that was accepted first, then accept this one.",
            "/table",
        ) from None
    record(submission.review, user, "table accepted", submission=submission.label, exhibit=exhibit.name,
           kind=result.kind, claims=len(claims))  # fmt: skip
    return table


@transaction.atomic
def remove_table(table: ClaimTable, user: User) -> None:
    """Take a table's claims out of a submission that isn't accepted yet; the exhibit stays."""
    submission = table.exhibit.submission
    locked(submission.review)
    _open(submission)
    record(submission.review, user, "table removed", submission=submission.label, exhibit=table.exhibit.name,
           kind=table.kind)  # fmt: skip
    table.delete()


# rechecks


CLAIM_COLUMNS = ("quantity", "direction", "story", "point", "case", "number", "text", "unit", "scale", "row", "column",
                 "table__sheet", "table__exhibit__name")  # fmt: skip


def claim_documents(submission: Submission) -> list[dict[str, Any]]:
    """The stored claims as the core's documents have them; read as plain rows, without the exhibits' contents."""
    return [
        {
            "quantity": quantity,
            "direction": direction or None,
            "story": story or None,
            "point": point,
            "case": case,
            "value": text if number is None else number,
            "text": text,
            "unit": unit,
            "scale": scale,
            "source": {"file": file, "sheet": sheet, "row": row, "column": column},
        }
        for quantity, direction, story, point, case, number, text, unit, scale, row, column, sheet, file in (
            submission.claims.order_by("id").values_list(*CLAIM_COLUMNS)
        )
    ]


def recheck_document(
    brief: dict[str, Any], submission: Submission | None, model: dict[str, Any] | None = None
) -> dict[str, Any]:
    """The recheck document of a brief, a submission and, where there is one, the reviewer's own model."""
    return {
        **({"model": model} if model else {}),
        "format": "plumb-recheck",
        "version": 1,
        "brief": brief,
        "submission": {
            "label": submission.label if submission else "S0",
            "claims": claim_documents(submission) if submission else [],
        },
    }


def current_model(review: Review) -> ModelRevision | None:
    """The reviewer's own model as it stands, None where there is none yet."""
    return review.model_revisions.first()


def review_document(
    review: Review, submission: Submission | None, revision: BriefRevision | None = None
) -> dict[str, Any]:
    """The recheck document of a review as it stands."""
    model = current_model(review)
    return recheck_document((revision or current_brief(review)).document, submission, model.document if model else None)


def own_modes(review: Review, document: dict[str, Any]) -> dict[str, Any] | None:
    """Modes of the review's own model, where the submission states modes and the model has its answer (or has it at once)."""
    stated = any(QUANTITIES[c["quantity"]].kind in QUANTITY_KINDS for c in document["submission"]["claims"])
    if not stated or "model" not in document:
        return None
    try:
        request = request_to("modal", read(Brief, document["brief"]), read(ReferenceModel, document["model"]))
    except InputRefused:
        return None
    return stored_answer(review, request)


def run_recheck(review: Review, submission: Submission | None, revision: BriefRevision | None = None) -> Recheck:
    """The recheck of a review as it stands, from the store where the same question was asked before."""
    document = review_document(review, submission, revision)
    answer = own_modes(review, document)
    # with the answer of our own model more can be said than without
    digest = input_hash(document | {"answered": answer is not None})
    stored = review.rechecks.filter(input_hash=digest).first()
    if stored:
        return stored
    fresh = Recheck(
        review=review, input_hash=digest, engine=ENGINE, result=core_recheck(document, lambda request: answer)
    )
    # where two requests ask the same at once, both have the same answer and one of them is kept
    Recheck.objects.bulk_create([fresh], ignore_conflicts=True)
    return fresh


def latest_submission(review: Review) -> Submission | None:
    """The latest submission that holds values, else the latest."""
    return review.submissions.filter(claims__isnull=False).first() or review.submissions.first()


# export and import


def export_review(review: Review, submission: Submission | None, findings: list[dict[str, Any]]) -> dict[str, Any]:
    """A review as a recheck document with its exhibits and findings (`.plumb.json`)."""
    document = review_document(review, submission)
    exhibits = submission.exhibits.all() if submission else []
    tables = ClaimTable.objects.filter(exhibit__submission=submission) if submission else []
    document["submission"]["exhibits"] = [
        {"name": e.name, "sha256": e.sha256, "pasted": e.pasted, "content": base64.b64encode(bytes(e.data)).decode()}
        for e in exhibits
    ]
    document["review"] = {
        "title": review.title,
        "place": review.place,
        "client": review.client,
        "description": review.description,
        "accepted": bool(submission and submission.status == Submission.Status.ACCEPTED),
        "tables": [
            {"sha256": t.exhibit.sha256, "kind": t.kind, "sheet": t.sheet, "mapping": t.mapping} for t in tables
        ],
        "findings": findings,
    }
    return document


def _import_exhibits(submission: Submission, user: User, exhibits: list[dict[str, Any]]) -> dict[str, Exhibit]:
    kept = {}
    for i, given in enumerate(exhibits):
        try:
            data = base64.b64decode(given["content"], validate=True)
            digest, name = str(given["sha256"]), str(given["name"])
        except (KeyError, ValueError, TypeError):
            raise InputRefused([Problem(f"/submission/exhibits/{i}", "the exhibit's name, sha256 or content is missing",
                                        "Export the review again.")]) from None  # fmt: skip
        if hashlib.sha256(data).hexdigest() != digest:
            raise InputRefused([Problem(f"/submission/exhibits/{i}/content", f"{name} isn't what its SHA-256 says",
                                        "Export the review again; this file was changed on the way.")])  # fmt: skip
        kept[digest] = add_exhibit(submission, user, name=name, data=data, pasted=bool(given.get("pasted")))
    return kept


@transaction.atomic
def import_review(user: User, document: Any) -> tuple[Review, list[dict[str, Any]]]:
    """A new review from an exported document, and the findings it holds; all of it or nothing."""
    checked = read(RecheckDocument, document)
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
    exhibits = _import_exhibits(submission, user, checked.submission.exhibits)
    by_name = {e.name: e for e in exhibits.values()}
    tables: dict[tuple[str, str], ClaimTable] = {}
    listed = {(t.get("sha256"), t.get("sheet")): t for t in about.get("tables", []) if isinstance(t, dict)}
    rows = []
    for claim in checked.submission.claims:
        exhibit = by_name.get(claim.source.file) or by_name.setdefault(
            claim.source.file,
            add_exhibit(submission, user, name=claim.source.file or "values without a file",
                        data=(claim.source.file or "values without a file").encode(), pasted=True),
        )  # fmt: skip
        key = (exhibit.sha256, claim.source.sheet)
        if key not in tables:
            known = listed.get(key, {})
            tables[key] = ClaimTable.objects.create(
                exhibit=exhibit, kind=str(known.get("kind", "imported"))[:20], sheet=claim.source.sheet[:120],
                mapping=known.get("mapping", {}),
            )  # fmt: skip
        number = None if isinstance(claim.value, str) else claim.value
        rows.append(
            Claim(
                table=tables[key], submission=submission, quantity=claim.quantity, direction=claim.direction or "",
                story=claim.story or "", point=claim.point, case=claim.case, number=number,
                text=(claim.text or str(claim.value))[:60], unit=claim.unit, scale=claim.scale, row=claim.source.row,
                column=claim.source.column[:4],
            )
        )  # fmt: skip
    try:
        with transaction.atomic():
            Claim.objects.bulk_create(rows)
    except IntegrityError:
        raise InputRefused([Problem("/submission/claims", "the same value is claimed twice",
                                    "Leave one of the two claims out.")]) from None  # fmt: skip
    if about.get("accepted") and rows:
        accept_submission(submission, user)
    record(review, user, "review imported", claims=len(rows))
    findings = about.get("findings", [])
    return review, findings if isinstance(findings, list) else []
