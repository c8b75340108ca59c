"""The four demo reviews come to the same checks as when this was written down, by kind, key and place.

`data/demo/*.plumb.json` are their documents, `checks.json` what the engine before the checkers found in them.  A
change of a rule may change these on purpose; then say in the commit which check and why.  The catalogue adds codes,
words and notes of its own, which have tests of their own.
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
Identity = tuple[str, tuple[str, str | None], tuple[Any, ...]]


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
    checks = [c for c in found_in(name)["checks"] if c["kind"] != "catalogue"]
    assert sorted(map(identity, checks), key=str) == sorted(map(stored_identity, STORED[name]["checks"]), key=str)


@pytest.mark.parametrize("name", STORED)
def test_the_same_verdicts_numbers_and_origins(name: str) -> None:
    result = found_in(name)
    today = {identity(c): c for c in result["checks"]}
    for stored in STORED[name]["checks"]:
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
    of_catalogue = Counter(c["verdict"] for c in result["checks"] if c["kind"] == "catalogue")
    assert set(of_catalogue) <= {"note", "question"}
    counts = {v: n - of_catalogue[v] for v, n in result["counts"].items() if n - of_catalogue[v]}
    assert counts == {v: n for v, n in STORED[name]["counts"].items() if n}
    assert {k: result["coverage"][k] for k in STORED[name]["coverage"]} == STORED[name]["coverage"]
