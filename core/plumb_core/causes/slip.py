"""What a slip is, how it is made known, and the place that it is applied at."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.editions import Edition
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.quantities import QUANTITIES, Scope
from plumb_core.rules import Evaluation, Governed, Key, Rule

Value = Any
"""A number, a text, or an array along the stories or points."""


@dataclass(frozen=True, slots=True)
class Attempt:
    """What one slip gives at a place.

    Attributes
    ----------
    name : of the slip with its variant; the same in both directions
    value : of the quantity of the place under it
    words : what was done
    code : of the catalogue; empty for a mistake that the catalogue has not
    cost : bits to state it: how rare it is, and its free parameters
    parameters : what it was applied with
    only_deviating : whether it is about single rows: the others are as they should be
    names_place : whether the code of a test at the place comes first: the slip itself has several
    parts : the slips that it consists of, where there are several
    at : where it was made, as one of several at different places
    """

    name: str
    value: Value
    words: str
    code: str
    cost: float
    parameters: Mapping[str, Any] = field(default_factory=dict)
    only_deviating: bool = False
    names_place: bool = False
    parts: tuple[Attempt, ...] = ()
    at: Key | None = None


@dataclass(frozen=True)
class Place:
    """A quantity at which a slip may have been made, with everything above it as it is submitted.

    Attributes
    ----------
    key, rule : whose value of what, and the rule that gives it; None for what no rule gives
    evaluation : with every submitted value carried on
    edition : the governing edition
    value : what the rule gives without a slip
    arguments : of the rule
    theirs : submitted values by story or point, or under None; empty where none is stated
    texts : as they were written
    """

    key: Key
    rule: Rule | None
    evaluation: Evaluation
    edition: Edition
    value: Value
    arguments: Mapping[str, Any]
    theirs: Mapping[int | None, float | str]
    texts: Mapping[int | None, str]

    @property
    def stage(self) -> str:
        """Stage of the recheck that the quantity belongs to."""
        return QUANTITIES[self.key.name].stage

    @property
    def others(self) -> tuple[str, ...]:
        """The other direction; none at a quantity of the building."""
        return tuple(d for d in DIRECTIONS if self.key.direction in DIRECTIONS and d != self.key.direction)

    def get(self, name: str) -> Value:
        """Value of a quantity in the direction of the place; None where there is none."""
        if name not in QUANTITIES or (QUANTITIES[name].scope is not Scope.BUILDING and self.key.direction is None):
            return None
        return self.evaluation.get(name, self.key.direction)

    def ours(self, name: str, direction: str | None = None) -> Value:
        """Value of a quantity by its rule, whatever is stated of it; None where there is none."""
        scope = QUANTITIES[name].scope
        key = Key(name) if scope is Scope.BUILDING else Key(name, direction or self.key.direction)
        try:
            return self.evaluation.unpinned(key).value
        except (MissingInput, RuleRefused, KeyError):
            return None

    def under(self, **changed: Value) -> Value:
        """What the rule gives with other arguments; None where it gives nothing."""
        if self.rule is None:
            return None
        arguments = dict(self.arguments)
        for name, value in changed.items():
            given = arguments.get(name)
            arguments[name] = Governed(value, "") if isinstance(given, Governed) else value
        try:
            result = self.rule.function(**arguments)
        except (ValueError, ArithmeticError, LookupError, TypeError, AttributeError):
            return None
        return plain(result)


def plain(value: Any) -> Value:
    """A value without the record of what governed it; None where it is not finite."""
    value = value.value if isinstance(value, Governed) else value
    if isinstance(value, str | bool):
        return value
    if isinstance(value, int | float):
        return float(value) if np.isfinite(value) else None
    if isinstance(value, np.ndarray) and value.dtype.kind == "f":
        return value
    return None


def number(value: Any) -> float | None:
    """A number out of an argument; None for texts, flags and arrays."""
    value = value.value if isinstance(value, Governed) else value
    return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else None


Function = Callable[[Place], Iterator[Attempt]]


@dataclass(frozen=True, slots=True)
class Slip:
    """A registered family of mistakes.

    Attributes
    ----------
    name : of the family
    function : gives its attempts at a place
    """

    name: str
    function: Function


REGISTERED: list[Slip] = []


def slip(name: str) -> Callable[[Function], Function]:
    """Register a family of slips."""

    def made(function: Function) -> Function:
        REGISTERED.append(Slip(name, function))
        return function

    return made
