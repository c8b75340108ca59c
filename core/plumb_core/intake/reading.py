"""Sheets become claims, or rows of the reference model.

The kind recognised, its columns and units found or requested, every problem marked in its cell.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace

from plumb_core.documents.submission import Claim
from plumb_core.editions import Edition
from plumb_core.intake import doubts
from plumb_core.intake.cells import CellProblem
from plumb_core.intake.collector import paused
from plumb_core.intake.columns import Reading, guess_kind, letter_of
from plumb_core.intake.model_tables import model_table_kinds
from plumb_core.intake.model_tables.kind import ModelReader, ModelTableRead
from plumb_core.intake.numbers import readings, with_unit
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.tables import table_kinds
from plumb_core.intake.tables.kind import Building, ClaimReader, TableKind, TableRead
from plumb_core.intake.tables.parameters import VALUES

ANY_KIND = "parameters"
"""Kind of a sheet that matches no kind of table."""


def kind_of(sheet: Sheet) -> str:
    """The kind of table that a sheet looks like most ('' if like none)."""
    return sheet.kind or guess_kind(sheet, {k.id: k.columns for k in table_kinds().values()})


def read_table(
    sheet: Sheet,
    kind: str,
    given: Reading | None = None,
    *,
    file: str = "",
    known: Building | None = None,
    edition: Edition | None = None,
    proposed: Reading | None = None,
) -> TableRead:
    """Read a sheet as a table of a kind.

    Parameters
    ----------
    sheet : the cells
    kind : id of a kind of table
    given : what the reviewer has set; the rest is recognised
    file : name of the exhibit, for the provenance of the claims
    known : stories and load cases that rows may refer to; nothing if none are known yet
    edition : of the review; names and texts that editions use for different things are read as it has them
    proposed : how a table like it was read before: what this one says itself comes first
    """
    with paused():
        return _read(sheet, table_kinds()[kind], given, file, known, edition, proposed)


def _read(
    sheet: Sheet,
    table: TableKind,
    given: Reading | None,
    file: str,
    known: Building | None,
    edition: Edition | None,
    proposed: Reading | None,
) -> TableRead:
    reader = ClaimReader(sheet, table.columns, given or Reading(), file, known or Building(), edition, proposed)
    reader.check_columns()
    if "case" in reader.by_name and "case" not in reader.columns:
        reader.ask_for_case()
    if table.values and not reader.problems and not (reader.stated or VALUES.keys() & reader.columns.keys()):
        words = f"no column of {table.values} is recognised"
        reader.problem(None, None, words, "Select their columns.")
    if reader.columns_stand():
        doubts.ask(reader, table.id)
    complete = all(p.row is not None for p in reader.problems)
    numbers = reader.rows() if reader.columns_stand() else []
    rows = table.rows(reader, numbers) if complete and all(p.row is not None for p in reader.problems) else None
    reader.ask_about_units()
    problems = settled(list(dict.fromkeys(reader.problems)), reader, numbers, table)
    used = replace(
        reader.given,
        header_row=reader.header,
        columns=reader.columns,
        units=reader.units,
        cases=reader.directions,
        order=reader.order,
    )
    return TableRead(
        table.id,
        used,
        _read_claims(rows.claims, problems, sheet) if rows and not any(p.holds_up for p in problems) else [],
        problems,
        reader.skipped,
        rows.stories if rows else [],
        doubts.with_level(reader, rows.cases, sorted({c.case for c in rows.claims if c.case})) if rows else [],
        reader.why,
        reader.unsure,
        reader.beside,
        _unused(reader, numbers),
    )


def _unused(reader: ClaimReader, numbers: Sequence[int]) -> dict[int, str]:
    """Headings of the columns of numbers that are not used, by index."""
    if reader.header is None or not numbers:
        return {}
    used = set(reader.columns.values()) | reader.sheet.unused
    sample = numbers[:200]
    unused = {}
    for index, cell in enumerate(reader.sheet.rows[reader.header]):
        texts = [reader.sheet.rows[r][index].text for r in sample] if cell.text and index not in used else []
        stated = [t for t in texts if t]
        if stated and all(readings(with_unit(t)[0]) for t in stated):
            unused[index] = cell.text
    return unused


PLACES: Mapping[str, tuple[str, ...]] = {"stories": ("story", "level")}
"""Columns by which rows have their place: one that is left open would move the others."""


def settled(
    problems: list[CellProblem], reader: ClaimReader, numbers: Collection[int], table: TableKind
) -> list[CellProblem]:
    """The problems of a table, of which those that leave little or nothing of it to be read concern all of it."""
    rows = {r for p in problems if p.extent == "row" for r in (p.row, *p.rows) if r is not None}
    columns = {c for p in problems if p.extent == "column" for c in (p.column, *p.columns) if c is not None}
    values = {reader.columns[c.name] for c in reader.stated} if reader.columns_stand() else set()
    most_rows = 2 * len(rows) > len(numbers) and table.id != "parameters"
    places = {reader.columns.get(name) for name in PLACES.get(table.id, ())}

    def leaves_nothing(p: CellProblem) -> bool:
        if p.extent == "row":
            return most_rows or p.column in places
        return p.extent == "column" and bool(values) and values <= columns

    return [replace(p, extent="table") if leaves_nothing(p) else p for p in problems]


def _read_claims(claims: list[Claim], problems: Sequence[CellProblem], sheet: Sheet) -> list[Claim]:
    """The claims without those in rows and columns that stay open."""
    width = max((len(r) for r in sheet.rows), default=0)
    places: set[tuple[int, int]] = set()
    for p in problems:
        if p.extent == "row":
            places |= {sheet.place(r, c) for r in (p.row, *p.rows) if r is not None for c in range(width)}
        elif p.extent == "column":
            below = range(p.row or 0, len(sheet.rows))
            places |= {sheet.place(r, c) for c in (p.column, *p.columns) if c is not None for r in below}
    if not places:
        return claims
    written = {(row + 1, letter_of(column)) for row, column in places}
    return [c for c in claims if (c.source.row, c.source.column) not in written]


def read_model_table(
    sheet: Sheet,
    kind: str = "",
    columns: Mapping[str, int] | None = None,
    units: Mapping[str, str] | None = None,
) -> ModelTableRead:
    """Read a sheet as a table of a model ('' = whatever it looks like); rows only count where there are no problems."""
    kinds = model_table_kinds()
    guessed = guess_kind(sheet, {k.id: k.columns for k in kinds.values()}) or next(iter(kinds))
    reader = ModelReader(sheet, kinds[kind or guessed], Reading(columns=dict(columns or {}), units=dict(units or {})))
    reader.check_columns()
    rows = reader.read_rows() if all(p.row is not None for p in reader.problems) else []
    return ModelTableRead(kind or guessed, reader.columns, reader.units, rows, reader.problems, reader.header)
