"""Ground motion values of ASCE/SEI 7-22, sections 11.4 and 11.6: read per site class, no site coefficients."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np

from plumb_core.editions import shared
from plumb_core.editions.asce7_16 import ground as earlier
from plumb_core.errors import RuleRefused
from plumb_core.limits import reaches, within
from plumb_core.rules import cited, rule

STIFF = ("A", "B", "BC", "C")
"""Site classes with a shear wave velocity above 1450 ft/s (440 m/s)."""

VELOCITY = (("A", 1525.0), ("B", 915.0), ("BC", 640.0), ("C", 440.0), ("CD", 305.0), ("D", 215.0), ("DE", 150.0))
"""Table 20.2-1: lower bounds of the shear wave velocity, m/s."""


def _greatest(points: Mapping[str, Sequence[float]], first: float, last: float, power: int) -> float:
    T, S = np.asarray(points["T"], dtype=float), np.asarray(points["S_a"], dtype=float)
    inside = np.array([reaches(t, first) and within(t, last) for t in T.tolist()])
    if not inside.any():
        raise RuleRefused(
            "mce",
            f"the multi-period spectrum has no point between {first:g} and {last:g} s",
            "Give all 22 periods of 11.4.5.1, or give S_MS and S_M1.",
        )
    return float(np.max(S[inside] * T[inside] ** power))


@rule(clause="21.4", tex=r"\q{S_MS} = 0.9\,\max S_{aM},\ 0.2 \le T \le 5\,\text{s}")
def S_MS(mce: Mapping[str, Sequence[float]]) -> float:
    """Site-adjusted MCE_R acceleration at short periods, g, from the multi-period spectrum."""
    return 0.9 * _greatest(mce, 0.2, 5.0, 0)


@rule(clause="21.4", tex=r"\q{S_M1} = \max(0.9\,\max T S_{aM},\ S_{aM}(1\,\text{s}))")
def S_M1(mce: Mapping[str, Sequence[float]], site_class: str) -> float:
    """Site-adjusted MCE_R acceleration at 1 s, g: over 1 to 2 s on stiff ground, 1 to 5 s on classes CD and softer."""
    last = 2.0 if site_class in STIFF else 5.0
    return max(0.9 * _greatest(mce, 1.0, last, 1), float(np.interp(1.0, mce["T"], mce["S_a"])))


@rule(clause="11.4.7")
def site_specific_required(site_class: str, S_1: float, isolated_or_damped: bool = False) -> bool:
    """Whether a site response or hazard analysis is required."""
    return site_class == "F" or (isolated_or_damped and reaches(S_1, 0.6))


@rule(clause="11.4.2, 11.4.5, 11.4.7")
def ground_notes(
    site_class: str,
    S_1: float,
    class_by_default: bool = False,
    isolated_or_damped: bool = False,
    mce: Mapping[str, Sequence[float]] | None = None,
    site_specific_notes: list[str] | None = None,
) -> list[str]:
    """What a reviewer should know about the ground motion values."""
    notes = [*(site_specific_notes or ())]
    if site_class == "F" and not notes:
        notes.append("site class F: the values have to come from a site response analysis (11.4.7, 21.1)")
    if isolated_or_damped and reaches(S_1, 0.6):
        notes.append("isolated or damped structure with S_1 >= 0.6: hazard analysis (21.2) is required by 11.4.7")
    if class_by_default:
        notes.append("class by default: the values are the envelope of classes C, CD and D at every period (11.4.2)")
    if mce is None and not site_specific_notes:
        notes.append("two-period spectrum (11.4.5.2): only where the multi-period values are not available")
    if reaches(S_1, 0.75):
        notes.append("S_1 >= 0.75: design category E or F (11.6)")
    return notes


@rule(clause="20.2, Table 20.2-1", tex=r"\q{soil_by_measurement} = \text{Table 20.2-1}(\q{v_s30})")
def soil_by_measurement(v_s30: float | None = None) -> str:
    """Site class A to E from v_s30 (m/s), the only measure of this edition."""
    return shared.measured(VELOCITY, (), (), "E", v_s30, None, None)


@rule(clause="11.4.2, Table 20.2-1", tex=r"\q{site_class_used} = \q{site_class}")
def site_class_used(site_class: str) -> str:
    """Site class that the values were read for; a class by default means the envelope of C, CD and D."""
    return site_class


RULES = (
    earlier.I_e,
    site_class_used,
    S_MS,
    S_M1,
    cited(earlier.S_DS, "11.4.4, Eq. 11.4-1"),
    cited(earlier.S_D1, "11.4.4, Eq. 11.4-2"),
    cited(earlier.design_category, "11.6, Tables 11.6-1 and 11.6-2"),
    site_specific_required,
    cited(earlier.no_study, "11.4.7"),
    ground_notes,
    soil_by_measurement,
)
