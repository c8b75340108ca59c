"""Profiles: how the tables of a firm were read, kept under a name as proposals for its next ones."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import Field

from plumb_core.documents.base import CaseName, Part
from plumb_core.documents.reading import read
from plumb_core.errors import InputRefused, Problem
from plumb_core.intake.cells import UNITS
from plumb_core.intake.columns import HEADING_ROWS, Reading
from plumb_core.intake.doubts import TABLE_WIDE
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.tables import table_kinds

MOST_TABLES = 300
Heading = Annotated[str, Field(max_length=300)]


class TableProfile(Part):
    """How a table of a kind with these headings is read.

    Attributes
    ----------
    kind : of the table
    heading : texts of its row of headings
    columns : name of a column of the kind -> index in the headings, from 0
    units : name of a column -> unit
    cases : name of a load case -> its direction
    order : of the stories; numbers : how decimals are written; both : values without a direction apply to X and Y
    confirmed : doubts about such tables that were settled
    """

    kind: str
    heading: Annotated[list[Heading], Field(min_length=1, max_length=300)]
    columns: dict[str, Annotated[int, Field(ge=0, lt=300)]] = Field(default_factory=dict)
    units: dict[str, Annotated[str, Field(max_length=30)]] = Field(default_factory=dict)
    cases: dict[CaseName, Literal["X", "Y"]] = Field(default_factory=dict)
    order: Literal["", "bottom_up", "top_down"] = ""
    both: bool = False
    numbers: Literal["", "point", "comma"] = ""
    confirmed: list[Annotated[str, Field(max_length=60)]] = Field(default_factory=list)


class Profile(Part):
    """Answers for the tables of a firm, as they are exported and imported."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    tables: Annotated[list[TableProfile], Field(max_length=MOST_TABLES)] = Field(default_factory=list)


def read_profile(document: Any) -> Profile:
    """A profile from a document; raises InputRefused naming every problem."""
    profile = read(Profile, document)
    problems = [p for i, table in enumerate(profile.tables) for p in _problems(table, f"/tables/{i}")]
    if problems:
        raise InputRefused(problems)
    return profile


def _problems(table: TableProfile, path: str) -> Iterable[Problem]:
    kinds = table_kinds()
    if table.kind not in kinds:
        yield Problem(f"{path}/kind", f"{table.kind!r} is not a kind of table", f"Use one of: {', '.join(kinds)}.")
        return
    columns = {c.name: c for c in kinds[table.kind].columns}
    for part in ("columns", "units"):
        for name in getattr(table, part):
            if name not in columns:
                words = f"a table of {kinds[table.kind].title} has no column {name!r}"
                yield Problem(f"{path}/{part}/{name}", words, f"Use one of: {', '.join(columns)}.")
    for name, index in table.columns.items():
        if index >= len(table.heading):
            words = f"there are {len(table.heading)} headings, and column {name!r} is number {index + 1}"
            yield Problem(f"{path}/columns/{name}", words, "Count from 0 in the headings.")
    for name, unit in table.units.items():
        labels = UNITS.get(columns[name].unit or "", {}) if name in columns else {}
        if name in columns and unit not in labels:
            words = f"{unit!r} is not a unit of {columns[name].title}"
            yield Problem(f"{path}/units/{name}", words, f"Use one of: {', '.join(labels)}.")


def learned(
    tables: Iterable[tuple[str, Sequence[str], Reading]], before: Sequence[TableProfile] = ()
) -> list[TableProfile]:
    """What a profile keeps of tables as they were read; of two with the same headings the last.

    Rows and stories are of one building and are not kept.

    Parameters
    ----------
    tables : kind, headings and reading of each
    before : what the profile has
    """
    entries = {(t.kind, tuple(t.heading)): t for t in before}
    for kind, heading, reading in tables:
        if not heading:
            continue
        entries[kind, tuple(heading)] = TableProfile(
            kind=kind,
            heading=list(heading),
            columns={name: i for name, i in reading.columns.items() if i < len(heading)},
            units=dict(reading.units),
            cases={name: d for name, d in reading.cases.items() if d in ("X", "Y")},  # type: ignore[misc]
            order=reading.order,  # type: ignore[arg-type]
            both=reading.both,
            numbers=reading.numbers,  # type: ignore[arg-type]
            confirmed=[c for c in reading.confirmed if c in TABLE_WIDE],
        )
    return list(entries.values())[-MOST_TABLES:]


def proposed_by(profile: Sequence[TableProfile], sheet: Sheet, kind: str = "") -> tuple[str, Reading] | None:
    """The kind of a sheet and how to read it as a profile proposes; None where it has no such table.

    kind : of table that it is read as; empty where it is for the profile to say
    """
    headings = [tuple(c.text for c in row) for row in sheet.rows[:HEADING_ROWS]]
    for table in profile:
        if kind in ("", table.kind) and tuple(table.heading) in headings:
            answers = table.model_dump(exclude={"kind", "heading"})
            return table.kind, replace(Reading(**answers), header_row=headings.index(tuple(table.heading)))
    return None
