"""The API of rechecks: of a review, of a brief as it changes, and headless.

Thin: who may, what was sent, which service.
"""

from __future__ import annotations

import gzip
from collections.abc import Callable
from functools import cache
from typing import Any, ClassVar, Literal

import orjson
from django.http import Http404, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from plumb_core import ENGINE
from plumb_core.across import across as core_across
from plumb_core.catalogue import editions as core_editions
from plumb_core.causes.answer import recheck_with_causes
from plumb_core.documents.reading import read_request
from plumb_core.solve import solve as core_solve
from plumb_core.vocabulary import vocabulary as core_vocabulary
from plumb_core.what_if import Assumptions
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.requests import user_of
from plumb_server.rechecks.models import CauseSearch, SheetPage
from plumb_server.rechecks.searches import causes_of_review, search_for, stop
from plumb_server.rechecks.services import run_recheck, sensitivity_of_review, what_if_of_review
from plumb_server.reference.runs import RECHECK, run_for, too_large
from plumb_server.reference.serializers import AnsweredRunSerializer
from plumb_server.reviews import services as reviews
from plumb_server.reviews.access import Access, access
from plumb_server.reviews.models import BriefRevision
from plumb_server.submissions.views import SUBMISSION, asked_submission, chosen_submission
from plumb_server.web.limits import ComputeThrottle
from plumb_server.web.problems import ContentTooLarge
from plumb_server.web.requests import BasedOnSerializer, sent
from plumb_server.web.responses import dumped, stored_json
from plumb_server.web.schema import BriefField, core_field, core_response


class BriefChangeSerializer(serializers.Serializer[Any]):
    brief = BriefField()
    based_on = serializers.IntegerField()


class GovernSerializer(serializers.Serializer[Any]):
    edition = serializers.CharField(max_length=40)
    based_on = serializers.IntegerField()


class BriefStateSerializer(serializers.Serializer[Any]):
    """A brief after a change, with the recheck it leads to."""

    brief = BriefField()
    brief_number = serializers.IntegerField()
    can_undo = serializers.BooleanField()
    recheck = core_field("Sheet")()


def _brief_state(entry: Access, revision: BriefRevision, submission: int | None) -> HttpResponse:
    state = {
        "brief": revision.document,
        "brief_number": revision.number,
        "can_undo": revision.undo_to is not None,
    }
    sheet = run_recheck(entry.review, chosen_submission(entry, submission), revision).sheet_json
    # the sheet is put in as it is stored, not read and written anew
    body = b'%b,"recheck":%b}' % (dumped(state)[:-1], sheet)
    return HttpResponse(body, content_type="application/json")


class BriefView(APIView):
    @extend_schema(
        operation_id="brief_change",
        parameters=[SUBMISSION],
        request=BriefChangeSerializer,
        responses=BriefStateSerializer,
    )
    def put(self, request: Request, review_id: str) -> HttpResponse:
        entry = access(user_of(request), review_id)
        given = sent(BriefChangeSerializer, request)
        revision = reviews.save_brief(entry.review, user_of(request), given["brief"], given["based_on"])
        # computed when the change is kept and the review's row is free again
        return _brief_state(entry, revision, asked_submission(request))


class BriefGovernView(APIView):
    @extend_schema(
        operation_id="brief_govern", parameters=[SUBMISSION], request=GovernSerializer, responses=BriefStateSerializer
    )
    def post(self, request: Request, review_id: str) -> HttpResponse:
        entry = access(user_of(request), review_id)
        given = sent(GovernSerializer, request)
        revision = reviews.govern(entry.review, user_of(request), given["edition"], given["based_on"])
        return _brief_state(entry, revision, asked_submission(request))


class BriefUndoView(APIView):
    @extend_schema(
        operation_id="brief_undo", parameters=[SUBMISSION], request=BasedOnSerializer, responses=BriefStateSerializer
    )
    def post(self, request: Request, review_id: str) -> HttpResponse:
        entry = access(user_of(request), review_id)
        revision = reviews.undo_brief(entry.review, user_of(request), sent(BasedOnSerializer, request)["based_on"])
        return _brief_state(entry, revision, asked_submission(request))


class RecheckView(APIView):
    """The sheet; of a large one the checks that are seen first, and how many pages of others there are (`apart`)."""

    @extend_schema(operation_id="recheck_get", parameters=[SUBMISSION], responses=core_response("Sheet"))
    def get(self, request: Request, review_id: str) -> HttpResponse:
        entry = access(user_of(request), review_id)
        recheck = run_recheck(entry.review, chosen_submission(entry, asked_submission(request)))
        return stored_json(request, lambda: bytes(recheck.sheet_gz), recheck.input_hash)


class SheetPageView(APIView):
    """Checks of a large sheet that were not sent with it."""

    @extend_schema(operation_id="recheck_page", responses=core_response("CheckPage"))
    def get(self, request: Request, review_id: str, recheck: str, number: int) -> HttpResponse:
        entry = access(user_of(request), review_id)
        pages = SheetPage.objects.filter(recheck__review=entry.review, recheck__input_hash=recheck, number=number)
        page = pages.defer("checks_gz").first()
        if page is None:
            # the recheck was dropped as the review changed: the sheet is requested again
            raise Http404
        return stored_json(request, lambda: bytes(page.checks_gz), f"{recheck}-{number}")


SIDE = OpenApiParameter("side", str, enum=["independent", "carried"], required=True)
STEP = OpenApiParameter("step", str, required=True, description="id of a step, as a check names it")


class DerivationView(APIView):
    """The steps that a value of ours rests on, inputs first, itself last."""

    @extend_schema(
        operation_id="derivation_get", parameters=[SUBMISSION, SIDE, STEP], responses=core_response("Step", many=True)
    )
    def get(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        recheck = run_recheck(entry.review, chosen_submission(entry, asked_submission(request)))
        side: Literal["independent", "carried"] = (
            "carried" if request.query_params.get("side") == "carried" else "independent"
        )
        return Response(recheck.derivation(side, request.query_params.get("step", "")))


class CauseSearchSerializer(serializers.ModelSerializer[CauseSearch]):
    """How far the search for causes is."""

    class Meta:
        model = CauseSearch
        fields = ("status", "share")


class CausesView(APIView):
    """Which mistakes give exactly the submitted numbers, by weight.

    Of a large recheck they are found by a job: until it is done the answer is how far it is.
    """

    throttle_classes = [ComputeThrottle]
    RESPONSES: ClassVar = {200: core_response("Causes"), 202: CauseSearchSerializer}

    @extend_schema(operation_id="causes_get", parameters=[SUBMISSION], responses=RESPONSES)
    def get(self, request: Request, review_id: str) -> HttpResponse | Response:
        return self._found(request, review_id)

    @extend_schema(operation_id="causes_start", parameters=[SUBMISSION], request=None, responses=RESPONSES)
    def post(self, request: Request, review_id: str) -> HttpResponse | Response:
        """Search again after it was stopped."""
        return self._found(request, review_id, again=True)

    @extend_schema(
        operation_id="causes_stop",
        parameters=[SUBMISSION],
        request=None,
        responses={200: CauseSearchSerializer, 204: None},
    )
    def delete(self, request: Request, review_id: str) -> Response:
        """Stop the search."""
        entry = access(user_of(request), review_id)
        search = stop(entry.review, chosen_submission(entry, asked_submission(request)))
        return Response(CauseSearchSerializer(search).data) if search else Response(status=status.HTTP_204_NO_CONTENT)

    def _found(self, request: Request, review_id: str, *, again: bool = False) -> HttpResponse | Response:
        entry = access(user_of(request), review_id)
        submission = chosen_submission(entry, asked_submission(request))
        search = search_for(entry.review, submission, user_of(request).pk, again=again)
        if search is not None and search.status != CauseSearch.Status.DONE:
            return Response(CauseSearchSerializer(search).data, status=status.HTTP_202_ACCEPTED)
        recheck = run_recheck(entry.review, submission)
        return stored_json(request, lambda: causes_of_review(entry.review, submission), f"causes-{recheck.input_hash}")


class AssumptionsSerializer(serializers.Serializer[Any]):
    """What is otherwise: a JSON merge patch of the brief, and values of one side on the other."""

    patch = serializers.DictField(required=False, default=dict)
    theirs = serializers.ListField(child=serializers.CharField(max_length=200), required=False, max_length=200)
    ours = serializers.ListField(child=serializers.CharField(max_length=200), required=False, max_length=200)


class WhatIfView(APIView):
    """The recheck under assumptions; nothing is stored."""

    throttle_classes = [ComputeThrottle]

    @extend_schema(
        operation_id="what_if",
        parameters=[SUBMISSION],
        request=AssumptionsSerializer,
        responses=core_response("WhatIf"),
    )
    def post(self, request: Request, review_id: str) -> HttpResponse:
        entry = access(user_of(request), review_id)
        given = sent(AssumptionsSerializer, request)
        submission = chosen_submission(entry, asked_submission(request))
        assumptions = Assumptions(given["patch"], given.get("theirs", ()), given.get("ours", ()))
        answer = what_if_of_review(entry.review, submission, assumptions)
        return HttpResponse(dumped(answer), content_type="application/json")


class SensitivityView(APIView):
    """What each doubtful input changes when it is otherwise, by its greatest effect."""

    throttle_classes = [ComputeThrottle]

    @extend_schema(
        operation_id="sensitivity_get", parameters=[SUBMISSION], responses=core_response("Sensitivity", many=True)
    )
    def get(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        return Response(sensitivity_of_review(entry.review, chosen_submission(entry, asked_submission(request))))


class AcrossView(APIView):
    """The review's brief under all its editions."""

    @extend_schema(operation_id="across_get", responses=core_response("Across"))
    def get(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        return Response(core_across(entry.review.read_brief()))


class EditionsView(APIView):
    @extend_schema(operation_id="editions_list", responses=core_response("Edition", many=True))
    def get(self, request: Request) -> HttpResponse:
        return stored_json(request, lambda: _packed(core_editions), f"editions-{ENGINE}")


class VocabularyView(APIView):
    """Stages, kinds of checks and kinds of tables, with their titles."""

    @extend_schema(operation_id="vocabulary_get", responses=core_response("Vocabulary"))
    def get(self, request: Request) -> HttpResponse:
        return stored_json(request, lambda: _packed(core_vocabulary), f"vocabulary-{ENGINE}")


@cache
def _packed(reported: Callable[[], Any]) -> bytes:
    """What never changes while the engine is the same, as it is sent."""
    return gzip.compress(orjson.dumps(reported()), mtime=0)


MOST_CLAIMS = 20_000
"""Claims of a recheck document that is rechecked in the request; larger documents are submitted as tables."""


class SolveView(APIView):
    """The headless contract: one request document, one result.

    A model too large to be solved at once gives a run to look at.
    """

    throttle_classes = [ComputeThrottle]

    @extend_schema(
        operation_id="solve",
        request=OpenApiTypes.OBJECT,
        responses={200: core_response("Solved"), 202: AnsweredRunSerializer},
    )
    def post(self, request: Request) -> Response:
        document = request.data
        if not isinstance(document, dict) or not too_large(document):
            return Response(core_solve(document))
        read_request(document)
        return _as_run(document, str(document["kind"]), request)


def _as_run(document: dict[str, Any], kind: str, request: Request) -> Response:
    """The answer to a document that takes long, where it is there, else the run that finds it."""
    run = run_for(None, kind, document, asked_by=user_of(request))
    reported = status.HTTP_202_ACCEPTED if run.open else status.HTTP_200_OK
    return Response(AnsweredRunSerializer(run).data if run.result is None else run.result, status=reported)


class HeadlessRecheckView(APIView):
    """The headless contract: one recheck document, its checks and origins.

    A document whose model is too large to be solved at once gives a run to look at.
    """

    throttle_classes = [ComputeThrottle]

    @extend_schema(
        operation_id="recheck",
        request=OpenApiTypes.OBJECT,
        responses={200: core_response("Recheck"), 202: AnsweredRunSerializer},
    )
    def post(self, request: Request) -> Response:
        document = request.data
        if not isinstance(document, dict):
            return Response(recheck_with_causes(document))
        _require_size(document)
        if too_large(document):
            return _as_run(document, RECHECK, request)
        return Response(recheck_with_causes(document))


def _require_size(document: dict[str, Any]) -> None:
    """Raise ContentTooLarge for a recheck document that takes longer than a request may."""
    submission = document.get("submission")
    claims = submission.get("claims") if isinstance(submission, dict) else None
    if isinstance(claims, list) and len(claims) > MOST_CLAIMS:
        words = f"the document has {len(claims)} claims; at most {MOST_CLAIMS} are rechecked at once"
        raise ContentTooLarge(words, "Create a review and upload its tables.", "/submission/claims")
