"""A folder of files that are there whole or not at all."""

from __future__ import annotations

import os
import tempfile
from pathlib import Path

from django.core.files.base import File
from django.core.files.storage import FileSystemStorage


class WholeFiles(FileSystemStorage):
    """Files that are named by what is in them: written to a temporary name, synced to the disk, then renamed."""

    def get_available_name(self, name: str, max_length: int | None = None) -> str:
        """The name itself: what is there under it is the same, or broken."""
        return name

    def _save(self, name: str, content: File[bytes]) -> str:
        path = Path(self.path(name))
        path.parent.mkdir(parents=True, exist_ok=True)
        handle, temporary = tempfile.mkstemp(prefix=f"{path.name}.", suffix=".part", dir=path.parent)
        try:
            with os.fdopen(handle, "wb") as file:
                for chunk in content.chunks():
                    file.write(chunk)
                file.flush()
                os.fsync(file.fileno())
            Path(temporary).replace(path)
        except BaseException:
            Path(temporary).unlink(missing_ok=True)
            raise
        folder = os.open(path.parent, os.O_RDONLY)
        try:
            os.fsync(folder)
        finally:
            os.close(folder)
        return name
