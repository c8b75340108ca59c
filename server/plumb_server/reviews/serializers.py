"""Shapes of what the API takes and gives for reviews."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from plumb_server.reviews.models import Review, Role
from plumb_server.web.schema import BriefField


class MemberSerializer(serializers.Serializer[Any]):
    active = serializers.BooleanField(source="user.is_active")
    id = serializers.IntegerField(source="user.id")
    name = serializers.CharField(source="user.name")
    firm = serializers.CharField(source="user.firm")
    role = serializers.ChoiceField(Role.choices)


class NewMemberSerializer(serializers.Serializer[Any]):
    email = serializers.EmailField(max_length=254)
    role = serializers.ChoiceField(Role.choices)


class RoleSerializer(serializers.Serializer[Any]):
    role = serializers.ChoiceField(Role.choices)


class PlaceSerializer(serializers.Serializer[Any]):
    """A role that is held for somebody who is invited."""

    id = serializers.IntegerField()
    email = serializers.CharField(source="invitation.email")
    role = serializers.ChoiceField(Role.choices)
    expires_at = serializers.DateTimeField(source="invitation.expires_at")


class AddedSerializer(serializers.Serializer[Any]):
    """What came of adding somebody: a member, or an invitation."""

    member = MemberSerializer(allow_null=True)
    invited = PlaceSerializer(allow_null=True)


class ReviewSerializer(serializers.ModelSerializer[Any]):
    """A review in the list."""

    role = serializers.ChoiceField(Role.choices)
    edition = serializers.CharField()
    submission = serializers.SerializerMethodField(help_text="label of the latest submission")
    open_findings = serializers.IntegerField(help_text="findings that the member sees and that are not closed")

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

    def get_submission(self, review: Review) -> str | None:
        # annotated by the view
        number = getattr(review, "submission_number", None)
        return None if number is None else f"S{number}"


class NewReviewSerializer(serializers.Serializer[Any]):
    title = serializers.CharField(max_length=120)
    place = serializers.CharField(max_length=120, required=False, allow_blank=True)
    client = serializers.CharField(max_length=120, required=False, allow_blank=True)
    description = serializers.CharField(max_length=2000, required=False, allow_blank=True)
    brief = BriefField()


@extend_schema_field({"type": "array", "items": {"$ref": "#/components/schemas/Submission"}})
class SubmissionsField(serializers.Field[Any, Any, Any, Any]):
    """The submissions of a review, stated by themselves: a review knows of none of what is built upon it."""

    def to_representation(self, submissions: Any) -> list[dict[str, Any]]:
        reported: list[dict[str, Any]] = submissions.reported()
        return reported


class ImportedSerializer(serializers.Serializer[Any]):
    """Where a review came from."""

    exported_by = serializers.CharField(allow_blank=True)
    exported_at = serializers.CharField(allow_null=True)


class ReviewDetailSerializer(serializers.ModelSerializer[Any]):
    """A review with all that its screens start from."""

    role = serializers.ChoiceField(Role.choices)
    team = MemberSerializer(many=True)
    invited = PlaceSerializer(many=True)
    brief = BriefField()
    brief_number = serializers.IntegerField()
    can_undo = serializers.BooleanField()
    submissions = SubmissionsField()
    imported = ImportedSerializer(source="origin", allow_null=True)

    class Meta:
        model = Review
        fields = [
            "id",
            "title",
            "place",
            "client",
            "description",
            "status",
            "created_at",
            "role",
            "team",
            "invited",
            "brief",
            "brief_number",
            "can_undo",
            "submissions",
            "revision",
            "imported",
        ]


class ReviewChangeSerializer(serializers.ModelSerializer[Any]):
    class Meta:
        model = Review
        fields = ["title", "place", "client", "description", "status"]


class AuditSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    at = serializers.DateTimeField()
    actor = serializers.CharField(source="actor.name")
    action = serializers.CharField()
    detail = serializers.JSONField()
