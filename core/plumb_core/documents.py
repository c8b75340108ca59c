"""The documents that the core reads: requests and the recheck document, as `contract.md` has them.

Unknown keys, NaN, infinities, negative heights and zero weights are refused with the place and the remedy.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from itertools import pairwise
from typing import Annotated, Any, Final, Literal, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError, model_validator
from pydantic_core import PydanticCustomError

from plumb_core.editions import EDITIONS, Edition
from plumb_core.errors import InputRefused, Problem

FORMAT: Final = "plumb-recheck"
FORMAT_VERSION: Final = 1

Positive = Annotated[float, Field(gt=0, allow_inf_nan=False)]
NotNegative = Annotated[float, Field(ge=0, allow_inf_nan=False)]
Finite = Annotated[float, Field(allow_inf_nan=False)]
Direction = Literal["X", "Y"]
Name = Annotated[str, Field(min_length=1, max_length=60)]


def _known_edition(edition: str) -> str:
    if edition not in EDITIONS:
        raise PydanticCustomError("edition", "edition {id} is not in this engine", {"id": repr(edition)})
    return edition


EditionId = Annotated[str, AfterValidator(_known_edition)]


class Part(BaseModel):
    """Base of all parts: unknown keys are refused, numbers are not read from text."""

    model_config = ConfigDict(extra="forbid", strict=True)


class Curve(Part):
    """Points of a spectrum: periods (s, rising) and ordinates (g)."""

    T: Annotated[list[NotNegative], Field(min_length=2, max_length=10_000)]
    S_a: Annotated[list[NotNegative], Field(min_length=2, max_length=10_000)]


class Own(Part):
    """The reviewer's own factors and limits (edition `custom`)."""

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
    supplements: list[Literal[1, 3]] = Field(default=[1, 3])
    category_by_S_DS_alone: bool = False
    diaphragms_rigid: bool = False
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
    own: Own | None = None

    @model_validator(mode="after")
    def _supplements_build_up(self) -> Site:
        if sorted(set(self.supplements)) not in ([], [1], [1, 3]):
            raise PydanticCustomError("supplements", "Supplement 3 builds on Supplement 1: give [], [1] or [1, 3]")
        self.supplements = sorted(set(self.supplements))
        return self


class Occupancy(Part):
    """Occupancy or importance, as the edition groups it, or the factor itself."""

    risk_category: str | None = None
    I_e: Positive | None = None
    occupancy_category: str | None = None
    use: str | None = None
    I: Positive | None = None  # noqa: E741 - the codes' symbol
    importance_class: str | None = None
    gamma_I: Positive | None = None
    importance_level: int | None = None


class Wall(Part):
    """One shear wall in the direction: web area A_i (m2), length D_i (m), height h_i (m) where the edition asks for it."""

    A_i: Positive
    D_i: Positive
    h_i: Positive | None = None


class Stacked(Part):
    """Another lateral system from a story upwards."""

    lateral_system: str
    from_story: Name


class DirectionSystem(Part):
    """The lateral system in one direction; its factors follow from `lateral_system` where they aren't given."""

    lateral_system: str | None = None
    stacked_systems: list[Stacked] | None = None
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
    T_a_formula: str | None = None
    walls: list[Wall] | None = None
    d: Positive | None = None
    d_gravity: Positive | None = None


class System(Part):
    X: DirectionSystem = Field(default_factory=DirectionSystem)
    Y: DirectionSystem = Field(default_factory=DirectionSystem)
    A_B: Positive | None = None
    light_frame: bool = False
    ductility_class: str | None = None
    regular_in_plan: bool | None = None
    regular_in_elevation: bool | None = None
    static_method: str | None = None


LoadKind = Literal["dead", "live", "storage", "roof_live", "partition", "equipment", "snow", "landscaping"]


class Load(Part):
    """One load of a story: its whole amount (kN); of it a share by the edition's rule counts as seismic weight.

    intensity (kPa) where the share depends on it; `area` (m2) of partitions, for their minimum; `category` of use A to H
    and `occupancy` for EN 1998-1; `share` for the reviewer's own rules.
    """

    name: Annotated[str, Field(max_length=60)] = ""
    kind: LoadKind
    amount: NotNegative
    intensity: NotNegative | None = None
    area: Positive | None = None
    category: Annotated[str, Field(max_length=20)] | None = None
    occupancy: Literal["correlated", "independent"] | None = None
    share: NotNegative | None = None


class BothWays(Part):
    """A value of a story in each direction."""

    X: Positive | None = None
    Y: Positive | None = None


class Story(Part):
    """One story: its height below the floor (m), the seismic weight at the floor (kN) or the loads it comes from.

    stiffness (kN/m), strength (kN), width (m) of the lateral system: for irregularity in height.
    """

    name: Name
    height: Positive
    weight: Positive | None = None
    plan: Annotated[list[Positive], Field(min_length=2, max_length=2)] | None = None
    loads: Annotated[list[Load], Field(max_length=200)] | None = None
    stiffness: BothWays | None = None
    strength: BothWays | None = None
    width: BothWays | None = None


Stories = Annotated[list[Story], Field(max_length=300)]


class DirectionPeriod(Part):
    analysis: Positive | None = None


class Period(Part):
    X: DirectionPeriod = Field(default_factory=DirectionPeriod)
    Y: DirectionPeriod = Field(default_factory=DirectionPeriod)


class Comparison(Part):
    """What a comparison edition needs beyond what is known of the building."""

    site: Site = Field(default_factory=Site)
    occupancy: Occupancy = Field(default_factory=Occupancy)
    system: System = Field(default_factory=System)
    structure_type: str | None = None


class Brief(Part):
    """The reviewer's own side: governing edition, site, occupancy, systems, stories, and editions to compare with."""

    edition: EditionId
    comparison_editions: list[EditionId] = []
    comparisons: dict[EditionId, Comparison] = {}
    site: Site = Field(default_factory=Site)
    occupancy: Occupancy = Field(default_factory=Occupancy)
    system: System = Field(default_factory=System)
    stories: Stories = []
    period: Period = Field(default_factory=Period)
    structure_type: str | None = None
    tolerance: Annotated[float, Field(ge=0, le=0.2, allow_inf_nan=False)] | None = None


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


class RecheckDocument(Part):
    """A recheck document (`.plumb.json`); `review` holds what the web application keeps beside it."""

    format: Literal["plumb-recheck"] = FORMAT
    version: Literal[1] = FORMAT_VERSION
    brief: Brief
    submission: Submission = Field(default_factory=Submission)
    review: dict[str, Any] | None = None


class _Request(Part):
    edition: EditionId
    site: Site = Field(default_factory=Site)
    occupancy: Occupancy = Field(default_factory=Occupancy)
    steps: bool = False


class GroundRequest(_Request):
    kind: Literal["ground"]
    site: Site
    occupancy: Occupancy


class SpectrumRequest(_Request):
    kind: Literal["spectrum"]
    site: Site
    occupancy: Occupancy
    T: Annotated[list[NotNegative], Field(min_length=1, max_length=100_000)]
    direction: Direction = "X"
    system: System = Field(default_factory=System)
    damping: Annotated[float, Field(gt=0, le=0.5, allow_inf_nan=False)] | None = None


class StaticRequest(_Request):
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
    kind: Literal["scaling"]
    system: System = Field(default_factory=System)
    regular: bool | None = None
    site_spectrum: bool = False
    X: DirectionShears | None = None
    Y: DirectionShears | None = None


class TorsionRow(Part):
    """Drifts (m) of a story in a case: `max` and `avg`, or those of the two `ends`; displacements of the ends for A_x."""

    story: Name
    case: Annotated[str, Field(max_length=60)] = ""
    direction: Direction | None = None
    max: Positive | None = None
    avg: Positive | None = None
    ends: Annotated[list[Finite], Field(min_length=2, max_length=2)] | None = None
    displacement_ends: Annotated[list[Finite], Field(min_length=2, max_length=2)] | None = None


class TorsionRequest(_Request):
    kind: Literal["torsion"]
    system: System = Field(default_factory=System)
    rows: Annotated[list[TorsionRow], Field(min_length=1, max_length=100_000)]


StoryValues = Annotated[list[Finite], Field(min_length=1, max_length=300)]
StoryForces = Annotated[list[Positive], Field(min_length=1, max_length=300)]


class DriftRequest(_Request):
    """Elastic displacements of the floors or drifts of the stories (m) under the design forces, bottom to top."""

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


class WeightRequest(_Request):
    """Seismic weight from the loads of the stories."""

    kind: Literal["weight"]
    stories: Annotated[Stories, Field(min_length=1)]


class IrregularityRequest(_Request):
    """Irregularity in height from the story tables."""

    kind: Literal["irregularity"]
    stories: Annotated[Stories, Field(min_length=1)]


class ModesRequest(_Request):
    """Periods (s) of the modes and their effective modal masses as shares of the mass, in each direction."""

    kind: Literal["modes"]
    T: Annotated[list[Positive], Field(min_length=1, max_length=10_000)]
    mass_share: dict[Direction, Annotated[list[NotNegative], Field(min_length=1, max_length=10_000)]]
    stories: Stories = []


class SystemRequest(_Request):
    """Factors of a lateral system, its permission here, and the load combinations that go with it."""

    kind: Literal["system"]
    system: System
    stories: Stories = []
    period: Period = Field(default_factory=Period)


Request = (
    GroundRequest
    | SpectrumRequest
    | StaticRequest
    | ScalingRequest
    | TorsionRequest
    | DriftRequest
    | WeightRequest
    | IrregularityRequest
    | ModesRequest
    | SystemRequest
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
}


def _one_of(allowed: Iterable[Any]) -> str:
    return f"Use one of: {', '.join(str(a) for a in allowed)}."


_CURVE = ("T", "S_a", "S_d", "read")
"""Keys of a site that make up the input `curve`."""


def _foreign(site: Mapping[str, Any], edition: Edition, prefix: str) -> list[Problem]:
    """Site values that the edition doesn't know: most likely meant for another one."""
    known = {*edition.inputs, *edition.choices} | ({*_CURVE} if "curve" in edition.inputs else set())
    problems = []
    for name, field in Site.model_fields.items():
        value = site.get(name)
        if name not in known and value is not None and value != field.get_default(call_default_factory=True):
            problems.append(
                Problem(
                    f"{prefix}/site/{name}",
                    f"{name} is no site value of {edition.id}",
                    f"Leave it out; {edition.id} takes: {', '.join(n for n in Site.model_fields if n in known)}.",
                )
            )
    return problems


def _not_allowed(part: Mapping[str, Any], edition: Edition, prefix: str) -> list[Problem]:
    """Values that the edition's tables don't hold."""
    allowed: dict[str, tuple[Any, ...]] = dict(edition.options)
    if edition.period_types:
        allowed["period_type"] = edition.period_types
    allowed["T_a_formula"] = edition.formulas
    found = []
    for name, path, value in _leaves(part):
        if name == "lateral_system" and isinstance(value, str) and value not in edition.systems:
            found.append(
                Problem(f"{prefix}{path}", f"{edition.id} has no lateral system {value!r}", _one_of(edition.systems))
            )
        elif (
            name in allowed
            and isinstance(value, str | int)
            and not isinstance(value, bool)
            and value not in allowed[name]
        ):
            label = "period type" if name == "period_type" else name
            found.append(
                Problem(f"{prefix}{path}", f"{label} {value!r} is not in {edition.id}", _one_of(allowed[name]))
            )
    return found


def _leaves(part: Mapping[str, Any]) -> Iterator[tuple[str, str, Any]]:
    """(name, path, value) of what stands in site, occupancy and system."""
    for place in ("site", "occupancy", "system"):
        inner = part.get(place)
        for name, value in inner.items() if isinstance(inner, dict) else ():
            if place == "system" and name in ("X", "Y") and isinstance(value, dict):
                for own, given in value.items():
                    yield own, f"/system/{name}/{own}", given
                    for i, stacked in enumerate(given if own == "stacked_systems" and isinstance(given, list) else ()):
                        if isinstance(stacked, dict):
                            yield (
                                "lateral_system",
                                f"/system/{name}/{own}/{i}/lateral_system",
                                stacked.get("lateral_system"),
                            )
            else:
                yield name, f"/{place}/{name}", value


def _curves(site: Mapping[str, Any], prefix: str) -> list[Problem]:
    """Curves whose periods don't rise or whose columns differ in length."""
    problems = []
    mce = site.get("mce")
    found = [(f"{prefix}/site/mce", mce.get("T"), mce.get("S_a"))] if isinstance(mce, dict) else []
    if site.get("T") is not None:
        ordinates = [site.get(n) for n in ("S_a", "S_d") if site.get(n) is not None]
        if len(ordinates) != 1:
            problems.append(
                Problem(f"{prefix}/site", "a curve needs either S_a (g) or S_d (m) beside T", "Give one of the two.")
            )
        else:
            found.append((f"{prefix}/site", site["T"], ordinates[0]))
    for path, T, values in found:
        if not isinstance(T, list) or not isinstance(values, list):
            continue
        if len(T) != len(values):
            problems.append(
                Problem(f"{path}/T", f"{len(T)} periods for {len(values)} ordinates", "Give one ordinate a period.")
            )
        if all(isinstance(t, int | float) for t in T) and any(b <= a for a, b in pairwise(T)):
            problems.append(
                Problem(f"{path}/T", "the periods don't rise", "Sort the points by period, each period once.")
            )
    return problems


def _story_names(stories: Any, prefix: str) -> list[Problem]:
    problems = []
    seen = set()
    for index, story in enumerate(stories if isinstance(stories, list) else ()):
        name = story.get("name") if isinstance(story, dict) else None
        if isinstance(name, str) and name in seen:
            problems.append(
                Problem(
                    f"{prefix}/stories/{index}/name",
                    f"the name {name!r} stands for two stories",
                    "Give each story a name of its own.",
                )
            )
        seen.add(name if isinstance(name, str) else None)
    return problems


def _torsion_rows(part: Mapping[str, Any]) -> list[Problem]:
    problems = []
    rows = part.get("rows") if part.get("kind") == "torsion" else None
    for i, row in enumerate(rows if isinstance(rows, list) else ()):
        if not isinstance(row, dict):
            continue
        pair = row.get("max") is not None and row.get("avg") is not None
        if pair == (row.get("ends") is not None):
            problems.append(Problem(f"/rows/{i}", "a row needs either max and avg, or ends", "Give one of the two."))
        for name in ("ends", "displacement_ends"):
            ends = row.get(name)
            if (
                isinstance(ends, list)
                and len(ends) == 2
                and all(isinstance(e, int | float) for e in ends)
                and sum(ends) == 0
            ):
                problems.append(
                    Problem(
                        f"/rows/{i}/{name}",
                        "the average of the two ends is zero",
                        "Give displacements that differ from a pure twist.",
                    )
                )
        if (
            pair
            and isinstance(row["max"], int | float)
            and isinstance(row["avg"], int | float)
            and row["max"] < row["avg"]
        ):
            problems.append(
                Problem(f"/rows/{i}/max", "the greatest is less than the average", "Give the greater of the two ends.")
            )
    return problems


def _drift_lists(part: Mapping[str, Any]) -> list[Problem]:
    if part.get("kind") != "drift":
        return []
    problems = []
    stories = part.get("stories")
    count = len(stories) if isinstance(stories, list) else 0
    if (part.get("elastic_drift") is None) == (part.get("elastic_displacement") is None):
        problems.append(
            Problem(
                "/elastic_drift",
                "give either elastic_drift or elastic_displacement",
                "Give one of the two, one value a story.",
            )
        )
    if (part.get("P") is None) != (part.get("V") is None):
        problems.append(Problem("/P", "the stability coefficient needs P and V", "Give both, or neither."))
    for name in ("elastic_drift", "elastic_displacement", "P", "V"):
        values = part.get(name)
        if isinstance(values, list) and len(values) != count:
            problems.append(
                Problem(
                    f"/{name}", f"{len(values)} values for {count} stories", "Give one value a story, bottom to top."
                )
            )
    return problems


def _raw_problems(part: Any, prefix: str) -> list[Problem]:
    """Problems that only show across fields; read off the raw document, so that they stand beside all others."""
    if not isinstance(part, dict):
        return []
    problems = []
    edition = EDITIONS.get(part["edition"]) if isinstance(part.get("edition"), str) else None
    site = part.get("site")
    if edition is not None:
        problems += _not_allowed(part, edition, prefix)
        if isinstance(site, dict):
            problems += _foreign(site, edition, prefix)
    if isinstance(site, dict):
        problems += _curves(site, prefix)
    comparisons = part.get("comparisons")
    for name, own in comparisons.items() if isinstance(comparisons, dict) else ():
        if isinstance(own, dict):
            problems += _raw_problems({**own, "edition": name}, f"{prefix}/comparisons/{name}")
    return problems + _story_names(part.get("stories"), prefix) + _torsion_rows(part) + _drift_lists(part)


def _general_remedy(context: Mapping[str, Any]) -> str:
    return "Mend the value; `plumb schema` describes it."


_REMEDIES: dict[str, Callable[[Mapping[str, Any]], str]] = {
    "extra_forbidden": lambda c: "Remove the key, or mend its spelling; `plumb schema` lists the keys.",
    "missing": lambda c: "Give this value.",
    "greater_than": lambda c: f"Give a number greater than {c.get('gt')}.",
    "greater_than_equal": lambda c: f"Give a number of at least {c.get('ge')}.",
    "less_than_equal": lambda c: f"Give a number of at most {c.get('le')}.",
    "finite_number": lambda c: "Give a finite number.",
    "literal_error": lambda c: f"Use one of: {c.get('expected')}.",
    "string_type": lambda c: "Give a text in quotation marks.",
    "too_short": lambda c: "Give at least one.",
    "list_type": lambda c: "Give a list.",
    "float_type": lambda c: "Give a number without quotation marks.",
    "bool_type": lambda c: "Give true or false.",
    "edition": lambda c: f"Use one of: {', '.join(EDITIONS)}.",
    "supplements": lambda c: "Declare the supplements in their order.",
}


def _problem(error: Mapping[str, Any]) -> Problem:
    context: dict[str, Any] = dict(error.get("ctx") or {})
    # unions add the names of their members to the place; only keys and indices of the document are kept
    path = "".join(f"/{part}" for part in error["loc"] if not str(part).startswith(("float", "str", "tagged")))
    remedy = _REMEDIES.get(error["type"], _general_remedy)
    message = str(error["msg"])
    return Problem(path or "/", message[0].lower() + message[1:], remedy(context))


Model = TypeVar("Model", bound=BaseModel)


def read(model: type[Model], document: Any) -> Model:
    """`document` as the model; raises InputRefused naming every problem."""
    problems = _raw_problems(document, "")
    if isinstance(document, dict) and "brief" in document:
        problems += _raw_problems(document["brief"], "/brief")
    try:
        result = model.model_validate(document)
    except ValidationError as refused:
        problems += [_problem(error) for error in refused.errors(include_url=False)]
        raise InputRefused(dict.fromkeys(problems)) from None
    if problems:
        raise InputRefused(problems)
    return result


def read_request(document: Any) -> Request:
    """A request document as its model; raises InputRefused naming every problem."""
    if not isinstance(document, dict):
        raise InputRefused([Problem("/", "a request is a JSON object", "Give an object with a `kind`.")])
    kind = document.get("kind")
    if kind not in KINDS:
        raise InputRefused(
            [
                Problem(
                    "/kind",
                    f"kind {kind!r} is not known" if "kind" in document else "kind is missing",
                    f"Use one of: {', '.join(KINDS)}.",
                )
            ]
        )
    return read(KINDS[kind], document)


def read_recheck(document: Any) -> RecheckDocument:
    """A recheck document as its model; raises InputRefused naming every problem."""
    return read(RecheckDocument, document)
