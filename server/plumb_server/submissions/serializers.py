"""Shapes of what the API takes and gives for submissions."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from plumb_core.intake.cells import UNITS
from plumb_core.intake.columns import Column
from rest_framework import serializers

from plumb_server.submissions.models import Case, ClaimTable, Exhibit, ExhibitReading, Submission
from plumb_server.web.schema import CellSerializer
from plumb_server.web.texts import visible


class OpenPartSerializer(serializers.Serializer[Any]):
    """Rows or a column of an accepted table that are not read, with their question."""

    rows = serializers.ListField(child=serializers.IntegerField())
    quantities = serializers.ListField(child=serializers.CharField())
    question = serializers.CharField()


class TableSerializer(serializers.ModelSerializer[Any]):
    claims = serializers.IntegerField(source="count")

    class Meta:
        model = ClaimTable
        fields = ["id", "exhibit", "kind", "sheet", "claims", "reading", "open_parts"]

    reading = serializers.SerializerMethodField()

    open_parts = OpenPartSerializer(many=True)

    @extend_schema_field(serializers.DictField())
    def get_reading(self, table: ClaimTable) -> dict[str, Any]:
        """As it was read, to be read again with other answers."""
        return {part: value for part, value in table.reading.items() if part not in ClaimTable.OF_SHEET}


class SheetToldSerializer(serializers.Serializer[Any]):
    """What states one table of a file from the others."""

    label = serializers.CharField()  # type: ignore[assignment]
    page = serializers.IntegerField(allow_null=True)
    kind = serializers.CharField(allow_blank=True)
    rows = serializers.IntegerField()
    title = serializers.CharField(allow_blank=True)


class ExhibitReadingSerializer(serializers.ModelSerializer[Any]):
    """How far the reading of an exhibit is, and what came of it."""

    tables = SheetToldSerializer(many=True)

    class Meta:
        model = ExhibitReading
        fields = ["status", "share", "phase", "message", "remedy", "pages", "tables"]


class ExhibitSerializer(serializers.ModelSerializer[Any]):
    name = serializers.SerializerMethodField()
    reading = serializers.SerializerMethodField()

    class Meta:
        model = Exhibit
        fields = ["id", "name", "size", "sha256", "pasted", "created_at", "reading"]

    def get_name(self, exhibit: Exhibit) -> str:
        # those that were stored before names were made visible
        return visible(exhibit.name)

    @extend_schema_field(ExhibitReadingSerializer(allow_null=True))
    def get_reading(self, exhibit: Exhibit) -> Any:
        reading = getattr(exhibit, "reading", None)
        return None if reading is None else ExhibitReadingSerializer(reading).data


class PageTableSerializer(serializers.Serializer[Any]):
    """Where a table and its cells are on a page, pt from the top left corner."""

    sheet = serializers.CharField()
    box = serializers.ListField(child=serializers.FloatField(), min_length=4, max_length=4)
    cells = serializers.ListField(
        child=serializers.ListField(
            child=serializers.ListField(child=serializers.FloatField(), min_length=4, max_length=4, allow_null=True)
        )
    )


class PageAcceptedSerializer(serializers.Serializer[Any]):
    """A table of a page that is accepted."""

    sheet = serializers.CharField()
    kind = serializers.CharField()
    claims = serializers.IntegerField()


class PageSerializer(serializers.Serializer[Any]):
    """A page of an exhibit: its size in pt, its tables, whether there is text on it, and what was accepted from it."""

    number = serializers.IntegerField()
    width = serializers.FloatField()
    height = serializers.FloatField()
    has_text = serializers.BooleanField()
    tables = PageTableSerializer(many=True)
    accepted = PageAcceptedSerializer(many=True)


class CaseSerializer(serializers.ModelSerializer[Any]):
    """A load case with its role; what is not known of it is null."""

    class Meta:
        model = Case
        fields = ["id", "name", *Case.ROLE, "by_reviewer", "revision"]
        read_only_fields = ["name", "by_reviewer", "revision"]


class SubmissionSerializer(serializers.ModelSerializer[Any]):
    label = serializers.CharField()  # type: ignore[assignment]
    exhibits = ExhibitSerializer(many=True)
    tables = serializers.SerializerMethodField()
    cases = CaseSerializer(many=True)
    claims = serializers.SerializerMethodField()

    class Meta:
        model = Submission
        fields = [
            "id",
            "number",
            "label",
            "status",
            "created_at",
            "accepted_at",
            "exhibits",
            "tables",
            "cases",
            "claims",
        ]

    @extend_schema_field(TableSerializer(many=True))
    def get_tables(self, submission: Submission) -> Any:
        tables = [table for exhibit in submission.exhibits.all() for table in exhibit.tables.all()]
        return TableSerializer(sorted(tables, key=lambda t: t.pk), many=True).data

    def get_claims(self, submission: Submission) -> int:
        return sum(table.count for exhibit in submission.exhibits.all() for table in exhibit.tables.all())


class ReadingSerializer(serializers.Serializer[Any]):
    """How a table is read; what is not set is recognised."""

    header_row = serializers.IntegerField(allow_null=True, required=False, min_value=0)
    columns = serializers.DictField(child=serializers.IntegerField(min_value=0), required=False)
    units = serializers.DictField(child=serializers.CharField(allow_blank=True), required=False)
    cases = serializers.DictField(child=serializers.ChoiceField(["X", "Y"]), required=False)
    order = serializers.ChoiceField(["", "bottom_up", "top_down"], required=False, allow_blank=True)
    both = serializers.BooleanField(required=False)
    numbers = serializers.ChoiceField(["", "point", "comma"], required=False, allow_blank=True)
    stories = serializers.DictField(child=serializers.CharField(), required=False)
    case = serializers.CharField(required=False, allow_blank=True, max_length=60)
    left_out = serializers.ListField(child=serializers.IntegerField(min_value=0), required=False)
    taken_in = serializers.ListField(child=serializers.IntegerField(min_value=0), required=False)
    confirmed = serializers.ListField(child=serializers.CharField(max_length=60), required=False)


class ReadTableSerializer(serializers.Serializer[Any]):
    """A table to read: pasted text, or a sheet of an exhibit."""

    text = serializers.CharField(required=False, allow_blank=True, trim_whitespace=False, max_length=8_000_000)
    name = serializers.CharField(required=False, max_length=200)
    exhibit = serializers.IntegerField(required=False)
    sheet = serializers.CharField(required=False, allow_blank=True)
    kind = serializers.CharField(required=False, allow_blank=True)
    reading = ReadingSerializer(required=False, allow_null=True)
    partly = serializers.BooleanField(
        required=False, help_text="on accepting: rows and columns with questions may stay open"
    )
    replaces = serializers.IntegerField(required=False, help_text="the table as it was accepted before")


class AllAcceptedSerializer(serializers.Serializer[Any]):
    """What became of each table of an exhibit or a submission: accepted, or its questions."""

    exhibit = serializers.IntegerField(source="exhibit.pk")
    label = serializers.CharField()  # type: ignore[assignment]
    table = TableSerializer(allow_null=True)
    open = serializers.ListField(child=serializers.CharField())


class ColumnSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    title = serializers.CharField()
    required = serializers.BooleanField()  # type: ignore[assignment]
    units = serializers.ListField(child=serializers.CharField())


def column_json(column: Column) -> dict[str, Any]:
    """A column that a kind of table can have."""
    units = [] if column.unit is None else list(UNITS[column.unit])
    return {"name": column.name, "title": column.title, "required": column.required, "units": units}


class OfBriefSerializer(serializers.Serializer[Any]):
    """What the brief has at the place of a value, in the unit of the table."""

    row = serializers.IntegerField()
    column = serializers.IntegerField()
    text = serializers.CharField()


class UnusedColumnSerializer(serializers.Serializer[Any]):
    """A column of numbers that is not used."""

    column = serializers.IntegerField()
    heading = serializers.CharField()


class ScannedCellSerializer(serializers.Serializer[Any]):
    """A cell that was read off an image, with the confidence of its text, 0 to 1."""

    row = serializers.IntegerField()
    column = serializers.IntegerField()
    confidence = serializers.FloatField()


class ProfileProposalSerializer(serializers.Serializer[Any]):
    """How a profile proposes to read a table."""

    id = serializers.IntegerField()
    name = serializers.CharField()
    kind = serializers.CharField()
    reading = ReadingSerializer()


class TableReadSerializer(serializers.Serializer[Any]):
    """How a table was read, before it is accepted."""

    kind = serializers.CharField()
    sheet = serializers.CharField()
    sheets = serializers.ListField(child=serializers.CharField())
    columns = ColumnSerializer(many=True)
    rows = serializers.ListField(child=serializers.ListField(child=serializers.CharField(allow_blank=True)))
    row_count = serializers.IntegerField()
    reading = ReadingSerializer()
    problems = CellSerializer(many=True)
    skipped = serializers.ListField(child=serializers.IntegerField())
    looks_like = serializers.CharField(allow_blank=True, help_text="kind of table that it looks like")
    why = serializers.DictField(child=serializers.ListField(child=serializers.CharField()))
    unsure = serializers.ListField(child=serializers.CharField())
    beside = OfBriefSerializer(many=True)
    unused = UnusedColumnSerializer(many=True)
    scanned = ScannedCellSerializer(many=True)
    profile = ProfileProposalSerializer(allow_null=True)
    page = serializers.IntegerField(allow_null=True)
    shift = serializers.ListField(
        child=serializers.IntegerField(), help_text="rows and columns of its sheet above and before its first cell"
    )
    claims = serializers.IntegerField()
    cases = serializers.IntegerField()
