"""Drift: the design story drift against its limit, what made it, and the stability coefficient."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check, Limit, Role, Verdict
from plumb_core.checks.checkers.twist import one_origin
from plumb_core.checks.checkers.values import check_of
from plumb_core.checks.claims import rounding, theirs
from plumb_core.checks.compare import Comparison, compare
from plumb_core.checks.context import Context, Ours
from plumb_core.checks.judging import outcome_of
from plumb_core.checks.registry import checker, checker_of_claims
from plumb_core.checks.stages import DRIFTS, Governing, Pair
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import Claim, Source
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.limits import exceeds
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Array, Evaluation, Key

UPSTREAM = ("amplifier", "C_d", "R", "I_e", "q", "mu", "S_p", "nu")
"""What a design drift rests on beside the drifts themselves."""


@checker
def drifts(context: Context) -> Iterator[Check]:
    """Design drift of each story against the limit, of the case that governs; one origin for a direction."""
    for governing in context.drifts:
        yield from _against_limit(context, governing)
        yield from _amplified(context, governing)
        yield from _asked(context, governing)


def _against_limit(context: Context, governing: Governing) -> Iterator[Check]:
    d = governing.direction
    step = context.step(context.independent, Key("drift_ratio", d))
    bound = context.limit_step("drift_limit", d)
    covered = sum(
        len(of_key.indexed)
        for key, of_key in context.results.values.items()
        if key.name.startswith("drift_") and key.direction == d
    )
    if isinstance(step, Ours) or bound is None:
        lacking = step.why if isinstance(step, Ours) else "the limit of the drift is not known"
        yield Check(
            "drift_open", Key("drift_ratio", d), f"Δ/h {d}", note=f"not held to its limit: {lacking}", level=None
        )
        return
    by_story = _value(context.independent, "drift_limits", d)
    amplified = _value(context.independent, "drift_second_order", d) if _second_order(context) else None
    clause = context.independent.rules["drift_limit"].clause
    checks = []
    for i, story in enumerate(context.claims.stories):
        ratio = float(step.value[i])
        if amplified is not None and amplified[i] is not None:
            ratio = float(amplified[i])
        limit = float(by_story[i]) if by_story else float(bound.value)
        checks.append(
            _story(
                context,
                governing,
                i,
                story,
                ratio,
                limit,
                clause,
                bound.governed.governed_by if bound.governed else None,
            )
        )
    checks[0] = replace(checks[0], covers=covered)
    yield from one_origin(checks, ("S85", ""))


def _story(
    context: Context, governing: Governing, i: int, story: str, ratio: float, limit: float, clause: str, by: str | None
) -> Check:
    d = governing.direction
    over = math.isfinite(limit) and exceeds(ratio, limit)
    source = Source(note=f"from the drifts of {governing.case[i]}")
    claim = Claim(quantity="drift_ratio", direction=d, story=story, value=ratio, text=f"{ratio:.5f}", source=source)  # type: ignore[arg-type]
    held = (
        None if math.isinf(limit) else Limit(limit, "max", "drift_limit", QUANTITIES["drift_limit"].symbol, clause, by)
    )
    at = "greatest of the ends" if governing.at_edges else "mean of the ends"
    return Check(
        "drift",
        Key("drift_ratio", d),
        f"{QUANTITIES['drift_ratio'].symbol} {d} {story}",
        claim,
        story,
        i,
        independent=compare(ratio, limit if over else ratio, 0.001, 0.0),
        verdict=Verdict.BREACHES if over else Verdict.AGREES,
        role=Role.ORIGIN if over else None,
        level=2,
        limit=held,
        clause=clause,
        note=f"design drift in {d} at {story} is {figures(ratio)} of the height, its limit {figures(limit)}; {governing.case[i]} "
        f"governs, {at}",
    )


def _value(evaluation: Evaluation, name: str, direction: str | None) -> list[float] | None:
    if name not in evaluation.rules:
        return None
    try:
        return list(evaluation.value(name, direction))
    except (MissingInput, RuleRefused):
        return None


def _second_order(context: Context) -> bool:
    return Key("theta", "X") in context.claims.by_key or Key("theta", "Y") in context.claims.by_key


def _amplified(context: Context, governing: Governing) -> Iterator[Check]:
    """Drifts given as amplified against the reduced ones: the factor between them, and stories that depart from it (S80)."""
    if not governing.pairs:
        return
    d, key = governing.direction, Key("amplifier", governing.direction)
    ratios, weights = [], []
    for pair in governing.pairs:
        with np.errstate(divide="ignore", invalid="ignore"):
            ratio = pair.large / pair.small
        kept = pair.small > 0.2 * np.max(pair.small)
        ratios += ratio[kept].tolist()
        weights += pair.small[kept].tolist()
    implied = float(np.median(ratios))
    # what the digits of the drifts leave of the factor
    floor = float(np.median([_digits(context, p, d) for p in governing.pairs]))
    own = context.step(context.independent, key)
    stated = context.claims.by_key.get(key)
    ours = None if isinstance(own, Ours) else float(own.value)
    said = float(theirs(stated.single[0])) if stated is not None and stated.single else _carried(context, d)
    source = Source(note=f"{governing.pairs[0].amplified} over {governing.pairs[0].reduced}")
    claim = Claim(quantity="amplifier", direction=d, value=implied, text=f"{implied:.4g}", source=source)  # type: ignore[arg-type]
    independent = None if ours is None else compare(implied, ours, 0.005, floor)
    carried = None if said is None else compare(implied, said, 0.005, floor)
    if independent is not None or carried is not None:
        verdict, role, _ = outcome_of(independent, carried)
        words = f"the drifts given as amplified are {figures(implied, 3)} times the reduced ones"
        want = f"; {figures(ours, 3)} is asked for" if ours is not None and verdict is Verdict.DIFFERS else ""
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
            upstream=tuple(Key(n, x) for n in UPSTREAM for x in (d, None)) if role is Role.INHERITED else (),
        )
    for pair in governing.pairs:
        yield from _departing(context, pair, d, implied)


def _carried(context: Context, direction: str) -> float | None:
    step = context.step(context.carried, Key("amplifier", direction))
    return None if isinstance(step, Ours) else float(step.value)


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
        claim = Claim(
            quantity="Delta",
            direction=direction,  # type: ignore[arg-type]
            story=story,
            case=pair.amplified,
            value=large,
            text=f"{large:.5g}",
            unit="m",
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
            role=Role.ORIGIN,
            level=1,
            note=f"the amplified drift at {story} in {pair.amplified} is not {figures(implied, 3)} times that of {pair.reduced}",
        )


def _asked(context: Context, governing: Governing) -> Iterator[Check]:
    d = governing.direction
    if not governing.level_stated:
        yield Check(
            "drift_open",
            Key("delta_e", d),
            f"level of the drifts {d}",
            verdict=Verdict.QUESTION,
            level=1,
            note=f"whether the drifts in {d} are those of the reduced action or design drifts is not stated; taken as reduced",
            slip="S80",
        )
    apart = [
        c for c in dict.fromkeys(governing.case) if (e := context.results.drifts(d, c)) and np.all(np.isnan(e.greatest))
    ]
    if governing.at_edges and apart:
        yield Check(
            "drift_open",
            Key("delta_e", d),
            f"drifts at the edges {d}",
            place="edges",
            verdict=Verdict.QUESTION,
            level=1,
            note=f"the building is torsionally irregular, and the drifts of {', '.join(apart[:4])} are not those of the edges",
            slip="S83",
        )
    modal = [
        case
        for case, along in context.results.seismic(context.results.with_values(*DRIFTS))
        if along == d and context.claims.cases[case].kind == "modal" and _subtracted(context, d, case)
    ]
    if modal:
        yield Check(
            "drift_open",
            Key("delta_e", d),
            f"drifts of combined modes {d}",
            place="subtracted",
            verdict=Verdict.QUESTION,
            level=1,
            note=f"the drifts of {', '.join(modal[:4])} are differences of combined displacements; the drift has to be formed mode "
            "by mode before the modes are combined",
            slip="S82",
        )


COARSE = 0.001
"""m; no digits of a drift are as coarse."""


def _subtracted(context: Context, direction: str, case: str) -> bool:
    """Whether the drifts of a modal case are the differences of its displacements, or only those are stated."""
    results = context.results
    drift, moved = (results.ends(what, direction, case) for what in ("drift", "displacement"))
    if moved is None:
        return False
    if drift is None:
        return True
    a, b = (drift.greatest, moved.greatest) if not np.any(np.isnan(moved.greatest)) else (drift.mean, moved.mean)
    if len(a) < 3 or np.any(np.isnan(a)) or np.any(np.isnan(b)):
        return False
    off = np.abs(a - np.diff(b, prepend=0.0))[1:]
    if np.any(off > COARSE):
        return False
    # the farthest off first: most cases are told by one story
    return all(
        off[k] <= 1e-9 + 1e-4 * a[k + 1]
        or off[k]
        <= results.rounding("drift", direction, case, k + 1) + results.rounding("displacement", direction, case, k + 1)
        for k in np.argsort(-off).tolist()
    )


MOVEMENTS = ("drift_", "displacement_")
"""Beginnings of the quantities that move."""


@checker
def missing_drifts(context: Context) -> Iterator[Check]:
    """Directions without a drift where the analysis gives results of cases (S81)."""
    states = {g.direction for g in context.drifts}
    analysed = context.results.with_values("reaction_X", "reaction_Y", *DRIFTS, "displacement_max", "drift_max")
    if not analysed or "drift_limit" not in context.independent.rules:
        return
    for direction in DIRECTIONS:
        stated = [k for k in context.results.values if k.direction == direction and k.name.startswith(MOVEMENTS)]
        if direction not in states and stated:
            number = sum(len(context.results.values[k].indexed) for k in stated)
            yield Check(
                "drift_open",
                Key("drift_ratio", direction),
                f"Δ/h {direction}",
                place="factors",
                level=None,
                note=f"drifts in {direction} are stated, and can't be brought to design drifts: what amplifies them isn't known on our side",
                covers=number,
            )
        elif direction not in states:
            yield Check(
                "gap",
                Key("drift_ratio", direction),
                f"Δ/h {direction}",
                verdict=Verdict.GAP,
                clause=context.independent.rules["drift_limit"].clause,
                note=f"no story drifts in {direction} are stated",
                slip="S81",
            )


@checker
def stability(context: Context) -> Iterator[Check]:
    """Stability coefficients against theirs, and the greatest of each direction against its limit."""
    for direction in DIRECTIONS:
        key, at = Key("theta", direction), Key("theta_greatest", direction)
        step, carried = (context.step(e, key) for e in (context.independent, context.carried))
        stated, greatest = context.claims.by_key.get(key), context.claims.by_key.get(at)
        if stated is not None:
            checks = [check_of(context, key, i, claim, step, carried) for i, claim in sorted(stated.indexed.items())]
            yield from one_origin([_resting(c, direction) for c in checks], _slip_of_theta(context, direction, checks))
        if greatest is not None and greatest.single:
            claim = greatest.single[0]
            ours, recomputed = (context.step(e, at) for e in (context.independent, context.carried))
            check = check_of(context, at, None, claim, ours, recomputed)
            if stated is not None and check.role is Role.ORIGIN and _is_greatest(stated.indexed.values(), claim):
                check = replace(check, role=Role.INHERITED, upstream=(key,))
            yield _resting(check, direction)
        if not isinstance(step, Ours):
            yield from _limited(context, direction, np.asarray(step.value))


def _is_greatest(values: object, claim: Claim) -> bool:
    claims: list[Claim] = list(values)  # type: ignore[call-overload]
    return abs(max(float(theirs(c)) for c in claims) - float(theirs(claim))) <= rounding(claim) + max(
        map(rounding, claims)
    )


def _resting(check: Check, direction: str) -> Check:
    if check.role is not Role.INHERITED:
        return check
    return replace(check, upstream=(check.key, *check.upstream))


def _slip_of_theta(context: Context, direction: str, checks: list[Check]) -> tuple[str, str]:
    """Words for coefficients that come from the wrong shear: the base shear everywhere, or the force of the level."""
    off = [c for c in checks if c.role is Role.ORIGIN and c.carried is not None and c.index is not None]
    try:
        V, F = (np.asarray(context.carried.value(n, direction)) for n in ("V_story", "F"))
    except (MissingInput, RuleRefused):
        return "", ""
    for words, other in (
        ("the base shear in place of the story shear", np.full(len(V), V[0])),
        ("the force of the level in place of the story shear", F),
    ):
        near = [
            abs(float(c.carried.theirs) - float(c.carried.ours) * V[c.index] / other[c.index])
            <= max(c.carried.tolerance, 0.02 * float(c.carried.theirs))
            for c in off
            if c.carried is not None and c.index is not None and other[c.index]
        ]
        if near and sum(near) > 0.7 * len(near):
            return "", f"theirs come from {words}"
    return "", ""


def _limited(context: Context, direction: str, theta: Array) -> Iterator[Check]:
    bound = context.limit_step("theta_limit", direction) if "theta_limit" in context.independent.rules else None
    if bound is None:
        return
    i = int(np.argmax(theta))
    value, limit = float(theta[i]), float(bound.value)
    story = context.claims.stories[i]
    checked = _value(context.independent, "theta_checked", direction)
    exempt = _value(context.independent, "theta_exempt", direction)
    held = value if checked is None else float(checked[i])
    over = exceeds(held, limit) and not (exempt is not None and exempt[i])
    included = _included(context)
    asked = not over and exceeds(value, 0.10) and not included and not (exempt is not None and exempt[i])
    clause = context.independent.rules["theta_limit"].clause
    claim = Claim(
        quantity="theta_greatest",
        direction=direction,  # type: ignore[arg-type]
        story=story,
        value=value,
        text=f"{value:.4g}",
        source=Source(note="ours, from their drifts"),
    )
    yield Check(
        "stability",
        Key("theta_greatest", direction),
        f"{QUANTITIES['theta'].symbol} {direction} {story}",
        claim,
        story,
        i,
        independent=compare(held, limit if over else held, 0.001, 0.0),
        verdict=Verdict.BREACHES if over else Verdict.QUESTION if asked else Verdict.AGREES,
        role=Role.ORIGIN if over else None,
        level=2,
        limit=Limit(limit, "max", "theta_limit", QUANTITIES["theta_limit"].symbol, clause),
        clause=clause,
        note=f"the greatest stability coefficient in {direction} is {figures(value, 3)}, at {story}; its limit is {figures(limit, 3)}"
        + ("; second order effects are above 0.10 and not said to be in the analysis" if asked else ""),
    )


def _included(context: Context) -> bool:
    stated = context.claims.by_key.get(Key("second_order_stated"))
    return stated is not None and bool(stated.single) and str(stated.single[0].value) == "included"


DIGITS = 0.97
"""A stiffness made of printed shears and drifts is short of a ratio only where it is short by more than their digits."""


@checker
def soft_stories(context: Context) -> Iterator[Check]:
    """Soft stories by their own story shears over their own drifts, by the edition's ratios (identity 13 of the catalogue).

    Asked about once a direction where the brief doesn't declare the irregularity.
    """
    if "vertical_irregularities" not in context.independent.rules:
        return
    for direction in DIRECTIONS:
        drift = context.independent.inputs.get(Key("delta_e_mean", direction))
        shear = context.step(context.carried, Key("V_story", direction))
        if drift is None or isinstance(shear, Ours) or np.any(np.asarray(drift) <= 0):
            continue
        stiffness = {Key("story_stiffness", direction): np.asarray(shear.value, dtype=float) / np.asarray(drift)}
        under = context.independent.assuming(inputs=stiffness)
        step = context.step(under, Key("vertical_irregularities", direction))
        found = (
            []
            if isinstance(step, Ours)
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
            note=f"by their own story shears and drifts {story} has {figures(worst['ratio'], 3)} of the stiffness beside it "
            f"({worst['kind']}){'' if known else '; no soft story is declared'}",
        )


@checker_of_claims
def consistent(context: Context) -> Iterator[Check]:
    """Drifts of static cases against the differences of their displacements (level 1); one origin for a direction (S84)."""
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
            role=Role.ORIGIN if off else None,
            level=1,
            note=f"the drift of {story} in {case} is {figures(1000 * float(compared.theirs))} mm, its displacements part by "
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
    """Words where the height above the base stands for that of the story: a ratio that was taken over the wrong height."""
    h = context.independent.inputs.get(Key("h"))
    if compared.agrees or h is None or not float(compared.ours):
        return ""
    ratio, above = float(compared.theirs) / float(compared.ours), float(np.sum(h[: i + 1]))
    near = abs(ratio * above / float(h[i]) - 1.0) < 0.03 or abs(ratio * float(h[i]) / above - 1.0) < 0.03
    return ": the height above the base stands for that of the story" if near and i > 0 else ""
