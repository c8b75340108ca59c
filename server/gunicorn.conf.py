"""How gunicorn serves the application.

Behind a proxy that buffers (deploy/nginx.conf), on one address of this machine.
"""

import gc
import os

# a large submission makes hundreds of thousands of objects at once: looking through all of them again and again for
# what can be freed would take a fifth of the time
gc.set_threshold(50_000, 20, 50)

wsgi_app = "plumb_server.wsgi"
bind = os.environ.get("PLUMB_BIND", "127.0.0.1:8470")
workers = int(os.environ.get("PLUMB_WORKERS", "2"))
threads = int(os.environ.get("PLUMB_THREADS", "4"))
# one copy of the units and rules for all processes
preload_app = True
timeout = 120
graceful_timeout = 10
# What a process gathers over time belongs to it
max_requests, max_requests_jitter = 5000, 500
limit_request_line, limit_request_fields = 8190, 60
loglevel = "warning"


def when_ready(server):
    """Leave alone what was loaded before the processes part: it stays one copy for all of them."""
    gc.collect()
    gc.freeze()


def child_exit(server, worker):
    """Remove the metrics of a process that ended."""
    if "PROMETHEUS_MULTIPROC_DIR" in os.environ:
        from prometheus_client import multiprocess

        multiprocess.mark_process_dead(worker.pid)
