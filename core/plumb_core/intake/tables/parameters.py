"""Parameters: names with one value, or with one for each direction."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Hashable, Mapping
from difflib import get_close_matches
from typing import Literal

from plumb_core.documents.base import Direction
from plumb_core.documents.submission import Claim
from plumb_core.editions import Edition
from plumb_core.intake.cells import UNITS, is_unit_text, known_unit
from plumb_core.intake.columns import Column, heading_unit, is_safe_name, normal
from plumb_core.intake.names import allowed_texts, may_be_zero, parameter_names
from plumb_core.intake.numbers import with_unit
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind
from plumb_core.intake.words import in_order
from plumb_core.quantities import QUANTITIES, Kind, Scope

VALUES: dict[str, tuple[Direction, ...]] = {"value": (), "value_X": ("X",), "value_Y": ("Y",)}
"""Columns of values, with the direction that each is for."""


MAX_TEXT = 500
"""Characters of a text."""
FREE = ("base_level", "edition_stated", "tension_only")
"""Texts that can be anything."""
BOTH_DIRECTIONS = ("torsion_stated", "scaling_share")
"""Statements that are for both directions where they name none."""
IN_G = ("S_S", "S_1", "S_MS", "S_M1", "S_DS", "S_D1")
"""Accelerations that the maps and tables of ASCE 7 give in g; without a unit they are in g."""
LARGEST_IN_G = 4.0
LARGEST: Mapping[str, float] = {
    "damping": 0.35,
    "damping_modes": 0.35,
    "eccentricity": 0.2,
    "scaling_share": 1.5,
    "mass_target": 1.0,
    "drift_limit": 0.1,
    "live_share": 1.0,
    "coefficient": 2.0,
    "C_s": 2.0,
}
"""Of shares; a larger number without a unit is one in percent, or an error."""


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each parameter and direction."""
    claims: list[Claim] = []
    seen: dict[Hashable, int] = {}
    for row in numbers:
        named = _parameter(reader, row)
        if named is None:
            continue
        quantity, direction = named
        for column, directions in _places(reader, row, quantity, direction):
            for d in directions:
                what = " ".join(x for x in (QUANTITIES[quantity].meaning.lower(), d) if x)
                if reader.repeats(seen, (quantity, d), row, "name", what, [*VALUES.keys() & reader.columns.keys()]):
                    continue
                claim = _claim(reader, row, column, quantity, d)
                if claim:
                    claims.append(claim)
    return Rows(claims)


_BRACKETS = re.compile(r"[\[\]:=%\u2264\u2265<>]")
"""Signs that belong to units and symbols in names of parameters."""


def _direction(letter: str) -> Literal["X", "Y"]:
    return "X" if letter in "xX" else "Y"


def _parameter(reader: ClaimReader, row: int) -> tuple[str, Direction | None] | None:
    """(quantity, direction) that the name in a row represents."""
    text = reader.text(row, "name")
    if not is_safe_name(_BRACKETS.sub("", text)) or reader.is_formula(row, "name"):
        # with the problem noted
        text = reader.name(row, "name", "parameter") or ""
    if not text:
        return None
    named, symbol = _named(reader, text), _named(reader, reader.text(row, "symbol"))
    if named and symbol and named[0] != symbol[0]:
        words = f"{text!r} and {reader.text(row, 'symbol')!r} are different quantities"
        reader.problem(row, reader.columns["symbol"], words, "Correct one of them, or exclude the column of symbols.")
        return None
    found = named or symbol
    if found is not None:
        return found[0], found[1] or (symbol[1] if symbol else None)
    reader.problem(
        row,
        reader.columns["name"],
        f"{text!r} is not a known parameter",
        "The row is excluded. To use it, name it by its symbol in the code, such as T_a X.",
        extent="skip",
    )
    return None


def _named(reader: ClaimReader, text: str) -> tuple[str, Direction | None] | None:
    """(quantity, direction) that a name or a symbol represents; None where it is none that is known."""
    if not text:
        return None
    names = parameter_names(reader.edition.id if reader.edition else "")
    text = unicodedata.normalize("NFKC", text)
    inside = re.search(r"[\[(]\s*([xXyY])\s*[\])]", text)
    bare = re.sub(r"[\[(].*?[\])]", lambda m: " " if is_unit_text(m.group()) else m.group(), text)
    for plain in (normal(text) or normal(text.strip("()[]")), in_order(bare)):
        if plain in names:
            return names[plain], _direction(inside.group(1)) if inside else None
        if plain[-1:] in ("x", "y") and plain[:-1] in names:
            return names[plain[:-1]], _direction(plain[-1])
    *words, symbol = bare.split() or [""]
    quantity = names.get(normal(symbol), "")
    if quantity and words and _is_equivalent(" ".join(words), quantity):
        return quantity, _direction(inside.group(1)) if inside else None
    return None


_IGNORED_WORDS = {
    "design",
    "value",
    "seismic",
    "the",
    "of",
    "coefficient",
    "factor",
    "reduction",
    "modification",
    "response",
    "story",
    "building",
    "structure",
}


def _is_equivalent(words: str, quantity: str) -> bool:
    """Whether words before a symbol say nothing but what the quantity is: Approximate period T_a."""
    statement = set(re.findall(r"[a-z]+", words.lower())) - _IGNORED_WORDS
    return statement <= set(re.findall(r"[a-z]+", QUANTITIES[quantity].meaning.lower()))


def _places(
    reader: ClaimReader, row: int, quantity: str, direction: Direction | None
) -> list[tuple[str, list[Direction | None]]]:
    """The columns that hold values in this row, with the directions each value is for."""
    index = reader.columns["name"]
    axes: tuple[tuple[str, Direction], ...] = (("value_X", "X"), ("value_Y", "Y"))
    by_axis = [(c, d) for c, d in axes if c in reader.columns and reader.text(row, c)]
    symbol = QUANTITIES[quantity].symbol
    single = "value" in reader.columns
    if QUANTITIES[quantity].scope is Scope.BUILDING:
        if by_axis and not direction and len({reader.text(row, c) for c, _ in axes}) == 1:
            # the same in both columns is one value
            return [(by_axis[0][0], [None])]
        if direction or (by_axis and not reader.text(row, "value")):
            remedy = "Give one value for the building, in the column of values."
            reader.problem(row, index, f"{symbol} has no direction", remedy)
            return []
        return [("value", [None])] if single else []
    if by_axis and not direction:
        return [(c, [d]) for c, d in by_axis]
    if direction:
        return [("value", [direction])] if single else []
    if (reader.given.both or quantity in BOTH_DIRECTIONS) and single:
        return [("value", ["X", "Y"])]
    reader.problem(
        row,
        index,
        f"the direction of {symbol} is not given",
        (
            f"Write {symbol} X and {symbol} Y, use columns X and Y, or state that values without a direction apply "
            f"to both."
        ),
        choices=[("values without a direction apply to X and Y", {"both": True})],
    )
    return []


def _claim(reader: ClaimReader, row: int, column: str, quantity: str, direction: Direction | None) -> Claim | None:
    if QUANTITIES[quantity].kind is Kind.TEXT:
        return _text(reader, row, column, quantity, direction)
    known = QUANTITIES[quantity]
    number = reader.number(row, column, known.symbol, positive=not may_be_zero(quantity))
    written = _unit_written(reader, row, column) if number else None
    if written is None:
        return None
    in_g = quantity == "spectrum_factor" or (quantity in IN_G and number is not None and abs(number[0]) <= LARGEST_IN_G)
    unit = known_unit(written or ("g" if in_g else "-"), known.unit)
    most = LARGEST.get(quantity)
    if unit == "-" and number and most and abs(number[0]) > most:
        name = reader.text(row, "name")
        words = f"{known.meaning.lower()} of {number[1]} is {100 * number[0]:.4g} %"
        remedy = f"Write {number[1]} %, or a share of at most {most:g}."
        choices = [(f"it is {number[1]} %", {"units": {name: "%"}})] if abs(number[0]) <= 100 * most else []
        reader.problem(row, reader.columns[column], words, remedy, choices=choices)
        return None
    if unit is None:
        place = reader.columns.get("unit", reader.columns["name"])
        words = f"{written!r} is not a unit of {known.symbol}" if written else f"the unit of {known.symbol} is missing"
        reader.problem(row, place, words, f"Give one of: {', '.join(UNITS[known.unit])}.")
        return None
    return reader.claim(row, column, quantity, number, unit, direction=direction) if number else None


def _unit_written(reader: ClaimReader, row: int, column: str) -> str | None:
    """The unit of a value: of its column, behind the number, or behind the name.

    None where they say different things.
    """
    if answered := reader.given.units.get(reader.text(row, "name")):
        return answered
    behind = heading_unit(reader.text(row, "name"))
    stated = (reader.text(row, "unit"), with_unit(reader.text(row, column))[1], behind if is_unit_text(behind) else "")
    reported = [u for u in stated if u and u not in ("-", "\u2013")]
    if len(set(reported)) > 1:
        words = f"the unit is {stated[0]!r} in one place and {stated[1]!r} in another"
        reader.problem(row, reader.columns[column], words, "Give one unit.")
        return None
    return reported[0] if reported else ""


WORDS: Mapping[str, Mapping[str, str]] = {
    "torsion_stated": {
        "none": r"none|no|regular",
        "torsional": r"(1a)?torsional|yes|irregular",
        "extreme": r"(1b)?extreme(torsional)?",
        "not tested": r"nottested|notchecked|notassessed",
    },
    "diaphragms": {"rigid": r"rigid", "semirigid": r"semirigid", "flexible": r"flexible"},
    "combined_by": {
        "SRSS": r"srss",
        "CQC": r"cqc|cqc4",
        "close modes absolute": (
            r"(srss(and|with|plus)?)?(abs|absolute(sum)?)(of|for)?(the)?clos(e|ely)(spaced)?modes?"
            r"(and|with|plus)?(srss)?"
        ),
        "ABS": r"abs|absolute(sum)?",
    },
    "directions_by": {
        "100 % + 30 %": r"100%?(\+|and|with|to)?30%?",
        "SRSS": r"srss",
        "one at a time": r"oneatatime|single|separate(ly)?|each",
    },
    "second_order_stated": {
        "included": r"included|yes",
        "not included": r"notincluded|no",
        "not needed": r"notneeded|notrequired",
    },
}
"""Words that are read as declarations; other words are stored as stated and shown."""


def _system(written: str, edition: Edition) -> tuple[str, tuple[str, ...]]:
    """Id of the lateral system that words represent ('' where none does, or several), and ids of the likeliest ones."""

    def words(text: str) -> str:
        return " ".join(re.findall(r"[a-z]+", text.lower()))

    titles = {words(system.title): name for name, system in edition.systems.items()}
    if words(written) in titles:
        return titles[words(written)], ()
    return "", tuple(titles[t] for t in get_close_matches(words(written), titles, n=3, cutoff=0.4))


def _declared(quantity: str, written: str) -> str:
    """A declaration in the word that is used here for it, else as it was written."""
    plain = normal(written)
    return next((w for w, p in WORDS.get(quantity, {}).items() if re.fullmatch(p, plain)), written)


def _text(reader: ClaimReader, row: int, column: str, quantity: str, direction: Direction | None) -> Claim | None:
    written = reader.text(row, column).strip()
    if len(written) > MAX_TEXT:
        words = f"the text has {len(written)} characters; the limit is {MAX_TEXT}"
        reader.problem(row, reader.columns[column], words, "Shorten the text, or exclude the row.")
        return None
    if quantity in WORDS:
        source = reader.source(row, column)
        return Claim(
            quantity=quantity, direction=direction, value=_declared(quantity, written), text=written, source=source
        )
    allowed = () if quantity in FREE else allowed_texts(quantity, reader.edition)
    plain = normal(re.sub(r"(?i)^class ", "", written))
    text = next((a for a in allowed if normal(a) == plain), "" if allowed else written)
    likely: tuple[str, ...] = ()
    if not text and quantity == "lateral_system" and reader.edition is not None:
        text, likely = _system(written, reader.edition)
    if not text:
        words = f"{written[:40]!r} is not a valid {QUANTITIES[quantity].meaning.lower()}"
        remedy = f"Use one of: {', '.join(likely or allowed)}." if allowed else "Enter it."
        reader.problem(row, reader.columns[column], words, remedy)
        return None
    source = reader.source(row, column)
    return Claim(quantity=quantity, direction=direction, value=text, text=text, source=source)


KIND = TableKind(
    "parameters",
    "parameters",
    (
        Column(
            "name",
            "parameter",
            r"parameter|name|item|symbol|quantity|coefficient|description|variable",
            required=True,
        ),
        Column("symbol", "symbol, beside the name", r"symbol|notation|variable"),
        Column("value", "value, no direction or both", r"value|amount|result|used|adopted"),
        Column("value_X", "value in X", r"x|valuex|xdirection|directionx|alongx|xdir|xx"),
        Column("value_Y", "value in Y", r"y|valuey|ydirection|directiony|alongy|ydir|yy"),
        Column("unit", "unit", r"units?"),
    ),
    rows,
    rank=10,
    values="values",
)
