"""Ground motion values of ASCE/SEI 7-10, sections 11.4 and 11.6."""

from __future__ import annotations

from plumb_core.editions.asce7_10 import tables
from plumb_core.editions.asce7_16 import ground as later
from plumb_core.editions.asce7_16.tables import interpolated
from plumb_core.errors import RuleRefused
from plumb_core.limits import reaches
from plumb_core.rules import cited, rule


@rule(clause="Table 11.4-1, 11.4.3", tex=later.F_a.tex)
def F_a(S_S: float, site_class_used: str) -> float:
    """Short-period site coefficient; a class by default is D (11.4.2), without a floor."""
    if site_class_used == "F":
        raise RuleRefused("site_class", "Table 11.4-1 has no F_a for site class F", later.SITE_RESPONSE)
    return interpolated(tables.F_A, site_class_used, S_S)


@rule(clause="Table 11.4-2, 11.4.3", tex=later.F_v.tex)
def F_v(S_1: float, site_class_used: str) -> float:
    """Long-period site coefficient."""
    if site_class_used == "F":
        raise RuleRefused("site_class", "Table 11.4-2 has no F_v for site class F", later.SITE_RESPONSE)
    return interpolated(tables.F_V, site_class_used, S_1)


def _triggers(site_class: str, S_1: float, isolated_or_damped: bool) -> list[str]:
    triggers = []
    if site_class == "F":
        triggers.append("site class F: site response analysis (21.1) is required by 11.4.7")
    if isolated_or_damped and reaches(S_1, 0.6):
        triggers.append("isolated or damped structure with S_1 >= 0.6: hazard analysis (21.2) is required by 11.4.7")
    return triggers


@rule(clause="11.4.7")
def site_specific_required(site_class_used: str, S_1: float, isolated_or_damped: bool = False) -> bool:
    """Whether 11.4.7 requires a site-specific study."""
    return bool(_triggers(site_class_used, S_1, isolated_or_damped))


@rule(clause="11.4.2, 11.4.7, 11.6")
def ground_notes(
    site_class: str,
    site_class_used: str,
    S_1: float,
    class_by_default: bool = False,
    isolated_or_damped: bool = False,
    site_specific_notes: list[str] | None = None,
) -> list[str]:
    """What a reviewer should know about the ground motion values."""
    notes = [*(site_specific_notes or _triggers(site_class_used, S_1, isolated_or_damped))]
    notes += later.by_default(site_class, site_class_used, class_by_default, "11.4.2")
    if reaches(S_1, 0.75):
        notes.append("S_1 >= 0.75: design category E or F (11.6)")
    return notes


RULES = (
    later.I_e,
    later.soil_by_measurement,
    cited(later.site_class_used, "11.4.2"),
    F_a,
    F_v,
    cited(later.S_MS, "11.4.3, Eq. 11.4-1"),
    cited(later.S_M1_as_printed, "11.4.3, Eq. 11.4-2"),
    cited(later.S_DS, "11.4.4, Eq. 11.4-3"),
    cited(later.S_D1, "11.4.4, Eq. 11.4-4"),
    cited(later.design_category, "11.6, Tables 11.6-1 and 11.6-2"),
    site_specific_required,
    cited(later.no_study, "11.4.7"),
    ground_notes,
)
