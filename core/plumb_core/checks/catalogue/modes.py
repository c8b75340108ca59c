"""Modes."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core import DIRECTIONS
from plumb_core.checks.catalogue.found import Found, Named, near, spoken_check
from plumb_core.checks.catalogue.registry import Spoken, catalogue_test
from plumb_core.checks.check import Check
from plumb_core.checks.verdict import Verdict
from plumb_core.documents.thresholds import band, level
from plumb_core.rules import Key

LEAST_MODES = 6
"""Modes of a list that is long enough to be one of local modes."""


def _shares(found: Found, mode: int) -> dict[str, float]:
    table = found.context.claims.modes
    keys = {**{d: Key("mass_ratio", d) for d in DIRECTIONS}, "RZ": Key("mass_ratio_RZ")}
    return {axis: float(c.value) for axis, key in keys.items() if (c := table.claim(key, mode)) is not None}


@catalogue_test("S44", "Mass target not reached, or never shown", sort="wrong", stage="modes")
def target(found: Found) -> Iterator[Named]:
    """The shares of the mass add up to less than the code requires, or are not in the tables.

    Why: too few modes, or a table is missing.

    Test: the sum of the rows of each direction.

    Clause: ASCE 7 12.9.1.1, UBC 97 1631.5.2, EN 1998-1 4.3.3.3.1, IS 1893 7.8.4.2, AS 1170.4 7.4.

    Correct: compute more modes, or use the other rule of the clause and say so.
    """
    for check in found.checks:
        short = check.kind == "target" and check.verdict is Verdict.BREACHES
        absent = check.kind == "gap" and check.key.name == "mass_ratio" and check.verdict is Verdict.GAP
        if short or absent:
            yield Named(check.id)


@catalogue_test("S45", "Running sum differs from its rows, or exceeds the whole", sort="wrong", stage="modes")
def running_sum(found: Found) -> Iterator[Named]:
    """A running sum is not the sum of the rows above it, or more than the whole mass moves.

    Why: rows are missing or copied from another run.

    Test: the column is recomputed.

    Clause: arithmetic; ASCE 7 12.9.1.1.

    Correct: give the complete table of one run.
    """
    for check in found.origins(kinds=("running_sum", "target")):
        if check.kind == "running_sum" or check.verdict is Verdict.DIFFERS:
            yield Named(check.id)


@catalogue_test("S46", "Directions mixed in the mass target", sort="note", stage="modes")
def mixed_directions(found: Found) -> Iterator[Named | Check]:
    """One direction reaches the target and the other does not, or a running sum has both directions in it.

    Why: the last row is read without looking at the axis, or the vertical direction is counted.

    Test: a verdict for each axis; each running sum against the sum of both directions.

    Clause: ASCE 7 12.9.1.1: in each of two orthogonal directions.

    Correct: show the target for each horizontal direction.
    """
    targets = {c.key.direction: c for c in found.checks if c.kind == "target"}
    breached = [d for d, c in targets.items() if c.verdict is Verdict.BREACHES]
    if len(targets) == 2 and len(breached) == 1:
        other = next(d for d in targets if d not in breached)
        words = f"the target is reached in {other} and not in {breached[0]}: each direction counts by itself"
        cause = [targets[breached[0]]]
        yield spoken_check("S46", "mass_sum", breached[0], words, verdict=Verdict.NOTE, rests_on=cause)
    table = found.context.claims.modes
    for check in found.origins("mass_running", kinds=("running_sum",)):
        if check.index is None or check.carried is None:
            continue
        both = sum(sum(_shares(found, m).get(d, 0.0) for d in DIRECTIONS) for m in table.numbers if m <= check.index)
        if near(float(check.carried.theirs), both, 0.005):
            yield Named(check.id, "both directions are added up", exact=True)


@catalogue_test("S47", "Second test of the code on modes not applied", sort="ask", stage="modes")
def second_test(found: Found) -> Spoken:
    """The masses reach the target, and what the edition requires besides is not met.

    Why: only the best known rule is applied.

    Test: the rule set of the edition on the submitted modes.

    Clause: EN 1998-1 4.3.3.3.1(3) and (5), IS 1893 (2016) 7.7.5 and Table 6, ASCE 7-16 12.9.1.1.

    Correct: show the second test as well.
    """
    return found.spoken("S47")


@catalogue_test("S48", "Number of modes by rule of thumb", sort="ask", stage="modes")
def rule_of_thumb(found: Found) -> Spoken:
    """As many modes as were allowed are listed, and their masses do not reach the target.

    Why: the program stops at its maximum count.

    Test: the stated number against the table, and the sum of the masses.

    Clause: ASCE 7 12.9.1.1, EN 1998-1 4.3.3.3.1.

    Correct: raise the maximum count until the target is reached.
    """
    return found.spoken("S48")


@catalogue_test("S49", "First mode is one of torsion", sort="ask", stage="modes")
def torsion_first(found: Found) -> Iterator[Check]:
    """In mode 1 or 2 more of the mass turns than moves.

    Why: the stiff elements are near the centre, or an end is free.

    Test: the share of RZ against both lateral shares in modes 1 and 2.

    Clause: ASCE 7 12.3.2.1, IS 1893 (2016) Table 5 and 7.7.5, EN 1998-1 4.2.3.2(6) and 5.2.2.1(4).

    Correct: explain the torsional flexibility, and show that the system is permitted with it.
    """
    for place, mode in enumerate(found.context.claims.modes.numbers[:2]):
        shares = _shares(found, mode)
        turns, moves = shares.get("RZ", 0.0), max((shares.get(d, 0.0) for d in DIRECTIONS), default=0.0)
        if turns > moves and turns > 0.05:
            words = f"mode {mode + 1} mostly turns: {turns:.0%} of the rotational mass, {moves:.0%} of the lateral"
            verdict = Verdict.QUESTION if place == 0 else Verdict.NOTE
            yield spoken_check("S49", "mass_ratio_RZ", None, words, verdict=verdict, place=str(mode + 1))
            return


@catalogue_test("S50", "Local modes in a long list", sort="ask", stage="modes")
def local_modes(found: Found) -> Iterator[Check]:
    """More than half of the modes move less than 0.1 % of the mass in every direction.

    Why: a part is not connected, or floors have no diaphragm.

    Test: the number of modes with tiny shares.

    Clause: ASCE 7 12.9.1.1, EN 1998-1 4.3.3.3.1.

    Correct: find what swings by itself; connect it, or give the floor a diaphragm.
    """
    numbers = found.context.claims.modes.numbers
    by_mode = [_shares(found, mode) for mode in numbers]
    with_shares = [s for s in by_mode if any(d in s for d in DIRECTIONS)]
    least = level(found.context.brief.thresholds, "local_share")
    tiny = [s for s in with_shares if max(s.values()) < least]
    if len(with_shares) >= LEAST_MODES and 2 * len(tiny) > len(with_shares):
        words = f"{len(tiny)} of {len(with_shares)} modes move less than {least:.1%} of the mass in every direction"
        yield spoken_check("S50", "mass_ratio", None, words)


@catalogue_test("S51", "First period implausible", sort="ask", stage="modes")
def implausible_period(found: Found) -> Iterator[Check]:
    """The period of the analysis is far from the empirical one.

    Why: masses or stiffnesses are off by a unit, or parts of the building are not in the model.

    Test: the period of the analysis over our T_a, in a band of 0.4 to 2.5.

    Clause: ASCE 7 12.8.2, UBC 97 1630.2.2, EN 1998-1 4.3.3.2.2, IS 1893 7.6, AS 1170.4 6.2.3.

    Correct: compare with a Rayleigh quotient, and explain the difference.
    """
    for d in DIRECTIONS:
        T, T_a = _first_period(found, d), found.ours("T_a", d)
        low, high = band(found.context.brief.thresholds, "period_ratio")
        if T is None or not T_a or low <= T / T_a <= high:
            continue
        words = f"the period in {d} is {T:.3g} s, {T / T_a:.2g} times the empirical one of {T_a:.3g} s"
        yield spoken_check("S51", "T_analysis", d, words, claim=found.single("T_analysis", d))


def _first_period(found: Found, direction: str) -> float | None:
    """The stated period of the analysis, else that of the leading mode of the direction, s."""
    stated = found.number("T_analysis", direction)
    return found.leading_period(direction) if stated is None else stated


@catalogue_test("S52", "SRSS with close modes", sort="ask", stage="modes")
def close_modes(found: Found) -> Spoken:
    """Modes are combined by SRSS though two periods are close.

    Why: SRSS is the preset.

    Test: the ratio of neighbouring periods, by the measure of the edition.

    Clause: ASCE 7 12.9.3, UBC 97 1631.5.3, EN 1998-1 4.3.3.3.2, IS 1893 7.8.4.4, AS 1170.4 7.4.

    Correct: use CQC, or show that it makes no difference.
    """
    return found.spoken("S52")


@catalogue_test("S53", "Mode that gives the signs not in the loaded direction", sort="ask", stage="modes")
def mode_of_signs(found: Found) -> Iterator[Check]:
    """Results of a modal case have signs, and the first mode moves along the other direction.

    Why: the program takes the signs from mode 1, whatever the direction of the case.

    Test: signed results of a modal case; the axis of the first mode against its direction.

    Clause: ASCE 7 12.9.3: combined values have no signs.

    Correct: take the signs from the mode that dominates the direction, or use unsigned values.
    """
    numbers = found.context.claims.modes.numbers
    first = _shares(found, numbers[0]) if numbers else {}
    along = max(DIRECTIONS, key=lambda d: first.get(d, 0.0)) if first else None
    for key, of_key in found.context.results.values.items():
        role = found.context.claims.cases.get(key.case or "")
        if role is None or role.kind != "modal" or role.direction not in DIRECTIONS or along in (None, role.direction):
            continue
        if key.name.startswith(("F", "V_story", "drift_", "displacement_")) and any(
            not isinstance(c.value, str) and c.value < 0 for c in of_key.all
        ):
            words = (
                f"the results of {role.name} have signs, and the first mode moves along {along}, not {role.direction}"
            )
            yield spoken_check("S53", "modal_combination", None, words, place=role.name)
            return
