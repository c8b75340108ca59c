"""Personal API keys: who a key belongs to, and what it is good for."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.utils import timezone
from rest_framework.authentication import BaseAuthentication, SessionAuthentication, get_authorization_header
from rest_framework.exceptions import AuthenticationFailed, PermissionDenied
from rest_framework.permissions import SAFE_METHODS, BasePermission
from rest_framework.request import Request

from plumb_server.accounts.models import ApiToken, digest_of

COMPUTES = ("/api/solve/", "/api/recheck/", "/api/editions/", "/api/vocabulary/")
USED_EVERY = timedelta(minutes=1)
"""How exactly it is noted when a key was used last."""


class TokenAuthentication(BaseAuthentication):
    """Authentication by the header `Authorization: Bearer vp_…`."""

    def authenticate(self, request: Request) -> tuple[Any, ApiToken] | None:
        scheme, _, key = get_authorization_header(request).decode("latin-1").partition(" ")
        if scheme.lower() != "bearer":
            return None
        token = ApiToken.objects.select_related("user").filter(digest=digest_of(key.strip())).first()
        now = timezone.now()
        if token is None or token.expires_at <= now or not token.user.is_active:
            raise AuthenticationFailed("this key is unknown, has expired or was withdrawn")
        if token.used_at is None or now - token.used_at > USED_EVERY:
            ApiToken.objects.filter(pk=token.pk).update(used_at=now)
        return token.user, token

    def authenticate_header(self, request: Request) -> str:
        return "Bearer"


class WithinScope(BasePermission):
    """A key does what it was made for; what is a person's own (account, team, office, signature) takes a session."""

    def has_permission(self, request: Request, view: Any) -> bool:
        token = request.auth
        if not isinstance(token, ApiToken):
            return True
        if getattr(view, "in_person", False) and request.method not in getattr(view, "by_key", ()):
            raise PermissionDenied("an API key cannot do this; sign in")
        if request.path in COMPUTES:
            return True
        enough = (
            (ApiToken.Scope.READ, ApiToken.Scope.WRITE) if request.method in SAFE_METHODS else (ApiToken.Scope.WRITE,)
        )
        if token.scope not in enough:
            raise PermissionDenied(f"this key may only {token.get_scope_display()}")
        return True


class BySession(SessionAuthentication):
    """Authentication by the session, with the token in the header: the body is not read for it."""

    def enforce_csrf(self, request: Any) -> None:
        """Check the token of the plain request: the framework's own would read the whole body first."""
        super().enforce_csrf(request._request)
