"""One comparison of a submission with ours: what it is of, what came out, where the deviation starts."""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from typing import Literal

from plumb_core.checks.compare import Comparison
from plumb_core.checks.kinds import KINDS
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import Basis
from plumb_core.derivation import key_id
from plumb_core.documents.results import Limit
from plumb_core.documents.submission import Claim, Source
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Key


def limit_of(
    quantity: str,
    value: float,
    side: Literal["max", "min"],
    clause: str,
    governed_by: str | None = None,
    symbol: str = "",
) -> Limit:
    """A limit of the code on a value, as the result document has it.

    The symbol is the quantity's unless another is given.
    """
    return {
        "value": value,
        "side": side,
        "quantity": quantity,
        "symbol": symbol or QUANTITIES[quantity].symbol,
        "clause": clause,
        "governed_by": governed_by,
    }


class AddedUp(Claim):
    """A total that is not stated: the sum of its stated parts represents it.

    half : half a unit of the last digit of the parts, added up, in the core's unit
    """

    half: float = 0.0


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
    limit : of the code that the value is checked against
    follows : whether the value follows from their own upstream values
    rests_on : ids of the origins that a deviation comes from
    clause, note : of the rule; what has to be known beside
    slip : code of the test in the catalogue that spoke; empty for a plain comparison
    covers : further keys whose submitted values it rechecks
    upstream : what it rests on where no rule of its own quantity states
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
    role: DeviationRole | None = None
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

    def resting_on(self, origins: tuple[str, ...], role: DeviationRole | None) -> Check:
        """Return the check with the origins that it rests on, and its role in view of them."""
        # all fields but two as they are; `replace` would make the id again and takes ten times as long
        linked = object.__new__(Check)
        for name in _FIELDS:
            object.__setattr__(linked, name, getattr(self, name))
        object.__setattr__(linked, "rests_on", origins)
        object.__setattr__(linked, "role", role)
        return linked

    @property
    def claim(self) -> Claim | None:
        """The submitted value; None where there is none, or where the subject is derived."""
        return self.subject if isinstance(self.subject, Claim) else None

    @property
    def added_up(self) -> bool:
        """Whether the subject is a total that is not stated: the sum of its stated parts."""
        return isinstance(self.subject, AddedUp)

    def draft(self, basis: Basis) -> str:
        """Return the text of a remark; empty where the verdict needs none."""
        if self.verdict not in (Verdict.DIFFERS, Verdict.BREACHES, Verdict.GAP, Verdict.QUESTION):
            return ""
        return KINDS[self.kind].wording(self, basis)

    @property
    def shown_side(self) -> Literal["carried", "independent"] | None:
        """The side whose offset the screens and the report show: the carried one where the deviation starts here."""
        if self.carried is not None and (self.role is DeviationRole.ORIGIN or self.independent is None):
            return "carried"
        return "independent" if self.independent is not None else None

    @property
    def shown(self) -> Comparison | None:
        """The comparison of that side."""
        return self.carried if self.shown_side == "carried" else self.independent


_FIELDS = tuple(f.name for f in fields(Check))


def check_id(kind: str, key: Key, place: str = "", case: str = "", repeats: str = "") -> str:
    """Id of a check: of its kind, its key and its place, never of where it is in a table.

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
