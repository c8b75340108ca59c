"""The API of the reviewer's own model; thin: who may, what was sent, which service."""

from __future__ import annotations

from typing import Any

from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema
from rest_framework import status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.reference import runs, services
from plumb_server.reference.models import ModelRevision, Run
from plumb_server.reference.serializers import (
    AnsweredRunSerializer,
    AskSerializer,
    ModelChangeSerializer,
    ModelStateSerializer,
)
from plumb_server.reviews.access import access
from plumb_server.reviews.services import current_model
from plumb_server.web.requests import sent


def _state(revision: ModelRevision | None) -> dict[str, Any]:
    if revision is None:
        return {"number": 0, "can_undo": False, "model": {}}
    return {"number": revision.number, "can_undo": revision.undo_to is not None, "model": revision.model}


class ModelView(APIView):
    @extend_schema(operation_id="model_get", responses=ModelStateSerializer)
    def get(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        return Response(_state(current_model(own.review)))

    @extend_schema(operation_id="model_change", request=ModelChangeSerializer, responses=ModelStateSerializer)
    def put(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        given = sent(ModelChangeSerializer, request)
        return Response(_state(services.save_model(own.review, request.user, given["model"], given["based_on"])))


class ModelUndoView(APIView):
    @extend_schema(operation_id="model_undo", request=None, responses=ModelStateSerializer)
    def post(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        return Response(_state(services.undo_model(own.review, request.user)))


class RunsView(APIView):
    """Ask the model; the answer comes with the run where it is there, else the run is looked at until it is."""

    @extend_schema(operation_id="run_ask", request=AskSerializer, responses=AnsweredRunSerializer)
    def post(self, request: Request, review_id: str) -> Response:
        own = access(request.user, review_id)
        run = services.ask(own.review, sent(AskSerializer, request)["kind"])
        return Response(
            AnsweredRunSerializer(run).data, status=status.HTTP_202_ACCEPTED if run.open else status.HTTP_200_OK
        )


def _own_run(request: Request, run_id: str) -> Run:
    run = get_object_or_404(Run.objects.select_related("review").defer("request"), pk=run_id)
    access(request.user, run.review_id)
    return run


class RunView(APIView):
    @extend_schema(operation_id="run_get", responses=AnsweredRunSerializer)
    def get(self, request: Request, run_id: str) -> Response:
        return Response(AnsweredRunSerializer(_own_run(request, run_id)).data)


class RunCancelView(APIView):
    @extend_schema(operation_id="run_cancel", request=None, responses=AnsweredRunSerializer)
    def post(self, request: Request, run_id: str) -> Response:
        return Response(AnsweredRunSerializer(runs.cancel(_own_run(request, run_id))).data)
