"""What is kept of an installation: that it is whole, how much it is, and one state of all of it."""

from __future__ import annotations

import io
import json
import os
import subprocess
import tarfile
from pathlib import Path

from django.db import connection, transaction

from plumb_server.accounts.models import User
from plumb_server.findings.models import Finding, Message
from plumb_server.reports.models import Report
from plumb_server.reviews.models import AuditEntry, Review
from plumb_server.submissions import contents
from plumb_server.submissions.models import Claim, Exhibit
from plumb_server.web.problems import Conflict

COUNTED = (User, Review, AuditEntry, Exhibit, Claim, Finding, Message, Report)


def counts() -> dict[str, int]:
    """How much there is."""
    return {kind.__name__: kind.objects.count() for kind in COUNTED}


def wrong() -> list[str]:
    """What of the exhibits and the issued reports is missing or is not what was uploaded or signed."""
    found = []
    for name, sha256 in Exhibit.objects.values_list("name", "sha256").distinct():
        try:
            contents.opened(sha256).close()
        except Conflict as conflict:
            found.append(f"{name}: {conflict.detail}")
    for report in Report.objects.iterator(chunk_size=20):
        try:
            report.as_signed()
        except Conflict as conflict:
            found.append(f"review {report.review_id}: {conflict.detail}")
    return found


class Incomplete(Exception):
    """Something that is kept permanently is missing or damaged; says what."""


def keep(folder: Path, dump: list[str]) -> None:
    """Write one state of the database, its counts and its exhibits into a folder, while people work.

    The dump, the counts and the list of exhibits are of one exported snapshot.  Raises Incomplete where something of
    it is damaged: a backup of what is broken would push a good one out.

    Parameters
    ----------
    folder : that exists
    dump : the command that dumps the database, without the snapshot
    """
    with transaction.atomic():
        with connection.cursor() as cursor:
            cursor.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ, READ ONLY")
            # the dump and the files take longer than a request may
            cursor.execute("SET LOCAL idle_in_transaction_session_timeout = 0")
            cursor.execute("SET LOCAL statement_timeout = 0")
            cursor.execute("SELECT pg_export_snapshot()")
            (snapshot,) = cursor.fetchone() or ("",)
        password = str(connection.settings_dict["PASSWORD"])
        dumping = subprocess.Popen([*dump, f"--snapshot={snapshot}"], env=os.environ | {"PGPASSWORD": password})
        try:
            _write(folder)
        except BaseException:
            dumping.kill()
            raise
        finally:
            dumping.wait()
        if dumping.returncode:
            raise Incomplete("the database was not dumped")


def _write(folder: Path) -> None:
    if found := wrong():
        raise Incomplete("\n".join(found))
    (folder / "counts.json").write_text(json.dumps(counts(), sort_keys=True) + "\n")
    with tarfile.open(folder / "exhibits.tar", "w") as packed:
        for name in sorted({n for e in Exhibit.objects.all() for n in contents.names_of(e.sha256, e.name)}):
            with contents.stored(name) as file:
                data = file.read()
            entry = tarfile.TarInfo(name)
            entry.size = len(data)
            packed.addfile(entry, io.BytesIO(data))


def put_back(packed: Path) -> int:
    """Put the exhibits of a backup into the storage; how many files there were."""
    count = 0
    with tarfile.open(packed) as file:
        for entry in file:
            data = file.extractfile(entry) if entry.isfile() else None
            if data is not None:
                contents.put_back(entry.name.removeprefix("./"), data.read())
                count += 1
    return count
