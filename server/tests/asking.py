"""Clients and tables that the tests of the server use."""

from __future__ import annotations

import json
import re
from typing import Any

from django.test import Client
from plumb_server.accounts.models import User
from plumb_server.demo.people import PASSWORD

STORIES = "Story\tHeight (m)\tWeight (kN)\nL2\t3.6\t900\nL1\t4.0\t1000\n"
PARAMETERS = "Item\tValue\tX\tY\tUnit\nS_DS\t1.0\t\t\tg\nV\t\t400\t380\tkN\n"


class Api(Client):
    """A client that speaks JSON and hands the CSRF token on, as the web application does."""

    def __init__(self, email: str | None = None):
        super().__init__(enforce_csrf_checks=True)
        if email:
            self.force_login(User.objects.get(email=email))
            self.get("/api/session/")

    def send(self, method: str, path: str, body: Any = None, based_on: int | None = None) -> Any:
        headers = {"X-CSRFToken": self.cookies["csrftoken"].value} if "csrftoken" in self.cookies else {}
        if based_on is not None:
            headers["If-Match"] = f'"{based_on}"'
        return self.generic(method, path, json.dumps(body), content_type="application/json", headers=headers)

    def draft(self, review: Any) -> Any:
        """The report of a review as it would be issued now."""
        asked = self.send("POST", f"/api/reviews/{review}/report/draft/").json()
        return self.get(f"/api/printings/{asked['id']}.pdf")

    def sign(self, review: Any) -> Any:
        """Sign and issue the report of a review, a short one: what it says is tested with drafts."""
        plan = f"/api/reviews/{review}/report/plan/"
        stored = self.get(plan).json()
        if stored["sections"] != ["register"]:
            self.send("PUT", plan, stored | {"sections": ["register"]})
        self.send("POST", "/_allauth/browser/v1/auth/reauthenticate", {"password": PASSWORD})
        return self.send("POST", f"/api/reviews/{review}/reports/", {"seen": self.seen(review)})

    def seen(self, review: Any) -> str:
        """What the preview of the report names as shown."""
        page = self.get(f"/api/reviews/{review}/report/preview/").content.decode()
        found = re.search(r'data-seen="([^"]*)"', page)
        return found.group(1) if found else ""

    def upload(self, path: str, file: Any, **fields: str) -> Any:
        return self.post(path, {"file": file, **fields}, headers={"X-CSRFToken": self.cookies["csrftoken"].value})
