"""The API of the response matrix."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.core.mail import EmailMessage, get_connection
from django.db import transaction
from django.http import HttpResponse
from django.utils import timezone
from django.utils.text import slugify
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.exceptions import Throttled
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.models import Record
from plumb_server.accounts.records import note
from plumb_server.accounts.requests import user_of
from plumb_server.findings import matrix
from plumb_server.reviews.access import TEAM, access
from plumb_server.reviews.models import Review, Role
from plumb_server.web.problems import Conflict, UnprocessableContent
from plumb_server.web.requests import sent

XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
ANSWERING = (*TEAM, Role.SUBMITTER)
MOST_A_DAY = 60
"""Matrices that one person sends within a day."""
MOST_TO = 20


class AnswerSerializer(serializers.Serializer[Any]):
    """What a row of a matrix answers; `known` where the thread has it already."""

    number = serializers.IntegerField(source="finding.number")
    title = serializers.CharField(source="finding.title")
    answer = serializers.CharField()
    action = serializers.CharField()
    reference = serializers.CharField()
    known = serializers.BooleanField()


class ReadMatrixSerializer(serializers.Serializer[Any]):
    """What a matrix that came back says, and whether it was imported."""

    imported = serializers.BooleanField()
    answers = AnswerSerializer(many=True)


class SendSerializer(serializers.Serializer[Any]):
    to = serializers.ListField(child=serializers.EmailField(), allow_empty=False, max_length=MOST_TO)
    message = serializers.CharField(max_length=2000, required=False, allow_blank=True, default="")


def _file_name(review: Review) -> str:
    return f"responses-{slugify(review.title) or 'review'}.xlsx"


class MatrixView(APIView):
    parser_classes = [MultiPartParser]

    @extend_schema(operation_id="matrix_get", responses={(200, XLSX): OpenApiTypes.BINARY})
    def get(self, request: Request, review_id: str) -> HttpResponse:
        """The open findings as a workbook to answer in."""
        entry = access(user_of(request), review_id, ANSWERING)
        note(request, "downloaded", review=str(entry.review.pk), matrix=True)
        answer = HttpResponse(matrix.workbook(entry.review), content_type=XLSX)
        answer.headers["Content-Disposition"] = f'attachment; filename="{_file_name(entry.review)}"'
        return answer

    @extend_schema(
        operation_id="matrix_import",
        request={
            "multipart/form-data": {
                "type": "object",
                "properties": {
                    "file": {"type": "string", "format": "binary"},
                    "apply": {"type": "boolean", "description": "import it; without it what would be is answered"},
                },
            }
        },
        responses=ReadMatrixSerializer,
    )
    def post(self, request: Request, review_id: str) -> Response:
        """Read a workbook that came back, and import its answers where it is asked to."""
        entry = access(user_of(request), review_id, ANSWERING)
        file = request.FILES.get("file")
        if file is None:
            missing = {"path": "/file", "message": "there is no file in the request", "remedy": "Choose the workbook."}
            raise UnprocessableContent([missing])
        if (file.size or 0) > matrix.MOST_BYTES:
            words = f"{file.name} is larger than {matrix.MOST_BYTES // 1_000_000} MB"
            raise UnprocessableContent([{"path": "/file", "message": words, "remedy": "Send the workbook alone."}])
        answers = matrix.read_answers(entry.review, file.read(), str(file.name))
        apply = str(request.POST.get("apply", "")).lower() in ("true", "1")
        if apply:
            matrix.import_answers(entry, answers, str(file.name))
        return Response(ReadMatrixSerializer({"imported": apply, "answers": answers}).data)


class MatrixSendView(APIView):
    in_person = True

    @extend_schema(operation_id="matrix_send", request=SendSerializer, responses={204: None})
    def post(self, request: Request, review_id: str) -> Response:
        """Send the matrix by mail."""
        entry = access(user_of(request), review_id, TEAM)
        user = user_of(request)
        given = sent(SendSerializer, request)
        if not matrix.open_findings(entry.review):
            raise Conflict("no finding waits for an answer", "Issue the findings first.")
        with transaction.atomic():
            entry.review.locked()
            lately = Record.objects.filter(user=user, kind="matrix sent", at__gt=timezone.now() - timedelta(days=1))
            if lately.count() >= MOST_A_DAY:
                raise Throttled(3600, f"you sent {MOST_A_DAY} matrices within a day, the maximum; send it tomorrow")
            note(request, "matrix sent", review=str(entry.review.pk), to=given["to"])
            entry.review.record(user, "response matrix sent", to=given["to"])
            text = (
                f"{user.name} sends you the findings of the peer review of {entry.review.title}.\n\n"
                f"{given['message']}\n\nPlease answer in the attached workbook and send it back to {user.email}.\n"
            )
            message = EmailMessage(
                "Vigilant Plumb: findings of a peer review", text, to=given["to"], reply_to=[user.email]
            )
            message.attach(_file_name(entry.review), matrix.workbook(entry.review), XLSX)
            transaction.on_commit(lambda: get_connection(fail_silently=True).send_messages([message]))
        return Response(status=204)
