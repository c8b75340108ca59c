"""What the rooms of the core promise: an edition is a folder, and what an edition says stands nowhere else."""

from __future__ import annotations

import ast
import json
import os
import re
import shutil
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import plumb_core
import pytest
from plumb_core.editions import EDITIONS
from submissions import BRIEF, document

CORE = Path(plumb_core.__file__).parent
ROOT = CORE.parents[1]
NEW = Path(__file__).parent / "data" / "hesper_2031"


@pytest.fixture(scope="module")
def core_with_new_edition(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A copy of the core in which one folder was added."""
    beside = tmp_path_factory.mktemp("core")
    shutil.copytree(CORE, beside / "plumb_core", ignore=shutil.ignore_patterns("__pycache__"))
    shutil.copytree(NEW, beside / "plumb_core" / "editions" / "hesper_2031")
    return beside


def plumb(core: Path, command: list[str], given: Any = None) -> Any:
    """What `plumb` of that core answers."""
    ran = subprocess.run(
        [sys.executable, "-c", "import sys; from plumb_core.cli import main; sys.exit(main())", *command],
        input=None if given is None else json.dumps(given),
        env=os.environ | {"PYTHONPATH": str(core)},
        cwd=core,
        capture_output=True,
        text=True,
        check=False,
    )
    assert ran.returncode == 0, ran.stderr
    return json.loads(ran.stdout)


STORIES = [{"name": "L1", "height": 4.0, "weight": 1000.0}, {"name": "L2", "height": 4.0, "weight": 500.0}]
SYSTEM = {"X": {"R": 4.0}, "Y": {"R": 4.0}}


def test_a_new_folder_is_a_new_edition(core_with_new_edition: Path) -> None:
    listed = {e["id"]: e for e in plumb(core_with_new_edition, ["editions"])}
    assert listed.keys() == {*EDITIONS, "hesper-2031"}
    new = listed["hesper-2031"]
    assert (new["title"], new["short"]) == ("Building Rules of the Hesper Isles 2031", "Hesper 2031")
    assert {i["name"]: i["options"] for i in new["inputs"]} == {"zone": ["coast", "ridge"], "R": []}
    assert new["choices"] == [{"name": "amendments", "words": "Circulars that hold", "sets": [[], [4]], "standing": []}]


def test_a_new_folder_is_solved(core_with_new_edition: Path) -> None:
    request = {
        "kind": "static",
        "edition": "hesper-2031",
        "site": {"zone": "ridge", "amendments": [4]},
        "occupancy": {},
        "system": SYSTEM,
        "stories": STORIES,
    }
    answer = plumb(core_with_new_edition, ["solve", "-"], request)
    # by hand: T = 0.05 x 8^0.75 = 0.2378 s, on the plateau: V = 2.5 x 0.20 / 4 x 1500 = 187.5 kN; moments 4000 and 4000
    assert answer["X"]["V"] == pytest.approx(187.5)
    assert answer["X"]["F"] == pytest.approx([93.75, 93.75])
    assert answer["X"]["T"] == pytest.approx(0.2378, abs=5e-5)


def test_a_new_folder_stands_across(core_with_new_edition: Path) -> None:
    brief = BRIEF | {
        "comparison_editions": ["hesper-2031"],
        "comparisons": {"hesper-2031": {"site": {"zone": "coast"}, "system": SYSTEM}},
    }
    path = core_with_new_edition / "document.json"
    path.write_text(json.dumps(document(brief, [])))
    answer = plumb(core_with_new_edition, ["across", str(path)])
    assert [e["short"] for e in answer["editions"]] == ["ASCE 7-16", "Hesper 2031"]
    shear = next(r for r in answer["rows"] if r["id"] == "base_shear")
    weight, height = sum(s["weight"] for s in BRIEF["stories"]), sum(s["height"] for s in BRIEF["stories"])
    period = 0.05 * height**0.75
    (cell,) = [c for c in shear["cells"] if c["edition"] == "hesper-2031"]
    assert cell["X"]["value"] == pytest.approx(2.5 * 0.10 * min(1, 0.5 / period) / 4.0 * weight)


def test_a_new_folders_names_are_read_in_tables(core_with_new_edition: Path) -> None:
    (core_with_new_edition / "brief.json").write_text(
        json.dumps({"edition": "hesper-2031", "site": {"zone": "coast"}, "system": SYSTEM, "stories": STORIES})
    )
    (core_with_new_edition / "p.csv").write_text("Quantity;Value\nIsles zone factor;0.1\n")
    made = plumb(core_with_new_edition, ["intake", "brief.json", "p.csv"])
    assert [(c["quantity"], c["value"]) for c in made["submission"]["claims"]] == [("Z", 0.1)]


# What editions say is in their folders


def said_by_editions() -> set[str]:
    """Ids, titles, words and clauses of the editions, and what they call their systems."""
    words: set[str] = set()
    for held in EDITIONS.values():
        if held.id == "custom":
            continue
        words |= {
            held.id,
            held.title,
            held.short,
            *held.permissions.values(),
            *(c.words for c in held.choices.values()),
        }
        # a kind of element has the name of a system
        words |= {name for name in held.systems if "_" in name and name != "cantilever_column"}
        words |= {s.title for s in held.systems.values()}
        words |= {r.clause for r in held.rules({}).values() if re.search(r"\d", r.clause) and len(r.clause) >= 5}
        words |= {*held.forces_by_weight, *held.formulas, *(p for p in held.period_types if "_" in p)}
        words |= {w for of_input in held.words.values() for w in of_input.values()}
    return words


def strings(path: Path) -> Iterator[tuple[int, str]]:
    """Texts of a module that are not docstrings, with their lines."""
    tree = ast.parse(path.read_text(encoding="utf-8"))
    loose = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in loose:
            yield node.lineno, node.value


def pattern(words: set[str]) -> re.Pattern[str]:
    """Finds a word inside a longer text; the short ones would be found everywhere."""
    return re.compile("|".join(rf"\b{re.escape(w)}\b" for w in sorted(words) if len(w) >= 6))


def edition_words_in(path: Path, words: set[str], inside: re.Pattern[str]) -> list[str]:
    """Where a module says what an edition says: as a whole text, or a longer one inside it."""
    return [
        f"{path.relative_to(ROOT)}:{line}: {text!r}"
        for line, text in strings(path)
        if text in words or inside.search(text)
    ]


def test_no_file_outside_editions_holds_an_editions_word() -> None:
    words = said_by_editions()
    assert len(words) > 300
    # demo data is written in the terms of its editions; migrations are history
    apart = ("editions", "demo", "migrations")
    files = [
        f
        for room in (CORE, ROOT / "server" / "plumb_server")
        for f in room.rglob("*.py")
        if not {*apart} & {*f.relative_to(room).parts}
    ]
    assert len(files) > 150
    inside = pattern(words)
    assert [place for f in files for place in edition_words_in(f, words, inside)] == []


def test_an_editions_word_would_be_found() -> None:
    module = CORE / "editions" / "ubc97" / "__init__.py"
    assert any(
        "'ubc97'" in place for place in edition_words_in(module, said_by_editions(), pattern(said_by_editions()))
    )


def test_no_screen_holds_an_editions_word() -> None:
    inside = pattern(said_by_editions())
    sources = [
        f
        for f in (ROOT / "web" / "src").rglob("*.ts*")
        if ".test." not in f.name and f.name not in ("schema.d.ts", "testing.tsx")
    ]
    assert len(sources) > 80
    found = [(f.name, m.group()) for f in sources for m in inside.finditer(f.read_text(encoding="utf-8"))]
    assert found == []
