"""Signing in through somebody who vouches for people: OpenID Connect, against a stand-in."""

from __future__ import annotations

import json
import threading
from collections.abc import Iterator
from http.server import BaseHTTPRequestHandler, HTTPServer
from typing import Any
from urllib.parse import parse_qs, urlsplit

import pytest
from asking import Api
from django.core.cache import cache
from plumb_server.accounts.models import User
from plumb_server.demo.people import LEAD, PASSWORD

pytestmark = pytest.mark.django_db


class StandIn(BaseHTTPRequestHandler):
    """Says who it is, gives a token for any code, and states of one person."""

    person: dict[str, Any]

    def do_GET(self) -> None:
        at = f"http://{self.headers['Host']}"
        if self.path.startswith("/.well-known/"):
            told: Any = {
                "issuer": at,
                "authorization_endpoint": f"{at}/authorize",
                "token_endpoint": f"{at}/token",
                "userinfo_endpoint": f"{at}/userinfo",
                "jwks_uri": f"{at}/keys",
            }
        else:
            told = self.person
        self.tell(told)

    def do_POST(self) -> None:
        sent = parse_qs(self.rfile.read(int(self.headers["Content-Length"])).decode())
        ok = sent.get("code") == ["the-code"] and "code_verifier" in sent
        self.tell({"access_token": "a-token", "token_type": "Bearer"} if ok else {"error": "invalid_grant"})

    def tell(self, document: Any) -> None:
        body = json.dumps(document).encode()
        self.send_response(200)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def log_message(self, *_: Any) -> None:
        pass


@pytest.fixture
def provider(settings: Any) -> Iterator[type[StandIn]]:
    server = HTTPServer(("127.0.0.1", 0), StandIn)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    app = {
        "provider_id": "island-id",
        "name": "Island ID",
        "client_id": "plumb",
        "secret": "shh",
        "settings": {"server_url": f"http://127.0.0.1:{server.server_port}", "oauth_pkce_enabled": True},
    }
    settings.SOCIALACCOUNT_PROVIDERS = {"openid_connect": {"APPS": [app]}}
    cache.clear()
    yield StandIn
    server.shutdown()
    server.server_close()


def through_the_provider(client: Api, code: str = "the-code", state: str | None = None) -> Any:
    client.get("/api/session/")
    redirect = client.post(
        "/_allauth/browser/v1/auth/provider/redirect",
        {"provider": "island-id", "process": "login", "callback_url": "/"},
        headers={"X-CSRFToken": client.cookies["csrftoken"].value},
    )
    assert redirect.status_code == 302
    asked = parse_qs(urlsplit(redirect["Location"]).query)
    assert asked["code_challenge_method"] == ["S256"]
    return client.get("/accounts/oidc/island-id/login/callback/", {"code": code, "state": state or asked["state"][0]})


def person(email: str, verified: bool = True) -> dict[str, Any]:
    return {"sub": "77", "email": email, "email_verified": verified, "name": "Somebody"}


def test_a_provider_is_offered_and_brings_in_who_has_an_account(provider: type[StandIn], demo: None) -> None:
    client = Api()
    assert client.get("/api/session/").json()["providers"] == [{"id": "island-id", "name": "Island ID"}]
    provider.person = person(LEAD.upper())
    assert through_the_provider(client)["Location"] == "/"
    assert client.get("/api/session/").json()["person"]["email"] == LEAD


@pytest.mark.parametrize(
    ("who", "code", "state"),
    [
        (person("nobody@nowhere.example"), "the-code", None),
        (person(LEAD, verified=False), "the-code", None),
        (person(LEAD), "another-code", None),
        (person(LEAD), "the-code", "another-state"),
    ],
)
def test_a_provider_brings_in_nobody_else(
    who: dict[str, Any], code: str, state: str | None, provider: type[StandIn], demo: None
) -> None:
    client = Api()
    provider.person = who
    before = User.objects.count()
    through_the_provider(client, code, state)
    assert client.get("/api/session/").json()["person"] is None
    assert User.objects.count() == before


def test_a_second_factor_is_asked_for_all_the_same(provider: type[StandIn], demo: None) -> None:
    from allauth.mfa.totp.internal.auth import TOTP, generate_totp_secret

    TOTP.activate(User.objects.get(email=LEAD), generate_totp_secret())
    client = Api()
    provider.person = person(LEAD)
    through_the_provider(client)
    assert client.get("/api/session/").json()["person"] is None
    assert client.send("POST", "/api/session/", {"email": LEAD, "password": PASSWORD}).status_code == 401
