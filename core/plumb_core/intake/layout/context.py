"""Lines of text over a table and between its rows: what they say of the case, the mode, the direction, the story.

And notes.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import lru_cache

from plumb_core.intake.cells import Cell, is_unit_text
from plumb_core.intake.layout.heads import CASE_WORD, CONTEXT, CONTINUED, MODE_LINE, RESULT, Heads, fits_of
from plumb_core.intake.layout.rows import Rows, Shift, held, is_blank, is_line
from plumb_core.intake.names import axis_named, direction_in, names_an_action
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.story_names import rank_of
from plumb_core.intake.tables import table_kinds
from plumb_core.intake.tables.kind import TableKind
from plumb_core.intake.words import in_order

_UNIT_IN_BRACKETS = re.compile(r"[\[(]\s*([^\[\]()]*?)\s*[\])]")
IN_LINES = (*CONTEXT, "story")
"""What a line over a block of rows can say."""
TITLES = {"case": "Case", "mode": "Mode", "direction": "Direction", "story": "Story"}
"""Headings of the columns that are made from headings above other columns."""


def with_context(
    table: Rows, start: int, heads: Heads, notes: list[str], sheet: Sheet, shift: Shift
) -> tuple[Rows, set[int]]:
    """The table with a column for what the lines over it, or over blocks of its rows, say of its case, mode.

    Direction or story.

    start : first row below the headings and units.  shift : where the headings are.  Also given: the rows that are
        such lines.
    """
    kind = heads.kind
    missing = [n for n in IN_LINES if any(c.name == n for c in kind.columns) and n not in heads.names]
    expected = [n for n in missing if n != "direction" or kind.id != "forces"]
    if not expected or not kind.values or kind.id == "parameters":
        return table, set()
    stands: dict[str, Cell] = {}
    named = "" if re.search(r"\.\w{2,4}$|^page \d", sheet.name) else sheet.name
    for text in [named, *sheet.notes, *notes]:
        stands |= {n: Cell(t) for n, t in _context_of_line(kind, text, expected, loose=False).items()}
    adjacent: list[dict[str, Cell]] = []
    lines: set[int] = set()
    for i, row in enumerate(table):
        if i >= start and is_line(row):
            k, line = next((k, c) for k, c in enumerate(row) if c.text)
            words = _context_of_line(kind, line.text, expected, loose=True)
            if words:
                at = line.at or (i + shift[0], k + shift[1])
                stands = stands | {n: Cell(t, at=at) for n, t in words.items()}
                lines.add(i)
        adjacent.append({} if i < start or is_blank(row) or is_line(row) else stands)
    reported = [n for n in expected if any(n in b for b in adjacent)]
    if not reported:
        return table, lines
    blank = Cell("")
    head = [[*table[0], *(Cell(TITLES[n]) for n in reported)]]
    return head + [
        [*r, *(b.get(n, blank) for n in reported)] for r, b in zip(table[1:], adjacent[1:], strict=True)
    ], lines


@lru_cache(maxsize=5_000)
def _kind_words(text: str) -> bool:
    """Whether words say what a table holds: headings of a kind, or the like of them."""
    return bool(RESULT.search(in_order(text))) or any(fits_of(k, text) for k in table_kinds() if k != "log")


_ALONG = re.compile(r"(?i)\bdirection\s*[:=]?\s*([xy])\b|\b([xy])[- ]direction\b|\balong\s+([xy])\b")
_BOTH_AXES = re.compile(r"(?i)\b([xy])\s*(?:-?direction)?\s*(?:and|&|/|,|\+)\s*([xy])\b")
_NO_NAME = re.compile(
    r"(?i)(with|without|of|for|in|at|is|are|was|and|as|the|a|an|this|that|where|when|it|by|see|from|has|no|study|number)\b"
)


def _is_name(text: str) -> bool:
    """Whether words behind "case" are its name, and not what a sentence goes on with."""
    return len(text.split()) <= 5 and not _NO_NAME.match(text)


def _context_of_line(kind: TableKind, text: str, expected: Sequence[str], *, loose: bool) -> dict[str, str]:
    """What a line says of the case, the mode and the direction of the rows below it.

    loose : whether a name of its own is enough; else it has to name an axis, as a sheet's name must
    """
    words: dict[str, str] = {}
    # a unit in brackets is no part of a name
    text = _UNIT_IN_BRACKETS.sub(lambda m: "" if is_unit_text(m.group(1)) else m.group(), text).strip()
    if "story" in expected and loose and rank_of(text) is not None:
        return {"story": text}
    if "mode" in expected and (mode := MODE_LINE.fullmatch(text.split(",")[-1])):
        words["mode"] = mode.group(1)
    if "direction" in expected:
        axes = {g.upper() for m in _ALONG.finditer(text) for g in m.groups() if g}
        # a title that names both says nothing of either
        if len(axes) == 1 and not _BOTH_AXES.search(text):
            words["direction"] = axes.pop()
    if "case" in expected:
        if match := CASE_WORD.search(text):
            name = re.split(r"[,;()\u2013]|\s-\s", CONTINUED.sub("", match.group(1)))[0].strip()
            if 0 < len(name) <= 60 and _is_name(name):
                words["case"] = name
        elif not _NOTE.match(text) and len(text) <= 60:
            text = CONTINUED.sub("", text)
            pieces = [
                p.strip()
                for p in re.split(
                    r"[,;:()\[\]\u2013\u2014]|\s-\s",
                    re.sub(r"^\s*(?:(?:table|tab\.?)\s*)?[A-Z]?[\d.]+\s*[-:\u2013]?\s+", "", text, flags=re.IGNORECASE),
                )
                if p.strip()
            ]
            left = [p for p in pieces if not _kind_words(p) and not axis_named(p)]
            if (
                len(left) == 1
                and len(left[0].split()) <= 4
                and (
                    (direction_in(left[0]) and (loose or names_an_action(left[0])))
                    or (loose and len(pieces) == 1 and len(left[0].split()) <= 2 and kind.id != "reactions")
                )
            ):
                words["case"] = left[0]
    return words


_NOTE = re.compile(
    r"(?i)^\W*(notes?|remarks?|sources?|units?|page|sheet|anmerkung|nota|note "
    r"that|all|prepared|signed|checked|rev)\b|^[*†‡]|^\W*\(?[a-z0-9]\)\s"
)


_SIGNED = re.compile(r"(?i)\W*(prepared|checked|approved|reviewed|signed|designed|date|rev(ision)?)\b")
"""Beginnings of the words at the foot of a page."""


def is_note(row: Sequence[Cell], kind: TableKind) -> bool:
    """Whether a row is a line of text that holds no values: a note, the foot of a page."""
    texts = held(row, 3)
    if len(texts) not in (1, 2) or kind.id == "log":
        return False
    if len(texts) == 2 and all(_SIGNED.match(t) for t in texts):
        return True
    if len(texts) == 2:
        return bool(re.fullmatch(r"(?i)(page|p\.|sheet|seite)\s*\d+(\s*(of|/|von)\s*\d+)?", texts[-1]))
    if len(row) < 2:
        return False
    text = texts[0]
    return bool(_NOTE.match(text)) or len(text.split()) >= 4 or (not row[0].text and len(text.split()) > 1)


def title_over(rows: Rows, start: int) -> str:
    """What the lines over a table say it holds, without numbers of sections and without cases."""
    for row in rows[start : start + 6]:
        if not is_blank(row):
            if not is_line(row):
                break
            text = held(row, 1)[0]
            return re.split(
                r",\s*(?!$)(?=(?:load )?case|direction)", re.sub(r"^\s*(table\s+)?[A-Z]?[\d.]+\s+", "", text)
            )[0]
    return ""
