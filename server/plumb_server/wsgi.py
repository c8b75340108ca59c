"""Entry point for gunicorn."""

import gc
import os
import sys

from django.core.wsgi import get_wsgi_application
from plumb_core.intake.cells import factor

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "plumb_server.settings")
application = get_wsgi_application()
# a short look at the database is not to wait for its turn behind a computation in another thread
sys.setswitchinterval(0.0005)
# the units library takes seconds to load: not while somebody waits for the first table
factor("m", "m")
# a table of 100,000 values makes as many objects: what is there already is not looked through for each of them
gc.collect()
gc.freeze()
gc.set_threshold(20_000, 20, 50)
