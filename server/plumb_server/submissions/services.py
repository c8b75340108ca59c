"""What happens to submissions: exhibits, tables, claims, cases.  Every change leaves an audit entry."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from threading import Lock
from typing import Any

from cachetools import LRUCache
from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone
from plumb_core.documents import submission as core
from plumb_core.documents.reading import read
from plumb_core.editions import EDITIONS
from plumb_core.intake.columns import Reading
from plumb_core.intake.layout.tables import arranged
from plumb_core.intake.reader import REGION
from plumb_core.intake.sheets import Sheet, SheetRefused, read_text
from plumb_core.intake.submission import (
    REPEATED_QUANTITIES,
    EarlierTables,
    Identity,
    Remembered,
    heading_of,
    open_parts_of,
    read_in,
    turn_of,
    with_role,
)
from plumb_core.intake.tables.kind import Building, TableRead

from plumb_server.accounts.models import User
from plumb_server.reviews.conflicts import changes_since
from plumb_server.reviews.models import Review
from plumb_server.submissions import contents, quotas, readings
from plumb_server.submissions.models import Case, Claim, ClaimTable, Exhibit, ExhibitReading, Submission
from plumb_server.web.problems import Conflict, PreconditionFailed, UnprocessableContent
from plumb_server.web.texts import visible

MOST_NOTES = 30
"""Lines over a table that are remembered with it."""
REMEMBERED = 20
"""Tables of a review whose readings are proposed for the next ones."""


@transaction.atomic
def open_submission(review: Review, user: User) -> Submission:
    """The submission that is being accepted; opened where none is."""
    review.locked()
    draft = review.submissions.draft()
    if draft:
        return draft
    submission = Submission.objects.create(review=review, number=review.submissions.next_number(), author=user)
    review.record(user, "submission opened", submission=submission.label)
    return submission


@transaction.atomic
def accept_submission(submission: Submission, user: User) -> Submission:
    """Finalize a submission."""
    submission.review.locked()
    submission.refresh_from_db()
    submission.require_open()
    if not submission.claims.exists():
        raise Conflict(f"{submission.label} has no values yet", "Accept at least one table first.")
    submission.status = Submission.Status.ACCEPTED
    submission.accepted_at = timezone.now()
    submission.save(update_fields=["status", "accepted_at"])
    submission.review.record(user, "submission accepted", submission=submission.label)
    return submission


MAX_NAME = 200
"""Characters of the name of a file."""


@transaction.atomic
def add_exhibit(submission: Submission, user: User, *, name: str, data: bytes, pasted: bool = False) -> Exhibit:
    """Keep a file as it is; the same bytes twice are the same exhibit."""
    name = visible(name)
    submission.review.locked()
    submission.require_open()
    if not data:
        raise UnprocessableContent(
            [{"path": "/file", "message": f"{name} is empty", "remedy": "Choose the file again."}]
        )
    if len(name) > MAX_NAME:
        words = f"the name of the file has {len(name)} characters; the limit is {MAX_NAME}"
        raise UnprocessableContent([{"path": "/file", "message": words, "remedy": "Rename the file."}])
    quotas.require_room(submission, user, len(data))
    digest = contents.keep(data)
    exhibit, created = Exhibit.objects.get_or_create(
        submission=submission,
        sha256=digest,
        defaults={"name": name, "size": len(data), "pasted": pasted, "author": user},
    )
    if created:
        submission.review.record(user, "exhibit added", submission=submission.label, name=name, sha256=digest)
    return exhibit


@transaction.atomic
def remove_exhibit(exhibit: Exhibit, user: User) -> None:
    """Take an exhibit from which nothing was accepted out of a draft; its bytes stay in the storage."""
    submission = exhibit.submission
    submission.review.locked()
    submission.require_open()
    if exhibit.tables.exists():
        raise Conflict(f"values of {exhibit.name} are accepted", "Remove its tables first.")
    submission.review.record(user, "exhibit removed", submission=submission.label, name=exhibit.name)
    exhibit.delete()


def sheets_of(exhibit: Exhibit, label: str = "") -> list[Sheet]:
    """The tables of an exhibit, or the one of a region of a page.

    Raises UnprocessableContent where it holds none that can be read.
    """
    if REGION.fullmatch(label):
        return [readings.region_read(exhibit, label)]
    with _LOCK:
        known = _sheets_read.get(exhibit.pk)
    if known is None:
        if exhibit.pasted:
            known = sheets_from(contents.contents(exhibit.sha256).decode(), exhibit.name)
        else:
            known = readings.sheets_read(exhibit)
        with _LOCK:
            _sheets_read[exhibit.pk] = known
    return known


CACHED_SHEETS = 4
"""Exhibits whose tables a process holds: a table is read again with every answer to what it asks."""
_LOCK = Lock()
_sheets_read: LRUCache[int, list[Sheet]] = LRUCache(CACHED_SHEETS)


def sheets_from(text: str, name: str) -> list[Sheet]:
    """The tables of pasted text; raises UnprocessableContent where it holds none that can be read."""
    try:
        return arranged([read_text(text, name)])
    except SheetRefused as refused:
        raise UnprocessableContent([{"path": "/text", "message": refused.message, "remedy": refused.remedy}]) from None


# tables


def _remembered(review: Review) -> list[Remembered]:
    """How the last tables of a review were read, the newest first."""
    tables = ClaimTable.objects.filter(exhibit__submission__review=review).order_by("-id")[:REMEMBERED]
    return [_as_remembered(t) for t in tables if t.reading]


def remembered_of(submission: Submission) -> list[Remembered]:
    """How the tables of a submission were read, in the order in which they were accepted."""
    tables = ClaimTable.objects.filter(exhibit__submission=submission).order_by("id")
    return [_as_remembered(t) for t in tables if t.reading]


def _as_remembered(table: ClaimTable) -> Remembered:
    answers = {part: value for part, value in table.reading.items() if part not in ClaimTable.OF_SHEET}
    notes = tuple(table.reading.get("notes", ()))
    return Remembered(table.kind, tuple(table.reading.get("heading", ())), Reading(**answers), notes)


def known_of(review: Review) -> EarlierTables:
    """What is known of a review when a table is read."""
    brief = review.current_brief().document
    draft = review.submissions.draft()
    heights = {s["name"]: s["height"] for s in brief.get("stories", [])} or (draft.heights() if draft else {})
    cases = {c.name: c.as_core() for c in draft.cases.all()} if draft else {}
    weights = {s["name"]: s["weight"] for s in brief.get("stories", []) if s.get("weight")}
    building = Building(list(heights), heights, cases, weights)
    words: dict[Identity, str] = {}
    if draft:
        loads = draft.claims.filter(quantity__in=REPEATED_QUANTITIES).values_list("quantity", "case", "text")
        words = {(quantity, None, None, None, case): text for quantity, case, text in loads}
    return EarlierTables(EDITIONS[brief["edition"]], building, _remembered(review), stated=words)


def read_sheet(review: Review, sheet: Sheet, file: str, kind: str, given: dict[str, Any] | None) -> TableRead:
    """Read one sheet as a table of a kind ('' = whatever it looks like); nothing is saved."""
    return read_in(sheet, file, known_of(review), kind, None if given is None else Reading(**given))


def accept_table(
    exhibit: Exhibit,
    user: User,
    sheet: Sheet,
    kind: str,
    given: dict[str, Any] | None,
    replaces: ClaimTable | None = None,
    *,
    partly: bool = False,
) -> ClaimTable:
    """Turn a table into claims; raises UnprocessableContent naming every cell that is blocking.

    replaces : the same table as it was accepted before, with other answers
    partly : whether rows and columns with questions may stay open
    """
    submission = exhibit.submission
    review = submission.review
    submission.require_open()
    if replaces is not None:
        with transaction.atomic():
            review.locked()
            remove_table(replaces, user)
            return _keep_table(exhibit, user, sheet, _understood(review, exhibit.name, sheet, kind, given, partly))
    # read before the review is locked: nobody waits for it
    basis = _basis(review)
    result = _understood(review, exhibit.name, sheet, kind, given, partly)
    with transaction.atomic():
        review.locked()
        if _basis(review) != basis:
            result = _understood(review, exhibit.name, sheet, kind, given, partly)
        return _keep_table(exhibit, user, sheet, result)


def accept_pasted(
    review: Review,
    user: User,
    name: str,
    text: str,
    sheet: Sheet,
    kind: str,
    given: dict[str, Any] | None,
    *,
    partly: bool = False,
) -> ClaimTable:
    """Turn a table of pasted text into claims.

    The text becomes an exhibit, and nothing does where the table is refused.
    """
    basis = _basis(review)
    result = _understood(review, name, sheet, kind, given, partly)
    with transaction.atomic():
        submission = open_submission(review, user)
        if _basis(review) != basis:
            result = _understood(review, name, sheet, kind, given, partly)
        exhibit = add_exhibit(submission, user, name=name, data=text.encode(), pasted=True)
        return _keep_table(exhibit, user, sheet, result)


def _basis(review: Review) -> tuple[Any, ...]:
    """What the reading of a table rests on in addition to the table; where it is the same, so is the reading."""
    draft = review.submissions.draft()
    state = draft.state() if draft else {}
    return review.current_brief().number, state.get("tables", []), state.get("cases", [])


def _understood(
    review: Review, name: str, sheet: Sheet, kind: str, given: dict[str, Any] | None, partly: bool
) -> TableRead:
    """A table that leaves nothing open, or no more than rows and columns.

    Raises UnprocessableContent naming every cell that is blocking.
    """
    result = read_sheet(review, sheet, name, kind, given)
    held_up = [p for p in result.problems if (p.holds_up if partly else p.leaves_open)]
    if held_up:
        raise UnprocessableContent(
            [
                {
                    "path": f"/rows/{p.row}/{p.column}" if p.row is not None else "/table",
                    "message": p.message,
                    "remedy": p.remedy,
                }
                for p in held_up
            ]
        )
    return result


def _keep_table(exhibit: Exhibit, user: User, sheet: Sheet, result: TableRead) -> ClaimTable:
    submission = exhibit.submission
    submission.refresh_from_db()
    submission.require_open()
    of_sheet = {"heading": list(heading_of(sheet, result.reading.header_row)), "notes": list(sheet.notes[:MOST_NOTES])}
    table = ClaimTable.objects.create(
        exhibit=exhibit,
        kind=result.kind,
        sheet=sheet.label,
        reading=vars(result.reading) | of_sheet,
        count=len(result.claims),
        open_parts=[
            part.model_dump(mode="json", exclude_none=True) for part in open_parts_of(exhibit.name, sheet, result)
        ],
    )
    if not keep_claims(submission, ((table, claim) for claim in result.claims)):
        raise Conflict(
            "a value of this table was accepted before in this submission",
            "Remove the table that was accepted first, then accept this one.",
            "/table",
        )
    keep_cases(submission, result.cases)
    submission.review.record(
        user,
        "table accepted",
        submission=submission.label,
        exhibit=exhibit.name,
        kind=result.kind,
        claims=len(result.claims),
    )
    return table


def _require_changeable(submission: Submission) -> None:
    """Raise Conflict where the submission is accepted, or its review is closed, once for all tables."""
    with transaction.atomic():
        submission.review.locked()
        submission.require_open()


def accept_all(exhibit: Exhibit, user: User) -> list[AcceptedTable]:
    """Accept every table of an exhibit without questions; tables that others refer to come first."""
    _require_changeable(exhibit.submission)
    sheets = sheets_of(exhibit)
    reported = {r.label: r for r in _accept_each([(exhibit, s) for s in sheets], user)}
    return [reported[s.label] for s in sheets if s.label in reported]


def accept_all_of(submission: Submission, user: User) -> list[AcceptedTable]:
    """Accept every table without questions of all files of a submission that have been read.

    Tables that others refer to come first, whichever file they are in.  A table that is accepted stays accepted,
    whatever becomes of the next.
    """
    _require_changeable(submission)
    exhibits = submission.exhibits.select_related("reading").filter(
        pasted=False, reading__status=ExhibitReading.Status.READ
    )
    return _accept_each([(e, sheet) for e in exhibits for sheet in sheets_of(e)], user)


@dataclass(frozen=True)
class AcceptedTable:
    """What became of a table: accepted, or its questions."""

    exhibit: Exhibit
    label: str
    table: ClaimTable | None
    open: list[str]


def _accept_each(pairs: Sequence[tuple[Exhibit, Sheet]], user: User) -> list[AcceptedTable]:
    reported = []
    accepted = {(t.exhibit_id, t.sheet) for t in ClaimTable.objects.filter(exhibit__in={e for e, _ in pairs})}
    for exhibit, sheet in sorted(pairs, key=lambda pair: turn_of(pair[1])):
        if (exhibit.pk, sheet.label) in accepted or not sheet.kind:
            continue
        table, questions = None, []
        try:
            table = accept_table(exhibit, user, sheet, "", None)
        except UnprocessableContent as unusable:
            questions = [e["message"] for e in unusable.errors]
        except Conflict as conflict:
            questions = [str(conflict.detail)]
        reported.append(AcceptedTable(exhibit, sheet.label, table, questions))
    return reported


def keep_claims(submission: Submission, claims: Iterable[tuple[ClaimTable, core.Claim]]) -> bool:
    """Save claims with their tables, all of them or none; False where one of them is claimed before."""
    try:
        with transaction.atomic():
            Claim.objects.copy_in(Claim.row_of(table, submission, claim) for table, claim in claims)
    except IntegrityError:
        return False
    return True


def keep_cases(submission: Submission, cases: Iterable[core.LoadCase]) -> None:
    """Save load cases; of those that are there already what is not known of their roles."""
    reported = {case.name: case for case in cases}
    for known in submission.cases.filter(name__in=reported):
        merged = with_role(known.as_core(), reported.pop(known.name))
        for part in Case.ROLE:
            setattr(known, part, getattr(merged, part))
        known.save()
    Case.objects.bulk_create([Case.of(submission, case) for case in reported.values()])


@transaction.atomic
def remove_table(table: ClaimTable, user: User) -> None:
    """Remove a table's claims, and the cases that nothing else names, from a draft; the exhibit stays."""
    submission = table.exhibit.submission
    submission.review.locked()
    submission.require_open()
    # somebody else may have removed it while this one waited for the review's row
    table = get_object_or_404(ClaimTable.objects.select_related("exhibit"), pk=table.pk)
    submission.review.record(
        user, "table removed", submission=submission.label, exhibit=table.exhibit.name, kind=table.kind
    )
    table.delete()
    submission.cases.exclude(name__in=submission.claims.values("case")).delete()


@transaction.atomic
def change_case(case: Case, user: User, role: dict[str, Any], based_on: int) -> Case:
    """Give a load case another role; refused by the core where it cannot be one.

    based_on : revision that the change was made on; refused with what changed meanwhile where it is another by now
    """
    review = case.submission.review
    review.locked()
    stored = Case.objects.select_for_update().select_related("submission").get(pk=case.pk)
    if stored.revision != based_on:
        raise PreconditionFailed(
            changes_since(
                review,
                f"the case {stored.name}",
                action="case changed",
                detail__case=stored.name,
                detail__submission=stored.submission.label,
                detail__revision__gt=based_on,
            )
        )
    checked = read(core.LoadCase, stored.as_document() | role)
    if stored.submission.status == Submission.Status.ACCEPTED and stored.submitted is None:
        # what was submitted is kept; that the reviewer takes it otherwise is said in the recheck
        stored.submitted = stored.role
    for part in Case.ROLE:
        setattr(stored, part, getattr(checked, part))
    stored.revision += 1
    stored.save()
    words = {
        "submission": stored.submission.label,
        "case": stored.name,
        "fields": sorted(role),
        "revision": stored.revision,
    }
    review.record(user, "case changed", **words, **role)
    return stored
