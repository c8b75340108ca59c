"""Rechecks of a review in its present state, computed once for the same question."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass
from threading import Lock
from typing import Any

import numpy as np
from cachetools import LRUCache
from django.db.models import Count, Max
from plumb_core.checks.check import Check
from plumb_core.checks.recheck import all_checks, context_of, reference_requests
from plumb_core.checks.recheck import recheck as core_recheck
from plumb_core.documents import results
from plumb_core.documents import submission as core
from plumb_core.documents.reading import read_recheck
from plumb_core.documents.recheck import FORMAT, FORMAT_VERSION, RecheckDocument
from plumb_core.sensitivity import sensitivity
from plumb_core.what_if import Assumptions
from plumb_core.what_if import shown as what_if

from plumb_server.hashing import input_hash
from plumb_server.rechecks.models import STORED, Recheck
from plumb_server.reference.models import Run, current_model
from plumb_server.reference.runs import stored_answer
from plumb_server.reviews.models import BriefRevision, OfficeThresholds, Review
from plumb_server.submissions.models import Submission
from plumb_server.web.limits import one_at_a_time


def review_document(
    review: Review, submission: Submission | None, revision: BriefRevision | None = None
) -> dict[str, Any]:
    """The recheck document of a review in its present state.

    Its brief, a submission and, where there is one, its reference model.
    """
    model = current_model(review)
    return {
        **({"model": model.document} if model else {}),
        "format": FORMAT,
        "version": FORMAT_VERSION,
        "brief": _with_thresholds((revision or review.current_brief()).document),
        "submission": submission.as_document() if submission else {"label": "S0", "claims": []},
        **({"open": parts} if (parts := _open_parts(submission)) else {}),
    }


def _with_thresholds(brief: dict[str, Any]) -> dict[str, Any]:
    """A brief with the office's thresholds, under those of its own."""
    office = OfficeThresholds.current().document
    return brief | {"thresholds": {**office, **brief.get("thresholds", {})}} if office else brief


def _open_parts(submission: Submission | None) -> list[dict[str, Any]]:
    """What was submitted and is not read yet, as the core's documents have it."""
    parts = submission.open_parts() if submission else []
    return [part.model_dump(mode="json", exclude_none=True) for part in parts]


def run_recheck(review: Review, submission: Submission | None, revision: BriefRevision | None = None) -> Recheck:
    """The recheck of a review in its present state, from the store where the same question was asked before."""
    submitted = submission.state() if submission else None
    numbers = _numbers(review, submitted, revision)
    state = input_hash(numbers)
    # What it holds is read when it is required: a screen that has it already requests its name alone
    if known := _known(review, state):
        return known
    with one_at_a_time(f"recheck {state}"):
        # another request may have computed it while this one waited
        return _known(review, state) or _computed(review, submission, revision, numbers)


def _known(review: Review, state: str) -> Recheck | None:
    return review.rechecks.filter(state=state).defer(*STORED).first()


def read_document(
    review: Review, submission: Submission | None, revision: BriefRevision | None = None
) -> tuple[RecheckDocument, dict[str, dict[str, Any] | None]]:
    """The recheck document of a review as the core reads it, and the answers of its reference model."""
    document = review_document(review, None, revision)
    return _read(review, submission, document, submission.state() if submission else None)


def _read(
    review: Review, submission: Submission | None, document: dict[str, Any], submitted: dict[str, Any] | None
) -> tuple[RecheckDocument, dict[str, dict[str, Any] | None]]:
    read = read_recheck(document)
    if submission and submitted:
        cases = [core.LoadCase.model_validate(case) for case in submitted["cases"]]
        read.submission = core.Submission.made_of(
            label=submission.label, cases=cases, claims=_cached(submission, submitted).claims
        )
        # submitted tables that are not read yet are not missing
        read.open = submission.open_parts()
    answers = {kind: stored_answer(review, kind, request) for kind, request in reference_requests(read).items()}
    return read, answers


@dataclass(frozen=True)
class Prepared:
    """A recheck of a review as assumptions start from it."""

    document: RecheckDocument
    answers: dict[str, dict[str, Any] | None]
    checks: list[Check]


_prepared: LRUCache[str, Prepared] = LRUCache(8)


def prepared(review: Review, submission: Submission | None) -> Prepared:
    """The document of a review and its checks; of the same question they are held, as one is varied many times."""
    digest = run_recheck(review, submission).input_hash
    with _LOCK:
        held = _prepared.get(digest)
    if held is None:
        document, answers = read_document(review, submission)
        with np.errstate(all="ignore"):
            held = Prepared(document, answers, all_checks(context_of(document, answers=answers)))
        with _LOCK:
            _prepared[digest] = held
    return held


def what_if_of_review(review: Review, submission: Submission | None, assumptions: Assumptions) -> results.WhatIf:
    """The recheck of a review under assumptions; nothing is stored."""
    held = prepared(review, submission)
    return what_if(held.document, held.checks, assumptions, held.answers)


def sensitivity_of_review(review: Review, submission: Submission | None) -> list[results.Sensitivity]:
    """What each doubtful input of a review changes, by its greatest effect."""
    held = prepared(review, submission)
    return sensitivity(held.document, held.answers)


def _computed(
    review: Review, submission: Submission | None, revision: BriefRevision | None, numbers: dict[str, Any]
) -> Recheck:
    submitted = numbers["submission"]
    current = _cached(submission, submitted) if submission else None
    document = review_document(review, None, revision)
    read, answers = _read(review, submission, document, submitted)
    # with the answers of the reference model more can be said than without
    answered = sorted(kind for kind, answer in answers.items() if answer is not None)
    reported = {"label": submission.label, "cases": submitted["cases"]} if submission else {}
    if read.open:
        reported["open"] = [part.model_dump(mode="json", exclude_none=True) for part in read.open]
    digest = input_hash(document | {"answered": answered, "submission": reported, "claims": current and current.digest})
    # an answer that was found on the way is a state of its own
    state = input_hash(numbers | {"runs": _runs(review)})
    stored = review.rechecks.filter(input_hash=digest).defer(*STORED).first()
    if stored:
        stored.state = state
        stored.save(update_fields=["state"])
        return stored
    fresh = Recheck.store(review, submission, digest, state, core_recheck(read, answers=answers))
    if review.rechecks.count() > RETAINED + PRUNED_AT_ONCE:
        _prune(review)
    return fresh


@dataclass(frozen=True)
class _CachedSubmission:
    """The claims of a submission as the core reads them, and the hash of what they say."""

    claims: list[core.Claim]
    digest: str


CACHED_CLAIMS = 250_000
"""Claims that a process holds of the submissions it rechecked last: they change only with their tables."""
_LOCK = Lock()
_cached_submissions: LRUCache[tuple[int, tuple[int, ...]], _CachedSubmission] = LRUCache(
    CACHED_CLAIMS, getsizeof=lambda cached: len(cached.claims) + 1
)


def _cached(submission: Submission, submitted: dict[str, Any]) -> _CachedSubmission:
    key = (submission.pk, tuple(submitted["tables"]))
    with _LOCK:
        stored = _cached_submissions.get(key)
    if stored is None:
        # read outside of the lock: other threads do not wait for the database
        stored = _CachedSubmission(*submission.claims.as_core())
        # one that is larger than the cache is not stored, and none that changed while it was read
        if submission.state()["tables"] == submitted["tables"]:
            with _LOCK, suppress(ValueError):
                _cached_submissions[key] = stored
    return stored


def claims_as_core(submission: Submission) -> list[core.Claim]:
    """The values that a submission states."""
    return _cached(submission, submission.state()).claims


def claims_of(submission: Submission | None) -> int:
    """How many values a submission states."""
    return len(claims_as_core(submission)) if submission else 0


RETAINED = 20
"""Rechecks of a review that are kept, the newest, beside those that are kept anyway."""
PRUNED_AT_ONCE = 10


def _prune(review: Review) -> None:
    """Drop what nobody requires any more.

    Kept are the newest, the last of each submission, and those that reports name.
    """
    newest = list(review.rechecks.order_by("-at").values_list("pk", flat=True)[:RETAINED])
    last = review.rechecks.order_by("submission_id", "-at").distinct("submission_id").values_list("pk", flat=True)
    named = review.reports.values("input_hash")
    review.rechecks.exclude(pk__in=[*newest, *last]).exclude(input_hash__in=named).delete()


def _numbers(review: Review, submitted: dict[str, Any] | None, revision: BriefRevision | None) -> dict[str, Any]:
    """Which revisions a recheck rests on; none of them has to be read for it."""
    number = revision.number if revision else review.briefs.values_list("number", flat=True).first()
    return {
        "review": str(review.pk),
        "brief": number,
        "submission": submitted,
        "model": review.model_revisions.values_list("number", flat=True).first(),
        "thresholds": OfficeThresholds.current_revision(),
        "runs": _runs(review),
    }


def _runs(review: Review) -> list[Any]:
    done = review.runs.filter(status=Run.Status.DONE).aggregate(count=Count("pk"), last=Max("finished_at"))
    return [done["count"], str(done["last"])]
