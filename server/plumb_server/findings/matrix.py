"""The register as a response matrix: a workbook that is answered without an account and imported again.

Rows are matched by number and a check code, which is of the review, the number and our columns: a row that was
altered in our columns, a duplicate, a missing and a foreign one are named. Half wrong means nothing is imported.
"""

from __future__ import annotations

import hashlib
import hmac
import io
import re
from dataclasses import dataclass
from typing import Any

from django.conf import settings
from django.db import transaction
from openpyxl import Workbook
from openpyxl.styles import Alignment, Font, PatternFill, Protection
from openpyxl.worksheet.datavalidation import DataValidation
from openpyxl.worksheet.worksheet import Worksheet
from plumb_core.checks.wording import figures
from plumb_core.intake.reader import read_whole
from plumb_core.intake.sheet_documents import sheets_of

from plumb_server.findings.models import Finding, Message
from plumb_server.findings.services import write_message
from plumb_server.reviews.access import Access
from plumb_server.reviews.models import Review
from plumb_server.web.problems import UnprocessableContent
from plumb_server.web.reader_process import read_in_process

OURS = ("No.", "Finding", "Clause", "Evidence", "Severity")
THEIRS = ("Answer", "Action", "Reference")
CODE = "Check code"
COLUMNS = (*OURS, *THEIRS, CODE)
WIDTHS = (6, 60, 18, 48, 16, 48, 28, 24, 16)
FINDINGS, INSTRUCTIONS = "Findings", "Instructions"
HEADER_ROW = 3
ACTIONS = ("corrected", "will be corrected", "explained", "not agreed")
MOST_BYTES = 4_000_000
READ_SECONDS = 10
MOST_TEXT = 4_000
"""Characters of an answer."""
EVIDENCE = 6
"""Values of a finding that its row lists."""


def open_findings(review: Review) -> list[Finding]:
    """What the design team has to answer: findings that are issued or answered, in their order."""
    waiting = (Finding.Status.ISSUED, Finding.Status.ANSWERED)
    return list(review.findings.filter(status__in=waiting).prefetch_related("thread"))


def _ours(finding: Finding) -> tuple[str, ...]:
    """Our columns of a finding, as texts."""
    values = []
    for check in finding.evidence[:EVIDENCE]:
        stated = check["theirs"]
        sides = (check["carried"], check["independent"])
        ours = (sides[0] or sides[1]) if check["role"] == "origin" else (sides[1] or sides[0])
        unit = check["unit"].replace("*", " ")
        submitted = f"submitted {stated['text']} {stated['unit'] or unit}".strip() if stated else "not stated"
        recomputed = "" if ours is None else f", recomputed {figures(ours['value'])} {unit}"
        values.append(f"{check['label']}: {submitted}{recomputed}".strip())
    if len(finding.evidence) > EVIDENCE:
        values.append(f"and {len(finding.evidence) - EVIDENCE} more")
    severity = str(Finding.Severity(finding.severity).label)
    return str(finding.number), f"{finding.title}\n{finding.text}", finding.clause, "\n".join(values), severity


def _plain(text: str) -> str:
    """A text as it counts for the check code: programs store line ends and blanks in different ways."""
    return " ".join(text.replace("_x000D_", " ").split())


def code_of(review: Review, *parts: str) -> str:
    """The check code of texts of a review."""
    said = "\x1f".join([str(review.pk), *(_plain(part) for part in parts)])
    digest = hmac.new(f"response matrix {settings.SECRET_KEY}".encode(), said.encode(), hashlib.sha256).hexdigest()
    return "-".join((digest[:4], digest[4:8], digest[8:12])).upper()


INSTRUCTIONS_TEXT = (
    "Each row is one finding of the peer review. Please answer every row.",
    "Write in the columns Answer, Action and Reference only. The other columns are locked.",
    "Answer: what was done, or why the submitted value is right.",
    f"Action: {', '.join(ACTIONS)}.",
    "Reference: the sheet, page or file of the next submission that shows it.",
    "Do not add, delete or sort rows, and leave the check code as it is: with it the answers find their findings.",
    "Save the workbook as XLSX and send it back. It can be sent again with more answers.",
)


def workbook(review: Review) -> bytes:
    """The response matrix of a review's open findings as XLSX."""
    findings = open_findings(review)
    book = Workbook()
    sheet = book.active
    assert isinstance(sheet, Worksheet)
    sheet.title = FINDINGS
    _text(sheet, 1, 1, f"Response matrix: {review.title}").font = Font(bold=True, size=14)
    _text(sheet, 2, 1, "Please fill in the columns Answer, Action and Reference; see the sheet Instructions.")
    for column, (heading, width) in enumerate(zip(COLUMNS, WIDTHS, strict=True), 1):
        cell = _text(sheet, HEADER_ROW, column, heading)
        cell.font = Font(bold=True)
        cell.fill = PatternFill("solid", fgColor="DCE6E1" if heading not in THEIRS else "F3E2D3")
        sheet.column_dimensions[cell.column_letter].width = width
    for row, finding in enumerate(findings, HEADER_ROW + 1):
        ours = _ours(finding)
        for column, text in enumerate((*ours, "", "", "", code_of(review, *ours)), 1):
            cell = _text(sheet, row, column, text)
            cell.alignment = Alignment(wrap_text=True, vertical="top")
            cell.protection = Protection(locked=COLUMNS[column - 1] not in THEIRS)
    if findings:
        listed = f'"{",".join(ACTIONS)}"'
        choices = DataValidation(type="list", formula1=listed, allow_blank=True, showErrorMessage=False)
        choices.add(f"G{HEADER_ROW + 1}:G{HEADER_ROW + len(findings)}")
        sheet.add_data_validation(choices)
    sheet.freeze_panes = sheet.cell(HEADER_ROW + 1, 3)
    sheet.protection.sheet = True
    sheet.protection.formatColumns = sheet.protection.formatRows = False
    sheet.page_setup.orientation, sheet.page_setup.fitToWidth, sheet.page_setup.fitToHeight = "landscape", 1, 0
    sheet.sheet_properties.pageSetUpPr.fitToPage = True
    help_sheet = book.create_sheet(INSTRUCTIONS)
    help_sheet.column_dimensions["A"].width = 110
    for row, words in enumerate(INSTRUCTIONS_TEXT, 1):
        _text(help_sheet, row, 1, words).alignment = Alignment(wrap_text=True, vertical="top")
    numbers = " ".join(str(f.number) for f in findings)
    _text(help_sheet, len(INSTRUCTIONS_TEXT) + 2, 1, f"{LISTED} {numbers}")
    _text(help_sheet, len(INSTRUCTIONS_TEXT) + 3, 1, f"{CODE}: {code_of(review, LISTED, numbers)}")
    help_sheet.protection.sheet = True
    data = io.BytesIO()
    book.save(data)
    return data.getvalue()


LISTED = "Findings in this matrix:"


def _text(sheet: Worksheet, row: int, column: int, text: str) -> Any:
    """A cell that holds a text, also where it begins like a formula."""
    cell = sheet.cell(row, column)
    cell.value = text
    if text:
        cell.data_type = "s"
    return cell


@dataclass(frozen=True)
class Answer:
    """What a row answers to a finding; `known` where the thread has it already."""

    finding: Finding
    answer: str
    action: str
    reference: str
    known: bool

    def as_message(self) -> str:
        """The text that goes into the thread."""
        parts = ((self.answer, ""), (self.action, "Action: "), (self.reference, "Reference: "))
        return "\n".join(f"{head}{text}" for text, head in parts if text)


def read_answers(review: Review, data: bytes, name: str, *, apart: bool = True) -> list[Answer]:
    """The answers of a matrix that came back, those that are known included.

    Raises UnprocessableContent naming everything that is wrong, row by row: then nothing of it may be imported.

    apart : in a process of its own within limits; the demo's needs none
    """
    if len(data) > MOST_BYTES:
        raise _refused([f"the file is larger than {MOST_BYTES // 1_000_000} MB"])
    name = name or "matrix.xlsx"
    reported = read_in_process(data, name, READ_SECONDS, plain=True) if apart else read_whole(data, name, plain=True)
    if "tables" not in reported:
        refused = reported["refused"]
        raise _refused([refused["message"]], refused["remedy"])
    sheets = {s.name: [[c.text for c in row] for row in s.rows] for s in sheets_of(reported["tables"])}
    if FINDINGS not in sheets:
        raise _refused([f"the workbook has no sheet {FINDINGS}"])
    rows = sheets[FINDINGS]
    start = next((i for i, row in enumerate(rows) if _plain(row[0] if row else "") == OURS[0]), None)
    if start is None:
        raise _refused([f"the sheet {FINDINGS} has no row of headings that begins with {OURS[0]}"])
    found = _Reading(review, [_plain(text) for text in rows[start]])
    for i, row in enumerate(rows[start + 1 :], start + 2):
        if any(text.strip() for text in row):
            found.read(i, row)
    found.require_all(sheets.get(INSTRUCTIONS, []))
    if found.problems:
        raise _refused(found.problems)
    return found.answers


class _Reading:
    """The rows of a matrix, one after the other."""

    def __init__(self, review: Review, headings: list[str]):
        self.review = review
        self.by_number = {f.number: f for f in review.findings.prefetch_related("thread")}
        self.problems = [f"the column {name} is missing" for name in COLUMNS if name not in headings]
        self.places = {name: headings.index(name) for name in COLUMNS if name in headings}
        self.rows: dict[int, int] = {}
        self.answers: list[Answer] = []

    def read(self, row: int, cells: list[str]) -> None:
        def text(name: str) -> str:
            place = self.places.get(name, len(cells))
            return cells[place].strip() if place < len(cells) else ""

        written = text(OURS[0])
        number = int(float(written)) if re.fullmatch(r"\d{1,6}(\.0+)?", written, re.ASCII) else None
        finding = self.by_number.get(number) if number is not None else None
        if finding is None or finding.issued_at is None:
            self.problems.append(f"row {row}: the review has no finding {written!r}; it is of another matrix")
            return
        assert number is not None
        if number in self.rows:
            self.problems.append(f"row {row}: finding {number} is in row {self.rows[number]} already")
            return
        self.rows[number] = row
        if problem := self._altered(finding, text):
            self.problems.append(f"row {row}, finding {number}: {problem}")
            return
        answer, action, reference = (text(name).replace("_x000D_", "") for name in THEIRS)
        if not (answer or action or reference):
            return
        if len(answer) + len(action) + len(reference) > MOST_TEXT:
            self.problems.append(f"row {row}, finding {number}: the answer is longer than {MOST_TEXT} characters")
            return
        made = Answer(finding, answer, action, reference, known=False)
        known = _plain(made.as_message()) in {_plain(m.text) for m in finding.thread.all()}
        if finding.status in Finding.CLOSED and not known:
            closed = f"finding {number} is {finding.status}; the answer came after it was closed"
            self.problems.append(f"row {row}: {closed}")
            return
        self.answers.append(Answer(finding, answer, action, reference, known))

    def _altered(self, finding: Finding, text: Any) -> str:
        """What is wrong with our columns of a row; '' where they are as they were sent."""
        ours = _ours(finding)
        if text(CODE) != code_of(self.review, *ours):
            return f"the check code is not that of the finding: {text(CODE) or 'it is empty'}"
        # the number itself was matched
        changed = [
            name
            for name, was in zip(OURS[1:], ours[1:], strict=True)
            if name in self.places and _plain(text(name)) != _plain(was)
        ]
        return f"the column {', '.join(changed)} was changed" if changed else ""

    def require_all(self, instructions: list[list[str]]) -> None:
        """Name the findings of the matrix that have no row any more."""
        lines = [_plain(row[0]) for row in instructions if row]
        listed = next((line.removeprefix(LISTED).strip() for line in lines if line.startswith(LISTED)), None)
        if listed is None or f"{CODE}: {code_of(self.review, LISTED, listed)}" not in lines:
            self.problems.append(f"the sheet {INSTRUCTIONS} does not list the findings as it was sent")
            return
        missing = [number for number in listed.split() if int(number) not in self.rows]
        if missing:
            self.problems.append(f"finding {', '.join(missing)}: the row is missing")


def _refused(problems: list[str], remedy: str = "") -> UnprocessableContent:
    remedy = remedy or "Correct the workbook, or export the matrix again and copy the answers; nothing was imported."
    return UnprocessableContent([{"path": "/file", "message": message, "remedy": remedy} for message in problems[:200]])


@transaction.atomic
def import_answers(entry: Access, answers: list[Answer], name: str) -> list[Message]:
    """Write the answers that are not known yet into the threads, all of them or none."""
    review = entry.review.locked()
    written = []
    for answer in answers:
        if answer.known:
            continue
        message = write_message(answer.finding, entry, answer.as_message())
        finding = Finding.objects.select_for_update().get(pk=answer.finding.pk)
        if finding.status == Finding.Status.ISSUED:
            # who imports it writes it down; it is the submitter's answer
            finding.status = Finding.Status.ANSWERED
            finding.revision += 1
            finding.save(update_fields=["status", "revision", "changed_at"])
        written.append(message)
    review.record(entry.user, "response matrix imported", name=name[:200], answers=len(written))
    return written
