"""Static base shear."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core.checks.catalogue.found import Found, Named, near, ratio_of
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test


@catalogue_test("S54", "Period above its upper limit", sort="wrong", stage="lateral")
def period_cap(found: Found) -> Iterator[Named]:
    """The static base shear uses the period of the analysis, which is above the limit of the code.

    Why: the computed period is longer, gives less force, and its cap is overlooked.

    Test: the period used against our limit; the base shear with the uncapped period.

    Clause: ASCE 7 12.8.2, UBC 97 1630.2.2, AS 1170.4 6.2.3.

    Correct: use the limit as period, and compute the forces again.
    """
    for check in found.origins("T"):
        shown, limit = check.independent, found.ours("T_limit", check.key.direction)
        if shown is None or isinstance(shown.theirs, str) or limit is None:
            continue
        if shown.theirs > limit * 1.001:
            yield Named(check.id, f"it is above the upper limit of {limit:.4g} s", exact=True)


@catalogue_test("S55", "One value entered for both axes", sort="ask", stage="lateral")
def one_for_both(found: Found) -> Spoken:
    """The same period or base shear stands for X and for Y, and ours differ.

    Why: one direction is computed and copied.

    Test: equal values where our rules give two.

    Clause: ASCE 7 12.8, EN 1998-1 4.3.3.2.2, IS 1893 7.6.

    Correct: compute each direction.
    """
    return found.spoken("S55")


@catalogue_test("S56", "Wrong limit governs, or a minimum is ignored", sort="wrong", stage="lateral")
def governing(found: Found) -> Iterator[Named]:
    """C_s is above its upper limit or below its minimum, or another equation is said to govern.

    Why: not all equations of the clause are evaluated.

    Test: all limits of the edition.

    Clause: ASCE 7 12.8.1.1, UBC 97 1630.2.1, EN 1998-1 3.2.2.5(4), IS 1893 (2016) 7.2.2, AS 1170.4 6.2.1.

    Correct: evaluate all limits and use the one that governs.
    """
    for check in found.origins(
        "C_s", "coefficient", "C_s_upper", "C_s_lower", "C_s_plateau", "static_governed_by", "lambda_"
    ):
        shown, d = check.independent, check.key.direction
        words = ""
        if shown is not None and not isinstance(shown.theirs, str):
            low, high = found.ours("C_s_lower", d), found.ours("C_s_upper", d)
            if low is not None and shown.theirs < low * 0.999:
                words = f"it is below the minimum of {low:.4g}"
            elif high is not None and shown.theirs > high * 1.001:
                words = f"it is above the upper limit of {high:.4g}"
        yield Named(check.id, words)


@catalogue_test("S57", "V is not C times W", sort="wrong", stage="lateral")
def product(found: Found) -> Iterator[Named]:
    """The base shear over the weight is not the coefficient.

    Why: a typing error, or weight and coefficient are of two states.

    Test: V against C W, by their values and by ours.

    Clause: ASCE 7 12.8.1, UBC 97 1630.2.1, EN 1998-1 4.3.3.2.2, IS 1893 7.5.3, AS 1170.4 6.2.1.

    Correct: multiply again.
    """
    for check in found.origins("V", "V_static", kinds=("value", "reaction")):
        yield Named(check.id)


@catalogue_test("S58", "Story forces do not add up, or their exponent is wrong", sort="wrong", stage="lateral")
def distribution(found: Found) -> Iterator[Named]:
    """The forces of the stories are not V, or are distributed with another exponent.

    Why: k is taken as 1, or a force is mistyped.

    Test: the sum, and each force with the exponent of the period.

    Clause: ASCE 7 12.8.3, UBC 97 1630.5, EN 1998-1 4.3.3.2.3, IS 1893 7.7.1, AS 1170.4 6.3.

    Correct: distribute V again with the exponent of the edition.
    """
    for check in found.origins("F", "k", "F_t", "V_story", "M_story", kinds=("value", "sum")):
        ratio = ratio_of(check)
        yield Named(
            check.id, "two digits may be exchanged" if check.key.name == "F" and _digits(check.claim, ratio) else ""
        )


def _digits(claim: object, ratio: float | None) -> bool:
    """Whether exchanging two neighbouring digits of what was written gives ours."""
    text = str(getattr(claim, "text", ""))
    if ratio is None or not any(ch.isdigit() for ch in text):
        return False
    try:
        written = float(text)
    except ValueError:
        return False
    for i in range(len(text) - 1):
        if text[i].isdigit() and text[i + 1].isdigit() and text[i] != text[i + 1]:
            other = float(text[:i] + text[i + 1] + text[i] + text[i + 2 :])
            if other and near(written / other, ratio, 0.0015):
                return True
    return False


@catalogue_test("S59", "Height measured from the wrong level", sort="wrong", stage="lateral")
def height(found: Found) -> Iterator[Named]:
    """The height of the building or of a story is not that of the levels.

    Why: the height is measured from the footing or from the street, not from the base.

    Test: the sum of the story heights against the stated height, and each story against the brief.

    Clause: ASCE 7 11.2 (structural height), UBC 97 1630.2.2, EN 1998-1 4.3.3.2.2, AS 1170.4 6.2.3.

    Correct: measure from the base of the forces.
    """
    for check in found.origins("h", "h_n", "h_x", "N"):
        yield Named(check.id)


@catalogue_test("S60", "Static method not permitted", sort="ask", stage="lateral")
def method(found: Found) -> Spoken:
    """Static forces alone are used where the code requires a dynamic analysis.

    Why: the conditions on height, period and regularity are not assessed.

    Test: the conditions of the edition.

    Clause: ASCE 7 Table 12.6-1, UBC 97 1629.8, EN 1998-1 4.3.3.2.1, IS 1893 7.7.1, AS 1170.4 Table 2.1.

    Correct: submit a modal analysis.
    """
    return found.spoken("S60")
