"""The requirements of each edition, in the order of a review; clauses and conditions are those of the edition."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from plumb_core.checks.context import Context
from plumb_core.checks.requirements.requirement import (
    Condition,
    Requirement,
    drifts_shown,
    has_modal_analysis,
    in_both,
    modes_shown,
    scaling_shown,
    sides_shown,
    stated,
)
from plumb_core.checks.stages.drift.inputs import DRIFTS
from plumb_core.editions.edition import Edition
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Key

_DIAPHRAGMS = Key("diaphragms")


def _with_modes(context: Context) -> str:
    return "" if has_modal_analysis(context) else "no modal analysis is submitted"


def _where_static_is_not(context: Context) -> str | None:
    """The modal analysis is required where the static method is not permitted."""
    words = [str(context.independent.get("static_permitted", d) or "") for d in ("X", "Y")]
    if any(w.startswith("not permitted") for w in words):
        return ""
    if not all(words) or any(w.startswith("open") for w in words):
        return None
    return "the static method is permitted"


def _where_irregular(context: Context) -> str | None:
    irregular = context.independent.get("torsion_irregular")
    if irregular is None:
        return None
    return "" if irregular else "the building is not torsionally irregular"


def _rigid(context: Context) -> str:
    claim = context.claims.by_key.get(_DIAPHRAGMS)
    flexible = claim is not None and claim.single and "flexible" in str(claim.single[0].value).lower()
    return "the diaphragms are flexible" if flexible else ""


COMMON = (
    Requirement(
        "importance",
        "occupancy or importance, and its factor",
        "brief",
        ("I_e", "gamma_I", "I", "kpZ"),
        stated(
            "I_e", "gamma_I", "I", "risk_category", "importance_class", "importance_level", "occupancy_category", "k_p"
        ),
        ("I_e", "gamma_I", "I", "risk_category", "importance_class", "importance_level", "k_p"),
    ),
    Requirement(
        "ground",
        "the class of the soil and the values of the ground motion that follow",
        "ground",
        ("F_a", "C_a", "S", "Z", "S_a"),
        stated("F_a", "S_DS", "C_a", "S", "soil", "subsoil", "site_class", "ground_type"),
        ("F_a", "S_DS", "C_a", "S", "soil", "subsoil", "site_class", "ground_type"),
    ),
    Requirement(
        "category",
        "the seismic design category",
        "ground",
        ("design_category",),
        stated("design_category"),
        ("design_category",),
    ),
    Requirement(
        "system",
        "the lateral system and its factor, in both directions",
        "brief",
        ("R", "q", "mu", "spectrum_factor"),
        in_both("R", "q", "mu", "lateral_system", "S_p"),
        ("R", "q", "mu", "lateral_system"),
    ),
    Requirement(
        "redundancy",
        "the redundancy factor, in both directions",
        "lateral",
        ("rho",),
        in_both("rho"),
        ("rho",),
    ),
    Requirement(
        "weight",
        "the effective seismic weight of each story",
        "weight",
        ("W",),
        stated("w", "W", "load_amount", "load_intensity"),
        ("w", "W"),
    ),
    Requirement(
        "loads",
        "the loads that the weight is made of, with the share of each",
        "weight",
        ("w_shares",),
        stated("load_amount", "load_intensity"),
        ("load_amount", "load_intensity"),
        stated_by="load_amount",
    ),
    Requirement(
        "diaphragms",
        "whether the diaphragms are rigid",
        "brief",
        ("torsion_irregular", "eccentricity"),
        stated("diaphragms"),
        ("diaphragms",),
        stated_by="diaphragms",
    ),
    Requirement(
        "torsion",
        "the test of torsional irregularity, in both directions",
        "twist",
        ("torsion_irregular",),
        in_both("torsion_stated", "drift_end_1", "drift_max", "torsion_ratio", "displacement_end_1"),
        ("torsion_stated", "drift_end_1", "drift_max"),
        _rigid,
        stated_by="torsion_stated",
    ),
    Requirement(
        "elevation",
        "stiffness and strength of the stories, for irregularity in elevation",
        "brief",
        ("vertical_irregularities",),
        in_both("story_stiffness", "story_strength"),
        ("story_stiffness", "story_strength"),
        stated_by="story_stiffness",
    ),
    Requirement(
        "period",
        "the fundamental period that is used, in both directions",
        "lateral",
        ("T",),
        in_both("T", "T_a", "T_analysis"),
        ("T", "T_a", "T_analysis"),
    ),
    Requirement(
        "base_shear",
        "the static base shear, in both directions",
        "lateral",
        ("V",),
        in_both("V", "V_static", "F"),
        ("V", "V_static", "F"),
    ),
    Requirement(
        "forces", "the static forces of the stories, in both directions", "lateral", ("F",), in_both("F"), ("F",)
    ),
    Requirement(
        "method",
        "a modal analysis, where the static method is not permitted",
        "modes",
        ("static_permitted",),
        modes_shown,
        ("mass_ratio", "T_mode"),
        _where_static_is_not,
        "whether the static method is permitted",
        code="S60",
        stated_by="mass_ratio",
    ),
    Requirement(
        "modes",
        "the share of the mass of each mode, up to the target, in both directions",
        "modes",
        ("mass_target",),
        modes_shown,
        ("mass_ratio", "T_mode"),
        _with_modes,
        code="S44",
        also=("S90",),
    ),
    Requirement(
        "curve", "the spectrum of the modal analysis", "spectrum", ("S_a",), stated("S_a"), ("S_a",), _with_modes
    ),
    Requirement(
        "mode_combination",
        "how the modes are combined",
        "modes",
        ("modal_combination",),
        stated("combined_by"),
        ("combined_by",),
        _with_modes,
        stated_by="combined_by",
    ),
    Requirement(
        "scaling",
        "the modal base shear compared with the static one, and the scale factor, in both directions",
        "scaling",
        ("scaling_share",),
        scaling_shown,
        ("V_dynamic", "factor_used", "V_scaled", "reaction_X"),
        _with_modes,
        code="S61",
        stated_by="factor_used",
    ),
    Requirement(
        "eccentricity",
        "cases with the accidental eccentricity to either side, in both directions",
        "twist",
        ("eccentricity",),
        sides_shown,
        ("eccentricity",),
        _rigid,
        code="S70",
    ),
    Requirement(
        "amplification",
        "the torsional amplification, in both directions",
        "twist",
        ("A_x",),
        in_both("A_x"),
        ("A_x",),
        _where_irregular,
        "whether the building is torsionally irregular",
        code="S74",
    ),
    Requirement(
        "directions",
        "how both directions are combined",
        "lateral",
        ("directions_together",),
        stated("directions_by", "combination_terms"),
        ("directions_by", "combination_terms"),
        code="S86",
        stated_by="directions_by",
    ),
    Requirement(
        "combinations",
        "the load combinations",
        "lateral",
        ("load_combinations",),
        stated("combination_terms"),
        ("combination_terms",),
        stated_by="combination_terms",
    ),
    Requirement(
        "drift",
        "the story drifts, in both directions",
        "drift",
        ("drift_limit",),
        drifts_shown,
        (*DRIFTS, "drift_max"),
        code="S81",
        stated_by="drift_ratio",
    ),
    Requirement(
        "amplifier",
        "the factor from elastic to design drifts",
        "drift",
        ("amplifier",),
        in_both("amplifier", "C_d", "q", "mu", "R"),
        ("amplifier", "C_d"),
    ),
    Requirement(
        "second_order",
        "the stability coefficients, or how second order effects are included, in both directions",
        "drift",
        ("theta",),
        in_both("theta", "theta_greatest", "second_order_stated"),
        ("theta", "theta_greatest", "second_order_stated"),
    ),
    Requirement(
        "diaphragm_forces",
        "the design forces of the diaphragms, in both directions",
        "lateral",
        ("F_px",),
        in_both("F_px"),
        ("F_px",),
    ),
)
"""What a review of any edition looks for; an edition has those whose rules it has."""


def _where(name: str, values: tuple[Any, ...]) -> Condition:
    """Applies where a quantity of the building has one of these values."""

    def when(context: Context) -> str | None:
        value = context.independent.get(name)
        if value is None:
            return None
        if value in values:
            return ""
        meaning = QUANTITIES[name].meaning.lower()
        if isinstance(value, bool):
            return f"the building is {'' if value else 'not '}{meaning}"
        return f"not required in {meaning} {value}"

    return when


def _both(one: Condition, other: Condition) -> Condition:
    def when(context: Context) -> str | None:
        reasons = [one(context), other(context)]
        return next((r for r in reasons if r), None if None in reasons else "")

    return when


def requirements_of(edition: Edition) -> list[Requirement]:
    """The requirements of an edition, in order: those whose rules it has, under its own conditions."""
    rules = edition.rules({})
    own = [r for r in COMMON if any(n in rules for n in r.clause_of) and r.id not in edition.not_required]
    return [_under(r, edition) for r in own]


def _under(requirement: Requirement, edition: Edition) -> Requirement:
    """A requirement under the condition that the edition has for it."""
    if requirement.id not in edition.required_where:
        return requirement
    name, values = edition.required_where[requirement.id]
    words = f"the {QUANTITIES[name].meaning.lower()}"
    return replace(
        requirement,
        when=_both(_where(name, values), requirement.when),
        open_words=" or ".join(p for p in (words, requirement.open_words) if p),
    )
