"""What was stored before submissions had an app and load cases of their own.

Before checks were named by their place.
"""

from __future__ import annotations

import hashlib
from typing import Any

import pytest
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.utils import timezone
from plumb_server.accounts.models import User
from plumb_server.findings.models import Finding
from plumb_server.reviews.models import Review
from plumb_server.submissions.models import Submission

EARLIER = [
    ("accounts", "0002_counts"),
    ("findings", "0001_initial"),
    ("reviews", "0003_a_state_holds_a_document"),
    ("submissions", None),
    ("rechecks", None),
]
"""The state that the first round left."""


def migrate(targets: list[tuple[str, str | None]] | None = None) -> Any:
    """Bring the database to a state; returns its models."""
    executor = MigrationExecutor(connection)
    goal: Any = targets or executor.loader.graph.leaf_nodes()
    # rows written in this transaction are checked now: a table with checks outstanding cannot be altered
    with connection.cursor() as cursor:
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
    executor.migrate(goal)
    executor.loader.build_graph()
    return executor.loader.project_state([t for t in goal if t[1] is not None]).apps


CHECK = {
    "id": "F.X.L1.Static X#2",
    "quantity": "F",
    "theirs": {"text": "120", "value": 120.0},
    "carried": {"value": 100.0},
    "independent": {"value": 90.0},
    "role": "origin",
    "rests_on": ["mass_sum.X"],
    "derivation": [{"id": "F.X", "value": [1.0]}],
}
OLD_CLAIMS = [
    {"quantity": "F", "direction": "X", "story": "L1", "case": "Static X", "number": -120.0, "text": "-120"},
    {"quantity": "F", "direction": "X", "story": "L2", "case": "Static X", "number": 80.0, "text": "80"},
    {"quantity": "F", "direction": "Y", "story": "L1", "case": "EQ", "number": 10.0, "text": "10"},
    {"quantity": "F", "direction": "X", "story": "L1", "case": "EQ", "number": 10.0, "text": "10"},
    {"quantity": "W", "number": 5000.0, "text": "5000"},
]


def left_by_the_first_round(earlier: Any) -> tuple[Any, int]:
    """A review with an accepted submission and a finding, as they were stored; ids of the review and the finding."""
    of = earlier.get_model
    author = of("accounts", "User").objects.first()
    review = of("reviews", "Review").objects.create(title="Old Wharf Mill")
    submission = of("reviews", "Submission").objects.create(review=review, number=0, author=author)
    exhibit = of("reviews", "Exhibit").objects.create(
        submission=submission, name="forces.csv", data=b"F", size=1, sha256=hashlib.sha256(b"F").hexdigest()
    )
    mapping = {"header_row": 0, "columns": {"F": 2}}
    table = of("reviews", "ClaimTable").objects.create(exhibit=exhibit, kind="forces", sheet="", mapping=mapping)
    for claim in OLD_CLAIMS:
        of("reviews", "Claim").objects.create(table=table, submission=submission, **claim)
    submission.status, submission.accepted_at = "accepted", timezone.now()
    submission.save()
    finding = of("findings", "Finding").objects.create(
        review=review,
        number=1,
        title="Forces",
        text="Too low.",
        checks=[CHECK["id"], "mass_sum.X"],
        evidence=[CHECK],
        submission=submission,
        author=author,
    )
    return review.pk, finding.pk


@pytest.mark.django_db
def test_what_the_first_round_stored_is_kept(demo: None) -> None:
    assert User.objects.exists()
    review_id, finding_id = left_by_the_first_round(migrate(EARLIER))
    migrate()
    review = Review.objects.get(pk=review_id)
    submission = review.submissions.get()
    assert submission.status == Submission.Status.ACCEPTED
    assert [(c.text, c.number) for c in submission.claims.all()] == [(c["text"], c["number"]) for c in OLD_CLAIMS]
    (table,) = submission.exhibits.get().tables.all()
    assert table.reading == {"header_row": 0, "columns": {"F": 2}}
    # the cases that its claims name; one whose claims go both ways has no direction of its own
    assert {(c.name, c.direction, c.kind) for c in submission.cases.all()} == {
        ("Static X", "X", "static"),
        ("EQ", None, None),
    }
    finding = Finding.objects.get(pk=finding_id)
    assert finding.submission == submission
    assert finding.checks == ["F.X.L1.Static X", "target_mass_sum.X"]
    (evidence,) = finding.evidence
    assert (evidence["id"], evidence["kind"], evidence["shown"]) == ("F.X.L1.Static X", "value", "carried")
    assert evidence["rests_on"] == ["target_mass_sum.X"]
    assert evidence["derivation"] == [{"id": "F.X", "value": [1.0], "case": None}]


@pytest.mark.django_db
def test_an_accepted_submission_stays_as_it_is_after_the_change(demo: None) -> None:
    review_id, _ = left_by_the_first_round(migrate(EARLIER))
    migrate()
    claim = Review.objects.get(pk=review_id).submissions.get().claims.first()
    assert claim is not None
    claim.text = "changed"
    with pytest.raises(Exception, match="accepted submission"):
        claim.save()
