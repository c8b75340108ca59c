"""ASCE/SEI 7-16, chapters 11 and 12.

Supplements 1 and 3 are a declared choice of the brief (`site.supplements`, both by default).  A supplement replaces
rules; it is no condition inside them.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

from plumb_core.editions import words
from plumb_core.editions.asce7_16 import deformation, ground, lateral, modal, site_specific, spectrum, systems, weight
from plumb_core.editions.asce7_16.tables import STRUCTURE_TYPES
from plumb_core.editions.edition import Choice, Edition
from plumb_core.rules import Rule, rule_set

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

_B_TO_F = ("design_category", ("B", "C", "D", "E", "F"))
_C_TO_F = ("design_category", ("C", "D", "E", "F"))
_D_TO_F = ("design_category", ("D", "E", "F"))
REQUIRED_WHERE = {
    # 12.3.4.1: 1.0 in B and C; 11.7: category A has 1 % of the weight and nothing else
    "redundancy": _D_TO_F,
    "torsion": _B_TO_F,
    "elevation": _D_TO_F,
    "method": _B_TO_F,
    "directions": _C_TO_F,
    "eccentricity": _B_TO_F,
    "amplification": _C_TO_F,
    "drift": _B_TO_F,
    "amplifier": _B_TO_F,
    "second_order": _B_TO_F,
    "diaphragm_forces": _B_TO_F,
}
"""What is required in some design categories only (11.7, 12.3.4, 12.5, 12.8.4.3)."""

INPUTS = (
    "S_S",
    "S_1",
    "T_L",
    "site_class",
    "class_by_default",
    "velocity_measured",
    "isolated_or_damped",
    "diaphragms_rigid",
    "F_a",
    "F_v",
    "site_specific",
    "v_s30",
    "N_SPT",
    "s_u",
    "risk_category",
    "I_e",
    "lateral_system",
    "stacked_systems",
    "beside_systems",
    "podium",
    "period_type",
    "R",
    "Omega_0",
    "C_d",
    "rho",
    "redundancy",
    "regular",
    "irregularities",
    "shared_columns",
    "plane_share",
    "frame_share",
    "axial_share",
    "diaphragm_spans",
    "light_frame",
    "T_a_formula",
    "walls",
    "A_B",
    "structure_type",
)
OPTIONS = {
    "site_class": ("A", "B", "C", "D", "E", "F"),
    "risk_category": ("I", "II", "III", "IV"),
    "structure_type": deformation.STRUCTURE_TYPES,
}

SIDE_BY_SIDE = {
    "importance": "I_e",
    "short_period": "S_DS",
    "one_second": "S_D1",
    "category": "design_category",
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
}

PARAMETER_NAMES = {
    "S_S": "ss",
    "S_1": "s1",
    "T_L": "tl",
    "site_class": "siteclass",
    "F_a": "fa",
    "F_v": "fv",
    "S_MS": "sms",
    "S_M1": "sm1",
    "S_DS": "sds",
    "S_D1": "sd1",
    "T_0": "t0",
    "T_S": "ts",
    "design_category": "sdc seismicdesigncategory designcategory",
    "risk_category": "riskcategory occupancycategory",
    "I_e": "ie importancefactor",
    "Omega_0": "omega0 ω0 overstrengthfactor",
    "C_d": "cd deflectionamplificationfactor",
    "rho": "rho ρ redundancyfactor",
    "C_t": "ct",
    "C_u": "cu",
    "T_limit": "cuta",
    "C_s": "cs seismicresponsecoefficient",
    "k": "k",
}

LIMITS: dict[str, tuple[str, Literal["max", "min"]]] = {"T": ("T_limit", "max"), "C_s": ("C_s_lower", "min")}
"""12.8.2 and 12.8.1.1."""
SUMS = {"F": "V"}
"""12.8.3."""

DEFINITIONS = {
    "risk_category": "risk or occupancy category I to IV",
    "site_class": "Table 20.3-1, classes A to F",
    "class_by_default": "Table 20.3-1, classes A to F",
    "lateral_system": "Table 12.2-1",
    "stacked_systems": "Table 12.2-1",
    "period_type": "rows of the approximate period",
    "R": "Table 12.2-1",
    "Omega_0": "Table 12.2-1",
    "C_d": "Table 12.2-1",
    "rho": "12.3.4",
    "redundancy": "12.3.4",
    "beside_systems": "Table 12.2-1",
    "irregularities": "types of irregularity",
    "light_frame": "light-frame construction",
    "isolated_or_damped": "isolated or damped",
    "diaphragms_rigid": "rigid diaphragms",
}

SOIL = (
    "site_class",
    {"A": (1500, 5000), "B": (760, 1500), "C": (370, 760), "D": (180, 370), "E": (60, 180)},
)


ASPECTS: dict[str, Mapping[str, Any]] = {
    "minimum": {"C_s_lower": 0.0},
    "importance": {"I_e": 1.0},
    "reduction": {"R": 1.0},
    "soil": {"site_class": "B", "F_a": 1.0, "F_v": 1.0},
}

_BASE = rule_set(
    *ground.RULES, *spectrum.RULES, *lateral.RULES, *systems.RULES, *weight.RULES, *modal.RULES, *deformation.RULES
)

_BY_SUPPLEMENTS: dict[tuple[int, ...], dict[str, Rule]] = {
    (1, 3): _BASE,
    (1,): _BASE | rule_set(ground.S_M1_as_printed, lateral.C_s_upper_as_printed),
    (): _BASE | rule_set(ground.F_v_as_printed, ground.S_M1_as_printed, lateral.C_s_upper_as_printed),
}


def permitted(choices: Mapping[str, Any]) -> tuple[Rule, ...]:
    """Rules that take a permission which the brief declares."""
    used: list[Rule] = []
    if choices.get("category_by_S_DS_alone", False):
        used.append(ground.design_category_by_S_DS_alone)
    if choices.get("category_A_by_map", False):
        used.append(ground.design_category_A_by_map)
    if choices.get("short_period_cap", False):
        used.append(lateral.S_DS_capped)
    if choices.get("low_vertical_effect", False):
        used.append(lateral.load_combinations_low)
    return tuple(used)


PERMISSIONS = {
    "short_period_cap": "S_DS for C_s at most 1.0, at least 0.7 S_DS (12.8.1.3)",
    "category_by_S_DS_alone": "category by S_DS alone (11.6)",
    "category_A_by_map": "category A where S_S <= 0.15 and S_1 <= 0.04 (11.4.2)",
    "low_vertical_effect": "no vertical action in category B (12.4.2.2)",
}


SUPPLEMENTS = Choice("Supplements that hold", ((1, 3), (1,), ()), standing=(1, 3))
"""Supplement 3 builds on Supplement 1."""


WORDS: Mapping[str, Mapping[Any, str]] = {
    "period_type": words.PERIOD_TYPES,
    "structure_type": {
        "other": "all other structures",
        "low_rise_detailed": "low rise, partitions made for drift",
        "masonry_cantilever": "masonry cantilever walls",
        "masonry_other": "other masonry walls",
    },
    "site_class": {
        "A": "A hard rock",
        "B": "B rock",
        "C": "C very dense soil",
        "D": "D stiff soil",
        "E": "E soft clay",
        "F": "F site response",
    },
    "T_a_formula": {"12.8-7": "12.8-7 general", "12.8-9": "12.8-9 walls"},
}


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set under the declared choices.

    choices : `supplements`, [], [1] or [1, 3] (3 builds on 1); `site_specific` and `F_v`, values of a study, which
        11.4.8 does not
        raise; the permissions of `PERMISSIONS`.
    """
    declared = choices.get("supplements")
    chosen = _BY_SUPPLEMENTS[SUPPLEMENTS.standing if declared is None else tuple(declared)]
    study = site_specific.declared(choices)
    if study or choices.get("F_v") is not None:
        chosen = chosen | rule_set(ground.S_M1_as_printed, lateral.C_s_upper)
    given = [name for name in ("F_a", "F_v") if choices.get(name) is not None]
    if given:
        chosen = chosen | rule_set(ground.ground_notes_by(given))
    spans = choices.get("diaphragm_spans")
    alternative = (lateral.F_px_alternative,) if spans is not None and spans.R_s is not None else ()
    return chosen | rule_set(*study, *permitted(choices), *alternative)


EDITION = Edition(
    id="asce7-16",
    title="ASCE/SEI 7-16",
    short="ASCE 7-16",
    year=2016,
    rules=rules,
    inputs=INPUTS,
    options=OPTIONS,
    choices={"supplements": SUPPLEMENTS},
    permissions=PERMISSIONS,
    period_types=STRUCTURE_TYPES,
    formulas=("12.8-7", "12.8-8", "12.8-9"),
    words=WORDS,
    walls_with=("12.8-9",),
    systems=systems.SYSTEMS,
    ground_keys=GROUND_KEYS,
    required_where=REQUIRED_WHERE,
    limits=LIMITS,
    sums=SUMS,
    definitions=DEFINITIONS,
    soil=SOIL,
    aspects=ASPECTS,
    rank=30,
    parameter_names=PARAMETER_NAMES,
    texts={"design_category": ("A", "B", "C", "D", "E", "F")},
    forces_by_weight=("1.4-1", "11.7-1"),
    corner_periods=("T_0", "T_S", "T_L"),
    # 2.3.2, 2.3.6: 0.5 where L_o is at most 4.78 kPa
    least_live_factor=0.5,
    side_by_side=SIDE_BY_SIDE,
)
