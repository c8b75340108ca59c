"""How a checker is made known."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from plumb_core.checks.check import Check
from plumb_core.checks.context import Context
from plumb_core.checks.kinds import KINDS

Function = Callable[[Context], Iterable[Check]]


@dataclass(frozen=True, slots=True)
class Checker:
    """A pure function from a context to checks.

    Attributes
    ----------
    function : from a context to checks
    kinds : of checks that it makes
    of_claims_alone : whether its checks follow from the submission and from the answers of the reference model
        alone, so that
        they are the same under every assumption on our side
    """

    function: Function
    kinds: frozenset[str]
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


def _registered(kinds: tuple[str, ...], of_claims_alone: bool) -> Callable[[Function], Function]:
    unknown = sorted(set(kinds) - KINDS.keys())
    if unknown or not kinds:
        raise NameError(f"not a kind of check: {', '.join(unknown) or 'none is given'}; add it to KINDS")

    def register(function: Function) -> Function:
        CHECKERS.append(Checker(function, frozenset(kinds), of_claims_alone))
        return function

    return register


def checker(*kinds: str) -> Callable[[Function], Function]:
    """Register a checker of these kinds of checks; raises NameError for a kind that is not among `KINDS`."""
    return _registered(kinds, False)


def checker_of_claims(*kinds: str) -> Callable[[Function], Function]:
    """Register a checker whose checks follow from the submission and from the answers of the reference model alone."""
    return _registered(kinds, True)
