"""The reviewer's own spectrum and factors."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from asking import spectrum, static, stories
from plumb_core.errors import InputRefused

CURVE = {"T": [0.1, 1.0, 4.0], "S_a": [1.0, 0.4, 0.05]}


def ordinates(site: dict[str, Any], T: list[float]) -> list[float]:
    return list(spectrum("custom", site, {}, T)["elastic"])


def test_linear_and_logarithmic_reading() -> None:
    # linear at 0.55: 0.7; logarithmic at sqrt(0.1) s: sqrt(1.0 x 0.4)
    assert ordinates(CURVE, [0.1, 0.55, 2.5]) == pytest.approx([1.0, 0.7, 0.225])
    assert ordinates(CURVE | {"read": "log"}, [0.1**0.5, 2.0]) == pytest.approx([0.4**0.5, (0.4 * 0.05) ** 0.5])


def test_a_curve_from_zero_is_linear_up_to_its_first_positive_period() -> None:
    from_zero = {"T": [0.0, 0.2, 2.0], "S_a": [0.4, 1.0, 0.1], "read": "log"}
    assert ordinates(from_zero, [0.0, 0.1]) == pytest.approx([0.4, 0.7])


def test_displacements_become_accelerations() -> None:
    # S_a = S_d (2 pi/T)^2/g: 0.1 m at 2 s: 0.1 x 9.8696/9.80665
    assert ordinates({"T": [1.0, 2.0], "S_d": [0.05, 0.1]}, [2.0]) == pytest.approx([0.1 * np.pi**2 / 9.80665])


@pytest.mark.parametrize(("site", "T"), [(CURVE, 0.05), (CURVE, 4.5), ({"T": [0.0, 1.0], "S_d": [0.0, 0.1]}, 0.0)])
def test_nothing_is_read_outside_the_curve(site: dict[str, Any], T: float) -> None:
    with pytest.raises(InputRefused) as refused:
        ordinates(site, [T])
    assert refused.value.problems[0].path == "/site/T"


def test_own_factors_and_limits() -> None:
    # coefficient: 0.9 x 0.4 x 1.2/3 = 0.144 at T = 1.0; T limited to 1.5 x 0.05 x 36^0.75 = 1.1024
    own = {"mass_factor": 0.9, "period_coefficient": 0.05, "period_limit": 1.5, "exponent": 1.5, "minimum": 0.01}
    found = static("custom", CURVE | {"own": own}, {"I": 1.2}, {"R": 3.0}, stories(9, height=4.0), T=1.0)
    assert found["coefficient"] == pytest.approx(0.144)
    assert (found["exponent"], found["T_a"]) == (1.5, pytest.approx(0.05 * 36**0.75))
    longer = static("custom", CURVE | {"own": own}, {"I": 1.2}, {"R": 3.0}, stories(9, height=4.0), T=2.0)
    assert longer["T"] == pytest.approx(1.5 * 0.05 * 36**0.75)
    least = static(
        "custom", CURVE | {"own": own | {"minimum": 0.2}}, {"I": 1.2}, {"R": 3.0}, stories(9, height=4.0), T=1.0
    )
    assert (least["coefficient"], least["governed_by"]) == (0.2, "minimum")


def test_without_a_period_of_any_kind_it_says_so() -> None:
    with pytest.raises(InputRefused, match="period_coefficient"):
        static("custom", CURVE, {}, {"R": 3.0}, stories(9))


def test_a_curve_needs_one_kind_of_ordinate() -> None:
    with pytest.raises(InputRefused, match="either S_a"):
        ordinates(CURVE | {"S_d": [0.1, 0.1, 0.1]}, [1.0])
