"""Additions to the OpenAPI document."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from plumb_core.documents import Brief
from rest_framework import serializers


@extend_schema_field({"$ref": "#/components/schemas/Brief"})
class BriefField(serializers.JSONField):
    """The brief, as the core's JSON Schema describes it."""


def add_core_documents(result: dict[str, Any], **kwargs: Any) -> dict[str, Any]:
    """The core's own documents as components, so that clients are generated for them too."""
    schema = Brief.model_json_schema(ref_template="#/components/schemas/{model}")
    components = result.setdefault("components", {}).setdefault("schemas", {})
    for name, definition in schema.pop("$defs", {}).items():
        components[name] = definition
    components["Brief"] = schema
    return result
