"""The API of submissions; thin: who may, what was sent, which service."""

from __future__ import annotations

import io
import re
from dataclasses import replace
from typing import Any
from urllib.parse import quote

from django.db import transaction
from django.http import FileResponse, Http404
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from plumb_core.intake.pictures import as_page, is_picture
from plumb_core.intake.tables import table_kinds
from rest_framework import status
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.records import note
from plumb_server.accounts.requests import user_of
from plumb_server.reviews.access import TEAM, Access, access
from plumb_server.reviews.models import Role
from plumb_server.submissions import contents, quotas, readings, services
from plumb_server.submissions.models import Case, ClaimTable, Exhibit, Submission
from plumb_server.submissions.profiles import proposal_for
from plumb_server.submissions.serializers import (
    AllAcceptedSerializer,
    CaseSerializer,
    ExhibitSerializer,
    PageSerializer,
    ReadTableSerializer,
    SubmissionSerializer,
    TableReadSerializer,
    TableSerializer,
    column_json,
)
from plumb_server.web.problems import UnprocessableContent
from plumb_server.web.requests import IF_MATCH, based_on, number_parameter, sent

SUBMITTING_ROLES = (Role.LEAD, Role.REVIEWER, Role.SUBMITTER)
SUBMISSION = OpenApiParameter("submission", int, description="number of the submission; the latest by default")
SHOWN_ROWS = 400
UTF_16 = (b"\xff\xfe", b"\xfe\xff")
"""How text in UTF-16 begins."""
PIN = re.compile(r"page (\d{1,4}), pin \d{1,5} \d{1,5}")
"""Label of a place on a page: from the left and from the top, pt."""


def chosen_submission(entry: Access, number: int | None) -> Submission | None:
    """The submission of a number, or the latest."""
    if number is None:
        return entry.review.submissions.latest_with_values()
    return get_object_or_404(entry.review.submissions, number=number)


def asked_submission(request: Request) -> int | None:
    """The number of the submission that a request requires."""
    return number_parameter(request, "submission")


class SubmissionAcceptView(APIView):
    @extend_schema(operation_id="submission_accept", request=None, responses=SubmissionSerializer)
    def post(self, request: Request, submission_id: int) -> Response:
        submission = get_object_or_404(Submission.objects.select_related("review"), pk=submission_id)
        access(user_of(request), submission.review_id, TEAM)
        return Response(SubmissionSerializer(services.accept_submission(submission, user_of(request))).data)


class SubmissionTablesView(APIView):
    @extend_schema(operation_id="submission_accept_all", request=None, responses=AllAcceptedSerializer(many=True))
    def post(self, request: Request, submission_id: int) -> Response:
        submission = get_object_or_404(Submission.objects.select_related("review"), pk=submission_id)
        access(user_of(request), submission.review_id, TEAM)
        return Response(AllAcceptedSerializer(services.accept_all_of(submission, user_of(request)), many=True).data)


class CaseView(APIView):
    @extend_schema(operation_id="case_change", request=CaseSerializer, responses=CaseSerializer, parameters=[IF_MATCH])
    def patch(self, request: Request, case_id: int) -> Response:
        case = get_object_or_404(Case.objects.select_related("submission__review"), pk=case_id)
        access(user_of(request), case.submission.review_id, TEAM)
        given = CaseSerializer(case, data=request.data, partial=True)
        given.is_valid(raise_exception=True)
        changed = services.change_case(case, user_of(request), dict(given.validated_data), based_on(request))
        return Response(CaseSerializer(changed).data)


class ExhibitsView(APIView):
    parser_classes = [MultiPartParser]

    @extend_schema(
        operation_id="exhibit_add",
        request={
            "multipart/form-data": {"type": "object", "properties": {"file": {"type": "string", "format": "binary"}}}
        },
        responses={201: ExhibitSerializer},
    )
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id, SUBMITTING_ROLES)
        quotas.require_turn(user_of(request))
        file = request.FILES.get("file")
        if file is None:
            missing = {"path": "/file", "message": "there is no file in the request", "remedy": "Choose a file."}
            raise UnprocessableContent([missing])
        data = file.read()
        known = data[:4] in (b"PK\x03\x04", b"%PDF") or data[:2] in UTF_16 or is_picture(data)
        if b"\x00" in data[:4000] and not known:
            words = f"{file.name} is neither text nor a workbook nor a PDF nor a picture"
            raise UnprocessableContent(
                [{"path": "/file", "message": words, "remedy": "Upload CSV, text, XLSX, PDF, PNG or JPEG."}]
            )
        with transaction.atomic():
            submission = services.open_submission(entry.review, user_of(request))
            exhibit = services.add_exhibit(submission, user_of(request), name=file.name, data=data)
            readings.begin(exhibit)
        return Response(ExhibitSerializer(exhibit).data, status=status.HTTP_201_CREATED)


def _exhibit(request: Request, exhibit_id: int, roles: tuple[Role, ...] = TEAM) -> Exhibit:
    exhibit = get_object_or_404(Exhibit.objects.select_related("submission__review"), pk=exhibit_id)
    access(user_of(request), exhibit.submission.review_id, roles)
    return exhibit


def _file(request: Request, exhibit_id: int) -> Exhibit:
    """An exhibit whose bytes are sent, which is recorded."""
    exhibit = _exhibit(request, exhibit_id, SUBMITTING_ROLES)
    note(request, "downloaded", review=str(exhibit.submission.review_id), exhibit=exhibit.name)
    return exhibit


class ExhibitFileView(APIView):
    @extend_schema(operation_id="exhibit_file", responses={(200, "application/octet-stream"): OpenApiTypes.BINARY})
    def get(self, request: Request, exhibit_id: int) -> FileResponse:
        exhibit = _file(request, exhibit_id)
        answer = FileResponse(contents.opened(exhibit.sha256), content_type="application/octet-stream")
        answer.headers["Content-Disposition"] = f"attachment; filename*=UTF-8''{quote(exhibit.name, safe='')}"
        return answer


class ExhibitDrawnView(APIView):
    @extend_schema(operation_id="exhibit_drawn", responses={(200, "application/octet-stream"): OpenApiTypes.BINARY})
    def get(self, request: Request, exhibit_id: int) -> FileResponse:
        """The pages of an exhibit as a PDF; a picture is a page.

        They are drawn by the application itself, never by the browser as a page of its own.
        """
        exhibit = _file(request, exhibit_id)
        with contents.opened(exhibit.sha256) as file:
            begins = file.read(16)
        if begins.startswith(b"%PDF-"):
            drawn = contents.opened(exhibit.sha256)
        elif is_picture(begins) and exhibit.reading.pages:
            drawn = io.BytesIO(as_page(contents.contents(exhibit.sha256)))
        else:
            raise Http404
        return FileResponse(drawn, as_attachment=True, filename="pages", content_type="application/octet-stream")


class ExhibitView(APIView):
    @extend_schema(operation_id="exhibit", responses=ExhibitSerializer)
    def get(self, request: Request, exhibit_id: int) -> Response:
        exhibit = _exhibit(request, exhibit_id, SUBMITTING_ROLES)
        readings.read_by_this_engine(exhibit)
        return Response(ExhibitSerializer(exhibit).data)

    @extend_schema(operation_id="exhibit_remove", responses={204: None})
    def delete(self, request: Request, exhibit_id: int) -> Response:
        services.remove_exhibit(_exhibit(request, exhibit_id), user_of(request))
        return Response(status=status.HTTP_204_NO_CONTENT)


class ExhibitReadView(APIView):
    @extend_schema(operation_id="exhibit_read", request=None, responses=ExhibitSerializer)
    def post(self, request: Request, exhibit_id: int) -> Response:
        exhibit = _exhibit(request, exhibit_id)
        readings.begin(exhibit)
        return Response(ExhibitSerializer(_exhibit(request, exhibit_id)).data)

    @extend_schema(operation_id="exhibit_read_stop", responses=ExhibitSerializer)
    def delete(self, request: Request, exhibit_id: int) -> Response:
        readings.stop(_exhibit(request, exhibit_id))
        return Response(ExhibitSerializer(_exhibit(request, exhibit_id)).data)


class ExhibitPageView(APIView):
    @extend_schema(operation_id="exhibit_page", responses=PageSerializer)
    def get(self, request: Request, exhibit_id: int, page: int) -> Response:
        exhibit = _exhibit(request, exhibit_id)
        pages = readings.read_document(exhibit)["pages"]
        found = next((p for p in pages if p["number"] == page), None)
        if found is None:
            raise Http404
        regions = exhibit.reading.regions
        entry = [t for label, t in regions.items() if label.startswith(f"page {page},")]
        accepted = exhibit.tables.filter(sheet__startswith=f"page {page},")
        reported = [{"sheet": t.sheet, "kind": t.kind, "claims": t.count} for t in accepted]
        return Response(PageSerializer(found | {"tables": found["tables"] + entry, "accepted": reported}).data)


class _TableView(APIView):
    """What reading and accepting a table share."""

    def table(self, request: Request, entry: Access) -> tuple[dict[str, Any], str, list[Any], int]:
        """(what was sent, file name, sheets, index of the chosen sheet)."""
        given = sent(ReadTableSerializer, request)
        if given.get("exhibit") is not None:
            exhibit = get_object_or_404(Exhibit, pk=given["exhibit"], submission__review=entry.review)
            label = given.get("sheet", "")
            if given.get("text") and (pinned := PIN.fullmatch(label)):
                # values that the page shows and nobody could read: typed, with a pin at their place
                sheets = [
                    replace(s, name=label, part=None, page=int(pinned.group(1)))
                    for s in services.sheets_from(given["text"], label)
                ][:1]
                name = exhibit.name
            else:
                name, sheets = exhibit.name, services.sheets_of(exhibit, label)
        else:
            name = given.get("name") or "pasted table"
            sheets = services.sheets_from(given.get("text", ""), name)
        names = [s.label for s in sheets]
        if not names:
            words = f"no tables were found in {name}"
            remedy = "Drag over a table on its page, or paste the tables."
            raise UnprocessableContent([{"path": "/sheet", "message": words, "remedy": remedy}])
        chosen = given.get("sheet") or names[0]
        if chosen not in names:
            remedy = f"Use one of: {', '.join(names)}."
            raise UnprocessableContent(
                [{"path": "/sheet", "message": f"there is no sheet {chosen!r}", "remedy": remedy}]
            )
        return given, name, sheets, names.index(chosen)


class TableReadView(_TableView):
    @extend_schema(operation_id="table_read", request=ReadTableSerializer, responses=TableReadSerializer)
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        given, name, sheets, index = self.table(request, entry)
        sheet = sheets[index]
        read = services.read_sheet(entry.review, sheet, name, given.get("kind", ""), given.get("reading"))
        asks = any(p.leaves_open for p in read.problems) and not given.get("reading")
        reported = {
            "kind": read.kind,
            "profile": proposal_for(user_of(request), sheet, given.get("kind", "")) if asks else None,
            "sheet": sheet.label,
            "sheets": [s.label for s in sheets],
            "columns": [column_json(c) for c in table_kinds()[read.kind].columns],
            "rows": [[c.text for c in row] for row in sheet.rows[:SHOWN_ROWS]],
            "row_count": len(sheet.rows),
            "reading": vars(read.reading),
            "problems": read.problems,
            "skipped": read.skipped,
            "looks_like": sheet.kind,
            "why": read.why,
            "unsure": sorted(read.unsure),
            "unused": [{"column": c, "heading": h} for c, h in read.unused.items()],
            "beside": [{"row": r, "column": c, "text": t} for r, c, t in read.beside if r < SHOWN_ROWS],
            "scanned": [
                {"row": r, "column": c, "confidence": cell.confidence}
                for r, row in enumerate(sheet.rows[:SHOWN_ROWS])
                for c, cell in enumerate(row)
                if cell.confidence is not None and cell.text
            ],
            "page": sheet.page,
            "shift": list(sheet.shift),
            "claims": len(read.claims),
            "cases": len(read.cases),
        }
        return Response(TableReadSerializer(reported).data)


class TableAcceptView(_TableView):
    @extend_schema(operation_id="table_accept", request=ReadTableSerializer, responses={201: TableSerializer})
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        given, name, sheets, index = self.table(request, entry)
        how = sheets[index], given.get("kind", ""), given.get("reading")
        partly = given.get("partly", False)
        if given.get("exhibit") is None:
            table = services.accept_pasted(entry.review, user_of(request), name, given["text"], *how, partly=partly)
        else:
            exhibit = get_object_or_404(Exhibit, pk=given["exhibit"], submission__review=entry.review)
            replaces = None
            if given.get("replaces") is not None:
                replaces = get_object_or_404(exhibit.tables, pk=given["replaces"])
            table = services.accept_table(exhibit, user_of(request), *how, replaces, partly=partly)
        return Response(TableSerializer(table).data, status=status.HTTP_201_CREATED)


class ExhibitTablesView(APIView):
    @extend_schema(operation_id="exhibit_accept_all", request=None, responses=AllAcceptedSerializer(many=True))
    def post(self, request: Request, exhibit_id: int) -> Response:
        rows = services.accept_all(_exhibit(request, exhibit_id), user_of(request))
        return Response(AllAcceptedSerializer(rows, many=True).data)


class TableView(APIView):
    @extend_schema(operation_id="table_remove", responses={204: None})
    def delete(self, request: Request, table_id: int) -> Response:
        tables = ClaimTable.objects.select_related("exhibit__submission__review")
        table = get_object_or_404(tables, pk=table_id)
        access(user_of(request), table.exhibit.submission.review_id)
        services.remove_table(table, user_of(request))
        return Response(status=status.HTTP_204_NO_CONTENT)
