"""Load cases with their roles."""

from __future__ import annotations

import re
from collections.abc import Hashable

from plumb_core.documents.submission import LoadCase
from plumb_core.intake.columns import Column, is_safe_name
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind

CASE = (
    r"(analysis|result)case|case|loadcase|load|combination|casename|(load)?combination(case|name)|"
    r"loadcombination"
)
KINDS = {
    "static": r"static|lateralforce|equivalent(static|lateral)?(force)?|linearstatic",
    "modal": r"modal|responsespectrum|spectrum|spectral|dynamic",
    "gravity": r"gravity|dead|live",
    "combination": r"combination|combo",
    "time_history": r"timehistory|history",
    "other": r"other",
}
DIRECTIONS = {
    "X": r"x|xdir|xdirection|inx|alongx",
    "Y": r"y|ydir|ydirection|iny|alongy",
    "Z": r"z|vertical",
    "XY": r"xy|x\+y|xandy|both",
}
STEPS = {"before": r"before(scaling)?|unscaled", "after": r"after(scaling)?|scaled"}
LEVELS = {"reduced": r"reduced|design|strength", "elastic": r"elastic|unreduced", "amplified": r"amplified|inelastic"}
NOTHING = ("", "-", "\u2013", "none", "n/a")


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """The role of each case; what a cell leaves blank is not stated."""
    cases: dict[str, LoadCase] = {}
    seen: dict[Hashable, int] = {}
    for row in numbers:
        name = reader.text(row, "case")
        if not is_safe_name(name):
            words = f"{name[:40]!r} is not a valid name of a case" if name else "the case is missing"
            reader.problem(row, reader.columns["case"], words, "Name the case, such as Static X.")
            continue
        compared = [n for n in reader.columns if n != "case"]
        if reader.repeats(seen, name, row, "case", f"case {name!r}", compared):
            continue
        role = {
            "name": name,
            "kind": _word(reader, row, "kind", KINDS),
            "direction": _word(reader, row, "direction", DIRECTIONS),
            "eccentricity": _eccentricity(reader, row),
            "step": _word(reader, row, "step", STEPS),
            "factor": _factor(reader, row),
            "level": _word(reader, row, "level", LEVELS),
        }
        cases[name] = LoadCase.model_validate(role)
    return Rows(cases=list(cases.values()))


def _word(reader: ClaimReader, row: int, column: str, words: dict[str, str]) -> str | None:
    text = reader.text(row, column)
    plain = re.sub(r"[\s_\-]", "", text).lower()
    if text.strip().lower() in NOTHING:
        return None
    found = next((word for word, pattern in words.items() if re.fullmatch(pattern, plain)), None)
    if found is None:
        title = reader.by_name[column].title
        reader.problem(
            row,
            reader.columns[column],
            f"{text[:40]!r} is not recognised as {title}",
            f"Write one of: {', '.join(words)}.",
        )
    return found


def _eccentricity(reader: ClaimReader, row: int) -> float | None:
    """A signed share of the plan dimension, as 0.05 or as 5 %."""
    text = reader.text(row, "eccentricity").replace("\u2212", "-").replace("\u00b1", "")
    if text.strip().lower() in NOTHING:
        return None
    match = re.fullmatch(r"\s*([+-]?)\s*(\d+(?:[.,]\d+)?|[.,]\d+)\s*(%?)\s*", text)
    if match is not None:
        value = float(match.group(2).replace(",", "."))
        percent = match.group(3) or reader.units.get("eccentricity") == "%"
        value = value / 100.0 if percent else value
        if value <= 1.0:
            return -value if match.group(1) == "-" else value
    words = f"{text[:40]!r} is not a share of the plan dimension"
    reader.problem(row, reader.columns["eccentricity"], words, "Write +0.05, -0.05 or 0, or 5 %.")
    return None


def _factor(reader: ClaimReader, row: int) -> float | None:
    if reader.text(row, "factor").strip().lower() in NOTHING:
        return None
    number = reader.number(row, "factor")
    return None if number is None else number[0]


KIND = TableKind(
    "cases",
    "load cases",
    (
        Column("case", "case", CASE, required=True),
        Column("kind", "kind of the case", r"kind|type|kindofcase|analysis", required=True),
        Column("direction", "direction of the action", r"direction|dir|axis"),
        Column("eccentricity", "accidental eccentricity", r"eccentricity|accidentaleccentricity|ecc|e", "", plain=True),
        Column("step", "before or after scaling", r"step|scaling|stage"),
        Column("factor", "scale factor", r"factor|scalefactor", "", plain=True),
        Column("level", "level of the results", r"level|resultlevel|levelofresults"),
    ),
    rows,
    rank=25,
)
