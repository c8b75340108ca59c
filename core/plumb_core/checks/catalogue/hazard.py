"""Code, edition, hazard, category."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from plumb_core import DIRECTIONS
from plumb_core.checks.catalogue.found import Found, Named, near, ratio_of, spoken_check
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test
from plumb_core.checks.check import Check
from plumb_core.checks.verdict import Verdict
from plumb_core.rules import Key

HAZARD = ("S_S", "S_1", "S_MS", "S_M1", "a_gR", "a_g", "Z", "kpZ", "T_L")
"""Quantities of the hazard that are looked up."""
COEFFICIENTS = ("F_a", "F_v", "C_a", "C_v", "N_a", "N_v", "S", "k_p", "T_B", "T_C", "T_D")
"""Site coefficients that tables give."""
CATEGORIES = ("design_category", "seismicity", "importance_class", "risk_category", "occupancy_category")


@catalogue_test("S11", "Two editions or codes mixed", sort="ask", stage="process")
def editions(found: Found) -> Spoken:
    """The submission names another edition than that of record.

    Why: parts of the calculation were made for another project or before the adoption of an edition.

    Test: the stated edition against that of the review.

    Clause: the edition of record.

    Correct: state which edition each part follows, and repeat what follows another one.
    """
    return found.spoken("S11")


@catalogue_test("S12", "Limit of another code quoted", sort="wrong", stage="modes")
def quoted_limits(found: Found) -> Iterator[Named]:
    """A target of 85 % of the mass, a drift limit or a scaling share of another code.

    Why: a limit is remembered, not looked up.

    Test: each stated limit against that of the edition.

    Clause: ASCE 7 12.9.1.1, UBC 97 1631.5.2, EN 1998-1 4.3.3.3.1, IS 1893 7.8.4.2, AS 1170.4 7.4.

    Correct: quote the limit of the edition of record, and compare again.
    """
    yield from found.spoken("S12")
    for check in found.origins(
        "mass_target", "drift_limit", "scaling_share", "theta_limit", kinds=("value", "declared")
    ):
        yield Named(check.id)


@catalogue_test("S13", "Hazard value of another place or edition", sort="note", stage="ground")
def hazard_source(found: Found) -> Iterator[Named | Check]:
    """A hazard value differs from that of the review, or stands without source and date.

    Why: values of another project, another map or another edition of the map.

    Test: compared with the values of the review; a second look-up for the coordinates of the site.

    Clause: ASCE 7 11.4.2, UBC 97 Figure 16-2, EN 1998-1 3.2.1, IS 1893 Annex E, AS 1170.4 Section 3.

    Correct: state the source, the coordinates and the date of the look-up.
    """
    for check in found.origins(*HAZARD, "zone"):
        yield Named(check.id)
    stated = [name for name in HAZARD if found.single(name) is not None]
    if stated:
        words = f"the source and the date of {', '.join(stated)} are not part of the tables"
        yield spoken_check("S13", stated[0], None, words, verdict=Verdict.NOTE, claim=found.single(stated[0]))


@catalogue_test("S14", "Default site class treated as known", sort="wrong", stage="ground")
def default_class(found: Found) -> Iterator[Named | Check]:
    """Site coefficients of class D without the floor that applies where the class is taken by default.

    Why: the default class is used as if the soil had been measured.

    Test: the submitted coefficient is that of the class when known; ours has the floor of the default.

    Clause: ASCE 7-16 11.4.4, ASCE 7-22 11.4.2.1.

    Correct: use the floor, or submit the geotechnical report.
    """
    independent = found.context.independent
    if not independent.get("class_by_default"):
        return
    known = independent.assuming(inputs={Key("class_by_default"): False})
    for check in found.origins(*COEFFICIENTS, "S_MS", "S_M1", "S_DS", "S_D1"):
        value = known.get(check.key.name, check.key.direction)
        shown = check.independent
        if isinstance(value, float) and shown is not None and near(float(shown.theirs), value, 0.005):
            yield Named(
                check.id, "the value is that of a class that is known, and the class is taken by default", exact=True
            )
    if (claim := found.single("site_class")) is not None and "default" not in str(claim.value).lower():
        words = f"site class {claim.value} is stated without a report, and the review has it by default"
        yield spoken_check("S14", "site_class", None, words, claim=claim)


@catalogue_test("S15", "Site coefficients exchanged or misread", sort="wrong", stage="ground")
def coefficients(found: Found) -> Iterator[Named]:
    """F_a or F_v (C_a, C_v, S) is that of another row or column, or both are exchanged.

    Why: tables are read by hand.

    Test: recomputed from the tables of the edition; each compared with the other.

    Clause: ASCE 7 Tables 11.4-1 and 11.4-2, UBC 97 Tables 16-Q and 16-R, EN 1998-1 Table 3.2.

    Correct: read both coefficients again, with the site class and the hazard values.
    """
    pairs = {"F_a": "F_v", "F_v": "F_a", "C_a": "C_v", "C_v": "C_a", "N_a": "N_v", "N_v": "N_a"}
    for check in found.origins(*COEFFICIENTS):
        other = found.ours(pairs.get(check.key.name, ""), None) if check.key.name in pairs else None
        shown = check.independent
        exchanged = shown is not None and other is not None and near(float(shown.theirs), other, 0.003)
        yield Named(check.id, f"it is the value of {pairs[check.key.name]}: both are exchanged" if exchanged else "")


@catalogue_test("S16", "Maximum considered motion in place of the design one", sort="wrong", stage="spectrum")
def considered_motion(found: Found) -> Iterator[Named]:
    """Ordinates or base shears are 1.5 times ours, or two thirds.

    Why: 2/3 is missing, or is applied to values that have it already.

    Test: the ratio of ordinates, S_DS, S_D1 or modal base shears to ours is near 1.5 or 0.667.

    Clause: ASCE 7 11.4.5.

    Correct: use the design spectrum, two thirds of the maximum considered one.
    """
    yield from found.spoken("S16")
    for target, words in (
        (1.5, "the value is that of the maximum considered motion"),
        (2.0 / 3.0, "2/3 is applied twice"),
    ):
        off = [
            c
            for c in found.origins("S_DS", "S_D1", "S_a", "S_a_reduced")
            if near(ratio_of(c), target, 0.01) and "S_MS" in found.context.independent.rules
        ]
        if off:
            yield Named(off[0].id, words, exact=True, gathers=tuple(c.id for c in off[1:]))


@catalogue_test("S17", "Design category assumed", sort="wrong", stage="ground")
def category(found: Found) -> Iterator[Named]:
    """The stated category is not the one that follows from hazard and occupancy.

    Why: it is taken from another project, or the rule for S_1 of at least 0.75 is overlooked.

    Test: derived by the edition and compared.

    Clause: ASCE 7 11.6, AS 1170.4 Table 2.1.

    Correct: derive the category again; what depends on it changes with it.
    """
    for check in found.origins(*CATEGORIES):
        yield Named(check.id)


@catalogue_test("S18", "Lowest category designed with R", sort="wrong", stage="lateral")
def lowest_category(found: Found) -> Iterator[Named]:
    """In category A the base shear is S_DS I/R times the weight.

    Why: the procedure of the higher categories is used throughout.

    Test: the category is A and the base shear is not 1 % of the weight at each level.

    Clause: ASCE 7 11.7 and 1.4.3.

    Correct: use 1 % of the weight of each level, or show that more was chosen on purpose.
    """
    if found.context.independent.get("design_category") != "A":
        return
    for check in found.origins("V", "V_static", "C_s", "F", "coefficient"):
        yield Named(check.id, "category A: 1 % of the weight at each level")


@catalogue_test("S19", "Capped short-period value without its conditions", sort="wrong", stage="lateral")
def short_period_cap(found: Found) -> Iterator[Named]:
    """C_s follows from S_DS of 1.0 (or 70 % of S_DS), which only regular low buildings may use.

    Why: the cap lowers the force, and its conditions are not assessed.

    Test: the submitted value is ours with the cap; the review does not declare it, or its conditions are not met.

    Clause: ASCE 7 12.8.1.3, UBC 97 1630.2.3.

    Correct: show that all conditions are met, or use the full S_DS.
    """
    independent = found.context.independent
    if independent.inputs.get(Key("short_period_cap")) or "S_DS_static" not in independent.rules:
        return
    for d in DIRECTIONS:
        whole = found.ours("S_DS")
        if not whole or whole <= 1.0:
            continue
        for check in found.origins("C_s", "C_s_plateau", "coefficient", "V", "V_static", "S_DS_static"):
            if check.key.direction in (None, d) and near(ratio_of(check), max(1.0, 0.7 * whole) / whole, 0.004):
                yield Named(check.id, "the value follows from the capped S_DS", exact=True)


@catalogue_test("S20", "Zone factor out of range", sort="wrong", stage="ground")
def zone_factor(found: Found) -> Iterator[Named]:
    """A zone factor that the table of the edition does not have.

    Why: a value of another edition, or of a neighbouring country.

    Test: membership in the table.

    Clause: UBC 97 Table 16-I, IS 1893 Table 2 (2002) or 3 (2016), AS 1170.4 Table 3.2.

    Correct: use the factor of the zone.
    """
    zones: tuple[Any, ...] = tuple(found.context.edition.options.get("zone", ()))
    independent = found.context.independent
    factors = [independent.assuming(inputs={Key("zone"): z}).get("Z") for z in zones]
    for check in found.origins("Z"):
        shown = check.independent
        if shown is None or isinstance(shown.theirs, str) or not any(isinstance(f, float) for f in factors):
            continue
        if not any(isinstance(f, float) and near(float(shown.theirs), f, 0.002) for f in factors):
            yield Named(check.id, "no zone of the edition has this factor", exact=True)


@catalogue_test("S21", "Table coefficients left at their preset", sort="note", stage="process")
def presets(found: Found) -> Iterator[Check]:
    """Coefficients stand in the parameters without the row of the table that they are of.

    Why: programs start with presets, which stay where nobody changes them.

    Test: each is compared with the derived value; the source of each is requested.

    Clause: the tables of the edition.

    Correct: state the table and the row of each coefficient.
    """
    stated = [n for n in COEFFICIENTS if found.single(n) is not None]
    if stated:
        words = f"the tables do not say which row {', '.join(stated)} are of; each is compared with ours"
        yield spoken_check("S21", stated[0], None, words, verdict=Verdict.NOTE, claim=found.single(stated[0]))
