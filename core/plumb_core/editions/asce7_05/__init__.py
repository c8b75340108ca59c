"""ASCE/SEI 7-05 with Supplement 2, ground motion, design spectrum and static lateral force (chapters 11 and 12)."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from plumb_core.editions import asce7_10, asce7_16
from plumb_core.editions.asce7_05 import lateral
from plumb_core.editions.asce7_10 import ground, spectrum
from plumb_core.rules import Rule, cited, rule_set

ID = "asce7-05"
TITLE = "ASCE/SEI 7-05 with Supplement 2"
YEAR = 2005
# buckling-restrained braced frames have no row of their own in this edition's Table 12.8-2
PERIOD_TYPES = tuple(t for t in asce7_10.PERIOD_TYPES if t != "steel_brbf")
GROUND_KEYS = asce7_16.GROUND_KEYS
ASKED_FOR = asce7_16.ASKED_FOR
LIMITS = asce7_16.LIMITS
SUMS = asce7_16.SUMS
CHOICES = asce7_10.CHOICES

_BASE = rule_set(
    *ground.RULES, cited(asce7_16.ground.I_e, "Table 11.5-1, by occupancy category"), *spectrum.RULES, *lateral.RULES
)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set; of the choices only `category_by_S_DS_alone` (11.6) is this edition's."""
    if choices.get("category_by_S_DS_alone", False):
        return _BASE | rule_set(asce7_16.ground.design_category_by_S_DS_alone)
    return _BASE
