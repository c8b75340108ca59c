"""Ground records from CSV or plain text: one column of accelerations at a step, or times beside them; units stated."""

from __future__ import annotations

import re
from typing import Any

from plumb_core.errors import InputRefused, Problem
from plumb_core.intake.numbers import plain_in, uses_decimal_comma

UNITS = {"g": "g", "m/s2": "m/s2", "cm/s2": "cm/s2", "gal": "cm/s2", "mm/s2": "mm/s2"}
"""Units of acceleration as they are written -> as the requests have them."""
_STEP = re.compile(
    r"(?i)\b(?:dt|step|time step|interval)\s*[=:]?\s*([0-9]*\.?[0-9]+(?:e-?\d+)?)\s*(?:s|sec|seconds)?\b"
)


def _written_unit(text: str) -> str | None:
    plain = text.lower().replace("^", "").replace("²", "2").replace("/s/s", "/s2").replace("sec2", "s2")
    for bracketed in re.findall(r"[\[(]\s*([a-z/0-9]+)\s*[\])]", plain):
        if bracketed in UNITS:
            return UNITS[bracketed]
    words = re.findall(r"[a-z]+(?:/s2)?", plain)
    return next((UNITS[w] for w in words if w in UNITS and w != "g"), None)


def _cells(line: str, comma: bool) -> list[str]:
    """Fields of a line; a comma parts them unless it is the decimal sign."""
    parts = re.split(r"[;\t]" if ";" in line or "\t" in line else r"\s+" if comma else r"[,\s]+", line.strip())
    return [p.strip() for p in parts if p.strip()]


def read_record(data: bytes | str, unit: str = "", dt: float | None = None) -> dict[str, Any]:
    """The record of a file as requests take it: `a`, `unit`, and `dt` or `t`.

    data : text of one column (accelerations, several in a line are read one after the other) or two (time in s,
        acceleration)
    unit, dt : stated by the reviewer; otherwise read from the lines above the numbers.  Raises InputRefused naming
        what is
    missing or cannot be read.
    """
    text = data.decode("utf-8", errors="replace") if isinstance(data, bytes) else data
    lines = [line for line in text.splitlines() if line.strip()]
    fields = [re.split(r"[;\t\s]+", line.strip()) for line in lines]
    comma = not any(
        "," in line and ";" not in line and "\t" not in line and re.search(r"\d,\s*[-+.\d]+\.\d", line)
        for line in lines
    ) and uses_decimal_comma([cell for row in fields for cell in row])
    rows: list[list[float]] = []
    heading: list[str] = []
    problems = []
    for number, line in enumerate(lines):
        plain = [plain_in(cell, "comma" if comma else "point") for cell in _cells(line, comma)]
        if plain and all(p is not None for p in plain):
            rows.append([float(p) for p in plain if p is not None])
        elif not rows:
            heading.append(line)
        else:
            problems.append(
                Problem(
                    f"/lines/{number}",
                    f"{line.strip()[:40]!r} has an entry that is not a number",
                    "Correct the line, or remove it.",
                )
            )
    above = " ".join(heading)
    stated = UNITS.get(unit.lower(), "") if unit else _written_unit(above) or ""
    if not stated:
        problems.append(
            Problem(
                "/unit",
                f"{unit!r} is not a unit of acceleration" if unit else "the unit of the accelerations is not stated",
                f"Give one of: {', '.join(sorted(set(UNITS.values())))}.",
            )
        )
    if len(rows) < 2:
        problems.append(Problem("/a", "it has no accelerations", "Give one or two columns of numbers."))
    if problems:
        raise InputRefused(problems)
    step = _STEP.search(above)
    given = dt if dt is not None else float(step.group(1)) if step else None
    widths = {len(row) for row in rows}
    if widths == {2} and given is None:
        return {"t": [row[0] for row in rows], "a": [row[1] for row in rows], "unit": stated}
    if given is None:
        raise InputRefused(
            [Problem("/dt", "neither times nor a time step are stated", "Give the step in s, or a column of times.")]
        )
    if widths == {2} and abs(rows[1][0] - rows[0][0] - given) < 1e-3 * given:
        return {"t": [row[0] for row in rows], "a": [row[1] for row in rows], "unit": stated}
    return {"a": [value for row in rows for value in row], "dt": given, "unit": stated}
