"""ASCE/SEI 7-10, ground motion, design spectrum and static lateral force (chapters 11 and 12)."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from plumb_core.editions import asce7_16
from plumb_core.editions.asce7_10 import ground, lateral, spectrum
from plumb_core.editions.asce7_16.tables import STRUCTURE_TYPES
from plumb_core.rules import Rule, rule_set

ID = "asce7-10"
TITLE = "ASCE/SEI 7-10"
YEAR = 2010
PERIOD_TYPES = STRUCTURE_TYPES
GROUND_KEYS = asce7_16.GROUND_KEYS
ASKED_FOR = asce7_16.ASKED_FOR
LIMITS = asce7_16.LIMITS
SUMS = asce7_16.SUMS
CHOICES = ("category_by_S_DS_alone", "wall_heights")

_BASE = rule_set(*ground.RULES, *spectrum.RULES, *lateral.RULES)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set; of the choices only `category_by_S_DS_alone` (11.6) is this edition's."""
    if choices.get("category_by_S_DS_alone", False):
        return _BASE | rule_set(asce7_16.ground.design_category_by_S_DS_alone)
    return _BASE
