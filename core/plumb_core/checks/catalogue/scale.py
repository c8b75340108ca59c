"""Scale, units, gravity constant."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core.checks.catalogue.found import Found, Named, near, ratio_of, spoken_check
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test
from plumb_core.checks.check import Check
from plumb_core.checks.verdict import Verdict
from plumb_core.constants import GRAVITY
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Key

FOOT = 3.280839895
"""ft in a metre."""
LENGTHS = (
    GRAVITY,
    1.0 / GRAVITY,
    1000.0,
    0.001,
    100.0,
    0.01,
    FOOT,
    1.0 / FOOT,
    39.3701,
    1.0 / 39.3701,
    12.0,
    1.0 / 12.0,
)
"""Ratios between values of g in m, mm, cm, ft and in, and of g itself."""
FORCES = (
    (GRAVITY, "kgf or tonne-force are read as kN or tonnes"),
    (4.4482216, "kip are read as kN"),
    (2.2046226, "kg are read as pounds"),
    (8.896443, "short tons are read as kN"),
    (1.1023113, "tonnes are read as short tons"),
)
"""Ratios of units of force and mass, with what is mixed up where theirs is less by them."""
CLOSE = 0.004
"""Relative difference within which a ratio is one of units."""
PLAIN, SEVERAL = 1.5, 3
"""A ratio that no typing error gives; values that have to agree on a smaller one."""


@catalogue_test("S01", "g omitted, or counted twice", sort="wrong", stage="scaling")
def gravity(found: Found) -> Spoken:
    """The modal base shear is a tenth or ten times of what modes and spectrum give.

    Why: ordinates in g are applied as accelerations, or both the factor on the spectrum and the ordinates have g.

    Test: our estimate from modes, curve and weight; the ratio is near 9.81, 32.2, 386 or an inverse.

    Clause: ASCE 7 12.9.1, UBC 97 1631.5, EN 1998-1 4.3.3.3, IS 1893 7.8.4, AS 1170.4 7.2.

    Correct: use ordinates in g with g as factor, or ordinates in m/s2 with 1, and run the analysis again.
    """
    return found.spoken("S01")


@catalogue_test("S02", "I/R not applied, or applied twice", sort="wrong", stage="scaling")
def reduction(found: Found) -> Spoken:
    """The modal base shear is that of the elastic spectrum, or is reduced twice.

    Why: the factor on the spectrum does not have I/R, or both the spectrum and the factor have it.

    Test: the modal base shear over our estimate is near R/I or its inverse.

    Clause: ASCE 7 12.9.2, UBC 97 1631.5.4, EN 1998-1 3.2.2.5, IS 1893 6.4.2, AS 1170.4 7.2.

    Correct: apply I/R (S_p/mu, 1/q) once, and scale again.
    """
    return found.spoken("S02")


@catalogue_test("S03", "Length unit of g differs from the unit of the model", sort="wrong", stage="spectrum")
def unit_of_gravity(found: Found) -> Iterator[Named]:
    """The factor on the spectrum without I/R is a value of g in another unit of length than that of the model.

    Why: 9810 for a model in m, 9.81 for one in mm, 386 for one in ft.

    Test: the submitted factor over ours, and the modal base shear over our estimate, are a ratio of units of length.

    Clause: units of the analysis; ASCE 7 12.9.1.

    Correct: give g in the unit of length of the model.
    """
    yield from found.spoken("S03")
    for check in found.origins("spectrum_factor"):
        ratio = ratio_of(check)
        if any(near(ratio, known, 0.02) for known in LENGTHS):
            yield Named(check.id, f"the factor is {ratio:.4g} times ours: g in another unit of length", exact=True)


@catalogue_test("S04", "C_t for feet used with metres, or the reverse", sort="wrong", stage="lateral")
def period_coefficient(found: Found) -> Iterator[Named]:
    """The empirical period is about 2.4 times ours, or 0.4 times.

    Why: the coefficient of one system of units is used with heights in the other.

    Test: the submitted period is that of the other coefficient: the ratio is 3.28 to the power of the height.

    Clause: ASCE 7 Table 12.8-2, UBC 97 1630.2.2, EN 1998-1 4.3.3.2.2, AS 1170.4 6.2.3.

    Correct: use coefficient and height of one system of units.
    """
    for check in found.origins("T_a", "C_t", "T"):
        ratio = ratio_of(check)
        power = found.ours("x", check.key.direction)
        for x in dict.fromkeys(p for p in (power, 0.75, 0.8, 0.9) if p and 0.0 < p < 2.0):
            if near(ratio, FOOT**-x, 0.015) or near(ratio, FOOT**x, 0.015):
                words = f"the value follows from the coefficient of the other system of units ({FOOT**x:.3g} times)"
                yield Named(check.id, words, exact=True)
                break


@catalogue_test("S05", "Per cent confused with a fraction", sort="wrong", stage="process")
def per_cent(found: Found) -> Iterator[Named]:
    """A damping of 5, an eccentricity of 5, shares of the mass that add up to 90 instead of 0.9.

    Why: a table gives per cent and the program takes shares, or the reverse.

    Test: a value without a unit is a hundred times ours or a hundredth; shares of the mass add up to more than 20.

    Clause: ranges of the quantities: damping 0.02 to 0.20, eccentricity 0.05 or 0.10, shares at most 1.

    Correct: state the unit, and give the value in it.
    """
    for check in found.checks:
        if check.claim is None or QUANTITIES[check.key.name].unit:
            continue
        if check.verdict not in (Verdict.DIFFERS, Verdict.BREACHES, Verdict.QUESTION):
            continue
        ratio = ratio_of(check)
        usual = 0.05 if check.key.name in ("damping", "damping_modes") else None
        if ratio is None and usual and not isinstance(check.claim.value, str):
            ratio = float(check.claim.value) / usual
        if near(ratio, 100.0, 0.02) or near(ratio, 0.01, 0.02):
            yield Named(check.id, "per cent and fraction are confused", exact=True, instead_of=("S31", "S79", "S35"))
    for check in found.origins("mass_sum", kinds=("target",)):
        if check.subject is not None and not isinstance(check.subject.value, str) and check.subject.value > 20.0:
            yield Named(check.id, "per cent and fraction are confused", exact=True, instead_of=("S31", "S79", "S35"))


@catalogue_test("S06", "Weight confused with mass", sort="wrong", stage="weight")
def weight_and_mass(found: Found) -> Iterator[Named]:
    """The masses of the analysis times g are 9.81 times the weights, or the weights are a tenth.

    Why: weights are entered as masses, or masses in a column of weights.

    Test: mass times g over the seismic weight of the story is near 9.81 or its inverse.

    Clause: ASCE 7 12.7.2, UBC 97 1630.1.1, EN 1998-1 3.2.4, IS 1893 7.4, AS 1170.4 6.2.2.

    Correct: divide the weights by g once.
    """
    yield from _by_factor(found, found.origins("m", kinds=("mass",)), (GRAVITY,), "the masses are off by g")


@catalogue_test("S07", "Units of force and mass mixed between tables", sort="wrong", stage="weight")
def mixed_units(found: Found) -> Iterator[Named]:
    """All weights or forces of a table are off by one factor: 9.81, 4.45, 2.2, 1.1.

    Why: kN, kip, tonne-force and tonnes are taken for one another when tables are joined.

    Test: the ratio of theirs to ours is a ratio of two units, over all values of a table.

    Clause: units of the tables.

    Correct: state the unit of each table and convert once.
    """
    forces = [c for c in found.origins() if QUANTITIES[c.key.name].unit in ("kN", "t", "kN*m") and c.claim is not None]
    for known, words in FORCES:
        among = [c for c in forces if c.key.name != "m" or known != GRAVITY]
        yield from _by_factor(found, among, (known,), f"these values fit when {words}")


def _by_factor(found: Found, checks: list[Check], factors: tuple[float, ...], words: str) -> Iterator[Named]:
    """Origins that are off by a factor or its inverse; all of one quantity have one cause."""
    for known in factors:
        for target in (known, 1.0 / known):
            off = [c for c in checks if near(ratio_of(c), target, CLOSE)]
            # a tenth more or less is often something else: one number hit proves nothing
            if off and sum(map(found.alike, off)) >= (SEVERAL if max(target, 1.0 / target) < PLAIN else 1):
                said = f"{words}, factor {max(target, 1.0 / target):.4g}"
                yield Named(off[0].id, said, exact=True, gathers=tuple(c.id for c in off[1:]), instead_of=("S43",))


@catalogue_test("S08", "Signs of static and modal results", sort="note", stage="process")
def signs(found: Found) -> Iterator[Check]:
    """Static reactions are negative, and those of the modal cases are not.

    Why: a reaction acts against the force, and what is combined over the modes has no sign.

    Test: sizes are compared; a sign never fails.

    Clause: ASCE 7 12.9.3 and the like: combined values are unsigned.

    Correct: nothing; the sizes are compared.
    """
    signed: dict[str, set[bool]] = {}
    for key, of_key in found.context.results.values.items():
        role = found.context.claims.cases.get(key.case or "")
        if (
            role is None
            or not key.name.startswith(("reaction_X", "reaction_Y"))
            or role.kind not in ("static", "modal")
        ):
            continue
        values = [float(c.value) for c in of_key.all if not isinstance(c.value, str) and abs(float(c.value)) > 0]
        if key.name.endswith(role.direction or "?"):
            signed.setdefault(role.kind, set()).update(v < 0 for v in values)
    if signed.get("static") == {True} and signed.get("modal") == {False}:
        words = "static reactions are negative and modal ones are unsigned; their sizes are compared"
        yield spoken_check("S08", "reaction_X", None, words, verdict=Verdict.NOTE)


@catalogue_test("S09", "Vertical axis taken for a horizontal one", sort="ask", stage="process")
def vertical_axis(found: Found) -> Iterator[Named | Check]:
    """The gravity case has its reaction along X or Y, or X and Y of the modes are exchanged.

    Why: programs differ in whether Y or Z is vertical.

    Test: the gravity reaction is nearly all along a horizontal axis; the modes match ours only with exchanged axes.

    Clause: the axes of the submission.

    Correct: state which axis is vertical, and map both horizontal axes.
    """
    for check in found.origins("mass_ratio", "T_analysis", kinds=("axes",)):
        yield Named(check.id)
    weight = found.ours("W")
    values = found.context.results.values
    for name, role in found.context.claims.cases.items():
        if role.kind != "gravity" or not weight:
            continue
        sizes = {
            axis: max(
                (
                    abs(float(c.value))
                    for k, v in values.items()
                    if k == _reaction(axis, k.direction, name)
                    for c in v.all
                ),
                default=0.0,
            )
            for axis in "XYZ"
        }
        along = max("XY", key=lambda axis: sizes[axis])
        if sizes[along] > 0.3 * weight and sizes["Z"] < 0.1 * sizes[along]:
            words = f"the reaction of the gravity case {name} is along {along}: it is not clear which axis is vertical"
            yield spoken_check("S09", f"reaction_{along}", None, words, place=name)


def _reaction(axis: str, direction: str | None, case: str) -> Key:
    return Key(f"reaction_{axis}", direction, case)


@catalogue_test("S10", "Period and frequency not reciprocal", sort="wrong", stage="modes")
def reciprocal(found: Found) -> Iterator[Named]:
    """The frequency of a mode is not one over its period.

    Why: a column is of another run, is circular frequency, or is shifted by a row.

    Test: T f is 1 within the digits of both.

    Clause: arithmetic.

    Correct: give both columns of one run.
    """
    for check in found.origins(kinds=("reciprocal",)):
        yield Named(check.id, exact=True)
