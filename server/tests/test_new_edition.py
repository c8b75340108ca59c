"""A folder of an edition laid besides the others appears in the API, though nothing of the server knows of it."""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import plumb_core

CORE = Path(plumb_core.__file__).parent
NEW = CORE.parent / "tests" / "data" / "hesper_2031"
ASKING = """
import json, django
from django.conf import settings
settings.CACHES = {"default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache"}}
django.setup()
from plumb_server.accounts.models import User
from plumb_server.rechecks import views
from rest_framework.test import APIRequestFactory, force_authenticate

def ask(view, body=None):
    request = APIRequestFactory().get("/") if body is None else APIRequestFactory().post("/", body, format="json")
    force_authenticate(request, User(email="reader"))
    answer = view.as_view()(request)
    return json.loads((answer.render() if hasattr(answer, "render") else answer).content)

brief = {"edition": "hesper-2031", "site": {"zone": "ridge"}, "system": {"X": {"R": 4.0}, "Y": {"R": 4.0}},
    "stories": [{"name": "L1", "height": 4.0, "weight": 1000.0}]}
claims = [{"quantity": "V", "direction": "X", "value": 125.0, "text": "125"}]
document = {"format": "plumb-recheck", "version": 1, "brief": brief, "submission": {"label": "S0", "claims": claims}}
print(json.dumps({"editions": ask(views.EditionsView), "recheck": ask(views.HeadlessRecheckView, document)}))
"""


def test_a_new_folder_is_an_edition_of_the_api(tmp_path: Path) -> None:
    shutil.copytree(CORE, tmp_path / "plumb_core", ignore=shutil.ignore_patterns("__pycache__"))
    shutil.copytree(NEW, tmp_path / "plumb_core" / "editions" / "hesper_2031")
    ran = subprocess.run(
        [sys.executable, "-c", ASKING],
        env=os.environ | {"PYTHONPATH": f"{tmp_path}:{Path(__file__).parents[1]}"},
        capture_output=True,
        text=True,
        check=False,
    )
    assert ran.returncode == 0, ran.stderr
    answers = json.loads(ran.stdout)
    assert "Hesper 2031" in [e["short"] for e in answers["editions"]]
    # by hand: on the plateau, 2.5 x 0.20 / 4 x 1000 kN
    (shear,) = [c for c in answers["recheck"]["checks"] if c["id"] == "V.X"]
    assert (shear["independent"]["value"], shear["verdict"]) == (125.0, "agrees")
