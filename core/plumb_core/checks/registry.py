"""How a checker is made known."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from plumb_core.checks.check import Check
from plumb_core.checks.context import Context

Function = Callable[[Context], Iterable[Check]]


@dataclass(frozen=True, slots=True)
class Checker:
    """A pure function from a context to checks.

    of_claims_alone : whether its checks follow from the submission and from our own model's answer alone, so that they are
        the same under every assumption on our side
    """

    function: Function
    of_claims_alone: bool = False

    def checks(self, context: Context) -> list[Check]:
        """Its checks; what no assumption changes is made once."""
        if not self.of_claims_alone:
            return list(self.function(context))
        made = context.made_of_claims.get(self.function)
        if made is None:
            made = context.made_of_claims[self.function] = list(self.function(context))
        return made


CHECKERS: list[Checker] = []


def checker(function: Function) -> Function:
    """Register a checker: a pure function that gives the checks of one kind, or of a few that belong together."""
    CHECKERS.append(Checker(function))
    return function


def checker_of_claims(function: Function) -> Function:
    """Register a checker whose checks follow from the submission and from our own model's answer alone."""
    CHECKERS.append(Checker(function, of_claims_alone=True))
    return function
