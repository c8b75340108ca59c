"""The installation as its page has it: deploy/install into a folder, and what it has written is run."""

from __future__ import annotations

import os
import re
import shutil
import signal
import subprocess
from collections.abc import Iterator
from pathlib import Path

import httpx
import pytest
from clusters import Cluster, run
from living import BIN, ROOT, SERVER, free_port, wait_until

NAME = "plumb.gull-rock.example"
DEPLOY = ROOT / "deploy"


@pytest.fixture
def installed() -> Iterator[tuple[Path, Cluster]]:
    """(the folder, the cluster) of an installation."""
    own = Cluster(Path("/tmp") / f"plumb-install-{os.getpid()}")
    try:
        own.make(roles=False)
        yield own.place / "root", own
    finally:
        own.end()


def install(prefix: Path, cluster: Cluster) -> str:
    env = {k: v for k, v in os.environ.items() if not k.startswith("PLUMB_")}
    env["PLUMB_PSQL"] = f"psql -h {cluster.place} -p {cluster.port} -U postgres -v ON_ERROR_STOP=1 -q"
    done = run([str(DEPLOY / "install"), "--name", NAME, "--prefix", str(prefix)], env)
    assert done.returncode == 0, done.stderr
    return done.stderr


def settings_of(prefix: Path, *files: str) -> dict[str, str]:
    """The environment of a unit, as systemd reads it."""
    env = {k: v for k, v in os.environ.items() if not k.startswith("PLUMB_")}
    for file in files:
        for line in (prefix / "etc/vigilant-plumb" / file).read_text().splitlines():
            if line and not line.startswith("#"):
                name, _, value = line.partition("=")
                env[name] = value
    env.pop("PROMETHEUS_MULTIPROC_DIR", None)
    return env


def test_an_installation_is_what_its_page_says(installed: tuple[Path, Cluster], tmp_path: Path) -> None:
    prefix, cluster = installed
    prefix.mkdir()
    told = install(prefix, cluster)
    assert f"https://{NAME} is in service" in told
    etc = prefix / "etc/vigilant-plumb"
    assert {p.name for p in etc.iterdir()} == {"plumb.env", "owner.env", "backup.env", "base.env"}
    assert all(p.stat().st_mode & 0o777 == 0o640 for p in etc.iterdir())
    first = {p.name: p.read_text() for p in etc.iterdir()}
    # every secret is there, and none is that of another
    given = re.compile(r"^PLUMB_\w*(?:KEYS?|PASSWORD)=(.*)$", re.M)
    secrets = [secret for text in first.values() for secret in given.findall(text)]
    assert len(secrets) == len({*secrets}) == 7
    assert min(map(len, secrets)) >= 50
    # again: what is there stays
    install(prefix, cluster)
    assert {p.name: p.read_text() for p in etc.iterdir()} == first
    # what the units name is there
    named = re.compile(r"^(?:EnvironmentFile|ReadWritePaths|WorkingDirectory)=(.*)$", re.M)
    for unit in (prefix / "etc/systemd/system").iterdir():
        for path in (p for paths in named.findall(unit.read_text()) for p in paths.split()):
            of_checkout = path.removeprefix("/opt/vigilant-plumb")
            place = ROOT / of_checkout.lstrip("/") if of_checkout != path else prefix / path.lstrip("/")
            assert place.exists(), (unit.name, path)
    manage = str(prefix / "usr/local/sbin/plumb-manage")
    made = run([manage, "first_account", "ada@gull-rock.example", "Ada Wren"], dict(os.environ))
    assert made.returncode == 0, made.stderr
    assert run([manage, "first_account", "ada@gull-rock.example", "Ada Wren"], dict(os.environ)).returncode == 1
    assert cluster.sql("plumb", "SELECT is_staff, of_office FROM accounts_user") == "t|t"
    # Django's own check of what is put into service
    checked = run([manage, "check", "--deploy", "--fail-level", "WARNING"], dict(os.environ))
    assert "SECURE_SSL_REDIRECT" not in checked.stderr
    assert "SECRET_KEY" not in checked.stderr

    # a nightly backup and a base backup, as their units run them
    nightly = prefix / "var/backups/vigilant-plumb/nightly"
    backup = run([str(ROOT / "bin/backup"), str(nightly)], settings_of(prefix, "plumb.env", "backup.env"))
    assert backup.returncode == 0, backup.stderr
    base = run([str(ROOT / "bin/base-backup"), str(cluster.archive)], settings_of(prefix, "base.env"))
    assert base.returncode == 0, base.stderr
    restored = run(
        [str(ROOT / "bin/restore"), backup.stdout.strip(), "--replace"], settings_of(prefix, "plumb.env", "owner.env")
    )
    assert restored.returncode == 0, restored.stderr

    # the server with its settings behind the site, with TLS
    behind, port, plain = free_port(), free_port(), free_port()
    env = settings_of(prefix, "plumb.env") | {"PLUMB_BIND": f"127.0.0.1:{behind}"}
    site = (prefix / "etc/nginx/sites-available/plumb").read_text()
    for before, after in (("443 ssl", f"127.0.0.1:{port} ssl"), ("80;", f"127.0.0.1:{plain};")):
        site = site.replace(f"listen {before}", f"listen {after}")
    site = site.replace("127.0.0.1:8470", f"127.0.0.1:{behind}")
    places = "".join(f"{k}_temp_path {tmp_path}/{k};" for k in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi"))
    user = "user root;" if os.getuid() == 0 else ""
    conf = tmp_path / "nginx.conf"
    head = f"{user} daemon off; pid {tmp_path}/nginx.pid; events {{}}"
    conf.write_text(f"{head} http {{ access_log off; {places} {site} }}")
    nginx = shutil.which("nginx") or "/usr/sbin/nginx"
    running = [
        subprocess.Popen([str(BIN / "gunicorn")], cwd=SERVER, env=env, start_new_session=True),
        subprocess.Popen([nginx, "-e", str(tmp_path / "error.log"), "-c", str(conf)], start_new_session=True),
    ]
    try:
        client = httpx.Client(base_url=f"https://127.0.0.1:{port}", verify=False, headers={"Host": NAME}, timeout=10)

        def answers() -> bool:
            try:
                return client.get("/health/").status_code == 200
            except httpx.HTTPError:
                return False

        wait_until(answers, 120)
        page = client.get("/")
        assert page.status_code == 200
        assert page.headers["Strict-Transport-Security"].startswith("max-age=31536000")
        session = client.get("/api/session/")
        assert session.json()["person"] is None
        assert "__Host-csrftoken" in session.headers["Set-Cookie"]
        assert client.get("/metrics/").status_code == 404
        assert client.get("/", headers={"Host": "elsewhere.example"}).status_code == 400
        insecure = httpx.get(f"http://127.0.0.1:{plain}/", headers={"Host": NAME})
        assert (insecure.status_code, insecure.headers["Location"]) == (301, f"https://{NAME}/")
    finally:
        for process in running:
            os.killpg(process.pid, signal.SIGKILL)
            process.wait()
