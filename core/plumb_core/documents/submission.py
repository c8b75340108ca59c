"""The submission: what was handed in, value by value, and the load cases it speaks of."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field

from plumb_core.documents.base import Direction, Finite, Name, Part, Positive


class Source(Part):
    """Where a submitted value stood."""

    file: str = ""
    sheet: str = ""
    row: int | None = None
    column: str = ""
    note: str = ""


# defaults that are models come from a factory: pydantic would copy an instance deeply for every claim
class Claim(Part):
    """One submitted value.

    value is in the core's unit; text is what was written, from which the digits given are read; `unit` is the unit
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
    source: Source = Field(default_factory=Source)


class Submission(Part):
    label: str = "S0"
    claims: list[Claim] = []
    exhibits: list[dict[str, Any]] = []
