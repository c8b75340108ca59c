"""IS 1893 (Part 1), 2002 and 2016, worked by hand."""

from __future__ import annotations

from typing import Any

import pytest
from asking import ground, spectrum, static, stories
from plumb_core.errors import InputRefused

OTHER = {"use": "other"}
FRAME = {"period_type": "rc_mrf", "R": 5.0}
OLD, NEW = "is1893-2002", "is1893-2016"


def site(zone: str = "IV", soil: str = "II") -> dict[str, Any]:
    return {"zone": zone, "soil": soil}


@pytest.mark.parametrize("edition", [OLD, NEW])
@pytest.mark.parametrize(("zone", "Z"), [("II", 0.10), ("III", 0.16), ("IV", 0.24), ("V", 0.36)])
def test_zone_factor(edition: str, zone: str, Z: float) -> None:
    assert ground(edition, site(zone), OTHER)["Z"] == Z


@pytest.mark.parametrize(
    ("edition", "use", "I"),
    [
        (OLD, "important", 1.5),
        (OLD, "other", 1.0),
        (NEW, "important", 1.5),
        (NEW, "over_200_persons", 1.2),
        (NEW, "other", 1.0),
    ],
)
def test_importance(edition: str, use: str, I: float) -> None:
    assert ground(edition, site(), {"use": use})["I"] == I


def test_the_class_of_200_persons_came_with_2016() -> None:
    with pytest.raises(InputRefused) as refused:
        ground(OLD, site(), {"use": "over_200_persons"})
    assert refused.value.problems[0].path == "/occupancy/use"


@pytest.mark.parametrize("edition", [OLD, NEW])
@pytest.mark.parametrize(("soil", "corner", "c"), [("I", 0.40, 1.00), ("II", 0.55, 1.36), ("III", 0.67, 1.67)])
def test_spectra(edition: str, soil: str, corner: float, c: float) -> None:
    # Z/2 = 0.12: 1 + 15 T, 2.5 up to and at the corner, c/T after it (a small step down), 4 s
    found = spectrum(edition, site(soil=soil), OTHER, [0.0, 0.05, 0.1, corner, corner + 1e-9, 2.0, 4.0])
    assert found["elastic"] == pytest.approx([0.12 * v for v in (1.0, 1.75, 2.5, 2.5, c / corner, c / 2, c / 4)])


@pytest.mark.parametrize(("soil", "beyond"), [("I", 0.25), ("II", 0.34), ("III", 0.42)])
def test_beyond_4_s(soil: str, beyond: float) -> None:
    assert spectrum(NEW, site(soil=soil), OTHER, [4.5, 9.0])["elastic"] == pytest.approx([0.12 * beyond] * 2)
    with pytest.raises(InputRefused) as refused:
        spectrum(OLD, site(soil=soil), OTHER, [1.0, 4.5])
    assert refused.value.problems[0].path == "/T"


@pytest.mark.parametrize(
    ("damping", "factor"),
    [
        (0.0001, 3.191),
        (0.02, 1.4),
        (0.05, 1.0),
        (0.07, 0.9),
        (0.10, 0.8),
        (0.15, 0.7),
        (0.20, 0.6),
        (0.25, 0.55),
        (0.30, 0.5),
        (0.06, 0.95),
    ],
)
def test_damping_factors_of_2002(damping: float, factor: float) -> None:
    # 0.01 %: 3.2 - 0.01/2 x 1.8 = 3.191
    assert spectrum(OLD, site(), OTHER, [1.0], damping=damping)["damped"] == pytest.approx([0.12 * 1.36 * factor])


def test_2016_knows_no_other_damping() -> None:
    with pytest.raises(InputRefused) as refused:
        spectrum(NEW, site(), OTHER, [1.0], damping=0.02)
    assert refused.value.problems[0].path == "/damping"


def test_reduced_ordinates_and_the_proviso_for_short_periods_of_2002() -> None:
    # I/R = 1.5/5 = 0.3: up to 0.1 s not below Z/2 = 0.12
    old = spectrum(OLD, site() | {"floor_on_modes": True}, {"use": "important"}, [0.0, 0.1, 0.11, 1.0], FRAME)
    assert old["reduced"] == pytest.approx([0.12, 0.12, 0.12 * 2.5 * 0.3, 0.12 * 1.36 * 0.3])
    # undeclared it is for the structure (T_1), not for each mode: 0.12 x 0.3 and 0.12 x 2.5 x 0.3
    bare = spectrum(OLD, site(), {"use": "important"}, [0.0, 0.1], FRAME)
    assert bare["reduced"] == pytest.approx([0.036, 0.09])
    new = spectrum(NEW, site(), {"use": "important"}, [0.0, 0.1, 1.0], FRAME)
    assert new["reduced"] == pytest.approx([0.12 * 0.3, 0.12 * 2.5 * 0.3, 0.12 * 1.36 * 0.3])


def test_i_over_r_is_at_most_one_in_2002() -> None:
    found = spectrum(OLD, site(), {"I": 2.0}, [1.0], {"R": 1.5, "period_type": "other"})
    assert found["reduced"] == pytest.approx([0.12 * 1.36])


def test_vertical_spectra() -> None:
    assert spectrum(OLD, site(), OTHER, [0.3, 2.0])["vertical"] == pytest.approx([0.2, 2 / 3 * 0.12 * 0.68])
    assert spectrum(NEW, site(), OTHER, [0.3, 2.0])["vertical"] == pytest.approx([0.2, 0.2])


def test_vertical_design_values_hold_i_over_r() -> None:
    # I/R = 1.5/5; 2002: 2/3 of the design horizontal one; 2016: (2/3)(Z/2)(2.5)/(R/I), whatever the period
    important = {"use": "important"}
    old = spectrum(OLD, site(), important, [0.3, 2.0], FRAME)
    assert old["vertical_reduced"] == pytest.approx([2 / 3 * 0.3 * 0.3, 2 / 3 * 0.12 * 0.68 * 0.3])
    assert spectrum(NEW, site(), important, [0.3, 2.0], FRAME)["vertical_reduced"] == pytest.approx([0.06, 0.06])


@pytest.mark.parametrize(
    ("edition", "kind", "expected"),
    [
        (OLD, "rc_mrf", 0.96140),
        (OLD, "steel_mrf", 1.08958),
        (NEW, "rc_mrf", 0.96140),
        (NEW, "composite_mrf", 1.02549),
        (NEW, "steel_mrf", 1.08958),
    ],
)
def test_periods_of_bare_frames_at_30_m(edition: str, kind: str, expected: float) -> None:
    found = static(edition, site(), OTHER, {"period_type": kind, "R": 5.0}, stories(10, height=3.0))
    assert found["T_a"] == pytest.approx(expected, abs=1e-5)


@pytest.mark.parametrize("edition", [OLD, NEW])
def test_infilled_frames_need_their_base(edition: str) -> None:
    # 0.09 x 30/sqrt(20) = 0.60374
    system = {"period_type": "other", "R": 5.0}
    found = static(edition, site(), OTHER, system | {"d": 20.0}, stories(10, height=3.0))
    assert found["T_a"] == pytest.approx(0.60374, abs=1e-5)
    # the plan of the lowest story holds it too: its X dimension
    planned = static(edition, site(), OTHER, system, stories(10, height=3.0, plan=[20.0, 12.0]))
    assert planned["T_a"] == pytest.approx(0.60374, abs=1e-5)
    with pytest.raises(InputRefused) as refused:
        static(edition, site(), OTHER, system, stories(10, height=3.0))
    assert (refused.value.problems[0].path, "base dimension" in refused.value.problems[0].message) == (
        "/system/X/d",
        True,
    )


def test_structural_walls_of_2016() -> None:
    """h = 30 m; walls 2 x (1.2 m2, 6 m) and (0.8 m2, 4 m): A_w = 2.4 (0.2 + 0.04) + 0.8 (0.2 + 0.017778) = 0.750222;
    T_a = 0.96140/sqrt(0.750222) = 1.10996 s, above 0.09 h/sqrt(20) = 0.6037."""
    walls = [{"A_i": 1.2, "D_i": 6.0}] * 2 + [{"A_i": 0.8, "D_i": 4.0}]
    system = {"period_type": "rc_walls", "R": 4.0, "walls": walls, "d": 20.0}
    assert static(NEW, site(), OTHER, system, stories(10, height=3.0))["T_a"] == pytest.approx(1.10996, abs=1e-4)
    # thick walls: the other formula is the lower bound
    thick = system | {"walls": [{"A_i": 20.0, "D_i": 9.0}]}
    assert static(NEW, site(), OTHER, thick, stories(10, height=3.0))["T_a"] == pytest.approx(0.60374, abs=1e-5)


@pytest.mark.parametrize("edition", [OLD, NEW])
def test_base_shear_takes_the_approximate_period_whatever_analysis_finds(edition: str) -> None:
    # zone IV, soil II, R 5, 30 m: S_a/g = 1.36/0.96140 = 1.41461; A_h = 0.12 x 1.41461/5 = 0.033951
    found = static(edition, site(), OTHER, FRAME, stories(10, height=3.0), T=1.7)
    assert found["coefficient"] == pytest.approx(0.033951, abs=1e-6)
    assert found["T"] == found["T_a"]
    assert any("analysis period" in n for n in found["notes"])


def test_least_base_shear_of_2016() -> None:
    # h = 150 m: T_a = 3.2146, A_h = 0.12 x 1.36/3.2146/5 = 0.010154 < 1.6 %
    tall = stories(50, height=3.0)
    found = static(NEW, site(), OTHER, FRAME, tall)
    assert (found["coefficient"], found["governed_by"]) == (pytest.approx(0.016), "7.2.2")
    assert static(OLD, site(), OTHER, FRAME, tall)["coefficient"] == pytest.approx(0.010154, abs=1e-6)
    for zone, percent in (("II", 0.7), ("III", 1.1), ("V", 2.4)):
        assert static(NEW, site(zone), OTHER, FRAME, tall)["coefficient"] == pytest.approx(percent / 100)


def test_short_periods_of_the_static_method() -> None:
    # one story of 0.9 m over a base of 25 m: T_a = 0.0162 s. 2016: plateau 2.5; 2002: Z/2 whatever I/R
    low = [{"name": "L1", "height": 0.9, "weight": 100.0}]
    system = {"period_type": "other", "R": 5.0, "d": 25.0}
    assert static(NEW, site(), OTHER, system, low)["coefficient"] == pytest.approx(0.12 * 2.5 / 5)
    old = static(OLD, site(), OTHER, system, low)
    assert (old["coefficient"], old["governed_by"]) == (pytest.approx(0.12), "6.4.2, T <= 0.1 s")


def test_distribution_by_the_square_of_height() -> None:
    # W 3000, 3000, 3000, 2500 kN at 3.5, 6.5, 9.5, 12.5 m: W h^2 in 1000: 36.75, 126.75, 270.75, 390.625 of 824.875
    floors = [
        {"name": f"L{i}", "height": h, "weight": w}
        for i, (h, w) in enumerate([(3.5, 3000.0), (3.0, 3000.0), (3.0, 3000.0), (3.0, 2500.0)])
    ]
    found = static(OLD, site(), OTHER, FRAME, floors)
    assert [f / found["V"] * 800 for f in found["F"]] == pytest.approx([35.64, 122.93, 262.59, 378.84], abs=0.01)


@pytest.mark.parametrize(
    ("edition", "zone", "count", "regular", "expected"),
    [
        (OLD, "IV", 13, True, ""),
        (OLD, "IV", 14, True, "above 40 m"),
        (OLD, "II", 30, True, ""),
        (OLD, "II", 31, True, "above 90 m"),
        (OLD, "IV", 5, False, "above 12 m"),
        (OLD, "IV", 4, False, ""),
        (NEW, "II", 2, True, ""),
        (NEW, "II", 5, True, "T_a of 0.4 s"),
        (NEW, "III", 2, True, "below 15 m in zone II"),
        (NEW, "II", 2, False, "irregular"),
    ],
)
def test_permission_of_the_static_method(edition: str, zone: str, count: int, regular: bool, expected: str) -> None:
    notes = " ".join(
        static(edition, site(zone), OTHER, FRAME | {"regular": regular}, stories(count, height=3.0))["notes"]
    )
    assert (expected in notes) if expected else ("static method" not in notes)
