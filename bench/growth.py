"""How the application carries a large submission: 104,000 values by default.

    .venv/bin/python bench/growth.py [ADDRESS] [--cases 520] [--stories 100]

Against a running `bin/start`. A review with a brief and one table of story drifts (two values for each story and
case) is made, accepted,
rechecked, requested again and changed; prints the times and the size of the sheet, and closes the review in the end.
"""

from __future__ import annotations

import argparse
import time
from collections.abc import Callable
from typing import Any

import httpx

EMAIL, PASSWORD = "ilse.varga@hesper-review.example", "plumb-demo-2026"


def table(stories: int, cases: int) -> str:
    """Drifts of the stories in static cases of both directions, at the greater end and in the mean."""
    lines = ["Case\tDirection\tStory\tMax drift (mm)\tAverage drift (mm)"]
    for case in range(cases):
        direction = "XY"[case % 2]
        for story in range(stories, 0, -1):
            mean = 4.0 + 0.01 * story + 0.001 * case
            lines.append(f"EQ{direction} {case}\t{direction}\tL{story}\t{1.1 * mean:.3f}\t{mean:.3f}")
    return "\n".join(lines)


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("address", nargs="?", default="http://127.0.0.1:8470")
    parser.add_argument("--cases", type=int, default=520)
    parser.add_argument("--stories", type=int, default=100)
    requested = parser.parse_args()
    with httpx.Client(base_url=requested.address, timeout=600) as client:
        client.get("/api/session/")
        token = {"X-CSRFToken": client.cookies["csrftoken"]}
        client.post("/api/session/", json={"email": EMAIL, "password": PASSWORD}, headers=token).raise_for_status()
        token = {"X-CSRFToken": client.cookies["csrftoken"]}
        system = {"lateral_system": "special_reinforced_concrete_shear_walls", "R": 5.0, "Omega_0": 2.5, "C_d": 5.0}
        brief: dict[str, Any] = {
            "edition": "asce7-16",
            "site": {"S_S": 1.2, "S_1": 0.36, "site_class": "C"},
            "occupancy": {"risk_category": "II"},
            "system": {d: {k: v for k, v in system.items() if k != "lateral_system"} for d in "XY"},
            "stories": [{"name": f"L{i + 1}", "height": 3.5, "weight": 5000.0} for i in range(requested.stories)],
        }
        made = client.post("/api/reviews/", json={"title": "Growth", "brief": brief}, headers=token)
        made.raise_for_status()
        base = f"/api/reviews/{made.json()['id']}/"

        def timed(name: str, call: Callable[[], httpx.Response]) -> httpx.Response:
            begun = time.perf_counter()
            answer = call()
            took = time.perf_counter() - begun
            print(
                f"{name:<14} {took:7.2f} s  {answer.status_code}  {answer.num_bytes_downloaded / 1e6:.2f} MB "
                f"sent, {len(answer.content) / 1e6:.2f} MB"
            )
            assert answer.status_code < 400, answer.text
            return answer

        body = {"text": table(requested.stories, requested.cases), "kind": "drifts"}
        try:
            timed("accepted", lambda: client.post(base + "tables/", json=body, headers=token))
            timed("first sheet", lambda: client.get(base + "recheck/"))
            stored = timed("stored", lambda: client.get(base + "recheck/"))
            tag = {"If-None-Match": stored.headers["ETag"]}
            timed("not changed", lambda: client.get(base + "recheck/", headers=tag))
            brief["site"]["S_S"] = 1.25
            change = {"brief": brief, "based_on": 1}
            timed("brief changed", lambda: client.put(base + "brief/", json=change, headers=token))
        finally:
            closing = {"If-Match": '"1"', **token}
            client.patch(base, json={"status": "closed"}, headers=closing)


if __name__ == "__main__":
    main()
