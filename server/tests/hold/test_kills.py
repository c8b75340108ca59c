"""Processes that end in the middle, senders that are slow, files that are bombs.

What was acknowledged is there, and all others go on.
"""

from __future__ import annotations

import contextlib
import io
import os
import signal
import socket
import time
import zipfile
from typing import Any

import httpx
from living import Application, Person, as_owner, at_once, wait_until

ANSWERED_WITHIN = 3
"""s, besides the browsers' tests.

One slow sender or bomb in a request would hold everybody up for ten times as long.
"""

SHEET = (
    '<?xml version="1.0"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>{}'
    "</sheetData></worksheet>"
)


def bomb(megabytes: int) -> bytes:
    """A workbook that is small and unpacks to many MB."""
    row = '<row><c t="inlineStr"><is><t>' + "x" * 1000 + "</t></is></c></row>"
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("[Content_Types].xml", "<Types/>")
        archive.writestr(
            "xl/workbook.xml",
            '<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.'
            'openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="A" sheetId="1" r:id="r1"/>'
            "</sheets></workbook>",
        )
        archive.writestr(
            "xl/_rels/workbook.xml.rels",
            '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" '
            'Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" '
            'Target="worksheets/sheet1.xml"/></Relationships>',
        )
        archive.writestr("xl/worksheets/sheet1.xml", SHEET.format(row * (megabytes * 1000)))
    return packed.getvalue()


def hand_in(person: Person, review: str, name: str, data: bytes) -> httpx.Response:
    headers = {"X-CSRFToken": person.client.cookies["csrftoken"]}
    return person.client.post(f"/api/reviews/{review}/exhibits/", files={"file": (name, data)}, headers=headers)


def longest_health(application: Application, seconds: float, changes_since: Any = None) -> float:
    """The longest time, s, that `/health/` took while something went on."""
    worst, end = 0.0, time.monotonic() + seconds
    while time.monotonic() < end:
        begun = time.monotonic()
        assert httpx.get(f"{application.address}/health/", timeout=30).status_code == 200
        worst = max(worst, time.monotonic() - begun)
        if changes_since:
            changes_since()
        time.sleep(0.1)
    return worst


def test_slow_senders_keep_nobody_out(application: Application) -> None:
    host, port = application.address.removeprefix("http://").split(":")
    head = f"Host: {host}\r\nContent-Type: application/json\r\n"
    begun = [
        f"POST /api/session/ HTTP/1.1\r\n{head}Content-Length: 1000\r\n\r\n{{".encode(),
        f"GET / HTTP/1.1\r\n{head}X-Slow: ".encode(),
    ]
    senders = []
    for i in range(200):
        sender = socket.create_connection((host, int(port)))
        sender.sendall(begun[i % 2])
        senders.append(sender)

    def drip() -> None:
        for sender in senders:
            with contextlib.suppress(OSError):
                sender.send(b"x")

    assert longest_health(application, 4, drip) < ANSWERED_WITHIN
    for sender in senders:
        sender.close()


def test_bombs_are_refused_while_everybody_goes_on(application: Application, lead: Person) -> None:
    made = lead.send("POST", "/api/reviews/", {"title": "Bombs", "brief": {"edition": "asce7-16"}}).json()
    data = bomb(90)
    assert len(data) < 500_000
    exhibits = []
    for i in range(1):
        answer = hand_in(lead, made["id"], f"bomb-{i}.xlsx", data + bytes(i))
        assert answer.status_code == 201, answer.text
        exhibits.append(answer.json()["id"])
    assert longest_health(application, 6) < ANSWERED_WITHIN

    def all_told() -> bool:
        told = [lead.get(f"/api/exhibits/{e}/")["reading"]["status"] for e in exhibits]
        return all(status in ("refused", "read") for status in told)

    wait_until(all_told, 60)


def test_a_worker_that_is_killed_leaves_its_work_to_the_next(application: Application, lead: Person) -> None:
    made = lead.send("POST", "/api/reviews/", {"title": "Killed", "brief": {"edition": "asce7-16"}}).json()
    exhibits = [
        hand_in(lead, made["id"], f"t{i}.csv", f"Story,Height (m)\nL1,{4 + i}\n".encode()).json()["id"]
        for i in range(3)
    ]
    os.killpg(application.running["worker"].pid, signal.SIGKILL)
    application.running["worker"].wait()
    application.start_worker()
    wait_until(lambda: all(lead.get(f"/api/exhibits/{e}/")["reading"]["status"] == "read" for e in exhibits), 60)


def test_what_was_acknowledged_is_there_when_a_process_is_killed(
    application: Application, lead: Person, clinic: str
) -> None:
    """Findings are filed without end while the processes that answer are killed one after the other."""
    acknowledged: list[int] = []

    def files() -> None:
        end = time.monotonic() + 5
        i = 0
        while time.monotonic() < end:
            i += 1
            try:
                body = {"title": f"Kept {i}", "text": "x", "severity": "note", "checks": []}
                answer = lead.send("POST", f"/api/reviews/{clinic}/findings/", body)
            except httpx.HTTPError:
                continue
            if answer.status_code == 201:
                acknowledged.append(answer.json()["id"])

    def kills() -> None:
        for _ in range(3):
            time.sleep(1.2)
            os.kill(application.processes()[0], signal.SIGKILL)

    at_once(files, kills)
    wait_until(application.answers)
    assert len(acknowledged) > 5
    there = {f["id"] for f in lead.get(f"/api/reviews/{clinic}/findings/")}
    assert set(acknowledged) <= there


def test_while_the_database_is_away_it_is_told_so_and_it_comes_back_by_itself(
    application: Application, lead: Person
) -> None:
    name = application.database
    with as_owner() as db:
        db.execute(f"ALTER DATABASE {name} ALLOW_CONNECTIONS false")
        db.execute("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = %s", [name])
    try:
        answers = [lead.client.get(path) for path in ("/api/reviews/", "/health/", "/api/session/")]
        assert [(a.status_code, a.headers.get("Retry-After")) for a in answers] == [(503, "5")] * 3
    finally:
        with as_owner() as db:
            db.execute(f"ALTER DATABASE {name} ALLOW_CONNECTIONS true")
    wait_until(lambda: lead.client.get("/api/reviews/").status_code == 200)


def test_the_application_owns_nothing(application: Application) -> None:
    import psycopg

    with psycopg.connect(
        host=os.environ["PLUMB_DB_HOST"],
        port=os.environ["PLUMB_DB_PORT"],
        user="plumb_app",
        password=os.environ["PLUMB_APP_PASSWORD"],
        dbname=application.database,
        autocommit=True,
    ) as db:
        for statement in (
            "UPDATE reviews_auditentry SET action = 'x'",
            "DELETE FROM reports_report",
            "UPDATE findings_message SET text = 'x'",
            "DELETE FROM accounts_record",
            "TRUNCATE submissions_claim",
            "ALTER TABLE reviews_auditentry DISABLE TRIGGER ALL",
            "DROP TRIGGER audit_is_for_good ON reviews_auditentry",
            "DROP TABLE findings_finding",
            "CREATE TABLE mine (a int)",
            "SET session_replication_role = replica",
            "DELETE FROM django_migrations",
        ):
            try:
                db.execute(statement)
            except psycopg.errors.InsufficientPrivilege:
                continue
            raise AssertionError(statement)
