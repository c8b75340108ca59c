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

from plumb_server.submissions.storage import WholeFiles
from plumb_server.web.problems import Conflict, Unavailable

PIECE = 1_000_000
"""Bytes that are read at a time."""


def _storage() -> Storage:
    return storages["exhibits"]


def _name(sha256: str) -> str:
    return f"{sha256[:2]}/{sha256}"


def _name_read(sha256: str, name: str) -> str:
    # another name is read with other words, and another engine reads otherwise
    return f"{_name(sha256)}.{hashlib.sha256(f'{ENGINE} {name}'.encode()).hexdigest()[:16]}.json.gz"


def keep(data: bytes) -> str:
    """Keep bytes; their SHA-256.  A file that is there under it and was damaged is repaired."""
    digest = hashlib.sha256(data).hexdigest()
    try:
        opened(digest).close()
    except Conflict:
        _put(_name(digest), data)
    return digest


def contents(sha256: str) -> bytes:
    """The bytes of a SHA-256; raises Conflict where they are not there or are others."""
    with opened(sha256) as file:
        return file.read()


def opened(sha256: str) -> IO[bytes]:
    """The file of a SHA-256, to be read in pieces; raises Conflict where it is not there or is another one.

    Its sum is taken at every opening: nobody is shown a file that was damaged in the storage.
    """
    try:
        file = _storage().open(_name(sha256))
        found = _sum_of(file)
    except FileNotFoundError:
        raise Conflict(
            "the file of this exhibit is missing from the storage",
            "Ask the operator to restore the exhibits from the backup, or upload the same file again.",
        ) from None
    except Exception as failed:
        raise Unavailable("the storage of exhibits does not respond", "Try again in a moment.") from failed
    if found != sha256:
        file.close()
        raise Conflict(
            "the file of this exhibit differs from the uploaded file: its SHA-256 does not match",
            "Ask the operator to restore the exhibits from the backup, or upload the same file again.",
        )
    file.seek(0)
    return file


def _put(name: str, data: bytes) -> None:
    """Write under a name, over what is there."""
    storage = _storage()
    # a folder of ours puts a file in the place of another in one step
    if not isinstance(storage, WholeFiles) and storage.exists(name):
        storage.delete(name)
    try:
        storage.save(name, ContentFile(data))
    except Exception as failed:
        raise Unavailable("the storage of exhibits takes no file", "Try again in a moment.") from failed


def _sum_of(file: IO[bytes]) -> str:
    digest = hashlib.sha256()
    while piece := file.read(PIECE):
        digest.update(piece)
    return digest.hexdigest()


def keep_read(sha256: str, name: str, document: dict[str, Any]) -> None:
    """Keep what was read from a file of this name."""
    _put(_name_read(sha256, name), gzip.compress(orjson.dumps(document), 3))


def names_of(sha256: str, name: str) -> list[str]:
    """The names in the storage of an exhibit and, where it was read, of what was read from it."""
    return [n for n in (_name(sha256), _name_read(sha256, name)) if _storage().exists(n)]


def stored(name: str) -> IO[bytes]:
    """What is in the storage under a name."""
    return _storage().open(name)


def put_back(name: str, data: bytes) -> None:
    """Put bytes under a name of the storage, as a backup has them; raises Conflict where the name is not theirs."""
    if "." not in name and name != _name(hashlib.sha256(data).hexdigest()):
        raise Conflict(f"{name} is not the file of its name", "Use another backup.")
    _put(name, data)


def reading_of(sha256: str, name: str) -> dict[str, Any] | None:
    """What was read from a file of this name; None where it was not read by this engine."""
    path = _name_read(sha256, name)
    if not _storage().exists(path):
        return None
    with _storage().open(path) as file:
        found: dict[str, Any] = orjson.loads(gzip.decompress(file.read()))
    return found
