"""ASCE/SEI 7-05 with Supplement 2, chapters 11 and 12."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from plumb_core.editions import asce7_10, asce7_16
from plumb_core.editions.asce7_05 import deformation, lateral, modal, systems, weight
from plumb_core.editions.asce7_10 import ground, site_specific, spectrum
from plumb_core.rules import Rule, cited, rule_set

_BASE = rule_set(
    *ground.RULES,
    cited(asce7_16.ground.I_e, "Table 11.5-1, by occupancy category"),
    *spectrum.RULES,
    *lateral.RULES,
    *systems.RULES,
    *weight.RULES,
    *modal.RULES,
    *deformation.RULES,
)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set; `site_specific`, values of a study.

    The permissions of `asce7_10.PERMISSIONS` are its choices.
    """
    computed = (lateral.load_combinations_low,) if choices.get("low_vertical_effect", False) else ()
    return _BASE | rule_set(*site_specific.declared(choices), *asce7_10.permitted(choices), *computed)


EDITION = replace(
    asce7_10.EDITION,
    id="asce7-05",
    title="ASCE/SEI 7-05 with Supplement 2",
    short="ASCE 7-05",
    year=2005,
    rank=10,
    rules=rules,
    # buckling-restrained braced frames have no row of their own in this edition's Table 12.8-2
    period_types=tuple(t for t in asce7_10.EDITION.period_types if t != "steel_brbf"),
    systems=systems.SYSTEMS,
    overstrength=("12.4.3.2",),
)
