"""The causes of a recheck as a document: slips, what they explain and leave, and what a finding would say."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.causes.search import Cause, Progress, causes_of
from plumb_core.checks.check import Check
from plumb_core.checks.context import Context
from plumb_core.checks.recheck import all_checks, context_of
from plumb_core.checks.result import recheck_result
from plumb_core.checks.verdict import Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents import results
from plumb_core.quantities import QUANTITIES

MOST_NAMED = 6
"""Values that a remark names one by one."""


def recheck_with_causes(document: Any) -> results.RecheckResult:
    """A recheck with the causes of its deviations; raises InputRefused naming every problem."""
    with np.errstate(all="ignore"):
        context = context_of(document)
        checks = all_checks(context)
        answer = recheck_result(context, checks, steps=True)
    answer["causes"] = causes_shown(context, checks)["causes"]
    return answer


def causes_shown(
    context: Context, checks: Sequence[Check], progress: Progress = lambda share: True
) -> results.CausesResult:
    """The causes of a recheck, by weight, and how much they explain."""
    found = causes_of(context, checks, progress)
    by_id = {c.id: c for c in checks}
    deviating = {c.id for c in checks if c.role is not None and c.verdict in (Verdict.DIFFERS, Verdict.BREACHES)}
    origins = {i for cause in found for i in cause.found.origins}
    # what rests on several origins is explained by their causes together
    explained = {i for i in deviating if i in origins or (by_id[i].rests_on and set(by_id[i].rests_on) <= origins)}
    return {
        "causes": [{**_base(context, c, by_id), "others": [_base(context, o, by_id) for o in c.others]} for c in found],
        "explained": len(explained),
        "deviating": len(deviating),
    }


def _base(context: Context, cause: Cause, by_id: Mapping[str, Check]) -> results.CauseBase:
    found = cause.found
    parts = found.attempt.parts or (found.attempt,)
    at = found.at[0]
    return {
        "slips": [
            {
                "code": (cause.code if len(parts) == 1 else part.code) or None,
                "at": [(part.at or at).name, (part.at or at).direction if len(found.at) == 1 else None],
                "words": part.words,
                "parameters": {k: _shown(v) for k, v in part.parameters.items()},
            }
            for part in parts
        ],
        "explains": list(cause.explains),
        "leaves": list(cause.leaves),
        "closeness": float(found.closeness),
        "bits": round(float(found.bits), 1),
        "remark": _remark(context, cause, by_id),
    }


def _shown(value: Any) -> Any:
    if isinstance(value, bool | str | list) or value is None:
        return value
    return float(value)


def _remark(context: Context, cause: Cause, by_id: Mapping[str, Check]) -> str:
    """What was done, what the edition requires, and which values follow from it."""
    origins = [by_id[i] for i in cause.explains if i in cause.found.origins]
    stated = "; ".join(p for p in (_stated(c) for c in origins[:MOST_NAMED]) if p)
    more = len(origins) - MOST_NAMED
    beside = f", and {more} more" if more > 0 else ""
    clause = next((c.clause for c in origins if c.clause), "")
    required = f" It is to be as {context.edition.title}, {clause}, requires." if clause else ""
    below = [by_id[i].label for i in cause.explains if i not in cause.found.origins]
    follows = f" From it follow {_named(below)}." if below else ""
    what = f"{cause.found.attempt.words[:1].upper()}{cause.found.attempt.words[1:]}"
    return f"{what}: {stated}{beside}.{required}{follows} Please correct it, and update what follows from it."


def _stated(check: Check) -> str:
    """The submitted value beside ours."""
    ours = check.carried or check.independent
    if check.subject is None or ours is None:
        return check.label
    unit = QUANTITIES[check.key.name].unit.replace("*", " ")
    unit = f" {unit}" if unit else ""
    written = check.subject.text if check.subject.unit in ("", unit.strip()) else ""
    return f"{check.label} is {written or figures(ours.theirs)}{unit}, where {figures(ours.ours)}{unit} is found"


def _named(labels: Sequence[str]) -> str:
    if len(labels) == 1:
        return labels[0]
    if len(labels) <= MOST_NAMED:
        return f"{', '.join(labels[:-1])} and {labels[-1]}"
    return f"{', '.join(labels[:MOST_NAMED])} and {len(labels) - MOST_NAMED} more values"
