"""The computation behind Vigilant Plumb: code editions as rules, evaluated under different assumptions.

Units throughout: m, kN, t, s, rad; accelerations and spectral ordinates in g.  Story quantities are arrays of
shape (n_stories,), bottom to top.
"""

import hashlib
from pathlib import Path
from typing import Final

VERSION = "0.1.0"


def _engine() -> str:
    """The version with a digest of the engine's own source.

    Results are stored under the engine that gave them; a rule corrected without a new version number must not find its
    old results there.
    """
    here = Path(__file__).parent
    digest = hashlib.sha256()
    for source in sorted(here.rglob("*.py")):
        digest.update(source.read_bytes())
    return f"{VERSION}+{digest.hexdigest()[:10]}"


ENGINE = _engine()
"""Version of the engine in results."""

DIRECTIONS: Final = ("X", "Y")
