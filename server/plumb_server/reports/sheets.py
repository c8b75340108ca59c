"""The report as XLSX: the register, every submitted value with its provenance and both values, the requirements."""

from __future__ import annotations

import io
from collections.abc import Iterable, Sequence
from typing import Any

from openpyxl import Workbook
from openpyxl.cell import WriteOnlyCell
from openpyxl.styles import Font

from plumb_server.rechecks.services import claims_as_core, run_recheck
from plumb_server.reports.services import REQUIREMENT_STATES, Progress, unseen
from plumb_server.reviews.models import Review

REGISTER = (
    *("No.", "Finding", "Text", "Clause", "Severity", "State", "Submission", "Next", "Due", "Checks", "Thread"),
)
VALUES = (
    *("Stage", "Quantity", "Symbol", "Direction", "Story", "Case", "Submitted", "As written", "Unit"),
    *("File", "Sheet", "Row", "Column", "Recomputed, carried", "Deviation, carried", "Recomputed, independent"),
    *("Deviation, independent", "Verdict", "Role", "Clause", "Note"),
)


def report(review: Review, progress: Progress = unseen) -> bytes:
    """The workbook of a review."""
    submission = review.submissions.latest_with_values()
    result = run_recheck(review, submission).sheet
    progress(0.3)
    book = Workbook(write_only=True)
    _sheet(book, "Register", REGISTER, _register(review), (6, 40, 60, 20))
    progress(0.5)
    _sheet(book, "Values", VALUES, _values(result, claims_as_core(submission) if submission else ()), (10, 36, 12))
    progress(0.8)
    rows = [
        (r["words"], r["clause"], REQUIREMENT_STATES[r["status"]], r["level"], r["why"]) for r in result["requirements"]
    ]
    _sheet(book, "Requirements", ("Requirement", "Clause", "State", "Level", "Why"), rows, (70, 20, 16, 8, 60))
    data = io.BytesIO()
    book.save(data)
    return data.getvalue()


def _sheet(
    book: Any, title: str, headings: Sequence[str], rows: Iterable[Sequence[Any]], widths: Sequence[float]
) -> None:
    sheet = book.create_sheet(title)
    sheet.freeze_panes = "A2"
    for i, width in enumerate(widths):
        sheet.column_dimensions["ABCDEFGH"[i]].width = width
    head = []
    for heading in headings:
        cell = WriteOnlyCell(sheet, heading)
        cell.font = Font(bold=True)
        head.append(cell)
    sheet.append(head)
    for row in rows:
        sheet.append([_cell(sheet, value) for value in row])


def _cell(sheet: Any, value: Any) -> Any:
    """A value of a cell; a text also where it begins like a formula."""
    if not isinstance(value, str) or value[:1] not in ("=", "+", "-", "@"):
        return value
    cell = WriteOnlyCell(sheet, value)
    cell.data_type = "s"
    return cell


def _register(review: Review) -> Iterable[Sequence[Any]]:
    findings = review.findings.select_related("submission", "assignee").prefetch_related("further", "thread__author")
    for f in findings:
        thread = "\n".join(f"{m.author.name}, {m.at:%Y-%m-%d}: {m.text}" for m in f.thread.all())
        yield (
            *(f.number, f.title, f.text, f.clause, f.get_severity_display(), f.status),
            *(f.submission.label if f.submission else "", f.assignee.name if f.assignee else "", f.due),
            *(", ".join(f.all_checks), thread),
        )


def _values(result: dict[str, Any], claims: Sequence[Any]) -> Iterable[Sequence[Any]]:
    """Every check, then every submitted value that no check is made of."""
    checked = set()
    for c in result["checks"]:
        stated = c["theirs"]
        source = stated["source"] if stated else {}
        sides = [c["carried"] or {}, c["independent"] or {}]
        if stated:
            checked.add((source["file"], source["sheet"], source["row"], source["column"]))
        yield (
            *(c["stage"], c["meaning"], c["symbol"], c["direction"], c["story"], c["case"]),
            *(stated["value"] if stated else None, stated["text"] if stated else None, c["unit"].replace("*", " ")),
            *(source.get("file"), source.get("sheet"), source.get("row"), source.get("column")),
            *(part for side in sides for part in (side.get("value"), side.get("deviation"))),
            *(c["verdict"], c["role"], c["clause"], c["note"]),
        )
    for claim in claims:
        place = (claim.source.file, claim.source.sheet, claim.source.row, claim.source.column)
        if place not in checked:
            yield (
                *("", claim.quantity, "", claim.direction, claim.story, claim.case),
                *(claim.value, claim.text, claim.unit, *place, None, None, None, None, "not rechecked", "", "", ""),
            )
