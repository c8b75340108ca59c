"""Submitted modes: with themselves, with the code's target, and with the reference model."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Any, Literal

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.check import EXCHANGED, Check, Derived, limit_of
from plumb_core.checks.compare import Comparison, compare
from plumb_core.checks.context import Context
from plumb_core.checks.judging import outcome_of
from plumb_core.checks.modes import MASS_RATIOS
from plumb_core.checks.registry import checker, checker_of_claims
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.documents.submission import Claim, Source
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Key

SHARE_FLOOR = 0.03
"""Accepted difference in mass shares between the submission and the reference model."""
PERIOD, FREQUENCY = Key("T_mode"), Key("f_mode")
RUNNING = (
    (Key("mass_running", "X"), Key("mass_ratio", "X")),
    (Key("mass_running", "Y"), Key("mass_ratio", "Y")),
    (Key("mass_running_RZ"), Key("mass_ratio_RZ")),
)
"""Running sum -> the quantity that is summed."""
AXES = Key("mass_ratio")


def _consistent(kind: str, key: Key, mode: int, label: str, claim: Claim, carried: Comparison, note: str) -> Check:
    """A check of a mode's value against others of the submission itself (level 1)."""
    verdict, role, _ = outcome_of(None, carried)
    where = str(mode + 1)
    return Check(
        kind,
        key,
        f"{label} mode {where}",
        claim,
        where,
        mode,
        carried=carried,
        verdict=verdict,
        role=role,
        level=1,
        note=note,
    )


@checker_of_claims("reciprocal")
def reciprocals(context: Context) -> Iterator[Check]:
    """T f = 1 (level 1)."""
    table = context.claims.modes
    for mode in table.numbers:
        T, f = table.claim(PERIOD, mode), table.claim(FREQUENCY, mode)
        if T is None or f is None or float(T.value) <= 0 or float(f.value) <= 0:
            continue
        # half a unit of the period's last digit, as a difference of its reciprocal
        floor = context.claims.rounding(f) + context.claims.rounding(T) / float(T.value) ** 2
        carried = compare(float(f.value), 1.0 / float(T.value), 0.01 * context.tolerance_scale, floor)
        note = "submitted period compared with the submitted frequency"
        yield _consistent("reciprocal", FREQUENCY, mode, "f_n = 1/T_n", f, carried, note)


@checker_of_claims("running_sum")
def running_sums(context: Context) -> Iterator[Check]:
    """Running sums that are the sums of their rows (level 1)."""
    table = context.claims.modes
    for running, part in RUNNING:
        added, floor = 0.0, 0.0
        for mode in table.numbers:
            ours = table.claim(part, mode)
            if ours is None:
                break
            added, floor = added + float(ours.value), floor + context.claims.rounding(ours)
            stated = table.claim(running, mode)
            if stated is None:
                continue
            carried = compare(
                float(stated.value), added, 0.005 * context.tolerance_scale, context.claims.rounding(stated) + floor
            )
            label = f"{QUANTITIES[running.name].symbol} {running.direction or 'RZ'}"
            note = "submitted running sum compared with the sum of its rows"
            yield _consistent("running_sum", running, mode, label, stated, carried, note)


@checker("target", "gap")
def targets(context: Context) -> Iterator[Check]:
    """Sum of the shares of each direction against what the code requires.

    Where a rule that applies only where the target cannot be met is met instead, the check stays open and states it.
    """
    rule = context.independent.rules.get("mass_target")
    step = context.limit_step("mass_target", None) if rule else None
    if not context.claims.modes.numbers or step is None or rule is None:
        return
    for direction in DIRECTIONS:
        rows = context.claims.modes.values.get(Key("mass_ratio", direction), {})
        if rows:
            yield _target(context, direction, list(rows.values()), float(step.value), rule.clause)
        else:
            yield Check(
                "gap",
                Key("mass_ratio", direction),
                f"ΣM*/M {direction}",
                verdict=Verdict.GAP,
                clause=rule.clause,
                note=f"the shares of the mass in {direction} are not stated",
            )


def _target(context: Context, direction: Literal["X", "Y"], rows: list[Claim], target: float, clause: str) -> Check:
    total = sum(float(c.value) for c in rows)
    floor = sum(context.claims.rounding(c) for c in rows)
    source = Source(note=f"sum over {len(rows)} modes")
    claim = Derived("mass_ratio", total, direction=direction, text=f"{total:.4g}", source=source)
    check = Check(
        "target",
        Key("mass_sum", direction),
        f"ΣM*/M {direction}",
        claim,
        clause=clause,
        limit=limit_of("mass_target", target, "min", clause, symbol="ΣM*/M"),
        independent=compare(total, max(target, total), 0.01, floor),
        level=2,
    )
    if total > 1.0 + floor + 1e-9:
        return replace(
            check,
            independent=compare(total, 1.0, 0.001, floor),
            verdict=Verdict.DIFFERS,
            role=DeviationRole.ORIGIN,
            note="the shares of one direction sum to more than the whole mass",
        )
    if total >= target - floor - 1e-9:
        return replace(check, verdict=Verdict.AGREES)
    other = _other_alternative(context, direction, total)
    if other:
        return replace(check, note=other, verdict=Verdict.QUESTION if "second dash" in other else Verdict.OPEN)
    words = f"{len(rows)} modes reach {total:.1%} of the mass in {direction}; {target:.0%} is required"
    return replace(check, verdict=Verdict.BREACHES, role=DeviationRole.ORIGIN, note=words)


def _other_alternative(context: Context, direction: str, mass_sum: float) -> str:
    """Words on an alternative of the target that applies only where the target cannot be met.

    Empty where there is none.
    """
    table = context.claims.modes
    periods = [T for mode in table.numbers if (T := table.period(mode)) is not None]
    shares = [float(c.value) for _, c in sorted(table.values.get(Key("mass_ratio", direction), {}).items())]
    under = context.independent.assuming(
        inputs={Key("T_modes"): np.array(periods), Key("mass_share", direction): np.array(shares)},
        pins={Key("mass_sum", direction): mass_sum},
    )
    verdict = under.get("modes_verdict", direction)
    if verdict is None:
        return ""
    return str(verdict["words"]) if verdict["met"] is None else ""


@checker_of_claims("mode")
def modes(context: Context) -> Iterator[Check]:
    """Periods and shares against the modes of the reference model that they were matched with."""
    matched = context.modes_compared
    answer = context.own_modes
    rows = {row["theirs"]: row for row in matched["rows"] if row["theirs"]} if matched else {}
    for place, mode in enumerate(context.claims.modes.numbers):
        row = rows.get(place + 1)
        our_step = answer["modes"][row["ours"] - 1] if row and answer else None
        words = (
            "the reference model has not been analysed"
            if answer is None
            else "no mode of the reference model matches it"
        )
        if our_step is not None and row is not None:
            like = "" if row["mac"] is None else f", shape agreement {row['mac']:.2f}"
            words = f"our mode {row['ours']} ({our_step['kind']}){like}"
        for axis, key in (("T", PERIOD), *MASS_RATIOS):
            claim = context.claims.modes.claim(key, mode)
            if claim is None:
                continue
            yield _against_ours(context, axis, key, mode, claim, our_step, words)


def _against_ours(
    context: Context, axis: str, key: Key, mode: int, claim: Claim, ours: Mapping[str, Any] | None, said: str
) -> Check:
    """A period or a share of a submitted mode against that of a mode of ours; open without one."""
    where = str(mode + 1)
    label = " ".join(p for p in (QUANTITIES[key.name].symbol, "" if axis == "T" else axis, "mode", where) if p)
    if ours is None:
        return Check("mode", key, label, claim, where, mode, note=said)
    value = float(ours["T"] if axis == "T" else ours["mass_ratio"][axis])
    floor = context.claims.rounding(claim) if axis == "T" else max(context.claims.rounding(claim), SHARE_FLOOR)
    independent = context.compared(key.name, float(claim.value), value, floor)
    verdict, role, _ = outcome_of(independent)
    rests_on: tuple[str, ...] = ()
    if role is DeviationRole.ORIGIN and _right_once_exchanged(context, key, claim, ours["mass_ratio"], floor):
        role, rests_on = DeviationRole.INHERITED, (EXCHANGED,)
    return Check(
        "mode",
        key,
        label,
        claim,
        where,
        mode,
        independent=independent,
        verdict=verdict,
        role=role,
        level=3,
        rests_on=rests_on,
        note=said,
    )


def _right_once_exchanged(context: Context, key: Key, claim: Claim, shares: Mapping[str, float], floor: float) -> bool:
    """Whether the axes are exchanged throughout, and a share is right once they are changed back."""
    if key.direction is None or not context.modes_compared or not context.modes_compared["swapped"]:
        return False
    other = float(shares["Y" if key.direction == "X" else "X"])
    return context.compared(key.name, float(claim.value), other, floor).agrees


@checker_of_claims("axes")
def axes(context: Context) -> Iterator[Check]:
    """Axes exchanged throughout, said once."""
    matched = context.modes_compared
    if matched and matched["swapped"]:
        like = matched["likeness"]
        yield Check(
            "axes",
            AXES,
            "axes X and Y",
            verdict=Verdict.DIFFERS,
            role=DeviationRole.ORIGIN,
            level=3,
            note=f"the submitted modes match the reference model only with X and Y exchanged (agreement "
            f"{like['exchanged']:.2f}, as submitted "
            f"{like['as_submitted']:.2f})",
        )


ANALYSIS_PERIOD = Key("T_analysis")
SAME_STATE = 0.02
"""Difference of the ratios of both periods below which one cause is assumed."""
AGREEMENT = 0.5
"""Share of the mass, over that of the dominant mode, from which a mode may be the one that a period was taken from."""


@checker_of_claims("taken_from", "axes")
def analysis_periods(context: Context) -> Iterator[Check]:
    """The period stated for each direction against the mode of their own table that mostly moves along it (level 1).

    Each direction with the period of the other one indicates exchanged axes, also where we have no reference model.
    """
    matched = context.modes_compared
    if matched and matched["swapped"]:
        return  # said already
    stated = {d: context.claims.by_key.get(Key("T_analysis", d)) for d in DIRECTIONS}
    leading = {d: _leading(context, d) for d in DIRECTIONS}
    fits = {
        (d, along): _is_period_of(context, of_key.single[0], leading[along])
        for d, of_key in stated.items()
        if of_key is not None
        for along in DIRECTIONS
        if leading[along]
    }
    if all(fits.get((d, along)) is (d != along) for d in DIRECTIONS for along in DIRECTIONS):
        periods = " and ".join(f"{c.text or c.value} s in {d}" for d, k in stated.items() if k for c in k.single[:1])
        yield Check(
            "axes",
            ANALYSIS_PERIOD,
            "axes X and Y",
            verdict=Verdict.DIFFERS,
            role=DeviationRole.ORIGIN,
            level=1,
            note=f"their periods of {periods} are those of the modes along the other axis in the submitted table",
        )
        return
    off = {
        d: float(of_key.single[0].value) / float(leading[d][0][1].value)
        for d, of_key in stated.items()
        if of_key is not None and fits.get((d, d)) is False
    }
    # stiffness or mass of another state changes the periods of both directions alike
    alike = len(off) == 2 and abs(off["X"] / off["Y"] - 1.0) < SAME_STATE
    state = (
        f"; both periods are {off['X']:.3g} times those of the table, as of another state of the structure"
        if alike
        else ""
    )
    for d, of_key in stated.items():
        if of_key is not None and fits.get((d, d)) is False:
            claim, (mode, period) = of_key.single[0], leading[d][0]
            yield Check(
                "taken_from",
                Key("T_analysis", d),
                f"T {d} of the modes",
                claim,
                verdict=Verdict.QUESTION,
                level=1,
                note=f"the period stated for {d} is {claim.text or claim.value} {claim.unit or 's'}, while "
                f"mode {mode + 1} of "
                f"their own table, which moves most along {d}, has {period.text or period.value} "
                f"{period.unit or 's'}{state}",
                slip="S89" if alike else "",
            )


def _leading(context: Context, direction: str) -> list[tuple[int, Claim]]:
    """Modes that the period of a direction may be taken from, with their periods; the dominant one first."""
    table = context.claims.modes
    shares = {
        m: float(c.value) for m in table.numbers if (c := table.claim(Key("mass_ratio", direction), m)) is not None
    }
    most = max(shares.values(), default=0.0)
    led = sorted((m for m, share in shares.items() if most > 0 and share >= AGREEMENT * most), key=lambda m: -shares[m])
    periods = [(m, table.claim(PERIOD, m)) for m in led]
    return [(m, period) for m, period in periods if period is not None]


def _is_period_of(context: Context, claim: Claim, modes: list[tuple[int, Claim]]) -> bool:
    return any(
        context.compared(
            "T_analysis",
            float(claim.value),
            float(T.value),
            context.claims.rounding(claim) + context.claims.rounding(T),
        ).agrees
        for _, T in modes
    )


@checker_of_claims("missing_mode")
def missing_modes(context: Context) -> Iterator[Check]:
    """Modes of ours that take part in the movement and that their list does not include."""
    matched = context.modes_compared
    for number in matched["missing"] if matched and context.own_modes else ():
        mode = context.own_modes["modes"][number - 1] if context.own_modes else {}
        most = max(DIRECTIONS, key=lambda d, shares=mode["mass_ratio"]: shares[d])  # type: ignore[misc]
        yield Check(
            "missing_mode",
            PERIOD,
            f"mode {number} of ours",
            place=str(number),
            verdict=Verdict.GAP,
            note=f"our mode {number} (T = {mode['T']:.3g} s, {mode['mass_ratio'][most]:.1%} of the mass in "
            f"{most}) has no "
            "counterpart in their list",
        )
