"""ASCE/SEI 7-10, chapters 11 and 12."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from plumb_core.editions import asce7_16
from plumb_core.editions.asce7_10 import ground, lateral, modal, spectrum
from plumb_core.editions.asce7_16 import deformation, systems, weight
from plumb_core.rules import Rule, rule_set

_BASE = rule_set(
    *ground.RULES, *spectrum.RULES, *lateral.RULES, *systems.RULES, *weight.RULES, *modal.RULES, *deformation.RULES
)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set; of the choices only `category_by_S_DS_alone` (11.6) is this edition's."""
    if choices.get("category_by_S_DS_alone", False):
        return _BASE | rule_set(asce7_16.ground.design_category_by_S_DS_alone)
    return _BASE


EDITION = replace(
    asce7_16.EDITION,
    id="asce7-10",
    title="ASCE/SEI 7-10",
    year=2010,
    rules=rules,
    inputs=tuple(n for n in asce7_16.INPUTS if n != "velocity_measured"),
    choices=("category_by_S_DS_alone", "wall_heights"),
    aspects=asce7_16.ASPECTS | {"soil": {"F_a": 1.0, "F_v": 1.0}},
)
