"""EN 1998-1:2004, worked by hand with the recommended values."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from asking import ground, spectrum, static, stories
from plumb_core.errors import InputRefused

# Tables 3.2 and 3.3, column by column for ground types A to E
TYPE_1 = {
    "S": [1.0, 1.2, 1.15, 1.35, 1.4],
    "T_B": [0.15, 0.15, 0.2, 0.2, 0.15],
    "T_C": [0.4, 0.5, 0.6, 0.8, 0.5],
    "T_D": [2.0] * 5,
}
TYPE_2 = {
    "S": [1.0, 1.35, 1.5, 1.8, 1.6],
    "T_B": [0.05, 0.05, 0.1, 0.1, 0.05],
    "T_C": [0.25, 0.25, 0.25, 0.3, 0.25],
    "T_D": [1.2] * 5,
}
ORDINARY = {"importance_class": "II"}


def site(ground_type: str = "C", **more: Any) -> dict[str, Any]:
    return {"a_gR": 0.25, "ground_type": ground_type, "spectrum_type": 1} | more


@pytest.mark.parametrize(("kind", "columns"), [(1, TYPE_1), (2, TYPE_2)])
def test_tables_3_2_and_3_3(kind: int, columns: dict[str, list[float]]) -> None:
    for place, name in enumerate("ABCDE"):
        found = ground("en1998-1", site(name, spectrum_type=kind), ORDINARY)
        assert {n: found[n] for n in columns} == {n: column[place] for n, column in columns.items()}


@pytest.mark.parametrize(("importance", "gamma"), [("I", 0.8), ("II", 1.0), ("III", 1.2), ("IV", 1.4)])
def test_importance_enters_the_ground_acceleration(importance: str, gamma: float) -> None:
    found = ground("en1998-1", site(), {"importance_class": importance})
    assert (found["gamma_I"], found["a_g"]) == (gamma, pytest.approx(0.25 * gamma))


@pytest.mark.parametrize("kind", ["S1", "S2"])
def test_special_ground_needs_its_study(kind: str) -> None:
    with pytest.raises(InputRefused) as refused:
        ground("en1998-1", site(kind), ORDINARY)
    assert refused.value.problems[0].path == "/site/ground_type"
    assert "special study" in refused.value.problems[0].message
    found = ground("en1998-1", site(kind, S=1.6, T_B=0.2, T_C=1.0, T_D=2.5), ORDINARY)
    assert found["S"] == 1.6


def test_national_values_replace_the_recommended_ones() -> None:
    found = spectrum("en1998-1", site(S=1.3, T_C=0.7, beta=0.3), ORDINARY, [0.7, 1.4, 3.9], {"q": 5.0})
    # S_d at 0.7: 0.25 x 1.3 x 2.5/5 = 0.1625; at 1.4 half of it; then beta a_g = 0.075
    assert found["reduced"] == pytest.approx([0.1625, 0.08125, 0.075])


def test_design_and_elastic_spectrum_on_ground_c() -> None:
    """a_g S = 0.25 x 1.15 = 0.2875 g; q = 3.9; T_B 0.2, T_C 0.6, T_D 2.0.

    S_d(0) = 2/3 x 0.2875 = 0.191667; S_d(0.4) = 0.2875 x 2.5/3.9 = 0.184295; S_d(0.1) lies half way: 0.187981;
    S_d(1.0) = 0.184295 x 0.6 = 0.110577; S_d(2.0) = 0.184295 x 0.3 = 0.055288; S_d(2.5) = 0.035385, so 0.2 a_g = 0.05.
    S_e(0.4) = 0.71875; S_e(1.0) = 0.43125; S_e(2.5) = 0.71875 x 0.6 x 2.0/6.25 = 0.138.
    """
    found = spectrum("en1998-1", site(), ORDINARY, [0.0, 0.1, 0.4, 1.0, 2.0, 2.5], {"q": 3.9})
    assert found["reduced"] == pytest.approx([0.191667, 0.187981, 0.184295, 0.110577, 0.055288, 0.05], abs=1e-6)
    assert [found["elastic"][i] for i in (0, 2, 3, 5)] == pytest.approx([0.2875, 0.71875, 0.43125, 0.138])


@pytest.mark.parametrize(
    ("damping", "eta"), [(0.02, 1.19523), (0.05, 1.0), (0.10, 0.81650), (0.2806, 0.55), (0.4, 0.55)]
)
def test_damping_correction(damping: float, eta: float) -> None:
    found = spectrum("en1998-1", site(), ORDINARY, [0.0, 0.4], damping=damping)
    assert found["damped"][1] == pytest.approx(0.71875 * eta, rel=1e-4)
    assert found["damped"][0] == pytest.approx(0.2875)
    assert found["elastic"][1] == pytest.approx(0.71875)


def test_vertical_spectrum_has_no_soil_factor() -> None:
    # type 1: a_vg = 0.9 x 0.25; plateau 3.0 x 0.225 = 0.675; at 0.5 s 0.675 x 0.15/0.5; at 2 s 0.675 x 0.15 x 1.0/4
    found = spectrum("en1998-1", site("D"), ORDINARY, [0.0, 0.1, 0.5, 2.0])
    assert found["vertical"] == pytest.approx([0.225, 0.675, 0.2025, 0.0253125])
    assert spectrum("en1998-1", site("D", spectrum_type=2), ORDINARY, [0.1])["vertical"] == pytest.approx([0.3375])


def test_long_periods_by_annex_a() -> None:
    # type 1, ground C: T_E = 6, T_F = 10. S_De(8) = 0.025 a_g S T_C T_D (2.5 + 0.5 (1 - 2.5)) = d_g x 1.75, S_e =
    # S_De (2 pi/8)^2
    d_g = 0.025 * 0.25 * 1.15 * 0.6 * 2.0
    found = spectrum("en1998-1", site(), ORDINARY, [5.0, 8.0, 12.0])
    assert found["elastic"] == pytest.approx(
        [0.71875 * 0.6 * 2 / 25, 1.75 * d_g * (2 * np.pi / 8) ** 2, d_g * (2 * np.pi / 12) ** 2]
    )


def test_lateral_force_method() -> None:
    """Six stories of 3.333 m (H = 20 m), concrete frames, ground C, q = 3.9.

    T_1 = 0.075 x 20^0.75 = 0.70931 s <= 2 T_C = 1.2 s: lambda = 0.85; S_d = 0.184295 x 0.6/0.70931 = 0.155894 (3.15).
    """
    result = static("en1998-1", site(), ORDINARY, {"q": 3.9, "period_type": "rc_mrf"}, stories(6, height=20 / 6))
    assert result["T_a"] == pytest.approx(0.70931, abs=1e-5)
    assert result["coefficient"] == pytest.approx(0.85 * 0.155894, rel=1e-5)
    assert (result["governed_by"], result["T_limit"]) == ("3.15", None)
    # F by z: 1/21 ... 6/21
    assert result["F"] == pytest.approx([result["V"] * i / 21 for i in range(1, 7)])


@pytest.mark.parametrize(
    ("kind", "C_t"), [("steel_mrf", 0.085), ("rc_mrf", 0.075), ("steel_ebf", 0.075), ("other", 0.05)]
)
def test_approximate_periods(kind: str, C_t: float) -> None:
    result = static("en1998-1", site(), ORDINARY, {"q": 3.0, "period_type": kind}, stories(5, height=4.0))
    assert result["T_a"] == pytest.approx(C_t * 20**0.75)


@pytest.mark.parametrize(("T", "count", "factor"), [(1.2, 3, 0.85), (1.2001, 3, 1.0), (0.5, 2, 1.0), (0.5, 3, 0.85)])
def test_mass_factor(T: float, count: int, factor: float) -> None:
    result = static("en1998-1", site(), ORDINARY, {"q": 1.5, "period_type": "other"}, stories(count), T=T)
    S_d = 0.2875 * 2.5 / 1.5 * min(1.0, 0.6 / T)
    assert result["coefficient"] == pytest.approx(factor * S_d)


@pytest.mark.parametrize(
    ("T", "branch"),
    [(0.1, "3.13"), (0.2, "3.14"), (0.6, "3.14"), (0.7, "3.15"), (2.1, "3.16"), (2.9, "3.16, lower bound")],
)
def test_branch_that_governs(T: float, branch: str) -> None:
    assert (
        static("en1998-1", site(), ORDINARY, {"q": 3.0, "period_type": "other"}, stories(3), T=T)["governed_by"]
        == branch
    )


def test_period_by_walls_and_by_displacement() -> None:
    # H = 20: A_c = 2 x 1.5 (0.2 + 5/20)^2 = 3 x 0.2025; C_t = 0.075/sqrt(0.6075)
    walls = {"T_a_formula": "4.7", "walls": [{"A_i": 1.5, "D_i": 5.0}] * 2}
    base = {"q": 3.0, "period_type": "other"}
    found = static("en1998-1", site(), ORDINARY, base | walls, stories(5, height=4.0))
    assert found["T_a"] == pytest.approx(0.075 / 0.6075**0.5 * 20**0.75)
    shifted = static(
        "en1998-1", site(), ORDINARY, base | {"T_a_formula": "4.9", "d_gravity": 0.09}, stories(5, height=4.0)
    )
    assert shifted["T_a"] == pytest.approx(0.6)


def test_notes_tell_where_the_method_ends() -> None:
    base = {"q": 3.0, "period_type": "other"}
    assert any("40 m" in n for n in static("en1998-1", site(), ORDINARY, base, stories(12))["notes"])
    assert any("4 T_C or 2.0 s" in n for n in static("en1998-1", site(), ORDINARY, base, stories(12), T=2.1)["notes"])
    low = ground("en1998-1", {"a_gR": 0.05, "ground_type": "C", "spectrum_type": 1}, ORDINARY)
    assert any("low" in n for n in low["notes"])
