"""A simulated hazard service for the invented Hesper Isles: its own process, its own JSON API, documented in README.md.

It replaces the national services that a real installation would ask; the server talks to it through an adapter
and never needs it.  Run it with any WSGI server: `gunicorn --chdir hazard service:application`.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable
from functools import cache
from pathlib import Path
from typing import Any
from urllib.parse import parse_qs

GRIDS = Path(__file__).parent / "grids"


class Refused(Exception):
    """A question that cannot be answered: HTTP status and words."""

    def __init__(self, status: str, detail: str):
        self.status = status
        super().__init__(detail)


@cache
def grids() -> dict[str, dict[str, Any]]:
    """Return the grids by edition, read once."""
    return {g["edition"]: g for g in (json.loads(p.read_text()) for p in sorted(GRIDS.glob("*.json")))}


def datasets() -> list[dict[str, Any]]:
    """What the service holds: editions with version, date, parameters and the area covered."""
    return [
        {
            "edition": edition,
            "version": grid["version"],
            "date": grid["date"],
            "parameters": list(grid["values"]),
            "by_site_class": list(grid.get("amplification", {})),
            "area": {
                "latitude": [grid["latitudes"][0], grid["latitudes"][-1]],
                "longitude": [grid["longitudes"][0], grid["longitudes"][-1]],
            },
        }
        for edition, grid in grids().items()
    ]


def _place(at: float, nodes: list[float], name: str) -> tuple[int, float]:
    """Cell and share within it of a coordinate."""
    if not nodes[0] <= at <= nodes[-1]:
        raise Refused("404 Not Found", f"{name} {at:g} is outside the area of the grid, {nodes[0]:g} to {nodes[-1]:g}")
    cell = min(int((at - nodes[0]) / (nodes[1] - nodes[0])), len(nodes) - 2)
    return cell, (at - nodes[cell]) / (nodes[cell + 1] - nodes[cell])


def _between(corners: list[Any], u: float, v: float) -> Any:
    """Bilinear value of four corners, number by number."""
    if isinstance(corners[0], list):
        return [_between([c[i] for c in corners], u, v) for i in range(len(corners[0]))]
    a, b, c, d = corners
    return round((a * (1 - v) + b * v) * (1 - u) + (c * (1 - v) + d * v) * u, 4)


def values(edition: str, latitude: float, longitude: float, site_class: str = "") -> dict[str, Any]:
    """Values at a place: interpolated between the nodes of the grid, zones from the nearest one."""
    grid = grids().get(edition)
    if grid is None:
        raise Refused("404 Not Found", f"there is no grid for {edition!r}; there are: {', '.join(grids())}")
    row, u = _place(latitude, grid["latitudes"], "latitude")
    column, v = _place(longitude, grid["longitudes"], "longitude")
    found: dict[str, Any] = {}
    for name, field in grid["values"].items():
        corners = [field[row][column], field[row][column + 1], field[row + 1][column], field[row + 1][column + 1]]
        nearest = corners[2 * (u >= 0.5) + (v >= 0.5)]
        found[name] = nearest if isinstance(nearest, str) or name == "T_L" else _between(corners, u, v)
    if grid.get("by_site_class"):
        found = _at_class(grid, found, site_class)
    return {
        "edition": edition,
        "version": grid["version"],
        "date": grid["date"],
        "latitude": latitude,
        "longitude": longitude,
        "values": found,
    }


def _at_class(grid: dict[str, Any], found: dict[str, Any], site_class: str) -> dict[str, Any]:
    if site_class not in grid["amplification"]:
        raise Refused(
            "400 Bad Request", f"these values depend on the site class; give one of: {', '.join(grid['amplification'])}"
        )
    short, long = grid["amplification"][site_class]
    ordinates = []
    for T, S_a in zip(grid["periods"], found.pop("mce"), strict=True):
        share = min(max((T - 0.2) / 0.8, 0.0), 1.0)
        ordinates.append(round(S_a * (short + (long - short) * share), 4))
    stiff = site_class in ("A", "B", "BC", "C")
    points = list(zip(grid["periods"], ordinates, strict=True))
    S_MS = 0.9 * max(S for T, S in points if 0.2 <= T <= 5)
    S_M1 = max(0.9 * max(T * S for T, S in points if 1 <= T <= (2 if stiff else 5)), dict(points)[1])
    return {
        "S_MS": round(S_MS, 3),
        "S_M1": round(S_M1, 3),
        **found,
        "site_class": site_class,
        "mce": {"T": [float(T) for T in grid["periods"]], "S_a": ordinates},
    }


def _asked(query: dict[str, list[str]], name: str) -> float:
    try:
        return float(query[name][0])
    except (KeyError, ValueError):
        raise Refused("400 Bad Request", f"{name} has to be given as a number of degrees") from None


def answer(path: str, query: dict[str, list[str]]) -> Any:
    """Return the answer to a path and its query."""
    if path == "/v1/datasets":
        return datasets()
    if path == "/v1/values":
        edition = query.get("edition", [""])[0]
        return values(edition, _asked(query, "latitude"), _asked(query, "longitude"), query.get("site_class", [""])[0])
    raise Refused("404 Not Found", "there is /v1/datasets and /v1/values")


def application(environ: dict[str, Any], start_response: Callable[..., Any]) -> Iterable[bytes]:
    """The WSGI application."""
    try:
        body, status = answer(environ.get("PATH_INFO", ""), parse_qs(environ.get("QUERY_STRING", ""))), "200 OK"
    except Refused as refused:
        body, status = {"detail": str(refused)}, refused.status
    data = json.dumps(body).encode()
    start_response(status, [("Content-Type", "application/json"), ("Content-Length", str(len(data)))])
    return [data]
