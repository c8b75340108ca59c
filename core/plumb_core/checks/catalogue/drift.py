"""Drift."""

from __future__ import annotations

from plumb_core.checks.catalogue.found import Found
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test


@catalogue_test("S80", "Reduced displacement used as real displacement", sort="wrong", stage="drift")
def not_amplified(found: Found) -> Spoken:
    """Drifts under the reduced action are compared with the limit without amplification.

    Why: the results of the strength analysis are read as they are.

    Test: amplified drifts over reduced ones against the factor of the edition.

    Clause: ASCE 7 12.8.6, UBC 97 1630.9.2, EN 1998-1 4.3.4, AS 1170.4 6.7.2.

    Correct: multiply by C_d/I_e (0.7 R, q, mu/S_p).
    """
    return found.spoken("S80")


@catalogue_test("S81", "No drift check at all", sort="ask", stage="drift")
def missing(found: Found) -> Spoken:
    """There are results of an analysis and no story drifts.

    Why: the check is left to a later stage.

    Test: drifts of each direction.

    Clause: ASCE 7 12.12.1, UBC 97 1630.10, EN 1998-1 4.4.3.2, IS 1893 7.11.1, AS 1170.4 5.4.4.

    Correct: submit the drifts of both directions.
    """
    return found.spoken("S81")


@catalogue_test("S82", "Drift as the difference of two spectrum maxima", sort="ask", stage="drift")
def differenced(found: Found) -> Spoken:
    """The drifts of a modal case are the differences of its combined displacements.

    Why: combined displacements are subtracted instead of combining the drifts of the modes.

    Test: drifts against the differences of the displacements.

    Clause: ASCE 7 12.9.2, EN 1998-1 4.3.3.3.2: each quantity is combined by itself.

    Correct: have the program combine the drifts mode by mode.
    """
    return found.spoken("S82")


@catalogue_test("S83", "Drift not at the edge though irregular", sort="ask", stage="drift")
def not_at_edges(found: Found) -> Spoken:
    """The building is irregular in torsion, and drifts are those of the centre of mass.

    Why: one value for each story is at hand.

    Test: the irregularity, and where the drifts are taken.

    Clause: ASCE 7 12.12.1 and 12.8.6, UBC 97 1630.10.

    Correct: give the drifts of the edges.
    """
    return found.spoken("S83")


@catalogue_test("S84", "Wrong height under a drift", sort="wrong", stage="drift")
def wrong_height(found: Found) -> Spoken:
    """Drift ratios are over the height above the base instead of the height of the story.

    Why: the level is in the next column.

    Test: ratios against drifts and heights of the stories.

    Clause: ASCE 7 12.12.1 (h_sx), EN 1998-1 4.4.3.2, IS 1893 7.11.1.

    Correct: divide by the height of the story.
    """
    return found.spoken("S84")


@catalogue_test("S85", "Drift beyond its limit, or another limit used", sort="wrong", stage="drift")
def limit(found: Found) -> Spoken:
    """The drift exceeds the limit for this structure, importance and redundancy.

    Why: the limit of another row is used, or the divisor rho is forgotten.

    Test: the table of limits.

    Clause: ASCE 7 Table 12.12-1 and 12.12.1.1, UBC 97 1630.10.2, EN 1998-1 4.4.3.2, IS 1893 7.11.1, AS 1170.4 5.4.4.

    Correct: stiffen the building, or show which limit applies.
    """
    return found.spoken("S85")
