"""Whatever is wrong with a model, it is answered with finite numbers or refused with a place: never a traceback."""

from __future__ import annotations

import copy
from typing import Any
from unittest import mock

import numpy as np
import pytest
import scipy.sparse as sp
from hypothesis import given, settings
from hypothesis import strategies as st
from mangling import mangled, stands
from modelling import member, modal, node, refused, section, shear_building, small_building, support
from plumb_core.dynamics import factor
from plumb_core.errors import InputRefused
from plumb_core.solve import solve

EDITION = {
    "edition": "asce7-16",
    "site": {"S_S": 1.5, "S_1": 0.6, "T_L": 8, "site_class": "D"},
    "occupancy": {"risk_category": "II"},
    "system": {d: {"period_type": "rc_mrf", "R": 8, "Omega_0": 3, "C_d": 5.5} for d in "XY"},
}
CURVE = {"T": [0.0, 0.1, 0.5, 1.0, 4.0], "S_a": [0.4, 1.0, 1.0, 0.6, 0.1]}


def requests() -> list[dict[str, Any]]:
    """Sound requests of every kind to both depths of model."""
    lines, frame = shear_building(3), small_building()
    second_order = copy.deepcopy(frame)
    second_order["frame"] |= {"p_delta": True, "concentrate": True, "member_mass": True}
    flexible = copy.deepcopy(second_order)
    for diaphragm in flexible["frame"]["diaphragms"]:
        diaphragm["rigid"] = False
    found: list[dict[str, Any]] = [{"kind": "modal", **m, "modes": 6} for m in (second_order, flexible)]
    for model in (lines, frame):
        found += [
            {"kind": "model", **model},
            {"kind": "modal", **model, "target": 0.9},
            {"kind": "modal", **model, "modes": 5, "method": "ritz"},
            {"kind": "response", **model, "modes": 6, "spectrum": CURVE, "residual_mass": True, "eccentricity": 0.05},
            {
                "kind": "response",
                **model,
                **EDITION,
                "modes": 6,
                "direction": "both",
                "directions": "100-30",
                "eccentricity": 0.05,
                "eccentricity_as": "mass",
            },
            {
                "kind": "time_history",
                **model,
                "modes": 4,
                "harmonic": {"amplitude": 0.2, "period": 0.5, "duration": 1.0},
            },
            {
                "kind": "time_history",
                **model,
                "modes": 4,
                "newmark": {},
                "rayleigh": {"periods": [0.2, 1.0]},
                "record": {"a": [0.0, 0.1, -0.2, 0.1, 0.0], "unit": "g", "dt": 0.01},
            },
        ]
    weighed = copy.deepcopy(lines)
    for story in weighed["stories"]:
        story["weight"] = 1200.0
    found.append({"kind": "static_response", **weighed, **EDITION, "p_delta": True})
    return found


REQUESTS = requests()


@settings(max_examples=400, deadline=None)
@given(mangled(REQUESTS))
def test_a_mangled_model_is_answered_in_finite_numbers_or_refused_with_its_places(document: dict[str, Any]) -> None:
    stands(document)


@pytest.mark.parametrize("bad", [[], {}, None, 7])
def test_ids_that_are_no_texts_are_named(bad: Any) -> None:
    model = small_building()
    model["frame"]["nodes"][3]["id"] = bad
    assert "/frame/nodes/3/id" in {p.path for p in refused(model)}


@pytest.mark.parametrize("kind", [[], {}, None, 7, "modals"])
def test_a_kind_that_is_none_is_named(kind: Any) -> None:
    with pytest.raises(InputRefused) as no:
        solve({"kind": kind})
    assert no.value.problems[0].path == "/kind"


def test_a_node_on_the_other_side_of_the_country_is_in_another_unit() -> None:
    model = small_building()
    model["frame"]["nodes"][2]["at"][0] = 6e6
    assert [p.path for p in refused(model)] == ["/frame/nodes/2/at/0"]


@settings(max_examples=60, deadline=None)
@given(st.integers(1, 25), st.integers(0, 10_000), st.floats(-2.0, 2.0), st.booleans())
def test_only_positive_definite_matrices_are_factorised(n: int, seed: int, shift: float, by_superlu: bool) -> None:
    random = np.random.default_rng(seed)
    B = random.standard_normal((n, n))
    A = B @ B.T / n + shift * np.eye(n)
    least = float(np.linalg.eigvalsh(A)[0])
    if abs(least) < 1e-6:
        return
    with mock.patch.object(factor, "cholmod", None if by_superlu else factor.cholmod):
        if least > 0:
            b = random.standard_normal(n)
            assert A @ factor.Factor(sp.csc_array(A)).solve(b) == pytest.approx(b, rel=1e-6, abs=1e-8)
        else:
            with pytest.raises(factor.NotStable) as no:
                factor.Factor(sp.csc_array(A))
            assert no.value.negative


def test_gravity_that_takes_two_stiffnesses_at_once_is_found() -> None:
    # X and Y of the lowest story both become negative: an even number of negative pivots, a positive determinant
    model = shear_building(3)
    model["stories"][0]["gravity"] = 1e6
    assert "the geometric stiffness of gravity exceeds" in refused(model, p_delta=True)[0].message
    assert modal(model)["modes"], "without the second order effect it stands"


def test_an_unstable_model_is_told_as_one_where_its_movement_is_not_found() -> None:
    model = shear_building(3)
    model["stories"][0]["gravity"] = 1e6
    gives_up = factor.ArpackNoConvergence("no convergence", np.zeros(0), np.zeros((0, 0)))
    with mock.patch.object(factor, "eigsh", side_effect=gives_up):
        assert "the geometric stiffness of gravity exceeds" in refused(model, p_delta=True)[0].message


def test_a_mechanism_on_flexible_floors_is_told_as_one_with_the_second_order_effect_too() -> None:
    model = {
        "frame": {
            "nodes": [node("1", 0, 0, 0), node("2", 0, 0, 4), node("3", 5, 0, 4)],
            "supports": [support("1", "ux uy uz")],
            "members": [member("c", "1", "2"), member("b", "2", "3")],
            "sections": [section()],
            "materials": [{"id": "S", "E": 2e8, "nu": 0.3, "density": 7.85}],
            "member_mass": True,
        }
    }
    for p_delta in (False, True):
        assert "mechanism" in refused(model, p_delta=p_delta)[0].message


def test_a_motion_of_too_many_steps_is_refused_before_it_fills_the_memory() -> None:
    motion = {"amplitude": 0.1, "period": 1e-6, "duration": 60.0}
    with pytest.raises(InputRefused) as no:
        solve({"kind": "time_history", **shear_building(2), "harmonic": motion})
    assert no.value.problems[0].path == "/harmonic/duration"
    uneven = {"a": [0.0, 1.0, 0.0], "unit": "g", "t": [0.0, 1e-6, 100.0]}
    with pytest.raises(InputRefused) as no:
        solve({"kind": "time_history", **shear_building(2), "record": uneven})
    assert no.value.problems[0].path == "/record/t"
