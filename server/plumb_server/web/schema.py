"""Additions to the OpenAPI document."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from plumb_core.documents import Brief
from plumb_core.modelling import ReferenceModel
from rest_framework import serializers


@extend_schema_field({"$ref": "#/components/schemas/Brief"})
class BriefField(serializers.JSONField):
    """The brief, as the core's JSON Schema describes it."""


def add_core_documents(result: dict[str, Any], **kwargs: Any) -> dict[str, Any]:
    """The core's own documents as components, so that clients are generated for them too."""
    components = result.setdefault("components", {}).setdefault("schemas", {})
    for document in (Brief, ReferenceModel):
        schema = document.model_json_schema(ref_template="#/components/schemas/{model}")
        components |= schema.pop("$defs", {})
        components[document.__name__] = schema
    return result
