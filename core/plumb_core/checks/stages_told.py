"""What the stages of scaling, twist and drift show beside their checks."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check, Verdict
from plumb_core.checks.checkers.own_model import matched_cases, own_ends, own_history
from plumb_core.checks.checkers.scaling import shear_of
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.results import Ends
from plumb_core.checks.stages import DRIFTS, Governing, Twist
from plumb_core.documents import results
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Array, Evaluation, Key, Rule, Step

REDUCTION = {"I_e": False, "I": False, "S_p": False, "R": True, "mu": True}
"""Factors of the reduction, and whether they divide."""


def stages_told(context: Context, checks: Sequence[Check]) -> results.Stages:
    """The stages of a recheck."""
    return {
        "scaling": _scaling(context, checks),
        "twist": _twist(context, checks),
        "drift": _drift(context),
    }


def _value(evaluation: Evaluation, name: str, direction: str | None = None) -> Any:
    if name not in evaluation.rules and Key(name, direction) not in evaluation.inputs:
        return None
    try:
        return evaluation.value(name, direction)
    except (MissingInput, RuleRefused):
        return None


def _number(evaluation: Evaluation, name: str, direction: str | None = None) -> float | None:
    value = _value(evaluation, name, direction)
    return None if value is None else float(value)


def _listed(values: Array | None) -> list[float | None]:
    if values is None:
        return []
    listed: list[float | None] = np.asarray(values, dtype=float).tolist()
    if np.isfinite(values).all():
        return listed
    return [v if v is not None and math.isfinite(v) else None for v in listed]


# scaling


def _scaling(context: Context, checks: Sequence[Check]) -> results.ScalingStage | None:
    shears = {d: _shears(context, d, checks) for d in DIRECTIONS}
    if not any(shears.values()):
        return None
    rules = context.independent.rules
    return {
        "X": shears["X"],
        "Y": shears["Y"],
        "applies_to": list(_value(context.independent, "scaled", "X") or []),
        "clause": rules["factor_required"].clause if "factor_required" in rules else "",
    }


def _shears(context: Context, d: str, checks: Sequence[Check]) -> results.Shears | None:
    before, after = shear_of(context, d, "before"), shear_of(context, d, "after")
    stated = {n: _stated(context, n, d) for n in ("factor_used", "factor_required", "spectrum_factor", "V_static", "V")}
    if before is None and after is None and stated["factor_used"] is None:
        return None
    own = context.independent
    static, share = _number(own, "V", d), _number(own, "scaling_share", d)
    estimate = _number(own, "V_dynamic", d)
    floor = static * share if static is not None and share is not None else None
    held = float(theirs(before)) if before is not None else estimate
    required = max(1.0, floor / held) if floor is not None and held else None
    used = stated["factor_used"]
    if used is None and before is not None and after is not None and float(theirs(before)):
        used = float(theirs(after)) / float(theirs(before))
    by_key = {(c.kind, c.key): c.id for c in checks}
    named = {
        "static": by_key.get(("value", Key("V_static", d))) or by_key.get(("value", Key("V", d))),
        "before": by_key.get(("value", Key("V_dynamic", d))),
        "after": by_key.get(("value", Key("V_scaled", d))),
        "factor": by_key.get(("factor", Key("factor_used", d))),
        "spectrum": by_key.get(("value", Key("spectrum_factor", d))),
    }
    return {
        "static_ours": static,
        "static_theirs": stated["V_static"] if stated["V_static"] is not None else stated["V"],
        "before_ours": estimate,
        "before_model": _of_model(context, d),
        "before_theirs": None if before is None else float(theirs(before)),
        "after_theirs": None if after is None else float(theirs(after)),
        "share": share,
        "floor": floor,
        "factor_required": required,
        "factor_used": used,
        "of_modes": _of_modes(own, d),
        "taken_apart": _taken_apart(context, d),
        "checks": {name: i for name, i in named.items() if i is not None},
    }


def _of_model(context: Context, direction: str) -> float | None:
    answer = context.own.get(f"response_{direction}")
    return None if answer is None else abs(float(answer["base_shear"][direction]))


def _own_case(context: Context, case: str, direction: str) -> Mapping[str, Any] | None:
    """The case of our own model that belongs to one of theirs; None where there is none."""
    if (history := own_history(context, case)) is not None:
        return history
    answer = context.own.get("static_response")
    if answer is None or len(answer["cases"][0]["stories"]) != len(context.claims.stories):
        return None
    return dict(matched_cases(context, answer, direction)).get(case)


def _own_ends(own: Mapping[str, Any] | None, what: str, direction: str) -> list[list[float | None]]:
    return [] if own is None else [_listed(end) for end in own_ends(own, what, direction).T]


def _stated(context: Context, name: str, direction: str) -> float | None:
    of_key = context.claims.by_key.get(Key(name, direction))
    return float(theirs(of_key.single[0])) if of_key is not None and of_key.single else None


def _of_modes(evaluation: Evaluation, direction: str) -> list[float]:
    """Base shear of each mode, kN: share x weight x ordinate."""
    share, ordinate, W = (
        _value(evaluation, n, d) for n, d in (("mass_share", direction), ("S_a_modes", direction), ("W", None))
    )
    if share is None or ordinate is None or W is None:
        return []
    return [float(v) for v in np.asarray(share) * np.asarray(ordinate) * float(W)]


def _taken_apart(context: Context, direction: str) -> list[results.Part]:
    """Their factor on the spectrum as g (in its unit) x importance x 1/reduction x what is left."""
    of_key = context.claims.by_key.get(Key("spectrum_factor", direction))
    if of_key is None or not of_key.single:
        return []
    claim = of_key.single[0]
    rule = context.independent.rules.get("spectrum_factor")
    rest = float(theirs(claim))
    g = 1.0 / claim.scale if claim.scale and claim.unit not in ("", "g") else 1.0
    parts: list[results.Part] = [
        {
            "words": f"g, {claim.unit}" if claim.unit not in ("", "g") else "no g: ordinates are accelerations",
            "symbol": "g",
            "value": g,
            "unit": claim.unit,
            "clause": "",
        }
    ]
    for parameter in rule.parameters if rule is not None else ():
        value = _number(
            context.independent,
            parameter.name,
            direction if QUANTITIES[parameter.name].scope.value == "direction" else None,
        )
        if value is None:
            continue
        divides = REDUCTION.get(parameter.name, False)
        factor = 1.0 / value if divides else value
        rest /= factor
        symbol = QUANTITIES[parameter.name].symbol
        parts.append(
            {
                "words": QUANTITIES[parameter.name].meaning.lower(),
                "symbol": f"1/{symbol}" if divides else symbol,
                "value": factor,
                "unit": "",
                "clause": rule.clause if rule is not None else "",
            }
        )
    parts.append({"words": "what is left", "symbol": "rest", "value": rest, "unit": "", "clause": ""})
    return parts


# twist


def _twist(context: Context, checks: Sequence[Check]) -> results.TwistStage | None:
    if not context.twists:
        return None
    own = context.independent
    rules = own.rules
    return {
        "cases": [_moved(context, t) for t in context.twists],
        "thresholds": thresholds(own),
        "irregular": context.irregular,
        "A_x_ours": _by_direction(lambda d: _value(own, "A_x", d) if "A_x" in rules else None),
        "A_x_theirs": _by_direction(lambda d: _stated_by_story(context, "A_x", d)),
        "follows": _follows(context, checks),
        "eccentricity": _number(own, "eccentricity"),
        "clause": rules["torsion_class"].clause if "torsion_class" in rules else "",
    }


def _by_direction(value: Any) -> results.ByDirection:
    found = {d: value(d) for d in DIRECTIONS}
    return {
        "X": None if found["X"] is None else _listed(np.asarray(found["X"], dtype=float)),
        "Y": None if found["Y"] is None else _listed(np.asarray(found["Y"], dtype=float)),
    }


def _stated_by_story(context: Context, name: str, direction: str) -> Array | None:
    of_key = context.claims.by_key.get(Key(name, direction))
    if of_key is None:
        return None
    values = np.full(len(context.claims.stories), np.nan)
    for i, claim in of_key.indexed.items():
        values[i] = float(theirs(claim))
    return values


def _moved(context: Context, twist: Twist) -> results.CaseMoved:
    role = context.claims.cases[twist.case]
    own = _own_case(context, twist.case, twist.direction)
    ends = None if own is None else own_ends(own, "drift", twist.direction)
    judged = twist.drift if twist.drift is not None else twist.displacement
    usable = np.where(twist.tiny | ~np.isfinite(twist.ratio), -np.inf, twist.ratio)
    worst = int(np.argmax(usable))
    return {
        "case": twist.case,
        "kind": role.kind,
        "direction": twist.direction,  # type: ignore[typeddict-item]
        "eccentricity": role.eccentricity,
        "drift": _ends(context, "drift", twist, twist.drift),
        "displacement": _ends(context, "displacement", twist, twist.displacement),
        "drift_own": _own_ends(own, "drift", twist.direction),
        "displacement_own": _own_ends(own, "displacement", twist.direction),
        "greatest": _listed(None if judged is None else judged.greatest),
        "mean": _listed(None if judged is None else judged.mean),
        "ratio": _listed(twist.ratio),
        "ratio_own": None if ends is None else _listed(ends.max(axis=1) / ends.mean(axis=1)),
        "tiny": [bool(t) for t in twist.tiny],
        "classes": None if twist.classes is None else list(twist.classes),
        "worst": context.claims.stories[worst] if usable[worst] > -np.inf else None,
    }


def _ends(context: Context, what: str, twist: Twist, ends: Ends | None) -> list[list[float | None]]:
    if ends is None or not ends.by_ends:
        return []
    both = [context.results.array(f"{what}_end_{n}", twist.direction, twist.case) for n in (1, 2)]
    return [_listed(each) for each in both] if all(b is not None for b in both) else []


_THRESHOLDS: dict[int, tuple[Rule, list[results.Threshold]]] = {}
"""By the id of a rule, which is kept with them, so that its id stays its own."""


def thresholds(evaluation: Evaluation) -> list[results.Threshold]:
    """The ratios at which the edition's class changes, read off its rule to two digits."""
    rule = evaluation.rules.get("torsion_class")
    if rule is None:
        return []
    known = _THRESHOLDS.get(id(rule))
    if known is not None:
        return known[1]
    ratios = np.arange(100, 301) / 100.0
    # a class that holds beyond a ratio is first met above it
    inputs = {**evaluation.inputs, Key("torsion_ratio", "X", "grid"): ratios + 0.001}
    above = Evaluation(evaluation.rules, inputs, cases={"grid": "X"}).value("torsion_class", "X", "grid")
    found: list[results.Threshold] = [
        {"value": float(ratios[i]), "words": str(above[i])}
        for i in range(len(ratios))
        if above[i] != (above[i - 1] if i else "regular")
    ]
    if len(rule.parameters) == 1:
        # nothing but the ratio tells the class
        _THRESHOLDS[id(rule)] = rule, found
    return found


def _follows(context: Context, checks: Sequence[Check]) -> list[results.Follows]:
    """What follows in this category from the gravest class; each item with what the submission shows of it."""
    rules = context.independent.rules
    if "torsion_consequences" not in rules or not context.irregular:
        return []
    classes = {c for t in context.twists for c, tiny in zip(t.classes or (), t.tiny, strict=False) if not tiny}
    gravest = "extreme" if "extreme" in classes else "torsional"
    inputs = {**context.independent.inputs, Key("torsion_class", "X", "gravest"): [gravest]}
    try:
        words = Evaluation(rules, inputs, cases={"gravest": "X"}).value("torsion_consequences", "X", "gravest")[0]
    except (MissingInput, RuleRefused):
        return []
    return [{"words": w, **_shown(context, w, checks)} for w in words]  # type: ignore[typeddict-item]


def _shown(context: Context, words: str, checks: Sequence[Check]) -> dict[str, str]:
    """What the submission shows of something that follows."""
    if re.search(r"A_x|amplif", words):
        own = [c for c in checks if c.key.name == "A_x"]
        if any(c.verdict is Verdict.GAP for c in own) or not own:
            return {"status": "missing", "why": "no A_x is handed in"}
        off = [c for c in own if c.verdict is Verdict.DIFFERS]
        return {"status": "differs", "why": off[0].note} if off else {"status": "shown", "why": "their A_x is ours"}
    if "edge" in words:
        both = all(t.drift is not None and not np.all(np.isnan(t.drift.greatest)) for t in context.twists)
        return (
            {"status": "shown", "why": "their drifts are those of the ends"}
            if both
            else {"status": "missing", "why": "the drifts are not those of the edges"}
        )
    if "redundancy" in words:
        stated = [c.claim for c in checks if c.key.name == "rho" and c.claim is not None]
        if not stated:
            return {"status": "open", "why": "no redundancy factor is handed in"}
        low = [c for c in stated if float(c.value) < 1.3 - 1e-9]
        return (
            {"status": "differs", "why": f"theirs is {low[0].text}"}
            if low
            else {"status": "shown", "why": "theirs is 1.3"}
        )
    return {"status": "open", "why": "nothing handed in tells"}


# drift


def _drift(context: Context) -> results.DriftStage | None:
    if not context.drifts:
        return None
    found = {g.direction: _of_direction(context, g) for g in context.drifts}
    return {"X": found.get("X"), "Y": found.get("Y")}


def _of_direction(context: Context, governing: Governing) -> results.DriftsOfDirection:
    d, own = governing.direction, context.independent
    ratio = _value(own, "drift_ratio", d)
    limit = _number(own, "drift_limit", d)
    limits = _value(own, "drift_limits", d)
    stories = len(context.claims.stories)
    ratios = None if ratio is None else np.asarray(ratio, dtype=float)
    # what a unit of elastic drift comes to over the height at each story
    with np.errstate(divide="ignore", invalid="ignore"):
        per = None if ratios is None else np.where(governing.elastic > 0, ratios / governing.elastic, np.nan)
    worst = None if ratios is None else int(np.nanargmax(ratios))
    by_story = limits if limits is not None else [limit] * stories
    theta_limit = _number(own, "theta_limit", d)
    theta = _value(own, "theta", d)
    stated = _stated_by_story(context, "theta", d)
    return {
        "cases": _case_drifts(context, governing, per),
        "governing": list(governing.case),
        "ratio": _listed(ratios),
        "ratio_theirs": _theirs_over_height(context, governing, per),
        "limit": [None if v is None or not np.isfinite(v) else float(v) for v in by_story],
        "at_edges": governing.at_edges,
        "chain": [] if worst is None else _chain(context, governing, worst),
        "chain_story": None if worst is None else context.claims.stories[worst],
        "theta": None if theta is None else _listed(np.asarray(theta)),
        "theta_theirs": None if stated is None else _listed(stated),
        "theta_limit": theta_limit,
        "notes": list(_value(own, "drift_notes", d) or []),
    }


def _theirs_over_height(context: Context, governing: Governing, per: Array | None) -> list[float | None] | None:
    """The drifts that they give as amplified, over the height as the limit is worded; the greatest of each story."""
    amplifier = _number(context.independent, "amplifier", governing.direction)
    if not governing.pairs or per is None or not amplifier:
        return None
    return _listed(np.max([p.large for p in governing.pairs], axis=0) * per / amplifier)


def _case_drifts(context: Context, governing: Governing, per: Array | None) -> list[results.CaseDrift]:
    d = governing.direction
    amplifier = _number(context.independent, "amplifier", d)
    # where the design spectrum holds the reduction itself, it is the one that drifts are amplified by
    reduced = _number(context.independent, "spectrum_factor", d) or (1.0 / amplifier if amplifier else None)
    cases: list[results.CaseDrift] = []
    for case, along in context.results.seismic(context.results.with_values(*DRIFTS)):
        ends = context.results.drifts(d, case) if along == d else None
        if ends is None:
            continue
        role = context.claims.cases[case]
        at = ends.greatest if governing.at_edges and not np.all(np.isnan(ends.greatest)) else ends.mean
        stated = at
        if role.level == "amplified":
            at = at / amplifier if amplifier else at * np.nan
        elif role.level == "elastic":
            at = at * reduced if reduced is not None else at * np.nan
        moved = context.results.ends("displacement", d, case)
        own = _own_case(context, case, d)
        cases.append(
            {
                "case": case,
                "level": role.level,
                "kind": role.kind,
                "stated": _listed(stated),
                "ratio": _listed(None if per is None else at * per),
                "displacement": _listed(None if moved is None else moved.mean),
                "displacement_own": None if own is None else _listed(own_ends(own, "displacement", d).mean(axis=1)),
            }
        )
    return cases


def _chain(context: Context, governing: Governing, worst: int) -> list[results.Part]:
    """From the elastic drift of the worst story to its design drift over the height: each factor with its clause."""
    own, d = context.independent, governing.direction
    parts: list[results.Part] = [
        _part("elastic drift, " + governing.case[worst], "δ_e", float(governing.elastic[worst]), "m", "")
    ]
    step = own.at(Key("amplifier", d)) if "amplifier" in own.rules else None
    parts += [] if step is None else _factors(own, step)
    Delta = _value(own, "Delta", d)
    if Delta is not None:
        parts.append(_part("design drift", "Δ", float(Delta[worst]), "m", own.rules["Delta"].clause))
    ratio = _value(own, "drift_ratio", d)
    if ratio is not None:
        parts.append(
            _part(
                "over the height",
                QUANTITIES["drift_ratio"].symbol,
                float(ratio[worst]),
                "",
                own.rules["drift_ratio"].clause,
            )
        )
    return parts


def _factors(evaluation: Evaluation, step: Step) -> list[results.Part]:
    """The factors of the amplifier, each as it stands in it; the amplifier itself where it has none."""
    named = [evaluation.at(key) for key in step.inputs]
    numbers = [s for s in named if isinstance(s.value, float | int) and not isinstance(s.value, bool)]
    parts = [
        _part(QUANTITIES[s.key.name].meaning.lower(), QUANTITIES[s.key.name].symbol, float(s.value), "", s.clause)
        for s in numbers
    ]
    return [*parts, _part("together", "δ/δ_e", float(step.value), "", step.clause)]


def _part(words: str, symbol: str, value: float, unit: str, clause: str) -> results.Part:
    return {"words": words, "symbol": symbol, "value": value, "unit": unit, "clause": clause}
