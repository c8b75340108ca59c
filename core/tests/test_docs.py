"""The guides name files, tests and links that exist."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[2]
GUIDES = sorted([*ROOT.glob("*.md"), *ROOT.glob("docs/*.md"), *ROOT.glob("*/README.md")])
TESTS = [*ROOT.glob("core/tests/**/*.py"), *ROOT.glob("server/tests/**/*.py")]
NAMED_TESTS = {name for path in TESTS for name in re.findall(r"^def (test_\w+)", path.read_text(), re.MULTILINE)}


def text_of(guide: Path) -> str:
    """Text of a guide without its blocks of code."""
    return re.sub(r"```.*?```", "", guide.read_text(), flags=re.DOTALL)


@pytest.mark.parametrize("guide", GUIDES, ids=lambda p: str(p.relative_to(ROOT)))
def test_links_lead_to_files(guide: Path) -> None:
    for target in re.findall(r"\]\(([^)#]+)(?:#[^)]*)?\)", text_of(guide)):
        if "://" not in target:
            assert (guide.parent / target).exists(), f"{guide.name} links to {target}"


@pytest.mark.parametrize("guide", GUIDES, ids=lambda p: str(p.relative_to(ROOT)))
def test_named_tests_exist(guide: Path) -> None:
    for name in re.findall(r"`((?:[\w/]+/)?test_\w+(?:\.py)?)`", text_of(guide)):
        if name.endswith(".py"):
            assert any(path.as_posix().endswith("/" + name) for path in TESTS), f"{guide.name} names {name}"
        else:
            assert name in NAMED_TESTS, f"{guide.name} names {name}"


def test_each_guarantee_names_a_test() -> None:
    table = (ROOT / "docs/using.md").read_text().split("## What is guaranteed, and the tests")[1]
    rows = [line for line in table.splitlines() if line.startswith("| ")][1:]
    assert len(rows) >= 10
    assert all("tests/" in row.split("|")[2] for row in rows)
