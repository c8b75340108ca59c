"""The API of findings."""

from __future__ import annotations

from typing import Any, ClassVar

from django.db.models import Prefetch
from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.models import User
from plumb_server.accounts.requests import user_of
from plumb_server.findings import rounds, services
from plumb_server.findings.attachments import AttachmentSerializer
from plumb_server.findings.models import Attachment, Finding, FindingQuerySet, FurtherCheck
from plumb_server.reviews.access import EVERYBODY, TEAM, Access, access
from plumb_server.reviews.models import Role
from plumb_server.submissions.views import chosen_submission
from plumb_server.web.problems import UnprocessableContent
from plumb_server.web.requests import IF_MATCH, based_on, number_parameter, sent
from plumb_server.web.responses import dumped
from plumb_server.web.schema import core_field, core_response


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


class AssigneeSerializer(serializers.ModelSerializer[Any]):
    class Meta:
        model = User
        fields = ["id", "name"]


class FurtherCheckSerializer(serializers.ModelSerializer[Any]):
    """A check that was linked after the finding was filed."""

    author = serializers.CharField(source="author.name")
    submission = serializers.CharField(source="submission.label", default=None, allow_null=True)
    evidence = core_field("Evidence")()

    class Meta:
        model = FurtherCheck
        fields = ["check_id", "evidence", "submission", "author", "at"]


class FindingSerializer(serializers.ModelSerializer[Any]):
    author = serializers.CharField(source="author.name")
    submission = serializers.CharField(source="submission.label", default=None, allow_null=True)
    thread = MessageSerializer(many=True)
    checks = serializers.ListField(child=serializers.CharField())
    evidence = core_field("Evidence", many=True)()
    next_states = serializers.ListField(child=serializers.CharField())
    origin = OriginSerializer(allow_null=True)
    assignee = AssigneeSerializer(allow_null=True)
    merged_into = serializers.IntegerField(source="merged_into.number", default=None, allow_null=True)
    further = FurtherCheckSerializer(many=True)
    attachments = AttachmentSerializer(many=True)

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
            "assignee",
            "due",
            "merged_into",
            "further",
            "attachments",
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
        fields = ["severity", "title", "clause", "text", "status", "assignee", "due"]


class RevisionSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    revision = serializers.IntegerField()


class ManySerializer(serializers.ModelSerializer[Any]):
    """A change of several findings alike; `resolved` closes those whose deviations a later submission settles."""

    findings = RevisionSerializer(many=True, allow_empty=False, max_length=500)  # type: ignore[call-arg]
    resolved = serializers.BooleanField(default=False)

    class Meta:
        model = Finding
        fields = ["findings", "resolved", "severity", "status", "assignee", "due"]
        extra_kwargs: ClassVar = {"severity": {"required": False}, "status": {"required": False}}


class MergeSerializer(serializers.Serializer[Any]):
    numbers = serializers.ListField(child=serializers.IntegerField(), allow_empty=False, max_length=100)


class LinkSerializer(serializers.Serializer[Any]):
    check_id = serializers.CharField(max_length=200)
    submission = serializers.IntegerField(required=False, allow_null=True, help_text="number; the latest by default")


class MarkSerializer(serializers.Serializer[Any]):
    """The worst check of a finding in one submission."""

    submission = serializers.CharField()
    verdict = serializers.CharField(allow_null=True)
    role = serializers.CharField(allow_null=True)
    multiples = serializers.FloatField(allow_null=True)
    check = serializers.CharField(allow_null=True)


class HistorySerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    marks = MarkSerializer(many=True)


class NewMessageSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=5000)


def _visible(entry: Access) -> FindingQuerySet:
    return (
        entry.review.findings.visible_to(entry)
        .select_related("author", "submission", "assignee", "merged_into")
        .prefetch_related(
            "thread__author",
            "further__author",
            "further__submission",
            # the bytes of pictures are sent one by one
            Prefetch("attachments", Attachment.objects.defer("data").select_related("author", "exhibit")),
        )
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

    @extend_schema(operation_id="findings_change_many", request=ManySerializer, responses=FindingSerializer(many=True))
    def patch(self, request: Request, review_id: str) -> Response:
        """Change several findings alike: all of them, or none."""
        entry = access(user_of(request), review_id, TEAM)
        given = sent(ManySerializer, request)
        listed = {each["number"]: each["revision"] for each in given.pop("findings")}
        chosen = _numbered(entry, list(listed))
        texts = rounds.closing_texts(entry.review, chosen) if given.pop("resolved") else {}
        if texts:
            given["status"] = Finding.Status.SETTLED
        services.change_many(entry, [(f, listed[f.number]) for f in chosen], given, texts)
        changed = _visible(entry).filter(number__in=listed)
        return Response([finding_data(entry, f) for f in changed])


def _numbered(entry: Access, numbers: list[int]) -> list[Finding]:
    """Findings of a review by their numbers; raises UnprocessableContent naming those that there are not."""
    found = {f.number: f for f in _visible(entry).filter(number__in=numbers)}
    unknown = [number for number in numbers if number not in found]
    if unknown:
        words = f"the review has no finding {', '.join(map(str, unknown))}"
        raise UnprocessableContent([{"path": "/findings", "message": words, "remedy": "Choose from the register."}])
    return [found[number] for number in sorted(found)]


class DifferenceView(APIView):
    """What became of a submission's deviations and of the open findings in a later one."""

    @extend_schema(
        operation_id="difference_get",
        parameters=[
            OpenApiParameter("before", int, description="number of the earlier one; the last but one by default"),
            OpenApiParameter("after", int, description="number of the later one; the last by default"),
        ],
        responses=core_response("Difference"),
    )
    def get(self, request: Request, review_id: str) -> HttpResponse:
        entry = access(user_of(request), review_id)
        pair = rounds.pair_of(entry.review, number_parameter(request, "before"), number_parameter(request, "after"))
        return HttpResponse(dumped(rounds.difference_of(entry.review, *pair)), content_type="application/json")


class HistoriesView(APIView):
    """Of each finding, how the worst of its checks stood in each submission."""

    @extend_schema(operation_id="findings_history", responses=HistorySerializer(many=True))
    def get(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        return Response(rounds.histories(entry.review))


class MergeView(APIView):
    @extend_schema(operation_id="findings_merge", request=MergeSerializer, responses=FindingSerializer)
    def post(self, request: Request, finding_id: int) -> Response:
        """Continue other findings as this one: their checks are linked to it, and they are withdrawn."""
        entry, finding = _finding(request, finding_id, TEAM)
        services.merge(entry, finding, _numbered(entry, sent(MergeSerializer, request)["numbers"]))
        return Response(finding_data(entry, _finding(request, finding_id, TEAM)[1]))


class LinkView(APIView):
    @extend_schema(operation_id="finding_link", request=LinkSerializer, responses=FindingSerializer)
    def post(self, request: Request, finding_id: int) -> Response:
        """Link a further check to a finding."""
        entry, finding = _finding(request, finding_id, TEAM)
        given = sent(LinkSerializer, request)
        submission = chosen_submission(entry, given.get("submission"))
        services.link_check(finding, entry, given["check_id"], submission)
        return Response(finding_data(entry, _finding(request, finding_id, TEAM)[1]))


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
