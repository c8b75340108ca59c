"""Signing in and out, and who is signed in.

Second factors, passkeys, resets and the rest are the accounts library's.
"""

from __future__ import annotations

import json
from typing import Any

from allauth.headless.account.views import LoginView
from allauth.headless.constants import Client
from allauth.mfa.models import Authenticator
from allauth.socialaccount.adapter import get_adapter as providers_of
from django.conf import settings
from django.contrib.auth import logout
from django.middleware.csrf import get_token
from django.utils.decorators import method_decorator
from django.views.decorators.csrf import csrf_protect
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.exceptions import APIException, Throttled
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.web.problems import UnprocessableContent


class SignInSerializer(serializers.Serializer[Any]):
    email = serializers.CharField(max_length=254)
    password = serializers.CharField(max_length=200, trim_whitespace=False)


class PersonSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    name = serializers.CharField()
    firm = serializers.CharField()
    email = serializers.CharField()
    administers = serializers.BooleanField(source="is_staff", help_text="the accounts of the office")
    second_factor = serializers.SerializerMethodField()

    def get_second_factor(self, person: Any) -> bool:
        return bool(Authenticator.objects.filter(user=person).exclude(type=Authenticator.Type.RECOVERY_CODES).exists())


class ProviderSerializer(serializers.Serializer[Any]):
    """Somebody who vouches for people, to sign in with."""

    id = serializers.CharField()
    name = serializers.CharField()


class SessionSerializer(serializers.Serializer[Any]):
    person = PersonSerializer(allow_null=True)
    providers = ProviderSerializer(many=True)
    mail_is_caught = serializers.BooleanField(help_text="mail is shown on a page of the demo instead of being sent")


class SecondFactorAsked(APIException):
    """The password was right, and more is required."""

    status_code = status.HTTP_401_UNAUTHORIZED
    default_detail = "a second factor is required"

    def __init__(self) -> None:
        super().__init__(self.default_detail)
        remedy = "Give the code of your authenticator, or use an API key."
        self.errors = [{"path": "/", "message": self.default_detail, "remedy": remedy}]


_sign_in = LoginView.as_api_view(client=Client.BROWSER)


def session_json(request: Request) -> dict[str, Any]:
    """Return the session with its person as the API describes them."""
    providers = [{"id": app.provider_id, "name": app.name} for app in providers_of().list_apps(request)]
    return SessionSerializer(
        {
            "person": request.user if request.user.is_authenticated else None,
            "providers": providers,
            "mail_is_caught": bool(settings.MAIL_FOLDER),
        }
    ).data


@method_decorator(csrf_protect, name="dispatch")
class SessionView(APIView):
    permission_classes = [AllowAny]

    @extend_schema(operation_id="session_get", responses=SessionSerializer)
    def get(self, request: Request) -> Response:
        get_token(request)
        return Response(session_json(request))

    @extend_schema(operation_id="session_open", request=SignInSerializer, responses=SessionSerializer)
    def post(self, request: Request) -> Response:
        # the library's own door: with its limits, its second factors, its records
        requested = request._request
        answer = _sign_in(requested)
        if answer.status_code == status.HTTP_429_TOO_MANY_REQUESTS:
            raise Throttled(300)
        if answer.status_code == status.HTTP_400_BAD_REQUEST:
            raise UnprocessableContent(refused_by_library(json.loads(answer.content)))
        if not requested.user.is_authenticated:
            raise SecondFactorAsked
        request.user = requested.user
        return Response(session_json(request))

    @extend_schema(operation_id="session_close", responses={204: None})
    def delete(self, request: Request) -> Response:
        logout(request._request)
        return Response(status=status.HTTP_204_NO_CONTENT)


def refused_by_library(answer: dict[str, Any]) -> list[dict[str, Any]]:
    """The accounts library's errors as ours have it."""
    reported = []
    for error in answer.get("errors", []):
        path, message = f"/{error.get('param', '')}", str(error.get("message", ""))
        remedy = "Correct this and send it again."
        if error.get("code") == "too_many_login_attempts":
            raise Throttled(300)
        if error.get("code") == "email_password_mismatch":
            path, message = "/password", "the e-mail address and the password do not match"
            remedy = "Check both. A forgotten password can be reset."
        reported.append({"path": path, "message": message, "remedy": remedy})
    return reported or [
        {"path": "/", "message": "this value cannot be used", "remedy": "Correct it and send it again."}
    ]
