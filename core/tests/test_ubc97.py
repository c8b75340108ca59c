"""UBC 1997, worked by hand."""

from __future__ import annotations

from typing import Any

import pytest
from asking import ground, spectrum, static, stories
from plumb_core.errors import InputRefused

# Tables 16-Q and 16-R column by column (zones 1, 2A, 2B, 3, 4 before the near-source factor), soils S_A to S_E
C_A_COLUMNS = {
    "1": [0.06, 0.08, 0.09, 0.12, 0.19],
    "2A": [0.12, 0.15, 0.18, 0.22, 0.30],
    "2B": [0.16, 0.20, 0.24, 0.28, 0.34],
    "3": [0.24, 0.30, 0.33, 0.36, 0.36],
    "4": [0.32, 0.40, 0.40, 0.44, 0.36],
}
C_V_COLUMNS = {
    "1": [0.06, 0.08, 0.13, 0.18, 0.26],
    "2A": [0.12, 0.15, 0.25, 0.32, 0.50],
    "2B": [0.16, 0.20, 0.32, 0.40, 0.64],
    "3": [0.24, 0.30, 0.45, 0.54, 0.84],
    "4": [0.32, 0.40, 0.56, 0.64, 0.96],
}
SOILS = ["S_A", "S_B", "S_C", "S_D", "S_E"]
FAR = {"source_type": "C", "source_distance_km": 20.0}
STANDARD = {"I": 1.0}
WALLS = {"period_type": "other", "R": 5.5}


def site(zone: str = "3", soil: str = "S_D", **more: Any) -> dict[str, Any]:
    return {"zone": zone, "soil": soil} | (FAR if zone == "4" else {}) | more


@pytest.mark.parametrize("zone", C_A_COLUMNS)
def test_tables_16_q_and_16_r(zone: str) -> None:
    for soil, C_a, C_v in zip(SOILS, C_A_COLUMNS[zone], C_V_COLUMNS[zone], strict=True):
        found = ground("ubc97", site(zone, soil), STANDARD)
        assert (found["C_a"], found["C_v"]) == (pytest.approx(C_a), pytest.approx(C_v))
        assert found["Z"] == {"1": 0.075, "2A": 0.15, "2B": 0.2, "3": 0.3, "4": 0.4}[zone]


@pytest.mark.parametrize(
    ("source", "km", "N_a", "N_v"),
    [
        ("A", 1.0, 1.5, 2.0),
        ("A", 2.0, 1.5, 2.0),
        ("A", 3.5, 1.35, 1.8),
        ("A", 5.0, 1.2, 1.6),
        ("A", 7.5, 1.1, 1.4),
        ("A", 10.0, 1.0, 1.2),
        ("A", 12.5, 1.0, 1.1),
        ("A", 15.0, 1.0, 1.0),
        ("A", 40.0, 1.0, 1.0),
        ("B", 2.0, 1.3, 1.6),
        ("B", 3.5, 1.15, 1.4),
        ("B", 5.0, 1.0, 1.2),
        ("B", 7.5, 1.0, 1.1),
        ("B", 10.0, 1.0, 1.0),
        ("C", 0.0, 1.0, 1.0),
    ],
)
def test_near_source_factors(source: str, km: float, N_a: float, N_v: float) -> None:
    found = ground("ubc97", site("4", source_type=source, source_distance_km=km), STANDARD)
    assert (found["N_a"], found["N_v"]) == (pytest.approx(N_a), pytest.approx(N_v))
    assert found["C_a"] == pytest.approx(0.44 * N_a)
    assert found["C_v"] == pytest.approx(0.64 * N_v)


def test_n_a_need_not_exceed_1_1_where_the_conditions_are_stated() -> None:
    near = {"source_type": "A", "source_distance_km": 2.0}
    assert ground("ubc97", site("4", "S_D", **near, N_a_limited=True), STANDARD)["C_a"] == pytest.approx(0.44 * 1.1)
    # never for S_E
    assert ground("ubc97", site("4", "S_E", **near, N_a_limited=True), STANDARD)["C_a"] == pytest.approx(0.36 * 1.5)


def test_zone_4_asks_for_its_source_and_other_zones_do_not() -> None:
    with pytest.raises(InputRefused) as refused:
        ground("ubc97", {"zone": "4", "soil": "S_D"}, STANDARD)
    assert {p.path for p in refused.value.problems} == {"/site/source_type", "/site/source_distance_km"}
    assert ground("ubc97", site("3"), STANDARD)["N_a"] == 1.0


@pytest.mark.parametrize(("value", "path"), [({"zone": "5"}, "/site/zone"), ({"soil": "D"}, "/site/soil")])
def test_what_the_tables_do_not_hold_is_named(value: dict[str, str], path: str) -> None:
    with pytest.raises(InputRefused) as refused:
        ground("ubc97", site() | value, STANDARD)
    assert [p.path for p in refused.value.problems] == [path]


def test_soil_s_f_needs_site_specific_coefficients() -> None:
    with pytest.raises(InputRefused) as refused:
        ground("ubc97", site("3", "S_F"), STANDARD)
    assert refused.value.problems[0].path == "/site/soil"
    assert ground("ubc97", site("3", "S_F", C_a=0.4, C_v=1.0), STANDARD)["T_s"] == pytest.approx(1.0)


@pytest.mark.parametrize(("category", "I"), [("1", 1.25), ("2", 1.25), ("3", 1.0), ("4", 1.0), ("5", 1.0)])
def test_importance_by_occupancy_category(category: str, I: float) -> None:
    # 2.5 C_a I/R with C_a = 0.36 and R = 5.5
    result = static("ubc97", site(), {"occupancy_category": category}, WALLS, stories(1))
    assert result["coefficient"] == pytest.approx(2.5 * 0.36 * I / 5.5)


def test_spectrum_branches() -> None:
    # zone 3, S_D: C_a 0.36, C_v 0.54: T_s = 0.54/0.9 = 0.6, T_0 = 0.12
    found = spectrum("ubc97", site(), {"I": 1.25}, [0.0, 0.06, 0.12, 0.6, 1.2, 5.0], {"R": 5.0})
    expected = [0.36, 0.63, 0.9, 0.9, 0.45, 0.108]
    assert found["elastic"] == pytest.approx(expected)
    assert found["reduced"] == pytest.approx([e / 4.0 for e in expected])
    assert found["vertical"] == pytest.approx([2 / 3 * e for e in expected])
    # S_d = S_a g (T/2 pi)^2 at 1.2 s: 0.45 x 9.80665 x 0.0364756
    assert found["displacement"][4] == pytest.approx(0.45 * 9.80665 * (1.2 / 6.283185307) ** 2)


def test_base_equation_and_the_limit_of_method_b() -> None:
    # 10 stories of 3.5 m: T_A = 0.0488 x 35^0.75 = 0.70218; 1.4 T_A = 0.98305 < 1.2: C = 0.54/(5.5 x 0.98305)
    result = static("ubc97", site(), STANDARD, WALLS, stories(10), T=1.2)
    T_A = 0.0488 * 35**0.75
    assert result["T_limit"] == pytest.approx(1.4 * T_A)
    assert (result["T"], result["governed_by"]) == (pytest.approx(1.4 * T_A), "30-4")
    assert result["coefficient"] == pytest.approx(0.54 / (5.5 * 1.4 * T_A))
    assert static("ubc97", site("4"), STANDARD, WALLS, stories(10), T=1.2)["T_limit"] == pytest.approx(1.3 * T_A)


def test_floor_without_r() -> None:
    # 30-6: 0.11 x 0.36 = 0.0396 against 0.54/(8.5 x 2.0) = 0.0318
    result = static("ubc97", site(), STANDARD, {"period_type": "steel_mrf", "R": 8.5}, stories(40), T=2.0)
    assert (result["coefficient"], result["governed_by"]) == (pytest.approx(0.0396), "30-6")


def test_floor_of_zone_4() -> None:
    # N_v = 2.0: 30-7 = 0.8 x 0.4 x 2.0/8.5 = 0.0752941; 30-6 = 0.11 x 0.44 x 1.5 = 0.0726; 30-4 = 1.28/(8.5 x 4) =
    # 0.0376
    near = site("4", source_type="A", source_distance_km=1.0)
    tall = {"period_type": "steel_mrf", "R": 8.5}
    result = static("ubc97", near, STANDARD, tall, stories(60), T=4.0)
    assert (result["coefficient"], result["governed_by"]) == (pytest.approx(0.64 / 8.5), "30-7")


def test_top_force_and_linear_distribution() -> None:
    # T = 1.0 s: F_t = 0.07 V; the rest by w h: 3 equal stories share 1/6, 2/6, 3/6 of 0.93 V
    floors = stories(3, height=12.0)
    result = static("ubc97", site(), STANDARD, WALLS, floors, T=1.0)
    T_A = 0.0488 * 36**0.75
    assert result["T"] == pytest.approx(min(1.0, 1.4 * T_A))
    F_t = 0.07 * result["T"] * result["V"]
    rest = result["V"] - F_t
    assert result["F"] == pytest.approx([rest / 6, rest / 3, rest / 2 + F_t])
    assert result["exponent"] == 1.0
    assert result["M_story"][0] == pytest.approx(12 * result["F"][0] + 24 * result["F"][1] + 36 * result["F"][2])


def test_no_top_force_up_to_0_7_s_and_at_most_a_quarter() -> None:
    short = static("ubc97", site(), STANDARD, WALLS, stories(10), T=0.7)
    assert short["F"][-1] == pytest.approx(short["V"] * 10 / 55)
    long = static("ubc97", site(), STANDARD, {"period_type": "steel_mrf", "R": 8.5}, stories(60), T=4.0)
    # T = 3.571.. and above gives 0.25 V; 1830 is the sum of 1 to 60
    assert long["F"][-1] == pytest.approx(long["V"] * (0.25 + 0.75 * 60 / 1830))


def test_period_of_shear_walls() -> None:
    # A_c = 2 x 1.8 (0.2 + (6/14)^2) + 1.0 (0.2 + 0.9^2 capped) with a wall of 13 m in 14 m: D/h = 0.93 -> 0.9
    walls = [{"A_i": 1.8, "D_i": 6.0}] * 2 + [{"A_i": 1.0, "D_i": 13.0}]
    A_c = 3.6 * (0.2 + (6 / 14) ** 2) + 1.0 * (0.2 + 0.81)
    result = static("ubc97", site(), STANDARD, WALLS | {"T_a_formula": "30-9", "walls": walls}, stories(4))
    assert result["T_a"] == pytest.approx(0.0743 / A_c**0.5 * 14**0.75)


def test_simplified_static_procedure() -> None:
    # 30-11: 3.0 C_a/R = 3 x 0.36/5.5, by the weights alone
    floors = [{"name": "L1", "height": 4.0, "weight": 600.0}, {"name": "L2", "height": 4.0, "weight": 400.0}]
    standard = {"occupancy_category": "4"}
    result = static("ubc97", site(), standard, WALLS, floors, static_method="1630.2.3")
    assert (result["coefficient"], result["governed_by"]) == (pytest.approx(1.08 / 5.5), "30-11")
    assert result["F"] == pytest.approx([0.6 * result["V"], 0.4 * result["V"]])
    assert result["exponent"] is None
    with pytest.raises(InputRefused, match="at most two stories"):
        static("ubc97", site(), standard, WALLS, stories(3), static_method="1630.2.3")
    # 1629.8.2: of occupancy categories 4 and 5 only; without one it is required
    with pytest.raises(InputRefused, match="categories 4 and 5"):
        static("ubc97", site(), {"occupancy_category": "1"}, WALLS, floors, static_method="1630.2.3")
    with pytest.raises(InputRefused) as refused:
        static("ubc97", site(), {"I": 1.0}, WALLS, floors, static_method="1630.2.3")
    assert [p.path for p in refused.value.problems] == ["/occupancy/occupancy_category"]


@pytest.mark.parametrize(
    ("zone", "count", "regular", "expected"),
    [
        ("3", 20, True, ""),
        ("3", 21, True, "not permitted: 240 ft"),
        ("3", 5, False, ""),
        ("3", 6, False, "not permitted: irregular"),
        ("1", 40, False, ""),
        ("3", 5, None, ""),
        ("3", 6, None, "open"),
    ],
)
def test_permission_of_the_static_procedure(zone: str, count: int, regular: bool | None, expected: str) -> None:
    # 20 stories of 3.5 m are 70 m, 21 are 73.5 m; 240 ft are 73.15 m; five are 17.5 m, below 65 ft
    system = WALLS | ({"regular": regular} if regular is not None else {})
    notes = " ".join(static("ubc97", site(zone), STANDARD, system, stories(count))["notes"])
    assert (expected in notes) if expected else ("static force procedure" not in notes)
