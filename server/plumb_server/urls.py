"""Addresses of the server: the API under /api/, everything else is the web application."""

from django.urls import include, path, re_path
from drf_spectacular.views import SpectacularAPIView

from plumb_server.hazard.views import HazardView
from plumb_server.web.views import application, health, metrics

handler404 = "plumb_server.web.problems.not_found"
handler500 = "plumb_server.web.problems.failure"

urlpatterns = [
    path("api/", include("plumb_server.accounts.urls")),
    path("api/", include("plumb_server.reviews.urls")),
    path("api/", include("plumb_server.submissions.urls")),
    path("api/", include("plumb_server.rechecks.urls")),
    path("api/", include("plumb_server.exchange.urls")),
    path("api/", include("plumb_server.findings.urls")),
    path("api/", include("plumb_server.reports.urls")),
    path("api/", include("plumb_server.desk.urls")),
    path("api/", include("plumb_server.reference.urls")),
    path("api/hazard/", HazardView.as_view()),
    path("api/openapi/", SpectacularAPIView.as_view()),
    # the accounts library: what the screens of signing in speak with, and where providers come back to
    path("_allauth/", include("allauth.headless.urls")),
    path("accounts/", include("allauth.urls")),
    path("health/", health),
    path("metrics/", metrics),
    re_path(r"^(?!api/|assets/|_allauth/|accounts/).*$", application),
]
