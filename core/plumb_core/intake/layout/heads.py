"""Headings of one row or several, and the kind of table that they are those of."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from plumb_core.intake.cells import is_unit_text
from plumb_core.intake.columns import heading_unit, normal, recognised_as
from plumb_core.intake.layout.rows import Rows, is_blank, is_data, is_line, is_units
from plumb_core.intake.names import axis_named, direction_in, names_an_action, parameter_names
from plumb_core.intake.numbers import readings
from plumb_core.intake.story_names import BASE, rank_of
from plumb_core.intake.tables import table_kinds
from plumb_core.intake.tables.kind import TableKind
from plumb_core.intake.words import in_order

SEARCHED = 40
"""Rows from the top of a table that its headings are looked for in."""
MOST_HEADING_ROWS = 3
CONTEXT = ("case", "mode", "direction")
"""Columns that can be given above a table, a block of rows, or a group of columns instead."""
RESULT = re.compile(r"drift|displacement|force|shear|moment|reaction")
"""Words of headings that no table of stories has, as `in_order` leaves them."""

Place = tuple[tuple[str, str], ...]
"""The heading above a group of columns: (column of the kind, its text)."""


@dataclass
class Heads:
    """How a span of heading rows is read as that of a kind of table.

    Attributes
    ----------
    first, last : rows of the span
    columns : index -> name of the kind's column
    over : index -> the heading above the column instead of beside its values
    texts : heading of each column, of all its rows
    left : index -> heading without the heading above it
    blank : columns that another table is made of
    """

    kind: TableKind
    first: int
    last: int
    columns: dict[int, str]
    over: dict[int, Place]
    texts: list[str]
    left: dict[int, str]
    score: float = 0.0
    blank: frozenset[int] = frozenset()

    def moved(self, rows: int) -> Heads:
        """The same headings so many rows further down."""
        return replace(self, first=self.first + rows, last=self.last + rows)

    @property
    def names(self) -> set[str]:
        """Names of the columns that were recognised."""
        return set(self.columns.values()) | {name for place in self.over.values() for name, _ in place}


@lru_cache(maxsize=20_000)
def fits_of(kind: str, text: str) -> tuple[str, ...]:
    """Return the columns of a kind whose heading a text can be."""
    return tuple(recognised_as(text, table_kinds()[kind].columns))


MODE_LINE = re.compile(r"(?i)\s*mode\s*(?:no\.?|number|shape)?\s*(\d{1,4})\s*")


def _place_above(kind: TableKind, parts: Sequence[str], *, alone: bool) -> Place | None:
    """What words over or beside a heading say of the place of its values; None where they say nothing.

    alone : whether they are words of the heading itself, which have to name an axis to be a case
    """
    names = {c.name for c in kind.columns}
    text = " ".join(p for p in parts if p).strip(" :,").lstrip("- ")
    mode = MODE_LINE.fullmatch(text)
    if mode and "mode" in names:
        return (("mode", mode.group(1)),)
    axis = axis_named(parts[-1]) if parts else ""
    if axis and "direction" in names:
        rest = " ".join(parts[:-1]).strip(" -:,")
        if not rest:
            return (("direction", axis),)
        if kind.id != "forces":
            return (("case", rest), ("direction", axis))
    if "case" in names and kind.values and 0 < len(text) <= 60 and not _SENTENCE.search(text):
        if alone and not (direction_in(text) and names_an_action(text) and not _ONE_OVER.match(text)):
            return None
        return (("case", case_name(text)),)
    return None


_SENTENCE = re.compile(r"(?i)\b(is|are|was)\b")
"""Words of a sentence, which is no name of a case."""

_ONE_OVER = re.compile(r"\s*\d+\s*/")
"""A share written as one over a number."""

CASE_WORD = re.compile(
    r"(?i)\b(?:load\s*-?\s*)?(?:case(?!s)|lastfall|cas\s+de\s+charge|caso\s+de\s+carga|caso\s+di\s+carico)\s*[:=.\-]?\s*(.+)"
)


def case_name(text: str) -> str:
    """The name of a case, without the word that says it is one."""
    match = CASE_WORD.fullmatch(text.strip())
    name = CONTINUED.sub("", match.group(1) if match else text).strip(" :,").lstrip("- ")
    # a sign behind a name is the side of the mass; a dash after a blank is none
    return re.sub(r"\s+[-\u2013:,]+$", "", name)


CONTINUED = re.compile(r"(?i)[\s,]*\(?\b(continued|cont\.?|cont'd|contd\.?)\)?\s*$")


_MOVEMENT = re.compile(r"\b([uU])([xXyY])\b")
"""A movement along an axis as one word, such as UX."""


@lru_cache(maxsize=20_000)
def _column_of(kind_id: str, parts: tuple[str, ...], title: str) -> tuple[str, Place, str] | None:
    """(column, the heading above it, the remaining heading) for several heading rows.

    None where they are none.
    """
    kind = table_kinds()[kind_id]
    if kind_id == "displacements":
        parts = tuple(_MOVEMENT.sub(r"\1 \2", p) for p in parts)
    complete = " ".join(parts)
    if fits := fits_of(kind_id, complete):
        return fits[0], (), complete
    entry = {c.name for c in kind.columns}
    if not entry & set(CONTEXT):
        return None
    # What is in the upper rows is a case, a direction or a mode, and the rest is a heading
    for cut in range(len(parts) - 1, 0, -1):
        for over, rest in ((parts[:cut], parts[cut:]), (parts[cut:], parts[:cut])):
            fits = fits_of(kind_id, " ".join(rest))
            place = _place_above(kind, over, alone=False) if fits else None
            if place and fits[0] not in CONTEXT and fits[0] != "story":
                return fits[0], place, _joined(rest)
    # or in the words of the heading itself
    unit = heading_unit(complete)
    words = re.sub(r"[\[(].*?[\])]", " ", complete).replace(",", " ").split()
    for length in range(min(4, len(words) - 1), 0, -1):
        for i in range(len(words) - length + 1):
            left = _with_unit(" ".join(words[:i] + words[i + length :]), unit)
            fits = fits_of(kind_id, left)
            place = _place_above(kind, [" ".join(words[i : i + length])], alone=True) if fits else None
            if place and is_value(kind, fits[0]):
                return fits[0], place, left
    # or the title says what the values are, and the heading where they are
    statement = re.sub(r"[\[(].*?[\])]", " ", title).strip()
    fits = fits_of(kind_id, title) if statement else ()
    place = _place_above(kind, [re.sub(r"[\[(].*?[\])]", " ", complete).strip()], alone=True) if fits else None
    if place and is_value(kind, fits[0]):
        return fits[0], place, _with_unit(statement, unit or heading_unit(title))
    return None


def _with_unit(words: str, unit: str) -> str:
    return f"{words} ({unit})" if unit else words


def is_value(kind: TableKind, name: str) -> bool:
    """Whether a column of a kind has values rather than names."""
    column = next(c for c in kind.columns if c.name == name)
    return bool(column.quantity)


def _parts(rows: Rows, first: int, last: int) -> list[tuple[str, ...]]:
    """For each column the texts of its heading rows; the heading above several columns holds for each of them."""
    span = [[c.text for c in rows[i]] for i in range(first, last + 1)]
    for i, upper in enumerate(span[:-1]):
        stored = ""
        for c, text in enumerate(upper):
            below = any(r[c] for r in span[i + 1 :])
            stored = text or (stored if below else "")
            upper[c] = stored
    columns = []
    for c in range(len(span[0])):
        texts = [r[c] for r in span if r[c]]
        columns.append(tuple(t for i, t in enumerate(texts) if i == 0 or t != texts[i - 1]))
    return columns


def find_heads(rows: Rows, start: int, stop: int, title: str) -> Heads | None:
    """The headings that the most columns of a kind are recognised in, in the first rows."""
    best: Heads | None = None
    for last in range(start, min(stop, start + SEARCHED)):
        if is_data(rows[last]):
            if best is not None or last - start > 12:
                break
            continue
        for first in range(last, max(start, last - MOST_HEADING_ROWS + 1) - 1, -1):
            if is_blank(rows[first]) or (is_data(rows[first]) and first != last):
                break
            if is_units(rows[last]):
                break
            found = best_kind(rows, first, last, title)
            if found and (best is None or found.score > best.score + 1e-9):
                best = found
    return best


def best_kind(rows: Rows, first: int, last: int, title: str) -> Heads | None:
    """Return the headings of the kind of table that fits the rows best; None where none fits."""
    parts = _parts(rows, first, last)
    stated = [c for c, p in enumerate(parts) if p]
    if len(stated) < 1:
        return None
    best: Heads | None = None
    for kind in table_kinds().values():
        columns: dict[int, str] = {}
        over: dict[int, Place] = {}
        left: dict[int, str] = {}
        used: set[tuple[str, Place]] = set()
        for c in stated:
            found = _column_of(kind.id, parts[c], title)
            if found is None:
                continue
            if found[:2] in used:
                # the second best of what it could be, where the first is taken
                others = [n for n in fits_of(kind.id, " ".join(parts[c])) if (n, ()) not in used]
                if not others:
                    continue
                found = (others[0], (), found[2])
            used.add(found[:2])
            columns[c] = found[0]
            if found[1]:
                over[c], left[c] = found[1:]
        if kind.across and set(columns.values()) == {kind.columns[0].name}:
            for c in stated:
                if c not in columns and _holds_numbers(rows, last + 1, c):
                    columns[c], over[c], left[c] = kind.across, (("case", " ".join(parts[c])),), kind.across
        heads = Heads(kind, first, last, columns, over, [_joined(p) for p in parts], left)
        missing = [n.name for n in kind.columns if n.required and n.name not in heads.names]
        in_lines = not parts[0] or ("case" in columns.values() and _lines_name_stories(rows, last + 1))
        unnamed = kind.id == "parameters" and not parts[0] and names_parameters(rows, last + 1)
        given = {n for n, there in (("story", in_lines), ("name", unnamed)) if there}
        if not columns or any(not _may_stand_over(kind, m) and m not in given for m in missing):
            continue
        values = [n for n in columns.values() if is_value(kind, n)]
        rest = [in_order(" ".join(parts[c])) for c in stated if c not in columns]
        # What is not recognised, and the title, may still say what the table is about
        about = 0.06 if kind.about and any(re.search(kind.about, w) for w in rest) else 0.0
        if not about and kind.about and re.search(kind.about, in_order(title)):
            about = 0.03
        if missing and not values and not about and not unnamed:
            continue
        if _is_of_another_kind(heads, rest, rows, title):
            continue
        heads.score = len(columns) / len(stated) + 0.01 * len(columns) - 0.05 * len(missing) - 0.002 * len(over) + about
        if best is None or heads.score > best.score + 1e-9:
            best = heads
    return best


def _is_of_another_kind(heads: Heads, rest: Sequence[str], rows: Rows, title: str) -> bool:
    """Whether headings that are left, the title or the rows state that a table is of another kind."""
    kind, names, start = heads.kind.id, set(heads.columns.values()), heads.last + 1
    if kind == "stories":
        about_results = RESULT.search(in_order(title)) and not names & {"h", "level", "w"}
        return bool(about_results) or any(RESULT.search(r) for r in rest)
    if kind != "parameters" and 0 not in heads.columns and names_parameters(rows, start):
        return True
    if kind == "reactions":
        # X, Y and Z alone can be anything
        bare = all(normal(heads.texts[c]) in ("x", "y", "z") for c, n in heads.columns.items() if n != "case")
        units = any(heading_unit(heads.texts[c]) for c in heads.columns)
        return bare and not units and not re.search(heads.kind.about, in_order(title))
    return kind == "forces" and _at_the_base(rows, start, heads.columns)


def names_parameters(rows: Rows, start: int) -> bool:
    """Whether the first column of most rows has the name of a parameter."""
    names = [r[0].text for r in rows[start : start + SEARCHED] if r and r[0].text]
    known = parameter_names()
    bare = [re.sub(r"[\[(].*?[\])]|[=:].*", "", n).strip() for n in names]
    bare = [re.sub(r"(?i)\s+[xy]$", "", n) for n in bare]
    found = sum(1 for n in bare if normal(n) in known or in_order(n) in known)
    return bool(names) and 2 * found >= len(names)


def _at_the_base(rows: Rows, start: int, columns: Mapping[int, str]) -> bool:
    """Whether every row is for the base: such forces are reactions."""
    index = next((c for c, name in columns.items() if name == "story"), None)
    names = [] if index is None else [r[index].text for r in rows[start : start + SEARCHED] if r[index].text]
    return bool(names) and all(BASE.match(n) for n in names)


def _lines_name_stories(rows: Rows, start: int) -> bool:
    """Whether lines between the first rows are names of stories."""
    lines = [r for r in rows[start : start + SEARCHED] if is_line(r)]
    return bool(lines) and any(rank_of(next(c.text for c in r if c.text)) is not None for r in lines)


def _holds_numbers(rows: Rows, start: int, column: int) -> bool:
    texts = [r[column].text for r in rows[start:] if r[column].text]
    return bool(texts) and all(readings(t) for t in texts)


def _joined(parts: Sequence[str]) -> str:
    """A heading of several rows as one; its unit comes last."""
    if len(parts) < 2:
        return parts[0] if parts else ""
    units = [m for p in parts for m in re.findall(r"[\[(].*?[\])]", p) if is_unit_text(m)]
    words = list(parts)
    for unit in units:
        words = [w.replace(unit, " ") for w in words]
    return " ".join(" ".join([*words, *dict.fromkeys(units)]).split())


def lacks(heads: Heads) -> bool:
    """Whether a required column is missing."""
    return any(
        c.required and c.name not in heads.names and not _may_stand_over(heads.kind, c.name) for c in heads.kind.columns
    )


def _may_stand_over(kind: TableKind, name: str) -> bool:
    """Whether a column can be given above a table instead; a table of modes has their numbers beside them."""
    return name in CONTEXT and not (name == "mode" and kind.id == "modes")
