"""What became of a submission's deviations in the next one: what `plumb compare` gives."""

from __future__ import annotations

from typing import Literal

from pydantic import TypeAdapter, with_config
from typing_extensions import TypedDict

from plumb_core.documents.results import STRICT

State = Literal["settled", "open", "changed but not right", "undecided"]


@with_config(STRICT)
class ComparedValue(TypedDict):
    """A check in two submissions.

    finding : number of the open finding that names it, or that it rests on.  before, after : the submitted values as
    they were written; null where there is none.  was, now : verdicts; an empty text where there is no such check.
    moved : relative change of the submitted value.  why : in words.
    """

    check: str
    label: str
    finding: int | None
    before: str | None
    after: str | None
    was: str
    now: str
    moved: float | None
    why: str


@with_config(STRICT)
class ComparedFinding(TypedDict):
    """A finding that was open, in view of the next submission; the reviewer decides whether it is closed."""

    number: int
    title: str
    state: State
    checks: dict[str, State]


@with_config(STRICT)
class CameAndWent(TypedDict):
    """Names that only the later submission has, and that only the earlier one has."""

    came: list[str]
    went: list[str]


@with_config(STRICT)
class DifferenceResult(TypedDict):
    """Two submissions of one review.

    settled : deviations that agree now.  open : that are still there, or were changed and are not right.  undecided :
    whose value is not stated any more.  new : deviations that were none, or that came from
    others before and start at this value now.  changed : values that are others although no
    finding requires it.  values : that only one of the two states, by quantity and direction, with how many.
    """

    engine: str
    before: str
    after: str
    settled: list[ComparedValue]
    open: list[ComparedValue]
    undecided: list[ComparedValue]
    new: list[ComparedValue]
    changed: list[ComparedValue]
    findings: list[ComparedFinding]
    values: CameAndWent
    cases: CameAndWent
    stories: CameAndWent
    files: CameAndWent


DIFFERENCE: TypeAdapter[DifferenceResult] = TypeAdapter(DifferenceResult)
