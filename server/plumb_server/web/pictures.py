"""Pictures that people send: which they may be."""

from __future__ import annotations

MEDIA_TYPES = {b"\x89PNG\r\n\x1a\n": "image/png", b"\xff\xd8\xff": "image/jpeg"}


def media_type_of(data: bytes) -> str:
    """The media type of a PNG or JPEG by its first bytes; empty for anything else."""
    return next((kind for start, kind in MEDIA_TYPES.items() if data.startswith(start)), "")
