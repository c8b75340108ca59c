"""Searches for causes: of small rechecks in the request, of large ones as jobs that can be stopped."""

from __future__ import annotations

import time

import numpy as np
from django.conf import settings
from django.db import transaction
from plumb_core.causes.answer import causes_shown
from plumb_core.causes.search import Progress
from plumb_core.checks.recheck import all_checks, context_of

from plumb_server.rechecks.models import CauseSearch, Recheck
from plumb_server.rechecks.services import claims_of, read_document, run_recheck
from plumb_server.reviews.models import Review
from plumb_server.submissions.models import Submission
from plumb_server.web.queue import defer

QUEUE, TASK = "causes", "find_causes"
AT_ONCE = 2_000
"""Claims whose causes are found in the request, in a tenth of a second; of 10,000 it takes a second."""
MOST_ATTEMPTS = 3
PROGRESS_INTERVAL = 0.25
"""s between notes of progress."""
Status = CauseSearch.Status


class Stopped(Exception):
    """Somebody requested the search to stop."""


def causes_of_review(review: Review, submission: Submission | None) -> bytes:
    """The causes of the deviations of a review, as compressed JSON; found once for the same question."""
    recheck = run_recheck(review, submission)
    if recheck.causes_gz is None:
        _find(recheck, review, submission, lambda share: True)
    return bytes(recheck.causes_gz or b"")


def _find(recheck: Recheck, review: Review, submission: Submission | None, progress: Progress) -> None:
    read, answers = read_document(review, submission)
    with np.errstate(all="ignore"):
        context = context_of(read, answers=answers)
        recheck.store_causes(causes_shown(context, all_checks(context), progress))


def search_for(
    review: Review, submission: Submission | None, member: int, *, again: bool = False
) -> CauseSearch | None:
    """The search that a large recheck waits for; None where the causes are there, or are found at once.

    member : who asks
    again : whether one that was stopped or failed is begun anew
    """
    recheck = run_recheck(review, submission)
    if recheck.causes_gz is not None or claims_of(submission) <= AT_ONCE:
        return None
    with transaction.atomic():
        # of two that ask at once one creates it
        search, created = CauseSearch.objects.select_for_update().get_or_create(recheck=recheck)
        if not created and (search.open or not again):
            return search
        search.status, search.share, search.attempts = Status.QUEUED, 0.0, 0
        search.save()
        if not settings.JOBS_AT_ONCE:
            defer(TASK, QUEUE, f"{QUEUE} of {review.pk}", member, search=str(search.pk))
    if settings.JOBS_AT_ONCE:
        carry_out(search)
    return search


def stop(review: Review, submission: Submission | None) -> CauseSearch | None:
    """Stop the search of a recheck, where one waits or runs."""
    recheck = run_recheck(review, submission)
    CauseSearch.objects.filter(recheck=recheck, status__in=(Status.QUEUED, Status.RUNNING)).update(
        status=Status.STOPPED
    )
    return CauseSearch.objects.filter(recheck=recheck).first()


def carry_out(search: CauseSearch) -> None:
    """Find the causes of a recheck; one that was stopped meanwhile keeps none."""
    attempts = search.attempts + 1
    status = Status.RUNNING if attempts <= MOST_ATTEMPTS else Status.FAILED
    if not _note(search, status=status, attempts=attempts) or status == Status.FAILED:
        return
    recheck = Recheck.objects.select_related("review", "submission").get(pk=search.recheck_id)
    if run_recheck(recheck.review, recheck.submission).pk != recheck.pk:
        # the review has changed meanwhile, and requires a search of its own
        _note(search, status=Status.STOPPED)
        return
    last = time.monotonic()

    def progress(share: float) -> bool:
        nonlocal last
        if time.monotonic() - last >= PROGRESS_INTERVAL:
            last = time.monotonic()
            if not _note(search, share=share):
                raise Stopped
        return True

    try:
        _find(recheck, recheck.review, recheck.submission, progress)
    except Stopped:
        return
    except Exception:
        _note(search, status=Status.FAILED)
        raise
    _note(search, status=Status.DONE, share=1.0)


def _note(search: CauseSearch, **values: object) -> bool:
    """Note how far a search is; false where it was stopped."""
    noted = CauseSearch.objects.filter(pk=search.pk, status__in=(Status.QUEUED, Status.RUNNING)).update(**values)
    if noted:
        for name, value in values.items():
            setattr(search, name, value)
    return noted == 1
