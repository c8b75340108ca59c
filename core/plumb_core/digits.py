"""Digits of numbers as they are written."""

from __future__ import annotations

import re
from functools import lru_cache

_NUMBER = re.compile(r"^[+-]?(\d*)(?:\.(\d*))?(?:[eE]([+-]?\d+))?$")


@lru_cache(maxsize=4096)
def half_unit(text: str) -> float:
    """Half a unit in the last place of a number as written, or 0.0 for a text that is no plain number.

    ``half_unit("1.94")`` is 0.005, ``half_unit("4200")`` is 0.5 (zeros before the point count as given digits).
    """
    match = _NUMBER.match(text.strip().replace("\u2212", "-"))
    if not match or not (match.group(1) or match.group(2)):
        return 0.0
    decimals = len(match.group(2) or "")
    return 0.5 * 10.0 ** (int(match.group(3) or 0) - decimals)
