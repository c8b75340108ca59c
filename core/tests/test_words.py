"""Plain English: phrases that do not come back into texts, documentation and docstrings."""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
PYTHON = [
    *(p for d in ("core/plumb_core", "server/plumb_server", "hazard") for p in sorted((ROOT / d).rglob("*.py"))),
]
WEB = sorted(p for p in (ROOT / "web/src").rglob("*.ts*") if ".test." not in p.name and p.name != "schema.d.ts")
PAGES = [
    *(ROOT / name for name in ("README.md", "CONTRIBUTING.md", "CHANGELOG.md")),
    *sorted((ROOT / "docs").glob("*.md")),
    *sorted((ROOT / "deploy").glob("*.md")),
    *sorted((ROOT / "hazard").glob("*.md")),
    ROOT / "server/plumb_server/reports/templates/reports/report.html",
    ROOT / "server/plumb_server/accounts/templates/accounts/invitation.txt",
]

# what to write instead is in parentheses
PHRASES = [
    r"our own model|model of our own|own model",  # reference model
    r"hand(s|ed|ing)? (it |them |a table )?in\b|hands? in\b",  # submit, upload
    r"asked for|asks for|ask for\b",  # required, requested
    r"accept all that ask|a table asks|what is asked\b",  # has questions
    r"it stands\b|doesn't stand|does not stand|can't stand|cannot stand",  # is stable
    r"held against|hold against|holds against|held to (its|the|a)\b",  # compared with, checked against
    r"theirs would lead|lead elsewhere",  # affected upstream by
    r"based on what\?|format not taken|\bnot now\b",  # the standard reason phrases
    r"modes together|what the frame counts",  # modal combination, modelling options
    r"whoever knows|comes in by|comes in\b",  # sign in
    r"keys for scripts",  # API keys
    r"at the door",  # on the sign-in page
    r"lies under|lie under|stands under|stand under",  # is on the page
    r"takes? (it|them|this|these|a table) (in|out)\b|take out\b|taken in\b|taken out\b",  # accept, remove
    r"\bmend\b|\bmended\b",  # correct
    r"left out\b|leave (it )?out\b|leaves out\b",  # exclude
    r"is no number|is no direction|is no unit|is no kind|is no site",  # is not a
    r"looked at\b|to be seen\b",  # assessed, shown
    r"what (it|they) lacks?\b|what is lacking",  # missing inputs
    r"nobody can read but by eye|for good\b",
]
NAMES = ("told", "meanwhile", "onTop", "ELSEWHERE", "SAID_AGAIN", "HANDS_IN", "BESIDE", "TOLD", "KEPT", "HELD")


def texts_of(path: Path) -> Iterator[tuple[int, str]]:
    """Strings and docstrings of a Python module, with their lines."""
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Constant) and isinstance(node.value, str):
            yield node.lineno, node.value


def found_in(text: str) -> list[str]:
    """Phrases of the list in a text."""
    return [m.group(0) for p in PHRASES if (m := re.search(p, text, re.IGNORECASE))]


def test_strings_and_docstrings() -> None:
    wrong = [
        f"{path.relative_to(ROOT)}:{line}: {phrase}"
        for path in PYTHON
        if "migrations" not in path.parts
        for line, text in texts_of(path)
        if " " in text
        for phrase in found_in(text)
    ]
    assert wrong == []


@pytest.mark.parametrize("path", PAGES, ids=lambda p: p.name)
def test_pages(path: Path) -> None:
    lines = path.read_text(encoding="utf-8").splitlines()
    assert [f"{n}: {p}" for n, line in enumerate(lines, 1) for p in found_in(line)] == []


def test_the_interface() -> None:
    wrong = [
        f"{path.relative_to(ROOT)}:{n}: {phrase}"
        for path in WEB
        for n, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1)
        if " " in line.strip()
        for phrase in found_in(line)
    ]
    assert wrong == []


def test_names_are_nouns_and_verb_phrases() -> None:
    wrong = []
    for path in PYTHON:
        tree = ast.parse(path.read_text(encoding="utf-8"))
        used = {n.id for n in ast.walk(tree) if isinstance(n, ast.Name)}
        used |= {n.name for n in ast.walk(tree) if isinstance(n, ast.FunctionDef | ast.ClassDef)}
        wrong += [f"{path.relative_to(ROOT)}: {name}" for name in NAMES if name in used]
    assert wrong == []


def test_the_readme_is_short() -> None:
    assert len((ROOT / "README.md").read_text(encoding="utf-8").splitlines()) < 150


def test_the_list_finds_what_it_lists() -> None:
    assert found_in("It doesn't stand yet; what stops it is listed below") == ["doesn't stand"]
    assert found_in("Accept all that ask nothing") == ["Accept all that ask"]
    assert found_in("The model is stable: 12 degrees of freedom") == []
