"""Time of the cause finder and of a what-if, as ratios to one recheck of the same document, and how they grow.

Run with the project's Python: `.venv/bin/python bench/causes.py`.  The documents are the demo's reviews; the clinic is
repeated over as many load cases as make it larger.
"""

from __future__ import annotations

import copy
import gc
import json
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Any

import numpy as np
from plumb_core.causes.search import Search, causes_of
from plumb_core.causes.slips import slips
from plumb_core.checks.recheck import all_checks, context_of
from plumb_core.documents.reading import read_recheck
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.sensitivity import sensitivity
from plumb_core.what_if import Assumptions, assumed

DEMO = Path(__file__).parents[1] / "core" / "tests" / "data" / "demo"
SIZES = (1, 10, 30)


def shortest(work: Callable[[], object], repeats: int = 5) -> float:
    """Shortest time of several runs, s."""
    gc.collect()
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return min(times)


def larger(document: dict[str, Any], times: int) -> dict[str, Any]:
    """The document with its story forces stated in so many more load cases."""
    made = copy.deepcopy(document)
    forces = [c for c in document["submission"]["claims"] if c["quantity"] in ("F", "V_story", "M_story")]
    for i in range(1, times):
        made["submission"]["claims"] += [{**c, "case": f"{c.get('case', '')} {i}"} for c in forces]
    return made


def rechecked(read: RecheckDocument) -> object:
    """The checks of a document that is read."""
    return all_checks(context_of(read))


def main() -> None:
    """Print the table."""
    np.seterr(all="ignore")
    print(f"{len(slips())} families of slips")
    documents = [(f.stem.split(".")[0], json.loads(f.read_text(encoding="utf-8"))) for f in sorted(DEMO.glob("*.json"))]
    clinic = dict(documents).get("port-maren")
    cases = [(n, d) for n, d in documents if "brief" in d]
    if clinic is not None:
        cases += [(f"port-maren, {times} times the forces", larger(clinic, times)) for times in SIZES[1:]]
    for name, document in cases:
        read = read_recheck(document)
        context = context_of(read)
        checks = all_checks(context)
        recheck = shortest(partial(rechecked, read))
        search = Search(context, checks)
        hits = len(list(search.candidates(lambda share: True)))
        causes = shortest(partial(causes_of, context, checks))
        what_if = shortest(partial(assumed, read, checks, Assumptions({"tolerance": 0.02})))
        effects = shortest(partial(sensitivity, read), 2)
        print(
            f"{name}: {len(read.submission.claims)} claims, recheck {1e3 * recheck:.0f} ms; "
            f"causes {causes / recheck:.2f} of it ({1e3 * causes:.0f} ms, {search.evaluations} evaluations, "
            f"{hits} hits); "
            f"what-if {what_if / recheck:.2f}; sensitivity {effects / recheck:.1f}"
        )


if __name__ == "__main__":
    main()
