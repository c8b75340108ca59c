"""Conditions of lateral systems, diaphragms and infills that codes word alike.

An edition gives its limits and clauses.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.limits import exceeds, reaches, within
from plumb_core.rules import Rule, rule

DUAL_SHARE = 0.25


def condition(words: str, value: float | None, limit: float, side: str, clause: str) -> dict[str, Any]:
    """A condition with whether it is met; None where its value is not known.  side : "min" or "max"."""
    met = None if value is None else reaches(value, limit) if side == "min" else within(value, limit)
    return {"words": words, "value": value, "limit": limit, "side": side, "met": met, "clause": clause}


def dual_systems(beginnings: Sequence[str], clause: str, axial: tuple[str, float, str] | None = None) -> Rule:
    """Rule for the conditions of dual systems and of cantilever columns.

    beginnings : of the ids of dual systems.  axial : beginning of the ids of cantilever columns, greatest axial load
        over
    the axial strength, clause
    """

    @rule(clause=clause)
    def system_checks(
        lateral_system: str, frame_share: float | None = None, axial_share: float | None = None
    ) -> list[dict[str, Any]]:
        """Conditions of the lateral system, one by one."""
        rows = []
        if lateral_system.startswith(tuple(beginnings)):
            words = "moment frames resist at least 25 % of the design forces by themselves"
            rows.append(condition(words, frame_share, DUAL_SHARE, "min", clause))
        if axial is not None and lateral_system.startswith(axial[0]):
            words = f"axial load of cantilever columns at most {axial[1]:.0%} of their axial strength"
            rows.append(condition(words, axial_share, axial[1], "max", axial[2]))
        return rows

    return system_checks


def flexible_diaphragm(ratio: float, clause: str, torsion_clause: str) -> tuple[Rule, Rule]:
    """Return the rules for the class of the diaphragms and for whether accidental torsion applies.

    The class follows from the deflection over the drift of the supporting elements.
    """

    @rule(clause=clause)
    def diaphragm_class(diaphragm_spans: Mapping[str, Any], irregular_types: Sequence[str] = ()) -> str:
        """Flexible, rigid or semirigid diaphragms; torsion rules are not for flexible ones."""
        deflection = diaphragm_spans.get("deflection_ratio")
        if deflection is not None and exceeds(deflection, ratio):
            return "flexible"
        span, construction = diaphragm_spans.get("span_to_depth"), diaphragm_spans.get("construction")
        plan = {"reentrant_corner", "diaphragm_discontinuity", "out_of_plane_offset", "nonparallel_systems"}
        if construction == "concrete" and span is not None and within(span, 3.0) and not plan & set(irregular_types):
            return "rigid"
        return "semirigid"

    @rule(clause=torsion_clause)
    def torsion_applies(diaphragm_class: str = "") -> bool:
        """Whether accidental torsion is required: the diaphragms are not flexible."""
        return diaphragm_class != "flexible"

    return diaphragm_class, torsion_applies
