"""The resolver."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import pytest
from plumb_core.editions import EDITIONS
from plumb_core.errors import MissingInput
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Evaluation, Governed, Key, bounded, rule, rule_set, written


@rule(clause="a", tex=r"\q{S_DS} = 2\,\q{S_S}")
def S_DS(S_S: float) -> float:
    return 2 * S_S


@rule(clause="b")
def V(S_DS: float, R: float) -> float:
    return S_DS / R


@rule(clause="c")
def W(V: Mapping[str, float]) -> float:
    return sum(V.values())


@rule(clause="d")
def k(R: float, rho: float = 10.0) -> float:
    return R + rho


RULES = rule_set(S_DS, V, W, k)
INPUTS: dict[Any, Any] = {Key("S_S"): 3.0, Key("R", "X"): 2.0, Key("R", "Y"): 3.0}


def test_scopes_directions_find_the_buildings_values_and_buildings_get_both_directions() -> None:
    evaluation = Evaluation(RULES, INPUTS)
    assert evaluation.value("V", "X") == 3.0
    assert evaluation.value("V", "Y") == 2.0
    assert evaluation.value("W") == 5.0


def test_pin_stands_before_input_and_rule() -> None:
    pinned = Evaluation(RULES, INPUTS, pins={Key("S_DS"): 12.0, Key("R", "X"): 4.0})
    assert pinned.value("V", "X") == 3.0
    assert pinned.step("S_DS").source == "pinned"
    assert pinned.unpinned(Key("S_DS")).value == 6.0


def test_every_evaluation_leaves_its_steps_inputs_first() -> None:
    evaluation = Evaluation(RULES, INPUTS)
    evaluation.value("V", "X")
    assert [s.key for s in evaluation.steps()] == [Key("S_S"), Key("S_DS"), Key("R", "X"), Key("V", "X")]
    assert evaluation.step("V", "X").inputs == (Key("S_DS"), Key("R", "X"))
    assert evaluation.step("V", "X").clause == "b"


def test_optional_inputs_may_be_absent_and_others_may_not() -> None:
    assert Evaluation(RULES, INPUTS).value("k", "X") == 12.0
    assert Evaluation(RULES, {**INPUTS, Key("rho", "X"): 1.0}).value("k", "X") == 3.0
    with pytest.raises(MissingInput) as missing:
        Evaluation(RULES, {Key("S_S"): 1.0}).value("V", "Y")
    assert (missing.value.name, missing.value.direction) == ("R", "Y")


def test_what_rests_on_adopted_inputs_is_marked() -> None:
    evaluation = Evaluation(RULES, INPUTS, adopted=frozenset({Key("R", "X")}))
    assert evaluation.step("V", "X").rests_on_adopted
    assert not evaluation.step("V", "Y").rests_on_adopted
    assert evaluation.step("W").rests_on_adopted


def test_a_rule_may_only_ask_for_what_is_in_the_vocabulary() -> None:
    with pytest.raises(NameError, match="nothing_like_it"):

        @rule(clause="x")
        def T(nothing_like_it: float) -> float:
            return nothing_like_it


def test_bounded_minimum_wins_over_maximum() -> None:
    base, upper, lower = Governed(0.2, "b"), Governed(0.1, "u"), Governed(0.15, "l")
    assert bounded(base).governed_by == "b"
    assert bounded(base, upper=upper).governed_by == "u"
    result = bounded(base, upper=upper, lower=lower)
    assert (result.value, result.governed_by) == (0.15, "l")
    # the nearest other candidate is 0.2 or 0.1, both 0.05 away: a third of 0.15
    assert result.margin == pytest.approx(1 / 3)


def test_tex_shows_symbols_or_numbers() -> None:
    assert written(S_DS.tex, lambda n: QUANTITIES[n].tex) == r"{S_{DS}} = 2\,{S_S}"


@pytest.mark.parametrize("edition", EDITIONS.values(), ids=lambda e: e.id)
def test_every_rule_cites_its_clause_and_documents_itself(edition: Any) -> None:
    for name, own in edition.rules({}).items():
        assert own.clause, name
        assert own.function.__doc__, name
