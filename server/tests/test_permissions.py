"""Every call of the API by everybody: made from the OpenAPI document, so that a new call has to say whose it is."""

from __future__ import annotations

import gzip
import json
from hashlib import sha256
from pathlib import Path
from typing import Any

import pytest
from asking import Api
from django.core.cache import cache
from django.db import transaction
from plumb_server.accounts.models import ApiToken, Invitation, User, digest_of
from plumb_server.demo.people import LEAD, OFFICE, READER, REVIEWER, STRANGER, SUBMITTER
from plumb_server.exchange.models import Import
from plumb_server.findings.models import Attachment, Remark
from plumb_server.rechecks.models import SheetPage
from plumb_server.reference.runs import run_for
from plumb_server.reference.services import _question
from plumb_server.reviews.models import Place, Review
from plumb_server.submissions.models import ReadingProfile

pytestmark = pytest.mark.django_db

DOCUMENT = json.loads((Path(__file__).parents[1] / "openapi.json").read_text())
PEOPLE = {
    "lead": LEAD,
    "reviewer": REVIEWER,
    "submitter": SUBMITTER,
    "reader": READER,
    "stranger": STRANGER,
    "office": OFFICE,
}
KEYS = ("compute", "read", "write")

SIGNED_IN = set(PEOPLE)
TEAM = {"lead", "reviewer"}
SUBMITTING_ROLES = TEAM | {"submitter"}
MEMBERS = SUBMITTING_ROLES | {"reader"}
REPORTS = TEAM | {"reader"}
LEADS, OFFICES = {"lead"}, {"office"}
IN_PERSON = "in person"

WHO: dict[str, tuple[set[str], str]] = {
    **dict.fromkeys(("editions_list", "vocabulary_get", "solve", "recheck"), (SIGNED_IN, "computes")),
    **dict.fromkeys(
        ("hazard_values", "reviews_list", "reviews_create", "reviews_import", "import_get"), (SIGNED_IN, "")
    ),
    **dict.fromkeys(("profiles_list", "profile_import"), (SIGNED_IN, "")),
    "import_get": ({"lead"}, ""),
    **dict.fromkeys(("account_change", "records_own", "tokens_list", "token_make"), (SIGNED_IN, IN_PERSON)),
    # whose it is
    "profile_delete": (LEADS, ""),
    "token_withdraw": (LEADS, IN_PERSON),
    **dict.fromkeys(("printing_get", "printing_file"), (LEADS, "")),
    **dict.fromkeys(("review_get", "findings_list"), (MEMBERS, "")),
    **dict.fromkeys(
        ("exhibit", "exhibit_file", "exhibit_drawn", "exhibit_add", "message_write"), (SUBMITTING_ROLES, "")
    ),
    "reports_list": (REPORTS, ""),
    "attachment_file": (MEMBERS, ""),
    "desk_get": (SIGNED_IN, ""),
    "desk_visit": (MEMBERS, ""),
    **dict.fromkeys(("notices_get", "notices_change", "calendar_make", "calendar_end"), (SIGNED_IN, IN_PERSON)),
    **dict.fromkeys(("matrix_get", "matrix_import"), (SUBMITTING_ROLES, "")),
    "matrix_send": (TEAM, IN_PERSON),
    "printing_sign": (LEADS, IN_PERSON),
    "report_countersign": (TEAM, IN_PERSON),
    **dict.fromkeys(
        (*("remarks_list", "remark_add", "remark_change", "remark_delete", "remarks_export", "remarks_import"),),
        (TEAM | {"office"}, ""),
    ),
    "remark_from_finding": (TEAM, ""),
    "report_file": (REPORTS, ""),
    "report_issue": (LEADS, IN_PERSON),
    **dict.fromkeys(("team_add", "team_change", "team_remove", "team_hand_over"), (LEADS, IN_PERSON)),
    "team_withdraw_invitation": (LEADS, IN_PERSON),
    **dict.fromkeys(
        (
            *("office_people", "office_invite", "office_change", "office_reset_factors", "office_end_sessions"),
            *(
                "office_letterhead",
                "office_letterhead_change",
                "office_withdraw_invitation",
                "office_records",
                "office_thresholds",
                "office_thresholds_change",
            ),
        ),
        (OFFICES, IN_PERSON),
    ),
    **dict.fromkeys(
        (
            *(
                "review_change",
                *("audit_list", "audit_file"),
                "across_get",
                *("causes_get", "causes_start", "causes_stop"),
                "what_if",
                "sensitivity_get",
                "brief_change",
                "brief_govern",
                "brief_undo",
            ),
            *("derivation_get", "recheck_get", "recheck_page", "review_export", "finding_file", "finding_change"),
            *("findings_change_many", "findings_history", "findings_merge", "finding_link", "difference_get"),
            *("attachment_add", "region_add", "attachment_remove", "remarks_offered"),
            *("model_get", "model_change", "model_undo", "frame_build", "frame_table", "record_read"),
            *("run_ask", "run_get", "run_cancel", "report_draft", "report_preview"),
            *("report_plan", "report_plan_change"),
            *(
                "table_accept",
                "table_read",
                "table_remove",
                "submission_accept",
                "submission_accept_all",
                "case_change",
            ),
            *("profile_get", "profile_change", "profile_learn"),
            *("exhibit_remove", "exhibit_page", "exhibit_read", "exhibit_read_stop", "exhibit_accept_all"),
        ),
        (TEAM, ""),
    ),
}
"""Of each call: who may make it, and whether a key may (`in person`: none, `computes`: any, else by its scope)."""
OPEN = {
    "session_get",
    "session_open",
    "session_close",
    "invitation_get",
    "invitation_accept",
    "mail_list",
    "address_before",
    "address_undo",
    "calendar_feed",
}
"""Calls that are there for who is not signed in; each has tests of its own."""
NOTHING_THERE = {"exhibit_page", "exhibit_drawn", "table_remove"}
"""Calls that find nothing, or nothing to do, in the demo's accepted submission: only who may not is assessed."""


def operations() -> list[tuple[str, str, str]]:
    return [
        (method.upper(), path, told["operationId"])
        for path, methods in DOCUMENT["paths"].items()
        for method, told in methods.items()
        if isinstance(told, dict) and "operationId" in told
    ]


def test_every_call_says_whose_it_is() -> None:
    named = {operation for _, _, operation in operations()}
    assert named == set(WHO) | OPEN


@pytest.fixture
def places(clinic: Review, lead: Api) -> dict[str, Any]:
    """What the calls are made to: things of the clinic."""
    submission = clinic.submissions.get()
    exhibit = submission.exhibits.first()
    author = User.objects.get(email=LEAD)
    invitation = Invitation.objects.create(
        email="x@y.example", digest=digest_of("k"), invited_by=author, expires_at="2099-01-01T00:00Z"
    )
    lead.sign(clinic.pk)
    draft = lead.send("POST", f"/api/reviews/{clinic.pk}/report/draft/").json()
    lead.get(f"/api/reviews/{clinic.pk}/recheck/")
    recheck = clinic.rechecks.latest("at")
    SheetPage.objects.create(recheck=recheck, number=1, checks_gz=gzip.compress(b"{}"))
    finding = clinic.findings.get(number=1)
    picture = Attachment.objects.create(
        finding=finding, name="a.png", media_type="image/png", data=b"x", sha256=sha256(b"x").hexdigest(), author=author
    )
    return {
        "attachment_id": picture.pk,
        "remark_id": Remark.objects.create(title="T", text="x", author=author).pk,
        "review_id": clinic.pk,
        "recheck": recheck.input_hash,
        "number": 1,
        "submission_id": submission.pk,
        "exhibit_id": exhibit.pk,
        "page": 1,
        "table_id": exhibit.tables.first().pk,
        "case_id": submission.cases.first().pk,
        "finding_id": finding.pk,
        "report_id": clinic.reports.get().pk,
        "printing_id": draft["id"],
        "ending": "pdf",
        "import_id": Import.objects.create(asked_by=User.objects.get(email=LEAD), size=1).pk,
        "run_id": run_for(clinic, "modal", _question(clinic, "modal")).pk,
        "token_id": ApiToken.issue(author, "x", "read", 1)[0].pk,
        "place_id": Place.objects.create(review=clinic, role="reader", invitation=invitation).pk,
        "invitation_id": invitation.pk,
        "profile_id": ReadingProfile.objects.create(name="Carrow and Finch", author=author).pk,
        "user_id": User.objects.get(email=READER).pk,
        "key": "k",
    }


def denied(answer: Any) -> bool:
    """Whether a call was refused for who made it."""
    if answer.status_code not in (401, 403, 404):
        return False
    # a signature is asked of who may sign
    return "/signature" not in [e["path"] for e in answer.json()["errors"]]


def test_every_call_is_made_by_who_may_and_by_nobody_else(places: dict[str, Any]) -> None:
    askers: dict[str, tuple[Api, dict[str, str]]] = {who: (Api(email), {}) for who, email in PEOPLE.items()}
    askers["nobody"] = (Api(), {})
    for scope in KEYS:
        _, key = ApiToken.issue(User.objects.get(email=LEAD), scope, scope, 1)
        askers[f"key to {scope}"] = (Api(), {"Authorization": f"Bearer {key}"})
    wrong = []
    for method, path, operation in operations():
        if operation in OPEN:
            continue
        people, kind = WHO[operation]
        for who, (client, headers) in askers.items():
            may = who in people or (who.startswith("key") and "lead" in people and _key_may(who[7:], method, kind))
            token = {"X-CSRFToken": client.cookies["csrftoken"].value} if "csrftoken" in client.cookies else {}
            with transaction.atomic():
                answer = client.generic(
                    method,
                    path.format(**places),
                    *(
                        ("--x--\r\n", "multipart/form-data; boundary=x")
                        if operation == "exhibit_add"
                        else ("{}", "application/json")
                    ),
                    headers={**headers, **token, "If-Match": '"0"'},
                )
                transaction.set_rollback(True)
            assert answer.status_code < 500, (operation, who, answer.content[:300])
            if denied(answer) == may and not (may and operation in NOTHING_THERE):
                wrong.append(f"{who}: {operation} {answer.status_code}")
        cache.clear()
    assert wrong == []


def _key_may(scope: str, method: str, kind: str) -> bool:
    if kind == IN_PERSON:
        return False
    return kind == "computes" or scope == "write" or (scope == "read" and method == "GET")
