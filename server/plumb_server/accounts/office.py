"""The API of the office's administrator: accounts, never reviews."""

from __future__ import annotations

from typing import Any

from allauth.mfa.models import Authenticator
from django.db import transaction
from django.db.models import Exists, OuterRef, QuerySet
from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.permissions import BasePermission, IsAuthenticated
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts import closing, invitations, records
from plumb_server.accounts.models import Invitation, Record, User
from plumb_server.accounts.requests import user_of
from plumb_server.accounts.self_service import NoteOfRecordSerializer
from plumb_server.accounts.sessions import end_sessions
from plumb_server.accounts.tokens import WithinScope
from plumb_server.web.problems import Conflict
from plumb_server.web.requests import sent

RECORDS = 500


class Administers(BasePermission):
    message = "only the administrator of the office does this"

    def has_permission(self, request: Request, view: Any) -> bool:
        return bool(user_of(request).is_staff)


class OfficeView(APIView):
    in_person = True
    permission_classes = [IsAuthenticated, WithinScope, Administers]


class ColleagueSerializer(serializers.ModelSerializer[Any]):
    """An account, as its administrator sees it."""

    administers = serializers.BooleanField(source="is_staff")
    active = serializers.BooleanField(source="is_active")
    second_factor = serializers.BooleanField()

    class Meta:
        model = User
        fields = [
            *("id", "name", "firm", "email", "active", "administers", "of_office"),
            *("second_factor", "date_joined", "last_login"),
        ]


class ColleagueChangeSerializer(serializers.Serializer[Any]):
    active = serializers.BooleanField(required=False)
    administers = serializers.BooleanField(required=False)
    of_office = serializers.BooleanField(required=False)


class InvitedSerializer(serializers.ModelSerializer[Any]):
    inviter = serializers.CharField(source="invited_by.name")

    class Meta:
        model = Invitation
        fields = ["id", "email", "inviter", "created_at", "expires_at"]


class OfficeSerializer(serializers.Serializer[Any]):
    people = ColleagueSerializer(many=True)
    invited = InvitedSerializer(many=True)


class InviteSerializer(serializers.Serializer[Any]):
    email = serializers.EmailField(max_length=254)


def _people() -> QuerySet[User]:
    factors = Authenticator.objects.filter(user=OuterRef("pk")).exclude(type=Authenticator.Type.RECOVERY_CODES)
    return User.objects.annotate(second_factor=Exists(factors)).order_by("name", "pk")


class PeopleView(OfficeView):
    @extend_schema(operation_id="office_people", responses=OfficeSerializer)
    def get(self, request: Request) -> Response:
        invited = [i for i in Invitation.objects.select_related("invited_by") if i.open]
        return Response(OfficeSerializer({"people": _people(), "invited": invited}).data)

    @extend_schema(operation_id="office_invite", request=InviteSerializer, responses={201: InvitedSerializer})
    def post(self, request: Request) -> Response:
        with transaction.atomic():
            email = sent(InviteSerializer, request)["email"].strip().lower()
            # an earlier invitation to the office is void
            Invitation.objects.filter(email=email, accepted_at=None, to_office=True).delete()
            invitation = invitations.invite(request._request, email, user_of(request), "Vigilant Plumb", to_office=True)
        records.note(request, "invited", email=email)
        return Response(InvitedSerializer(invitation).data, status=status.HTTP_201_CREATED)


class PersonView(OfficeView):
    @extend_schema(operation_id="office_change", request=ColleagueChangeSerializer, responses=ColleagueSerializer)
    def patch(self, request: Request, user_id: int) -> Response:
        given = sent(ColleagueChangeSerializer, request)
        with transaction.atomic():
            # all who administer are locked: two of them cannot take the office from each other at once
            staff = set(
                User.objects.select_for_update().filter(is_staff=True, is_active=True).values_list("pk", flat=True)
            )
            user = get_object_or_404(User.objects.select_for_update(), pk=user_id)
            stays = given.get("active", user.is_active) and given.get("administers", user.is_staff)
            if user.pk in staff and not stays and len(staff) == 1:
                raise Conflict("the office would be without an administrator", "Make somebody else one first.")
            user.is_active = given.get("active", user.is_active)
            user.is_staff = given.get("administers", user.is_staff)
            user.of_office = given.get("of_office", user.of_office)
            if not user.is_active:
                closing.before_closing(user, user_of(request))
                end_sessions(user)
            user.save(update_fields=["is_active", "is_staff", "of_office"])
            records.note(request, "account changed", of=user.email, **given)
        return Response(ColleagueSerializer(_people().get(pk=user_id)).data)


class PersonSessionsView(OfficeView):
    @extend_schema(operation_id="office_end_sessions", responses={204: None})
    def delete(self, request: Request, user_id: int) -> Response:
        user = get_object_or_404(User, pk=user_id)
        end_sessions(user)
        records.note(request, "sessions ended", of=user.email)
        return Response(status=status.HTTP_204_NO_CONTENT)


class PersonFactorsView(OfficeView):
    """For somebody who lost telephone and recovery codes."""

    @extend_schema(operation_id="office_reset_factors", responses={204: None})
    def delete(self, request: Request, user_id: int) -> Response:
        user = get_object_or_404(User, pk=user_id)
        Authenticator.objects.filter(user=user).delete()
        end_sessions(user)
        records.note(request, "second factor reset", of=user.email)
        return Response(status=status.HTTP_204_NO_CONTENT)


OF_ACCOUNTS = ("of", "to", "email", "name", "scope", "active", "administers", "of_office")
"""What a record says of accounts; which review or file it was is not the office's affair."""


class OfficeNoteSerializer(NoteOfRecordSerializer):
    """A record as the administrator of the office sees it."""

    def to_representation(self, instance: Record) -> dict[str, Any]:
        shown: dict[str, Any] = super().to_representation(instance)
        return shown | {"detail": {name: value for name, value in shown["detail"].items() if name in OF_ACCOUNTS}}


class OfficeRecordsView(OfficeView):
    @extend_schema(operation_id="office_records", responses=OfficeNoteSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(OfficeNoteSerializer(Record.objects.select_related("user")[:RECORDS], many=True).data)


class InvitedView(OfficeView):
    @extend_schema(operation_id="office_withdraw_invitation", responses={204: None})
    def delete(self, request: Request, invitation_id: int) -> Response:
        get_object_or_404(Invitation, pk=invitation_id, accepted_at=None).delete()
        return Response(status=status.HTTP_204_NO_CONTENT)
