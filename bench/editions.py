"""Time of all editions for one building, both directions, with and without derivations, from 5 to 200 stories.

Run with the project's Python: `.venv/bin/python bench/editions.py`.  It prints medians in ms of one process: ground,
spectrum (60 periods) and static method of every edition.
"""

from __future__ import annotations

import statistics
import time
from typing import Any

from plumb_core.editions import EDITIONS
from plumb_core.solve import solve

SITES: dict[str, dict[str, Any]] = {
    **{f"asce7-{y}": {"S_S": 1.2, "S_1": 0.5, "T_L": 6.0, "site_class": "D"} for y in ("05", "10", "16")},
    "asce7-22": {"S_MS": 1.4, "S_M1": 0.9, "S_1": 0.4, "T_L": 6.0, "site_class": "D"},
    "ubc97": {"zone": "4", "soil": "S_D", "source_type": "A", "source_distance_km": 4.0},
    "en1998-1": {"a_gR": 0.25, "ground_type": "C", "spectrum_type": 1},
    "is1893-2002": {"zone": "IV", "soil": "II"},
    "is1893-2016": {"zone": "IV", "soil": "II"},
    "as1170.4": {"Z": 0.12, "subsoil": "D_e"},
    "custom": {"T": [0.0, 0.2, 0.6, 9.0], "S_a": [0.4, 1.0, 1.0, 0.06], "own": {"period_coefficient": 0.05}},
}
OCCUPANCY: dict[str, dict[str, Any]] = {
    **{f"asce7-{y}": {"risk_category": "II"} for y in ("05", "10", "16", "22")},
    "ubc97": {"I": 1.0},
    "en1998-1": {"importance_class": "II"},
    "is1893-2002": {"use": "other"},
    "is1893-2016": {"use": "other"},
    "as1170.4": {"importance_level": 2},
    "custom": {},
}
SYSTEM = {"R": 5.0, "Omega_0": 2.5, "C_d": 5.0, "q": 3.0, "mu": 2.0, "S_p": 0.77}
PERIODS = [0.02 + 0.065 * i for i in range(60)]
STORIES = (5, 10, 20, 60, 100, 200)
# low stories keep the approximate period of 200 of them inside the curve of the 2002 edition
HEIGHT = 2.0


def requests(edition: str, stories: int, steps: bool) -> list[dict[str, Any]]:
    computed = SYSTEM | ({} if edition == "custom" else {"period_type": "rc_mrf"})
    common = {"edition": edition, "site": SITES[edition], "occupancy": OCCUPANCY[edition], "steps": steps}
    system = {"X": computed, "Y": computed}
    floors = [{"name": f"L{i}", "height": HEIGHT, "weight": 4000.0} for i in range(stories)]
    period = {"X": {"analysis": 1.5}, "Y": {"analysis": 1.2}}
    if edition.startswith("is1893"):
        # the approximate period of a frame 400 m high is beyond 4 s
        system = {d: {**computed, "period_type": "other", "d": 100.0} for d in ("X", "Y")}
    return [
        {"kind": "ground", **common},
        {"kind": "spectrum", **common, "T": PERIODS, "system": system},
        {"kind": "static", **common, "system": system, "stories": floors, "period": period},
    ]


def median(stories: int, steps: bool, repeats: int = 15) -> float:
    """Median time, ms, of all editions."""
    documents = [r for edition in EDITIONS for r in requests(edition, stories, steps)]
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        for document in documents:
            solve(document)
        times.append(1000 * (time.perf_counter() - start))
    return statistics.median(times)


def main() -> None:
    median(5, True, 3)
    print(f"{len(EDITIONS)} editions, both directions; ms")
    print("stories   with derivations   without")
    for stories in STORIES:
        print(f"{stories:7d} {median(stories, True):18.1f} {median(stories, False):9.1f}")


if __name__ == "__main__":
    main()
