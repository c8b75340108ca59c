"""The worked examples of CONTRIBUTING.md: added to a copy of the core, and used."""

from __future__ import annotations

import json
import re
import shutil
import textwrap
from pathlib import Path
from typing import Any

import plumb_core
import pytest
from submissions import BRIEF, document, own_claims
from test_rooms import plumb

CORE = Path(plumb_core.__file__).parent
GUIDE = (CORE.parents[1] / "CONTRIBUTING.md").read_text(encoding="utf-8")
BLOCK = re.compile(r"^( *)```python\n(.*?)^ *```$", re.S | re.M)
PLACE = re.compile(r"# core/(?P<file>\S+?\.py)(?:, (?P<side>above|below) (?P<line>.+))?$")


def add(block: str, core: Path) -> str:
    """Put a block where its first line says; returns the file."""
    first, _, body = block.partition("\n")
    place = PLACE.fullmatch(first)
    assert place is not None, first
    path = core / place["file"]
    if place["line"] is None:
        assert not path.exists()
        path.write_text(body, encoding="utf-8")
    else:
        lines = path.read_text(encoding="utf-8").splitlines(keepends=True)
        (at,) = [i for i, line in enumerate(lines) if place["line"] in line]
        lines.insert(at + (place["side"] == "below"), body + ("\n\n" if place["side"] == "above" else ""))
        path.write_text("".join(lines), encoding="utf-8")
    return place["file"]


@pytest.fixture(scope="module")
def core(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A copy of the core with what CONTRIBUTING.md adds."""
    copy = tmp_path_factory.mktemp("core")
    shutil.copytree(CORE, copy / "plumb_core", ignore=shutil.ignore_patterns("__pycache__"))
    added = [add(textwrap.dedent(block), copy) for _, block in BLOCK.findall(GUIDE)]
    assert len(added) == 6
    return copy


def rechecked(core: Path, brief: dict[str, Any], claims: list[dict[str, Any]]) -> dict[str, Any]:
    (core / "document.json").write_text(json.dumps(document(brief, claims)))
    return {c["id"]: c for c in plumb(core, ["recheck", "document.json"])["checks"]}


def test_the_rule_answers(core: Path) -> None:
    stated = {"quantity": "category_number", "value": 3.0, "text": "3"}
    check = rechecked(core, BRIEF, [stated])["category_number"]
    # category D is the fourth
    assert (check["independent"]["value"], check["verdict"], check["clause"]) == (4, "differs", "11.6")


def test_the_checker_asks(core: Path) -> None:
    claims = own_claims(BRIEF)
    assert not [i for i in rechecked(core, BRIEF, claims) if i.startswith("heavy_roof")]
    top = BRIEF["stories"][-1]["name"]
    for claim in claims:
        if claim["quantity"] == "w" and claim["story"] == top:
            claim |= {"value": 99000.0, "text": "99000", "unit": "kN"}
    check = rechecked(core, BRIEF, claims)[f"heavy_roof_w.{top}"]
    assert (check["verdict"], check["kind"]) == ("question", "heavy_roof")
    assert "99000 kN" in check["draft"]


def test_the_table_is_taken_in(core: Path) -> None:
    (core / "brief.json").write_text(json.dumps(BRIEF))
    (core / "periods.csv").write_text("Direction;Period used [s]\nX;0.85\nY;0.92\n")
    claims = plumb(core, ["intake", "brief.json", "periods.csv"])["submission"]["claims"]
    assert [(c["quantity"], c["direction"], c["value"]) for c in claims] == [("T", "X", 0.85), ("T", "Y", 0.92)]
