"""Table 12.2-1 of ASCE/SEI 7-05 where it differs from that of 7-10: additional rows, and rows that it does not have."""

from __future__ import annotations

from plumb_core.editions.asce7_16.systems import CATEGORIES, FACTORS, system_rules
from plumb_core.editions.asce7_16.systems import SYSTEMS as LATER
from plumb_core.editions.systems import read_table

TABLE_12_2_1 = """
id                                          R     Omega_0 C_d B    C    D    E    F    system
B_composite_EBF                             8     2     4     NL   NL   160  160  100  composite eccentrically braced frames (building frame)
B_steel_EBF_moment_conn_away_from_links     8     2     4     NL   NL   160  160  100  steel eccentrically braced frames moment connections away from links (building frame)
B_steel_EBF_nonmoment_conn_away_from_links  7     2     4     NL   NL   160  160  100  steel eccentrically braced frames non-moment connections away from links (building frame)
B_steel_BRBF_nonmoment_beam_col             7     2     5.5   NL   NL   160  160  100  steel buckling-restrained braced frames non-moment beam column (building frame)
B_steel_BRBF_moment_beam_col                8     2.5   5     NL   NL   160  160  100  steel buckling-restrained braced frames moment beam column (building frame)
G_cantilever_steel_intermediate             1.5   1.25  1.5   35   35   35   NP   NP   cantilever steel intermediate (cantilevered columns)
"""
LATER_ONLY = (
    "A_light_frame_CFS_WSP_or_steel_sheet",
    "B_steel_EBF",
    "B_light_frame_CFS_WSP",
    "B_steel_BRBF",
    "C_CFS_special_bolted_MF",
)
"""Rows that came with 7-10; eccentric and buckling-restrained braces had two rows each, by their connections."""

SYSTEMS = {k: v for k, v in LATER.items() if k not in LATER_ONLY} | read_table(TABLE_12_2_1, FACTORS, CATEGORIES)
RULES = system_rules(SYSTEMS, greatest=True)
