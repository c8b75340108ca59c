"""Tables of UBC 1997, volume 2, chapter 16, as text, to be compared with the printed page line by line."""

from __future__ import annotations

from plumb_core.editions.systems import LateralSystem, read_table

TABLE_16_I = {"1": 0.075, "2A": 0.15, "2B": 0.20, "3": 0.30, "4": 0.40}
"""Seismic zone factor Z."""

TABLE_16_K = {"1": 1.25, "2": 1.25, "3": 1.0, "4": 1.0, "5": 1.0}
"""Importance factor I by occupancy category."""

TABLE_16_Q = """
Table 16-Q  Seismic coefficient C_a (zone 4 times N_a)
soil    1     2A    2B    3     4
S_A     0.06  0.12  0.16  0.24  0.32
S_B     0.08  0.15  0.20  0.30  0.40
S_C     0.09  0.18  0.24  0.33  0.40
S_D     0.12  0.22  0.28  0.36  0.44
S_E     0.19  0.30  0.34  0.36  0.36
"""

TABLE_16_R = """
Table 16-R  Seismic coefficient C_v (zone 4 times N_v)
soil    1     2A    2B    3     4
S_A     0.06  0.12  0.16  0.24  0.32
S_B     0.08  0.15  0.20  0.30  0.40
S_C     0.13  0.25  0.32  0.45  0.56
S_D     0.18  0.32  0.40  0.54  0.64
S_E     0.26  0.50  0.64  0.84  0.96
"""

TABLE_16_S = """
Table 16-S  Near-source factor N_a by distance (km)
source  2     5     10
A       1.5   1.2   1.0
B       1.3   1.0   1.0
C       1.0   1.0   1.0
"""

TABLE_16_T = """
Table 16-T  Near-source factor N_v by distance (km)
source  2     5     10    15
A       2.0   1.6   1.2   1.0
B       1.6   1.2   1.0   1.0
C       1.0   1.0   1.0   1.0
"""

C_T = {"steel_mrf": 0.0853, "rc_mrf": 0.0731, "steel_ebf": 0.0731, "other": 0.0488}
"""C_t of 1630.2.2 for heights in metres."""

TABLE_16_N = """
id                          R    Omega_0 H   system (greatest height in zones 3 and 4, ft)
BW_light_wood               5.5  2.8     65  light-framed walls with wood structural panels, up to three stories (bearing wall)
BW_light_other              4.5  2.8     65  other light-framed walls (bearing wall)
BW_conc_wall                4.5  2.8     160 concrete shear walls (bearing wall)
BW_mas_wall                 4.5  2.8     160 masonry shear walls (bearing wall)
BW_tension_only             2.8  2.2     65  light steel walls with tension-only bracing (bearing wall)
BW_steel_braced             4.4  2.2     160 steel braced frames that carry gravity (bearing wall)
BW_conc_braced              2.8  2.2     NP  concrete braced frames that carry gravity (bearing wall)
BW_timber_braced            2.8  2.2     65  heavy timber braced frames that carry gravity (bearing wall)
BF_EBF                      7.0  2.8     240 steel eccentrically braced frames (building frame)
BF_light_wood               6.5  2.8     65  light-framed walls with wood structural panels, up to three stories (building frame)
BF_light_other              5.0  2.8     65  other light-framed walls (building frame)
BF_conc_wall                5.5  2.8     240 concrete shear walls (building frame)
BF_mas_wall                 5.5  2.8     160 masonry shear walls (building frame)
BF_OCBF                     5.6  2.2     160 ordinary steel braced frames (building frame)
BF_conc_braced              5.6  2.2     NP  ordinary concrete braced frames (building frame)
BF_timber_braced            5.6  2.2     65  ordinary heavy timber braced frames (building frame)
BF_SCBF                     6.4  2.2     240 special concentrically braced steel frames (building frame)
SMRF_steel                  8.5  2.8     NL  special moment-resisting frames of steel
SMRF_conc                   8.5  2.8     NL  special moment-resisting frames of concrete
MMRWF                       6.5  2.8     160 masonry moment-resisting wall frames
IMRF_conc                   5.5  2.8     NP  concrete intermediate moment-resisting frames
OMRF_steel                  4.5  2.8     160 ordinary moment-resisting frames of steel
OMRF_conc                   3.5  2.8     NP  ordinary moment-resisting frames of concrete
STMF                        6.5  2.8     240 special truss moment frames of steel
dual_concwall_SMRF          8.5  2.8     NL  concrete shear walls with SMRF (dual)
dual_concwall_steelOMRF     4.2  2.8     160 concrete shear walls with steel OMRF (dual)
dual_concwall_concIMRF      6.5  2.8     160 concrete shear walls with concrete IMRF (dual)
dual_maswall_SMRF           5.5  2.8     160 masonry shear walls with SMRF (dual)
dual_maswall_steelOMRF      4.2  2.8     160 masonry shear walls with steel OMRF (dual)
dual_maswall_concIMRF       4.2  2.8     NP  masonry shear walls with concrete IMRF (dual)
dual_maswall_MMRWF          6.0  2.8     160 masonry shear walls with masonry wall frames (dual)
dual_EBF_SMRF               8.5  2.8     NL  steel EBF with steel SMRF (dual)
dual_EBF_OMRF               4.2  2.8     160 steel EBF with steel OMRF (dual)
dual_OCBF_SMRF              6.5  2.8     NL  ordinary steel braced frames with steel SMRF (dual)
dual_OCBF_OMRF              4.2  2.8     160 ordinary steel braced frames with steel OMRF (dual)
dual_concbraced_SMRF        6.5  2.8     NP  concrete braced frames with concrete SMRF (dual)
dual_concbraced_IMRF        4.2  2.8     NP  concrete braced frames with concrete IMRF (dual)
dual_SCBF_SMRF              7.5  2.8     NL  special braced frames with steel SMRF (dual)
dual_SCBF_OMRF              4.2  2.8     160 special braced frames with steel OMRF (dual)
cantilever_column           2.2  2.0     35  cantilevered column building systems
wall_frame_interaction_conc 5.5  2.8     160 shear wall and frame interaction, concrete
"""


def _rows(table: str) -> tuple[list[str], dict[str, list[float]]]:
    head, *rows = [line.split() for line in table.strip().splitlines()[1:]]
    return head[1:], {row[0]: [float(v) for v in row[1:]] for row in rows}


def _by_zone(table: str) -> dict[str, dict[str, float]]:
    zones, rows = _rows(table)
    return {soil: dict(zip(zones, values, strict=True)) for soil, values in rows.items()}


def _by_distance(table: str) -> tuple[list[float], dict[str, list[float]]]:
    distances, rows = _rows(table)
    return [float(d) for d in distances], rows


C_A = _by_zone(TABLE_16_Q)
C_V = _by_zone(TABLE_16_R)
N_A = _by_distance(TABLE_16_S)
N_V = _by_distance(TABLE_16_T)

FACTORS = ("R", "Omega_0")


def _systems() -> dict[str, LateralSystem]:
    """The limit of Table 16-N is that of zones 3 and 4.

    Ordinary concrete frames are not permitted in zone 2 either; walls and frames interacting only in zones 0 and 1 (1629.6.6).
    """
    low_only = {"OMRF_conc": ("2A", "2B"), "wall_frame_interaction_conc": ("2A", "2B", "3", "4")}
    systems = {}
    for name, s in read_table(TABLE_16_N, FACTORS, ("H",)).items():
        limit = s.heights["H"]
        heights = {"3": limit, "4": limit} | dict.fromkeys(low_only.get(name, ()), 0.0)
        systems[name] = LateralSystem(s.title, s.factors, heights)
    return systems


SYSTEMS = _systems()

OVER_THREE_STORIES = {"BW_light_wood": "BW_light_other", "BF_light_wood": "BF_light_other"}
"""Rows for light-framed walls with wood panels end at three stories; above them the next row holds."""

PERIOD_TYPES = (
    ("SMRF_steel", ("steel_mrf",)),
    ("OMRF_steel", ("steel_mrf",)),
    ("STMF", ("steel_mrf",)),
    ("SMRF_conc", ("rc_mrf",)),
    ("IMRF_conc", ("rc_mrf",)),
    ("OMRF_conc", ("rc_mrf",)),
    ("BF_EBF", ("steel_ebf",)),
    ("dual_EBF", ("steel_ebf", "other")),
)
"""Rows of 1630.2.2 that fit the systems of Table 16-N, by the beginning of their ids; all other systems elsewhere."""
