"""Tables of IS 1893 (Part 1):2002 as text, to be compared with the printed page line by line."""

from __future__ import annotations

from plumb_core.editions.systems import read_table

TABLE_2 = {"II": 0.10, "III": 0.16, "IV": 0.24, "V": 0.36}
"""Zone factor Z."""

TABLE_6 = {"important": 1.5, "other": 1.0}
"""Importance factor I by use."""

SOIL = {"I": (0.40, 1.00), "II": (0.55, 1.36), "III": (0.67, 1.67)}
"""6.4.5: end of the plateau (s) and coefficient of the falling branch, 5 % damping."""

TABLE_3 = ((0.0, 2.0, 5.0, 7.0, 10.0, 15.0, 20.0, 25.0, 30.0), (3.20, 1.40, 1.00, 0.90, 0.80, 0.70, 0.60, 0.55, 0.50))
"""Damping (%) and the factor on S_a/g."""

PERIOD = {"rc_mrf": 0.075, "steel_mrf": 0.085, "other": None}
"""7.6: coefficient of h^0.75; all other buildings by 0.09 h/sqrt(d)."""

TABLE_7 = """
id                     R    system
RC_OMRF                3.0  ordinary moment-resisting frames of reinforced concrete
RC_SMRF                5.0  special moment-resisting frames of reinforced concrete
steel_CBF              4.0  steel frames with concentric braces
steel_EBF              5.0  steel frames with eccentric braces
steel_SMRF             5.0  steel moment-resisting frames to SP 6 (6)
masonry                1.5  load-bearing masonry, unreinforced
masonry_bands          2.5  load-bearing masonry with horizontal bands
masonry_bands_bars     3.0  load-bearing masonry with horizontal bands and vertical bars
RC_wall                3.0  ordinary reinforced concrete shear walls
RC_ductile_wall        4.0  ductile shear walls
dual_wall_OMRF         3.0  ordinary shear walls with OMRF
dual_wall_SMRF         4.0  ordinary shear walls with SMRF
dual_ductile_wall_OMRF 4.5  ductile shear walls with OMRF
dual_ductile_wall_SMRF 5.0  ductile shear walls with SMRF
"""

SYSTEMS = read_table(TABLE_7, ("R",))
PROHIBITED = {"RC_wall": ("IV", "V"), "dual_wall_OMRF": ("IV", "V"), "dual_wall_SMRF": ("IV", "V")}
"""Table 7, note: ordinary walls not in zones IV and V."""
