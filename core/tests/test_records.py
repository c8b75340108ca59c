"""Ground records from files: columns, steps, units; what is not stated is required."""

from __future__ import annotations

import json
from typing import Any

import pytest
from modelling import shear_building
from plumb_core.cli import main
from plumb_core.errors import InputRefused
from plumb_core.intake.records import read_record
from plumb_core.solve import solve


def test_two_columns_of_time_and_acceleration() -> None:
    found = read_record("Time (s), Acceleration (cm/s2)\n0.00, 0.0\n0.01, 12.5\n0.02, -7.25\n")
    assert found == {"t": [0.0, 0.01, 0.02], "a": [0.0, 12.5, -7.25], "unit": "cm/s2"}


def test_one_column_or_several_in_a_line_at_a_step() -> None:
    text = "Hesper strong-motion station HS-12, acceleration in g, dt = 0.005 s\n 0.001 -0.002 0.003\n 0.004 -0.005\n"
    with pytest.raises(InputRefused) as refused:
        read_record(text)
    # the letter g alone is no statement of a unit
    assert refused.value.problems[0].path == "/unit"
    assert read_record(text, unit="g") == {"a": [0.001, -0.002, 0.003, 0.004, -0.005], "dt": 0.005, "unit": "g"}


def test_decimal_commas_and_semicolons() -> None:
    found = read_record("t [s];a [m/s2]\n0,00;0,10\n0,02;-0,25\n")
    assert found == {"t": [0.0, 0.02], "a": [0.1, -0.25], "unit": "m/s2"}


def test_two_columns_beside_a_stated_step_are_still_times() -> None:
    found = read_record("dt 0.01 s, a (mm/s2)\n0.00 1\n0.01 2\n0.02 3\n")
    assert found["t"] == [0.0, 0.01, 0.02]


@pytest.mark.parametrize(
    ("text", "more", "path"),
    [
        ("0.1\n0.2\n", {"unit": "g"}, "/dt"),
        ("0.1\n0.2\n", {"dt": 0.01}, "/unit"),
        ("0.1\n0.2\n", {"dt": 0.01, "unit": "furlong"}, "/unit"),
        ("nothing here\n", {"dt": 0.01, "unit": "g"}, "/a"),
        ("0.1\nbroken\n0.2\n", {"dt": 0.01, "unit": "g"}, "/lines/1"),
    ],
)
def test_what_is_missing_or_broken_is_named(text: str, more: dict[str, Any], path: str) -> None:
    with pytest.raises(InputRefused) as refused:
        read_record(text, **more)
    assert path in [p.path for p in refused.value.problems]


def test_a_record_goes_from_the_file_into_the_time_history(tmp_path: Any, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "record.csv"
    file.write_text(
        "Time (s),Acceleration (g)\n" + "".join(f"{0.01 * i:.2f},{0.1 if i % 20 < 10 else -0.1}\n" for i in range(200))
    )
    assert main(["record", str(file)]) == 0
    record = json.loads(capsys.readouterr().out)
    found = solve({"kind": "time_history", **shear_building(2), "record": record})
    assert found["peak_ground"] == pytest.approx(0.1)
    assert found["steps_taken"] == 200
