"""The collector of cycles, paused while tables are read."""

from __future__ import annotations

import gc
from collections.abc import Iterator
from contextlib import contextmanager


@contextmanager
def paused() -> Iterator[None]:
    """Without the collector: a long table makes a million objects and no cycles, and half of the time went to it."""
    collecting = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if collecting:
            gc.enable()
