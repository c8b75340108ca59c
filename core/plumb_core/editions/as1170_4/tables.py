"""Tables of AS 1170.4-2007 with amendments 1 and 2, as text, to be compared with the printed page line by line."""

from __future__ import annotations

import math

from plumb_core.editions.systems import read_table
from plumb_core.limits import below, exceeds, within

K_P = {1: 0.75, 2: 1.0, 3: 1.3, 4: 1.5}
"""Table 3.1 at the annual probability of the building code: 1/250, 1/500, 1/1000, 1/1500 by importance level."""

TABLE_3_1 = {
    "1/2500": 1.8,
    "1/2000": 1.7,
    "1/1500": 1.5,
    "1/1000": 1.3,
    "1/800": 1.25,
    "1/500": 1.0,
    "1/250": 0.75,
    "1/200": 0.7,
    "1/100": 0.5,
    "1/50": 0.35,
    "1/25": 0.25,
    "1/20": 0.20,
}
"""Probability factor by annual probability of exceedance."""

TABLE_3_3 = ((1.0, 1.3, 1.5, 1.7, 1.8), (0.08, 0.10, 0.12, 0.14, 0.15))
"""Amendment 2: probability factor and least k_p Z; interpolated between, none below k_p = 1.0."""

TABLE_6_4 = """
Table 6.4  Spectral shape factor: C_h(0) and slope up to 0.1 s, plateau, coefficient of 1/T up to 1.5 s, of 1/T^2 beyond
class  at_0  slope  plateau  over_T  over_T2
A_e    0.8   15.5   2.35     0.704   1.056
B_e    1.0   19.4   2.94     0.88    1.32
C_e    1.3   23.8   3.68     1.25    1.874
D_e    1.1   25.8   3.68     1.98    2.97
E_e    1.1   25.8   3.68     3.08    4.62
"""

K_T = {"steel_mrf": 0.11, "rc_mrf": 0.075, "steel_ebf": 0.06, "other": 0.05}
"""6.2.3."""

TABLE_2_1 = """
Table 2.1  Earthquake design category by importance level, greatest k_p Z of the sub-soil class, and height (m, up to)
level  D_e_E_e  C_e   B_e   A_e   category_by_height
2      0.05     0.08  0.11  0.14  12:I 50:II inf:III
2      0.08     0.12  0.17  0.21  50:II inf:III
2      inf      inf   inf   inf   25:II inf:III
3      0.08     0.12  0.17  0.21  50:II inf:III
3      inf      inf   inf   inf   25:II inf:III
4      inf      inf   inf   inf   12:II inf:III
"""

TABLE_5_4 = """
Table 5.4  K_s of stories, from the top down
stories  class  K_s
5        A_e    2.5 1.9 1.4 1.0 0.5
5        B_e    3.1 2.5 1.8 1.2 0.6
5        C_e    4.4 3.5 2.6 1.7 0.9
5        D_e    6.1 4.9 3.6 2.5 1.2
4        A_e    2.7 2.0 1.4 0.6
4        B_e    3.5 2.6 1.7 0.9
4        C_e    4.9 3.6 2.5 1.2
4        D_e    5.8 4.4 3.0 1.4
3        A_e    3.1 2.0 1.0
3        B_e    3.9 2.6 1.3
3        C_e    5.5 3.6 1.8
3        D_e    5.5 3.6 1.8
2        A_e    3.1 1.6
2        B_e    3.9 1.9
2        C_e    4.9 2.5
2        D_e    4.9 2.5
1        A_e    2.3
1        B_e    3.0
1        C_e    3.6
1        D_e    3.6
"""
# E_e has the values of D_e

TABLE_6_5_A = """
id                   mu    S_p   system
steel_SMRF           4     0.67  special moment-resisting frames of steel (mu above 3: outside the standard)
steel_IMRF           3     0.67  intermediate moment-resisting frames of steel
steel_OMRF           2     0.77  ordinary moment-resisting frames of steel
steel_CBF_moderate   3     0.67  moderately ductile concentrically braced frames of steel
steel_CBF_limited    2     0.77  limited ductile concentrically braced frames of steel
steel_EBF            4     0.67  fully ductile eccentrically braced frames of steel (mu above 3: outside the standard)
steel_other          2     0.77  other steel structures
RC_SMRF              4     0.67  special moment-resisting frames of concrete (mu above 3: outside the standard)
RC_IMRF              3     0.67  intermediate moment-resisting frames of concrete
RC_OMRF              2     0.77  ordinary moment-resisting frames of concrete
RC_coupled_walls     4     0.67  ductile coupled walls (mu above 3: outside the standard)
RC_partly_coupled    4     0.67  ductile partially coupled walls (mu above 3: outside the standard)
RC_ductile_wall      3     0.67  ductile shear walls
RC_limited_wall      2     0.77  limited ductile shear walls
RC_OMRF_limited_wall 2     0.77  ordinary moment-resisting frames with limited ductile shear walls
RC_other             2     0.77  other concrete structures
timber_wall          3     0.67  timber shear walls
timber_braced        2     0.77  timber braced frames with ductile connections
timber_MRF           2     0.77  timber moment-resisting frames
timber_other         2     0.77  other timber and gypsum structures
masonry_close        2     0.77  close-spaced reinforced masonry
masonry_wide         1.5   0.77  wide-spaced reinforced masonry
masonry_unreinforced 1.25  0.77  unreinforced masonry
masonry_other        1.0   0.77  other masonry
"""


def _lines(table: str) -> list[list[str]]:
    return [line.split() for line in table.strip().splitlines()[2:]]


SHAPE = {row[0]: tuple(float(v) for v in row[1:]) for row in _lines(TABLE_6_4)}
SYSTEMS = read_table(TABLE_6_5_A, ("mu", "S_p"))
K_S: dict[int, dict[str, list[float]]] = {}
for _stories, _soil, *_values in _lines(TABLE_5_4):
    K_S.setdefault(int(_stories), {})[_soil] = [float(v) for v in reversed(_values)]
for _rows in K_S.values():
    _rows["E_e"] = _rows["D_e"]


def category(importance_level: int, kpZ: float, subsoil: str, h_n: float) -> str:
    """Earthquake design category of Table 2.1; "none" for level 1."""
    column = {"E_e": 1, "D_e": 1, "C_e": 2, "B_e": 3, "A_e": 4}[subsoil]
    for row in _lines(TABLE_2_1):
        if int(row[0]) != importance_level or exceeds(kpZ, float(row[column])):
            continue
        for place, part in enumerate(row[5:]):
            height, letter = part.split(":")
            limit = float(height)
            # the first row reads "<= 12 m"; all others "< 25 m", "< 50 m"
            if math.isinf(limit) or below(h_n, limit) or (letter == "I" and place == 0 and within(h_n, limit)):
                return letter
    return "none"
