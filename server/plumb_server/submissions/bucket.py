"""Exhibits in a store with the S3 protocol; what it needs is in requirements/s3.txt."""

from __future__ import annotations

from typing import Any

from botocore.config import Config
from storages.backends.s3 import S3Storage


class Bucket(S3Storage):  # type: ignore[misc]
    """A bucket that everybody who needs it reaches, and that is given up when it does not respond."""

    def get_default_settings(self) -> dict[str, Any]:
        """Time limits, and files that are private and are named by what is in them."""
        return {
            **super().get_default_settings(),
            "file_overwrite": True,
            "default_acl": None,
            "client_config": Config(
                connect_timeout=3, read_timeout=30, retries={"total_max_attempts": 2}, signature_version="s3v4"
            ),
        }
