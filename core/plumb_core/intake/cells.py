"""Cells: what is in them, units that values are written in, and problems at their places."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache, lru_cache
from math import pi
from typing import TYPE_CHECKING, Any, Literal

if TYPE_CHECKING:
    from pint import UnitRegistry

UNITS: dict[str, dict[str, str]] = {
    "m": {"m": "m", "mm": "mm", "cm": "cm", "ft": "ft", "in": "inch"},
    "km": {"km": "km", "m": "m", "mi": "mile"},
    "m^2": {"m2": "m^2", "mm2": "mm^2", "cm2": "cm^2", "ft2": "ft^2", "in2": "inch^2"},
    "m^4": {"m4": "m^4", "mm4": "mm^4", "cm4": "cm^4", "in4": "inch^4"},
    "kN/m^2": {"kN/m2": "kN/m^2", "MPa": "MPa", "GPa": "GPa", "ksi": "kip/inch^2"},
    "t/m^3": {"t/m3": "tonne/m^3", "kg/m3": "kg/m^3"},
    "t/m": {"t/m": "tonne/m", "kg/m": "kg/m"},
    "t*m^2": {"t m2": "tonne*m^2", "kg m2": "kg*m^2"},
    "kN*m/rad": {"kN m/rad": "kN*m/radian", "MN m/rad": "MN*m/radian", "kip in/rad": "kip*inch/radian"},
    "m/s": {"m/s": "m/s", "ft/s": "ft/s"},
    "kPa": {"kPa": "kPa", "psf": "lbf/ft^2", "ksf": "kip/ft^2", "MPa": "MPa", "kgf/m2": "kg * g_0 / m^2"},
    "kN/m": {"kN/m": "kN/m", "MN/m": "MN/m", "kN/mm": "kN/mm", "kip/in": "kip/inch"},
    "s": {"s": "s", "ms": "ms"},
    # the library takes a radian for one; a turn has 2 pi
    "Hz": {"Hz": "Hz", "rad/s": f"{0.5 / pi!r} * Hz"},
    "rad": {"rad": "radian", "mrad": "milliradian", "deg": "degree"},
    "degree": {"deg": "degree", "rad": "radian"},
    "t": {"t": "tonne", "kg": "kg", "kip s2/in": "kip*s^2/inch", "kip s2/ft": "kip*s^2/ft", "kN s2/m": "kN*s^2/m"},
    "kN": {"kN": "kN", "N": "N", "MN": "MN", "kip": "kip", "lbf": "lbf", "tf": "tonne * g_0", "kgf": "kgf"},
    "kN*m": {
        "kN m": "kN*m",
        "N m": "N*m",
        "MN m": "MN*m",
        "kip ft": "kip*ft",
        "kip in": "kip*inch",
        "tf m": "tonne * g_0 * m",
        "kgf m": "kg * g_0 * m",
    },
    "g": {
        "g": "g_0",
        "%g": "0.01 * g_0",
        "m/s2": "m/s^2",
        "cm/s2": "cm/s^2",
        "mm/s2": "mm/s^2",
        "ft/s2": "ft/s^2",
        "in/s2": "inch/s^2",
    },
    "m or share": {
        "m": "m",
        "mm": "mm",
        "cm": "cm",
        "ft": "ft",
        "in": "inch",
        "-": "m",
        "%": "0.01 * m",
        "\u2030": "0.001 * m",
    },
    "": {"-": "dimensionless", "%": "percent", "\u2030": "0.001"},
}
"""Accepted units by the core's unit: label -> expression for the units library."""

_ALIASES = {
    "sec": "s",
    "metres": "m",
    "meters": "m",
    "feet": "ft",
    "inch": "in",
    "kips": "kip",
    "k": "kip",
    "tonf": "tf",
    "ton-f": "tf",
    "gal": "cm/s2",
    "degree": "deg",
    "degrees": "deg",
    "°": "deg",
    "n/mm2": "MPa",
    "%g": "%g",
    "% g": "%g",
    "knm": "kN m",
    "kn-m": "kN m",
    "kn.m": "kN m",
    "kip-ft": "kip ft",
    "k-ft": "kip ft",
    "kip.ft": "kip ft",
    "kips-ft": "kip ft",
    "ft-kip": "kip ft",
    "ft-kips": "kip ft",
    "k-in": "kip in",
    "kip-in": "kip in",
    "kips-in": "kip in",
    "in-kip": "kip in",
    "tonf-m": "tf m",
    "tonf m": "tf m",
    "tf-m": "tf m",
    "kgf-m": "kgf m",
    "mn-m": "MN m",
    "n-m": "N m",
    "nm": "N m",
    "kips/in": "kip/in",
    "k/in": "kip/in",
    "kip-s2/in": "kip s2/in",
    "k-s2/in": "kip s2/in",
    "kip-s2/ft": "kip s2/ft",
    "k-s2/ft": "kip s2/ft",
    "kn-s2/m": "kN s2/m",
    "in/sec2": "in/s2",
    "ft/sec2": "ft/s2",
    "cm/sec2": "cm/s2",
    "kg/m2": "kgf/m2",
    "lb": "lbf",
    "lbs": "lbf",
    "kgs": "kg",
    "tonnes": "t",
    "meter": "m",
    "metre": "m",
    "foot": "ft",
    "inches": "in",
    "millimetres": "mm",
    "millimeters": "mm",
    "seconds": "s",
    "percent": "%",
    "per cent": "%",
    "1": "-",
    "none": "-",
    "–": "-",
    "per mille": "‰",
    "10-3": "‰",
    "10^3 n": "kN",
    "103 n": "kN",
    "103 kn": "MN",
    "1000 kn": "MN",
    "106 n": "MN",
    "103 kn m": "MN m",
    "1000 kn m": "MN m",
    "103 kg": "t",
    "1000 kg": "t",
    "cps": "Hz",
    "1/s": "Hz",
    "rad/sec": "rad/s",
    "m/s/s": "m/s2",
    "m/sec2": "m/s2",
    "tm2": "t m2",
    "t-m2": "t m2",
    "sq m": "m2",
    "sqm": "m2",
    "sq.m": "m2",
    "sf": "ft2",
    "kn/sqm": "kPa",
    "kn/m2": "kPa",
    "tonne": "t",
    "tons": "t",
}

_SIGNS = str.maketrans(
    {"²": "2", "³": "3", "⁴": "4", "⁶": "6", "⁻": "-", "−": "-", "^": None, "*": " ", "·": " ", "⋅": " ", "×": "x"}
)


@lru_cache(maxsize=10_000)
def known_unit(text: str, core_unit: str) -> str | None:
    """The label in UNITS that `text` represents, for a quantity whose core unit is `core_unit`; None if unknown."""
    text = re.sub(r"^x\s*(?=10)", "", text.strip().strip("[]()").translate(_SIGNS)).strip()
    labels = UNITS[core_unit]
    if text.endswith(".") and text not in labels:
        text = text[:-1]
    if text in labels:
        return text
    alias = _ALIASES.get(text.lower())
    if alias in labels:
        return alias
    # symbols are distinguished by case only where that matters (MN, mN); accept the others in any case
    same = [label for label in labels if label.lower() == text.lower()]
    return same[0] if len(same) == 1 else None


@lru_cache(maxsize=10_000)
def is_unit_text(text: str) -> bool:
    """Whether a text is a unit of something, in brackets or not, or says that there is none."""
    text = text.strip().strip("[]()").strip()
    return text in ("", "-", "1") or any(known_unit(text, core) is not None for core in UNITS)


@cache
def _registry() -> UnitRegistry[float]:
    # imported and made here, once: both take a noticeable part of a second, and only intake needs it
    from pint import UnitRegistry

    return UnitRegistry()


@cache
def factor(label: str, core_unit: str) -> float:
    """Factor from a labelled unit to the core's unit."""
    target = {"g": "g_0", "": "dimensionless", "m or share": "m"}.get(core_unit, core_unit)
    magnitude = _registry().parse_expression(UNITS[core_unit][label]).to(target).magnitude
    # conversions go through several products; 15 figures drop their binary noise
    return float(f"{magnitude:.15g}")


@dataclass(frozen=True, slots=True)
class Cell:
    """Text of a cell as it was.

    Attributes
    ----------
    formula : whether it holds a formula and no value
    absent : whether its row ended before it, in text with separators
    at : (row, column) where it was, 0-based, where that is not where it is now
    confidence : with which it was read off an image; None for text
    """

    text: str
    formula: bool = False
    at: tuple[int, int] | None = None
    absent: bool = False
    confidence: float | None = None


@dataclass(frozen=True, slots=True)
class AnswerOption:
    """An answer to a question: in words, and what it sets of the reading."""

    label: str
    sets: Mapping[str, Any]


Extent = Literal["table", "column", "row", "skip", "nothing"]
"""What of a table stays open until a question is answered; "skip" is a row that needs no answer."""


@dataclass(frozen=True, slots=True)
class CellProblem:
    """A problem at a cell (0-based), a row (column None), a column (row None) or the whole table (both None).

    Attributes
    ----------
    extent : what stays open until it is answered; "nothing" for a mark on a value that is read
    choices : answers to it, the likeliest first; none where only the table itself can answer
    rows, columns : further rows and columns that it concerns
    """

    row: int | None
    column: int | None
    message: str
    remedy: str
    extent: Extent = "table"
    choices: tuple[AnswerOption, ...] = field(default=(), compare=False)
    rows: tuple[int, ...] = ()
    columns: tuple[int, ...] = ()

    @property
    def holds_up(self) -> bool:
        """Whether nothing of the table can be accepted before it is answered."""
        return self.extent == "table"

    @property
    def leaves_open(self) -> bool:
        """Whether something of the table is not read before it is answered."""
        return self.extent in ("table", "column", "row")
