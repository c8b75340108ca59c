"""The desk, notices by choice, and the calendar of due dates."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest
from asking import Api
from django.core import mail
from django.utils import timezone
from icalendar import Calendar
from plumb_server.accounts.models import User
from plumb_server.demo.people import LEAD, READER, REVIEWER, SUBMITTER
from plumb_server.desk.models import NoticeChoice
from plumb_server.desk.notices import send_notices
from plumb_server.findings.models import Finding
from plumb_server.reviews.models import Review

pytestmark = pytest.mark.django_db
TODAY = date(2026, 5, 4)


def row(client: Api, review: Review, query: str = "") -> Any:
    return next(r for r in client.get(f"/api/desk/{query}").json() if r["id"] == str(review.pk))


def finding_of(review: Review, **changes: Any) -> Finding:
    finding = review.findings.get(number=1)
    Finding.objects.filter(pk=finding.pk).update(**changes)
    finding.refresh_from_db()
    return finding


def test_each_sees_whose_turn_it_is(lead: Api, submitter: Api, reader: Api, clinic: Review) -> None:
    """The clinic's one finding was answered: it is the team's turn."""
    assert [row(who, clinic)["next"] for who in (lead, submitter, reader)] == ["you", "team", "team"]
    finding_of(clinic, status="issued")
    assert [row(who, clinic)["next"] for who in (lead, submitter, reader)] == ["submitter", "you", "submitter"]
    assert row(lead, clinic)["findings"] == {"must": 1}


def test_how_long_it_waits(lead: Api, new_review: str) -> None:
    review = Review.objects.get(pk=new_review)
    Review.objects.filter(pk=new_review).update(created_at=timezone.now() - timedelta(days=12, hours=3))
    shown = row(lead, review)
    assert (shown["next"], shown["days"], shown["submission"]) == ("submitter", 12, None)


def test_the_small_line_is_of_the_latest_recheck(lead: Api, submitter: Api, clinic: Review) -> None:
    clinic.rechecks.all().delete()
    sheet = lead.get(f"/api/reviews/{clinic.pk}/recheck/").json()
    marks = row(lead, clinic)["plumb"]
    out = [c for c in sheet["checks"] if c["role"] == "origin" or c["verdict"] == "breaches"]
    assert sorted(m["stage"] for m in marks) == sorted(c["stage"] for c in out)
    assert row(submitter, clinic)["plumb"] is None


def test_what_others_did_since_the_last_visit(lead: Api, reviewer: Api, clinic: Review) -> None:
    visit = f"/api/reviews/{clinic.pk}/visit/"
    assert row(lead, clinic)["news"] == 0
    assert lead.send("POST", visit, {}).status_code == 204
    reviewer.send("POST", f"/api/findings/{clinic.findings.get(number=1).pk}/messages/", {"text": "Seen."})
    shown = row(lead, clinic)
    assert (shown["news"], shown["latest"]) == (1, ["Jonas Reed wrote in finding 1"])
    assert row(reviewer, clinic)["news"] == 0
    lead.send("POST", visit, {})
    assert row(lead, clinic)["news"] == 0


def test_a_review_is_put_away_for_one_person(lead: Api, reviewer: Api, clinic: Review) -> None:
    lead.send("POST", f"/api/reviews/{clinic.pk}/visit/", {"archived": True})
    assert str(clinic.pk) not in [r["id"] for r in lead.get("/api/desk/").json()]
    assert row(lead, clinic, "?archived=true")["archived"] is True
    assert row(reviewer, clinic)["archived"] is False


def test_what_is_due_stands_on_the_desk(lead: Api, clinic: Review) -> None:
    finding_of(clinic, due=date.today() - timedelta(days=2))
    assert row(lead, clinic)["overdue"] is True


# notices


def told() -> dict[str, str]:
    found = {m.to[0]: str(m.body) for m in mail.outbox}
    mail.outbox.clear()
    return found


def test_notices_are_sent_once_to_who_sees_what_they_are_about(lead: Api, clinic: Review) -> None:
    send_notices(TODAY)
    mail.outbox.clear()
    body = {"title": "Secret draft", "text": "x", "severity": "must", "checks": []}
    made = lead.send("POST", f"/api/reviews/{clinic.pk}/findings/", body).json()
    path = f"/api/findings/{made['id']}/"
    lead.send("POST", path + "messages/", {"text": "Between us."})
    send_notices(TODAY)
    # of a draft the submitter and the reader know nothing
    assert set(told()) == {REVIEWER}
    lead.send("PATCH", path, {"status": "issued"}, 1)
    send_notices(TODAY)
    sent = told()
    assert set(sent) == {REVIEWER, SUBMITTER, READER}
    assert "Port Maren Clinic\n- Ilse Varga issued finding 2\n" in sent[SUBMITTER]
    assert send_notices(TODAY) == 0


def test_each_chooses(lead: Api, submitter: Api, reviewer: Api, clinic: Review) -> None:
    send_notices(TODAY)
    mail.outbox.clear()
    assert submitter.send("PATCH", "/api/account/notices/", {"answered": False}).json()["answered"] is False
    reviewer.send("PATCH", "/api/account/notices/", {"daily": True})
    lead.send("POST", f"/api/findings/{clinic.findings.get(number=1).pk}/messages/", {"text": "Please."})
    send_notices(TODAY)
    # the reviewer was sent something today already
    assert set(told()) == {READER}
    send_notices(TODAY + timedelta(days=1))
    assert set(told()) == {REVIEWER}


def test_what_is_due_is_told_once_a_day(clinic: Review) -> None:
    user = User.objects.get(email=REVIEWER)
    finding_of(clinic, assignee=user, due=TODAY - timedelta(days=1))
    send_notices(TODAY)
    assert "finding 1 is overdue since 03 May 2026" in told()[REVIEWER]
    send_notices(TODAY)
    assert REVIEWER not in told()
    send_notices(TODAY + timedelta(days=1))
    assert REVIEWER in told()


def test_who_is_new_is_not_told_of_what_was_before(clinic: Review) -> None:
    assert not NoticeChoice.objects.exists()
    send_notices(TODAY)
    assert told() == {}


# the calendar


def test_due_dates_as_a_calendar(lead: Api, submitter: Api, clinic: Review) -> None:
    finding = finding_of(clinic, due=date(2026, 12, 24))
    address = lead.send("POST", "/api/account/calendar/").json()["address"]
    path = address.split("testserver")[1]
    (event,) = Calendar.from_ical(Api().get(path).content).walk("VEVENT")
    assert event["SUMMARY"] == "Port Maren Clinic: finding 1 is due"
    assert event.decoded("DTSTART") == date(2026, 12, 24)
    assert finding.title in event["DESCRIPTION"]
    # another address ends the first
    other = lead.send("POST", "/api/account/calendar/").json()["address"].split("testserver")[1]
    assert Api().get(path).status_code == 404
    lead.send("DELETE", "/api/account/calendar/")
    assert Api().get(other).status_code == 404
    # who is not on the team sees what waits for them
    theirs = submitter.send("POST", "/api/account/calendar/").json()["address"].split("testserver")[1]
    assert Calendar.from_ical(Api().get(theirs).content).walk("VEVENT") == []
    finding_of(clinic, assignee=User.objects.get(email=SUBMITTER))
    assert len(Calendar.from_ical(Api().get(theirs).content).walk("VEVENT")) == 1


def test_the_calendar_of_a_closed_account_ends(lead: Api) -> None:
    path = lead.send("POST", "/api/account/calendar/").json()["address"].split("testserver")[1]
    User.objects.filter(email=LEAD).update(is_active=False)
    assert Api().get(path).status_code == 404
