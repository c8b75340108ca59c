"""A server of its own for the browser, on a database of its own, as `bin/start` runs it."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest
from driving import Browser
from tests.seeded import seeded

SERVER = Path(__file__).resolve().parents[2]
# a database and a server for each process that the tests run in
DATABASE = "plumb_browser_" + os.environ.get("PYTEST_XDIST_WORKER", "main")


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


@pytest.fixture(scope="session")
def environment() -> dict[str, str]:
    """What the application of the tests runs in, with its demo data."""
    exhibits = tempfile.mkdtemp()
    seeded(DATABASE, Path(exhibits))
    made = os.environ | {"PLUMB_DB_NAME": DATABASE, "PLUMB_EXHIBITS": exhibits}
    made["PLUMB_MAIL_FOLDER"] = tempfile.mkdtemp()
    return made


@pytest.fixture(scope="session")
def address(environment: dict[str, str]) -> Iterator[str]:
    """Address of a running application with its demo data."""
    # from here on as the application, which owns nothing
    if "PLUMB_APP_PASSWORD" in environment:
        environment |= {"PLUMB_DB_USER": "plumb_app", "PLUMB_DB_PASSWORD": environment["PLUMB_APP_PASSWORD"]}
    port, hazard_port = free_port(), free_port()
    environment["PLUMB_HAZARD_URL"] = f"http://127.0.0.1:{hazard_port}"
    gunicorn = Path(sys.executable).parent / "gunicorn"
    serving = {"PLUMB_BIND": f"127.0.0.1:{port}", "PLUMB_WORKERS": "1", "PLUMB_STATEMENT_TIMEOUT": "30000"}
    server = subprocess.Popen([str(gunicorn)], cwd=SERVER, env=environment | serving)
    hazard = subprocess.Popen(
        [str(gunicorn), "service:application", "--bind", f"127.0.0.1:{hazard_port}", "--log-level", "warning"],
        cwd=SERVER.parent / "hazard",
    )
    # the worker as bin/start runs it, for models that go to the queue
    worker = subprocess.Popen([sys.executable, "manage.py", "run_worker"], cwd=SERVER, env=environment)
    try:
        # beside other tests it may take its time to begin
        for _ in range(900):
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/health/", timeout=2)
                break
            except OSError:
                time.sleep(0.1)
        # by its name: browsers take passkeys from no number
        yield f"http://localhost:{port}"
    finally:
        for process in (server, hazard, worker):
            process.terminate()
            try:
                process.wait(10)
            except subprocess.TimeoutExpired:
                process.kill()


@pytest.fixture(scope="session")
def _guest(address: str) -> Iterator[Browser]:
    own = Browser(address)
    yield own
    own.driver.quit()


@pytest.fixture
def browser(_guest: Browser) -> Browser:
    """Nobody is signed in, nothing is remembered; the same Chromium all along, as starting one takes its time."""
    _guest.forget()
    return _guest


@pytest.fixture(scope="session")
def lead_browser(address: str) -> Iterator[Browser]:
    """Signed in as the lead; shared by tests that change nothing."""
    from plumb_server.demo.people import LEAD, PASSWORD

    own = Browser(address)
    own.sign_in(LEAD, PASSWORD)
    yield own
    own.driver.quit()
