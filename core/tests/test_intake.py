"""Tables of a submission become claims."""

from __future__ import annotations

import io
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from openpyxl import Workbook
from plumb_core.intake.cells import UNITS, factor
from plumb_core.intake.columns import Reading
from plumb_core.intake.numbers import plain_in
from plumb_core.intake.reading import kind_of, read_table
from plumb_core.intake.sheets import MAX_BYTES, SheetRefused, read_file, read_text
from plumb_core.intake.tables.kind import Building, TableRead

STORIES = "Level\tHeight (m)\tWeight [kN]\nL3\t3.9\t4,200\nL2\t3.9\t5 600.5\nL1\t4.8\t6100\n"


def stories(text: str, **mapping: Any) -> TableRead:
    return read_table(read_text(text), "stories", Reading(**mapping))


def problem_at(read: TableRead, row: int | None, column: int | None) -> str:
    (found,) = [p for p in read.problems if (p.row, p.column) == (row, column)]
    assert found.remedy
    return found.message


def test_stories_are_read_with_units_from_the_headings_top_down() -> None:
    read = stories(STORIES)
    assert read.problems == []
    assert read.stories == ["L1", "L2", "L3"]
    assert (read.reading.order, read.reading.units) == ("top_down", {"h": "m", "w": "kN"})
    weights = {c.story: c.value for c in read.claims if c.quantity == "w"}
    assert weights == {"L1": 6100.0, "L2": 5600.5, "L3": 4200.0}


def test_a_claim_knows_the_cell_it_came_from_and_what_stood_there() -> None:
    claim = next(c for c in stories(STORIES).claims if c.quantity == "w" and c.story == "L3")
    assert (claim.source.row, claim.source.column, claim.text) == (2, "C", "4200")


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        (STORIES, "stories"),
        ("Parameter,Value,Unit\nS_S,1.2,g\n", "parameters"),
        ("Case;Story;Force (kN)\nStatic X;L1;3\n", "forces"),
        ("T (s)\tSa (g)\n0\t0.4\n", "spectrum"),
    ],
)
def test_the_kind_of_table_is_guessed(text: str, kind: str) -> None:
    assert kind_of(read_text(text)) == kind


def test_missing_units_are_asked_for_at_the_heading() -> None:
    read = stories("Story\tHeight\tWeight\nL1\t4\t100\n")
    assert "unit of story height is missing" in problem_at(read, 0, 1)
    assert "unit of seismic weight is missing" in problem_at(read, 0, 2)
    assert stories("Story\tHeight\tWeight\nL1\t12\t100\n", units={"h": "ft", "w": "kip"}).problems == []


def test_a_unit_of_another_kind_is_refused() -> None:
    assert "'t' is not a unit" in problem_at(stories("Story\tHeight (m)\tWeight (t)\nL1\t4\t100\n"), 0, 2)


def test_units_may_stand_in_a_row_of_their_own() -> None:
    read = stories("Story\tHeight\tWeight\n\tft\tkip\nL1\t10\t100\n")
    assert read.problems == []
    values = {c.quantity: c.value for c in read.claims}
    assert values["h"] == pytest.approx(3.048)
    assert values["w"] == pytest.approx(444.82216152605)  # 1 kip = 4448.2216152605 N


def test_bad_cells_are_marked_each_in_its_place() -> None:
    read = stories(
        "Story\tHeight (m)\tWeight (kN)\nL1\t-4\t100\nL1\t4\tabout 5\n<script>alert(1)</script>\t4\t=B2*2\n\t4\t\n"
    )
    assert "above zero" in problem_at(read, 1, 1)
    assert "is also in row 2" in problem_at(read, 2, 0)
    assert "is not a valid name" in problem_at(read, 3, 0)
    assert "formula" in problem_at(read, 3, 2)
    assert "story is missing" in problem_at(read, 4, 0)
    assert "missing" in problem_at(read, 4, 2)


def test_totals_blank_rows_and_repeated_headings_are_left_out() -> None:
    read = stories(
        "Story\tHeight (m)\tWeight (kN)\nL2\t4\t100\n\t\t\nStory\tHeight (m)\tWeight (kN)\nL1\t4\t100\nTotal\t8\t200\n"
    )
    assert read.problems == []
    assert read.stories == ["L1", "L2"]
    assert read.skipped == [0, 2, 3, 5]


def test_decimal_commas_are_read_where_the_table_uses_them() -> None:
    read = stories("Story;Height (m);Weight (kN)\nL1;4,8;6.100,5\nL2;3,9;5.600\n")
    assert [c.value for c in read.claims if c.quantity == "w"] == [6100.5, 5600.0]


def test_parameters_by_symbol_word_and_direction() -> None:
    read = read_table(
        read_text(
            "Parameter\tValue\tUnit\nS_S\t120\t%g\nSeismic design category\tD\t\nT_a (X)\t0.61\ts\nV Y\t950\tkip\n"
        ),
        "parameters",
    )
    assert read.problems == []
    values = {(c.quantity, c.direction): c.value for c in read.claims}
    assert values["S_S", None] == pytest.approx(1.2)
    assert values["design_category", None] == "D"
    assert values["T_a", "X"] == 0.61
    assert values["V", "Y"] == pytest.approx(950 * 4.4482216152605)


def test_parameters_in_columns_by_direction() -> None:
    read = read_table(read_text("Item,X,Y,Unit\nR,6,8,-\nV,4200,4100,kN\n"), "parameters")
    assert read.problems == []
    assert {(c.quantity, c.direction, c.value) for c in read.claims} == {
        ("R", "X", 6.0),
        ("R", "Y", 8.0),
        ("V", "X", 4200.0),
        ("V", "Y", 4100.0),
    }


def test_parameters_that_cannot_be_placed_say_so() -> None:
    rows = ["R\t6\t", "Widgets\t3\t", "S_DS\t8.1\t", "Site class\tQ\t", "S_S X\t1\tg", "S_1\t0.3\tg", "S_1\t0.4\tg"]
    text = "\n".join(["Parameter\tValue\tUnit", *rows])
    read = read_table(read_text(text), "parameters")
    assert "direction of R is not given" in problem_at(read, 1, 0)
    assert "is not a known parameter" in problem_at(read, 2, 0)
    assert "unit of S_DS is missing" in problem_at(read, 3, 2)
    assert "is not a valid site class" in problem_at(read, 4, 1)
    assert "has no direction" in problem_at(read, 5, 0)
    assert "is in row" in problem_at(read, 7, 0)
    both = read_table(read_text("Parameter\tValue\tUnit\nR\t6\t\n"), "parameters", Reading(both=True))
    assert [(c.direction, c.value) for c in both.claims] == [("X", 6.0), ("Y", 6.0)]


FORCES = (
    "Case\tStory\tForce (kN)\tShear (kN)\nStatic X + ecc.\tL2\t-60\t-60\n\tL1\t-40\t-100\nStatic "
    "Y\tL2\t50\t50\n\tL1\t30\t80\n"
)


def test_forces_by_case_with_the_case_named_once_per_block() -> None:
    read = read_table(read_text(FORCES), "forces", known=Building(["L1", "L2"]))
    assert read.problems == []
    assert read.reading.cases == {"Static X + ecc.": "X", "Static Y": "Y"}
    found = {(c.quantity, c.direction, c.story): c.value for c in read.claims}
    # as it was written, against the axis; the recheck compares its size
    assert found["F", "X", "L2"] == -60.0
    assert [(c.name, c.kind, c.direction, c.eccentricity) for c in read.cases] == [
        ("Static X + ecc.", "static", "X", None),
        ("Static Y", "static", "Y", None),
    ]
    assert found["V_story", "Y", "L1"] == 80.0


def test_forces_of_unknown_stories_and_unclear_cases() -> None:
    read = read_table(
        read_text("Case\tStory\tForce (kN)\nquake\tL1\t5\nStatic X + ecc.\tL7\t5\n"), "forces", known=Building(["L1"])
    )
    assert "direction of case 'quake'" in problem_at(read, 1, 0)
    assert "'L7' is not among" in problem_at(read, 2, 1)
    told = read_table(read_text("Case\tStory\tForce (kN)\nquake\tL1\t5\n"), "forces", Reading(cases={"quake": "Y"}))
    assert told.problems == []
    assert told.claims[0].direction == "Y"


def test_spectrum_periods_have_to_rise() -> None:
    read = read_table(read_text("T (s)\tSa (m/s2)\n0\t4\n0.2\t9.80665\n0.1\t9\n"), "spectrum")
    assert "have to increase" in problem_at(read, 3, 0)
    assert next(c for c in read.claims if c.quantity == "S_a" and c.point == 1).value == pytest.approx(1.0)


@pytest.mark.parametrize("text", ["", "   \n\n", "just a sentence without any table", "\x00\x01binary"])
def test_rubbish_is_no_table(text: str) -> None:
    with pytest.raises(SheetRefused) as refused:
        read_text(text)
    assert refused.value.remedy


def test_a_file_too_large_is_refused_unread() -> None:
    with pytest.raises(SheetRefused, match="20 MB"):
        read_file(b"a,b\n" * (MAX_BYTES // 4 + 1), "big.csv")


def workbook(rows: list[list[Any]]) -> bytes:
    book = Workbook()
    for row in rows:
        book.active.append(row)
    data = io.BytesIO()
    book.save(data)
    return data.getvalue()


def test_workbooks_are_read_and_their_formulas_are_not_trusted() -> None:
    rows = [["Story", "Height (m)", "Weight (kN)"], ["L3", 3.5, 2900], ["L2", 3.5, 2950], ["L1", 4.8, "=2*3050"]]
    (sheet,) = read_file(workbook(rows), "S0.xlsx")
    read = read_table(sheet, "stories", file="S0.xlsx")
    assert "formula" in problem_at(read, 3, 2)
    # the row with the formula stays open, the others are read
    assert read.stories == ["L1", "L2", "L3"]
    assert {c.story for c in read.claims} == {"L2", "L3"}
    assert read.claims[0].source.sheet == "Sheet"


def test_a_broken_workbook_is_refused() -> None:
    with pytest.raises(SheetRefused, match="not a readable workbook"):
        read_file(b"PK\x03\x04 not a zip at all", "S0.xlsx")


def test_the_reviewer_can_point_at_columns() -> None:
    read = stories(
        "a\tb\tc\nL1\t100\t4\n", header_row=0, columns={"story": 0, "h": 2, "w": 1}, units={"h": "m", "w": "kN"}
    )
    assert read.problems == []
    assert {c.quantity: c.value for c in read.claims} == {"h": 4.0, "w": 100.0}


@pytest.mark.parametrize(
    ("text", "comma", "expected"),
    [
        ("1,234.5", False, "1234.5"),
        ("1.234,5", True, "1234.5"),
        ("−3", False, "-3"),
        ("1 234", False, "1234"),
        ("1'234", False, "1234"),
        ("2e-3", False, "2e-3"),
        ("12a", False, None),
        ("1.2.3", False, None),
        ("", False, None),
        ("nan", False, None),
        ("inf", False, None),
    ],
)
def test_numbers_as_people_write_them(text: str, comma: bool, expected: str | None) -> None:
    assert plain_in(text, "comma" if comma else "point") == expected


UNITS_OF_WEIGHT = sorted(UNITS["kN"])


@settings(deadline=None)  # the units library takes its time at the first conversion
@given(st.sampled_from(UNITS_OF_WEIGHT), st.floats(1.0, 1e5))
def test_the_same_weight_in_any_unit_is_the_same_claim(unit: str, kilonewtons: float) -> None:
    written = kilonewtons / factor(unit, "kN")
    read = stories(f"Story\tHeight (m)\tWeight ({unit})\nL1\t4\t{written!r}\n")
    assert read.problems == []
    assert read.claims[1].value == pytest.approx(kilonewtons, rel=1e-9)


@settings(deadline=None)
@given(st.text(max_size=200))
def test_no_text_makes_intake_fall_over(text: str) -> None:
    try:
        sheet = read_text(text)
    except SheetRefused:
        return
    for kind in ("parameters", "stories", "forces", "spectrum"):
        read_table(sheet, kind)
