"""The corpus in `tables/`.

Every table is read whole or asks what must be asked, and none is read wrongly without a word.
"""

from __future__ import annotations

import json
import re
from collections import Counter
from functools import cache
from pathlib import Path
from typing import Any

import pytest
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.editions import EDITIONS
from plumb_core.intake.layout.tables import arranged
from plumb_core.intake.sheets import read_file
from plumb_core.intake.submission import EarlierTables, SubmissionRead, read_answers, read_in, read_submission
from plumb_core.intake.tables.kind import Building
from timing import process_seconds

FOLDER = Path(__file__).parent / "tables"
TABLES = sorted(p for p in FOLDER.iterdir() if not p.name.endswith(".truth.json"))
HEIGHTS = {"L5": 3.4, "L4": 3.4, "L3": 3.6, "L2": 3.6, "L1": 4.2}
WHOLE, ASKED, HELD_UP, WRONG = "whole", "asked rightly", "held up needlessly", "silently wrong"


def take(path: Path, truth: dict[str, Any], answers: dict[str, Any] | None = None) -> SubmissionRead:
    stories = [{"name": n, "height": HEIGHTS[n]} for n in truth["stories"]]
    brief = read(Brief, {"edition": truth["edition"], "stories": stories})
    given: dict[str, Any] = {"cases": truth["cases"]}
    if answers:
        given["tables"] = dict.fromkeys(truth["kind"].split(), answers)
    return read_submission(brief, [(path.name, path.read_bytes())], read_answers(given))


def told(taken: SubmissionRead) -> dict[tuple[Any, ...], Any]:
    return {
        (c.quantity, c.story or "", c.case, c.direction or "", c.point): c.value
        for c in taken.document.submission.claims
    }


def differences(taken: SubmissionRead, truth: dict[str, Any]) -> list[str]:
    """What is read otherwise than it is in the truth: other values, values too many, and values too few."""
    found, due = told(taken), {tuple(v[:-1]): v[-1] for v in truth["values"]}

    def same(a: Any, b: Any) -> bool:
        return a == pytest.approx(b, rel=1e-7, abs=1e-12) if isinstance(b, int | float) else a == b

    wrong = [f"{k}: {found[k]!r} for {due[k]!r}" for k in found.keys() & due.keys() if not same(found[k], due[k])]
    wrong += [f"{k}: {found[k]!r} too many" for k in found.keys() - due.keys()]
    return wrong + [f"{k}: {due[k]!r} dropped" for k in due.keys() - found.keys()]


def questions(taken: SubmissionRead) -> list[str]:
    return [f"{q.path}: {q.message}" for t in taken.tables for q in t.questions]


def marks(taken: SubmissionRead) -> list[str]:
    return [f"{q.path}: {q.message}" for t in taken.tables for q in t.marks]


@cache
def building() -> dict[tuple[Any, ...], list[Any]]:
    """Every value of the building that a table of the corpus states, as printed with its digits."""
    values: dict[tuple[Any, ...], list[Any]] = {}
    for path in FOLDER.glob("*.truth.json"):
        for *place, value in json.loads(path.read_text())["values"]:
            values.setdefault(tuple(place), []).append(value)
    return values


def misread(taken: SubmissionRead) -> list[str]:
    """What is read of a table with questions and is no value of the building."""
    return [
        f"{k}: {v!r}"
        for k, v in told(taken).items()
        if isinstance(v, int | float) and not any(v == pytest.approx(b, rel=1e-3) for b in building().get(k, ()))
    ]


def unexpected(asked: list[str], due: list[str]) -> list[str]:
    """Questions that need not be asked, and those that are due and are not."""
    patterns = [p.replace(": ", ": .*", 1) for p in due]
    needless = [q for q in asked if not any(re.match(p, q) for p in patterns)]
    return needless + [
        f"not asked: {d}" for d, p in zip(due, patterns, strict=True) if not any(re.match(p, q) for q in asked)
    ]


@cache
def judged(name: str) -> tuple[str, list[str]]:
    """How a table is read, and what is wrong with it."""
    path = FOLDER / name
    truth = json.loads((FOLDER / f"{name}.truth.json").read_text())
    taken = take(path, truth)
    asked = questions(taken)
    if truth["asks"]:
        if not asked:
            return WRONG, ["nothing is asked", *differences(taken, truth)[:5]]
        # rows and columns without a question are read
        wrong = misread(taken) or unexpected(asked, truth["asks"])
        if truth["answers"] is not None and not wrong:
            again = take(path, truth, truth["answers"])
            wrong = questions(again) or differences(again, truth)
        return (ASKED if not wrong else HELD_UP), wrong
    differs = differences(taken, truth)
    kinds = [t.kind for t in taken.tables if t.values or t.kind == "cases"]
    if differs or set(kinds) != set(truth["kind"].split()):
        return WRONG, differs or [f"read as {kinds}"]
    needless = unexpected([*asked, *marks(taken)], truth["marks"])
    return (HELD_UP if needless else WHOLE), needless


@pytest.mark.timing
def test_a_hundred_thousand_rows_are_read_in_seconds() -> None:
    names = [f"L{i}" for i in range(1, 51)]
    lines = [
        f"Case {c} {d};{d};{n};{1 + c * 0.001:.3f};{1.1 + c * 0.002:.3f}"
        for d in "XY"
        for c in range(1000)
        for n in names
    ]
    data = "\n".join(["Case;Direction;Story;Drift at end 1 (mm);Drift at end 2 (mm)", *lines]).encode()
    known = EarlierTables(EDITIONS["asce7-16"], Building(names, dict.fromkeys(names, 3.5)))

    def reading() -> None:
        assert len(read_in(arranged(read_file(data, "long.csv"))[0], "long.csv", known).claims) == 200_000

    # about three at full speed; a machine that is slowed unevenly, and is short of memory bandwidth, gets room
    assert process_seconds(reading, 2) < 8.0


@pytest.mark.parametrize("name", [p.name for p in TABLES])
def test_a_table_is_read_whole_or_asks_what_must_be_asked(name: str) -> None:
    verdict, why = judged(name)
    assert verdict in (WHOLE, ASKED), f"{verdict}: {why[:8]}"


def test_the_score_of_the_corpus(capsys: pytest.CaptureFixture[str]) -> None:
    verdicts = {p.name: judged(p.name)[0] for p in TABLES}
    score = Counter(verdicts.values())
    with capsys.disabled():
        print(f"\n{len(TABLES)} tables: " + ", ".join(f"{score[v]} {v}" for v in (WHOLE, ASKED, HELD_UP, WRONG)))
    assert len(TABLES) >= 150
    assert score[WRONG] == 0, [n for n, v in verdicts.items() if v == WRONG]
    assert score[HELD_UP] < 0.05 * len(TABLES), [n for n, v in verdicts.items() if v == HELD_UP]
