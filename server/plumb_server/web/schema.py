"""Additions to the OpenAPI document."""

from __future__ import annotations

from typing import Any

from django.core.exceptions import ImproperlyConfigured
from drf_spectacular.utils import extend_schema_field
from plumb_core.documents.brief import Brief
from plumb_core.documents.model import ReferenceModel
from rest_framework import serializers


@extend_schema_field({"$ref": "#/components/schemas/Brief"})
class BriefField(serializers.JSONField):
    """The brief, as the core's JSON Schema describes it."""


def add_core_documents(result: dict[str, Any], **kwargs: Any) -> dict[str, Any]:
    """The core's own documents as components, so that clients are generated for them too."""
    components = result.setdefault("components", {}).setdefault("schemas", {})
    for document in (Brief, ReferenceModel):
        schema = document.model_json_schema(ref_template="#/components/schemas/{model}")
        parts = schema.pop("$defs", {})
        clash = [name for name, part in parts.items() if components.get(name, part) != part]
        if clash:
            raise ImproperlyConfigured(
                f"parts of the core's documents have names of the server's own: {', '.join(clash)}"
            )
        components |= parts
        components[document.__name__] = schema
    return result
