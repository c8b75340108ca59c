"""The tables on a sheet, each with one row of headings."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import replace
from itertools import pairwise

from plumb_core.intake.cells import Cell, is_unit_text
from plumb_core.intake.collector import paused
from plumb_core.intake.layout.context import is_note, title_over, with_context
from plumb_core.intake.layout.groups import one_for_each_story
from plumb_core.intake.layout.heads import (
    CONTEXT,
    MOST_HEADING_ROWS,
    RESULT,
    SEARCHED,
    Heads,
    best_kind,
    find_heads,
    fits_of,
    is_value,
    lacks,
    names_parameters,
)
from plumb_core.intake.layout.reshape import mirrored_rows, one_in_a_row, spread, stacked, turned
from plumb_core.intake.layout.rows import (
    Rows,
    Shift,
    even,
    held,
    is_blank,
    is_data,
    is_line,
    is_units,
    placed,
    texts_of,
)
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.story_names import rank_of
from plumb_core.intake.tables.kind import TableKind
from plumb_core.intake.words import in_order


@paused()
def arranged(sheets: Iterable[Sheet]) -> list[Sheet]:
    """The tables of sheets, in their order; a sheet without anything that looks like a table stays as it is."""
    tables: list[Sheet] = []
    for sheet in sheets:
        found = _tables(sheet)
        if sheet.page is not None and tables and not found[0].kind and (more := _continues(tables[-1], found[0])):
            found = [more, *found[1:]]
        tables += found
    return tables


def _tables(sheet: Sheet) -> list[Sheet]:
    rows = [list(r) for r in sheet.rows]
    found = [t for part, shift in _side_by_side(rows) for t in _one_below_the_other(part, shift, sheet)]
    if len(found) > 1:
        found = [replace(t, part=i) for i, t in enumerate(found, 1)]
    return found or [sheet]


def _side_by_side(rows: Rows) -> list[tuple[Rows, Shift]]:
    """Parts of a sheet with a blank column between them, where each has headings of its own.

    The same ones are stacked.
    """
    width = max((len(r) for r in rows), default=0)
    start = next((i for i, r in enumerate(rows[:SEARCHED]) if len(held(r, 4)) == 4 and not is_data(r)), None)
    if start is None:
        return [(rows, (0, 0))]
    on_top = stacked(rows, start)
    if on_top is not None:
        return [(on_top, (0, 0))]
    blank = [c for c in range(width) if not any(r[c].text for r in rows[start:] if not is_line(r))]
    spans = [(a + 1, b) for a, b in pairwise([-1, *blank, width]) if b - a > 2]
    if len(spans) < 2:
        return [(rows, (0, 0))]
    parts = [[r[a:b] for r in rows] for a, b in spans]
    heads = [find_heads(p, start, len(p), "") for p in parts]
    if all(h is not None and (h.names - set(CONTEXT)) and not lacks(h) for h in heads):
        return [(part, (0, a)) for part, (a, _) in zip(parts, spans, strict=True)]
    return [(rows, (0, 0))]


def _one_below_the_other(rows: Rows, shift: Shift, sheet: Sheet) -> list[Sheet]:
    """The tables of a part of a sheet, one for each row of headings of its own."""
    rows = even(rows)
    tables: list[Sheet] = []
    start = 0
    while start < len(rows):
        title = title_over(rows, start) or (sheet.notes[-1] if sheet.notes else "")
        heads = find_heads(rows, start, len(rows), title)
        if start == 0 and (across := turned(rows, shift, heads)) is not None:
            return [_finished(across[0], across[1], sheet, (0, 0))]
        if heads is None and start == 0 and (named := _parameters_without_headings(rows)) is not None:
            return _one_below_the_other(named, shift, sheet)
        if heads is None:
            break
        stop = _end(rows, heads)
        part, below = rows[start:stop], (shift[0] + start, shift[1])
        entries = [heads, *_also(rows, heads, title)]
        tables += [_finished(part, entry.moved(-start), sheet, below) for entry in entries]
        start = stop
    return tables


def _parameters_without_headings(rows: Rows) -> Rows | None:
    """Names of parameters beside one value each, below headings that say so; None for other rows."""
    full = [r for r in rows if not is_blank(r)]
    if len(full) < 2 or any(len(held(r, 3)) != 2 or not r[0].text for r in full) or not names_parameters(rows, 0):
        return None
    values = next(i for i, c in enumerate(full[0]) if i and c.text)
    head = [Cell("") for _ in rows[0]]
    head[0], head[values] = Cell("Item"), Cell("Value")
    return [head, *(placed(r, i) for i, r in enumerate(rows))]


def _also(rows: Rows, heads: Heads, title: str) -> list[Heads]:
    """The same rows as a table of another kind too, where headings are left that only that kind has.

    Forces beside weights.
    """
    used = {c for c, name in heads.columns.items() if is_value(heads.kind, name) or name == "level"}
    if len(used) == sum(1 for t in heads.texts if t):
        return []
    left = [
        [Cell("") if heads.first <= i <= heads.last and c in used else cell for c, cell in enumerate(r)]
        for i, r in enumerate(rows[: heads.last + 2])
    ]
    other = best_kind(left, heads.first, heads.last, title)
    if other is None or other.kind.id in (heads.kind.id, "parameters", "log", "cases", "make_up", "combinations"):
        return []
    values = [name for name in other.columns.values() if is_value(other.kind, name)]
    if other.kind.id == "stories" and not {"w", "m"} & set(values):
        # heights beside drifts are said again, not stated
        return []
    if not values or lacks(other) or not {"story", "case", "mode"} & set(other.columns.values()):
        return []
    other.texts = ["" if c in used else t for c, t in enumerate(other.texts)]
    other.blank = frozenset(used)
    return [other]


def _end(rows: Rows, heads: Heads) -> int:
    """The row where the next table begins: its lines, or its headings, where those are others than of this one."""
    entry = texts_of(rows[heads.last])
    shown = {heads.texts[c] for c in heads.columns}
    after_line = False
    for i in range(heads.last + 1, len(rows)):
        row = rows[i]
        first = held(row, 2)
        if len(first) < 2 or (first[0] == first[1] and is_line(row)):
            after_line = True
            continue
        if after_line and not is_data(row) and texts_of(row) != entry and not is_units(row):
            other = find_heads(rows, i, min(i + MOST_HEADING_ROWS, len(rows)), "")
            known = len(other.columns) if other is not None else 0
            new = other is not None and not {other.texts[c] for c in other.columns} <= shown
            if other is not None and new and known >= 2 and known >= 0.5 * len(held(row)) and not lacks(other):
                # the lines over its headings are its own
                while i - 1 > heads.last and (is_blank(rows[i - 1]) or is_line(rows[i - 1])):
                    i -= 1
                return i
        after_line = False
    return len(rows)


_TITLE = re.compile(
    r"(?i)^\s*(table|tab\.?|tabelle|tableau|tabla|tabella|schedule)\b|^\s*[A-Z]?\d+(\.\d+)+\.?\s+[^\W\d]|"
    r"\b(sizes?|sections?|columns?|beams?|walls?|slabs?|reinforcement|rebars?|schedule|dimensions?|footings?|piles?|"
    r"pressures?|axial|loads?|masses|weights?|periods?|modes?|spectrum|parameters?)\b"
)
"""Words of a line over a table that states what the table holds."""
_CONTINUED = re.compile(r"(?i)\b(continued|cont\.?|cont'd|contd\.?|fortsetzung|suite)\b")


def _is_another_title(note: str, before: Sequence[str]) -> bool:
    """Whether a line over a table without headings is the title of another table than of the one before it."""
    plain = re.sub(r"\d+", "", note).strip()
    if _CONTINUED.search(note) or plain in {re.sub(r"\d+", "", n).strip() for n in before}:
        return False
    return bool(_TITLE.search(note)) or bool(RESULT.search(in_order(note)))


def _continues(before: Sheet, sheet: Sheet) -> Sheet | None:
    """A table without headings that goes on from the page before, with the headings of that; None where it does not."""
    if not before.kind or before.header is None or not sheet.rows:
        return None
    if len(sheet.rows[0]) != len(before.rows[0]) or not is_data(sheet.rows[0]):
        return None
    if any(_is_another_title(note, before.notes) for note in sheet.notes):
        return None
    head = tuple(replace(c, at=None) for c in before.rows[before.header])
    rows = (head, *(tuple(placed(r, i)) for i, r in enumerate(sheet.rows)))
    return replace(sheet, rows=rows, kind=before.kind, header=0)


def _finished(rows: Rows, heads: Heads, sheet: Sheet, shift: Shift) -> Sheet:
    """A table with one row of headings.

    Headings above columns, blocks and the table, as separate columns.
    """
    top, body = rows[: heads.last], rows[heads.last + 1 :]
    notes = [held(r, 1)[0] for r in top[: heads.first] if not is_blank(r) and (is_line(r) or not is_data(r))]
    head = _heading(rows, heads, shift)
    units = body[:1] if body and is_units(body[0]) else []
    start = len(units) + 1
    if heads.over:
        head = placed(head, heads.last, shift)
        set_out = [placed(r, i + heads.last + 1, shift) for i, r in enumerate(body)]
        table = one_in_a_row(head, set_out[: len(units)], set_out[len(units) :], heads)
    else:
        table = [head, *body]
    table, words = with_context(table, start, heads, notes, sheet, (shift[0] + heads.last, shift[1]))
    adjacent = spread(table, start, heads.kind, (shift[0] + heads.last, shift[1]))
    table = adjacent or table
    story = _story_column(table[0], heads.kind)
    table, groups = one_for_each_story(table, start, story, (shift[0] + heads.last, shift[1]))
    mirrored = mirrored_rows(table, start)
    entry = held(rows[heads.last])
    lines = {i for i in range(start, len(table)) if is_note(table[i], heads.kind) or _repeats(table[i], entry)}
    notes += [held(table[i], 1)[0] for i in sorted(lines | words) if len(held(table[i], 3)) < 3]
    complete = even(top + table)
    return replace(
        sheet,
        rows=tuple(tuple(r) for r in complete),
        kind=heads.kind.id,
        header=len(top),
        notes=tuple(dict.fromkeys([*sheet.notes, *notes])),
        lines=frozenset({i + len(top) for i in lines | words | mirrored} | set(range(len(top)))),
        unused=frozenset() if heads.over else heads.blank,
        shift=shift,
        groups=frozenset(r + len(top) for r in groups),
    )


def _story_column(head: Sequence[Cell], kind: TableKind) -> int | None:
    """The column of the stories; None where there is none."""
    found = [c for c, cell in enumerate(head) if cell.text and "story" in fits_of(kind.id, cell.text)]
    return found[0] if found else None


def _heading(rows: Rows, heads: Heads, shift: Shift) -> list[Cell]:
    """The row of headings, each of all its rows."""
    merged = heads.last > heads.first
    head = [
        replace(cell, text=heads.texts[c]) if (merged or not cell.text) and heads.texts[c] else cell
        for c, cell in enumerate(rows[heads.last])
    ]
    head = [replace(cell, text="") if c in heads.blank else cell for c, cell in enumerate(head)]
    if not head[0].text and 0 not in heads.columns:
        head[0] = replace(head[0], text=_unnamed(heads.kind, [r[0].text for r in rows[heads.last + 1 :]]))
    return head


def _repeats(row: Sequence[Cell], heading: list[str]) -> bool:
    """Whether a row is the headings again, as at the top of a page."""
    first = held(row, 2)
    if len(first) < 2 or (first[0] != heading[0] and not is_unit_text(first[0])):
        return False
    texts = held(row)
    return texts[: len(heading)] == heading or is_units(row)


def _unnamed(kind: TableKind, texts: Sequence[str]) -> str:
    """A heading for a first column without one, by what is in it."""
    stated = [t for t in texts if t]
    names = {c.name for c in kind.columns}
    if kind.id == "parameters":
        return "Item"
    if "story" in names and stated and sum(1 for t in stated if rank_of(t) is not None) >= 0.7 * len(stated):
        return "Story"
    return "Case" if "case" in names and "story" not in names else ""
