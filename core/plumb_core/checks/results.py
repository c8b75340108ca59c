"""Results of load cases as arrays over the stories."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import NamedTuple

import numpy as np

from plumb_core.checks.claims import ClaimsOfKey, half_of_last_digit
from plumb_core.documents.submission import Claim, LoadCase
from plumb_core.rules import Array, Key

SEISMIC = ("static", "modal", "time_history", None)
"""Kinds of cases that hold the seismic action by itself; one whose kind is not stated is treated as such."""


class Ends(NamedTuple):
    """Movements of both ends of the stories in a case, m, shape (n_stories,); NaN where nothing is stated.

    Attributes
    ----------
    greatest, mean : over the two ends
    by_ends : whether both ends are stated, so that the mean is verified
    """

    greatest: Array
    mean: Array
    by_ends: bool


@dataclass(frozen=True)
class CaseResults:
    """What a submission describes its load cases.

    Attributes
    ----------
    values : claims by key; the case is in the key
    cases : roles by name
    stories : number of stories
    rounded : ids of the claims whose column shows rounding to integers
    """

    values: Mapping[Key, ClaimsOfKey]
    cases: Mapping[str, LoadCase]
    stories: int
    rounded: frozenset[int] = frozenset()
    _arrays: dict[Key, Array | None] = field(default_factory=dict, repr=False, compare=False)

    def array(self, name: str, direction: str | None, case: str) -> Array | None:
        """Values by story with their signs, NaN where nothing is stated; None where none is."""
        key = Key(name, direction, case)
        if key not in self._arrays:
            of_key = self.values.get(key)
            values = None
            if of_key is not None and of_key.indexed:
                values = np.full(self.stories, np.nan)
                for i, claim in of_key.indexed.items():
                    values[i] = claim.value
            self._arrays[key] = values
        return self._arrays[key]

    def claim(self, name: str, direction: str | None, case: str, index: int | None = None) -> Claim | None:
        """The claim of a value, of a story of it where `index` is given."""
        of_key = self.values.get(Key(name, direction, case))
        if of_key is None:
            return None
        return of_key.indexed.get(index) if index is not None else next(iter(of_key.single), None)

    def with_values(self, *names: str) -> list[tuple[str, str | None]]:
        """(case, direction) of everything that states one of these quantities, in the order of the submission."""
        return list(dict.fromkeys((k.case, k.direction) for k in self.values if k.name in names and k.case is not None))

    def ends(self, what: str, direction: str | None, case: str) -> Ends | None:
        """Greatest and mean `what` (drift or displacement) of the two ends; from the ends where both are stated."""
        one, two = (self.array(f"{what}_end_{n}", direction, case) for n in (1, 2))
        if one is not None and two is not None:
            return Ends(np.maximum(np.abs(one), np.abs(two)), np.abs(one + two) / 2.0, True)
        greatest, mean = self.array(f"{what}_max", direction, case), self.array(f"{what}_avg", direction, case)
        if greatest is not None and mean is not None:
            return Ends(np.abs(greatest), np.abs(mean), False)
        places = ("displacement_centre", "displacement_single") if what == "displacement" else ("drift_single",)
        for place in places:
            value = self.array(place, direction, case)
            if value is not None:
                # one value says nothing about the ends
                return Ends(np.full(self.stories, np.nan), np.abs(value), False)
        return None

    def drifts(self, direction: str | None, case: str) -> Ends | None:
        """Story drifts of a case: as stated, else the differences of its displacements."""
        stated = self.ends("drift", direction, case)
        if stated is not None:
            return stated
        one, two = (self.array(f"displacement_end_{n}", direction, case) for n in (1, 2))
        if one is not None and two is not None:
            a, b = (np.diff(each, prepend=0.0) for each in (one, two))
            return Ends(np.maximum(np.abs(a), np.abs(b)), np.abs(a + b) / 2.0, True)
        for place in ("displacement_centre", "displacement_single"):
            value = self.array(place, direction, case)
            if value is not None:
                drift = np.abs(np.diff(value, prepend=0.0))
                return Ends(np.full(self.stories, np.nan), drift, False)
        return None

    def rounding(self, what: str, direction: str | None, case: str, index: int) -> float:
        """Half a unit of the last digits of the values of a story that `ends` is made of, added up, m."""
        names = [f"{what}_{n}" for n in ("end_1", "end_2", "max", "avg", "single")]
        claims = [c for n in names if (c := self.claim(n, direction, case, index)) is not None]
        return sum(half_of_last_digit(c, self.rounded) for c in claims)

    def seismic(self, pairs: Iterable[tuple[str, str | None]], level: str = "") -> list[tuple[str, str]]:
        """Those of (case, direction) that hold the seismic action along the direction itself.

        level : of the results; `reduced` takes those whose level is not stated with it
        """
        retained = []
        for case, direction in pairs:
            role = self.cases.get(case) or LoadCase(name=case)
            along = role.direction in (None, direction, "XY")
            levels = (role.level or "reduced") == level if level else True
            if direction in ("X", "Y") and role.kind in SEISMIC and along and levels:
                retained.append((case, direction))
        return retained
