"""System factors."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.catalogue.found import Found, Named, near, spoken_check
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test
from plumb_core.checks.check import Check
from plumb_core.checks.verdict import Verdict
from plumb_core.rules import Key

HIGH = ("D", "E", "F")
LOW = ("A", "B", "C")


@catalogue_test("S22", "R not of the stated system", sort="wrong", stage="lateral")
def response_factor(found: Found) -> Iterator[Named]:
    """R (q, mu) is that of another row of the table of systems.

    Why: the ductile and the ordinary system are confused, or the factor of another edition is used.

    Test: the table of systems of the edition.

    Clause: ASCE 7 Table 12.2-1, UBC 97 Table 16-N, EN 1998-1 5.2.2.2, IS 1893 Table 7 or 9, AS 1170.4 Table 6.5.

    Correct: use the factor of the system, or state the system that has it.
    """
    for check in found.origins("R", "q", "q_0", "mu", "S_p", "lateral_system", "ductility_class"):
        yield Named(check.id)


@catalogue_test("S23", "System not permitted here", sort="wrong", stage="lateral")
def permission(found: Found) -> Spoken:
    """The lateral system is not permitted in this category or zone, or at this height.

    Why: an ordinary system is used where a ductile one is required.

    Test: the table of systems against category or zone, and height.

    Clause: ASCE 7 Table 12.2-1, UBC 97 Table 16-N, IS 1893 Table 9, AS 1170.4 2.2.

    Correct: choose a system that is permitted, or show the exception.
    """
    return found.spoken("S23")


@catalogue_test("S24", "Overstrength confused with R, or C_d missing", sort="ask", stage="lateral")
def factors_confused(found: Found) -> Iterator[Named]:
    """Omega_0 or C_d is not that of the system, or is the value of another column.

    Why: three factors stand side by side in the table of systems.

    Test: each by its name against its own column.

    Clause: ASCE 7 Table 12.2-1.

    Correct: give R, Omega_0 and C_d of one row.
    """
    others = {"R": ("Omega_0", "C_d"), "Omega_0": ("R", "C_d"), "C_d": ("R", "Omega_0")}
    for check in found.origins("R", "Omega_0", "C_d"):
        shown = check.independent
        if shown is None or isinstance(shown.theirs, str):
            continue
        of = [
            n
            for n in others[check.key.name]
            if near(float(shown.theirs), found.ours(n, check.key.direction) or 0.0, 1e-6)
        ]
        if of:
            yield Named(check.id, f"it is the value of {of[0]}", exact=True)
        elif check.key.name != "R":
            yield Named(check.id)


@catalogue_test("S25", "Redundancy of 1.0 in a high category without a reason", sort="ask", stage="lateral")
def redundancy(found: Found) -> Iterator[Named | Check]:
    """The redundancy factor is 1.0 in category D, E or F, and nothing shows that its conditions are met.

    Why: 1.0 is the preset, and it lowers the force by 23 %.

    Test: the category, the stated factor, and what the review declares.

    Clause: ASCE 7 12.3.4.2.

    Correct: show the conditions of the clause for each direction, or use 1.3.
    """
    for check in found.origins("rho"):
        yield Named(check.id)
    if found.context.independent.get("design_category") not in HIGH:
        return
    for d in DIRECTIONS:
        claim = found.single("rho", d)
        ours = found.ours("rho", d)
        if claim is not None and near(found.number("rho", d), 1.0, 1e-6) and ours is None:
            words = f"a redundancy factor of 1.0 is stated in {d}; the conditions for it are not shown"
            yield spoken_check("S25", "rho", d, words, claim=claim, clause="12.3.4.2")


@catalogue_test("S26", "Irregularity denied without a test", sort="ask", stage="twist")
def irregularity(found: Found) -> Iterator[Named | Check]:
    """Irregularity is denied, and no table shows how it was tested.

    Why: regular is the convenient answer.

    Test: *not tested* and *none* are kept apart; the drifts of both ends decide for torsion, story shears over drifts
    for soft stories.

    Clause: ASCE 7 Tables 12.3-1 and 12.3-2, UBC 97 Tables 16-L and 16-M, EN 1998-1 4.2.3, IS 1893 Tables 4 and 5.

    Correct: show the test of each irregularity.
    """
    yield from found.spoken("S26")
    declared = found.context.independent.inputs.get(Key("irregularities")) or {}
    if any("soft" in name for name in declared) or "vertical_irregularities" not in found.context.independent.rules:
        return
    for d in DIRECTIONS:
        stiffness = _story_stiffness(found, d)
        if stiffness is None:
            continue
        ratios = stiffness[:-1] / stiffness[1:]
        i = int(np.argmin(ratios)) if len(ratios) else 0
        if len(ratios) and ratios[i] < SOFT:
            stories = found.context.claims.stories
            words = (
                f"by the submitted shears and drifts the stiffness of {stories[i]} in {d} is {ratios[i]:.2f} "
                f"of that of {stories[i + 1]}: a soft story"
            )
            yield spoken_check("S26", "story_stiffness", d, words, verdict=Verdict.NOTE)


SOFT = 0.7
"""Stiffness over that of the story above, below which a story is soft (ASCE 7 Table 12.3-2, UBC 97 Table 16-L)."""


def _story_stiffness(found: Found, direction: str) -> np.ndarray | None:
    """Story shear over drift of one static case, kN/m; None without both of every story."""
    shears = found.context.claims.by_key.get(Key("V_story", direction))
    stories = len(found.context.claims.stories)
    if shears is None or len(shears.indexed) != stories:
        return None
    case = shears.indexed[0].case
    drifts = found.context.results.drifts(direction, case) if case else None
    if drifts is None or np.any(np.isnan(drifts.mean)) or np.any(drifts.mean <= 0):
        return None
    return np.array([abs(float(shears.indexed[i].value)) for i in range(stories)]) / drifts.mean


@catalogue_test("S27", "Ductile system in a low category", sort="note", stage="lateral")
def detailing(found: Found) -> Iterator[Check]:
    """A special or ductile system in a category that requires none.

    Why: the system is copied from a project in a higher category, or was chosen on purpose.

    Test: the detailing level in the name of the system against the category.

    Clause: ASCE 7 Table 12.2-1 and 14.

    Correct: nothing, where the detailing follows the system; otherwise use the factors of the system that is built.
    """
    if found.context.independent.get("design_category") not in LOW:
        return
    for d, claim in found.stated("lateral_system"):
        if "special" in str(claim.value).lower():
            words = f"{claim.value}: its detailing is required with its factors, though the category would permit less"
            yield spoken_check("S27", "lateral_system", d, words, verdict=Verdict.NOTE, claim=claim)
