"""Torsion, irregularity in height, drift and P-Delta of ASCE/SEI 7-22 where they differ from 7-16."""

from __future__ import annotations

from plumb_core.editions import shared
from plumb_core.editions.asce7_16 import deformation as earlier
from plumb_core.editions.asce7_16 import irregularity
from plumb_core.editions.shared import Irregularity
from plumb_core.rules import Array, cited, rule

HORIZONTAL = (
    ("torsional", "1 torsional"),
    ("extreme_torsional", "1 torsional, TIR above 1.4"),
    ("reentrant_corner", "2 reentrant corner"),
    ("diaphragm_discontinuity", "3 diaphragm discontinuity"),
    ("out_of_plane_offset", "4 out-of-plane offset"),
    ("nonparallel_systems", "5 nonparallel system"),
)


@rule(clause="12.3.2.2, Table 12.3-2")
def vertical_irregularities(
    story_stiffness: Array | None = None,
    story_strength: Array | None = None,
    lateral_width: Array | None = None,
    drift_ratio: Array | None = None,
    N: int = 0,
    design_category: str = "",
) -> list[Irregularity]:
    """Soft (1a, 1b), geometric (2) and weak (4a, 4b) stories; this edition has no irregularity of mass.

    Types 1a and 1b fall away where no story drift ratio exceeds 1.3 times that above it, in buildings of one story,
    and in
    those of two stories in category B, C or D.
    """
    irregular = shared.less_than_above(
        story_strength, [("4b extreme weak story", 0.65, None), ("4a weak story", 0.80, None)], "Table 12.3-2"
    )
    irregular += shared.more_than_adjacent(lateral_width, 1.3, "2 vertical geometric", "Table 12.3-2")
    if irregularity.low_exempt(N, design_category) or shared.steady_drift(drift_ratio, 1.3):
        return irregular
    return irregular + shared.less_than_above(
        story_stiffness, [("1b extreme soft story", 0.6, 0.7), ("1a soft story", 0.7, 0.8)], "Table 12.3-2"
    )


@rule(clause="12.3.3, 12.3.4.2, 12.7.3, 12.8.4, 12.12.1")
def torsion_consequences(torsion_class: list[str], design_category: str = "") -> list[list[str]]:
    """What follows from the irregularity.

    The static method stays permitted (12.6), and there is one type with two degrees.
    """
    rows = [row for row in earlier.BY_DESIGN if "static method" not in row[2]]
    return earlier.consequences(torsion_class, design_category, (*rows, *earlier.FROM_7_16))


@rule(clause="12.8.6, 12.8.7")
def drift_notes(design_category: str = "") -> list[str]:
    """What holds for the forces behind the drifts."""
    return [
        "the minimum of Eq. 12.8-6 need not be considered for drift, that of Eq. 12.8-7 has to be (12.8.6.1)",
        "the period for drift is not limited by C_u T_a (12.8.6.2); the redundancy factor is 1.0",
        "the displacement of the diaphragm may be excluded from the story drift, not from separations (12.8.6)",
        "gravity loads in P_x with no factor above 1.0 (12.8.7)",
    ]


RULES = (
    *earlier.RULES,
    cited(shared.torsion_ratio, "12.3.2.1.1, Eq. 12.3-2"),
    cited(earlier.torsion_class, "12.3.2.1, Table 12.3-1 type 1, with 1.4 as its graver degree"),
    cited(earlier.A_x_case_by(False), "12.8.4.3, Eq. 12.8-15"),
    torsion_consequences,
    irregularity.horizontal_by(HORIZONTAL, 0.20),
    vertical_irregularities,
    irregularity.vertical_by("4a", "4b", "3"),
    cited(earlier.amplifier, "12.8.6, Eq. 12.8-16"),
    cited(shared.Delta, "12.8.6, Eq. 12.8-16"),
    cited(earlier.theta, "12.8.7, Eq. 12.8-18"),
    cited(earlier.theta_limit, "12.8.7, Eq. 12.8-19"),
    earlier.C_s_drift_by("12.8.6.1, 12.8.6.2", False, "12.8-7"),
    drift_notes,
)
