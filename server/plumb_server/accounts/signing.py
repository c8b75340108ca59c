"""A signature: the person at the keyboard is asked once more who they are."""

from __future__ import annotations

import time

from allauth.account.authentication import get_authentication_records
from allauth.account.internal.flows.reauthentication import did_recently_reauthenticate
from django.conf import settings
from rest_framework import status
from rest_framework.exceptions import APIException
from rest_framework.request import Request

from plumb_server.accounts.models import SignedWith
from plumb_server.accounts.requests import user_of


class SignatureAsked(APIException):
    """What is signed requires the password or a second factor first."""

    status_code = status.HTTP_401_UNAUTHORIZED
    default_detail = "a signature requires your password or second factor"

    def __init__(self) -> None:
        super().__init__(self.default_detail)
        remedy = "Enter it, then sign again."
        self.errors = [{"path": "/signature", "message": self.default_detail, "remedy": remedy}]


class IdentityAsked(APIException):
    """What changes how somebody signs in requires the password or a second factor first."""

    status_code = status.HTTP_401_UNAUTHORIZED
    default_detail = "this requires your password or second factor"

    def __init__(self) -> None:
        super().__init__(self.default_detail)
        remedy = "Enter it, then do it again."
        self.errors = [{"path": "/identity", "message": self.default_detail, "remedy": remedy}]


def require_identity(request: Request) -> None:
    """Raise IdentityAsked unless who asks showed a little while ago who they are, beyond having a session."""
    if not did_recently_reauthenticate(request._request):
        raise IdentityAsked


def require_fresh(request: Request) -> float:
    """When who signs was asked last, s since 1970; raises SignatureAsked unless that was just now."""
    requested = request._request
    times = [r["at"] for r in get_authentication_records(requested, request.user) if r.get("reauthenticated")]
    last = max(times, default=0.0)
    if time.time() - last > settings.SIGNING_FRESH or SignedWith.used(user_of(request), last):
        raise SignatureAsked
    return last


def require_signature(request: Request) -> None:
    """Raise SignatureAsked unless who signs was asked just now; what was given is good for one signature."""
    if not SignedWith.first(user_of(request), require_fresh(request)):
        raise SignatureAsked
