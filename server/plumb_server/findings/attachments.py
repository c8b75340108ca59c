"""Pictures of findings, and marked regions of pages of exhibits."""

from __future__ import annotations

import hashlib
from typing import Any

from django.db import transaction
from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.requests import user_of
from plumb_server.findings.models import Attachment, Finding
from plumb_server.reviews.access import EVERYBODY, TEAM, access
from plumb_server.submissions.models import Exhibit
from plumb_server.web.pictures import media_type_of
from plumb_server.web.problems import Conflict, UnprocessableContent
from plumb_server.web.requests import sent

MOST_BYTES = 2_000_000
MOST_OF_A_FINDING = 20


class AttachmentSerializer(serializers.ModelSerializer[Any]):
    author = serializers.CharField(source="author.name")
    exhibit = serializers.IntegerField(source="exhibit_id", allow_null=True)
    region = serializers.ListField(child=serializers.FloatField(), allow_null=True)

    class Meta:
        model = Attachment
        fields = ["id", "name", "media_type", "exhibit", "page", "region", "author", "at"]


class RegionSerializer(serializers.Serializer[Any]):
    """A marked region: left, top, right and bottom as shares of a page of an exhibit."""

    exhibit = serializers.IntegerField()
    page = serializers.IntegerField(min_value=1, max_value=100_000)
    region = serializers.ListField(
        child=serializers.FloatField(min_value=0.0, max_value=1.0), min_length=4, max_length=4
    )

    def validate_region(self, region: list[float]) -> list[float]:
        left, top, right, bottom = region
        if left >= right or top >= bottom:
            raise serializers.ValidationError("the region has no area: give left, top, right and bottom")
        return region


def _refused(path: str, message: str, remedy: str) -> UnprocessableContent:
    return UnprocessableContent([{"path": path, "message": message, "remedy": remedy}])


def _attach(finding: Finding, request: Request, **fields: Any) -> Attachment:
    """Add an attachment; what is issued can still be illustrated, and each addition is recorded."""
    with transaction.atomic():
        review = finding.review.locked()
        if finding.attachments.count() >= MOST_OF_A_FINDING:
            raise Conflict(
                f"finding {finding.number} has {MOST_OF_A_FINDING} attachments, the maximum", "Remove one first."
            )
        attachment = Attachment.objects.create(finding=finding, author=user_of(request), **fields)
        review.record(user_of(request), "attachment added", finding=finding.number, name=attachment.name)
    return attachment


def _of_team(request: Request, finding_id: int) -> Finding:
    finding: Finding = get_object_or_404(Finding.objects.select_related("review"), pk=finding_id)
    access(user_of(request), finding.review_id, TEAM)
    return finding


class PicturesView(APIView):
    parser_classes = [MultiPartParser]

    @extend_schema(
        operation_id="attachment_add",
        request={
            "multipart/form-data": {"type": "object", "properties": {"file": {"type": "string", "format": "binary"}}}
        },
        responses={201: AttachmentSerializer},
    )
    def post(self, request: Request, finding_id: int) -> Response:
        """Attach a picture to a finding."""
        finding = _of_team(request, finding_id)
        file = request.FILES.get("file")
        if file is None:
            raise _refused("/file", "there is no file in the request", "Choose a picture.")
        if (file.size or 0) > MOST_BYTES:
            raise _refused("/file", f"{file.name} is larger than 2 MB", "Send a smaller picture.")
        data = file.read()
        media_type = media_type_of(data)
        if not media_type:
            raise _refused("/file", f"{file.name} is neither PNG nor JPEG", "Attach a PNG or JPEG picture.")
        digest = hashlib.sha256(data).hexdigest()
        made = _attach(finding, request, name=str(file.name)[:200], media_type=media_type, data=data, sha256=digest)
        return Response(AttachmentSerializer(made).data, status=status.HTTP_201_CREATED)


class RegionsView(APIView):
    @extend_schema(operation_id="region_add", request=RegionSerializer, responses={201: AttachmentSerializer})
    def post(self, request: Request, finding_id: int) -> Response:
        """Attach a marked region of a page of an exhibit to a finding."""
        finding = _of_team(request, finding_id)
        given = sent(RegionSerializer, request)
        exhibit = Exhibit.objects.filter(pk=given.pop("exhibit"), submission__review=finding.review).first()
        if exhibit is None:
            raise _refused("/exhibit", "the review has no such exhibit", "Choose an exhibit of this review.")
        made = _attach(finding, request, name=f"{exhibit.name}, page {given['page']}"[:200], exhibit=exhibit, **given)
        return Response(AttachmentSerializer(made).data, status=status.HTTP_201_CREATED)


class AttachmentView(APIView):
    @extend_schema(operation_id="attachment_file", responses={(200, "image/png"): OpenApiTypes.BINARY})
    def get(self, request: Request, attachment_id: int) -> HttpResponse:
        """The picture, for everybody who sees the finding."""
        attachment = get_object_or_404(Attachment.objects.select_related("finding__review"), pk=attachment_id)
        entry = access(user_of(request), attachment.finding.review_id, EVERYBODY)
        seen = attachment.finding.review.findings.visible_to(entry).filter(pk=attachment.finding_id).exists()
        if not seen or attachment.data is None:
            raise Http404
        data = bytes(attachment.data)
        if hashlib.sha256(data).hexdigest() != attachment.sha256:
            raise Conflict(
                f"{attachment.name} is not as it was attached", "Ask the operator to restore it from the backup."
            )
        return HttpResponse(data, content_type=attachment.media_type)

    @extend_schema(operation_id="attachment_remove", request=None, responses={204: None})
    def delete(self, request: Request, attachment_id: int) -> Response:
        """Remove an attachment of a draft; of an issued finding what was attached stays."""
        attachment = get_object_or_404(Attachment.objects.select_related("finding__review"), pk=attachment_id)
        finding = _of_team(request, attachment.finding_id)
        with transaction.atomic():
            review = finding.review.locked()
            stored = Finding.objects.select_for_update().get(pk=finding.pk)
            if stored.issued_at is not None:
                raise Conflict("the finding has been issued; what is attached stays", "Write a message in its thread.")
            review.record(user_of(request), "attachment removed", finding=stored.number, name=attachment.name)
            attachment.delete()
        return Response(status=status.HTTP_204_NO_CONTENT)
