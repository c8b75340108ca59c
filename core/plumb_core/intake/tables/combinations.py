"""Load combinations: their terms in one cell, or a row for each case and its factor."""

from __future__ import annotations

from plumb_core.documents.submission import Claim, Source
from plumb_core.intake.columns import Column, is_safe_name
from plumb_core.intake.numbers import readings
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind

MAX_TERMS = 500
"""Characters of the terms of one combination."""


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """One claim for the terms of each combination."""
    terms: dict[str, list[str]] = {}
    sources: dict[str, Source] = {}
    name = ""
    for row in numbers:
        name = reader.text(row, "combination") or name
        if not is_safe_name(name):
            words = f"{name[:40]!r} is not a valid name of a combination" if name else "the combination is missing"
            reader.problem(row, reader.columns["combination"], words, "Name the combination.")
            continue
        term = _term(reader, row)
        if term is None:
            continue
        if name in terms and _terms_column(reader, row):
            reader.problem(row, reader.columns["combination"], f"{name!r} is listed twice", "Exclude one of the rows.")
            continue
        sources.setdefault(name, reader.source(row, "combination"))
        terms.setdefault(name, []).append(term)
    claims = []
    for combination, parts in terms.items():
        text = " ".join(parts).removeprefix("+ ")
        if len(text) > MAX_TERMS:
            words = f"the terms of {combination!r} have {len(text)} characters; the limit is {MAX_TERMS}"
            reader.problem(None, None, words, "Split the combination, or exclude its rows.")
        claims.append(
            Claim(quantity="combination_terms", case=combination, value=text, text=text, source=sources[combination])
        )
    return Rows(claims)


def _terms_column(reader: ClaimReader, row: int) -> str | None:
    """The column of the terms: of its own heading, or of factors that are words; None where cases have factors."""
    if "terms" in reader.columns:
        return "terms"
    factors = "factor" in reader.columns and "case" not in reader.columns
    return "factor" if factors and not readings(reader.text(row, "factor")) else None


def _term(reader: ClaimReader, row: int) -> str | None:
    if (column := _terms_column(reader, row)) is not None:
        text = reader.text(row, column)
        if not text:
            reader.problem(
                row, reader.columns[column], "the terms are missing", "Write them, such as 1.2 D + 1.0 L + 1.0 EX."
            )
        return text or None
    if "case" not in reader.columns or "factor" not in reader.columns:
        reader.problem(None, None, "there are neither terms nor cases with factors", "Select the column of the terms.")
        return None
    case = reader.text(row, "case")
    number = reader.number(row, "factor")
    if not case or number is None:
        return None
    return f"{'-' if number[0] < 0 else '+'} {number[1].lstrip('+-')} {case}"


KIND = TableKind(
    "combinations",
    "load combinations",
    (
        Column("combination", "combination", r"(load)?combination|combo|combinationname", required=True),
        Column(
            "terms",
            "terms",
            r"terms|expression|definition|formula|equation|loads|factorsandcases|(load)?casefactors?|loadcase(s|sand)?factors?",
        ),
        Column("case", "case", r"case|loadcase|load|casename"),
        Column("factor", "factor", r"(load|scale)?factor", "", plain=True),
    ),
    rows,
    rank=45,
    across="factor",
)
