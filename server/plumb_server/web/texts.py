"""Texts of strangers as they are shown."""

from __future__ import annotations

import re

INVISIBLE = re.compile("[\u0000-\u001f\u007f-\u009f\u061c\u200b-\u200f\u2028-\u202e\u2060-\u2069\ufeff]")
"""Controls, marks of direction and marks without width: they make a name look like another one."""


def visible(text: str) -> str:
    r"""A name with what cannot be seen written out, such as \u202e."""
    return INVISIBLE.sub(lambda found: f"\\u{ord(found[0]):04x}", text)
