"""The demo, made once and copied: databases and folders that applications of tests begin with."""

from __future__ import annotations

import hashlib
import os
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

import psycopg

SERVER = Path(__file__).resolve().parents[1]
TEMPLATE = "plumb_seeded"


def as_owner(database: str = "postgres") -> psycopg.Connection[Any]:
    return psycopg.connect(
        host=os.environ["PLUMB_DB_HOST"],
        port=os.environ["PLUMB_DB_PORT"],
        user=os.environ["PLUMB_DB_USER"],
        password=os.environ["PLUMB_DB_PASSWORD"],
        dbname=database,
        autocommit=True,
    )


def _state() -> str:
    """Hash of all that the demo is made by."""
    digest = hashlib.sha256(str(SERVER).encode())
    for folder in (SERVER / "plumb_server", SERVER.parent / "core" / "plumb_core"):
        for file in sorted(folder.rglob("*")):
            if file.suffix in (".py", ".csv", ".json", ".xlsx", ".txt"):
                digest.update(file.read_bytes())
    return digest.hexdigest()[:24]


def seeded(database: str, exhibits: Path) -> None:
    """A new database with the demo in it, and its exhibits in a folder."""
    with as_owner() as db:
        # one makes it, the others wait
        db.execute("SELECT pg_advisory_lock(7585862)")
        files = _made(db)
        db.execute(f"DROP DATABASE IF EXISTS {database} WITH (FORCE)")
        db.execute(f"CREATE DATABASE {database} TEMPLATE {TEMPLATE}")
        db.execute("SELECT pg_advisory_unlock(7585862)")
    shutil.copytree(files, exhibits, dirs_exist_ok=True)


def _made(db: psycopg.Connection[Any]) -> Path:
    """The folder of the demo's exhibits, when its database is there; made where it is not, or of an earlier code."""
    state = _state()
    files = Path(tempfile.gettempdir()) / f"plumb-seeded-{os.getuid()}-{state}"
    known = db.execute(
        "SELECT shobj_description(oid, 'pg_database') FROM pg_database WHERE datname = %s", [TEMPLATE]
    ).fetchone()
    if known is None or known[0] != state or not files.is_dir():
        _make(db, files)
        db.execute(f"COMMENT ON DATABASE {TEMPLATE} IS '{state}'")
    return files


def _make(db: psycopg.Connection[Any], files: Path) -> None:
    db.execute(f"DROP DATABASE IF EXISTS {TEMPLATE} WITH (FORCE)")
    db.execute(f"CREATE DATABASE {TEMPLATE}")
    files.mkdir(exist_ok=True)
    environment = os.environ | {"PLUMB_DB_NAME": TEMPLATE, "PLUMB_EXHIBITS": str(files)}
    for command in (["migrate"], ["seed_demo", "--first-round"], ["grant_roles"]):
        subprocess.run(
            [sys.executable, "manage.py", *command], cwd=SERVER, env=environment, check=True, stdout=subprocess.DEVNULL
        )


if __name__ == "__main__":
    # beside other checks, so that four processes do not wait for it later
    with as_owner() as owner:
        owner.execute("SELECT pg_advisory_lock(7585862)")
        _made(owner)
