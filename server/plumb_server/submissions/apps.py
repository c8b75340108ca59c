"""The app of submissions."""

from __future__ import annotations

from django.apps import AppConfig


class SubmissionsConfig(AppConfig):
    name = "plumb_server.submissions"

    def ready(self) -> None:
        """Give the query set the serializer, which is made from the models and imports them."""
        from plumb_server.submissions.models import SubmissionQuerySet
        from plumb_server.submissions.serializers import SubmissionSerializer

        SubmissionQuerySet.serializer = SubmissionSerializer
