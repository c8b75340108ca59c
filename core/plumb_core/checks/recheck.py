"""The recheck of a submission: every claim against its independent and its carried value.

*independent*: the edition's rules over the brief's own inputs.  *carried*: the same rules with every other submitted
value pinned.  Where the carried value disagrees the deviation starts here (origin); where only the independent one
does, it is inherited.  A claim that agrees with the independent value agrees, also where the submission's own
upstream values would lead elsewhere (`follows` is then false).
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cache
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS, ENGINE
from plumb_core.answers.reference_model import request_to
from plumb_core.briefs import brief_evaluation
from plumb_core.checks.check import Check
from plumb_core.checks.compare import Comparison, compare, half_unit
from plumb_core.checks.modal import QUANTITY_KINDS, modal_checks
from plumb_core.checks.remarks import draft, figures
from plumb_core.derivation import key_id, steps_json
from plumb_core.documents.reading import read_recheck
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.documents.submission import Claim, Source
from plumb_core.dynamics.structure import GRAVITY
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, MissingInput, Problem, RuleRefused
from plumb_core.inputs import rests_on_lacking
from plumb_core.quantities import QUANTITIES, Kind, Scope
from plumb_core.rules import Evaluation, Key, Step
from plumb_core.solve import solve

Value = float | str


@dataclass
class _Claims:
    """The claims of one key: single value, or values by story or point."""

    single: list[Claim] = field(default_factory=list)
    indexed: dict[int, Claim] = field(default_factory=dict)
    again: list[tuple[int, Claim]] = field(default_factory=list)
    """values stated again for a story or point (another case of the same direction); checked, not carried on"""


def _number_floor(claim: Claim) -> float:
    return half_unit(claim.text) * claim.scale if isinstance(claim.value, float) else 0.0


def _rounded_to(given: float, floor: float, exact: float) -> float:
    """`exact` where `given` is it rounded: the submission carried its full value on, not the printed one."""
    return exact if abs(given - exact) <= floor * (1 + 1e-9) else given


def _problems(document: RecheckDocument) -> list[Problem]:
    problems = []
    for i, claim in enumerate(document.submission.claims):
        path = f"/submission/claims/{i}"
        quantity = QUANTITIES.get(claim.quantity)
        if quantity is None or not quantity.checked:
            problems.append(
                Problem(
                    f"{path}/quantity",
                    f"quantity {claim.quantity!r} is not in the vocabulary",
                    f"Use one of: {', '.join(n for n, q in QUANTITIES.items() if q.checked)}.",
                )
            )
            continue
        if (quantity.scope is Scope.DIRECTION) != (claim.direction is not None):
            wants = "X or Y" if quantity.scope is Scope.DIRECTION else "no direction"
            problems.append(Problem(f"{path}/direction", f"{quantity.symbol} takes {wants}", f"Give {wants}."))
        if (quantity.kind is Kind.TEXT) != isinstance(claim.value, str):
            wants = "a text" if quantity.kind is Kind.TEXT else "a number"
            problems.append(Problem(f"{path}/value", f"{quantity.symbol} is {wants}", f"Give {wants}."))
        if quantity.kind in (Kind.STORIES, Kind.SHAPES) and not claim.story:
            problems.append(Problem(f"{path}/story", f"{quantity.symbol} is a story's value", "Name the story."))
        numbered = {Kind.POINTS: "point", Kind.MODES: "mode", Kind.SHAPES: "mode"}.get(quantity.kind)
        if numbered and claim.point is None:
            problems.append(
                Problem(
                    f"{path}/point", f"{quantity.symbol} is a {numbered}'s value", f"Number the {numbered} in `point`."
                )
            )
    return problems + _problems_of_points(document)


def _problems_of_points(document: RecheckDocument) -> list[Problem]:
    """Points of their spectrum are numbered from 0 without gaps, each with its period."""
    points = [
        (i, claim)
        for i, claim in enumerate(document.submission.claims)
        if (q := QUANTITIES.get(claim.quantity)) and q.kind is Kind.POINTS and claim.point is not None
    ]
    periods = {claim.point for _, claim in points if claim.quantity == "T_points"}
    without_gaps = set(range(len(periods)))
    return [
        Problem(f"/submission/claims/{i}/point", f"point {claim.point} has no period, or the points before it have gaps",
                "Number the points from 0, and give each its period (T_points).")
        for i, claim in points
        if claim.point not in periods or claim.point not in without_gaps
    ]  # fmt: skip


class _Recheck:
    def __init__(self, document: RecheckDocument):
        self.document = document
        self.brief = document.brief
        self.edition = EDITIONS[self.brief.edition]
        self.tolerance_scale = (self.brief.tolerance or 0.01) / 0.01
        self.stories = [s.name for s in self.brief.stories] or self._submitted_stories()
        self.unplaced: list[Claim] = []
        self.of_modes = [c for c in document.submission.claims if QUANTITIES[c.quantity].kind in QUANTITY_KINDS]
        self.modes: dict[str, Any] | None = None
        self.claims = self._by_key()
        self.independent = brief_evaluation(self.brief, self._adopted())
        self._give_points()
        self._carried: dict[Key, Step] = {}
        self.carried = Evaluation(
            self.independent.rules, self.independent.inputs, self.independent.adopted, self.claims, self._pin
        )

    def _submitted_stories(self) -> list[str]:
        names = [c.story for c in self.document.submission.claims if c.quantity in ("h", "w") and c.story]
        return list(dict.fromkeys(names))

    def _by_key(self) -> dict[Key, _Claims]:
        claims: dict[Key, _Claims] = {}
        places = {name: i for i, name in enumerate(self.stories)}
        for claim in self.document.submission.claims:
            if QUANTITIES[claim.quantity].kind in QUANTITY_KINDS:
                continue
            at = claims.setdefault(Key(claim.quantity, claim.direction), _Claims())
            kind = QUANTITIES[claim.quantity].kind
            if kind is Kind.STORIES:
                index = places.get(claim.story or "")
                if index is None:
                    self.unplaced.append(claim)
                elif index in at.indexed:
                    at.again.append((index, claim))
                else:
                    at.indexed[index] = claim
            elif kind is Kind.POINTS:
                at.indexed[claim.point or 0] = claim
            else:
                at.single.append(claim)
        return {key: c for key, c in claims.items() if c.single or c.indexed}

    def _adopted(self) -> dict[Key, Any]:
        """Submitted inputs that stand in where the brief has none."""
        adopted: dict[Key, Any] = {}
        own = brief_evaluation(self.brief, {})
        given = {*own.inputs, *self.claims}
        for key, claims in self.claims.items():
            kind = QUANTITIES[key.name].kind
            computed = key.name in own.rules and not rests_on_lacking(key, own.rules, given)
            if computed or kind is Kind.POINTS:
                continue
            if kind is not Kind.STORIES:
                adopted[key] = claims.single[0].value
            elif len(claims.indexed) == len(self.stories):
                adopted[key] = np.array([claims.indexed[i].value for i in range(len(self.stories))], dtype=float)
        return adopted

    def _give_points(self) -> None:
        """Our curve is read at the periods of their table; that makes none of it theirs."""
        claims = self.claims.get(Key("T_points"))
        if claims:
            at = [float(claims.indexed[i].value) for i in sorted(claims.indexed)]
            self.independent = self.independent.assuming(inputs={Key("T_points"): np.array(at)})

    def _pin(self, key: Key, unpinned: Callable[[], Step | None]) -> Any:
        claims: _Claims = self.claims[key]
        step = unpinned()
        if claims.single:
            claim = claims.single[0]
            if step is None or isinstance(claim.value, str) or isinstance(step.value, str):
                return claim.value
            return _rounded_to(claim.value, _number_floor(claim), float(step.value))
        values = self._array(key, claims, step)
        for i, claim in claims.indexed.items():
            given = float(claim.value)
            values[i] = given if step is None else _rounded_to(given, _number_floor(claim), float(step.value[i]))
        return values

    def _array(self, key: Key, claims: _Claims, step: Step | None) -> Any:
        if step is not None:
            return np.array(step.value, dtype=float)
        if len(claims.indexed) < len(self.stories):
            # without a rule for the stories that are not stated there is nothing to carry on
            raise MissingInput(*key)
        return np.empty(len(claims.indexed))

    def _value(self, evaluation: Evaluation, key: Key, index: int | None) -> tuple[Value | None, bool, str]:
        """(value, whether it rests on adopted inputs, why it is missing) of the unpinned step of a key."""
        try:
            step = self._carried_step(key) if evaluation is self.carried else evaluation.step(*key)
        except MissingInput as missing:
            return None, False, f"{QUANTITIES[missing.name].symbol} is not known on our side"
        except RuleRefused as refused:
            return None, False, f"{refused.message}. {refused.remedy}"
        value = step.value if index is None else step.value[index]
        if isinstance(value, float) and math.isinf(value):
            return None, False, "there is no limit by our values"
        return (value if isinstance(value, str) else float(value)), step.rests_on_adopted, ""

    def _carried_step(self, key: Key) -> Step:
        """The carried step of a key; a story quantity is asked for once per story, so it is kept."""
        if key not in self._carried:
            self._carried[key] = self.carried.unpinned(key)
        return self._carried[key]

    def _check(self, key: Key, claim: Claim, index: int | None) -> Check:
        quantity = QUANTITIES[key.name]
        place = claim.story if quantity.kind is Kind.STORIES else None if index is None else str(index + 1)
        where = f"point {place}" if quantity.kind is Kind.POINTS else place
        check = Check(
            ".".join(p for p in (key_id(key), place, claim.case) if p),
            key,
            " ".join(p for p in (quantity.symbol, key.direction, where) if p),
            claim,
            index,
        )
        own, rests_on_adopted, why = self._value(self.independent, key, index)
        is_input = key in self.independent.inputs
        if key.name in self.independent.rules and not is_input:
            check.clause = self.independent.rules[key.name].clause
        if key in self.independent.adopted:
            check.note = "taken over from the submission: the brief has no value of its own"
            return check
        relative = quantity.tolerance * self.tolerance_scale
        floor = _number_floor(claim)
        if own is not None:
            check.independent = compare(claim.value, own, relative, floor)
        if not is_input:
            carried, _, _ = self._value(self.carried, key, index)
            if carried is not None:
                check.carried = compare(claim.value, carried, relative, floor)
        if check.independent is None and check.carried is None:
            check.note = why
            return check
        check.level = 2 if own is None or rests_on_adopted else 3
        self._judge(check)
        self._hold_to_limit(check)
        return check

    @staticmethod
    def _judge(check: Check) -> None:
        own, carried = check.independent, check.carried
        if own is not None and own.agrees:
            check.verdict = "agrees"
            check.follows = carried is None or carried.agrees
        elif carried is not None and carried.agrees:
            check.verdict, check.role = ("differs", "inherited") if own is not None else ("agrees", None)
        else:
            check.verdict, check.role = "differs", "origin"

    def _hold_to_limit(self, check: Check) -> None:
        if check.key.name not in self.edition.limits or check.claim is None:
            return
        name, side = self.edition.limits[check.key.name]
        bound = self._limit(name, check.key.direction)
        theirs = check.claim.value
        # a limit that is infinite is none
        if bound is None or isinstance(theirs, str) or math.isinf(bound.value):
            return
        check.limit = {
            "value": bound.value,
            "side": side,
            "quantity": name,
            "symbol": QUANTITIES[name].symbol,
            "clause": self.independent.rules[name].clause,
            "governed_by": bound.governed.governed_by if bound.governed else None,
        }
        held = compare(
            theirs,
            float(bound.value),
            QUANTITIES[check.key.name].tolerance * self.tolerance_scale,
            _number_floor(check.claim),
        )
        if not held.agrees and (held.multiples > 0) == (side == "max"):
            check.verdict = "breaches"
            check.role = check.role or "origin"

    def _limit(self, name: str, direction: str | None) -> Step | None:
        for evaluation in (self.independent, self.carried):
            try:
                return evaluation.step(name, direction)
            except (MissingInput, RuleRefused):
                continue
        return None

    def _sum_checks(self) -> list[Check]:
        """Level 1: submitted story values add up to the submitted total."""
        checks = []
        for part, total in self.edition.sums.items():
            for direction in DIRECTIONS:
                parts, claimed = self.claims.get(Key(part, direction)), self.claims.get(Key(total, direction))
                if not parts or not claimed or len(parts.indexed) < len(self.stories):
                    continue
                symbol = QUANTITIES[part].symbol
                added = sum(float(c.value) for c in parts.indexed.values())
                claim = Claim(
                    quantity=part,
                    direction=direction,
                    value=added,
                    unit=QUANTITIES[part].unit,
                    source=Source(note=f"sum of their {symbol}"),
                )
                check = Check(
                    f"sum_{part}.{direction}", Key(part, direction), f"Σ{symbol} = {total} {direction}", claim
                )
                floor = sum(_number_floor(c) for c in parts.indexed.values()) + _number_floor(claimed.single[0])
                check.carried = compare(
                    added, float(claimed.single[0].value), QUANTITIES[total].tolerance * self.tolerance_scale, floor
                )
                check.clause = self.independent.rules[part].clause
                check.level = 1
                check.note = f"their own {total} against the sum of their own {symbol}"
                self._judge(check)
                checks.append(check)
        return checks

    def _ours(self, key: Key) -> str:
        """What we find for a value that isn't stated, in words; empty where there is no single value."""
        if QUANTITIES[key.name].kind not in (Kind.NUMBER, Kind.TEXT):
            return ""
        own, _, _ = self._value(self.independent, key, None)
        return "" if own is None else f"; ours is {figures(own)} {QUANTITIES[key.name].unit}".rstrip()

    def _gaps(self) -> list[Check]:
        gaps = []
        for name in self.edition.asked_for:
            quantity = QUANTITIES[name]
            for direction in DIRECTIONS if quantity.scope is Scope.DIRECTION else (None,):
                key = Key(name, direction)
                if key not in self.claims:
                    rule = self.independent.rules.get(name)
                    gaps.append(
                        Check(
                            f"gap_{key_id(key)}",
                            key,
                            " ".join(p for p in (quantity.symbol, direction) if p),
                            None,
                            verdict="gap",
                            clause=rule.clause if rule else "",
                            note=f"{quantity.meaning} is not stated in the submission{self._ours(key)}",
                        )
                    )
        return gaps

    def _unplaced(self) -> list[Check]:
        checks = []
        for n, claim in enumerate(self.unplaced):
            key = Key(claim.quantity, claim.direction)
            note = f"story {claim.story} is not among the stories of the brief"
            label = f"{QUANTITIES[claim.quantity].symbol} {claim.direction or ''} {claim.story}".replace("  ", " ")
            checks.append(Check(f"unplaced_{n}.{key_id(key)}.{claim.story}", key, label, claim, note=note))
        return checks

    def _checks_of_masses(self) -> list[Check]:
        """Masses of the analysis against their own weights (level 1) and against ours."""
        checks = []
        claims = self.claims.pop(Key("m"), None)
        for i, claim in sorted(claims.indexed.items()) if claims else ():
            check = Check(f"m.{claim.story}", Key("m"), f"m {claim.story}", claim, i)
            relative, floor = QUANTITIES["m"].tolerance * self.tolerance_scale, _number_floor(claim)
            theirs = self.claims.get(Key("w"))
            weight = theirs.indexed.get(i) if theirs else None
            if weight is not None:
                rounding = floor + _number_floor(weight) / GRAVITY
                check.carried = compare(claim.value, float(weight.value) / GRAVITY, relative, rounding)
                check.note = "mass of the analysis against their own seismic weight over g"
            own, rests_on_adopted, why = self._value(self.independent, Key("w"), i)
            if isinstance(own, float) and not rests_on_adopted and Key("w") not in self.independent.adopted:
                check.independent = compare(claim.value, own / GRAVITY, relative, floor)
            if check.carried is None and check.independent is None:
                check.note = why
            else:
                check.level = 3 if check.independent is not None else 1
                self._judge(check)
            checks.append(check)
        return checks

    def _target(self) -> tuple[float | None, str]:
        """(share of the mass that the edition asks for, clause), None where it has no such rule."""
        rule = self.independent.rules.get("mass_target")
        step = self._limit("mass_target", None) if rule else None
        return (float(step.value), rule.clause) if step is not None and rule is not None else (None, "")

    def _other_alternative(self, direction: str, mass_sum: float, periods: list[float]) -> str:
        """Words on an alternative of the target that stands only where the target can't be met; empty where there is none."""
        inputs: dict[Key, Any] = {**self.independent.inputs, Key("T_modes"): np.array(periods)}
        own = Evaluation(self.independent.rules, inputs, pins={Key("mass_sum", direction): mass_sum})
        try:
            verdict = own.value("modes_verdict", direction)
        except (MissingInput, RuleRefused):
            return ""
        return str(verdict["words"]) if verdict["met"] is None else ""

    def checks(self, answer: Mapping[str, Any] | None) -> list[Check]:
        by_mass = self._checks_of_masses()
        checks = [self._check(key, claim, None) for key, c in self.claims.items() for claim in c.single[:1]]
        for key, c in self.claims.items():
            if key.name != "T_points":
                checks += [self._check(key, claim, i) for i, claim in sorted(c.indexed.items())]
            repeated = [(None, claim) for claim in c.single[1:]] + list(c.again)
            for n, (index, claim) in enumerate(repeated, start=2):
                again = self._check(key, claim, index)
                again.id += f"#{n}"
                again.label += f" {claim.case}" if claim.case else " again"
                checks.append(again)
        target, clause = self._target()
        of_modes, self.modes = modal_checks(
            self.of_modes, target, clause, answer, self.tolerance_scale, self._other_alternative
        )
        checks += self._sum_checks() + self._gaps() + self._unplaced() + by_mass + of_modes
        order = list(QUANTITIES)
        checks.sort(key=lambda c: (order.index(c.key.name), c.key.direction or "", c.index or 0))
        self._link(checks)
        return checks

    def _link(self, checks: list[Check]) -> None:
        """Name the origins that each deviating check rests on; a sum of wrong parts is inherited from them."""
        origins: dict[Key, list[str]] = {}
        for check in checks:
            if check.role == "origin" and check.level != 1:
                origins.setdefault(check.key, []).append(check.id)
        ancestors = cache(self.carried.ancestors)
        for check in checks:
            if (check.role is None and check.follows) or QUANTITIES[check.key.name].kind in QUANTITY_KINDS:
                continue
            if check.key.name == "m":
                check.rests_on = [i for i in origins.get(Key("w"), []) if check.role == "inherited"]
                continue
            above = ancestors(check.key)
            if check.level == 1:
                above = above | {check.key, Key(self.edition.sums[check.key.name], check.key.direction)}
            found = [i for key, ids in origins.items() if key in above and key != check.key for i in ids]
            own = origins.get(check.key, []) if check.level == 1 else []
            if check.level == 1 and check.role == "origin":
                total = Key(self.edition.sums[check.key.name], check.key.direction)
                direct = own + origins.get(total, [])
                check.role = "inherited" if direct else "origin"
                check.rests_on = direct
            elif check.role == "inherited" or not check.follows:
                check.rests_on = found


def _side(comparison: Comparison | None) -> dict[str, Any] | None:
    if comparison is None:
        return None
    return {
        "value": comparison.ours,
        "deviation": comparison.deviation,
        "multiples": comparison.multiples,
        "tolerance": comparison.tolerance,
        "agrees": comparison.agrees,
    }


def _check_json(check: Check, used_by: int) -> dict[str, Any]:
    quantity = QUANTITIES[check.key.name]
    claim = check.claim
    shown = check.shown()
    return {
        "id": check.id,
        "quantity": check.key.name,
        "direction": check.key.direction,
        "story": claim.story if claim else None,
        "point": claim.point if claim else None,
        "mode": check.index + 1 if quantity.kind is Kind.MODES and check.index is not None else None,
        "case": claim.case if claim else "",
        "stage": quantity.stage,
        "label": check.label,
        "symbol": quantity.symbol,
        "symbol_tex": quantity.tex,
        "meaning": quantity.meaning,
        "unit": quantity.unit,
        "clause": check.clause,
        "theirs": None
        if claim is None
        else {"value": claim.value, "text": claim.text, "unit": claim.unit, "source": claim.source.model_dump()},
        "carried": _side(check.carried),
        "independent": _side(check.independent),
        "multiples": shown.multiples if shown else None,
        "verdict": check.verdict,
        "role": check.role,
        "level": check.level,
        "limit": check.limit,
        "follows": check.follows,
        "rests_on": check.rests_on,
        "used_by": used_by,
        "step": key_id(check.key),
        "note": check.note,
        "draft": draft(check),
    }


Ask = Callable[[dict[str, Any]], "dict[str, Any] | None"]
"""Answers a request to the reviewer's own model; None where there is no answer yet."""


def _own_modes(document: RecheckDocument, ask: Ask) -> dict[str, Any] | None:
    """Modes of the document's own model, None without one or where it can't stand."""
    if document.model is None:
        return None
    try:
        return ask(request_to("modal", document.brief, document.model))
    except InputRefused:
        return None


def recheck(document: Any, ask: Ask = solve) -> dict[str, Any]:
    """Recheck a document; raises InputRefused naming every problem.

    ask : how the reviewer's own model is asked; by default it is solved at once
    """
    # submitted zeros and the like give infinities on the way; the resolver refuses what they lead to
    with np.errstate(all="ignore"):
        return _recheck(document, ask)


def _recheck(document: Any, ask: Ask) -> dict[str, Any]:
    read = read_recheck(document)
    problems = _problems(read)
    if problems:
        raise InputRefused(problems)
    run = _Recheck(read)
    checks = run.checks(_own_modes(read, ask) if run.of_modes else None)
    used_by = Counter(origin for c in checks for origin in c.rests_on)
    # evaluate what the screens show beside the checks, as far as the inputs reach
    for name in ("design_category", "S_a", "V_story", "M_story", "F_px", "h_x"):
        for direction in DIRECTIONS:
            for evaluation in (run.independent, run.carried):
                try:
                    evaluation.step(name, direction)
                except (MissingInput, RuleRefused):
                    continue
    counted = [c for c in checks if c.claim is not None and c.level != 1]
    levels = {level: sum(1 for c in counted if c.level == level) for level in (2, 3)}
    return {
        "engine": ENGINE,
        "edition": read.brief.edition,
        "submission": read.submission.label,
        "stories": run.stories,
        "checks": [_check_json(c, used_by[c.id]) for c in checks],
        "origins": [c.id for c in checks if c.role == "origin"],
        "counts": {
            v: sum(1 for c in checks if c.verdict == v) for v in ("agrees", "differs", "breaches", "gap", "open")
        },
        "coverage": {
            "claims": len(counted),
            "recomputed": levels[2],
            "independent": levels[3],
            "unchecked": [c.id for c in counted if c.level is None],
        },
        "steps": {"independent": steps_json(run.independent), "carried": steps_json(run.carried)},
        "modes": run.modes,
        "notes": _notes(run.independent),
        "two_stage": {d: _two_stage(run.independent, d) for d in DIRECTIONS},
    }


def _two_stage(evaluation: Evaluation, direction: str) -> Any:
    try:
        return evaluation.value("two_stage", direction)
    except (MissingInput, RuleRefused):
        return None


def _notes(evaluation: Evaluation) -> list[str]:
    notes: list[str] = []
    for name, direction, _ in (
        Key("ground_notes"),
        Key("static_notes", "X"),
        Key("static_notes", "Y"),
    ):
        try:
            found = evaluation.value(name, direction)
        except (MissingInput, RuleRefused):
            continue
        notes += [f"{direction}: {n}" if direction else n for n in found]
    return notes
