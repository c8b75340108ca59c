"""Tables of everyday practice, small enough to be read here: the values of each, and its questions.

Each is written as it is found in reports and e-mails, and its values are worked out beside it.
"""

from __future__ import annotations

from typing import Any

import pytest
from plumb_core.checks.recheck import recheck
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.errors import InputRefused
from plumb_core.intake.reading import read_model_table
from plumb_core.intake.sheets import read_text
from plumb_core.intake.submission import EarlierTables, SubmissionRead, read_answers, read_in, read_submission
from plumb_core.intake.tables import table_kinds
from plumb_core.intake.tables.kind import Building
from weasyprint import HTML

BRIEF = {
    "edition": "asce7-16",
    "stories": [
        {"name": n, "height": h, "weight": 5000.0} for n, h in (("L1", 4.2), ("L2", 3.6), ("L3", 3.6), ("L4", 3.6))
    ],
}
Value = tuple[str, str, str, str, float]
"""quantity, story (or number of the mode), direction, case; value in the core's unit"""


def taken(*texts: str, answers: dict[str, Any] | None = None, brief: dict[str, Any] | None = None) -> SubmissionRead:
    files = [(f"table {i}.tsv", text.replace(" | ", "\t").encode()) for i, text in enumerate(texts, 1)]
    return read_submission(read(Brief, brief or BRIEF), files, read_answers(answers or {}))


def values(result: SubmissionRead) -> dict[tuple[str, str, str, str], float | str]:
    return {
        (c.quantity, c.story or ("" if c.point is None else str(c.point + 1)), c.direction or "", c.case): c.value
        for c in result.document.submission.claims
    }


def asked(result: SubmissionRead) -> list[str]:
    return [f"{q.message}. {q.remedy}" for t in result.tables for q in t.questions]


def of(quantity: str, result: SubmissionRead) -> dict[str, float | str]:
    """Values of a quantity by story or mode, of a table with one case and direction."""
    return {place: value for (q, place, _, _), value in values(result).items() if q == quantity}


def test_a_percent_sign_over_drift_ratios_is_read() -> None:
    titled = taken(
        "Story drift ratios in %, case EX\nStory | Max drift ratio | Avg drift ratio\n"
        "L4 | 0.35 | 0.30\nL3 | 0.42 | 0.36\nL2 | 0.44 | 0.38\nL1 | 0.31 | 0.26\n"
    )
    # 0.35 % of 3.6 m
    assert of("drift_max", titled)["L4"] == pytest.approx(0.0126)
    assert asked(titled) == []


def test_a_ratio_that_no_building_has_is_asked_about() -> None:
    bare = taken(
        "Story | Case | Max drift ratio | Avg drift ratio\n"
        "L4 | EX | 0.35 | 0.30\nL3 | EX | 0.42 | 0.36\nL2 | EX | 0.44 | 0.38\nL1 | EX | 0.31 | 0.26\n"
    )
    assert of("drift_max", bare) == {}
    assert any("%" in q for q in asked(bare))


def test_answers_name_their_table() -> None:
    stated = (
        "Story | Case | Dir | Drift end 1 [cm] | Drift end 2 [cm]\nL2 | EX | X | 1.2 | 1.0\nL1 | EX | X | 1.1 | 0.9\n"
    )
    open_ = "Story | Case | Dir | Drift end 1 | Drift end 2\nL2 | EY | Y | 12 | 10\nL1 | EY | Y | 11 | 9\n"
    by_kind = {"tables": {"drifts": {"units": {"drift_end_1": "mm", "drift_end_2": "mm"}}}}
    for answers in (by_kind, {"tables": [{"file": "table 2.tsv", "table": 1, **by_kind["tables"]["drifts"]}]}):
        found = values(taken(stated, open_, answers=answers))
        assert found["drift_end_1", "L2", "X", "EX"] == pytest.approx(0.012)
        assert found["drift_end_1", "L2", "Y", "EY"] == pytest.approx(0.012)


def test_rows_are_left_out_of_the_table_that_is_named_only() -> None:
    one = "Story | Case | Force (kN)\nL2 | EX | 10\nL1 | EX | 5\n"
    two = "Story | Case | Force (kN)\nL2 | EY | 12\nL1 | EY | 6\n"
    answers = {"tables": [{"file": "table 2.tsv", "left_out": [1]}]}
    found = values(taken(one, two, answers=answers))
    assert ("F", "L2", "X", "EX") in found
    assert ("F", "L2", "Y", "EY") not in found


def test_an_answer_for_a_kind_that_several_tables_have_says_which_is_missing() -> None:
    one = "Story | Case | Force (kN)\nL2 | EX | 10\nL1 | EX | 5\n"
    two = "Story | Case | Force (kN)\nL2 | EY | 12\nL1 | EY | 6\n"
    with pytest.raises(InputRefused, match="about one of them"):
        taken(one, two, answers={"tables": {"forces": {"left_out": [1]}}})


@pytest.mark.parametrize(
    ("heading", "value", "expected"),
    [("Drift [mm]", "12.5", 0.0125), ("Story drift (mm)", "12.5", 0.0125), ("Drift ratio (%)", "0.35", 0.0126)],
)
def test_one_drift_for_each_story(heading: str, value: str, expected: float) -> None:
    found = taken(f"Story | Case | {heading}\nL3 | EX | {value}\nL2 | EX | {value}\n")
    assert asked(found) == []
    assert of("drift_single", found)["L3"] == pytest.approx(expected)


def test_drifts_along_both_axes_side_by_side() -> None:
    found = values(taken("Story | Drift X [mm] | Drift Y [mm]\nL3 | 12.5 | 11\nL2 | 13.0 | 12\nCase: design\n"))
    case = {case for _, _, _, case in found}
    assert len(case) <= 1 or case
    read_ = values(taken("Case | Story | Drift X [mm] | Drift Y [mm]\nSPEC | L3 | 12.5 | 11\nSPEC | L2 | 13.0 | 12\n"))
    assert read_["drift_single", "L3", "X", "SPEC"] == pytest.approx(0.0125)
    assert read_["drift_single", "L2", "Y", "SPEC"] == pytest.approx(0.012)


def test_the_larger_end_is_the_greatest_drift() -> None:
    found = taken("Case | Story | Larger end (mm) | Mean drift (mm)\nEX | L2 | 14 | 11\nEX | L1 | 10 | 8\n")
    assert of("drift_max", found) == {"L2": pytest.approx(0.014), "L1": pytest.approx(0.010)}


@pytest.mark.parametrize("heads", ["UX (mm) | UY (mm)", "Displacement X (mm) | Displacement Y (mm)"])
def test_displacements_along_both_axes(heads: str) -> None:
    found = values(taken(f"Case | Level | {heads}\nEX | L2 | 30.5 | 1.2\nEX | L1 | 14.0 | 0.6\n"))
    assert found["displacement_single", "L2", "X", "EX"] == pytest.approx(0.0305)
    assert found["displacement_single", "L1", "Y", "EX"] == pytest.approx(0.0006)


def test_displacements_called_delta_are_no_drifts() -> None:
    found = taken("Displacements of the floors, case EX\nLevel | delta max [mm]\nL4 | 52\nL3 | 40\nL2 | 26\nL1 | 12\n")
    assert "drift_max" not in {q for q, *_ in values(found)}
    assert of("displacement_max", found)["L4"] == pytest.approx(0.052) or asked(found)


def test_reactions_at_the_base_are_no_story_forces() -> None:
    brief = {"edition": "asce7-16", "stories": []}
    found = taken("Level | Case | FX (kN) | FY (kN)\nBase | EX | 812 | 3\nBase | EY | 2 | 799\n", brief=brief)
    assert values(found)["reaction_X", "", "", "EX"] == 812.0
    assert not of("F", found)


def test_parameters_have_bounds() -> None:
    found = taken("Item | Value | Unit\nDamping of the modes | 5 | \nAccidental eccentricity | 5 | \n")
    assert of("damping_modes", found) == {}
    assert of("eccentricity", found) == {}
    assert all("%" in q for q in asked(found))
    assert len(asked(found)) == 2


@pytest.mark.parametrize(
    "title",
    [
        "Inelastic story drifts, case EX",
        "Story drifts divided by R, case EX",
        "Maximum considered earthquake: story drifts, case EX",
        "Story drifts of half of the building, case EX",
        "Vertical story drifts, case EX",
        "Story drifts at service level, case EX",
        "Story drifts from wind, case EX",
        "Resultant story drifts, case EX",
        "Story drifts, case EX, 1.4 EX",
    ],
)
def test_a_title_that_changes_the_values_is_weighed(title: str) -> None:
    head = "Story | Drift end 1 (mm) | Drift end 2 (mm)\nL3 | 12.5 | 11\nL2 | 13.0 | 12\n"
    assert asked(taken(f"Story drifts, case EX\n{head}")) == []
    found = taken(f"{title}\n{head}")
    levels = {c.level for c in found.document.submission.cases}
    assert asked(found) or levels in ({"amplified"}, {"reduced"})


def test_a_unit_in_the_title_against_the_headings() -> None:
    found = taken("Story forces in MN, case EX\nStory | Force (kN)\nL2 | 1.2\nL1 | 0.6\n")
    assert any("MN" in q for q in asked(found))


def test_weights_that_add_up_downwards_are_asked_about() -> None:
    brief = {"edition": "asce7-16", "stories": [{"name": n, "height": 3.5} for n in ("L1", "L2", "L3", "L4")]}
    found = taken(
        "Story | Height (m) | Weight (kN)\nL4 | 3.5 | 4000\nL3 | 3.5 | 9000\nL2 | 3.5 | 14000\nL1 | 3.5 | 19000\n",
        brief=brief,
    )
    assert any("above" in q or "accumul" in q for q in asked(found))
    assert of("w", found) == {}
    assert of("h", found)["L1"] == 3.5


def test_floors_named_by_ordinals_one_above_the_levels_are_asked_about_once() -> None:
    forces = (("5th", 40), ("4th", 30), ("3rd", 20), ("2nd", 10))
    found = taken("Case | Floor | Force (kN)\n" + "".join(f"EX | {n} floor | {f}\n" for n, f in forces))
    assert of("F", found) == {}
    (question,) = asked(found)
    assert "L4" in question
    assert "5th floor" in question


def test_a_point_with_three_digits_is_doubtful_beside_commas() -> None:
    found = taken("Case | Story | Force (kN) | Shear (kN)\nEX | L2 | 5.213 | 3,600\nEX | L1 | 4.101 | 7,700\n")
    assert any("5.213" in q or "3,600" in q for q in asked(found))


def test_a_run_log_is_known_by_its_lines() -> None:
    found = taken(
        "Solving 1,204 equations\nWARNING: node 14 has no stiffness in RZ\n"
        "Number of modes found: 24\nanalysis complete\n"
    )
    assert [t.kind for t in found.tables] == ["log"]
    assert asked(found) == []
    assert len(found.document.submission.claims) == 4


def test_columns_of_numbers_that_are_not_used_are_listed() -> None:
    found = taken("Case | Global FX (kN) | Global MX (kN-m) | Uplift (kN)\nEX | 812 | 4010 | 33\n")
    assert values(found)["reaction_MX", "", "", "EX"] == 4010.0
    assert any("Uplift" in heading for t in found.tables for heading in t.unused)


@pytest.mark.parametrize(
    ("text", "key", "expected"),
    [
        ("Case | Horizontal X (kN) | Vertical (kN)\nEX | 812 | 9000\n", ("reaction_Z", "", "", "EX"), 9000.0),
        ("Case | Story | Cumulative shear (kN)\nEX | L2 | 90\nEX | L1 | 140\n", ("V_story", "L1", "X", "EX"), 140.0),
        (
            "Story | Height (m) | Weight (this storey) (kN)\nL2 | 3.6 | 4000\nL1 | 4.2 | 5000\n",
            ("w", "L1", "", ""),
            5000.0,
        ),
        ("Mode | Natural frequency (Hz)\n1 | 0.8\n2 | 2.0\n", ("f_mode", "1", "", ""), 0.8),
        ("Item | X | Y\nResponse reduction factor R | 5 | 4\n", ("R", "", "X", ""), 5.0),
    ],
)
def test_columns_that_were_dropped_are_read(text: str, key: tuple[str, str, str, str], expected: float) -> None:
    found = taken(text, brief={"edition": "is1893-2016", "stories": BRIEF["stories"]} if "reduction" in text else None)
    assert values(found)[key] == pytest.approx(expected)
    assert asked(found) == []


def test_one_row_that_cannot_be_read_leaves_the_others() -> None:
    found = taken("Case | Story | Force (kN)\nEX | L3 | 120\nEX | L2 | 8o\nEX | L1 | 40\n")
    assert of("F", found) == {"L3": 120.0, "L1": 40.0}
    (part,) = found.document.open
    assert part.rows == [3]
    assert part.quantities
    assert not found.complete


def test_blank_forces_and_a_share_once_are_no_questions() -> None:
    found = taken("Case | Story | Force (kN) | Shear (kN)\nSPEC X | L3 |  | 120\nSPEC X | L2 |  | 200\n")
    assert asked(found) == []
    assert of("V_story", found) == {"L3": 120.0, "L2": 200.0}


@pytest.mark.parametrize("note_first", [True, False])
def test_a_vertical_axis_that_is_named_over_nodes_is_asked_about(note_first: bool) -> None:
    nodes = "Node\tX (m)\tY (m)\tZ (m)\n1\t0\t0\t0\n2\t0\t3.5\t0\n"
    note = "Y is the vertical axis\t\t\t\n"
    table = read_model_table(read_text(note + nodes if note_first else nodes + note), "nodes")
    assert any("Y is vertical" in p.message for p in table.problems)
    assert table.rows == []


def pages(*tables: tuple[str, list[list[str]]]) -> bytes:
    """A PDF of a ruled table a page, each below its title."""
    cells = "td { border: 0.5pt solid black; padding: 1pt 9pt }"
    body = "".join(
        f"<section style='page-break-after: always'><h2>{title}</h2><table style='border-collapse: collapse'>"
        + "".join("<tr>" + "".join(f"<td>{c}</td>" for c in row) + "</tr>" for row in rows)
        + "</table></section>"
        for title, rows in tables
    )
    return bytes(HTML(string=f"<style>{cells}</style>{body}").write_pdf())


def drifts_and(title: str) -> dict[tuple[str, str, str, str], float | str]:
    head = ["Case", "Story", "Drift end 1 (mm)", "Drift end 2 (mm)"]
    first = [head, ["EX", "L4", "12", "11"], ["EX", "L3", "13", "12"]]
    second = [["EX", "L2", "14", "13"], ["EX", "L1", "9", "8"]]
    data = pages(("Story drifts", first), (title, second))
    return values(read_submission(read(Brief, BRIEF), [("report.pdf", data)], read_answers({})))


def test_rows_on_the_next_page_go_on_below_the_same_title() -> None:
    assert len(drifts_and("Story drifts (continued)")) == 8


def test_rows_below_another_title_are_another_table() -> None:
    assert {story for _, story, _, _ in drifts_and("Table 7: column sizes")} == {"L4", "L3"}


@pytest.mark.parametrize(
    ("text", "key", "expected"),
    [
        # a title with a wide blank, and rules of dashes, in columns of letters
        (
            "Story drifts  (case EX)\n\nStory   Drift 1 (mm)   Drift 2 (mm)\nL2        12.5           11.0\n"
            "L1        10.1            9.0\n",
            ("drift_end_1", "L2", "X", "EX"),
            0.0125,
        ),
        (
            "Case   Story   Force (kN)\n----   -----   ----------\nEX     L2      120.0\nEX     L1       60.0\n",
            ("F", "L1", "X", "EX"),
            60.0,
        ),
        ("Item | X | Y\nI_e | 1.25 | 1.25\n", ("I_e", "", "", ""), 1.25),
        ("Item | Value | Unit\nS_DS | 0.83 | \n", ("S_DS", "", "", ""), 0.83),
        ("Item | X | Y\nBase shear [kN] | 812 | 790\n", ("V", "", "Y", ""), 790.0),
        ("Größe | Wert | Einheit\nW | 20000 | kN\n", ("W", "", "", ""), 20000.0),
        ("Case | Story | Force (kN)\nEX +5% | L2 | 120\nEX +5% | L1 | 60\n", ("F", "L2", "X", "EX +5%"), 120.0),
        ("Case | Story | Force (kN)\nLC1: EX | L2 | 120\nLC1: EX | L1 | 60\n", ("F", "L1", "X", "LC1: EX"), 60.0),
        ("Story | Load | Amount (kN)\nL2 | own weight | 3000\n", ("load_kind", "", "", "own weight"), "dead"),
        ("Story | Load | Amount (kN)\nL2 | finishes | 500\n", ("load_kind", "", "", "finishes"), "dead"),
        # the size of a drift, and the neighbour of a factor, state what the comma is
        (
            "Case | Story | Drift end 1 (mm) | Drift end 2 (mm)\nEX | L2 | 6,888 | 5,441\nEX | L1 | 7,120 | 6,002\n",
            ("drift_end_1", "L2", "X", "EX"),
            0.006888,
        ),
        (
            "Item | Value\nScale factor X | 1,001\nAccidental eccentricity | 5,0 %\n",
            ("factor_used", "", "X", ""),
            1.001,
        ),
        ("Case | Story | Drift ratio\nEX | L2 | 1/500\nEX | L1 | 1/430\n", ("drift_single", "L2", "X", "EX"), 0.0072),
    ],
)
def test_what_needs_no_question(text: str, key: tuple[str, str, str, str], expected: float | str) -> None:
    found = taken(text)
    assert values(found)[key] == (pytest.approx(expected) if isinstance(expected, float) else expected)
    assert asked(found) == []


def test_stories_in_the_order_of_letters_are_put_in_the_order_of_numbers() -> None:
    names = ("L1", "L10", "L11", "L2", "L3", "L4", "L5", "L6", "L7", "L8", "L9")
    rows = "".join(f"{n} | {3.0 + 0.1 * int(n[1:]):.1f} | {1000 + int(n[1:])}\n" for n in names)
    found = taken(f"Story | Height (m) | Weight (kN)\n{rows}", brief={"edition": "asce7-16", "stories": []})
    assert asked(found) == []
    assert list(of("h", found)) == [f"L{i}" for i in range(1, 12)]
    assert of("h", found)["L10"] == 4.0


def test_a_last_row_without_a_name_that_adds_up_is_a_total() -> None:
    brief = {"edition": "asce7-16", "stories": []}
    rows = "Story | Height (m) | Weight (kN)\nL2 | 3.5 | 5200\nL1 | 3.5 | 5000\n\t\t{}\n"
    assert asked(taken(rows.format(10200), brief=brief)) == []
    assert asked(taken(rows.format(9000), brief=brief)) != []


def test_three_digits_after_a_point_are_doubtful_below_german_headings() -> None:
    found = taken("Geschoss | Lastfall | Kraft [kN]\nL2 | EX | 1.211\nL1 | EX | 1.350\n")
    assert any("1.211 or 1211" in q for q in asked(found))
    # the same numbers below English headings are what they look like
    assert of("F", taken("Story | Case | Force [kN]\nL2 | EX | 1.211\nL1 | EX | 1.350\n"))["L2"] == 1.211


def test_seconds_are_offered_first_for_a_period_of_six_tenths() -> None:
    text = "Mode\tPeriod\n1\t0,600\n2\t0,210\n"
    problem = read_in(read_text(text), "modes.tsv", EarlierTables()).problems[0]
    assert [c.label for c in problem.choices] == ["s", "ms"]


def test_of_two_rows_the_larger_is_offered_first() -> None:
    text = "Story\tCase\tForce (kN)\nL2\tEX\t120\nL1\tEX\t60\nL2\tEX\t140\nL3\tEX\t150\nL4\tEX\t160\n"
    table = read_in(read_text(text), "forces.tsv", EarlierTables(building=Building(["L1", "L2", "L3", "L4"])))
    (problem,) = table.problems
    assert [c.label for c in problem.choices] == ["use row 4", "use row 2"]
    assert problem.choices[0].sets == {"left_out": [1]}
    # neither of the two is read before
    assert sorted(c.story or "" for c in table.claims) == ["L1", "L3", "L4"]


def test_a_table_of_no_known_kind_is_asked_about_once_with_the_likeliest_kind_first() -> None:
    table = read_in(read_text("Nodal\tMovement\tThing\nA\t1\t2\nB\t3\t4\n"), "x.tsv", EarlierTables())
    (problem,) = table.problems
    assert "what this table is" in problem.message
    assert {c.sets["kind"] for c in problem.choices} == table_kinds().keys()


@pytest.mark.parametrize(
    ("text", "key", "expected"),
    [
        # weights without heights, of the stories of the brief
        ("Floor | Seismic weight (kN)\nL2 | 4800\nL1 | 5100\n", ("w", "L1", "", ""), 5100.0),
        # an axis in brackets is no unit
        ("Story | Ax (X) | Ax (Y)\nL2 | 1.0 | 1.2\nL1 | 1.0 | 1.1\n", ("A_x", "L2", "Y", ""), 1.2),
        # the side of the mass belongs to the name of the case
        (
            "Level | EX+ drift (%) | EX- drift (%)\nL2 | 0.42 | 0.39\nL1 | 0.28 | 0.26\n",
            ("drift_single", "L2", "X", "EX-"),
            0.0039 * 3.6,
        ),
        # parameters below a blank heading
        (
            "Base shear summary\n | X | Y\nStatic base shear (kN) | 812 | 790\nScale factor | 1.25 | 1.234\n",
            ("V_static", "", "Y", ""),
            790.0,
        ),
        (
            "Mode no. | T [s] | Meff X [%] | Meff Y [%]\n1 | 1.2 | 71 | 0.1\n2 | 1.0 | 0.1 | 73\n",
            ("mass_ratio", "2", "Y", ""),
            0.73,
        ),
        (
            "Interstorey drift index, EX (x 10^-3)\nStorey | Max | Average\nL2 | 4.2 | 3.6\nL1 | 2.8 | 2.4\n",
            ("drift_max", "L2", "X", "EX"),
            0.0042 * 3.6,
        ),
        ("Item | Value\nDamping ratio | 5 %\n", ("damping", "", "", ""), 0.05),
        # a symbol of one letter is what its unit can be of: M in kNm is no mass
        (
            "Story forces, EX\nLevel | F (kN) | V (kN) | M (kNm)\nL2 | 120 | 720 | 3420\nL1 | 40 | 760 | 6012\n",
            ("M_story", "L1", "X", "EX"),
            6012.0,
        ),
    ],
)
def test_what_is_read_in_other_words(text: str, key: tuple[str, str, str, str], expected: float) -> None:
    found = taken(text)
    assert values(found)[key] == pytest.approx(expected)
    assert asked(found) == []


def test_coordinates_of_the_centre_of_mass_are_no_displacements() -> None:
    found = taken("Displacements, case EX\nStory | CM X (m) | CM Y (m)\nL4 | 15.1 | 10.0\nL3 | 15.1 | 10.0\n")
    assert values(found) == {}
    assert asked(found) != []
    plain = taken("Story | CM X (m) | CM Y (m)\nL4 | 15.1 | 10.0\nL3 | 15.1 | 10.0\n")
    assert values(plain)["x_m", "L4", "X", ""] == 15.1


def test_one_over_a_number_is_no_name_of_a_case() -> None:
    found = taken("Storey drift\nStorey | Drift ratio 1/x\nL2 | 1/285\nL1 | 1/250\n")
    assert values(found) == {}
    assert asked(found) != []


def test_coordinates_beside_drifts_are_no_reactions_and_no_shapes() -> None:
    head = "Story | Case | Direction | Drift | X | Y | Z\n"
    text = head + "L4 | EX | X | 0.0035 | 0 | 20 | 15\nL3 | EX | X | 0.004 | 0 | 20 | 11.4\n"
    found = taken(text)
    assert {t.kind for t in found.tables if t.values} <= {"drifts"}
    assert any("unit of drift is missing" in q for q in asked(found))


def test_a_table_of_which_nothing_is_read_is_asked_about() -> None:
    found = taken("Torsion check\nStory | dmax (mm) | davg (mm)\nL2 | 14 | 11\nL1 | 10 | 8\n")
    assert values(found) == {}
    assert any("drift or a displacement" in q for q in asked(found))


@pytest.mark.parametrize(
    ("text", "key", "expected"),
    [
        (
            "Table 5.2 - Story drift ratios (EX)\nStory | Drift\nL2 | 0.35 %\nL1 | 0.40 %\n",
            ("drift_single", "L1", "X", "EX"),
            0.0168,
        ),
        (
            "Mode | Period sec | Share X | Share Y\n1 | 1.2 | 0.71 | 0.001\n2 | 1.0 | 0.001 | 0.73\n",
            ("T_mode", "2", "", ""),
            1.0,
        ),
        (
            "Mode | Period (s) | X-translation % | Y-translation %\n1 | 1.2 | 71 | 0.1\n2 | 1.0 | 0.1 | 73\n",
            ("mass_ratio", "1", "X", ""),
            0.71,
        ),
        ("Mode | T (s)\n1 | 1.2\n2 | 1.0\n\nPrepared by AB | Checked by CD\n", ("T_mode", "1", "", ""), 1.2),
        ("Fundamental period X | 1.20 s\nFundamental period Y | 1.00 s\n", ("T", "", "Y", ""), 1.0),
    ],
)
def test_what_is_read_of_reports(text: str, key: tuple[str, str, str, str], expected: float) -> None:
    found = taken(text)
    assert values(found)[key] == pytest.approx(expected)
    assert asked(found) == []


def test_a_note_about_what_is_not_in_a_table_is_no_title() -> None:
    text = "Story drifts, case EX\nStory | Drift end 1 (mm) | Drift end 2 (mm)\nL3 | 12.5 | 11\nL2 | 13.0 | 12\n"
    assert asked(taken(text + "Wind is not included.\n")) == []


def test_a_doubt_that_is_settled_is_not_asked_again() -> None:
    text = (
        "Story drifts from wind, case EX\nStory | Drift end 1 (mm) | Drift end 2 (mm)\nL3 | 12.5 | 11\nL2 | 13.0 | 12\n"
    )
    answers = {"tables": [{"file": "table 1.tsv", "confirmed": ["another action"]}]}
    assert len(values(taken(text, answers=answers))) == 4


def test_depths_below_the_top_are_no_heights() -> None:
    rows = "L4 | 3.6 | 5000\nL3 | 7.2 | 5000\nL2 | 10.8 | 5000\nL1 | 15 | 5000\n"
    found = taken(f"Story | Height (m) | Weight (kN)\n{rows}", brief={"edition": "asce7-16", "stories": []})
    assert any("depths below the top" in q for q in asked(found))
    assert of("h", found) == {}


@pytest.mark.parametrize(
    ("heading", "numbers", "words"),
    [("Period (s)", (0.8, 1.0, 1.2), "periods grow"), ("Frequency (Hz)", (1.2, 1.0, 0.8), "frequencies fall")],
)
def test_periods_that_grow_are_asked_about(heading: str, numbers: tuple[float, ...], words: str) -> None:
    rows = "".join(f"{i} | {value}\n" for i, value in enumerate(numbers, 1))
    found = taken(f"Mode | {heading}\n{rows}")
    assert any(words in q for q in asked(found))
    assert values(found) == {}
    assert asked(taken(f"Mode | {heading}\n" + "".join(f"{i} | {v}\n" for i, v in enumerate(numbers[::-1], 1)))) == []


def test_a_coefficient_of_four_is_one_in_percent_or_an_error() -> None:
    found = taken("Item | X\nC_s | 4.1\n")
    assert values(found) == {}
    assert any("410 %" in q for q in asked(found))
    assert values(taken("Item | X\nC_s | 4.1 %\n"))["C_s", "", "X", ""] == pytest.approx(0.041)


def test_notes_over_a_table_do_not_make_it_a_log() -> None:
    found = taken("Warning: draft,,\nNote: forces are in kN,,\nStory,Case,Force (kN)\nL2,EX,120\nL1,EX,60\n")
    assert of("F", found) == {"L2": 120.0, "L1": 60.0}


@pytest.mark.parametrize(
    "text",
    [
        "12:01:03 Reading model\n12:01:09 WARNING 104: members 12 and 14 overlap\n12:02:00 24 modes found\n",
        "WARNING: joint 12 is not connected\n",
        "*** ERROR: matrix is singular at node 14 RZ ***\n*** analysis stopped ***\n",
        "Number of modes found = 24\nNumber of equations = 1204\nWarnings = 2\n",
        "Eigenvalue analysis\n mode 1  T = 1.20 s\nconverged after 6 iterations\n",
        "warning; node 14 has no stiffness\nwarning; member 3 has no mass\n",
    ],
)
def test_lines_of_a_log_are_read_whole(text: str) -> None:
    found = taken(text)
    assert [t.kind for t in found.tables] == ["log"]
    assert [c.value for c in found.document.submission.claims] == [line.strip() for line in text.strip().split("\n")]


def test_equations_of_parameters_are_no_log() -> None:
    found = taken("T_a X = 0.62 s\nC_s X = 0.041\n")
    assert values(found) == {("T_a", "", "X", ""): 0.62, ("C_s", "", "X", ""): 0.041}


def test_a_single_drift_is_compared_with_the_limit_and_says_nothing_about_the_ends() -> None:
    system = {d: {"R": 8.0, "C_d": 5.5, "Omega_0": 3.0} for d in "XY"}
    site = {"S_S": 0.9, "S_1": 0.35, "site_class": "C"}
    brief = {**BRIEF, "site": site, "occupancy": {"risk_category": "II"}, "system": system}
    cases = "Case | Kind | Direction | Level\nEX | static | X | reduced\n"
    drifts = "Case | Story | Drift X [mm]\nEX | L4 | 5\nEX | L3 | 6\nEX | L2 | 30\nEX | L1 | 5\n"
    document = taken(cases, drifts, brief=brief).document.model_dump(mode="json", exclude_none=True)
    checks = {c["id"]: c for c in recheck(document)["checks"]}
    # 30 mm by C_d = 5.5 over 3.6 m, against 2 %
    over = checks["drift_drift_ratio.X.L2"]
    assert over["verdict"] == "breaches"
    assert over["theirs"]["value"] == pytest.approx(0.030 * 5.5 / 3.6, rel=1e-4)
    assert "at a place that is not stated" in over["note"]
    assert [checks[f"drift_drift_ratio.X.L{i}"]["verdict"] for i in (1, 3, 4)] == ["agrees"] * 3
    assert not [c for c in checks.values() if c["quantity"] in ("torsion_ratio", "A_x") and c["verdict"] != "gap"]


def test_an_answer_for_a_kind_does_not_change_how_another_table_writes_its_numbers() -> None:
    clear = "Story | Case | Force (kN) | Shear (kN)\nL2 | EX | 1,210.5 | 1,210.5\nL1 | EX | 900.25 | 2,110.75\n"
    unclear = "Story | Case | Force (kN)\nL2 | EY | 1,210\nL1 | EY | 1,900\n"
    found = values(taken(clear, unclear, answers={"tables": {"forces": {"numbers": "comma"}}}))
    assert found["F", "L2", "X", "EX"] == 1210.5
    assert found["F", "L2", "Y", "EY"] == 1.21


@pytest.mark.parametrize("heading", ["Factors", "Load case factors", "Terms", "Case factors"])
def test_terms_of_combinations_under_any_heading(heading: str) -> None:
    text = f"Combination;{heading}\nC1;1.2 D + 1.0 L + 1.0 EX\nC2;0.9 D - 1.0 EX\n"
    result = read_submission(read(Brief, BRIEF), [("combinations.csv", text.encode())], read_answers({}))
    assert [t.questions for t in result.tables] == [[]]
    assert {c.case: c.value for c in result.document.submission.claims} == {
        "C1": "1.2 D + 1.0 L + 1.0 EX",
        "C2": "0.9 D - 1.0 EX",
    }


@pytest.mark.parametrize(
    ("heights", "asked"),
    [
        # levels of a low building; two stories of which the upper one would be twice as high
        ((4.0, 7.6, 11.2), True),
        ((4.0, 8.0), True),
        # story heights
        ((4.0, 3.6, 3.6), False),
        ((3.2, 3.6, 4.0), False),
        ((3.6, 4.8), False),
    ],
)
@pytest.mark.parametrize("heading", ["hi (m)", "Height (m)"])
def test_levels_of_a_low_building_are_not_taken_for_heights(
    heading: str, heights: tuple[float, ...], asked: bool
) -> None:
    rows = "".join(f"L{i};{h};1000\n" for i, h in reversed(list(enumerate(heights, 1))))
    brief = {k: v for k, v in BRIEF.items() if k != "stories"}
    text = f"Story;{heading};Weight (kN)\n{rows}"
    result = read_submission(read(Brief, brief), [("stories.csv", text.encode())], read_answers({}))
    questions = [q.message for t in result.tables for q in t.questions]
    assert any("levels above the base" in q for q in questions) is asked
    read_ones = [c for c in result.document.submission.claims if c.quantity == "h"]
    assert len(read_ones) == (0 if asked else len(heights))
