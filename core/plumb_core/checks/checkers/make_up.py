"""The weight make-up: which share of each load counts, what it adds up to, and which loads nobody has thought of."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from plumb_core.checks.check import Check, Derived
from plumb_core.checks.claims import theirs
from plumb_core.checks.compare import compare
from plumb_core.checks.context import Context, OurValue
from plumb_core.checks.judging import outcome_of
from plumb_core.checks.making import check_of, one_origin
from plumb_core.checks.registry import checker
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import Claim, Source
from plumb_core.documents.thresholds import band
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Array, Key, Step

OF_LOADS = ("load_amount", "load_share", "load_kind", "load_intensity", "load_area", "load_category", "load_occupancy")
REQUIRED_KINDS = {"partition": "partitions", "equipment": "permanent equipment", "snow": "snow"}
"""Kinds of loads that a make-up has to name; a row with 0 is an answer."""
IMPOSED = ("live", "storage", "roof_live")
WEIGHT = Key("w")


@dataclass(frozen=True)
class Row:
    """A load of a story: what is stated of it, by quantity, and as the rules take loads."""

    story: int
    load: str
    stated: Mapping[str, Claim]
    plain: Mapping[str, Any]

    @property
    def share(self) -> Claim | None:
        """Its stated share."""
        return self.stated.get("load_share")

    @property
    def nothing(self) -> bool:
        """Whether the row says that there is none of this load; the least weight of partitions counts all the same."""
        return self.amount == 0.0 and self.plain["kind"] != "partition"

    @property
    def amount(self) -> float:
        """Its whole amount, kN."""
        return float(self.plain["amount"])


def rows_of(context: Context) -> list[Row]:
    """Loads of the make-up, story by story, bottom to top; those without an amount are excluded."""
    parts: dict[tuple[int, str], dict[str, Claim]] = {}
    texts: dict[str, dict[str, Claim]] = {}
    for key, of_key in context.results.values.items():
        if key.name not in OF_LOADS or key.case is None:
            continue
        for index, claim in of_key.indexed.items():
            parts.setdefault((index, key.case), {})[key.name] = claim
        for claim in of_key.single:
            texts.setdefault(key.case, {})[key.name] = claim
    rows = []
    for (story, load), stated in sorted(parts.items(), key=lambda item: item[0][0]):
        complete = {**texts.get(load, {}), **stated}
        plain = _plain(load, complete)
        if plain is not None:
            rows.append(Row(story, load, complete, plain))
    return rows


def _plain(load: str, stated: Mapping[str, Claim]) -> dict[str, Any] | None:
    def number(name: str) -> float | None:
        claim = stated.get(name)
        return None if claim is None else float(claim.value)

    def text(name: str) -> str | None:
        claim = stated.get(name)
        return None if claim is None else str(claim.value)

    amount, intensity, area = number("load_amount"), number("load_intensity"), number("load_area")
    if amount is None and intensity is not None and area is not None:
        amount = intensity * area
    if amount is None:
        return None
    if intensity is None and area:
        intensity = amount / area
    return {
        "name": load,
        "kind": text("load_kind") or "",
        "amount": amount,
        "intensity": intensity,
        "area": area,
        "category": text("load_category"),
        "occupancy": text("load_occupancy"),
        "share": number("load_share"),
    }


@checker("load", "value", "make_up", "make_up_open")
def make_up(context: Context) -> Iterator[Check]:
    """Shares, sums and what is not named of the make-up (S33 to S43)."""
    rows = rows_of(context)
    live = context.claims.by_key.get(Key("live_share"))
    ours = _counted(context, rows) if rows else None
    if live is not None and live.single:
        yield _live_share(context, live.single[0], rows, ours)
    if not rows:
        return
    stated = tuple(key for key in context.results.values if key.name in OF_LOADS)
    checks = list(_shares(context, rows, ours))
    if checks:
        checks[0] = replace(checks[0], covers=stated)
    yield from checks
    yield from _products(context, rows)
    yield from _sums(context, rows, checks)
    yield from _missing_kinds(context, rows)


def _counted(context: Context, rows: list[Row]) -> list[dict[str, Any]] | str:
    """What the edition counts of each row, in their order; or why it cannot be said."""
    loads: list[list[dict[str, Any]]] = [[] for _ in context.claims.stories]
    for row in rows:
        if not row.plain["kind"]:
            return f"the kind of load {row.load} is not stated"
        if not row.nothing:
            loads[row.story].append(dict(row.plain))
    try:
        counted = context.independent.assuming(inputs={Key("loads"): loads}).value("w_shares")
    except (MissingInput, RuleRefused) as lacking:
        return (
            f"{lacking.message}. {lacking.remedy}" if isinstance(lacking, RuleRefused) else "the edition requires more"
        )
    by_place = {(i, load["name"]): load for i, story in enumerate(counted) for load in story}
    none = {"share": None, "counted": 0.0, "why": "there is no such load"}
    return [by_place.get((row.story, row.load), none) for row in rows]


def _shares(context: Context, rows: list[Row], ours: list[dict[str, Any]] | str | None) -> Iterator[Check]:
    """One check for each load whose share is the same, theirs and ours, at several stories."""
    clause = context.independent.rules["w_shares"].clause if "w_shares" in context.independent.rules else ""
    groups: dict[tuple[str, float, float | None], list[int]] = {}
    for number, row in enumerate(rows):
        if row.share is None or row.nothing:
            continue
        counted = ours[number] if isinstance(ours, list) else None
        groups.setdefault(
            (row.load, float(row.share.value), None if counted is None else _share(row, counted)), []
        ).append(number)
    first: dict[str, str] = {}
    for (load, stated, our_step), members in groups.items():
        row = rows[members[0]]
        claim, place = row.share, context.claims.stories[row.story]
        key, label = Key("load_share", None, load), f"share of {load} {place}"
        if our_step is None or claim is None:
            words = ours if isinstance(ours, str) else "the edition has no shares of loads"
            yield Check("load", key, label, claim, place, row.story, note=words, clause=clause)
            continue
        independent = context.compared("load_share", stated, our_step, context.claims.rounding(claim))
        off = not independent.agrees
        follows = off and (load in first or _live_stated(context, stated))
        check = Check(
            "load",
            key,
            label,
            claim,
            place,
            row.story,
            independent=independent,
            verdict=Verdict.DIFFERS if off else Verdict.AGREES,
            role=None if not off else DeviationRole.INHERITED if follows else DeviationRole.ORIGIN,
            level=2,
            clause=clause,
            note=ours[members[0]]["why"] if isinstance(ours, list) else "",
            slip=_slip(context, row, claim) if off else "",
            upstream=(Key("live_share"), key) if follows else (),
            rests_on=(first[load],) if follows and load in first else (),
        )
        if off and not follows:
            first[load] = check.id
        yield check


def _share(row: Row, counted: Mapping[str, Any]) -> float:
    """Our share of a row; where a least weight counts, that over the amount."""
    if counted["share"] is not None:
        return float(counted["share"])
    return float(counted["counted"]) / row.amount if row.amount else 1.0


def _live_stated(context: Context, share: float) -> bool:
    """Whether a share is the one that is stated for the live load as a whole."""
    live = context.claims.by_key.get(Key("live_share"))
    return live is not None and bool(live.single) and abs(float(live.single[0].value) - share) < 1e-9


BEYOND = 1.05
"""Of an intensity: what is as much heavier has another share where a threshold of the code lies at it."""


def _slip(context: Context, row: Row, claim: Claim) -> str:
    """The code of a share that is not ours: of another kind, of the other side of a threshold, or another one."""
    if row.plain["kind"] not in IMPOSED:
        return "S37"
    intensity = row.plain["intensity"]
    if intensity is None:
        return "S35"
    return "S36" if any(_share_at(context, row, by) == float(claim.value) for by in (BEYOND, 1.0 / BEYOND)) else "S35"


def _share_at(context: Context, row: Row, by: float) -> float | None:
    """Our share of a load that is heavier or lighter by a factor; None where it cannot be said."""
    other = Row(
        row.story, row.load, row.stated, dict(row.plain) | {n: row.plain[n] * by for n in ("amount", "intensity")}
    )
    counted = _counted(context, [other])
    return round(_share(other, counted[0]), 9) if isinstance(counted, list) else None


def _live_share(context: Context, claim: Claim, rows: list[Row], ours: list[dict[str, Any]] | str | None) -> Check:
    key = Key("live_share")
    label = QUANTITIES["live_share"].symbol
    clause = context.independent.rules["w_shares"].clause if "w_shares" in context.independent.rules else ""
    shares = (
        {_share(r, o) for r, o in zip(rows, ours, strict=True) if r.plain["kind"] == "live" and r.amount}
        if isinstance(ours, list)
        else set()
    )
    if not shares:
        return Check(
            "value",
            key,
            label,
            claim,
            note="no live load of the weight make-up shows which share applies",
            clause=clause,
        )
    value = float(theirs(claim))
    our_step = min(shares, key=lambda s: abs(s - value))
    independent = context.compared("live_share", value, our_step, context.claims.rounding(claim))
    verdict, role, _ = outcome_of(independent)
    slip = "S35" if role is DeviationRole.ORIGIN else ""
    return Check(
        "value",
        key,
        label,
        claim,
        independent=independent,
        verdict=verdict,
        role=role,
        level=2,
        clause=clause,
        slip=slip,
    )


def _products(context: Context, rows: list[Row]) -> Iterator[Check]:
    """Amounts that are not their own intensity x area (level 1)."""
    for row in rows:
        amount, intensity, area = (row.stated.get(f"load_{n}") for n in ("amount", "intensity", "area"))
        if amount is None or intensity is None or area is None:
            continue
        floor = (
            context.claims.rounding(amount)
            + context.claims.rounding(intensity) * float(area.value)
            + context.claims.rounding(area) * float(intensity.value)
        )
        carried = compare(float(amount.value), float(intensity.value) * float(area.value), 0.005, floor)
        if not carried.agrees:
            place = context.claims.stories[row.story]
            yield Check(
                "make_up",
                Key("load_amount", None, row.load),
                f"{row.load} {place}",
                amount,
                place,
                row.story,
                carried=carried,
                verdict=Verdict.DIFFERS,
                role=DeviationRole.ORIGIN,
                level=1,
                note="submitted intensity times submitted area",
            )


def _sums(context: Context, rows: list[Row], shares: list[Check]) -> Iterator[Check]:
    """The seismic weight of each story, theirs against the sum of its make-up.

    Without any stated, that sum against ours.
    """
    if not context.has_make_up:
        return
    totals, floors = np.zeros(len(context.claims.stories)), np.zeros(len(context.claims.stories))
    named = set()
    for row in rows:
        claim = row.share
        share = float(claim.value) if claim is not None else 0.0
        totals[row.story] += row.amount * share
        amount = row.stated.get("load_amount")
        floors[row.story] += (
            context.claims.rounding(amount) if amount is not None else 0.005 * abs(row.amount)
        ) * share
        floors[row.story] += context.claims.rounding(claim) * abs(row.amount) if claim is not None else 0.0
        named.add(row.story)
    weights = context.claims.by_key.get(WEIGHT)
    ours = context.step(context.independent, WEIGHT)
    upstream = tuple(dict.fromkeys(Key(n, None, row.load) for row in rows for n in ("load_share", "load_amount")))
    checks = []
    for i in range(len(context.claims.stories)):
        claim = weights.indexed.get(i) if weights is not None else None
        if i not in named:
            checks += [] if claim is None else [check_of(context, WEIGHT, i, claim, ours, None)]
            continue
        if claim is None and isinstance(ours, OurValue):
            continue
        made = Step(WEIGHT, totals, "rule")
        if claim is not None:
            check = check_of(context, WEIGHT, i, claim, ours, made)
            if check.carried is not None and not check.carried.agrees:
                value = float(theirs(claim))
                carried = compare(
                    value,
                    float(totals[i]),
                    0.01 * context.tolerance_scale,
                    context.claims.rounding(claim) + float(floors[i]),
                )
                verdict, role, follows = outcome_of(check.independent, carried)
                check = replace(check, carried=carried, verdict=verdict, role=role, follows=follows)
            words = f"the submitted weight make-up of the story adds up to {figures(float(totals[i]))} kN"
        else:
            stated = Derived(
                "w",
                float(totals[i]),
                story=context.claims.stories[i],
                text=f"{totals[i]:.5g}",
                unit="kN",
                source=Source(note="sum of the submitted make-up"),
            )
            check = check_of(context, WEIGHT, i, stated, ours, made)
            words = "not stated: the sum of the submitted make-up is used"
        check = replace(
            check, note=words, upstream=(*upstream, Key("live_share")) if check.role is DeviationRole.INHERITED else ()
        )
        checks.append(check)
    yield from _make_up_sums(context, checks, totals, named, shares)
    inherited = [c for c in checks if c.role is DeviationRole.INHERITED and c.index is not None]
    if inherited and not any(c.role is DeviationRole.ORIGIN for c in shares) and not isinstance(ours, OurValue):
        yield from _slipped_load(context, rows, totals, np.asarray(ours.value, dtype=float), named)
    yield from one_origin(checks, ("S43", "")) if _all_off(checks) else checks


def _make_up_sums(
    context: Context, weights: list[Check], totals: Array, named: set[int], shares: list[Check]
) -> Iterator[Check]:
    """Stated weights whose make-up adds up to something else (level 1), one origin.

    Those that agree with ours, and those that we have none for.
    """
    wrong = any(c.role is DeviationRole.ORIGIN for c in shares)
    checks = []
    for check in weights:
        i = check.index
        if i is None or i not in named or check.claim is None:
            continue
        if not (check.verdict is Verdict.OPEN or (check.verdict is Verdict.AGREES and not check.follows)):
            continue
        tolerance = 0.01 * context.tolerance_scale
        carried = compare(float(totals[i]), float(theirs(check.claim)), tolerance, context.claims.rounding(check.claim))
        if carried.agrees:
            continue
        source = Source(note="sum of the submitted make-up")
        checks.append(
            Check(
                "make_up",
                WEIGHT,
                f"make-up of {check.place}",
                Derived("w", float(totals[i]), story=check.place, unit="kN", source=source),
                check.place,
                i,
                carried=carried,
                verdict=Verdict.DIFFERS,
                role=DeviationRole.INHERITED if wrong else DeviationRole.ORIGIN,
                level=1,
                note=f"the make-up adds up to {figures(float(totals[i]))} kN, the stated weight is "
                f"{check.claim.text or check.claim.value}",
                slip="S43",
                upstream=tuple(dict.fromkeys(c.key for c in shares)) if wrong else (),
            )
        )
    yield from one_origin(checks, ("S43", ""))


def _slipped_load(context: Context, rows: list[Row], totals: Array, ours: Array, named: set[int]) -> Iterator[Check]:
    """The load whose amount puts the weights out: one origin, which the weights follow from.

    At every story that is off the amount of one load would have to be another one; it is the load for which these
    amounts
    are the likeliest: those of its other stories, or all in one ratio.
    """
    off = [i for i in sorted(named) if abs(totals[i] - ours[i]) > 0.01 * context.tolerance_scale * abs(ours[i])]
    candidates: dict[str, dict[int, tuple[Row, float]]] = {}
    for row in rows:
        share = float(row.share.value) if row.share is not None else 0.0
        if share and row.amount:
            amount = row.amount - float(totals[row.story] - ours[row.story]) / share
            candidates.setdefault(row.load, {})[row.story] = (row, amount)
    best: tuple[float, str] | None = None
    for load, by_story in candidates.items():
        if not off or any(i not in by_story for i in off):
            continue
        unlikely = _unlikelihood(by_story, off)
        if best is None or unlikely < best[0]:
            best = (unlikely, load)
    if best is None:
        return
    load, key = best[1], Key("load_amount", None, best[1])
    checks = []
    for i in off:
        row, amount = candidates[load][i]
        place = context.claims.stories[i]
        checks.append(
            Check(
                "load",
                key,
                f"amount of {load} {place}",
                row.stated.get("load_amount"),
                place,
                i,
                independent=compare(row.amount, amount, 0.01 * context.tolerance_scale, 0.0),
                verdict=Verdict.DIFFERS,
                role=DeviationRole.ORIGIN,
                level=3,
                note=(
                    f"the weight of {place} would agree with {figures(amount)} kN of {load} instead of "
                    f"{figures(row.amount)} kN"
                ),
                slip="S43",
            )
        )
    yield from one_origin(checks, ("S43", ""))


PLAIN_RATIOS = (0.01, 0.1, 10.0, 100.0, 2.0, 0.5, 1.5, 1.1, 0.9, 9.80665, 1 / 9.80665, 4.4482, 1 / 4.4482)
"""Ratios of a wrong to a right amount by a known slip: a decimal, a double count, g, kip."""


def _unlikelihood(by_story: Mapping[int, tuple[Row, float]], off: list[int]) -> float:
    """How unlikely it is that this load is the wrong one.

    Spread of the amounts that would be right about its right ones.

    Without right stories of its own, the spread of the ratios of wrong to right amounts.
    """
    right = [row.amount for i, (row, _) in by_story.items() if i not in off]
    amounts = [by_story[i][1] for i in off]
    if any(a <= 0 for a in amounts):
        return math.inf
    if right:
        typical = float(np.median(right))
        return max(abs(a / typical - 1.0) for a in amounts)
    ratios = [by_story[i][0].amount / by_story[i][1] for i in off]
    # a factor of ten or a unit is likelier than any other ratio
    plain = min(abs(math.log(abs(float(np.mean(ratios)))) - math.log(r)) for r in PLAIN_RATIOS)
    return float(np.ptp(ratios) / abs(np.mean(ratios))) + 0.1 * min(plain, 1.0) + 0.01


def _all_off(checks: list[Check]) -> bool:
    return len(checks) > 2 and all(c.role is DeviationRole.ORIGIN for c in checks)


def _missing_kinds(context: Context, rows: list[Row]) -> Iterator[Check]:
    """Kinds of loads that the make-up says nothing of (S37), and a weight far from what buildings have (S34)."""
    kinds = {row.plain["kind"] for row in rows}
    missing = [words for kind, words in REQUIRED_KINDS.items() if kind not in kinds]
    if missing:
        yield Check(
            "make_up_open",
            Key("load_amount"),
            "loads not named",
            verdict=Verdict.QUESTION,
            level=1,
            note=(
                f"the weight make-up does not state whether there are {' or '.join(missing)}; a row with 0 is an answer"
            ),
            slip="S37",
        )
    area = sum(float(row.plain["area"] or 0.0) for row in rows if row.plain["kind"] == "dead")
    if not area:
        return
    total = sum(row.amount * float(row.share.value) for row in rows if row.share is not None)
    low, high = band(context.brief.thresholds, "weight_per_area")
    if not low <= total / area <= high:
        yield Check(
            "make_up_open",
            Key("W"),
            "W over the floor area",
            verdict=Verdict.QUESTION,
            level=1,
            note=f"the weight make-up amounts to {figures(total / area, 3)} kPa over its floor area",
            slip="S34",
        )
