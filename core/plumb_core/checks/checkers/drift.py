"""Drift: the design story drift compared with its limit, what made it, and the stability coefficient."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import replace

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check, Derived, limit_of
from plumb_core.checks.claims import theirs
from plumb_core.checks.compare import Comparison, compare
from plumb_core.checks.context import Context, OurValue
from plumb_core.checks.judging import outcome_of
from plumb_core.checks.making import check_of, one_origin
from plumb_core.checks.registry import checker, checker_of_claims
from plumb_core.checks.stages.drift.inputs import DRIFTS, Governing, Pair
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import Claim, Source
from plumb_core.limits import exceeds, within
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Array, Key

SHEAR = ("spectrum_factor", "S_a", "S_a_reduced", "W", "damping")
"""Quantities of a modal base shear in addition to the modes."""
UPSTREAM = ("amplifier", "C_d", "R", "I_e", "q", "mu", "S_p", "nu")
"""Quantities of a design drift in addition to the elastic drifts."""


@checker("drift", "drift_open", "amplified")
def drifts(context: Context) -> Iterator[Check]:
    """Design drift of each story against the limit, of the case that governs; one origin for a direction."""
    for governing in context.drifts:
        yield from _against_limit(context, governing)
        yield from _amplified(context, governing)
        yield from _questions(context, governing)
        yield from _roof(context, governing)


def _against_limit(context: Context, governing: Governing) -> Iterator[Check]:
    d = governing.direction
    ours = context.independent
    step = context.step(ours, Key("drift_ratio", d))
    bound = context.limit_step("drift_limit", d)
    covered = tuple(key for key in context.results.values if key.name.startswith("drift_") and key.direction == d)
    if isinstance(step, OurValue) or bound is None:
        missing = step.why if isinstance(step, OurValue) else "the limit of the drift is not known"
        yield Check(
            "drift_open",
            Key("drift_ratio", d),
            f"Δ/h {d}",
            note=f"not compared with its limit: {missing}",
            level=None,
        )
        return
    verdicts = ours.get("drift_verdict", d)
    if verdicts is None:
        verdicts = [within(float(r), float(bound.value)) for r in step.value]
    limits = ours.get("drift_limits", d) or [float(bound.value)] * len(verdicts)
    amplified = ours.get("drift_second_order", d)
    ratios = [
        float(r) if amplified is None or amplified[i] is None else float(amplified[i]) for i, r in enumerate(step.value)
    ]
    follows = _from_shear(context, governing, ratios, limits)
    by = bound.governed.governed_by if bound.governed else None
    checks = [
        _without_drift(context, governing, i)
        if math.isnan(ratios[i])
        else _story(context, governing, i, ratios[i], float(step.value[i]), float(limits[i]), verdict, by, follows)
        for i, verdict in enumerate(verdicts)
    ]
    checks[0] = replace(checks[0], covers=covered)
    yield from one_origin(checks, ("S85", ""))


def _without_drift(context: Context, governing: Governing, i: int) -> Check:
    """The check of a story where a case has no drift: open, whatever the other cases have."""
    d, story = governing.direction, context.claims.stories[i]
    return Check(
        "drift_open",
        Key("drift_ratio", d),
        f"{QUANTITIES['drift_ratio'].symbol} {d} {story}",
        None,
        story,
        i,
        level=None,
        note=f"not compared with its limit: {governing.case[i]} has no drift at {story} that is read",
    )


def _story(
    context: Context,
    governing: Governing,
    i: int,
    ratio: float,
    first_order: float,
    limit: float,
    verdict: bool | None,
    by: str | None,
    follows: tuple[Key, ...],
) -> Check:
    """The check of one story.

    Parameters
    ----------
    ratio, first_order : design drift over the height, with and without its second order amplification
    verdict : whether it is within the limit; None where the story is unstable
    by : what the limit is governed by
    follows : what a drift that is too great follows from
    """
    d, story = governing.direction, context.claims.stories[i]
    over = verdict is False
    clause = context.independent.rules["drift_limit"].clause
    source = Source(note=f"from the drifts of {governing.case[i]}")
    subject = Derived("drift_ratio", ratio, direction=d, story=story, text=f"{ratio:.5f}", source=source)
    bound = None if math.isinf(limit) else limit_of("drift_limit", limit, "max", clause, by)
    at = _place(context, governing, governing.case[i])
    note = (
        f"design drift in {d} at {story} is {figures(ratio)} of the height, its limit {figures(limit)}; "
        f"{governing.case[i]} "
        f"governs, {at}"
    )
    if ratio > first_order * (1 + 1e-9):
        note += f"; {figures(first_order)} is amplified by {figures(ratio / first_order)} for second order effects"
    if governing.case[i] in governing.factors:
        note += f"; the drifts of the case are multiplied by {figures(governing.factors[governing.case[i]])}"
    if verdict is None:
        note = f"the drift in {d} at {story} is not decided: unstable, its stability coefficient exceeds the limit"
    return Check(
        "drift",
        Key("drift_ratio", d),
        f"{QUANTITIES['drift_ratio'].symbol} {d} {story}",
        subject,
        story,
        i,
        independent=compare(ratio, limit if over else ratio, 0.001, 0.0),
        verdict=Verdict.OPEN if verdict is None else Verdict.BREACHES if over else Verdict.AGREES,
        role=(DeviationRole.INHERITED if follows else DeviationRole.ORIGIN) if over else None,
        level=2,
        limit=bound,
        clause=clause,
        note=note,
        upstream=follows if over else (),
    )


def _place(context: Context, governing: Governing, case: str) -> str:
    """Where in the story the drifts of a case are."""
    ends = context.results.drifts(governing.direction, case)
    if ends is None or not np.all(np.isnan(ends.greatest)):
        return "greatest of the ends" if governing.at_edges else "mean of the ends"
    single = ("drift_single", "displacement_single")
    stated = any(context.results.array(name, governing.direction, case) is not None for name in single)
    return "one value for the story, at a place that is not stated" if stated else "at the centre of mass"


def _from_shear(context: Context, governing: Governing, ratios: list[float], limits: list[float]) -> tuple[Key, ...]:
    """What a drift that is too great follows from: a base shear of its case that is too great by as much or more.

    Empty where the drifts would exceed their limit under our own base shear as well.
    """
    d = governing.direction
    over = [i for i, (ratio, limit) in enumerate(zip(ratios, limits, strict=True)) if exceeds(ratio, limit)]
    if not over:
        return ()
    roles = [context.claims.cases.get(governing.case[i]) for i in over]
    modal = all(r is not None and r.kind == "modal" for r in roles)
    stated = context.modal_shear(d, "before") if modal else None
    for name in () if modal else ("V", "V_static"):
        of_key = context.claims.by_key.get(Key(name, d))
        stated = of_key.single[0] if stated is None and of_key is not None and of_key.single else stated
    ours = context.independent.get("V_dynamic" if modal else "V", d)
    if stated is None or not ours:
        return ()
    ratio = abs(float(theirs(stated))) / float(ours)
    if ratio <= 1.0 + QUANTITIES["V_dynamic"].tolerance or any(exceeds(ratios[i] / ratio, limits[i]) for i in over):
        return ()
    return (Key("V_dynamic", d), *(Key(n, x) for n in SHEAR for x in (d, None))) if modal else (Key("V", d),)


def _roof(context: Context, governing: Governing) -> Iterator[Check]:
    """The displacement of the roof where the edition limits it."""
    d = governing.direction
    verdict, ratio, limit = (
        context.independent.get(n, d) for n in ("roof_drift_verdict", "roof_drift_ratio", "roof_drift_limit")
    )
    if verdict is None or ratio is None or limit is None or math.isinf(limit):
        return
    clause = context.independent.rules["roof_drift_limit"].clause
    source = Source(note="sum of the drifts")
    yield Check(
        "drift",
        Key("roof_drift_ratio", d),
        f"{QUANTITIES['roof_drift_ratio'].symbol} {d}",
        Derived("roof_drift_ratio", ratio, direction=d, text=f"{ratio:.5f}", source=source),
        independent=compare(ratio, ratio if verdict else limit, 0.001, 0.0),
        verdict=Verdict.AGREES if verdict else Verdict.BREACHES,
        role=None if verdict else DeviationRole.ORIGIN,
        level=2,
        limit=limit_of("roof_drift_limit", limit, "max", clause),
        clause=clause,
        note=f"the displacement of the roof in {d} is {figures(ratio)} of the height, its limit {figures(limit)}",
    )


def _amplified(context: Context, governing: Governing) -> Iterator[Check]:
    """Drifts given as amplified against the reduced ones.

    The factor between them, and stories that depart from it (S80).
    """
    if not governing.pairs:
        return
    d, key = governing.direction, Key("amplifier", governing.direction)
    ratios, weights = [], []
    for pair in governing.pairs:
        with np.errstate(divide="ignore", invalid="ignore"):
            ratio = pair.large / pair.small
        retained = pair.small > 0.2 * np.max(pair.small)
        ratios += ratio[retained].tolist()
        weights += pair.small[retained].tolist()
    implied = float(np.median(ratios))
    # What the digits of the drifts leave of the factor
    floor = float(np.median([_digits(context, p, d) for p in governing.pairs]))
    our_step = context.step(context.independent, key)
    stated = context.claims.by_key.get(key)
    ours = None if isinstance(our_step, OurValue) else float(our_step.value)
    statement = float(theirs(stated.single[0])) if stated is not None and stated.single else _carried(context, d)
    source = Source(note=f"{governing.pairs[0].amplified} over {governing.pairs[0].reduced}")
    claim = Derived("amplifier", implied, direction=d, text=f"{implied:.4g}", source=source)
    nu = context.independent.get("nu")
    other = nu * ours if nu and ours else context.independent.get("deformation_factor", d)
    if other and compare(implied, other, 0.005, floor).agrees:
        # stated for the damage limitation action, as its limit is worded, or as deformations for separation
        ours, statement = float(other), None
    independent = None if ours is None else compare(implied, ours, 0.005, floor)
    carried = None if statement is None else compare(implied, statement, 0.005, floor)
    if independent is not None or carried is not None:
        verdict, role, _ = outcome_of(independent, carried)
        words = f"the drifts given as amplified are {figures(implied, 3)} times the reduced ones"
        want = f"; {figures(ours, 3)} is required" if ours is not None and verdict is Verdict.DIFFERS else ""
        yield Check(
            "amplified",
            key,
            f"δ/δ_e of the drifts {d}",
            claim,
            carried=carried,
            independent=independent,
            verdict=verdict,
            role=role,
            level=2,
            clause=context.independent.rules["amplifier"].clause if "amplifier" in context.independent.rules else "",
            note=words + want,
            slip="S80" if verdict is Verdict.DIFFERS else "",
            upstream=tuple(Key(n, x) for n in UPSTREAM for x in (d, None)) if role is DeviationRole.INHERITED else (),
        )
    for pair in governing.pairs:
        yield from _departing(context, pair, d, implied)


def _carried(context: Context, direction: str) -> float | None:
    step = context.step(context.carried, Key("amplifier", direction))
    return None if isinstance(step, OurValue) else float(step.value)


def _digits(context: Context, pair: Pair, direction: str) -> float:
    """What half a unit of the last digits of both drifts is of the factor between them, at the greatest story."""
    i = int(np.argmax(pair.small))
    small = context.results.rounding("drift", direction, pair.reduced, i) or context.results.rounding(
        "displacement", direction, pair.reduced, i
    )
    large = context.results.rounding("drift", direction, pair.amplified, i) or context.results.rounding(
        "displacement", direction, pair.amplified, i
    )
    return float(large / pair.small[i] + small * pair.large[i] / pair.small[i] ** 2) if pair.small[i] > 0 else 0.0


def _departing(context: Context, pair: Pair, direction: str, implied: float) -> Iterator[Check]:
    """Stories whose amplified drift is not the factor times the reduced one."""
    for i, story in enumerate(context.claims.stories):
        small, large = float(pair.small[i]), float(pair.large[i])
        floor = (
            context.results.rounding("drift", direction, pair.reduced, i) * implied
            + context.results.rounding("drift", direction, pair.amplified, i)
        ) or 0.02 * implied * small
        carried = compare(large, implied * small, 0.01, floor)
        if carried.agrees:
            continue
        claim = Derived(
            "Delta", large, direction=direction, story=story, case=pair.amplified, text=f"{large:.5g}", unit="m"
        )
        yield Check(
            "amplified",
            Key("Delta", direction),
            f"Δ {direction} {story} {pair.amplified}",
            claim,
            story,
            i,
            carried=carried,
            verdict=Verdict.DIFFERS,
            role=DeviationRole.ORIGIN,
            level=1,
            note=(
                f"the amplified drift at {story} in {pair.amplified} is not {figures(implied, 3)} times that "
                f"of {pair.reduced}"
            ),
        )


def _questions(context: Context, governing: Governing) -> Iterator[Check]:
    d = governing.direction
    if not governing.level_stated:
        yield Check(
            "drift_open",
            Key("delta_e", d),
            f"level of the drifts {d}",
            verdict=Verdict.QUESTION,
            level=1,
            note=(
                f"whether the drifts in {d} are those of the reduced action or design drifts is not stated; "
                f"taken as reduced"
            ),
            slip="S80",
        )
    apart = [
        c for c in dict.fromkeys(governing.case) if (e := context.results.drifts(d, c)) and np.all(np.isnan(e.greatest))
    ]
    if governing.at_edges and apart:
        why = "the building is torsionally irregular" if context.irregular else "the drift at the greater end governs"
        yield Check(
            "drift_open",
            Key("delta_e", d),
            f"drifts at the edges {d}",
            place="edges",
            verdict=Verdict.QUESTION if context.irregular else Verdict.NOTE,
            level=1,
            clause=context.independent.rules["drift_at"].clause if "drift_at" in context.independent.rules else "",
            note=f"{why}, and the drifts of {', '.join(apart[:4])} are not those of the edges",
            slip="S83",
        )
    modal = [
        case
        for case, along in context.results.seismic(context.results.with_values(*DRIFTS))
        if along == d and context.claims.cases[case].kind == "modal"
    ]
    subtracted = [c for c in modal if context.results.ends("drift", d, c) is not None and _subtracted(context, d, c)]
    if subtracted:
        yield Check(
            "drift_open",
            Key("delta_e", d),
            f"drifts of combined modes {d}",
            place="subtracted",
            verdict=Verdict.QUESTION,
            level=1,
            note=f"the drifts of {', '.join(subtracted[:4])} are differences of combined displacements; the drift "
            "has to be formed mode by mode before the modes are combined",
            slip="S82",
        )
    ours = [c for c in modal if context.results.ends("drift", d, c) is None]
    if ours:
        # we subtract, because nothing else is stated: no fault of the submission
        yield Check(
            "drift_open",
            Key("delta_e", d),
            f"drifts of combined modes {d}",
            place="derived",
            verdict=Verdict.NOTE,
            level=1,
            note=f"the drifts of {', '.join(ours[:4])} are not stated; the differences of the combined displacements "
            "are used, which are not formed mode by mode",
        )


COARSE = 0.001
"""m; no digits of a drift are as coarse."""


def _subtracted(context: Context, direction: str, case: str) -> bool:
    """Whether the stated drifts of a modal case are the differences of its displacements."""
    results = context.results
    drift, moved = (results.ends(what, direction, case) for what in ("drift", "displacement"))
    if moved is None or drift is None:
        return False
    a, b = (drift.greatest, moved.greatest) if not np.any(np.isnan(moved.greatest)) else (drift.mean, moved.mean)
    if len(a) < 3 or np.any(np.isnan(a)) or np.any(np.isnan(b)):
        return False
    off = np.abs(a - np.diff(b, prepend=0.0))[1:]
    if np.any(off > COARSE):
        return False
    # the farthest off first: most cases are stated by one story
    return all(
        off[k] <= 1e-9 + 1e-4 * a[k + 1]
        or off[k]
        <= results.rounding("drift", direction, case, k + 1) + results.rounding("displacement", direction, case, k + 1)
        for k in np.argsort(-off).tolist()
    )


MOVEMENTS = ("drift_", "displacement_")
"""Beginnings of the quantities that move."""


@checker("drift_open", "gap")
def missing_drifts(context: Context) -> Iterator[Check]:
    """Directions without a drift where the analysis gives results of cases (S81)."""
    states = {g.direction for g in context.drifts}
    analysed = context.results.with_values("reaction_X", "reaction_Y", *DRIFTS, "displacement_max", "drift_max")
    if not analysed or "drift_limit" not in context.independent.rules:
        return
    for direction in DIRECTIONS:
        stated = [k for k in context.results.values if k.direction == direction and k.name.startswith(MOVEMENTS)]
        if direction not in states and stated:
            yield Check(
                "drift_open",
                Key("drift_ratio", direction),
                f"Δ/h {direction}",
                place="factors",
                level=None,
                note=(
                    f"drifts in {direction} are stated, and cannot be converted to design drifts: our "
                    f"amplification factor is missing"
                ),
                covers=tuple(stated),
            )
        elif direction not in states and not context.claims.awaits(*DRIFTS, "drift_max"):
            yield Check(
                "gap",
                Key("drift_ratio", direction),
                f"Δ/h {direction}",
                verdict=Verdict.GAP,
                clause=context.independent.rules["drift_limit"].clause,
                note=f"no story drifts in {direction} are stated",
                slip="S81",
            )


@checker("value", "stability")
def stability(context: Context) -> Iterator[Check]:
    """Stability coefficients against theirs, and the greatest of each direction against its limit."""
    for direction in DIRECTIONS:
        key, at = Key("theta", direction), Key("theta_greatest", direction)
        step, carried = (context.step(e, key) for e in (context.independent, context.carried))
        stated, greatest = context.claims.by_key.get(key), context.claims.by_key.get(at)
        if stated is not None:
            checks = [check_of(context, key, i, claim, step, carried) for i, claim in sorted(stated.indexed.items())]
            checks = _as_questions(context, direction, [_resting(c, direction) for c in checks])
            yield from one_origin(checks, _slip_of_theta(context, direction, checks))
        if greatest is not None and greatest.single:
            claim = greatest.single[0]
            ours, recomputed = (context.step(e, at) for e in (context.independent, context.carried))
            check = check_of(context, at, None, claim, ours, recomputed)
            if (
                stated is not None
                and check.role is DeviationRole.ORIGIN
                and _is_greatest(context, stated.indexed.values(), claim)
            ):
                check = replace(check, role=DeviationRole.INHERITED, upstream=(key,))
            yield from _as_questions(context, direction, [_resting(check, direction)])
        if not isinstance(step, OurValue):
            yield from _limited(context, direction, np.asarray(step.value))


def _as_questions(context: Context, direction: str, checks: list[Check]) -> list[Check]:
    """Coefficients that another vertical load explains deviate by a load that is not known.

    Open, with a question at P_x.
    """
    if not explained_by_load(context, direction):
        return checks
    return [
        replace(
            c,
            verdict=Verdict.OPEN,
            role=None,
            note=(
                f"not decided: the loads of P_x are not known, the submitted value is "
                f"{figures(float(c.independent.theirs) / float(c.independent.ours), 3)} of ours"
            ),
        )
        if c.verdict is Verdict.DIFFERS and c.independent is not None
        else c
        for c in checks
    ]


def _is_greatest(context: Context, values: Iterable[Claim], claim: Claim) -> bool:
    claims = list(values)
    return abs(max(float(theirs(c)) for c in claims) - float(theirs(claim))) <= context.claims.rounding(claim) + max(
        map(context.claims.rounding, claims)
    )


def _resting(check: Check, direction: str) -> Check:
    if check.role is not DeviationRole.INHERITED:
        return check
    return replace(check, upstream=(check.key, *check.upstream))


def _slip_of_theta(context: Context, direction: str, checks: list[Check]) -> tuple[str, str]:
    """Words for coefficients that come from the wrong shear: the base shear everywhere, or the force of the level."""
    off = [c for c in checks if c.role is DeviationRole.ORIGIN and c.carried is not None and c.index is not None]
    V, F = (context.carried.get(n, direction) for n in ("V_story", "F"))
    if V is None or F is None:
        return "", ""
    for words, other in (
        ("the base shear instead of the story shear", np.full(len(V), V[0])),
        ("the force at the level instead of the story shear", F),
    ):
        near = [
            abs(float(c.carried.theirs) - float(c.carried.ours) * V[c.index] / other[c.index])
            <= max(c.carried.tolerance, 0.02 * float(c.carried.theirs))
            for c in off
            if c.carried is not None and c.index is not None and other[c.index]
        ]
        if near and sum(near) > 0.7 * len(near):
            return "", f"the submitted value follows from {words}"
    return "", ""


def _limited(context: Context, direction: str, theta: Array) -> Iterator[Check]:
    bound = context.limit_step("theta_limit", direction) if "theta_limit" in context.independent.rules else None
    if bound is None:
        return
    if np.all(np.isnan(theta)):
        return
    i = int(np.nanargmax(theta))
    ours = context.independent
    value, limit = float(theta[i]), float(bound.value)
    story = context.claims.stories[i]
    checked, verdicts = ours.get("theta_checked", direction), ours.get("theta_verdict", direction)
    exempt = ours.get("theta_exempt", direction)
    compared = value if checked is None else float(checked[i])
    over = exceeds(compared, limit) if verdicts is None else not verdicts[i]
    words = ours.get("second_order", direction)
    if over and words is not None and words[i] == "in the model":
        # the limit of this edition is that of consideration, and they are considered
        over = False
    significant = exceeds(value, 0.10) and not ours.get("p_delta_included") and not (exempt is not None and exempt[i])
    fact = ours.facts.get(Key("p_delta_included"))
    unread = [context.claims.stories[k] for k in np.flatnonzero(np.isnan(theta))]
    # an edition that multiplies by 1/(1 - theta) has considered them; what is not stated is asked
    requested = not over and significant and (fact is None or fact.source == "assumed")
    clause = ours.rules["theta_limit"].clause
    source = Source(note="ours, from the submitted drifts")
    subject = Derived("theta_greatest", value, direction=direction, story=story, text=f"{value:.4g}", source=source)
    note = (
        f"the greatest stability coefficient in {direction} is {figures(value, 3)}, at {story}; its limit "
        f"is {figures(limit, 3)}"
    )
    if requested:
        note += "; second order effects are above 0.10 and not said to be in the analysis"
    if over and "drift_second_order" in ours.rules:
        note += "; unstable: the drift of the story is not decided"
    if unread and not over:
        note += f"; not decided: the drifts of {', '.join(unread)} are not read"
    yield Check(
        "stability",
        Key("theta_greatest", direction),
        f"{QUANTITIES['theta'].symbol} {direction} {story}",
        subject,
        story,
        i,
        independent=compare(compared, limit if over else compared, 0.001, 0.0),
        verdict=Verdict.BREACHES
        if over
        else Verdict.OPEN
        if unread
        else Verdict.QUESTION
        if requested
        else Verdict.AGREES,
        role=DeviationRole.ORIGIN if over else None,
        level=2,
        limit=limit_of("theta_limit", limit, "max", clause),
        clause=clause,
        note=note,
    )


@checker("drift_open")
def vertical_load(context: Context) -> Iterator[Check]:
    """The vertical load of the stability coefficient where the loads are not known: the seismic weight is assumed.

    A question where coefficients are stated that another vertical load explains.
    """
    ours = context.independent
    if "gravity" not in ours.rules or ours.get("gravity") is not None:
        return
    for direction in DIRECTIONS:
        if ours.get("theta", direction) is None:
            continue
        yield Check(
            "drift_open",
            Key("P", direction),
            f"P_x {direction}",
            place="loads",
            verdict=Verdict.QUESTION if explained_by_load(context, direction) else Verdict.NOTE,
            level=2,
            clause=ours.rules["gravity"].clause,
            note=f"P_x in {direction}: the loads of the stories are not known, and the seismic weight is "
            f"assumed for the "
            "unfactored dead and live load; give the loads in the brief",
        )


GREATEST_LOAD = 2.0
"""Greatest vertical load over the seismic weight that explains a stability coefficient (office setting)."""


def explained_by_load(context: Context, direction: str) -> bool:
    """Whether stated coefficients follow from a vertical load of one to two times the seismic weight."""
    if context.independent.get("gravity") is not None:
        return False
    ours = context.independent.get("theta", direction)
    stated = context.claims.by_key.get(Key("theta", direction))
    if ours is None or stated is None or not stated.indexed:
        greatest = context.claims.by_key.get(Key("theta_greatest", direction))
        if ours is None or greatest is None or not greatest.single:
            return False
        pairs = [(greatest.single[0], float(np.max(ours)))]
    else:
        pairs = [(claim, float(ours[i])) for i, claim in stated.indexed.items()]
    ratios = [(float(theirs(c)) + context.claims.rounding(c)) / o for c, o in pairs if o > 0]
    low = [(float(theirs(c)) - context.claims.rounding(c)) / o for c, o in pairs if o > 0]
    off = any(
        abs(float(theirs(c)) / o - 1.0) > 0.02 and abs(float(theirs(c)) - o) > context.claims.rounding(c)
        for c, o in pairs
        if o > 0
    )
    return off and all(r >= 1.0 - 0.01 for r in ratios) and all(r <= GREATEST_LOAD for r in low)


DIGITS = 0.97
"""Allowance for the rounding of printed shears and drifts in a ratio of stiffnesses made of them."""


@checker("drift_open")
def soft_stories(context: Context) -> Iterator[Check]:
    """Soft stories by their own story shears over their own drifts.

    By the edition's ratios (identity 13 of the catalogue).

    Asked about once a direction where the brief does not declare the irregularity.
    """
    if "vertical_irregularities" not in context.independent.rules:
        return
    for direction in DIRECTIONS:
        drift = context.independent.inputs.get(Key("delta_e_mean", direction))
        shear = context.step(context.carried, Key("V_story", direction))
        if drift is None or isinstance(shear, OurValue) or np.any(np.asarray(drift) <= 0):
            continue
        stiffness = {Key("story_stiffness", direction): np.asarray(shear.value, dtype=float) / np.asarray(drift)}
        under = context.independent.assuming(inputs=stiffness)
        step = context.step(under, Key("vertical_irregularities", direction))
        found = (
            []
            if isinstance(step, OurValue)
            else [f for f in step.value if "soft" in f["kind"] and f["ratio"] < DIGITS * f["limit"]]
        )
        if not found:
            continue
        worst = min(found, key=lambda f: f["ratio"])
        declared = context.independent.inputs.get(Key("irregularities")) or {}
        known = any("soft" in name and there for name, there in declared.items())
        story = context.claims.stories[worst["story"]]
        yield Check(
            "drift_open",
            Key("story_stiffness", direction),
            f"{worst['kind']} {direction} {story}",
            place="soft",
            verdict=Verdict.NOTE if known else Verdict.QUESTION,
            level=2,
            clause=worst["clause"],
            note=f"by the submitted story shears and drifts {story} has {figures(worst['ratio'], 3)} of the "
            f"stiffness beside it "
            f"({worst['kind']}){'' if known else '; no soft story is declared'}",
        )


@checker_of_claims("drift_consistent")
def consistent(context: Context) -> Iterator[Check]:
    """Drifts of static cases against the differences of their displacements (level 1).

    One origin for a direction (S84).
    """
    for direction in DIRECTIONS:
        worst: tuple[Comparison, str, int, Claim] | None = None
        for case, along in context.results.seismic(context.results.with_values("drift_end_1")):
            if along != direction or context.claims.cases[case].kind != "static":
                continue
            for end in ("1", "2"):
                found = _parting(context, case, direction, end)
                if found is not None and (worst is None or abs(found[0].multiples) > abs(worst[0].multiples)):
                    worst = found
        if worst is None:
            continue
        compared, case, i, claim = worst
        off = not compared.agrees
        story = context.claims.stories[i]
        yield Check(
            "drift_consistent",
            Key(claim.quantity, direction, case),
            f"{QUANTITIES[claim.quantity].symbol} {direction} {story}",
            claim,
            story,
            i,
            carried=compared,
            verdict=Verdict.DIFFERS if off else Verdict.AGREES,
            role=DeviationRole.ORIGIN if off else None,
            level=1,
            note=f"the drift of {story} in {case} is {figures(1000 * float(compared.theirs))} mm, the "
            f"difference of its displacements is "
            f"{figures(1000 * float(compared.ours))} mm{_by_height(context, compared, i)}",
            slip="S84" if off else "",
        )


def _parting(context: Context, case: str, direction: str, end: str) -> tuple[Comparison, str, int, Claim] | None:
    """The story whose drift departs the most from the difference of the displacements of an end."""
    results = context.results
    drift = results.array(f"drift_end_{end}", direction, case)
    moved = results.array(f"displacement_end_{end}", direction, case)
    if drift is None or moved is None or np.any(np.isnan(drift)) or np.any(np.isnan(moved)):
        return None
    differences = np.abs(np.diff(moved, prepend=0.0))
    floors = 0.02 * float(np.max(differences))
    off = np.abs(np.abs(drift) - differences) / np.maximum(0.03 * differences, floors)
    i = int(np.argmax(off))
    claim = results.claim(f"drift_end_{end}", direction, case, i)
    if claim is None:
        return None
    return compare(abs(float(drift[i])), float(differences[i]), 0.03, floors), case, i, claim


def _by_height(context: Context, compared: Comparison, i: int) -> str:
    """Words where the height above the base represents that of the story: a ratio that used the wrong height."""
    h = context.independent.inputs.get(Key("h"))
    if compared.agrees or h is None or not float(compared.ours):
        return ""
    ratio, above = float(compared.theirs) / float(compared.ours), float(np.sum(h[: i + 1]))
    near = abs(ratio * above / float(h[i]) - 1.0) < 0.03 or abs(ratio * float(h[i]) / above - 1.0) < 0.03
    return ": this fits the height above the base instead of the story height" if near and i > 0 else ""
