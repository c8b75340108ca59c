"""The API of findings."""

from __future__ import annotations

from typing import Any

from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.requests import user_of
from plumb_server.findings import services
from plumb_server.findings.models import Finding, FindingQuerySet
from plumb_server.reviews.access import EVERYBODY, TEAM, Access, access
from plumb_server.reviews.models import Role
from plumb_server.submissions.views import chosen_submission
from plumb_server.web.requests import IF_MATCH, based_on, sent
from plumb_server.web.schema import core_field


class MessageSerializer(serializers.Serializer[Any]):
    author = serializers.CharField(source="author.name")
    at = serializers.DateTimeField()
    text = serializers.CharField()


class OriginSerializer(serializers.Serializer[Any]):
    """Where a finding came from that was imported, and what of its evidence a recheck here does not say."""

    author = serializers.CharField()
    created_at = serializers.CharField(allow_null=True)
    differs = serializers.ListField(child=serializers.CharField())
    unknown = serializers.ListField(child=serializers.CharField())


class FindingSerializer(serializers.ModelSerializer[Any]):
    author = serializers.CharField(source="author.name")
    submission = serializers.CharField(source="submission.label", default=None, allow_null=True)
    thread = MessageSerializer(many=True)
    checks = serializers.ListField(child=serializers.CharField())
    evidence = core_field("Evidence", many=True)()
    next_states = serializers.ListField(child=serializers.CharField())
    origin = OriginSerializer(allow_null=True)

    class Meta:
        model = Finding
        fields = [
            "id",
            "number",
            "severity",
            "status",
            "title",
            "clause",
            "text",
            "checks",
            "evidence",
            "submission",
            "author",
            "created_at",
            "changed_at",
            "thread",
            "next_states",
            "revision",
            "origin",
        ]


class NewFindingSerializer(serializers.ModelSerializer[Any]):
    checks = serializers.ListField(child=serializers.CharField(max_length=200), max_length=500)
    submission = serializers.IntegerField(required=False, allow_null=True, help_text="number; the latest by default")

    class Meta:
        model = Finding
        fields = ["severity", "title", "clause", "text", "checks", "submission"]


class FindingChangeSerializer(serializers.ModelSerializer[Any]):
    class Meta:
        model = Finding
        fields = ["severity", "title", "clause", "text", "status"]


class NewMessageSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=5000)


def _visible(entry: Access) -> FindingQuerySet:
    return (
        entry.review.findings.visible_to(entry)
        .select_related("author", "submission")
        .prefetch_related("thread__author")
    )


def finding_data(entry: Access, finding: Finding) -> dict[str, Any]:
    """A finding as a member sees it; what changes its state is the team's."""
    data = FindingSerializer(finding).data
    return data if entry.on_team else data | {"next_states": []}


class FindingsView(APIView):
    @extend_schema(operation_id="findings_list", responses=FindingSerializer(many=True))
    def get(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id, EVERYBODY)
        return Response([finding_data(entry, f) for f in _visible(entry)])

    @extend_schema(operation_id="finding_file", request=NewFindingSerializer, responses={201: FindingSerializer})
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id, TEAM)
        given = sent(NewFindingSerializer, request)
        given["submission"] = chosen_submission(entry, given.get("submission"))
        finding = services.file_finding(entry.review, user_of(request), **given)
        return Response(finding_data(entry, finding), status=status.HTTP_201_CREATED)


def _finding(request: Request, finding_id: int, roles: tuple[Role, ...]) -> tuple[Access, Finding]:
    finding = get_object_or_404(Finding, pk=finding_id)
    entry = access(user_of(request), finding.review_id, roles)
    return entry, get_object_or_404(_visible(entry), pk=finding_id)


class FindingView(APIView):
    @extend_schema(
        operation_id="finding_change",
        request=FindingChangeSerializer,
        responses=FindingSerializer,
        parameters=[IF_MATCH],
    )
    def patch(self, request: Request, finding_id: int) -> Response:
        entry, finding = _finding(request, finding_id, TEAM)
        given = FindingChangeSerializer(data=request.data, partial=True)
        given.is_valid(raise_exception=True)
        services.change_finding(finding, entry, dict(given.validated_data), based_on(request))
        return Response(finding_data(entry, _finding(request, finding_id, TEAM)[1]))


class MessagesView(APIView):
    @extend_schema(operation_id="message_write", request=NewMessageSerializer, responses={201: MessageSerializer})
    def post(self, request: Request, finding_id: int) -> Response:
        entry, finding = _finding(request, finding_id, (*TEAM, Role.SUBMITTER))
        message = services.write_message(finding, entry, sent(NewMessageSerializer, request)["text"])
        return Response(MessageSerializer(message).data, status=status.HTTP_201_CREATED)
