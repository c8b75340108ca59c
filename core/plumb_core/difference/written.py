"""Submitted values as they were written, and whether one is another than the other as far as its digits say."""

from __future__ import annotations

from typing import NamedTuple

from plumb_core.checks.claims import size, theirs
from plumb_core.checks.wording import figures
from plumb_core.digits import half_unit
from plumb_core.documents.results import CheckResult
from plumb_core.documents.submission import Claim
from plumb_core.quantities import QUANTITIES


class Written(NamedTuple):
    """A submitted value: in the core's unit, its text, and what turns the written number into that unit."""

    value: float | str
    text: str
    scale: float | None


def written(claim: Claim) -> Written:
    """A submitted value as it was written."""
    return Written(theirs(claim), claim.text, claim.scale)


def written_of(check: CheckResult) -> Written | None:
    """The submitted value of a check as it was written; None where it has none."""
    stated = check["theirs"]
    if stated is None:
        return None
    value = stated["value"]
    if isinstance(value, str):
        return Written(value, stated["text"], None)
    try:
        number = float(stated["text"])
    except ValueError:
        number = 0.0
    # of a zero the written number does not say its unit
    return Written(size(check["quantity"], value), stated["text"], abs(value / number) if value and number else None)


def moved(was: CheckResult, now: CheckResult) -> bool:
    """Whether the submitted value of a check is another one."""
    one, other = written_of(was), written_of(now)
    if one is None or other is None:
        return (one is None) != (other is None)
    return another(one, other)


def another(one: Written, other: Written) -> bool:
    """Whether a submitted value is another one, as far as its digits say."""
    a, b = one.value, other.value
    if isinstance(a, str) or isinstance(b, str):
        return str(a) != str(b)
    if a == b:
        return False
    halves = half_unit(one.text) * (one.scale or other.scale or 1.0)
    halves += half_unit(other.text) * (other.scale or one.scale or 1.0)
    return abs(a - b) > halves * (1 + 1e-9)


def relative(one: float | str | None, other: float | str | None) -> float | None:
    """How far a number moved, over what it was; None for texts, and from zero."""
    return other / one - 1.0 if isinstance(one, float) and isinstance(other, float) and one else None


def text(written: float | str, unit: str, quantity: str) -> str:
    """A submitted value as it was written, with its unit; a sum of several in figures and our unit."""
    standing = QUANTITIES[quantity].unit.replace("*", " ") if quantity in QUANTITIES else ""
    if isinstance(written, str):
        return f"{written} {unit or standing}".strip()
    return f"{figures(written)} {standing}".strip()
