"""A PostgreSQL of a test's own, with the settings and the roles of deploy/."""

from __future__ import annotations

import os
import shutil
import subprocess
from pathlib import Path
from typing import Any

from living import ROOT, free_port

BIN_FOLDER = max(Path("/usr/lib/postgresql").glob("*/bin"), key=lambda p: float(p.parent.name))


def run(command: list[str], environment: dict[str, str], **more: Any) -> subprocess.CompletedProcess[str]:
    return subprocess.run(command, env=environment, capture_output=True, text=True, **more)


class Cluster:
    """A PostgreSQL of its own, with the settings and the roles of deploy/."""

    def __init__(self, place: Path):
        self.place, self.port = place, str(free_port())
        self.archive = place / "backups"
        # PostgreSQL refuses to be root, and cannot look into root's folders
        self.as_postgres = ["runuser", "-u", "postgres", "--"] if os.getuid() == 0 else []

    def do(self, *command: str, refused: bool = False, **environment: str) -> str:
        env = os.environ | {"PATH": f"{BIN_FOLDER}:/usr/sbin:/sbin:{os.environ['PATH']}", "LC_ALL": "C.UTF-8"}
        done = run([*self.as_postgres, *command], env | environment, cwd="/")
        assert (done.returncode != 0) == refused, (command, done.stdout, done.stderr)
        return (done.stderr if refused else done.stdout).strip()

    def make(self, *, roles: bool = True) -> None:
        """Make and start it; without the roles where something else makes them."""
        self.place.mkdir()
        if self.as_postgres:
            shutil.chown(self.place, "postgres")
        self.do("initdb", "-D", f"{self.place}/data", "-U", "postgres", "--auth=trust", "--data-checksums")
        self.do("mkdir", "-p", f"{self.archive}/wal")
        settings = (ROOT / "deploy/postgresql.conf").read_text()
        assert "/var/backups/vigilant-plumb/cluster" in settings
        own = self.place / "own.conf"
        own.write_text(settings.replace("/var/backups/vigilant-plumb/cluster", str(self.archive)))
        own.chmod(0o644)
        self.do("sh", "-c", f"cat {own} >> {self.place}/data/postgresql.conf")
        self.do("sh", "-c", f"sed -i '/^host/s/trust/scram-sha-256/' {self.place}/data/pg_hba.conf")
        self.start("data")
        if not roles:
            return
        passwords = [f"-v{role}_password={role}-word" for role in ("owner", "app", "backup", "base")]
        (self.place / "roles.sql").write_text((ROOT / "deploy/roles.sql").read_text())
        ask = ["psql", "-h", str(self.place), "-p", self.port, "-U", "postgres", "-q", "-v", "ON_ERROR_STOP=1"]
        self.do(*ask, *passwords, "-f", f"{self.place}/roles.sql")

    def start(self, data: str) -> None:
        options = f"-p {self.port} -k {self.place}"
        folder = f"{self.place}/{data}"
        self.do("pg_ctl", "-D", folder, "-w", "-s", "-l", f"{self.place}/log", "-o", options, "start")

    def stop(self, data: str, mode: str = "fast") -> None:
        self.do("pg_ctl", "-D", f"{self.place}/{data}", "-m", mode, "-s", "stop")

    def sql(self, database: str, statement: str) -> str:
        ask = ["psql", "-h", str(self.place), "-p", self.port, "-U", "postgres", "-d", database, "-Atc"]
        return self.do(*ask, statement)

    def role(self, name: str) -> dict[str, str]:
        """The settings of a role, as its file of deploy/ has them: by password, over the network, PLUMB_DATA unset."""
        env = {k: v for k, v in os.environ.items() if not k.startswith("PLUMB_")}
        return env | {
            "PLUMB_SECRET_KEY": "of-this-test",
            "PLUMB_DB_HOST": "127.0.0.1",
            "PLUMB_DB_PORT": self.port,
            "PLUMB_DB_NAME": "plumb",
            "PLUMB_DB_USER": f"plumb_{name}",
            "PLUMB_DB_PASSWORD": f"{name}-word",
            "PLUMB_EXHIBITS": str(self.place / "exhibits"),
        }

    def end(self) -> None:
        for data in ("data", "returned"):
            command = [*self.as_postgres, str(BIN_FOLDER / "pg_ctl"), "-D", f"{self.place}/{data}", "stop"]
            subprocess.run([*command, "-m", "immediate"], cwd="/", capture_output=True)
        shutil.rmtree(self.place, ignore_errors=True)
