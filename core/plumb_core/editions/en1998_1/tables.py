"""Tables of EN 1998-1:2004 with recommended values, as text, to be compared with the printed page line by line."""

from __future__ import annotations

from dataclasses import dataclass

from plumb_core.editions.systems import LateralSystem

TABLES_3_2_AND_3_3 = """
Tables 3.2 and 3.3  S, T_B, T_C, T_D of spectrum type 1 and type 2
ground  S     T_B   T_C   T_D   S     T_B   T_C   T_D
A       1.0   0.15  0.4   2.0   1.0   0.05  0.25  1.2
B       1.2   0.15  0.5   2.0   1.35  0.05  0.25  1.2
C       1.15  0.20  0.6   2.0   1.5   0.10  0.25  1.2
D       1.35  0.20  0.8   2.0   1.8   0.10  0.30  1.2
E       1.4   0.15  0.5   2.0   1.6   0.05  0.25  1.2
"""

TABLE_3_4 = {1: 0.90, 2: 0.45}
"""a_vg/a_g by type of spectrum."""
VERTICAL_T_B, VERTICAL_T_C, VERTICAL_T_D = 0.05, 0.15, 1.0
"""Table 3.4, the same for both types."""

TABLE_A_1 = {"A": 4.5, "B": 5.0, "C": 6.0, "D": 6.0, "E": 6.0}
"""T_E, s, by ground type (Annex A, for type 1); T_F is 10 s throughout."""
T_F = 10.0

GAMMA_I = {"I": 0.8, "II": 1.0, "III": 1.2, "IV": 1.4}
"""4.2.5(5), note."""
NU = {"I": 0.5, "II": 0.5, "III": 0.4, "IV": 0.4}
"""4.4.3.2(2), note."""

C_T = {"steel_mrf": 0.085, "rc_mrf": 0.075, "steel_ebf": 0.075, "other": 0.05}
"""4.3.3.2.2(3)."""

PSI_2 = {"A": 0.3, "B": 0.3, "C": 0.6, "D": 0.6, "E": 0.8, "F": 0.6, "G": 0.3, "H": 0.0}
"""EN 1990 Table A1.1, category of use A to H."""

TABLE_5_1_TO_9_1 = """
id                          DCM  DCH  over M H  ratio k_w title
rc_frame_multi_bay          3.0  4.5       y y  1.3   no  concrete frames, several stories and bays
rc_frame_one_bay            3.0  4.5       y y  1.2   no  concrete frames, several stories, one bay
rc_frame_one_story          3.0  4.5       y y  1.1   no  concrete frames, one story
rc_dual_frame               3.0  4.5       y y  1.3   no  dual concrete system, frame-equivalent
rc_dual_wall                3.0  4.5       y y  1.2   yes dual concrete system, wall-equivalent
rc_coupled_walls            3.0  4.5       y y  1.2   yes coupled concrete walls
rc_walls                    3.0  4.0       n y  1.1   yes uncoupled concrete walls
rc_two_walls                3.0  4.0       n y  1.0   yes two uncoupled concrete walls in each direction
rc_light_walls              3.0  -         n n  1.0   yes large lightly reinforced concrete walls
rc_torsionally_flexible     2.0  3.0       n n  1.0   yes torsionally flexible concrete system
rc_inverted_pendulum        1.5  2.0       n n  1.0   no  concrete inverted pendulum
steel_mrf                   4.0  5.0       n y  1.3   no  steel moment frames, several stories and bays
steel_mrf_one_bay           4.0  5.0       n y  1.2   no  steel moment frames, several stories, one bay
steel_mrf_one_story         4.0  5.0       n y  1.1   no  steel portal frames, one story
steel_cbf_diagonal          4.0  4.0       n n  1.0   no  steel concentric bracing, diagonals
steel_cbf_v                 2.0  2.5       n n  1.0   no  steel concentric V bracing
steel_ebf                   4.0  5.0       n y  1.2   no  steel eccentric bracing
steel_inverted_pendulum     2.0  2.0       n y  1.0   no  steel inverted pendulum
steel_mrf_cbf               4.0  4.0       n y  1.2   no  steel moment frames with concentric bracing
steel_infill_in_contact     2.0  2.0       n n  1.0   no  steel moment frames with infills in contact, not connected
steel_infill_isolated       4.0  5.0       n y  1.3   no  steel moment frames with isolated infills
composite_mrf               4.0  5.0       n y  1.3   no  composite moment frames, several stories and bays (Table 7.2 a)
composite_mrf_one_bay       4.0  5.0       n y  1.2   no  composite moment frames, several stories, one bay (Table 7.2 a)
composite_mrf_one_story     4.0  5.0       n y  1.1   no  composite portal frames, one story (Table 7.2 a)
composite_cbf_diagonal      4.0  4.0       n n  1.0   no  composite concentric bracing, diagonals (Table 7.2 b)
composite_cbf_v             2.0  2.5       n n  1.0   no  composite concentric V bracing (Table 7.2 b)
composite_ebf               4.0  5.0       n y  1.2   no  composite eccentric bracing (Table 7.2 c)
composite_inverted_pendulum 2.0  2.0       n y  1.0   no  composite inverted pendulum (Table 7.2 d)
composite_walls             3.0  4.0       y y  -     no  composite walls of type 1 or 2 (Table 7.2 e)
composite_coupled_walls     3.0  4.5       y y  -     no  composite or concrete walls coupled by steel or composite beams, type 3 (Table 7.2 e)
composite_plate_walls       3.0  4.0       y y  -     no  composite steel plate shear walls (Table 7.2 f)
timber_panels_glued         2.0  -         n n  1.0   no  timber, glued wall panels with glued diaphragms, connected with nails and bolts
timber_trusses_doweled      2.0  -         n n  1.0   no  timber, trusses with doweled and bolted joints
timber_mixed                2.0  -         n n  1.0   no  timber framing that takes the horizontal forces, with non-load-bearing infill
timber_frames               2.5  4.0       n n  1.0   no  timber, hyperstatic portal frames with doweled and bolted joints
timber_panels_nailed_glued  -    3.0       n n  1.0   no  timber, nailed wall panels with glued diaphragms, connected with nails and bolts
timber_trusses              -    3.0       n n  1.0   no  timber, trusses with nailed joints
timber_panels_nailed        -    5.0       n n  1.0   no  timber, nailed wall panels with nailed diaphragms, connected with nails and bolts
masonry_unreinforced        1.5  1.5       n n  1.0   no  unreinforced masonry
masonry_confined            2.0  2.0       n n  1.0   no  confined masonry
masonry_reinforced          2.5  2.5       n n  1.0   no  reinforced masonry
"""
# M, H: whether the overstrength ratio multiplies the value in class DCM, DCH; ratio: its default ("-" none is given);
# "-" for a class: the tables do not list the system there (Table 8.1 gives each timber system one class, or two)

RATIO_MOST = {"rc": 1.5, "steel": 1.6, "composite": 1.6}
"""Greatest overstrength ratio by material, the beginning of a system's id: 5.2.2.2(8), 6.3.2(4), 7.3.2(4)."""

PERIOD_TYPES = (
    ("rc_frame", ("rc_mrf",)),
    ("steel_mrf_cbf", ("other",)),
    ("steel_mrf", ("steel_mrf",)),
    ("steel_infill_isolated", ("steel_mrf",)),
    ("steel_ebf", ("steel_ebf",)),
    ("composite_mrf", ("steel_mrf", "rc_mrf", "other")),
    ("composite_ebf", ("steel_ebf", "other")),
)
"""Rows of 4.3.3.2.2(3) that fit the systems, by the beginning of their ids; all other systems elsewhere."""


@dataclass(frozen=True, slots=True)
class Behaviour:
    """One row of the tables of behaviour factors."""

    title: str
    q_0: dict[str, float | None]
    multiplied: dict[str, bool]
    ratio: float | None
    walls: bool


def _behaviours() -> dict[str, Behaviour]:
    rows = {}
    for line in TABLE_5_1_TO_9_1.strip().splitlines()[1:]:
        name, dcm, dch, m, h, ratio, walls, title = line.split(maxsplit=7)
        rows[name] = Behaviour(
            title,
            {"DCL": 1.5, "DCM": None if dcm == "-" else float(dcm), "DCH": None if dch == "-" else float(dch)},
            {"DCL": False, "DCM": m == "y", "DCH": h == "y"},
            None if ratio == "-" else float(ratio),
            walls == "yes",
        )
    return rows


def _grounds() -> dict[int, dict[str, tuple[float, float, float, float]]]:
    types: dict[int, dict[str, tuple[float, float, float, float]]] = {1: {}, 2: {}}
    for line in TABLES_3_2_AND_3_3.strip().splitlines()[2:]:
        name, *values = line.split()
        numbers = [float(v) for v in values]
        types[1][name] = (numbers[0], numbers[1], numbers[2], numbers[3])
        types[2][name] = (numbers[4], numbers[5], numbers[6], numbers[7])
    return types


BEHAVIOUR = _behaviours()
SYSTEMS = {
    name: LateralSystem(b.title, {"q_0": b.q_0["DCM"] or b.q_0["DCH"] or 1.5}, {}) for name, b in BEHAVIOUR.items()
}
GROUND = _grounds()
