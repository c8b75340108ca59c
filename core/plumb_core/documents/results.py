"""What the core gives: every JSON Schema of an answer, the API's and the web application's types are made from these.

They are dictionaries with named keys and not objects: an answer is built once, in the form in which it is stored and
sent.
"""

from __future__ import annotations

from typing import Any, Literal, NotRequired

from pydantic import ConfigDict, TypeAdapter, with_config
from typing_extensions import TypedDict

Value = float | str
"""A number, or the text of a quantity such as the site class."""
Direction = Literal["X", "Y"]
STRICT = ConfigDict(extra="forbid", strict=True)


# Derivations


@with_config(STRICT)
class CandidateResult(TypedDict):
    """One expression among several of which the code lets one govern."""

    label: str
    value: float
    role: Literal["base", "upper", "lower"]


StepContent = bool | float | str | list[float | None] | None
StepSource = Literal["input", "adopted", "pinned", "rule", "assumed", "found", "declared", "submitted"]


@with_config(STRICT)
class StepResult(TypedDict):
    """One step of a derivation: a quantity of the building, of a direction or of a load case, and how it came about.

    value : number, text, flag or array; null where there is no limit.  inputs : ids of the steps that it rests on.
    source : "assumed" where a rule took it by itself, for want of anything else.
    """

    id: str
    quantity: str
    direction: Direction | None
    case: str | None
    symbol: str
    symbol_tex: str
    meaning: str
    unit: str
    value: StepContent
    source: StepSource
    clause: str
    tex: str
    inputs: list[str]
    governed_by: str | None
    candidates: list[CandidateResult]
    margin: float | None


# Rechecks


@with_config(STRICT)
class Provenance(TypedDict):
    """Where a submitted value was."""

    file: str
    sheet: str
    row: int | None
    column: str
    note: str


@with_config(STRICT)
class Theirs(TypedDict):
    """The submitted value; `unit` is the one that it was written in."""

    value: Value
    text: str
    unit: str
    source: Provenance


@with_config(STRICT)
class ComparisonResult(TypedDict):
    """Our value beside it; `multiples` is the difference in multiples of the tolerance."""

    value: Value
    deviation: float | None
    multiples: float
    tolerance: float
    agrees: bool


@with_config(STRICT)
class Limit(TypedDict):
    """A limit of the code on the submitted value."""

    value: float
    side: Literal["max", "min"]
    quantity: str
    symbol: str
    clause: str
    governed_by: str | None


@with_config(STRICT)
class CheckResult(TypedDict):
    """One comparison of the submission with ours.

    kind : what the check does.  shown : the side whose offset is drawn, with `multiples` of its tolerance.
    slip : code of the catalogue's test that spoke (docs/slips.md).  step : id of the step that our value comes from.
         used_by : how many checks are inherited from this one.
    draft : text of a remark, to edit.
    """

    id: str
    kind: str
    quantity: str
    direction: Direction | None
    story: str | None
    point: int | None
    mode: int | None
    case: str
    stage: str
    label: str
    symbol: str
    symbol_tex: str
    meaning: str
    unit: str
    clause: str
    theirs: Theirs | None
    carried: ComparisonResult | None
    independent: ComparisonResult | None
    shown: Literal["carried", "independent"] | None
    multiples: float | None
    verdict: Literal["agrees", "differs", "breaches", "question", "note", "gap", "open"]
    role: Literal["origin", "inherited"] | None
    level: int | None
    limit: Limit | None
    follows: bool
    rests_on: list[str]
    used_by: int
    step: str
    note: str
    slip: str | None
    draft: str


@with_config(STRICT)
class Evidence(CheckResult):
    """A check as it was when a finding was filed; the first of a finding with its derivation."""

    derivation: NotRequired[list[StepResult]]


@with_config(STRICT)
class Steps(TypedDict):
    """Derivations of both sides, inputs before what rests on them."""

    independent: list[StepResult]
    carried: list[StepResult]


@with_config(STRICT)
class Counts(TypedDict):
    """How many checks came to which verdict."""

    agrees: int
    differs: int
    breaches: int
    question: int
    note: int
    gap: int
    open: int


@with_config(STRICT)
class NotRechecked(TypedDict):
    """A submitted value that is not rechecked, and why."""

    quantity: str
    direction: Direction | None
    story: str | None
    point: int | None
    case: str
    why: str


@with_config(STRICT)
class Reason(TypedDict):
    """Why values are not rechecked, and how many."""

    why: str
    values: int


@with_config(STRICT)
class Coverage(TypedDict):
    """How many of the submitted values are rechecked and at which level, the checks of those that are not, and why.

    reasons : with the number of values of each; the screens' sheet names the first values alone.
    requirements : of the edition that apply, of which `shown` are shown and `missing` are missing; the rest is open.
    """

    claims: int
    rechecked: int
    recomputed: int
    independent: int
    requirements: int
    shown: int
    missing: int
    unchecked: list[str]
    reasons: list[Reason]
    not_rechecked: list[NotRechecked]


@with_config(STRICT)
class Condition(TypedDict):
    """A condition of the two-stage analysis."""

    words: str
    met: bool | None
    value: float | None
    limit: float


@with_config(STRICT)
class TwoStage(TypedDict):
    """A flexible upper part on a rigid podium: conditions, and base shears in kN.

    T_upper, T_upper_limit : period of the upper part as used and its upper limit, s; null where that is not known.
    factor : on the reactions of the upper part.  F : forces at the levels, kN, bottom to top.
    """

    conditions: list[Condition]
    permitted: bool | None
    T_upper: float
    T_upper_limit: float | None
    factor: float
    coefficient_upper: float
    V_upper: float
    handed_down: float
    coefficient_lower: float
    V_lower: float
    V_base: float
    F: list[float]


@with_config(STRICT)
class TwoStageByDirection(TypedDict):
    """The two-stage analysis of each direction; null where there is no podium."""

    X: TwoStage | None
    Y: TwoStage | None


@with_config(STRICT)
class Shares(TypedDict, total=False):
    """Effective modal masses and inertia as shares, by axis; what is not stated is excluded."""

    X: float
    Y: float
    RZ: float


@with_config(STRICT)
class ShapeOfFloor(TypedDict):
    """Movement of a floor in a submitted mode."""

    story: str
    X: float | None
    Y: float | None
    RZ: float | None


@with_config(STRICT)
class TheirMode(TypedDict):
    """A submitted mode."""

    mode: int
    T: float | None
    mass_ratio: Shares
    shape: list[ShapeOfFloor] | None


@with_config(STRICT)
class MatchedMode(TypedDict):
    """A mode of ours with the submitted one that it was matched with; `mac` is the likeness of their shapes."""

    ours: int
    theirs: int | None
    mac: float | None
    likeness: float | None


@with_config(STRICT)
class Likeness(TypedDict):
    """How well the submitted modes fit ours as they are and with their axes exchanged."""

    as_submitted: float
    exchanged: float


@with_config(STRICT)
class SumsOfModes(TypedDict):
    """Sums of the stated shares by axis."""

    X: float | None
    Y: float | None
    RZ: float | None


@with_config(STRICT)
class EnoughModes(TypedDict):
    """Whether the stated shares reach the target."""

    X: bool | None
    Y: bool | None


@with_config(STRICT)
class ModeComparison(TypedDict):
    """Submitted modes beside ours: rows in the order of ours."""

    rows: list[MatchedMode]
    unmatched: list[int]
    missing: list[int]
    swapped: bool
    likeness: Likeness
    sums: SumsOfModes
    enough: EnoughModes


@with_config(STRICT)
class SubmittedModes(TypedDict):
    """The submitted modes, and beside ours where the reference model has been run."""

    theirs: list[TheirMode]
    comparison: ModeComparison | None
    target: float | None


@with_config(STRICT)
class FactorPart(TypedDict):
    """A factor of a product: what it is, its value, and where it comes from."""

    words: str
    symbol: str
    value: float
    unit: str
    clause: str


@with_config(STRICT)
class Shears(TypedDict):
    """Base shears of a direction, kN, theirs and ours; null where there is none.

    floor : what the modal base shear has to reach.  before_ours : of their own modes with our curve and weight.
    before_model : of the reference model.
    of_modes : of each mode that it is combined of, in the order of their table.  taken_apart : factors that their
        factor on
    the spectrum is made of.  checks : ids of the checks of `static`, `before`, `after`, `factor`.
    """

    static_ours: float | None
    static_theirs: float | None
    before_ours: float | None
    before_model: float | None
    before_theirs: float | None
    after_theirs: float | None
    share: float | None
    floor: float | None
    factor_required: float | None
    factor_used: float | None
    of_modes: list[float]
    taken_apart: list[FactorPart]
    checks: dict[str, str]


@with_config(STRICT)
class ScalingStage(TypedDict):
    """Scaling of the modal base shear; null for a direction that nothing is stated of."""

    X: Shears | None
    Y: Shears | None
    applies_to: list[str]
    clause: str


@with_config(STRICT)
class CaseMoved(TypedDict):
    """How a case turns: movements of the ends in m and the ratio by which the edition judges, bottom to top.

    drift, displacement : of both ends ([] where only the greatest and the mean are stated, which `greatest` and
        `mean` have).
    drift_own, displacement_own, ratio_own : of the reference model under the edition's forces, [] or null where
        there is none
    tiny : stories whose drifts are too small to say anything.  worst : story of the greatest ratio among the others.
    """

    case: str
    kind: str | None
    direction: Direction
    eccentricity: float | None
    drift: list[list[float | None]]
    displacement: list[list[float | None]]
    drift_own: list[list[float | None]]
    displacement_own: list[list[float | None]]
    greatest: list[float | None]
    mean: list[float | None]
    ratio: list[float | None]
    ratio_own: list[float | None] | None
    tiny: list[bool]
    classes: list[str] | None
    worst: str | None


@with_config(STRICT)
class Threshold(TypedDict):
    """A ratio from which the edition has another class."""

    value: float
    words: str


@with_config(STRICT)
class Follows(TypedDict):
    """What follows from an irregularity.

    `status` is shown, missing, differs, or open where the submission cannot state.
    """

    words: str
    status: Literal["shown", "missing", "differs", "open"]
    why: str


@with_config(STRICT)
class ByDirection(TypedDict):
    """Values by story of each direction, bottom to top; null where there are none."""

    X: list[float | None] | None
    Y: list[float | None] | None


@with_config(STRICT)
class TwistStage(TypedDict):
    """Twist of all cases whose ends are stated."""

    cases: list[CaseMoved]
    thresholds: list[Threshold]
    irregular: bool | None
    A_x_ours: ByDirection
    A_x_theirs: ByDirection
    follows: list[Follows]
    eccentricity: float | None
    clause: str


@with_config(STRICT)
class CaseDrift(TypedDict):
    """Design story drift over the height of a case, as it is checked against the limit, bottom to top.

    stated : as the case states them, m.
    """

    case: str
    level: str | None
    kind: str | None
    stated: list[float | None]
    ratio: list[float | None]
    displacement: list[float | None]
    displacement_own: list[float | None] | None


@with_config(STRICT)
class LevelDrifts(TypedDict):
    """Story drifts over the story heights at a declared action level, bottom to top; null with what it `needs`.

    factor : on the design action.  cases : load cases that the drifts are of; none where they are those of the
        design action.
    """

    name: str
    kind: Literal["design", "damage_limitation", "serviceability"]
    factor: float | None
    cases: list[str]
    ratio: list[float] | None
    limit: float | None
    verdicts: list[bool] | None
    needs: str


@with_config(STRICT)
class BaseShearForDrift(TypedDict):
    """Base shear that drifts and stability rest on, beside that of the forces; kN, s.

    factor : what modal drifts are multiplied by for it; 1 where the edition does not scale drifts, null where it is
        not known.
    governed_by : what gives it where it is not the base shear of the forces.
    """

    V: float
    V_forces: float | None
    T: float | None
    factor: float | None
    clause: str
    governed_by: str


@with_config(STRICT)
class DriftsOfDirection(TypedDict):
    """Drifts of a direction: every case, what governs at each story, the limit, and the factors between.

    chain : from the elastic drift of the worst story to what is checked against the limit.  notes : what holds for
        the forces behind.
    """

    cases: list[CaseDrift]
    governing: list[str]
    ratio: list[float | None]
    ratio_theirs: list[float | None] | None
    limit: list[float | None]
    at_edges: bool
    chain: list[FactorPart]
    chain_story: str | None
    theta: list[float | None] | None
    theta_theirs: list[float | None] | None
    theta_limit: float | None
    base_shear: BaseShearForDrift | None
    levels: list[LevelDrifts]
    notes: list[str]


@with_config(STRICT)
class DriftStage(TypedDict):
    """Drift; null for a direction without any."""

    X: DriftsOfDirection | None
    Y: DriftsOfDirection | None


@with_config(STRICT)
class Stages(TypedDict):
    """What the stages of scaling, twist and drift show beside their checks; null where nothing is stated."""

    scaling: ScalingStage | None
    twist: TwistStage | None
    drift: DriftStage | None


@with_config(STRICT)
class Contradiction(TypedDict):
    """A value that contradicts a fact, and its source."""

    value: StepContent | list[str]
    source: Literal["found", "declared", "submitted", "assumed"]


@with_config(STRICT)
class FactResult(TypedDict):
    """A condition that checks depend on.

    source : found by our own computation, declared in the brief, stated by the submission, or assumed.
    used_by : ids of the checks that depend on it.  where : place and value behind it, in words.
    """

    quantity: str
    direction: Direction | None
    story: str | None
    case: str | None
    value: StepContent | list[str]
    source: Literal["found", "declared", "submitted", "assumed"]
    contradicted_by: Contradiction | None
    clause: str
    used_by: list[str]
    id: str
    symbol: str
    meaning: str
    unit: str
    where: str


@with_config(STRICT)
class RequirementResult(TypedDict):
    """What the edition requires a submission to show, and whether it is shown.

    level : at which it is rechecked, where it is shown.  why : it is missing, does not apply or is open.
    checks : that show it, or gaps and open checks that state its absence.  slip : code of the catalogue.
    """

    id: str
    clause: str
    words: str
    stage: str
    status: Literal["shown", "missing", "not_applicable", "open"]
    level: int | None
    why: str
    checks: list[str]
    slip: str | None


@with_config(STRICT)
class RecheckOutcome(TypedDict):
    """What a recheck comes to, without the derivations.

    stories : bottom to top.  origins : ids of the checks where deviations start.
    """

    engine: str
    edition: str
    submission: str
    stories: list[str]
    checks: list[CheckResult]
    origins: list[str]
    counts: Counts
    coverage: Coverage
    requirements: list[RequirementResult]
    modes: SubmittedModes | None
    stages: Stages
    facts: list[FactResult]
    notes: list[str]
    two_stage: TwoStageByDirection


# Causes and what-if


@with_config(STRICT)
class SlipResult(TypedDict):
    """One slip of a cause.

    code : of the catalogue; null for a mistake that it has not.  at : quantity and direction.  parameters : what it
    was applied with.
    """

    code: str | None
    at: list[str | None]
    words: str
    parameters: dict[str, Any]


@with_config(STRICT)
class CauseBase(TypedDict):
    """Slips that give submitted numbers.

    explains : ids of the checks whose submitted values they reproduce.  leaves : ids of deviating checks below them
    that they do not.  closeness : greatest relative difference after they are applied.  bits : improbability of such
    agreement by chance, less what the slips cost.  remark : what a finding of it would say.
    """

    slips: list[SlipResult]
    explains: list[str]
    leaves: list[str]
    closeness: float
    bits: float
    remark: str


@with_config(STRICT)
class CauseResult(CauseBase):
    """A cause with the next best explanations of the same deviations."""

    others: list[CauseBase]


@with_config(STRICT)
class CausesResult(TypedDict):
    """The causes of a recheck, by weight.

    explained, deviating : how many deviating values the causes reproduce, and how many there are.
    """

    causes: list[CauseResult]
    explained: int
    deviating: int


Flip = TypedDict("Flip", {"check": str, "label": str, "from": str, "to": str})
"""A check whose verdict is another one under an assumption; empty where one side has no such check."""


@with_config(STRICT)
class GoverningValue(TypedDict):
    """A value that governs, without and with an assumption; change : relative."""

    quantity: str
    direction: Direction
    symbol: str
    unit: str
    before: float
    after: float
    change: float


@with_config(STRICT)
class Sensitivity(TypedDict):
    """What a doubtful input changes when it is otherwise.

    input, before, after : in words.  patch : of the brief, that makes it so; empty where no input of the brief does.
    flips : verdicts that are others then.
    """

    input: str
    before: str
    after: str
    patch: dict[str, Any]
    values: list[GoverningValue]
    flips: list[Flip]


@with_config(STRICT)
class RecheckResult(RecheckOutcome):
    """Result of a recheck, with every step of both sides."""

    steps: Steps
    causes: NotRequired[list[CauseResult]]
    flips: NotRequired[list[Flip]]


@with_config(STRICT)
class StepValue(TypedDict):
    """Value of a step of the independent side; as `Step` has them."""

    id: str
    value: StepContent
    source: StepSource


@with_config(STRICT)
class RecheckSheet(RecheckOutcome):
    """A recheck as the screens have it: of the steps the values alone, as derivations are required one at a time."""

    values: list[StepValue]
    apart: NotRequired[ChecksApart]


@with_config(STRICT)
class ChecksApart(TypedDict):
    """Which checks of a large sheet are sent with it, and in how many pages the others follow.

    recheck : name of the recheck they are of.  places : where each check of the sheet stands among all, from 0.
    checks : how many there are in all.  inherited : how many of all are inherited.
    """

    recheck: str
    places: list[int]
    checks: int
    inherited: int
    pages: int


@with_config(STRICT)
class CheckPage(TypedDict):
    """Checks of a large sheet that are sent apart, with where each stands among all, from 0."""

    places: list[int]
    checks: list[CheckResult]


@with_config(STRICT)
class WhatIf(TypedDict):
    """A recheck under assumptions: its sheet, the verdicts that flip, and the counts without the assumptions."""

    sheet: RecheckSheet
    flips: list[Flip]
    before: dict[str, int]


RECHECKED: TypeAdapter[Any] = TypeAdapter(RecheckResult)
