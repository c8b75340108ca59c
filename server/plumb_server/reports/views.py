"""The API of reports."""

from __future__ import annotations

from typing import Any

from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.records import note
from plumb_server.accounts.requests import user_of
from plumb_server.accounts.signing import require_fresh, require_signature
from plumb_server.reports import printing, services
from plumb_server.reports.models import Printing, Report
from plumb_server.reviews.access import TEAM, access, lead_only
from plumb_server.reviews.models import Role
from plumb_server.web.requests import sent

MAY_READ = (*TEAM, Role.READER)


class ReportSerializer(serializers.ModelSerializer[Any]):
    issued_by = serializers.CharField(source="issued_by.name")

    class Meta:
        model = Report
        fields = ["id", "number", "sha256", "input_hash", "issued_by", "issued_at"]


class PrintingSerializer(serializers.ModelSerializer[Any]):
    report = ReportSerializer(allow_null=True)

    class Meta:
        model = Printing
        fields = ["id", "status", "issues", "message", "remedy", "report"]


class SignSerializer(serializers.Serializer[Any]):
    """What is signed: the preview that was shown, by what its page has in `data-seen`."""

    seen = serializers.CharField(max_length=100)


def _pdf(data: bytes, name: str) -> HttpResponse:
    answer = HttpResponse(data, content_type="application/pdf")
    answer.headers["Content-Disposition"] = f'inline; filename="{name}.pdf"'
    return answer


class PreviewView(APIView):
    @extend_schema(operation_id="report_preview", responses={(200, "text/html"): OpenApiTypes.STR})
    def get(self, request: Request, review_id: str) -> HttpResponse:
        entry = access(user_of(request), review_id)
        # named before it is made: what changes in between is refused at the signature
        seen = printing.seen_now(entry.review)
        return HttpResponse(services.page(entry.review, seen), content_type="text/html; charset=utf-8")


class DraftView(APIView):
    @extend_schema(operation_id="report_draft", request=None, responses={202: PrintingSerializer})
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        return _answer(printing.ask_for(entry.review, user_of(request), issues=False))


def _answer(printing: Printing) -> Response:
    return Response(PrintingSerializer(printing).data, status=status.HTTP_202_ACCEPTED)


def _printing(request: Request, printing_id: str) -> Printing:
    """A printing of the asker's own."""
    found = get_object_or_404(Printing.objects.select_related("review"), pk=printing_id, asked_by=user_of(request))
    access(user_of(request), found.review_id)
    return found


class PrintingView(APIView):
    """How far the printing of a report is."""

    @extend_schema(operation_id="printing_get", responses=PrintingSerializer)
    def get(self, request: Request, printing_id: str) -> Response:
        return Response(PrintingSerializer(_printing(request, printing_id)).data)


class PrintingFileView(APIView):
    @extend_schema(operation_id="printing_file", responses={(200, "application/pdf"): OpenApiTypes.BINARY})
    def get(self, request: Request, printing_id: str) -> HttpResponse:
        found = _printing(request, printing_id)
        if found.pdf is None:
            raise Http404
        return _pdf(bytes(found.pdf), "report-draft")


class ReportsView(APIView):
    in_person = True
    by_key = ("GET",)

    @extend_schema(operation_id="reports_list", responses=ReportSerializer(many=True))
    def get(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id, MAY_READ)
        return Response(ReportSerializer(entry.review.reports.select_related("issued_by").defer("pdf"), many=True).data)

    @extend_schema(operation_id="report_issue", request=SignSerializer, responses={202: PrintingSerializer})
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        lead_only(entry, "sign and issue a report")
        require_fresh(request)
        seen = sent(SignSerializer, request)["seen"]
        printing.require_open(entry.review)
        printing.require_seen(entry.review, seen)
        require_signature(request)
        return _answer(printing.ask_for(entry.review, user_of(request), issues=True))


class ReportFileView(APIView):
    @extend_schema(operation_id="report_file", responses={(200, "application/pdf"): OpenApiTypes.BINARY})
    def get(self, request: Request, report_id: int) -> HttpResponse:
        report = get_object_or_404(Report, pk=report_id)
        access(user_of(request), report.review_id, MAY_READ)
        note(request, "downloaded", review=str(report.review_id), report=report.number)
        return _pdf(report.as_signed(), f"report-{report.number}")
