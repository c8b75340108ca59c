"""Signing in and out."""

from __future__ import annotations

from django.contrib.auth import authenticate, login, logout
from django.middleware.csrf import get_token
from django.utils.decorators import method_decorator
from django.views.decorators.csrf import csrf_protect
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.throttling import ScopedRateThrottle
from rest_framework.views import APIView

from plumb_server.accounts import attempts
from plumb_server.web.problems import Unusable


class SignInSerializer(serializers.Serializer):
    email = serializers.CharField(max_length=150)
    password = serializers.CharField(max_length=200)


class PersonSerializer(serializers.Serializer):
    id = serializers.IntegerField()
    name = serializers.CharField()
    firm = serializers.CharField()
    email = serializers.CharField(source="username")


class SessionSerializer(serializers.Serializer):
    person = PersonSerializer(allow_null=True)


class SignInThrottle(ScopedRateThrottle):
    scope = "sign-in"

    def allow_request(self, request, view):
        # only attempts count, not asking who is signed in
        return request.method != "POST" or super().allow_request(request, view)


@method_decorator(csrf_protect, name="dispatch")
class SessionView(APIView):
    permission_classes = [AllowAny]
    throttle_classes = [SignInThrottle]
    throttle_scope = "sign-in"

    @extend_schema(operation_id="session_get", responses=SessionSerializer)
    def get(self, request: Request) -> Response:
        get_token(request)
        return Response(SessionSerializer({"person": request.user if request.user.is_authenticated else None}).data)

    @extend_schema(operation_id="session_open", request=SignInSerializer, responses=SessionSerializer)
    def post(self, request: Request) -> Response:
        given = SignInSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        email = given.validated_data["email"].strip().lower()
        attempts.refuse_where_too_many(email)
        user = authenticate(request, username=email, password=given.validated_data["password"])
        if user is None:
            attempts.note_failure(email)
            raise Unusable(
                [
                    {
                        "path": "/password",
                        "message": "e-mail address and password don't belong together",
                        "remedy": "Check both; the lead of your team can set a new password.",
                    }
                ]
            )
        login(request, user)
        return Response(SessionSerializer({"person": user}).data)

    @extend_schema(operation_id="session_close", responses={204: None})
    def delete(self, request: Request) -> Response:
        logout(request)
        return Response(status=status.HTTP_204_NO_CONTENT)
