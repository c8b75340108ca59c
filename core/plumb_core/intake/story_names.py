"""What the name of a story says of its place in the building."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from functools import lru_cache
from itertools import pairwise

ORDINALS = [
    "first",
    "second",
    "third",
    "fourth",
    "fifth",
    "sixth",
    "seventh",
    "eighth",
    "ninth",
    "tenth",
    "eleventh",
    "twelfth",
    "thirteenth",
    "fourteenth",
    "fifteenth",
    "sixteenth",
    "seventeenth",
    "eighteenth",
    "nineteenth",
    "twentieth",
]
_WORDS = (
    r"(?:story|storey|level|floor|flr|fl|lvl|lev|st|geschoss|stock|og|étage|etage|niveau|planta|piso|nivel|piano|"
    r"livello|l|s|f)"
)
_PATTERNS: tuple[tuple[str, float], ...] = (
    (rf"{_WORDS}?(\d{{1,3}})(?:st|nd|rd|th)?{_WORDS}?", 1.0),
    (r"(?:b|basement|ug|sub|lg)(\d{1,2})(?:level|floor)?", -1.0),
    (r"(\d{1,2})ug", -1.0),
)
_GROUND = re.compile(r"g|gf|ground(?:floor|level)?|eg|erdgeschoss|rdc|plantabaja|pb|pianoterra|pt")
_BASEMENT = re.compile(r"b|basement")
_ROOF = re.compile(r"r|rf|roof(?:level|floor)?|top|dach|toit|toiture|cubierta|azotea|tetto|copertura")
_ABOVE = re.compile(r"ph|penthouse|plantroom|lmr|upperroof|mainroof")


@lru_cache(maxsize=20_000)
def rank_of(name: str) -> float | None:
    """Height of a story by its name, as a number for comparison with others.

    None where the name does not state.
    """
    level = re.fullmatch(r"\s*([+\-\u2212\u00b1]\s*\d+(?:[.,]\d+)?)\s*m?\s*", name)
    if level:
        text = level.group(1).replace("\u2212", "-").replace("\u00b1", "").replace(" ", "").replace(",", ".")
        return float(text)
    plain = re.sub(r"[\s_.\-]", "", name).lower()
    for pattern, sign in _PATTERNS:
        match = re.fullmatch(pattern, plain)
        if match:
            return sign * int(match.group(1))
    for number, word in enumerate(ORDINALS, 1):
        if re.fullmatch(rf"{_WORDS}?{word}{_WORDS}?", plain):
            return float(number)
    for place, rank in ((_GROUND, 0.0), (_BASEMENT, -1.0), (_ROOF, 1e4), (_ABOVE, 1e4 + 1)):
        if place.fullmatch(plain):
            return rank
    return None


def order_of(ranks: Iterable[float | None]) -> str:
    """`bottom_up` or `top_down` where all that is stated rises or falls from row to row.

    '' where too little is stated, or it varies.
    """
    reported = [r for r in ranks if r is not None]
    steps = {b > a for a, b in pairwise(reported)}
    if len(reported) < 2 or len(steps) != 1 or len(set(reported)) != len(reported):
        return ""
    return "bottom_up" if steps.pop() else "top_down"


def matched(name: str, known: Sequence[str]) -> str | None:
    """The known story that a name represents: itself, in other letters, or the only one at the same place.

    None for none.
    """
    if name in known:
        return name
    return _matched(name, tuple(known))


@lru_cache(maxsize=20_000)
def _matched(name: str, known: tuple[str, ...]) -> str | None:
    plain = re.sub(r"[\s_.\-]", "", name).lower()
    same = [k for k in known if re.sub(r"[\s_.\-]", "", k).lower() == plain]
    if len(same) == 1:
        return same[0]
    rank = rank_of(name)
    adjacent = [k for k in known if rank is not None and rank_of(k) == rank]
    return adjacent[0] if len(adjacent) == 1 else None


BASE = re.compile(r"(?i)\s*(base|ground|gf|foundations?|footings?|datum)\b")
"""Names of the base, where it is in a table of stories."""


def closest_story(name: str, known: Sequence[str]) -> str:
    """The known story that a name that is not known most likely represents: the top one for a roof; '' for none."""
    rank = rank_of(name)
    return known[-1] if known and rank is not None and rank >= 1e4 else ""
