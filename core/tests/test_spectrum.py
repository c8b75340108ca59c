"""Design spectrum of ASCE/SEI 7-16, 11.4.6."""

from __future__ import annotations

import itertools
from typing import Any

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from plumb_core.solve import solve

# class B without measured velocity: S_DS = 2/3 x 1.5 = 1.0 g, S_D1 = 2/3 x 0.6 = 0.4 g, T_S = 0.4 s, T_0 = 0.08 s
SITE = {"S_S": 1.5, "S_1": 0.6, "T_L": 6.0, "site_class": "B", "velocity_measured": False}


def ordinates(T: list[float], site: dict[str, Any] | None = None, R: float = 5.0) -> dict[str, Any]:
    return solve(
        {
            "kind": "spectrum",
            "edition": "asce7-16",
            "site": site or SITE,
            "occupancy": {"risk_category": "IV"},
            "system": {"X": {"R": R}},
            "direction": "X",
            "T": T,
        }
    )


@pytest.mark.parametrize(
    ("T", "expected"),
    [
        (0.0, 0.4),  # 0.4 S_DS
        (0.04, 0.7),  # 0.4 + 0.6 x 0.5
        (0.08, 1.0),
        (0.3, 1.0),
        (0.4, 1.0),
        (0.8, 0.5),  # 0.4/0.8
        (6.0, 0.4 / 6.0),
        (8.0, 0.0375),  # 0.4 x 6/64
    ],
)
def test_ordinates_by_hand(T: float, expected: float) -> None:
    result = ordinates([T])
    assert result["elastic"][0] == pytest.approx(expected, rel=1e-12)
    # category IV: I_e = 1.5, R = 5
    assert result["reduced"][0] == pytest.approx(expected * 1.5 / 5.0, rel=1e-12)


sites = st.fixed_dictionaries(
    {
        "S_S": st.floats(0.05, 3.0),
        "S_1": st.floats(0.02, 1.2),
        "T_L": st.sampled_from([4.0, 6.0, 8.0, 12.0, 16.0]),
        "site_class": st.sampled_from("ABCDE"),
    }
)


@settings(deadline=None)
@given(sites)
def test_the_curve_is_continuous_at_its_corners_and_falls_beyond_t_s(site: dict[str, Any]) -> None:
    ground = solve({"kind": "ground", "edition": "asce7-16", "site": site, "occupancy": {"risk_category": "II"}})
    # a T_L below T_S has no meaning on a map; the code's branches would leave a step there
    assume(ground["T_S"] < site["T_L"])
    for corner in (ground["T_0"], ground["T_S"], site["T_L"]):
        below, at, above = ordinates([corner * (1 - 1e-9), corner, corner * (1 + 1e-9)], site)["elastic"]
        assert below == pytest.approx(at, rel=1e-7)
        assert above == pytest.approx(at, rel=1e-7)
    beyond = ordinates([ground["T_S"] * f for f in (1.0, 1.5, 3.0, 10.0, 40.0)], site)["elastic"]
    assert all(a > b for a, b in itertools.pairwise(beyond))


@given(sites, st.floats(1.0, 8.0), st.lists(st.floats(0.0, 20.0), min_size=1, max_size=5))
def test_reduction_is_the_same_factor_everywhere(site: dict[str, Any], R: float, T: list[float]) -> None:
    result = ordinates(T, site, R)
    for elastic, reduced in zip(result["elastic"], result["reduced"], strict=True):
        assert reduced * R / 1.5 == pytest.approx(elastic, rel=1e-12)


def test_without_a_system_there_is_no_reduced_curve() -> None:
    request = {
        "kind": "spectrum",
        "edition": "asce7-16",
        "site": SITE,
        "occupancy": {"risk_category": "IV"},
        "T": [0.3],
    }
    result = solve(request)
    assert (result["elastic"], result["reduced"]) == ([pytest.approx(1.0)], None)


@pytest.mark.parametrize(
    ("site_class", "columns"),
    [
        # S_S 0.2, 0.3, 0.6, 1.0, 2.0
        ("A", [0.7, 0.8, 0.9, 0.9, 0.9]),
        ("B", [0.7, 0.8, 0.9, 0.9, 0.9]),
        ("C", [0.7, 0.8, 1.0, 1.1, 1.3]),
        ("D", [0.7, 0.9, 1.1, 1.3, 1.5]),
        ("E", [0.7, 0.9, 1.1, 1.3, 1.5]),
    ],
)
def test_vertical_spectrum_of_7_16(site_class: str, columns: list[float]) -> None:
    """S_av = 2/3 S_aMv: 0.3 C_v S_MS up to 0.025 s, half way up at 0.0375 s, 0.8 C_v S_MS up to 0.15 s.

    Then (0.15/T)^0.75.

    F_a is given as 1.0, so that S_MS = S_S; S_1 is small, so that half of the horizontal ordinate does not govern at
    1 s.
    """
    for S_S, C_v in zip([0.2, 0.3, 0.6, 1.0, 2.0], columns, strict=True):
        site = {"S_S": S_S, "S_1": 0.05, "T_L": 6.0, "site_class": site_class, "F_a": 1.0}
        request = {
            "kind": "spectrum",
            "edition": "asce7-16",
            "site": site,
            "occupancy": {"risk_category": "II"},
            "T": [0.0, 0.025, 0.0375, 0.05, 0.15, 0.6],
        }
        found = solve(request)["vertical"]
        plateau = 0.8 * C_v * S_S
        expected = [0.3 * C_v * S_S, 0.3 * C_v * S_S, 0.55 * C_v * S_S, plateau, plateau, plateau * 0.25**0.75]
        # half of S_aM: S_MS/2 on its plateau, which starts at T_0 and governs there where C_v is small
        horizontal = [1.5 * s for s in solve(request)["elastic"]]
        assert found == pytest.approx([2 / 3 * max(e, 0.5 * h) for e, h in zip(expected, horizontal, strict=True)])


def test_half_of_the_horizontal_ordinate_is_the_least_vertical_one() -> None:
    # class D with S_1 = 0.6: at 2 s the horizontal S_aM = 1.7 x 0.6 x 1.5/2 = 0.765, half of it 0.3825; 0.8 x 1.3 x
    # 1.0 x 0.0748 is less
    site = {"S_S": 1.0, "S_1": 0.6, "T_L": 8.0, "site_class": "D", "F_a": 1.0}
    request = {
        "kind": "spectrum",
        "edition": "asce7-16",
        "site": site,
        "occupancy": {"risk_category": "II"},
        "T": [2.0],
    }
    assert solve(request)["vertical"] == pytest.approx([2 / 3 * 0.3825])
