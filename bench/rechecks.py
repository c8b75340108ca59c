"""Time of a recheck and of assumptions, as ratios to one full recheck of the same document.

Run with the project's Python: `.venv/bin/python bench/rechecks.py`.  The document is the demo's clinic, with its
reference model,
whose modes are solved once before.  Ratios are of the shortest of several runs, accepted turns, so that a slowed
machine
slows both sides.
"""

from __future__ import annotations

import gc
import json
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from plumb_core.checks.context import Context
from plumb_core.checks.recheck import checks_of, context_of, recheck, reference_requests
from plumb_core.documents.reading import read_recheck
from plumb_core.rules import Key
from plumb_core.solve import solve

CLINIC = Path(__file__).parents[1] / "core" / "tests" / "data" / "demo" / "port-maren.plumb.json"
ASSUMPTIONS = 100


def shortest(works: dict[str, Callable[[], object]], repeats: int) -> dict[str, float]:
    """Shortest time of each, s."""
    gc.collect()
    gc.freeze()
    times = dict.fromkeys(works, float("inf"))
    for _ in range(repeats):
        for name, work in works.items():
            start = time.perf_counter()
            work()
            times[name] = min(times[name], time.perf_counter() - start)
    return times


def main() -> None:
    """Print the table."""
    np.seterr(all="ignore")
    document: dict[str, Any] = json.loads(CLINIC.read_text(encoding="utf-8"))
    request = reference_requests(read_recheck(document)).get("modal")
    answer = None if request is None else solve(request)
    read = read_recheck(document)
    context = Context.of(read, {"modal": answer})
    checks_of(context)

    def assumptions() -> None:
        for i in range(ASSUMPTIONS):
            checks_of(context.assuming(inputs={Key("R", "X"): 5.0 + 0.01 * i}))

    full = "a full recheck, from the document to its answer"
    works: dict[str, Callable[[], object]] = {
        full: lambda: recheck(document, lambda _: answer),
        "the same without derivations": lambda: recheck(document, lambda _: answer, steps=False),
        "its document read": lambda: context_of(document, lambda _: answer),
        "its checks, of a document that is read": lambda: checks_of(Context.of(read, {"modal": answer})),
        f"{ASSUMPTIONS} assumptions of one input each": assumptions,
    }
    times = shortest(works, 30)
    print(f"{full}: {1e3 * times[full]:.1f} ms")
    for name, used in times.items():
        if name != full:
            print(f"{name}: {used / times[full]:.2f} of it ({1e3 * used:.1f} ms)")
    print(f"{ASSUMPTIONS} assumptions: {times[name] / (ASSUMPTIONS * times[full]):.3f} of {ASSUMPTIONS} full rechecks")


if __name__ == "__main__":
    main()
