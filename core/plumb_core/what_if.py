"""What if: a recheck under a changed brief, or with values of one side on the other; nothing is stored.

A change of the brief is a JSON merge patch (RFC 7396).  A value may be taken from the submission in place of ours, or
ours in place of the submitted one.
"""

from __future__ import annotations

import copy
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from plumb_core.causes.answer import causes_shown
from plumb_core.checks.carried import as_option
from plumb_core.checks.check import Check
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.recheck import Answers, all_checks, context_of
from plumb_core.checks.result import recheck_result, sheet_of
from plumb_core.documents import results
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read, read_recheck
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.errors import InputRefused, Problem
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Key

NO_CHECK = ""
"""Verdict of a check that one of the two sides does not have."""


@dataclass(frozen=True)
class Assumptions:
    """What is otherwise.

    Attributes
    ----------
    patch : merge patch of the brief
    theirs : ids of checks whose submitted values stand in place of ours
    ours : ids of checks whose submitted values are replaced by ours
    """

    patch: Any = None
    theirs: Collection[str] = ()
    ours: Collection[str] = ()


def merge_patch(target: Any, patch: Any) -> Any:
    """A document under a JSON merge patch (RFC 7396); neither of them is changed."""
    if not isinstance(patch, Mapping):
        return copy.deepcopy(patch)
    merged = dict(target) if isinstance(target, Mapping) else {}
    for name, value in patch.items():
        if value is None:
            merged.pop(name, None)
        else:
            merged[name] = merge_patch(merged.get(name), value)
    return merged


def flips(before: Iterable[Check], after: Iterable[Check]) -> list[results.Flip]:
    """The checks whose verdicts differ, in the order of the first; then those that came."""
    first = {c.id: c for c in before}
    second = {c.id: c for c in after}
    found: list[results.Flip] = []
    for i in dict.fromkeys((*first, *second)):
        verdicts = [side[i].verdict.value if i in side else NO_CHECK for side in (first, second)]
        if verdicts[0] != verdicts[1]:
            label = (first.get(i) or second[i]).label
            found.append({"check": i, "label": label, "from": verdicts[0], "to": verdicts[1]})
    return found


def patched(document: RecheckDocument, patch: Any) -> RecheckDocument:
    """A recheck document under a merge patch of its brief; raises InputRefused naming what the patch makes wrong."""
    if patch is None:
        return document
    if not isinstance(patch, Mapping):
        raise InputRefused([Problem("", "a patch of the brief has to be an object", 'Write {"site": {...}}.')])
    brief = merge_patch(document.brief.model_dump(mode="json", exclude_none=True, exclude_unset=True), patch)
    return document.model_copy(update={"brief": read(Brief, brief)})


def what_if(document: Any, patch: Any) -> results.RecheckResult:
    """The recheck under a patched brief, with `flips` against the unpatched one."""
    read_document = read_recheck(document)
    with np.errstate(all="ignore"):
        before = all_checks(context_of(read_document))
        context, after = assumed(read_document, before, Assumptions(patch))
        answer = recheck_result(context, after, steps=True)
        answer["causes"] = causes_shown(context, after)["causes"]
    answer["flips"] = flips(before, after)
    return answer


def assumed(
    document: RecheckDocument, before: Sequence[Check], assumptions: Assumptions, answers: Answers | None = None
) -> tuple[Context, list[Check]]:
    """The context and the checks under assumptions.

    Parameters
    ----------
    document : the recheck document
    before : its checks, without the assumptions
    assumptions : what is otherwise
    answers : of the reference model, where they are known
    """
    changed = patched(document, assumptions.patch)
    if assumptions.ours:
        changed = _with_ours(changed, [c for c in before if c.id in assumptions.ours])
    with np.errstate(all="ignore"):
        context = context_of(changed, answers=answers)
        keys = dict.fromkeys(c.key for c in before if c.id in assumptions.theirs)
        pins = {key: value for key in keys if (value := _theirs(context, key)) is not None}
        context = context.assuming(pins=pins) if pins else context
        return context, all_checks(context)


def _theirs(context: Context, key: Key) -> Any:
    """The submitted value of a key; None where the submission does not state it completely."""
    of_key = context.claims.by_key.get(key)
    if of_key is None:
        return None
    if of_key.single:
        return as_option(theirs(of_key.single[0]), context.edition.options.get(key.name, ()))
    if QUANTITIES[key.name].kind is Kind.STORIES and len(of_key.indexed) == len(context.claims.stories):
        return np.array([float(theirs(of_key.indexed[i])) for i in sorted(of_key.indexed)])
    return None


def _with_ours(document: RecheckDocument, checks: Iterable[Check]) -> RecheckDocument:
    """The document with the submitted values of these checks replaced by ours."""
    ours = {}
    for check in checks:
        side = check.independent or check.carried
        if check.claim is not None and side is not None:
            ours[id(check.claim)] = side.ours
    claims = [
        claim
        if id(claim) not in ours
        else claim.model_copy(update={"value": ours[id(claim)], "text": str(ours[id(claim)]), "scale": 1.0})
        for claim in document.submission.claims
    ]
    submission = document.submission.model_copy(update={"claims": claims})
    return document.model_copy(update={"submission": submission})


def counts(checks: Iterable[Check]) -> dict[str, int]:
    """How many checks come to each verdict."""
    found: dict[str, int] = {}
    for check in checks:
        found[check.verdict.value] = found.get(check.verdict.value, 0) + 1
    return found


def shown(
    document: RecheckDocument, before: Sequence[Check], assumptions: Assumptions, answers: Answers | None = None
) -> results.WhatIf:
    """The recheck under assumptions, the verdicts that flip, and the counts without the assumptions."""
    context, after = assumed(document, before, assumptions, answers)
    with np.errstate(all="ignore"):
        sheet = sheet_of(recheck_result(context, after, steps=True))
    return {"sheet": sheet, "flips": flips(before, after), "before": counts(before)}
