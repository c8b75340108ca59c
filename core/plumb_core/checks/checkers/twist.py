"""Twist: whether every case is there, what the ends say of torsional irregularity, and the amplification of torsion."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from functools import partial

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check, Derived
from plumb_core.checks.compare import compare
from plumb_core.checks.context import Context
from plumb_core.checks.making import check_of, one_origin
from plumb_core.checks.reference import MOVEMENTS
from plumb_core.checks.registry import checker
from plumb_core.checks.stages.twist.inputs import DEGREES, Twist, is_static, worst_of
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import Claim, LoadCase, Source
from plumb_core.rules import Evaluation, Key

SIDES = {1: "+", -1: "-"}


@checker("case_open", "case_missing", "side")
def sides(context: Context) -> Iterator[Check]:
    """The required cases, each direction with the mass to either side: which are there, which are not (S70, S77).

    The static cases where any of them moves the mass; combined maxima of modal cases do not be in for them.
    """
    along = context.results.seismic(context.results.with_values(*MOVEMENTS))
    if not along or "eccentricity" not in context.independent.rules:
        return
    roles = {case: context.claims.cases.get(case) or LoadCase(name=case) for case, _ in along}
    present: dict[str, dict[str, set[int]]] = {}
    for case, direction in along:
        role = roles[case]
        if role.eccentricity:
            of_kind = present.setdefault(role.kind or "static", {d: set() for d in DIRECTIONS})
            of_kind[direction].add(1 if role.eccentricity > 0 else -1)
    unsaid = sorted({case for case, _ in along if roles[case].eccentricity is None})
    clause = context.independent.rules["eccentricity"].clause
    requested = [d for d in DIRECTIONS if context.independent.get("torsion_applies", d) is not False]
    if not present and requested:
        if unsaid:
            yield Check(
                "case_open",
                Key("eccentricity"),
                "sides of the eccentricity",
                verdict=Verdict.QUESTION,
                level=1,
                clause=clause,
                note=f"the cases do not say to which side the mass is moved: {', '.join(unsaid[:6])}",
                slip="S77",
            )
            return
        present = {"static": {d: set() for d in DIRECTIONS}}
    none: dict[str, set[int]] = {d: set() for d in DIRECTIONS}
    required = present.get("static") or max(
        present.values(), key=lambda of_kind: sum(map(len, of_kind.values())), default=none
    )
    for direction in requested:
        for sign, word in SIDES.items():
            if sign not in required[direction] and not context.claims.awaits("drift_end_1", "displacement_end_1"):
                yield Check(
                    "case_missing",
                    Key("eccentricity"),
                    f"case {direction} {word}e",
                    place=f"{direction}{word}",
                    verdict=Verdict.GAP,
                    clause=clause,
                    note=(
                        f"no results along {direction} with the mass moved to the "
                        f"{'positive' if sign > 0 else 'negative'} side"
                    ),
                    slip="S70",
                )
    yield from _wrong_sides(context, roles, clause)


def _wrong_sides(context: Context, roles: dict[str, LoadCase], clause: str) -> Iterator[Check]:
    """Accidental eccentricities below the share of the edition (S79); one origin for all cases that share it."""
    share = context.independent.get("eccentricity")
    if share is None:
        return
    stated = Key("eccentricity") in context.claims.by_key
    wrong: dict[float, list[str]] = {}
    for case, role in roles.items():
        if role.eccentricity and abs(role.eccentricity) < share * 0.99:
            wrong.setdefault(abs(role.eccentricity), []).append(case)
    for number, (size, cases) in enumerate(wrong.items()):
        subject = Derived("eccentricity", size, text=f"{size:g}", source=Source(note=f"role of {cases[0]}"))
        yield Check(
            "side",
            Key("eccentricity"),
            "e_a/b of the cases",
            subject,
            place=f"{size:g}",
            independent=compare(size, share, 0.001, 0.0),
            verdict=Verdict.DIFFERS,
            role=DeviationRole.INHERITED if stated or number else DeviationRole.ORIGIN,
            level=3,
            clause=clause,
            note=f"{', '.join(cases[:4])}{' and more' if len(cases) > 4 else ''} move the mass by {size:.3g} "
            f"of the plan "
            f"dimension; {share:.3g} is required",
            slip="S79",
            upstream=(Key("eccentricity"),) if stated or number else (),
        )


@checker("twist")
def twist(context: Context) -> Iterator[Check]:
    """Torsional irregularity of each direction, from the ends of the judged cases, against what is stated (S26.

    S71, S72).
    """
    for direction in DIRECTIONS:
        stated = context.claims.by_key.get(Key("torsion_stated", direction))
        claim = stated.single[0] if stated is not None and stated.single else None
        turning = [t for t in context.twists if t.direction == direction]
        covered = tuple(
            key for key in context.results.values if key.name.startswith("displacement_") and key.direction == direction
        )
        if claim is None and not turning:
            continue
        yield replace(_class(context, direction, claim, turning), covers=covered)


def _class(context: Context, direction: str, claim: Claim | None, turning: list[Twist]) -> Check:
    key, label = Key("torsion_stated", direction), f"torsional irregularity {direction}"
    rule = context.independent.rules.get("torsion_class")
    worst = worst_of(t for t in turning if t.judged)
    if rule is None or worst is None or worst[0].classes is None:
        words = (
            "the edition has no class of torsional irregularity"
            if rule is None
            else "no case states both ends of its stories"
        )
        verdict = Verdict.OPEN if claim is not None else Verdict.NOTE
        return Check("twist", key, label, claim, verdict=verdict, note=words, clause=rule.clause if rule else "")
    case, story, ours = worst
    ratio = figures(float(case.ratio[story])) if np.isfinite(case.ratio[story]) else "no average"
    verified = case.drift is not None and case.drift.by_ends
    words = f"{ours}: ratio {ratio} at {context.claims.stories[story]} in {case.case}" + (
        "" if verified else ", from greatest and mean as given: the mean is not verified"
    )
    static = is_static(context.claims.cases.get(case.case))
    if not static:
        words += "; no static case states both ends, and the ends of a modal case are combined maxima"
    made = partial(Check, "twist", key, label, clause=rule.clause, level=2)
    if claim is None:
        acknowledged = ours == "regular" or any(k.name == "A_x" for k in context.claims.by_key)
        verdict = Verdict.NOTE if acknowledged or not static else Verdict.QUESTION
        more = "" if acknowledged else "; the submission does not say whether the building is irregular"
        return made(verdict=verdict, note=words + more, slip="S76" if acknowledged else "S26")
    theirs = str(claim.value)
    if theirs == "not tested":
        more = "stated as not tested" + ("" if ours == "regular" else f", and it is {ours}")
        return made(claim, verdict=Verdict.QUESTION, note=f"{words}; {more}", slip="S26")
    same = min(DEGREES.get(theirs, 0), _gravest(context)) == DEGREES[ours]
    if not same and not static:
        return made(claim, verdict=Verdict.QUESTION, note=words, slip="S72")
    return made(
        claim,
        independent=compare(theirs, theirs if same else "none" if ours == "regular" else ours, 0.0, 0.0),
        verdict=Verdict.AGREES if same else Verdict.DIFFERS,
        role=None if same else DeviationRole.ORIGIN,
        note=words,
        slip="" if same else "S71",
    )


def _gravest(context: Context) -> int:
    """Degree of the gravest class that the edition has."""
    far = {Key("torsion_ratio", "X", "far"): np.array([99.0])}
    classes = Evaluation(context.independent.rules, far, cases={"far": "X"}).value("torsion_class", "X", "far")
    return DEGREES[classes[0]]


@checker("value", "gap")
def amplifications(context: Context) -> Iterator[Check]:
    """A_x of each level against theirs: from displacements, between 1 and 3; one origin for a direction (S73, S74)."""
    for direction in DIRECTIONS:
        key = Key("A_x", direction)
        stated = context.claims.by_key.get(key)
        if stated is None:
            yield from _unstated(context, direction)
            continue
        steps = context.step(context.independent, key), context.step(context.carried, key)
        checks = [_after_class(check_of(context, key, i, claim, *steps)) for i, claim in sorted(stated.indexed.items())]
        yield from one_origin(checks, _slip_of_amplification(context, direction, checks))


def _after_class(check: Check) -> Check:
    """An amplification that follows from the class as it is stated: a wrong class and A_x of 1.0 are one error."""
    if check.role is not DeviationRole.INHERITED:
        return check
    return replace(check, upstream=tuple(Key("torsion_stated", d) for d in DIRECTIONS))


def _unstated(context: Context, direction: str) -> Iterator[Check]:
    """A_x that is not shown though it is above 1 somewhere."""
    key = Key("A_x", direction)
    found = context.independent.get("A_x", direction) if context.irregular else None
    if found is None or context.claims.awaits("A_x"):
        return
    values = np.asarray(found)
    if np.max(values) > 1.005:
        where = context.claims.stories[int(np.argmax(values))]
        yield Check(
            "gap",
            key,
            f"A_x {direction}",
            verdict=Verdict.GAP,
            clause=context.independent.rules["A_x"].clause,
            note=(
                f"the torsional amplification factor is not stated; ours is up to "
                f"{figures(float(np.max(values)))}, at {where}"
            ),
            slip="S74",
        )


def _slip_of_amplification(context: Context, direction: str, checks: list[Check]) -> tuple[str, str]:
    """(code, words) of what their factors are where they are not ours."""
    off = [c for c in checks if c.role is DeviationRole.ORIGIN and c.index is not None and c.claim is not None]
    if not off:
        return "", ""
    values = {c.index: float(c.claim.value) for c in off if c.claim is not None}
    if all(abs(v - 1.0) < 0.005 for v in values.values()):
        return "S74", "left at 1.0"
    for each in context.twists:
        if each.direction != direction or each.drift is None or each.drift.mean is None:
            continue
        with np.errstate(divide="ignore", invalid="ignore"):
            from_drifts = np.clip((each.drift.greatest / (1.2 * each.drift.mean)) ** 2, 1.0, 3.0)
        near = [abs(v - from_drifts[i]) <= 0.01 * v + 0.005 for i, v in values.items() if i is not None]
        if sum(near) > len(near) / 2:
            return "S73", f"computed from the story drifts of {each.case}, not from the displacements"
    return "S74", "not from the displacements of the ends, between 1 and 3"


@checker("case_open")
def together(context: Context) -> Iterator[Check]:
    """Cases in which both directions act at once, where a direction is not there by itself (S87)."""
    results = context.results.with_values(*MOVEMENTS, "reaction_X", "reaction_Y")
    acting = {
        context.claims.cases[case].direction
        for case, _ in results
        if context.claims.cases[case].kind in ("static", "modal")
    }
    missing = [d for d in DIRECTIONS if d not in acting]
    if "XY" in acting and missing:
        both = [case for case, _ in results if context.claims.cases[case].direction == "XY"]
        yield Check(
            "case_open",
            Key("directions_by"),
            "both directions in one case",
            verdict=Verdict.QUESTION,
            level=1,
            note=(
                f"both directions act at once in {', '.join(dict.fromkeys(both))}, and nothing is stated of "
                f"{' and '.join(missing)} alone"
            ),
            slip="S87",
        )


@checker("case_open")
def means(context: Context) -> Iterator[Check]:
    """Means that are not those of the two ends of a static case, as where all joints are averaged (S72).

    Stated once a direction.
    """
    for d in DIRECTIONS:
        for what in ("drift", "displacement"):
            parted = _parted(context, what, d)
            if parted is not None:
                case, i, mean, of_ends = parted
                claim = context.results.claim(f"{what}_avg", d, case, i)
                yield Check(
                    "case_open",
                    Key(f"{what}_avg", d),
                    f"mean {what} {d}",
                    claim,
                    context.claims.stories[i],
                    i,
                    verdict=Verdict.QUESTION,
                    level=1,
                    note=f"the mean at {context.claims.stories[i]} in {case} is {figures(mean)} m, and that of "
                    f"its two ends "
                    f"{figures(of_ends)} m; the torsion ratio is computed from the ends",
                    slip="S72",
                )


def _parted(context: Context, what: str, direction: str) -> tuple[str, int, float, float] | None:
    """Case, story, stated mean and mean of the ends where they first part."""
    for case, d in context.results.seismic(context.results.with_values(f"{what}_avg")):
        if d != direction or not is_static(context.claims.cases.get(case)):
            continue
        ends, mean = context.results.ends(what, d, case), context.results.array(f"{what}_avg", d, case)
        if ends is None or not ends.by_ends or mean is None:
            continue
        for i, (stated, ours) in enumerate(zip(np.abs(mean).tolist(), ends.mean.tolist(), strict=True)):
            allowed = context.results.rounding(what, d, case, i) + 0.005 * ours
            if np.isfinite(stated) and np.isfinite(ours) and abs(stated - ours) > allowed:
                return case, i, stated, ours
    return None
