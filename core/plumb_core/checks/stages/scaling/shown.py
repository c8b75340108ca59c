"""What the stage of scaling shows beside its checks."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.stages.values import number, stated
from plumb_core.documents import results
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Evaluation, Key

REDUCTION = {"I_e": False, "I": False, "S_p": False, "R": True, "mu": True}
"""Factors of the reduction, and whether they divide."""


def scaling_shown(context: Context, checks: Sequence[Check]) -> results.ScalingStage | None:
    """Return what the scaling page shows; None where no modal base shear is stated."""
    shears = {d: _shears(context, d, checks) for d in DIRECTIONS}
    if not any(shears.values()):
        return None
    rules = context.independent.rules
    return {
        "X": shears["X"],
        "Y": shears["Y"],
        "applies_to": list(context.independent.get("scaled", "X") or []),
        "clause": rules["factor_required"].clause if "factor_required" in rules else "",
    }


def _shears(context: Context, d: str, checks: Sequence[Check]) -> results.Shears | None:
    before, after = context.modal_shear(d, "before"), context.modal_shear(d, "after")
    given = {n: stated(context, n, d) for n in ("factor_used", "factor_required", "spectrum_factor", "V_static", "V")}
    if before is None and after is None and given["factor_used"] is None:
        return None
    ours = context.independent
    static, share = number(ours, "V", d), number(ours, "scaling_share", d)
    estimate = number(ours, "V_dynamic", d)
    floor = static * share if static is not None and share is not None else None
    stored = float(theirs(before)) if before is not None else estimate
    required = max(1.0, floor / stored) if floor is not None and stored else None
    used = given["factor_used"]
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
        "static_theirs": given["V_static"] if given["V_static"] is not None else given["V"],
        "before_ours": estimate,
        "before_model": _of_model(context, d),
        "before_theirs": None if before is None else float(theirs(before)),
        "after_theirs": None if after is None else float(theirs(after)),
        "share": share,
        "floor": floor,
        "factor_required": required,
        "factor_used": used,
        "of_modes": _of_modes(ours, d),
        "taken_apart": _factor_parts(context, d),
        "checks": {name: i for name, i in named.items() if i is not None},
    }


def _of_model(context: Context, direction: str) -> float | None:
    answer = context.reference.get(f"response_{direction}")
    return None if answer is None else abs(float(answer["base_shear"][direction]))


def _of_modes(evaluation: Evaluation, direction: str) -> list[float]:
    """Base shear of each mode, kN: share x weight x ordinate."""
    share, ordinate, W = (
        evaluation.get(n, d) for n, d in (("mass_share", direction), ("S_a_modes", direction), ("W", None))
    )
    if share is None or ordinate is None or W is None:
        return []
    return [float(v) for v in np.asarray(share) * np.asarray(ordinate) * float(W)]


def _factor_parts(context: Context, direction: str) -> list[results.FactorPart]:
    """Their factor on the spectrum as g (in its unit) x importance x 1/reduction x what is left."""
    of_key = context.claims.by_key.get(Key("spectrum_factor", direction))
    if of_key is None or not of_key.single:
        return []
    claim = of_key.single[0]
    rule = context.independent.rules.get("spectrum_factor")
    rest = float(theirs(claim))
    g = 1.0 / claim.scale if claim.scale and claim.unit not in ("", "g") else 1.0
    parts: list[results.FactorPart] = [
        {
            "words": f"g, {claim.unit}" if claim.unit not in ("", "g") else "no g: ordinates are accelerations",
            "symbol": "g",
            "value": g,
            "unit": claim.unit,
            "clause": "",
        }
    ]
    for parameter in rule.parameters if rule is not None else ():
        value = number(
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
    parts.append({"words": "remainder", "symbol": "rest", "value": rest, "unit": "", "clause": ""})
    return parts
