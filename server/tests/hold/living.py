"""The application as it is put into service: nginx in front, two processes, a worker, the role that owns nothing."""

from __future__ import annotations

import os
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import httpx
from plumb_server.demo.people import LEAD, PASSWORD
from tests.seeded import as_owner, seeded

SERVER = Path(__file__).resolve().parents[2]
ROOT = SERVER.parent
BIN = Path(sys.executable).parent


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def wait_until(true: Callable[[], Any], seconds: float = 30, why: Callable[[], str] = lambda: "") -> None:
    end = time.monotonic() + seconds
    while not true():
        assert time.monotonic() < end, f"it took longer than {seconds} s\n{why()}"
        time.sleep(0.1)


class Person:
    """Somebody who is signed in, and speaks JSON as the screens do; for one thread."""

    def __init__(self, address: str, email: str | None = LEAD):
        self.client = httpx.Client(base_url=address, timeout=60)
        self.client.get("/api/session/")
        if email:
            answer = self.send("POST", "/api/session/", {"email": email, "password": PASSWORD})
            assert answer.status_code == 200, answer.text

    def send(self, method: str, path: str, body: Any = None, based_on: int | None = None) -> httpx.Response:
        headers = {"X-CSRFToken": self.client.cookies.get("csrftoken", "")}
        if based_on is not None:
            headers["If-Match"] = f'"{based_on}"'
        return self.client.request(method, path, json=body, headers=headers)

    def get(self, path: str) -> Any:
        answer = self.client.get(path)
        assert answer.status_code == 200, answer.text
        return answer.json()


class Application:
    """A running application that can be hurt."""

    def __init__(self, name: str):
        self.database = name
        self.folder = Path(tempfile.mkdtemp(prefix="plumb-hold-"))
        self.environment = os.environ | {
            "PLUMB_DB_NAME": name,
            "PLUMB_EXHIBITS": str(self.folder / "exhibits"),
            "PLUMB_MAIL_FOLDER": str(self.folder / "mail"),
        }
        self.running: dict[str, subprocess.Popen[bytes]] = {}

    def make(self) -> None:
        seeded(self.database, self.folder / "exhibits")
        self.environment |= {"PLUMB_DB_USER": "plumb_app", "PLUMB_DB_PASSWORD": os.environ["PLUMB_APP_PASSWORD"]}

    def begin(self, **more: str) -> None:
        behind, port = free_port(), free_port()
        serving = {
            "PLUMB_BIND": f"127.0.0.1:{behind}",
            "PLUMB_PROXIES": "1",
            "PLUMB_STATEMENT_TIMEOUT": "30000",
            "PLUMB_LOCK_TIMEOUT": "20000",
        }
        self.environment |= more
        self.start("server", [str(BIN / "gunicorn")], self.environment | serving)
        self.start_worker()
        conf = self.folder / "nginx.conf"
        user = "user root;" if os.getuid() == 0 else ""
        places = "".join(
            f"{kind}_temp_path {self.folder}/{kind};" for kind in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
        )
        conf.write_text(
            f"{user} daemon off; pid {self.folder}/nginx.pid; events {{ worker_connections 4096; }} "
            f"http {{ access_log off; {places} include {ROOT}/deploy/limits.conf; server {{ listen 127.0.0.1:{port}; "
            f"location / {{ proxy_pass http://127.0.0.1:{behind}; include {ROOT}/deploy/proxy.conf; }} }} }}"
        )
        nginx = shutil.which("nginx") or "/usr/sbin/nginx"
        self.start("nginx", [nginx, "-e", str(self.folder / "error.log"), "-c", str(conf)], self.environment)
        self.address = f"http://127.0.0.1:{port}"
        # a machine under load starts processes slowly; what they wrote says why they do not answer
        wait_until(self.answers, 120, lambda: "\n".join(f"{name}: {self.log(name)[-2000:]}" for name in self.running))

    def start(self, name: str, command: list[str], environment: dict[str, str]) -> None:
        log = (self.folder / f"{name}.log").open("ab")
        self.running[name] = subprocess.Popen(
            command, cwd=SERVER, env=environment, stdout=log, stderr=log, start_new_session=True
        )

    def start_worker(self) -> None:
        self.start("worker", [sys.executable, "manage.py", "run_worker"], self.environment)

    def answers(self) -> bool:
        try:
            return httpx.get(f"{self.address}/health/", timeout=5).status_code == 200
        except httpx.HTTPError:
            return False

    def processes(self) -> list[int]:
        """The processes of the server that answer, without the one that watches over them."""
        told = Path(f"/proc/{self.running['server'].pid}/task/{self.running['server'].pid}/children").read_text()
        return [int(pid) for pid in told.split()]

    def log(self, name: str) -> str:
        return (self.folder / f"{name}.log").read_text()

    def end(self) -> None:
        for process in self.running.values():
            if process.poll() is None:
                os.killpg(process.pid, signal.SIGKILL)
            process.wait()
        shutil.rmtree(self.folder, ignore_errors=True)
        with as_owner() as db:
            db.execute(f"DROP DATABASE IF EXISTS {self.database} WITH (FORCE)")


def at_once(*acts: Callable[[], Any]) -> list[Any]:
    """What acts give that begin at the same moment, in threads of their own."""
    gate = threading.Barrier(len(acts))

    def run(act: Callable[[], Any]) -> Any:
        gate.wait()
        return act()

    with ThreadPoolExecutor(len(acts)) as pool:
        return list(pool.map(run, acts))
