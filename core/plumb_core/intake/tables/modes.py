"""Modes: periods, frequencies, and effective modal masses with their running sums."""

from __future__ import annotations

import re
from collections.abc import Hashable, Mapping
from itertools import pairwise
from typing import Any

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind
from plumb_core.quantities import QUANTITIES, Scope

MODE = Column("mode", "number of the mode", r"mode|modeno|modenumber|number|n", required=True)
_SHARE = (
    r"(share|mass|m|meff|massshare|massratio|massparticipation(ratio|share)?|effectivemass(share|ratio)?|effectivemodalmass(share|ratio)?"
    r"|effectivemassparticipation(ratio)?|modalmass(share|ratio|participation)?|modalmassparticipation(share|ratio)?|participation)?"
)
_RUN = r"(sum|runningsum|running|cumulative|cumulated|total|Σ|σ)"
_MASS = (
    r"(mass|m|share|massshare|massratio|massparticipation(ratio|share)?|participation|"
    r"(base)?(modal)?(effective)?mass|effectivemodalmass)?"
)
_RUNNING = rf"{_RUN}{_MASS}"


def _running(axis: str) -> str:
    """Headings of a running sum: what runs before the axis, or behind it in brackets."""
    return rf"{_RUNNING}(in|along|about)?u?{axis}|{_MASS}(in|along|about)?u?{axis}{_RUN}"


def mode_number(reader: ClaimReader, row: int) -> int | None:
    """Number of the mode of a row, from 1; None with the problem noted."""
    text, index = reader.text(row, "mode"), reader.columns["mode"]
    match = re.fullmatch(r"(?i)(?:mode\s*)?(\d{1,4})(?:\.0+)?", text.strip())
    if match and int(match.group(1)) > 0:
        return int(match.group(1))
    reader.problem(row, index, f"{text[:40]!r} is not a mode number", "Number the modes from 1.")
    return None


def claims_of_mode(reader: ClaimReader, row: int, mode: int, **place: Any) -> list[Claim]:
    """Claims of all columns of a row; directions are in the names of the columns, and a blank is not stated."""
    claims = []
    for name in reader.columns:
        column = reader.by_name[name]
        if not column.quantity or name not in reader.units or not reader.text(row, name):
            continue
        number = reader.number(row, name)
        if number:
            direction = name[-1] if QUANTITIES[column.quantity].scope is Scope.DIRECTION else None
            unit, where = reader.units[name], {"point": mode - 1, "direction": direction, **place}
            claims.append(reader.claim(row, name, column.quantity, number, unit, **where))
    return claims


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each mode."""
    claims: list[Claim] = []
    seen: dict[Hashable, int] = {}
    for row in numbers:
        mode = mode_number(reader, row)
        if mode is None:
            continue
        if reader.repeats(seen, mode, row, "mode", f"mode {mode}"):
            continue
        claims += claims_of_mode(reader, row, mode)
    _ask_about_order(reader, claims)
    return Rows(claims)


def _ask_about_order(reader: ClaimReader, claims: list[Claim]) -> None:
    """Periods that grow from mode to mode are most likely frequencies, and the other way round."""
    for name, other, grows in (("T_mode", "f_mode", True), ("f_mode", "T_mode", False)):
        values = [float(c.value) for c in claims if c.quantity == name]
        steps = [(b > a) if grows else (b < a) for a, b in pairwise(values)]
        if len(values) < 3 or not all(steps) or other in reader.columns or name in reader.given.confirmed:
            continue
        what, like = ("periods grow", "frequencies do") if grows else ("frequencies fall", "periods do")
        others = {n: i for n, i in reader.columns.items() if n != name}
        choices: list[tuple[str, Mapping[str, Any]]] = [
            (f"they are {like.split()[0]}", {"columns": others | {other: reader.columns[name]}}),
            ("use the values as they are", {"confirmed": [*reader.given.confirmed, name]}),
        ]
        words = f"the {what} from mode to mode, as {like}"
        reader.problem(reader.header, reader.columns[name], words, "Choose what they are.", choices=choices)


KIND = TableKind(
    "modes",
    "modes",
    (
        MODE,
        Column("T_mode", "period", r"(modal)?period|t|tn|modeperiod", "s", False, "T_mode", positive=True),
        Column(
            "f_mode",
            "frequency",
            r"(modal|natural)?frequency|f|fn|omega|frequencyomega",
            "Hz",
            False,
            "f_mode",
            positive=True,
        ),
        Column("mass_ratio_X", "share of the mass in X", rf"{_SHARE}(in|along)?u?x", "", False, "mass_ratio"),
        Column("mass_ratio_Y", "share of the mass in Y", rf"{_SHARE}(in|along)?u?y", "", False, "mass_ratio"),
        Column(
            "mass_ratio_RZ",
            "share of the inertia about Z",
            rf"{_SHARE}(about|in)?(rz|rotationz|rotation|torsion)",
            "",
            False,
            "mass_ratio_RZ",
        ),
        Column("mass_running_X", "running sum in X", _running("x"), "", False, "mass_running"),
        Column("mass_running_Y", "running sum in Y", _running("y"), "", False, "mass_running"),
        Column("mass_running_RZ", "running sum about Z", _running("rz"), "", False, "mass_running_RZ"),
    ),
    rows,
    rank=50,
    values="values",
)
