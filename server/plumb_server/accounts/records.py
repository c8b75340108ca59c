"""Notes of what people did in addition to the reviews' own audit trails.

Signing in and out, failing to, exports, downloads.
"""

from __future__ import annotations

from typing import Any

from allauth.account import signals as of_accounts
from allauth.account.adapter import get_adapter
from allauth.mfa import signals as of_factors
from django.contrib.auth import signals
from django.core.exceptions import PermissionDenied
from django.dispatch import receiver

from plumb_server.accounts.models import Record


def note(request: Any, kind: str, *, user: Any = None, email: str = "", **detail: Any) -> None:
    """Keep a record; `user` is who the request is of, unless somebody else is named."""
    user = user or getattr(request, "user", None)
    known = user if user is not None and user.is_authenticated else None
    Record.objects.create(kind=kind, user=known, email=email[:254], address=_address(request), detail=detail)


def _address(request: Any) -> str:
    if request is None:
        return ""
    try:
        return str(get_adapter().get_client_ip(getattr(request, "_request", request)))[:45]
    except PermissionDenied:
        # no address is to be had, such as behind a proxy that vouches for none
        return ""


@receiver(signals.user_logged_in)
def _signed_in(request: Any, user: Any, **_: Any) -> None:
    if hasattr(request, "allauth"):
        note(request, "signed in", user=user)


@receiver(signals.user_logged_out)
def _signed_out(request: Any, user: Any, **_: Any) -> None:
    if user is not None and hasattr(request, "allauth"):
        note(request, "signed out", user=user)


@receiver(signals.user_login_failed)
def _failed(request: Any = None, credentials: dict[str, Any] | None = None, **_: Any) -> None:
    given = credentials or {}
    note(request, "sign-in failed", email=str(given.get("email") or given.get("username") or ""))


_OF_ACCOUNTS = {
    "password_changed": "password changed",
    "password_reset": "password reset",
    "email_changed": "address changed",
    "email_confirmed": "address verified",
}
_OF_FACTORS = {
    "authenticator_added": "second factor added",
    "authenticator_removed": "second factor removed",
    "authenticator_reset": "recovery codes made",
}


def _noted(kind: str) -> Any:
    def keep(request: Any, user: Any = None, **_: Any) -> None:
        note(request, kind, user=user)

    return keep


# the library keeps its receivers weakly: these stay as long as the module does
_receivers = [
    (signal, _noted(kind))
    for module, kinds in ((of_accounts, _OF_ACCOUNTS), (of_factors, _OF_FACTORS))
    for signal, kind in ((getattr(module, name), kind) for name, kind in kinds.items())
]
for _signal, _receiver in _receivers:
    _signal.connect(_receiver)
