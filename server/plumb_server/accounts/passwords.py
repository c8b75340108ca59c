"""Passwords that say who somebody is, or where they work, are guessed first."""

from __future__ import annotations

import re

from django.core.exceptions import ValidationError

from plumb_server.accounts.models import User

SHARE = 0.6
"""Share of the letters of a password that may not be words of its owner."""
LEAST = 4
"""Letters of a word that counts."""
ATTRIBUTES = ("email", "name", "firm")


def _letters(text: str) -> str:
    return "".join(c for c in text.casefold() if c.isalpha())


class NothingOfThePerson:
    """Refuse passwords that mostly consist of words of the address, name or firm, whatever is put between them."""

    def validate(self, password: str, user: User | None = None) -> None:
        """Raise ValidationError where the password is mostly what everybody knows of its owner."""
        letters = _letters(password)
        if user is None or not letters:
            return
        known = [str(getattr(user, name, "")) for name in ATTRIBUTES]
        words = {_letters(w) for text in known for w in (text, *re.split(r"[@.]", text), *re.split(r"[\W_]+", text))}
        left = letters
        # the longest first: an office's whole name before its parts
        for word in sorted((w for w in words if len(w) >= LEAST), key=lambda w: (-len(w), w)):
            left = left.replace(word, "")
        if len(left) <= (1.0 - SHARE) * len(letters):
            raise ValidationError(self.get_help_text(), code="of_the_person")

    def get_help_text(self) -> str:
        """What is said of it."""
        return "The password is too similar to your address, name or firm."
