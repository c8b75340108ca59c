"""Thresholds of questions beyond the rules of the code: an office sets them, each with its default."""

from __future__ import annotations

from typing import Annotated, NamedTuple

from pydantic import AfterValidator, Field
from pydantic_core import PydanticCustomError

from plumb_core.documents.base import Part, Positive


def _rising(band: list[float]) -> list[float]:
    if band[0] >= band[1]:
        raise PydanticCustomError("band", "the lower end is not below the upper one")
    return band


Band = Annotated[list[Positive], Field(min_length=2, max_length=2), AfterValidator(_rising)]


class Thresholds(Part):
    """When a question is raised, and how far a value may be off; what is not stated has its default.

    Attributes
    ----------
    tolerance : relative, to which the tolerances of all quantities are scaled
    period_ratio : first period over the empirical one
    weight_per_area : seismic weight over the floor area, kPa
    shear_ratio : modal over static base shear
    self_weight : weight of the structure over the floor area, kPa
    close_modes : shorter over longer period from which two modes count as close; the measure of the edition where it
        is not stated
    local_share : share of the mass below which a mode is a local one
    tiny_drift : drift over the height of the story below which its twist is not judged
    """

    tolerance: Annotated[float, Field(gt=0, le=0.2, allow_inf_nan=False)] | None = None
    period_ratio: Band | None = None
    weight_per_area: Band | None = None
    shear_ratio: Band | None = None
    self_weight: Band | None = None
    close_modes: Annotated[float, Field(gt=0, lt=1, allow_inf_nan=False)] | None = None
    local_share: Annotated[float, Field(gt=0, le=0.05, allow_inf_nan=False)] | None = None
    tiny_drift: Annotated[float, Field(gt=0, le=0.01, allow_inf_nan=False)] | None = None


class Default(NamedTuple):
    """A threshold as an office sees it."""

    name: str
    words: str
    unit: str
    value: tuple[float, ...]
    codes: tuple[str, ...]
    source: str


DEFAULTS = (
    Default(
        "tolerance",
        "relative difference to which two values agree",
        "",
        (0.01,),
        (),
        "practice of rechecks: hand calculation with rounded inputs agrees to 1 %",
    ),
    Default(
        "period_ratio",
        "first period over the empirical one",
        "",
        (0.4, 2.5),
        ("S51",),
        "scatter of measured periods about the empirical formulas, with a margin",
    ),
    Default(
        "weight_per_area",
        "seismic weight over the floor area",
        "kPa",
        (3.0, 20.0),
        ("S34",),
        "from light timber and steel decks to thick slabs with walls",
    ),
    Default(
        "shear_ratio",
        "modal over static base shear",
        "",
        (0.5, 2.0),
        ("S65",),
        "mass participation and period caps explain less than a factor of two",
    ),
    Default(
        "self_weight",
        "weight of the structure over the floor area",
        "kPa",
        (1.5, 15.0),
        ("S41",),
        "from composite decks to transfer slabs; densities of EN 1991-1-1 Annex A",
    ),
    Default(
        "close_modes",
        "shorter over longer period from which two modes count as close",
        "",
        (0.9,),
        ("S52",),
        "the measure of the edition where nothing is set; most count periods within 10 % of one another as close",
    ),
    Default(
        "local_share",
        "share of the mass below which a mode is a local one",
        "",
        (0.001,),
        ("S50",),
        "a tenth of a per cent moves no base shear",
    ),
    Default(
        "tiny_drift",
        "drift over the height below which a story's twist is not judged",
        "",
        (0.0002,),
        ("S78",),
        "a ratio of two such drifts is one of rounding",
    ),
)
"""All thresholds with their defaults, and where these come from."""
_BY_NAME = {d.name: d for d in DEFAULTS}


def band(thresholds: Thresholds, name: str) -> tuple[float, float]:
    """A band as it is set, or its default."""
    stated = getattr(thresholds, name)
    low, high = stated or _BY_NAME[name].value
    return float(low), float(high)


def level(thresholds: Thresholds, name: str) -> float:
    """A single threshold as it is set, or its default."""
    stated = getattr(thresholds, name)
    return float(_BY_NAME[name].value[0] if stated is None else stated)
