"""Look-up of hazard values by coordinates."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.hazard import client


class HazardQuestionSerializer(serializers.Serializer[Any]):
    edition = serializers.CharField(max_length=40)
    latitude = serializers.FloatField(min_value=-90, max_value=90)
    longitude = serializers.FloatField(min_value=-180, max_value=180)
    site_class = serializers.CharField(max_length=3, required=False, allow_blank=True)


class HazardAnswerSerializer(serializers.Serializer[Any]):
    edition = serializers.CharField()
    version = serializers.CharField()
    date = serializers.CharField()
    latitude = serializers.FloatField()
    longitude = serializers.FloatField()
    values = serializers.DictField(
        child=serializers.JSONField(), help_text="site values by name, for the reviewer to use or not"
    )


class HazardView(APIView):
    @extend_schema(
        operation_id="hazard_values", parameters=[HazardQuestionSerializer], responses=HazardAnswerSerializer
    )
    def get(self, request: Request) -> Response:
        requested = HazardQuestionSerializer(data=request.query_params)
        requested.is_valid(raise_exception=True)
        return Response(client.values(**requested.validated_data))
