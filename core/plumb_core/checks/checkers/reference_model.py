"""What the reference model says to their base shears, drifts, displacements and twist (level 3.

Model against model).
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.check import EXCHANGED, Check, Derived, Subject
from plumb_core.checks.claims import theirs
from plumb_core.checks.compare import Comparison, compare
from plumb_core.checks.context import Context, OurValue
from plumb_core.checks.reference import floor_ends, history_answer, matched_cases
from plumb_core.checks.registry import checker
from plumb_core.checks.results import Ends
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import Claim, Source
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Array, Key

AGREEMENT = 0.10
"""Relative difference between two sound models of a building (office setting)."""
LEAST = 0.05
"""Share of the greatest movement of a case below which stories are not compared."""


@checker("own")
def base_shears(context: Context) -> Iterator[Check]:
    """The modal base shear before scaling against the response of the reference model."""
    for d in DIRECTIONS:
        answer, claim = context.reference.get(f"response_{d}"), context.modal_shear(d, "before")
        if answer is None or claim is None:
            continue
        ours = abs(float(answer["base_shear"][d]))
        key = Key("V_dynamic", d)
        compared = compare(float(theirs(claim)), ours, AGREEMENT, context.claims.rounding(claim))
        words = (
            f"the reference model gives {figures(ours)} kN for the modal base shear in {d}, the submitted "
            f"value is {figures(float(theirs(claim)))} kN"
        )
        swapped = bool(context.modes_compared and context.modes_compared["swapped"])
        yield _judged(
            context, key, f"V dynamic {d} by the reference model", claim, compared, words, (key,), swapped=swapped
        )


def _judged(
    context: Context,
    key: Key,
    label: str,
    claim: Subject,
    compared: Comparison,
    said: str,
    upstream: tuple[Key, ...],
    place: str = "",
    index: int | None = None,
    swapped: bool = False,
) -> Check:
    """A question where two models part.

    Inherited where the axes of their modes are exchanged, or their value is not ours.
    """
    inherited = not compared.agrees and (swapped or _deviates(context, upstream))
    return Check(
        "own",
        key,
        label,
        claim,
        place,
        index,
        independent=compared,
        verdict=Verdict.AGREES if compared.agrees else Verdict.DIFFERS if inherited else Verdict.QUESTION,
        role=DeviationRole.INHERITED if inherited else None,
        level=3,
        note=said,
        rests_on=(EXCHANGED,) if inherited and swapped else (),
        upstream=upstream if inherited else (),
    )


def _deviates(context: Context, keys: Sequence[Key]) -> bool:
    """Whether one of these values of theirs is not ours."""
    for key in keys:
        stated = context.claims.by_key.get(key)
        claims = [] if stated is None else [*stated.single[:1], *stated.indexed.values()]
        if not claims:
            continue
        value = context.independent.get(key.name, key.direction)
        if value is None:
            continue
        ours = np.atleast_1d(np.asarray(value, dtype=float))
        values = stated.indexed.items() if stated is not None and stated.indexed else enumerate(claims)
        if any(
            not context.compared(key.name, float(theirs(c)), float(ours[i]), context.claims.rounding(c)).agrees
            for i, c in values
        ):
            return True
    return False


@checker("own")
def movements(context: Context) -> Iterator[Check]:
    """Drifts and displacements of both ends of the static cases against the edition's forces in the reference model.

    Where their forces are others than ours, our movements are accepted the ratio of the story shears.
    """
    answer = context.reference.get("static_response")
    if answer is None or len(answer["cases"][0]["stories"]) != len(context.claims.stories):
        return
    for d in DIRECTIONS:
        pairs = matched_cases(context, answer, d)
        for what in ("drift", "displacement"):
            worst = _worst(context, pairs, what, d)
            if worst is None:
                continue
            case, story, value, ours = worst
            key = Key(f"{what}_max", d, case)
            name = context.claims.stories[story]
            claim = _moved(what, d, name, case, value, f"farther end in {case}")
            words = (
                f"under {case} the farther end of {name} has a {what} of {figures(1000 * value)} mm, in the "
                f"reference model "
                f"{figures(1000 * ours)} mm under the submitted story shears"
            )
            compared = compare(value, ours, AGREEMENT, 0.0)
            yield _judged(
                context, key, f"{what} {d} {name} by the reference model", claim, compared, words, (), name, story
            )
        yield from _ratios(context, pairs, d)


@checker("own")
def histories(context: Context) -> Iterator[Check]:
    """Envelopes of their time histories against ours under the same record.

    Base shear, drift and displacement (linear).
    """
    for case, role in context.claims.cases.items():
        our_step = history_answer(context, case)
        if role.kind != "time_history" or our_step is None or role.direction not in DIRECTIONS:
            continue
        d = role.direction
        claim = context.results.claim(f"reaction_{d}", d, case) or context.results.claim(f"reaction_{d}", None, case)
        if claim is not None:
            value, ours = abs(float(theirs(claim))), abs(float(our_step["base_shear"][d]))
            words = (
                f"under {case} the reference model has a base shear of {figures(ours)} kN in {d}, the "
                f"submitted value is {figures(value)} kN"
            )
            compared = compare(value, ours, AGREEMENT, context.claims.rounding(claim))
            yield _judged(
                context, Key(claim.quantity, d, case), f"V {case} by the reference model", claim, compared, words, ()
            )
        for what in ("drift", "displacement"):
            yield from _envelope(context, case, d, what, our_step)


@checker("own")
def modal_displacements(context: Context) -> Iterator[Check]:
    """Displacements of modal cases before scaling against the response of the reference model.

    At the centre of the floors.
    """
    for case, role in context.claims.cases.items():
        d = role.direction
        if (
            role.kind != "modal"
            or role.step == "after"
            or role.level in ("elastic", "amplified")
            or d not in DIRECTIONS
        ):
            continue
        answer, ends = context.reference.get(f"response_{d}"), context.results.ends("displacement", d, case)
        if answer is None or ends is None or len(answer["stories"]) != len(context.claims.stories):
            continue
        ours = np.abs([row["displacement"][d] for row in answer["stories"]])
        yield from _parted(context, case, d, "displacement", ends.mean, ours)


def _envelope(context: Context, case: str, direction: str, what: str, our_step: Mapping[str, Any]) -> Iterator[Check]:
    """The story where the farther ends part the most; one check for a case."""
    ends = context.results.ends(what, direction, case)
    if ends is None:
        return
    stated, ours = ends.greatest, floor_ends(our_step, what, direction).max(axis=1)
    if np.all(np.isnan(stated)):
        # only the centre is stated
        stated, ours = ends.mean, floor_ends(our_step, what, direction).mean(axis=1)
    yield from _parted(context, case, direction, what, stated, ours)


def _moved(what: str, direction: str, story: str, case: str, value: float, note: str) -> Derived:
    """The greatest drift or displacement of theirs at a story (value in m), as it is compared with ours."""
    return Derived(
        quantity=f"{what}_max",
        direction=direction,
        story=story,
        case=case,
        value=value,
        text=f"{1000 * value:.4g}",
        unit="mm",
        scale=0.001,
        source=Source(note=note),
    )


def _parted(context: Context, case: str, direction: str, what: str, stated: Array, ours: Array) -> Iterator[Check]:
    """The story of a case where theirs and ours part the most."""
    usable = np.isfinite(stated) & (ours >= LEAST * ours.max())
    if not np.any(usable):
        return
    off = np.where(usable, np.abs(stated / np.where(ours > 0, ours, 1.0) - 1.0), -1.0)
    i = int(np.argmax(off))
    name, value, mine = context.claims.stories[i], float(stated[i]), float(ours[i])
    claim = _moved(what, direction, name, case, value, f"envelope of {case}")
    words = (
        f"under {case} the envelope of the {what} at {name} is {figures(1000 * value)} mm, in the "
        f"reference model {figures(1000 * mine)} mm"
    )
    compared = compare(value, mine, AGREEMENT, 0.0)
    yield _judged(
        context,
        Key(f"{what}_max", direction, case),
        f"{what} {name} {case} by the reference model",
        claim,
        compared,
        words,
        (),
        name,
        i,
    )


def _sheared(context: Context, direction: str) -> Array:
    """Their story shears over ours; 1 where theirs are not stated."""
    stories = len(context.claims.stories)
    stated = context.claims.by_key.get(Key("V_story", direction))
    ours = context.independent.get("V_story", direction)
    if ours is None:
        return np.ones(stories)
    ratio = np.ones(stories)
    for i, claim in stated.indexed.items() if stated is not None else ():
        ratio[i] = float(theirs(claim)) / ours[i] if ours[i] else 1.0
    return ratio


def _worst(
    context: Context, pairs: list[tuple[str, Mapping[str, Any]]], what: str, direction: str
) -> tuple[str, int, float, float] | None:
    """(case, story, theirs, ours) of the farther end where the two part the most, in m."""
    best: tuple[float, tuple[str, int, float, float]] | None = None
    ratio = _sheared(context, direction)
    for case, our_step in pairs:
        ends = context.results.ends(what, direction, case)
        if ends is None or np.all(np.isnan(ends.greatest)):
            continue
        ours = floor_ends(our_step, "drift", direction).max(axis=1) * ratio
        if what == "displacement":
            both = floor_ends(our_step, "drift", direction) * ratio[:, None]
            ours = np.cumsum(both, axis=0).max(axis=1)
        for i in range(len(ours)):
            value = float(ends.greatest[i])
            if not np.isfinite(value) or ours[i] < LEAST * ours.max():
                continue
            off = abs(value / float(ours[i]) - 1.0)
            if best is None or off > best[0]:
                best = (off, (case, i, value, float(ours[i])))
    return None if best is None else best[1]


def _ratios(context: Context, pairs: list[tuple[str, Mapping[str, Any]]], direction: str) -> Iterator[Check]:
    """How far the building turns: the greatest over the mean of the ends, theirs against the reference model's."""
    best: tuple[float, str, int, float, float] | None = None
    for case, our_step in pairs:
        ends = context.results.drifts(direction, case)
        if ends is None or np.any(np.isnan(ends.greatest)):
            continue
        value, ours = _turning(ends), floor_ends(our_step, "drift", direction)
        by_model = ours.max(axis=1) / ours.mean(axis=1)
        for i in range(len(value)):
            if ends.greatest[i] >= LEAST * ends.greatest.max() and np.isfinite(value[i]):
                off = abs(float(value[i]) / float(by_model[i]) - 1.0)
                if best is None or off > best[0]:
                    best = (off, case, i, float(value[i]), float(by_model[i]))
    if best is None:
        return
    _, case, i, value_, ours_ = best
    name = context.claims.stories[i]
    claim = Derived(
        quantity="torsion_ratio",
        direction=direction,
        story=name,
        case=case,
        value=value_,
        text=f"{value_:.4g}",
        source=Source(note=f"of the drifts in {case}"),
    )
    words = (
        f"{name} has in {case} {figures(value_, 3)} times its mean drift at one end, in the reference "
        f"model to {figures(ours_, 3)}"
    )
    compared = compare(value_, ours_, AGREEMENT / 2, 0.0)
    yield _judged(
        context,
        Key("torsion_ratio", direction, case),
        f"turning {direction} {name} by the reference model",
        claim,
        compared,
        words,
        (),
        name,
        i,
    )


@checker("own")
def of_stories(context: Context) -> Iterator[Check]:
    """Story shears of their modal cases, A_x and stability coefficients against those of the reference model."""
    static = context.reference.get("static_response")
    for d in DIRECTIONS:
        yield from _story_shears(context, d)
        if static is None or len(static["cases"][0]["stories"]) != len(context.claims.stories):
            continue
        along = [c for c in static["cases"] if c["direction"] == d]
        amplified = [[row["A_x"] for row in c["stories"]] for c in along if c["eccentricity"]]
        if amplified and all(v is not None for c in amplified for v in c):
            yield from _against(context, "A_x", d, np.max(np.array(amplified, dtype=float), axis=0), AGREEMENT)
        means = [floor_ends(c, "drift", d).mean(axis=1) for c in along]
        mean = {Key("delta_e_mean", d): np.max(means, axis=0)}
        step = context.step(context.independent.assuming(inputs=mean), Key("theta", d))
        if not isinstance(step, OurValue):
            yield from _against(context, "theta", d, np.asarray(step.value), 2 * AGREEMENT)


def _against(context: Context, name: str, direction: str, ours: Array, alike: float) -> Iterator[Check]:
    """The story where a stated quantity parts the most from the reference model's."""
    key = Key(name, direction)
    stated = context.claims.by_key.get(key)
    if stated is None or not stated.indexed:
        return
    sides = {
        i: compare(
            float(theirs(c)), float(ours[i]), alike, max(context.claims.rounding(c), LEAST * alike * float(ours.max()))
        )
        for i, c in stated.indexed.items()
    }
    i = max(sides, key=lambda k: abs(sides[k].multiples))
    claim, symbol = stated.indexed[i], QUANTITIES[name].symbol
    words = (
        f"{symbol} at {claim.story} is {figures(sides[i].theirs, 3)}, in the reference model "
        f"{figures(sides[i].ours, 3)}"
    )
    label = f"{symbol} {direction} {claim.story} by the reference model"
    yield _judged(context, key, label, claim, sides[i], words, (key,), claim.story or "", i)


def _story_shears(context: Context, direction: str) -> Iterator[Check]:
    answer = context.reference.get(f"response_{direction}")
    if answer is None or len(answer["stories"]) != len(context.claims.stories):
        return
    ours = [abs(float(row["shear"][direction])) for row in answer["stories"]]
    best: tuple[Comparison, Claim, int] | None = None
    for case, role in context.claims.cases.items():
        if role.kind != "modal" or role.step == "after" or role.direction != direction:
            continue
        of_key = context.results.values.get(Key("V_story", direction, case))
        for i, claim in of_key.indexed.items() if of_key is not None else ():
            side = compare(
                abs(float(claim.value)), ours[i], AGREEMENT, max(context.claims.rounding(claim), LEAST * max(ours))
            )
            if best is None or abs(side.multiples) > abs(best[0].multiples):
                best = (side, claim, i)
    if best is None:
        return
    side, claim, i = best
    words = (
        f"the story shear of {claim.story} in {claim.case} is {figures(side.theirs)} kN, in the reference "
        f"model {figures(side.ours)} kN"
    )
    swapped = bool(context.modes_compared and context.modes_compared["swapped"])
    key = Key("V_story", direction, claim.case)
    label = f"V_x {direction} {claim.story} by the reference model"
    upstream = (Key("V_dynamic", direction),)
    yield _judged(context, key, label, claim, side, words, upstream, claim.story or "", i, swapped)


def _turning(ends: Ends) -> Array:
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.asarray(ends.greatest / ends.mean)
