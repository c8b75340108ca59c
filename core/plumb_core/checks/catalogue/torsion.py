"""Torsion."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from plumb_core.checks.catalogue.found import Found, Named, spoken_check
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test
from plumb_core.checks.check import Check
from plumb_core.checks.verdict import Verdict


@catalogue_test("S70", "A direction or side missing among the cases", sort="ask", stage="twist")
def case_missing(found: Found) -> Spoken:
    """There are cases with +5 % and none with -5 %, or none in Y.

    Why: only the cases that are thought to govern are run.

    Test: the matrix of direction and side.

    Clause: ASCE 7 12.8.4.2, UBC 97 1630.6, EN 1998-1 4.3.2, IS 1893 7.9.2, AS 1170.4 6.6.

    Correct: run the missing cases.
    """
    return found.spoken("S70")


@catalogue_test("S71", "Class at the limit misjudged", sort="wrong", stage="twist")
def at_the_limit(found: Found) -> Spoken:
    """A ratio of exactly 1.2 is called irregular, or one of 1.21 regular.

    Why: "exceeds" and "at least" are confused, or the ratio is rounded first.

    Test: the comparator of the code on the unrounded ratio.

    Clause: ASCE 7 Table 12.3-1, UBC 97 Table 16-M, IS 1893 Table 4 (2002) or 5 (2016).

    Correct: compare the unrounded ratio as the clause words it.
    """
    return found.spoken("S71")


@catalogue_test("S72", "Ratio copied, or average of all joints", sort="ask", stage="twist")
def copied(found: Found) -> Spoken:
    """Only a greatest and a mean drift are given, or a ratio that is not their quotient.

    Why: programs average over all joints of the floor instead of the two ends.

    Test: from the values of both ends; else the quotient, marked as not verified.

    Clause: ASCE 7 12.8.4.3: average of the displacements at the extreme points.

    Correct: give the drifts of both ends.
    """
    return found.spoken("S72")


@catalogue_test("S73", "Drift ratio used for A_x", sort="wrong", stage="twist")
def drift_for_amplification(found: Found) -> Spoken:
    """A_x follows from story drifts instead of displacements.

    Why: one table is used for both tests.

    Test: A_x by both; theirs is that of the drifts.

    Clause: ASCE 7 12.8.4.3, UBC 97 1630.7.

    Correct: use the displacements of the level.
    """
    return found.spoken("S73")


@catalogue_test("S74", "A_x not applied, or outside 1 to 3", sort="wrong", stage="twist")
def amplification(found: Found) -> Spoken:
    """A_x is not that of the displacements, is below 1 or above 3, or is not in the eccentricity.

    Why: the bounds or the application are forgotten.

    Test: computed from the displacements of both ends.

    Clause: ASCE 7 12.8.4.3, UBC 97 1630.7.

    Correct: amplify the accidental eccentricity level by level.
    """
    return found.spoken("S74")


@catalogue_test("S75", "Consequences of an irregularity not applied", sort="ask", stage="twist")
def consequences(found: Found) -> Iterator[Check]:
    """The building is irregular in torsion, and what the code requires then is not in the tables.

    Why: the irregularity is found at the end, when forces and drifts are done.

    Test: A_x, drifts at the edges, the method and the redundancy, as the edition lists them.

    Clause: ASCE 7 12.3.3, 12.5, 12.7.3, 12.8.4.3 and 12.12.1, EN 1998-1 4.2.3.1, IS 1893 7.9.

    Correct: show each consequence.
    """
    context = found.context
    if not context.irregular or "torsion_irregular" not in context.independent.rules:
        return
    words = [w for name, w in CONSEQUENCES if name in context.independent.rules]
    note = f"the building is torsionally irregular; its consequences are assessed one by one: {', '.join(words)}"
    yield spoken_check("S75", "torsion_irregular", None, note, verdict=Verdict.NOTE)


CONSEQUENCES = (
    ("A_x", "the torsional amplification"),
    ("drift_at", "drifts at the edges"),
    ("static_permitted", "the method of analysis"),
    ("rho", "the redundancy"),
    ("F_px", "the forces of diaphragms and collectors"),
)
"""Rules that a torsional irregularity changes, in words."""


@catalogue_test("S76", "Regular concluded from one test", sort="note", stage="twist")
def one_test(found: Found) -> Iterator[Named | Check]:
    """Torsion alone is tested, and the building is called regular.

    Why: one ratio is at hand.

    Test: the statement is none, and no table is about another irregularity.

    Clause: ASCE 7 Tables 12.3-1 and 12.3-2, UBC 97 Tables 16-L and 16-M.

    Correct: show the other irregularities too.
    """
    yield from found.spoken("S76")
    stated = [(d, c) for d, c in found.stated("torsion_stated") if str(c.value) == "none"]
    others = [k for k in found.context.claims.by_key if k.name in ("story_stiffness", "story_strength")]
    if stated and not others and "vertical_irregularities" in found.context.independent.rules:
        d, claim = stated[0]
        words = "no irregularity is stated, and the tables test torsion alone"
        yield spoken_check("S76", "torsion_stated", d, words, verdict=Verdict.NOTE, claim=claim)


@catalogue_test("S77", "Eccentricity not in the cases", sort="ask", stage="twist")
def no_eccentricity(found: Found) -> Spoken:
    """No case states accidental eccentricity.

    Why: it is a setting of the program that no table shows.

    Test: the cases by their side.

    Clause: ASCE 7 12.8.4.2, UBC 97 1630.6, EN 1998-1 4.3.2, IS 1893 7.9.2, AS 1170.4 6.6.

    Correct: state the eccentricity of each case.
    """
    return found.spoken("S77")


@catalogue_test("S78", "Ratios at stories with tiny drifts", sort="note", stage="twist")
def tiny_drifts(found: Found) -> Iterator[Check]:
    """A large ratio stands at a story that hardly moves.

    Why: a ratio of two small numbers says nothing.

    Test: drifts under 0.0002 of the height or under 5 % of the greatest of the case are left aside.

    Clause: judgement; the clauses on torsion compare drifts that matter.

    Correct: nothing; the story is not judged.
    """
    for twist in found.context.twists:
        high = [i for i, r in enumerate(twist.ratio) if twist.tiny[i] and not np.isnan(r) and r > 1.2]
        if high:
            story = found.context.claims.stories[high[0]]
            words = (
                f"the ratio of {twist.ratio[high[0]]:.3g} at {story} in {twist.case} is of tiny drifts and not judged"
            )
            yield spoken_check("S78", "torsion_ratio", None, words, verdict=Verdict.NOTE, place=twist.case)
            return


@catalogue_test("S79", "Wrong share of eccentricity for the code", sort="wrong", stage="twist")
def wrong_share(found: Found) -> Spoken:
    """5 % where the code has 10 %, or a shift in both axes at once.

    Why: the share of another code is used.

    Test: the stated share against that of the edition.

    Clause: ASCE 7 12.8.4.2 (5 %), EN 1998-1 4.3.2 (5 %), IS 1893 7.9.2, AS 1170.4 6.6 (10 %).

    Correct: use the share of the edition.
    """
    return found.spoken("S79")
