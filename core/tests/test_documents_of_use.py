"""Every request that is in docs/contract.md is one that the core answers."""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

import pytest
from plumb_core.documents.requests import KINDS
from plumb_core.solve import solve

PAGE = (Path(__file__).parents[2] / "docs" / "contract.md").read_text(encoding="utf-8")
REQUESTS = [json.loads(block) for block in re.findall(r"```json\n(.*?)```", PAGE, re.S)]


@pytest.mark.parametrize("request_", REQUESTS, ids=[f"{r['kind']} {r.get('edition', '')}" for r in REQUESTS])
def test_the_examples_are_answered(request_: dict[str, Any]) -> None:
    answer = solve(request_)
    assert answer["kind"] == request_["kind"]


def test_every_kind_is_told_of() -> None:
    assert [kind for kind in KINDS if f"`{kind}`" not in PAGE] == []


def test_values_that_the_page_was_written_for() -> None:
    """Site class D by default at S_S 1.5, S_1 0.6: F_a 1.2 by the floor, F_v 1.7, S_M1 raised by 1.5 (Supplement 3)."""
    ground = solve(REQUESTS[0])
    assert (ground["F_a"], ground["F_v"]) == (1.2, 1.7)
    assert ground["S_DS"] == pytest.approx(1.2)
    # 2/3 * 1.5 * 1.7 * 0.6
    assert ground["S_D1"] == pytest.approx(1.02)
