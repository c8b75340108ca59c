"""Jobs of the queue that come by themselves: notices."""

from __future__ import annotations

from django.utils import timezone
from procrastinate.contrib.django import app

from plumb_server.desk.notices import send_notices

QUEUE = "notices"


@app.periodic(cron="*/5 * * * *")
@app.task(queue=QUEUE, name="send_notices", lock="notices", queueing_lock="notices")
def send_what_happened(timestamp: int) -> None:
    """Send what happened since the last time."""
    send_notices(timezone.localdate())
