"""What if: a recheck under a changed brief, or with values of one side on the other; nothing is stored.

A change of the brief is a JSON merge patch (RFC 7396).  A value may be taken from the submission in place of ours, or
ours in place of the submitted one.
"""

from __future__ import annotations

import copy
from collections.abc import Iterable, Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.causes.answer import causes_shown
from plumb_core.checks.carried import as_option
from plumb_core.checks.check import Check
from plumb_core.checks.claims import theirs
from plumb_core.checks.context import Context
from plumb_core.checks.recheck import all_checks, context_of
from plumb_core.checks.result import recheck_result
from plumb_core.documents import results
from plumb_core.errors import InputRefused, Problem
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Key

NO_CHECK = ""
"""Verdict of a check that one of the two sides does not have."""


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


def patched(document: Mapping[str, Any], patch: Any) -> dict[str, Any]:
    """A recheck document under a merge patch of its brief; raises InputRefused for a patch that is no object."""
    if not isinstance(patch, Mapping):
        raise InputRefused([Problem("", "a patch of the brief is an object", 'Write {"site": {...}}.')])
    return {**document, "brief": merge_patch(document.get("brief"), patch)}


def what_if(document: Mapping[str, Any], patch: Any) -> results.RecheckResult:
    """The recheck under a patched brief, with `flips` against the unpatched one."""
    with np.errstate(all="ignore"):
        before = all_checks(context_of(document))
        context = context_of(patched(document, patch))
        after = all_checks(context)
        answer = recheck_result(context, after, steps=True)
    answer["causes"] = causes_shown(context, after)["causes"]
    answer["flips"] = flips(before, after)
    return answer


def assumed(
    document: Mapping[str, Any], patch: Any, take_theirs: Sequence[Key] = (), take_ours: Sequence[str] = ()
) -> tuple[Context, list[Check]]:
    """The context and the checks under assumptions.

    Parameters
    ----------
    document, patch : the recheck document, and the merge patch of its brief
    take_theirs : keys whose submitted values stand in place of ours
    take_ours : ids of checks whose submitted values are replaced by ours
    """
    with np.errstate(all="ignore"):
        changed = patched(document, patch)
        if take_ours:
            changed = _with_ours(changed, frozenset(take_ours))
        context = context_of(changed)
        pins = {key: value for key in take_theirs if (value := _theirs(context, key)) is not None}
        if pins:
            context = context.assuming(pins=pins)
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


def _with_ours(document: dict[str, Any], ids: frozenset[str]) -> dict[str, Any]:
    """The document with the submitted values of these checks replaced by ours."""
    context = context_of(document)
    ours: dict[int, float | str] = {}
    for check in all_checks(context):
        side = check.independent or check.carried
        if check.id in ids and check.claim is not None and side is not None:
            ours[id(check.claim)] = side.ours
    claims = document["submission"]["claims"]
    replaced = []
    for given, claim in zip(claims, context.claims.claims, strict=True):
        value = ours.get(id(claim))
        changed = value is not None
        text = value if isinstance(value, str) else None if value is None else f"{value / claim.scale!r}"
        replaced.append({**given, "value": value, "text": text} if changed else given)
    return {**document, "submission": {**document["submission"], "claims": replaced}}
