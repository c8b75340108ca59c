"""The modal base shear: whether it is what the modes give, whether it is scaled.

What the scaling leaves to ask.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from plumb_core import DIRECTIONS
from plumb_core.checks.check import EXCHANGED, Check, Derived, Subject, limit_of
from plumb_core.checks.claims import theirs
from plumb_core.checks.compare import compare
from plumb_core.checks.context import Context, OurValue
from plumb_core.checks.making import check_of
from plumb_core.checks.registry import checker
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import Claim, Source
from plumb_core.documents.thresholds import band
from plumb_core.limits import PRINTED, enough_factor
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Evaluation, Key

CURVE = ("S_a_reduced", "S_a", "spectrum_factor", "W", "damping")
"""Quantities of a modal base shear in addition to the modes."""
GRAVITIES = (
    ("g omitted", 1 / 9.80665),
    ("g omitted", 1 / 386.09),
    ("g omitted", 1 / 32.174),
    ("g omitted", 1 / 9806.65),
    ("g counted twice", 9.80665),
    ("g counted twice", 386.09),
    ("g counted twice", 32.174),
    ("g in m where the model is in mm", 0.001),
    ("g in mm where the model is in m", 1000.0),
)


@checker("value", "factor", "scaling")
def scaling(context: Context) -> Iterator[Check]:
    """Modal base shear before and after, and the factor between them, for each direction that states any of it."""
    for direction in DIRECTIONS:
        before, after = context.modal_shear(direction, "before"), context.modal_shear(direction, "after")
        required = _stated(context, "factor_required", direction)
        used = _stated(context, "factor_used", direction)
        if before is None and after is None and used is None and required is None:
            continue
        confirmed = True
        if before is not None:
            check = _before(context, direction, before)
            confirmed = check.verdict is not Verdict.DIFFERS
            yield check
        if before is not None and after is not None and used is not None:
            yield _after(context, direction, before, after, used)
        yield from _factors(context, direction, before, after, used, required)
        if before is not None:
            yield from _far_off(context, direction, before, confirmed)


def _stated(context: Context, name: str, direction: str) -> Claim | None:
    of_key = context.claims.by_key.get(Key(name, direction))
    return of_key.single[0] if of_key is not None and of_key.single else None


def _before(context: Context, direction: str, claim: Claim) -> Check:
    """V_dynamic against share of the mass x weight x ordinate, combined over their own modes."""
    key = Key("V_dynamic", direction)
    # without a combination stated the nearer of the two is compared with theirs
    by = [_combination(context)] if _combination(context) else ["CQC", "SRSS"]
    sides = [
        [
            context.step(e.assuming(inputs={Key("combined_by"): rule}), key)
            for e in (context.independent, context.carried)
        ]
        for rule in by
    ]
    checks = [check_of(context, key, None, claim, independent, carried) for independent, carried in sides]
    check = min(checks, key=lambda c: abs(c.shown.multiples) if c.shown else 0.0)
    if check.independent is None and check.carried is None:
        return replace(check, note=f"our modal base shear is not available: {_why(sides[0][0])}", upstream=())
    words = f"from the submitted {_modes(context)} modes, our curve, and the weight, by {by[checks.index(check)]}"
    if check.role is DeviationRole.ORIGIN and _right_once_exchanged(context, key, claim):
        return replace(
            check,
            note=words,
            level=2,
            role=DeviationRole.INHERITED,
            rests_on=(EXCHANGED,),
            upstream=(Key("mass_ratio"),),
        )
    check = replace(check, note=words, level=2, upstream=tuple(Key(n, d) for n in CURVE for d in (direction, None)))
    if check.role is DeviationRole.ORIGIN and check.carried is not None:
        ratio = float(check.carried.theirs) / float(check.carried.ours)
        cause = _cause(context, direction, ratio)
        if cause:
            return replace(
                check, note=f"{words}; the submitted value is {figures(ratio)} of it: {cause[1]}", slip=cause[0]
            )
    return check


def _right_once_exchanged(context: Context, key: Key, claim: Claim) -> bool:
    """Whether their axes are exchanged in the table of modes, and the shear is that of the other column."""
    other = "Y" if key.direction == "X" else "X"
    shares = context.carried.inputs.get(Key("mass_share", other))
    if not context.modes_compared or not context.modes_compared["swapped"] or shares is None:
        return False
    step = context.step(context.carried.assuming(inputs={Key("mass_share", key.direction): shares}), key)
    return (
        not isinstance(step, OurValue)
        and context.compared(key.name, float(theirs(claim)), float(step.value), context.claims.rounding(claim)).agrees
    )


def _why(step: object) -> str:
    return step.why if isinstance(step, OurValue) else "the submitted table of modes has no shares of the mass"


def _modes(context: Context) -> int:
    return len(context.claims.modes.numbers)


def _combination(context: Context) -> str:
    stated = context.claims.by_key.get(Key("combined_by"))
    text = str(stated.single[0].value) if stated is not None and stated.single else ""
    return text if text in ("CQC", "SRSS", "ABS", "close modes absolute") else ""


def _cause(context: Context, direction: str, ratio: float) -> tuple[str, str] | None:
    """(code, words) of a known ratio between their modal base shear and ours."""
    for words, known in GRAVITIES:
        if abs(ratio / known - 1) < 0.03:
            return "S01" if known not in (0.001, 1000.0) else "S03", words
    share = context.independent.get("spectrum_factor", direction)
    if share is None:
        return None
    if abs(ratio * share - 1) < 0.03:
        return "S02", "the reduction is missing"
    if abs(ratio / share - 1) < 0.03:
        return "S02", "the reduction is included twice"
    for known, words in ((1.5, "the maximum considered motion instead of the design motion"), (2 / 3, "2/3 twice")):
        if abs(ratio / known - 1) < 0.02:
            return "S16", words
    return None


def _after(context: Context, direction: str, before: Claim, after: Claim, used: Claim) -> Check:
    """After = before x factor, within what their digits state."""
    key = Key("V_scaled", direction)
    product = float(theirs(before)) * float(theirs(used))
    floor = (
        context.claims.rounding(after)
        + context.claims.rounding(before) * float(theirs(used))
        + context.claims.rounding(used) * float(theirs(before))
    )
    carried = compare(float(theirs(after)), product, 0.002 * context.tolerance_scale, floor)
    off = not carried.agrees
    return Check(
        "value",
        key,
        f"{QUANTITIES['V_scaled'].symbol} {direction}",
        after,
        carried=carried,
        verdict=Verdict.DIFFERS if off else Verdict.AGREES,
        role=DeviationRole.ORIGIN if off else None,
        level=1,
        clause=context.independent.rules["scaling_share"].clause
        if "scaling_share" in context.independent.rules
        else "",
        note="submitted base shear before scaling times the submitted factor",
        slip="S67" if off else "",
    )


def _factors(
    context: Context,
    direction: str,
    before: Claim | None,
    after: Claim | None,
    used: Claim | None,
    required: Claim | None,
) -> Iterator[Check]:
    """The factor that was used against the one that is required, by our values and by theirs."""
    key = Key("factor_required", direction)
    if "factor_required" not in context.independent.rules:
        return
    # a factor goes on their own base shear, whatever it should have been
    ours_from = {} if before is None else {Key("V_dynamic", direction): float(theirs(before))}
    steps = (
        context.step(context.independent.assuming(inputs=ours_from) if ours_from else context.independent, key),
        context.step(_carried_from(context, direction, before), key),
    )
    if required is not None:
        check = check_of(context, key, None, required, *steps)
        yield replace(
            check, upstream=(Key("V_static", direction), Key("V_dynamic", direction), Key("scaling_share", direction))
        )
    values = [None if isinstance(s, OurValue) else float(s.value) for s in steps]
    ours, our_step = values[0] if values[0] is not None else values[1], values[1]
    if ours is None:
        return
    factor: Subject | None = used or _implied(before, after, direction)
    clause = context.independent.rules["factor_required"].clause
    at = Key("factor_used", direction)
    label = f"{QUANTITIES['factor_used'].symbol} {direction}"
    if factor is None:
        if not enough_factor(1.0, ours) and not context.claims.awaits("factor_used", "V_scaled"):
            yield Check(
                "factor",
                at,
                label,
                verdict=Verdict.GAP,
                clause=clause,
                note=(
                    f"no scaling of the modal base shear in {direction} is shown; a factor of {figures(ours)} "
                    f"is required"
                ),
                slip="S61",
            )
        return
    value, floor = float(theirs(factor)), max(context.claims.rounding(factor), PRINTED)
    limit = limit_of("factor_required", ours, "min", clause)
    # What the digits of their base shears leave of the factor
    slack = sum(
        context.claims.rounding(c) / float(theirs(c))
        for c in (before, _stated(context, "V_static", direction))
        if c and c.value
    )
    # the static base shear that it is computed from agrees within its own tolerance
    slack += QUANTITIES["V_static"].tolerance * context.tolerance_scale
    enough = enough_factor((value + floor) * (1 + slack), ours)
    by_theirs = our_step is None or enough_factor((value + floor) * (1 + slack), our_step)
    note = f"{figures(value)} is used, {figures(ours)} is required" + (
        "" if enough else ", by our static base shear" if by_theirs else ""
    )
    yield Check(
        "factor",
        at,
        label,
        factor,
        independent=compare(value, ours if not enough else max(ours, value), 0.001, floor),
        verdict=Verdict.AGREES if enough else Verdict.BREACHES,
        role=None if enough else DeviationRole.INHERITED if by_theirs else DeviationRole.ORIGIN,
        level=2,
        limit=limit,
        clause=clause,
        note=note,
        slip="" if enough else "S63" if _shared(context, direction, value) else "S62",
        upstream=(Key("V_static", direction), Key("V_dynamic", direction)),
    )


def _shared(context: Context, direction: str, factor: float) -> bool:
    """Whether one factor represents both directions; no scaling at all is another slip."""
    other = _stated(context, "factor_used", "Y" if direction == "X" else "X")
    return other is not None and factor > 1.0 and abs(float(theirs(other)) - factor) < PRINTED


def _estimated(context: Context, direction: str) -> bool:
    return not isinstance(context.step(context.independent, Key("V_dynamic", direction)), OurValue)


def _carried_from(context: Context, direction: str, before: Claim | None) -> Evaluation:
    """Their side with their modal base shear, which may be in a table of reactions alone."""
    if before is None or Key("V_dynamic", direction) in context.claims.by_key:
        return context.carried
    return context.carried.assuming(inputs={Key("V_dynamic", direction): float(theirs(before))})


def _implied(before: Claim | None, after: Claim | None, direction: str) -> Derived | None:
    if before is None or after is None or not float(theirs(before)):
        return None
    value = float(theirs(after)) / float(theirs(before))
    note = "submitted base shear after scaling over that before"
    return Derived("factor_used", value, direction=direction, text=f"{value:.4f}", source=Source(note=note))


def _far_off(context: Context, direction: str, before: Claim, confirmed: bool) -> Iterator[Check]:
    """A modal base shear far from the static one requires a cause where ours does not confirm it (S65)."""
    static = context.step(context.carried, Key("V_static", direction))
    if isinstance(static, OurValue) or (confirmed and _estimated(context, direction)):
        return
    ratio = float(theirs(before)) / float(static.value)
    low, high = band(context.brief.thresholds, "shear_ratio")
    if confirmed and not low <= ratio <= high:
        yield Check(
            "scaling",
            Key("V_dynamic", direction),
            f"V dynamic / V static {direction}",
            before,
            verdict=Verdict.QUESTION,
            level=1,
            note=f"the modal base shear in {direction} is {figures(ratio)} of the static one, and no table of "
            f"modes with shares "
            "of the mass explains it",
            slip="S65",
        )
