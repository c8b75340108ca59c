"""Names of questions: what was asked before has its answer in the store."""

from __future__ import annotations

import hashlib
import json
from typing import Any

from plumb_core import ENGINE


def input_hash(document: dict[str, Any]) -> str:
    """Hash of everything that a result depends on: the document and the engine's version."""
    canonical = json.dumps(document, sort_keys=True, ensure_ascii=False, separators=(",", ":"))
    return hashlib.sha256(f"{ENGINE}\n{canonical}".encode()).hexdigest()
