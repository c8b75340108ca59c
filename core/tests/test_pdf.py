"""Tables on the pages of a PDF, headless."""

from __future__ import annotations

import io
import json
from pathlib import Path
from typing import Any

import pytest
from canonical import submission
from plumb_core.checks.recheck import recheck
from plumb_core.cli import main
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.intake import pdf
from plumb_core.intake.pdf import Phrase, blocks_of
from plumb_core.intake.sheets import SheetRefused, read_file
from plumb_core.intake.submission import read_submission
from pypdf import PdfWriter
from weasyprint import HTML


def page_of(title: str, rows: list[list[str]], ruled: bool = True) -> str:
    border = "border: 0.5pt solid black;" if ruled else ""
    cells = "".join("<tr>" + "".join(f"<td>{c}</td>" for c in row) + "</tr>" for row in rows)
    return (
        f"<section style='page-break-after: always'><h2>{title}</h2><p>What follows was found for the building.</p>"
        f"<table style='border-collapse: collapse; font-size: 9pt'><style>td {{ {border} padding: 1pt 9pt "
        f"}}</style>{cells}</table>"
        "<p>Signed at Vessel Point.</p></section>"
    )


def document(*pages: str) -> bytes:
    return bytes(HTML(string="<style>@page { size: A4 landscape; margin: 12mm }</style>" + "".join(pages)).write_pdf())


def rows_of(text: str) -> list[list[str]]:
    return [line.split(";") for line in text.splitlines()]


def test_a_report_in_pages_gives_what_its_tables_as_files_give() -> None:
    made = submission("asce7-16")
    names = ("cases", "modes", "reactions", "parameters", "drifts")
    # a page holds a part of a long table under its headings
    pages = []
    for name in names:
        head, *rest = rows_of(made.tables[name])
        for at in range(0, len(rest), 24):
            pages.append(page_of(name, [head, *rest[at : at + 24]]))
    brief = read(Brief, made.brief)
    by_files = read_submission(brief, [(f"{n}.csv", made.tables[n].encode()) for n in names])
    by_pages = read_submission(brief, [("report.pdf", document(*pages))])
    assert [(t.page, bool(t.questions)) for t in by_pages.tables] == [(i + 1, False) for i in range(len(pages))]

    def told(taken: Any) -> set[tuple[Any, ...]]:
        return {(c.quantity, c.direction, c.story, c.point, c.case, c.value) for c in taken.document.submission.claims}

    assert told(by_pages) == told(by_files)
    assert len(told(by_pages)) > 150
    source = next(c.source for c in by_pages.document.submission.claims if c.quantity == "T_mode")
    assert (source.file, source.sheet.split(",")[0]) == ("report.pdf", "page 2")
    answer = recheck(by_pages.document.model_dump(exclude_none=True), steps=False)
    assert answer["origins"] == []


def test_text_in_columns_is_a_table_and_prose_is_none() -> None:
    def line(top: float, *parts: tuple[str, float]) -> list[Phrase]:
        return [Phrase(text, left, left + 5.0 * len(text), top, top + 9.0) for text, left in parts]

    table = [
        *line(100, ("The weights of the stories are these.", 40)),
        *line(120, ("Story", 40), ("Height (m)", 100), ("Weight (kN)", 180)),
        # right-aligned numbers, one line a little lower
        *line(132, ("L2", 40), ("3.50", 130), ("4 931.5", 200)),
        *line(145, ("L1", 40), ("12.20", 125)),
        *line(146, ("5 012.0", 200)),
        *line(170, ("They were found by hand.", 40)),
    ]
    assert [b.rows for b in blocks_of(table)] == [
        [["Story", "Height (m)", "Weight (kN)"], ["L2", "3.50", "4 931.5"], ["L1", "12.20", "5 012.0"]]
    ]
    assert list(blocks_of([*line(10, ("Nothing here", 40)), *line(20, ("is a table.", 40))])) == []


def test_a_table_without_rules_is_read_by_its_columns() -> None:
    rows = [["Story", "Height (m)", "Weight (kN)"], ["L2", "3.5", "900.5"], ["L1", "4.0", "950.0"]]
    sheets = read_file(document(page_of("Stories", rows, ruled=False)), "report.pdf")
    assert [[c.text for c in row] for row in sheets[0].rows] == rows
    assert sheets[0].page == 1


def test_pages_that_are_pictures_say_so() -> None:
    writer = PdfWriter()
    writer.add_blank_page(200, 200)
    kept = io.BytesIO()
    writer.write(kept)
    with pytest.raises(SheetRefused, match="they are images"):
        read_file(kept.getvalue(), "scan.pdf")


def test_what_cannot_be_read_is_refused_with_a_remedy(monkeypatch: pytest.MonkeyPatch) -> None:
    with pytest.raises(SheetRefused, match="not a readable PDF"):
        read_file(b"%PDF-1.7\nrubbish", "broken.pdf")
    whole = document(page_of("A", [["Story", "Height (m)"], ["L1", "3"]]), page_of("B", [["a", "b"], ["1", "2"]]))
    locked = PdfWriter(clone_from=io.BytesIO(whole))
    locked.encrypt("secret")
    kept = io.BytesIO()
    locked.write(kept)
    with pytest.raises(SheetRefused, match="password"):
        read_file(kept.getvalue(), "locked.pdf")
    monkeypatch.setattr(pdf, "MAX_PAGES", 1)
    with pytest.raises(SheetRefused, match="at most 1 are read"):
        read_file(whole, "long.pdf")
    monkeypatch.setattr(pdf, "MAX_PAGES", 300)
    monkeypatch.setattr(pdf, "MAX_SECONDS", -1.0)
    with pytest.raises(SheetRefused, match="takes longer"):
        read_file(whole, "slow.pdf")


def test_the_command_tells_the_page_of_each_table(tmp_path: Path, capsys: Any) -> None:
    brief = tmp_path / "brief.json"
    brief.write_text(json.dumps({"edition": "asce7-16"}))
    stories = [["Story", "Height (m)", "Weight (kN)"], ["L2", "3.5", "900.5"], ["L1", "4.0", "950.0"]]
    (tmp_path / "report.pdf").write_bytes(
        document("<h1>Report</h1><p style='page-break-after: always'>1</p>", page_of("S", stories))
    )
    assert main(["intake", str(brief), str(tmp_path / "report.pdf")]) == 0
    told = json.loads(capsys.readouterr().err.splitlines()[0])
    assert (told["page"], told["kind"], told["values"]) == (2, "stories", 4)


def test_tables_side_by_side_without_rules_are_two_tables() -> None:
    """A wide gap parts them; the gaps between their columns do not."""
    left = [["Mode", "Period (s)"], ["1", "1.20"], ["2", "1.00"], ["3", "0.80"]]
    right = [["Case", "Story", "Force (kN)"], ["EX", "L3", "120"], ["EX", "L2", "80"], ["EX", "L1", "40"]]

    def table(rows: list[list[str]]) -> str:
        cells = "".join("<tr>" + "".join(f"<td>{c}</td>" for c in row) + "</tr>" for row in rows)
        return f"<table style='display: inline-table; margin-right: 60pt'>{cells}</table>"

    data = document("<style>td { padding: 1pt 7pt; font-size: 9pt }</style>" + table(left) + table(right))
    brief = read(Brief, {"edition": "asce7-16", "stories": [{"name": f"L{i}", "height": 3.5} for i in (1, 2, 3)]})
    taken = read_submission(brief, [("two.pdf", data)])
    assert sorted((t.kind, t.values) for t in taken.tables) == [("forces", 3), ("modes", 3)]
    assert not [q for t in taken.tables for q in t.questions]
