"""IS 1893 (Part 1):2002."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from plumb_core.editions import words
from plumb_core.editions.edition import Choice, Edition
from plumb_core.editions.is1893_2002 import ground, lateral, response, tables, weight
from plumb_core.rules import Rule, rule_set

_RULES = rule_set(*ground.RULES, *lateral.RULES, *weight.RULES, *response.RULES)


FLOOR_ON_MODES = "the floor of 6.4.2 on A_h for T up to 0.1 s is put on every mode, not only on the structure's period"


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set: with the floor Z/2 on every mode where declared.

    An own spectrum where `site_specific` is given.
    """
    chosen = _RULES | rule_set(*ground.OF_STUDY) if choices.get("site_specific") is not None else _RULES
    return chosen | rule_set(ground.S_a_reduced_floored) if choices.get("floor_on_modes", False) else chosen


EDITION = Edition(
    id="is1893-2002",
    title="IS 1893 (Part 1):2002",
    short="IS 1893:2002",
    year=2002,
    rules=rules,
    inputs=(
        "zone",
        "soil",
        "site_specific",
        "N_SPT",
        "use",
        "I",
        "lateral_system",
        "period_type",
        "R",
        "d",
        "regular",
        "irregularities",
        "frame_share",
        "infills",
    ),
    choices={"floor_on_modes": Choice(FLOOR_ON_MODES)},
    options={"zone": tuple(tables.TABLE_2), "soil": tuple(tables.SOIL), "use": tuple(tables.TABLE_6)},
    period_types=tuple(tables.PERIOD),
    words={
        "period_type": words.PERIOD_TYPES,
        "use": {
            "important": "important service or community",
            "other": "all other",
        },
    },
    systems=tables.SYSTEMS,
    ground_keys=("Z", "I"),
    limits={"coefficient": ("C_s_lower", "min")},
    sums={"F": "V"},
    definitions={
        "zone": "zones II to V",
        "soil": "types I to III",
        "use": "Table 6",
        "lateral_system": "Table 7",
        "R": "Table 7",
        "period_type": "rows of 7.6",
        "irregularities": "types of irregularity",
    },
    # the code classes by blow count; velocities are those of like ground in other codes
    soil=("soil", {"I": (360, 5000), "II": (180, 360), "III": (60, 180)}),
    aspects={
        "minimum": {"C_s_lower": 0.0},
        "importance": {"I": 1.0},
        "reduction": {"R": 1.0},
        "soil": {"soil": "I"},
    },
    rank=70,
    parameter_names={
        "zone": "zone seismiczone",
        "Z": "z zonefactor",
        "soil": "soil soilprofile soilprofiletype soiltype",
        "I": "i importancefactor",
        "R": "responsereductionfactor",
        "S_a_T": "sag",
        "coefficient": "ah cs seismicresponsecoefficient",
    },
    side_by_side={
        "importance": "I",
        "short_period": "Z",
        "category": "zone",
        "reduction": "R",
        "approximate_period": "T_a",
        "period": "T",
        "coefficient": "coefficient",
        "weight": "W",
        "base_shear": "V",
        "exponent": "k",
        "eccentricity": "eccentricity",
        "mass_target": "mass_target",
        "scaling_share": "scaling_share",
        "drift_amplifier": "amplifier",
        "drift_limit": "drift_limit",
        "permission": "system_permission",
    },
    longest_period=ground.LONGEST,
)
