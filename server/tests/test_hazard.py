"""The simulated hazard service and the adapter to it."""

from __future__ import annotations

import importlib.util
import json
import socket
import threading
import time
from collections.abc import Iterator
from pathlib import Path
from types import ModuleType
from typing import Any
from wsgiref.simple_server import WSGIRequestHandler, make_server

import pytest
from django.core.cache import cache
from plumb_core.editions import EDITIONS
from plumb_server.hazard import client

HAZARD = Path(__file__).resolve().parents[2] / "hazard"


@pytest.fixture(scope="module")
def service() -> ModuleType:
    spec = importlib.util.spec_from_file_location("hazard_service", HAZARD / "service.py")
    assert spec
    assert spec.loader
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


class Quiet(WSGIRequestHandler):
    def log_message(self, *args: Any) -> None:
        pass


@pytest.fixture
def address(service: ModuleType) -> Iterator[str]:
    server = make_server("127.0.0.1", 0, service.application, handler_class=Quiet)
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{server.server_port}"
    server.shutdown()
    server.server_close()


def node(edition: str, row: int, column: int) -> tuple[dict[str, Any], float, float]:
    grid = json.loads((HAZARD / "grids" / f"{edition}.json").read_text())
    return grid, grid["latitudes"][row], grid["longitudes"][column]


@pytest.mark.parametrize("edition", [e for e in EDITIONS if e not in ("custom", "asce7-22")])
def test_a_node_has_the_value_of_its_grid(service: ModuleType, edition: str) -> None:
    grid, latitude, longitude = node(edition, 3, 5)
    found = service.values(edition, latitude, longitude)
    assert found["values"] == {name: field[3][5] for name, field in grid["values"].items()}
    assert (found["version"], found["date"]) == (grid["version"], grid["date"])
    # every name is an input of the edition, so that it can be adopted
    assert {*found["values"]} <= {*EDITIONS[edition].inputs}


def test_between_nodes_it_is_bilinear(service: ModuleType) -> None:
    grid, latitude, longitude = node("asce7-16", 2, 4)
    S = grid["values"]["S_S"]
    found = service.values("asce7-16", latitude + 0.0625, longitude + 0.125)["values"]["S_S"]
    # a quarter up, half across
    lower, upper = (S[2][4] + S[2][5]) / 2, (S[3][4] + S[3][5]) / 2
    assert found == pytest.approx(0.75 * lower + 0.25 * upper, abs=6e-5)


def test_values_by_site_class_agree_with_the_rules_of_the_edition(service: ModuleType) -> None:
    from plumb_core.solve import solve

    found = service.values("asce7-22", 47.62, -30.41, "D")["values"]
    site = {k: found[k] for k in ("S_1", "T_L", "mce")} | {"site_class": "D"}
    ground = solve({"kind": "ground", "edition": "asce7-22", "site": site, "occupancy": {"risk_category": "II"}})
    assert (ground["S_MS"], ground["S_M1"]) == (
        pytest.approx(found["S_MS"], abs=6e-4),
        pytest.approx(found["S_M1"], abs=6e-4),
    )


def test_the_data_sets_say_what_they_cover(service: ModuleType) -> None:
    held = {d["edition"]: d for d in service.datasets()}
    assert {*held} == {*EDITIONS} - {"custom"}
    assert held["asce7-16"]["area"] == {"latitude": [47.0, 49.0], "longitude": [-32.0, -29.0]}


def ask(who: Any, **query: Any) -> Any:
    return who.get("/api/hazard/", {"edition": "asce7-16", "latitude": 47.62, "longitude": -30.41} | query)


def test_a_signed_in_person_gets_values(lead: Any, address: str, settings: Any) -> None:
    settings.HAZARD_URL = address
    answer = lead.get("/api/hazard/", {"edition": "asce7-16", "latitude": 47.62, "longitude": -30.41})
    assert answer.status_code == 200
    assert answer.json()["values"]["T_L"] == 8.0


@pytest.mark.parametrize(
    ("query", "status", "says"),
    [
        ({"latitude": 12.0}, 422, "outside the area"),
        ({"edition": "custom"}, 422, "there is no grid"),
        ({"edition": "asce7-22"}, 422, "depend on the site class"),
        ({"latitude": "north"}, 400, "number"),
    ],
)
def test_what_can_not_be_answered_is_said(
    lead: Any, address: str, settings: Any, query: dict[str, Any], status: int, says: str
) -> None:
    settings.HAZARD_URL = address
    answer = ask(lead, **query)
    assert answer.status_code == status
    assert says in answer.json()["errors"][0]["message"]


def test_a_service_that_is_down_is_said_to_be(lead: Any, settings: Any) -> None:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        settings.HAZARD_URL = f"http://127.0.0.1:{free.getsockname()[1]}"
    answer = ask(lead)
    assert answer.status_code == 503
    assert answer.json()["errors"] == [
        {
            "path": "/hazard",
            "message": "the hazard service does not respond",
            "remedy": "Try again later, or enter the values.",
        }
    ]


def test_a_service_that_hangs_is_given_up(lead: Any, settings: Any) -> None:
    with socket.socket() as silent:
        silent.bind(("127.0.0.1", 0))
        silent.listen()
        settings.HAZARD_URL, settings.HAZARD_TIMEOUT = f"http://127.0.0.1:{silent.getsockname()[1]}", 0.1
        assert ask(lead).status_code == 503


def test_a_service_that_hangs_is_left_alone_for_a_while(lead: Any, settings: Any) -> None:
    """After three failures nobody waits for it; when the time is over it is asked again."""
    with socket.socket() as silent:
        silent.bind(("127.0.0.1", 0))
        silent.listen()
        settings.HAZARD_URL, settings.HAZARD_TIMEOUT = f"http://127.0.0.1:{silent.getsockname()[1]}", 0.2
        begun = time.monotonic()
        assert {ask(lead).status_code for _ in range(client.FAILURES)} == {503}
        waited = time.monotonic() - begun
        # one time limit for both tries
        assert waited < client.FAILURES * 0.4
        begun = time.monotonic()
        assert {ask(lead).status_code for _ in range(10)} == {503}
        assert time.monotonic() - begun < 1.0
        cache.clear()
        begun = time.monotonic()
        assert ask(lead).status_code == 503
        assert time.monotonic() - begun >= 0.19


def test_a_service_that_hangs_holds_few_threads(settings: Any, db: None) -> None:
    with socket.socket() as silent:
        silent.bind(("127.0.0.1", 0))
        silent.listen()
        settings.HAZARD_URL, settings.HAZARD_TIMEOUT = f"http://127.0.0.1:{silent.getsockname()[1]}", 1.0
        turns = [client._turns.acquire(blocking=False) for _ in range(client.MOST_AT_ONCE)]
        assert all(turns)
        try:
            begun = time.monotonic()
            with pytest.raises(client.HazardUnavailable):
                client.values("asce7-16", 47.62, -30.41)
            assert time.monotonic() - begun < 0.5
        finally:
            for _ in turns:
                client._turns.release()


def test_it_is_tried_twice(lead: Any, service: ModuleType, settings: Any) -> None:
    calls = []

    def flaky(environ: dict[str, Any], start_response: Any) -> Any:
        calls.append(environ["PATH_INFO"])
        if len(calls) == 1:
            start_response("500 Internal Server Error", [])
            return [b""]
        return service.application(environ, start_response)

    server = make_server("127.0.0.1", 0, flaky, handler_class=Quiet)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    settings.HAZARD_URL = f"http://127.0.0.1:{server.server_port}"
    try:
        assert ask(lead).status_code == 200
    finally:
        server.shutdown()
        server.server_close()
    assert len(calls) == 2


def test_a_stranger_gets_nothing(client: Any) -> None:
    assert ask(client).status_code in (401, 403)
