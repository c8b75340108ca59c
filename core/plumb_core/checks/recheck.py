"""The recheck of a submission: every claim against its independent and its carried value.

*independent*: the edition's rules over the brief's own inputs.  *carried*: the same rules with every other submitted
value pinned.  Where the carried value disagrees the deviation starts here (origin); where only the independent one
does, it is inherited.  The checkers say what is compared; this collects their checks and finds where deviations start.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.answers.reference_model import history_of, model_part, request_to
from plumb_core.checks.catalogue.naming import with_catalogue
from plumb_core.checks.check import Check, is_of_modes
from plumb_core.checks.checkers import checkers
from plumb_core.checks.claims import problems_of
from plumb_core.checks.context import Context
from plumb_core.checks.origins import with_origins
from plumb_core.checks.requirements.status import with_gaps
from plumb_core.checks.result import recheck_result
from plumb_core.documents import results
from plumb_core.documents.reading import read_recheck
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.errors import InputRefused
from plumb_core.quantities import QUANTITIES
from plumb_core.solve import solve

Ask = Callable[[dict[str, Any]], "dict[str, Any] | None"]
"""Answers a request to the reference model; None where there is no answer yet."""
Answers = Mapping[str, "dict[str, Any] | None"]
_ORDER = {name: i for i, name in enumerate(QUANTITIES)}


def recheck(
    document: Any, ask: Ask = solve, *, answers: Answers | None = None, steps: bool = True
) -> results.RecheckResult:
    """Recheck a document; raises InputRefused naming every problem.

    Parameters
    ----------
    document : a recheck document, as JSON or read
    ask : how the reference model is asked; by default it is solved at once
    answers : of the reference model by kind of request, where they are known already; then nothing is asked
    steps : whether the derivations are stated
    """
    # submitted zeros and the like give infinities on the way; the resolver refuses what they lead to
    with np.errstate(all="ignore"):
        context = context_of(document, ask, answers)
        return recheck_result(context, all_checks(context), steps=steps)


def context_of(document: Any, ask: Ask = solve, answers: Answers | None = None) -> Context:
    """The context of a recheck document, with the answers of its reference model to what is claimed."""
    read = document if isinstance(document, RecheckDocument) else read_recheck(document)
    problems = problems_of(read.submission)
    if problems:
        raise InputRefused(problems)
    if answers is None:
        answers = {kind: _answer(ask, kind, request) for kind, request in reference_requests(read).items()}
    return Context.of(read, {kind: answer for kind, answer in answers.items() if answer is not None})


def _answer(ask: Ask, kind: str, request: dict[str, Any]) -> dict[str, Any] | None:
    """The answer of the reference model.

    None where it takes something of the edition that the brief does not have yet.
    """
    try:
        return ask(request)
    except InputRefused:
        # modes rest on the model alone: what refuses them is a fault of the model
        if kind == "modal":
            raise
        return None


MOVEMENTS = ("drift_", "displacement_")


def reference_requests(document: RecheckDocument) -> dict[str, dict[str, Any]]:
    """What the document's reference model has to be asked, by kind: what is claimed that it has something to say to.

    Empty where there is no model, or where it is not stable.
    """
    if document.model is None:
        return {}
    claims = document.submission.claims
    named = {(c.quantity, c.direction) for c in claims}
    modal = {c.name: c.direction for c in document.submission.cases if c.kind == "modal"}
    shears: set[str | None] = {d for q, d in named if q in ("V_dynamic", "V_scaled")}
    shears |= {modal[c.case] for c in claims if c.case in modal and c.quantity.startswith("reaction_")}
    shears |= {modal[c.case] for c in claims if c.case in modal and c.quantity.startswith("displacement_")}
    kinds = ["modal"] if any(is_of_modes(c) for c in claims) else []
    kinds += ["static_response"] if any(q.startswith(MOVEMENTS) for q, _ in named) else []
    kinds += [f"response_{d}" for d in DIRECTIONS if d in shears]
    of_cases = {c.case for c in claims}
    kinds += [history_of(r.case) for r in document.model.records if r.case in of_cases]
    if not kinds:
        return {}
    try:
        part = model_part(document.brief, document.model)
    except InputRefused:
        return {}
    return {kind: request_to(kind, document.brief, document.model, part) for kind in kinds}


def all_checks(context: Context) -> list[Check]:
    """The checks of a context with the codes and questions of the catalogue, and the gaps of the requirements."""
    return ordered(with_gaps(context, with_catalogue(context, checks_of(context))))


def checks_of(context: Context) -> list[Check]:
    """All checks of a context, in the order of the vocabulary, with the origins of their deviations."""
    checks = _with_unique_ids(check for checker in checkers() for check in checker.checks(context))
    return with_origins(ordered(checks), context)


def ordered(checks: Iterable[Check]) -> list[Check]:
    """Checks in the order of the vocabulary."""
    return sorted(checks, key=lambda c: (_ORDER[c.key.name], c.key.direction or "", c.index or 0))


def _with_unique_ids(checks: Iterable[Check]) -> list[Check]:
    """The checks; where a value is stated more than once at its place, what was written states the later ones apart."""
    by_id: dict[str, Check] = {}
    for check in checks:
        if check.id in by_id and check.claim is not None:
            again = replace(check, repeats=check.claim.text or str(check.claim.value))
            by_id.setdefault(again.id, again)
        else:
            by_id[check.id] = check
    return list(by_id.values())
