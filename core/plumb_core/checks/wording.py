"""Drafts of remarks, one wording for each kind of check, for the reviewer to edit."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from plumb_core.checks.check import Check, Role, Verdict
from plumb_core.checks.claims import AddedUp
from plumb_core.checks.compare import Comparison
from plumb_core.quantities import QUANTITIES, Kind


def figures(value: float | str, digits: int = 4) -> str:
    """A number with no more than `digits` significant figures, texts as they are."""
    if isinstance(value, str):
        return value
    text = f"{value:.{digits}g}"
    if "e" not in text:
        return text
    return f"{value:.0f}" if abs(value) >= 1 else f"{value:.6f}".rstrip("0")


def draft(check: Check) -> str:
    """Text of a remark: what was given, what the code gives, what is asked; empty for a check that needs none."""
    if check.verdict not in (Verdict.DIFFERS, Verdict.BREACHES, Verdict.GAP, Verdict.QUESTION):
        return ""
    return _WORDINGS[check.kind](check)


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
    stated = "adds up to" if isinstance(claim, AddedUp) else "is given as"
    said = f"{_name(check)} {stated} {text}{f' {claim.unit}' if claim and claim.unit else ''}."
    if check.verdict is Verdict.BREACHES and check.limit is not None:
        word = "exceeds the upper limit" if check.limit.side == "max" else "is below the minimum"
        said += f" It {word} of {figures(check.limit.value)}{_unit(check)} ({check.limit.clause})."
    return said


def _value(check: Check) -> str:
    shown = check.shown
    if shown is None:
        return ""
    ours = f"{_given(check, shown)} We find {figures(shown.ours)}{_unit(check)}"
    if check.role is Role.INHERITED:
        return f"{ours}{_off(shown.deviation)}. It follows from: {', '.join(_SAID.get(i, i) for i in check.rests_on)}."
    basis = " with your own upstream values" if check.carried is not None else ""
    return f"{ours}{basis}{_clause(check)}{_off(shown.deviation)}. Please correct, or state the basis."


def _mode(check: Check) -> str:
    shown = check.shown
    if shown is None or check.role is Role.INHERITED:
        return _value(check)
    ours = f"{_given(check, shown)} We find {figures(shown.ours)}{_unit(check)}"
    return f"{ours} in {check.note}{_off(shown.deviation)}. Please correct, or state the basis."


def _target(check: Check) -> str:
    shown = check.shown
    if shown is None:
        return ""
    if check.verdict is Verdict.BREACHES:
        return f"{_given(check, shown)} Please include more modes, or add what they leave out."
    ours = f"{_given(check, shown)} We find {figures(shown.ours)}"
    return f"{ours} in {check.note}{_off(shown.deviation)}. Please correct, or state the basis."


def _consistent(check: Check) -> str:
    shown = check.shown
    if shown is None:
        return ""
    unit = _unit(check)
    return (
        f"{check.label}: {figures(shown.theirs)}{unit} is stated, {figures(shown.ours)}{unit} follows ({check.note}). "
        "Please reconcile."
    )


def _mass(check: Check) -> str:
    return _consistent(check) if check.level == 1 else _value(check)


def _sum(check: Check) -> str:
    shown = check.shown
    if shown is None:
        return ""
    unit = _unit(check)
    return (
        f"{check.label}: the story values add up to {figures(shown.theirs)}{unit}, while "
        f"{figures(shown.ours)}{unit} is stated. Please reconcile."
    )


def _gap(check: Check) -> str:
    return f"{_name(check)} is not stated. Please give it{_clause(check)}, with its basis."


def _axes(check: Check) -> str:
    return f"{_sentence(check.note)} Please say which way the axes of the model run, and correct the tables."


def _missing_mode(check: Check) -> str:
    return f"{_sentence(check.note)} Please include it, or say why it was left out."


def _taken_from(check: Check) -> str:
    return f"{_sentence(check.note)} Please say which mode it is taken from."


def _said(check: Check) -> str:
    ask = "Please give it" if check.verdict is Verdict.GAP else "Please correct, or state the basis"
    return f"{_sentence(check.note)} {ask}{_clause(check)}."


def _none(check: Check) -> str:
    return ""


_WORDINGS: Mapping[str, Callable[[Check], str]] = {
    "value": _value,
    "unplaced": _none,
    "mass": _mass,
    "mode": _mode,
    "reciprocal": _consistent,
    "running_sum": _consistent,
    "sum": _sum,
    "gap": _gap,
    "target": _target,
    "axes": _axes,
    "missing_mode": _missing_mode,
    "taken_from": _taken_from,
    "factor": _said,
    "scaling": _said,
    "reaction": _value,
    "twist": _said,
    "side": _said,
    "case_missing": _said,
    "case_open": _said,
    "amplified": _said,
    "drift": _said,
    "drift_open": _said,
    "drift_consistent": _said,
    "stability": _said,
    "load": _value,
    "make_up": _consistent,
    "make_up_open": _said,
    "declared": _said,
    "own": _said,
    "combination": _said,
    "process": _said,
}
