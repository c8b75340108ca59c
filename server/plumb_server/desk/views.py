"""The API of the desk: a person's reviews, what they are told, and their calendar."""

from __future__ import annotations

import secrets
from typing import Any

from django.http import Http404, HttpResponse
from django.utils import timezone
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import serializers
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.models import digest_of
from plumb_server.accounts.requests import user_of
from plumb_server.desk.calendars import feed
from plumb_server.desk.models import NoticeChoice, Visit
from plumb_server.desk.rows import rows
from plumb_server.reviews.access import EVERYBODY, access
from plumb_server.reviews.models import Role
from plumb_server.web.requests import sent


class PlumbMarkSerializer(serializers.Serializer[Any]):
    """An origin, or a value beyond a limit, on the small line of a review."""

    stage = serializers.CharField()
    verdict = serializers.CharField()
    multiples = serializers.FloatField(allow_null=True)


class DeskRowSerializer(serializers.Serializer[Any]):
    """A review on the desk.

    next : who acts next: you, the team, the submitter, or nobody.  days : how long it waits for that.
    findings : open ones by severity.  plumb : of the latest recheck; null where there is none.
    news : what others did since the last visit.
    """

    id = serializers.UUIDField()
    title = serializers.CharField()
    place = serializers.CharField()
    client = serializers.CharField()
    status = serializers.CharField()
    role = serializers.ChoiceField(Role.choices)
    edition = serializers.CharField()
    submission = serializers.CharField(allow_null=True)
    created_at = serializers.DateTimeField()
    next = serializers.ChoiceField(["you", "team", "submitter", ""])
    days = serializers.IntegerField()
    due = serializers.DateField(allow_null=True)
    overdue = serializers.BooleanField()
    findings = serializers.DictField(child=serializers.IntegerField())
    mine = serializers.IntegerField()
    plumb = PlumbMarkSerializer(many=True, allow_null=True)
    news = serializers.IntegerField()
    latest = serializers.ListField(child=serializers.CharField())
    archived = serializers.BooleanField()


class DeskView(APIView):
    @extend_schema(
        operation_id="desk_get",
        parameters=[
            OpenApiParameter("words", str, description="in title, place or client"),
            OpenApiParameter("archived", bool, description="those that were put away, in place of the others"),
        ],
        responses=DeskRowSerializer(many=True),
    )
    def get(self, request: Request) -> Response:
        words = request.query_params.get("words", "")[:120].replace("\0", "")
        archived = request.query_params.get("archived") in ("true", "1")
        return Response(DeskRowSerializer(rows(user_of(request), words, archived=archived), many=True).data)


class VisitSerializer(serializers.Serializer[Any]):
    """That somebody visits a review now, and whether it is in their archive."""

    archived = serializers.BooleanField(required=False)


class VisitView(APIView):
    @extend_schema(operation_id="desk_visit", request=VisitSerializer, responses={204: None})
    def post(self, request: Request, review_id: str) -> Response:
        """Note a visit of a review, or put it into the archive or back."""
        entry = access(user_of(request), review_id, EVERYBODY)
        given = sent(VisitSerializer, request)
        if "archived" in given:
            changes: dict[str, Any] = {"archived": given["archived"]}
        else:
            latest = entry.review.audit.values_list("pk", flat=True).first() or 0
            changes = {"entry": latest, "at": timezone.now()}
        Visit.objects.update_or_create(user=entry.user, review=entry.review, defaults=changes)
        return Response(status=204)


class NoticesSerializer(serializers.ModelSerializer[NoticeChoice]):
    """Of what somebody is sent mail."""

    calendar = serializers.SerializerMethodField(help_text="whether there is a calendar of due dates")

    class Meta:
        model = NoticeChoice
        fields = ["issued", "answered", "submitted", "due", "daily", "calendar"]

    def get_calendar(self, choice: NoticeChoice) -> bool:
        return bool(choice.calendar_digest)


class NoticesView(APIView):
    in_person = True

    @extend_schema(operation_id="notices_get", responses=NoticesSerializer)
    def get(self, request: Request) -> Response:
        return Response(NoticesSerializer(NoticeChoice.of(user_of(request))).data)

    @extend_schema(operation_id="notices_change", request=NoticesSerializer, responses=NoticesSerializer)
    def patch(self, request: Request) -> Response:
        choice = NoticeChoice.of(user_of(request))
        given = NoticesSerializer(choice, data=request.data, partial=True)
        given.is_valid(raise_exception=True)
        given.save()
        return Response(given.data)


class CalendarAddressSerializer(serializers.Serializer[Any]):
    """The address of a calendar; it is shown once."""

    address = serializers.CharField()


class CalendarView(APIView):
    in_person = True

    @extend_schema(operation_id="calendar_make", request=None, responses={201: CalendarAddressSerializer})
    def post(self, request: Request) -> Response:
        """Make the address of a calendar; an earlier one ends."""
        key = secrets.token_urlsafe(32)
        choice = NoticeChoice.of(user_of(request))
        choice.calendar_digest = digest_of(key)
        choice.save(update_fields=["calendar_digest"])
        return Response({"address": request.build_absolute_uri(f"/api/calendars/{key}.ics")}, status=201)

    @extend_schema(operation_id="calendar_end", request=None, responses={204: None})
    def delete(self, request: Request) -> Response:
        NoticeChoice.objects.filter(user=user_of(request)).update(calendar_digest="")
        return Response(status=204)


class FeedView(APIView):
    """Calendars do not sign in: who has the address reads the due dates, and nothing else."""

    permission_classes = [AllowAny]
    authentication_classes = []

    @extend_schema(operation_id="calendar_feed", responses={(200, "text/calendar"): OpenApiTypes.BINARY}, auth=[])
    def get(self, request: Request, key: str) -> HttpResponse:
        choice = NoticeChoice.objects.select_related("user").filter(calendar_digest=digest_of(key)).first()
        if choice is None or not choice.user.is_active:
            raise Http404
        answer = HttpResponse(feed(choice.user), content_type="text/calendar; charset=utf-8")
        answer.headers["Cache-Control"] = "private, no-store"
        return answer
