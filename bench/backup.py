"""How long a backup and a restore of a large installation take, and how large they are: a million claims by default.

    .venv/bin/python bench/backup.py [--claims 1000000]

With the database of `bin/start`, which is copied under another name and left as it is; run it while that is stopped, in
a shell that has sourced `bin/lib.sh` and called `start_postgres`.
"""

from __future__ import annotations

import argparse
import os
import subprocess
import tempfile
import time
from pathlib import Path

import psycopg

ROOT = Path(__file__).resolve().parents[1]
NAME, AGAIN = "plumb_bench_backup", "plumb_bench_restored"
MAKE = """
WITH review AS (
  INSERT INTO reviews_review (id, title, place, client, description, status, revision, created_at)
  VALUES (gen_random_uuid(), 'Large', '', '', '', 'open', 1, now()) RETURNING id),
submission AS (
  INSERT INTO submissions_submission (review_id, number, status, created_at, author_id)
  SELECT id, 0, 'draft', now(), (SELECT min(id) FROM accounts_user) FROM review RETURNING id),
exhibit AS (
  INSERT INTO submissions_exhibit (submission_id, name, size, sha256, pasted, created_at)
  SELECT submission.id, e.name, e.size, e.sha256, e.pasted, now()
  FROM submission, (SELECT * FROM submissions_exhibit LIMIT 1) e RETURNING id, submission_id),
made AS (
  INSERT INTO submissions_claimtable (exhibit_id, kind, sheet, reading, open_parts, count, created_at)
  SELECT id, 'drifts', 'Large', '{{}}', '[]', {claims}, now() FROM exhibit RETURNING id, exhibit_id)
INSERT INTO submissions_claim
  (table_id, submission_id, quantity, direction, story, "case", number, text, unit, scale, row, "column")
SELECT made.id, exhibit.submission_id, 'drift_max', 'X', 'L' || i % 100, 'EX ' || i / 100, i * 0.001, (i * 0.001)::text,
  'mm', 0.001, i, 'D'
FROM made JOIN exhibit ON exhibit.id = made.exhibit_id, generate_series(1, {claims}) i
"""


def main() -> None:
    """Make the copy, and print the times."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--claims", type=int, default=1_000_000)
    claims = parser.parse_args().claims
    given = {k: os.environ[f"PLUMB_DB_{k.upper()}"] for k in ("host", "port", "user", "password")}
    with psycopg.connect(dbname="postgres", autocommit=True, **given) as db:  # type: ignore[arg-type]
        for name in (NAME, AGAIN):
            db.execute(f"DROP DATABASE IF EXISTS {name} WITH (FORCE)")
        db.execute(f"CREATE DATABASE {NAME} TEMPLATE plumb")
        with psycopg.connect(dbname=NAME, autocommit=True, **given) as own:  # type: ignore[arg-type]
            begun = time.perf_counter()
            own.execute(MAKE.format(claims=claims))
            print(f"{claims} claims made in {time.perf_counter() - begun:.0f} s")
            size = own.execute(
                "SELECT pg_database_size(current_database()), pg_total_relation_size('submissions_claim')"
            )
            whole, table = size.fetchone() or (0, 0)
            print(f"database {whole / 1e6:.0f} MB, {table / claims:.0f} bytes for each claim with its indices")
        with tempfile.TemporaryDirectory() as folder:
            begun = time.perf_counter()
            kept = subprocess.run(
                [ROOT / "bin/backup", folder], env={**os.environ, "PLUMB_DB_NAME": NAME}, capture_output=True, text=True
            )
            print(f"backup  {time.perf_counter() - begun:.0f} s", kept.stderr[-300:])
            made = Path(kept.stdout.strip())
            for file in sorted(made.iterdir()):
                print(f"        {file.name} {file.stat().st_size / 1e6:.1f} MB")
            begun = time.perf_counter()
            put = subprocess.run(
                [ROOT / "bin/restore", made],
                env={**os.environ, "PLUMB_DB_NAME": AGAIN, "PLUMB_EXHIBITS": f"{folder}/exhibits"},
                capture_output=True,
                text=True,
            )
            print(f"restore {time.perf_counter() - begun:.0f} s", put.stderr[-300:])
        for name in (NAME, AGAIN):
            db.execute(f"DROP DATABASE IF EXISTS {name} WITH (FORCE)")


if __name__ == "__main__":
    main()
