"""Drafts of remarks, one wording for each kind of check, for the reviewer to edit."""

from __future__ import annotations

from typing import TYPE_CHECKING

from plumb_core.checks.compare import Comparison
from plumb_core.checks.verdict import Role, Verdict
from plumb_core.quantities import QUANTITIES, Kind

if TYPE_CHECKING:
    from plumb_core.checks.check import Check


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
    if check.subject is not None and check.subject.story:
        name += f" at {check.subject.story}"
    if check.subject is not None and check.subject.point is not None:
        numbered = "mode" if quantity.kind in (Kind.MODES, Kind.SHAPES) else "point"
        name += f", {numbered} {check.subject.point + 1}"
    return name


_SAID = dict.fromkeys(("axes_mass_ratio", "axes_T_analysis"), "the axes X and Y, which are exchanged")
"""Origins that have no symbol of their own, in words."""


def _unit(check: Check) -> str:
    unit = QUANTITIES[check.key.name].unit.replace("*", " ")
    return f" {unit}" if unit else ""


def _clause(check: Check) -> str:
    return f" ({check.clause})" if check.clause else ""


def _sentence(words: str) -> str:
    return f"{words[:1].upper()}{words[1:]}."


def _off(deviation: float | None) -> str:
    if deviation is None:
        return ""
    return f"; the given value is {100 * abs(deviation):.1f} % too {'high' if deviation > 0 else 'low'}"


def _given(check: Check, shown: Comparison) -> str:
    """What was given, and the limit that it breaches."""
    claim = check.subject
    text = (claim.text if claim else "") or figures(shown.theirs)
    stated = "adds up to" if check.added_up else "is given as"
    said = f"{_name(check)} {stated} {text}{f' {claim.unit}' if claim and claim.unit else ''}."
    if check.verdict is Verdict.BREACHES and check.limit is not None:
        word = "exceeds the upper limit" if check.limit["side"] == "max" else "is below the minimum"
        said += f" It {word} of {figures(check.limit['value'])}{_unit(check)} ({check.limit['clause']})."
    return said


def value(check: Check) -> str:
    """A submitted value, the limit that it breaches, and ours."""
    shown = check.shown
    if shown is None:
        return ""
    ours = f"{_given(check, shown)} We find {figures(shown.ours)}{_unit(check)}"
    if check.role is Role.INHERITED:
        return (
            f"{ours}{_off(shown.deviation)}. It is computed from: {', '.join(_SAID.get(i, i) for i in check.rests_on)}."
        )
    basis = " from your own upstream values" if check.carried is not None else ""
    return f"{ours}{basis}{_clause(check)}{_off(shown.deviation)}. Please correct, or state the basis."


def mode(check: Check) -> str:
    """A value of a mode beside that of the reference model."""
    shown = check.shown
    if shown is None or check.role is Role.INHERITED:
        return value(check)
    ours = f"{_given(check, shown)} We find {figures(shown.ours)}{_unit(check)}"
    return f"{ours} in {check.note}{_off(shown.deviation)}. Please correct, or state the basis."


def target(check: Check) -> str:
    """The sum of the modal masses."""
    shown = check.shown
    if shown is None:
        return ""
    if check.verdict is Verdict.BREACHES:
        return f"{_given(check, shown)} Please include more modes, or add the residual mass."
    ours = f"{_given(check, shown)} We find {figures(shown.ours)}"
    return f"{ours} in {check.note}{_off(shown.deviation)}. Please correct, or state the basis."


def consistent(check: Check) -> str:
    """A value that does not follow from others of the submission."""
    shown = check.shown
    if shown is None:
        return ""
    unit = _unit(check)
    return (
        f"{check.label}: {figures(shown.theirs)}{unit} is stated, we compute {figures(shown.ours)}{unit} ({check.note}). "
        "Please reconcile."
    )


def mass(check: Check) -> str:
    """A mass of the analysis."""
    return consistent(check) if check.level == 1 else value(check)


def sum(check: Check) -> str:
    """Story values that do not add up to their total."""
    shown = check.shown
    if shown is None:
        return ""
    unit = _unit(check)
    return (
        f"{check.label}: the story values add up to {figures(shown.theirs)}{unit}, while "
        f"{figures(shown.ours)}{unit} is stated. Please reconcile."
    )


def gap(check: Check) -> str:
    """A value that is not stated."""
    return f"{_name(check)} is not stated. Please give it{_clause(check)}, with its basis."


def axes(check: Check) -> str:
    """Axes that are exchanged."""
    return f"{_sentence(check.note)} Please say directions of the axes of the model, and correct the tables."


def missing_mode(check: Check) -> str:
    """A mode that the list lacks."""
    return f"{_sentence(check.note)} Please include it, or state why it is omitted."


def taken_from(check: Check) -> str:
    """A period that is of no leading mode."""
    return f"{_sentence(check.note)} Please state which mode it is based on."


def said(check: Check) -> str:
    """The note of the check as a sentence, and what is required."""
    ask = "Please give it" if check.verdict is Verdict.GAP else "Please correct, or state the basis"
    return f"{_sentence(check.note)} {ask}{_clause(check)}."


def none(check: Check) -> str:
    """No remark."""
    return ""
