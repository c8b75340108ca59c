"""Reviews out of the application and into it again."""

from __future__ import annotations

import json
from urllib.parse import quote

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.records import note
from plumb_server.accounts.requests import user_of
from plumb_server.exchange.services import export_review, import_review
from plumb_server.reviews.access import access
from plumb_server.reviews.serializers import ReviewDetailSerializer
from plumb_server.reviews.views import review_json
from plumb_server.submissions.views import SUBMISSION, asked_submission, chosen_submission


class ReviewImportView(APIView):
    @extend_schema(operation_id="reviews_import", request=OpenApiTypes.OBJECT, responses={201: ReviewDetailSerializer})
    def post(self, request: Request) -> Response:
        review = import_review(user_of(request), request.data)
        return Response(review_json(access(user_of(request), review.pk)), status=status.HTTP_201_CREATED)


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
