"""Small documents for tests of facts.

Three stories of 3.5 m and 3600 kN, cases with both ends, and what comes of them.
"""

from __future__ import annotations

from typing import Any

from plumb_core.checks.recheck import recheck
from plumb_core.solve import solve
from test_all_editions import FACTORS, OCCUPANCY, SITES

STORIES = ("L1", "L2", "L3")
HEIGHT, WEIGHT = 3.5, 3600.0
PARTS = ("edition", "site", "occupancy", "system", "stories", "period")
Ends = tuple[float, float]


def stories(**more: Any) -> list[dict[str, Any]]:
    return [{"name": n, "height": HEIGHT, "weight": WEIGHT, "plan": [30.0, 20.0], **more} for n in STORIES]


def systems(edition: str, **more: Any) -> dict[str, Any]:
    return {d: {"period_type": "other", **FACTORS[edition], **more} for d in "XY"}


def document(edition: str = "asce7-16", *, cases: Any = (), claims: Any = (), **brief: Any) -> dict[str, Any]:
    made = {
        "edition": edition,
        "site": SITES[edition],
        "occupancy": OCCUPANCY[edition],
        "system": systems(edition),
        "stories": stories(),
        "period": {d: {"analysis": 0.9} for d in "XY"},
        **({"structure_type": "none"} if edition == "en1998-1" else {}),
        **brief,
    }
    submission = {"label": "S0", "cases": list(cases), "claims": list(claims)}
    return {"format": "plumb-recheck", "version": 1, "brief": made, "submission": submission}


def claim(
    quantity: str, value: float | str, direction: str | None = None, story: str = "", case: str = "", text: str = ""
) -> dict[str, Any]:
    made: dict[str, Any] = {"quantity": quantity, "value": value}
    made["text"] = text or (value if isinstance(value, str) else f"{value:.6g}")
    return made | {k: v for k, v in (("direction", direction), ("story", story), ("case", case)) if v}


def case(
    name: str, kind: str = "static", direction: str = "X", eccentricity: float = 0.05, **role: Any
) -> dict[str, Any]:
    return {
        "name": name,
        "kind": kind,
        "direction": direction,
        "eccentricity": eccentricity,
        "level": "reduced",
        **role,
    }


def drifts(name: str, direction: str, *ends: Ends) -> list[dict[str, Any]]:
    """Drifts of both ends, m, of each story; one pair represents all."""
    pairs = ends if len(ends) > 1 else ends * len(STORIES)
    return [
        claim(f"drift_end_{k}", value, direction, story, name)
        for story, pair in zip(STORIES, pairs, strict=True)
        for k, value in enumerate(pair, 1)
    ]


def both_sides(*ends: Ends, direction: str = "X") -> tuple[list[dict[str, Any]], list[dict[str, Any]]]:
    """Static cases with the mass to either side, and their drifts."""
    names = (f"{direction} +", f"{direction} -")
    roles = [case(n, direction=direction, eccentricity=e) for n, e in zip(names, (0.05, -0.05), strict=True)]
    return roles, [c for n in names for c in drifts(n, direction, *ends)]


def checks_of(made: dict[str, Any]) -> dict[str, dict[str, Any]]:
    return {c["id"]: c for c in recheck(made, steps=False)["checks"]}


def facts_of(made: dict[str, Any]) -> dict[tuple[str, str | None], dict[str, Any]]:
    return {(f["quantity"], f["direction"]): f for f in recheck(made, steps=False)["facts"]}


def deviating(made: dict[str, Any]) -> dict[str, str]:
    """Verdicts of what differs, exceeds a limit or is asked, by id."""
    return {i: c["verdict"] for i, c in checks_of(made).items() if c["verdict"] in ("differs", "breaches", "question")}


def origins(made: dict[str, Any]) -> list[str]:
    return list(recheck(made, steps=False)["origins"])


def static_of(made: dict[str, Any]) -> dict[str, Any]:
    return solve({"kind": "static", **{n: made["brief"][n] for n in PARTS}})
