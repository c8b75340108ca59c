"""Draft of a remark from a check, for the reviewer to edit."""

from __future__ import annotations

from typing import TYPE_CHECKING

from plumb_core.quantities import QUANTITIES

if TYPE_CHECKING:
    from plumb_core.checks.recheck import Check


def figures(value: float | str, digits: int = 4) -> str:
    """A number with no more than `digits` significant figures, texts as they are."""
    if isinstance(value, str):
        return value
    text = f"{value:.{digits}g}"
    if "e" not in text:
        return text
    return f"{value:.0f}" if abs(value) >= 1 else f"{value:.6f}".rstrip("0")


def draft(check: Check) -> str:
    """Text of a remark: what was given, what the code gives, what is asked; empty for a check that agrees."""
    quantity = QUANTITIES[check.key[0]]
    name = f"{quantity.meaning} {check.label}" if quantity.kind.value != "text" else quantity.meaning
    unit = f" {quantity.unit}" if quantity.unit else ""
    clause = f" ({check.clause})" if check.clause else ""
    if check.verdict == "gap":
        return f"{name} is not stated. Please give it{clause} with its basis."
    shown = check.shown()
    if check.verdict not in ("differs", "breaches") or shown is None or check.claim is None:
        return ""
    given = check.claim.text or figures(shown.theirs)
    said = f"{name} is given as {given}{f' {check.claim.unit}' if check.claim.unit else ''}."
    percent = "" if shown.deviation is None else f", which theirs misses by {100 * shown.deviation:+.1f} %"
    if check.level == 1:
        return (
            f"{check.label}: the story values add up to {figures(shown.theirs)}{unit}, while "
            f"{figures(shown.ours)}{unit} is stated. Please reconcile."
        )
    if check.verdict == "breaches" and check.limit is not None:
        word = "exceeds the upper limit" if check.limit["side"] == "max" else "is below the minimum"
        said += f" It {word} of {figures(check.limit['value'])}{unit} ({check.limit['clause']})."
    if check.role == "inherited":
        return f"{said} We find {figures(shown.ours)}{unit}{percent}. It follows from: {', '.join(check.rests_on)}."
    basis = "with your own upstream values " if check.carried is not None else ""
    return (
        f"{said} We find {figures(shown.ours)}{unit} {basis}{clause.strip()}".rstrip()
        + f"{percent}. Please correct, or state the basis."
    )
