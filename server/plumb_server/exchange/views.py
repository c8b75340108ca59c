"""Reviews out of the application and into it again."""

from __future__ import annotations

import json
from tempfile import TemporaryFile
from typing import IO
from urllib.parse import quote

from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.records import note
from plumb_server.accounts.requests import user_of
from plumb_server.exchange import imports
from plumb_server.exchange.models import Import
from plumb_server.exchange.services import export_review, import_review
from plumb_server.reviews.access import access
from plumb_server.reviews.serializers import ReviewDetailSerializer
from plumb_server.reviews.views import review_json
from plumb_server.submissions.views import SUBMISSION, asked_submission, chosen_submission


class ImportSerializer(serializers.ModelSerializer[Import]):
    """What has become of an import."""

    class Meta:
        model = Import
        fields = ("id", "status", "review", "problems")


class ReviewImportView(APIView):
    """An exported review as a new one; a large one is imported by a job, whose state is answered."""

    @extend_schema(
        operation_id="reviews_import",
        request=OpenApiTypes.OBJECT,
        responses={201: ReviewDetailSerializer, 202: ImportSerializer},
    )
    def post(self, request: Request) -> Response:
        size = int(request.META.get("CONTENT_LENGTH") or 0)
        if size > imports.AT_ONCE:
            # not read here: a document of 100 MB takes a gigabyte when it is
            waiting = imports.begin(user_of(request), _received(request), size)
            return Response(ImportSerializer(waiting).data, status=status.HTTP_202_ACCEPTED)
        review = import_review(user_of(request), request.data)
        return Response(review_json(access(user_of(request), review.pk)), status=status.HTTP_201_CREATED)


PIECE = 1_000_000


def _received(request: Request) -> IO[bytes]:
    """The body of a request, piece by piece in a file of its own."""
    file = TemporaryFile()  # noqa: SIM115 - closed when it is stored
    while piece := request._request.read(PIECE):
        file.write(piece)
    file.seek(0)
    return file


class ImportView(APIView):
    @extend_schema(operation_id="import_get", responses=ImportSerializer)
    def get(self, request: Request, import_id: str) -> Response:
        return Response(ImportSerializer(get_object_or_404(Import, pk=import_id, asked_by=user_of(request))).data)


class ExportView(APIView):
    @extend_schema(operation_id="review_export", parameters=[SUBMISSION], responses=OpenApiTypes.OBJECT)
    def get(self, request: Request, review_id: str) -> HttpResponse:
        entry = access(user_of(request), review_id)
        note(request, "exported", review=str(entry.review.pk), title=entry.review.title)
        document = export_review(entry.review, chosen_submission(entry, asked_submission(request)), user_of(request))
        answer = HttpResponse(json.dumps(document, ensure_ascii=False, indent=1), content_type="application/json")
        name = quote(f"{entry.review.title}.plumb.json", safe="")
        answer.headers["Content-Disposition"] = f"attachment; filename*=UTF-8''{name}"
        return answer
