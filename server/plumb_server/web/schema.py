"""The OpenAPI document: what the core reads and gives is described by the core's own types."""

from __future__ import annotations

from functools import cache
from typing import Any

from django.core.exceptions import ImproperlyConfigured
from drf_spectacular.authentication import SessionScheme
from drf_spectacular.extensions import OpenApiAuthenticationExtension
from drf_spectacular.utils import OpenApiResponse, extend_schema_field
from plumb_core.documents import answers, differences, listings, results, side_by_side
from plumb_core.documents.brief import Brief
from plumb_core.documents.model import ReferenceModel
from plumb_core.documents.thresholds import Thresholds
from plumb_core.intake.profiles import TableProfile
from pydantic import TypeAdapter
from rest_framework import serializers

CORE_TYPES: dict[str, Any] = {
    "Brief": Brief,
    "ReferenceModel": ReferenceModel,
    "Recheck": results.RecheckResult,
    "Sheet": results.RecheckSheet,
    "CheckPage": results.CheckPage,
    "Difference": differences.DifferenceResult,
    "Causes": results.CausesResult,
    "WhatIf": results.WhatIf,
    "Sensitivity": results.Sensitivity,
    "Step": results.StepResult,
    "Evidence": results.Evidence,
    "Across": side_by_side.Across,
    "Edition": listings.ListedEdition,
    "Vocabulary": listings.Vocabulary,
    "Solved": answers.Solved,
    "TableProfile": TableProfile,
    "Thresholds": Thresholds,
}
"""Types of the core that the API takes and gives, by the names of their components."""
REF = "#/components/schemas/{model}"


def _ref(name: str) -> dict[str, str]:
    return {"$ref": REF.format(model=name)}


def core_response(name: str, many: bool = False) -> OpenApiResponse:
    """A response that is one of the core's types, or a list of them."""
    schema: dict[str, Any] = {"type": "array", "items": _ref(name)} if many else _ref(name)
    return OpenApiResponse(response=schema)


@cache
def core_field(name: str, many: bool = False, nullable: bool = False) -> type[serializers.JSONField]:
    """A field that is one of the core's types, or a list of them."""
    schema: dict[str, Any] = {"type": "array", "items": _ref(name)} if many else _ref(name)
    if nullable:
        schema = {"oneOf": [schema, {"type": "null"}]}
    return extend_schema_field(schema)(type(f"{name}Field", (serializers.JSONField,), {}))


BriefField = core_field("Brief")


class CellAnswerSerializer(serializers.Serializer[Any]):
    """An answer to a question of a table: in words, and what it sets of the reading."""

    label = serializers.CharField()  # type: ignore[assignment]
    sets = serializers.DictField()


class CellSerializer(serializers.Serializer[Any]):
    """A problem at a cell of a table."""

    row = serializers.IntegerField(allow_null=True)
    column = serializers.IntegerField(allow_null=True)
    message = serializers.CharField()
    remedy = serializers.CharField()
    holds_up = serializers.BooleanField(help_text="nothing of the table can be accepted before it is answered")
    extent = serializers.ChoiceField(
        ["table", "column", "row", "skip", "nothing"], help_text="what stays open until it is answered"
    )
    choices = CellAnswerSerializer(many=True)


class ByCookie(SessionScheme):  # type: ignore[no-untyped-call]
    """Sessions, as the document describes them."""

    target_class = "plumb_server.accounts.tokens.BySession"


class KeyScheme(OpenApiAuthenticationExtension):  # type: ignore[no-untyped-call]
    """API keys, as the document describes them."""

    target_class = "plumb_server.accounts.tokens.TokenAuthentication"
    name = "key"

    def get_security_definition(self, auto_schema: Any) -> dict[str, str]:
        return {
            "type": "http",
            "scheme": "bearer",
            "description": "A personal key for scripts, made under the account.",
        }


def add_core_documents(result: dict[str, Any], **kwargs: Any) -> dict[str, Any]:
    """The core's own types as components, so that clients are generated for them too."""
    components = result.setdefault("components", {}).setdefault("schemas", {})
    for name, kind in CORE_TYPES.items():
        schema = TypeAdapter(kind).json_schema(ref_template=REF)
        parts = schema.pop("$defs", {}) | ({} if "$ref" in schema else {name: schema})
        clash = [part for part, entry in parts.items() if components.get(part, entry) != entry]
        if clash:
            raise ImproperlyConfigured(f"several types of the core or the server are called: {', '.join(clash)}")
        components |= parts
    return result
