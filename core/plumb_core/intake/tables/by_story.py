"""Factors and properties of the stories in each direction: A_x, stability coefficients, stiffness, strength."""

from __future__ import annotations

from collections.abc import Hashable

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind
from plumb_core.intake.tables.stories import STORY


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each story; directions are in the names of the columns, and a blank is not stated."""
    claims: list[Claim] = []
    seen: dict[Hashable, int] = {}
    for row in numbers:
        story = reader.known_story(row)
        if story is None:
            continue
        if reader.repeats(seen, story, row, "story", f"story {story!r}"):
            continue
        for column in reader.stated:
            if column.name not in reader.units or not reader.text(row, column.name):
                continue
            number = reader.number(row, column.name)
            if number is not None:
                unit = reader.units[column.name]
                claims.append(
                    reader.claim(
                        row, column.name, column.quantity, number, unit, story=story, direction=column.name[-1]
                    )
                )
    return Rows(claims)


def _columns(quantity: str, title: str, pattern: str, unit: str) -> tuple[Column, ...]:
    return tuple(
        Column(
            f"{quantity}_{d}", f"{title} in {d}", rf"({pattern})(in)?{d.lower()}", unit, False, quantity, plain=not unit
        )
        for d in "XY"
    )


KIND = TableKind(
    "by_story",
    "A_x, stability, stiffness and strength by story",
    (
        Column("story", "story", STORY, required=True),
        *_columns(
            "A_x",
            "torsional amplification",
            r"ax|a|torsional?amplification(factor)?|amplification(factor)?|torsionfactoramplification|factoramplification",
            "",
        ),
        *_columns("theta", "stability coefficient", r"theta|θ|stability|stability(theta)?coefficient", ""),
        *_columns(
            "story_stiffness",
            "stiffness",
            r"k|stiffness|storey?stiffness|storystiffness|lateral(story)?stiffness",
            "kN/m",
        ),
        *_columns("story_strength", "strength", r"strength|stor(e?)ystrength|lateralstrength|capacity", "kN"),
    ),
    rows,
    rank=65,
    values="values",
)
