"""Whatever is sent, it is answered: calls made up from the OpenAPI document, as every role, and what broke it once."""

from __future__ import annotations

import json
import os
import unittest
from typing import Any

import httpx
import pytest
import schemathesis
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis.errors import Unsatisfiable
from living import SERVER, Application, Person
from plumb_server.demo.people import LEAD, OFFICE, READER, REVIEWER, STRANGER, SUBMITTER

DOCUMENT = json.loads((SERVER / "openapi.json").read_text())
SCHEMA = schemathesis.openapi.from_dict(DOCUMENT)
CALLS = int(os.environ.get("PLUMB_FUZZ", "2"))
"""Calls of each operation by each role; PLUMB_FUZZ=16 makes over 14,000.

With fewer every role makes calls of a third of the operations, so that each is called by two roles or three.
"""
ROLES = {
    "lead": LEAD,
    "reviewer": REVIEWER,
    "submitter": SUBMITTER,
    "reader": READER,
    "stranger": STRANGER,
    "office": OFFICE,
    "nobody": None,
}
# What ends the session that calls, or another role's account, is left to tests of their own
OMITTED_MASS = {"session_close", "session_open", "office_change", "office_end_sessions", "office_reset_factors"}


@pytest.fixture(scope="module")
def things(application: Application, lead: Person, clinic: str) -> dict[str, Any]:
    """Ids of things that are there, so that calls get past "there is nothing here"."""
    review = lead.get(f"/api/reviews/{clinic}/")
    submission = review["submissions"][0]
    run = lead.send("POST", f"/api/reviews/{clinic}/runs/", {"kind": "modal"}).json()
    return {
        "review_id": clinic,
        "submission_id": submission["id"],
        "exhibit_id": submission["exhibits"][0]["id"],
        "table_id": submission["tables"][0]["id"],
        "case_id": submission["cases"][0]["id"],
        "finding_id": lead.get(f"/api/reviews/{clinic}/findings/")[0]["id"],
        "user_id": review["team"][1]["id"],
        "run_id": run["id"],
    }


def called(person: Person, operation: Any, case: Any, things: dict[str, Any]) -> httpx.Response | None:
    """What a made-up call is answered; None where it cannot even be sent."""
    path = operation.path
    for name, value in (case.path_parameters or {}).items():
        # half of the calls are about things that are there
        real = things.get(name) if len(str(case.body)) % 2 else value
        path = path.replace("{" + name + "}", str(value if real is None else real))
    headers = {"X-CSRFToken": person.client.cookies.get("csrftoken", ""), "Content-Type": "application/json"}
    given = {n: v for n, v in (case.headers or {}).items() if isinstance(v, str) and v.isascii() and v.isprintable()}
    try:
        content = json.dumps(case.body).encode() if isinstance(case.body, _SENT) else b""
        return person.client.request(
            operation.method.upper(),
            "/" + path.lstrip("/"),
            params=case.query,
            content=content,
            headers=headers | given,
        )
    except (ValueError, TypeError, httpx.InvalidURL, httpx.UnsupportedProtocol, httpx.LocalProtocolError):
        return None


_SENT = dict | list | str | int | float | bool


@pytest.mark.parametrize("role", ROLES)
def test_made_up_calls_are_answered(role: str, application: Application, things: dict[str, Any]) -> None:
    person = Person(application.address, ROLES[role])
    failed: list[str] = []
    answered = 0

    def call(case: Any) -> None:
        nonlocal answered
        answer = called(person, case.operation, case, things)
        if answer is None:
            return
        answered += 1
        if answer.status_code >= 500 and answer.status_code != 503:
            failed.append(f"{answer.request.method} {answer.request.url} {answer.request.content[:2000]!r}")

    bounds = settings(
        max_examples=max(1, CALLS // 2),
        deadline=None,
        database=None,
        phases=[Phase.generate],
        derandomize=True,
        suppress_health_check=list(HealthCheck),
    )
    turn = list(ROLES).index(role)
    for i, found in enumerate(SCHEMA.get_all_operations()):
        if CALLS <= 2 and i % 3 != turn % 3:
            continue
        operation = found.ok()
        if operation.definition.raw["operationId"] in OMITTED_MASS:
            continue
        for mode in (schemathesis.GenerationMode.POSITIVE, schemathesis.GenerationMode.NEGATIVE):
            try:
                bounds(given(case=operation.as_strategy(generation_mode=mode))(call))()
            except (Unsatisfiable, unittest.SkipTest, pytest.skip.Exception):
                # an operation of which no wrong call can be made up
                continue
    assert failed == []
    assert answered > 30


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("POST", "/api/reviews/", "[" * 2000 + "]" * 2000),
        ("POST", "/api/session/", "[" * 2000 + "]" * 2000),
        ("POST", "/_allauth/browser/v1/auth/login", '{"a":' * 2000 + "1" + "}" * 2000),
        ("POST", "/_allauth/browser/v1/auth/login", '{"email": "a\\u0000@b.example", "password": "x"}'),
        ("POST", "/_allauth/browser/v1/auth/login", '{"email": "a@b.example", "password": "\\ud800"}'),
        ("POST", "/_allauth/browser/v1/auth/password/reset", '{"key": "x-y", "password": "\\udfff"}'),
        ("POST", "/api/reviews/", '{"title": "a\\u0000b", "brief": {"edition": "asce7-16"}}'),
        ("POST", "/api/reviews/", '{"title": "\\ud800", "brief": {"edition": "asce7-16"}}'),
        ("GET", "/api/reviews/?words=%00&limit=%C2%B2", None),
        ("GET", "/api/reviews/{review}/recheck/?submission=%C2%B2", None),
        ("GET", "/api/reviews/{review}/derivation/?step=%00&side=x", None),
        ("POST", "/api/reviews/{review}/tables/read/", '{"text": "a\\tb\\n1\\t2", "reading": {"header_row": 1e300}}'),
        (
            "POST",
            "/api/reviews/{review}/tables/read/",
            '{"text": "a\\tb\\n1\\t2", "reading": {"header_row": 999999999}}',
        ),
        ("POST", "/api/solve/", '{"kind": "spectrum", "edition": "asce7-16", "T": [1e308, 5e-324]}'),
        ("POST", "/api/solve/", "1e999"),
        ("POST", "/api/solve/", "9" * 5000),
        ("POST", "/api/solve/", '{"kind": "time_history", "stories": 7, "record": {"a": 7}}'),
        ("POST", "/api/recheck/", '{"brief": 7, "model": 7, "submission": []}'),
        ("POST", "/api/reviews/import/", '{"review": {"findings": [{"number": 1e99}]}}'),
        ("PATCH", "/api/office/people/999999999999999999999/", "{}"),
        ("GET", "/api/exhibits/99999999999999999999/", None),
        ("GET", "/api/hazard/?latitude=nan&longitude=inf", None),
        ("GET", "/api/invitations/%00/", None),
    ],
)
def test_what_broke_it_once_is_answered(method: str, path: str, body: str | None, lead: Person, clinic: str) -> None:
    headers = {"X-CSRFToken": lead.client.cookies["csrftoken"], "Content-Type": "application/json", "If-Match": '"0"'}
    answer = lead.client.request(method, path.format(review=clinic), content=body, headers=headers)
    assert answer.status_code < 500, answer.text


@pytest.mark.parametrize("bay", [5e-324, 1e-12, 1e300, 0.0, -1.0, 6.0])
def test_bays_that_are_none_are_refused_or_built(bay: float, lead: Person, clinic: str) -> None:
    grid = {
        "bays_x": [bay, 6.0],
        "bays_y": [bay],
        "columns": {"width": 0.5, "depth": 0.5},
        "beams_x": {"width": 0.3, "depth": 0.6},
        "beams_y": {"width": 0.3, "depth": 0.6},
    }
    answer = lead.send("POST", f"/api/reviews/{clinic}/model/frame/", {"grid": grid})
    assert answer.status_code == (200 if 0.01 <= bay <= 1000 else 422), answer.text
