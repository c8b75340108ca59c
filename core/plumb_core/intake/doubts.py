"""Doubts about what the values of a table are: words of its title, symbols with two meanings, weights that accumulate.

Each is a question with the values as they are as its first answer; the reviewer's answer is named in
`Reading.confirmed`.
"""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from itertools import pairwise

from plumb_core.documents.submission import Claim, LoadCase
from plumb_core.intake.cells import factor, known_unit
from plumb_core.intake.columns import VERTICAL_Y, units_in
from plumb_core.intake.numbers import readings, with_unit
from plumb_core.intake.story_names import matched
from plumb_core.intake.tables.kind import ClaimReader

RESULTS = ("drifts", "displacements", "forces", "reactions", "by_story")
"""Kinds of tables that hold results of an analysis."""
_WORDS: Mapping[str, tuple[str, str]] = {
    "maximum considered": (
        r"maximum considered|\bmce(_?r)?\b|\bmcr\b",
        "results of the maximum considered earthquake, not of the design earthquake",
    ),
    "vertical": (
        r"\bvertical\b(?!\s+(distribution|irregular|force distribution|axis|lateral))",
        "results of the vertical action",
    ),
    "another action": (
        r"\bwind\b|\bservice(ability)?\b|\bfrequent earthquake\b|\bdamage limitation\b|\btemperature\b|\bblast\b",
        "results of another action or action level",
    ),
    "combined directions": (
        r"\bresultants?\b|\b(sum|srss|combined|envelope)\b.*\b(both|two|all) directions\b",
        "values combined over both directions",
    ),
    "part of the building": (
        r"\b(half|quarter|part|portion|wing)\b( of)?( the)? ?(building|model|structure)\b|\b(per|one) frame\b",
        "values of a part of the building",
    ),
    "multiplied": (
        r"\bmultiplied by\b|\bfactored\b|\b\d\.\d+\s*[x\u00d7*]?\s*e[a-z]{0,2}\b|[x\u00d7]\s*1\.\d",
        "values multiplied by a factor",
    ),
    "unit load": (
        r"\bunit (load|force|spectrum)\b|\bnormali[sz]ed\b",
        "results under a unit load, or normalised values",
    ),
}
"""Doubts by their names: words of a title, and what the values may be."""
_LEVELS = (
    ("amplified", r"\b(inelastic|amplified)\b|\b(multiplied|times|x|\u00d7)\s+(by\s+)?c_?d\b"),
    ("elastic", r"\bun-?reduced\b|\belastic\b(?! modul)"),
    ("reduced", r"\bdivided by (r|q)\b|\b(reduced|reduction) by (r|q)\b|\breduced\b"),
)


EACH, WEIGHTS, DELTA = "each story of a group", "weights of each story", "delta"
TABLE_WIDE = {*_WORDS, EACH, WEIGHTS, DELTA, "T_mode", "f_mode"}
"""Doubts about all of a table, which are settled for others like it too."""


def like_titles(notes: Sequence[str]) -> frozenset[str]:
    """Lines over a table without what differs between tables of one kind: numbers, and names of cases and stories."""
    words = (re.findall(r"[^\W\d_]{3,}", re.sub(r"\b\w*\d\w*\b|\b[A-Z]{1,3}\b", " ", n).lower()) for n in notes)
    return frozenset(" ".join(w) for w in words if w)


def level_in_title(reader: ClaimReader) -> str | None:
    """The level of results that the lines over a table state: amplified, elastic or reduced; None where none or two."""
    text = " ".join(reader.sheet.notes).lower()
    found = [level for level, pattern in _LEVELS if re.search(pattern, text.replace("inelastic", "amplified"))]
    return found[0] if len(found) == 1 else None


def with_level(reader: ClaimReader, cases: list[LoadCase], names: list[str]) -> list[LoadCase]:
    """The cases of a table with the level that its title states, where nothing else states one."""
    level = level_in_title(reader)
    if level is None:
        return cases
    known = {c.name for c in cases}
    unstated = [n for n in names if n in reader.roles and reader.roles[n].level is None]
    more = [LoadCase(name=n) for n in unstated if n not in known]
    return [c.model_copy(update={"level": level}) if c.level is None else c for c in (*cases, *more)]


def ask(reader: ClaimReader, kind: str) -> None:
    """Note the doubts that the lines over a table, and its headings, raise about all of its values."""
    if kind in RESULTS:
        for name, (pattern, meaning) in _WORDS.items():
            titles = [n for n in reader.sheet.notes if _may_be_title(n)]
            note = next((n for n in titles if re.search(pattern, n, re.IGNORECASE)), None)
            if note is not None and name not in reader.given.confirmed:
                words = f"the title {note[:60]!r} can mean {meaning}"
                _question(
                    reader, name, words, "Confirm that the values are those of the design action, or exclude the table."
                )
        _ask_about_units(reader)
    if kind in ("drifts", "displacements"):
        _ask_about_delta(reader, kind)
    if reader.sheet.groups:
        _ask_about_groups(reader)


def _may_be_title(note: str) -> bool:
    """Whether a line can be a title: short, and not about what is not in the table or about its axes."""
    return len(note.split()) <= 10 and not _NEGATIVE.search(note) and not VERTICAL_Y.search(note)


_NEGATIVE = re.compile(r"(?i)\b(not|no|without|excluding|excluded|except|limit|limits|by others)\b")


def _question(
    reader: ClaimReader, name: str, words: str, remedy: str, row: int | None = None, column: int | None = None
) -> None:
    choices = [("use the values as they are", {"confirmed": [*reader.given.confirmed, name]})]
    reader.problem(row, column, words, remedy, extent="table", choices=choices)


def _ask_about_units(reader: ClaimReader) -> None:
    """A unit over the table that contradicts the one that a heading states."""
    named = [u for note in reader.sheet.notes for u in units_in(note)]
    for column in reader.stated:
        core = column.unit or ""
        label = reader.units.get(column.name)
        over = {found for u in named if (found := known_unit(u, core)) and found not in ("-", "%")}
        if core == "m or share" or label is None or not over or label in over or column.name in reader.given.units:
            continue
        other = ", ".join(sorted(over))
        words = f"the heading of {column.title} states {label}, and a line of the table states {other}"
        choices = [(u, {"units": {column.name: u}}) for u in (label, *sorted(over))]
        reader.problem(reader.header, reader.columns[column.name], words, "Choose the unit.", choices=choices)


_DELTA = re.compile(r"(?i)\bdelta|\u0394|\u03b4|^d_?(max|avg|mean|average)\b")


def _ask_about_delta(reader: ClaimReader, kind: str) -> None:
    """A delta is a drift or a displacement; the words of the table state which."""
    if reader.header is None or DELTA in reader.given.confirmed:
        return
    heads = [c.text for c in reader.sheet.rows[reader.header]]
    used = {
        reader.columns[c.name]: heads[reader.columns[c.name]]
        for c in reader.stated
        if reader.columns[c.name] < len(heads)
    }
    deltas = {i: t for i, t in used.items() if _DELTA.search(t) and not re.search(r"(?i)drift|displ", t)}
    written = " ".join([*reader.sheet.notes, reader.sheet.name, *used.values()])
    if deltas and not re.search(r"(?i)drift|displac|verschieb|d[eé]plac|desplaz|spostam|deriv", written):
        index, text = next(iter(deltas.items()))
        words = f"{text!r} can be a story drift or a displacement"
        remedy = f"Confirm that it is a {kind.removesuffix('s')}, or select the other kind of table."
        _question(reader, DELTA, words, remedy, reader.header, index)


_ADDS_UP = ("w", "m", "J_m", "load_amount", "load_area", "F", "V", "M_story")
"""Quantities of which a row for several stories can hold the sum."""


def _ask_about_groups(reader: ClaimReader) -> None:
    """A weight beside L2 to L4 is that of each or of all of them; a total row or the brief states which."""
    for column in reader.stated:
        if column.quantity not in _ADDS_UP or EACH in reader.given.confirmed:
            continue
        index = reader.columns[column.name]
        rows = [r for r in sorted(reader.sheet.groups) if reader.sheet.rows[r][index].text]
        if not rows or _each_by_total(reader, index) or _each_by_brief(reader, column.name, rows):
            continue
        story = reader.sheet.rows[rows[0]][reader.columns["story"]].text if "story" in reader.columns else ""
        words = f"{column.title} of several stories in one row ({story} and others) can be of each or of all together"
        choices = [("of each story", {"confirmed": [*reader.given.confirmed, EACH]})]
        remedy = "Confirm that it is of each story, or exclude the rows."
        reader.problem(reader.header, index, words, remedy, choices=choices)


_TOTAL = re.compile(r"(?i)\s*(grand )?(total|sum|\u03a3|summe|somme|suma|totale)\b")


def _each_by_total(reader: ClaimReader, index: int) -> bool:
    """Whether the rows of a column, each story counted, add up to the total that the table states."""
    totals: list[float] = []
    values: list[float] = []
    for row in reader.sheet.rows[(reader.header or 0) + 1 :]:
        number = next(iter(readings(with_unit(row[index].text)[0]).values()), None)
        if number is not None:
            (totals if any(_TOTAL.match(c.text) for c in row) else values).append(float(number))
    return bool(totals) and abs(totals[0] - sum(values)) <= 1e-3 * abs(totals[0])


def _each_by_brief(reader: ClaimReader, name: str, rows: Sequence[int]) -> bool:
    """Whether the values are about those that the brief has of each story."""
    ours = reader.brief_values.get(name, {})
    index, unit = reader.columns[name], reader.units.get(name)
    if unit is None or "story" not in reader.columns:
        return False
    for row in rows:
        known = ours.get(matched(reader.sheet.rows[row][reader.columns["story"]].text, list(ours)) or "")
        number = next(iter(readings(with_unit(reader.sheet.rows[row][index].text)[0]).values()), None)
        if not known or number is None:
            return False
        if not 0.6 < float(number) * factor(unit, reader.by_name[name].unit or "") / known < 1.6:
            return False
    return True


def ask_about_accumulation(reader: ClaimReader, weights: list[Claim]) -> None:
    """Weights that grow from the top to the bottom by about a story each may be those of all stories above.

    weights : of the stories, bottom to top
    """
    values = [float(c.value) for c in weights][::-1]
    steps = [b - a for a, b in pairwise(values)]
    if len(values) < 3 or WEIGHTS in reader.given.confirmed or any(s <= 0 for s in steps):
        return
    # a story each: every step is about the weight of the top story or more, up to twice the mean step
    mean = sum(steps) / len(steps)
    if values[0] > 2.0 * mean or any(not 0.5 * mean <= s <= 2.0 * mean for s in steps) or values[0] < 0.2 * mean:
        return
    column = reader.columns["w"]
    words = "the weights grow by about one story at each level, like weights of all stories above"
    choices = [("they are the weight of each story", {"confirmed": [*reader.given.confirmed, WEIGHTS]})]
    remedy = "Confirm that each is the weight of its story, or exclude the column."
    reader.problem(reader.header, column, words, remedy, choices=choices)
