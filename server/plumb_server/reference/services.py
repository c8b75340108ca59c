"""The reviewer's reference model: its states, and asking it."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from plumb_core.answers.reference_model import request_to, story_weights
from plumb_core.documents.model import RECORD_VALUES, Grid, ReferenceModel
from plumb_core.documents.reading import read
from plumb_core.errors import InputRefused, Problem
from plumb_core.grid import frame_of_grid
from plumb_core.intake.model_tables.kind import ModelTableRead
from plumb_core.intake.reading import read_model_table
from plumb_core.intake.records import read_record
from plumb_core.intake.sheet_documents import sheets_of
from plumb_core.intake.sheets import Sheet, SheetRefused, read_text

from plumb_server.accounts.models import User
from plumb_server.reference.models import ModelRevision, Run, current_model
from plumb_server.reference.runs import run_for
from plumb_server.reviews.models import Review
from plumb_server.reviews.states import next_state, undone
from plumb_server.web.reader_process import read_in_process

# the model


def canonical_model(model: Any) -> dict[str, Any]:
    """A model as the core reads it; raises InputRefused naming every problem."""
    return read(ReferenceModel, model).model_dump(mode="json", exclude_none=True, exclude_defaults=True)


@transaction.atomic
def save_model(review: Review, user: User, model: Any, based_on: int) -> ModelRevision:
    """A new state of the model; refused where somebody else changed it meanwhile.  `based_on` 0: there was none."""
    checked = canonical_model(model)
    review.locked()
    saved = next_state(ModelRevision, review, user, checked, based_on, "model")
    if saved is None:
        return review.model_revisions.get(number=based_on)
    review.record(user, "model changed", number=saved.number)
    return saved


@transaction.atomic
def undo_model(review: Review, user: User, based_on: int) -> ModelRevision:
    """Back to the state before the last change that is not undone yet.

    Refused where somebody changed it in the meantime.
    """
    review.locked()
    saved, restored = undone(ModelRevision, review, user, based_on, "model")
    review.record(user, "model change undone", number=saved.number, restores=restored)
    return saved


# frames from a grid and from tables


def built_frame(review: Review, grid: Any) -> dict[str, Any]:
    """The frame of a grid over the brief's stories; raises InputRefused naming what does not fit."""
    brief = review.read_brief()
    stories = [(s.name, s.height, w) for s, w in zip(brief.stories, story_weights(brief), strict=True)]
    return frame_of_grid(read(Grid, grid), stories)


def read_table(data: str | bytes, name: str, sheet: str, **how: Any) -> tuple[Sheet, ModelTableRead, list[str]]:
    """(the sheet, what was made of it, names of all sheets) of a pasted or uploaded table of a frame."""
    try:
        sheets = [read_text(data, name)] if isinstance(data, str) else _read_apart(data, name)
    except SheetRefused as refused:
        path = "/text" if isinstance(data, str) else "/file"
        raise InputRefused([Problem(path, refused.message, refused.remedy)]) from None
    names = [s.name for s in sheets]
    chosen = sheets[names.index(sheet) if sheet in names else 0]
    return chosen, read_model_table(chosen, **how), names


READ_SECONDS = 5
"""s of processor time that a workbook of a frame may take."""


def _read_apart(data: bytes, name: str) -> list[Sheet]:
    """The sheets of a file, read in a process of its own; raises SheetRefused where it takes too much."""
    reported = read_in_process(data, name, READ_SECONDS, plain=True)
    if "tables" not in reported:
        raise SheetRefused(reported["refused"]["message"], reported["refused"]["remedy"])
    return sheets_of(reported["tables"])


# ground records


def read_ground(text: str, unit: str, dt: float | None) -> dict[str, Any]:
    """A record as the model keeps it, with how it was read; raises InputRefused naming what is missing."""
    record = read_record(text, unit, dt)
    if len(record["a"]) > RECORD_VALUES:
        raise InputRefused(
            [
                Problem(
                    "/a",
                    f"the record has {len(record['a'])} values; at most {RECORD_VALUES} are accepted",
                    "Shorten it to its strong part, or give every second value.",
                )
            ]
        )
    return record


# asking


def _question(review: Review, kind: str) -> dict[str, Any]:
    """The request of a kind that asks the review's reference model in its present state.

    Raises InputRefused where there is none.
    """
    current = current_model(review)
    model = read(ReferenceModel, current.document if current else {})
    return request_to(kind, review.read_brief(), model)


def ask(review: Review, kind: str, member: int | None = None) -> Run:
    """The run that answers a question of a kind to the review's reference model."""
    return run_for(review, kind, _question(review, kind), member=member)
