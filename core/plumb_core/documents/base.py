"""What all documents are made of: numbers that are refused outside their range, and parts that refuse unknown keys."""

from __future__ import annotations

from functools import cache
from typing import Annotated, Any, Literal, Self

from pydantic import AfterValidator, BaseModel, ConfigDict, Field
from pydantic_core import PydanticCustomError

from plumb_core.editions import EDITIONS

Positive = Annotated[float, Field(gt=0, allow_inf_nan=False)]


NotNegative = Annotated[float, Field(ge=0, allow_inf_nan=False)]


Finite = Annotated[float, Field(allow_inf_nan=False)]


Coordinate = Annotated[float, Field(ge=-1e5, le=1e5, allow_inf_nan=False)]
"""m; coordinates beyond 100 km are in another unit."""


Point = Annotated[list[Coordinate], Field(min_length=2, max_length=2)]
"""x, y in plan, m."""


Direction = Literal["X", "Y"]


Name = Annotated[str, Field(min_length=1, max_length=60)]


CaseName = Annotated[str, Field(min_length=1, max_length=60)]


def _known_edition(edition: str) -> str:
    if edition not in EDITIONS:
        raise PydanticCustomError("edition", "edition {id} is not in this engine", {"id": repr(edition)})
    return edition


EditionId = Annotated[str, AfterValidator(_known_edition)]


_set = object.__setattr__


class Part(BaseModel):
    """Base of all parts: unknown keys are refused, numbers are not read from text."""

    model_config = ConfigDict(extra="forbid", strict=True)

    @classmethod
    def made_of(cls, **values: Any) -> Self:
        """A part of values that are known to be right, unchecked: a table makes hundreds of thousands of them."""
        part = cls.__new__(cls)
        _set(part, "__dict__", {**_defaults(cls), **values})
        # one set for all parts with the same fields: a set for each would be larger than the part itself
        _set(part, "__pydantic_fields_set__", _same_names(tuple(values)))
        _set(part, "__pydantic_extra__", None)
        _set(part, "__pydantic_private__", None)
        return part


@cache
def _same_names(names: tuple[str, ...]) -> set[str]:
    return set(names)


@cache
def _defaults(cls: type[Part]) -> dict[str, Any]:
    return {
        name: field.get_default(call_default_factory=True)
        for name, field in cls.model_fields.items()
        if not field.is_required()
    }
