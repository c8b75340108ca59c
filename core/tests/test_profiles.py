"""Profiles of a firm's tables, and what is answered once for tables that repeat."""

from __future__ import annotations

from typing import Any

import pytest
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.errors import InputRefused
from plumb_core.intake.columns import Reading
from plumb_core.intake.doubts import like_titles
from plumb_core.intake.layout.tables import arranged
from plumb_core.intake.profiles import Profile, learned, proposed_by, read_profile
from plumb_core.intake.sheets import Sheet, read_file
from plumb_core.intake.submission import EarlierTables, heading_of, read_answers, read_in, read_submission
from plumb_core.intake.tables.kind import Building
from test_everyday_tables import BRIEF

TEXT = "Level;Height;Load at level\nL2;3.6;900\nL1;4.0;1000\n"


def sheet_of(text: str) -> Sheet:
    (sheet,) = arranged(read_file(text.encode(), "stories.csv"))
    return sheet


def test_a_profile_answers_what_a_firm_s_next_table_asks() -> None:
    sheet = sheet_of(TEXT)
    answers = Reading(header_row=0, columns={"story": 0, "h": 1, "w": 2}, units={"h": "m", "w": "kN"})
    table = read_in(sheet, "stories.csv", EarlierTables(), "stories", answers)
    assert table.problems == []
    entries = learned([("stories", heading_of(sheet, 0), table.reading)])
    other = sheet_of("Some notes;;\nLevel;Height;Load at level\nRoof;3.2;700\nL1;4.2;800\n")
    proposal = proposed_by(entries, other)
    assert proposal is not None
    assert proposed_by(entries, other, "stories") == proposal
    read_so = read_in(other, "other.csv", EarlierTables(), *proposal)
    assert read_so.problems == []
    assert [(c.quantity, c.story, c.value) for c in read_so.claims if c.quantity == "w"] == [
        ("w", "L1", 800.0),
        ("w", "Roof", 700.0),
    ]
    # other headings, or another kind, are not known to it
    assert proposed_by(entries, sheet_of(TEXT.replace("Load at level", "Load")), "stories") is None
    assert proposed_by(entries, sheet, "drifts") is None


def test_rows_stories_and_single_cells_are_of_one_building_and_not_kept() -> None:
    reading = Reading(
        columns={"story": 0, "case": 9},
        stories={"Roof": "L4"},
        left_out=[3],
        taken_in=[4],
        case="EX",
        confirmed=["delta", "row 3, column 2"],
    )
    (entry,) = learned([("drifts", ["Story", "Drift"], reading)])
    kept = entry.model_dump()
    assert kept["columns"] == {"story": 0}
    assert kept["confirmed"] == ["delta"]
    assert not {"stories", "left_out", "taken_in", "case"} & kept.keys()


def test_the_last_answer_for_the_same_headings_is_the_one_that_is_kept() -> None:
    head = ["Story", "Height"]
    before = learned([("stories", head, Reading(units={"h": "mm"})), ("forces", head, Reading(units={"F": "kN"}))])
    now = learned([("stories", head, Reading(units={"h": "m"})), ("stories", (), Reading())], before)
    assert [(t.kind, t.units) for t in now] == [("stories", {"h": "m"}), ("forces", {"F": "kN"})]


def test_a_profile_is_exported_and_imported_unchanged() -> None:
    profile = Profile(name="Carrow and Finch", tables=learned([("stories", ["Story"], Reading(columns={"story": 0}))]))
    assert read_profile(profile.model_dump(mode="json")) == profile


@pytest.mark.parametrize(
    ("table", "path"),
    [
        ({"kind": "moods", "heading": ["Story"]}, "/tables/0/kind"),
        ({"kind": "stories", "heading": []}, "/tables/0/heading"),
        ({"kind": "stories", "heading": ["Story"], "columns": {"mood": 0}}, "/tables/0/columns/mood"),
        ({"kind": "stories", "heading": ["Story"], "columns": {"story": 1}}, "/tables/0/columns/story"),
        ({"kind": "stories", "heading": ["Story"], "units": {"h": "furlong"}}, "/tables/0/units/h"),
        ({"kind": "stories", "heading": ["Story"], "order": "sideways"}, "/tables/0/order"),
    ],
)
def test_a_profile_that_cannot_be_used_is_refused_with_its_place(table: dict[str, Any], path: str) -> None:
    with pytest.raises(InputRefused) as refused:
        read_profile({"name": "x", "tables": [table]})
    assert [p.path for p in refused.value.problems] == [path]
    assert all(p.remedy for p in refused.value.problems)


@pytest.mark.parametrize(
    ("one", "other", "alike"),
    [
        ("Table 4: drifts of case EX, vertical", "Table 5: drifts of case EY, vertical", True),
        ("Maximum considered drifts, L3", "Maximum considered drifts, L4", True),
        ("Maximum considered drifts", "Vertical drifts", False),
    ],
)
def test_titles_are_alike_but_for_numbers_and_names_of_cases(one: str, other: str, alike: bool) -> None:
    assert (like_titles([one]) == like_titles([other])) is alike


def paged(case: str, title: str = "Maximum considered story drifts") -> tuple[str, bytes]:
    text = f"{title}, case {case};;;\nCase;Story;Drift end 1 (mm);Drift end 2 (mm)\n"
    rows = "".join(f"{case};L{i};{9 + i}.1;{8 + i}.2\n" for i in (4, 3, 2, 1))
    return f"{case}.csv", (text + rows).encode()


def test_a_doubt_about_a_title_is_settled_once_for_tables_that_repeat() -> None:
    files = [paged("EX"), paged("EY"), paged("EZ", "Vertical story drifts")]
    open_ones = read_submission(read(Brief, BRIEF), files, read_answers({}))
    assert [t.open for t in open_ones.tables] == [True, True, True]
    answers = {"tables": [{"file": "EX.csv", "kind": "drifts", "confirmed": ["maximum considered"]}]}
    answered = read_submission(read(Brief, BRIEF), files, read_answers(answers))
    assert [t.open for t in answered.tables] == [False, False, True]


def test_the_first_answer_settles_the_doubt_about_a_title() -> None:
    sheet = sheet_of(paged("EX")[1].decode())
    known = EarlierTables(building=Building(["L1", "L2", "L3", "L4"]))
    (question,) = [p for p in read_in(sheet, "EX.csv", known).problems if p.extent == "table"]
    assert question.choices[0].sets == {"confirmed": ["maximum considered"]}
