"""The API of reviews; thin: who may, what was sent, which service."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.models import User
from plumb_server.reviews import services
from plumb_server.reviews.access import EVERYBODY, Access, access, lead_only
from plumb_server.reviews.models import Review, Role
from plumb_server.reviews.serializers import (
    AuditSerializer,
    MemberSerializer,
    NewMemberSerializer,
    NewReviewSerializer,
    ReviewChangeSerializer,
    ReviewDetailSerializer,
    ReviewSerializer,
)
from plumb_server.web.problems import Unusable
from plumb_server.web.requests import sent

AUDIT_ENTRIES = 500


def _listed(own: Access) -> Review:
    latest = own.review.submissions.first()
    return _with(
        own.review,
        role=own.role,
        edition=own.review.current_brief().document["edition"],
        submission=latest.label if latest else None,
        open_findings=own.review.findings.visible_to(own).unsettled().count(),
    )


def review_told(own: Access) -> dict[str, Any]:
    """A review with all that its screens start from, as a member sees it."""
    revision = own.review.current_brief()
    shown = _with(
        own.review,
        role=own.role,
        brief=revision.document,
        brief_number=revision.number,
        can_undo=revision.undo_to is not None,
    )
    data = ReviewDetailSerializer(shown).data
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
        return Response(review_told(access(request.user, review.pk)), status=status.HTTP_201_CREATED)


class ReviewView(APIView):
    @extend_schema(operation_id="review_get", responses=ReviewDetailSerializer)
    def get(self, request: Request, review_id: str) -> Response:
        return Response(review_told(access(request.user, review_id, EVERYBODY)))

    @extend_schema(operation_id="review_change", request=ReviewChangeSerializer, responses=ReviewDetailSerializer)
    def patch(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        given = ReviewChangeSerializer(own.review, data=request.data, partial=True)
        given.is_valid(raise_exception=True)
        if "status" in given.validated_data:
            lead_only(own, "close or open a review")
        services.change_review(own.review, request.user, dict(given.validated_data))
        return Response(review_told(access(request.user, review_id)))


class TeamView(APIView):
    @extend_schema(operation_id="team_add", request=NewMemberSerializer, responses={201: MemberSerializer})
    def post(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        lead_only(own, "add members")
        given = sent(NewMemberSerializer, request)
        user = User.objects.filter(username=given["email"].strip().lower()).first()
        if user is None:
            said = f"nobody signs in with {given['email']}"
            remedy = "Check the address, or have an account made first."
            raise Unusable([{"path": "/email", "message": said, "remedy": remedy}])
        member = services.add_member(own.review, request.user, user, given["role"])
        return Response(MemberSerializer(member).data, status=status.HTTP_201_CREATED)


class AuditView(APIView):
    @extend_schema(operation_id="audit_list", responses=AuditSerializer(many=True))
    def get(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        return Response(AuditSerializer(own.review.audit.select_related("actor")[:AUDIT_ENTRIES], many=True).data)
