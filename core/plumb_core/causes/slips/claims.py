"""A distorted claim: the right value was found, and another one was written down."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from plumb_core.causes.slip import Attempt, Place, number, slip
from plumb_core.causes.slips.inputs import TWO_THIRDS, has_two_thirds
from plumb_core.constants import GRAVITY as G
from plumb_core.digits import half_unit
from plumb_core.quantities import QUANTITIES, Kind


class Unit(NamedTuple):
    """A ratio between units."""

    ratio: float
    words: str
    code: str
    units: tuple[str, ...] = ()
    cost: float = 5.0


FORCE = ("kN", "t", "kN*m")
UNITS = (
    Unit(G, "tonne-force or kgf read as kN or tonnes, or mass times g", "S07", FORCE),
    Unit(1.0 / G, "divided by g: mass in place of weight", "S06", FORCE),
    Unit(4.44822, "kip read as kN", "S07", FORCE),
    Unit(1.0 / 4.44822, "kN read as kip", "S07", FORCE),
    Unit(2.20462, "pounds in place of kilograms", "S07", FORCE),
    Unit(1.0 / 2.20462, "kilograms in place of pounds", "S07", FORCE),
    Unit(1000.0, "the decimal point moved by three places", "S03", ("m", "kN", "t", "kN*m"), 6.0),
    Unit(0.001, "the decimal point moved by three places", "S03", ("m", "kN", "t", "kN*m"), 6.0),
    Unit(100.0, "per cent in place of a fraction", "S05", ("", "g"), 5.0),
    Unit(0.01, "a fraction in place of per cent", "S05", ("", "g"), 5.0),
    Unit(3.28084, "feet in place of metres", "S03", ("m",)),
    Unit(0.3048, "metres in place of feet", "S03", ("m",)),
    Unit(G, "acceleration in m/s2 in place of g", "S01", ("g",)),
    Unit(1.0 / G, "divided by g a second time", "S01", ("g",)),
    Unit(1.5, "the maximum considered motion", "S16", ("g",), 4.0),
    Unit(2.0 / 3.0, "2/3 applied twice", "S16", ("g",), 4.0),
)


@slip("another unit")
def unit(place: Place) -> Iterator[Attempt]:
    """The right value in another unit."""
    quantity = QUANTITIES[place.key.name]
    if quantity.kind is Kind.TEXT or isinstance(place.value, str | bool) or place.value is None:
        return
    for ratio, words, code, units, cost in UNITS:
        if ratio in TWO_THIRDS and not has_two_thirds(place):
            continue
        if quantity.unit in units:
            yield Attempt(
                f"unit {ratio:.6g}",
                place.value * ratio,
                words,
                code,
                cost,
                {"factor": ratio},
                only_deviating=True,
                names_place=True,
            )


AGAIN = ("I_e", "I", "gamma_I", "k_p", "R", "q", "mu", "S_p", "C_d", "Omega_0", "rho", "lambda_", "scaling_share")


@slip("a factor applied to the result")
def factor_again(place: Place) -> Iterator[Attempt]:
    """A factor that the inputs have is applied to the result again, or the result is divided by it."""
    if QUANTITIES[place.key.name].unit not in ("kN", "kN*m", "t", "m", "g") or place.key.name in ("w", "h", "W"):
        return
    if place.value is None or isinstance(place.value, str | bool):
        return
    code = "S80" if place.stage == "drift" else "S02" if place.stage != "lateral" else "S57"
    for name in AGAIN:
        factor = number(place.get(name)) if name not in place.arguments else None
        if factor is None or factor in (0.0, 1.0):
            continue
        symbol = QUANTITIES[name].symbol
        for value, words in ((factor, f"{symbol} applied to it again"), (1.0 / factor, f"divided by {symbol}")):
            yield Attempt(f"{words}", place.value * value, words, code, 5.5, {name: value})


@slip("the value of the other direction")
def of_other_direction(place: Place) -> Iterator[Attempt]:
    """The values of X stand in the column of Y, or the reverse."""
    for other in place.others:
        symbol = QUANTITIES[place.key.name].symbol
        ours, theirs = place.ours(place.key.name, other), place.evaluation.get(place.key.name, other)
        # what is wrong itself is no value that another one was copied from
        right = theirs is not None and ours is not None and np.allclose(theirs, ours, rtol=1e-2)
        for name, value in (("exchanged", ours), ("copied", theirs if right else None)):
            if value is not None and not isinstance(value, str | bool):
                words = f"{symbol} is that of {other}"
                yield Attempt(f"{name} from the other direction", value, words, "S55", 4.0, {"direction": other})


@slip("rows moved")
def moved(place: Place) -> Iterator[Attempt]:
    """The column is shifted by a row, upside down, summed from the top, or not summed."""
    value = place.value
    if not isinstance(value, np.ndarray) or len(value) < 3:
        return
    code = "S58" if place.stage == "lateral" else ""
    yield Attempt(
        "shifted down",
        np.roll(value, 1),
        "shifted by a row",
        code,
        5.0,
        {"rows": 1},
        only_deviating=True,
        names_place=True,
    )
    yield Attempt(
        "shifted up",
        np.roll(value, -1),
        "shifted by a row",
        code,
        5.0,
        {"rows": -1},
        only_deviating=True,
        names_place=True,
    )
    yield Attempt("upside down", value[::-1], "upside down", code, 5.0, names_place=True)
    yield Attempt("summed from the top", np.cumsum(value[::-1])[::-1], "summed from the top", code, 5.0)
    yield Attempt(
        "summed from below", np.cumsum(value), "summed from below", "S84" if place.key.name == "h" else code, 5.0
    )
    for i in range(len(value) - 1):
        exchanged = value.copy()
        exchanged[[i, i + 1]] = exchanged[[i + 1, i]]
        yield Attempt(
            f"rows {i + 1} and {i + 2} exchanged", exchanged, f"rows {i + 1} and {i + 2} exchanged", code, 7.0,
            only_deviating=True, names_place=True,
        )  # fmt: skip


TYPING_CODES = {"V": "S57", "V_static": "S57", "F": "S58"}


@slip("digits")
def digits(place: Place) -> Iterator[Attempt]:
    """Digits exchanged, one digit wrong, the decimal point moved, a wrong sign."""
    code = TYPING_CODES.get(place.key.name, "")
    for at, theirs in place.theirs.items():
        ours = _at(place.value, at)
        text = place.texts.get(at, "")
        if ours is None or isinstance(theirs, str) or not ours:
            continue
        scale = _scale(text, theirs)
        for written, words, cost in _mistyped(text):
            value = written * scale
            if abs(value - ours) <= max(1.01 * half_unit(text) * abs(scale), 5e-5 * abs(ours)):
                yield Attempt(
                    f"{words} {at}", _with(place.value, at, theirs), f"{words}: {text} for {_like(text, ours / scale)}",
                    code, cost, only_deviating=True, names_place=True,
                )  # fmt: skip
                break


def _at(value: object, at: int | None) -> float | None:
    if isinstance(value, np.ndarray):
        return float(value[at]) if at is not None and at < len(value) else None
    return number(value)


def _with(value: object, at: int | None, theirs: float) -> object:
    if not isinstance(value, np.ndarray):
        return theirs
    changed = value.copy()
    changed[at] = theirs
    return changed


def _scale(text: str, theirs: float) -> float:
    """What the written number is multiplied by to be in the core's unit."""
    written = _number(text)
    return theirs / written if written else 1.0


def _number(text: str) -> float | None:
    try:
        return float(text.replace(",", "").replace(" ", ""))
    except ValueError:
        return None


def _mistyped(text: str) -> Iterator[tuple[float, str, float]]:
    """What may have been meant, in words, and the cost in bits."""
    plain = text.replace(",", "").replace(" ", "")
    if not re.fullmatch(r"-?\d*\.?\d+", plain):
        return
    places = [i for i, ch in enumerate(plain) if ch.isdigit()]
    for i, j in pairwise(places):
        if plain[i] != plain[j]:
            swapped = list(plain)
            swapped[i], swapped[j] = swapped[j], swapped[i]
            yield float("".join(swapped)), "two digits exchanged", 3.0 + math.log2(len(places))
    for moved in (10.0, 0.1, 100.0, 0.01):
        yield float(plain) * moved, "decimal point moved", 6.0
    for i in places:
        for digit in "0123456789":
            if digit != plain[i]:
                yield float(plain[:i] + digit + plain[i + 1 :]), "one digit wrong", 6.0 + math.log2(len(places))


def _like(text: str, value: float) -> str:
    """A number with as many decimals as another one was written with."""
    return f"{value:.{len(text.rpartition('.')[2]) if '.' in text else 0}f}"
