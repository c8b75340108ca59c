"""What is lost comes back: from a backup, to a moment between two backups, and from what the release before left."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tarfile
import time
from pathlib import Path
from typing import Any

import pytest
from living import ROOT, SERVER, Application, Person, as_owner, free_port

HERE = Path(__file__).parent


def run(command: list[str], environment: dict[str, str], **more: Any) -> subprocess.CompletedProcess[str]:
    return subprocess.run(command, env=environment, capture_output=True, text=True, **more)


@pytest.fixture
def elsewhere(tmp_path: Path) -> Any:
    """Settings of a database and a folder of exhibits of their own, by the owner."""
    name = f"plumb_elsewhere_{os.getpid()}"
    yield os.environ | {"PLUMB_DB_NAME": name, "PLUMB_EXHIBITS": str(tmp_path / "exhibits")}
    with as_owner() as db:
        db.execute(f"DROP DATABASE IF EXISTS {name} WITH (FORCE)")


def test_a_backup_brings_everything_back(
    application: Application, lead: Person, clinic: str, elsewhere: dict[str, str], tmp_path: Path
) -> None:
    # by the role that only reads, while the application goes on
    reading = application.environment | {"PLUMB_DB_USER": "plumb_backup"}
    made = run([str(ROOT / "bin/backup"), str(tmp_path / "kept")], reading)
    assert made.returncode == 0, made.stderr
    folder = Path(made.stdout.strip())
    restored = run([str(ROOT / "bin/restore"), str(folder)], elsewhere)
    assert restored.returncode == 0, restored.stderr
    with as_owner(application.database) as one, as_owner(elsewhere["PLUMB_DB_NAME"]) as other:
        for table in ("reviews_auditentry", "submissions_claim", "findings_finding", "accounts_record"):
            digest = f"SELECT count(*), md5(string_agg(t::text, '|' ORDER BY id)) FROM {table} t"
            if table in ("submissions_claim", "findings_finding"):
                assert one.execute(digest).fetchone() == other.execute(digest).fetchone(), table
            else:
                # more may have come since
                assert (other.execute(f"SELECT count(*) FROM {table}").fetchone() or (0,))[0] > 0
        # What is stored permanently is kept there too
        with pytest.raises(Exception, match="audit trail"):
            other.execute("UPDATE reviews_auditentry SET action = 'x'")
    again = run([str(ROOT / "bin/restore"), str(folder)], elsewhere)
    assert again.returncode == 1
    assert "holds something" in again.stderr
    # a backup that was changed is refused before anything is touched
    with (folder / "database.dump").open("r+b") as file:
        file.seek(2000)
        file.write(b"\x00\x01\x02")
    refused = run([str(ROOT / "bin/restore"), str(folder), "--replace"], elsewhere)
    assert refused.returncode == 1
    assert "does not match its checksums" in refused.stderr


def test_what_the_release_before_left_is_brought_up(elsewhere: dict[str, str]) -> None:
    """The dump of a real installation of the release before accounts had addresses.

    Migrated, rechecked, signed in to.
    """
    exhibits = Path(elsewhere["PLUMB_EXHIBITS"])
    with as_owner() as db:
        db.execute(f"CREATE DATABASE {elsewhere['PLUMB_DB_NAME']}")
    with tarfile.open(HERE / "release_12" / "exhibits.tar.xz") as packed:
        packed.extractall(exhibits, filter="data")
    bin_folder = max(Path("/usr/lib/postgresql").glob("*/bin"), key=lambda p: float(p.parent.name))
    load = run(
        [
            str(bin_folder / "pg_restore"),
            *("-h", elsewhere["PLUMB_DB_HOST"], "-p", elsewhere["PLUMB_DB_PORT"], "-U", elsewhere["PLUMB_DB_USER"]),
            *("-d", elsewhere["PLUMB_DB_NAME"], "--no-owner", "--exit-on-error"),
            str(HERE / "release_12" / "database.dump"),
        ],
        elsewhere | {"PGPASSWORD": elsewhere["PLUMB_DB_PASSWORD"]},
    )
    assert load.returncode == 0, load.stderr
    manage = [sys.executable, "manage.py"]
    for command in ("migrate", "grant_roles", "check_kept"):
        done = run([*manage, command], elsewhere, cwd=SERVER)
        assert done.returncode == 0, done.stderr
    assert '"Report": 1' in done.stdout
    with as_owner(elsewhere["PLUMB_DB_NAME"]) as db:
        assert db.execute("SELECT count(*) FROM account_emailaddress WHERE verified").fetchone() == (5,)
        counted = db.execute("SELECT sum(count), (SELECT count(*) FROM submissions_claim) FROM submissions_claimtable")
        told = counted.fetchone()
        assert told is not None
        assert told[0] == told[1] > 1000
    asked = (
        "import django; django.setup()\n"
        "from django.test import Client\n"
        "c = Client(headers={'host': '127.0.0.1'})\n"
        "r = c.post('/api/session/', {'email': 'Ilse.Varga@hesper-review.example', 'password': 'plumb-demo-2026'}, "
        "content_type='application/json')\n"
        "assert r.status_code == 200, r.content\n"
        "reviews = c.get('/api/reviews/').json()\n"
        "clinic = next(x['id'] for x in reviews if x['title'] == 'Port Maren Clinic')\n"
        "sheet = c.get(f'/api/reviews/{clinic}/recheck/').json()\n"
        "print(len(sheet['origins']), len(c.get(f'/api/reviews/{clinic}/findings/').json()))\n"
    )
    env = elsewhere | {"DJANGO_SETTINGS_MODULE": "plumb_server.settings", "PYTHONPATH": str(SERVER)}
    signed = run([sys.executable, "-c", asked], env, cwd=SERVER)
    assert signed.stdout.split() == ["11", "1"], signed.stderr


def test_a_database_goes_back_to_a_moment(tmp_path: Path) -> None:
    """A cluster of its own with an archive of its log, as deploy/postgresql.conf has it: a table is emptied by mistake,
    and the cluster is brought back to the moment before."""
    bin_folder = max(Path("/usr/lib/postgresql").glob("*/bin"), key=lambda p: float(p.parent.name))
    place = Path(shutil.os.environ.get("PLUMB_PITR", "")) if "PLUMB_PITR" in os.environ else tmp_path
    as_postgres = ["runuser", "-u", "postgres", "--"] if os.getuid() == 0 else []
    if as_postgres:
        # PostgreSQL refuses to be root, and cannot look into root's folders
        place = Path("/tmp") / f"plumb-pitr-{os.getpid()}"
        place.mkdir()
        shutil.chown(place, "postgres")
    env = os.environ | {"PATH": f"{bin_folder}:/usr/sbin:/sbin:{os.environ['PATH']}", "LC_ALL": "C.UTF-8"}

    def do(*command: str) -> str:
        done = subprocess.run([*as_postgres, *command], env=env, cwd="/", capture_output=True, text=True)
        assert done.returncode == 0, (command, done.stdout, done.stderr)
        return done.stdout.strip()

    data, wal, base = place / "data", place / "wal", place / "base"
    settings = next(
        line
        for line in (ROOT / "deploy/postgresql.conf").read_text().splitlines()
        if line.startswith("archive_command")
    ).replace("/var/backups/vigilant-plumb/wal", str(wal))
    port = str(free_port())
    ask = ["psql", "-h", str(place), "-p", port, "-U", "owner", "-d", "postgres", "-Atc"]

    def start(folder: Path) -> None:
        do(
            "pg_ctl",
            "-D",
            str(folder),
            "-w",
            "-s",
            "-l",
            str(place / "log"),
            "-o",
            f"-p {port} -k {place} -c listen_addresses=''",
            "start",
        )

    try:
        do("initdb", "-D", str(data), "-U", "owner", "--auth=trust", "--data-checksums")
        do("mkdir", str(wal))
        do("sh", "-c", f"cat >> {data}/postgresql.conf <<'END'\narchive_mode = on\n{settings}\nEND")
        start(data)
        assert do(*ask, "SHOW data_checksums") == "on"
        do(
            "pg_basebackup",
            "-h",
            str(place),
            "-p",
            port,
            "-U",
            "owner",
            "-D",
            str(base),
            "-X",
            "none",
            "--checkpoint=fast",
        )
        do(*ask, "CREATE TABLE kept (a int)")
        do(*ask, "INSERT INTO kept SELECT generate_series(1, 1000)")
        moment = do(*ask, "SELECT now()")
        time.sleep(0.05)
        do(*ask, "DELETE FROM kept")
        do(*ask, "SELECT pg_switch_wal()")
        time.sleep(1)
        do("pg_ctl", "-D", str(data), "-m", "fast", "-s", "stop")
        do(
            "sh",
            "-c",
            (
                f"printf \"restore_command = 'cp {wal}/%%f %%p'\\nrecovery_target_time = "
                f"'{moment}'\\nrecovery_target_action = promote\\n\" >> {base}/postgresql.conf"
                f" && touch {base}/recovery.signal"
            ),
        )
        start(base)
        deadline = time.monotonic() + 20
        while do(*ask, "SELECT pg_is_in_recovery()") == "t" and time.monotonic() < deadline:
            time.sleep(0.2)
        assert do(*ask, "SELECT count(*) FROM kept") == "1000"
        do("pg_ctl", "-D", str(base), "-m", "fast", "-s", "stop")
    finally:
        for folder in (data, base):
            subprocess.run(
                [*as_postgres, str(bin_folder / "pg_ctl"), "-D", str(folder), "-m", "immediate", "stop"],
                cwd="/",
                capture_output=True,
            )
        shutil.rmtree(place, ignore_errors=True)
