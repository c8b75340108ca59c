"""The API of profiles: how the tables of a firm were read, kept under a name as proposals for its next ones.

A profile is there for its author and for who is on the team of a review with its author.
"""

from __future__ import annotations

from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import Q, QuerySet
from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema, extend_schema_field
from plumb_core.intake.profiles import Profile, TableProfile, learned, proposed_by, read_profile
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.submission import Remembered
from plumb_core.intake.tables import table_kinds
from rest_framework import serializers, status
from rest_framework.exceptions import PermissionDenied
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.models import User
from plumb_server.accounts.requests import user_of
from plumb_server.reviews.access import TEAM, access
from plumb_server.reviews.models import Membership
from plumb_server.submissions.models import ReadingProfile, Submission
from plumb_server.submissions.serializers import ColumnSerializer, column_json
from plumb_server.submissions.services import remembered_of
from plumb_server.web.problems import Conflict, PreconditionFailed
from plumb_server.web.requests import IF_MATCH, based_on, sent
from plumb_server.web.schema import core_field

MOST_PROFILES = 200
"""Of one author."""


def profiles_of(user: User) -> QuerySet[ReadingProfile]:
    """The profiles that a person can see: own ones, and those of the people on the teams of the person's reviews."""
    reviews = Membership.objects.filter(user=user, role__in=TEAM).values("review")
    colleagues = Membership.objects.filter(review__in=reviews, role__in=TEAM).values("user")
    return ReadingProfile.objects.select_related("author").filter(Q(author=user) | Q(author__in=colleagues))


def proposal_for(user: User, sheet: Sheet, kind: str) -> dict[str, Any] | None:
    """How the newest profile with a table of these headings proposes to read a sheet; None for none.

    kind : that the reviewer has chosen; empty for none
    """
    for profile in profiles_of(user).order_by("-updated_at", "-pk"):
        entries = [TableProfile.model_validate(t) for t in profile.tables]
        if (proposed := proposed_by(entries, sheet, kind)) is not None:
            return {"id": profile.pk, "name": profile.name, "kind": proposed[0], "reading": vars(proposed[1])}
    return None


class ProfileSerializer(serializers.ModelSerializer[Any]):
    """A profile; `tables` as `plumb schema profile` describes them."""

    author = serializers.CharField(source="author.name", read_only=True)
    own = serializers.SerializerMethodField()
    tables = core_field("TableProfile", many=True)()
    columns = serializers.SerializerMethodField(help_text="columns that its kinds of table can have")

    class Meta:
        model = ReadingProfile
        fields = ["id", "name", "author", "own", "tables", "columns", "revision", "updated_at"]

    def get_own(self, profile: ReadingProfile) -> bool:
        return bool(profile.author_id == self.context["user"].pk)

    @extend_schema_field(serializers.DictField(child=ColumnSerializer(many=True)))
    def get_columns(self, profile: ReadingProfile) -> dict[str, Any]:
        kinds = table_kinds()
        used = {t["kind"] for t in profile.tables} & kinds.keys()
        return {kind: [column_json(c) for c in kinds[kind].columns] for kind in sorted(used)}


class ProfileDocumentSerializer(serializers.Serializer[Any]):
    """A profile as it is exported and imported."""

    name = serializers.CharField(max_length=80)
    tables = core_field("TableProfile", many=True)()


class ProfileNameSerializer(serializers.Serializer[Any]):
    """The name of the profile that the answers of a submission go to."""

    name = serializers.CharField(max_length=80)


def _shown(profile: ReadingProfile, user: User) -> dict[str, Any]:
    return dict(ProfileSerializer(profile, context={"user": user}).data)


def _make(user: User, profile: Profile) -> ReadingProfile:
    """Create a profile; refused where its author has one of this name, or too many."""
    if ReadingProfile.objects.filter(author=user).count() >= MOST_PROFILES:
        raise Conflict(f"you have {MOST_PROFILES} profiles", "Delete one first.", "/name")
    try:
        with transaction.atomic():
            return ReadingProfile.objects.create(author=user, **profile.model_dump(mode="json"))
    except IntegrityError:
        words = f"you have a profile named {profile.name!r} already"
        raise Conflict(words, "Choose another name.", "/name") from None


class ProfilesView(APIView):
    @extend_schema(operation_id="profiles_list", responses=ProfileSerializer(many=True))
    def get(self, request: Request) -> Response:
        user = user_of(request)
        return Response([_shown(p, user) for p in profiles_of(user).order_by("name", "pk")])

    @extend_schema(operation_id="profile_import", request=ProfileDocumentSerializer, responses={201: ProfileSerializer})
    def post(self, request: Request) -> Response:
        profile = _make(user_of(request), read_profile(sent(ProfileDocumentSerializer, request)))
        return Response(_shown(profile, user_of(request)), status=status.HTTP_201_CREATED)


class ProfileView(APIView):
    def profile(self, request: Request, profile_id: int) -> ReadingProfile:
        return get_object_or_404(profiles_of(user_of(request)), pk=profile_id)

    @extend_schema(operation_id="profile_get", responses=ProfileSerializer)
    def get(self, request: Request, profile_id: int) -> Response:
        return Response(_shown(self.profile(request, profile_id), user_of(request)))

    @extend_schema(
        operation_id="profile_change",
        request=ProfileDocumentSerializer,
        responses=ProfileSerializer,
        parameters=[IF_MATCH],
    )
    def put(self, request: Request, profile_id: int) -> Response:
        stored = self.profile(request, profile_id)
        given = read_profile(sent(ProfileDocumentSerializer, request))
        with transaction.atomic():
            stored = ReadingProfile.objects.select_for_update(of=("self",)).get(pk=stored.pk)
            if stored.revision != based_on(request):
                words = f"the profile {stored.name} was changed in the meantime"
                raise PreconditionFailed([{"path": "/", "message": words, "remedy": "Load it again."}])
            taken = ReadingProfile.objects.filter(author=stored.author_id, name=given.name).exclude(pk=stored.pk)
            if taken.exists():
                words = f"there is a profile named {given.name!r} already"
                raise Conflict(words, "Choose another name.", "/name")
            stored.name, stored.tables = given.name, given.model_dump(mode="json")["tables"]
            stored.revision += 1
            stored.save()
        return Response(_shown(stored, user_of(request)))

    @extend_schema(operation_id="profile_delete", responses={204: None})
    def delete(self, request: Request, profile_id: int) -> Response:
        profile = self.profile(request, profile_id)
        if profile.author_id != user_of(request).pk:
            raise PermissionDenied("only its author deletes a profile")
        profile.delete()
        return Response(status=status.HTTP_204_NO_CONTENT)


class SubmissionProfileView(APIView):
    @extend_schema(operation_id="profile_learn", request=ProfileNameSerializer, responses={201: ProfileSerializer})
    def post(self, request: Request, submission_id: int) -> Response:
        """Keep the answers for the accepted tables of a submission in the own profile of a name, new or not."""
        submission = get_object_or_404(Submission.objects.select_related("review"), pk=submission_id)
        user = user_of(request)
        access(user, submission.review_id, TEAM)
        name = sent(ProfileNameSerializer, request)["name"]
        tables = remembered_of(submission)
        if not tables:
            raise Conflict("no table of this submission is accepted yet", "Accept its tables first.")
        with transaction.atomic():
            stored = ReadingProfile.objects.select_for_update().filter(author=user, name=name).first()
            before = [TableProfile.model_validate(t) for t in stored.tables] if stored else []
            profile = Profile(name=name, tables=learned(map(_learnt, tables), before))
            if stored is None:
                stored = _make(user, profile)
            else:
                stored.tables = profile.model_dump(mode="json")["tables"]
                stored.revision += 1
                stored.save()
        return Response(_shown(stored, user), status=status.HTTP_201_CREATED)


def _learnt(table: Remembered) -> tuple[str, tuple[str, ...], Any]:
    return table.kind, table.heading, table.reading
