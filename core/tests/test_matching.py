"""Submitted modes beside ours: matched by shape, never by number."""

from __future__ import annotations

import copy
from typing import Any

import numpy as np
import pytest
from modelling import modal, shear_building
from plumb_core.dynamics.matching import mac


def _uneven() -> dict[str, Any]:
    model = shear_building(4)
    for line in model["lateral_lines"]:
        if line["angle"] == 90.0:
            line["stiffness"] *= 0.7
    return model


def _as_submitted(found: dict[str, Any], count: int, scale: float = 3.0) -> list[dict[str, Any]]:
    names = [f["name"] for f in found["floors"]]
    return [
        {
            "T": m["T"],
            "mass_ratio": dict(m["mass_ratio"]),
            "shape": [
                {"story": n, "X": -scale * s[0], "Y": -scale * s[1], "RZ": -scale * s[2]}
                for n, s in zip(names, m["shape"], strict=True)
            ],
        }
        for m in found["modes"][:count]
    ]


def test_mac_of_a_shape_with_itself_is_one_and_ignores_scale_and_sign() -> None:
    a = np.array([[1.0, 2.0, 3.0]])
    w = np.array([[1.0, 1.0, 2.0]])
    others = np.array([-4 * a, [[3.0, 0.0, -0.5]], [[1.0, np.nan, 3.0]], [[np.nan] * 3]])
    assert mac(a, others, w).tolist() == pytest.approx([1.0, 0.0, 1.0, 0.0])


def test_shuffled_modes_are_matched_by_shape() -> None:
    model = _uneven()
    ours = modal(model, modes=9)
    theirs = _as_submitted(ours, 9)
    order = [3, 0, 5, 1, 2, 4, 8, 6, 7]
    found = modal(model, modes=9, submitted=[theirs[i] for i in order])["comparison"]
    assert [r["theirs"] - 1 for r in found["rows"]] == [order.index(i) for i in range(9)]
    assert all(r["mac"] == pytest.approx(1.0) for r in found["rows"])
    assert not found["swapped"]
    assert found["missing"] == found["unmatched"] == []
    for d in ("X", "Y"):
        assert found["sums"][d] == pytest.approx(ours["cumulative"][d][-1])


def test_a_mode_left_out_is_missing() -> None:
    model = _uneven()
    theirs = _as_submitted(modal(model, modes=9), 9)
    del theirs[3]
    assert modal(model, modes=9, submitted=theirs)["comparison"]["missing"] == [4]


def test_swapped_axes_are_seen_by_shape_and_by_shares_alone() -> None:
    model = _uneven()
    theirs = _as_submitted(modal(model, modes=6), 6)
    swapped = copy.deepcopy(theirs)
    for m in swapped:
        m["mass_ratio"]["X"], m["mass_ratio"]["Y"] = m["mass_ratio"]["Y"], m["mass_ratio"]["X"]
        for row in m["shape"]:
            row["X"], row["Y"] = row["Y"], row["X"]
    assert modal(model, modes=6, submitted=swapped)["comparison"]["swapped"]
    for m in swapped:
        del m["shape"]
    assert modal(model, modes=6, submitted=swapped)["comparison"]["swapped"]
    for m in theirs:
        del m["shape"]
    plain = modal(model, modes=6, submitted=theirs)["comparison"]
    assert not plain["swapped"]
    assert [r["theirs"] for r in plain["rows"]] == [1, 2, 3, 4, 5, 6]


@pytest.mark.parametrize("longer", [1.0, 1.22, 1.6])
def test_swapped_axes_are_seen_where_all_masses_are_wrong_too(longer: float) -> None:
    """Masses half as great again make every period 1.22 times as long: one ratio, whichever way the axes run."""
    model = _uneven()
    theirs = _as_submitted(modal(model, modes=6), 6)
    for m in theirs:
        m["T"] *= longer
    assert not modal(model, modes=6, submitted=theirs)["comparison"]["swapped"]
    for m in theirs:
        m["mass_ratio"]["X"], m["mass_ratio"]["Y"] = m["mass_ratio"]["Y"], m["mass_ratio"]["X"]
        for row in m["shape"]:
            row["X"], row["Y"], row["RZ"] = row["Y"], row["X"], -row["RZ"]
    assert modal(model, modes=6, submitted=theirs)["comparison"]["swapped"]


def test_too_few_modes_in_one_direction() -> None:
    model = _uneven()
    ours = modal(model, modes=9)
    theirs = [m for m in _as_submitted(ours, 9) if m["mass_ratio"]["Y"] < 1e-3 or m["mass_ratio"]["Y"] > 0.5]
    found = modal(model, modes=9, submitted=theirs)["comparison"]
    assert found["enough"] == {"X": True, "Y": False}


def test_without_numbers_there_is_nothing_to_compare() -> None:
    found = modal(_uneven(), modes=3, submitted=[])["comparison"]
    assert found["sums"] == {"X": None, "Y": None, "RZ": None}
    assert found["enough"] == {"X": None, "Y": None}
    assert [r["theirs"] for r in found["rows"]] == [None, None, None]
