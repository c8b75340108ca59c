"""The bytes of exhibits, and what was read from them, in the storage of exhibits.

A local folder, or any other by setting.

A file is named by the SHA-256 of its bytes, so that the same file is kept once and a changed one shows.
"""

from __future__ import annotations

import gzip
import hashlib
from typing import IO, Any

import orjson
from django.core.files.base import ContentFile
from django.core.files.storage import Storage, storages
from plumb_core import ENGINE

from plumb_server.web.problems import Conflict


def _storage() -> Storage:
    return storages["exhibits"]


def _name(sha256: str) -> str:
    return f"{sha256[:2]}/{sha256}"


def _name_read(sha256: str, name: str) -> str:
    # another name is read with other words, and another engine reads otherwise
    return f"{_name(sha256)}.{hashlib.sha256(f'{ENGINE} {name}'.encode()).hexdigest()[:16]}.json.gz"


def keep(data: bytes) -> str:
    """Keep bytes; their SHA-256."""
    digest = hashlib.sha256(data).hexdigest()
    if not _storage().exists(_name(digest)):
        _storage().save(_name(digest), ContentFile(data))
    return digest


def contents(sha256: str) -> bytes:
    """The bytes of a SHA-256; raises Conflict where they are not there or are others."""
    try:
        with _storage().open(_name(sha256)) as file:
            data: bytes = file.read()
    except OSError:
        raise Conflict(
            "the file of this exhibit is missing from the storage",
            "Ask the operator to restore the exhibits from the backup.",
        ) from None
    if hashlib.sha256(data).hexdigest() != sha256:
        raise Conflict(
            "the file of this exhibit differs from the uploaded file: its SHA-256 does not match",
            "Ask the operator to restore the exhibits from the backup.",
        )
    return data


def opened(sha256: str) -> IO[bytes]:
    """The file of a SHA-256, to be read in pieces."""
    return _storage().open(_name(sha256))


def keep_read(sha256: str, name: str, document: dict[str, Any]) -> None:
    """Keep what was read from a file of this name."""
    storage, path = _storage(), _name_read(sha256, name)
    if storage.exists(path):
        storage.delete(path)
    storage.save(path, ContentFile(gzip.compress(orjson.dumps(document), 3)))


def reading_of(sha256: str, name: str) -> dict[str, Any] | None:
    """What was read from a file of this name; None where it was not read by this engine."""
    path = _name_read(sha256, name)
    if not _storage().exists(path):
        return None
    with _storage().open(path) as file:
        found: dict[str, Any] = orjson.loads(gzip.decompress(file.read()))
    return found
