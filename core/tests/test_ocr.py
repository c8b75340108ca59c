"""Scanned pages: what is read off an image has its confidence, and what was read with little of it is asked about."""

from __future__ import annotations

import io
from typing import Any

import pdfplumber
import pytest
from PIL import Image
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.intake import ocr
from plumb_core.intake.columns import Reading
from plumb_core.intake.ocr import ScannedWords
from plumb_core.intake.pdf import PdfRefused, tables_of
from plumb_core.intake.pictures import as_page
from plumb_core.intake.reader import read_whole
from plumb_core.intake.sheet_documents import document_of, sheets_of
from plumb_core.intake.sheets import Sheet, SheetRefused, read_file
from plumb_core.intake.submission import EarlierTables, read_answers, read_in, read_submission
from plumb_core.intake.tables.kind import Building
from test_everyday_tables import BRIEF, pages, values

HEAD = ["Case", "Story", "Drift end 1 (mm)", "Drift end 2 (mm)"]
ROWS = [["EX", f"L{i}", f"{12.34 + 1.1 * i:.2f}", f"{11.05 + i:.2f}"] for i in (4, 3, 2, 1)]


def scanned(data: bytes) -> bytes:
    """The first page of a PDF as an image on a page."""
    with pdfplumber.open(io.BytesIO(data)) as book:
        picture = book.pages[0].to_image(resolution=150).original.convert("L")
    made = io.BytesIO()
    picture.save(made, "PDF", resolution=150)
    return made.getvalue()


@pytest.fixture(scope="module")
def scan() -> bytes:
    return scanned(pages(("Story drifts", [HEAD, *ROWS])))


def test_a_scanned_table_is_read_or_asked_about_and_never_misread(scan: bytes) -> None:
    result = read_submission(read(Brief, BRIEF), [("scan.pdf", scan)], read_answers({}))
    found = values(result)
    due = {(f"drift_end_{n}", story, "X", "EX"): float(row[n - 1]) / 1000.0 for _, story, *row in ROWS for n in (1, 2)}
    assert found
    for place, value in found.items():
        assert value == pytest.approx(due[place])
    # what is missing is open, with its row
    missing = {story for (_, story, _, _) in due.keys() - found.keys()}
    rows = [r for part in result.document.open for r in part.rows]
    assert len(rows) >= len(missing) or not missing


def test_a_value_states_that_it_was_read_off_an_image(scan: bytes) -> None:
    result = read_submission(read(Brief, BRIEF), [("scan.pdf", scan)], read_answers({}))
    notes = {c.source.note for c in result.document.submission.claims}
    assert all(n.startswith("read off an image with") for n in notes)


def test_without_the_program_a_scanned_page_has_no_text(scan: bytes, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(ocr, "is_there", lambda: False)
    with pytest.raises(PdfRefused, match="they are images"):
        tables_of(scan)


def picture(data: bytes, form: str = "PNG") -> bytes:
    """The first page of a PDF as a picture of a screen."""
    with pdfplumber.open(io.BytesIO(data)) as book:
        drawn = book.pages[0].to_image(resolution=130).original.convert("RGB")
    made = io.BytesIO()
    drawn.save(made, form, quality=92)
    return made.getvalue()


@pytest.mark.parametrize("form", ["PNG", "JPEG"])
def test_a_picture_is_read_as_a_scanned_page_is(form: str) -> None:
    name = f"screen.{form.lower()}"
    table = picture(pages(("Story drifts", [HEAD, *ROWS])), form)
    result = read_submission(read(Brief, BRIEF), [(name, table)], read_answers({}))
    found = values(result)
    due = {(f"drift_end_{n}", story, "X", "EX"): float(row[n - 1]) / 1000.0 for _, story, *row in ROWS for n in (1, 2)}
    assert found
    assert all(value == pytest.approx(due[place]) for place, value in found.items())
    missing = {story for (_, story, _, _) in due.keys() - found.keys()}
    assert len([r for part in result.document.open for r in part.rows]) >= len(missing)
    # and by the process that reads files of the application, with the place of each cell
    document = read_whole(table, name)["tables"]
    assert document["pages"][0]["tables"][0]["cells"][1][0]


@pytest.mark.parametrize("ending", [b"", b"\x00" * 40])
def test_a_damaged_picture_is_refused_with_the_remedy(ending: bytes) -> None:
    with pytest.raises(SheetRefused, match="damaged") as refused:
        read_file(b"\x89PNG\r\n\x1a\n" + ending, "screen.png")
    assert "PNG" in refused.value.remedy


def test_a_picture_of_too_many_dots_is_refused_before_it_is_unpacked() -> None:
    made = io.BytesIO()
    Image.new("1", (9000, 9000)).save(made, "PNG")
    with pytest.raises(SheetRefused, match="9000 x 9000 dots"):
        read_file(made.getvalue(), "poster.png")


def test_what_is_transparent_is_white() -> None:
    made = io.BytesIO()
    Image.new("RGBA", (40, 20), (0, 0, 0, 0)).save(made, "PNG")
    with pdfplumber.open(io.BytesIO(as_page(made.getvalue()))) as book:
        assert book.pages[0].to_image().original.convert("L").getextrema() == (255, 255)


def sure(confidence: float, **given: Any) -> Any:
    """A table of which one number was read with a confidence."""
    (sheet,) = read_file(b"Case;Story;Force (kN)\nEX;L3;120\nEX;L2;80\nEX;L1;40\n", "forces.csv")
    rows = [list(r) for r in sheet.rows]
    cell = rows[2][2]
    rows[2][2] = type(cell)(cell.text, confidence=confidence)
    table = Sheet(sheet.name, tuple(map(tuple, rows)), kind="forces", header=0)
    known = EarlierTables(building=Building(["L1", "L2", "L3"]))
    # as it is kept between reading and accepting
    (kept,) = sheets_of(document_of([table]))
    return read_in(kept, "forces.csv", known, given=Reading(**given))


def test_a_number_that_is_not_sure_is_asked_about_and_can_be_confirmed() -> None:
    assert sure(0.97).problems == []
    table = sure(0.62)
    (problem,) = table.problems
    assert (problem.row, problem.column, problem.extent) == (2, 2, "row")
    assert "'80' was read off an image with 62% confidence" in problem.message
    assert [c.story for c in table.claims] == ["L3", "L1"]
    confirmed = sure(0.62, **problem.choices[0].sets)
    assert confirmed.problems == []
    assert len(confirmed.claims) == 3


def test_words_of_a_line_are_joined_and_columns_are_not() -> None:
    def word(text: str, left: float, right: float, top: float = 100.0) -> ScannedWords:
        return ScannedWords(text, left, top, right, top + 9.0, 0.9)

    joined = ocr._joined([word("end", 40, 58), word("Drift", 10, 36), word("mm", 90, 105), word("12.5", 10, 30, 120)])
    assert sorted(w.text for w in joined) == ["12.5", "Drift end", "mm"]
