"""What the stage of twist shows beside its checks."""

from __future__ import annotations

import re
from collections.abc import Sequence

import numpy as np

from plumb_core.checks.check import Check
from plumb_core.checks.context import Context
from plumb_core.checks.reference import floor_ends
from plumb_core.checks.results import Ends
from plumb_core.checks.stages.twist.inputs import Twist
from plumb_core.checks.stages.values import (
    by_direction,
    listed,
    number,
    reference_case,
    reference_ends,
    stated_by_story,
)
from plumb_core.checks.verdict import Verdict
from plumb_core.documents import results
from plumb_core.rules import Evaluation, Key, Rule


def twist_shown(context: Context, checks: Sequence[Check]) -> results.TwistStage | None:
    """Return what the twist page shows; None where no case states both ends."""
    if not context.twists:
        return None
    ours = context.independent
    rules = ours.rules
    return {
        "cases": [_moved(context, t) for t in context.twists],
        "thresholds": thresholds(ours),
        "irregular": context.irregular,
        "A_x_ours": by_direction(lambda d: ours.get("A_x", d) if "A_x" in rules else None),
        "A_x_theirs": by_direction(lambda d: stated_by_story(context, "A_x", d)),
        "follows": _follows(context, checks),
        "eccentricity": number(ours, "eccentricity"),
        "clause": rules["torsion_class"].clause if "torsion_class" in rules else "",
    }


def _moved(context: Context, twist: Twist) -> results.CaseMoved:
    role = context.claims.cases[twist.case]
    ours = reference_case(context, twist.case, twist.direction)
    ends = None if ours is None else floor_ends(ours, "drift", twist.direction)
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
        "drift_own": reference_ends(ours, "drift", twist.direction),
        "displacement_own": reference_ends(ours, "displacement", twist.direction),
        "greatest": listed(None if judged is None else judged.greatest),
        "mean": listed(None if judged is None else judged.mean),
        "ratio": listed(twist.ratio),
        "ratio_own": None if ends is None else listed(ends.max(axis=1) / ends.mean(axis=1)),
        "tiny": [bool(t) for t in twist.tiny],
        "classes": None if twist.classes is None else list(twist.classes),
        "worst": context.claims.stories[worst] if usable[worst] > -np.inf else None,
    }


def _ends(context: Context, what: str, twist: Twist, ends: Ends | None) -> list[list[float | None]]:
    if ends is None or not ends.by_ends:
        return []
    both = [context.results.array(f"{what}_end_{n}", twist.direction, twist.case) for n in (1, 2)]
    return [listed(each) for each in both] if all(b is not None for b in both) else []


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
        # nothing but the ratio states the class
        _THRESHOLDS[id(rule)] = rule, found
    return found


def _follows(context: Context, checks: Sequence[Check]) -> list[results.Follows]:
    """What follows in this category from the gravest class; each item with what the submission shows of it."""
    rules = context.independent.rules
    if "torsion_consequences" not in rules or not context.irregular:
        return []
    gravest = "extreme" if max((t.degree for t in context.twists if t.judged), default=1) == 2 else "torsional"
    inputs = {**context.independent.inputs, Key("torsion_class", "X", "gravest"): [gravest]}
    words = Evaluation(rules, inputs, cases={"gravest": "X"}).get("torsion_consequences", "X", "gravest")
    if not words:
        return []
    words = words[0]
    return [{"words": w, **_shown(context, w, checks)} for w in words]  # type: ignore[typeddict-item]


def _shown(context: Context, words: str, checks: Sequence[Check]) -> dict[str, str]:
    """What the submission shows of something that follows."""
    if re.search(r"A_x|amplif", words):
        ours = [c for c in checks if c.key.name == "A_x"]
        if any(c.verdict is Verdict.GAP for c in ours) or not ours:
            return {"status": "missing", "why": "no A_x is submitted"}
        off = [c for c in ours if c.verdict is Verdict.DIFFERS]
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
            return {"status": "open", "why": "no redundancy factor is submitted"}
        low = [c for c in stated if float(c.value) < 1.3 - 1e-9]
        return (
            {"status": "differs", "why": f"theirs is {low[0].text}"}
            if low
            else {"status": "shown", "why": "theirs is 1.3"}
        )
    return {"status": "open", "why": "the submission does not show it"}
