"""EN 1998-1:2004 with recommended values.

Each nationally determined parameter is an input with its recommended default.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from plumb_core.editions import words
from plumb_core.editions.edition import Edition
from plumb_core.editions.en1998_1 import ground, lateral, response, tables, weight
from plumb_core.rules import Rule, rule_set

_RULES = rule_set(*ground.RULES, *lateral.RULES, *weight.RULES, *response.RULES)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set; national values are inputs, `site_specific` an own elastic spectrum."""
    return _RULES | rule_set(*ground.OF_STUDY) if choices.get("site_specific") is not None else _RULES


EDITION = Edition(
    id="en1998-1",
    title="EN 1998-1:2004",
    short="EN 1998-1:2004",
    year=2004,
    rules=rules,
    inputs=(
        "a_gR",
        "ground_type",
        "spectrum_type",
        "S",
        "T_B",
        "T_C",
        "T_D",
        "beta",
        "a_vg_ratio",
        "nu",
        "site_specific",
        "v_s30",
        "N_SPT",
        "s_u",
        "importance_class",
        "gamma_I",
        "lateral_system",
        "ductility_class",
        "alpha_u_1",
        "alpha_0",
        "q_0",
        "q",
        "regular_in_plan",
        "regular_in_elevation",
        "torsionally_flexible",
        "symmetric_in_plan",
        "irregularities",
        "infills",
        "wall_share",
        "period_type",
        "T_a_formula",
        "walls",
        "d_gravity",
        "structure_type",
    ),
    options={
        "ground_type": ("A", "B", "C", "D", "E", "S1", "S2"),
        "spectrum_type": (1, 2),
        "importance_class": tuple(tables.GAMMA_I),
        "ductility_class": ("DCL", "DCM", "DCH"),
        "structure_type": tuple(response.DRIFT_LIMIT),
    },
    period_types=tuple(tables.C_T),
    formulas=("4.6", "4.7", "4.9"),
    words={
        "period_type": words.PERIOD_TYPES,
        "structure_type": {
            "brittle": "brittle elements attached",
            "ductile": "ductile elements",
            "none": "none that interfere",
        },
        "T_a_formula": {"4.6": "4.6 general", "4.7": "4.7 walls", "4.9": "4.9 displacement"},
    },
    walls_with=("4.7",),
    systems=tables.SYSTEMS,
    ground_keys=("S", "T_B", "T_C", "T_D", "gamma_I", "a_g"),
    # 4.2.3.3: the criteria are shown where the building is not declared regular
    required_where={"elevation": ("regular_in_elevation", (False,))},
    # 4.3.3.3: results of the modal analysis are not scaled to the static ones
    not_required=frozenset({"scaling"}),
    sums={"F": "V"},
    definitions={
        "ground_type": "Table 3.1, ground types A to E",
        "lateral_system": "Tables 5.1 to 9.1",
        "period_type": "rows of the approximate period",
    },
    soil=("ground_type", {"A": (800, 5000), "B": (360, 800), "C": (180, 360), "D": (60, 180)}),
    aspects={
        "minimum": {"beta": 0.0},
        "importance": {"gamma_I": 1.0},
        "reduction": {"q": 1.0},
        "soil": {"ground_type": "A", "S": 1.0},
    },
    rank=60,
    parameter_names={
        "a_gR": "agr",
        "a_g": "ag",
        "ground_type": "groundtype",
        "spectrum_type": "spectrumtype",
        "S": "s soilfactor",
        "T_B": "tb",
        "T_C": "tc",
        "T_D": "td",
        "beta": "beta β",
        "importance_class": "importanceclass",
        "gamma_I": "gammai γi importancefactor",
        "q": "q behaviourfactor",
        "lambda_": "lambda λ",
        "S_a_T": "sdt1 sdt sdatt1",
        "C_t": "ct",
        "coefficient": "cs seismicresponsecoefficient",
    },
    may_be_zero=("beta",),
    corner_periods=("T_B", "T_C", "T_D"),
    side_by_side={
        "importance": "gamma_I",
        "short_period": "a_g",
        "one_second": "S",
        "category": "seismicity",
        "reduction": "q",
        "approximate_period": "T_a",
        "period": "T",
        "coefficient": "coefficient",
        "weight": "W",
        "base_shear": "V",
        "exponent": "k",
        "eccentricity": "eccentricity",
        "mass_target": "mass_target",
        "drift_amplifier": "amplifier",
        "drift_limit": "drift_limit",
        "theta_limit": "theta_limit",
        "permission": "static_permitted",
    },
)
