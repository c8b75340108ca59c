"""Seismic weights made up of loads."""

from __future__ import annotations

from typing import Any

import pytest
from plumb_core.errors import InputRefused
from plumb_core.solve import solve


def test_negative_loads_keep_their_sign_and_a_net_negative_story_is_refused() -> None:
    ask: dict[str, Any] = {
        "kind": "weight",
        "edition": "asce7-16",
        "stories": [
            {
                "name": "L1",
                "height": 3.0,
                "loads": [{"kind": "dead", "amount": 500.0}, {"kind": "dead", "name": "opening", "amount": -80.0}],
            }
        ],
    }
    answer = solve(ask)
    assert answer["W"] == pytest.approx(420.0)
    assert [x["counted"] for x in answer["stories"][0]["loads"]] == [500.0, -80.0]
    ask["stories"][0]["loads"][1]["amount"] = -600.0
    with pytest.raises(InputRefused) as refused:
        solve(ask)
    assert "-100 kN" in refused.value.problems[0].message


@pytest.mark.parametrize("amounts", [[500.0], [500.0, 120.0], [80.0, 500.0, 7.5]])
def test_dead_loads_add_up_in_any_order(amounts: list[float]) -> None:
    def weight(loads: list[float]) -> float:
        story = {"name": "L1", "height": 3.0, "loads": [{"kind": "dead", "amount": a} for a in loads]}
        return float(solve({"kind": "weight", "edition": "asce7-16", "stories": [story]})["W"])

    assert weight(amounts) == pytest.approx(sum(amounts)) == pytest.approx(weight(amounts[::-1]))
