"""The office's thresholds of questions: set by its administrator, used by every review that states none of its own."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from drf_spectacular.utils import extend_schema
from plumb_core.documents.reading import read
from plumb_core.documents.thresholds import Thresholds
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response

from plumb_server.accounts.office import OfficeView
from plumb_server.accounts.records import note
from plumb_server.accounts.requests import user_of
from plumb_server.reviews.models import OfficeThresholds
from plumb_server.web.problems import PreconditionFailed
from plumb_server.web.requests import IF_MATCH, based_on
from plumb_server.web.schema import core_field


class OfficeThresholdsSerializer(serializers.Serializer[Any]):
    """The thresholds that the office has set; what is not there has its default."""

    thresholds = core_field("Thresholds")(source="document")
    revision = serializers.IntegerField()
    author = serializers.CharField(source="author.name", allow_null=True, default=None)
    updated_at = serializers.DateTimeField(allow_null=True)


class OfficeThresholdsView(OfficeView):
    @extend_schema(operation_id="office_thresholds", responses=OfficeThresholdsSerializer)
    def get(self, request: Request) -> Response:
        return Response(OfficeThresholdsSerializer(OfficeThresholds.current()).data)

    @extend_schema(
        operation_id="office_thresholds_change",
        request={"application/json": {"$ref": "#/components/schemas/Thresholds"}},
        responses=OfficeThresholdsSerializer,
        parameters=[IF_MATCH],
    )
    def put(self, request: Request) -> Response:
        given = read(Thresholds, request.data).model_dump(mode="json", exclude_none=True)
        with transaction.atomic():
            stored = OfficeThresholds.locked()
            if stored.revision != based_on(request):
                words = "the thresholds were changed in the meantime"
                raise PreconditionFailed([{"path": "/", "message": words, "remedy": "Load them again."}])
            stored.document, stored.author = given, user_of(request)
            stored.revision += 1
            stored.save()
            note(request, "thresholds changed", thresholds=given)
        return Response(OfficeThresholdsSerializer(stored).data)
