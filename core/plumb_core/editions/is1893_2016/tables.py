"""Tables of IS 1893 (Part 1):2016 that differ from those of 2002, as text."""

from __future__ import annotations

from plumb_core.editions.systems import read_table

TABLE_8 = {"important": 1.5, "over_200_persons": 1.2, "other": 1.0}
"""Importance factor I by use."""

BEYOND_4_S = {"I": 0.25, "II": 0.34, "III": 0.42}
"""6.4.2: S_a/g beyond 4 s."""

TABLE_7 = {"II": 0.7, "III": 1.1, "IV": 1.6, "V": 2.4}
"""Least design lateral force, % of the seismic weight."""

PERIOD = {"rc_mrf": 0.075, "composite_mrf": 0.080, "steel_mrf": 0.085, "rc_walls": None, "other": None}
"""7.6.2: coefficient of h^0.75 of bare frames; structural walls and all other buildings by formulas of their own."""

TABLE_9 = """
id                     R    system
RC_OMRF                3.0  ordinary moment-resisting frames of reinforced concrete
RC_SMRF                5.0  special moment-resisting frames of reinforced concrete
steel_OMRF             3.0  ordinary moment-resisting frames of steel
steel_SMRF             5.0  special moment-resisting frames of steel
steel_OBF              4.0  ordinary braced frames with concentric braces
steel_SBF              4.5  special braced frames with concentric braces
steel_EBF              5.0  special braced frames with eccentric braces
masonry                1.5  unreinforced masonry without horizontal bands
masonry_bands          2.0  unreinforced masonry with horizontal bands
masonry_bands_bars     2.5  unreinforced masonry with horizontal bands and vertical bars
masonry_reinforced     3.0  reinforced masonry
masonry_confined       3.0  confined masonry
RC_wall                3.0  ordinary reinforced concrete walls
RC_ductile_wall        4.0  ductile reinforced concrete walls
dual_wall_OMRF         3.0  ordinary walls with OMRF
dual_wall_SMRF         4.0  ordinary walls with SMRF
dual_ductile_wall_OMRF 4.0  ductile walls with OMRF
dual_ductile_wall_SMRF 5.0  ductile walls with SMRF
flat_slab_walls        3.0  flat slabs with ductile walls and perimeter SMRF
"""

SYSTEMS = read_table(TABLE_9, ("R",))
PROHIBITED = dict.fromkeys(
    ("RC_OMRF", "steel_OMRF", "RC_wall", "dual_wall_OMRF", "dual_wall_SMRF", "dual_ductile_wall_OMRF"),
    ("III", "IV", "V"),
)
"""Ductile detailing is compulsory in zones III to V: ordinary frames and walls are for zone II."""
