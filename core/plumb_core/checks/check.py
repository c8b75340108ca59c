"""One comparison of a submission with ours: what it is of, what came out, where the deviation starts."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum
from typing import Literal

from plumb_core.checks.compare import Comparison
from plumb_core.derivation import key_id
from plumb_core.documents.submission import Claim, Source
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Key


class Verdict(StrEnum):
    """What a check comes to."""

    AGREES = "agrees"
    DIFFERS = "differs"
    BREACHES = "breaches"
    """a limit of the code"""
    QUESTION = "question"
    """something is there and doubtful"""
    NOTE = "note"
    GAP = "gap"
    """something that has to be stated is not"""
    OPEN = "open"
    """our side lacks what it takes"""


class Role(StrEnum):
    """Where a deviation starts."""

    ORIGIN = "origin"
    INHERITED = "inherited"


@dataclass(frozen=True, slots=True)
class CheckKind:
    """What a check does.

    Attributes
    ----------
    name : of the kind
    title : in words
    prefix : of the id; empty for kinds that recheck one submitted value itself, of which there is one check each
    """

    name: str
    title: str
    prefix: str = ""


KINDS: dict[str, CheckKind] = {
    kind.name: kind
    for kind in (
        CheckKind("value", "a submitted value against ours"),
        CheckKind("unplaced", "a value of a story that the brief doesn't know"),
        CheckKind("mass", "the mass of the analysis against the seismic weight"),
        CheckKind("mode", "a mode against that of our own model"),
        CheckKind("reciprocal", "a frequency against its own period"),
        CheckKind("running_sum", "a running sum against its own rows"),
        CheckKind("sum", "story values against their own total", "sum_"),
        CheckKind("gap", "what is not stated", "gap_"),
        CheckKind("target", "the sum of the modal masses against what the code asks for", "target_"),
        CheckKind("axes", "which way the axes of the model run", "axes_"),
        CheckKind("taken_from", "a period against the mode that it has to be taken from", "taken_from_"),
        CheckKind("factor", "the scale factor against the one that is required", "scaled_by_"),
        CheckKind("scaling", "what a scaling leaves to ask", "scaling_"),
        CheckKind("reaction", "a base reaction against the base shear"),
        CheckKind("twist", "torsional irregularity from the ends", "twist_"),
        CheckKind("side", "the side of the accidental eccentricity in a case", "side_"),
        CheckKind("case_missing", "a load case that is not there", "case_missing_"),
        CheckKind("case_open", "what the cases leave to ask", "case_open_"),
        CheckKind("amplified", "design drifts against the drifts that they are made of", "amplified_"),
        CheckKind("drift", "the design story drift against its limit", "drift_"),
        CheckKind("drift_consistent", "drifts against the displacements that they are differences of", "consistent_"),
        CheckKind("drift_open", "what the drifts leave to ask", "drift_open_"),
        CheckKind("stability", "the greatest stability coefficient against its limit", "stability_"),
        CheckKind("load", "a load of the weight make-up against what the code counts of it"),
        CheckKind("make_up", "a weight against its own make-up", "make_up_"),
        CheckKind("own", "a result against that of our own model", "own_"),
        CheckKind("declared", "what is declared of the analysis", "declared_"),
        CheckKind("make_up_open", "what the weight make-up leaves to ask", "make_up_open_"),
        CheckKind("combination", "a load combination that the code asks for", "combination_"),
        CheckKind("process", "what the analysis as a whole leaves to ask", "process_"),
        CheckKind("missing_mode", "a mode of ours that their list lacks", "missing_mode_"),
    )
}
"""Kinds of checks; a checker makes checks of one or several of them."""


@dataclass(frozen=True, slots=True)
class Limit:
    """A limit of the code on a submitted value; `side` is "max" or "min"."""

    value: float
    side: Literal["max", "min"]
    quantity: str
    symbol: str
    clause: str
    governed_by: str | None = None


@dataclass(frozen=True, slots=True)
class Derived:
    """A value that we derive from the submission and compare: a design drift, a sum, a ratio of submitted values.

    Attributes
    ----------
    quantity, value : of what, in the core's unit
    direction, story, point, case : its place
    text, unit, scale : as it is shown
    source : what it is derived from, in words
    """

    quantity: str
    value: float | str
    direction: str | None = None
    story: str | None = None
    point: int | None = None
    case: str = ""
    text: str = ""
    unit: str = ""
    scale: float = 1.0
    source: Source = field(default_factory=Source)


Subject = Claim | Derived
"""What a check compares: a submitted value, or one that we derive."""


@dataclass(frozen=True, slots=True)
class Check:
    """One comparison.

    Attributes
    ----------
    kind : a key of `KINDS`
    key : whose value of what
    label : the symbol with its place
    subject : the submitted value, or the one that we derive; None where there is none
    place : story, point or mode, as the id has it
    index : of the story, point or mode in arrays
    repeats : what was written, where the same value of the same place is stated another time
    carried, independent : comparisons with our rule on their upstream values, and with our own value
    verdict, role : what came out, and where the deviation starts (None where there is none)
    level : 1 consistent, 2 recomputed (our rule on inputs of theirs), 3 independent (our own inputs), None unchecked
    limit : of the code that the value is held to
    follows : whether the value follows from their own upstream values
    rests_on : ids of the origins that a deviation comes from
    clause, note : of the rule; what has to be known beside
    slip : code of the test in the catalogue that spoke; empty for a plain comparison
    covers : keys whose submitted values it stands for beside its own
    upstream : what it rests on where no rule of its own quantity tells
    """

    kind: str
    key: Key
    label: str
    subject: Subject | None = None
    place: str = ""
    index: int | None = None
    repeats: str = ""
    carried: Comparison | None = None
    independent: Comparison | None = None
    verdict: Verdict = Verdict.OPEN
    role: Role | None = None
    level: int | None = None
    limit: Limit | None = None
    follows: bool = True
    rests_on: tuple[str, ...] = ()
    clause: str = ""
    note: str = ""
    slip: str = ""
    covers: tuple[Key, ...] = ()
    upstream: tuple[Key, ...] = ()
    id: str = field(init=False)

    def __post_init__(self) -> None:
        case = self.subject.case if self.subject is not None else ""
        object.__setattr__(self, "id", check_id(self.kind, self.key, self.place, case, self.repeats))

    def resting_on(self, origins: tuple[str, ...], role: Role | None) -> Check:
        """This check with the origins that it rests on, and its role in view of them."""
        # written out: a recheck links half of its checks, and `replace` takes ten times as long
        return Check(
            self.kind,
            self.key,
            self.label,
            self.subject,
            self.place,
            self.index,
            self.repeats,
            self.carried,
            self.independent,
            self.verdict,
            role,
            self.level,
            self.limit,
            self.follows,
            origins,
            self.clause,
            self.note,
            self.slip,
            self.covers,
            self.upstream,
        )

    @property
    def claim(self) -> Claim | None:
        """The submitted value; None where there is none, or where the subject is derived."""
        return self.subject if isinstance(self.subject, Claim) else None

    @property
    def shown_side(self) -> Literal["carried", "independent"] | None:
        """The side whose offset the screens and the report show: the carried one where the deviation starts here."""
        if self.carried is not None and (self.role is Role.ORIGIN or self.independent is None):
            return "carried"
        return "independent" if self.independent is not None else None

    @property
    def shown(self) -> Comparison | None:
        """The comparison of that side."""
        return self.carried if self.shown_side == "carried" else self.independent


def check_id(kind: str, key: Key, place: str = "", case: str = "", repeats: str = "") -> str:
    """Id of a check: of its kind, its key and its place, never of where it stands in a table.

    ``V.X``, ``F.X.L3.Static X``, ``gap_T.Y``.  Findings rest on it for years.
    """
    named = KINDS[kind].prefix + key_id(key)
    if place:
        named += f".{place}"
    if case and key.case is None:
        named += f".{case}"
    return f"{named}={repeats}" if repeats else named


_OF_MODES = frozenset(name for name, q in QUANTITIES.items() if q.kind in (Kind.MODES, Kind.SHAPES))


def is_of_modes(claim: Claim) -> bool:
    """Whether a claim is of a mode: those are matched with modes of ours by shape."""
    return claim.quantity in _OF_MODES


EXCHANGED = check_id("axes", Key("mass_ratio"))
"""Id of the check that finds the axes of their modes exchanged."""
