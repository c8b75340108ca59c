"""Tables that were once read wrongly without a word: each is read as anybody would, or asks at its place."""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook
from plumb_core.editions import EDITIONS
from plumb_core.intake.columns import Reading
from plumb_core.intake.layout.tables import arranged
from plumb_core.intake.names import direction_in
from plumb_core.intake.numbers import readings, style_of, with_unit
from plumb_core.intake.reading import kind_of, read_table
from plumb_core.intake.sheets import Sheet, SheetRefused, read_file, read_text
from plumb_core.intake.story_names import matched, rank_of
from plumb_core.intake.submission import EarlierTables, Remembered, heading_of, read_in
from plumb_core.intake.tables.kind import Building, TableRead


def read(text: str | Sheet, kind: str = "", known: Building | None = None, given: Reading | None = None) -> TableRead:
    sheet = arranged([read_text(text) if isinstance(text, str) else text])[0]
    return read_table(sheet, kind or kind_of(sheet) or "parameters", given, known=known, edition=EDITIONS["asce7-16"])


def values(table: TableRead, quantity: str) -> list[Any]:
    return [c.value for c in table.claims if c.quantity == quantity]


def asked(table: TableRead) -> list[str]:
    return [p.message for p in table.problems if p.extent != "nothing"]


def book(rows: Sequence[Sequence[Any]], change: Any = None) -> Sheet:
    made = Workbook()
    sheet = made.active
    for row in rows:
        sheet.append(list(row))
    if change:
        change(sheet)
    kept = io.BytesIO()
    made.save(kept)
    return read_file(kept.getvalue(), "table.xlsx")[0]


# numbers


@pytest.mark.parametrize(
    ("text", "point", "comma"),
    [
        ("4931.500", "4931.500", None),
        ("3,600", "3600", "3.600"),
        ("3.600", "3.600", "3600"),
        ("5 213,437", None, "5213.437"),
        ("5,882E+02", None, "5.882E+02"),
        ("1,25,400", "125400", None),
        ("1.234.567", None, "1234567"),
        ("1,234,567", "1234567", None),
        ("(12.3)", "-12.3", None),
        ("\u2212 4,5", None, "-4.5"),
        ("1\u202f234,5", None, "1234.5"),
        ("1\u2019234.5", "1234.5", None),
        ("4931.5 2", None, None),
        ("13'6", None, None),
        ("02-Jan", None, None),
        ("12.3.4", None, None),
        ("1,2345", None, "1.2345"),
    ],
)
def test_a_number_is_read_in_the_styles_that_it_can_be_written_in(
    text: str, point: str | None, comma: str | None
) -> None:
    assert (readings(text).get("point"), readings(text).get("comma")) == (point, comma)


@given(st.floats(-1e9, 1e9, allow_nan=False), st.sampled_from(["", ",", "'", " "]), st.booleans())
def test_what_was_written_in_a_style_is_read_in_it(value: float, thousands: str, comma: bool) -> None:
    text = f"{value:,.3f}"
    if comma:
        text = text.translate(str.maketrans({",": {",": "."}.get(thousands, thousands), ".": ","}))
    else:
        text = text.replace(",", thousands)
    assert float(readings(text)["comma" if comma else "point"]) == pytest.approx(value, abs=6e-4)


def test_each_column_is_written_in_its_own_way() -> None:
    table = read("Story;Height (m);Weight (kN)\nL2;3,6;4931.500\nL1;4,2;5012.250\n")
    assert values(table, "w") == [5012.25, 4931.5]
    assert values(table, "h") == [4.2, 3.6]


def test_a_height_of_three_thousand_metres_is_none() -> None:
    table = read("Story;Height (m);Weight (kN)\nL2;3,600;900\nL1;4,200;950\n")
    assert asked(table) == []
    assert values(table, "h") == [4.2, 3.6]


def test_what_can_be_read_both_ways_is_asked_about_and_the_answer_is_taken() -> None:
    text = "Story;Height (m);Weight (kN)\nL2;4;3,600\nL1;4;4,200\n"
    assert asked(read(text)) == ["it is not clear how the numbers are written: '3,600' can be 3600 or 3.600"]
    assert values(read(text, given=Reading(numbers="point")), "w") == [4200.0, 3600.0]
    assert values(read(text, given=Reading(numbers="comma")), "w") == [4.2, 3.6]


def test_two_ways_in_one_column_are_asked_about() -> None:
    table = read("Story;Height (m);Weight (kN)\nL2;3.5;4931.50\nL1;3.5;5012,25\n")
    assert any("cannot both be read in one way" in said for said in asked(table))
    assert style_of(["1.5", "2,5"], []).style is None


@pytest.mark.parametrize(
    ("text", "parts"),
    [
        ("4931.5 kN", ("4931.5", "kN")),
        ("0.35g", ("0.35", "g")),
        ("12.5 %", ("12.5", "%")),
        ("3 ft.", ("3", "ft.")),
        ("4931.5", ("4931.5", "")),
        ("L5", ("L5", "")),
    ],
)
def test_a_unit_may_stand_in_the_cell(text: str, parts: tuple[str, str]) -> None:
    assert with_unit(text) == parts


def test_units_in_cells_are_taken_and_another_one_is_asked_about() -> None:
    table = read("Story\tHeight\tWeight\nL2\t12 ft\t200 kip\nL1\t14 ft\t220 kip\n")
    assert asked(table) == []
    assert values(table, "h") == pytest.approx([14 * 0.3048, 12 * 0.3048])
    mixed = read("Story\tHeight (m)\tWeight (kN)\nL2\t3.5\t900 kN\nL1\t3.5\t220 kip\n")
    assert asked(mixed) == ["'kip' is in the cell, but the column is in kN"]


# rows and columns


def test_a_separator_inside_a_number_is_seen() -> None:
    table = read("Story,Height (m),Weight (kN)\nL5,3.40,3,720.8\nL4,3.40,3,811.2\n")
    assert "the row has more cells than the table has headings" in asked(table)


@pytest.mark.parametrize("word", ["Totals", "TOTAL", "Sum", "Grand total", "Gesamt", "Summe", "Totale", "Suma", "Σ"])
def test_totals_are_no_story(word: str) -> None:
    table = read(f"Story\tHeight (m)\tWeight (kN)\nL2\t3.5\t900\nL1\t3.5\t950\n{word}\t7.0\t1850\n")
    assert table.stories == ["L1", "L2"]


def test_a_column_in_metres_is_no_column_of_names() -> None:
    table = read("Name\tLevel [m]\tStory\tWeight [kN]\nA\t7.0\tL2\t900\nB\t3.5\tL1\t950\n", "stories")
    assert table.stories == ["L1", "L2"]
    assert values(table, "h") == [3.5, 3.5]


def test_levels_above_the_base_are_no_story_heights() -> None:
    rising = "Story\tHeight (m)\tWeight (kN)\nL4\t14.0\t900\nL3\t10.5\t900\nL2\t7.0\t900\nL1\t3.5\t900\n"
    assert asked(read(rising)) == ["the story heights increase from story to story, like levels above the base"]
    table = read(rising, given=Reading(columns={"story": 0, "level": 1, "w": 2}))
    assert values(table, "h") == [3.5] * 4


@pytest.mark.parametrize(
    ("names", "bottom_up"),
    [
        (["Roof", "Third", "Second", "First"], ["First", "Second", "Third", "Roof"]),
        (["L2", "L1", "G", "B1", "B2", "B3"], ["B3", "B2", "B1", "G", "L1", "L2"]),
        (["B3", "B2", "B1", "L1", "L2"], ["B3", "B2", "B1", "L1", "L2"]),
        (["+7.20", "+3.60"], ["+3.60", "+7.20"]),
        (["Level 1", "Level 2", "Level 10"], ["Level 1", "Level 2", "Level 10"]),
        (["3rd floor", "2nd floor", "1st floor"], ["1st floor", "2nd floor", "3rd floor"]),
    ],
)
def test_stories_stand_by_their_names(names: list[str], bottom_up: list[str]) -> None:
    table = read("Story\tHeight (m)\tWeight (kN)\n" + "".join(f"{n}\t3.5\t900\n" for n in names), "stories")
    assert asked(table) == []
    assert table.stories == bottom_up


def test_names_that_tell_no_order_ask_for_it() -> None:
    text = "Story\tHeight (m)\tWeight (kN)\nAlder\t3.5\t900\nBirch\t3.6\t900\nCedar\t3.7\t900\n"
    assert asked(read(text)) == ["it is not clear which of the stories is the lowest"]
    assert read(text, given=Reading(order="top_down")).stories == ["Cedar", "Birch", "Alder"]
    known = Building(stories=["Cedar", "Birch", "Alder"])
    assert read(text, known=known).stories == ["Cedar", "Birch", "Alder"]


@pytest.mark.parametrize(
    ("name", "known", "found"),
    [
        ("Level 3", ["L1", "L2", "L3"], "L3"),
        ("3rd floor", ["L1", "L2", "L3"], "L3"),
        ("ROOF", ["L1", "Roof"], "Roof"),
        ("Story3", ["L1", "L2"], None),
        ("Mezzanine", ["L1", "L2"], None),
        ("L3", ["Level 3", "3"], None),
    ],
)
def test_a_story_is_matched_with_the_one_at_its_place(name: str, known: list[str], found: str | None) -> None:
    assert matched(name, known) == found


def test_ranks_only_where_the_name_tells() -> None:
    assert [rank_of(n) for n in ("L12", "B2", "Ground", "Roof", "Twelfth floor", "Alder", "-3.20")] == [
        12.0,
        -2.0,
        0.0,
        1e4,
        12.0,
        None,
        -3.2,
    ]


# headings


def test_brackets_hold_units_or_meaning() -> None:
    table = read("T (s)\tSa (MCE) (g)\tSa (design) (g)\n0.0\t0.9\t0.6\n0.2\t1.5\t1.0\n")
    assert values(table, "S_a") == [0.6, 1.0]
    shares = read("Mode\tPeriod (s)\tMass X (%)\tMass X (cumulative) (%)\n1\t0.9\t80\t80\n2\t0.3\t12\t92\n")
    assert values(shares, "mass_ratio") == pytest.approx([0.8, 0.12])
    assert values(shares, "mass_running") == pytest.approx([0.8, 0.92])
    named = read("Item\tValue\tX\tY\tUnit\nBase shear (modal)\t\t900\t950\tkN\n")
    assert values(named, "V") == []


def test_two_headings_for_one_column_are_asked_about() -> None:
    table = read("T (s)\tSa (g)\tAcceleration (g)\n0.0\t0.9\t0.6\n0.2\t1.5\t1.0\n")
    assert asked(table) == ["'Sa (g)' and 'Acceleration (g)' both look like spectral acceleration"]


def test_the_vertical_share_is_none_about_the_vertical() -> None:
    table = read("Mode\tPeriod (s)\tX (%)\tY (%)\tZ (%)\n1\t0.9\t80\t0\t3\n2\t0.7\t0\t78\t2\n")
    assert values(table, "mass_ratio_RZ") == []


# cases


@pytest.mark.parametrize(
    ("name", "direction"),
    [
        ("Static X", "X"),
        ("EX", "X"),
        ("EX+", "X"),
        ("EY1", "Y"),
        ("RS-Y", "Y"),
        ("Spectrum X", "X"),
        ("Dyn 1", ""),
        ("max", ""),
        ("Modal Y scaled", "Y"),
        ("Y modes -", "Y"),
        ("Gravity", ""),
        ("EX + 0.3 EY", ""),
        ("Lateral by modes", ""),
    ],
)
def test_a_direction_is_read_from_words_not_from_letters(name: str, direction: str) -> None:
    assert direction_in(name) == direction


def test_a_column_of_directions_is_read() -> None:
    known = Building(stories=["L1"])
    table = read("Case\tDirection\tStory\tForce (kN)\nDyn 1\tX\tL1\t40\nDyn 2\tY\tL1\t50\n", "forces", known)
    assert [(c.direction, c.value) for c in table.claims] == [("X", 40.0), ("Y", 50.0)]


def test_forces_along_both_axes_go_to_the_cases_of_their_own() -> None:
    known = Building(stories=["L1"])
    table = read("Case\tStory\tFx (kN)\tFy (kN)\nEX\tL1\t40\t1\nEY\tL1\t2\t50\n", "forces", known)
    assert [(c.direction, c.value) for c in table.claims] == [("X", 40.0), ("Y", 50.0)]


# What is remembered


def test_what_the_table_says_comes_before_what_is_remembered() -> None:
    first = read_text("Story\tHeight\tWeight\n-\tm\tkN\nL2\t3.5\t900\nL1\t4.0\t950\n")
    known = EarlierTables(EDITIONS["asce7-16"], Building())
    before = read_in(first, "S0.csv", known)
    remembered = Remembered("stories", heading_of(first, 0), before.reading)
    then = read_text("Story\tHeight\tWeight\n-\tft\tkip\nL1\t12\t220\nL2\t12\t200\n")
    after = read_in(then, "S1.csv", EarlierTables(EDITIONS["asce7-16"], Building(), [remembered]))
    assert after.stories == ["L1", "L2"]
    assert values(after, "w") == pytest.approx([220 * 4.4482216, 200 * 4.4482216])
    # where it says nothing of them, what is remembered stands
    bare = read_text("Story\tHeight\tWeight\nL2\t3.5\t900\nL1\t4.0\t950\n")
    assert values(read_in(bare, "S2.csv", EarlierTables(EDITIONS["asce7-16"], Building(), [remembered])), "w") == [
        950.0,
        900.0,
    ]


# workbooks as they are seen


def test_hidden_rows_and_columns_are_not_read_and_places_stay() -> None:
    def hide(sheet: Any) -> None:
        sheet.row_dimensions[3].hidden = True
        sheet.column_dimensions["B"].hidden = True

    sheet = book(
        [
            ["Story", "Weight (kN)", "Height (m)", "Seismic weight (kN)"],
            ["L3", 1.0, 3.5, 900],
            ["L2b", 1.0, 3.5, 5],
            ["L2", 1.0, 3.5, 910],
            ["L1", 1.0, 4.0, 950],
        ],
        hide,
    )
    table = read(sheet, "stories")
    assert asked(table) == []
    assert table.stories == ["L1", "L2", "L3"]
    assert values(table, "w") == [950.0, 910.0, 900.0]
    assert {(c.source.column, c.source.row) for c in table.claims if c.quantity == "w"} == {
        ("D", 5),
        ("D", 4),
        ("D", 2),
    }


def test_formats_that_change_what_is_seen() -> None:
    def show(sheet: Any) -> None:
        sheet["C2"].number_format = "0.0%"
        sheet["C3"].number_format = "0.0%"

    sheet = book([["Mode", "Period (s)", "Mass X (%)"], [1, 0.9, 0.8], [2, 0.3, 0.12]], show)
    assert values(read(sheet), "mass_ratio") == pytest.approx([0.8, 0.12])

    def thousands(sheet: Any) -> None:
        sheet["C2"].number_format = "#,##0.0,"
        sheet["C3"].number_format = '#,##0.0,"k"'

    weights = book([["Story", "Height (m)", "Weight (MN)"], ["L2", 3.5, 4931.5], ["L1", 3.5, 5012.0]], thousands)
    assert values(read(weights), "w") == pytest.approx([5012.0, 4931.5])


def test_merged_cells_hold_for_all_they_cover() -> None:
    def merge(sheet: Any) -> None:
        sheet.merge_cells("A2:A3")

    sheet = book(
        [["Case", "Story", "Force (kN)"], ["Static X", "L2", 40], [None, "L1", 30]],
        merge,
    )
    table = read(sheet, "forces", Building(stories=["L1", "L2"]))
    assert [(c.case, c.value) for c in table.claims] == [("Static X", 40.0), ("Static X", 30.0)]


def test_a_long_table_is_read_to_its_end_and_a_longer_one_refused_aloud() -> None:
    rows = "".join(f"{0.001 * i:.3f}\t{0.5:.1f}\n" for i in range(20_001))
    assert len(values(read("T (s)\tSa (g)\n" + rows), "S_a")) == 20_001
    with pytest.raises(SheetRefused, match="more than 500000 rows"):
        read_text("T\tSa\n" + "1\t2\n" * 500_001)


def test_a_sheet_that_nobody_sees_is_not_read() -> None:
    made = Workbook()
    made.active.append(["Story", "Height (m)"])
    made.create_sheet("old").append(["Story", "Height (m)"])
    made["old"].sheet_state = "hidden"
    kept = io.BytesIO()
    made.save(kept)
    assert [s.name for s in read_file(kept.getvalue(), "b.xlsx")] == ["Sheet"]


# wide tables


def test_a_group_of_columns_for_each_case_is_read_as_rows() -> None:
    known = Building(stories=["L1", "L2"])
    text = (
        "Story forces\n"
        "\tStatic X\t\tStatic Y\t\n"
        "Story\tForce (kN)\tShear (kN)\tForce (kN)\tShear (kN)\n"
        "L2\t40\t40\t50\t50\n"
        "L1\t20\t60\t25\t75\n"
    )
    table = read(text, "forces", known)
    assert asked(table) == []
    told = {(c.quantity, c.case, c.direction, c.story): c.value for c in table.claims}
    assert told["F", "Static X", "X", "L2"] == 40.0
    assert told["V_story", "Static Y", "Y", "L1"] == 75.0
    assert len(told) == 8
    # where it was: row 5, column E
    place = next(c.source for c in table.claims if (c.case, c.quantity, c.story) == ("Static Y", "V_story", "L1"))
    assert (place.row, place.column) == (5, "E")


def test_groups_by_direction_and_by_mode_are_read_as_rows() -> None:
    known = Building(stories=["L1"])
    drifts = (
        "Case\tStory\tX\t\tY\t\n"
        "\t\tDrift at end 1 (mm)\tDrift at end 2 (mm)\tDrift at end 1 (mm)\tDrift at end 2 (mm)\n"
        "EX\tL1\t4.1\t3.9\t0.1\t0.2\n"
    )
    told = {(c.quantity, c.direction): c.value for c in read(drifts, "drifts", known).claims}
    assert told["drift_end_2", "X"] == pytest.approx(0.0039)
    assert told["drift_end_1", "Y"] == pytest.approx(0.0001)
    shapes = (
        "\tMode 1\t\tMode 2\t\nStory\tMovement X (m)\tMovement Y (m)\tMovement X (m)\tMovement Y "
        "(m)\nL1\t1.0\t0.1\t0.2\t1.0\n"
    )
    assert read(shapes, known=known).kind == "shapes"
    points = {(c.quantity, c.point, c.direction): c.value for c in read(shapes, "shapes", known).claims}
    assert sorted(points.values()) == [0.1, 0.2, 1.0, 1.0]
    assert {p for _, p, _ in points} == {0, 1}


def test_a_heading_over_several_axes_belongs_to_each() -> None:
    text = (
        "Mode\tPeriod (s)\tMass share (%)\t\tSum (%)\t\n\t\tX\tY\tX\tY\n1\t0.9\t80\t0\t80\t0\n2\t0.7\t0\t78\t80\t78\n"
    )
    table = read(text)
    assert table.kind == "modes"
    assert asked(table) == []
    assert values(table, "mass_ratio") == pytest.approx([0.8, 0.0, 0.0, 0.78])
    assert values(table, "mass_running") == pytest.approx([0.8, 0.0, 0.8, 0.78])


def test_participation_factors_are_no_shares_of_the_mass() -> None:
    text = "Mode\tPeriod (s)\tParticipation factor\t\n\t\tX\tY\n1\t0.9\t1.32\t0\n2\t0.7\t0\t1.28\n"
    assert values(read(text), "mass_ratio") == []


# other languages


@pytest.mark.parametrize(
    ("headings", "names"),
    [
        ("Geschoss\tHöhe (m)\tGewicht (kN)", ("2. OG", "1. OG", "EG")),
        ("Étage\tHauteur (m)\tPoids (kN)", ("Étage 2", "Étage 1", "RDC")),
        ("Planta\tAltura (m)\tPeso (kN)", ("Planta 2", "Planta 1", "Planta baja")),
        ("Piano\tAltezza (m)\tPeso (kN)", ("Piano 2", "Piano 1", "Piano terra")),
    ],
)
def test_stories_in_other_languages(headings: str, names: tuple[str, ...]) -> None:
    table = read(headings + "\n" + "".join(f"{n}\t3,50\t{900 + i},5\n" for i, n in enumerate(names)))
    assert table.kind == "stories"
    assert asked(table) == []
    assert table.stories == list(reversed(names))
    assert values(table, "w") == [902.5, 901.5, 900.5]


def test_modes_and_forces_in_other_languages() -> None:
    modes = read("Eigenform;Periode (s);Masse X (%);Masse Y (%)\n1;0,92;80,1;0\n2;0,71;0;78,2\n")
    assert (modes.kind, asked(modes), values(modes, "T_mode")) == ("modes", [], [0.92, 0.71])
    forces = read("Lastfall;Geschoss;Kraft (kN);Querkraft (kN)\nStatisch X;L1;40;60\n", known=Building(stories=["L1"]))
    assert (forces.kind, asked(forces)) == ("forces", [])
    assert values(forces, "V_story") == [60.0]


def test_values_out_of_proportion_are_marked_and_kept() -> None:
    table = read("Story\tHeight (m)\tWeight (kN)\nL2\t3.5\t900\nL1\t42.0\t950\n")
    assert asked(table) == []
    assert [(p.row, p.column, p.message) for p in table.problems] == [
        (2, 1, "story height of 42 m is out of proportion")
    ]
    assert values(table, "h") == [42.0, 3.5]
    shares = read("Mode\tPeriod (s)\tMass X (-)\n1\t0.9\t80\n2\t0.3\t0.12\n")
    # a share of 80 is one in percent: the unit of the column is asked about
    assert asked(shares) == ["most values of share of the mass in X are out of proportion in -"]
    assert "probably it is %" in shares.problems[0].remedy
    fine = read("Mode\tPeriod (s)\tMass X (%)\n1\t0.9\t80\n2\t0.3\t12\n")
    assert fine.problems == []


def test_a_text_that_is_too_long_is_refused_and_not_cut() -> None:
    line = "solver message " * 40
    read_log = read(f"Line\nanalysis complete\n{line}\n", kind="log")
    assert [p.message for p in read_log.problems] == [f"the line has {len(line.strip())} characters; the limit is 500"]
    terms = " + ".join(f"1.0 Static case {i}" for i in range(40))
    read_terms = read(f"Combination\tTerms\nU1\t{terms}\n", kind="combinations")
    assert any("the limit is 500" in p.message for p in read_terms.problems)
