"""The office's thresholds: set by its administrator, used by every review that has none of its own."""

from __future__ import annotations

from typing import Any

import pytest
from asking import Api
from plumb_server.demo.people import OFFICE
from plumb_server.rechecks.services import review_document, run_recheck
from plumb_server.reviews.models import OfficeThresholds, Review

pytestmark = pytest.mark.django_db
AT = "/api/office/thresholds/"


def slips(review: Review) -> dict[str, str]:
    sheet = run_recheck(review, review.submissions.latest_with_values()).sheet
    return {c["id"]: c["verdict"] for c in sheet["checks"]}


def test_nothing_is_set_at_first(demo: None) -> None:
    assert Api(OFFICE).get(AT).json() == {"thresholds": {}, "revision": 0, "author": None, "updated_at": None}
    assert not OfficeThresholds.objects.exists()


def test_what_the_office_sets_is_used_by_every_review_that_states_none(clinic: Review) -> None:
    office = Api(OFFICE)
    before = slips(clinic)
    answer = office.send("PUT", AT, {"tolerance": 0.2}, based_on=0)
    assert answer.status_code == 200, answer.json()
    assert (answer.json()["thresholds"], answer.json()["revision"]) == ({"tolerance": 0.2}, 1)
    after = slips(clinic)
    off = [{i for i, v in found.items() if v == "differs"} for found in (before, after)]
    # twenty times the usual tolerance: only what is far off is left
    assert off[1] < off[0]
    assert "F_v" in off[1]
    # the brief of the review comes first
    assert review_document(clinic, None)["brief"]["thresholds"] == {"tolerance": 0.2}
    assert office.send("PUT", AT, {}, based_on=1).status_code == 200
    assert slips(clinic) == before


@pytest.mark.parametrize(
    ("sent", "path"),
    [({"tolerance": 2.0}, "/tolerance"), ({"period_ratio": [3, 1]}, "/period_ratio"), ({"mood": 1}, "/mood")],
)
def test_a_threshold_that_cannot_be_is_refused_and_nothing_is_saved(
    demo: None, sent: dict[str, Any], path: str
) -> None:
    answer = Api(OFFICE).send("PUT", AT, sent, based_on=0)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["path"] == path
    assert OfficeThresholds.current().revision == 0


def test_two_administrators_do_not_overwrite_each_other(demo: None) -> None:
    office = Api(OFFICE)
    assert office.send("PUT", AT, {"tolerance": 0.02}, based_on=0).status_code == 200
    assert office.send("PUT", AT, {"tolerance": 0.03}, based_on=0).status_code == 412
    assert office.get(AT).json()["thresholds"] == {"tolerance": 0.02}
