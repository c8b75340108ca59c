"""Runs of the reference model: solved at once or through the queue, stated of, cancelled, kept."""

from __future__ import annotations

import time
from datetime import timedelta
from typing import Any

from django.db import transaction
from django.utils import timezone
from plumb_core import ENGINE
from plumb_core.causes.answer import recheck_with_causes
from plumb_core.errors import InputRefused
from plumb_core.solve import solve

from plumb_server.accounts.models import User
from plumb_server.hashing import input_hash
from plumb_server.reference.models import Run
from plumb_server.reference.work import seconds_of
from plumb_server.reviews.models import Review
from plumb_server.web.queue import defer

AT_ONCE = 0.25
"""s of work that is done within the request; what takes longer goes to the queue."""
RECHECK = "recheck"
"""Kind of a run that rechecks a document."""
AT_ONCE_ENDS = timedelta(seconds=60)
"""Time after which a run within a request is over, one way or the other."""
MOST_ATTEMPTS = 3
"""Times that a run is begun; a model that ends its worker is not begun for ever."""
QUEUE, TASK = "runs", "carry_out_run"
PROGRESS_INTERVAL = 0.25
"""s between notes of progress."""


def too_large(request: dict[str, Any]) -> bool:
    """Whether a request takes longer than a request of the API may: it goes to the queue."""
    return seconds_of(request) > AT_ONCE


def stored_run(review: Review, request: dict[str, Any]) -> Run | None:
    """Return the stored run of a request to the model of a review."""
    return review.runs.filter(input_hash=input_hash(request)).first()


def run_for(
    review: Review | None,
    kind: str,
    request: dict[str, Any],
    asked_by: User | None = None,
    member: int | None = None,
) -> Run:
    """The run that answers a request; an answer that is there is taken from the store, small models are solved at once.

    review, asked_by : whose run it is, one of them
    member : who requests a run of a review
    """
    digest = input_hash(request)
    with transaction.atomic():
        run, created = Run.objects.select_for_update(of=("self",)).get_or_create(
            review=review,
            asked_by=asked_by,
            input_hash=digest,
            defaults={"kind": kind, "engine": ENGINE, "request": request},
        )
        if not created and (_continues(run) or run.status in (Run.Status.DONE, Run.Status.REFUSED)):
            return run
        _reset(run)
        if too_large(request):
            # in the same transaction as the run: one is never there without the other; one at a time, for each takes as
            # much memory as it needs
            defer(TASK, QUEUE, QUEUE, member if asked_by is None else asked_by.pk, run=str(run.pk))
            return run
    return carry_out(run)


def _continues(run: Run) -> bool:
    """Whether a run waits or is worked on.

    One within a request that gave no sign of life is neither: its process ended.
    """
    if not run.open:
        return False
    if too_large(run.request):
        return True
    return timezone.now() - run.seen_at < AT_ONCE_ENDS


def _reset(run: Run) -> None:
    run.status, run.phase, run.share, run.cancel = Run.Status.QUEUED, "", 0.0, False
    run.problems, run.result, run.finished_at, run.attempts = [], None, None, 0
    run.save()


class Cancelled(Exception):
    """Somebody requested the run to stop."""


class _Teller:
    """Notes phase and progress of a run now and then, and stops it where somebody requested that."""

    def __init__(self, run: Run):
        self.run = run
        self.last = 0.0

    def __call__(self, phase: str, share: float) -> None:
        now = time.monotonic()
        if now - self.last < PROGRESS_INTERVAL and phase == self.run.phase:
            return
        self.last = now
        self.run.phase, self.run.share = phase, share
        Run.objects.filter(pk=self.run.pk).update(phase=phase, share=share, seen_at=timezone.now())
        if Run.objects.filter(pk=self.run.pk, cancel=True).exists():
            raise Cancelled


def carry_out(run: Run) -> Run:
    """Solve a run and keep its answer, or why there is none."""
    if run.attempts >= MOST_ATTEMPTS:
        run.status, run.finished_at = Run.Status.FAILED, timezone.now()
        words = f"the analysis stopped its worker {MOST_ATTEMPTS} times"
        run.problems = [{"path": "/", "message": words, "remedy": "Request fewer modes, or use a coarser model."}]
        run.save()
        return run
    run.status, run.attempts = Run.Status.RUNNING, run.attempts + 1
    run.save(update_fields=["status", "attempts", "seen_at"])
    teller = _Teller(run)
    try:
        teller("reading", 0.0)
        if run.kind == RECHECK:
            run.result = dict(recheck_with_causes(run.request))
        else:
            run.result = solve(run.request, teller)
        run.status, run.phase, run.share = Run.Status.DONE, "", 1.0
    except Cancelled:
        run.status = Run.Status.CANCELLED
    except InputRefused as refused:
        run.status, run.problems = Run.Status.REFUSED, [p.as_json() for p in refused.problems]
    except MemoryError:
        run.status = Run.Status.FAILED
        run.problems = [
            {
                "path": "/",
                "message": "the model needs more memory than there is",
                "remedy": "Request fewer modes, or use a coarser model.",
            }
        ]
    except Exception:
        run.status = Run.Status.FAILED
        run.problems = [
            {
                "path": "/",
                "message": "the analysis failed unexpectedly",
                "remedy": "Run it again. If it fails again, contact the operator.",
            }
        ]
        run.finished_at = timezone.now()
        run.save()
        raise
    run.finished_at = timezone.now()
    with transaction.atomic():
        stored = Run.objects.select_for_update().get(pk=run.pk)
        if stored.status == Run.Status.RUNNING:
            run.save()
            return run
    # it was cancelled meanwhile
    return stored


def cancel(run: Run) -> Run:
    """Ask a run to stop; one that has not begun stops at once."""
    with transaction.atomic():
        stored = Run.objects.select_for_update().get(pk=run.pk)
        # one within a request is over soon, or its process ended: nobody waits for it
        if stored.status == Run.Status.QUEUED or (stored.open and not too_large(stored.request)):
            stored.status, stored.finished_at = Run.Status.CANCELLED, timezone.now()
        stored.cancel = stored.open or stored.cancel
        stored.save(update_fields=["status", "finished_at", "cancel"])
    return stored


def stored_answer(review: Review, kind: str, request: dict[str, Any]) -> dict[str, Any] | None:
    """The answer to a request where it is in the store.

    Modes of small models are found for it, all else waits for its run.
    """
    run = stored_run(review, request)
    if run is not None and run.status == Run.Status.DONE:
        return run.result
    if run is None and kind == "modal" and not too_large(request):
        return run_for(review, kind, request).result
    return None
