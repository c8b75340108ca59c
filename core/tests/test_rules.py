"""The resolver."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from plumb_core.briefs import brief_evaluation
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.editions import EDITIONS
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Evaluation, Governed, Key, bounded, rule, rule_set, written
from submissions import BRIEF


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


# Load cases


@rule(clause="e")
def torsion_ratio(drift_max: float, drift_avg: float) -> float:
    return drift_max / drift_avg


@rule(clause="f")
def A_x_case(torsion_ratio: float, rho: float, S_S: float) -> float:
    return torsion_ratio * rho + S_S


@rule(clause="g")
def A_x(A_x_case: Mapping[str, float]) -> float:
    return max(A_x_case.values())


@rule(clause="h")
def torsion_irregular(torsion_ratio: Mapping[str, float]) -> bool:
    return any(r > 1.2 for r in torsion_ratio.values())


OF_CASES = rule_set(torsion_ratio, A_x_case, A_x, torsion_irregular)
CASES = {"EX+": "X", "EX-": "X", "EY+": "Y", "gravity": None}
BY_CASE: dict[Any, Any] = {
    Key("drift_max", "X", "EX+"): 3.0,
    Key("drift_avg", "X", "EX+"): 2.0,
    Key("drift_max", "X", "EX-"): 5.0,
    Key("drift_avg", "X", "EX-"): 4.0,
    Key("drift_max", "Y", "EY+"): 1.0,
    Key("drift_avg", "Y", "EY+"): 1.0,
    Key("rho", "X"): 10.0,
    Key("rho", "Y"): 20.0,
    Key("S_S"): 0.5,
}


def test_a_cases_rule_looks_in_the_case_then_its_direction_then_the_building() -> None:
    evaluation = Evaluation(OF_CASES, BY_CASE, cases=CASES)
    # 3/2 x 10 + 0.5 of its own direction, 1 x 20 + 0.5 of the other
    assert evaluation.value("A_x_case", case="EX+") == 15.5
    assert evaluation.value("A_x_case", case="EY+") == 20.5
    assert evaluation.step("A_x_case", case="EX+").key == Key("A_x_case", "X", "EX+")


def test_a_directions_rule_gets_its_cases_and_the_buildings_all_that_have_it() -> None:
    evaluation = Evaluation(OF_CASES, BY_CASE, cases=CASES)
    assert evaluation.value("A_x", "X") == 15.5
    assert evaluation.value("A_x", "Y") == 20.5
    # the gravity case has no drifts and is excluded; 3/2 is more than 1.2
    assert evaluation.value("torsion_irregular") is True
    assert {k.case for k in evaluation.step("torsion_irregular").inputs} == {"EX+", "EX-", "EY+"}


def test_what_is_not_stated_of_a_case_holds_as_it_is_stated_of_its_direction() -> None:
    stated = {k: v for k, v in BY_CASE.items() if k != Key("drift_avg", "X", "EX-")}
    evaluation = Evaluation(OF_CASES, {**stated, Key("drift_avg", "X"): 2.5}, cases=CASES)
    assert evaluation.value("torsion_ratio", case="EX-") == 2.0
    with pytest.raises(MissingInput) as missing:
        Evaluation(OF_CASES, stated, cases=CASES).value("torsion_ratio", case="EX-")
    assert (missing.value.name, missing.value.direction, missing.value.case) == ("drift_avg", "X", "EX-")


# Assumptions


def test_an_assumption_shares_the_steps_that_it_cannot_reach() -> None:
    evaluation = Evaluation(RULES, INPUTS)
    for name, direction in (("V", "X"), ("V", "Y"), ("W", None)):
        evaluation.step(name, direction)
    other = evaluation.assuming(inputs={Key("R", "X"): 4.0})
    assert other.step("V", "Y") is evaluation.step("V", "Y")
    assert other.step("S_DS") is evaluation.step("S_DS")
    assert (other.value("V", "X"), other.value("W")) == (1.5, 3.5)
    # the first one is as it was
    assert (evaluation.value("V", "X"), evaluation.value("W")) == (3.0, 5.0)


def test_rules_pins_and_cases_are_assumed_as_inputs_are() -> None:
    evaluation = Evaluation(RULES, INPUTS)
    assert evaluation.value("W") == 5.0

    @rule(clause="slip", defines="S_DS")
    def S_DS_not_doubled(S_S: float) -> float:
        return S_S

    assert evaluation.assuming(rules={"S_DS": S_DS_not_doubled}).value("W") == 2.5
    assert evaluation.assuming(pins={Key("V", "X"): 10.0}).value("W") == 12.0
    without = evaluation.assuming(inputs={Key("R", "Y"): None})
    with pytest.raises(MissingInput):
        without.value("V", "Y")
    more = Evaluation(OF_CASES, BY_CASE, cases=CASES)
    assert more.value("torsion_irregular") is True
    drifts = {Key("drift_max", "Y", "EY-"): 9.0, Key("drift_avg", "Y", "EY-"): 1.0}
    assert more.assuming(inputs=drifts, cases={"EY-": "Y"}).value("A_x", "Y") == 180.5


def test_an_evaluation_cannot_be_changed() -> None:
    with pytest.raises(AttributeError):
        Evaluation(RULES, INPUTS).inputs = {}  # type: ignore[misc]


ASKED = ("S_DS", "design_category", "T_a", "T", "C_s", "V", "F", "M_story", "drift_limit", "scaling_share")
CHANGES = (
    ("S_S", None, st.floats(0.05, 3.0)),
    ("S_1", None, st.floats(0.02, 1.2)),
    ("site_class", None, st.sampled_from("ABCDE")),
    ("risk_category", None, st.sampled_from(["I", "II", "III", "IV"])),
    ("R", "X", st.floats(1.0, 10.0)),
    ("T_analysis", "Y", st.floats(0.1, 4.0)),
    ("rho", "X", st.sampled_from([1.0, 1.3])),
)


def values_of(evaluation: Evaluation) -> dict[Any, Any]:
    found: dict[Any, Any] = {}
    for name in ASKED:
        for direction in ("X", "Y"):
            try:
                value = evaluation.value(name, direction)
                found[name, direction] = value.tolist() if hasattr(value, "tolist") else value
            except (MissingInput, RuleRefused) as error:
                found[name, direction] = str(error)
    return found


@settings(deadline=None, max_examples=80)
@given(st.lists(st.sampled_from(range(len(CHANGES))), min_size=1, max_size=5), st.data())
def test_assuming_gives_what_an_evaluation_from_the_beginning_gives(chosen: list[int], data: st.DataObject) -> None:
    """The same values whether steps are shared or computed anew, one assumption upon the other."""
    own = brief_evaluation(read(Brief, BRIEF))
    values_of(own)
    inputs, shared = dict(own.inputs), own
    for index in chosen:
        name, direction, values = CHANGES[index]
        change = {Key(name, direction): data.draw(values)}
        inputs |= change
        shared = shared.assuming(inputs=change)
        assert values_of(shared) == values_of(Evaluation(own.rules, inputs))


# Defaults


def test_a_default_that_a_rule_takes_leaves_a_step_of_its_own() -> None:
    evaluation = Evaluation(RULES, INPUTS)
    assert evaluation.value("k", "X") == 12.0
    (assumed,) = [s for s in evaluation.steps() if s.source == "assumed"]
    assert (assumed.key, assumed.value) == (Key("rho", "X"), 10.0)
    assert Key("rho", "X") in evaluation.step("k", "X").inputs
    # it is no value that another rule could take
    with pytest.raises(MissingInput):
        evaluation.value("rho", "X")


def test_a_default_is_gone_where_the_value_is_given() -> None:
    evaluation = Evaluation(RULES, INPUTS)
    evaluation.value("k", "X")
    given = evaluation.assuming(inputs={Key("rho", "X"): 1.3})
    assert given.value("k", "X") == 3.3
    assert [s.source for s in given.steps() if s.key == Key("rho", "X")] == ["input"]


@pytest.mark.parametrize("edition", EDITIONS.values(), ids=lambda e: e.id)
def test_the_rules_of_an_edition_agree_on_what_they_assume(edition: Any) -> None:
    assumed: dict[str, set[Any]] = {}
    for own in edition.rules({}).values():
        for parameter in own.parameters:
            if parameter.optional and parameter.default not in (None, ""):
                assumed.setdefault(parameter.name, set()).add(parameter.default)
    assert {name: values for name, values in assumed.items() if len(values) > 1} == {}
