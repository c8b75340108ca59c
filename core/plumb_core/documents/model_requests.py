"""Requests that ask the reference model: modes, spectrum response, static response, time history."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from plumb_core.documents.base import Direction, EditionId, Finite, Name, NotNegative, Part, Positive
from plumb_core.documents.brief import Occupancy, Period, Site, Stories, System
from plumb_core.documents.model import Frame, Lines

Count = Annotated[int, Field(gt=0, le=5000)]
Share = Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)]
Eccentricity = Annotated[float, Field(ge=0, le=0.5, allow_inf_nan=False)]
Damping = Annotated[float, Field(gt=0, lt=1, allow_inf_nan=False)]


class ModelPart(Part):
    """The model: `stories` with `lateral_lines`, or a `frame` (with `stories` where its weights are to be compared)."""

    edition: EditionId | None = None
    steps: bool = False
    stories: Stories = Field(default_factory=list)
    lateral_lines: Lines | None = None
    frame: Frame | None = None
    p_delta: bool = False


class InspectRequest(ModelPart):
    """What the model is made of, and every warning about it."""

    kind: Literal["model"]


class _ModalPart(ModelPart):
    modes: Count | None = None
    target: Share | None = None
    target_directions: Annotated[list[Literal["X", "Y", "RZ"]], Field(min_length=1)] = ["X", "Y"]
    method: Literal["eigen", "ritz"] = "eigen"
    verify: bool = False


class ShapeRow(Part):
    """Movement of a floor in a mode; what is not stated is excluded."""

    story: Name
    X: Finite | None = None
    Y: Finite | None = None
    RZ: Finite | None = None


class SubmittedModePart(Part):
    """A mode as a submission states it: period (s), shares of the mass, and movements of the floors (m, rad.

    Any scale).
    """

    T: Positive | None = None
    mass_ratio: dict[Literal["X", "Y", "RZ"], NotNegative] = Field(default_factory=dict)
    shape: Annotated[list[ShapeRow], Field(max_length=2000)] | None = None


class ModalRequest(_ModalPart):
    """Modes of the model.  shapes : whether movements of all nodes are reported too, for the first modes."""

    kind: Literal["modal"]
    shapes: Literal["floors", "nodes"] = "floors"
    submitted: Annotated[list[SubmittedModePart], Field(max_length=5000)] | None = None


class SpectrumPart(Part):
    """A spectrum: points (`T`, `S_a` in g, read linearly or logarithmically), or an edition's parts.

    ordinates : of an edition; by default reduced for strength where a system is given, else elastic.
    """

    T: Annotated[list[NotNegative], Field(min_length=2, max_length=100_000)] | None = None
    S_a: Annotated[list[NotNegative], Field(min_length=2, max_length=100_000)] | None = None
    read: Literal["linear", "log"] = "linear"
    edition: EditionId | None = None
    site: Site | None = None
    occupancy: Occupancy | None = None
    system: System | None = None
    ordinates: Literal["elastic", "reduced"] | None = None


class ResponseRequest(_ModalPart):
    """Response spectrum analysis; with `direction` both, the directions are combined by `directions`."""

    kind: Literal["response"]
    site: Site = Field(default_factory=Site)
    occupancy: Occupancy = Field(default_factory=Occupancy)
    system: System = Field(default_factory=System)
    spectrum: SpectrumPart | None = None
    vertical_spectrum: SpectrumPart | None = None
    direction: Literal["X", "Y", "both"] = "X"
    directions: Literal["SRSS", "100-30", "100-30-30"] = "SRSS"
    combine: Literal["CQC", "SRSS", "ABS"] = "CQC"
    damping: Damping = 0.05
    residual_mass: bool = False
    residual_period: NotNegative = 0.0
    eccentricity: Eccentricity = 0.0
    eccentricity_as: Literal["moments", "mass"] = "moments"
    sign_of_mode: Count | None = None


class StaticResponseRequest(ModelPart):
    """The edition's story forces on the model, without and with accidental eccentricity either way.

    forces : given instead of the edition's, kN, bottom to top.  eccentricity : by default the edition's.
    """

    kind: Literal["static_response"]
    edition: EditionId
    site: Site = Field(default_factory=Site)
    occupancy: Occupancy = Field(default_factory=Occupancy)
    system: System = Field(default_factory=System)
    period: Period = Field(default_factory=Period)
    direction: Literal["X", "Y", "both"] = "both"
    eccentricity: Eccentricity | None = None
    forces: dict[Direction, Annotated[list[Finite], Field(min_length=1, max_length=2000)]] | None = None


class RecordPart(Part):
    """Ground acceleration `a` in `unit`, at steps of `dt` or at times `t` (s)."""

    a: Annotated[list[Finite], Field(min_length=2, max_length=500_000)]
    unit: Literal["g", "m/s2", "cm/s2", "mm/s2"]
    dt: Positive | None = None
    t: Annotated[list[NotNegative], Field(min_length=2, max_length=500_000)] | None = None


class HarmonicPart(Part):
    """Ground acceleration of `amplitude` (g) and `period` (s) for `duration` (s)."""

    amplitude: Positive
    period: Positive
    duration: Positive


class RayleighPart(Part):
    """Rayleigh damping with `damping` at two periods (s)."""

    periods: Annotated[list[Positive], Field(min_length=2, max_length=2)]


class NewmarkPart(Part):
    """Newmark's method with its parameters."""

    gamma: Annotated[float, Field(ge=0.5, le=1, allow_inf_nan=False)] = 0.5
    beta: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 0.25


class TimeHistoryRequest(_ModalPart):
    """Linear time history; exact for an acceleration linear between its points unless `newmark` is given."""

    kind: Literal["time_history"]
    direction: Direction = "X"
    record: RecordPart | None = None
    harmonic: HarmonicPart | None = None
    damping: Damping = 0.05
    rayleigh: RayleighPart | None = None
    newmark: NewmarkPart | None = None
    histories: bool = True


ModelRequest = InspectRequest | ModalRequest | ResponseRequest | StaticResponseRequest | TimeHistoryRequest
MODEL_KINDS: dict[str, type[ModelRequest]] = {
    "model": InspectRequest,
    "modal": ModalRequest,
    "response": ResponseRequest,
    "static_response": StaticResponseRequest,
    "time_history": TimeHistoryRequest,
}
