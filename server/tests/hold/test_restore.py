"""What is lost comes back: from a backup, to a moment between two backups, and from what the release before left."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tarfile
import threading
import time
from pathlib import Path
from typing import Any

import pytest
from clusters import BIN_FOLDER, Cluster, run
from living import ROOT, SERVER, Application, Person, as_owner

HERE = Path(__file__).parent


@pytest.fixture(scope="module")
def kept(application: Application, lead: Person, tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A backup by the role that only reads, while people work."""
    folder = tmp_path_factory.mktemp("kept")
    review = next(r for r in lead.get("/api/reviews/") if r["title"] == "Sable Quay Library")["id"]
    over = threading.Event()
    filed = []

    def work() -> None:
        while not over.is_set():
            body = {"title": "Filed meanwhile", "text": "A remark.", "severity": "note", "checks": ["V.Y"]}
            filed.append(lead.send("POST", f"/api/reviews/{review}/findings/", body).status_code)

    busy = threading.Thread(target=work)
    busy.start()
    try:
        made = run([str(ROOT / "bin/backup"), str(folder)], application.environment | {"PLUMB_DB_USER": "plumb_backup"})
    finally:
        over.set()
        busy.join()
    assert made.returncode == 0, made.stderr
    assert filed.count(201) > 10, filed[:3]
    assert not list(folder.glob("*.part"))
    return Path(made.stdout.strip())


@pytest.fixture
def elsewhere(tmp_path: Path) -> Any:
    """Settings of a database and a folder of exhibits of their own, by the owner."""
    name = f"plumb_elsewhere_{os.getpid()}"
    yield os.environ | {"PLUMB_DB_NAME": name, "PLUMB_EXHIBITS": str(tmp_path / "exhibits")}
    with as_owner() as db:
        db.execute(f"DROP DATABASE IF EXISTS {name} WITH (FORCE)")


def test_a_backup_brings_everything_back(
    application: Application, kept: Path, elsewhere: dict[str, str], tmp_path: Path
) -> None:
    folder = tmp_path / "kept"
    shutil.copytree(kept, folder)
    restored = run([str(ROOT / "bin/restore"), str(folder)], elsewhere)
    assert restored.returncode == 0, restored.stderr
    with as_owner(application.database) as one, as_owner(elsewhere["PLUMB_DB_NAME"]) as other:
        for table in ("reviews_auditentry", "submissions_claim", "findings_finding", "accounts_record"):
            digest = f"SELECT count(*), md5(string_agg(t::text, '|' ORDER BY id)) FROM {table} t"
            if table == "submissions_claim":
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
    load = run(
        [
            str(BIN_FOLDER / "pg_restore"),
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


def test_what_the_documents_say_is_done_by_the_roles_they_name(cluster: Cluster, kept: Path, tmp_path: Path) -> None:
    """Restore into the empty database, over a full one, over one that is in use; what fails changes nothing."""
    restore = [str(ROOT / "bin/restore")]
    first = run([*restore, str(kept)], cluster.role("owner"))
    assert first.returncode == 0, first.stderr
    counted = "SELECT count(*) FROM findings_finding"
    before = cluster.sql("plumb", counted)
    assert cluster.sql("plumb", "SELECT datdba::regrole FROM pg_database WHERE datname = 'plumb'") == "plumb_owner"
    # who may change nothing restores nothing
    refused = run([*restore, str(kept), "--replace"], cluster.role("app"))
    assert refused.returncode == 1
    assert "does not own" in refused.stderr
    cluster.sql("plumb", "UPDATE reviews_review SET title = 'Lost'")
    # a backup that does not hold what it says: the present database stays as it is
    other = tmp_path / "other"
    shutil.copytree(kept, other)
    counts = other / "counts.json"
    counts.write_text(counts.read_text().replace('"Report": ', '"Report": 9'))
    run(
        ["sh", "-c", "sha256sum database.dump exhibits.tar counts.json release.txt > SHA256SUMS"],
        {**os.environ},
        cwd=other,
    )
    failed = run([*restore, str(other), "--replace"], cluster.role("owner"))
    assert failed.returncode == 1
    assert "not what was kept" in failed.stderr
    assert "Nothing was changed" in failed.stderr
    assert cluster.sql("plumb", "SELECT count(*) FROM reviews_review WHERE title <> 'Lost'") == "0"
    assert cluster.sql("postgres", "SELECT count(*) FROM pg_database WHERE datname LIKE 'plumb%'") == "1"
    # somebody of the application is connected still
    role = cluster.role("app")
    ask = [str(BIN_FOLDER / "psql"), "-h", "127.0.0.1", "-p", cluster.port, "-U", "plumb_app", "-d", "plumb", "-Atc"]
    env = role | {"PGPASSWORD": role["PLUMB_DB_PASSWORD"]}
    connected = subprocess.Popen([*ask, "SELECT pg_sleep(60)"], env=env, stderr=subprocess.PIPE)
    time.sleep(0.5)
    again = run([*restore, str(kept), "--replace"], cluster.role("owner"))
    connected.communicate()
    assert again.returncode == 0, again.stderr
    assert connected.returncode != 0
    assert cluster.sql("plumb", counted) == before
    assert cluster.sql("plumb", "SELECT count(*) FROM reviews_review WHERE title = 'Lost'") == "0"
    (earlier,) = cluster.sql("postgres", "SELECT datname FROM pg_database WHERE datname LIKE 'plumb_before%'").split()
    assert cluster.sql(earlier, "SELECT count(*) FROM reviews_review WHERE title <> 'Lost'") == "0"
    # the application's role reads it, and changes nothing that is kept permanently
    assert run([*ask, counted], env).stdout.strip() == before
    assert "permission denied" in run([*ask, "DELETE FROM reviews_auditentry"], env).stderr


def test_a_database_goes_back_to_a_moment(cluster: Cluster) -> None:
    """A table is emptied by mistake, and the cluster is brought back to the moment before, by the roles of deploy/."""
    base = cluster.role("base")
    bases = [
        cluster.do(str(ROOT / "bin/base-backup"), str(cluster.archive), **(base | {"PLUMB_BASES": "2"}))
        for _ in range(2)
    ]
    cluster.sql("plumb", "CREATE TABLE kept (a int)")
    cluster.sql("plumb", "INSERT INTO kept SELECT generate_series(1, 1000)")
    time.sleep(1.1)
    bases.append(cluster.do(str(ROOT / "bin/base-backup"), str(cluster.archive), **(base | {"PLUMB_BASES": "2"})))
    # two are kept, and nothing of the log from before the older of them
    assert sorted(p.name for p in cluster.archive.glob("base-*")) == sorted({Path(b).name for b in bases})[-2:]
    first = (Path(bases[-2]) / "backup_label").read_text().split("(file ")[1].split(")")[0]
    archived = sorted(p.name for p in (cluster.archive / "wal").iterdir() if len(p.name) == 24)
    assert archived[0] >= first
    time.sleep(1.1)
    moment = cluster.sql("plumb", "SELECT now()")
    time.sleep(0.05)
    cluster.sql("plumb", "DELETE FROM kept")
    cluster.sql("plumb", "SELECT pg_switch_wal()")
    time.sleep(1)
    cluster.stop("data")
    too_early = cluster.do(
        str(ROOT / "bin/return-to"), "2001-01-01", str(cluster.archive), f"{cluster.place}/never", refused=True
    )
    assert "no base backup" in too_early
    cluster.do(str(ROOT / "bin/return-to"), moment, str(cluster.archive), f"{cluster.place}/returned")
    cluster.start("returned")
    deadline = time.monotonic() + 20
    while cluster.sql("plumb", "SELECT pg_is_in_recovery()") == "t" and time.monotonic() < deadline:
        time.sleep(0.2)
    assert cluster.sql("plumb", "SELECT count(*) FROM kept") == "1000"
    cluster.stop("returned")
