"""Weight and mass."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core import DIRECTIONS
from plumb_core.checks.catalogue.found import Found, Named, spoken_check
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test
from plumb_core.checks.check import Check
from plumb_core.checks.checkers.make_up import Row, rows_of
from plumb_core.checks.verdict import Verdict
from plumb_core.constants import GRAVITY
from plumb_core.documents.thresholds import band
from plumb_core.rules import Key

SHIFTED = (0.03, 0.12)
"""Shares of the plan dimension by which an accidental eccentricity shifts a centre."""
SELF = ("self", "own", "structure", "frame", "dead")
"""Words of a load that is the weight of the structure."""


def _self_weights(rows: list[Row]) -> list[Row]:
    """The greatest dead load of each story whose name is that of the structure, else its greatest dead load."""
    by_story: dict[int, Row] = {}
    for row in rows:
        if row.plain["kind"] != "dead":
            continue
        named = any(word in row.load.lower() for word in SELF)
        before = by_story.get(row.story)
        if before is None or (named, row.amount) > (any(w in before.load.lower() for w in SELF), before.amount):
            by_story[row.story] = row
    return list(by_story.values())


@catalogue_test("S33", "Self-weight counted twice", sort="wrong", stage="weight")
def twice(found: Found) -> Iterator[Named]:
    """The weights exceed ours by about the weight of the structure.

    Why: the program adds the self-weight, and the loads have it too.

    Test: the excess of each story against the dead load of its make-up.

    Clause: ASCE 7 12.7.2, UBC 97 1630.1.1, EN 1998-1 3.2.4, IS 1893 7.4, AS 1170.4 6.2.2.

    Correct: take the self-weight out of the loads, or out of the program.
    """
    dead = {row.story: row.amount for row in _self_weights(rows_of(found.context))}
    off = []
    for check in found.origins("w", "m"):
        shown = check.independent
        if shown is None or check.index is None or isinstance(shown.theirs, str) or isinstance(shown.ours, str):
            continue
        # a mass is compared in t
        weight = dead.get(check.index, 0.0) * (1.0 if check.key.name == "w" else 1.0 / GRAVITY)
        excess = shown.theirs - shown.ours
        if weight > 0 and abs(excess - weight) <= 0.02 * weight:
            off.append(check.id)
    if off:
        words = "the excess is the weight of the structure: it is counted twice"
        yield Named(off[0], words, exact=True, gathers=tuple(off[1:]), instead_of=("S43",))


@catalogue_test("S34", "Superimposed loads or slabs missing", sort="ask", stage="weight")
def light(found: Found) -> Spoken:
    """The seismic weight over the floor area is less than any building has, or more.

    Why: the slab is modelled without weight, or superimposed loads are not among the masses.

    Test: W over the area of the floors, in a band of 3 to 20 kPa.

    Clause: ASCE 7 12.7.2, EN 1998-1 3.2.4, IS 1893 7.4.

    Correct: list the loads of a floor with their intensities.
    """
    return found.spoken("S34")


@catalogue_test("S35", "Live load share wrong for the code", sort="wrong", stage="weight")
def live_share(found: Found) -> Spoken:
    """25 % of all live load, all of it, or none where some counts; roof included where it is not.

    Why: the share of another code or of storage is used for everything.

    Test: recomputed by the rule of the edition from kind, category and intensity.

    Clause: ASCE 7 12.7.2, UBC 97 1630.1.1, EN 1998-1 4.2.4, IS 1893 Table 8, AS 1170.0 Table 4.1.

    Correct: use the share of the code for each load.
    """
    return found.spoken("S35")


@catalogue_test("S36", "Threshold of live load misread", sort="wrong", stage="weight")
def threshold(found: Found) -> Spoken:
    """At 3 kN/m2 exactly the share of the heavier loads is used, or the reverse.

    Why: "up to and including" is read as "below".

    Test: the boundary itself.

    Clause: IS 1893 Table 8 (2002) or 10 (2016).

    Correct: 25 % up to and including 3 kN/m2, 50 % above.
    """
    return found.spoken("S36")


@catalogue_test("S37", "Partitions, snow or equipment omitted", sort="ask", stage="weight")
def omitted(found: Found) -> Spoken:
    """A load that the edition counts does not appear in the make-up, not even with 0.

    Why: it is forgotten, or considered and not said.

    Test: each kind of load is there, there with 0, or not stated.

    Clause: ASCE 7 12.7.2, UBC 97 1630.1.1, EN 1998-1 4.2.4.

    Correct: add a row with its amount, 0 where there is none.
    """
    return found.spoken("S37")


@catalogue_test("S38", "Static weight differs from modal mass", sort="wrong", stage="weight")
def weight_and_mass(found: Found) -> Iterator[Named]:
    """The mass of the analysis times g is not the seismic weight of the story.

    Why: the masses are made of other loads than the static calculation.

    Test: totals, and story by story.

    Clause: ASCE 7 12.9.1, EN 1998-1 3.2.4, IS 1893 7.8.4.

    Correct: use one set of loads for both.
    """
    for check in found.origins("m", kinds=("mass",)):
        yield Named(check.id)


@catalogue_test("S39", "Uplift as mass, or cut off", sort="ask", stage="weight")
def uplift(found: Found) -> Iterator[Check]:
    """A load or a weight is negative.

    Why: uplift or a correction is among the masses, and programs cut it off or take its size.

    Test: the signs of the loads and weights.

    Clause: ASCE 7 12.7.2.

    Correct: state which loads are masses, and take uplift out.
    """
    negative = [r for r in rows_of(found.context) if r.amount < 0]
    weights = found.context.claims.by_key.get(Key("w"))
    if negative:
        row = negative[0]
        claim = row.stated.get("load_amount")
        words = f"the load {row.load} at {found.context.claims.stories[row.story]} is negative: is it a mass?"
        yield spoken_check("S39", "load_amount", None, words, claim=claim)
    elif weights is not None and (below := [c for c in weights.all if float(c.value) < 0]):
        yield spoken_check("S39", "w", None, f"the weight of {below[0].story} is negative", claim=below[0])


@catalogue_test("S40", "Base-level or basement mass included or excluded", sort="ask", stage="weight")
def base_level(found: Found) -> Spoken:
    """The base is stated at a floor whose weight, or that of the floors below it, is counted.

    Why: the base of the forces and the base of the model are two levels.

    Test: the stated base against the stories whose weights and heights are used.

    Clause: ASCE 7 11.2 (base), EN 1998-1 4.3.3.2.3, AS 1170.4 6.2.

    Correct: state the base, and exclude what is below it.
    """
    return found.spoken("S40")


@catalogue_test("S41", "Density unusual", sort="note", stage="weight")
def density(found: Found) -> Iterator[Check]:
    """The self-weight over the area is less than a light deck has, or more than thick walls give.

    Why: a density of another unit, or a modifier on the weight.

    Test: the self-weight of each floor over its area, in a band of 1.5 to 15 kPa.

    Clause: densities of materials: EN 1991-1-1 Annex A, ASCE 7 Table C3.1-2.

    Correct: state densities and thicknesses.
    """
    rows = [r for r in _self_weights(rows_of(found.context)) if r.plain["intensity"]]
    low, high = band(found.context.brief.thresholds, "self_weight")
    off = [r for r in rows if not low <= r.plain["intensity"] <= high]
    if off:
        row = off[0]
        at, value = found.context.claims.stories[row.story], row.plain["intensity"]
        words = f"{row.load} at {at} is {value:.3g} kPa, usual is {low:g} to {high:g}"
        yield spoken_check(
            "S41", "load_intensity", None, words, verdict=Verdict.NOTE, claim=row.stated.get("load_intensity")
        )


@catalogue_test("S42", "Shifted mass centre and accidental eccentricity together", sort="ask", stage="twist")
def shifted_twice(found: Found) -> Iterator[Check]:
    """The centres of mass are off by about the accidental eccentricity, and the cases have it too.

    Why: the shift is modelled in the masses, and added again by the program.

    Test: the submitted centres against ours, in shares of the plan dimension; the eccentricity of the cases.

    Clause: ASCE 7 12.8.4.2, EN 1998-1 4.3.2, IS 1893 7.9.2, AS 1170.4 6.6.

    Correct: use one of the two.
    """
    with_eccentricity = [n for n, c in found.context.claims.cases.items() if c.eccentricity]
    for axis, d in enumerate(DIRECTIONS):
        for i, story in enumerate(found.context.brief.stories):
            of_key = found.context.claims.by_key.get(Key("x_m", d))
            claim = of_key.indexed.get(i) if of_key is not None else None
            if claim is None or story.centre is None or story.plan is None or not with_eccentricity:
                continue
            if SHIFTED[0] <= abs(float(claim.value) - story.centre[axis]) / story.plan[axis] <= SHIFTED[1]:
                words = f"the centre of mass along {d} is shifted, and {with_eccentricity[0]} has an eccentricity too"
                yield spoken_check("S42", "x_m", d, words, claim=claim)
                break


@catalogue_test("S43", "Copy of the weights out of date", sort="ask", stage="weight")
def stale(found: Found) -> Iterator[Named]:
    """The weights are not those that the loads of the make-up add up to.

    Why: weights are copied by hand before the loads were changed.

    Test: recomputed from the loads, story by story.

    Clause: ASCE 7 12.7.2, EN 1998-1 3.2.4, IS 1893 7.4, AS 1170.4 6.2.2.

    Correct: compute the weights from the present loads.
    """
    yield from found.spoken("S43")
    if found.context.has_make_up:
        for check in found.origins("w", kinds=("value",)):
            if check.carried is not None and not check.carried.agrees:
                yield Named(check.id)
