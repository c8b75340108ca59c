"""The API of reviews; thin: who may, what was sent, which service."""

from __future__ import annotations

import json
from typing import Any
from urllib.parse import quote

from django.db import transaction
from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from plumb_core.across import across as core_across
from plumb_core.catalogue import editions as core_editions
from plumb_core.checks.recheck import recheck as core_recheck
from plumb_core.intake.cells import UNITS
from plumb_core.intake.tables import TABLES
from plumb_core.quantities import QUANTITIES
from plumb_core.solve import solve as core_solve
from rest_framework import status
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.models import User
from plumb_server.findings.services import CLOSED, exported_findings, import_findings, visible
from plumb_server.reviews import services
from plumb_server.reviews.access import EVERYBODY, TEAM, Access, access, lead_only
from plumb_server.reviews.models import BriefRevision, ClaimTable, Exhibit, Membership, Review, Role, Submission
from plumb_server.reviews.serializers import (
    AcrossSerializer,
    AuditSerializer,
    BriefChangeSerializer,
    BriefStateSerializer,
    EditionSerializer,
    ExhibitSerializer,
    GovernSerializer,
    MemberSerializer,
    NewMemberSerializer,
    NewReviewSerializer,
    ReadTableSerializer,
    RecheckSerializer,
    ReviewChangeSerializer,
    ReviewDetailSerializer,
    ReviewSerializer,
    SubmissionSerializer,
    TableReadSerializer,
    TableSerializer,
)
from plumb_server.web.problems import Conflict, Unusable
from plumb_server.web.requests import sent

HANDS_IN = (Role.LEAD, Role.REVIEWER, Role.SUBMITTER)


def _listed(own: Access) -> Review:
    latest = own.review.submissions.first()
    return _with(
        own.review,
        role=own.role,
        edition=services.current_brief(own.review).document["edition"],
        submission=latest.label if latest else None,
        open_findings=visible(own).exclude(status__in=CLOSED).count(),
    )


def _detail(own: Access) -> dict[str, Any]:
    review = own.review
    revision = services.current_brief(review)
    data = ReviewDetailSerializer(
        _with(review, role=own.role, brief=revision.document, brief_number=revision.number,
              can_undo=revision.undo_to is not None)
    ).data  # fmt: skip
    if not own.on_team:
        # others see that the review is there and who is on it, not what is rechecked
        data |= {"brief": {"edition": revision.document["edition"]}, "can_undo": False}
        data["submissions"] = data["submissions"] if own.role == Role.SUBMITTER else []
    return data


def _with(review: Review, **extra: Any) -> Review:
    for name, value in extra.items():
        setattr(review, name, value)
    return review


class ReviewsView(APIView):
    @extend_schema(operation_id="reviews_list", responses=ReviewSerializer(many=True))
    def get(self, request: Request) -> Response:
        memberships = request.user.memberships.select_related("review").order_by("-review__created_at")
        own = [Access(m.review, request.user, Role(m.role)) for m in memberships]
        return Response(ReviewSerializer([_listed(o) for o in own], many=True).data)

    @extend_schema(operation_id="reviews_create", request=NewReviewSerializer, responses={201: ReviewDetailSerializer})
    def post(self, request: Request) -> Response:
        given = sent(NewReviewSerializer, request)
        review = services.create_review(request.user, **given)
        return Response(_detail(access(request.user, review.pk)), status=status.HTTP_201_CREATED)


class ReviewImportView(APIView):
    @extend_schema(operation_id="reviews_import", request=OpenApiTypes.OBJECT, responses={201: ReviewDetailSerializer})
    def post(self, request: Request) -> Response:
        with transaction.atomic():
            review, findings = services.import_review(request.user, request.data)
            import_findings(review, request.user, findings)
        return Response(_detail(access(request.user, review.pk)), status=status.HTTP_201_CREATED)


class ReviewView(APIView):
    @extend_schema(operation_id="review_get", responses=ReviewDetailSerializer)
    def get(self, request: Request, review_id: str) -> Response:
        return Response(_detail(access(request.user, review_id, EVERYBODY)))

    @extend_schema(operation_id="review_change", request=ReviewChangeSerializer, responses=ReviewDetailSerializer)
    def patch(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        given = ReviewChangeSerializer(own.review, data=request.data, partial=True)
        given.is_valid(raise_exception=True)
        if "status" in given.validated_data:
            lead_only(own, "close or open a review")
        given.save()
        services.record(own.review, request.user, "review changed", **given.validated_data)
        return Response(_detail(own))


class TeamView(APIView):
    @extend_schema(operation_id="team_add", request=NewMemberSerializer, responses={201: MemberSerializer})
    def post(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        lead_only(own, "add members")
        given = sent(NewMemberSerializer, request)
        user = User.objects.filter(username=given["email"].strip().lower()).first()
        if user is None:
            raise Unusable([{"path": "/email", "message": f"nobody signs in with {given['email']}",
                             "remedy": "Check the address, or have an account made first."}])  # fmt: skip
        if own.review.team.filter(user=user).exists():
            raise Conflict(f"{user.name} is a member already", "Nothing needs to be done.", "/email")
        member = Membership.objects.create(review=own.review, user=user, role=given["role"])
        services.record(own.review, request.user, "member added", member=user.username, role=given["role"])
        return Response(MemberSerializer(member).data, status=status.HTTP_201_CREATED)


def chosen_submission(own: Access, number: int | None) -> Submission | None:
    """The submission of a number, or the latest."""
    if number is None:
        return services.latest_submission(own.review)
    return get_object_or_404(own.review.submissions, number=number)


SUBMISSION = OpenApiParameter("submission", int, description="number of the submission; the latest by default")


def _asked_submission(request: Request) -> int | None:
    text = request.query_params.get("submission", "")
    return int(text) if text.isdigit() else None


def _brief_state(own: Access, revision: BriefRevision, submission: int | None) -> dict[str, Any]:
    result = services.run_recheck(own.review, chosen_submission(own, submission), revision)
    return {"brief": revision.document, "brief_number": revision.number, "can_undo": revision.undo_to is not None,
            "recheck": result.result}  # fmt: skip


class BriefView(APIView):
    @extend_schema(
        operation_id="brief_change",
        parameters=[SUBMISSION],
        request=BriefChangeSerializer,
        responses=BriefStateSerializer,
    )
    def put(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        given = sent(BriefChangeSerializer, request)
        # one transaction for the brief and its recheck: the disk is waited for once
        with transaction.atomic():
            revision = services.save_brief(own.review, request.user, given["brief"], given["based_on"])
            state = _brief_state(own, revision, _asked_submission(request))
        return Response(state)


class BriefGovernView(APIView):
    @extend_schema(
        operation_id="brief_govern", parameters=[SUBMISSION], request=GovernSerializer, responses=BriefStateSerializer
    )
    def post(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        given = sent(GovernSerializer, request)
        with transaction.atomic():
            revision = services.govern(own.review, request.user, given["edition"], given["based_on"])
            state = _brief_state(own, revision, _asked_submission(request))
        return Response(state)


class BriefUndoView(APIView):
    @extend_schema(operation_id="brief_undo", parameters=[SUBMISSION], request=None, responses=BriefStateSerializer)
    def post(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        revision = services.undo_brief(own.review, request.user)
        return Response(_brief_state(own, revision, _asked_submission(request)))


class RecheckView(APIView):
    @extend_schema(operation_id="recheck_get", parameters=[SUBMISSION], responses=RecheckSerializer)
    def get(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        return Response(services.run_recheck(own.review, chosen_submission(own, _asked_submission(request))).result)


def _own_submission(request: Request, submission_id: int, roles: tuple[Role, ...] = TEAM) -> Submission:
    submission = get_object_or_404(Submission.objects.select_related("review"), pk=submission_id)
    access(request.user, submission.review_id, roles)
    return submission


class SubmissionAcceptView(APIView):
    @extend_schema(operation_id="submission_accept", request=None, responses=SubmissionSerializer)
    def post(self, request: Request, submission_id: int) -> Response:
        submission = _own_submission(request, submission_id)
        return Response(SubmissionSerializer(services.accept_submission(submission, request.user)).data)


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
        own = access(request.user, review_id, HANDS_IN)
        file = request.FILES.get("file")
        if file is None:
            raise Unusable(
                [{"path": "/file", "message": "there is no file in the request", "remedy": "Choose a file."}]
            )
        data = file.read()
        if not file.name.lower().endswith(".pdf"):
            # what is to be read as tables is refused at once if it can't be; a PDF is kept as evidence
            services.sheets_from(data, file.name)
        with transaction.atomic():
            submission = services.open_submission(own.review, request.user)
            exhibit = services.add_exhibit(submission, request.user, name=file.name, data=data)
        return Response(ExhibitSerializer(exhibit).data, status=status.HTTP_201_CREATED)


class ExhibitFileView(APIView):
    @extend_schema(operation_id="exhibit_file", responses={(200, "application/octet-stream"): OpenApiTypes.BINARY})
    def get(self, request: Request, exhibit_id: int) -> HttpResponse:
        exhibit = get_object_or_404(Exhibit.objects.select_related("submission"), pk=exhibit_id)
        access(request.user, exhibit.submission.review_id, HANDS_IN)
        answer = HttpResponse(bytes(exhibit.data), content_type="application/octet-stream")
        answer.headers["Content-Disposition"] = f"attachment; filename*=UTF-8''{_quoted(exhibit.name)}"
        return answer


def _quoted(name: str) -> str:
    return quote(name, safe="")


SHOWN_ROWS = 400


class _TableView(APIView):
    """What reading and accepting a table share."""

    def table(self, request: Request, own: Access) -> tuple[dict[str, Any], str, list[Any], int]:
        """(what was sent, file name, sheets, index of the chosen sheet)."""
        given = sent(ReadTableSerializer, request)
        if given.get("exhibit") is not None:
            exhibit = get_object_or_404(Exhibit, pk=given["exhibit"], submission__review=own.review)
            name, sheets = exhibit.name, services.sheets_of(exhibit)
        else:
            name = given.get("name") or "pasted table"
            sheets = services.sheets_from(given.get("text", ""), name)
        names = [s.name for s in sheets]
        chosen = given.get("sheet") or names[0]
        if chosen not in names:
            raise Unusable([{"path": "/sheet", "message": f"there is no sheet {chosen!r}",
                             "remedy": f"Use one of: {', '.join(names)}."}])  # fmt: skip
        return given, name, sheets, names.index(chosen)


class TableReadView(_TableView):
    @extend_schema(operation_id="table_read", request=ReadTableSerializer, responses=TableReadSerializer)
    def post(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        given, name, sheets, index = self.table(request, own)
        sheet = sheets[index]
        read = services.read_sheet(own.review, sheet, name, given.get("kind", ""), given.get("mapping"))
        columns = [
            {"name": c.name, "title": c.title, "required": c.required,
             "units": list(UNITS[QUANTITIES[c.quantity].unit]) if c.quantity else []}
            for c in TABLES[read.kind]
        ]  # fmt: skip
        return Response(
            TableReadSerializer({
                "kind": read.kind, "kinds": list(TABLES), "sheet": sheet.name, "sheets": [s.name for s in sheets],
                "columns": columns, "rows": [[c.text for c in row] for row in sheet.rows[:SHOWN_ROWS]],
                "row_count": len(sheet.rows), "mapping": vars(read.mapping), "problems": read.problems,
                "skipped": read.skipped, "claims": len(read.claims),
            }).data
        )  # fmt: skip


class TableAcceptView(_TableView):
    @extend_schema(operation_id="table_accept", request=ReadTableSerializer, responses={201: TableSerializer})
    def post(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        given, name, sheets, index = self.table(request, own)
        with transaction.atomic():
            if given.get("exhibit") is not None:
                exhibit = get_object_or_404(Exhibit, pk=given["exhibit"], submission__review=own.review)
            else:
                submission = services.open_submission(own.review, request.user)
                exhibit = services.add_exhibit(
                    submission, request.user, name=name, data=given["text"].encode(), pasted=True
                )
            table = services.accept_table(
                exhibit, request.user, sheets[index], given.get("kind", ""), given.get("mapping")
            )
        return Response(TableSerializer(table).data, status=status.HTTP_201_CREATED)


class TableView(APIView):
    @extend_schema(operation_id="table_remove", responses={204: None})
    def delete(self, request: Request, table_id: int) -> Response:
        table = get_object_or_404(
            ClaimTable.objects.select_related("exhibit__submission__review").defer("exhibit__data"), pk=table_id
        )
        access(request.user, table.exhibit.submission.review_id)
        services.remove_table(table, request.user)
        return Response(status=status.HTTP_204_NO_CONTENT)


class ExportView(APIView):
    @extend_schema(operation_id="review_export", parameters=[SUBMISSION], responses=OpenApiTypes.OBJECT)
    def get(self, request: Request, review_id: str) -> HttpResponse:
        own = access(request.user, review_id)
        document = services.export_review(own.review, chosen_submission(own, _asked_submission(request)),
                                          exported_findings(own.review))  # fmt: skip
        answer = HttpResponse(json.dumps(document, ensure_ascii=False, indent=1), content_type="application/json")
        name = _quoted(f"{own.review.title}.plumb.json")
        answer.headers["Content-Disposition"] = f"attachment; filename*=UTF-8''{name}"
        return answer


class AuditView(APIView):
    @extend_schema(operation_id="audit_list", responses=AuditSerializer(many=True))
    def get(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        return Response(AuditSerializer(own.review.audit.select_related("actor")[:500], many=True).data)


class EditionsView(APIView):
    @extend_schema(operation_id="editions_list", responses=EditionSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(core_editions())


class AcrossView(APIView):
    """The review's brief under all its editions."""

    @extend_schema(operation_id="across_get", responses=AcrossSerializer)
    def get(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        return Response(core_across(services.read_brief(own.review)))


class SolveView(APIView):
    """The headless contract: one request document, one result."""

    @extend_schema(operation_id="solve", request=OpenApiTypes.OBJECT, responses=OpenApiTypes.OBJECT)
    def post(self, request: Request) -> Response:
        return Response(core_solve(request.data))


class HeadlessRecheckView(APIView):
    """The headless contract: one recheck document, its checks and origins."""

    @extend_schema(operation_id="recheck", request=OpenApiTypes.OBJECT, responses=RecheckSerializer)
    def post(self, request: Request) -> Response:
        return Response(core_recheck(request.data))
