"""Drafts of remarks, one wording for each kind of check, for the reviewer to edit.

A remark goes to the submitter: what was submitted and where, what the edition requires, what we compute and from
what, and what we ask them to do.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from plumb_core.checks.compare import Comparison
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.quantities import QUANTITIES, Kind

if TYPE_CHECKING:
    from plumb_core.checks.check import Check, Subject


def figures(value: float | str, digits: int = 4) -> str:
    """Return a number with at most `digits` significant figures; texts are returned unchanged."""
    if isinstance(value, str):
        return value
    text = f"{value:.{digits}g}"
    if "e" not in text:
        return text
    return f"{value:.0f}" if abs(value) >= 1 else f"{value:.6f}".rstrip("0")


@dataclass(frozen=True, slots=True)
class Basis:
    """What a remark refers to in addition to its check.

    Attributes
    ----------
    edition : title of the edition of the review
    inputs : inputs of our value, each as symbol and value
    labels : labels of checks by id
    from_rule : whether our value follows from a rule of the edition; otherwise it is an input of the review
    """

    edition: str = ""
    inputs: tuple[str, ...] = ()
    labels: Mapping[str, str] = field(default_factory=dict)
    from_rule: bool = True


_EXCHANGED_AXES = dict.fromkeys(("axes_mass_ratio", "axes_T_analysis"), "the exchanged axes X and Y")
"""Origins without a symbol, in words."""

_CORRECT = "Please correct the value, or state its basis."


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
    if check.subject is not None and check.subject.case:
        name += f", load case {check.subject.case}"
    return name


def _unit(check: Check) -> str:
    unit = QUANTITIES[check.key.name].unit.replace("*", " ")
    return f" {unit}" if unit else ""


def _reference(check: Check, basis: Basis) -> str:
    return ", ".join(part for part in (basis.edition, check.clause) if part)


def _sentence(words: str) -> str:
    return f"{words[:1].upper()}{words[1:]}."


def _where(subject: Subject | None) -> str:
    """Return the place of a submitted value in its exhibit, in parentheses."""
    if subject is None:
        return ""
    source = subject.source
    sheet = "" if source.sheet in ("", source.file) else source.sheet
    row = "" if source.row is None else f"row {source.row}"
    column = f"column {source.column}" if source.column else ""
    place = ", ".join(part for part in (source.file, sheet, row, column) if part)
    return f" ({place})" if place else ""


def _deviation(comparison: Comparison) -> str:
    if comparison.deviation is None:
        return ""
    side = "high" if comparison.deviation > 0 else "low"
    return f"; the submitted value is {100 * abs(comparison.deviation):.1f} % too {side}"


def _submitted(check: Check, shown: Comparison) -> str:
    """Return the submitted value with its place, and the limit of the code that it does not meet."""
    subject = check.subject
    text = (subject.text if subject else "") or figures(shown.theirs)
    unit = f" {subject.unit}" if subject and subject.unit else ""
    verb = "adds up to" if check.added_up else "is submitted as"
    words = f"{_name(check)} {verb} {text}{unit}{_where(subject)}."
    if check.verdict is Verdict.BREACHES and check.limit is not None:
        word = "exceeds the upper limit" if check.limit["side"] == "max" else "is below the minimum"
        words += f" It {word} of {figures(check.limit['value'])}{_unit(check)} ({check.limit['clause']})."
    return words


def _computed(check: Check, shown: Comparison, basis: Basis) -> str:
    """Return our value, the clause it follows and the inputs it is computed from."""
    if not basis.from_rule:
        return f"The review is based on {figures(shown.ours)}{_unit(check)}"
    reference = _reference(check, basis)
    words = f"According to {reference}, we compute" if check.clause else "We compute"
    words += f" {figures(shown.ours)}{_unit(check)}"
    if basis.inputs:
        words += f" from {', '.join(basis.inputs)}"
    if check.carried is not None and shown is check.carried:
        words += " (your upstream values)" if basis.inputs else " from your upstream values"
    return words


def value(check: Check, basis: Basis) -> str:
    """Return the remark on a submitted value that differs from ours or does not meet a limit."""
    shown = check.shown
    if shown is None:
        return ""
    words = f"{_submitted(check, shown)} {_computed(check, shown, basis)}{_deviation(shown)}."
    if check.role is DeviationRole.INHERITED:
        origins = ", ".join(_EXCHANGED_AXES.get(i) or basis.labels.get(i, i) for i in check.rests_on)
        return f"{words} The deviation results from {origins}. Please update the value when this is corrected."
    return f"{words} {_CORRECT}"


def mode(check: Check, basis: Basis) -> str:
    """Return the remark on a value of a mode that differs from the reference model."""
    shown = check.shown
    if shown is None or check.role is DeviationRole.INHERITED:
        return value(check, basis)
    ours = f"{_submitted(check, shown)} The reference model gives {figures(shown.ours)}{_unit(check)}"
    return f"{ours} in {check.note}{_deviation(shown)}. {_CORRECT}"


def target(check: Check, basis: Basis) -> str:
    """Return the remark on the sum of the modal masses."""
    shown = check.shown
    if shown is None:
        return ""
    if check.verdict is Verdict.BREACHES:
        return f"{_submitted(check, shown)} Please include more modes, or add the residual mass."
    ours = f"{_submitted(check, shown)} We compute {figures(shown.ours)}"
    return f"{ours} in {check.note}{_deviation(shown)}. {_CORRECT}"


def consistent(check: Check, basis: Basis) -> str:
    """Return the remark on a value that contradicts other values of the submission."""
    shown = check.shown
    if shown is None:
        return ""
    unit = _unit(check)
    return (
        f"{check.label} is submitted as {figures(shown.theirs)}{unit}{_where(check.subject)}, while other submitted "
        f"values give {figures(shown.ours)}{unit} ({check.note}). Please reconcile them."
    )


def mass(check: Check, basis: Basis) -> str:
    """Return the remark on a mass of the analysis."""
    return consistent(check, basis) if check.level == 1 else value(check, basis)


def sum(check: Check, basis: Basis) -> str:
    """Return the remark on story values that do not add up to their total."""
    shown = check.shown
    if shown is None:
        return ""
    unit = _unit(check)
    return (
        f"{check.label}: the submitted story values add up to {figures(shown.theirs)}{unit}, while the submitted total "
        f"is {figures(shown.ours)}{unit}. Please reconcile them."
    )


def gap(check: Check, basis: Basis) -> str:
    """Return the remark on what the edition requires and the submission does not show."""
    required = f" It is required by {_reference(check, basis)}." if check.clause else ""
    return f"{_sentence(check.note)}{required} Please provide it with its basis."


def axes(check: Check, basis: Basis) -> str:
    """Return the remark on exchanged axes."""
    return f"{_sentence(check.note)} Please state the directions of the axes of the model, and correct the tables."


def missing_mode(check: Check, basis: Basis) -> str:
    """Return the remark on a mode that is missing from the submitted list."""
    return f"{_sentence(check.note)} Please include it, or state why it is omitted."


def taken_from(check: Check, basis: Basis) -> str:
    """Return the remark on a period that belongs to no leading mode."""
    return f"{_sentence(check.note)} Please state which mode it is based on."


def from_note(check: Check, basis: Basis) -> str:
    """Return the note of the check as a sentence, its reference, and the request."""
    gap_ = check.verdict is Verdict.GAP
    request = "Please provide it with its basis." if gap_ else "Please correct it, or state its basis."
    reference = f" Reference: {_reference(check, basis)}." if check.clause else ""
    return f"{_sentence(check.note)}{reference} {request}"


def none(check: Check, basis: Basis) -> str:
    """Return no remark."""
    return ""
