"""Workbooks: hostile ones are refused, and unusual ones are read as they are seen."""

from __future__ import annotations

import io
import re
import zipfile
from datetime import date

import pytest
from openpyxl import Workbook
from plumb_core.intake import sheets
from plumb_core.intake.sheets import SheetRefused, read_file

MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main"


def saved(made: Workbook) -> bytes:
    kept = io.BytesIO()
    made.save(kept)
    return kept.getvalue()


def texts(data: bytes, sheet: int = 0) -> list[list[str]]:
    return [[c.text for c in row] for row in read_file(data, "book.xlsx")[sheet].rows]


def with_part(data: bytes, name: str, content: str) -> bytes:
    """The workbook with one of its parts replaced, or with one more."""
    kept = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(kept, "w", zipfile.ZIP_DEFLATED) as new:
        for item in old.infolist():
            if item.filename != name:
                new.writestr(item.filename, old.read(item.filename))
        new.writestr(name, content)
    return kept.getvalue()


def of_rows(rows: str, after: str = "") -> bytes:
    part = f'<worksheet xmlns="{MAIN}"><sheetData>{rows}</sheetData>{after}</worksheet>'
    return with_part(saved(Workbook()), "xl/worksheets/sheet1.xml", part)


def test_what_a_cell_can_hold() -> None:
    made = Workbook()
    sheet = made.active
    sheet.append(["text", 1.5, True, None, date(2031, 3, 4), 0.1 + 0.2, 3])
    sheet["B1"].number_format = '0.0" kN"'
    assert texts(saved(made)) == [["text", "1.5 kN", "True", "", "2031-03-04 00:00:00", "0.3", "3"]]


def test_strings_in_the_cell_and_in_runs_and_errors() -> None:
    data = of_rows(
        '<row r="2"><c r="A2" t="inlineStr"><is><r><t>Sto</t></r><r><t>ry</t></r><rPh><t>x</t></rPh></is></c>'
        '<c r="C2" t="e"><v>#REF!</v></c></row>'
    )
    assert texts(data) == [["", "", ""], ["Story", "", "#REF!"]]


def test_strings_that_the_cells_share() -> None:
    data = of_rows('<row r="1"><c r="A1" t="s"><v>1</v></c><c r="B1" t="s"><v>0</v></c></row>')
    shared = f'<sst xmlns="{MAIN}"><si><t>one</t></si><si><r><t>tw</t></r><r><t>o</t></r></si></sst>'
    assert texts(with_part(data, "xl/sharedStrings.xml", shared)) == [["two", "one"]]


def test_a_formula_without_a_value_is_one_and_with_a_value_is_none() -> None:
    data = of_rows('<row r="1"><c r="A1"><f>1+1</f></c><c r="B1"><f>1+1</f><v>2</v></c></row>')
    cells = read_file(data, "book.xlsx")[0].rows[0]
    assert [(c.text, c.formula) for c in cells] == [("=1+1", True), ("2", False)]


def test_rows_and_cells_without_their_places_follow_one_another() -> None:
    assert texts(of_rows("<row><c><v>1</v></c><c><v>2</v></c></row><row><c><v>3</v></c></row>")) == [
        ["1", "2"],
        ["3", ""],
    ]


def test_a_merged_block_as_large_as_a_sheet_covers_what_is_there() -> None:
    data = of_rows(
        '<row r="1"><c r="A1"><v>7</v></c></row><row r="2"><c r="B2"><v>8</v></c></row>',
        '<mergeCells count="1"><mergeCell ref="A1:XFD1048576"/></mergeCells>',
    )
    assert texts(data) == [["7", "7"], ["7", "7"]]


def test_a_document_type_is_refused_before_it_is_read() -> None:
    bomb = '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]>'
    data = with_part(saved(Workbook()), "xl/worksheets/sheet1.xml", bomb + f'<worksheet xmlns="{MAIN}"/>')
    with pytest.raises(SheetRefused, match="document type"):
        read_file(data, "bomb.xlsx")
    reaching = '<?xml version="1.0"?><!DOCTYPE sst SYSTEM "http://nowhere.invalid/x.dtd"><sst/>'
    with pytest.raises(SheetRefused, match="document type"):
        read_file(with_part(saved(Workbook()), "xl/sharedStrings.xml", reaching), "reach.xlsx")


def test_what_unpacks_too_large_and_what_is_too_long_is_refused_unread(monkeypatch: pytest.MonkeyPatch) -> None:
    far = of_rows('<row r="1048576"><c r="A1048576"><v>1</v></c></row>')
    with pytest.raises(SheetRefused, match="more than 500000 rows"):
        read_file(far, "far.xlsx")
    monkeypatch.setattr(sheets, "MAX_UNPACKED", 2_000)
    with pytest.raises(SheetRefused, match="unpacks to more than 0 MB"):
        read_file(far, "large.xlsx")


def test_what_is_broken_is_refused() -> None:
    for data in (b"PK\x03\x04 no archive", with_part(saved(Workbook()), "xl/workbook.xml", "<workbook")):
        with pytest.raises(SheetRefused, match="not a readable workbook"):
            read_file(data, "broken.xlsx")


def test_days_since_1904() -> None:
    made = Workbook()
    made.active["A1"] = 10
    made.active["A1"].number_format = "yyyy-mm-dd"
    part = '<workbookPr date1904="1"/>'
    data = saved(made)
    with zipfile.ZipFile(io.BytesIO(data)) as packed:
        whole = packed.read("xl/workbook.xml").decode()
    # written with or without a blank, by the library that is there
    given = re.search(r"<workbookPr ?/>", whole)
    assert given
    data = with_part(data, "xl/workbook.xml", whole.replace(given[0], part))
    assert texts(data)[0][0].startswith("1904-01-11")
