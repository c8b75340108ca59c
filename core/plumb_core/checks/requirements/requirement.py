"""A requirement: what has to be shown, when, and by which values."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field

from plumb_core import DIRECTIONS
from plumb_core.checks.context import Context
from plumb_core.checks.stages.drift.inputs import DRIFTS
from plumb_core.editions.edition import Edition
from plumb_core.rules import Key

Condition = Callable[[Context], "str | None"]
"""Why a requirement does not apply; empty where it applies, None where that cannot be decided yet."""


@dataclass(frozen=True, slots=True)
class Evidence:
    """What shows a requirement at one place: the building, or a direction.

    Attributes
    ----------
    place : direction, or empty for the building
    keys : of the submitted values that show it; empty where nothing does
    """

    place: str
    keys: tuple[Key, ...]


Shown = Callable[[Context], Iterable[Evidence]]


@dataclass(frozen=True, slots=True)
class Requirement:
    """What an edition requires a submission to show.

    Attributes
    ----------
    id : stable; the same in all editions
    words : what has to be shown
    stage : of the recheck that it belongs to
    clause_of : rules of the edition, the first of which that it has gives the clause; it has the requirement with it
    shown : what shows it
    names : quantities that it may be shown by, for what is not read yet
    when : why it does not apply
    open_words : what is missing on our side where that cannot be decided
    code, also : of the catalogue, of its absence; further codes of checks that find it absent
    stated_by : quantity that states it, where that is not the one of the clause
    """

    id: str
    words: str
    stage: str
    clause_of: tuple[str, ...]
    shown: Shown
    names: tuple[str, ...]
    when: Condition = field(default=lambda context: "")
    open_words: str = ""
    code: str = ""
    also: tuple[str, ...] = ()
    stated_by: str = ""

    def at(self, edition: Edition) -> str:
        """The quantity at which its absence is reported."""
        rules = edition.rules({})
        return self.stated_by or next(n for n in self.clause_of if n in rules)


def stated(*names: str) -> Shown:
    """Any of the values, without a direction or a case."""

    def shown(context: Context) -> Iterable[Evidence]:
        yield Evidence("", _keys(context, names, None))

    return shown


def in_both(*names: str) -> Shown:
    """Any of the values in each direction; a value without a direction counts for both."""

    def shown(context: Context) -> Iterable[Evidence]:
        for d in DIRECTIONS:
            yield Evidence(d, _keys(context, names, d) or _keys(context, names, None))

    return shown


def _keys(context: Context, names: Iterable[str], direction: str | None) -> tuple[Key, ...]:
    by_key, of_cases = context.claims.by_key, context.claims.of_cases
    single = [k for n in names if (k := Key(n, direction)) in by_key]
    of_case = [k for k in of_cases if k.name in names and k.direction == direction]
    return (*single, *of_case)


def modes_shown(context: Context) -> Iterable[Evidence]:
    """Shares of the mass of the modes, in each direction."""
    for d in DIRECTIONS:
        key = Key("mass_ratio", d)
        yield Evidence(d, (key,) if context.claims.modes.values.get(key) else ())


def drifts_shown(context: Context) -> Iterable[Evidence]:
    """Story drifts, or displacements, of a case in each direction."""
    for d in DIRECTIONS:
        of_cases = [k for k in context.results.values if k.name in (*DRIFTS, "drift_max") and k.direction == d]
        yield Evidence(d, (*of_cases, *_keys(context, ("Delta", "drift_ratio"), d)))


def scaling_shown(context: Context) -> Iterable[Evidence]:
    """The modal base shear and its factor or its scaled value, in each direction."""
    for d in DIRECTIONS:
        before, after = context.modal_shear(d, "before"), context.modal_shear(d, "after")
        factor = _keys(context, ("factor_used", "V_scaled"), d)
        yield Evidence(
            d, (Key("V_dynamic", d), *factor) if before is not None and (factor or after is not None) else ()
        )


def sides_shown(context: Context) -> Iterable[Evidence]:
    """Cases with the mass to either side, in each direction."""
    for d in DIRECTIONS:
        sides = {
            (c.eccentricity > 0)
            for c in context.claims.cases.values()
            if c.eccentricity and c.direction in (d, "XY") and c.kind not in ("gravity", "combination")
        }
        yield Evidence(d, (Key("eccentricity"),) if len(sides) == 2 else ())


def has_modal_analysis(context: Context) -> bool:
    """Whether the submission has a modal analysis."""
    modal = any(c.kind == "modal" for c in context.claims.cases.values())
    return (
        modal
        or bool(context.claims.modes.numbers)
        or any(Key("V_dynamic", d) in context.claims.by_key for d in DIRECTIONS)
    )
