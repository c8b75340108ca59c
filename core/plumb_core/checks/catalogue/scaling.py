"""Scaling."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core import DIRECTIONS
from plumb_core.checks.catalogue.found import Found, spoken_check
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test
from plumb_core.checks.check import Check
from plumb_core.checks.verdict import Verdict


@catalogue_test("S61", "No scaling test at all", sort="ask", stage="scaling")
def missing(found: Found) -> Spoken:
    """A modal base shear below the required share of the static one, and no factor.

    Why: the comparison is forgotten.

    Test: the pair of base shears, and the factor that it requires.

    Clause: ASCE 7 12.9.1.4, UBC 97 1631.5.4, IS 1893 7.8.2, AS 1170.4 7.2.

    Correct: compare both base shears and scale.
    """
    return found.spoken("S61")


@catalogue_test("S62", "Scaled by too little", sort="wrong", stage="scaling")
def too_little(found: Found) -> Spoken:
    """The factor is less than the one that the edition requires, or the results are scaled down below their bound.

    Why: another share, or equality instead of the lower bound.

    Test: the factor used against the required one.

    Clause: ASCE 7 12.9.1.4, UBC 97 1631.5.4, IS 1893 7.8.2.

    Correct: use at least the required factor.
    """
    return found.spoken("S62")


@catalogue_test("S63", "One factor for two directions", sort="wrong", stage="scaling")
def one_factor(found: Found) -> Spoken:
    """One scale factor is used in both directions, and one of them requires more.

    Why: the factor of the first direction is copied.

    Test: a factor for each axis.

    Clause: ASCE 7 12.9.1.4: in each direction.

    Correct: scale each direction with its own factor.
    """
    return found.spoken("S63")


@catalogue_test("S64", "Static value wrong, so that a match proves nothing", sort="note", stage="scaling")
def depends_on_static(found: Found) -> Iterator[Check]:
    """The modal base shear is scaled to a static one that is wrong itself.

    Why: the static base shear is not rechecked before it is used as a measure.

    Test: the static base shear first; the factor by ours.

    Clause: ASCE 7 12.9.1.4, UBC 97 1631.5.4.

    Correct: correct the static base shear, then scale again.
    """
    origins = found.origins("V", "V_static", "C_s", "T", "w", "W")
    for d in DIRECTIONS:
        scaled = [c for c in found.checks if c.kind == "factor" and c.key.direction == d and c.subject is not None]
        wrong = [c for c in origins if c.key.direction in (d, None)]
        if scaled and wrong:
            words = f"the scaling in {d} depends on a static base shear that is not right"
            yield spoken_check("S64", "factor_used", d, words, verdict=Verdict.NOTE, rests_on=wrong)


@catalogue_test("S65", "Ratio of the base shears far from 1", sort="ask", stage="scaling")
def far_off(found: Found) -> Spoken:
    """The modal base shear is less than half of the static one, or more than twice, and no modes explain it.

    Why: g, I/R or a share of the mass is in it wrongly.

    Test: the ratio in a band of 0.5 to 2, and our estimate from the modes.

    Clause: ASCE 7 12.9.1.4.

    Correct: submit the table of modes, and explain the ratio.
    """
    return found.spoken("S65")


@catalogue_test("S66", "Missing mass repaired by scaling", sort="ask", stage="scaling")
def repaired(found: Found) -> Iterator[Check]:
    """The masses do not reach the target, and the results are scaled up.

    Why: the scale factor hides the modes that are missing.

    Test: the target of a direction is not met and its factor is above 1.

    Clause: ASCE 7 12.9.1.1 and 12.9.1.4.

    Correct: compute more modes first; then scale.
    """
    short = {c.key.direction: c for c in found.checks if c.kind == "target" and c.verdict is Verdict.BREACHES}
    for d in DIRECTIONS:
        used = found.number("factor_used", d)
        if d in short and used is not None and used > 1.0 + 1e-6:
            words = f"the modes in {d} do not reach the mass target, and a scale factor of {used:.4g} is used instead"
            claim = found.single("factor_used", d)
            yield spoken_check("S66", "factor_used", d, words, claim=claim, rests_on=[short[d]])


@catalogue_test("S67", "Final value is not before times factor", sort="wrong", stage="scaling")
def product(found: Found) -> Spoken:
    """The scaled base shear is not the one before times the factor.

    Why: one of the three is of another run.

    Test: arithmetic, within the digits of the three.

    Clause: arithmetic.

    Correct: give the three values of one run.
    """
    return found.spoken("S67")


@catalogue_test("S68", "Static value of the wrong case", sort="note", stage="scaling")
def wrong_case(found: Found) -> Spoken:
    """The static base shear is the reaction of a case with eccentricity, of the other axis, or has a sign.

    Why: the row is chosen by hand.

    Test: the case that the value is the reaction of.

    Clause: ASCE 7 12.9.1.4.

    Correct: state the case.
    """
    return found.spoken("S68")


@catalogue_test("S69", "Basis of the drifts under scaling", sort="ask", stage="drift")
def drifts(found: Found) -> Spoken:
    """The drifts are those before scaling where the code requires scaled ones, or the reverse.

    Why: forces and drifts are scaled by two rules, and one run is used for both.

    Test: the step of the cases whose drifts are compared.

    Clause: ASCE 7 12.9.1.4.2, UBC 97 1630.9 and 1630.10.3.

    Correct: use the results that the clause on drifts requires.
    """
    return found.spoken("S69")
