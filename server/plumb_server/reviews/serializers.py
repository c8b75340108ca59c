"""Shapes of what the API takes and gives for reviews."""

from __future__ import annotations

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from plumb_server.reviews.models import ClaimTable, Exhibit, Review, Role, Submission
from plumb_server.web.schema import BriefField


class MemberSerializer(serializers.Serializer):
    id = serializers.IntegerField(source="user.id")
    name = serializers.CharField(source="user.name")
    firm = serializers.CharField(source="user.firm")
    role = serializers.ChoiceField(Role.choices)


class NewMemberSerializer(serializers.Serializer):
    email = serializers.CharField(max_length=150)
    role = serializers.ChoiceField(Role.choices)


class TableSerializer(serializers.ModelSerializer):
    claims = serializers.IntegerField(source="claims.count")

    class Meta:
        model = ClaimTable
        fields = ["id", "exhibit", "kind", "sheet", "claims"]


class ExhibitSerializer(serializers.ModelSerializer):
    class Meta:
        model = Exhibit
        fields = ["id", "name", "size", "sha256", "pasted", "created_at"]


class SubmissionSerializer(serializers.ModelSerializer):
    label = serializers.CharField()
    exhibits = ExhibitSerializer(many=True)
    tables = serializers.SerializerMethodField()
    claims = serializers.IntegerField(source="claims.count")

    class Meta:
        model = Submission
        fields = ["id", "number", "label", "status", "created_at", "accepted_at", "exhibits", "tables", "claims"]

    @extend_schema_field(TableSerializer(many=True))
    def get_tables(self, submission: Submission):
        tables = ClaimTable.objects.filter(exhibit__submission=submission)
        return TableSerializer(tables, many=True).data


class ReviewSerializer(serializers.ModelSerializer):
    """A review in the list."""

    role = serializers.ChoiceField(Role.choices)
    edition = serializers.CharField()
    submission = serializers.CharField(allow_null=True, help_text="label of the latest submission")
    open_findings = serializers.IntegerField(help_text="findings that the member sees and that aren't closed")

    class Meta:
        model = Review
        fields = [
            "id",
            "title",
            "place",
            "client",
            "status",
            "created_at",
            "role",
            "edition",
            "submission",
            "open_findings",
        ]


class NewReviewSerializer(serializers.Serializer):
    title = serializers.CharField(max_length=120)
    place = serializers.CharField(max_length=120, required=False, allow_blank=True)
    client = serializers.CharField(max_length=120, required=False, allow_blank=True)
    description = serializers.CharField(max_length=2000, required=False, allow_blank=True)
    brief = BriefField()


class ReviewDetailSerializer(serializers.ModelSerializer):
    """A review with all that its screens start from."""

    role = serializers.ChoiceField(Role.choices)
    team = MemberSerializer(many=True)
    brief = BriefField()
    brief_number = serializers.IntegerField()
    can_undo = serializers.BooleanField()
    submissions = SubmissionSerializer(many=True)

    class Meta:
        model = Review
        fields = [
            "id", "title", "place", "client", "description", "status", "created_at", "role", "team", "brief",
            "brief_number", "can_undo", "submissions",
        ]  # fmt: skip


class ReviewChangeSerializer(serializers.ModelSerializer):
    class Meta:
        model = Review
        fields = ["title", "place", "client", "description", "status"]


class SourceSerializer(serializers.Serializer):
    file = serializers.CharField()
    sheet = serializers.CharField()
    row = serializers.IntegerField(allow_null=True)
    column = serializers.CharField()
    note = serializers.CharField()


@extend_schema_field({"oneOf": [{"type": "number"}, {"type": "string"}]})
class NumberOrTextField(serializers.JSONField):
    """A number, or the text of a quantity such as the site class."""


class TheirsSerializer(serializers.Serializer):
    value = NumberOrTextField()
    text = serializers.CharField()
    unit = serializers.CharField()
    source = SourceSerializer()


class OursSerializer(serializers.Serializer):
    value = NumberOrTextField()
    deviation = serializers.FloatField(allow_null=True)
    multiples = serializers.FloatField()
    tolerance = serializers.FloatField()
    agrees = serializers.BooleanField()


class LimitSerializer(serializers.Serializer):
    value = serializers.FloatField()
    side = serializers.ChoiceField(["max", "min"])
    quantity = serializers.CharField()
    symbol = serializers.CharField()
    clause = serializers.CharField()
    governed_by = serializers.CharField(allow_null=True)


class CheckSerializer(serializers.Serializer):
    id = serializers.CharField()
    quantity = serializers.CharField()
    direction = serializers.CharField(allow_null=True)
    story = serializers.CharField(allow_null=True)
    point = serializers.IntegerField(allow_null=True)
    mode = serializers.IntegerField(allow_null=True)
    case = serializers.CharField()
    stage = serializers.CharField()
    label = serializers.CharField()
    symbol = serializers.CharField()
    symbol_tex = serializers.CharField()
    meaning = serializers.CharField()
    unit = serializers.CharField()
    clause = serializers.CharField()
    theirs = TheirsSerializer(allow_null=True)
    carried = OursSerializer(allow_null=True)
    independent = OursSerializer(allow_null=True)
    multiples = serializers.FloatField(allow_null=True)
    verdict = serializers.ChoiceField(["agrees", "differs", "breaches", "gap", "open"])
    role = serializers.ChoiceField(["origin", "inherited"], allow_null=True)
    level = serializers.IntegerField(allow_null=True)
    limit = LimitSerializer(allow_null=True)
    follows = serializers.BooleanField()
    rests_on = serializers.ListField(child=serializers.CharField())
    used_by = serializers.IntegerField()
    step = serializers.CharField()
    note = serializers.CharField()
    draft = serializers.CharField()


class CandidateSerializer(serializers.Serializer):
    label = serializers.CharField()
    value = serializers.FloatField()
    role = serializers.CharField()


@extend_schema_field({
    "oneOf": [
        {"type": "number"}, {"type": "string"}, {"type": "boolean"}, {"type": "array", "items": {"type": "number"}},
    ],
    "nullable": True,
})  # fmt: skip
class StepValueField(serializers.JSONField):
    """Value of a step: number, text, flag or array; null where there is no limit."""


class StepSerializer(serializers.Serializer):
    id = serializers.CharField()
    quantity = serializers.CharField()
    direction = serializers.CharField(allow_null=True)
    symbol = serializers.CharField()
    symbol_tex = serializers.CharField()
    meaning = serializers.CharField()
    unit = serializers.CharField()
    value = StepValueField()
    source = serializers.ChoiceField(["input", "adopted", "pinned", "rule"])
    clause = serializers.CharField()
    tex = serializers.CharField()
    inputs = serializers.ListField(child=serializers.CharField())
    governed_by = serializers.CharField(allow_null=True)
    candidates = CandidateSerializer(many=True)
    margin = serializers.FloatField(allow_null=True)


class StepsSerializer(serializers.Serializer):
    independent = StepSerializer(many=True)
    carried = StepSerializer(many=True)


class CountsSerializer(serializers.Serializer):
    agrees = serializers.IntegerField()
    differs = serializers.IntegerField()
    breaches = serializers.IntegerField()
    gap = serializers.IntegerField()
    open = serializers.IntegerField()


class CoverageSerializer(serializers.Serializer):
    claims = serializers.IntegerField()
    recomputed = serializers.IntegerField()
    independent = serializers.IntegerField()
    unchecked = serializers.ListField(child=serializers.CharField())


class ConditionSerializer(serializers.Serializer):
    words = serializers.CharField()
    met = serializers.BooleanField(allow_null=True)
    value = serializers.FloatField(allow_null=True)
    limit = serializers.FloatField()


class TwoStageSerializer(serializers.Serializer):
    """A flexible upper part on a rigid podium: conditions, and base shears in kN."""

    conditions = ConditionSerializer(many=True)
    permitted = serializers.BooleanField(allow_null=True)
    factor = serializers.FloatField(help_text="on what the upper part hands down")
    V_upper = serializers.FloatField()
    handed_down = serializers.FloatField()
    V_lower = serializers.FloatField()
    V_base = serializers.FloatField()


class TwoStageByDirectionSerializer(serializers.Serializer):
    X = TwoStageSerializer(allow_null=True)
    Y = TwoStageSerializer(allow_null=True)


class RecheckSerializer(serializers.Serializer):
    """Result of a recheck, as the core gives it."""

    engine = serializers.CharField()
    edition = serializers.CharField()
    submission = serializers.CharField()
    stories = serializers.ListField(child=serializers.CharField())
    checks = CheckSerializer(many=True)
    origins = serializers.ListField(child=serializers.CharField())
    counts = CountsSerializer()
    coverage = CoverageSerializer()
    steps = StepsSerializer()
    modes = serializers.JSONField(allow_null=True)
    """their modes, and beside ours where our own model has been run"""
    notes = serializers.ListField(child=serializers.CharField())
    two_stage = TwoStageByDirectionSerializer()


class BriefChangeSerializer(serializers.Serializer):
    brief = BriefField()
    based_on = serializers.IntegerField()


class GovernSerializer(serializers.Serializer):
    edition = serializers.CharField(max_length=40)
    based_on = serializers.IntegerField()


class BriefStateSerializer(serializers.Serializer):
    """A brief after a change, with the recheck it leads to."""

    brief = BriefField()
    brief_number = serializers.IntegerField()
    can_undo = serializers.BooleanField()
    recheck = RecheckSerializer()


class MappingSerializer(serializers.Serializer):
    header_row = serializers.IntegerField(allow_null=True, required=False, min_value=0)
    columns = serializers.DictField(child=serializers.IntegerField(min_value=0), required=False)
    units = serializers.DictField(child=serializers.CharField(allow_blank=True), required=False)
    cases = serializers.DictField(child=serializers.ChoiceField(["X", "Y"]), required=False)
    order = serializers.ChoiceField(["", "bottom_up", "top_down"], required=False, allow_blank=True)
    both = serializers.BooleanField(required=False)


class ReadTableSerializer(serializers.Serializer):
    """A table to read: pasted text, or a sheet of an exhibit."""

    text = serializers.CharField(required=False, allow_blank=True, trim_whitespace=False, max_length=20_000_000)
    name = serializers.CharField(required=False, max_length=200)
    exhibit = serializers.IntegerField(required=False)
    sheet = serializers.CharField(required=False, allow_blank=True)
    kind = serializers.CharField(required=False, allow_blank=True)
    mapping = MappingSerializer(required=False, allow_null=True)


class CellSerializer(serializers.Serializer):
    row = serializers.IntegerField(allow_null=True)
    column = serializers.IntegerField(allow_null=True)
    message = serializers.CharField()
    remedy = serializers.CharField()


class ColumnSerializer(serializers.Serializer):
    name = serializers.CharField()
    title = serializers.CharField()
    required = serializers.BooleanField()
    units = serializers.ListField(child=serializers.CharField())


class TableReadSerializer(serializers.Serializer):
    """How a table was read, before it is accepted."""

    kind = serializers.CharField()
    kinds = serializers.ListField(child=serializers.CharField())
    sheet = serializers.CharField()
    sheets = serializers.ListField(child=serializers.CharField())
    columns = ColumnSerializer(many=True)
    rows = serializers.ListField(child=serializers.ListField(child=serializers.CharField(allow_blank=True)))
    row_count = serializers.IntegerField()
    mapping = MappingSerializer()
    problems = CellSerializer(many=True)
    skipped = serializers.ListField(child=serializers.IntegerField())
    claims = serializers.IntegerField()


class AuditSerializer(serializers.Serializer):
    at = serializers.DateTimeField()
    actor = serializers.CharField(source="actor.name")
    action = serializers.CharField()
    detail = serializers.JSONField()


class EditionInputSerializer(serializers.Serializer):
    name = serializers.CharField()
    part = serializers.ChoiceField(choices=["brief", "site", "occupancy", "system"])
    per_direction = serializers.BooleanField()
    symbol = serializers.CharField()
    symbol_tex = serializers.CharField()
    meaning = serializers.CharField()
    unit = serializers.CharField()
    form = serializers.ChoiceField(choices=["number", "text", "flag", "yes_no", "choice", "data"])
    options = serializers.ListField(child=NumberOrTextField())
    computed = serializers.BooleanField(help_text="a rule of the edition gives it where it isn't given")
    shared = serializers.BooleanField(help_text="the same under every edition")


class LateralSystemSerializer(serializers.Serializer):
    id = serializers.CharField()
    title = serializers.CharField()
    factors = serializers.DictField(child=serializers.FloatField())
    heights = serializers.DictField(
        child=serializers.FloatField(allow_null=True),
        help_text="greatest height, m, by category or zone; null: no limit",
    )


class PermissionSerializer(serializers.Serializer):
    """What the edition permits and what lowers a force: `name` in the brief's site, off unless declared."""

    name = serializers.CharField()
    words = serializers.CharField()


class EditionSerializer(serializers.Serializer):
    id = serializers.CharField()
    title = serializers.CharField()
    year = serializers.IntegerField()
    supports = serializers.ListField(child=serializers.CharField())
    period_types = serializers.ListField(child=serializers.CharField())
    formulas = serializers.ListField(child=serializers.CharField())
    choices = serializers.ListField(
        child=serializers.CharField(), help_text="what a brief can declare beside its inputs"
    )
    permissions = PermissionSerializer(many=True)
    soil_input = serializers.CharField(allow_blank=True)
    longest_period = serializers.FloatField(allow_null=True, help_text="s, beyond which the edition has no spectrum")
    inputs = EditionInputSerializer(many=True)
    systems = LateralSystemSerializer(many=True)


class AcrossCellSerializer(serializers.Serializer):
    quantity = serializers.CharField()
    symbol = serializers.CharField()
    symbol_tex = serializers.CharField()
    value = NumberOrTextField(allow_null=True)
    unit = serializers.CharField(allow_blank=True)
    step = serializers.CharField(allow_blank=True)
    governed_by = serializers.CharField(allow_null=True)
    clause = serializers.CharField(allow_blank=True)
    note = serializers.CharField(allow_blank=True)


class AcrossCellsSerializer(serializers.Serializer):
    """A value of the building (`both`), or one for each direction; absent where the edition has no such quantity."""

    edition = serializers.CharField()
    both = AcrossCellSerializer(required=False, allow_null=True)
    X = AcrossCellSerializer(required=False, allow_null=True)
    Y = AcrossCellSerializer(required=False, allow_null=True)


class AcrossRowSerializer(serializers.Serializer):
    id = serializers.CharField()
    label = serializers.CharField()
    cells = AcrossCellsSerializer(many=True)


class ProposalSerializer(serializers.Serializer):
    value = serializers.CharField()
    share = serializers.FloatField()


class NeedSerializer(serializers.Serializer):
    name = serializers.CharField()
    direction = serializers.ChoiceField(choices=["X", "Y"], allow_null=True)
    proposals = ProposalSerializer(many=True, required=False)
    basis = serializers.CharField(required=False, allow_blank=True)


class LoadCombinationSerializer(serializers.Serializer):
    name = serializers.CharField()
    factors = serializers.DictField(child=serializers.FloatField())


class WordsSerializer(serializers.Serializer):
    direction_rule = serializers.ListField(child=serializers.CharField(), required=False)
    modal_rules = serializers.ListField(child=serializers.CharField(), required=False)
    ground_notes = serializers.ListField(child=serializers.CharField(), required=False)
    static_notes = serializers.ListField(child=serializers.CharField(), required=False)
    regularity_consequences = serializers.ListField(child=serializers.CharField(), required=False)
    vertical_consequences = serializers.ListField(child=serializers.CharField(), required=False)
    drift_notes = serializers.ListField(child=serializers.CharField(), required=False)
    load_combinations = LoadCombinationSerializer(many=True, required=False)


class BuildingTestSerializer(serializers.Serializer):
    """One test of the building that an edition names."""

    group = serializers.CharField()
    direction = serializers.CharField(allow_null=True)
    words = serializers.CharField()
    state = serializers.ChoiceField(choices=["met", "not met", "there", "none", "not tested"])
    value = serializers.FloatField(allow_null=True)
    limit = serializers.FloatField(allow_null=True)
    basis = serializers.CharField(allow_blank=True)
    clause = serializers.CharField(allow_blank=True)


class AcrossEditionSerializer(serializers.Serializer):
    id = serializers.CharField()
    title = serializers.CharField()
    needs = NeedSerializer(many=True)
    measured_soil = serializers.CharField(allow_null=True, help_text="class of the soil from what was measured")
    words = WordsSerializer()
    tests = BuildingTestSerializer(many=True)


class ListsByDirectionSerializer(serializers.Serializer):
    X = serializers.ListField(child=serializers.FloatField(), allow_null=True)
    Y = serializers.ListField(child=serializers.FloatField(), allow_null=True)


class AcrossSpectrumSerializer(serializers.Serializer):
    T = serializers.ListField(child=serializers.FloatField())
    elastic = serializers.ListField(child=serializers.FloatField())
    reduced = ListsByDirectionSerializer()


class PointsSerializer(serializers.Serializer):
    T = serializers.ListField(child=serializers.FloatField())
    coefficient = serializers.ListField(child=serializers.FloatField())


class AgainstPeriodSerializer(serializers.Serializer):
    X = PointsSerializer(allow_null=True)
    Y = PointsSerializer(allow_null=True)


class PartingFactorSerializer(serializers.Serializer):
    aspect = serializers.CharField()
    factor = serializers.FloatField()
    governing = serializers.FloatField()
    other = serializers.FloatField()


class PartingSerializer(serializers.Serializer):
    edition = serializers.CharField()
    direction = serializers.ChoiceField(choices=["X", "Y"])
    ratio = serializers.FloatField()
    period = serializers.FloatField()
    factors = PartingFactorSerializer(many=True)


class CountedLoadSerializer(serializers.Serializer):
    """A load with what of it counts as seismic weight, and why."""

    name = serializers.CharField(allow_blank=True)
    kind = serializers.CharField()
    amount = serializers.FloatField()
    share = serializers.FloatField()
    counted = serializers.FloatField()
    why = serializers.CharField()


class WeightsSerializer(serializers.Serializer):
    w = serializers.ListField(child=serializers.FloatField(), allow_null=True)
    loads = serializers.ListField(child=CountedLoadSerializer(many=True), allow_null=True)


class AcrossSerializer(serializers.Serializer):
    """A brief under its governing edition and those it is compared with; maps are by edition."""

    engine = serializers.CharField()
    governing = serializers.CharField()
    editions = AcrossEditionSerializer(many=True)
    rows = AcrossRowSerializer(many=True)
    spectra = serializers.DictField(child=AcrossSpectrumSerializer(allow_null=True))
    coefficients = serializers.DictField(child=AgainstPeriodSerializer())
    story_shears = serializers.DictField(child=ListsByDirectionSerializer())
    weights = serializers.DictField(child=WeightsSerializer())
    partings = PartingSerializer(many=True)
    steps = serializers.DictField(child=StepSerializer(many=True))
