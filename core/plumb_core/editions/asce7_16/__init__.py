"""ASCE/SEI 7-16, ground motion, design spectrum and static lateral force (chapters 11 and 12).

Supplements 1 and 3 are a declared choice of the brief (`site.supplements`, both by default).  A supplement replaces
rules; it is no condition inside them.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from plumb_core.editions.asce7_16 import ground, lateral, spectrum
from plumb_core.editions.asce7_16.tables import STRUCTURE_TYPES
from plumb_core.rules import Rule, rule_set

ID = "asce7-16"
TITLE = "ASCE/SEI 7-16"
YEAR = 2016
PERIOD_TYPES = STRUCTURE_TYPES
CHOICES = ("supplements", "velocity_measured", "category_by_S_DS_alone")
"""What the brief can declare for this edition beside its inputs."""

GROUND_KEYS = (
    "F_a",
    "F_v",
    "S_MS",
    "S_M1",
    "S_DS",
    "S_D1",
    "T_0",
    "T_S",
    "I_e",
    "design_category",
    "site_specific_required",
)
"""What the request kind `ground` reports, in the edition's own symbols."""

ASKED_FOR = (
    "risk_category",
    "site_class",
    "S_S",
    "S_1",
    "F_a",
    "F_v",
    "S_DS",
    "S_D1",
    "design_category",
    "I_e",
    "R",
    "T_a",
    "T",
    "C_s",
    "W",
    "V",
    "F",
)
"""What a submission has to state for this edition's static method to be followed; what is absent is a gap.
(11.4.2 to 11.6, 12.2.1, 12.7.2, 12.8.1 to 12.8.3)"""

_BASE = rule_set(*ground.RULES, *spectrum.RULES, *lateral.RULES)

_BY_SUPPLEMENTS: dict[tuple[int, ...], dict[str, Rule]] = {
    (1, 3): _BASE,
    (1,): _BASE | rule_set(ground.S_M1_as_printed, lateral.C_s_upper_as_printed),
    (): _BASE | rule_set(ground.F_v_as_printed, ground.S_M1_as_printed, lateral.C_s_upper_as_printed),
}


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set under the declared choices.

    choices : `supplements`, [], [1] or [1, 3] (3 builds on 1); `category_by_S_DS_alone`, whether 11.6 permits (and the brief takes)
        the design category from Table 11.6-1 alone.
    """
    chosen = _BY_SUPPLEMENTS[tuple(choices.get("supplements", (1, 3)))]
    if choices.get("category_by_S_DS_alone", False):
        chosen = chosen | rule_set(ground.design_category_by_S_DS_alone)
    return chosen


LIMITS = {"T": ("T_limit", "max"), "C_s": ("C_s_lower", "min")}
"""Code limits on submitted values: quantity -> (quantity of the limit, which side), 12.8.2 and 12.8.1.1."""

SUMS = {"F": "V"}
"""Story quantities whose submitted values must add up to another submitted value (12.8.3)."""
