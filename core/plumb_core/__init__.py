"""The computation behind Vigilant Plumb: code editions as rules, evaluated under different assumptions.

Units throughout: m, kN, t, s, rad; accelerations and spectral ordinates in g.  Story quantities are arrays of
shape (n_stories,), bottom to top.
"""

from pathlib import Path
from typing import Final

VERSION: Final = "0.1.0"
"""Version of the product; the only place where it is written."""

ENGINE: Final = f"{VERSION}+{Path(__file__).with_name('engine.digest').read_text().strip()}"
"""Version of the engine in results.

Results are stored under the engine that gave them: a corrected rule must not find its old results.  `engine.py`
makes the
digest of the rules and numbers, without comments and docstrings.
"""

DIRECTIONS: Final = ("X", "Y")
