"""ASCE/SEI 7-10, chapters 11 and 12."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from plumb_core.editions import asce7_16
from plumb_core.editions.asce7_10 import deformation, ground, lateral, modal, site_specific, spectrum
from plumb_core.editions.asce7_16 import systems, weight
from plumb_core.rules import Rule, rule_set

_BASE = rule_set(
    *ground.RULES, *spectrum.RULES, *lateral.RULES, *systems.RULES, *weight.RULES, *modal.RULES, *deformation.RULES
)
PERMISSIONS = {
    "short_period_cap": "C_s with S_S at most 1.5 (12.8.1.3)",
    "category_by_S_DS_alone": "category by S_DS alone (11.6)",
    "category_A_by_map": "category A where S_S <= 0.15 and S_1 <= 0.04 (11.4.1)",
    "low_vertical_effect": "no vertical action where S_DS <= 0.125 (12.4.2.2)",
}


def permitted(choices: Mapping[str, Any]) -> tuple[Rule, ...]:
    """Rules that take a permission which the brief declares."""
    computed = tuple(
        rule
        for name, rule in (
            ("short_period_cap", lateral.S_DS_capped),
            ("low_vertical_effect", lateral.load_combinations_low),
        )
        if choices.get(name, False)
    )
    same = {name: choices.get(name) for name in ("category_by_S_DS_alone", "category_A_by_map")}
    return (*asce7_16.permitted(same), *computed)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set; `site_specific`, values of a study, and the permissions of `PERMISSIONS` are its choices."""
    return _BASE | rule_set(*site_specific.declared(choices), *permitted(choices))


EDITION = replace(
    asce7_16.EDITION,
    id="asce7-10",
    title="ASCE/SEI 7-10",
    short="ASCE 7-10",
    year=2010,
    rank=20,
    rules=rules,
    inputs=tuple(n for n in asce7_16.INPUTS if n != "velocity_measured"),
    parts=("wall_heights",),
    choices={},
    permissions=PERMISSIONS,
    aspects=asce7_16.ASPECTS | {"soil": {"F_a": 1.0, "F_v": 1.0}},
)
