"""Process time of a piece of work, put on a common footing, so that a slowed machine does not fail a limit."""

from __future__ import annotations

import gc
import time
from collections.abc import Callable

YARDSTICK = 0.0053
"""s the yardstick takes on the two-core machine that the limits were set for, at its full speed."""


def _yardstick() -> None:
    counts: dict[int, int] = {}
    for i in range(40_000):
        counts[i % 97] = counts.get(i % 89, 0) + 1


def yardstick_seconds() -> float:
    """Process time of one yardstick, s; a multiple of `YARDSTICK` on a machine that is slowed."""
    start = time.process_time()
    _yardstick()
    return time.process_time() - start


def process_seconds(work: Callable[[], object], repeats: int = 20) -> float:
    """Least process time of `work`, s, at full speed: divided by how much longer the yardstick takes than it should.

    Never multiplied: a faster machine gets no stricter limit.
    """

    def taken(some: Callable[[], object]) -> float:
        start = time.process_time()
        some()
        return time.process_time() - start

    # What other tests of the session have left is set aside, or the collector would walk it again and again
    gc.collect()
    gc.freeze()
    # accepted turns, so that both meet the same conditions
    try:
        pairs = [(taken(work), taken(_yardstick)) for _ in range(repeats)]
    finally:
        gc.unfreeze()
    slowness = max(1.0, min(pair[1] for pair in pairs) / YARDSTICK)
    return min(pair[0] for pair in pairs) / slowness
