"""Numbers as people write them: a point or a comma before the decimals, thousands apart in several ways.

A text is read in either style, in both, or in none. What can be read in both, such as 3,600, is decided by the other
cells of
its column, by those of the table, by what its quantity can be, and asked about where none of them states.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

Style = Literal["point", "comma"]
STYLES: dict[Style, str] = {"point": "1,234.5", "comma": "1.234,5"}
"""The style of the decimals, with an example."""

_SIGNS = str.maketrans(
    {"\u2212": "-", "\u2013": "-", "\u00a0": " ", "\u2009": " ", "\u202f": " ", "\u2019": "'", "\u02bc": "'"}
)
_EXPONENT = r"(?:[eE][+-]?\d+)?"
_POINT = re.compile(
    rf"(?:\d+\.?\d*|\.\d+){_EXPONENT}"
    r"|[1-9]\d{0,2}(?:,\d{3})+(?:\.\d+)?|[1-9]\d{0,2}(?:'\d{3})+(?:\.\d+)?|[1-9]\d{0,2}(?: \d{3})+(?:\.\d+)?"
    # lakh and crore
    r"|[1-9]\d?(?:,\d{2})+,\d{3}(?:\.\d+)?"
)
_COMMA = re.compile(
    rf"(?:\d+,?\d*|,\d+){_EXPONENT}"
    r"|[1-9]\d{0,2}(?:\.\d{3})+(?:,\d+)?|[1-9]\d{0,2}(?:'\d{3})+(?:,\d+)?|[1-9]\d{0,2}(?: \d{3})+(?:,\d+)?"
)
_SIMPLE = re.compile(r"-?(\d+)\.(\d+)", re.ASCII)
_FULL_WIDTH = re.compile(r"[\uff0b-\uff19]")
_POWER = re.compile(r"(.*\d)\s*[x\u00d7\u00b7*]\s*10\s*\^?\s*([+-]?\d+|[\u207b\u00b9\u00b2\u00b3\u2070\u2074-\u2079]+)")
"""A power of ten written out."""
_PLAIN = re.compile(r"[+-]?\d+")


@lru_cache(maxsize=50_000)
def readings(text: str) -> dict[Style, str]:
    """The text as a plain number with a decimal point, in each style that it can be read in.

    Empty where it is not a number.
    """
    if simple := _SIMPLE.fullmatch(text):
        complete, decimals = simple.groups()
        # three decimals can be thousands where a comma precedes the decimals
        thousands = len(decimals) == 3 and len(complete) <= 3 and complete[0] != "0"
        return {"point": text, "comma": text.replace(".", "")} if thousands else {"point": text}
    body = (
        unicodedata.normalize("NFKC", text.strip().translate(_SIGNS))
        if _FULL_WIDTH.search(text)
        else text.strip().translate(_SIGNS)
    )
    if power := _POWER.fullmatch(body):
        body = f"{power.group(1)}e{unicodedata.normalize('NFKC', power.group(2)).translate(_SIGNS)}"
    if _PLAIN.fullmatch(body):
        return {"point": body, "comma": body}
    sign = ""
    if body[:1] in ("+", "-"):
        sign, body = body[0], body[1:].lstrip()
    elif body.startswith("(") and body.endswith(")"):
        # as accounts write what is below zero
        sign, body = "-", body[1:-1].strip()
    elif body[-1:] == "-" and body[:1].isdigit():
        # as ledgers write it
        sign, body = "-", body[:-1].rstrip()
    found: dict[Style, str] = {}
    if _POINT.fullmatch(body):
        found["point"] = sign + re.sub(r"[,' ]", "", body)
    if _COMMA.fullmatch(body):
        found["comma"] = sign + re.sub(r"[.' ]", "", body).replace(",", ".")
    return found


def plain_in(text: str, style: Style) -> str | None:
    """The text as a plain number in a style; None where it is none in it."""
    if style == "point" and _SIMPLE.fullmatch(text):
        return text
    return readings(text).get(style)


_FEET_INCHES = re.compile(
    r"(\d+)\s*(?:'|\u2032|\u2019|ft\.?)\s*-?\s*(\d+(?:\.\d+)?)(?:[\s-]+(\d+)/(\d+))?\s*(?:\"|\u2033|\u201d|''|in\.?)"
)
"""Feet and inches, with the sign of either: 11'-10 1/2"."""
_ONE_OVER = re.compile(r"1\s*/\s*(\d+(?:\.\d+)?)")
_WITH_UNIT = re.compile(r"(?s)(.*?[\d)])\s*([^\d\s.,'+\-()][^\n]*)")


@lru_cache(maxsize=50_000)
def with_unit(text: str) -> tuple[str, str]:
    """(number, unit) as they are in one cell, such as 4931.5 kN.

    The unit is empty where there is none, or no number.
    """
    if readings(text):
        return text, ""
    inches = _FEET_INCHES.fullmatch(text.strip())
    if inches:
        complete, inch, part, of = inches.groups()
        return f"{float(complete) + (float(inch) + (float(part) / float(of) if of else 0.0)) / 12:.12g}", "ft"
    one_over = _ONE_OVER.fullmatch(text.strip())
    if one_over and float(one_over.group(1)):
        return f"{1.0 / float(one_over.group(1)):.12g}", "-"
    match = _WITH_UNIT.fullmatch(text.strip())
    return (match.group(1), match.group(2).strip()) if match and readings(match.group(1)) else (text, "")


@dataclass(frozen=True)
class Written:
    """How the numbers of a column are written.

    Attributes
    ----------
    style : that they are read in; None where that is not clear
    why : what states it, or which indications contradict each other
    """

    style: Style | None
    why: str


def _style_evidence(texts: Iterable[str]) -> tuple[dict[Style, str], str]:
    """A cell that can be read in one style only, for each style; and one that can be read in both, differently."""
    only: dict[Style, str] = {}
    both = ""
    for text in dict.fromkeys(texts):
        found = readings(text)
        if len(found) == 1:
            only.setdefault(next(iter(found)), text)
        elif len(found) == 2 and found["point"] != found["comma"]:
            both = both or text
    return only, both


def style_of(
    column: Sequence[str], table: Iterable[str], plausible: Sequence[Style] = (), *, comma_usual: bool = False
) -> Written:
    """How the numbers of a column are written.

    column, table : texts of its cells, and of all cells of the table
    comma_usual : whether the words of the table are of a language that writes decimals with a comma
    plausible : styles in which all of its numbers are such as its quantity can have; empty where nothing is known of it
    """
    only, both = _style_evidence(column)
    if len(only) == 2:
        return Written(None, f"{only['point']!r} and {only['comma']!r} cannot both be read in one way")
    if only:
        style = next(iter(only))
        return Written(style, f"{only[style]!r} can be read in one way only")
    if not both:
        return Written("point", "")
    if len(plausible) == 1:
        return Written(plausible[0], "the other reading would be out of proportion")
    elsewhere, _ = _style_evidence(table)
    if len(elsewhere) == 1:
        style = next(iter(elsewhere))
        # the other columns indicate a style, and nothing contradicts it
        return Written(style, f"{elsewhere[style]!r} in another column can be read in one way only")
    if "." in both and not elsewhere and not comma_usual:
        return Written("point", "")
    return Written(None, f"{both!r} can be {readings(both)['point']} or {readings(both)['comma']}")


def uses_decimal_comma(texts: Iterable[str]) -> bool:
    """Whether a number among the texts can only be read with a decimal comma, and none only with a point."""
    only, _ = _style_evidence(texts)
    return set(only) == {"comma"}
