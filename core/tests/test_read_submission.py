"""A whole submission accepted from its files: what is known, remembered, claimed already, and what stays open."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
from plumb_core.cli import main
from plumb_core.documents.brief import Brief
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused
from plumb_core.intake.columns import Reading
from plumb_core.intake.sheets import Sheet, read_file, read_text
from plumb_core.intake.submission import (
    Answers,
    EarlierTables,
    Remembered,
    SubmissionRead,
    heading_of,
    read_answers,
    read_in,
    read_submission,
)
from plumb_core.intake.tables.kind import Building
from submissions import BRIEF

STORIES = "Level;h [m];Weight [kN]\nL3;4.0;900\nL2;4.0;950\nL1;4.0;1000\n"
FORCES = "Case;Level;Fx [kN]\nStatic X;L3;120\nStatic X;L2;80\nStatic X;L1;40\n"
PARAMETERS = "Quantity;Value;Unit\nW;2850;kN\nV X;240;kN\n"


def files(*texts: str) -> list[tuple[str, bytes]]:
    return [(f"table {i}.csv", text.encode()) for i, text in enumerate(texts, 1)]


def taken(*texts: str, answers: dict[str, Any] | None = None) -> SubmissionRead:
    brief = Brief.model_validate(BRIEF | {"stories": []})
    return read_submission(brief, files(*texts), read_answers(answers) if answers else None)


def sheet(text: str) -> Sheet:
    return read_text(text)


def test_the_stories_are_read_first_wherever_they_stand() -> None:
    read = taken(FORCES, PARAMETERS, STORIES)
    assert read.complete
    assert [(t.file, t.kind, t.values) for t in read.tables] == [
        ("table 1.csv", "forces", 3),
        ("table 2.csv", "parameters", 2),
        ("table 3.csv", "stories", 6),
    ]
    submission = read.document.submission
    assert {(c.name, c.direction) for c in submission.cases} == {("Static X", "X")}
    assert {c.story: c.value for c in submission.claims if c.quantity == "F"} == {"L3": 120.0, "L2": 80.0, "L1": 40.0}


def test_a_table_with_a_question_is_left_out_whole_and_asked() -> None:
    read = taken(STORIES, FORCES.replace("[kN]", ""))
    assert not read.complete
    assert read.tables[1].values == 0
    (question,) = read.tables[1].questions
    assert question.path == "/rows/0/2"
    assert not [c for c in read.document.submission.claims if c.quantity == "F"]


def test_what_is_answered_is_taken() -> None:
    answers = {"tables": {"forces": {"units": {"F": "kN"}}}}
    read = taken(STORIES, FORCES.replace("[kN]", ""), answers=answers)
    assert read.complete
    assert [c.value for c in read.document.submission.claims if c.quantity == "F"] == [120.0, 80.0, 40.0]


def test_a_case_gets_the_role_the_reviewer_gives_it() -> None:
    answers = {"cases": [{"name": "Static X", "kind": "static", "direction": "X", "eccentricity": 0.05}]}
    (case,) = taken(STORIES, FORCES, answers=answers).document.submission.cases
    assert (case.kind, case.direction, case.eccentricity) == ("static", "X", 0.05)


def test_what_is_stated_in_an_earlier_table_is_asked_about() -> None:
    read = taken(STORIES, FORCES, FORCES)
    first, second = read.tables[1], read.tables[2]
    assert (first.values, second.values) == (3, 0)
    assert "already stated" in second.questions[0].message
    assert len([c for c in read.document.submission.claims if c.quantity == "F"]) == 3


def test_signs_are_kept_as_they_were_written() -> None:
    read = taken(STORIES, FORCES.replace(";120", ";-120"))
    assert next(c.value for c in read.document.submission.claims if c.story == "L3" and c.quantity == "F") == -120.0


# one table at a time


def test_a_table_is_read_as_the_last_one_with_its_headings() -> None:
    bare = sheet("Case;Level;Fx\nStatic X;L2;80\nStatic X;L1;40\n")
    assert read_in(bare, "a.csv", EarlierTables(building=Building(["L1", "L2"]))).problems
    reading = Reading(header_row=0, columns={"case": 0, "story": 1, "F": 2}, units={"F": "kN"}, cases={"Static X": "X"})
    own = read_in(bare, "a.csv", EarlierTables(building=Building(["L1", "L2"])), given=None)
    remembered = Remembered(own.kind, heading_of(bare, 0), reading)
    other = Remembered("stories", heading_of(bare, 0), Reading(header_row=0))
    with_title = sheet("Lateral forces;;\nCase;Level;Fx\nStatic X;L2;81\n")
    for table in (bare, with_title):
        read = read_in(table, "b.csv", EarlierTables(building=Building(["L1", "L2"]), remembered=[other, remembered]))
        assert read.reading.units.get("F") == "kN" or not read.problems
    new = sheet("Case;Level;Fy\nStatic Y;L2;81\n")
    assert read_in(new, "c.csv", EarlierTables(building=Building(["L1", "L2"]), remembered=[remembered])).problems


def test_a_kind_that_is_not_there_is_refused() -> None:
    with pytest.raises(InputRefused, match="not a kind of table"):
        read_in(sheet(STORIES), "a.csv", EarlierTables(), kind="roofs")


def test_a_value_that_is_stated_again_is_no_question_and_another_value_is() -> None:
    """The rest of the table is read either way."""
    more = FORCES.replace("Static X;L2;80", "Static Y;L2;80").replace("Static X;L1;40", "Static Y;L1;40")
    read = taken(STORIES, FORCES, more)
    assert read.complete
    assert read.tables[2].values == 2
    other = taken(STORIES, FORCES, more.replace("Static X;L3;120", "Static X;L3;130"))
    (question,) = other.tables[2].questions
    assert "130 kN here and 120 kN in table 2.csv" in question.message
    assert other.tables[2].values == 2
    assert [(p.file, len(p.rows)) for p in other.document.open] == [("table 3.csv", 1)]


@pytest.mark.parametrize(
    ("edition", "quantity"), [("ubc97", "I"), ("en1998-1", "gamma_I"), ("asce7-16", "I_e"), ("as1170.4", "I_e")]
)
def test_parameters_are_known_by_the_names_of_their_edition(edition: str, quantity: str) -> None:
    """Each code has its own importance factor."""
    table = sheet("Quantity;Value\nImportance factor;1.25\n")
    (claim,) = read_in(table, "p.csv", EarlierTables(EDITIONS[edition]), "parameters").claims
    assert (claim.quantity, claim.value) == (quantity, 1.25)


def test_an_answer_that_is_none_is_refused() -> None:
    with pytest.raises(InputRefused) as refused:
        read_answers({"tables": {"stories": {"order": "sideways"}}, "more": 1})
    assert {p.path for p in refused.value.problems} == {"/tables/stories/order", "/more"}


# the command


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    (tmp_path / "brief.json").write_text(json.dumps({"brief": BRIEF | {"stories": []}}))
    for name, text in (("stories", STORIES), ("forces", FORCES), ("bare", FORCES.replace("[kN]", ""))):
        (tmp_path / f"{name}.csv").write_text(text)
    (tmp_path / "answers.json").write_text(json.dumps({"tables": {"forces": {"units": {"F": "kN"}}}}))
    return tmp_path


def intake(folder: Path, *names: str, answers: str = "") -> int:
    more = ["--answers", str(folder / answers)] if answers else []
    return main(["intake", str(folder / "brief.json"), *(str(folder / n) for n in names), *more])


def told(capsys: Any) -> tuple[Any, list[Any]]:
    """The document of standard output, and the lines about tables of standard error."""
    said = capsys.readouterr()
    return json.loads(said.out), [json.loads(line) for line in said.err.splitlines()]


def test_the_command_makes_a_document_that_can_be_rechecked(folder: Path, capsys: Any) -> None:
    assert intake(folder, "stories.csv", "forces.csv") == 0
    made, tables = told(capsys)
    assert [(t["file"], t["table"], t["kind"], t["questions"]) for t in tables] == [
        ("stories.csv", 1, "stories", []),
        ("forces.csv", 1, "forces", []),
    ]
    (folder / "made.json").write_text(json.dumps(made))
    assert main(["recheck", str(folder / "made.json")]) == 0
    assert {c["id"] for c in json.loads(capsys.readouterr().out)["checks"]} >= {"F.X.L3.Static X", "h.L1"}


def test_the_command_ends_with_3_where_something_is_open_and_with_0_when_it_is_answered(
    folder: Path, capsys: Any
) -> None:
    assert intake(folder, "stories.csv", "bare.csv") == 3
    _, tables = told(capsys)
    assert [q["path"] for q in tables[1]["questions"]] == ["/rows/0/2"]
    assert intake(folder, "stories.csv", "bare.csv", answers="answers.json") == 0


def test_the_command_refuses_what_is_no_table_and_what_is_not_there(folder: Path, capsys: Any) -> None:
    (folder / "picture.xlsx").write_bytes(b"not a readable workbook")
    assert intake(folder, "picture.xlsx") == 2
    assert intake(folder, "nowhere.csv") == 2
    assert capsys.readouterr().out == ""


def test_files_are_read_once_each(folder: Path) -> None:
    assert len(read_file((folder / "stories.csv").read_bytes(), "stories.csv")) == 1


def test_answers_have_defaults_only() -> None:
    assert Answers() == read_answers({})
