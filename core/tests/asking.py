"""Short ways to ask the core, for the tests of the editions."""

from __future__ import annotations

from typing import Any

from plumb_core.solve import solve


def stories(count: int, height: float = 3.5, weight: float = 1000.0, **more: Any) -> list[dict[str, Any]]:
    return [{"name": f"L{i + 1}", "height": height, "weight": weight, **more} for i in range(count)]


def ground(edition: str, site: dict[str, Any], occupancy: dict[str, Any]) -> dict[str, Any]:
    return solve({"kind": "ground", "edition": edition, "site": site, "occupancy": occupancy})


def spectrum(
    edition: str,
    site: dict[str, Any],
    occupancy: dict[str, Any],
    T: list[float],
    system: dict[str, Any] | None = None,
    **more: Any,
) -> dict[str, Any]:
    request: dict[str, Any] = {
        "kind": "spectrum",
        "edition": edition,
        "site": site,
        "occupancy": occupancy,
        "T": T,
        **more,
    }
    if system is not None:
        request["system"] = {"X": system}
    return solve(request)


def static(
    edition: str,
    site: dict[str, Any],
    occupancy: dict[str, Any],
    system: dict[str, Any],
    floors: list[dict[str, Any]],
    T: float | None = None,
    **building: Any,
) -> dict[str, Any]:
    """Result of the static method in X, with the notes of the answer."""
    answer = solve(
        {
            "kind": "static",
            "edition": edition,
            "site": site,
            "occupancy": occupancy,
            "system": {"X": system, **building},
            "stories": floors,
            "period": {"X": {"analysis": T}} if T else {},
        }
    )
    return {**answer["X"], "notes": answer["notes"]}
