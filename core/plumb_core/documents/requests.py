"""The requests of the headless contract, as `contract.md` has them, and a few beside them."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from plumb_core.documents.base import Direction, EditionId, Finite, Name, NotNegative, Part, Positive
from plumb_core.documents.brief import Levels, Occupancy, Period, Site, Stories, System
from plumb_core.documents.model_requests import MODEL_KINDS, ModelPart, ModelRequest


class _Request(Part):
    edition: EditionId
    site: Site = Field(default_factory=Site)
    occupancy: Occupancy = Field(default_factory=Occupancy)
    steps: bool = False


class GroundRequest(_Request):
    """Request for site coefficients and design values."""

    kind: Literal["ground"]
    site: Site
    occupancy: Occupancy


class SpectrumRequest(_Request):
    """Request for the ordinates of a spectrum."""

    kind: Literal["spectrum"]
    site: Site
    occupancy: Occupancy
    T: Annotated[list[NotNegative], Field(min_length=1, max_length=100_000)]
    direction: Direction = "X"
    system: System = Field(default_factory=System)
    damping: Annotated[float, Field(gt=0, le=0.5, allow_inf_nan=False)] | None = None


class StaticRequest(_Request):
    """Request for the static lateral forces."""

    kind: Literal["static"]
    site: Site
    occupancy: Occupancy
    system: System
    stories: Annotated[Stories, Field(min_length=1)]
    period: Period = Field(default_factory=Period)


class DirectionShears(Part):
    """Base shears of a direction: static, and modal before scaling (kN)."""

    static: Positive
    dynamic: Positive
    T: Positive | None = None
    factor_used: Positive | None = None
    static_coefficient_governed_by: str | None = None


class ScalingRequest(_Request):
    """Request for the scale factor of modal results."""

    kind: Literal["scaling"]
    system: System = Field(default_factory=System)
    regular: bool | None = None
    site_spectrum: bool = False
    X: DirectionShears | None = None
    Y: DirectionShears | None = None


class TorsionRow(Part):
    """Drifts (m) of a story in a case: `max` and `avg`, or those of the two `ends`; displacements of the ends for A_x.

    Displacements alone will do where the edition judges by them, or for A_x.
    """

    story: Name
    case: Annotated[str, Field(max_length=60)] = ""
    direction: Direction | None = None
    max: Positive | None = None
    avg: Positive | None = None
    ends: Annotated[list[Finite], Field(min_length=2, max_length=2)] | None = None
    displacement_ends: Annotated[list[Finite], Field(min_length=2, max_length=2)] | None = None


class TorsionRequest(_Request):
    """Request for the class of torsion and its amplification."""

    kind: Literal["torsion"]
    system: System = Field(default_factory=System)
    rows: Annotated[list[TorsionRow], Field(min_length=1, max_length=100_000)]


StoryValues = Annotated[list[Finite], Field(min_length=1, max_length=300)]
StoryForces = Annotated[list[Positive], Field(min_length=1, max_length=300)]


class DriftRequest(_Request):
    """Elastic displacements of the floors or drifts of the stories (m) under the design forces, bottom to top.

    second_order : whether P-Delta is in the analysis that gave them; unstated it is not.
    """

    kind: Literal["drift"]
    direction: Direction = "X"
    structure_type: str | None = None
    system: System = Field(default_factory=System)
    stories: Annotated[Stories, Field(min_length=1)]
    period: Period = Field(default_factory=Period)
    T: Positive | None = None
    elastic_displacement: StoryValues | None = None
    elastic_drift: StoryValues | None = None
    P: StoryForces | None = None
    V: StoryForces | None = None
    shear_ratio: Positive | None = None
    drift_at: Literal["centre", "edges"] | None = None
    second_order: Literal["included", "not included"] | None = None
    levels: Levels = Field(default_factory=list)


class WeightRequest(_Request):
    """Seismic weight from the loads of the stories."""

    kind: Literal["weight"]
    stories: Annotated[Stories, Field(min_length=1)]


class IrregularityRequest(ModelPart):
    """Irregularity in height from the story tables, in plan from outlines, declarations and, with a model.

    Its stiffness.

    drift_ratio : of the stories, bottom to top, for the exception of steady drifts.
    """

    kind: Literal["irregularity"]
    edition: EditionId
    site: Site = Field(default_factory=Site)
    occupancy: Occupancy = Field(default_factory=Occupancy)
    system: System = Field(default_factory=System)
    stories: Annotated[Stories, Field(min_length=1)]
    drift_ratio: dict[Direction, Annotated[list[NotNegative], Field(min_length=1, max_length=300)]] = Field(
        default_factory=dict
    )


class ModesRequest(_Request):
    """Periods (s) of the modes and their effective modal masses as shares of the mass.

    In each direction and about the vertical.
    """

    kind: Literal["modes"]
    T: Annotated[list[Positive], Field(min_length=1, max_length=10_000)]
    mass_share: dict[Literal["X", "Y", "RZ"], Annotated[list[NotNegative], Field(min_length=1, max_length=10_000)]]
    stories: Stories = Field(default_factory=list)


class SystemRequest(_Request):
    """Factors of a lateral system, its permission here, and the load combinations that belong to it."""

    kind: Literal["system"]
    system: System
    stories: Stories = Field(default_factory=list)
    period: Period = Field(default_factory=Period)


class SeparationRequest(_Request):
    """Least distance to another building or to the boundary.

    displacement : greatest elastic displacement of the building at the level under its design forces (m).
    other_displacement : of the other building (m), as the edition adds it: with its own factor (ASCE 7, UBC, EN 1998-1,
        IS 1893:2016), or under the same forces (IS 1893:2002).  gap : that is provided (m).
    """

    kind: Literal["separation"]
    direction: Direction = "X"
    system: System = Field(default_factory=System)
    stories: Stories = Field(default_factory=list)
    displacement: NotNegative
    other_displacement: NotNegative | None = None
    same_property: bool | None = None
    floors_level: bool | None = None
    walls_to_base: bool | None = None
    gap: NotNegative | None = None


Request = (
    ModelRequest
    | GroundRequest
    | SpectrumRequest
    | StaticRequest
    | ScalingRequest
    | TorsionRequest
    | DriftRequest
    | WeightRequest
    | IrregularityRequest
    | ModesRequest
    | SystemRequest
    | SeparationRequest
)
KINDS: dict[str, type[Request]] = {
    "ground": GroundRequest,
    "spectrum": SpectrumRequest,
    "static": StaticRequest,
    "scaling": ScalingRequest,
    "torsion": TorsionRequest,
    "drift": DriftRequest,
    "weight": WeightRequest,
    "irregularity": IrregularityRequest,
    "modes": ModesRequest,
    "system": SystemRequest,
    "separation": SeparationRequest,
    **MODEL_KINDS,
}
