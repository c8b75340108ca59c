"""Names of questions: what was asked before has its answer in the store."""

from __future__ import annotations

import hashlib
import json
from typing import Any

import orjson
from plumb_core import ENGINE


def input_hash(document: Any) -> str:
    """Hash of everything that a result depends on: the document and the engine's version."""
    try:
        canonical = orjson.dumps(document, option=orjson.OPT_SORT_KEYS)
    except TypeError:  # whole numbers beyond 64 bits
        canonical = json.dumps(document, sort_keys=True).encode()
    return hashlib.sha256(ENGINE.encode() + b"\n" + canonical).hexdigest()
