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
    quantity = QUANTITIES[check.key.name]
    name = quantity.meaning if quantity.kind is Kind.TEXT else f"{quantity.meaning} {quantity.symbol}"
    if check.key.direction:
        name += f" in {check.key.direction}"
    if check.claim is not None and check.claim.story:
        name += f" at {check.claim.story}"
    if check.claim is not None and check.claim.point is not None:
        numbered = "mode" if quantity.kind in (Kind.MODES, Kind.SHAPES) else "point"
        name += f", {numbered} {check.claim.point + 1}"
    return name


_SAID = {"axes_swapped": "the axes X and Y, which are exchanged"}
"""Origins that have no symbol of their own, in words."""


def _kind(check: Check) -> Kind:
    return QUANTITIES[check.key.name].kind


def _off(deviation: float | None) -> str:
    if deviation is None:
        return ""
    return f"; the given value is {100 * abs(deviation):.1f} % too {'high' if deviation > 0 else 'low'}"


def draft(check: Check) -> str:
    """Text of a remark: what was given, what the code gives, what is asked; empty for a check that agrees."""
    unit = QUANTITIES[check.key.name].unit.replace("*", " ")
    unit = f" {unit}" if unit else ""
    clause = f" ({check.clause})" if check.clause else ""
    name = _name(check)
    if check.claim is None and check.level == 3 and check.verdict == "differs":
        return f"{check.note[:1].upper()}{check.note[1:]}. Please say which way the axes of the model run, and correct the tables."
    if check.verdict == "gap" and check.id.startswith("missing_mode"):
        return f"{check.note[:1].upper()}{check.note[1:]}. Please include it, or say why it was left out."
    if check.verdict == "gap":
        return f"{name} is not stated. Please give it{clause}, with its basis."
    shown = check.shown()
    if check.verdict not in ("differs", "breaches") or shown is None or check.claim is None:
        return ""
    if (
        check.level == 1
        and _kind(check) in (Kind.MODES, Kind.STORIES)
        and check.note
        and not check.id.startswith("sum_")
    ):
        return f"{check.label}: {figures(shown.theirs)}{unit} is stated, {figures(shown.ours)}{unit} follows ({check.note}). Please reconcile."
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
        if check.key.name == "mass_running":
            return f"{said} Please include more modes, or add what they leave out."
    found = f"We find {figures(shown.ours)}{unit}"
    if check.role == "inherited":
        return f"{said} {found}{_off(shown.deviation)}. It follows from: {', '.join(_SAID.get(i, i) for i in check.rests_on)}."
    if _kind(check) is Kind.MODES and check.verdict != "breaches":
        return f"{said} {found} in {check.note}{_off(shown.deviation)}. Please correct, or state the basis."
    basis = " with your own upstream values" if check.carried is not None else ""
    return f"{said} {found}{basis}{clause}{_off(shown.deviation)}. Please correct, or state the basis."
