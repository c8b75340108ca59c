"""Drafts of remarks: what was given, what we find, what is asked."""

from __future__ import annotations

from typing import Any

import pytest
from plumb_core.checks.recheck import recheck
from plumb_core.checks.wording import figures
from submissions import document, own_claims
from test_recheck import by_id, change


def draft(brief: dict[str, Any], claims: list[dict[str, Any]], check: str) -> str:
    return str(by_id(recheck(document(brief, claims)))[check]["draft"])


def test_a_value_that_differs_is_told_with_clause_and_size(brief: dict[str, Any]) -> None:
    text = draft(brief, change(own_claims(brief), "F_v", 1.68), "F_v")
    # 1.68/1.94 = 0.86598
    assert text == (
        "Long-period site coefficient F_v is submitted as 1.68. According to ASCE/SEI 7-16, Table 11.4-2, 11.4.3, we "
        "compute 1.94 from S_1 = 0.36 g, site class used D (your upstream values); the submitted value is 13.4 % too "
        "low. Please correct the value, or state its basis."
    )


def test_an_input_is_told_without_speaking_of_upstream_values(brief: dict[str, Any]) -> None:
    text = draft(brief, change(own_claims(brief), "R", 8.0, direction="X"), "R.X")
    assert text == (
        "Response modification factor R in X is submitted as 8.0. The review is based on 6; the submitted value is "
        "33.3 % too high. Please correct the value, or state its basis."
    )


def test_the_unit_that_it_was_written_in_is_named(brief: dict[str, Any]) -> None:
    claims = own_claims(brief)
    for claim in claims:
        if claim["quantity"] == "w" and claim["story"] == "L5":
            claim |= {"value": 569.0, "text": "569.0", "unit": "kN"}
    text = draft(brief, claims, "w.L5")
    assert text.startswith(
        "Seismic weight of the story w at L5 is submitted as 569.0 kN. The review is based on 5600 kN;"
    )


def test_a_breach_names_the_limit(brief: dict[str, Any]) -> None:
    text = draft(brief, change(own_claims(brief), "T", 1.31, direction="X"), "T.X")
    # 1.4 x 0.0488 x 32.1^0.75 = 0.9214
    assert "It exceeds the upper limit of 0.9214 s (12.8.2)." in text
    low = draft(brief, change(own_claims(brief), "C_s", 0.03, direction="X"), "C_s.X")
    assert "It is below the minimum of 0.04488 (12.8.1.1, Eq. 12.8-5 and 12.8-6)." in low


def test_what_is_inherited_says_from_where(brief: dict[str, Any]) -> None:
    claims = change(change(own_claims(brief), "S_DS", 0.9), "T_S", round(0.6984 / 0.9, 4))
    assert draft(brief, claims, "T_S").endswith(
        "The deviation results from S_DS. Please update the value when this is corrected."
    )


def test_a_gap_asks_for_the_value(brief: dict[str, Any]) -> None:
    claims = [c for c in own_claims(brief) if c["quantity"] != "design_category"]
    assert draft(brief, claims, "gap_design_category") == (
        "The seismic design category: not in the submission; ours is D. It is required by ASCE/SEI 7-16, 11.6, "
        "Tables 11.6-1 and 11.6-2. Please provide it with its basis."
    )


def test_a_sum_that_does_not_close_gives_both_sides(brief: dict[str, Any]) -> None:
    text = draft(brief, change(own_claims(brief), "F", 999.0, direction="X", story="L3"), "sum_F.X")
    assert text.startswith("ΣF_x = V X: the submitted story values add up to")
    assert text.endswith(" kN. Please reconcile them.")


def test_what_agrees_needs_no_remark(brief: dict[str, Any]) -> None:
    assert draft(brief, own_claims(brief), "V.X") == ""


@pytest.mark.parametrize(
    ("value", "text"),
    [
        (1.94, "1.94"),
        (0.0044882, "0.004488"),
        (115388.6, "115389"),
        (4982.6, "4983"),
        (0.00001234, "0.000012"),
        ("D", "D"),
    ],
)
def test_figures_have_four_digits_and_no_exponents(value: float | str, text: str) -> None:
    assert figures(value) == text


def test_a_remark_names_the_place_in_the_exhibit(brief: dict[str, Any]) -> None:
    claims = own_claims(brief)
    for claim in claims:
        if claim["quantity"] == "R" and claim["direction"] == "X":
            source = {"file": "parameters.xlsx", "sheet": "Seismic", "row": 7, "column": "C"}
            claim |= {"value": 8.0, "text": "8.0", "source": source}
    assert "is submitted as 8.0 (parameters.xlsx, Seismic, row 7, column C)." in draft(brief, claims, "R.X")
