"""How somebody is recognised by address and password."""

from __future__ import annotations

from typing import Any

from allauth.account.auth_backends import AuthenticationBackend


class OpenAccounts(AuthenticationBackend):  # type: ignore[misc]
    """A closed account is answered as one that is not there: who knows its password learns nothing."""

    @classmethod
    def _stash_user(cls, user: Any) -> None:
        """Nothing is kept of it, for the library would say that the account is closed."""
