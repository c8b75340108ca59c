"""Documents of the reference model: lateral lines on rigid diaphragms, or a three-dimensional frame.

As the section "Structural input" of `contract.md` has them, with a few keys beside them, each with a default that
leaves
the contract's meaning alone.  m, kN, t, rad; angles in plan in degrees from +X, counter-clockwise.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from plumb_core.documents.base import CaseName, Coordinate, Direction, Finite, Name, NotNegative, Part, Point, Positive

Vector = Annotated[list[Coordinate], Field(min_length=3, max_length=3)]
Dof = Literal["ux", "uy", "uz", "rx", "ry", "rz"]
Id = Annotated[str, Field(min_length=1, max_length=60)]
MANY = 200_000
RECORD_VALUES = 60_000
"""Most values of a ground record that a model keeps."""


class LateralLine(Part):
    """A shear-type element between consecutive diaphragms: stiffness in kN/m of relative displacement along `angle`."""

    story: Annotated[int, Field(ge=0)]
    at: Point
    angle: Finite = 0.0
    stiffness: Positive
    name: Annotated[str, Field(max_length=60)] = ""


class Node(Part):
    """A node, coordinates in m."""

    id: Id
    at: Vector


class Material(Part):
    """E in kN/m2, density in t/m3; G follows from nu unless it is given."""

    id: Id
    E: Positive
    nu: Annotated[float, Field(gt=-1, le=0.5, allow_inf_nan=False)] = 0.2
    G: Positive | None = None
    density: NotNegative = 0.0


class Section(Part):
    """Area and second moments in m2 and m4; Ay, Az: shear areas, without which shear deformation is excluded."""

    id: Id
    A: Positive
    Iy: NotNegative
    Iz: NotNegative
    J: NotNegative
    Ay: Positive | None = None
    Az: Positive | None = None


class FrameMember(Part):
    """A member from node i to node j; offsets (m, global) lead from the node to the end of the flexible part."""

    id: Id
    i: Id
    j: Id
    section: Id
    material: Id
    roll: Finite = 0.0
    release_i: list[Dof] = Field(default_factory=list)
    release_j: list[Dof] = Field(default_factory=list)
    axial: Literal["both", "tension_only"] = "both"
    group: Annotated[str, Field(max_length=60)] = ""
    offset_i: Vector | None = None
    offset_j: Vector | None = None
    line_mass: NotNegative = 0.0


class StiffnessFactors(Part):
    """Factors on the gross section of a group of members, for cracking."""

    A: Positive = 1.0
    Iy: Positive = 1.0
    Iz: Positive = 1.0
    J: Positive = 1.0


class Springs(Part):
    """Stiffness of a support, kN/m and kN m/rad."""

    ux: Positive | None = None
    uy: Positive | None = None
    uz: Positive | None = None
    rx: Positive | None = None
    ry: Positive | None = None
    rz: Positive | None = None


class Support(Part):
    """Fixed directions and springs of a node."""

    node: Id
    fixed: list[Dof] = Field(default_factory=list)
    springs: Springs | None = None


class Diaphragm(Part):
    """Nodes of a floor; a floor that is not `rigid` only gathers what is reported for it."""

    id: Id
    nodes: Annotated[list[Id], Field(min_length=1)]
    rigid: bool = True


class NodeMass(Part):
    """Mass at a node, t; iz about the vertical, t m2."""

    node: Id
    mx: NotNegative = 0.0
    my: NotNegative = 0.0
    mz: NotNegative = 0.0
    iz: NotNegative = 0.0
    source: Literal["point", "equipment"] = "point"


class FloorMass(Part):
    """Mass lumped at a diaphragm: t, t m2 about its centre.

    Outline: corners for which a missing centre and inertia are taken.

    gravity : vertical load that belongs to P-Delta, kN; by default the mass times g.
    """

    diaphragm: Id
    mass: NotNegative
    inertia: NotNegative | None = None
    centre: Point | None = None
    outline: Annotated[list[Point], Field(min_length=3, max_length=400)] | None = None
    gravity: NotNegative | None = None


class Frame(Part):
    """A three-dimensional frame.

    tension_only : how members that only take tension act in a linear run: at half stiffness, both ways, or excluded.
    vertical_mass : whether the mass of members acts vertically too.  concentrate : mass between floors is taken to the
    nearest floor, its first moments in plan kept.
    """

    nodes: Annotated[list[Node], Field(min_length=1, max_length=MANY)]
    materials: Annotated[list[Material], Field(min_length=1, max_length=MANY)]
    sections: Annotated[list[Section], Field(min_length=1, max_length=MANY)]
    members: Annotated[list[FrameMember], Field(min_length=1, max_length=MANY)]
    supports: Annotated[list[Support], Field(max_length=MANY)] = Field(default_factory=list)
    diaphragms: Annotated[list[Diaphragm], Field(max_length=2000)] = Field(default_factory=list)
    masses: Annotated[list[NodeMass], Field(max_length=MANY)] = Field(default_factory=list)
    floors: Annotated[list[FloorMass], Field(max_length=2000)] = Field(default_factory=list)
    stiffness_factors: dict[str, StiffnessFactors] = Field(default_factory=dict)
    member_mass: bool = False
    vertical_mass: bool = True
    concentrate: bool = False
    tension_only: Literal["half", "both", "none"] = "half"
    p_delta: bool = False


Lines = Annotated[list[LateralLine], Field(min_length=1, max_length=20_000)]


class ModelFloor(Part):
    """What the model of lateral lines has at a story in addition to the brief's height and weight; see `Story`."""

    name: Name
    mass: Positive | None = None
    inertia: Positive | None = None
    centre: Point | None = None
    corners: Annotated[list[Point], Field(min_length=3, max_length=400)] | None = None
    gravity: NotNegative | None = None


class Analysis(Part):
    """How the model is solved: a number of modes or a target, and how their maxima are combined.

    eccentricity : accidental, as a share of the plan dimension; the edition's where none is given.
    """

    method: Literal["eigen", "ritz"] = "eigen"
    modes: Annotated[int, Field(gt=0, le=5000)] | None = None
    target: Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)] | None = None
    combine: Literal["CQC", "SRSS", "ABS"] = "CQC"
    directions: Literal["SRSS", "100-30", "100-30-30"] = "SRSS"
    damping: Annotated[float, Field(gt=0, lt=1, allow_inf_nan=False)] = 0.05
    residual_mass: bool = False
    eccentricity: Annotated[float, Field(ge=0, le=0.5, allow_inf_nan=False)] | None = None
    eccentricity_as: Literal["moments", "mass"] = "moments"


Thickness = Annotated[float, Field(ge=1e-3, le=100, allow_inf_nan=False)]
"""m, dimensions of a building: a millimetre or the width of a town is a wrong unit."""
Span = Annotated[float, Field(ge=0.01, le=1000, allow_inf_nan=False)]
"""m, between two lines of columns."""


class Rectangle(Part):
    """A solid rectangular section, m: width, and depth in the plane of bending."""

    width: Thickness
    depth: Thickness


class Panel(Part):
    """Something that stiffens a bay: a wall in its middle, or a pair of diagonals.

    Lines, bays and stories count from 1.
    """

    kind: Literal["wall", "braces"]
    along: Literal["X", "Y"]
    line: Annotated[int, Field(ge=1, le=200)]
    bay: Annotated[int, Field(ge=1, le=200)]
    from_story: Annotated[int, Field(ge=1, le=300)] = 1
    to_story: Annotated[int, Field(ge=1, le=300)]


Share = Annotated[float, Field(gt=0, le=10, allow_inf_nan=False)]


class Cracking(Part):
    """Share of the gross bending stiffness by group."""

    columns: Share = 0.7
    beams: Share = 0.35
    walls: Share = 0.5


class Grid(Part):
    """A regular frame: bays along X and Y (m), sections by group, walls and bracing by bay; stories are the brief's."""

    bays_x: Annotated[list[Span], Field(min_length=1, max_length=100)]
    bays_y: Annotated[list[Span], Field(min_length=1, max_length=100)]
    E: Positive = 3.0e7
    nu: Annotated[float, Field(ge=0, le=0.5, allow_inf_nan=False)] = 0.2
    density: NotNegative = 2.5
    columns: Rectangle
    beams_x: Rectangle
    beams_y: Rectangle
    wall_thickness: Thickness = 0.3
    brace_area: Positive = 0.004
    cracking: Cracking = Field(default_factory=Cracking)
    base: Literal["fixed", "pinned"] = "fixed"
    panels: Annotated[list[Panel], Field(max_length=2000)] = Field(default_factory=list)


class GroundRecord(Part):
    """Ground acceleration `a` in `unit`, at steps of `dt` or at times `t` (s).

    That a load case of theirs was run under.

    name : of the record.  case : of theirs.  factor : on the accelerations, as their case has it.
    """

    name: Name
    case: CaseName
    direction: Direction
    factor: Positive = 1.0
    a: Annotated[list[Finite], Field(min_length=2, max_length=RECORD_VALUES)]
    unit: Literal["g", "m/s2", "cm/s2", "mm/s2"]
    dt: Positive | None = None
    t: Annotated[list[NotNegative], Field(min_length=2, max_length=RECORD_VALUES)] | None = None


class ReferenceModel(Part):
    """The reviewer's reference model of the building, in one depth or both; `use` says which one answers.

    grid : what the frame was built from, where it was built by the grid
    records : ground motions that cases of theirs were run under, each with its case
    """

    use: Literal["lines", "frame"] = "lines"
    floors: Annotated[list[ModelFloor], Field(max_length=300)] = Field(default_factory=list)
    lateral_lines: Annotated[list[LateralLine], Field(max_length=20_000)] = Field(default_factory=list)
    frame: Frame | None = None
    grid: Grid | None = None
    p_delta: bool = False
    analysis: Analysis = Field(default_factory=Analysis)
    records: Annotated[list[GroundRecord], Field(max_length=12)] = Field(default_factory=list)
