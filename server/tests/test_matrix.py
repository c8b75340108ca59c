"""The response matrix: out, answered elsewhere, and back, all of it or nothing."""

from __future__ import annotations

import io
import shutil
import subprocess
from pathlib import Path
from typing import Any

import pytest
from asking import Api
from django.core import mail
from django.core.files.uploadedfile import SimpleUploadedFile
from openpyxl import Workbook, load_workbook
from plumb_server.demo.rounds import second_round
from plumb_server.findings.models import Finding
from plumb_server.reviews.models import Review

pytestmark = pytest.mark.django_db
FIRST = 4
"""Row of the first finding."""


@pytest.fixture
def rounds(clinic: Review) -> Review:
    second_round()
    return clinic


def path(review: Review) -> str:
    return f"/api/reviews/{review.pk}/matrix/"


def exported(client: Api, review: Review) -> Any:
    return load_workbook(io.BytesIO(client.get(path(review)).content))


def bytes_of(book: Workbook) -> bytes:
    data = io.BytesIO()
    book.save(data)
    return data.getvalue()


def sent(client: Api, review: Review, data: bytes, *, apply: bool = False) -> Any:
    file = SimpleUploadedFile("matrix.xlsx", data)
    return client.upload(path(review), file, apply=str(apply).lower())


def answered(book: Any, row: int, *texts: str) -> None:
    for column, text in enumerate(texts, 6):
        book["Findings"].cell(row, column).value = text


def test_it_lists_what_waits_for_an_answer_with_our_columns_locked(submitter: Api, rounds: Review) -> None:
    book = exported(submitter, rounds)
    assert book.sheetnames == ["Findings", "Instructions"]
    sheet = book["Findings"]
    assert [sheet.cell(3, c).value for c in range(1, 10)] == [
        *("No.", "Finding", "Clause", "Evidence", "Severity", "Answer", "Action", "Reference", "Check code"),
    ]
    assert [sheet.cell(r, 1).value for r in range(FIRST, FIRST + 6)] == ["1", "2", "3", "4", "5", None]
    assert sheet.cell(FIRST + 1, 4).value == "w L5: submitted 569.0 kN, recomputed 5580 kN"
    assert sheet.protection.sheet
    assert [sheet.cell(FIRST, c).protection.locked for c in range(1, 10)] == [True] * 5 + [False] * 3 + [True]


def test_answers_come_back_into_the_threads_once(lead: Api, rounds: Review) -> None:
    book = exported(lead, rounds)
    answered(book, FIRST + 4, "C_u T_a is used now.", "corrected", "S2, page 4")
    preview = sent(lead, rounds, bytes_of(book)).json()
    assert preview == {
        "imported": False,
        "answers": [
            {
                "number": 5,
                "title": "Period used in X exceeds its upper limit",
                "answer": "C_u T_a is used now.",
                "action": "corrected",
                "reference": "S2, page 4",
                "known": False,
            }
        ],
    }
    finding = Finding.objects.get(review=rounds, number=5)
    assert (finding.status, finding.thread.count()) == ("issued", 0)
    assert sent(lead, rounds, bytes_of(book), apply=True).json()["imported"] is True
    finding.refresh_from_db()
    assert finding.status == "answered"
    assert finding.thread.get().text == "C_u T_a is used now.\nAction: corrected\nReference: S2, page 4"
    # sent again, with one answer more
    answered(book, FIRST + 3, "The exponent is interpolated.")
    again = sent(lead, rounds, bytes_of(book), apply=True).json()
    assert [(a["number"], a["known"]) for a in again["answers"]] == [(4, False), (5, True)]
    assert finding.thread.count() == 1


def wrong_column(book: Any) -> None:
    book["Findings"].cell(FIRST + 1, 3).value = "another clause"


def duplicate(book: Any) -> None:
    sheet = book["Findings"]
    for column in range(1, 10):
        sheet.cell(FIRST + 5, column).value = sheet.cell(FIRST, column).value


def missing(book: Any) -> None:
    book["Findings"].delete_rows(FIRST + 2)


def foreign(book: Any) -> None:
    book["Findings"].cell(FIRST + 1, 1).value = "77"


def another_code(book: Any) -> None:
    sheet = book["Findings"]
    sheet.cell(FIRST, 9).value = sheet.cell(FIRST + 1, 9).value


def no_heading(book: Any) -> None:
    book["Findings"].cell(3, 7).value = "Measure"


WRONG = {
    wrong_column: ["row 5, finding 2: the column Clause was changed"],
    duplicate: ["row 9: finding 1 is in row 4 already"],
    missing: ["finding 3: the row is missing"],
    foreign: ["row 5: the review has no finding '77'; it is of another matrix", "finding 2: the row is missing"],
    another_code: ["row 4, finding 1: the check code is not that of the finding: "],
    no_heading: ["the column Action is missing"],
}


@pytest.mark.parametrize("spoil", WRONG, ids=lambda f: f.__name__)
def test_half_wrong_means_nothing_is_imported_and_everything_is_named(lead: Api, rounds: Review, spoil: Any) -> None:
    book = exported(lead, rounds)
    answered(book, FIRST + 4, "Right.")
    spoil(book)
    refused = sent(lead, rounds, bytes_of(book), apply=True)
    assert refused.status_code == 422
    messages = [e["message"] for e in refused.json()["errors"]]
    assert len(messages) == len(WRONG[spoil])
    assert all(m.startswith(w) for m, w in zip(messages, WRONG[spoil], strict=True)), messages
    assert Finding.objects.get(review=rounds, number=5).thread.count() == 0


def test_the_matrix_of_another_review_is_refused(lead: Api, rounds: Review) -> None:
    book = exported(lead, rounds)
    other = lead.send("POST", "/api/reviews/", {"title": "Gull Rock", "brief": {"edition": "asce7-16"}}).json()["id"]
    refused = lead.upload(f"/api/reviews/{other}/matrix/", SimpleUploadedFile("m.xlsx", bytes_of(book)))
    assert refused.status_code == 422
    assert "no finding '1'" in refused.json()["errors"][0]["message"]


def test_what_is_no_workbook_is_refused(lead: Api, rounds: Review) -> None:
    assert sent(lead, rounds, b"PK\x03\x04 nothing").status_code == 422
    assert sent(lead, rounds, b"No.,Finding\n1,x\n").status_code == 422


def test_an_answer_to_a_closed_finding_is_named(lead: Api, rounds: Review) -> None:
    book = exported(lead, rounds)
    answered(book, FIRST + 4, "Too late.")
    finding = Finding.objects.get(review=rounds, number=5)
    lead.send("PATCH", f"/api/findings/{finding.pk}/", {"status": "settled"}, finding.revision)
    refused = sent(lead, rounds, bytes_of(book), apply=True)
    assert "finding 5 is settled; the answer came after it was closed" in refused.json()["errors"][0]["message"]


def test_it_is_sent_by_mail(lead: Api, rounds: Review, django_capture_on_commit_callbacks: Any) -> None:
    with django_capture_on_commit_callbacks(execute=True):
        answer = lead.send("POST", path(rounds) + "send/", {"to": ["clerk@port-maren.example"], "message": "By May."})
    assert answer.status_code == 204
    (message,) = mail.outbox
    assert rounds.title not in message.subject
    assert "By May." in message.body
    assert message.attachments[0][0] == "responses-port-maren-clinic.xlsx"
    assert load_workbook(io.BytesIO(message.attachments[0][1])).sheetnames[0] == "Findings"


@pytest.mark.skipif(shutil.which("soffice") is None, reason="LibreOffice is installed by bin/test")
def test_a_matrix_that_libreoffice_saved_again_comes_back(lead: Api, rounds: Review, tmp_path: Path) -> None:
    book = exported(lead, rounds)
    answered(book, FIRST + 4, "C_u T_a is used now.\nSee the summary.", "corrected", "S2")
    saved = tmp_path / "matrix.xlsx"
    saved.write_bytes(bytes_of(book))
    profile = f"-env:UserInstallation=file://{tmp_path}/profile"
    # through the format of its own and back, as somebody who works in it
    for kind, source in (("ods", saved), ("xlsx:Calc MS Excel 2007 XML", tmp_path / "matrix.ods")):
        subprocess.run(
            ["soffice", profile, "--headless", "--convert-to", kind, "--outdir", str(tmp_path), str(source)],
            check=True,
            capture_output=True,
            timeout=120,
        )
    assert b"LibreOffice" in subprocess.run(["unzip", "-p", str(saved), "docProps/app.xml"], capture_output=True).stdout
    read = sent(lead, rounds, saved.read_bytes()).json()
    assert [(a["number"], a["answer"]) for a in read["answers"]] == [(5, "C_u T_a is used now.\nSee the summary.")]
