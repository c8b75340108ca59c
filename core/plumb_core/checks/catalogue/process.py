"""Combination, stage, process."""

from __future__ import annotations

import re
from collections.abc import Iterator

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.catalogue.found import Found, Named, spoken_check
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test
from plumb_core.checks.check import Check
from plumb_core.checks.verdict import Verdict
from plumb_core.constants import GRAVITY
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Key

PROMISE = re.compile(
    r"(?i)\b(to be (confirmed|verified|checked|done|provided|submitted)|tb[cda]|will be|later|pending|"
    r"see (report|appendix|drawings?)|not yet|follows)\b"
)
"""Words of a text that promises a value."""


@catalogue_test("S86", "One axis only, or another rule for both directions", sort="ask", stage="process")
def directions(found: Found) -> Spoken:
    """The combinations have one direction at a time where the code requires 100 % and 30 %.

    Why: each direction is designed by itself.

    Test: the combinations against those that the edition requires.

    Clause: ASCE 7 12.5, UBC 97 1633.1, EN 1998-1 4.3.3.5.1, IS 1893 6.3.2, AS 1170.4 8.1.

    Correct: add the combinations with 30 % of the other direction.
    """
    return found.spoken("S86")


@catalogue_test("S87", "Both axes in one case", sort="ask", stage="process")
def one_case(found: Found) -> Spoken:
    """One spectrum case acts in both directions and is combined by SRSS.

    Why: one case saves a run; base shears of each axis cannot be read from it.

    Test: cases with both directions; their reactions.

    Clause: ASCE 7 12.5.3, EN 1998-1 4.3.3.5.1.

    Correct: give a case for each direction.
    """
    return found.spoken("S87")


@catalogue_test("S88", "Combined maxima read as concurrent", sort="note", stage="process")
def maxima(found: Found) -> Spoken:
    """Forces and moments of a modal case are used together.

    Why: a table of greatest values looks like one state.

    Test: results of several kinds of one modal case.

    Clause: ASCE 7 12.9.3, EN 1998-1 4.3.3.3.2.

    Correct: use them one by one, or combine what is used together mode by mode.
    """
    return found.spoken("S88")


@catalogue_test("S89", "Different structural states", sort="ask", stage="process")
def states(found: Found) -> Iterator[Named | Check]:
    """The periods of the static method, or the displacements under its forces, are not those of the table of modes.

    Why: cracked sections in one run and gross ones in the other, or two masses.

    Test: the periods of both in each direction; the Rayleigh quotient of static forces and displacements of one case.

    Clause: ASCE 7 12.7.3, EN 1998-1 4.3.1(7).

    Correct: state the stiffnesses of each run, and use one state.
    """
    yield from found.spoken("S89")
    for d in DIRECTIONS:
        rayleigh, T = _rayleigh(found, d), found.leading_period(d)
        if rayleigh is not None and T and not 1.0 / APART <= rayleigh / T <= APART:
            words = (
                f"forces and displacements of the static case give a period of {rayleigh:.3g} s in {d}, "
                f"and the table of modes has {T:.3g} s"
            )
            yield spoken_check("S89", "T_mode", None, words, place=d)


APART = 1.15
"""Ratio of two periods of one structure; a Rayleigh quotient with the static shape is a few per cent off."""


TWISTED = 1.2
"""Movement of the farther end over the mean of both, beyond which a story turns."""


def _rayleigh(found: Found, direction: str) -> float | None:
    """Period by 2 pi sqrt(sum w u^2 / (g sum F u)) of one static case, s; None without its forces or displacements."""
    forces = found.context.claims.by_key.get(Key("F", direction))
    weights = found.context.independent.get("w")
    stories = len(found.context.claims.stories)
    if forces is None or weights is None or len(forces.indexed) != stories or len(weights) != stories:
        return None
    case = forces.indexed[0].case
    role = found.context.claims.cases.get(case)
    moved = found.context.results.ends("displacement", direction, case) if case else None
    if moved is None or role is None or role.level not in (None, "reduced") or np.any(np.isnan(moved.mean)):
        return None
    if np.any(moved.greatest > TWISTED * moved.mean):
        # where it turns, the mean of the ends is not the movement of the centre of mass
        return None
    F = np.array([abs(float(forces.indexed[i].value)) for i in range(stories)])
    work = float(np.sum(F * moved.mean))
    moving = float(np.sum(np.asarray(weights) * moved.mean * moved.mean))
    return 2.0 * np.pi * float(np.sqrt(moving / (GRAVITY * work))) if work > 0 and moving > 0 else None


@catalogue_test("S90", "Dependent run omitted", sort="ask", stage="process")
def omitted(found: Found) -> Spoken:
    """There are modal results and no table of modes.

    Why: the run that they rest on is not part of the submission.

    Test: modal results without modes.

    Clause: ASCE 7 12.9.1.1.

    Correct: submit the table of modes of the same run.
    """
    return found.spoken("S90")


@catalogue_test("S91", "Warnings ignored", sort="ask", stage="process")
def warnings(found: Found) -> Spoken:
    """The log of the analysis has warnings or errors.

    Why: the run ended and gave numbers.

    Test: the lines of the log.

    Clause: the quality of the analysis; EN 1990 B4.

    Correct: explain each warning, or remove its cause.
    """
    return found.spoken("S91")


@catalogue_test("S92", "Promised comparison not made", sort="note", stage="process")
def promised(found: Found) -> Iterator[Check]:
    """A text says that something will be shown, and it is not.

    Why: the submission was sent before it was complete.

    Test: texts of parameters, categories and the log that promise.

    Clause: the completeness of the submission.

    Correct: submit what is promised, or withdraw it.
    """
    for claim in found.context.claims.claims:
        text = claim.value if isinstance(claim.value, str) else ""
        if text and PROMISE.search(text):
            words = f"{QUANTITIES[claim.quantity].meaning.lower()}: {text[:80]!r} is a promise, not a value"
            yield spoken_check("S92", claim.quantity, claim.direction, words, verdict=Verdict.NOTE, claim=claim)
            return


@catalogue_test("S93", "Verdict based on presets", sort="note", stage="process")
def assumed(found: Found) -> Iterator[Check]:
    """A verdict rests on values that nobody gave.

    Why: the review has no declaration yet, and the safer value is assumed.

    Test: the facts of the review that are assumed and that checks use.

    Clause: the facts of the review.

    Correct: declare the facts in the brief.
    """
    facts = found.context.independent.facts.values()
    names = list(dict.fromkeys(QUANTITIES[f.key.name].meaning.lower() for f in facts if f.source == "assumed"))
    if names:
        first = next(f for f in facts if f.source == "assumed")
        more = f" and {len(names) - 3} more" if len(names) > 3 else ""
        words = f"the verdicts rest on assumed values: {', '.join(names[:3])}{more}"
        yield spoken_check("S93", first.key.name, first.key.direction, words, verdict=Verdict.NOTE)
