"""Processes that read files: each within limits, forked from one process that has the reader loaded.

Loading the reader takes longer than reading a small file. The first call starts a process that loads it once; each file
is then read in a fork of it, so that a file that ends its reader ends nothing else.
"""

from __future__ import annotations

import json
import multiprocessing
import time
from collections.abc import Callable
from typing import Any

from django.conf import settings
from plumb_core.intake.reader import serve

_CONTEXT = multiprocessing.get_context("forkserver")
_CONTEXT.set_forkserver_preload(["plumb_core.intake.reader"])
MAX_ANSWER = 400_000_000
"""Bytes of the tables of one file."""
WAIT = 0.2
"""s between two looks at whether somebody stopped the reading."""
LIMIT_REACHED = {
    "message": "reading this file exceeds the limit of time or memory",
    "remedy": "Upload only the tables, or the pages that have them.",
}


def read_in_process(
    data: bytes,
    name: str,
    seconds: int,
    region: str = "",
    progress: Callable[[int, int], None] | None = None,
    *,
    plain: bool = False,
) -> dict[str, Any]:
    """Read a file in a process of its own.

    Parameters
    ----------
    data, name : the file
    seconds : s of processor time; the process ends after twice as many seconds at the latest
    region : label of a part of a page; empty for the whole file
    plain : the sheets of a workbook as they are
    progress : called with page and number of pages; what it raises ends the process

    Returns
    -------
    dict
        `tables`, or `refused` with message and remedy
    """
    here, there = _CONTEXT.Pipe()
    process = _CONTEXT.Process(
        target=serve, args=(there, name, region, settings.READING_MEMORY, seconds, plain), daemon=True, name="reader"
    )
    process.start()
    there.close()
    page = pages = 0
    deadline = time.monotonic() + 2 * seconds
    try:
        here.send_bytes(data)
        while time.monotonic() < deadline:
            if here.poll(WAIT):
                # bytes, not objects: what a hostile file makes of its reader is not unpickled here
                message: dict[str, Any] = json.loads(here.recv_bytes(MAX_ANSWER))
                if "page" not in message:
                    return message
                page, pages = message["page"], message["pages"]
            if progress is not None:
                progress(page, pages)
    except (EOFError, OSError, ValueError):
        # the process ended at one of its limits
        return {"refused": LIMIT_REACHED}
    finally:
        process.kill()
        process.join()
        here.close()
    return {"refused": LIMIT_REACHED}
