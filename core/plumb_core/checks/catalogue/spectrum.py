"""Spectrum."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.catalogue.found import Found, Named, near, spoken_check
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test
from plumb_core.checks.check import Check
from plumb_core.checks.verdict import Verdict
from plumb_core.constants import GRAVITY
from plumb_core.rules import Key

COARSE = 0.02
"""Relative difference between two ways to read a curve from which it is noted."""
LENGTHS = (("m", 1.0), ("mm", 1000.0), ("cm", 100.0))


def _curve(found: Found) -> tuple[np.ndarray, np.ndarray] | None:
    """Periods and ordinates of the submitted curve, s and g; None without any."""
    T, S = (found.context.claims.by_key.get(Key(n)) for n in ("T_points", "S_a"))
    if T is None or S is None:
        return None
    at = [i for i in sorted(T.indexed) if i in S.indexed]
    points = np.array([(float(T.indexed[i].value), float(S.indexed[i].value)) for i in at])
    return (points[:, 0], points[:, 1]) if len(points) > 1 else None


def _periods(found: Found) -> dict[int, float]:
    """Submitted periods of modes, s."""
    table = found.context.claims.modes
    return {mode: T for mode in table.numbers if (T := table.period(mode)) is not None}


@catalogue_test("S28", "Points of the curve wrong", sort="wrong", stage="spectrum")
def points(found: Found) -> Iterator[Named]:
    """Ordinates differ from the curve of the edition, often at T = 0, where the plateau of the static method stands.

    Why: points are typed or taken from the static coefficient.

    Test: our curve at the submitted periods, with the rule of the edition for the first point.

    Clause: ASCE 7 11.4.6, UBC 97 Figure 16-3, EN 1998-1 3.2.2.2, IS 1893 6.4.2, AS 1170.4 6.4.

    Correct: compute the points from the formulas of the edition.
    """
    for check in found.origins("S_a"):
        shown = check.independent
        plateau = found.ours("S_DS")
        flat = check.index == 0 and shown is not None and plateau and near(float(shown.theirs), plateau, 0.005)
        yield Named(check.id, "it is the plateau, which the modal curve has not at this period" if flat else "")


@catalogue_test("S29", "Too few points on the curve", sort="note", stage="spectrum")
def too_few_points(found: Found) -> Iterator[Check]:
    """Between two points the curve is a straight line where the code has a hyperbola.

    Why: few points are typed, far apart at long periods.

    Test: the submitted curve read at the periods of the modes, straight and by powers; the difference is stated.

    Clause: ASCE 7 11.4.6, EN 1998-1 3.2.2.2: the curve falls as 1/T.

    Correct: give more points, or have the program interpolate by powers.
    """
    curve = _curve(found)
    if curve is None:
        return
    T, S = curve
    worst, at = 0.0, 0.0
    for period in _periods(found).values():
        if not T[0] < period < T[-1] or period <= 0:
            continue
        i = int(np.searchsorted(T, period))
        if T[i - 1] <= 0 or S[i - 1] <= 0 or S[i] <= 0 or T[i] <= T[i - 1]:
            continue
        share = np.log(period / T[i - 1]) / np.log(T[i] / T[i - 1])
        curved = float(S[i - 1] * (S[i] / S[i - 1]) ** share)
        straight = float(np.interp(period, T, S))
        if abs(straight / curved - 1.0) > abs(worst):
            worst, at = straight / curved - 1.0, period
    if abs(worst) > COARSE:
        words = f"read straight between its points the curve is {worst:+.1%} off at T = {at:.3g} s"
        yield spoken_check("S29", "S_a", None, words, verdict=Verdict.NOTE)


@catalogue_test("S30", "Curve ends before the longest mode", sort="ask", stage="spectrum")
def short_curve(found: Found) -> Iterator[Check]:
    """The last point of the curve is at a shorter period than the first mode.

    Why: the curve of a stiffer building is used again; programs hold the last value or take zero.

    Test: the last submitted period against the longest one of modes and of the analysis.

    Clause: ASCE 7 11.4.6, EN 1998-1 3.2.2.2, UBC 97 Figure 16-3.

    Correct: continue the curve beyond the longest period and run the analysis again.
    """
    curve = _curve(found)
    longest = max(
        [*_periods(found).values(), *(t for d in DIRECTIONS if (t := found.number("T_analysis", d)) is not None)],
        default=0.0,
    )
    if curve is not None and longest > float(curve[0][-1]) * (1.0 + 1e-6):
        words = f"the curve ends at {float(curve[0][-1]):.3g} s and the longest period is {longest:.3g} s"
        yield spoken_check("S30", "S_a", None, words)


@catalogue_test("S31", "Damping of curve and analysis differ", sort="ask", stage="spectrum")
def damping(found: Found) -> Spoken:
    """The curve is for one damping and the modes are combined with another, or it is not 5 %.

    Why: the program scales the curve to its own damping, or a preset stays.

    Test: both compared with each other and with the damping of the edition.

    Clause: ASCE 7 11.4.6, EN 1998-1 3.2.2.2(3), IS 1893 7.2.4, AS 1170.4 6.4.

    Correct: use one damping, and justify one that is not that of the code.
    """
    return found.spoken("S31")


@catalogue_test("S32", "Displacements used as accelerations", sort="wrong", stage="spectrum")
def displacements(found: Found) -> Iterator[Named]:
    """The ordinates grow with the square of the period compared with ours.

    Why: the ordinates are spectral displacements, and the program takes accelerations.

    Test: each ordinate is ours times g (T / 2 pi)^2, in m, cm or mm.

    Clause: the unit of the ordinates; EN 1998-1 3.2.2.2(5).

    Correct: convert the ordinates, or state their unit.
    """
    T = found.context.claims.by_key.get(Key("T_points"))
    off = [c for c in found.origins("S_a") if c.independent is not None and c.index is not None]
    if T is None or len(off) < 3:
        return
    for unit, factor in LENGTHS:
        fitting = []
        for check in off:
            period = T.indexed.get(check.index or 0)
            shown = check.independent
            if period is None or shown is None:
                continue
            # a product, not a power: what was submitted may be as large as a number can be
            turn = float(period.value) / (2.0 * np.pi)
            displacement = float(shown.ours) * GRAVITY * turn * turn * factor
            if abs(float(shown.theirs) - displacement) <= max(0.02 * displacement, 0.002):
                fitting.append(check.id)
        if len(fitting) >= 0.8 * len(off):
            words = f"the ordinates are those of displacements in {unit}: S_a (T / 2 pi)^2"
            yield Named(fitting[0], words, exact=True, gathers=tuple(c.id for c in off if c.id != fitting[0]))
            return
