"""Rows for several stories, such as L2 to L4: a row for each of them."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

from plumb_core.intake.layout.rows import Rows, Shift, placed
from plumb_core.intake.story_names import rank_of

MOST_STORIES = 60
"""Stories of a group; more is no group."""
_BETWEEN = r"\s*(?:\bto\b|\bthrough\b|\bthru\b|\bbis\b|\u2013|\u2014|-|\.{2,3}|\u2026|~)\s*"
_NAME = r"(?P<{0}before>[^\W\d][^\d,;&+/]*?[\s._-]*)?(?P<{0}number>\d{{1,3}})(?P<{0}end>st|nd|rd|th)?"
_RANGE = re.compile(
    rf"(?i)\s*{_NAME.format('a')}(?P<after>\s*[^\W\d]+)?{_BETWEEN}{_NAME.format('b')}(?P<more>\s+[^\W\d]+)?\s*"
)
_LIST = re.compile(r"(?i)\s*(?:,|;|&|\+|\band\b|\bund\b)\s*")


@lru_cache(maxsize=5_000)
def stories_of(text: str) -> tuple[str, ...]:
    """Names of the stories of a group, in the order in which it is written; empty where it names no group.

    Parameters
    ----------
    text : of the cell, as in L2 to L4, 2nd-4th floor, or L2, L3 and L5
    """
    match = _RANGE.fullmatch(text)
    if match:
        return _between(match)
    parts = [p for p in _LIST.split(text) if p]
    if len(parts) < 2 or len(parts) > MOST_STORIES:
        return ()
    groups = [stories_of(p) or ((p,) if rank_of(p) is not None else ()) for p in parts]
    names = tuple(n for g in groups for n in g)
    return names if all(groups) and len(set(names)) == len(names) else ()


def _between(match: re.Match[str]) -> tuple[str, ...]:
    before = re.sub(
        r"(?i)^(levels|floors|stories|storeys)\b", lambda m: _SINGULAR[m[0].lower()], match["abefore"] or ""
    )
    other = (match["bbefore"] or "").strip(" ._-").lower()
    after = match["after"] or match["more"] or ""
    low, high = int(match["anumber"]), int(match["bnumber"])
    same = not other or other == before.strip(" ._-").lower()
    if not same or bool(match["aend"]) > bool(match["bend"]) or not 1 <= abs(high - low) < MOST_STORIES:
        return ()
    step = 1 if high > low else -1
    ordinal = bool(match["bend"])
    names = tuple(f"{before}{n}{_ending(n) if ordinal else ''}{after}".strip() for n in range(low, high + step, step))
    return names if all(rank_of(n) is not None for n in names) else ()


_SINGULAR = {"levels": "Level", "floors": "Floor", "stories": "Story", "storeys": "Storey"}


def _ending(number: int) -> str:
    return "th" if number % 100 in (11, 12, 13) else {1: "st", 2: "nd", 3: "rd"}.get(number % 10, "th")


def one_for_each_story(table: Rows, start: int, column: int | None, shift: Shift) -> tuple[Rows, frozenset[int]]:
    """The rows of a table with those of groups of stories written out, and which rows came of groups.

    Parameters
    ----------
    table : rows, headings first
    start : first row of values
    column : of the stories; None where there is none
    shift : place of the first row on its sheet
    """
    if column is None:
        return table, frozenset()
    texts = [r[column].text for r in table[start:]]
    groups = {t: g for t in set(texts) if (g := stories_of(t))}
    named = [rank_of(n) for t in set(texts) for n in groups.get(t, (t,))]
    known = [n for n in named if n is not None]
    if not groups or len(set(known)) != len(known):
        # L1-L2 beside L2-L3 are names of what is between two floors
        return table, frozenset()
    down = _downwards(texts, groups)
    made: Rows = []
    rows: set[int] = set()
    for i, row in enumerate(placed(r, i, shift) for i, r in enumerate(table)):
        names = groups.get(row[column].text, ()) if i >= start else ()
        for name in sorted(names, key=_rank, reverse=down) if down is not None else names:
            rows.add(len(made))
            made.append([*row[:column], replace(row[column], text=name), *row[column + 1 :]])
        if not names:
            made.append(row)
    return made, frozenset(rows)


def _rank(name: str) -> float:
    return rank_of(name) or 0.0


def _downwards(texts: Sequence[str], groups: dict[str, tuple[str, ...]]) -> bool | None:
    """Whether the rows go from the top down; None where one row says nothing of it."""
    ranks = [rank for t in dict.fromkeys(texts) if (rank := rank_of(groups.get(t, (t,))[0])) is not None]
    return None if len(ranks) < 2 else ranks[0] > ranks[-1]
