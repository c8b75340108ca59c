"""Draft of a remark from a check, for the reviewer to edit."""

from __future__ import annotations

from plumb_core.checks.check import Check
from plumb_core.quantities import QUANTITIES, Kind


def figures(value: float | str, digits: int = 4) -> str:
    """A number with no more than `digits` significant figures, texts as they are."""
    if isinstance(value, str):
        return value
    text = f"{value:.{digits}g}"
    if "e" not in text:
        return text
    return f"{value:.0f}" if abs(value) >= 1 else f"{value:.6f}".rstrip("0")


def _name(check: Check) -> str:
    quantity = QUANTITIES[check.key[0]]
    name = quantity.meaning if quantity.kind is Kind.TEXT else f"{quantity.meaning} {quantity.symbol}"
    if check.key[1]:
        name += f" in {check.key[1]}"
    if check.claim is not None and check.claim.story:
        name += f" at {check.claim.story}"
    if check.claim is not None and check.claim.point is not None:
        name += f", point {check.claim.point + 1}"
    return name


def _off(deviation: float | None) -> str:
    if deviation is None:
        return ""
    return f"; the given value is {100 * abs(deviation):.1f} % too {'high' if deviation > 0 else 'low'}"


def draft(check: Check) -> str:
    """Text of a remark: what was given, what the code gives, what is asked; empty for a check that agrees."""
    unit = QUANTITIES[check.key[0]].unit.replace("*", " ")
    unit = f" {unit}" if unit else ""
    clause = f" ({check.clause})" if check.clause else ""
    name = _name(check)
    if check.verdict == "gap":
        return f"{name} is not stated. Please give it{clause}, with its basis."
    shown = check.shown()
    if check.verdict not in ("differs", "breaches") or shown is None or check.claim is None:
        return ""
    if check.level == 1:
        return (
            f"{check.label}: the story values add up to {figures(shown.theirs)}{unit}, while "
            f"{figures(shown.ours)}{unit} is stated. Please reconcile."
        )
    given = check.claim.text or figures(shown.theirs)
    said = f"{name} is given as {given}{f' {check.claim.unit}' if check.claim.unit else ''}."
    if check.verdict == "breaches" and check.limit is not None:
        word = "exceeds the upper limit" if check.limit["side"] == "max" else "is below the minimum"
        said += f" It {word} of {figures(check.limit['value'])}{unit} ({check.limit['clause']})."
    found = f"We find {figures(shown.ours)}{unit}"
    if check.role == "inherited":
        return f"{said} {found}{_off(shown.deviation)}. It follows from: {', '.join(check.rests_on)}."
    basis = " with your own upstream values" if check.carried is not None else ""
    return f"{said} {found}{basis}{clause}{_off(shown.deviation)}. Please correct, or state the basis."
