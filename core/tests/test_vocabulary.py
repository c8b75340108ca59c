"""The vocabulary and the units: every quantity once, every unit right."""

from __future__ import annotations

import json
from typing import Any, get_args

import pytest
from plumb_core.cli import schema
from plumb_core.documents.brief import Brief, DirectionSystem, IrregularityType
from plumb_core.documents.reading import read
from plumb_core.editions import EDITIONS
from plumb_core.editions.levels import rules_of_levels
from plumb_core.editions.shared import TYPES
from plumb_core.errors import InputRefused
from plumb_core.inputs import OF_BUILDING, path_of
from plumb_core.intake.cells import UNITS, factor, known_unit
from plumb_core.intake.names import parameter_names
from plumb_core.intake.tables import table_kinds
from plumb_core.quantities import QUANTITIES, Kind, Scope
from plumb_core.rules import Key

# kN, m, s and g in terms of the definitions: 1 lb = 0.45359237 kg, 1 ft = 0.3048 m, g = 9.80665 m/s2
POUND_FORCE = 0.45359237 * 9.80665


@pytest.mark.parametrize(
    ("unit", "core_unit", "expected"),
    [
        ("kip", "kN", POUND_FORCE),
        ("lbf", "kN", POUND_FORCE / 1000),
        ("tf", "kN", 9.80665),
        ("kgf", "kN", 0.00980665),
        ("MN", "kN", 1000.0),
        ("ft", "m", 0.3048),
        ("in", "m", 0.0254),
        ("kip ft", "kN*m", POUND_FORCE * 0.3048),
        ("tf m", "kN*m", 9.80665),
        ("m/s2", "g", 1 / 9.80665),
        ("cm/s2", "g", 0.01 / 9.80665),
        ("ft/s2", "g", 0.3048 / 9.80665),
        ("in/s2", "g", 0.0254 / 9.80665),
        ("%g", "g", 0.01),
        ("ms", "s", 0.001),
        ("ft2", "m^2", 0.3048**2),
        ("%", "", 0.01),
    ],
)
def test_units_by_their_definitions(unit: str, core_unit: str, expected: float) -> None:
    assert factor(unit, core_unit) == pytest.approx(expected, rel=1e-12)


def test_one_g_is_the_standard_acceleration() -> None:
    assert 1 / factor("m/s2", "g") == pytest.approx(9.80665, rel=1e-12)


@pytest.mark.parametrize(
    ("text", "core_unit", "label"),
    [
        ("[kN]", "kN", "kN"),
        ("KIPS", "kN", "kip"),
        ("k", "kN", "kip"),
        ("Sec", "s", "s"),
        ("kN-m", "kN*m", "kN m"),
        ("feet", "m", "ft"),
        ("m/s^2", "g", "m/s2"),
        ("gal", "g", "cm/s2"),
        ("% g", "g", "%g"),
        ("mn", "kN", "MN"),
        ("t", "kN", None),
        ("kg", "kN", None),
        ("kN", "m", None),
    ],
)
def test_units_as_people_write_them(text: str, core_unit: str, label: str | None) -> None:
    assert known_unit(text, core_unit) == label


def test_every_compared_number_has_units_to_be_written_in() -> None:
    for quantity in QUANTITIES.values():
        if quantity.checked and quantity.kind is not Kind.TEXT:
            assert quantity.unit in UNITS, quantity.name


def test_symbols_tell_quantities_apart() -> None:
    shown = [q.symbol for q in QUANTITIES.values() if q.checked]
    assert len(set(shown)) == len(shown)


def test_tables_and_names_refer_to_the_vocabulary() -> None:
    assert set(parameter_names().values()) <= QUANTITIES.keys()
    for kind in table_kinds().values():
        stated = [c for c in kind.columns if c.quantity]
        assert {c.quantity for c in stated} <= QUANTITIES.keys()
        # drifts are lengths, ratios or in percent
        units = [(c.name, (c.unit or "").removesuffix(" or share")) for c in stated]
        assert units == [(c.name, QUANTITIES[c.quantity].unit) for c in stated]


@pytest.mark.parametrize("edition", EDITIONS.values(), ids=lambda e: e.id)
def test_an_edition_asks_limits_and_sums_only_what_it_knows(edition: Any) -> None:
    rules = edition.rules({})
    for quantity, (limit, side) in edition.limits.items():
        assert {quantity, limit} <= rules.keys()
        assert side in ("max", "min")
    for part, total in edition.sums.items():
        assert QUANTITIES[part].kind is Kind.STORIES
        assert QUANTITIES[part].unit == QUANTITIES[total].unit
        assert QUANTITIES[total].scope is Scope.DIRECTION


@pytest.mark.parametrize("edition", EDITIONS.values(), ids=lambda e: e.id)
def test_every_rule_finds_what_it_needs_among_rules_and_inputs(edition: Any) -> None:
    rules = edition.rules({})
    # a copy: the rules of an edition are shared
    rules = {**rules, **rules_of_levels(rules)}
    inputs = {q.name for q in QUANTITIES.values() if q.part}
    for rule in rules.values():
        assert {p.name for p in rule.parameters} <= rules.keys() | inputs, rule.name


def test_places_in_a_request_are_where_its_schema_has_them() -> None:
    """A problem's path has to lead to a key that exists."""
    definitions = schema("request")["$defs"]
    parts = {"site": "Site", "occupancy": "Occupancy", "system": "DirectionSystem"}
    for quantity in QUANTITIES.values():
        if quantity.part in parts and quantity.name not in (*OF_BUILDING, "curve"):
            assert quantity.name in definitions[parts[quantity.part]]["properties"], quantity.name
    assert {*OF_BUILDING} <= definitions["System"]["properties"].keys()
    assert path_of(Key("R", "X")) == "/system/X/R"
    assert path_of(Key("S_S")) == "/site/S_S"
    assert path_of(Key("T_analysis", "Y")) == "/period/Y/analysis"


def test_a_brief_reads_back_as_it_was_written() -> None:
    brief = read(
        Brief,
        {"edition": "asce7-16", "site": {"S_S": 1, "supplements": [3, 1]}, "stories": [{"name": "L1", "height": 4}]},
    )
    again = read(Brief, json.loads(brief.model_dump_json()))
    assert again == brief
    assert brief.site.supplements == [1, 3]


@pytest.mark.parametrize("supplements", [[3], [2], [1, 2, 3]])
def test_only_supplements_that_build_up_can_be_declared(supplements: list[int], brief: dict[str, Any]) -> None:
    brief["site"]["supplements"] = supplements
    with pytest.raises(InputRefused) as refused:
        read(Brief, brief)
    (problem,) = refused.value.problems
    assert (problem.path, problem.remedy) == ("/site/supplements", "Give [1, 3] or [1] or [].")


@pytest.mark.parametrize("edition", ["ubc97", "en1998-1"])
def test_corrections_of_another_edition_are_foreign_unless_they_stand_anyhow(edition: str) -> None:
    stories = [{"name": "L1", "height": 4}]
    read(Brief, {"edition": edition, "site": {"supplements": [1, 3], "amendments": []}, "stories": stories})
    with pytest.raises(InputRefused, match="not a site value"):
        read(Brief, {"edition": edition, "site": {"supplements": [1]}, "stories": stories})


def test_what_is_declared_reaches_the_evaluation_at_the_scope_of_its_quantity() -> None:
    # a fact of the whole building under a quantity of each direction is read by nobody, and the other way round
    assert {n for n in OF_BUILDING if QUANTITIES[n].scope is not Scope.BUILDING} == set()
    of_direction = {n for n in DirectionSystem.model_fields if n in QUANTITIES}
    assert {n for n in of_direction if QUANTITIES[n].scope is Scope.BUILDING} == set()


def test_types_of_irregularity_are_the_same_in_a_brief_and_in_the_rules() -> None:
    assert get_args(IrregularityType) == TYPES
