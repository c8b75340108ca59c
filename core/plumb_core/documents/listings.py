"""What this engine holds: its editions, the stages of a recheck, and the kinds of checks and tables."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import TypeAdapter, with_config
from typing_extensions import TypedDict

from plumb_core.documents.results import STRICT, Value


@with_config(STRICT)
class EditionInput(TypedDict):
    """An input of an edition, and how it is entered.

    computed : a rule of the edition gives it where it is not given.  shared : the same under every edition.
    """

    name: str
    part: Literal["brief", "site", "occupancy", "system"]
    per_direction: bool
    symbol: str
    symbol_tex: str
    meaning: str
    unit: str
    form: Literal["number", "text", "flag", "yes_no", "choice", "data"]
    options: list[Value]
    option_words: list[str]
    computed: bool
    shared: bool


@with_config(STRICT)
class ListedSystem(TypedDict):
    """A row of an edition's table of systems; greatest heights, m, by category or zone, null: no limit."""

    id: str
    title: str
    factors: dict[str, float]
    heights: dict[str, float | None]


@with_config(STRICT)
class ListedChoice(TypedDict):
    """A declaration of the brief's site about the edition.

    Which set of corrections holds, or a yes or no where there are none.

    standing : the set that holds where none is declared.
    """

    name: str
    words: str
    sets: list[list[int]]
    standing: list[int]


@with_config(STRICT)
class Permission(TypedDict):
    """What the edition permits and what lowers a force: `name` in the brief's site, off unless declared."""

    name: str
    words: str


@with_config(STRICT)
class ListedEdition(TypedDict):
    """One edition of one code, as a brief takes it.

    short : the title, short enough for a heading.  walls_with : formulas and period types that request walls.
        choices : what a brief can declare beside its inputs.
    parts : further parts of a brief that it takes.  longest_period : s, beyond which there is no spectrum.
        corner_periods : quantities at whose periods it has corners.
    """

    id: str
    title: str
    short: str
    year: int
    supports: list[str]
    period_types: list[str]
    formulas: list[str]
    walls_with: list[str]
    choices: list[ListedChoice]
    permissions: list[Permission]
    parts: list[str]
    soil_input: str
    corner_periods: list[str]
    longest_period: float | None
    inputs: list[EditionInput]
    systems: list[ListedSystem]


EDITION_LIST: TypeAdapter[Any] = TypeAdapter(list[ListedEdition])


@with_config(STRICT)
class NamedEntry(TypedDict):
    """A stage, a kind of check or a kind of table, with its title."""

    id: str
    title: str


@with_config(STRICT)
class CatalogueEntry(TypedDict):
    """A mistake of the catalogue (docs/slips.md).

    sort : wrong, ask or note.  appearance : what it looks like.  test : how it is found.  correct : what to do.
    """

    code: str
    title: str
    sort: Literal["wrong", "ask", "note"]
    stage: str
    appearance: str
    why: str
    test: str
    clause: str
    correct: str


@with_config(STRICT)
class ThresholdEntry(TypedDict):
    """A threshold of questions: its default, one number or a band, where that comes from, and its codes."""

    name: str
    words: str
    unit: str
    value: list[float]
    codes: list[str]
    source: str


@with_config(STRICT)
class Vocabulary(TypedDict):
    """Stages in their order, kinds of checks, kinds of tables that are accepted, the catalogue, and the thresholds.

    Tables of a submission, and of a model.
    """

    stages: list[NamedEntry]
    check_kinds: list[NamedEntry]
    tables: list[NamedEntry]
    model_tables: list[NamedEntry]
    catalogue: list[CatalogueEntry]
    thresholds: list[ThresholdEntry]
