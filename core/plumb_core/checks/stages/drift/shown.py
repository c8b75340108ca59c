"""What the stage of drift shows beside its checks."""

from __future__ import annotations

import numpy as np

from plumb_core.checks.context import Context
from plumb_core.checks.reference import floor_ends
from plumb_core.checks.stages.drift.inputs import DRIFTS, Governing
from plumb_core.checks.stages.values import listed, number, reference_case, stated_by_story
from plumb_core.documents import results
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Array, Evaluation, Key, Step


def drift_shown(context: Context) -> results.DriftStage | None:
    """Return what the drift page shows; None where no drifts are stated."""
    if not context.drifts:
        return None
    found = {g.direction: _of_direction(context, g) for g in context.drifts}
    return {"X": found.get("X"), "Y": found.get("Y")}


def _of_direction(context: Context, governing: Governing) -> results.DriftsOfDirection:
    d, ours = governing.direction, context.independent
    ratio = ours.get("drift_ratio", d)
    limit = number(ours, "drift_limit", d)
    limits = ours.get("drift_limits", d)
    stories = len(context.claims.stories)
    ratios = None if ratio is None else np.asarray(ratio, dtype=float)
    # What a unit of elastic drift comes to over the height at each story
    with np.errstate(divide="ignore", invalid="ignore"):
        per = None if ratios is None else np.where(governing.elastic > 0, ratios / governing.elastic, np.nan)
    worst = None if ratios is None else int(np.nanargmax(ratios))
    by_story = limits if limits is not None else [limit] * stories
    theta_limit = number(ours, "theta_limit", d)
    theta = ours.get("theta", d)
    stated = stated_by_story(context, "theta", d)
    return {
        "cases": _case_drifts(context, governing, per),
        "governing": list(governing.case),
        "ratio": listed(ratios),
        "ratio_theirs": _theirs_over_height(context, governing, per),
        "limit": [None if v is None or not np.isfinite(v) else float(v) for v in by_story],
        "at_edges": governing.at_edges,
        "chain": [] if worst is None else _chain(context, governing, worst),
        "chain_story": None if worst is None else context.claims.stories[worst],
        "theta": None if theta is None else listed(np.asarray(theta)),
        "theta_theirs": None if stated is None else listed(stated),
        "theta_limit": theta_limit,
        "levels": list(ours.get("level_drifts", d) or []),
        "base_shear": _base_shear(ours, d),
        "notes": list(ours.get("drift_notes", d) or []),
    }


def _base_shear(own: Evaluation, direction: str) -> results.BaseShearForDrift | None:
    V = number(own, "V_base_drift", direction)
    if V is None:
        return None
    coefficient = own.get("C_s_drift", direction)
    step = own.at(Key("V_base_drift" if coefficient is None else "C_s_drift", direction))
    return {
        "V": V,
        "V_forces": number(own, "V", direction),
        "T": number(own, "T_for_drift", direction),
        "factor": number(own, "factor_drift", direction),
        "clause": step.clause,
        "governed_by": step.governed.governed_by if step.governed else "",
    }


def _theirs_over_height(context: Context, governing: Governing, per: Array | None) -> list[float | None] | None:
    """The drifts that they give as amplified, over the height as the limit is worded; the greatest of each story."""
    amplifier = number(context.independent, "amplifier", governing.direction)
    if not governing.pairs or per is None or not amplifier:
        return None
    return listed(np.max([p.large for p in governing.pairs], axis=0) * per / amplifier)


def _case_drifts(context: Context, governing: Governing, per: Array | None) -> list[results.CaseDrift]:
    d = governing.direction
    amplifier = number(context.independent, "amplifier", d)
    # where the design spectrum holds the reduction itself, it is the one that drifts are amplified by
    reduced = number(context.independent, "spectrum_factor", d) or (1.0 / amplifier if amplifier else None)
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
        own = reference_case(context, case, d)
        cases.append(
            {
                "case": case,
                "level": role.level,
                "kind": role.kind,
                "stated": listed(stated),
                "ratio": listed(None if per is None else at * per),
                "displacement": listed(None if moved is None else moved.mean),
                "displacement_own": None if own is None else listed(floor_ends(own, "displacement", d).mean(axis=1)),
            }
        )
    return cases


def _chain(context: Context, governing: Governing, worst: int) -> list[results.FactorPart]:
    """From the elastic drift of the worst story to its design drift over the height: each factor with its clause."""
    own, d = context.independent, governing.direction
    parts: list[results.FactorPart] = [
        _part("elastic drift, " + governing.case[worst], "δ_e", float(governing.elastic[worst]), "m", "")
    ]
    step = own.at(Key("amplifier", d)) if "amplifier" in own.rules else None
    parts += [] if step is None else _factors(own, step)
    Delta = own.get("Delta", d)
    if Delta is not None:
        parts.append(_part("design drift", "Δ", float(Delta[worst]), "m", own.rules["Delta"].clause))
    ratio = own.get("drift_ratio", d)
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


def _factors(evaluation: Evaluation, step: Step) -> list[results.FactorPart]:
    """The factors of the amplifier, and their product."""
    named = [evaluation.at(key) for key in step.inputs]
    numbers = [s for s in named if isinstance(s.value, float | int) and not isinstance(s.value, bool)]
    parts = [
        _part(QUANTITIES[s.key.name].meaning.lower(), QUANTITIES[s.key.name].symbol, float(s.value), "", s.clause)
        for s in numbers
    ]
    return [*parts, _part("together", "δ/δ_e", float(step.value), "", step.clause)]


def _part(words: str, symbol: str, value: float, unit: str, clause: str) -> results.FactorPart:
    return {"words": words, "symbol": symbol, "value": value, "unit": unit, "clause": clause}
