"""The API of reviews; thin: who may, what was sent, which service."""

from __future__ import annotations

import csv
import io
from typing import Any

from django.db.models import Case, Count, OuterRef, Prefetch, Q, QuerySet, Subquery, When, prefetch_related_objects
from django.db.models.functions import Coalesce
from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.requests import user_of
from plumb_server.reviews import services
from plumb_server.reviews.access import EVERYBODY, TEAM, Access, access, lead_only
from plumb_server.reviews.models import AuditEntry, BriefRevision, Membership, Review, Role
from plumb_server.reviews.serializers import (
    AddedSerializer,
    AuditSerializer,
    MemberSerializer,
    NewMemberSerializer,
    NewReviewSerializer,
    ReviewChangeSerializer,
    ReviewDetailSerializer,
    ReviewSerializer,
    RoleSerializer,
)
from plumb_server.web.requests import IF_MATCH, based_on, date_parameter, number_parameter, sent

AUDIT_ENTRIES = 500


def listed(user: Any, words: str) -> QuerySet[Review]:
    """The reviews of a person with what the list describes them, the newest first; one query for any number."""
    latest_brief = BriefRevision.objects.filter(review=OuterRef("pk")).order_by("-number")
    submissions: Any = Review.submissions.rel.related_model
    latest_submission = submissions.objects.filter(review=OuterRef("pk")).order_by("-number")
    entry = Membership.objects.filter(review=OuterRef("pk"), user=user)
    # the findings are an app that is built on this one
    findings: Any = Review.findings.rel.related_model
    unsettled = Q(review=OuterRef("pk")) & ~Q(status__in=findings.CLOSED)
    seen = unsettled & Q(status__in=findings.VISIBLE_OUTSIDE)
    counted = {
        name: Coalesce(
            Subquery(findings.objects.filter(which).order_by().values("review").annotate(n=Count("pk")).values("n")), 0
        )
        for name, which in (("unsettled", unsettled), ("seen", seen))
    }
    reviews = Review.objects.filter(team__user=user).annotate(
        role=Subquery(entry.values("role")[:1]),
        edition=Subquery(latest_brief.values("document__edition")[:1]),
        submission_number=Subquery(latest_submission.values("number")[:1]),
        open_findings=Case(When(role__in=TEAM, then=counted["unsettled"]), default=counted["seen"]),
    )
    if words:
        reviews = reviews.filter(Q(title__icontains=words) | Q(place__icontains=words) | Q(client__icontains=words))
    # open reviews first
    return reviews.order_by("-status", "-created_at", "pk")


def review_json(entry: Access) -> dict[str, Any]:
    """A review with all that its screens start from, as a member sees it."""
    revision = entry.review.current_brief()
    prefetch_related_objects([entry.review], Prefetch("team", Membership.objects.select_related("user")))
    shown = _with(
        entry.review,
        role=entry.role,
        brief=revision.document,
        brief_number=revision.number,
        invited=entry.review.places.filter(invitation__accepted_at=None).select_related("invitation")
        if entry.role == Role.LEAD
        else [],
        can_undo=revision.undo_to is not None,
    )
    data = ReviewDetailSerializer(shown).data
    if not entry.on_team:
        # others see that the review is there and who is on it, not what is rechecked
        data |= {"brief": {"edition": revision.document["edition"]}, "can_undo": False}
        data["submissions"] = data["submissions"] if entry.role == Role.SUBMITTER else []
    return data


def _with(review: Review, **extra: Any) -> Review:
    for name, value in extra.items():
        setattr(review, name, value)
    return review


LISTED = 100
"""Reviews on a page of the list, unless fewer are requested."""


class ReviewsView(APIView):
    @extend_schema(
        operation_id="reviews_list",
        responses=ReviewSerializer(many=True),
        parameters=[
            OpenApiParameter("limit", int, description=f"most reviews of the answer, at most {LISTED}"),
            OpenApiParameter(
                "offset", int, description="reviews that are passed over; the header X-Total has their number"
            ),
            OpenApiParameter("words", str, description="in title, place or client"),
        ],
    )
    def get(self, request: Request) -> Response:
        reviews = listed(user_of(request), request.query_params.get("words", "")[:120].replace("\0", ""))
        offset, limit = number_parameter(request, "offset") or 0, number_parameter(request, "limit") or LISTED
        shown = reviews[offset : offset + min(limit, LISTED)]
        answer = Response(ReviewSerializer(shown, many=True).data)
        answer.headers["X-Total"] = str(
            user_of(request).memberships.count() if not request.query_params.get("words") else reviews.count()
        )
        return answer

    @extend_schema(operation_id="reviews_create", request=NewReviewSerializer, responses={201: ReviewDetailSerializer})
    def post(self, request: Request) -> Response:
        given = sent(NewReviewSerializer, request)
        review = services.create_review(user_of(request), **given)
        return Response(review_json(access(user_of(request), review.pk)), status=status.HTTP_201_CREATED)


class ReviewView(APIView):
    @extend_schema(operation_id="review_get", responses=ReviewDetailSerializer)
    def get(self, request: Request, review_id: str) -> Response:
        return Response(review_json(access(user_of(request), review_id, EVERYBODY)))

    @extend_schema(
        operation_id="review_change",
        request=ReviewChangeSerializer,
        responses=ReviewDetailSerializer,
        parameters=[IF_MATCH],
    )
    def patch(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        given = ReviewChangeSerializer(entry.review, data=request.data, partial=True)
        given.is_valid(raise_exception=True)
        if "status" in given.validated_data:
            lead_only(entry, "close or open a review")
        services.change_review(entry.review, user_of(request), dict(given.validated_data), based_on(request))
        return Response(review_json(access(user_of(request), review_id)))


class TeamView(APIView):
    in_person = True

    @extend_schema(operation_id="team_add", request=NewMemberSerializer, responses={201: AddedSerializer})
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        lead_only(entry, "add members")
        given = sent(NewMemberSerializer, request)
        added = services.add_member(entry.review, user_of(request), given["email"], given["role"], request._request)
        key = "member" if isinstance(added, Membership) else "invited"
        return Response(
            AddedSerializer({"member": None, "invited": None, key: added}).data, status=status.HTTP_201_CREATED
        )


def _led(request: Request, review_id: str) -> Access:
    entry = access(user_of(request), review_id)
    lead_only(entry, "change the team")
    return entry


class MemberView(APIView):
    in_person = True

    @extend_schema(operation_id="team_change", request=RoleSerializer, responses=MemberSerializer)
    def patch(self, request: Request, review_id: str, user_id: int) -> Response:
        entry = _led(request, review_id)
        changed = services.change_role(entry.review, user_of(request), user_id, sent(RoleSerializer, request)["role"])
        return Response(MemberSerializer(changed).data)

    @extend_schema(operation_id="team_remove", responses={204: None})
    def delete(self, request: Request, review_id: str, user_id: int) -> Response:
        services.remove_member(_led(request, review_id).review, user_of(request), user_id)
        return Response(status=status.HTTP_204_NO_CONTENT)


class LeadView(APIView):
    in_person = True

    @extend_schema(operation_id="team_hand_over", request=None, responses=MemberSerializer)
    def post(self, request: Request, review_id: str, user_id: int) -> Response:
        handed = services.hand_over(_led(request, review_id).review, user_of(request), user_id)
        return Response(MemberSerializer(handed).data)


class PlaceView(APIView):
    in_person = True

    @extend_schema(operation_id="team_withdraw_invitation", responses={204: None})
    def delete(self, request: Request, review_id: str, place_id: int) -> Response:
        services.withdraw_place(_led(request, review_id).review, user_of(request), place_id)
        return Response(status=status.HTTP_204_NO_CONTENT)


AUDIT_FILTERS = [
    OpenApiParameter("actor", str, description="part of the name of who did it"),
    OpenApiParameter("action", str, description="part of what was done"),
    OpenApiParameter("since", OpenApiTypes.DATE, description="first day, by UTC"),
    OpenApiParameter("until", OpenApiTypes.DATE, description="last day, by UTC"),
]


def _audit(request: Request, review: Review) -> QuerySet[AuditEntry]:
    """The entries of a review that pass the filters of a request, the newest first."""
    entries = review.audit.select_related("actor")
    for name, column in (("actor", "actor__name__icontains"), ("action", "action__icontains")):
        if words := request.query_params.get(name, "")[:120].replace("\0", ""):
            entries = entries.filter(**{column: words})
    for name, column in (("since", "at__date__gte"), ("until", "at__date__lte")):
        if text := request.query_params.get(name):
            entries = entries.filter(**{column: date_parameter(name, text)})
    return entries


class AuditView(APIView):
    @extend_schema(
        operation_id="audit_list",
        parameters=[
            *AUDIT_FILTERS,
            OpenApiParameter("before", int, description="entries before that of this id, for the next page"),
        ],
        responses=AuditSerializer(many=True),
    )
    def get(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        entries = _audit(request, entry.review)
        if before := number_parameter(request, "before"):
            entries = entries.filter(pk__lt=before)
        return Response(AuditSerializer(entries[:AUDIT_ENTRIES], many=True).data)


class AuditFileView(APIView):
    @extend_schema(
        operation_id="audit_file", parameters=AUDIT_FILTERS, responses={(200, "text/csv"): OpenApiTypes.BINARY}
    )
    def get(self, request: Request, review_id: str) -> HttpResponse:
        """The audit trail as CSV."""
        entry = access(user_of(request), review_id)
        text = io.StringIO()
        rows = csv.writer(text)
        rows.writerow(("when (UTC)", "who", "what", "detail"))
        for each in _audit(request, entry.review).iterator():
            detail = ", ".join(f"{name} {value}" for name, value in each.detail.items())
            parts = (f"{each.at:%Y-%m-%d %H:%M:%S}", each.actor.name, each.action, detail)
            rows.writerow([_cell(part) for part in parts])
        answer = HttpResponse(text.getvalue(), content_type="text/csv; charset=utf-8")
        answer.headers["Content-Disposition"] = 'attachment; filename="audit.csv"'
        return answer


def _cell(text: str) -> str:
    """A text that a spreadsheet does not take for a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text
