"""The submission: what was submitted, value by value, and the load cases it speaks of."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from plumb_core.documents.base import CaseName, Direction, Finite, Name, Part, Positive


class Source(Part):
    """Where a submitted value was."""

    file: str = ""
    sheet: str = ""
    row: int | None = None
    column: str = ""
    note: str = ""


_NOWHERE = Source()
"""Of all claims whose place is not stated: sources are never changed, and a table has thousands of claims."""


# defaults that are models come from a factory: pydantic would copy an instance deeply for every claim
class Claim(Part):
    """One submitted value.

    value is in the core's unit, with its sign as it was written; text is what was written, from which the digits
    given are read; `unit` is the unit
    it was written in; `scale` turns the written number into the core's unit.
    """

    quantity: str
    direction: Direction | None = None
    story: Name | None = None
    point: Annotated[int, Field(ge=0)] | None = None
    case: Annotated[str, Field(max_length=60)] = ""
    value: Finite | str
    text: str = ""
    unit: str = ""
    scale: Positive = 1.0
    source: Source = Field(default_factory=lambda: _NOWHERE)


class LoadCase(Part):
    """A load case of a submission, with its role; what is not stated is null.

    name : as the submission names it; `case` of its claims.
    direction : of the action; XY for both together, Z for the vertical.
    eccentricity : accidental, as a signed share of the plan dimension; 0 is at the centre.
    step : before or after the results were scaled to a base shear.  factor : scale factor.
    level : of the results: reduced by R or q, elastic, or amplified to design displacements.
    by_reviewer : whether the role is the reviewer's, and not what was submitted.
    """

    name: CaseName
    kind: Literal["static", "modal", "gravity", "combination", "time_history", "other"] | None = None
    direction: Literal["X", "Y", "XY", "Z"] | None = None
    eccentricity: Annotated[float, Field(ge=-1, le=1, allow_inf_nan=False)] | None = None
    step: Literal["before", "after"] | None = None
    factor: Finite | None = None
    level: Literal["reduced", "elastic", "amplified"] | None = None
    by_reviewer: bool = False


class OpenPart(Part):
    """A part of a submitted table that is not read yet: nothing is missing that may be in it.

    rows : as numbered in the file, from 1; empty for the whole table.  kind : of the table, "" where it is not known.
    quantities : that the part may state.  question : that has to be answered first.
    """

    file: str = ""
    sheet: str = ""
    page: int | None = None
    table: int | None = None
    rows: list[int] = Field(default_factory=list)
    kind: str = ""
    quantities: list[str] = Field(default_factory=list)
    question: str = ""


class Submission(Part):
    """What was submitted: values, and the load cases that they name."""

    label: str = "S0"
    cases: Annotated[list[LoadCase], Field(max_length=2000)] = Field(default_factory=list)
    claims: list[Claim] = Field(default_factory=list)
    exhibits: list[dict[str, Any]] = Field(default_factory=list)
