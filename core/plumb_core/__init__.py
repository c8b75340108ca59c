"""The computation behind Vigilant Plumb: code editions as rules, evaluated under different assumptions.

Units throughout: m, kN, t, s, rad; accelerations and spectral ordinates in g.  Story quantities are arrays of
shape (n_stories,), bottom to top.
"""

from typing import Final

ENGINE = "0.1.0"

STANDARD_GRAVITY = 9.80665
"""Standard acceleration of gravity, m/s2 (the 3rd CGPM's conventional value, 1901)."""

DIRECTIONS: Final = ("X", "Y")
