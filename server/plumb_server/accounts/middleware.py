"""Sessions end by themselves."""

from __future__ import annotations

import time
from collections.abc import Callable

from django.conf import settings
from django.contrib.auth import logout
from django.http import HttpRequest, HttpResponse

NOTED_EVERY = 60
"""s; a session is not written with every request."""


class Idle:
    """Sign out who did nothing for a while, and everybody after the longest time of a session."""

    def __init__(self, answer: Callable[[HttpRequest], HttpResponse]):
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if settings.SESSION_COOKIE_NAME in request.COOKIES and request.user.is_authenticated:
            now = time.time()
            begun, seen = request.session.get("begun", now), request.session.get("seen", now)
            if now - seen > settings.SESSION_IDLE or now - begun > settings.SESSION_LONGEST:
                logout(request)
            elif "begun" not in request.session or now - seen > NOTED_EVERY:
                request.session["begun"], request.session["seen"] = begun, now
        return self.answer(request)
