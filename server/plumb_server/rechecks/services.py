"""Rechecks of a review as it stands, computed once for the same question."""

from __future__ import annotations

from typing import Any

from django.db.models import Count, Max
from plumb_core.checks.recheck import own_requests
from plumb_core.checks.recheck import recheck as core_recheck
from plumb_core.documents.reading import read_recheck
from plumb_core.documents.recheck import FORMAT, FORMAT_VERSION

from plumb_server.hashing import input_hash
from plumb_server.rechecks.models import Recheck
from plumb_server.reference.models import Run, current_model
from plumb_server.reference.runs import stored_answer
from plumb_server.reviews.models import BriefRevision, Review
from plumb_server.submissions.models import Submission


def review_document(
    review: Review, submission: Submission | None, revision: BriefRevision | None = None
) -> dict[str, Any]:
    """The recheck document of a review as it stands: its brief, a submission and, where there is one, its own model."""
    model = current_model(review)
    return {
        **({"model": model.document} if model else {}),
        "format": FORMAT,
        "version": FORMAT_VERSION,
        "brief": (revision or review.current_brief()).document,
        "submission": submission.as_document() if submission else {"label": "S0", "claims": []},
    }


def run_recheck(review: Review, submission: Submission | None, revision: BriefRevision | None = None) -> Recheck:
    """The recheck of a review as it stands, from the store where the same question was asked before."""
    revision = revision or review.current_brief()
    state = _state(review, submission, revision)
    if known := review.rechecks.filter(state=state).first():
        return known
    document = review_document(review, submission, revision)
    requests = own_requests(read_recheck(document)) if "model" in document else {}
    answers = {input_hash(r): stored_answer(review, kind, r) for kind, r in requests.items()}
    # with the answers of our own model more can be said than without
    answered = sorted(kind for kind, r in requests.items() if answers[input_hash(r)] is not None)
    digest = input_hash(document | {"answered": answered})
    # an answer that was found on the way is a state of its own
    state = _state(review, submission, revision)
    stored = review.rechecks.filter(input_hash=digest).first()
    if stored:
        stored.state = state
        stored.save(update_fields=["state"])
        return stored
    fresh = Recheck.of(review, digest, state, core_recheck(document, lambda request: answers[input_hash(request)]))
    # where two requests ask the same at once, both have the same answer and one of them is kept
    Recheck.objects.bulk_create([fresh], ignore_conflicts=True)
    return fresh


def _state(review: Review, submission: Submission | None, revision: BriefRevision) -> str:
    """Hash of the revisions that a recheck rests on; none of them has to be read for it."""
    model = current_model(review)
    done = review.runs.filter(status=Run.Status.DONE).aggregate(count=Count("pk"), last=Max("finished_at"))
    return input_hash(
        {
            "brief": [revision.pk, revision.number],
            "submission": submission.state() if submission else None,
            "model": [model.pk, model.number] if model else None,
            "runs": [done["count"], str(done["last"])],
        }
    )
