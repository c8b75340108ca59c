"""ASCE/SEI 7-22, chapters 11 and 12: values per site class, multi-period spectrum where it is given."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from plumb_core.editions import asce7_16
from plumb_core.editions.asce7_22 import deformation, ground, lateral, modal, site_specific, spectrum, systems, weight
from plumb_core.rules import Rule, rule_set

_TWO_PERIOD = rule_set(
    *ground.RULES, *spectrum.TWO_PERIOD, *lateral.RULES, *systems.RULES, *weight.RULES, *modal.RULES, *deformation.RULES
)
_MULTI_PERIOD = _TWO_PERIOD | rule_set(*spectrum.MULTI_PERIOD, *lateral.METHOD_1)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set: multi-period where the site holds `mce` and no study.

    `site_specific`, and the permissions of 7-16.
    """
    study = site_specific.declared(choices)
    chosen = _MULTI_PERIOD if choices.get("mce") and not study else _TWO_PERIOD
    computed = (lateral.load_combinations_low,) if choices.get("low_vertical_effect", False) else ()
    spans = choices.get("diaphragm_spans")
    alternative = (asce7_16.lateral.F_px_alternative,) if spans is not None and spans.R_s is not None else ()
    return chosen | rule_set(*study, *asce7_16.permitted(choices), *computed, *alternative)


EDITION = replace(
    asce7_16.EDITION,
    id="asce7-22",
    title="ASCE/SEI 7-22",
    short="ASCE 7-22",
    choices={},
    year=2022,
    rank=40,
    rules=rules,
    inputs=(
        "S_MS",
        "S_M1",
        "S_1",
        "S_S",
        "T_L",
        "site_class",
        "class_by_default",
        "isolated_or_damped",
        "diaphragms_rigid",
        "mce",
        "site_specific",
        "v_s30",
        *asce7_16.INPUTS[asce7_16.INPUTS.index("risk_category") :],
    ),
    options=asce7_16.OPTIONS | {"site_class": ("A", "B", "BC", "C", "CD", "D", "DE", "E", "F")},
    formulas=("12.8-8", "12.8-9", "12.8-10"),
    words={
        **asce7_16.WORDS,
        "site_class": {
            **asce7_16.WORDS["site_class"],
            "BC": "BC soft rock",
            "CD": "CD dense soil",
            "DE": "DE loose soil",
        },
        "T_a_formula": {"12.8-8": "12.8-8 general", "12.8-10": "12.8-10 walls"},
    },
    walls_with=("12.8-10",),
    systems=systems.SYSTEMS,
    ground_keys=tuple(n for n in asce7_16.GROUND_KEYS if n not in ("F_a", "F_v")),
    definitions=asce7_16.DEFINITIONS
    | {
        "site_class": "Table 20.2-1, classes A to E by velocity",
        "class_by_default": "Table 20.2-1, classes A to E by velocity",
    },
    soil=(
        "site_class",
        {
            "A": (1525, 5000),
            "B": (915, 1525),
            "BC": (640, 915),
            "C": (440, 640),
            "CD": (305, 440),
            "D": (215, 305),
            "DE": (150, 215),
            "E": (60, 150),
        },
    ),
    # the values hold the soil; there is no coefficient to remove
    aspects={name: pins for name, pins in asce7_16.ASPECTS.items() if name != "soil"},
)
