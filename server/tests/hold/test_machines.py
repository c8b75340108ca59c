"""Two machines: servers and workers with a folder of their own each, one database, one store of exhibits."""

from __future__ import annotations

import json
import os
import shutil
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import boto3
import httpx
import pytest
from clusters import BIN_FOLDER, Cluster, run
from living import BIN, ROOT, SERVER, Person, as_owner, free_port, wait_until
from tests.seeded import seeded

BUCKET = "exhibits"
STORIES = "Story,Height (m),Weight (kN)\nL2,3.6,900\nL1,4.0,1000\n"


class Running:
    """Processes that can be ended, each with a log."""

    def __init__(self) -> None:
        self.folder = Path(tempfile.mkdtemp(prefix="plumb-machines-"))
        self.processes: dict[str, subprocess.Popen[bytes]] = {}

    def start(self, name: str, command: list[str], environment: dict[str, str], cwd: Path = SERVER) -> None:
        log = (self.folder / f"{name}.log").open("ab")
        self.processes[name] = subprocess.Popen(
            command, cwd=cwd, env=environment, stdout=log, stderr=log, start_new_session=True
        )

    def kill(self, name: str) -> None:
        process = self.processes.pop(name)
        if process.poll() is None:
            os.killpg(process.pid, signal.SIGKILL)
        process.wait()

    def end(self) -> None:
        for name in list(self.processes):
            self.kill(name)
        shutil.rmtree(self.folder, ignore_errors=True)


def answers(address: str, path: str = "/health/", **more: Any) -> bool:
    try:
        return httpx.get(f"{address}{path}", timeout=5, **more).status_code == 200
    except httpx.HTTPError:
        return False


class Machines(Running):
    """Two servers and two workers behind one nginx."""

    def __init__(self, database: dict[str, str], exhibits: Path):
        super().__init__()
        store = free_port()
        moto = str(BIN / "moto_server")
        self.start("store", [moto, "-H", "127.0.0.1", "-p", str(store)], dict(os.environ))
        options = {
            "bucket_name": BUCKET,
            "endpoint_url": f"http://127.0.0.1:{store}",
            "access_key": "of-the-test",
            "secret_key": "of-the-test",
            "region_name": "us-east-1",
        }
        wait_until(lambda: answers(options["endpoint_url"], "/"), 120)
        self.client = boto3.client(
            "s3",
            endpoint_url=options["endpoint_url"],
            aws_access_key_id="of-the-test",
            aws_secret_access_key="of-the-test",
            region_name="us-east-1",
        )
        self.client.create_bucket(Bucket=BUCKET)
        for file in exhibits.rglob("*"):
            if file.is_file():
                self.client.upload_file(str(file), BUCKET, str(file.relative_to(exhibits)))
        self.environment = os.environ | {
            "PLUMB_EXHIBIT_STORAGE": "plumb_server.submissions.bucket.Bucket",
            "PLUMB_EXHIBIT_OPTIONS": json.dumps(options),
            **database,
        }
        self.addresses: list[str] = []
        for name in ("one", "two"):
            self.begin_server(name)
            self.begin_worker(name)
        self.begin_nginx()
        for address in (*self.addresses, self.address):
            wait_until(lambda address=address: answers(address), 120)

    def of(self, name: str) -> dict[str, str]:
        """Settings of a machine: folders of its own, which the other one does not see."""
        own = self.folder / name
        own.mkdir(exist_ok=True)
        return self.environment | {"PLUMB_EXHIBITS": str(own / "exhibits"), "PLUMB_MAIL_FOLDER": str(own / "mail")}

    def begin_server(self, name: str) -> None:
        port = free_port()
        serving = {"PLUMB_BIND": f"127.0.0.1:{port}", "PLUMB_PROXIES": "1", "PLUMB_WORKERS": "1"}
        self.start(f"server {name}", [str(BIN / "gunicorn")], self.of(name) | serving)
        self.addresses.append(f"http://127.0.0.1:{port}")

    def begin_worker(self, name: str) -> None:
        # as systemd does: one that ended is started again
        again = 'while true; do "$0" manage.py run_worker; sleep 0.5; done'
        direct = self.of(name) | {k: v for k, v in DIRECT.items() if k in os.environ}
        self.start(f"worker {name}", ["bash", "-c", again, sys.executable], direct | {"PLUMB_DB_POOLED": "0"})

    def begin_nginx(self) -> None:
        port = free_port()
        upstream = (ROOT / "deploy/upstream.conf").read_text()
        for number, address in zip(("11", "12"), self.addresses, strict=True):
            upstream = upstream.replace(f"10.0.0.{number}:8470", address.removeprefix("http://"))
        places = "".join(
            f"{kind}_temp_path {self.folder}/{kind};" for kind in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
        )
        user = "user root;" if os.getuid() == 0 else ""
        conf = self.folder / "nginx.conf"
        conf.write_text(
            f"{user} daemon off; pid {self.folder}/nginx.pid; events {{}} http {{ access_log off; {places} {upstream} "
            f"include {ROOT}/deploy/limits.conf; server {{ listen 127.0.0.1:{port}; "
            f"location / {{ proxy_pass http://plumb_servers; include {ROOT}/deploy/proxy.conf; }} }} }}"
        )
        nginx = shutil.which("nginx") or "/usr/sbin/nginx"
        self.start("nginx", [nginx, "-e", str(self.folder / "error.log"), "-c", str(conf)], self.environment)
        self.address = f"http://127.0.0.1:{port}"


DIRECT = {name: os.environ.get(name, "") for name in ("PLUMB_DB_HOST", "PLUMB_DB_PORT")}


@pytest.fixture
def pooled() -> Iterator[tuple[dict[str, str], Path]]:
    """(settings of a seeded database behind a pooler of transactions, a folder of its exhibits)."""
    name = f"plumb_machines_{os.getpid()}"
    running = Running()
    exhibits = running.folder / "seeded"
    seeded(name, exhibits)
    port = free_port()
    # as root it refuses to run
    place = Path("/tmp") / f"plumb-pooler-{os.getpid()}"
    place.mkdir()
    settings = (ROOT / "deploy/pgbouncer.ini").read_text()
    settings = settings.replace(
        "plumb = host=127.0.0.1 port=5432", f"{name} = host={DIRECT['PLUMB_DB_HOST']} port={DIRECT['PLUMB_DB_PORT']}"
    )
    settings = settings.replace(
        "listen_port = 6432", f"listen_port = {port}\nunix_socket_dir =\nlogfile = {place}/log\npidfile = {place}/pid"
    )
    settings = settings.replace("/etc/pgbouncer/userlist.txt", f"{place}/userlist.txt")
    (place / "pgbouncer.ini").write_text(settings)
    (place / "userlist.txt").write_text(f'"plumb_app" "{os.environ["PLUMB_APP_PASSWORD"]}"\n')
    as_postgres = ["runuser", "-u", "postgres", "--"] if os.getuid() == 0 else []
    if as_postgres:
        shutil.chown(place, "postgres")
    pgbouncer = shutil.which("pgbouncer") or "/usr/sbin/pgbouncer"
    running.start("pooler", [*as_postgres, pgbouncer, str(place / "pgbouncer.ini")], dict(os.environ), Path("/tmp"))
    own = {"PLUMB_DB_NAME": name, "PLUMB_DB_USER": "plumb_app", "PLUMB_DB_PASSWORD": os.environ["PLUMB_APP_PASSWORD"]}
    try:
        yield own | {"PLUMB_DB_HOST": "127.0.0.1", "PLUMB_DB_PORT": str(port), "PLUMB_DB_POOLED": "1"}, exhibits
    finally:
        running.end()
        shutil.rmtree(place, ignore_errors=True)
        with as_owner() as db:
            db.execute(f"DROP DATABASE IF EXISTS {name} WITH (FORCE)")


def test_two_machines_behind_one_name(pooled: tuple[dict[str, str], Path]) -> None:
    """What is uploaded to one is read from the other; either may be ended, and its worker too."""
    machines = Machines(*pooled)
    try:
        one, two = machines.addresses
        at_one = Person(one)
        made = at_one.send("POST", "/api/reviews/", {"title": "On one", "brief": {"edition": "asce7-16"}}).json()
        path = f"/api/reviews/{made['id']}/"
        # signed in at one is signed in at the other
        at_two = httpx.Client(base_url=two, cookies=at_one.client.cookies, timeout=60)
        assert at_two.get(path).json()["title"] == "On one"
        token = {"X-CSRFToken": at_one.client.cookies.get("csrftoken", "")}
        sent = at_one.client.post(path + "exhibits/", files={"file": ("s.csv", STORIES)}, headers=token)
        assert sent.status_code == 201, sent.text
        exhibit = f"/api/exhibits/{sent.json()['id']}/"
        wait_until(lambda: at_two.get(exhibit).json()["reading"]["status"] == "read", 90)
        assert at_two.get(exhibit + "file/").text == STORIES
        assert not any((machines.folder / name / "exhibits").exists() for name in ("one", "two"))
        # the same change on both: one holds, the other is told
        brief = {"brief": made["brief"] | {"tolerance": 0.02}, "based_on": 1}
        both = [c.put(path + "brief/", json=brief, headers=token).status_code for c in (at_one.client, at_two)]
        assert sorted(both) == [200, 412]
        # by both at once a recheck is computed once, with locks that the pooler keeps
        clinic = next(r for r in at_one.get("/api/reviews/") if r["title"] == "Port Maren Clinic")["id"]
        tags = {c.get(f"/api/reviews/{clinic}/recheck/").headers["ETag"] for c in (at_one.client, at_two) for _ in "ab"}
        assert len(tags) == 1
        # one worker is killed with a job in its hands: the other one does it
        machines.kill("worker one")
        sent = at_two.post(path + "exhibits/", files={"file": ("t.csv", STORIES + "L0,3,1\n")}, headers=token)
        again = f"/api/exhibits/{sent.json()['id']}/"
        wait_until(lambda: at_two.get(again).json()["reading"]["status"] == "read", 90)
        # a server is killed: through the one name everything goes on, and nobody is signed out
        through = httpx.Client(base_url=machines.address, cookies=at_one.client.cookies, timeout=60)
        assert through.get(path).status_code == 200
        machines.kill("server one")
        assert [through.get(path).status_code for _ in range(12)] == [200] * 12
        assert through.patch(path, json={"place": "Sable Quay"}, headers=token | {"If-Match": '"1"'}).status_code == 200
        assert through.get(exhibit + "file/").text == STORIES
        # what is missing is said
        machines.kill("worker two")
        machines.kill("store")
        told = through.get("/health/").json()
        assert told["status"] == "degraded"
        assert any("storage of exhibits" in w for w in told["wrong"])
        lost = through.get(exhibit + "file/")
        assert (lost.status_code, "does not respond" in lost.text) == (503, True)
    finally:
        machines.end()


def demo_into(cluster: Cluster, folder: Path) -> None:
    """Bring the demo into a cluster, by its owner."""
    name = f"plumb_standby_{os.getpid()}"
    seeded(name, folder / "exhibits")
    owner = cluster.role("owner")
    ours = ["-h", os.environ["PLUMB_DB_HOST"], "-p", os.environ["PLUMB_DB_PORT"], "-U", os.environ["PLUMB_DB_USER"]]
    theirs = [
        "-h",
        "127.0.0.1",
        "-p",
        cluster.port,
        "-U",
        "plumb_owner",
        "-d",
        "plumb",
        "--no-owner",
        "--no-privileges",
    ]
    for command, password in (
        (["pg_dump", *ours, "-Fc", "-Z", "0", "-f", f"{folder}/dump", name], os.environ["PLUMB_DB_PASSWORD"]),
        (["pg_restore", *theirs, f"{folder}/dump"], owner["PLUMB_DB_PASSWORD"]),
    ):
        done = run([str(BIN_FOLDER / command[0]), *command[1:]], {**os.environ, "PGPASSWORD": password})
        assert done.returncode == 0, done.stderr
    granted = run([sys.executable, "manage.py", "grant_roles"], owner, cwd=SERVER)
    assert granted.returncode == 0, granted.stderr
    with as_owner() as db:
        db.execute(f"DROP DATABASE {name} WITH (FORCE)")


def test_a_standby_takes_over_within_half_a_minute(cluster: Cluster) -> None:
    """The primary is killed at work; its standby is promoted, and the application comes back by itself."""
    running = Running()
    try:
        demo_into(cluster, running.folder)
        base = {"PGPASSWORD": "base-word"}
        copy = ["pg_basebackup", "-h", "127.0.0.1", "-p", cluster.port, "-U", "plumb_base", "-X", "stream", "-R"]
        cluster.do(*copy, "-D", f"{cluster.place}/standby", "--checkpoint=fast", **base)
        second = str(free_port())
        options = f"-p {second} -k {cluster.place}"
        cluster.do(
            "pg_ctl",
            "-D",
            f"{cluster.place}/standby",
            "-w",
            "-s",
            "-l",
            f"{cluster.place}/log2",
            "-o",
            options,
            "start",
        )
        port = free_port()
        env = cluster.role("app") | {
            "PLUMB_DB_HOST": "127.0.0.1,127.0.0.1",
            "PLUMB_DB_PORT": f"{cluster.port},{second}",
            "PLUMB_BIND": f"127.0.0.1:{port}",
        }
        running.start("server", [str(BIN / "gunicorn")], env)
        again = 'while true; do "$0" manage.py run_worker; sleep 0.5; done'
        running.start("worker", ["bash", "-c", again, sys.executable], env)
        address = f"http://127.0.0.1:{port}"
        wait_until(lambda: answers(address), 120)
        person = Person(address)
        made = person.send("POST", "/api/reviews/", {"title": "Before", "brief": {"edition": "asce7-16"}}).json()
        path = f"/api/reviews/{made['id']}/"
        caught_up = "SELECT count(*) FROM pg_stat_replication WHERE replay_lsn = pg_current_wal_lsn()"
        wait_until(lambda: cluster.sql("postgres", caught_up) == "1")
        cluster.stop("data", "immediate")
        assert person.client.get(path).status_code >= 500
        begun = time.monotonic()
        cluster.do("pg_ctl", "-D", f"{cluster.place}/standby", "-w", "-s", "promote")
        wait_until(lambda: person.client.get(path).status_code == 200, 30)
        assert time.monotonic() - begun < 30
        # nobody is signed out, and changes are taken
        changed = person.send("PATCH", path, {"place": "Sable Quay"}, based_on=1)
        assert changed.status_code == 200, changed.text
        sent = person.client.post(
            path + "exhibits/",
            files={"file": ("s.csv", STORIES)},
            headers={"X-CSRFToken": person.client.cookies.get("csrftoken", "")},
        )
        exhibit = f"/api/exhibits/{sent.json()['id']}/"
        wait_until(lambda: person.client.get(exhibit).json()["reading"]["status"] == "read", 90)
    finally:
        running.end()
        stop = [
            *cluster.as_postgres,
            str(BIN_FOLDER / "pg_ctl"),
            "-D",
            f"{cluster.place}/standby",
            "-m",
            "immediate",
            "stop",
        ]
        subprocess.run(stop, cwd="/", capture_output=True)
