"""The office's library of remarks: texts with placeholders for the values of a check."""

from __future__ import annotations

import re
from typing import Any

from django.db import IntegrityError, transaction
from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.utils import OpenApiParameter, extend_schema
from plumb_core.checks.wording import figures
from plumb_core.editions import EDITIONS
from rest_framework import serializers, status
from rest_framework.exceptions import PermissionDenied
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.models import User
from plumb_server.accounts.requests import user_of
from plumb_server.findings.models import Finding, Remark
from plumb_server.rechecks.services import run_recheck
from plumb_server.reviews.access import TEAM, access
from plumb_server.submissions.views import SUBMISSION, asked_submission, chosen_submission
from plumb_server.web.problems import Conflict, PreconditionFailed, UnprocessableContent
from plumb_server.web.requests import IF_MATCH, based_on, sent
from plumb_server.web.responses import dumped

FORMAT, FORMAT_VERSION = "plumb-remarks", 1
MOST_REMARKS = 2_000
_PLACEHOLDER = re.compile(r"\{([^{}]*)\}")


def values_of(check: dict[str, Any], edition: str) -> dict[str, str]:
    """What the placeholders of a text stand for at a check; empty where the check has no such value."""
    stated = check["theirs"] or {}
    ours = check[check["shown"]] if check["shown"] else check["carried"] or check["independent"]
    unit = check["unit"].replace("*", " ")
    source = stated.get("source") or {}
    deviation = None if ours is None else ours["deviation"]
    limit = check["limit"]
    return {
        "label": check["label"],
        "meaning": check["meaning"],
        "clause": check["clause"],
        "edition": EDITIONS[edition].title if edition in EDITIONS else edition,
        "story": check["story"] or "",
        "case": check["case"],
        "direction": check["direction"] or "",
        "submitted": f"{stated['text']} {stated['unit'] or unit}".strip() if stated else "",
        "recomputed": "" if ours is None else f"{figures(ours['value'])} {unit}".strip(),
        "deviation": "" if deviation is None else f"{100 * deviation:+.1f} %".replace("-", "−"),
        "limit": f"{figures(limit['value'])} {unit}".strip() if limit else "",
        "file": source.get("file") or "",
    }


PLACEHOLDERS = (
    *("label", "meaning", "clause", "edition", "story", "case", "direction"),
    *("submitted", "recomputed", "deviation", "limit", "file"),
)
LONGEST_FIRST = ("submitted", "recomputed", "limit", "deviation", "edition", "label", "clause", "file", "case")
"""Values that are replaced by placeholders where a text goes into the library."""


def filled(text: str, values: dict[str, str]) -> str:
    """A text with the values of a check; a placeholder of which it has none stays as it is."""
    return _PLACEHOLDER.sub(lambda found: values.get(found[1]) or found[0], text)


def with_placeholders(text: str, values: dict[str, str]) -> str:
    """A text with the values of a check replaced by placeholders."""
    for name in LONGEST_FIRST:
        value = values[name]
        # a number alone would be found inside of others
        if len(value) > 1:
            text = re.sub(rf"(?<![\w.]){re.escape(value)}(?![\w])", f"{{{name}}}", text)
    return text


class RemarkSerializer(serializers.ModelSerializer[Any]):
    author = serializers.CharField(source="author.name", read_only=True)

    class Meta:
        model = Remark
        fields = ["id", "code", "title", "text", "author", "changed_at", "revision"]
        read_only_fields = ["id", "changed_at", "revision"]
        # whether there is one already is said in words of ours
        validators: list[Any] = []

    def validate_text(self, text: str) -> str:
        unknown = sorted(set(_PLACEHOLDER.findall(text)) - set(PLACEHOLDERS))
        if unknown:
            words = ", ".join(f"{{{name}}}" for name in unknown)
            raise serializers.ValidationError(f"unknown: {words}; there are {', '.join(PLACEHOLDERS)}")
        return text


class OfferedRemarkSerializer(serializers.Serializer[Any]):
    """A remark of the library with the values of a check."""

    id = serializers.IntegerField()
    code = serializers.CharField()
    title = serializers.CharField()
    text = serializers.CharField()


class LibrarySerializer(serializers.Serializer[Any]):
    """The library as it is exported and imported."""

    format = serializers.ChoiceField([FORMAT])
    version = serializers.ChoiceField([FORMAT_VERSION])
    remarks = RemarkSerializer(many=True, max_length=MOST_REMARKS)  # type: ignore[call-arg]


class AddedRemarksSerializer(serializers.Serializer[Any]):
    added = serializers.IntegerField()
    known = serializers.IntegerField()


def _of_office(request: Request) -> User:
    user = user_of(request)
    if not user.of_office:
        raise PermissionDenied("the library of remarks is the office's; its administrator grants belonging to it")
    return user


def _stored(user: User, **fields: Any) -> Remark:
    if Remark.objects.count() >= MOST_REMARKS:
        raise Conflict(f"the library has {MOST_REMARKS} remarks, the maximum", "Delete some first.")
    try:
        with transaction.atomic():
            return Remark.objects.create(author=user, **fields)
    except IntegrityError:
        raise _known(fields["title"]) from None


def _known(title: str) -> Conflict:
    return Conflict(f"the library has a remark {title!r} of this code", "Give it another title.", "/title")


class RemarksView(APIView):
    @extend_schema(operation_id="remarks_list", responses=RemarkSerializer(many=True))
    def get(self, request: Request) -> Response:
        _of_office(request)
        return Response(RemarkSerializer(Remark.objects.select_related("author"), many=True).data)

    @extend_schema(operation_id="remark_add", request=RemarkSerializer, responses={201: RemarkSerializer})
    def post(self, request: Request) -> Response:
        made = _stored(_of_office(request), **sent(RemarkSerializer, request))
        return Response(RemarkSerializer(made).data, status=status.HTTP_201_CREATED)


class RemarkView(APIView):
    @extend_schema(
        operation_id="remark_change", request=RemarkSerializer, responses=RemarkSerializer, parameters=[IF_MATCH]
    )
    def patch(self, request: Request, remark_id: int) -> Response:
        _of_office(request)
        revision = based_on(request)
        given = RemarkSerializer(data=request.data, partial=True)
        given.is_valid(raise_exception=True)
        with transaction.atomic():
            stored = get_object_or_404(Remark.objects.select_for_update(), pk=remark_id)
            if stored.revision != revision:
                remedy = "Load the library again, then change it."
                words = "the remark was changed in the meantime"
                raise PreconditionFailed([{"path": "/", "message": words, "remedy": remedy}])
            for name, value in given.validated_data.items():
                setattr(stored, name, value)
            stored.revision += 1
            try:
                with transaction.atomic():
                    stored.save()
            except IntegrityError:
                raise _known(stored.title) from None
        return Response(RemarkSerializer(stored).data)

    @extend_schema(operation_id="remark_delete", request=None, responses={204: None})
    def delete(self, request: Request, remark_id: int) -> Response:
        _of_office(request)
        get_object_or_404(Remark, pk=remark_id).delete()
        return Response(status=status.HTTP_204_NO_CONTENT)


class LibraryView(APIView):
    @extend_schema(operation_id="remarks_export", responses=LibrarySerializer)
    def get(self, request: Request) -> HttpResponse:
        """The library as a JSON file."""
        _of_office(request)
        remarks = [{"code": r.code, "title": r.title, "text": r.text} for r in Remark.objects.all()]
        answer = HttpResponse(
            dumped({"format": FORMAT, "version": FORMAT_VERSION, "remarks": remarks}), content_type="application/json"
        )
        answer.headers["Content-Disposition"] = 'attachment; filename="remarks.json"'
        return answer

    @extend_schema(operation_id="remarks_import", request=LibrarySerializer, responses=AddedRemarksSerializer)
    def post(self, request: Request) -> Response:
        """Add the remarks of a file, all of them or none; those that the library has already are left as they are."""
        user = _of_office(request)
        given = sent(LibrarySerializer, request)["remarks"]
        known = set(Remark.objects.values_list("code", "title"))
        by_name = {(r.get("code", ""), r["title"]): r for r in given}
        fresh = [each for name, each in by_name.items() if name not in known]
        with transaction.atomic():
            for each in fresh:
                _stored(user, **each)
        return Response({"added": len(fresh), "known": len(given) - len(fresh)})


class OfferedView(APIView):
    """Remarks of the library for a check, those of its code first."""

    @extend_schema(
        operation_id="remarks_offered",
        parameters=[SUBMISSION, OpenApiParameter("check", str, required=True)],
        responses=OfferedRemarkSerializer(many=True),
    )
    def get(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id, TEAM)
        if not entry.user.of_office:
            return Response([])
        recheck = run_recheck(entry.review, chosen_submission(entry, asked_submission(request)))
        wanted = request.query_params.get("check", "")
        check = next((c for c in recheck.sheet["checks"] if c["id"] == wanted), None)
        if check is None:
            words = f"there is no check {wanted!r} in the recheck of this submission"
            remedy = "Choose the check again on the sheet."
            raise UnprocessableContent([{"path": "/check", "message": words, "remedy": remedy}])
        values = values_of(check, recheck.sheet["edition"])
        of_code = Remark.objects.filter(code__in={"", check["slip"] or ""}).order_by("-code", "title")
        offered = [{"id": r.pk, "code": r.code, "title": r.title, "text": filled(r.text, values)} for r in of_code]
        return Response(offered)


class TakeView(APIView):
    """Add the text of a finding to the library, its values as placeholders."""

    @extend_schema(operation_id="remark_from_finding", request=None, responses={201: RemarkSerializer})
    def post(self, request: Request, finding_id: int) -> Response:
        finding = get_object_or_404(Finding.objects.select_related("review"), pk=finding_id)
        access(user_of(request), finding.review_id, TEAM)
        user = _of_office(request)
        text, title, code = finding.text, finding.title, ""
        if finding.evidence:
            check = finding.evidence[0]
            values = values_of(check, finding.review.current_brief().document["edition"])
            text, code = with_placeholders(text, values), check.get("slip") or ""
        made = _stored(user, code=code, title=title, text=text)
        return Response(RemarkSerializer(made).data, status=status.HTTP_201_CREATED)
