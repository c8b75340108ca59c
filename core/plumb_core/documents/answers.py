"""The answers to the requests of the headless contract, one type for each kind.

Units: m, kN, t, s, rad; ordinates in g.
"""

from __future__ import annotations

from typing import Annotated, Any, Literal, NotRequired

from pydantic import ConfigDict, Field, TypeAdapter, with_config
from typing_extensions import TypedDict

from plumb_core.documents.results import STRICT, Direction, LevelDrifts, ModeComparison, StepResult, TwoStage

Axis = Literal["X", "Y", "RZ"]
PointInPlan = Annotated[list[float], Field(min_length=2, max_length=2)]
"""x, y, m."""
Triple = Annotated[list[float], Field(min_length=3, max_length=3)]
"""X, Y and RZ of a floor, or x, y, z of a node."""


@with_config(STRICT)
class XY(TypedDict):
    """A value in each direction."""

    X: float
    Y: float


@with_config(STRICT)
class XYRZ(TypedDict):
    """A value along X, along Y and about the vertical."""

    X: float
    Y: float
    RZ: float


@with_config(STRICT)
class XYMZ(TypedDict):
    """Forces at the base, kN, and their moment about the vertical through the centre of mass, kN m."""

    X: float
    Y: float
    MZ: float


@with_config(STRICT)
class Answer(TypedDict):
    """What every answer holds; `steps` where the request requires the derivation."""

    engine: str
    edition: str | None
    steps: NotRequired[list[StepResult]]


# by an edition alone


@with_config(ConfigDict(extra="allow", strict=True))
class GroundAnswer(Answer):
    """Ground motion; beside these keys the edition's own symbols (`S_DS`, `C_a`, `T_B`, `Z` ...)."""

    kind: Literal["ground"]
    notes: list[str]


@with_config(STRICT)
class SpectrumAnswer(Answer):
    """Ordinates (g) at the periods T (s), each list as long as T; displacement in m."""

    kind: Literal["spectrum"]
    T: list[float]
    elastic: list[float]
    reduced: list[float] | None
    displacement: list[float]
    vertical: list[float] | None
    vertical_reduced: list[float] | None
    damped: NotRequired[list[float]]
    notes: list[str]


@with_config(STRICT)
class StaticForces(TypedDict):
    """The static method in one direction; lists bottom to top, (n_stories,).

    coefficient : V/W.  M_story : overturning moment at the bottom of each story, kN m.  exponent : null where the
        forces
    follow the weights alone.  T_a, T_limit, T : null where the method has none.
    """

    T_a: float | None
    T_limit: float | None
    T: float | None
    coefficient: float
    governed_by: str | None
    W: float
    V: float
    exponent: float | None
    F: list[float]
    V_story: list[float]
    M_story: list[float]
    accidental_torsion: list[float] | None
    diaphragm: list[float] | None
    two_stage: NotRequired[TwoStage]


@with_config(STRICT)
class StaticAnswer(Answer):
    """The static method in the directions requested."""

    kind: Literal["static"]
    X: NotRequired[StaticForces]
    Y: NotRequired[StaticForces]
    notes: list[str]


@with_config(STRICT)
class ScaledAnswer(TypedDict):
    """Scaling of modal results in one direction."""

    share: float | None
    factor_required: float
    applies_to: list[Literal["forces", "drifts"]]
    ok: bool


@with_config(STRICT)
class ScalingAnswer(Answer):
    """Scaling of modal results to the static base shear."""

    kind: Literal["scaling"]
    X: NotRequired[ScaledAnswer]
    Y: NotRequired[ScaledAnswer]
    notes: list[str]


TorsionOfStory = TypedDict(
    "TorsionOfStory",
    {
        "story": str,
        "case": str,
        "direction": Direction | None,
        "ratio": float | None,
        "class": Literal["regular", "torsional", "extreme"] | None,
        "amplification": float | None,
        "consequences": list[str],
    },
)
"""Torsion of a story in a case; null where the edition has no such rule, or what it takes is not given."""
# `class` is not a valid name of a field of a class
TorsionOfStory.__pydantic_config__ = STRICT  # type: ignore[attr-defined]


@with_config(STRICT)
class TorsionAnswer(Answer):
    """Torsional irregularity, row by row; `irregular` of the whole building, null where no story could be judged."""

    kind: Literal["torsion"]
    rows: list[TorsionOfStory]
    irregular: bool | None
    notes: list[str]


@with_config(STRICT)
class DriftOfStory(TypedDict):
    """Drift of a story: m, and over the story height; theta with what belongs to it where P and V are given.

    ok : null where theta exceeds its limit: the drift of an unstable story is not decided.
    """

    name: str
    design_drift: float
    ratio: float
    limit: float | None
    ok: bool | None
    theta: float | None
    theta_limit: float | None
    theta_ok: bool | None
    amplification: NotRequired[float | None]
    ratio_second_order: NotRequired[float | None]
    second_order: NotRequired[str | None]


@with_config(STRICT)
class RoofDrift(TypedDict):
    """Displacement of the roof over the height."""

    ratio: float
    limit: float | None
    ok: bool


@with_config(STRICT)
class DriftAnswer(Answer):
    """Design drifts of the stories, bottom to top."""

    kind: Literal["drift"]
    stories: list[DriftOfStory]
    roof: NotRequired[RoofDrift]
    levels: NotRequired[list[LevelDrifts]]
    notes: list[str]


@with_config(STRICT)
class CountedLoad(TypedDict):
    """A load (kN) with what of it counts as seismic weight, and why; the rest as it was given."""

    name: str
    kind: str
    amount: float
    share: float | None
    counted: float
    why: str
    intensity: NotRequired[float | None]
    area: NotRequired[float | None]
    category: NotRequired[str | None]
    occupancy: NotRequired[str | None]


@with_config(STRICT)
class WeightOfStory(TypedDict):
    """Seismic weight of a story, kN."""

    name: str
    weight: float
    loads: list[CountedLoad]


@with_config(STRICT)
class WeightAnswer(Answer):
    """Seismic weight, kN, bottom to top."""

    kind: Literal["weight"]
    W: float
    stories: list[WeightOfStory]


@with_config(STRICT)
class IrregularStory(TypedDict):
    """An irregularity in height."""

    story: str
    kind: str
    ratio: float
    limit: float
    clause: str


@with_config(STRICT)
class PlanIrregularity(TypedDict):
    """A type of irregularity in plan: there, none, or not tested."""

    type: str
    words: str
    state: Literal["there", "none", "not tested"]
    basis: str
    clause: str


@with_config(STRICT)
class RegularityTest(TypedDict):
    """A test of regularity; `met` is null where it could not be made."""

    words: str
    value: float | None
    limit: float | None
    side: str
    met: bool | None
    clause: str


@with_config(STRICT)
class PlanStiffnessAnswer(TypedDict):
    """Stiffness of a floor in plan, m.

    Distance of the centres across each direction, torsional radius, radius of gyration.
    """

    story: str
    plan: list[float] | None
    e_0: dict[Direction, float]
    r: dict[Direction, float]
    l_s: float | None


@with_config(STRICT)
class ConsequencesByDirection(TypedDict, total=False):
    """What follows, in words."""

    X: list[str]
    Y: list[str]


@with_config(STRICT)
class IrregularityAnswer(Answer):
    """Irregularities in height by direction, in plan, and what follows, as far as the edition has rules."""

    kind: Literal["irregularity"]
    X: list[IrregularStory]
    Y: list[IrregularStory]
    consequences: ConsequencesByDirection
    horizontal_irregularities: NotRequired[list[PlanIrregularity]]
    plan_regularity: NotRequired[list[RegularityTest]]
    elevation_regularity: NotRequired[list[RegularityTest]]
    regularity_consequences: NotRequired[list[str]]
    regular_in_plan: NotRequired[bool | None]
    torsionally_flexible: NotRequired[bool | None]
    plan_stiffness: NotRequired[list[PlanStiffnessAnswer] | None]


@with_config(STRICT)
class SumOfModes(TypedDict):
    """Shares of the mass of a direction against the target."""

    sum: float
    target: float
    enough: bool
    verdict: str


@with_config(STRICT)
class ModalTest(TypedDict):
    """What the code asks of the first modes."""

    words: str
    value: float | None
    limit: float
    met: bool | None
    clause: str


@with_config(STRICT)
class ModesAnswer(Answer):
    """Submitted modes against what the edition asks."""

    kind: Literal["modes"]
    X: NotRequired[SumOfModes]
    Y: NotRequired[SumOfModes]
    combination: str | None
    tests: NotRequired[list[ModalTest]]
    notes: list[str]


@with_config(STRICT)
class LoadCombination(TypedDict):
    """A load combination: factor by action."""

    name: str
    factors: dict[str, float]


@with_config(STRICT)
class RedundancyCheck(TypedDict):
    """A condition under which the redundancy factor is 1.0."""

    condition: str
    clause: str
    story: str
    words: str
    counts: bool
    met: bool | None


@with_config(STRICT)
class TorsionEffects(TypedDict):
    """Factors on the effects of an element, for plane models."""

    x_over_L_e: float
    x_over_L_e_plane_models: float


@with_config(STRICT)
class SystemCheck(TypedDict):
    """A condition of the lateral system, or of an open story; `met` is null where its value is not known."""

    words: str
    value: float | None
    limit: float
    side: Literal["min", "max"]
    met: bool | None
    clause: str


@with_config(STRICT)
class InfillEffects(TypedDict):
    """What follows from masonry infills.

    `eta` on the effects in the members of the open story, null where not known.
    """

    eta: float | None
    words: list[str]
    conditions: NotRequired[list[SystemCheck]]


@with_config(STRICT)
class SystemOfDirection(TypedDict, total=False):
    """Factors, permission and combinations of a direction's system; `open` says why a value is null."""

    R: float | None
    Omega_0: float | None
    C_d: float | None
    rho: float | None
    q_0: float | None
    q: float | None
    mu: float | None
    S_p: float | None
    height_limit: float | None
    system_permission: str | None
    static_permitted: str | None
    load_combinations: list[LoadCombination] | None
    direction_rule: list[str] | None
    redundancy_checks: list[RedundancyCheck] | None
    two_stage: TwoStage | None
    torsion_effects: TorsionEffects | None
    system_checks: list[SystemCheck] | None
    infill_effects: InfillEffects | None
    open: dict[str, str]


@with_config(STRICT)
class SystemAnswer(Answer):
    """Lateral systems of both directions."""

    kind: Literal["system"]
    X: SystemOfDirection
    Y: SystemOfDirection


@with_config(STRICT)
class SeparationAnswer(Answer):
    """Least distance to another building or to the boundary, m."""

    kind: Literal["separation"]
    required: float
    governed_by: str | None
    gap: float | None
    ok: bool | None


# by the reference model


@with_config(STRICT)
class ModelWarning(TypedDict):
    """A warning about a model; `stops` where it cannot be analysed so."""

    code: str
    message: str
    cause: str
    remedy: str
    path: str
    stops: bool
    nodes: list[str]
    members: list[str]


@with_config(STRICT)
class FloorOfModel(TypedDict):
    """A floor of a model: level and height in m, mass in t, inertia in t m2 about the centre of mass."""

    name: str
    z: float
    height: float
    centre: PointInPlan
    mass: float
    inertia: float
    corners: list[PointInPlan]
    rigid: bool


@with_config(STRICT)
class MassOfFloor(TypedDict):
    """Where the mass of a floor comes from, t; inertia in t m2."""

    floor: str
    total: float
    inertia: float
    centre: PointInPlan
    stories: NotRequired[float]
    members: NotRequired[float]
    lines: NotRequired[float]
    point: NotRequired[float]
    equipment: NotRequired[float]
    floors: NotRequired[float]


@with_config(STRICT)
class InspectAnswer(Answer):
    """What a model is made of, and every warning about it."""

    kind: Literal["model"]
    usable: bool
    warnings: list[ModelWarning]
    degrees_of_freedom: int | None
    mass: list[MassOfFloor]
    floors: list[FloorOfModel]


@with_config(STRICT)
class Mode(TypedDict):
    """A mode: period s, frequency Hz, circular frequency rad/s, participation factors, effective masses as shares.

    shape : X, Y (m) and RZ (rad) of each floor, bottom to top, (n_floors, 3).  at_floors : share of its mass that moves
    with the floors.
    """

    T: float
    f: float
    omega: float
    gamma: XYRZ
    mass_ratio: XYRZ
    kind: Literal["X", "Y", "twist", "mixed", "local"]
    at_floors: float
    shape: list[Triple]


@with_config(STRICT)
class Cumulative(TypedDict):
    """Running sums over the modes, (n_modes,)."""

    X: list[float]
    Y: list[float]
    RZ: list[float]


@with_config(STRICT)
class EnoughInBoth(TypedDict):
    """Whether the modes reach the target."""

    X: bool
    Y: bool


@with_config(STRICT)
class ReachedAt(TypedDict):
    """Number of the mode with which the target is reached; null where it is not."""

    X: int | None
    Y: int | None


@with_config(STRICT)
class RayleighPeriods(TypedDict):
    """Periods by Rayleigh's quotient of the deflection under the floors' weights, s."""

    X: float | None
    Y: float | None


@with_config(STRICT)
class NodeShapes(TypedDict):
    """Movements of all nodes in the first modes: (n_shown, n_nodes, 3)."""

    ids: list[str]
    shapes: list[list[Triple]]


@with_config(STRICT)
class ModalAnswer(Answer):
    """Modes of a model; mass in t, about the vertical t m2."""

    kind: Literal["modal"]
    modes: list[Mode]
    cumulative: Cumulative
    enough: EnoughInBoth
    target: float
    reached_at: ReachedAt
    mass: XYRZ
    centre: PointInPlan
    rayleigh: RayleighPeriods
    counted_by: str
    floors: list[FloorOfModel]
    mass_table: list[MassOfFloor]
    warnings: list[ModelWarning]
    nodes: NotRequired[NodeShapes]
    comparison: NotRequired[ModeComparison]


@with_config(STRICT)
class CornerDrift(TypedDict):
    """Drift at a corner of a floor, m, combined mode by mode."""

    corner: PointInPlan
    X: float
    Y: float


@with_config(STRICT)
class Edges(TypedDict):
    """Drifts and displacements of the two edges across a direction, m; ratio null where nothing moves on average."""

    drift: list[float]
    average: float
    ratio: float | None
    displacement: list[float]
    displacement_average: float


@with_config(STRICT)
class EdgesByDirection(TypedDict, total=False):
    """Edges in the directions that were assessed."""

    X: Edges
    Y: Edges


@with_config(STRICT)
class MovedStory(TypedDict):
    """Response of a story: forces and shears in kN, overturning in kN m.

    Displacement of the centre of mass in m and rad.
    """

    name: str
    force: XY
    shear: XY
    overturning: XY
    displacement: XYRZ
    drift: list[CornerDrift]
    edges: EdgesByDirection


@with_config(STRICT)
class ModeOfResponse(TypedDict):
    """A mode that took part."""

    T: float
    kind: str


@with_config(STRICT)
class Ordinates(TypedDict, total=False):
    """Ordinates (g) at the periods of the modes, by direction of the action."""

    X: list[float]
    Y: list[float]
    Z: list[float]


@with_config(STRICT)
class ResponseAnswer(Answer):
    """Combined maxima of a response spectrum analysis, bottom to top."""

    kind: Literal["response"]
    base_shear: XYMZ
    stories: list[MovedStory]
    modes: list[ModeOfResponse]
    ordinates: Ordinates
    mass_sum: XY
    warnings: list[ModelWarning]


@with_config(STRICT)
class AmplifiedStory(MovedStory):
    """Response of a story in a static case, with its amplification and its eccentricities (m).

    Null where there is no rule.
    """

    A_x: float | None
    A_x_first: float | None
    e_s: float | None
    e_d: float | None


@with_config(STRICT)
class StaticCaseAnswer(TypedDict):
    """One direction with one sense of the eccentricity (share of the plan dimension)."""

    direction: Direction
    eccentricity: float
    base_shear: XYMZ
    rounds: int
    stories: list[AmplifiedStory]


@with_config(STRICT)
class ForcesByDirection(TypedDict, total=False):
    """Story forces, kN, bottom to top."""

    X: list[float]
    Y: list[float]


@with_config(STRICT)
class StaticResponseAnswer(Answer):
    """An edition's story forces on the model, without and with accidental eccentricity either way."""

    kind: Literal["static_response"]
    eccentricity: float
    eccentricity_factor: float
    torsion_irregular: bool | None
    forces: ForcesByDirection
    cases: list[StaticCaseAnswer]
    warnings: list[ModelWarning]


@with_config(STRICT)
class BySpectrum(TypedDict):
    """What a spectrum analysis by the record's own spectrum gives."""

    base_shear: XYMZ
    ordinates: list[float]


@with_config(STRICT)
class DampedMode(TypedDict):
    """A mode with its damping ratio."""

    T: float
    damping: float


@with_config(STRICT)
class SeriesByDirection(TypedDict):
    """Histories in both directions, (n_steps,)."""

    X: list[float]
    Y: list[float]


@with_config(STRICT)
class Histories(TypedDict):
    """Histories over `t` (s): base shear and story shears in kN, displacements in m."""

    t: list[float]
    base_shear: SeriesByDirection
    top: SeriesByDirection
    displacement: dict[str, list[float]]
    shear: dict[str, list[float]]


@with_config(STRICT)
class TimeHistoryAnswer(Answer):
    """Envelopes and histories under a ground motion; peak_ground in g."""

    kind: Literal["time_history"]
    dt: float
    steps_taken: int
    peak_ground: float
    base_shear: XYMZ
    stories: list[MovedStory]
    by_spectrum: BySpectrum
    modes: list[DampedMode]
    warnings: list[ModelWarning]
    histories: NotRequired[Histories]


Solved = Annotated[
    GroundAnswer
    | SpectrumAnswer
    | StaticAnswer
    | ScalingAnswer
    | TorsionAnswer
    | DriftAnswer
    | WeightAnswer
    | IrregularityAnswer
    | ModesAnswer
    | SystemAnswer
    | SeparationAnswer
    | InspectAnswer
    | ModalAnswer
    | ResponseAnswer
    | StaticResponseAnswer
    | TimeHistoryAnswer,
    Field(discriminator="kind"),
]
"""The answer to any request."""

SOLVED: TypeAdapter[Any] = TypeAdapter(Solved)
