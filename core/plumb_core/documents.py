"""The documents that the core reads: requests and the recheck document, as `contract.md` has them.

Unknown keys, NaN, infinities, negative heights and zero weights are refused with the place and the remedy.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Annotated, Any, Final, Literal, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError, model_validator
from pydantic_core import PydanticCustomError

from plumb_core.editions import EDITIONS
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


class Site(Part):
    """Site values of ASCE/SEI 7-05, 7-10 and 7-16.

    F_a and F_v override the tables; `supplements` declares which supplements hold.
    """

    S_S: Positive | None = None
    S_1: Positive | None = None
    T_L: Positive | None = None
    site_class: Literal["A", "B", "C", "D", "E", "F"] | None = None
    class_by_default: bool = False
    velocity_measured: bool = True
    isolated_or_damped: bool = False
    F_a: Positive | None = None
    F_v: Positive | None = None
    supplements: list[Literal[1, 3]] = Field(default=[1, 3])
    category_by_S_DS_alone: bool = False
    diaphragms_rigid: bool = False

    @model_validator(mode="after")
    def _supplements_build_up(self) -> Site:
        if sorted(set(self.supplements)) not in ([], [1], [1, 3]):
            raise PydanticCustomError("supplements", "Supplement 3 builds on Supplement 1: give [], [1] or [1, 3]")
        self.supplements = sorted(set(self.supplements))
        return self


class Occupancy(Part):
    risk_category: Literal["I", "II", "III", "IV"] | None = None
    I_e: Positive | None = None


class Wall(Part):
    """One shear wall in the direction: web area A_i (m2), length D_i (m), height h_i (m) where the edition asks for it."""

    A_i: Positive
    D_i: Positive
    h_i: Positive | None = None


class DirectionSystem(Part):
    """The lateral system in one direction."""

    period_type: str | None = None
    R: Positive | None = None
    Omega_0: Positive | None = None
    C_d: Positive | None = None
    rho: Positive | None = None
    regular: bool | None = None
    T_a_formula: Literal["12.8-7", "12.8-8", "12.8-9"] = "12.8-7"
    walls: list[Wall] | None = None


class System(Part):
    X: DirectionSystem = Field(default_factory=DirectionSystem)
    Y: DirectionSystem = Field(default_factory=DirectionSystem)
    A_B: Positive | None = None
    light_frame: bool = False


class Story(Part):
    """One story: its height below the floor (m), the seismic weight at the floor (kN)."""

    name: Name
    height: Positive
    weight: Positive | None = None
    plan: Annotated[list[Positive], Field(min_length=2, max_length=2)] | None = None


Stories = Annotated[list[Story], Field(max_length=300)]


class DirectionPeriod(Part):
    analysis: Positive | None = None


class Period(Part):
    X: DirectionPeriod = Field(default_factory=DirectionPeriod)
    Y: DirectionPeriod = Field(default_factory=DirectionPeriod)


class Brief(Part):
    """The reviewer's own side: edition, site, occupancy, systems, stories."""

    edition: EditionId
    comparison_editions: list[EditionId] = []
    site: Site = Field(default_factory=Site)
    occupancy: Occupancy = Field(default_factory=Occupancy)
    system: System = Field(default_factory=System)
    stories: Stories = []
    period: Period = Field(default_factory=Period)
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
    site: Site
    occupancy: Occupancy
    steps: bool = False


class GroundRequest(_Request):
    kind: Literal["ground"]


class SpectrumRequest(_Request):
    kind: Literal["spectrum"]
    T: Annotated[list[NotNegative], Field(min_length=1, max_length=100_000)]
    direction: Literal["X", "Y"] = "X"
    system: System = Field(default_factory=System)


class StaticRequest(_Request):
    kind: Literal["static"]
    system: System
    stories: Annotated[Stories, Field(min_length=1)]
    period: Period = Field(default_factory=Period)


Request = GroundRequest | SpectrumRequest | StaticRequest
KINDS: dict[str, type[GroundRequest] | type[SpectrumRequest] | type[StaticRequest]] = {
    "ground": GroundRequest,
    "spectrum": SpectrumRequest,
    "static": StaticRequest,
}


def _raw_problems(part: Any, prefix: str) -> list[Problem]:
    """Problems that only show across fields; read off the raw document, so that they stand beside all others."""
    if not isinstance(part, dict):
        return []
    problems = []
    edition = EDITIONS.get(part.get("edition", ""))
    system = part.get("system")
    for direction in ("X", "Y"):
        own = system.get(direction) if isinstance(system, dict) else None
        kind = own.get("period_type") if isinstance(own, dict) else None
        if edition is not None and isinstance(kind, str) and kind not in edition.PERIOD_TYPES:
            problems.append(
                Problem(
                    f"{prefix}/system/{direction}/period_type",
                    f"period type {kind!r} is not in {edition.ID}",
                    f"Use one of: {', '.join(edition.PERIOD_TYPES)}.",
                )
            )
    seen = set()
    stories = part.get("stories")
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
