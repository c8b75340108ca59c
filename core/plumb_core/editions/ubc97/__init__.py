"""UBC 1997, volume 2, chapter 16, division IV."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from plumb_core.editions import words
from plumb_core.editions.edition import Edition
from plumb_core.editions.ubc97 import ground, lateral, response, tables, weight
from plumb_core.rules import Rule, rule_set

_BASE = rule_set(*ground.RULES, *lateral.RULES, *weight.RULES, *response.RULES)
_ZONE_4 = _BASE | rule_set(*ground.ZONE_4, *lateral.ZONE_4, *response.ZONE_4)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set; zone 4 has near-source factors and one more lower bound.

    `site_specific` gives the modal spectrum.
    """
    chosen = _ZONE_4 if choices.get("zone") == "4" else _BASE
    return chosen | rule_set(ground.S_a_of_study) if choices.get("site_specific") is not None else chosen


EDITION = Edition(
    id="ubc97",
    title="UBC 1997",
    short="UBC 1997",
    year=1997,
    rules=rules,
    inputs=(
        "zone",
        "soil",
        "class_by_default",
        "source_type",
        "source_distance_km",
        "N_a_limited",
        "C_a",
        "C_v",
        "site_specific",
        "v_s30",
        "N_SPT",
        "s_u",
        "occupancy_category",
        "I",
        "lateral_system",
        "stacked_systems",
        "beside_systems",
        "podium",
        "period_type",
        "R",
        "Omega_0",
        "rho",
        "element_shears",
        "r_max",
        "A_B",
        "regular",
        "irregularities",
        "shared_columns",
        "diaphragm_spans",
        "frame_share",
        "light_frame",
        "T_a_formula",
        "static_method",
        "walls",
        "structure_type",
    ),
    options={
        "structure_type": response.STRUCTURE_TYPES,
        "zone": tuple(tables.TABLE_16_I),
        "soil": ("S_A", "S_B", "S_C", "S_D", "S_E", "S_F"),
        "source_type": ("A", "B", "C"),
        "occupancy_category": tuple(tables.TABLE_16_K),
        "static_method": ("1630.2.1", ground.SIMPLIFIED),
    },
    period_types=tuple(tables.C_T),
    formulas=("30-8", "30-9"),
    words={
        "structure_type": {
            "other": "all other structures",
            "single_story_steel": "single-story steel frame, groups B, F, S, H-4, H-5",
        },
        "period_type": words.PERIOD_TYPES,
        "T_a_formula": {"30-8": "30-8 general", "30-9": "30-9 walls"},
    },
    walls_with=("30-9",),
    systems=tables.SYSTEMS,
    ground_keys=("Z", "N_a", "N_v", "C_a", "C_v", "T_0", "T_S"),
    own_symbols={"T_S": "T_s"},
    # 1630.1.1 (rho of 1.0 in zones 0 to 2), 1629.5.3, 1633.1, 1630.7
    required_where={
        "redundancy": ("zone", ("3", "4")),
        "elevation": ("zone", ("2A", "2B", "3", "4")),
        "directions": ("zone", ("2A", "2B", "3", "4")),
        "amplification": ("zone", ("2A", "2B", "3", "4")),
    },
    limits={"T": ("T_limit", "max"), "coefficient": ("C_s_lower", "min")},
    sums={"F": "V"},
    definitions={
        "soil": "Table 16-J, profiles S_A to S_F",
        "lateral_system": "Table 16-N",
        "stacked_systems": "Table 16-N",
        "period_type": "rows of the approximate period",
        "R": "Table 16-N",
        "Omega_0": "Table 16-N",
        "light_frame": "light-frame construction",
        "beside_systems": "Table 16-N",
        "irregularities": "types of irregularity",
    },
    soil=("soil", {"S_A": (1500, 5000), "S_B": (760, 1500), "S_C": (360, 760), "S_D": (180, 360), "S_E": (60, 180)}),
    aspects={
        "minimum": {"C_s_lower": 0.0},
        "importance": {"I": 1.0},
        "reduction": {"R": 1.0},
        "soil": {"soil": "S_B"},
    },
    rank=50,
    parameter_names={
        "zone": "zone seismiczone",
        "Z": "z zonefactor seismiczonefactor",
        "soil": "soil soilprofile soilprofiletype soiltype",
        "source_type": "sourcetype",
        "source_distance_km": "sourcedistance",
        "N_a": "na",
        "N_v": "nv",
        "C_a": "ca",
        "C_v": "cv",
        "I": "i importancefactor",
        "occupancy_category": "occupancycategory",
        "Omega_0": "omega0 ω0 overstrengthfactor",
        "rho": "rho ρ redundancyfactor",
        "T_0": "t0",
        "T_S": "ts",
        "C_t": "ct",
        "F_t": "ft topforce",
        "coefficient": "cs seismicresponsecoefficient",
    },
    may_be_zero=("F_t", "source_distance_km"),
    forces_by_weight=("30-11",),
    corner_periods=("T_0", "T_S"),
    side_by_side={
        "importance": "I",
        "short_period": "C_a",
        "one_second": "C_v",
        "category": "zone",
        "reduction": "R",
        "approximate_period": "T_a",
        "period_limit": "T_limit",
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
        "theta_limit": "theta_limit",
        "permission": "system_permission",
    },
)
