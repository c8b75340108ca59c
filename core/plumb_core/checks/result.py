"""The result document of a recheck: that of a context and its checks."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence

from plumb_core import DIRECTIONS, ENGINE
from plumb_core.checks.check import Check
from plumb_core.checks.compare import Comparison
from plumb_core.checks.context import Context
from plumb_core.checks.coverage import coverage
from plumb_core.checks.facts import facts_shown
from plumb_core.checks.kinds import KINDS
from plumb_core.checks.requirements.status import requirements_shown
from plumb_core.checks.stages.shown import stages_shown
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import Basis, figures
from plumb_core.derivation import key_id, steps_json
from plumb_core.documents import results
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Evaluation, Key

SHOWN_QUANTITIES = ("design_category", "S_a", "V_story", "M_story", "F_px", "h_x")
"""What the screens show in addition to the checks."""


def recheck_result(context: Context, checks: Sequence[Check], *, steps: bool) -> results.RecheckResult:
    """The result document of a recheck."""
    # deviations; a question or a note of the catalogue that is linked to its cause is none
    used_by = Counter(origin for c in checks if c.kind != "catalogue" for origin in c.rests_on)
    verdicts = Counter(c.verdict for c in checks)
    labels = {c.id: c.label for c in checks}
    requirements = requirements_shown(context, checks)
    if steps:
        _evaluate_what_is_shown(context)
    return {
        "engine": ENGINE,
        "edition": context.brief.edition,
        "submission": context.submission,
        "stories": list(context.claims.stories),
        "checks": [_check(c, used_by[c.id], _basis(context, c, labels)) for c in checks],
        "origins": [c.id for c in checks if c.role is DeviationRole.ORIGIN],
        "counts": _counts(verdicts),
        "coverage": coverage(context, checks, requirements),
        "requirements": requirements,
        "steps": {
            "independent": steps_json(context.independent) if steps else [],
            "carried": steps_json(context.carried) if steps else [],
        },
        "modes": _modes(context),
        "stages": stages_shown(context, checks),
        "facts": facts_shown(context.independent, checks),
        "notes": [*_notes(context.independent), *_cases_of_reviewer(context)],
        "two_stage": {"X": _two_stage(context.independent, "X"), "Y": _two_stage(context.independent, "Y")},
    }


MOST_LISTED = 500
"""Values without a recheck that the sheet names one by one."""


def sheet_of(recheck: results.RecheckResult) -> results.RecheckSheet:
    """A recheck as the screens have it, without its derivations."""
    retained = {part: content for part, content in recheck.items() if part not in ("steps", "causes", "flips")}
    values = [{part: step[part] for part in ("id", "value", "source")} for step in recheck["steps"]["independent"]]
    listed = recheck["coverage"]
    # a large submission may have ten thousands of them: the screens say how many, and why
    coverage = {**listed, **{part: listed[part][:MOST_LISTED] for part in ("unchecked", "not_rechecked")}}
    return {**retained, "coverage": coverage, "values": values}  # type: ignore[typeddict-item]


def _counts(verdicts: Counter[Verdict]) -> results.Counts:
    return {
        "agrees": verdicts[Verdict.AGREES],
        "differs": verdicts[Verdict.DIFFERS],
        "breaches": verdicts[Verdict.BREACHES],
        "question": verdicts[Verdict.QUESTION],
        "note": verdicts[Verdict.NOTE],
        "gap": verdicts[Verdict.GAP],
        "open": verdicts[Verdict.OPEN],
    }


def _basis(context: Context, check: Check, labels: Mapping[str, str]) -> Basis:
    """Return what the remark of a check refers to: the edition, and the inputs of our value."""
    if check.verdict not in (Verdict.DIFFERS, Verdict.BREACHES, Verdict.GAP, Verdict.QUESTION):
        return _NO_BASIS
    evaluation = context.carried if check.shown_side == "carried" else context.independent
    if check.kind != "value" or evaluation.get(*check.key) is None:
        return Basis(context.edition.title, labels=labels)
    try:
        keys = evaluation.unpinned(check.key).inputs
    except (MissingInput, RuleRefused):
        keys = ()
    inputs = tuple(words for key in keys if (words := _in_words(key, evaluation.get(*key))))
    return Basis(context.edition.title, inputs, labels, from_rule=bool(keys))


def _in_words(key: Key, value: object) -> str:
    """Return an input of our value as symbol and value; empty for arrays and structured data."""
    quantity = QUANTITIES[key.name]
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        return ""
    if quantity.kind is Kind.TEXT:
        return f"{quantity.symbol} {value}"
    unit = quantity.unit.replace("*", " ")
    return f"{quantity.symbol} = {figures(value)}{f' {unit}' if unit else ''}"


_NO_BASIS = Basis()


def _check(check: Check, used_by: int, basis: Basis) -> results.CheckResult:
    quantity = QUANTITIES[check.key.name]
    claim, shown = check.subject, check.shown
    kind = KINDS[check.kind]
    return {
        "id": check.id,
        "kind": check.kind,
        "quantity": check.key.name,
        "direction": check.key.direction,  # type: ignore[typeddict-item]
        "story": claim.story if claim else None,
        "point": claim.point if claim else None,
        "mode": check.index + 1 if quantity.kind is Kind.MODES and check.index is not None else None,
        "case": claim.case if claim else "",
        "stage": quantity.stage,
        "label": check.label,
        "symbol": quantity.symbol,
        "symbol_tex": quantity.tex,
        "meaning": quantity.meaning,
        "unit": quantity.unit,
        "clause": check.clause,
        "theirs": None
        if claim is None
        else {
            "value": claim.value,
            "text": claim.text,
            "unit": claim.unit,
            "source": {
                "file": claim.source.file,
                "sheet": claim.source.sheet,
                "row": claim.source.row,
                "column": claim.source.column,
                "note": claim.source.note,
            },
        },
        "carried": _side(check.carried),
        "independent": _side(check.independent),
        "shown": check.shown_side,
        "multiples": shown.multiples if shown else None,
        "verdict": check.verdict.value,
        "role": check.role.value if check.role else None,
        "level": check.level,
        "limit": check.limit,
        "follows": check.follows,
        "rests_on": list(check.rests_on),
        "used_by": used_by,
        "step": key_id(Key(check.key.name if kind.step is None else kind.step, check.key.direction, check.key.case)),
        "note": check.note,
        "slip": check.slip or None,
        "draft": check.draft(basis),
    }


def _side(comparison: Comparison | None) -> results.ComparisonResult | None:
    if comparison is None:
        return None
    return {
        "value": comparison.ours,
        "deviation": comparison.deviation,
        "multiples": comparison.multiples,
        "tolerance": comparison.tolerance,
        "agrees": comparison.agrees,
    }


def _evaluate_what_is_shown(context: Context) -> None:
    """Evaluate the further results of the screens, as far as the inputs allow, so that their steps are listed."""
    for name in SHOWN_QUANTITIES:
        for direction in DIRECTIONS:
            for evaluation in (context.independent, context.carried):
                evaluation.get(name, direction)


def _two_stage(evaluation: Evaluation, direction: str) -> results.TwoStage | None:
    stages: results.TwoStage | None = evaluation.get("two_stage", direction)
    return stages


def _cases_of_reviewer(context: Context) -> list[str]:
    """Which load cases have a role that the submission did not give them."""
    return [
        f"the role of the load case {case.name} is the reviewer's, not the submission's"
        for case in context.claims.cases.values()
        if case.by_reviewer
    ]


def _notes(evaluation: Evaluation) -> list[str]:
    notes = list(evaluation.get("ground_notes") or [])
    for direction in DIRECTIONS:
        notes += [f"{direction}: {note}" for note in evaluation.get("static_notes", direction) or []]
    return notes


def _modes(context: Context) -> results.SubmittedModes | None:
    """The submitted modes for the screens; None where none are."""
    table = context.claims.modes
    if not table.numbers:
        return None
    target = context.limit_step("mass_target", None) if "mass_target" in context.independent.rules else None
    theirs: list[results.TheirMode] = [
        {
            "mode": number + 1,
            "T": part.T,
            "mass_ratio": part.mass_ratio,  # type: ignore[typeddict-item]
            "shape": [row.model_dump() for row in part.shape] if part.shape else None,  # type: ignore[misc]
        }
        for number, part in zip(table.numbers, table.submitted(), strict=True)
    ]
    return {
        "theirs": theirs,
        "comparison": context.modes_compared,
        "target": None if target is None else float(target.value),
    }
