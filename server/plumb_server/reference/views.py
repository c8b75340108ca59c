"""The API of the reference model; thin: who may, what was sent, which service."""

from __future__ import annotations

import base64
from typing import Any

from django.http import Http404
from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema
from plumb_core.intake.cells import UNITS
from plumb_core.intake.model_tables import model_table_kinds
from plumb_core.intake.model_tables.frame import frame_of_tables
from rest_framework import status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from plumb_server.accounts.requests import user_of
from plumb_server.reference import runs, services
from plumb_server.reference.models import ModelRevision, Run, current_model
from plumb_server.reference.serializers import (
    AnsweredRunSerializer,
    AskSerializer,
    BuildFrameSerializer,
    BuiltFrameSerializer,
    FrameTableReadSerializer,
    FrameTableSerializer,
    ModelChangeSerializer,
    ModelStateSerializer,
    ReadRecordSerializer,
    RecordSerializer,
)
from plumb_server.reviews.access import access
from plumb_server.web.problems import UnprocessableContent
from plumb_server.web.requests import BasedOnSerializer, sent


def _state(revision: ModelRevision | None) -> dict[str, Any]:
    if revision is None:
        return {"number": 0, "can_undo": False, "model": {}}
    return {"number": revision.number, "can_undo": revision.undo_to is not None, "model": revision.document}


class ModelView(APIView):
    @extend_schema(operation_id="model_get", responses=ModelStateSerializer)
    def get(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        return Response(_state(current_model(entry.review)))

    @extend_schema(operation_id="model_change", request=ModelChangeSerializer, responses=ModelStateSerializer)
    def put(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        given = sent(ModelChangeSerializer, request)
        return Response(_state(services.save_model(entry.review, user_of(request), given["model"], given["based_on"])))


class ModelUndoView(APIView):
    @extend_schema(operation_id="model_undo", request=BasedOnSerializer, responses=ModelStateSerializer)
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        based_on = sent(BasedOnSerializer, request)["based_on"]
        return Response(_state(services.undo_model(entry.review, user_of(request), based_on)))


class FrameView(APIView):
    """A frame from a grid or from tables; nothing is saved."""

    @extend_schema(operation_id="frame_build", request=BuildFrameSerializer, responses=BuiltFrameSerializer)
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        given = sent(BuildFrameSerializer, request)
        if "grid" in given:
            return Response({"frame": services.built_frame(entry.review, given["grid"])})
        return Response({"frame": frame_of_tables(given.get("tables", {}))})


SHOWN_ROWS = 60


class FrameTableView(APIView):
    """Read a table of a frame; nothing is saved."""

    @extend_schema(operation_id="frame_table", request=FrameTableSerializer, responses=FrameTableReadSerializer)
    def post(self, request: Request, review_id: str) -> Response:
        access(user_of(request), review_id)
        given = sent(FrameTableSerializer, request)
        try:
            data = base64.b64decode(given["content"], validate=True) if "content" in given else given.get("text", "")
        except ValueError:
            raise UnprocessableContent(
                [{"path": "/content", "message": "the file arrived incomplete", "remedy": "Choose it again."}]
            ) from None
        how = {k: given[k] for k in ("kind", "columns", "units") if given.get(k)}
        if how.get("kind", "nodes") not in model_table_kinds():
            raise UnprocessableContent(
                [
                    {
                        "path": "/kind",
                        "message": f"{how['kind']!r} is not a table of a frame",
                        "remedy": f"Use one of: {', '.join(model_table_kinds())}.",
                    }
                ]
            )
        sheet, read, names = services.read_table(data, given["name"], given["sheet"], **how)
        known = [
            {
                "name": c.name,
                "title": c.title,
                "required": c.required,
                "units": [] if c.unit is None else list(UNITS[c.unit]),
            }
            for c in model_table_kinds()[read.kind].columns
        ]
        return Response(
            FrameTableReadSerializer(
                {
                    "kind": read.kind,
                    "sheet": sheet.name,
                    "sheets": names,
                    "header": read.header,
                    "columns": read.columns,
                    "units": read.units,
                    "known": known,
                    "problems": read.problems,
                    "cells": [[c.text for c in row] for row in sheet.rows[:SHOWN_ROWS]],
                    "rows": read.rows if not read.problems else [],
                }
            ).data
        )


class RecordView(APIView):
    """Read a ground record, as the model keeps one; nothing is saved."""

    @extend_schema(operation_id="record_read", request=ReadRecordSerializer, responses=RecordSerializer)
    def post(self, request: Request, review_id: str) -> Response:
        access(user_of(request), review_id)
        given = sent(ReadRecordSerializer, request)
        return Response(services.read_ground(given["text"], given["unit"], given.get("dt")))


class RunsView(APIView):
    """Ask the model; the answer comes with the run where it is there, else the run is assessed until it is."""

    @extend_schema(operation_id="run_ask", request=AskSerializer, responses=AnsweredRunSerializer)
    def post(self, request: Request, review_id: str) -> Response:
        entry = access(user_of(request), review_id)
        run = services.ask(entry.review, sent(AskSerializer, request)["kind"], user_of(request).pk)
        return Response(
            AnsweredRunSerializer(run).data, status=status.HTTP_202_ACCEPTED if run.open else status.HTTP_200_OK
        )


def _run_of_user(request: Request, run_id: str) -> Run:
    run = get_object_or_404(Run.objects.select_related("review").defer("request"), pk=run_id)
    if run.review_id is not None:
        access(user_of(request), run.review_id)
    elif run.asked_by_id != user_of(request).pk:
        raise Http404
    return run


class RunView(APIView):
    @extend_schema(operation_id="run_get", responses=AnsweredRunSerializer)
    def get(self, request: Request, run_id: str) -> Response:
        return Response(AnsweredRunSerializer(_run_of_user(request, run_id)).data)


class RunCancelView(APIView):
    @extend_schema(operation_id="run_cancel", request=None, responses=AnsweredRunSerializer)
    def post(self, request: Request, run_id: str) -> Response:
        return Response(AnsweredRunSerializer(runs.cancel(_run_of_user(request, run_id))).data)
