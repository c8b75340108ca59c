"""The brief: the reviewer's own side of a review, as `contract.md` has its parts."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, model_validator
from pydantic_core import PydanticCustomError

from plumb_core.documents.base import Direction, EditionId, Finite, Name, NotNegative, Part, Point, Positive
from plumb_core.documents.thresholds import Thresholds


class Curve(Part):
    """Points of a spectrum: periods (s, rising) and ordinates (g)."""

    T: Annotated[list[NotNegative], Field(min_length=2, max_length=10_000)]
    S_a: Annotated[list[NotNegative], Field(min_length=2, max_length=10_000)]


class SiteSpecific(Part):
    """Values of a site-specific study: the design spectrum (`T` in s, `S_a` in g, 5 % damping), or design values.

    S_DS, S_D1 (g) : ASCE 7 only, by 21.4 of the study; where the spectrum is given they follow from it.
    return_period : years that the spectrum is for (EN 1998-1 and AS 1170.4, whose importance multiplies that of
        reference).
    """

    return_period: Positive | None = None

    T: Annotated[list[NotNegative], Field(min_length=2, max_length=10_000)] | None = None
    S_a: Annotated[list[NotNegative], Field(min_length=2, max_length=10_000)] | None = None
    S_DS: Positive | None = None
    S_D1: Positive | None = None


class CustomFactors(Part):
    """Factors and limits set by the reviewer (edition `custom`)."""

    period_coefficient: Positive | None = None
    period_exponent: Positive | None = None
    period_limit: Positive | None = None
    mass_factor: Positive | None = None
    minimum: NotNegative | None = None
    exponent: NotNegative | None = None
    eccentricity: NotNegative | None = None
    mass_target: Positive | None = None
    scaling_share: Positive | None = None
    torsion_limit: Positive | None = None
    torsion_extreme: Positive | None = None
    drift_factor: Positive | None = None
    drift_limit: Positive | None = None
    theta_limit: Positive | None = None


Corrections = Annotated[list[int], AfterValidator(lambda numbers: sorted(set(numbers))), Field(max_length=20)]
"""Corrections of a code that are declared to apply, by their numbers; None for the default set."""


class Site(Part):
    """Site values, each for the editions that know it (`plumb editions` lists them); others are refused.

    Values that the edition's tables give (F_a, C_a, S, k_p ...) are overridden where they are given here.
    """

    # ASCE/SEI 7
    S_S: Positive | None = None
    S_1: Positive | None = None
    S_MS: Positive | None = None
    S_M1: Positive | None = None
    T_L: Positive | None = None
    site_class: str | None = None
    class_by_default: bool = False
    velocity_measured: bool = True
    isolated_or_damped: bool = False
    F_a: Positive | None = None
    F_v: Positive | None = None
    mce: Curve | None = None
    supplements: Corrections | None = None
    site_specific: SiteSpecific | None = None
    diaphragms_rigid: bool = False
    # permissions of the codes that lower a force: declared here, never taken silently
    category_by_S_DS_alone: bool = False
    category_A_by_map: bool = False
    short_period_cap: bool = False
    low_vertical_effect: bool = False
    floor_on_modes: bool = False
    # UBC 1997, IS 1893, AS 1170.4
    zone: str | None = None
    soil: str | None = None
    source_type: str | None = None
    source_distance_km: NotNegative | None = None
    N_a_limited: bool = False
    C_a: Positive | None = None
    C_v: Positive | None = None
    Z: Positive | None = None
    k_p: Positive | None = None
    subsoil: str | None = None
    rock: bool | None = None
    very_soft_thickness: NotNegative | None = None
    amendments: Corrections | None = None
    # EN 1998-1
    a_gR: Positive | None = None
    ground_type: str | None = None
    spectrum_type: int | None = None
    S: Positive | None = None
    T_B: Positive | None = None
    T_C: Positive | None = None
    T_D: Positive | None = None
    beta: NotNegative | None = None
    a_vg_ratio: Positive | None = None
    nu: Positive | None = None
    # measured in the ground
    v_s30: Positive | None = None
    N_SPT: Positive | None = None
    s_u: Positive | None = None
    site_period: Positive | None = None
    # the reviewer's own
    T: Annotated[list[NotNegative], Field(min_length=2, max_length=10_000)] | None = None
    S_a: Annotated[list[NotNegative], Field(min_length=2, max_length=10_000)] | None = None
    S_d: Annotated[list[NotNegative], Field(min_length=2, max_length=10_000)] | None = None
    read: Literal["linear", "log"] = "linear"
    own: CustomFactors | None = None


class Occupancy(Part):
    """Occupancy or importance, as the edition groups it, or the factor itself."""

    risk_category: str | None = None
    I_e: Positive | None = None
    occupancy_category: str | None = None
    use: str | None = None
    I: Positive | None = None
    importance_class: str | None = None
    gamma_I: Positive | None = None
    importance_level: int | None = None


class Wall(Part):
    """One shear wall in the direction.

    Web area A_i (m2), length D_i (m), height h_i (m) where the edition requires it.
    """

    A_i: Positive
    D_i: Positive
    h_i: Positive | None = None


class Stacked(Part):
    """Another lateral system from a story upwards.

    exempt : declared as a rooftop structure or as a light supported system, whose factors then do not count below
        (their conditions are checked where the weights are known).
    """

    lateral_system: str
    from_story: Name
    exempt: Literal["rooftop", "supported"] | None = None


class SystemBeside(Part):
    """Another lateral system side by side with the first in the same direction."""

    lateral_system: str


class RedundancyStory(Part):
    """A story without one of its elements, as the table of the redundancy clause removes it.

    shear_share : story shear over base shear.  strength_loss : share of the story's strength that belongs to the
        element.
    extreme_torsion : whether the story is then extremely irregular in torsion.
    """

    story: Name
    shear_share: NotNegative
    element: Literal["brace", "moment_frame", "wall", "cantilever_column", "other"] = "other"
    strength_loss: NotNegative | None = None
    extreme_torsion: bool | None = None


class Redundancy(Part):
    """What is known of the redundancy of a direction (ASCE 7): removal of elements, or bays of the perimeter.

    perimeter_bays : least number of bays on each side at the stories with more than 35 % of the base shear.
    """

    stories: Annotated[list[RedundancyStory], Field(max_length=300)] = Field(default_factory=list)
    regular_in_plan: bool | None = None
    perimeter_bays: NotNegative | None = None


class ElementShear(Part):
    """The greatest share of one element in the shear of a story (UBC 1630.1.1).

    shear : of the brace (its horizontal component), of the wall, or of the two columns of a bay together, kN.
    length : of a wall, m.  story_shear : kN.
    """

    story: Name
    element: Literal["brace", "moment_frame", "wall"]
    shear: NotNegative
    story_shear: Positive
    length: Positive | None = None


class Podium(Part):
    """A flexible upper part on a rigid lower part that is analysed in two stages.

    from_story : the lowest story of the upper part.  stiffness_ratio : of the lower part over the upper part.
    T_whole, T_upper : periods (s) of the whole structure, and of the upper part on a fixed base.
    R_upper, rho_upper : of the upper part; those of the direction are the lower part's.  T_lower : period of the
        lower part.
    period_type : structure type of the upper part, where it is not that of the direction.
    parts_regular : whether both parts are regular by themselves (UBC 1997).
    """

    from_story: Name
    stiffness_ratio: Positive | None = None
    T_whole: Positive | None = None
    T_upper: Positive
    R_upper: Positive
    rho_upper: Positive | None = None
    T_lower: Positive | None = None
    period_type: str | None = None
    parts_regular: bool | None = None


class Infills(Part):
    """Masonry infills (EN 1998-1 4.3.6, IS 1893:2016 7.9 and 7.10).

    plan : how they are arranged in plan.  open_story : a story with few or no infills beside its neighbours.
    strength_reduction : total reduction of the resistance of the walls in that story, kN (EN).
    story_shear : sum of the seismic shear forces of its vertical members, kN (EN); by default our own story shear.
    stiffness_ratio, strength_ratio, wall_density : of the open story: its stiffness and strength over those of the
        story above,
        and the area of structural walls over the floor area (IS).
    """

    plan: Literal["regular", "irregular", "severe"] = "regular"
    open_story: Name | None = None
    strength_reduction: NotNegative | None = None
    story_shear: Positive | None = None
    stiffness_ratio: Positive | None = None
    strength_ratio: Positive | None = None
    wall_density: NotNegative | None = None


class DiaphragmSpans(Part):
    """What decides whether the diaphragms are flexible, rigid or neither (ASCE 7, 12.3.1).

    deflection_ratio : in-plane deflection over the average drift of the adjoining vertical elements.
    span_to_depth : greatest span over depth.  construction : of the diaphragms.
    R_s : design force reduction factor of the alternative of 12.10.3, where it is used.
    """

    deflection_ratio: NotNegative | None = None
    span_to_depth: Positive | None = None
    R_s: Positive | None = None
    construction: Literal["concrete", "wood", "untopped_steel_deck", "precast", "other"] | None = None


class DirectionSystem(Part):
    """The lateral system in one direction; its factors follow from `lateral_system` where they are not given.

    plane_share : greatest share of the lateral force in one plane of braced frames or walls (ASCE 7, 12.2.5.4).
    frame_share : least share of the base shear that the moment frames of a dual system resist by themselves.
    wall_share : share of the base shear at the base that walls resist (EN 1998-1, 5.1.2).
    axial_share : greatest axial load of a cantilever column over its axial strength (ASCE 7, 12.2.5.2).
    """

    lateral_system: str | None = None
    stacked_systems: list[Stacked] | None = None
    beside_systems: list[SystemBeside] | None = None
    podium: Podium | None = None
    redundancy: Redundancy | None = None
    element_shears: Annotated[list[ElementShear], Field(max_length=300)] | None = None
    r_max: Positive | None = None
    period_type: str | None = None
    R: Positive | None = None
    Omega_0: Positive | None = None
    C_d: Positive | None = None
    rho: Positive | None = None
    q: Positive | None = None
    q_0: Positive | None = None
    alpha_u_1: Positive | None = None
    alpha_0: Positive | None = None
    mu: Positive | None = None
    S_p: Positive | None = None
    regular: bool | None = None
    plane_share: NotNegative | None = None
    frame_share: NotNegative | None = None
    wall_share: NotNegative | None = None
    axial_share: NotNegative | None = None
    T_a_formula: str | None = None
    walls: list[Wall] | None = None
    d: Positive | None = None
    d_gravity: Positive | None = None


IrregularityType = Literal[
    "torsional",
    "extreme_torsional",
    "reentrant_corner",
    "diaphragm_discontinuity",
    "out_of_plane_offset",
    "nonparallel_systems",
    "soft_story",
    "extreme_soft_story",
    "mass",
    "vertical_geometric",
    "in_plane_discontinuity",
    "weak_story",
    "extreme_weak_story",
]


class System(Part):
    """What holds for both directions.

    irregularities : type -> whether it is there; a type that is not named was not tested.
    shared_columns : whether any column or wall is part of two intersecting systems.
    symmetric_in_plan : stiffness and mass approximately symmetric in plan (EN 1998-1, 4.2.3.2(2)).
    """

    X: DirectionSystem = Field(default_factory=DirectionSystem)
    Y: DirectionSystem = Field(default_factory=DirectionSystem)
    A_B: Positive | None = None
    light_frame: bool = False
    ductility_class: str | None = None
    regular_in_plan: bool | None = None
    regular_in_elevation: bool | None = None
    torsionally_flexible: bool | None = None
    static_method: str | None = None
    shared_columns: bool | None = None
    symmetric_in_plan: bool | None = None
    infills: Infills | None = None
    diaphragm_spans: DiaphragmSpans | None = None
    irregularities: dict[IrregularityType, bool] | None = None


LoadKind = Literal["dead", "live", "storage", "roof_live", "partition", "equipment", "snow", "landscaping"]


class Load(Part):
    """One load of a story: its whole amount (kN); of it a share by the edition's rule counts as seismic weight.

    intensity (kPa) where the share depends on it; `area` (m2) of partitions, for their minimum; `category` of use A
    to H
    and `occupancy` for EN 1998-1; `share` for the reviewer's own rules.  An amount keeps its sign: what is taken off
    counts off.
    """

    name: Annotated[str, Field(max_length=60)] = ""
    kind: LoadKind
    amount: Finite
    intensity: NotNegative | None = None
    area: Positive | None = None
    category: Annotated[str, Field(max_length=20)] | None = None
    occupancy: Literal["correlated", "independent"] | None = None
    share: NotNegative | None = None


class BothWays(Part):
    """A value of a story in each direction."""

    X: Positive | None = None
    Y: Positive | None = None


class FloorStiffness(Part):
    """Stiffness of a floor in plan.

    Distance of the centre of stiffness from the centre of mass across the direction (m),
    and the torsional radius of the direction (m).
    """

    e_0: dict[Direction, NotNegative]
    r: dict[Direction, Positive]
    l_s: Positive | None = None


class Story(Part):
    """One story: its height below the floor (m), the seismic weight at the floor (kN) or the loads it comes from.

    stiffness (kN/m), strength (kN), width (m) of the lateral system: for irregularity in height.
    mass (t), inertia (t m2 about the centre of mass), centre and corners (m) of the floor: for the reference model;
    by default the weight over g, a uniform plan, the middle of the plan, and the corners of `plan` about the centre.
    gravity : vertical load of the floor for P-Delta, kN; by default the mass times g.
    plan_stiffness : for regularity in plan (EN 1998-1), where it is not taken from the reference model.
    offset : whether the lateral system has an offset in the story, and of which kind (IS 1893:2016).
    """

    name: Name
    height: Positive
    weight: Positive | None = None
    plan: Annotated[list[Positive], Field(min_length=2, max_length=2)] | None = None
    loads: Annotated[list[Load], Field(max_length=200)] | None = None
    stiffness: BothWays | None = None
    strength: BothWays | None = None
    width: BothWays | None = None
    mass: Positive | None = None
    inertia: Positive | None = None
    centre: Point | None = None
    corners: Annotated[list[Point], Field(min_length=3, max_length=400)] | None = None
    gravity: NotNegative | None = None
    plan_stiffness: FloorStiffness | None = None
    offset: bool | Literal["in_plane", "out_of_plane"] = False


Stories = Annotated[list[Story], Field(max_length=300)]


class DirectionPeriod(Part):
    """Period from analysis in a direction, s."""

    analysis: Positive | None = None


class Period(Part):
    """Periods from analysis by direction."""

    X: DirectionPeriod = Field(default_factory=DirectionPeriod)
    Y: DirectionPeriod = Field(default_factory=DirectionPeriod)


class Level(Part):
    """An action level: its spectrum, its drift limit, and the load cases that have its results.

    kind : of the design action, of damage limitation or of serviceability.
    factor : its elastic ordinates over those of the design action.  return_period : years, from which an edition
        with a rule
    for it gives the factor.  spectrum : its own elastic spectrum, which gives the factor at the period of the
    direction.
    drift_limit : of the story drift over the story height; by default the edition's for that kind.
    cases : names of the load cases with its results; without any, drifts are those of the design action times the
        factor.
    """

    name: Name
    kind: Literal["design", "damage_limitation", "serviceability"]
    factor: Positive | None = None
    return_period: Positive | None = None
    spectrum: Curve | None = None
    drift_limit: Positive | None = None
    cases: Annotated[list[Name], Field(max_length=200)] = Field(default_factory=list)

    @model_validator(mode="after")
    def _one_spectrum(self) -> Level:
        given = [n for n in ("factor", "return_period", "spectrum") if getattr(self, n) is not None]
        if self.kind == "design" and given:
            raise PydanticCustomError("level", f"{given[0]}: the spectrum of the design action is that of the site")
        if len(given) > 1:
            raise PydanticCustomError("level", f"{' and '.join(given)} are both given; the spectrum needs one of them")
        return self


def _names_differ(levels: list[Level]) -> list[Level]:
    names = [level.name for level in levels]
    if len(set(names)) < len(names):
        raise PydanticCustomError("levels", "two action levels have the same name")
    return levels


Levels = Annotated[list[Level], Field(max_length=10), AfterValidator(_names_differ)]


class ComparisonEdition(Part):
    """What a comparison edition needs beyond what is known of the building."""

    site: Site = Field(default_factory=Site)
    occupancy: Occupancy = Field(default_factory=Occupancy)
    system: System = Field(default_factory=System)
    structure_type: str | None = None


class SetAside(Part):
    """A test of the catalogue whose questions and notes the reviewer sets aside for this review.

    code : of the test.  reason : in words; it is kept with them and is part of the report.
    """

    code: Annotated[str, Field(pattern=r"^S(0[1-9]|[1-8][0-9]|9[0-3])$")]
    reason: Annotated[str, Field(min_length=3, max_length=500)]


class Brief(Part):
    """The reviewer's own side: governing edition, site, occupancy, systems, stories, and editions to compare with.

    drift_at : where the drifts are taken that are compared with their limit, where it is not as the edition says.
    second_order : whether second order effects are in the submitted analysis, where the submission does not state it.
    levels : action levels, where there are others than the edition's own.
    thresholds : of questions beyond the rules of the code, where they are not the defaults.
    set_aside : tests of the catalogue whose questions and notes are for the record only.
    """

    edition: EditionId
    comparison_editions: list[EditionId] = Field(default_factory=list)
    comparisons: dict[EditionId, ComparisonEdition] = Field(default_factory=dict)
    site: Site = Field(default_factory=Site)
    occupancy: Occupancy = Field(default_factory=Occupancy)
    system: System = Field(default_factory=System)
    stories: Stories = Field(default_factory=list)
    period: Period = Field(default_factory=Period)
    structure_type: str | None = None
    drift_at: Literal["centre", "edges"] | None = None
    second_order: Literal["included", "not included"] | None = None
    levels: Levels = Field(default_factory=list)
    tolerance: Annotated[float, Field(ge=0, le=0.2, allow_inf_nan=False)] | None = None
    thresholds: Thresholds = Field(default_factory=Thresholds)
    set_aside: Annotated[list[SetAside], Field(max_length=93)] = Field(default_factory=list)
