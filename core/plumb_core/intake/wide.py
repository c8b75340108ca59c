"""Headings over two rows, and wide tables: a group of columns for each case, direction or mode becomes rows of their own."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace

from plumb_core.intake.cells import Cell
from plumb_core.intake.numbers import readings

SEARCHED = 12
"""Rows from the top that headings are looked for in."""
_AXES = re.compile(r"(?i)\W*(r?[xyz]|u[xyz]|[xyz]\s*direction|(along|about|in)\s+[xyz])\W*(\(.*\)|\[.*\])?\W*")
_MODE = re.compile(r"(?i)\s*mode\s*(\d{1,4})\s*")
_DIRECTION = re.compile(r"(?i)\s*(?:direction\s*|along\s*|in\s*)?([xy])(?:\s*direction)?\s*")
_RESULT = re.compile(r"(?i)force|shear|moment|overturning|drift|displacement|movement|rotation|deflection")

Rows = list[list[Cell]]


def long_form(rows: Rows) -> Rows:
    """The rows with one row of headings and one value of a kind in a row; as they are where they are so already.

    A cell keeps the place where it stood. Nothing is read into the cells: only headings that stand over several columns, and
    names that stand over the same headings again and again, are taken down.
    """
    width = max((len(r) for r in rows), default=0)
    full = [[*r, *[Cell("")] * (width - len(r))] for r in rows]
    for i in range(min(SEARCHED, len(full) - 2)):
        groups = _groups(full[i], full[i + 1])
        if len(groups) < 2:
            continue
        heads = full[i + 1]
        subs = [[_plain(heads[c].text) for c in columns] for _, columns in groups]
        names = [name for name, _ in groups]
        alike = all(s == subs[0] for s in subs[1:]) and len(set(names)) == len(names)
        if alike and all(any(_RESULT.search(heads[c].text) for c in columns) for _, columns in groups):
            return [*_placed(full[:i], 0), *_unpivoted(full, i, groups)]
        if all(_AXES.fullmatch(heads[c].text) for _, columns in groups for c in columns):
            return _joined(full, i, groups)
    return rows


def _plain(text: str) -> str:
    return re.sub(r"[\s_.\-]", "", text).lower()


def _groups(upper: Sequence[Cell], lower: Sequence[Cell]) -> list[tuple[str, list[int]]]:
    """Names of the upper row with the columns of the lower one that they stand over; none where the two aren't headings."""
    cells = [c.text for c in (*upper, *lower) if c.text]
    if not cells or any(readings(text) for text in cells):
        return []
    groups: list[tuple[str, list[int]]] = []
    for column, (over, under) in enumerate(zip(upper, lower, strict=True)):
        name = over.text
        if name and name == under.text:
            # a heading that is merged downwards
            continue
        if name and under.text and (not groups or groups[-1][0] != name):
            groups.append((name, [column]))
        elif groups and under.text and (not name or name == groups[-1][0]) and groups[-1][1][-1] == column - 1:
            groups[-1][1].append(column)
    return groups


def _placed(rows: Rows, first: int) -> Rows:
    return [
        [replace(c, at=(first + r, k)) if c.at is None else c for k, c in enumerate(row)] for r, row in enumerate(rows)
    ]


def _unpivoted(rows: Rows, i: int, groups: list[tuple[str, list[int]]]) -> Rows:
    """A row for each group of each row below the headings, the group's name in a column of its own."""
    names = [name for name, _ in groups]
    if all(_MODE.fullmatch(n) for n in names):
        title, labels = "Mode", [m.group(1) for n in names if (m := _MODE.fullmatch(n))]
    elif all(_DIRECTION.fullmatch(n) for n in names):
        title, labels = "Direction", [m.group(1).upper() for n in names if (m := _DIRECTION.fullmatch(n))]
    else:
        title, labels = "Case", names
    grouped = {c for _, columns in groups for c in columns}
    kept = [c for c in range(len(rows[i])) if c not in grouped and (rows[i][c].text or rows[i + 1][c].text)]
    placed = _placed(rows, 0)
    first = groups[0][1]
    heads = [placed[i + 1][c] if placed[i + 1][c].text else placed[i][c] for c in kept]
    result = [[*heads, Cell(title, at=(i, first[0])), *(placed[i + 1][c] for c in first)]]
    start = i + 2
    units = rows[start] if start < len(rows) and not any(readings(c.text) for c in rows[start]) else None
    if units is not None and any(c.text for c in units):
        result.append([*(placed[start][c] for c in kept), Cell(""), *(placed[start][c] for c in first)])
        start += 1
    for label, (_, columns) in zip(labels, groups, strict=True):
        for row in placed[start:]:
            if any(row[c].text for c in columns):
                result.append([*(row[c] for c in kept), Cell(label, at=(i, columns[0])), *(row[c] for c in columns)])
    return result


def _joined(rows: Rows, i: int, groups: list[tuple[str, list[int]]]) -> Rows:
    """One row of headings of the two: the name over the columns before that of each axis, its unit behind."""
    heads = [below if below.text else above for above, below in zip(rows[i], rows[i + 1], strict=True)]
    for name, columns in groups:
        words, unit = re.sub(r"\s*[(\[].*?[)\]]\s*$", "", name), re.search(r"[(\[].*?[)\]]\s*$", name)
        for c in columns:
            text = rows[i + 1][c].text
            heads[c] = Cell(f"{words} {text}" + (f" {unit.group(0)}" if unit and "(" not in text else ""))
    return [*_placed(rows[:i], 0), *_placed([heads], i + 1), *_placed(rows[i + 2 :], i + 2)]
