"""What an edition is to the rest of the core: its rules, and what it takes, requires and limits."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from plumb_core.editions.systems import LateralSystem
from plumb_core.rules import Rule

ASPECTS = ("minimum", "period", "importance", "reduction", "soil")
"""Ingredients of a base shear that are removed one after the other to say why two editions part, in this order."""


@dataclass(frozen=True)
class Choice:
    """What a brief's site can declare of an edition beside its inputs, and what does not lower a force.

    Attributes
    ----------
    words : what is declared
    sets : the sets of corrections that can hold, which build up on each other; empty for a yes or no, which is no
        unless declared
    standing : the set that holds where none is declared
    """

    words: str
    sets: tuple[tuple[int, ...], ...] = ()
    standing: tuple[int, ...] = ()


@dataclass(frozen=True)
class Edition:
    """One edition of one code: its rules, and everything that only it knows.

    Attributes
    ----------
    id, title, year : as documents name it, as people do, and of its last correction
    short : the title, short enough for the heading of a column
    rules : the rule set under the choices that a site declares (a mapping of the site's keys)
    inputs : names of what site, occupancy and system take under this edition
    period_types, formulas : of the approximate period; the first formula holds where none is named
    ground_keys : what the request kind `ground` reports, under the edition's `own_symbols` where they differ
    options : allowed values of an input
    words : input -> option -> its words on a screen, where they are not the option itself
    walls_with : formulas and period types of the approximate period that request the walls of the direction
    choices : declarations of the brief other than inputs: corrections of the code that apply, interpretations
    permissions : what the code permits and what lowers a force, with its words; off unless declared
    parts : further parts of a brief that it takes: heights of the walls, offsets of the system in a story
    systems : the table of lateral systems by id
    limits : code limits on submitted values: quantity -> (quantity of the limit, which side)
    sums : story quantities whose submitted values must add up to another submitted value
    definitions : input -> what defines it; a value carries over to an edition that defines it the same way
    soil : the input that holds the class of the soil, and the shear wave velocities (m/s) between which a class lies
    aspects : ingredient of the base shear -> values that remove it
    side_by_side : row of the side-by-side table -> quantity of this edition
    longest_period : s, beyond which the edition has no spectrum
    rank : place among the editions where they are listed, the smallest first
    parameter_names : quantity -> the words and symbols, without spaces and signs, by which tables of parameters call it
    may_be_zero : parameters that are nothing where the code states it; all others are above zero
    texts : what texts a quantity can have that a rule gives
    forces_by_weight : equations of the coefficient whose forces follow the weights alone: there is no exponent
    least_live_factor : to which the factor of the imposed load may be reduced in combinations; None where it may not
    overstrength : what the names of load combinations with overstrength contain
    corner_periods : quantities at whose periods the spectrum has corners
    required_where : what a submission has to show only under a condition, by the id of the requirement: a quantity and
        the values of it under which it is required
    not_required : ids of requirements that the edition does not have though it has their rule
    """

    id: str
    title: str
    short: str
    year: int
    rules: Callable[[Mapping[str, Any]], dict[str, Rule]]
    inputs: tuple[str, ...]
    period_types: tuple[str, ...]
    ground_keys: tuple[str, ...]
    formulas: tuple[str, ...] = ()
    own_symbols: Mapping[str, str] = field(default_factory=dict)
    options: Mapping[str, tuple[Any, ...]] = field(default_factory=dict)
    words: Mapping[str, Mapping[Any, str]] = field(default_factory=dict)
    walls_with: tuple[str, ...] = ()
    choices: Mapping[str, Choice] = field(default_factory=dict)
    permissions: Mapping[str, str] = field(default_factory=dict)
    parts: tuple[str, ...] = ()
    systems: Mapping[str, LateralSystem] = field(default_factory=dict)
    limits: Mapping[str, tuple[str, Literal["max", "min"]]] = field(default_factory=dict)
    sums: Mapping[str, str] = field(default_factory=dict)
    definitions: Mapping[str, str] = field(default_factory=dict)
    soil: tuple[str, Mapping[str, tuple[float, float]]] = ("", {})
    aspects: Mapping[str, Mapping[str, Any]] = field(default_factory=dict)
    side_by_side: Mapping[str, str] = field(default_factory=dict)
    longest_period: float | None = None
    rank: int = 100
    parameter_names: Mapping[str, str] = field(default_factory=dict)
    may_be_zero: tuple[str, ...] = ()
    texts: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    forces_by_weight: tuple[str, ...] = ()
    least_live_factor: float | None = None
    overstrength: tuple[str, ...] = ("overstrength", "special")
    corner_periods: tuple[str, ...] = ()
    required_where: Mapping[str, tuple[str, tuple[Any, ...]]] = field(default_factory=dict)
    not_required: frozenset[str] = frozenset()

    @property
    def declared(self) -> frozenset[str]:
        """Names of everything that a brief can declare of it beside its inputs."""
        return frozenset((*self.choices, *self.permissions, *self.parts))
