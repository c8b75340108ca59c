"""Base reactions by load case."""

from __future__ import annotations

from collections.abc import Hashable

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column, is_safe_name
from plumb_core.intake.names import role_of
from plumb_core.intake.tables.cases import CASE
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each case, with their signs; a blank is not stated."""
    claims: list[Claim] = []
    names: list[str] = []
    seen: dict[Hashable, int] = {}
    for row in numbers:
        case = reader.text(row, "case")
        if not is_safe_name(case):
            words = f"{case[:40]!r} is not a valid name of a case" if case else "the case is missing"
            reader.problem(row, reader.columns["case"], words, "Name the case, such as Static X.")
            continue
        if reader.repeats(seen, case, row, "case", f"case {case!r}"):
            continue
        names.append(case)
        for column in reader.stated:
            if reader.text(row, column.name) and column.name in reader.units:
                number = reader.number(row, column.name)
                if number is not None:
                    claims.append(
                        reader.claim(row, column.name, column.quantity, number, reader.units[column.name], case=case)
                    )
    return Rows(claims, cases=[role_of(name) for name in names if name not in reader.roles])


def _force(axis: str) -> Column:
    words = r"(global|base)?(horizontal|lateral)?(force|shear|reaction|shearforce|forcereaction)?(in|along)?"
    pattern = rf"{words}[frv]?{axis.lower()}"
    if axis == "Z":
        pattern += r"|(base)?vertical(force|reaction|load)?"
    return Column(f"reaction_{axis}", f"force along {axis}", pattern, "kN", False, f"reaction_{axis}")


def _moment(axis: str) -> Column:
    pattern = rf"(global|base)?(moment|overturning|m)(about)?{axis.lower()}"
    return Column(f"reaction_M{axis}", f"moment about {axis}", pattern, "kN*m", False, f"reaction_M{axis}")


KIND = TableKind(
    "reactions",
    "base reactions by case",
    (Column("case", "case", CASE, required=True), *map(_force, "XYZ"), *map(_moment, "XYZ")),
    rows,
    rank=32,
    values="forces or moments",
    about=r"reaction|base",
)
