"""What comparisons come to."""

from __future__ import annotations

from typing import NamedTuple

from plumb_core.checks.compare import Comparison
from plumb_core.checks.verdict import DeviationRole, Verdict


class Judgement(NamedTuple):
    """What a check comes to: its verdict, where its deviation starts, and whether it follows from their own values."""

    verdict: Verdict
    role: DeviationRole | None = None
    follows: bool = True


AGREES = Judgement(Verdict.AGREES)
OPEN = Judgement(Verdict.OPEN)
STARTS_HERE = Judgement(Verdict.DIFFERS, DeviationRole.ORIGIN)
INHERITED = Judgement(Verdict.DIFFERS, DeviationRole.INHERITED)


def outcome_of(independent: Comparison | None, carried: Comparison | None = None) -> Judgement:
    """What the two comparisons come to.

    A value that agrees with ours agrees, also where the submitted upstream values give another value (`follows` is then
    false).  Where the carried value agrees and ours does not, the deviation is inherited; where neither does it
    starts here.
    """
    if independent is not None and independent.agrees:
        return Judgement(Verdict.AGREES, None, carried is None or carried.agrees)
    if carried is not None and carried.agrees:
        return AGREES if independent is None else INHERITED
    return STARTS_HERE
