"""Tables put upright: across the page, side by side, a group of columns for each case, both ends below one another."""

from __future__ import annotations

import re
from dataclasses import replace

from plumb_core.intake.cells import Cell
from plumb_core.intake.columns import normal
from plumb_core.intake.layout.context import TITLES
from plumb_core.intake.layout.heads import Heads, Place, best_kind, fits_of
from plumb_core.intake.layout.rows import (
    Rows,
    Shift,
    even,
    held,
    is_blank,
    is_data,
    is_line,
    is_number,
    is_units,
    placed,
)
from plumb_core.intake.names import parameter_names
from plumb_core.intake.numbers import readings
from plumb_core.intake.tables.kind import TableKind
from plumb_core.intake.words import in_order

MOST_ACROSS = 40
"""Rows of a table that runs across the page."""


def stacked(rows: Rows, start: int) -> Rows | None:
    """Rows with the same headings again and again beside one another, put below one another.

    None where they are not.
    """
    heads = [c.text for c in rows[start]]
    stated = [c for c, t in enumerate(heads) if t]
    if any(c.text for r in rows[max(0, start - 2) : start] for c in r[1:]):
        # there are headings over these
        return None
    texts = [heads[c] for c in stated]
    for period in range(2, len(texts) // 2 + 1):
        times = len(texts) // period
        if len(texts) % period == 0 and texts == texts[:period] * times and len(set(texts[:period])) == period:
            break
    else:
        return None
    groups = [stated[i * period : (i + 1) * period] for i in range(times)]
    result = [placed(r, i) for i, r in enumerate(rows[: start + 1])]
    result[start] = [result[start][c] for c in groups[0]]
    body = [placed(r, i + start + 1) for i, r in enumerate(rows[start + 1 :])]
    if body and is_units(body[0]):
        result.append([body[0][c] for c in groups[0]])
        body = body[1:]
    result += [[r[c] for c in g] for g in groups for r in body if any(r[c].text for c in g)]
    return even(result)


def turned(rows: Rows, shift: Shift, heads: Heads | None = None) -> tuple[Rows, Heads] | None:
    """The rows with columns for rows, where that makes a better table than `heads` does; None where it does not."""
    full = [i for i, r in enumerate(rows[: MOST_ACROSS + 1]) if len(held(r, 2)) > 1]
    if not 2 <= len(full) <= MOST_ACROSS or len(rows) > 2 * MOST_ACROSS or len(rows[0]) > 200:
        return None
    first = [rows[i][0].text for i in full]
    if sum(1 for t in first if t and not is_number(t)) < len(first) - 1:
        return None
    across = [[*column] for column in zip(*[placed(rows[i], i, shift) for i in full], strict=True)]
    across = [r for r in across if not is_blank(r)]
    if not across or not any(map(is_data, across[1:])):
        return None
    named = held(rows[full[0]])
    known = [t for t in named[1:] if normal(t) in parameter_names()]
    if len(named) >= 3 and len(known) >= 0.6 * (len(named) - 1) and in_order(named[0]) in ("direction", "axis"):
        # parameters beside one another, a row for each direction
        across[0][0] = replace(across[0][0], text="Item")
        found = best_kind(across, 0, 0, "")
        return (across, found) if found and found.kind.id == "parameters" else None
    if not across[0][0].text:
        across[0][0] = replace(across[0][0], text="Case")
    found = best_kind(across, 0, 0, "")
    if found is None or found.kind.id in ("parameters", "log", "cases") or len(found.columns) < 2:
        return None
    if any(c.required and c.name not in found.names for c in found.kind.columns):
        return None
    return None if heads is not None and len(heads.columns) >= len(found.columns) else (across, found)


def one_in_a_row(head: list[Cell], units: Rows, body: Rows, heads: Heads) -> Rows:
    """A row for each group of columns of each row, with the heading of the group in separate columns."""
    groups: dict[Place, list[int]] = {}
    for c, place in heads.over.items():
        groups.setdefault(place, []).append(c)
    retained = [
        c
        for c in range(len(head))
        if c not in heads.over and c not in heads.blank and (head[c].text or any(r[c].text for r in body))
    ]
    values = list(dict.fromkeys(heads.columns[c] for columns_of in groups.values() for c in columns_of))
    places = list(dict.fromkeys(name for place in groups for name, _ in place))
    first = {v: next(c for c in heads.over if heads.columns[c] == v) for v in values}
    shown = [replace(head[first[v]], text=heads.left[first[v]]) for v in values]
    result = [[*(head[c] for c in retained), *(Cell(TITLES[p], at=head[first[values[0]]].at) for p in places), *shown]]
    result += [[*(u[c] for c in retained), *[Cell("")] * len(places), *(u[first[v]] for v in values)] for u in units]
    for place, entry in groups.items():
        words, at = dict(place), {heads.columns[c]: c for c in entry}
        stands = head[entry[0]].at
        for row in body:
            if is_blank(row) or is_line(row):
                if place == next(iter(groups)):
                    result.append([*(row[c] for c in retained), *[Cell("")] * (len(places) + len(values))])
            elif any(row[c].text for c in entry):
                result.append(
                    [
                        *(row[c] for c in retained),
                        *(Cell(words.get(p, ""), at=stands) for p in places),
                        *(row[at[v]] if v in at else Cell("") for v in values),
                    ]
                )
    return result


_KEYS = {
    "direction": re.compile(r"(?i)([xy])(?:[- ]?(?:dir\.?|direction))?"),
    "end": re.compile(r"(?i)(?:end |corner |edge )?([12ab])"),
}


def spread(table: Rows, start: int, kind: TableKind, shift: Shift) -> Rows | None:
    """Values of both directions, or both ends, in rows below one another: put beside one another.

    None where there are none.
    """
    head = [c.text for c in table[0]]
    names = {c: fits_of(kind.id, t) for c, t in enumerate(head) if t}
    entry = {c.name for c in kind.columns}
    for key, text in enumerate(head):
        word = in_order(text)
        sort = "direction" if word in ("direction", "axis") else "end" if word in ("end", "endnumber") else ""
        if not sort or (sort == "direction" and "direction" in entry):
            continue
        pattern = _KEYS[sort]
        body = [placed(r, i, shift) for i, r in enumerate(table) if i >= start and not is_blank(r)]
        marks = [pattern.fullmatch(r[key].text) for r in body]
        if not body or not all(marks):
            continue
        values = [c for c, t in enumerate(head) if t and c != key and all(n.endswith("_single") for n in names[c])]
        sides = list(dict.fromkeys(m.group(1).upper() for m in marks if m))
        made = {(c, s): _with_word(head[c], sort, s) for c in values for s in sides}
        values = [c for c in values if all(fits_of(kind.id, made[c, s]) for s in sides)]
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
    return None


def _with_word(heading: str, sort: str, side: str) -> str:
    unit = re.search(r"\s*[\[(][^()\[\]]*[\])]\s*$", heading)
    words = heading[: unit.start()] if unit else heading
    return f"{words} {'end ' if sort == 'end' else ''}{side}{unit.group(0) if unit else ''}"


_EXTREMES = {"max": "max", "maximum": "max", "min": "min", "minimum": "min"}


def mirrored_rows(table: Rows, start: int) -> set[int]:
    """Rows of the least values where those are the greatest ones with the other sign: they say nothing more."""

    def mark(row: list[Cell], key: int) -> str:
        return _EXTREMES.get(row[key].text.lower().strip("."), "")

    sample = [r for r in table[start : start + 200] if not is_blank(r)]
    keys = range(len(table[0]) if table else 0)
    key = next((k for k in keys if {mark(r, k) for r in sample if k < len(r)} == {"max", "min"}), None)
    if key is None:
        return set()

    def place(row: list[Cell]) -> tuple[str, ...]:
        return tuple(c.text for k, c in enumerate(row) if k != key and not is_number(c.text))

    body = [(i, r) for i, r in enumerate(table) if i >= start and not is_blank(r)]
    greatest = {place(row): row for _, row in body if mark(row, key) == "max"}
    return {i for i, row in body if mark(row, key) == "min" and _mirrored(greatest.get(place(row)), row)}


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
