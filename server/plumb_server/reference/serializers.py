"""What the API of the reference model takes and gives."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from plumb_server.reference.models import Run
from plumb_server.web.schema import CellSerializer, core_field

ModelField = core_field("ReferenceModel")


class ModelStateSerializer(serializers.Serializer[Any]):
    """A state of the model; number 0 where there is none yet."""

    number = serializers.IntegerField()
    can_undo = serializers.BooleanField()
    model = ModelField()


class ModelChangeSerializer(serializers.Serializer[Any]):
    based_on = serializers.IntegerField(min_value=0)
    model = ModelField()


class ReadRecordSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(trim_whitespace=False)
    unit = serializers.CharField(required=False, allow_blank=True, default="", max_length=10)
    dt = serializers.FloatField(required=False, min_value=1e-5, max_value=10.0)


class RecordSerializer(serializers.Serializer[Any]):
    """Accelerations in their unit, at steps of dt or at times t (s)."""

    a = serializers.ListField(child=serializers.FloatField())
    unit = serializers.ChoiceField(choices=["g", "m/s2", "cm/s2", "mm/s2"])
    dt = serializers.FloatField(required=False)
    t = serializers.ListField(child=serializers.FloatField(), required=False)


class AskSerializer(serializers.Serializer[Any]):
    kind = serializers.CharField(max_length=80)


class ProblemSerializer(serializers.Serializer[Any]):
    path = serializers.CharField()
    message = serializers.CharField()
    remedy = serializers.CharField()


class RunSerializer(serializers.ModelSerializer[Any]):
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


class AnsweredRunSerializer(RunSerializer):
    result = core_field("Solved", nullable=True)()

    class Meta(RunSerializer.Meta):
        fields = (*RunSerializer.Meta.fields, "result")  # type: ignore[assignment]


GridField, FrameField = core_field("Grid"), core_field("Frame")
"""Parts of the model."""


class BuildFrameSerializer(serializers.Serializer[Any]):
    """Either a grid, or the rows of tables by their kind."""

    grid = GridField(required=False)
    tables = serializers.DictField(child=serializers.ListField(child=serializers.DictField()), required=False)


class BuiltFrameSerializer(serializers.Serializer[Any]):
    frame = FrameField()


class FrameTableSerializer(serializers.Serializer[Any]):
    """A pasted table, or an uploaded file with its contents in base64; what the reviewer has set of how it is read."""

    text = serializers.CharField(required=False, allow_blank=True, max_length=20_000_000, trim_whitespace=False)
    name = serializers.CharField(required=False, max_length=200, default="pasted table")
    content = serializers.CharField(required=False, max_length=24_000_000)
    sheet = serializers.CharField(required=False, allow_blank=True, default="")
    kind = serializers.CharField(required=False, allow_blank=True, default="")
    columns = serializers.DictField(child=serializers.IntegerField(min_value=0), required=False)
    units = serializers.DictField(child=serializers.CharField(), required=False)


class FrameColumnSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    title = serializers.CharField()
    required = serializers.BooleanField()  # type: ignore[assignment]
    units = serializers.ListField(child=serializers.CharField())


class FrameTableReadSerializer(serializers.Serializer[Any]):
    """How a table is read: the first rows as they are written, and the rows as a frame has them."""

    kind = serializers.CharField()
    sheet = serializers.CharField()
    sheets = serializers.ListField(child=serializers.CharField())
    header = serializers.IntegerField(allow_null=True)
    columns = serializers.DictField(child=serializers.IntegerField())
    units = serializers.DictField(child=serializers.CharField())
    known = FrameColumnSerializer(many=True)
    cells = serializers.ListField(child=serializers.ListField(child=serializers.CharField()))
    problems = CellSerializer(many=True)
    rows = serializers.ListField(child=serializers.DictField())
