"""What the API of the reviewer's own model takes and gives."""

from __future__ import annotations

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from plumb_server.reference.models import Run
from plumb_server.reference.services import KINDS


@extend_schema_field({"$ref": "#/components/schemas/ReferenceModel"})
class ModelField(serializers.JSONField):
    """The model, as the core's JSON Schema describes it."""


class ModelStateSerializer(serializers.Serializer):
    """A state of the model; number 0 where there is none yet."""

    number = serializers.IntegerField()
    can_undo = serializers.BooleanField()
    model = ModelField()


class ModelChangeSerializer(serializers.Serializer):
    based_on = serializers.IntegerField(min_value=0)
    model = ModelField()


class AskSerializer(serializers.Serializer):
    kind = serializers.ChoiceField(choices=KINDS)


class ProblemSerializer(serializers.Serializer):
    path = serializers.CharField()
    message = serializers.CharField()
    remedy = serializers.CharField()


class RunSerializer(serializers.ModelSerializer):
    """A run without its answer."""

    problems = ProblemSerializer(many=True)

    class Meta:
        model = Run
        fields = (
            "id",
            "kind",
            "status",
            "phase",
            "share",
            "attempts",
            "problems",
            "engine",
            "created_at",
            "finished_at",
        )


@extend_schema_field({"type": "object", "additionalProperties": True, "nullable": True})
class AnswerField(serializers.JSONField):
    """The core's answer."""


class AnsweredRunSerializer(RunSerializer):
    result = AnswerField()

    class Meta(RunSerializer.Meta):
        fields = (*RunSerializer.Meta.fields, "result")


class FrameTableSerializer(serializers.Serializer):
    """A pasted or uploaded table of a frame: text, or a file's name with its content in base64."""

    text = serializers.CharField(required=False, allow_blank=True, max_length=5_000_000, trim_whitespace=False)
    kind = serializers.CharField(required=False, allow_blank=True)
    columns = serializers.DictField(child=serializers.IntegerField(min_value=0), required=False)
    units = serializers.DictField(child=serializers.CharField(), required=False)
