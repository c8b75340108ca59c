"""Rows for several stories: each of them has its own, and what can be a sum is asked about."""

from __future__ import annotations

import pytest
from plumb_core.intake.columns import Reading
from plumb_core.intake.doubts import EACH
from plumb_core.intake.layout.groups import stories_of
from plumb_core.intake.layout.tables import arranged
from plumb_core.intake.sheet_documents import document_of, sheets_of
from plumb_core.intake.sheets import read_file
from plumb_core.intake.submission import EarlierTables, read_in
from plumb_core.intake.tables.kind import Building, TableRead


@pytest.mark.parametrize(
    ("text", "names"),
    [
        ("L2 to L4", ("L2", "L3", "L4")),
        ("L4-L2", ("L4", "L3", "L2")),
        ("Levels 2 – 4", ("Level 2", "Level 3", "Level 4")),
        ("Story 9 thru Story 11", ("Story 9", "Story 10", "Story 11")),
        ("2nd-4th floor", ("2nd floor", "3rd floor", "4th floor")),
        ("10th to 12th", ("10th", "11th", "12th")),
        ("Floor 2 … 4", ("Floor 2", "Floor 3", "Floor 4")),
        ("L2, L3 and L5", ("L2", "L3", "L5")),
        ("L1 & L3 to L4", ("L1", "L3", "L4")),
    ],
)
def test_a_group_names_its_stories(text: str, names: tuple[str, ...]) -> None:
    assert stories_of(text) == names


@pytest.mark.parametrize(
    "text", ["L2", "Tower-2", "L2 to B4", "Roof", "L2-L2", "L1 to L900", "A and B", "4.2-5", "", "Case-1 to L3"]
)
def test_other_names_are_no_groups(text: str) -> None:
    assert stories_of(text) == ()


def table(text: str, given: Reading | None = None, **building: object) -> TableRead:
    (sheet,) = arranged(read_file(text.encode(), "stories.csv"))
    (kept,) = sheets_of(document_of([sheet]))
    return read_in(kept, "stories.csv", EarlierTables(building=Building(**building)), given=given)  # type: ignore[arg-type]


def read_of(result: TableRead, quantity: str) -> dict[str | None, float]:
    return {c.story: float(c.value) for c in result.claims if c.quantity == quantity}


TOP_DOWN = "Story;Height (m);Weight (kN)\nRoof;3.6;4100\nL2 to L4;3.2;5200\nL1;4.5;5600\n"
HEIGHTS = {"Roof": 3.6, "L4": 3.2, "L3": 3.2, "L2": 3.2, "L1": 4.5}


def test_each_story_of_a_group_has_its_height_and_the_weight_is_asked_about() -> None:
    result = table(TOP_DOWN)
    assert list(read_of(result, "h")) == ["L1", "L2", "L3", "L4", "Roof"]
    assert read_of(result, "h") == HEIGHTS
    assert read_of(result, "w") == {}
    (question,) = result.problems
    assert question.extent == "column"
    assert "of each or of all together" in question.message
    confirmed = table(TOP_DOWN, Reading(**question.choices[0].sets))
    assert confirmed.problems == []
    assert read_of(confirmed, "w") == {"Roof": 4100.0, "L4": 5200.0, "L3": 5200.0, "L2": 5200.0, "L1": 5600.0}
    assert EACH in confirmed.reading.confirmed


def test_all_values_of_a_group_stand_in_the_row_where_they_were() -> None:
    result = table(TOP_DOWN, Reading(confirmed=[EACH]))
    assert {c.story: c.source.row for c in result.claims if c.quantity == "w"} == {
        "Roof": 2,
        "L4": 3,
        "L3": 3,
        "L2": 3,
        "L1": 4,
    }


def test_a_total_states_that_the_weight_is_of_each_story() -> None:
    total = 4100 + 3 * 5200 + 5600
    result = table(f"{TOP_DOWN}Total;;{total}\n")
    assert result.problems == []
    assert sum(read_of(result, "w").values()) == total
    # and one that fits the sum leaves the question open
    assert len(table(f"{TOP_DOWN}Total;;{4100 + 5200 + 5600}\n").problems) == 1


def test_the_brief_states_that_the_weight_is_of_each_story() -> None:
    stories = ["L1", "L2", "L3", "L4", "Roof"]
    known = {"stories": stories, "heights": HEIGHTS, "weights": dict.fromkeys(stories, 5000.0)}
    assert table(TOP_DOWN, **known).problems == []
    # three stories together
    known["weights"] = dict.fromkeys(stories, 1700.0)
    assert [p.extent for p in table(TOP_DOWN, **known).problems] == ["column"]


def test_names_of_what_is_between_two_floors_are_no_groups() -> None:
    text = "Case;Story;Drift end 1 (mm);Drift end 2 (mm)\nEX;L2-L3;9;8\nEX;L1-L2;7;6\n"
    result = table(text, stories=["L1", "L2", "L3"])
    assert result.claims == []
    assert result.problems


def test_a_group_beside_one_of_its_stories_is_not_written_out() -> None:
    result = table("Story;Height (m)\nL4;3.2\nL2 to L4;3.2\nL1;4.5\n")
    assert "L2 to L4" in [c.story for c in result.claims]


def test_drifts_of_a_group_are_those_of_each_of_its_stories() -> None:
    text = "Case;Story;Drift end 1 (mm);Drift end 2 (mm)\nEX;L3 - L2;9;8\nEX;L1;7;6\n"
    result = table(text, stories=["L1", "L2", "L3"])
    assert read_of(result, "drift_end_1") == pytest.approx({"L3": 0.009, "L2": 0.009, "L1": 0.007})
