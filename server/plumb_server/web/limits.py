"""How often somebody may request what takes long, and that it is computed once where many ask at once."""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from contextlib import contextmanager

from django.db import connection, transaction
from rest_framework.throttling import UserRateThrottle


class ComputeThrottle(UserRateThrottle):
    """Computations of the headless contract; counted for each person, by all processes together."""

    scope = "compute"


@contextmanager
def one_at_a_time(name: str) -> Iterator[None]:
    """Wait until no other process or thread, on any machine, is at the thing of this name; no row is locked meanwhile.

    The lock is the transaction's: it goes where the process goes, and a pooler of transactions keeps it.
    """
    key = int.from_bytes(hashlib.sha256(name.encode()).digest()[:8], signed=True)
    with transaction.atomic():
        with connection.cursor() as cursor:
            cursor.execute("SELECT pg_advisory_xact_lock(%s)", [key])
        yield
