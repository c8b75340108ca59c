"""Comparisons with limits, and verdicts exactly at them."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from plumb_core.limits import below, exceeds, reaches, within
from plumb_core.solve import solve

numbers = st.floats(-1e6, 1e6, allow_nan=False)


@given(numbers, numbers)
def test_a_value_is_on_one_side_of_a_limit_and_never_on_both(value: float, limit: float) -> None:
    assert exceeds(value, limit) is not within(value, limit)
    assert below(value, limit) is not reaches(value, limit)
    assert not (exceeds(value, limit) and below(value, limit))


@given(st.floats(1e-6, 1e6), st.integers(1, 1000))
def test_what_rounding_moves_stays_at_the_limit(limit: float, parts: int) -> None:
    # a limit that is divided and put together again may be off by a few units of the last binary place
    moved = sum([limit / parts] * parts)
    assert within(moved, limit)
    assert reaches(moved, limit)
    assert exceeds(limit * 1.0001, limit)
    assert below(limit * 0.9999, limit)


@pytest.mark.parametrize(
    ("ends", "expected"),
    [
        # 0.0126/0.0105 = 1.2 and 0.0147/0.0105 = 1.4 exactly; as binary fractions both come out a little above
        ([0.0084, 0.0126], "regular"),
        ([0.0063, 0.0147], "torsional"),
        ([0.0084, 0.01261], "torsional"),
        ([0.0063, 0.01471], "extreme"),
    ],
)
@pytest.mark.parametrize("edition", ["asce7-05", "asce7-10", "asce7-16", "asce7-22"])
def test_torsion_at_its_limits_does_not_hang_on_rounding(edition: str, ends: list[float], expected: str) -> None:
    request = {"kind": "torsion", "edition": edition, "rows": [{"story": "L1", "ends": ends}]}
    assert solve(request)["rows"][0]["class"] == expected


@pytest.mark.parametrize(("used", "ok"), [(1.3793, True), (1.37931, True), (1.379, False), (1.38, True)])
def test_a_factor_printed_to_four_digits_is_enough(used: float, ok: bool) -> None:
    # 7-16: 4000/2900 = 1.379310...
    shears = {"static": 4000.0, "dynamic": 2900.0, "factor_used": used}
    assert solve({"kind": "scaling", "edition": "asce7-16", "X": shears})["X"]["ok"] is ok


@pytest.mark.parametrize(("height", "count", "permitted"), [(48.8, 1, True), (48.85, 1, False)])
def test_heights_as_printed_in_metres_are_inside(height: float, count: int, permitted: bool) -> None:
    # special concrete walls in category D: 160 ft = 48.768 m, printed as 48.8 m
    request = {
        "kind": "system",
        "edition": "asce7-16",
        "site": {"S_S": 1.5, "S_1": 0.5, "T_L": 8.0, "site_class": "C"},
        "occupancy": {"risk_category": "II"},
        "stories": [{"name": "L1", "height": height / count}],
        "system": {"X": {"lateral_system": "B_special_RC_SW"}},
    }
    assert solve(request)["X"]["system_permission"].startswith("permitted") is permitted


@pytest.mark.parametrize(
    ("formula", "count", "height", "inside"),
    [("12.8-8", 4, 3.0, True), ("12.8-8", 4, 2.99, False), ("12.8-9", 12, 3.05, True), ("12.8-9", 12, 3.06, False)],
)
def test_period_formulas_take_the_printed_metres(formula: str, count: int, height: float, inside: bool) -> None:
    # 10 ft printed as 3 m; 120 ft = 36.576 m printed as 36.6 m (12 x 3.05)
    own = {"period_type": "rc_mrf", "R": 8.0, "T_a_formula": formula, "walls": [{"A_i": 2.0, "D_i": 8.0}]}
    request = {
        "kind": "static",
        "edition": "asce7-16",
        "site": {"S_S": 1.5, "S_1": 0.5, "T_L": 8.0, "site_class": "C"},
        "occupancy": {"risk_category": "II"},
        "system": {"X": own, "A_B": 800.0},
        "stories": [{"name": f"L{i}", "height": height, "weight": 1000.0} for i in range(count)],
    }
    try:
        solve(request)
    except ValueError:
        assert not inside
    else:
        assert inside


def test_frequencies_within_fifteen_percent_are_those_of_frequencies() -> None:
    # AS 1170.4 7.4.4: f ratio 1.16 is apart though the periods differ by 13.8 % only; 1.15 itself is within
    def combination(ratio: float) -> str:
        request = {"kind": "modes", "edition": "as1170.4", "T": [1.0, 1.0 / ratio], "mass_share": {"X": [0.5, 0.5]}}
        return str(solve(request)["combination"])

    assert (combination(1.15), combination(1.16)) == ("CQC", "SRSS or CQC")
