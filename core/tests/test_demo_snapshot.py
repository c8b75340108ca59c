"""The four demo reviews come to the same checks as when this was written down, by kind, key and place.

`data/demo/*.plumb.json` are their documents, `checks.json` what the engine before the checkers found in them.  A
change of a rule may change these on purpose; then say in the commit which check and why.  The catalogue adds codes,
words and notes of its own, and the requirements their gaps; both have tests of their own.
"""

from __future__ import annotations

import json
from collections import Counter
from pathlib import Path
from typing import Any

import pytest
from plumb_core.checks.recheck import recheck

DATA = Path(__file__).parent / "data" / "demo"
STORED: dict[str, Any] = json.loads((DATA / "checks.json").read_text())
OF_OTHER_TESTS = ("catalogue", "gap")
Identity = tuple[str, tuple[str, str | None], tuple[Any, ...]]


def stored_of(name: str) -> list[dict[str, Any]]:
    return [c for c in STORED[name]["checks"] if c["kind"] not in OF_OTHER_TESTS]


def found_in(name: str) -> dict[str, Any]:
    return dict(recheck(json.loads((DATA / f"{name}.plumb.json").read_text()), steps=False))


def identity(check: dict[str, Any]) -> Identity:
    """(kind, key, place) of a check of today."""
    place = (check["story"], check["point"], check["case"])
    if check["kind"] == "missing_mode":
        place = (check["id"].rsplit(".", 1)[-1], None, "")
    return check["kind"], (check["quantity"], check["direction"]), place


def stored_identity(check: dict[str, Any]) -> Identity:
    return check["kind"], tuple(check["key"]), tuple(check["place"])


def side(ours: dict[str, Any] | None) -> list[Any] | None:
    return None if ours is None else [ours["value"], ours["deviation"], ours["multiples"]]


def alike(today: list[Any] | None, stored: list[Any] | None) -> bool:
    """Texts the same, numbers to nine digits."""
    if today is None or stored is None:
        return today is stored
    return all(
        a == pytest.approx(b, rel=1e-9) if isinstance(b, float) else a == b for a, b in zip(today, stored, strict=True)
    )


@pytest.mark.parametrize("name", STORED)
def test_the_same_checks_by_kind_key_and_place(name: str) -> None:
    checks = [c for c in found_in(name)["checks"] if c["kind"] not in OF_OTHER_TESTS]
    assert sorted(map(identity, checks), key=str) == sorted(map(stored_identity, stored_of(name)), key=str)


@pytest.mark.parametrize("name", STORED)
def test_the_same_verdicts_numbers_and_origins(name: str) -> None:
    result = found_in(name)
    today = {identity(c): c for c in result["checks"]}
    for stored in stored_of(name):
        check = today[stored_identity(stored)]
        for part in ("id", "label", "verdict", "role", "level", "follows", "rests_on", "used_by", "clause"):
            assert check[part] == stored[part], (check["id"], part)
        assert check["note"].startswith(stored["note"]), check["id"]
        given = check["theirs"]
        assert (given and [given["value"], given["text"], given["unit"]]) == stored["theirs"], check["id"]
        assert (check["limit"] is None) == (stored["limit"] is None), check["id"]
        if check["limit"]:
            assert check["limit"]["value"] == pytest.approx(stored["limit"], rel=1e-12), check["id"]
        for part in ("carried", "independent"):
            assert alike(side(check[part]), stored[part]), (check["id"], part)
    assert result["origins"] == STORED[name]["origins"]
    others = [c for c in result["checks"] if c["kind"] in OF_OTHER_TESTS]
    assert {c["verdict"] for c in others} <= {"note", "question", "gap"}
    of_others = Counter(c["verdict"] for c in others)
    counts = {v: n - of_others[v] for v, n in result["counts"].items() if n - of_others[v]}
    assert counts == Counter(c["verdict"] for c in stored_of(name))
    assert {k: result["coverage"][k] for k in STORED[name]["coverage"]} == STORED[name]["coverage"]
