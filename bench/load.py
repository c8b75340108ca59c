"""How quick the application is for many reviewers at once, compared with one of them alone.

    .venv/bin/python bench/load.py [ADDRESS] [--people 50] [--seconds 60] [--pause 3] [--reviews 10]

Against a running `bin/start` (by default at its usual address). Reviewers look at reviews as the screens do: the
list, a review with sheet and
findings, derivations, a change of the brief and its undo, editions side by side, a table that is read; with a pause
after each look. Each of
them works on a copy of the demo's clinic, which is made first and closed in the end. Prints times of one reviewer
and of all of them,
their ratio, and the memory of the server's processes; ends with status 1 where a request failed.
"""

from __future__ import annotations

import argparse
import asyncio
import random
import re
import statistics
import sys
import time
from collections import defaultdict
from collections.abc import Awaitable, Callable
from pathlib import Path
from typing import Any

import httpx

EMAIL, PASSWORD = "ilse.varga@hesper-review.example", "plumb-demo-2026"
TABLE = "Story\tHeight (m)\tWeight (kN)\n" + "".join(f"L{i}\t3.6\t{900 + i}\n" for i in range(40, 0, -1))


class Reviewer:
    """Somebody at a review, who looks, waits, and looks again."""

    def __init__(self, client: httpx.AsyncClient, review: str, times: dict[str, list[float]], failed: list[str]):
        self.client, self.review, self.times, self.failed = client, review, times, failed
        self.tags: dict[str, str] = {}
        self.number = 0

    async def ask(self, name: str, method: str, path: str, body: Any = None) -> Any:
        """One request, its time noted under a name."""
        headers = {"X-CSRFToken": self.client.cookies.get("csrftoken", "")}
        if method == "GET" and path in self.tags:
            headers["If-None-Match"] = self.tags[path]
        begun = time.perf_counter()
        try:
            answer = await self.client.request(method, path, json=body, headers=headers)
        except httpx.HTTPError as error:
            self.failed.append(f"{method} {path}: {type(error).__name__}")
            return None
        self.times[name].append(time.perf_counter() - begun)
        if answer.status_code >= 400 and answer.status_code != 412:
            self.failed.append(f"{method} {path}: {answer.status_code} {answer.text[:120]}")
        if "ETag" in answer.headers:
            self.tags[path] = answer.headers["ETag"]
        return answer.json() if answer.status_code < 300 and answer.content else None

    @property
    def base(self) -> str:
        return f"/api/reviews/{self.review}/"

    async def opens(self) -> None:
        await self.ask("list", "GET", "/api/reviews/")
        reported = await self.ask("review", "GET", self.base)
        self.number = reported["brief_number"] if reported else self.number
        await self.ask("sheet", "GET", self.base + "recheck/")
        await self.ask("findings", "GET", self.base + "findings/")
        await self.ask("editions", "GET", "/api/editions/")

    async def derives(self) -> None:
        await self.ask("derivation", "GET", self.base + "derivation/?side=independent&step=F_v")

    async def changes(self) -> None:
        reported = await self.ask("review", "GET", self.base)
        if reported is None:
            return
        brief = reported["brief"]
        brief["site"]["S_S"] = round(1.1 + 0.3 * random.random(), 4)
        body = {"brief": brief, "based_on": reported["brief_number"]}
        await self.ask("brief change", "PUT", self.base + "brief/", body)

    async def compares(self) -> None:
        await self.ask("across", "GET", self.base + "across/")

    async def reads(self) -> None:
        await self.ask("table", "POST", self.base + "tables/read/", {"text": TABLE})

    async def works(self, until: float, pause: float) -> None:
        await asyncio.sleep(random.random() * pause)
        looks: list[tuple[Callable[[], Awaitable[None]], int]] = [
            (self.opens, 4), (self.derives, 6), (self.changes, 1), (self.compares, 1), (self.reads, 1)
        ]  # fmt: skip
        acts = [act for act, weight in looks for _ in range(weight)]
        while time.perf_counter() < until:
            await random.choice(acts)()
            await asyncio.sleep(pause)


def told(name: str, times: dict[str, list[float]]) -> tuple[float, float]:
    """Print the times of a run; (p50, p95) of all of them, s."""
    everything = sorted(t for entry in times.values() for t in entry)
    p50, p95 = statistics.median(everything), everything[int(0.95 * (len(everything) - 1))]
    print(
        f"{name}: {len(everything)} requests, p50 {p50 * 1e3:.0f} ms, p95 {p95 * 1e3:.0f} ms, longest "
        f"{everything[-1]:.2f} s"
    )
    for what, entry in sorted(times.items()):
        entry.sort()
        print(
            f"    {what:<13} {len(entry):>5}  p50 {statistics.median(entry) * 1e3:>5.0f} ms  p95 "
            f"{entry[int(0.95 * (len(entry) - 1))] * 1e3:>5.0f} ms"
        )
    return p50, p95


def memory(address: str) -> float:
    """MB that the processes of the server hold themselves (what they share counted once).

    0 where they are not on this machine.
    """
    total = 0.0
    for process in Path("/proc").glob("[0-9]*"):
        try:
            command = (process / "cmdline").read_bytes()
            if b"gunicorn" not in command or b"service:application" in command:
                continue
            rollup = (process / "smaps_rollup").read_text()
        except OSError:
            continue
        total += int(re.search(r"Pss:\s+(\d+)", rollup).group(1)) / 1e3  # type: ignore[union-attr]
    return total


async def run(
    client: httpx.AsyncClient, reviews: list[str], people: int, seconds: float, pause: float
) -> tuple[dict[str, list[float]], list[str]]:
    times: dict[str, list[float]] = defaultdict(list)
    failed: list[str] = []
    until = time.perf_counter() + seconds
    those = [Reviewer(client, reviews[i % len(reviews)], times, failed) for i in range(people)]
    await asyncio.gather(*(one.works(until, pause) for one in those))
    return times, failed


async def main() -> int:
    parser = argparse.ArgumentParser()
    parser.add_argument("address", nargs="?", default="http://127.0.0.1:8470")
    parser.add_argument("--people", type=int, default=50)
    parser.add_argument("--seconds", type=float, default=60)
    parser.add_argument("--pause", type=float, default=3)
    parser.add_argument("--reviews", type=int, default=10)
    requested = parser.parse_args()
    async with httpx.AsyncClient(
        base_url=requested.address, timeout=60, limits=httpx.Limits(max_connections=200)
    ) as client:
        await client.get("/api/session/")
        token = {"X-CSRFToken": client.cookies["csrftoken"]}
        signed = await client.post("/api/session/", json={"email": EMAIL, "password": PASSWORD}, headers=token)
        signed.raise_for_status()
        token = {"X-CSRFToken": client.cookies["csrftoken"]}
        listed = (await client.get("/api/reviews/", params={"words": "Port Maren Clinic"})).json()
        exported = (await client.get(f"/api/reviews/{listed[-1]['id']}/export/")).json()
        reviews = []
        for i in range(requested.reviews):
            exported["review"]["title"] = f"Load {i + 1}"
            made = await client.post("/api/reviews/import/", json=exported, headers=token)
            made.raise_for_status()
            reviews.append(made.json()["id"])
        try:
            alone, failed = await run(client, reviews, 1, min(requested.seconds, 20), 0.2)
            one = told("one reviewer", alone)
            together, more = await run(client, reviews, requested.people, requested.seconds, requested.pause)
            failed += more
            many = told(f"{requested.people} reviewers, {requested.pause:g} s pause", together)
        finally:
            for review in reviews:
                revision = (await client.get(f"/api/reviews/{review}/")).json()["revision"]
                closing = {"If-Match": f'"{revision}"', **token}
                await client.patch(f"/api/reviews/{review}/", json={"status": "closed"}, headers=closing)
    print(
        f"ratio of many to one: p50 {many[0] / one[0]:.1f}, p95 {many[1] / one[1]:.1f}; server processes "
        f"{memory(requested.address):.0f} MB"
    )
    for line in failed[:10]:
        print("failed:", line)
    print(f"{len(failed)} failed")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(asyncio.run(main()))
