"""Sheets become tables: one for each, with one row of headings and one value of a kind in a row.

People put several tables on a sheet, headings over two and three rows, a group of columns for each case, a line with the case over
each block, stories across the page. Nothing is read into cells here: what stands over several columns or rows is written beside
each of them, and every cell keeps the place where it stood.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise

from plumb_core.intake.cells import Cell, is_unit_text
from plumb_core.intake.columns import heading_unit, normal, recognised_as
from plumb_core.intake.names import axis_named, direction_in, parameter_names
from plumb_core.intake.numbers import readings, with_unit
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.story_names import rank_of
from plumb_core.intake.tables import table_kinds
from plumb_core.intake.tables.kind import TableKind
from plumb_core.intake.words import in_order

SEARCHED = 40
"""Rows from the top of a table that its headings are looked for in."""
MOST_HEADING_ROWS = 3
CONTEXT = ("case", "mode", "direction")
"""Columns that can stand over a table, a block of rows, or a group of columns instead."""
IN_LINES = (*CONTEXT, "story")
"""What a line over a block of rows can say."""
RESULT = re.compile(r"drift|displacement|force|shear|moment|reaction")
"""Words of headings that no table of stories has, as `in_order` leaves them."""

Rows = list[list[Cell]]
Place = tuple[tuple[str, str], ...]
"""What stands over a group of columns: (column of the kind, what it says)."""


@dataclass
class Heads:
    """How a span of heading rows is read as that of a kind of table.

    Attributes
    ----------
    first, last : rows of the span
    columns : index -> name of the kind's column
    over : index -> what stands over the column instead of beside its values
    texts : heading of each column, of all its rows
    left : index -> heading without what stands over it
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

    @property
    def names(self) -> set[str]:
        return set(self.columns.values()) | {name for place in self.over.values() for name, _ in place}


def arranged(sheets: Iterable[Sheet]) -> list[Sheet]:
    """The tables of sheets, in their order; a sheet without anything that looks like a table stays as it is."""
    tables: list[Sheet] = []
    for sheet in sheets:
        found = _tables(sheet)
        if sheet.page is not None and tables and not found[0].kind and (more := _goes_on(tables[-1], found[0])):
            found = [more, *found[1:]]
        tables += found
    return tables


def _tables(sheet: Sheet) -> list[Sheet]:
    rows = [list(r) for r in sheet.rows]
    parts = _side_by_side(rows)
    found = [t for part in parts for t in _one_below_the_other(part, sheet)]
    if len(found) > 1:
        found = [replace(t, part=i) for i, t in enumerate(found, 1)]
    return found or [sheet]


# what a row is


def _texts(row: Sequence[Cell]) -> tuple[str, ...]:
    return tuple(c.text for c in row)


def _is_number(text: str) -> bool:
    return bool(readings(text)) or bool(readings(with_unit(text)[0]))


def _is_data(row: Sequence[Cell]) -> bool:
    return any(c.text and _is_number(c.text) for c in row)


def _is_line(row: Sequence[Cell]) -> bool:
    """Whether a row is a line of text: one cell, or one that is merged over all."""
    held = [c.text for c in row if c.text]
    if len(held) == 1:
        return bool(row[0].text) or len(held[0].split()) > 3
    return len(set(held)) == 1 and bool(row[0].text)


def _is_unit_row(row: Sequence[Cell]) -> bool:
    held = [c.text for c in row if c.text]
    return bool(held) and all(is_unit_text(t) for t in held)


# headings


@lru_cache(maxsize=20_000)
def _fits(kind: str, text: str) -> tuple[str, ...]:
    return tuple(recognised_as(text, table_kinds()[kind].columns))


_MODE = re.compile(r"(?i)\s*mode\s*(?:no\.?|number|shape)?\s*(\d{1,4})\s*")


def _what_stands_over(kind: TableKind, parts: Sequence[str], *, alone: bool) -> Place | None:
    """What words over or beside a heading say of the place of its values; None where they say nothing.

    alone : whether they are words of the heading itself, which have to name an axis to be a case
    """
    names = {c.name for c in kind.columns}
    text = " ".join(p for p in parts if p).strip(" -:,")
    mode = _MODE.fullmatch(text)
    if mode and "mode" in names:
        return (("mode", mode.group(1)),)
    axis = axis_named(parts[-1]) if parts else ""
    if axis and "direction" in names:
        rest = " ".join(parts[:-1]).strip(" -:,")
        if not rest:
            return (("direction", axis),)
        if kind.id != "forces":
            return (("case", rest), ("direction", axis))
    if "case" in names and kind.values and 0 < len(text) <= 60:
        if alone and not direction_in(text):
            return None
        return (("case", _case_name(text)),)
    return None


_CASE_WORD = re.compile(
    r"(?i)\b(?:load\s*-?\s*)?(?:case|lastfall|cas\s+de\s+charge|caso\s+de\s+carga|caso\s+di\s+carico)\s*[:=.\-]?\s*(.+)"
)


def _case_name(text: str) -> str:
    """The name of a case, without the word that says it is one."""
    match = _CASE_WORD.fullmatch(text.strip())
    return _CONTINUED.sub("", match.group(1) if match else text).strip(" -:,")


_CONTINUED = re.compile(r"(?i)[\s,]*\(?\b(continued|cont\.?|cont'd|contd\.?)\)?\s*$")


@lru_cache(maxsize=20_000)
def _column_of(kind_id: str, parts: tuple[str, ...], title: str) -> tuple[str, Place, str] | None:
    """(column, what stands over it, the heading that is left) for heading rows over one another; None where they are none."""
    kind = table_kinds()[kind_id]
    whole = " ".join(parts)
    if fits := _fits(kind_id, whole):
        return fits[0], (), whole
    own = {c.name for c in kind.columns}
    if not own & set(CONTEXT):
        return None
    # what stands in the upper rows is a case, a direction or a mode, and the rest is a heading
    for cut in range(len(parts) - 1, 0, -1):
        for over, rest in ((parts[:cut], parts[cut:]), (parts[cut:], parts[:cut])):
            fits = _fits(kind_id, " ".join(rest))
            place = _what_stands_over(kind, over, alone=False) if fits else None
            if place and fits[0] not in CONTEXT and fits[0] != "story":
                return fits[0], place, _joined(rest)
    # or in the words of the heading itself
    unit = heading_unit(whole)
    words = re.sub(r"[\[(].*?[\])]", " ", whole).replace(",", " ").split()
    for length in range(min(4, len(words) - 1), 0, -1):
        for i in range(len(words) - length + 1):
            left = _with_unit(" ".join(words[:i] + words[i + length :]), unit)
            fits = _fits(kind_id, left)
            place = _what_stands_over(kind, [" ".join(words[i : i + length])], alone=True) if fits else None
            if place and _is_value(kind, fits[0]):
                return fits[0], place, left
    # or the title says what the values are, and the heading where they are
    said = re.sub(r"[\[(].*?[\])]", " ", title).strip()
    fits = _fits(kind_id, title) if said else ()
    place = _what_stands_over(kind, [re.sub(r"[\[(].*?[\])]", " ", whole).strip()], alone=True) if fits else None
    if place and _is_value(kind, fits[0]):
        return fits[0], place, _with_unit(said, unit or heading_unit(title))
    return None


def _with_unit(words: str, unit: str) -> str:
    return f"{words} ({unit})" if unit else words


def _is_value(kind: TableKind, name: str) -> bool:
    column = next(c for c in kind.columns if c.name == name)
    return bool(column.quantity)


def _parts(rows: Rows, first: int, last: int) -> list[tuple[str, ...]]:
    """For each column the texts over one another; what stands over several columns holds for each of them."""
    span = [[c.text for c in rows[i]] for i in range(first, last + 1)]
    for i, upper in enumerate(span[:-1]):
        held = ""
        for c, text in enumerate(upper):
            below = any(r[c] for r in span[i + 1 :])
            held = text or (held if below else "")
            upper[c] = held
    columns = []
    for c in range(len(span[0])):
        texts = [r[c] for r in span if r[c]]
        columns.append(tuple(t for i, t in enumerate(texts) if i == 0 or t != texts[i - 1]))
    return columns


def _heads(rows: Rows, start: int, stop: int, title: str) -> Heads | None:
    """The headings that the most columns of a kind are recognised in, in the first rows."""
    best: Heads | None = None
    for last in range(start, min(stop, start + SEARCHED)):
        if _is_data(rows[last]):
            if best is not None or last - start > 12:
                break
            continue
        for first in range(last, max(start, last - MOST_HEADING_ROWS + 1) - 1, -1):
            if not any(c.text for c in rows[first]) or (_is_data(rows[first]) and first != last):
                break
            if _is_unit_row(rows[last]):
                break
            found = _best_kind(rows, first, last, title)
            if found and (best is None or found.score > best.score + 1e-9):
                best = found
    return best


def _best_kind(rows: Rows, first: int, last: int, title: str) -> Heads | None:
    parts = _parts(rows, first, last)
    stated = [c for c, p in enumerate(parts) if p]
    if len(stated) < 1:
        return None
    best: Heads | None = None
    for kind in table_kinds().values():
        columns: dict[int, str] = {}
        over: dict[int, Place] = {}
        left: dict[int, str] = {}
        taken: set[tuple[str, Place]] = set()
        for c in stated:
            found = _column_of(kind.id, parts[c], title)
            if found is None:
                continue
            if found[:2] in taken:
                # the second best of what it could be, where the first is taken
                others = [n for n in _fits(kind.id, " ".join(parts[c])) if (n, ()) not in taken]
                if not others:
                    continue
                found = (others[0], (), found[2])
            taken.add(found[:2])
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
        if not columns or any(m not in CONTEXT and not (m == "story" and in_lines) for m in missing):
            continue
        values = [n for n in columns.values() if _is_value(kind, n)]
        if missing and not values:
            continue
        rest = [in_order(" ".join(parts[c])) for c in stated if c not in columns]
        if kind.id == "stories" and any(RESULT.search(r) for r in rest):
            continue
        # what isn't recognised, and the title, may still say what the table is about
        about = kind.about and any(re.search(kind.about, w) for w in [*rest, in_order(title)])
        heads.score = len(columns) / len(stated) + 0.01 * len(columns) - 0.05 * len(missing) - 0.002 * len(over)
        heads.score += 0.03 if about else 0.0
        if best is None or heads.score > best.score + 1e-9:
            best = heads
    return best


def _lines_name_stories(rows: Rows, start: int) -> bool:
    """Whether lines between the first rows are names of stories."""
    lines = [r for r in rows[start : start + SEARCHED] if _is_line(r)]
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


# several tables


def _side_by_side(rows: Rows) -> list[Rows]:
    """Parts of a sheet with a blank column between them, where each has headings of its own; the same ones are stacked."""
    width = max((len(r) for r in rows), default=0)
    start = next(
        (i for i, r in enumerate(rows[:SEARCHED]) if sum(1 for c in r if c.text) >= 4 and not _is_data(r)), None
    )
    if start is None or width < 4:
        return [rows]
    stacked = _stacked(rows, start)
    if stacked is not None:
        return [stacked]
    full = [i for i, r in enumerate(rows) if i >= start and sum(1 for c in r if c.text) > 1]
    blank = [c for c in range(width) if not any(rows[i][c].text for i in full)]
    edges = [-1, *blank, width]
    spans = [(a + 1, b) for a, b in pairwise(edges) if b - a > 2]
    if len(spans) < 2:
        return [rows]
    parts = [[_placed(r, i)[a:b] for i, r in enumerate(rows)] for a, b in spans]
    heads = [_heads(p, start, len(p), "") for p in parts]
    if all(h is not None and (h.names - set(CONTEXT)) and not _lacks(h) for h in heads):
        return parts
    return [rows]


def _lacks(heads: Heads) -> bool:
    return any(c.required and c.name not in heads.names and c.name not in CONTEXT for c in heads.kind.columns)


def _stacked(rows: Rows, start: int) -> Rows | None:
    """Rows with the same headings again and again beside one another, put below one another; None where they aren't."""
    heads = [c.text for c in rows[start]]
    held = [c for c, t in enumerate(heads) if t]
    if any(c.text for r in rows[max(0, start - 2) : start] for c in r[1:]):
        # there are headings over these
        return None
    texts = [heads[c] for c in held]
    for period in range(2, len(texts) // 2 + 1):
        times = len(texts) // period
        if len(texts) % period == 0 and texts == texts[:period] * times and len(set(texts[:period])) == period:
            break
    else:
        return None
    groups = [held[i * period : (i + 1) * period] for i in range(times)]
    result = [_placed(r, i) for i, r in enumerate(rows[: start + 1])]
    result[start] = [result[start][c] for c in groups[0]]
    body = [_placed(r, i + start + 1) for i, r in enumerate(rows[start + 1 :])]
    if body and _is_unit_row(body[0]):
        result.append([body[0][c] for c in groups[0]])
        body = body[1:]
    result += [[r[c] for c in g] for g in groups for r in body if any(r[c].text for c in g)]
    return _even(result)


def _placed(row: Sequence[Cell], i: int) -> list[Cell]:
    return [c if c.at is not None else replace(c, at=(i, k)) for k, c in enumerate(row)]


def _even(rows: Rows) -> Rows:
    width = max((len(r) for r in rows), default=0)
    return [[*r, *[Cell("")] * (width - len(r))] for r in rows]


def _one_below_the_other(rows: Rows, sheet: Sheet) -> list[Sheet]:
    """The tables of a part of a sheet, one for each row of headings of its own."""
    rows = _even(rows)
    if not rows:
        return []
    tables: list[Sheet] = []
    start = 0
    while start < len(rows):
        title = _title(rows, start) or (sheet.notes[-1] if sheet.notes else "")
        heads = _heads(rows, start, len(rows), title)
        if heads is None:
            turned = _turned(rows[start:], start) if start == 0 else None
            if turned is not None:
                return [_finished(turned[0], turned[1], sheet, [])]
            break
        if start == 0 and (turned := _turned(rows, 0, heads)) is not None:
            return [_finished(turned[0], turned[1], sheet, [])]
        stop = _end(rows, heads)
        for own in [heads, *_also(rows, heads, title)]:
            tables.append(_finished(rows[:stop], own, sheet, _lines(rows, start, heads.first)))
        start = stop
    return tables


def _also(rows: Rows, heads: Heads, title: str) -> list[Heads]:
    """The same rows as a table of another kind too, where headings are left that only that kind has: forces beside weights."""
    used = {c for c, name in heads.columns.items() if _is_value(heads.kind, name) or name == "level"}
    left = [
        [Cell("") if heads.first <= i <= heads.last and c in used else cell for c, cell in enumerate(r)]
        for i, r in enumerate(rows[: heads.last + 2])
    ]
    if len(used) == sum(1 for t in heads.texts if t):
        return []
    other = _best_kind(left, heads.first, heads.last, title)
    if other is None or other.kind.id in (heads.kind.id, "parameters", "log", "cases", "make_up", "combinations"):
        return []
    values = [name for name in other.columns.values() if _is_value(other.kind, name)]
    if other.kind.id == "stories" and not {"w", "m"} & set(values):
        # heights beside drifts are said again, not stated
        return []
    if not values or _lacks(other) or not {"story", "case", "mode"} & set(other.columns.values()):
        return []
    other.texts = ["" if c in used else t for c, t in enumerate(other.texts)]
    other.blank = frozenset(used)
    return [other]


def _title(rows: Rows, start: int) -> str:
    """What the lines over a table say it holds, without numbers of sections and without cases."""
    for row in rows[start : start + 6]:
        if any(c.text for c in row):
            if not _is_line(row):
                break
            text = next(c.text for c in row if c.text)
            return re.split(
                r",\s*(?!$)(?=(?:load )?case|direction)", re.sub(r"^\s*(table\s+)?[A-Z]?[\d.]+\s+", "", text)
            )[0]
    return ""


def _lines(rows: Rows, start: int, stop: int) -> list[int]:
    return [i for i in range(start, stop) if any(c.text for c in rows[i]) and not _is_data_row(rows[i])]


def _is_data_row(row: Sequence[Cell]) -> bool:
    return _is_data(row) and not _is_line(row)


def _end(rows: Rows, heads: Heads) -> int:
    """The row where the next table begins: its lines, or its headings, where those are others than of this one."""
    own = _texts(rows[heads.last])
    blank_or_line = False
    for i in range(heads.last + 1, len(rows)):
        row = rows[i]
        held = [c.text for c in row if c.text]
        if not held or _is_line(row):
            blank_or_line = True
            continue
        if blank_or_line and len(held) >= 2 and not _is_data(row) and _texts(row) != own and not _is_unit_row(row):
            other = _heads(rows, i, min(i + MOST_HEADING_ROWS, len(rows)), "")
            shown = {heads.texts[c] for c in heads.columns}
            if (
                other is not None
                and len(other.columns) >= 2
                and len(other.columns) >= 0.5 * len(held)
                and not _lacks(other)
                and not {other.texts[c] for c in other.columns} <= shown
            ):
                # the lines over its headings are its own
                first = i
                while first - 1 > heads.last and (
                    _is_line(rows[first - 1]) or not any(c.text for c in rows[first - 1])
                ):
                    first -= 1
                return first
        blank_or_line = False
    return len(rows)


def _goes_on(before: Sheet, sheet: Sheet) -> Sheet | None:
    """A table without headings that goes on from the page before, with the headings of that; None where it doesn't."""
    if not before.kind or before.header is None or not sheet.rows:
        return None
    if len(sheet.rows[0]) != len(before.rows[0]) or not _is_data(sheet.rows[0]):
        return None
    head = tuple(replace(c, at=None) for c in before.rows[before.header])
    rows = (head, *(tuple(_placed(r, i)) for i, r in enumerate(sheet.rows)))
    return replace(sheet, rows=rows, kind=before.kind, header=0)


# across the page


def _turned(rows: Rows, start: int, heads: Heads | None = None) -> tuple[Rows, Heads] | None:
    """The rows with columns for rows, where that makes a better table; None where it doesn't."""
    held = [i for i, r in enumerate(rows) if sum(1 for c in r if c.text) > 1]
    if not 2 <= len(held) <= 40 or max(len(r) for r in rows) > 200:
        return None
    first = [rows[i][0].text for i in held]
    if sum(1 for t in first if t and not _is_number(t)) < len(first) - 1:
        return None
    across = [[*col] for col in zip(*[_placed(rows[i], i + start) for i in held], strict=True)]
    across = [r for r in across if any(c.text for c in r)]
    if not across or not any(map(_is_data, across[1:])):
        return None
    named = [t for t in (c.text for c in rows[held[0]]) if t]
    names = parameter_names()
    known = [t for t in named[1:] if _plain(t) in names]
    if len(named) >= 3 and len(known) >= 0.6 * (len(named) - 1) and in_order(named[0]) in ("direction", "axis"):
        across[0][0] = replace(across[0][0], text="Item")
        found = _best_kind(across, 0, 0, "")
        return (across, found) if found and found.kind.id == "parameters" else None
    if not across[0][0].text:
        across[0][0] = replace(across[0][0], text="Case")
    found = _best_kind(across, 0, 0, "")
    if found is None or found.kind.id in ("parameters", "log", "cases") or len(found.columns) < 2:
        return None
    if any(c.required and c.name not in found.names for c in found.kind.columns):
        return None
    if heads is not None and len(heads.columns) >= len(found.columns):
        return None
    return across, found


@lru_cache(maxsize=2_000)
def _plain(text: str) -> str:
    return normal(text)


# one table


def _finished(rows: Rows, heads: Heads, sheet: Sheet, lines: list[int]) -> Sheet:
    """A table with one row of headings: what stands over columns, over blocks and over the table in columns of its own."""
    body = rows[heads.last + 1 :]
    width = len(rows[0])
    top = [_placed(rows[i], i) for i in lines]
    placed = [_placed(r, i + heads.last + 1) for i, r in enumerate(body)]
    merged = heads.last > heads.first
    head = [
        replace(cell, text=heads.texts[c]) if (merged or not cell.text) and heads.texts[c] else cell
        for c, cell in enumerate(_placed(rows[heads.last], heads.last))
    ]
    head = [replace(cell, text="") if c in heads.blank else cell for c, cell in enumerate(head)]
    if not head[0].text and 0 not in heads.columns:
        head[0] = replace(head[0], text=_unnamed(heads.kind, [r[0].text for r in placed]))
    head_row = [[head[c] if c < len(head) else Cell("") for c in range(width)]]
    units: Rows = []
    if placed and _is_unit_row(placed[0]):
        units, placed = [placed[0]], placed[1:]
    notes = [_texts(rows[i])[0] or next(t for t in _texts(rows[i]) if t) for i in lines]
    table = head_row + units + placed
    if heads.over:
        table = _one_in_a_row(head, units, placed, heads)
    table, seen = _context(table, len(units) + 1, heads, notes, sheet)
    notes += seen
    table = _spread(table, len(units) + 1, heads.kind)
    table = _without_mirrored(table, len(units) + 1)
    table = _even(top + table)
    skipped = {i for i, r in enumerate(table) if i > len(top) and _is_note(r, heads.kind)}
    notes += [next(c.text for c in table[i] if c.text) for i in sorted(skipped)]
    own = [c.text for c in rows[heads.last] if c.text]
    skipped |= {i for i, r in enumerate(table) if i > len(top) and _repeats(r, own)}
    for i, row in enumerate(table):
        # what hasn't moved needs no place of its own
        table[i] = [replace(c, at=None) if c.at == (i, k) else c for k, c in enumerate(row)]
    return replace(
        sheet,
        rows=tuple(tuple(r) for r in table),
        kind=heads.kind.id,
        header=len(top),
        notes=tuple(dict.fromkeys([*sheet.notes, *notes])),
        lines=frozenset(skipped | set(range(len(top)))),
        unused=frozenset() if heads.over else heads.blank,
    )


def _repeats(row: Sequence[Cell], heading: list[str]) -> bool:
    """Whether a row is the headings again, as at the top of a page."""
    held = [c.text for c in row if c.text]
    return len(held) > 1 and (held == heading or _is_unit_row(row) or held[: len(heading)] == heading)


def _unnamed(kind: TableKind, texts: Sequence[str]) -> str:
    """A heading for a first column without one, by what stands in it."""
    held = [t for t in texts if t]
    names = {c.name for c in kind.columns}
    if "story" in names and held and sum(1 for t in held if rank_of(t) is not None) >= 0.7 * len(held):
        return "Story"
    return "Case" if "case" in names and "story" not in names else ""


def _title_of(place: str) -> str:
    return {"case": "Case", "mode": "Mode", "direction": "Direction", "story": "Story"}[place]


def _one_in_a_row(head: list[Cell], units: Rows, body: Rows, heads: Heads) -> Rows:
    """A row for each group of columns of each row, with what stands over the group in columns of its own."""
    groups: dict[Place, list[int]] = {}
    for c, place in heads.over.items():
        groups.setdefault(place, []).append(c)
    kept = [
        c
        for c in range(len(head))
        if c not in heads.over and c not in heads.blank and (head[c].text or any(r[c].text for r in body))
    ]
    values = list(dict.fromkeys(heads.columns[c] for columns_of in groups.values() for c in columns_of))
    places = list(dict.fromkeys(name for place in groups for name, _ in place))
    first = {v: next(c for c in heads.over if heads.columns[c] == v) for v in values}
    shown = [replace(head[first[v]], text=heads.left[first[v]]) for v in values]
    result = [[*(head[c] for c in kept), *(Cell(_title_of(p), at=head[first[values[0]]].at) for p in places), *shown]]
    result += [[*(u[c] for c in kept), *[Cell("")] * len(places), *(u[first[v]] for v in values)] for u in units]
    for place, own in groups.items():
        said, at = dict(place), {heads.columns[c]: c for c in own}
        stands = head[own[0]].at
        for row in body:
            if _is_line(row) or not any(c.text for c in row):
                if place == next(iter(groups)):
                    result.append([*(row[c] for c in kept), *[Cell("")] * (len(places) + len(values))])
            elif any(row[c].text for c in own):
                result.append(
                    [
                        *(row[c] for c in kept),
                        *(Cell(said.get(p, ""), at=stands) for p in places),
                        *(row[at[v]] if v in at else Cell("") for v in values),
                    ]
                )
    return result


_NOTE = re.compile(
    r"(?i)^\W*(notes?|remarks?|sources?|units?|page|sheet|anmerkung|nota|note that|all|prepared|signed|checked|rev)\b|^[*†‡]|^\W*\(?[a-z0-9]\)\s"
)


def _context(table: Rows, start: int, heads: Heads, notes: list[str], sheet: Sheet) -> tuple[Rows, list[str]]:
    """The table with a column for what the lines over it, or over blocks of its rows, say of its case, mode and direction."""
    kind = heads.kind
    lacking = [n for n in IN_LINES if any(c.name == n for c in kind.columns) and n not in heads.names]
    wanted = [n for n in lacking if n != "direction" or kind.id != "forces"]
    if not wanted or not kind.values or kind.id == "parameters":
        return table, []
    stands: dict[str, Cell] = {}
    named = "" if re.search(r"\.\w{2,4}$|^page \d", sheet.name) else sheet.name
    for text in [named, *sheet.notes, *notes]:
        said = _said_by_line(kind, text, wanted, loose=False)
        stands |= {n: Cell(t) for n, t in said.items()}
    head, units, body = table[0], table[1:start], table[start:]
    rows: Rows = []
    seen: list[str] = []
    said_somewhere = bool(stands)
    for row in body:
        if _is_line(row) and any(c.text for c in row):
            line = next(c for c in row if c.text)
            said = _said_by_line(kind, line.text, wanted, loose=True)
            if said:
                stands |= {n: Cell(t, at=line.at) for n, t in said.items()}
                said_somewhere = True
                seen.append(line.text)
                continue
        rows.append([*row, *(stands.get(n, Cell("")) if any(c.text for c in row) else Cell("") for n in wanted)])
    if not said_somewhere:
        return table, []
    told = [i for i, n in enumerate(wanted) if any(r[len(head) + i].text for r in rows)]
    keep = [*range(len(head)), *(len(head) + i for i in told)]
    top = [[*head, *(Cell(_title_of(n)) for n in wanted)], *([*u, *[Cell("")] * len(wanted)] for u in units)]
    rows = [
        [c if _is_line(r[: len(head)]) is False or k < len(head) else Cell("") for k, c in enumerate(r)] for r in rows
    ]
    return [[r[k] for k in keep] for r in top + rows], seen


@lru_cache(maxsize=5_000)
def _kind_words(text: str) -> bool:
    """Whether words say what a table holds: headings of a kind, or the like of them."""
    return bool(RESULT.search(in_order(text))) or any(_fits(k, text) for k in table_kinds() if k != "log")


def _said_by_line(kind: TableKind, text: str, wanted: Sequence[str], *, loose: bool) -> dict[str, str]:
    """What a line says of the case, the mode and the direction of what stands below it.

    loose : whether a name of its own is enough; else it has to name an axis, as a sheet's name must
    """
    said: dict[str, str] = {}
    if "story" in wanted and loose and rank_of(text) is not None:
        return {"story": text}
    if "mode" in wanted and (mode := _MODE.fullmatch(text.split(",")[-1])):
        said["mode"] = mode.group(1)
    if "direction" in wanted:
        along = re.search(r"(?i)\bdirection\s*[:=]?\s*([xy])\b|\b([xy])[- ]direction\b|\balong\s+([xy])\b", text)
        if along:
            said["direction"] = next(g for g in along.groups() if g).upper()
    if "case" in wanted:
        if match := _CASE_WORD.search(text):
            name = re.split(r"[,;()\u2013]|\s-\s", _CONTINUED.sub("", match.group(1)))[0].strip()
            if 0 < len(name) <= 60:
                said["case"] = name
        elif not _NOTE.match(text) and len(text) <= 60:
            text = _CONTINUED.sub("", text)
            pieces = [
                p.strip()
                for p in re.split(r"[,;:\u2013\u2014]|\s-\s", re.sub(r"^\s*[A-Z]?[\d.]+\s+", "", text))
                if p.strip()
            ]
            left = [p for p in pieces if not _kind_words(p) and not axis_named(p)]
            if (
                len(left) == 1
                and len(left[0].split()) <= 4
                and (
                    direction_in(left[0])
                    or (loose and len(pieces) == 1 and len(left[0].split()) <= 2 and kind.id != "reactions")
                )
            ):
                said["case"] = left[0]
    return said


def _is_note(row: Sequence[Cell], kind: TableKind) -> bool:
    """Whether a row is a line of text that holds no values: a note, the foot of a page."""
    held = [c.text for c in row if c.text]
    if not held or kind.id == "log":
        return False
    if len(held) == 2 and re.fullmatch(r"(?i)(page|p\.|sheet|seite)\s*\d+(\s*(of|/|von)\s*\d+)?", held[-1]):
        return True
    if len(held) > 1 or len(row) < 2:
        return False
    text = held[0]
    return bool(_NOTE.match(text)) or len(text.split()) >= 4 or (not row[0].text and len(text.split()) > 1)


# columns that say which column a value belongs to


_KEYS = {
    "direction": re.compile(r"(?i)([xy])(?:[- ]?(?:dir\.?|direction))?"),
    "end": re.compile(r"(?i)(?:end |corner |edge )?([12ab])"),
}


def _spread(table: Rows, start: int, kind: TableKind) -> Rows:
    """Values of both directions, or both ends, in rows below one another: put beside one another."""
    head = [c.text for c in table[0]]
    names = {c: _fits(kind.id, t) for c, t in enumerate(head) if t}
    own = {c.name for c in kind.columns}
    for key, text in enumerate(head):
        word = in_order(text)
        sort = "direction" if word in ("direction", "axis") else "end" if word in ("end", "endnumber") else ""
        if not sort or (sort == "direction" and "direction" in own):
            continue
        pattern = _KEYS[sort]
        body = [r for r in table[start:] if any(c.text for c in r)]
        marks = [pattern.fullmatch(r[key].text) for r in body]
        if not body or not all(marks):
            continue
        values = [c for c, t in enumerate(head) if t and c != key and not names.get(c)]
        sides = list(dict.fromkeys(m.group(1).upper() for m in marks if m))
        made = {(c, s): _with_word(head[c], sort, s) for c in values for s in sides}
        values = [c for c in values if all(_fits(kind.id, made[c, s]) for s in sides)]
        if not values:
            continue
        others = [c for c in range(len(head)) if c != key and c not in values]
        columns = [(c, s) for c in values for s in sides]
        result = [[*(table[0][c] for c in others), *(replace(table[0][c], text=made[c, s]) for c, s in columns)]]
        result += [[*(u[c] for c in others), *(u[c] for c, _ in columns)] for u in table[1:start]]
        last: list[str] = []
        for row, mark in zip(body, marks, strict=True):
            side = mark.group(1).upper() if mark else ""
            mine = [row[c].text for c in others]
            same = bool(last) and all(not t or t == l for t, l in zip(mine, last, strict=True))
            k = len(others) + columns.index((values[0], side))
            if not same or result[-1][k].text:
                result.append([*(row[c] for c in others), *[Cell("")] * len(columns)])
                last = [t or (last[i] if last else "") for i, t in enumerate(mine)]
            for c in values:
                result[-1][len(others) + columns.index((c, side))] = row[c]
        return result
    return table


def _with_word(heading: str, sort: str, side: str) -> str:
    unit = re.search(r"\s*[\[(][^()\[\]]*[\])]\s*$", heading)
    words = heading[: unit.start()] if unit else heading
    return f"{words} {'end ' if sort == 'end' else ''}{side}{unit.group(0) if unit else ''}"


_EXTREMES = {"max": "max", "maximum": "max", "min": "min", "minimum": "min"}


def _without_mirrored(table: Rows, start: int) -> Rows:
    """Without the rows of the least values where those are the greatest ones with the other sign."""
    body = table[start:]
    for key in range(len(table[0]) if table else 0):
        marks = {_EXTREMES.get(r[key].text.lower().strip("."), "") for r in body[:200] if any(c.text for c in r)}
        if marks == {"max", "min"}:
            break
    else:
        return table

    def place(row: list[Cell]) -> tuple[str, ...]:
        return tuple(c.text for k, c in enumerate(row) if k != key and not _is_number(c.text))

    def mark(row: list[Cell]) -> str:
        return _EXTREMES.get(row[key].text.lower().strip("."), "")

    greatest = {place(row): row for row in body if mark(row) == "max"}
    kept = [row for row in body if not (mark(row) == "min" and _mirrored(greatest.get(place(row)), row))]
    return table[:start] + kept


def _mirrored(row: list[Cell] | None, least: list[Cell]) -> bool:
    if row is None:
        return False
    for a, b in zip(row, least, strict=True):
        one, other = readings(a.text), readings(b.text)
        if bool(one) != bool(other):
            return False
        if one and other:
            if not one.keys() & other.keys():
                return False
            style = next(iter(one.keys() & other.keys()))
            if float(one[style]) != -float(other[style]):
                return False
    return True
