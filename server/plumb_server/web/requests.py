"""What requests bring along."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers
from rest_framework.request import Request


def sent(serializer: type[serializers.Serializer], request: Request) -> dict[str, Any]:
    """The body of a request as a serializer has it; refused with the fields where it hasn't."""
    given = serializer(data=request.data)
    given.is_valid(raise_exception=True)
    return dict(given.validated_data)
