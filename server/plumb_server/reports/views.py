"""The API of reports."""

from __future__ import annotations

import base64
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

from plumb_server.accounts.office import OfficeView
from plumb_server.accounts.records import note
from plumb_server.accounts.requests import user_of
from plumb_server.accounts.signing import require_fresh, require_signature
from plumb_server.reports import certificates, plan, printing, services
from plumb_server.reports.models import Letterhead, Printing, Report, ReportPlan
from plumb_server.reviews.access import TEAM, access, lead_only
from plumb_server.reviews.models import Review, Role
from plumb_server.web.pictures import media_type_of
from plumb_server.web.problems import UnprocessableContent
from plumb_server.web.requests import sent

MAY_READ = (*TEAM, Role.READER)
CERTIFICATE = {
    "multipart/form-data": {
        "type": "object",
        "properties": {
            "certificate": {"type": "string", "format": "binary", "description": "PKCS#12; it is stored nowhere"},
            "passphrase": {"type": "string"},
        },
    }
}


class ReportSerializer(serializers.ModelSerializer[Any]):
    issued_by = serializers.CharField(source="issued_by.name")

    countersigned_by = serializers.CharField(source="countersignature.by.name", default=None, allow_null=True)
    countersigned_at = serializers.DateTimeField(source="countersignature.at", default=None, allow_null=True)
    complete = serializers.BooleanField()

    class Meta:
        model = Report
        fields = [
            *("id", "number", "sha256", "input_hash", "issued_by", "issued_at", "certificate"),
            *("two_signatures", "countersigned_by", "countersigned_at", "complete"),
        ]


class PrintingSerializer(serializers.ModelSerializer[Any]):
    report = ReportSerializer(allow_null=True)

    class Meta:
        model = Printing
        fields = ["id", "status", "issues", "kind", "format", "share", "message", "remedy", "report"]


class SignSerializer(serializers.Serializer[Any]):
    """What is signed: the preview that was shown, by what its page has in `data-seen`."""

    seen = serializers.CharField(max_length=100)
    with_certificate = serializers.BooleanField(default=False)


class DraftSerializer(serializers.Serializer[Any]):
    """What is printed, and as what."""

    kind = serializers.ChoiceField(Printing.Kind.choices, default=Printing.Kind.REPORT)
    format = serializers.ChoiceField(Printing.Format.choices, default=Printing.Format.PDF)

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        if (given["kind"], given["format"]) == (Printing.Kind.LETTER, Printing.Format.XLSX):
            raise serializers.ValidationError({"format": "the letter is printed as PDF or DOCX"})
        return given


class PlanSerializer(serializers.ModelSerializer[ReportPlan]):
    """Which sections a report has, in which order, and whether it requires two signatures."""

    sections = serializers.ListField(
        child=serializers.ChoiceField(list(plan.SECTIONS.items())), max_length=len(plan.SECTIONS), allow_empty=False
    )

    class Meta:
        model = ReportPlan
        fields = ["sections", "two_signatures"]

    def validate_sections(self, sections: list[str]) -> list[str]:
        if len(set(sections)) != len(sections):
            raise serializers.ValidationError("a section is listed twice")
        return sections


class LetterheadSerializer(serializers.ModelSerializer[Letterhead]):
    """The office's letterhead; the logo as base64 of a PNG or JPEG, empty for none, absent to leave it."""

    logo = serializers.CharField(required=False, allow_blank=True, max_length=400_000, write_only=True)
    has_logo = serializers.SerializerMethodField()

    class Meta:
        model = Letterhead
        fields = ["name", "lines", "footer", "logo", "has_logo"]

    def get_has_logo(self, stored: Letterhead) -> bool:
        return bool(stored.logo)

    def validate_logo(self, text: str) -> bytes:
        try:
            data = base64.b64decode(text, validate=True)
        except ValueError:
            raise serializers.ValidationError("the logo is not base64") from None
        if data and not media_type_of(data):
            raise serializers.ValidationError("the logo is neither PNG nor JPEG")
        return data


MEDIA_TYPES = {
    Printing.Format.PDF: "application/pdf",
    Printing.Format.DOCX: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
    Printing.Format.XLSX: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}


def _file(data: bytes, name: str, kind: str = Printing.Format.PDF) -> HttpResponse:
    answer = HttpResponse(data, content_type=MEDIA_TYPES[Printing.Format(kind)])
    how = "inline" if kind == Printing.Format.PDF else "attachment"
    answer.headers["Content-Disposition"] = f'{how}; filename="{name}.{kind}"'
    return answer


class PreviewView(APIView):
    @extend_schema(operation_id="report_preview", responses={(200, "text/html"): OpenApiTypes.STR})
    def get(self, request: Request, review_id: str) -> HttpResponse:
        entry = access(user_of(request), review_id)
        # named before it is made: what changes in between is refused at the signature
        seen = printing.seen_now(entry.review)
        return HttpResponse(services.page(entry.review, seen), content_type="text/html; charset=utf-8")


class DraftView(APIView):
    @extend_schema(operation_id="report_draft", request=DraftSerializer, responses={202: PrintingSerializer})
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        # without a body it is the report as PDF
        given = DraftSerializer(data=request.data or {})
        given.is_valid(raise_exception=True)
        return _answer(printing.ask_for(entry.review, user_of(request), **given.validated_data))


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
    def get(self, request: Request, printing_id: str, ending: str) -> HttpResponse:
        found = _printing(request, printing_id)
        if found.pdf is None or ending != found.format:
            raise Http404
        return _file(bytes(found.pdf), f"{found.kind}-draft", found.format)


class SignView(APIView):
    """A report that was set for a certificate is signed with it and issued; the certificate is stored nowhere."""

    in_person = True
    parser_classes = [MultiPartParser]

    @extend_schema(operation_id="printing_sign", request=CERTIFICATE, responses=ReportSerializer)
    def post(self, request: Request, printing_id: str) -> Response:
        found = _printing(request, printing_id)
        lead_only(access(user_of(request), found.review_id), "sign and issue a report")
        printing.require_open(found.review)
        report = printing.sign(found, *_certificate(request))
        return Response(ReportSerializer(report).data)


class CountersignView(APIView):
    """The second signature of a report that requires two."""

    in_person = True
    parser_classes = [MultiPartParser]

    @extend_schema(operation_id="report_countersign", request=CERTIFICATE, responses=ReportSerializer)
    def post(self, request: Request, report_id: int) -> Response:
        report = get_object_or_404(Report.objects.select_related("review"), pk=report_id)
        access(user_of(request), report.review_id)
        # without a certificate it is a plain second signature
        certificate, passphrase = _certificate(request) if "certificate" in request.FILES else (None, "")
        require_signature(request)
        countersigned = printing.countersign(report, user_of(request), certificate, passphrase)
        return Response(ReportSerializer(countersigned).data)


def _certificate(request: Request) -> tuple[bytes, str]:
    """The certificate of a request with its passphrase; raises UnprocessableContent where there is none."""
    file = request.FILES.get("certificate")
    if file is None:
        missing = {"path": "/certificate", "message": "there is no certificate in the request", "remedy": "Choose it."}
        raise UnprocessableContent([missing])
    if (file.size or 0) > certificates.MOST_BYTES:
        words = "the file is too large for a certificate"
        raise UnprocessableContent([{"path": "/certificate", "message": words, "remedy": "Choose a PKCS#12 file."}])
    return file.read(), str(request.POST.get("passphrase", ""))[:1000]


class PlanView(APIView):
    @extend_schema(operation_id="report_plan", responses=PlanSerializer)
    def get(self, request: Request, review_id: str) -> Response:
        return Response(_plan_of(access(user_of(request), review_id).review))

    @extend_schema(operation_id="report_plan_change", request=PlanSerializer, responses=PlanSerializer)
    def put(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        given = sent(PlanSerializer, request)
        with transaction.atomic():
            review = entry.review.locked()
            stored, _ = ReportPlan.objects.get_or_create(review=review)
            if given.get("two_signatures", stored.two_signatures) != stored.two_signatures:
                lead_only(entry, "change how many signatures a report requires")
            for name, value in given.items():
                setattr(stored, name, value)
            stored.revision += 1
            stored.save()
            review.record(entry.user, "report plan changed", **given)
        return Response(_plan_of(review))


def _plan_of(review: Review) -> dict[str, Any]:
    stored = ReportPlan.objects.filter(review=review).first()
    return {"sections": plan.sections_of(review), "two_signatures": bool(stored and stored.two_signatures)}


class LetterheadView(OfficeView):
    @extend_schema(operation_id="office_letterhead", responses=LetterheadSerializer)
    def get(self, request: Request) -> Response:
        return Response(LetterheadSerializer(Letterhead.current()).data)

    @extend_schema(
        operation_id="office_letterhead_change", request=LetterheadSerializer, responses=LetterheadSerializer
    )
    def put(self, request: Request) -> Response:
        given = sent(LetterheadSerializer, request)
        with transaction.atomic():
            Letterhead.objects.get_or_create(pk=Letterhead.ONLY)
            stored = Letterhead.objects.select_for_update().get(pk=Letterhead.ONLY)
            if "logo" in given:
                logo = given.pop("logo")
                stored.logo = logo or None
                stored.logo_type = media_type_of(logo)
            for name, value in given.items():
                setattr(stored, name, value)
            stored.revision += 1
            stored.save()
        return Response(LetterheadSerializer(stored).data)


class ReportsView(APIView):
    in_person = True
    by_key = ("GET",)

    @extend_schema(operation_id="reports_list", responses=ReportSerializer(many=True))
    def get(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id, MAY_READ)
        reports = entry.review.reports.select_related("issued_by", "countersignature__by")
        reports = reports.defer("pdf", "countersignature__pdf")
        shown = [r for r in reports if entry.on_team or r.complete]
        return Response(ReportSerializer(shown, many=True).data)

    @extend_schema(operation_id="report_issue", request=SignSerializer, responses={202: PrintingSerializer})
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        lead_only(entry, "sign and issue a report")
        require_fresh(request)
        given = sent(SignSerializer, request)
        printing.require_open(entry.review)
        printing.require_seen(entry.review, given["seen"])
        require_signature(request)
        with_certificate = given["with_certificate"]
        return _answer(printing.ask_for(entry.review, user_of(request), issues=True, with_certificate=with_certificate))


class ReportFileView(APIView):
    @extend_schema(operation_id="report_file", responses={(200, "application/pdf"): OpenApiTypes.BINARY})
    def get(self, request: Request, report_id: int) -> HttpResponse:
        report = get_object_or_404(Report, pk=report_id)
        entry = access(user_of(request), report.review_id, MAY_READ)
        if not entry.on_team and not report.complete:
            raise Http404
        note(request, "downloaded", review=str(report.review_id), report=report.number)
        return _file(report.as_signed(), f"report-{report.number}")
