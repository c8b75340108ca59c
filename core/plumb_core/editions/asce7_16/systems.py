"""Table 12.2-1 of ASCE/SEI 7-16 (and 7-10): lateral systems with their factors and height limits in feet.

One line a system: R, Omega_0, C_d, greatest heights in category B to F (NL no limit, NP not permitted), and its name.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.editions import conditions
from plumb_core.editions.systems import (
    FOOT,
    LateralSystem,
    as_printed,
    exempt_share,
    height_of,
    names_of,
    permission,
    read_table,
    stacked_factor,
)
from plumb_core.errors import MissingInput
from plumb_core.limits import exceeds
from plumb_core.rules import Array, Rule, rule

TABLE_12_2_1 = """
id                                    R     Omega_0 C_d B    C    D    E    F    system
A_special_RC_shear_wall               5     2.5   5     NL   NL   160  160  100  special reinforced concrete shear walls (bearing walls)
A_ordinary_RC_shear_wall              4     2.5   4     NL   NL   NP   NP   NP   ordinary reinforced concrete shear walls (bearing walls)
A_detailed_plain_concrete_SW          2     2.5   2     NL   NP   NP   NP   NP   detailed plain concrete shear walls (bearing walls)
A_ordinary_plain_concrete_SW          1.5   2.5   1.5   NL   NP   NP   NP   NP   ordinary plain concrete shear walls (bearing walls)
A_intermediate_precast_SW             4     2.5   4     NL   NL   40   40   40   intermediate precast shear walls (bearing walls)
A_ordinary_precast_SW                 3     2.5   3     NL   NP   NP   NP   NP   ordinary precast shear walls (bearing walls)
A_special_RM_SW                       5     2.5   3.5   NL   NL   160  160  100  special reinforced masonry shear walls (bearing walls)
A_intermediate_RM_SW                  3.5   2.5   2.25  NL   NL   NP   NP   NP   intermediate reinforced masonry shear walls (bearing walls)
A_ordinary_RM_SW                      2     2.5   1.75  NL   160  NP   NP   NP   ordinary reinforced masonry shear walls (bearing walls)
A_light_frame_wood_WSP                6.5   3     4     NL   NL   65   65   65   light frame wood structural panels (bearing walls)
A_light_frame_CFS_WSP_or_steel_sheet  6.5   3     4     NL   NL   65   65   65   light frame cold-formed steel wood structural panels or steel sheet (bearing walls)
A_light_frame_other_panels            2     2.5   2     NL   NL   35   NP   NP   light frame other panels (bearing walls)
A_CFS_flat_strap                      4     2     3.5   NL   NL   65   65   65   cold-formed steel flat strap (bearing walls)
B_steel_EBF                           8     2     4     NL   NL   160  160  100  steel eccentrically braced frames (building frame)
B_steel_SCBF                          6     2     5     NL   NL   160  160  100  steel special concentrically braced frames (building frame)
B_steel_OCBF                          3.25  2     3.25  NL   NL   35   35   NP   steel ordinary concentrically braced frames (building frame)
B_special_RC_SW                       6     2.5   5     NL   NL   160  160  100  special reinforced concrete shear walls (building frame)
B_ordinary_RC_SW                      5     2.5   4.5   NL   NL   NP   NP   NP   ordinary reinforced concrete shear walls (building frame)
B_intermediate_precast_SW             5     2.5   4.5   NL   NL   40   40   40   intermediate precast shear walls (building frame)
B_ordinary_precast_SW                 4     2.5   4     NL   NP   NP   NP   NP   ordinary precast shear walls (building frame)
B_composite_EBF                       8     2.5   4     NL   NL   160  160  100  composite eccentrically braced frames (building frame)
B_composite_SCBF                      5     2     4.5   NL   NL   160  160  100  composite special concentrically braced frames (building frame)
B_composite_OBF                       3     2     3     NL   NL   NP   NP   NP   composite ordinary braced frames (building frame)
B_composite_plate_SW                  6.5   2.5   5.5   NL   NL   160  160  100  composite plate shear walls (building frame)
B_composite_special_SW                6     2.5   5     NL   NL   160  160  100  composite special shear walls (building frame)
B_composite_ordinary_SW               5     2.5   4.5   NL   NL   NP   NP   NP   composite ordinary shear walls (building frame)
B_special_RM_SW                       5.5   2.5   4     NL   NL   160  160  100  special reinforced masonry shear walls (building frame)
B_intermediate_RM_SW                  4     2.5   4     NL   NL   NP   NP   NP   intermediate reinforced masonry shear walls (building frame)
B_ordinary_RM_SW                      2     2.5   2     NL   160  NP   NP   NP   ordinary reinforced masonry shear walls (building frame)
B_light_frame_wood_WSP                7     2.5   4.5   NL   NL   65   65   65   light frame wood structural panels (building frame)
B_light_frame_CFS_WSP                 7     2.5   4.5   NL   NL   65   65   65   light frame cold-formed steel wood structural panels (building frame)
B_light_frame_other_panels            2.5   2.5   2.5   NL   NL   35   NP   NP   light frame other panels (building frame)
B_steel_BRBF                          8     2.5   5     NL   NL   160  160  100  steel buckling-restrained braced frames (building frame)
B_steel_SPSW                          7     2     6     NL   NL   160  160  100  steel special plate shear walls (building frame)
C_steel_SMF                           8     3     5.5   NL   NL   NL   NL   NL   steel special moment frames (moment frame)
C_steel_STMF                          7     3     5.5   NL   NL   160  100  NP   steel special truss moment frames (moment frame)
C_steel_IMF                           4.5   3     4     NL   NL   35   NP   NP   steel intermediate moment frames (moment frame)
C_steel_OMF                           3.5   3     3     NL   NL   NP   NP   NP   steel ordinary moment frames (moment frame)
C_RC_SMF                              8     3     5.5   NL   NL   NL   NL   NL   reinforced concrete special moment frames (moment frame)
C_RC_IMF                              5     3     4.5   NL   NL   NP   NP   NP   reinforced concrete intermediate moment frames (moment frame)
C_RC_OMF                              3     3     2.5   NL   NP   NP   NP   NP   reinforced concrete ordinary moment frames (moment frame)
C_composite_SMF                       8     3     5.5   NL   NL   NL   NL   NL   composite special moment frames (moment frame)
C_composite_IMF                       5     3     4.5   NL   NL   NP   NP   NP   composite intermediate moment frames (moment frame)
C_composite_PRMF                      6     3     5.5   160  160  100  NP   NP   composite partially restrained moment frames (moment frame)
C_composite_OMF                       3     3     2.5   NL   NP   NP   NP   NP   composite ordinary moment frames (moment frame)
C_CFS_special_bolted_MF               3.5   3     3.5   35   35   35   35   35   cold-formed steel special bolted moment frames (moment frame)
D_SMF_steel_EBF                       8     2.5   4     NL   NL   NL   NL   NL   steel eccentrically braced frames (dual with special moment frames)
D_SMF_steel_SCBF                      7     2.5   5.5   NL   NL   NL   NL   NL   steel special concentrically braced frames (dual with special moment frames)
D_SMF_special_RC_SW                   7     2.5   5.5   NL   NL   NL   NL   NL   special reinforced concrete shear walls (dual with special moment frames)
D_SMF_ordinary_RC_SW                  6     2.5   5     NL   NL   NP   NP   NP   ordinary reinforced concrete shear walls (dual with special moment frames)
D_SMF_composite_EBF                   8     2.5   4     NL   NL   NL   NL   NL   composite eccentrically braced frames (dual with special moment frames)
D_SMF_composite_SCBF                  6     2.5   5     NL   NL   NL   NL   NL   composite special concentrically braced frames (dual with special moment frames)
D_SMF_composite_plate_SW              7.5   2.5   6     NL   NL   NL   NL   NL   composite plate shear walls (dual with special moment frames)
D_SMF_composite_special_SW            7     2.5   6     NL   NL   NL   NL   NL   composite special shear walls (dual with special moment frames)
D_SMF_composite_ordinary_SW           6     2.5   5     NL   NL   NP   NP   NP   composite ordinary shear walls (dual with special moment frames)
D_SMF_special_RM_SW                   5.5   3     5     NL   NL   NL   NL   NL   special reinforced masonry shear walls (dual with special moment frames)
D_SMF_intermediate_RM_SW              4     3     3.5   NL   NL   NP   NP   NP   intermediate reinforced masonry shear walls (dual with special moment frames)
D_SMF_BRBF                            8     2.5   5     NL   NL   NL   NL   NL   buckling-restrained braced frames (dual with special moment frames)
D_SMF_SPSW                            8     2.5   6.5   NL   NL   NL   NL   NL   steel special plate shear walls (dual with special moment frames)
E_IMF_SCBF                            6     2.5   5     NL   NL   35   NP   NP   special concentrically braced frames (dual with intermediate moment frames)
E_IMF_special_RC_SW                   6.5   2.5   5     NL   NL   160  100  100  special reinforced concrete shear walls (dual with intermediate moment frames)
E_IMF_ordinary_RM_SW                  3     3     2.5   NL   160  NP   NP   NP   ordinary reinforced masonry shear walls (dual with intermediate moment frames)
E_IMF_intermediate_RM_SW              3.5   3     3     NL   NL   NP   NP   NP   intermediate reinforced masonry shear walls (dual with intermediate moment frames)
E_IMF_composite_SCBF                  5.5   2.5   4.5   NL   NL   160  100  NP   composite special concentrically braced frames (dual with intermediate moment frames)
E_IMF_composite_OBF                   3.5   2.5   3     NL   NL   NP   NP   NP   composite ordinary braced frames (dual with intermediate moment frames)
E_IMF_composite_ordinary_SW           5     3     4.5   NL   NL   NP   NP   NP   composite ordinary shear walls (dual with intermediate moment frames)
E_IMF_ordinary_RC_SW                  5.5   2.5   4.5   NL   NL   NP   NP   NP   ordinary reinforced concrete shear walls (dual with intermediate moment frames)
F_SW_frame_interactive_ordinary_RC    4.5   2.5   4     NL   NP   NP   NP   NP   shear walls and frames interacting, ordinary reinforced concrete (interactive)
G_cantilever_steel_special            2.5   1.25  2.5   35   35   35   35   35   cantilever steel special (cantilevered columns)
G_cantilever_steel_ordinary           1.25  1.25  1.25  35   35   NP   NP   NP   cantilever steel ordinary (cantilevered columns)
G_cantilever_RC_special               2.5   1.25  2.5   35   35   35   35   35   cantilever reinforced concrete special (cantilevered columns)
G_cantilever_RC_intermediate          1.5   1.25  1.5   35   35   NP   NP   NP   cantilever reinforced concrete intermediate (cantilevered columns)
G_cantilever_RC_ordinary              1     1.25  1     35   NP   NP   NP   NP   cantilever reinforced concrete ordinary (cantilevered columns)
G_cantilever_timber                   1.5   1.5   1.5   35   35   35   NP   NP   cantilever timber (cantilevered columns)
H_steel_not_detailed                  3     3     3     NL   NL   NP   NP   NP   steel systems not detailed for seismic resistance
"""

CATEGORIES = ("B", "C", "D", "E", "F")
FACTORS = ("R", "Omega_0", "C_d")
SYSTEMS = read_table(TABLE_12_2_1, FACTORS, CATEGORIES)

PERIOD_TYPES = (
    ("C_steel", ("steel_mrf",)),
    ("C_RC", ("rc_mrf",)),
    ("C_composite", ("steel_mrf", "rc_mrf", "other")),
    ("C_CFS", ("steel_mrf", "other")),
    ("B_steel_EBF", ("steel_ebf",)),
    ("D_SMF_steel_EBF", ("steel_ebf",)),
    ("B_composite_EBF", ("steel_ebf", "other")),
    ("D_SMF_composite_EBF", ("steel_ebf", "other")),
    ("B_steel_BRBF", ("steel_brbf",)),
    ("D_SMF_BRBF", ("steel_brbf",)),
    ("H_", ("steel_mrf", "other")),
)
"""Rows of Table 12.8-2 that fit the systems of Table 12.2-1, by the beginning of their ids; all other systems elsewhere."""


def of_moment_frames(lateral_system: str, period_type: str, others: Sequence[Mapping[str, Any]]) -> bool:
    """Whether the seismic force-resisting system is of moment frames only: part C of the table, else by the period type."""
    names = [lateral_system, *(s["lateral_system"] for s in others)] if lateral_system else []
    return all(n.startswith("C_") for n in names) if names else period_type in ("steel_mrf", "rc_mrf")


@rule(clause="12.12.1.1, Table 12.2-1 part C")
def only_moment_frames(
    lateral_system: str = "",
    period_type: str = "",
    stacked_systems: tuple[dict[str, Any], ...] = (),
    beside_systems: tuple[dict[str, Any], ...] = (),
) -> bool:
    """Whether the direction has moment frames only, by its systems, else by the structure type of its period."""
    return of_moment_frames(lateral_system, period_type, (*stacked_systems, *beside_systems))


INCREASED = ("steel_EBF", "steel_SCBF", "steel_BRBF", "steel_SPSW", "special_RC_SW", "special_RC_shear_wall")
"""12.2.5.4: steel eccentrically braced, special concentrically braced and buckling-restrained braced frames, steel special
plate shear walls, and special reinforced concrete shear walls, by what their ids contain."""
INCREASE = {"D": (160, 240), "E": (160, 240), "F": (100, 160)}
"""12.2.5.4: limits in feet and what they are increased to, by category."""
PLANE_SHARE = 0.60


def increased(
    permitted: str,
    names: Sequence[str],
    category: str,
    limit: float,
    h_n: float,
    types: Sequence[str],
    plane_share: float | None,
) -> str:
    """Words of the permission with the height increase of 12.2.5.4 where the systems have it.

    Its conditions: no extreme torsional irregularity, and no more than 60 % of the force in one plane of frames or walls.
    """
    base, raised = INCREASE.get(category, (0, 0))
    eligible = all(n[:2] in ("A_", "B_") and any(part in n for part in INCREASED) for n in names)
    if not eligible or abs(limit - base * FOOT) > 0.01 or exceeds(h_n, as_printed(raised * FOOT)):
        return permitted
    if "extreme_torsional" in types:
        return f"{permitted}; no increase with an extreme torsional irregularity (12.2.5.4)"
    if plane_share is None:
        return (
            f"open: above {base * FOOT:.1f} m; permitted up to {raised * FOOT:.1f} m in category {category} where no plane of "
            "braced frames or walls carries more than 60 % of the force (12.2.5.4), which is not stated"
        )
    if exceeds(plane_share, PLANE_SHARE):
        return f"{permitted}; no increase with {plane_share:.0%} of the force in one plane (12.2.5.4)"
    return f"permitted up to {raised * FOOT:.1f} m (12.2.5.4)"


def banned_types(types: Sequence[str], category: str) -> str:
    """Words where a type of irregularity is not permitted in the category (12.3.3.1), else empty."""
    banned = {
        "extreme_torsional": ("EF", "extreme torsional irregularity"),
        "extreme_soft_story": ("EF", "extreme soft story"),
        "weak_story": ("EF", "weak story"),
        "extreme_weak_story": ("DEF", "extreme weak story"),
    }
    found = [words for name, (categories, words) in banned.items() if name in types and category in categories]
    return f"not permitted in category {category}: {', '.join(found)} (12.3.3.1)" if found else ""


def system_rules(systems: dict[str, LateralSystem], greatest: bool = False) -> tuple[Rule, ...]:
    """R, Omega_0, C_d, height limit and permission from a table of this form.

    greatest : the greatest Omega_0 and C_d hold of systems side by side and of those above (7-05)
    """

    @rule(clause="12.2.1, Table 12.2-1", tex=r"\q{height_limit} = \text{Table 12.2-1}(\q{lateral_system})")
    def height_limit(
        lateral_system: str,
        design_category: str,
        stacked_systems: tuple[dict[str, str], ...] = (),
        beside_systems: tuple[dict[str, str], ...] = (),
        w: Array | None = None,
    ) -> float:
        """Greatest structural height of the system, m, in the category; 0 where it is not permitted."""
        names = names_of(lateral_system, stacked_systems, beside_systems, w)
        return height_of(systems, names, design_category)

    @rule(clause="12.2.1, 12.2.5.4, 12.3.3.1, Table 12.2-1")
    def system_permission(
        design_category: str,
        height_limit: float | None = None,
        h_n: float | None = None,
        lateral_system: str = "",
        stacked_systems: tuple[dict[str, Any], ...] = (),
        beside_systems: tuple[dict[str, Any], ...] = (),
        w: Array | None = None,
        irregular_types: Sequence[str] = (),
        plane_share: float | None = None,
    ) -> str:
        """Whether the system is permitted here: by category and height, and with the irregularities that are there.

        plane_share : greatest share of the lateral force in one plane of braced frames or walls, for the height increase of
        12.2.5.4
        """
        banned = banned_types(irregular_types, design_category)
        if banned:
            return banned
        if height_limit is None:
            raise MissingInput("lateral_system")
        if h_n is None:
            raise MissingInput("h")
        refused = [
            f"{s['lateral_system']} is declared exempt ({s['exempt']}), but {why}"
            for s in stacked_systems
            if s.get("exempt") and (why := exempt_share(s, w))
        ]
        permitted = permission(height_limit, h_n, f"category {design_category}", as_printed)
        names = names_of(lateral_system, stacked_systems, beside_systems, w)
        if permitted.startswith("too tall"):
            permitted = increased(permitted, names, design_category, height_limit, h_n, irregular_types, plane_share)
        return "; ".join([permitted, *refused])

    clause = "12.2.1, 12.2.3.1, 12.2.3.3, Table 12.2-1" if not greatest else "12.2.1, 12.2.3.1, 12.2.3.2, Table 12.2-1"
    factors = tuple(stacked_factor(name, systems, clause, greatest) for name in FACTORS)
    return (
        *factors,
        only_moment_frames,
        height_limit,
        system_permission,
        conditions.dual_systems(("D_", "E_"), "12.2.5.1", ("G_", 0.15, "12.2.5.2")),
        *conditions.flexible_diaphragm(2.0, "12.3.1", "12.8.4.2"),
    )


RULES = system_rules(SYSTEMS)
