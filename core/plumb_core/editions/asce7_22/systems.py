"""Table 12.2-1 of ASCE/SEI 7-22: the systems of 7-16 and those that came new."""

from __future__ import annotations

from plumb_core.editions.asce7_16.systems import CATEGORIES, FACTORS, system_rules
from plumb_core.editions.asce7_16.systems import SYSTEMS as EARLIER
from plumb_core.editions.systems import read_table

TABLE_12_2_1 = """
id                                                R     Omega_0 C_d B    C    D    E    F    system
A_RC_ductile_coupled_walls                        8     2.5   8     NL   NL   160  160  100  reinforced concrete ductile coupled walls (bearing walls)
B_RC_ductile_coupled_walls                        8     2.5   8     NL   NL   160  160  100  reinforced concrete ductile coupled walls (building frame)
D_SMF_RC_ductile_coupled_walls                    8     2.5   8     NL   NL   NL   NL   NL   reinforced concrete ductile coupled walls (dual with special moment frames)
B_coupled_composite_plate_SW_concrete_filled      8     2.5   5.5   NL   NL   160  160  100  coupled composite plate shear walls concrete filled (building frame)
D_SMF_coupled_composite_plate_SW_concrete_filled  8     2.5   5.5   NL   NL   NL   NL   NL   coupled composite plate shear walls concrete filled (dual with special moment frames)
A_CLT_shear_walls                                 3     3     3     65   65   65   65   65   cross-laminated timber shear walls (bearing walls)
A_CLT_high_aspect_ratio_only                      4     3     4     65   65   65   65   65   cross-laminated timber high aspect ratio only (bearing walls)
"""

SYSTEMS = EARLIER | read_table(TABLE_12_2_1, FACTORS, CATEGORIES)
RULES = system_rules(SYSTEMS)
