"""AS 1170.4-2007 with amendments 1 (2015) and 2 (2018)."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from plumb_core.editions import words
from plumb_core.editions.as1170_4 import ground, lateral, response, tables, weight
from plumb_core.editions.edition import Edition
from plumb_core.rules import Rule, rule_set

_RULES = rule_set(*ground.RULES, *lateral.RULES, *weight.RULES, *response.RULES)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set by the static method that is declared; `site_specific` an own elastic spectrum."""
    chosen = _RULES
    if choices.get("static_method") in lateral.BY_METHOD:
        dropped, instead = lateral.BY_METHOD[choices["static_method"]]
        chosen = {n: r for n, r in chosen.items() if n not in dropped} | rule_set(*instead)
    return chosen | rule_set(*ground.OF_STUDY) if choices.get("site_specific") is not None else chosen


EDITION = Edition(
    id="as1170.4",
    title="AS 1170.4-2007 with Amendment 2",
    short="AS 1170.4",
    year=2018,
    rules=rules,
    inputs=(
        "Z",
        "k_p",
        "subsoil",
        "site_specific",
        "v_s30",
        "rock",
        "very_soft_thickness",
        "site_period",
        "importance_level",
        "lateral_system",
        "mu",
        "S_p",
        "period_type",
        "static_method",
    ),
    options={
        "subsoil": tuple(tables.SHAPE),
        "importance_level": tuple(tables.K_P),
        "static_method": (lateral.EQUIVALENT, lateral.TENTH, lateral.SIMPLIFIED),
    },
    period_types=tuple(tables.K_T),
    words={"period_type": words.PERIOD_TYPES},
    systems=tables.SYSTEMS,
    ground_keys=("k_p", "Z", "kpZ"),
    # 5.3: category I has 10 % of the weight alone
    required_where=dict.fromkeys(
        ("torsion", "eccentricity", "drift", "amplifier", "second_order", "elevation", "directions"),
        ("design_category", ("II", "III")),
    ),
    limits={"coefficient": ("C_s_lower", "min")},
    sums={"F": "V"},
    definitions={
        "subsoil": "4.2, classes A_e to E_e",
        "lateral_system": "Table 6.5(A)",
        "period_type": "rows of the approximate period",
    },
    soil=("subsoil", {"A_e": (1500, 5000), "B_e": (360, 1500), "C_e": (250, 360), "D_e": (150, 250), "E_e": (60, 150)}),
    aspects={
        "minimum": {"C_s_lower": 0.0},
        "importance": {"k_p": 1.0},
        "reduction": {"mu": 1.0, "S_p": 1.0},
        "soil": {"subsoil": "B_e"},
    },
    rank=90,
    parameter_names={
        "Z": "z hazardfactor",
        "k_p": "kp probabilityfactor",
        "kpZ": "kpz",
        "subsoil": "subsoil subsoilclass",
        "importance_level": "importancelevel",
        "mu": "mu μ ductilityfactor structuralductilityfactor",
        "S_p": "sp structuralperformancefactor",
        "design_category": "edc designcategory",
        "C_t": "kt",
        "S_a_T": "cht cht1 chatt1",
        "coefficient": "cs seismicresponsecoefficient",
    },
    texts={"design_category": ("I", "II", "III")},
    side_by_side={
        "importance": "k_p",
        "short_period": "kpZ",
        "category": "design_category",
        "reduction": "mu",
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
