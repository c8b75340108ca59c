"""Accounts: invitations, teams, API keys, second factors, sessions, providers, signatures, records."""

from __future__ import annotations

import base64
import hashlib
import hmac
import re
import struct
import time
from datetime import timedelta
from typing import Any
from urllib.parse import unquote

import pytest
from allauth.mfa.models import Authenticator
from asking import Api
from django.core import mail
from django.core.cache import cache
from django.core.exceptions import ValidationError
from django.core.management import CommandError, call_command
from django.db import IntegrityError, connection, transaction
from django.utils import timezone
from plumb_server.accounts import invitations
from plumb_server.accounts.factors import MFAAdapter
from plumb_server.accounts.models import AddressChange, ApiToken, Invitation, Record, User
from plumb_server.accounts.passwords import NothingOfThePerson
from plumb_server.demo.people import LEAD, OFFICE, PASSWORD, READER, REVIEWER, STRANGER
from plumb_server.reviews.models import Membership, Review

pytestmark = pytest.mark.django_db
AUTH = "/_allauth/browser/v1/auth/"
OWN = "/_allauth/browser/v1/account/"


@pytest.fixture(autouse=True)
def nothing_counted(db: None) -> None:
    cache.clear()


def signs_in(email: str, password: str = PASSWORD) -> tuple[Api, Any]:
    client = Api()
    client.get("/api/session/")
    return client, client.send("POST", AUTH + "login", {"email": email, "password": password})


def link_of(django_capture: Any, pattern: str) -> str:
    found = re.search(pattern, str(mail.outbox[-1].body))
    assert found, mail.outbox[-1].body
    return unquote(found.group(1))


def code_of(secret: str, at: float | None = None) -> str:
    """A time-based code, worked out by RFC 6238."""
    key = base64.b32decode(secret + "=" * (-len(secret) % 8))
    mac = hmac.new(key, struct.pack(">Q", int((at or time.time()) // 30)), hashlib.sha1).digest()
    offset = mac[-1] & 15
    return f"{(struct.unpack('>I', mac[offset : offset + 4])[0] & 0x7FFFFFFF) % 1_000_000:06d}"


# invitations and teams


def invited(lead: Api, clinic: Review, email: str, capture: Any, role: str = "reader") -> str:
    with capture(execute=True):
        answer = lead.send("POST", f"/api/reviews/{clinic.pk}/team/", {"email": email, "role": role})
    assert (answer.status_code, answer.json()["member"]) == (201, None)
    return link_of(None, r"/invitation/(\S+)")


def test_somebody_new_comes_in_by_a_link(lead: Api, clinic: Review, django_capture_on_commit_callbacks: Any) -> None:
    key = invited(lead, clinic, "New.Person@Elsewhere.example", django_capture_on_commit_callbacks, "submitter")
    assert mail.outbox[-1].to == ["new.person@elsewhere.example"]
    guest = Api()
    told = guest.get(f"/api/invitations/{key}/").json()
    assert (told["inviter"], told["known"], told["to"]) == ("Ilse Varga", False, ["Port Maren Clinic, as submitter"])
    guest.get("/api/session/")
    weak = guest.send("POST", f"/api/invitations/{key}/", {"name": "N. P.", "password": "password"})
    assert (weak.status_code, weak.json()["errors"][0]["path"]) == (422, "/password")
    assert guest.send("POST", f"/api/invitations/{key}/", {"name": "", "password": "12345678901"}).status_code == 422
    came = guest.send("POST", f"/api/invitations/{key}/", {"name": "New Person", "password": "  plumb and true  "})
    assert came.status_code == 200, came.content
    # signed in, and on the review in the role that was held
    assert guest.get("/api/session/").json()["person"]["email"] == "new.person@elsewhere.example"
    assert guest.get(f"/api/reviews/{clinic.pk}/").json()["role"] == "submitter"
    # once, and the password is what was typed, blanks and all
    assert Api().get(f"/api/invitations/{key}/").status_code == 404
    assert signs_in("new.person@elsewhere.example", "plumb and true")[1].status_code == 400
    assert signs_in("NEW.person@elsewhere.example", "  plumb and true  ")[1].status_code == 200


def test_nobody_is_told_whether_an_address_has_an_account(
    lead: Api, clinic: Review, stranger: Api, django_capture_on_commit_callbacks: Any
) -> None:
    answers = []
    for email in (STRANGER, "nobody@nowhere.example"):
        with django_capture_on_commit_callbacks(execute=True):
            answer = lead.send("POST", f"/api/reviews/{clinic.pk}/team/", {"email": email, "role": "reader"})
        answers.append({k: (v if v is None else sorted(v)) for k, v in answer.json().items()})
    assert answers[0] == answers[1]
    # asking for a new password says the same either way
    asked = [Api() for _ in range(2)]
    for client in asked:
        client.get("/api/session/")
    codes = [
        client.send("POST", AUTH + "password/request", {"email": email}).status_code
        for client, email in zip(asked, (LEAD, "nobody@nowhere.example"), strict=True)
    ]
    assert codes == [200, 200]


def test_who_has_an_account_accepts_as_who_they_are(
    lead: Api, clinic: Review, stranger: Api, reviewer: Api, django_capture_on_commit_callbacks: Any
) -> None:
    key = invited(lead, clinic, STRANGER, django_capture_on_commit_callbacks)
    assert stranger.get(f"/api/reviews/{clinic.pk}/").status_code == 404
    assert reviewer.send("POST", f"/api/invitations/{key}/", {}).status_code == 409
    assert stranger.send("POST", f"/api/invitations/{key}/", {}).status_code == 200
    assert stranger.get(f"/api/reviews/{clinic.pk}/").status_code == 200


def test_a_colleague_is_added_at_once_and_twice_never(lead: Api, new_review: str) -> None:
    path = f"/api/reviews/{new_review}/team/"
    assert lead.send("POST", path, {"email": REVIEWER, "role": "reviewer"}).json()["member"]["name"] == "Jonas Reed"
    again = lead.send("POST", path, {"email": REVIEWER.upper(), "role": "reader"})
    assert (again.status_code, again.json()["errors"][0]["path"]) == (409, "/email")


def test_an_invitation_ends(lead: Api, clinic: Review, django_capture_on_commit_callbacks: Any) -> None:
    key = invited(lead, clinic, "late@elsewhere.example", django_capture_on_commit_callbacks)
    Invitation.objects.update(expires_at=timezone.now() - timedelta(seconds=1))
    assert Api().get(f"/api/invitations/{key}/").status_code == 404
    key = invited(lead, clinic, "other@elsewhere.example", django_capture_on_commit_callbacks)
    (place,) = [p for p in lead.get(f"/api/reviews/{clinic.pk}/").json()["invited"] if p["email"].startswith("other")]
    assert lead.send("DELETE", f"/api/reviews/{clinic.pk}/invitations/{place['id']}/").status_code == 204
    assert Api().get(f"/api/invitations/{key}/").status_code == 404


def test_a_team_is_changed_by_its_lead_and_never_without_one(lead: Api, reviewer: Api, clinic: Review) -> None:
    of = {m.user.email: m.user_id for m in clinic.team.select_related("user")}
    path = f"/api/reviews/{clinic.pk}/team/"
    assert reviewer.send("PATCH", f"{path}{of[READER]}/", {"role": "lead"}).status_code == 403
    assert lead.send("PATCH", f"{path}{of[READER]}/", {"role": "submitter"}).json()["role"] == "submitter"
    for method, body in (("PATCH", {"role": "reader"}), ("DELETE", None)):
        alone = lead.send(method, f"{path}{of[LEAD]}/", body)
        assert (alone.status_code, alone.json()["errors"][0]["remedy"]) == (409, "Hand the lead over first.")
    assert lead.send("POST", f"{path}{of[REVIEWER]}/lead/").json()["role"] == "lead"
    assert Membership.objects.get(review=clinic, user__email=LEAD).role == "reviewer"
    assert lead.send("DELETE", f"{path}{of[READER]}/").status_code == 403
    assert reviewer.send("DELETE", f"{path}{of[READER]}/").status_code == 204
    assert [e.action for e in clinic.audit.all()[:4]] == [
        "member removed",
        "role changed",
        "role changed",
        "role changed",
    ]


# API keys


def with_key(scope: str, days: int = 1) -> tuple[dict[str, str], ApiToken]:
    token, key = ApiToken.issue(User.objects.get(email=LEAD), "script", scope, days)
    return {"Authorization": f"Bearer {key}"}, token


def test_a_key_does_what_it_was_made_for(lead: Api, clinic: Review) -> None:
    ground = {"kind": "ground", "edition": "asce7-16", "occupancy": {"risk_category": "II"}}
    ground["site"] = {"S_S": 1.5, "S_1": 0.6, "site_class": "C"}

    def codes(scope: str) -> list[int]:
        headers, _ = with_key(scope)
        client, base = Api(), f"/api/reviews/{clinic.pk}/"
        body = {"content_type": "application/json", "headers": headers}
        return [
            client.post("/api/solve/", ground, **body).status_code,
            client.get(base, headers=headers).status_code,
            client.patch(
                base, {"place": "Elsewhere"}, **(body | {"headers": headers | {"If-Match": '"1"'}})
            ).status_code,
            client.post(base + "reports/", {}, **body).status_code,
            client.post(base + "team/", {"email": "a@b.example", "role": "reader"}, **body).status_code,
            client.get("/api/account/tokens/", headers=headers).status_code,
        ]

    assert codes("compute") == [200, 403, 403, 403, 403, 403]
    assert codes("read") == [200, 200, 403, 403, 403, 403]
    assert codes("write") == [200, 200, 200, 403, 403, 403]


def test_a_key_ends_with_its_time_its_owner_or_its_withdrawal(lead: Api) -> None:
    shows_who_they_are(lead)
    made = lead.send("POST", "/api/account/tokens/", {"name": "nightly", "scope": "read", "days": 30}).json()
    headers = {"Authorization": f"Bearer {made['key']}"}
    assert Api().get("/api/reviews/", headers=headers).status_code == 200
    assert made["key"] not in str(lead.get("/api/account/tokens/").json())
    assert lead.send("DELETE", f"/api/account/tokens/{made['id']}/").status_code == 204
    assert Api().get("/api/reviews/", headers=headers).status_code in (401, 403)
    headers, token = with_key("read")
    ApiToken.objects.filter(pk=token.pk).update(expires_at=timezone.now())
    assert Api().get("/api/reviews/", headers=headers).status_code in (401, 403)
    headers, token = with_key("read")
    User.objects.filter(email=LEAD).update(is_active=False)
    assert Api().get("/api/reviews/", headers=headers).status_code in (401, 403)
    assert lead.send("POST", "/api/account/tokens/", {"name": "x", "scope": "all", "days": 9}).status_code in (400, 403)


# passwords, second factors, sessions


def test_a_forgotten_password_is_set_anew_by_a_link() -> None:
    client = Api()
    client.get("/api/session/")
    assert client.send("POST", AUTH + "password/request", {"email": LEAD}).status_code == 200
    key = link_of(None, r"/account/reset/(\S+)")
    for bad in ("short", "password12", "1234567890123", "ilse.varga@hesper-review"):
        refused = client.send("POST", AUTH + "password/reset", {"key": key, "password": bad})
        assert refused.status_code == 400, bad
    assert client.send("POST", AUTH + "password/reset", {"key": key, "password": "a plumb line 7"}).status_code in (
        200,
        401,
    )
    assert client.send("POST", AUTH + "password/reset", {"key": key, "password": "another 8 lines"}).status_code == 400
    assert signs_in(LEAD, "a plumb line 7")[1].status_code == 200
    assert signs_in(LEAD)[1].status_code == 400


def shows_who_they_are(client: Api, password: str = PASSWORD) -> None:
    assert client.send("POST", AUTH + "reauthenticate", {"password": password}).status_code == 200


def changed_address(client: Api, to: str) -> str:
    """The link that undoes the change."""
    assert client.send("POST", OWN + "email", {"email": to}).status_code == 200
    key = link_of(None, r"/account/verify/(\S+)")
    assert client.send("POST", AUTH + "email/verify", {"key": key}).status_code == 200
    (told,) = [m for m in mail.outbox if "was changed from" in str(m.body)]
    assert told.to == [LEAD]
    found = re.search(r"/account/undo/(\S+)", str(told.body))
    assert found
    return f"/api/account/undo/{found[1]}/"


def test_a_session_alone_changes_neither_the_address_nor_makes_a_key() -> None:
    client, _ = signs_in(LEAD)
    asked = client.send("POST", OWN + "email", {"email": "ilse@new.example"})
    assert (asked.status_code, asked.json()["meta"]["is_authenticated"]) == (401, True)
    token = {"name": "nightly", "scope": "write", "days": 366}
    asked = client.send("POST", "/api/account/tokens/", token)
    assert (asked.status_code, asked.json()["errors"][0]["path"]) == (401, "/identity")
    assert not User.objects.get(email=LEAD).tokens.exists()
    assert not mail.outbox
    shows_who_they_are(client)
    assert client.send("POST", "/api/account/tokens/", token).status_code == 201


def test_the_earlier_address_takes_the_account_back() -> None:
    """Somebody who knows the password: address, password, second factor and a key are theirs for a while."""
    client, _ = signs_in(LEAD)
    shows_who_they_are(client)
    undo = changed_address(client, "thief@elsewhere.example")
    made = client.send("POST", "/api/account/tokens/", {"name": "n", "scope": "write", "days": 366}).json()
    secret = client.get(OWN + "authenticators/totp").json()["meta"]["secret"]
    assert client.send("POST", OWN + "authenticators/totp", {"code": code_of(secret)}).status_code == 200
    assert client.send(
        "POST", OWN + "password/change", {"current_password": PASSWORD, "new_password": "a thief was here"}
    ).status_code in (200, 401)
    guest = Api()
    guest.get("/api/session/")
    assert guest.get(undo).json() == {"email": LEAD}
    assert guest.send("POST", undo).json() == {"email": LEAD}
    # once
    assert guest.send("POST", undo).status_code == 404
    assert client.get("/api/session/").json()["person"] is None
    assert Api().get("/api/reviews/", headers={"Authorization": f"Bearer {made['key']}"}).status_code in (401, 403)
    assert signs_in("thief@elsewhere.example", "a thief was here")[1].status_code == 400
    mail.outbox.clear()
    guest.send("POST", AUTH + "password/request", {"email": LEAD})
    key = link_of(None, r"/account/reset/(\S+)")
    guest.send("POST", AUTH + "password/reset", {"key": key, "password": "the plumb is back"})
    assert signs_in(LEAD, "the plumb is back")[1].status_code == 200
    assert Record.objects.filter(kind="change of address undone", user__email=LEAD).exists()


def test_a_change_of_address_is_undone_for_seven_days() -> None:
    client, _ = signs_in(LEAD)
    shows_who_they_are(client)
    undo = changed_address(client, "ilse@new.example")
    AddressChange.objects.update(at=timezone.now() - timedelta(days=7, minutes=1))
    assert client.send("POST", undo).status_code == 404
    AddressChange.objects.update(at=timezone.now() - timedelta(days=6))
    User.objects.create_user(LEAD, PASSWORD, name="Another")
    assert client.send("POST", undo).status_code == 409


def test_a_changed_address_is_confirmed_before_it_counts() -> None:
    client, _ = signs_in(LEAD)
    shows_who_they_are(client)
    assert client.send("POST", OWN + "email", {"email": "Ilse@New.example"}).status_code == 200
    assert signs_in("ilse@new.example")[1].status_code in (400, 401)
    key = link_of(None, r"/account/verify/(\S+)")
    assert client.send("POST", AUTH + "email/verify", {"key": key}).status_code == 200
    assert client.get("/api/session/").json()["person"]["email"] == "ilse@new.example"
    assert signs_in("ILSE@new.example")[1].status_code == 200


def test_a_second_factor_is_asked_for_from_then_on() -> None:
    client, _ = signs_in(LEAD)
    # it is required once more who is at the keyboard
    assert client.send("POST", OWN + "authenticators/totp", {"code": "000000"}).status_code in (400, 401)
    assert client.send("POST", AUTH + "reauthenticate", {"password": PASSWORD}).status_code == 200
    secret = client.get(OWN + "authenticators/totp").json()["meta"]["secret"]
    assert client.send("POST", OWN + "authenticators/totp", {"code": "000000"}).status_code == 400
    assert client.send("POST", OWN + "authenticators/totp", {"code": code_of(secret)}).status_code == 200
    assert client.get("/api/session/").json()["person"]["second_factor"] is True
    codes = client.get(OWN + "authenticators/recovery-codes").json()["data"]["unused_codes"]
    # the password alone opens neither door
    other, answer = signs_in(LEAD)
    assert answer.status_code == 401
    assert other.get("/api/session/").json()["person"] is None
    direct = other.send("POST", "/api/session/", {"email": LEAD, "password": PASSWORD})
    assert (direct.status_code, direct.json()["errors"][0]["message"]) == (401, "a second factor is required")
    # a code that was used is used up; a recovery code helps
    cache.clear()
    assert other.send("POST", AUTH + "2fa/authenticate", {"code": codes[0]}).status_code == 200
    assert other.get("/api/session/").json()["person"]["email"] == LEAD


def test_all_other_sessions_are_ended_by_their_owner() -> None:
    one, _ = signs_in(LEAD)
    two, _ = signs_in(LEAD)
    listed = one.get(AUTH + "sessions").json()["data"]
    assert len(listed) == 2
    others = [s["id"] for s in listed if not s["is_current"]]
    assert one.send("DELETE", AUTH + "sessions", {"sessions": others}).status_code == 200
    assert two.get("/api/session/").json()["person"] is None
    assert one.get("/api/session/").json()["person"] is not None


def test_a_session_ends_when_nothing_is_done(settings: Any) -> None:
    client, _ = signs_in(LEAD)
    client.get("/api/reviews/")
    settings.SESSION_IDLE = -1
    assert client.get("/api/reviews/").status_code == 403


def test_answers_are_not_kept_by_browsers() -> None:
    client, _ = signs_in(LEAD)
    for path in ("/api/session/", "/api/reviews/", "/_allauth/browser/v1/auth/session"):
        assert "no-store" in client.get(path)["Cache-Control"], path


# signatures


def test_each_signature_asks_for_the_password_again(lead: Api, clinic: Review) -> None:
    client, _ = signs_in(LEAD)
    path = f"/api/reviews/{clinic.pk}/reports/"
    asked = client.send("POST", path)
    assert (asked.status_code, asked.json()["errors"][0]["path"]) == (401, "/signature")
    assert client.send("POST", AUTH + "reauthenticate", {"password": "wrong"}).status_code == 400
    assert client.send("POST", path).status_code == 401
    assert client.send("POST", AUTH + "reauthenticate", {"password": PASSWORD}).status_code == 200
    assert client.send("POST", path, {"seen": client.seen(clinic.pk)}).status_code == 202
    # good for one signature
    assert client.send("POST", path, {"seen": client.seen(clinic.pk)}).status_code == 401
    assert clinic.reports.count() == 1


# the office


@pytest.fixture
def office(demo: None) -> Api:
    return Api(OFFICE)


def test_the_office_sees_accounts_and_no_review(office: Api, lead: Api, clinic: Review) -> None:
    people = {p["email"]: p for p in office.get("/api/office/people/").json()["people"]}
    assert people[LEAD]["active"]
    assert office.get(f"/api/reviews/{clinic.pk}/").status_code == 404
    for method, path in (("GET", "people/"), ("GET", "records/"), ("POST", "people/")):
        assert lead.send(method, f"/api/office/{path}", {}).status_code == 403


def test_the_office_ends_an_account_with_its_sessions_and_keys(office: Api) -> None:
    client, _ = signs_in(REVIEWER)
    user = User.objects.get(email=REVIEWER)
    _, key = ApiToken.issue(user, "script", "read", 1)
    path = f"/api/office/people/{user.pk}/"
    assert office.send("PATCH", path, {"active": False}).json()["active"] is False
    assert client.get("/api/reviews/").status_code == 403
    assert Api().get("/api/reviews/", headers={"Authorization": f"Bearer {key}"}).status_code in (401, 403)
    assert signs_in(REVIEWER)[1].status_code in (400, 401)
    assert office.send("PATCH", path, {"active": True}).json()["active"] is True
    assert signs_in(REVIEWER)[1].status_code == 200


def test_the_office_always_has_an_administrator(office: Api) -> None:
    own = User.objects.get(email=OFFICE)
    for change in ({"active": False}, {"administers": False}):
        assert office.send("PATCH", f"/api/office/people/{own.pk}/", change).status_code == 409


def test_the_office_invites(office: Api, django_capture_on_commit_callbacks: Any) -> None:
    with django_capture_on_commit_callbacks(execute=True):
        assert office.send("POST", "/api/office/people/", {"email": "fresh@hesper-review.example"}).status_code == 201
    key = link_of(None, r"/invitation/(\S+)")
    guest = Api()
    guest.get("/api/session/")
    body = {"name": "Fresh Eyes", "firm": "Hesper Review Office", "password": "a plumb line 7"}
    assert guest.send("POST", f"/api/invitations/{key}/", body).status_code == 200
    assert guest.get("/api/reviews/").json() == []


def office_invites(office: Api, email: str, capture: Any) -> str:
    with capture(execute=True):
        assert office.send("POST", "/api/office/people/", {"email": email}).status_code == 201
    return link_of(None, r"/invitation/(\S+)")


def test_a_new_invitation_of_the_office_voids_the_earlier_one(
    office: Api, django_capture_on_commit_callbacks: Any
) -> None:
    first = office_invites(office, "fresh@hesper-review.example", django_capture_on_commit_callbacks)
    second = office_invites(office, "Fresh@hesper-review.example", django_capture_on_commit_callbacks)
    assert Api().get(f"/api/invitations/{first}/").status_code == 404
    assert Api().get(f"/api/invitations/{second}/").status_code == 200


def test_who_types_the_name_of_an_office_does_not_belong_to_it(
    stranger: Api, office: Api, lead: Api, django_capture_on_commit_callbacks: Any
) -> None:
    """Colleagues are added at once, all others are invited: whether somebody has an account is not told by it."""
    assert stranger.send("PATCH", "/api/account/", {"firm": "Hesper Review Office"}).status_code == 200
    made = stranger.send("POST", "/api/reviews/", {"title": "Probe", "brief": {"edition": "asce7-16"}}).json()["id"]
    path = f"/api/reviews/{made}/team/"
    answer = stranger.send("POST", path, {"email": LEAD, "role": "reader"}).json()
    assert (answer["member"], answer["invited"]["email"]) == (None, LEAD)
    mine = lead.send("POST", "/api/reviews/", {"title": "Own", "brief": {"edition": "asce7-16"}}).json()["id"]
    path = f"/api/reviews/{mine}/team/"
    assert lead.send("POST", path, {"email": STRANGER, "role": "reader"}).json()["member"] is None
    # the administrator says who belongs
    them = User.objects.get(email=STRANGER)
    assert office.send("PATCH", f"/api/office/people/{them.pk}/", {"of_office": True}).json()["of_office"]
    again = lead.send("POST", path, {"email": STRANGER, "role": "reader"}).json()
    assert again["member"]["name"] == "Avel Tran"
    key = office_invites(office, "fresh@hesper-review.example", django_capture_on_commit_callbacks)
    guest = Api()
    guest.get("/api/session/")
    body = {"name": "Fresh Eyes", "firm": "Elsewhere", "password": "a plumb line 7"}
    assert guest.send("POST", f"/api/invitations/{key}/", body).status_code == 200
    assert User.objects.get(email="fresh@hesper-review.example").of_office


def test_invitations_have_a_limit_a_day(
    lead: Api, reviewer: Api, new_review: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(invitations, "MOST_A_DAY", 3)
    path = f"/api/reviews/{new_review}/team/"

    def asked(email: str) -> int:
        return int(lead.send("POST", path, {"email": email, "role": "reader"}).status_code)

    assert [asked(f"p{i}@elsewhere.example") for i in range(4)] == [201, 201, 201, 429]
    monkeypatch.setattr(invitations, "MOST_A_DAY", 100)
    # one address, however often the invitation is withdrawn
    found = []
    for _ in range(invitations.MOST_TO_AN_ADDRESS + 1):
        found.append(asked("one@elsewhere.example"))
        Invitation.objects.filter(email="one@elsewhere.example").delete()
    assert found == [201] * invitations.MOST_TO_AN_ADDRESS + [429]


def test_the_subject_of_an_invitation_names_no_review(
    lead: Api, clinic: Review, django_capture_on_commit_callbacks: Any
) -> None:
    invited(lead, clinic, "new@elsewhere.example", django_capture_on_commit_callbacks)
    assert mail.outbox[-1].subject == "Vigilant Plumb: Ilse Varga invites you to a review"
    assert "Port Maren Clinic" in str(mail.outbox[-1].body)


def test_closing_an_account_leaves_no_review_without_a_lead(office: Api, clinic: Review) -> None:
    lead_user, heir = User.objects.get(email=LEAD), User.objects.get(email=REVIEWER)
    path = f"/api/office/people/{lead_user.pk}/"
    assert office.send("PATCH", path, {"active": False}).status_code == 200
    for review in Review.objects.all():
        leads = review.team.filter(role="lead", user__is_active=True)
        assert [m.user for m in leads] == [heir], review
    assert clinic.audit.filter(action="lead handed over").exists()
    # whose reviews nobody else could lead stays
    refused = office.send("PATCH", f"/api/office/people/{heir.pk}/", {"active": False})
    assert (refused.status_code, refused.json()["errors"][0]["path"]) == (409, "/active")
    heir.refresh_from_db()
    assert heir.is_active
    assert clinic.title not in refused.content.decode()


def test_a_closed_account_learns_nothing() -> None:
    """The right password of a closed account, a wrong one, and an address of nobody are answered alike."""
    User.objects.filter(email=REVIEWER).update(is_active=False)
    told = []
    for email, password in ((REVIEWER, PASSWORD), (REVIEWER, "not this one"), ("nobody@nowhere.example", PASSWORD)):
        cache.clear()
        answer = signs_in(email, password)[1]
        body = answer.json()
        body.pop("meta", None)
        told.append((answer.status_code, body))
    assert told[0] == told[1] == told[2]
    client = Api()
    client.get("/api/session/")
    mail.outbox.clear()
    assert client.send("POST", AUTH + "password/request", {"email": REVIEWER}).status_code == 200
    assert all("/account/reset/" not in str(m.body) for m in mail.outbox)


# secrets


def test_the_database_does_not_hold_the_secret_of_a_second_factor(settings: Any) -> None:
    client, _ = signs_in(LEAD)
    shows_who_they_are(client)
    secret = client.get(OWN + "authenticators/totp").json()["meta"]["secret"]
    assert client.send("POST", OWN + "authenticators/totp", {"code": code_of(secret)}).status_code == 200
    factors = list(Authenticator.objects.filter(user__email=LEAD))
    assert factors
    assert all(secret not in str(f.data) for f in factors)
    assert all(v.startswith("enc:") for f in factors for n, v in f.data.items() if n in ("secret", "seed"))
    # a new key: what was encrypted with the one before is read, encrypted anew, and then the earlier key can go
    settings.FACTOR_KEYS = ["new key", settings.SECRET_KEY]
    adapter = MFAAdapter()
    (totp,) = [f for f in factors if "secret" in f.data]
    assert adapter.decrypt(totp.data["secret"]) == secret
    call_command("encrypt_factors")
    settings.FACTOR_KEYS = ["new key"]
    totp.refresh_from_db()
    assert adapter.decrypt(totp.data["secret"]) == secret
    settings.FACTOR_KEYS = ["another key"]
    with pytest.raises(CommandError, match="none of PLUMB_FACTOR_KEYS"):
        call_command("encrypt_factors")
    # what an earlier release left is read too, and encrypted
    totp.data["secret"] = secret
    totp.save()
    settings.FACTOR_KEYS = ["new key"]
    assert adapter.decrypt(secret) == secret
    call_command("encrypt_factors")
    totp.refresh_from_db()
    assert secret not in str(totp.data)


@pytest.mark.parametrize(
    "password",
    ["hesper-review", "HesperReview2026", "ilse-varga-1", "review.hesper!", "vargailse99", "Hesper Review Office"],
)
def test_a_password_is_not_what_everybody_knows_of_its_owner(password: str) -> None:
    user = User(email="ilse.varga@hesper-review.example", name="Ilse Varga", firm="Hesper Review Office")
    with pytest.raises(ValidationError, match="too similar"):
        NothingOfThePerson().validate(password, user)


@pytest.mark.parametrize("password", ["a plumb line 7", "plumb-demo-2026", "reviewing the granary", "8461937250"])
def test_other_passwords_will_do(password: str) -> None:
    user = User(email="ilse.varga@hesper-review.example", name="Ilse Varga", firm="Hesper Review Office")
    NothingOfThePerson().validate(password, user)


# records


def test_the_office_sees_no_file_and_no_review_in_its_records(office: Api, lead: Api, clinic: Review) -> None:
    exhibit = clinic.submissions.get().exhibits.first()
    assert exhibit is not None
    lead.get(f"/api/exhibits/{exhibit.pk}/file/")
    lead.get(f"/api/reviews/{clinic.pk}/export/")
    told = office.get("/api/office/records/").content.decode()
    assert exhibit.name not in told
    assert str(clinic.pk) not in told
    # who it was sees it
    assert exhibit.name in lead.get("/api/account/records/").content.decode()


def test_what_happens_to_accounts_and_data_is_on_record(office: Api, lead: Api, clinic: Review) -> None:
    signs_in(LEAD, "wrong one here")
    client, _ = signs_in(LEAD)
    client.get(f"/api/reviews/{clinic.pk}/export/")
    exhibit = clinic.submissions.get().exhibits.first()
    client.get(f"/api/exhibits/{exhibit.pk}/file/")
    client.send("DELETE", "/api/session/")
    kinds = [(r["kind"], r["person"]) for r in office.get("/api/office/records/").json()]
    assert kinds[:5] == [
        ("signed out", "Ilse Varga"),
        ("downloaded", "Ilse Varga"),
        ("exported", "Ilse Varga"),
        ("signed in", "Ilse Varga"),
        ("sign-in failed", LEAD),
    ]


@pytest.mark.parametrize("statement", ["UPDATE accounts_record SET kind = 'x'", "DELETE FROM accounts_record"])
def test_records_stay_as_they_are(statement: str) -> None:
    Record.objects.create(kind="signed in")
    with (
        pytest.raises(IntegrityError, match="stays as it is"),
        transaction.atomic(),
        connection.cursor() as cursor,
    ):
        cursor.execute(statement)
