"""Tables of ASCE/SEI 7-16 as text, to be compared with the printed page line by line."""

from __future__ import annotations

import numpy as np

from plumb_core.limits import below

TABLE_11_4_1 = """
Table 11.4-1  Short-period site coefficient F_a
class   0.25  0.5   0.75  1.0   1.25  1.5
A       0.8   0.8   0.8   0.8   0.8   0.8
B       0.9   0.9   0.9   0.9   0.9   0.9
C       1.3   1.3   1.2   1.2   1.2   1.2
D       1.6   1.4   1.2   1.1   1.0   1.0
E       2.4   1.7   1.3   1.2   1.2   1.2
"""
# Row E: for S_S >= 1.0 the table refers to 11.4.8, whose exception 1 takes the value of site class C (1.2); the row
# holds that value, also as the end point for interpolation between 0.75 and 1.0.

TABLE_11_4_2 = """
Table 11.4-2  Long-period site coefficient F_v (Supplement 1)
class   0.1   0.2   0.3   0.4   0.5   0.6
A       0.8   0.8   0.8   0.8   0.8   0.8
B       0.8   0.8   0.8   0.8   0.8   0.8
C       1.5   1.5   1.5   1.5   1.5   1.4
D       2.4   2.2   2.0   1.9   1.8   1.7
E       4.2   3.3   2.8   2.4   2.2   2.0
"""

TABLE_11_9_1 = """
Table 11.9-1  Vertical coefficient C_v by S_S
class   0.2   0.3   0.6   1.0   2.0
A       0.7   0.8   0.9   0.9   0.9
B       0.7   0.8   0.9   0.9   0.9
C       0.7   0.8   1.0   1.1   1.3
D       0.7   0.9   1.1   1.3   1.5
E       0.7   0.9   1.1   1.3   1.5
F       0.7   0.9   1.1   1.3   1.5
"""

TABLE_12_8_1 = """
Table 12.8-1  Coefficient for upper limit on calculated period
S_D1    0.1   0.15  0.2   0.3   0.4
C_u     1.7   1.6   1.5   1.4   1.4
"""

TABLE_12_8_2 = """
Table 12.8-2  Approximate period parameters (C_t for h_n in metres)
type        C_t     x
steel_mrf   0.0724  0.8
rc_mrf      0.0466  0.9
steel_ebf   0.0731  0.75
steel_brbf  0.0731  0.75
other       0.0488  0.75
"""

TABLE_1_5_2 = {"I": 1.0, "II": 1.0, "III": 1.25, "IV": 1.5}
"""Importance factor I_e by risk category."""

TABLE_11_6_1 = """
Table 11.6-1  Design category by S_DS
below   I   II  III  IV
0.167   A   A   A    A
0.33    B   B   B    C
0.50    C   C   C    D
inf     D   D   D    D
"""

TABLE_11_6_2 = """
Table 11.6-2  Design category by S_D1
below   I   II  III  IV
0.067   A   A   A    A
0.133   B   B   B    C
0.20    C   C   C    D
inf     D   D   D    D
"""


def _lines(table: str) -> list[list[str]]:
    return [line.split() for line in table.strip().splitlines()[1:]]


def by_row(table: str) -> tuple[list[float], dict[str, list[float]]]:
    """A table whose heading holds the break points: (break points, values by row)."""
    head, *rows = _lines(table)
    return [float(v) for v in head[1:]], {row[0]: [float(v) for v in row[1:]] for row in rows}


def _categories(table: str) -> list[tuple[float, dict[str, str]]]:
    head, *rows = _lines(table)
    return [(float(row[0]), dict(zip(head[1:], row[1:], strict=True))) for row in rows]


F_A = by_row(TABLE_11_4_1)
F_V = by_row(TABLE_11_4_2)
C_V = by_row(TABLE_11_9_1)
C_U = by_row(TABLE_12_8_1)
PERIOD = {row[0]: (float(row[1]), float(row[2])) for row in _lines(TABLE_12_8_2)[1:]}
STRUCTURE_TYPES = tuple(PERIOD)
CATEGORY_BY_S_DS = _categories(TABLE_11_6_1)
CATEGORY_BY_S_D1 = _categories(TABLE_11_6_2)


def interpolated(table: tuple[list[float], dict[str, list[float]]], row: str, at: float) -> float:
    """Straight-line interpolation along a row, constant beyond its ends (footnotes to Tables 11.4-1 and 11.4-2)."""
    breaks, rows = table
    return float(np.interp(at, breaks, rows[row]))


def category(table: list[tuple[float, dict[str, str]]], value: float, risk_category: str) -> str:
    """Design category of a value: the first row whose bound the value stays below."""
    return next(row[risk_category] for bound, row in table if below(value, bound))
