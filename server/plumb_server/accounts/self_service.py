"""The API of what is a person's own: account, API keys, invitations, records."""

from __future__ import annotations

from email import message_from_bytes, policy
from pathlib import Path
from typing import Any

from allauth.account.utils import perform_login
from django.conf import settings
from django.http import Http404
from django.shortcuts import get_object_or_404
from django.utils.decorators import method_decorator
from django.views.decorators.csrf import csrf_protect
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.throttling import ScopedRateThrottle
from rest_framework.views import APIView

from plumb_server.accounts import addresses, invitations, records
from plumb_server.accounts.models import ApiToken, Invitation, Record, User
from plumb_server.accounts.requests import user_of
from plumb_server.accounts.signing import require_identity
from plumb_server.accounts.views import PersonSerializer
from plumb_server.web.problems import Conflict
from plumb_server.web.requests import sent

RECORDS = 200
MAILS = 50
MOST_TOKENS = 20


class AboutMeSerializer(serializers.ModelSerializer[Any]):
    class Meta:
        model = User
        fields = ["name", "firm"]


class AccountView(APIView):
    """Name and firm; address, password, second factors and sessions are changed through the accounts library."""

    in_person = True

    @extend_schema(operation_id="account_change", request=AboutMeSerializer, responses=PersonSerializer)
    def patch(self, request: Request) -> Response:
        given = AboutMeSerializer(user_of(request), data=request.data, partial=True)
        given.is_valid(raise_exception=True)
        for name, value in given.validated_data.items():
            setattr(user_of(request), name, value)
        user_of(request).save(update_fields=list(given.validated_data) or None)
        return Response(PersonSerializer(user_of(request)).data)


class TokenSerializer(serializers.ModelSerializer[Any]):
    class Meta:
        model = ApiToken
        fields = ["id", "name", "scope", "created_at", "expires_at", "used_at"]


class NewTokenSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(max_length=60)
    scope = serializers.ChoiceField(ApiToken.Scope.choices)
    days = serializers.IntegerField(min_value=1, max_value=ApiToken.LONGEST.days)


class IssuedTokenSerializer(TokenSerializer):
    key = serializers.CharField(help_text="shown only once")

    class Meta(TokenSerializer.Meta):
        fields = [*TokenSerializer.Meta.fields, "key"]


class TokensView(APIView):
    in_person = True

    @extend_schema(operation_id="tokens_list", responses=TokenSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(TokenSerializer(user_of(request).tokens.all(), many=True).data)

    @extend_schema(operation_id="token_make", request=NewTokenSerializer, responses={201: IssuedTokenSerializer})
    def post(self, request: Request) -> Response:
        given = sent(NewTokenSerializer, request)
        require_identity(request)
        if user_of(request).tokens.count() >= MOST_TOKENS:
            raise Conflict(f"you have {MOST_TOKENS} keys", "Withdraw a key that is no longer used.")
        token, key = ApiToken.issue(user_of(request), given["name"], given["scope"], given["days"])
        records.note(request, "key created", name=token.name, scope=token.scope)
        issued = TokenSerializer(token).data | {"key": key}
        return Response(issued, status=status.HTTP_201_CREATED)


class TokenView(APIView):
    in_person = True

    @extend_schema(operation_id="token_withdraw", responses={204: None})
    def delete(self, request: Request, token_id: int) -> Response:
        token = get_object_or_404(user_of(request).tokens, pk=token_id)
        records.note(request, "key withdrawn", name=token.name)
        token.delete()
        return Response(status=status.HTTP_204_NO_CONTENT)


class NoteOfRecordSerializer(serializers.Serializer[Any]):
    at = serializers.DateTimeField()
    kind = serializers.CharField()
    person = serializers.SerializerMethodField()
    address = serializers.CharField()
    detail = serializers.DictField()

    def get_person(self, record: Record) -> str:
        return str(record.user) if record.user else record.email


class OwnRecordsView(APIView):
    in_person = True

    @extend_schema(operation_id="records_own", responses=NoteOfRecordSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(
            NoteOfRecordSerializer(user_of(request).records.select_related("user")[:RECORDS], many=True).data
        )


# invitations


class InvitationSerializer(serializers.ModelSerializer[Any]):
    """What a link leads to: who invites whom to what, and whether the address signs in here already."""

    inviter = serializers.CharField(source="invited_by.name")
    to = serializers.SerializerMethodField()
    known = serializers.SerializerMethodField()

    def get_to(self, invitation: Invitation) -> list[str]:
        return [str(place) for place in invitation.places.all()]

    def get_known(self, invitation: Invitation) -> bool:
        return invitations.account_of(invitation) is not None

    class Meta:
        model = Invitation
        fields = ["email", "inviter", "expires_at", "to", "known"]


class AcceptSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(max_length=120, required=False, allow_blank=True)
    firm = serializers.CharField(max_length=120, required=False, allow_blank=True)
    password = serializers.CharField(max_length=200, required=False, trim_whitespace=False, allow_blank=True)


class InvitationThrottle(ScopedRateThrottle):
    scope = "invitation"


@method_decorator(csrf_protect, name="dispatch")
class InvitationView(APIView):
    permission_classes = [AllowAny]
    throttle_classes = [InvitationThrottle]
    throttle_scope = "invitation"

    @extend_schema(operation_id="invitation_get", responses=InvitationSerializer)
    def get(self, request: Request, key: str) -> Response:
        invitation = invitations.found(key)
        return Response(InvitationSerializer(invitation).data)

    @extend_schema(operation_id="invitation_accept", request=AcceptSerializer, responses=PersonSerializer)
    def post(self, request: Request, key: str) -> Response:
        signed_in = request.user if isinstance(request.user, User) else None
        user = invitations.accept(key, signed_in, sent(AcceptSerializer, request))
        records.note(request, "invitation accepted", user=user)
        if signed_in is None:
            perform_login(request._request, user, email=user.email)
        return Response(PersonSerializer(user).data)


# a change of address that is undone


class AddressBeforeSerializer(serializers.Serializer[Any]):
    email = serializers.EmailField()


@method_decorator(csrf_protect, name="dispatch")
class UndoAddressView(APIView):
    """The link that goes to an earlier address; who opens it need not be signed in."""

    permission_classes = [AllowAny]
    throttle_classes = [InvitationThrottle]
    throttle_scope = "invitation"

    @extend_schema(operation_id="address_before", responses=AddressBeforeSerializer)
    def get(self, request: Request, key: str) -> Response:
        return Response({"email": addresses.found(key).before})

    @extend_schema(operation_id="address_undo", request=None, responses=AddressBeforeSerializer)
    def post(self, request: Request, key: str) -> Response:
        user = addresses.undo(key)
        records.note(request, "change of address undone", user=user)
        return Response({"email": user.email})


# the demo's mail


class MailSerializer(serializers.Serializer[Any]):
    to = serializers.CharField()
    subject = serializers.CharField()
    at = serializers.CharField()
    text = serializers.CharField()


class MailView(APIView):
    """Mail that went to a folder instead of to people: there only where the demo requires it."""

    permission_classes = [AllowAny]

    @extend_schema(operation_id="mail_list", responses=MailSerializer(many=True))
    def get(self, request: Request) -> Response:
        if not settings.MAIL_FOLDER:
            raise Http404
        files = sorted(Path(settings.MAIL_FOLDER).glob("*.log"), key=lambda f: f.stat().st_mtime, reverse=True)
        return Response(MailSerializer([reported for f in files[:MAILS] for reported in _mails(f)], many=True).data)


def _mails(file: Path) -> list[dict[str, Any]]:
    """The messages of a file of Django's file backend, the newest first."""
    reported = []
    for part in file.read_bytes().split(b"\n" + b"-" * 79 + b"\n"):
        if not part.strip():
            continue
        message = message_from_bytes(part.lstrip(b"\n"), policy=policy.default)
        body = message.get_body(("plain",))
        reported.append(
            {
                "to": str(message["To"]),
                "subject": str(message["Subject"]),
                "at": str(message["Date"]),
                "text": body.get_content() if body else "",
            }
        )
    return reported[::-1]
