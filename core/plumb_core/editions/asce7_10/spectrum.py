"""Design response spectrum of ASCE/SEI 7-10, 11.4.5: the same curve as in 7-16 under another section."""

from __future__ import annotations

from plumb_core.editions.asce7_16 import spectrum as later
from plumb_core.rules import cited

S_a = cited(later.S_a, "11.4.5, Eq. 11.4-5 to 11.4-7")

RULES = (
    cited(later.T_0, "11.4.5"),
    cited(later.T_S, "11.4.5"),
    S_a,
    cited(later.S_a_reduced, "12.9.2"),
)
