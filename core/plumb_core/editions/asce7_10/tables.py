"""Tables of ASCE/SEI 7-10 that 7-16 has otherwise; 7-05 has the same two."""

from __future__ import annotations

from plumb_core.editions.asce7_16.tables import by_row

TABLE_11_4_1 = """
Table 11.4-1  Short-period site coefficient F_a
class   0.25  0.5   0.75  1.0   1.25
A       0.8   0.8   0.8   0.8   0.8
B       1.0   1.0   1.0   1.0   1.0
C       1.2   1.2   1.1   1.0   1.0
D       1.6   1.4   1.2   1.1   1.0
E       2.5   1.7   1.2   0.9   0.9
"""

TABLE_11_4_2 = """
Table 11.4-2  Long-period site coefficient F_v
class   0.1   0.2   0.3   0.4   0.5
A       0.8   0.8   0.8   0.8   0.8
B       1.0   1.0   1.0   1.0   1.0
C       1.7   1.6   1.5   1.4   1.3
D       2.4   2.0   1.8   1.6   1.5
E       3.5   3.2   2.8   2.4   2.4
"""

F_A = by_row(TABLE_11_4_1)
F_V = by_row(TABLE_11_4_2)
