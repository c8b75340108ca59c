"""Secrets of second factors, encrypted with a key that the database does not hold."""

from __future__ import annotations

import base64
import hashlib
from typing import Any

from allauth.mfa.adapter import DefaultMFAAdapter
from allauth.mfa.models import Authenticator
from cryptography.fernet import Fernet, InvalidToken, MultiFernet
from django.conf import settings
from django.db import transaction

MARK = "enc:"
"""Begins what is encrypted; secrets of earlier releases have no such mark."""
OF_A_FACTOR = ("secret", "seed")


def _keys() -> MultiFernet:
    """The present key, then those before it, which still decrypt."""
    given = settings.FACTOR_KEYS or [settings.SECRET_KEY]
    return MultiFernet(
        [Fernet(base64.urlsafe_b64encode(hashlib.sha256(f"factors {key}".encode()).digest())) for key in given]
    )


class MFAAdapter(DefaultMFAAdapter):  # type: ignore[misc]
    def encrypt(self, text: str) -> str:
        return MARK + _keys().encrypt(text.encode()).decode()

    def decrypt(self, encrypted_text: str) -> str:
        if not encrypted_text.startswith(MARK):
            return encrypted_text
        return _keys().decrypt(encrypted_text.removeprefix(MARK)).decode()


class UnknownKey(Exception):
    """A secret was encrypted with a key that is not among those given."""


@transaction.atomic
def encrypt_anew() -> int:
    """Encrypt every secret with the present key; how many there were.  Raises UnknownKey, and changes nothing then."""
    adapter, count = MFAAdapter(), 0
    for factor in Authenticator.objects.select_for_update():
        found = {name: factor.data[name] for name in OF_A_FACTOR if name in factor.data}
        codes = factor.data.get("migrated_codes")
        try:
            changed: dict[str, Any] = {name: adapter.encrypt(adapter.decrypt(value)) for name, value in found.items()}
            if codes:
                changed["migrated_codes"] = [adapter.encrypt(adapter.decrypt(code)) for code in codes]
        except InvalidToken:
            raise UnknownKey(f"the second factor of account {factor.user_id}") from None
        if changed:
            factor.data = {**factor.data, **changed}
            factor.save(update_fields=["data"])
            count += 1
    return count
