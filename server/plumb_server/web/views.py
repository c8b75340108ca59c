"""The web application's page, for every address that isn't the API's."""

from __future__ import annotations

from django.conf import settings
from django.db import connection
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie


@ensure_csrf_cookie
def application(request: HttpRequest) -> HttpResponse:
    page = settings.WEB / "index.html"
    if not page.is_file():
        return HttpResponse("The web application is not built; run bin/start.", status=503, content_type="text/plain")
    return HttpResponse(page.read_bytes(), headers={"Cache-Control": "no-cache"})


def health(request: HttpRequest) -> HttpResponse:
    """For a proxy or monitor: 200 when the database answers."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT 1")
    return HttpResponse("ok", content_type="text/plain")
