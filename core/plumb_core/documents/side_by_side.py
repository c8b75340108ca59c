"""A brief under its governing edition and those it is compared with: what `plumb across` gives."""

from __future__ import annotations

from typing import Any, Literal, NotRequired

from pydantic import TypeAdapter, with_config
from typing_extensions import TypedDict

from plumb_core.documents.answers import CountedLoad, LoadCombination
from plumb_core.documents.results import STRICT, Direction, StepResult, Value


@with_config(STRICT)
class AcrossCell(TypedDict):
    """A value of an edition; null with a note where there is none."""

    quantity: str
    symbol: str
    symbol_tex: str
    value: Value | None
    unit: str
    step: str
    governed_by: str | None
    clause: str
    note: str


@with_config(STRICT)
class AcrossCells(TypedDict):
    """A value of the building (`both`), or one for each direction; null where the edition has no such quantity."""

    edition: str
    both: NotRequired[AcrossCell | None]
    X: NotRequired[AcrossCell | None]
    Y: NotRequired[AcrossCell | None]


@with_config(STRICT)
class AcrossRow(TypedDict):
    """One row of the side-by-side table."""

    id: str
    label: str
    cells: list[AcrossCells]


@with_config(STRICT)
class Proposal(TypedDict):
    """A class of soil that may be meant, and how much of the other edition's class it covers."""

    value: str
    share: float


@with_config(STRICT)
class Need(TypedDict):
    """An input that an edition needs beyond what is known of the building; `basis` says where proposals come from."""

    name: str
    direction: Direction | None
    proposals: NotRequired[list[Proposal]]
    basis: NotRequired[str]


@with_config(STRICT)
class Words(TypedDict, total=False):
    """What an edition asks in words."""

    direction_rule: list[str]
    modal_rules: list[str]
    ground_notes: list[str]
    static_notes: list[str]
    regularity_consequences: list[str]
    vertical_consequences: list[str]
    drift_notes: list[str]
    load_combinations: list[LoadCombination]


@with_config(STRICT)
class BuildingTest(TypedDict):
    """One test of the building that an edition names."""

    group: str
    direction: Direction | None
    words: str
    state: Literal["met", "not met", "there", "none", "not tested"]
    value: float | None
    limit: float | None
    basis: str
    clause: str


@with_config(STRICT)
class AcrossEdition(TypedDict):
    """An edition with what it still needs, asks in words and tests.

    Measured_soil from what was measured in the ground.
    """

    id: str
    title: str
    short: str
    needs: list[Need]
    measured_soil: str | None
    words: Words
    tests: list[BuildingTest]


@with_config(STRICT)
class ListsByDirection(TypedDict):
    """A list for each direction, null where there is none."""

    X: list[float] | None
    Y: list[float] | None


@with_config(STRICT)
class AcrossSpectrum(TypedDict):
    """Ordinates (g) at the periods T (s)."""

    T: list[float]
    elastic: list[float]
    reduced: ListsByDirection


@with_config(STRICT)
class Points(TypedDict):
    """V/W over the period T (s)."""

    T: list[float]
    coefficient: list[float]


@with_config(STRICT)
class AgainstPeriod(TypedDict):
    """V/W over the period in each direction."""

    X: Points | None
    Y: Points | None


@with_config(STRICT)
class RatioFactor(TypedDict):
    """An ingredient of the base shear: what it makes of it here, there, and the ratio of the two."""

    aspect: str
    factor: float
    governing: float
    other: float


@with_config(STRICT)
class ShearRatio(TypedDict):
    """Why the base shears of two editions part: factors whose product is their ratio, the farthest from 1 first."""

    edition: str
    direction: Direction
    ratio: float
    period: float
    factors: list[RatioFactor]


@with_config(STRICT)
class Weights(TypedDict):
    """Seismic weights, kN, bottom to top, and the loads that they come from."""

    w: list[float] | None
    loads: list[list[CountedLoad]] | None


@with_config(STRICT)
class Across(TypedDict):
    """A brief under its governing edition and those it is compared with; maps are by edition."""

    engine: str
    governing: str
    editions: list[AcrossEdition]
    rows: list[AcrossRow]
    spectra: dict[str, AcrossSpectrum | None]
    coefficients: dict[str, AgainstPeriod]
    story_shears: dict[str, ListsByDirection]
    weights: dict[str, Weights]
    shear_ratios: list[ShearRatio]
    steps: dict[str, list[StepResult]]


ACROSS: TypeAdapter[Any] = TypeAdapter(Across)
