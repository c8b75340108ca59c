"""Degrees of freedom as people write them."""

from __future__ import annotations

import re

DOFS = ("ux", "uy", "uz", "rx", "ry", "rz")
_WORDS = {
    "fixed": DOFS,
    "fix": DOFS,
    "encastre": DOFS,
    "all": DOFS,
    "pinned": DOFS[:3],
    "pin": DOFS[:3],
    "hinged": DOFS[:3],
    "roller": ("uz",),
}


def dofs_in(text: str) -> list[str] | None:
    """Degrees of freedom that a cell names: `fixed`, `pinned`, `ux uy`, or six figures 0 and 1.

    None if it cannot be stated.
    """
    plain = text.strip().lower()
    if plain in _WORDS:
        return list(_WORDS[plain])
    if re.fullmatch(r"[01](?:[\s,;/]*[01]){5}", plain):
        flags = re.findall(r"[01]", plain)
        return [d for d, f in zip(DOFS, flags, strict=True) if f == "1"]
    words = [w for w in re.split(r"[\s,;+/]+", plain) if w]
    return words if words and all(w in DOFS for w in words) else [] if plain in ("", "-", "none") else None
