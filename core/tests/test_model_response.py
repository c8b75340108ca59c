"""Spectrum response, static response and time history of the model against closed forms and other routes."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
import scipy.integrate
from dense import DenseFrame
from hypothesis import given, settings
from hypothesis import strategies as st
from modelling import modal, response, shear_building, small_building
from plumb_core.dynamics.combine import ModalRule, combine_directions, cqc_coefficients
from plumb_core.dynamics.history import Newmark, exact_oscillators, newmark_oscillators, rayleigh_damping
from plumb_core.errors import InputRefused
from plumb_core.solve import solve

G = 9.80665
CURVE = {"T": [0.0, 0.1, 0.5, 1.0, 2.0, 4.0], "S_a": [0.4, 1.0, 1.0, 0.5, 0.25, 0.1]}


def _eccentric(count: int = 3) -> dict[str, Any]:
    model = shear_building(count)
    for line in model["lateral_lines"]:
        if line["angle"] == 0.0:
            line["at"] = [0.0, line["at"][1] + 2.0]
    return model


# Combination


def test_cqc_of_two_close_modes() -> None:
    # by hand: zeta 5 %, w2/w1 = 1.1, r = 1/1.1
    r, z = 1 / 1.1, 0.05
    rho = 8 * z * z * (1 + r) * r**1.5 / ((1 - r * r) ** 2 + 4 * z * z * r * (1 + r) ** 2)
    assert rho == pytest.approx(0.5224, abs=2e-3)
    found = cqc_coefficients(np.array([10.0, 11.0]), z)
    assert found == pytest.approx(np.array([[1.0, rho], [rho, 1.0]]), rel=1e-12)
    both = ModalRule("CQC", np.array([10.0, 11.0]), z, False)(np.array([[3.0], [-4.0]]))
    assert both[0] == pytest.approx(math.sqrt(9 + 16 - 2 * rho * 12), rel=1e-12)


@settings(max_examples=40, deadline=None)
@given(st.lists(st.floats(-50, 50), min_size=4, max_size=4), st.floats(0.01, 0.3))
def test_abs_is_never_below_srss_nor_cqc(values: list[float], damping: float) -> None:
    omega = np.array([3.0, 3.2, 9.0, 20.0])
    v = np.array(values)[:, None]
    found = {rule: ModalRule(rule, omega, damping, False)(v)[0] for rule in ("ABS", "SRSS", "CQC")}  # type: ignore[arg-type]
    assert found["ABS"] >= found["SRSS"] - 1e-9
    assert found["ABS"] >= found["CQC"] - 1e-9


def test_cqc_of_modes_far_apart_is_srss() -> None:
    v = np.array([[3.0], [4.0]])
    assert ModalRule("CQC", np.array([1.0, 1000.0]), 0.05, False)(v)[0] == pytest.approx(5.0, rel=1e-4)


def test_directions_together() -> None:
    x, y, z = np.array([10.0]), np.array([4.0]), np.array([2.0])
    assert combine_directions([x, y], "SRSS")[0] == pytest.approx(math.sqrt(116))
    assert combine_directions([x, y], "100-30")[0] == pytest.approx(11.2)
    assert combine_directions([x, y, z], "100-30-30")[0] == pytest.approx(11.8)
    assert combine_directions([x, y, z], "100-30")[0] == pytest.approx(11.2)


# Spectrum response


def test_one_degree_of_freedom_takes_its_ordinate() -> None:
    model = shear_building(1, 80_000.0, 120.0)
    T = 2 * math.pi * math.sqrt(120 / 80_000)
    found = response(model, spectrum=CURVE)
    ordinate = 1.0 if T <= 0.5 else 0.5 / T
    assert found["base_shear"]["X"] == pytest.approx(120 * G * ordinate, rel=1e-9)
    assert found["stories"][0]["displacement"]["X"] == pytest.approx(120 * G * ordinate / 80_000, rel=1e-9)
    assert found["base_shear"]["Y"] == pytest.approx(0.0, abs=1e-6)


def test_a_flat_spectrum_with_all_modes_by_srss() -> None:
    # base shear of mode r: its effective mass times the ordinate
    model = shear_building(4)
    shares = [m["mass_ratio"]["X"] for m in modal(model)["modes"]]
    found = response(model, combine="SRSS", direction="X")
    assert found["base_shear"]["X"] == pytest.approx(480 * G * math.sqrt(sum(s * s for s in shares)), rel=1e-9)
    assert response(model, combine="ABS")["base_shear"]["X"] == pytest.approx(480 * G, rel=1e-9)


def _dense_response(model: dict[str, Any], direction: int) -> dict[str, np.ndarray]:
    """Base shear, story shears, displacements and corner drifts of lateral lines by a plain dense route, CQC at 5 %."""
    stories, n = model["stories"], len(model["stories"])
    K = np.zeros((3 * n, 3 * n))
    for line in model["lateral_lines"]:
        a = math.radians(line["angle"])
        c, s = math.cos(a), math.sin(a)
        v = np.zeros(3 * n)
        for floor, sign in ((line["story"], 1.0), (line["story"] - 1, -1.0)):
            if floor >= 0:
                x, y = np.array(line["at"]) - np.array(stories[floor]["centre"])
                v[3 * floor : 3 * floor + 3] = sign * np.array([c, s, x * s - y * c])
        K += line["stiffness"] * np.outer(v, v)
    M = np.diag([x for story in stories for x in (story["mass"], story["mass"], story["inertia"])])
    import scipy.linalg

    w2, phi = scipy.linalg.eigh(K, M)
    w = np.sqrt(w2)
    r = np.zeros(3 * n)
    r[direction::3] = 1.0
    gamma = phi.T @ M @ r
    Sa = np.interp(2 * np.pi / w, CURVE["T"], CURVE["S_a"]) * G
    u = phi * (gamma * Sa / w2)
    f = M @ phi * (gamma * Sa)
    rho = np.array(
        [
            [
                8
                * 0.0025
                * (1 + min(a, b) / max(a, b))
                * (min(a, b) / max(a, b)) ** 1.5
                / (
                    (1 - (min(a, b) / max(a, b)) ** 2) ** 2
                    + 4 * 0.0025 * min(a, b) / max(a, b) * (1 + min(a, b) / max(a, b)) ** 2
                )
                for b in w
            ]
            for a in w
        ]
    )

    def cqc(values: np.ndarray) -> np.ndarray:
        return np.sqrt(np.einsum("im,mk,ik->i", values, rho, values))

    shear = np.array([sum(f[3 * j + direction] for j in range(i, n)) for i in range(n)])
    drifts = []
    for i in range(n):
        for x, y in stories[i]["corners"]:
            here = (
                u[3 * i] - (y - stories[i]["centre"][1]) * u[3 * i + 2]
                if direction == 0
                else u[3 * i + 1] + (x - stories[i]["centre"][0]) * u[3 * i + 2]
            )
            if i:
                k = i - 1
                here = here - (
                    u[3 * k] - (y - stories[k]["centre"][1]) * u[3 * k + 2]
                    if direction == 0
                    else u[3 * k + 1] + (x - stories[k]["centre"][0]) * u[3 * k + 2]
                )
            drifts.append(here)
    return {"shear": cqc(shear), "displacement": cqc(u[direction::3]), "drift": cqc(np.array(drifts))}


@pytest.mark.parametrize("direction", [0, 1])
def test_coupled_building_agrees_with_a_dense_route(direction: int) -> None:
    model = _eccentric(4)
    for i, story in enumerate(model["stories"]):
        story["centre"] = [0.3 * i, -0.2 * i]
    d = "XY"[direction]
    expected = _dense_response(model, direction)
    found = response(model, spectrum=CURVE, direction=d)
    assert [s["shear"][d] for s in found["stories"]] == pytest.approx(expected["shear"].tolist(), rel=1e-8)
    assert [s["displacement"][d] for s in found["stories"]] == pytest.approx(
        expected["displacement"].tolist(), rel=1e-8
    )
    assert [c[d] for s in found["stories"] for c in s["drift"]] == pytest.approx(expected["drift"].tolist(), rel=1e-8)


def test_frame_response_agrees_with_a_dense_route() -> None:
    model = small_building()
    dense = DenseFrame(model["frame"])
    T, shapes, _ = dense.modes()
    gamma = shapes.T @ dense.M @ dense.r
    for k, d in enumerate("XY"):
        Sa = np.interp(T, CURVE["T"], CURVE["S_a"]) * G
        rho = cqc_coefficients(2 * np.pi / T, 0.05)
        base = gamma[:, k] ** 2 * Sa
        expected = math.sqrt(base @ rho @ base)
        assert response(model, spectrum=CURVE, direction=d, modes=len(T))["base_shear"][d] == pytest.approx(
            expected, rel=1e-6
        )


def test_drift_is_combined_mode_by_mode_not_differenced() -> None:
    found = response(shear_building(6), spectrum=CURVE)
    displacement = [s["displacement"]["X"] for s in found["stories"]]
    by_difference = np.diff(displacement, prepend=0.0)
    own = [s["drift"][0]["X"] for s in found["stories"]]
    assert own[0] == pytest.approx(by_difference[0], rel=1e-9)
    # above the lowest story modes of opposite sign hide in the difference
    assert all(o > b * 1.001 for o, b in zip(own[2:], by_difference[2:], strict=True))


def test_residual_mass_makes_up_for_missing_modes() -> None:
    # with a flat spectrum and ABS the base shear is the whole mass times the ordinate, however few the modes
    model = shear_building(6)
    found = response(model, modes=3, residual_mass=True, combine="ABS")
    assert found["base_shear"]["X"] == pytest.approx(720 * G, rel=1e-9)
    without = response(model, modes=3)
    assert without["base_shear"]["X"] < found["base_shear"]["X"]
    assert any(w["code"] == "too_few_modes" for w in without["warnings"])


def test_accidental_eccentricity_as_static_moments_by_hand() -> None:
    # one story: moment e b V over the torsional stiffness of four lines of 40 MN/m at 5 m
    model = shear_building(1, 80_000.0, 120.0, half=5.0)
    plain, found = (response(model, eccentricity=e)["stories"][0] for e in (0.0, 0.05))
    V = 120 * G
    moment = 0.05 * 12.0 * V
    turn = moment / (4 * 40_000.0 * 25.0)
    assert found["displacement"]["RZ"] == pytest.approx(turn, rel=1e-9)
    assert found["drift"][0]["X"] == pytest.approx(plain["drift"][0]["X"] + turn * 6.0, rel=1e-9)
    edges = found["edges"]["X"]
    assert edges["ratio"] == pytest.approx(1 + turn * 6.0 / (V / 80_000.0), rel=1e-9)
    assert response(model, eccentricity=0.05)["base_shear"]["MZ"] == pytest.approx(moment, rel=1e-9)


def test_shifted_mass_agrees_with_a_model_whose_masses_are_shifted() -> None:
    model = _eccentric(3)
    found = response(model, spectrum=CURVE, eccentricity=0.05, eccentricity_as="mass")
    others = []
    for sign in (1, -1):
        moved = _eccentric(3)
        for story in moved["stories"]:
            story["centre"] = [0.0, sign * 0.05 * 12.0]
        others.append(response(moved, spectrum=CURVE))
    plain = response(model, spectrum=CURVE)
    for i in range(3):
        expected = max(r["stories"][i]["shear"]["X"] for r in (plain, *others))
        assert found["stories"][i]["shear"]["X"] == pytest.approx(expected, rel=1e-8)
        for c in range(4):
            drift = max(r["stories"][i]["drift"][c]["X"] for r in (plain, *others))
            assert found["stories"][i]["drift"][c]["X"] == pytest.approx(drift, rel=1e-8)


@pytest.mark.parametrize("count", [4, 9])
def test_shifted_floors_of_a_frame_agree_with_floors_given_elsewhere(count: int) -> None:
    # fewer modes than there are: the static displacements of the floors bring what the modes lack
    def moved(by: float) -> dict[str, Any]:
        model = small_building()
        model["frame"] |= {"member_mass": False, "masses": []}
        for floor in model["frame"]["floors"]:
            x, y = floor["centre"]
            floor["centre"] = [x, y + by]
        return model

    breadth = 5.0
    found = response(moved(0.0), spectrum=CURVE, modes=count, eccentricity=0.05, eccentricity_as="mass")
    each = [response(moved(sign * 0.05 * breadth), spectrum=CURVE, modes=count) for sign in (0, 1, -1)]
    for i in range(3):
        for what in ("force", "shear"):
            expected = max(r["stories"][i][what]["X"] for r in each)
            assert found["stories"][i][what]["X"] == pytest.approx(expected, rel=1e-6)
        for c in range(4):
            expected = max(r["stories"][i]["drift"][c]["X"] for r in each)
            assert found["stories"][i]["drift"][c]["X"] == pytest.approx(expected, rel=1e-6)


@given(st.lists(st.floats(0.5, 60.0), min_size=2, max_size=8), st.sampled_from(["CQC", "SRSS", "ABS"]), st.booleans())
def test_quantities_combined_together_are_those_combined_alone(omega: list[float], rule: Any, rigid: bool) -> None:
    own = ModalRule(rule, np.array(omega), 0.05, rigid)
    random = np.random.default_rng(len(omega))
    k = len(omega) + rigid
    values = {"base": random.standard_normal((k, 3)), "drift": random.standard_normal((k, 2, 4, 2))}
    together = own.of_each(values)
    for name, value in values.items():
        assert together[name].shape == value.shape[1:]
        assert together[name] == pytest.approx(own(value), rel=1e-12)


def test_both_directions_and_signs_of_a_mode() -> None:
    model = _eccentric(3)
    x, y = (response(model, spectrum=CURVE, direction=d) for d in "XY")
    both = response(model, spectrum=CURVE, direction="both", directions="100-30")
    for k in ("X", "Y", "MZ"):
        a, b = x["base_shear"][k], y["base_shear"][k]
        assert both["base_shear"][k] == pytest.approx(max(a + 0.3 * b, 0.3 * a + b), rel=1e-9)
    signed = response(model, spectrum=CURVE, sign_of_mode=1)
    first = modal(model)["modes"][0]["shape"]
    assert np.sign(signed["stories"][2]["displacement"]["X"]) == np.sign(
        first[2][0] * modal(model)["modes"][0]["gamma"]["X"]
    )
    assert abs(signed["stories"][2]["displacement"]["X"]) == pytest.approx(
        x["stories"][2]["displacement"]["X"], rel=1e-12
    )


def test_an_editions_curve_reduced_where_a_system_is_given() -> None:
    model = shear_building(3)
    site = {"S_S": 1.0, "S_1": 0.4, "T_L": 8.0, "site_class": "C"}
    parts = {"edition": "asce7-16", "site": site, "occupancy": {"risk_category": "II"}}
    elastic = response(model, spectrum=parts)
    reduced = response(model, spectrum={**parts, "system": {"X": {"R": 5.0}}})
    assert reduced["base_shear"]["X"] == pytest.approx(elastic["base_shear"]["X"] / 5.0, rel=1e-9)
    top = solve({"kind": "response", **model, **parts})
    assert top["base_shear"]["X"] == pytest.approx(elastic["base_shear"]["X"], rel=1e-12)
    T = [m["T"] for m in elastic["modes"]]
    curve = solve({"kind": "spectrum", **parts, "T": T})["elastic"]
    assert elastic["ordinates"]["X"] == pytest.approx(curve, rel=1e-12)


def test_a_curve_that_ends_before_the_longest_period_is_remarked() -> None:
    found = response(shear_building(8), spectrum={"T": [0.0, 0.4], "S_a": [1.0, 1.0]})
    assert any(w["code"] == "spectrum_ends" for w in found["warnings"])


# Static response


PARTS = {
    "edition": "asce7-16",
    "site": {"S_S": 1.0, "S_1": 0.4, "T_L": 8.0, "site_class": "C"},
    "occupancy": {"risk_category": "II"},
    "system": {d: {"period_type": "other", "R": 6.0} for d in "XY"},
}


def test_static_response_by_hand() -> None:
    model = shear_building(2, 80_000.0, 120.0, half=5.0)
    found = solve({"kind": "static_response", **PARTS, **model, "forces": {"X": [100.0, 200.0]}, "eccentricity": 0.05})
    plain, plus, minus = found["cases"]
    assert [s["displacement"]["X"] for s in plain["stories"]] == pytest.approx([300 / 80_000, 500 / 80_000], rel=1e-9)
    assert plain["stories"][0]["edges"]["X"]["ratio"] == pytest.approx(1.0, rel=1e-9)
    # story torques e b times the story shears; edge drift V/k +- torque / k_t * 6 m
    kt = 4 * 40_000.0 * 25.0
    turn = 0.05 * 12.0 * 300 / kt
    assert max(plus["stories"][0]["edges"]["X"]["drift"]) == pytest.approx(300 / 80_000 + turn * 6.0, rel=1e-9)
    assert max(minus["stories"][0]["edges"]["X"]["drift"]) == pytest.approx(
        max(plus["stories"][0]["edges"]["X"]["drift"]), rel=1e-9
    )
    ratio = 1 + turn * 6.0 / (300 / 80_000)
    assert plus["stories"][0]["edges"]["X"]["ratio"] == pytest.approx(ratio, rel=1e-9)
    assert plus["stories"][0]["A_x_first"] == pytest.approx(max(1.0, (ratio / 1.2) ** 2), rel=1e-9)


def test_amplification_is_repeated_until_it_stands() -> None:
    # lines close together: soft against twisting
    model = shear_building(1, 80_000.0, 120.0, half=2.0)
    found = solve({"kind": "static_response", **PARTS, **model, "forces": {"X": [300.0]}, "eccentricity": 0.05})
    case = found["cases"][1]["stories"][0]
    kt, V = 4 * 40_000.0 * 4.0, 300.0
    A = 1.0
    for _ in range(200):
        edge = V / 80_000 + A * 0.05 * 12.0 * V / kt * 6.0
        A = min(max((edge / (1.2 * V / 80_000)) ** 2, 1.0), 3.0)
    assert case["A_x_first"] == pytest.approx(((1 + 0.6 * 6 * 80_000 / kt) / 1.2) ** 2, rel=1e-9)
    assert case["A_x"] == pytest.approx(A, rel=1e-5)
    assert case["A_x"] > case["A_x_first"]
    assert found["cases"][1]["rounds"] > 2


def test_the_editions_own_forces_and_eccentricity_are_taken() -> None:
    model = shear_building(4)
    static = solve(
        {
            "kind": "static",
            **PARTS,
            "stories": [{"name": s["name"], "height": 3.5, "weight": 120 * G} for s in model["stories"]],
            "period": {"X": {"analysis": 0.5}, "Y": {"analysis": 0.5}},
        }
    )
    found = solve(
        {"kind": "static_response", **PARTS, **model, "period": {"X": {"analysis": 0.5}, "Y": {"analysis": 0.5}}}
    )
    assert found["forces"]["X"] == pytest.approx(static["X"]["F"], rel=1e-9)
    assert found["eccentricity"] == 0.05
    assert [(c["direction"], c["eccentricity"]) for c in found["cases"]] == [
        ("X", 0.0),
        ("X", 0.05),
        ("X", -0.05),
        ("Y", 0.0),
        ("Y", 0.05),
        ("Y", -0.05),
    ]
    assert found["cases"][0]["base_shear"]["X"] == pytest.approx(static["X"]["V"], rel=1e-9)


def test_a_vertical_spectrum_by_edition_is_the_vertical_one() -> None:
    # one story of 0.20 s: k = (2 pi/0.2)^2 m.  EN type 1, ground C, 0.25 g: S_ve = 0.9 x 0.25 x 3.0 x 0.15/0.20 =
    # 0.50625
    model = shear_building(1, (2 * math.pi / 0.2) ** 2 * 120.0, 120.0)
    edition = {
        "edition": "en1998-1",
        "site": {"a_gR": 0.25, "ground_type": "C", "spectrum_type": 1},
        "occupancy": {"importance_class": "II"},
    }
    found = response(model, spectrum=edition, vertical_spectrum=edition, direction="both", directions="100-30-30")
    assert found["ordinates"]["X"][0] == pytest.approx(0.25 * 1.15 * 2.5, rel=1e-9)
    assert found["ordinates"]["Z"][0] == pytest.approx(0.50625, rel=1e-9)
    # with a system the design spectrum, q at most 1.5: 0.225 x 2.5/1.5 x 0.15/0.2
    reduced = edition | {"system": {"X": {"q": 4.0}}}
    designed = response(model, spectrum=edition, vertical_spectrum=reduced, direction="both", directions="100-30-30")
    assert designed["ordinates"]["Z"][0] == pytest.approx(0.28125, rel=1e-9)
    with pytest.raises(InputRefused, match="no vertical spectrum"):
        response(
            model,
            spectrum=edition,
            direction="both",
            vertical_spectrum={
                "edition": "asce7-10",
                "site": {"S_S": 1.0, "S_1": 0.4, "T_L": 8.0, "site_class": "C"},
                "occupancy": {"risk_category": "II"},
            },
        )


def _off_centre(count: int, k: tuple[float, float], at: tuple[float, float]) -> dict[str, Any]:
    """Two lines along X at y = `at` with stiffnesses `k`, two alike along Y; the centre of mass in the middle."""
    model = shear_building(count)
    model["lateral_lines"] = [
        line
        for i in range(count)
        for line in (
            {"story": i, "at": [0.0, at[0]], "angle": 0.0, "stiffness": k[0]},
            {"story": i, "at": [0.0, at[1]], "angle": 0.0, "stiffness": k[1]},
            {"story": i, "at": [-5.0, 0.0], "angle": 90.0, "stiffness": 40_000.0},
            {"story": i, "at": [5.0, 0.0], "angle": 90.0, "stiffness": 40_000.0},
        )
    ]
    return model


INDIAN = {"edition": "is1893-2016", "site": {"zone": "IV", "soil": "II"}, "occupancy": {"use": "other"}}


def test_design_eccentricity_of_is_1893() -> None:
    """Stiffnesses 60 and 20 MN/m at y = -5 and +5: centre of rigidity at (60 x -5 + 20 x 5)/80 = -2.5, so e_s = 2.5 m.

    b = 12 m: e_d = 1.5 x 2.5 + 0.05 x 12 = 4.35 m, or 2.5 - 0.6 = 1.9 m.
    """
    model = _off_centre(3, (60_000.0, 20_000.0), (-5.0, 5.0))
    found = solve(
        {"kind": "static_response", **INDIAN, **model, "forces": {"X": [100.0, 200.0, 300.0]}, "direction": "X"}
    )
    assert found["eccentricity_factor"] == 1.5
    plain, add, off = found["cases"]
    for row in add["stories"]:
        assert (row["e_s"], row["e_d"]) == (pytest.approx(2.5, rel=1e-9), pytest.approx(4.35, rel=1e-9))
    for row in off["stories"]:
        assert row["e_d"] == pytest.approx(1.9, rel=1e-9)
    # rotation of the lowest floor by hand: K_theta = 60 x 2.5^2 + 20 x 7.5^2 + 2 x 40 x 5^2 MN m; force 600 kN at e_d
    K_theta = 60_000 * 2.5**2 + 20_000 * 7.5**2 + 2 * 40_000 * 25
    for case, e_d in ((plain, 2.5), (add, 4.35), (off, 1.9)):
        assert abs(case["stories"][0]["displacement"]["RZ"]) == pytest.approx(600.0 * e_d / K_theta, rel=1e-9)
    # other codes keep the forces at the centre of mass, with the accidental eccentricity either way
    assert (
        solve({"kind": "static_response", **PARTS, **model, "forces": {"X": [100.0] * 3}, "direction": "X"})["cases"][
            1
        ]["stories"][0]["e_d"]
        is None
    )


def test_a_regular_model_has_no_amplification_and_an_irregular_one_at_every_level() -> None:
    square = solve({"kind": "static_response", **PARTS, **shear_building(3), "forces": {"X": [100.0] * 3}})
    assert square["torsion_irregular"] is False
    assert all(row["A_x"] in (None, 1.0) for case in square["cases"] for row in case["stories"])
    off = solve(
        {
            "kind": "static_response",
            **PARTS,
            **_off_centre(3, (70_000.0, 10_000.0), (-5.0, 5.0)),
            "forces": {"X": [100.0] * 3},
        }
    )
    assert off["torsion_irregular"] is True
    assert (
        min(
            row["A_x"]
            for case in off["cases"]
            if case["direction"] == "X" and case["eccentricity"]
            for row in case["stories"]
        )
        > 1.0
    )


def test_stiffness_in_plan_of_the_model_decides_regularity_of_en_1998_1() -> None:
    """As above: e_0y = 2.5 m; r_y^2 = K_theta/K_x about the centre of rigidity = 3.5e6/80e3: r_y = 6.614 m.

    l_s = sqrt(39) = 6.245 m from the inertia; 2.5/6.614 = 0.378 exceeds 0.30, r_y/l_s = 1.059 is enough.
    """
    model = _off_centre(3, (60_000.0, 20_000.0), (-5.0, 5.0))
    found = solve({"kind": "irregularity", "edition": "en1998-1", **model})
    tests = {t["words"]: t for t in found["plan_regularity"]}
    K_theta = 60_000 * 2.5**2 + 20_000 * 7.5**2 + 2 * 40_000 * 25
    assert tests["e_0y / r_y"]["value"] == pytest.approx(2.5 / math.sqrt(K_theta / 80_000), rel=1e-9)
    assert tests["r_y / l_s"]["value"] == pytest.approx(math.sqrt(K_theta / 80_000) / math.sqrt(39.0), rel=1e-9)
    # symmetric the other way: r_x^2 = K_theta/80e3 with the same stiffness
    assert tests["e_0x / r_x"]["value"] == pytest.approx(0.0, abs=1e-9)
    assert (tests["e_0y / r_y"]["met"], tests["r_y / l_s"]["met"], found["regular_in_plan"]) == (False, True, False)
    assert found["torsionally_flexible"] is False


def test_second_order_lengthens_the_static_drifts() -> None:
    model = shear_building(1, 8_000.0, 120.0)
    model["stories"][0]["gravity"] = 5_600.0
    ask = {"kind": "static_response", **PARTS, "forces": {"X": [100.0]}, "eccentricity": 0.0}
    assert solve({**ask, **model, "p_delta": True})["cases"][0]["stories"][0]["displacement"]["X"] == pytest.approx(
        100 / (8_000 - 5_600 / 3.5), rel=1e-9
    )


# Time history


def _two_degrees(t: np.ndarray, amplitude: float, w: float, zeta: float) -> np.ndarray:
    """Displacements of a two-story shear building (k = 80 MN/m, m = 120 t) under a sine, by a general integrator."""
    k, m = 80_000.0, 120.0
    K = k * np.array([[2.0, -1.0], [-1.0, 1.0]])
    w2, phi = np.linalg.eigh(K / m)
    C = m * phi @ np.diag(2 * zeta * np.sqrt(w2)) @ phi.T

    def rate(time: float, state: np.ndarray) -> np.ndarray:
        u, v = state[:2], state[2:]
        return np.concatenate([v, (-C @ v - K @ u) / m - amplitude * math.sin(w * time)])

    found = scipy.integrate.solve_ivp(rate, (0, t[-1]), np.zeros(4), t_eval=t, rtol=1e-10, atol=1e-12)
    return np.asarray(found.y[:2].T)


def test_exact_history_of_two_degrees_of_freedom() -> None:
    model = shear_building(2)
    found = solve(
        {
            "kind": "time_history",
            **model,
            "direction": "X",
            "harmonic": {"amplitude": 0.1, "period": 0.6, "duration": 6.0},
        }
    )
    t = np.array(found["histories"]["t"])
    exact = _two_degrees(t, 0.1 * G, 2 * math.pi / 0.6, 0.05)
    # the sine is read linearly between hundredths of its period: within 2e-3 of its size
    for i, name in enumerate(("L1", "L2")):
        assert (
            np.abs(np.array(found["histories"]["displacement"][name]) - exact[:, i]).max()
            < 2e-3 * np.abs(exact[:, i]).max()
        )
    assert found["stories"][1]["displacement"]["X"] == pytest.approx(np.abs(exact[:, 1]).max(), rel=2e-3)


def test_newmark_of_two_degrees_of_freedom_converges_to_the_exact_at_second_order() -> None:
    omega = np.sqrt(np.linalg.eigvalsh(80_000 / 120 * np.array([[2.0, -1.0], [-1.0, 1.0]])))
    zeta = np.full(2, 0.05)
    errors = []
    for dt in (0.02, 0.01, 0.005):
        t = np.arange(0, 4 + dt / 2, dt)
        a = np.sin(2 * math.pi * t / 0.8)
        # the reference on the same points: only the method differs
        exact, _ = exact_oscillators(omega, zeta, dt, a)
        found, _ = newmark_oscillators(omega, zeta, dt, a, Newmark())
        errors.append(np.abs(found - exact).max() / np.abs(exact).max())
    assert errors[2] < 5e-3
    assert errors[0] / errors[1] == pytest.approx(4.0, rel=0.25)
    assert errors[1] / errors[2] == pytest.approx(4.0, rel=0.25)


def test_free_vibration_of_one_oscillator_in_closed_form() -> None:
    # a step of acceleration: d = -(a/w^2) (1 - e^(-zwt) (cos wd t + z/sqrt(1-z^2) sin wd t))
    w, z, dt = 7.0, 0.08, 0.05
    t = np.arange(200) * dt
    d, v = exact_oscillators(np.array([w]), np.array([z]), dt, np.ones(200))
    wd = w * math.sqrt(1 - z * z)
    expected = -(1 - np.exp(-z * w * t) * (np.cos(wd * t) + z / math.sqrt(1 - z * z) * np.sin(wd * t))) / w**2
    assert d[:, 0] == pytest.approx(expected, abs=1e-12)
    assert v[:, 0] == pytest.approx(-np.exp(-z * w * t) * np.sin(wd * t) / wd, abs=1e-12)


def test_rayleigh_damping_meets_its_two_frequencies_and_is_less_between() -> None:
    found = rayleigh_damping(np.array([2.0, 5.0, 12.0, 30.0]), (2.0, 12.0), 0.05)
    assert found[[0, 2]] == pytest.approx([0.05, 0.05])
    assert found[1] < 0.05 < found[3]


def test_newmark_refuses_an_unstable_step_and_says_what_to_do() -> None:
    model = shear_building(3)
    ask = {"kind": "time_history", **model, "record": {"a": [0.0, 0.1, 0.0], "unit": "g", "dt": 0.2}}
    with pytest.raises(InputRefused) as refused:
        solve({**ask, "newmark": {"gamma": 0.5, "beta": 0.0}})
    assert refused.value.problems[0].path == "/newmark"
    assert solve({**ask, "newmark": {}})["base_shear"]["X"] > 0


def test_central_difference_is_stable_up_to_two_over_omega() -> None:
    assert Newmark(0.5, 0.0).stable_step(10.0, 0.05) == pytest.approx(0.2)
    assert math.isinf(Newmark().stable_step(10.0, 0.05))


def test_units_and_times_of_a_record() -> None:
    model = shear_building(2)
    a = [0.0, 0.1, -0.05, 0.2, 0.0, 0.0]
    one = solve({"kind": "time_history", **model, "record": {"a": a, "unit": "g", "dt": 0.02}})
    same = solve(
        {
            "kind": "time_history",
            **model,
            "record": {"a": [x * G * 100 for x in a], "unit": "cm/s2", "t": [0.02 * i for i in range(6)]},
        }
    )
    assert same["base_shear"]["X"] == pytest.approx(one["base_shear"]["X"], rel=1e-9)
    for wrong, path in (
        ({"a": a, "unit": "g"}, "/record/dt"),
        ({"a": a, "unit": "g", "t": [0, 1]}, "/record/t"),
        ({"a": a, "unit": "g", "t": [0, 1, 2, 2, 3, 4]}, "/record/t"),
    ):
        with pytest.raises(InputRefused) as refused:
            solve({"kind": "time_history", **model, "record": wrong})
        assert refused.value.problems[0].path == path


def test_a_history_spot_checks_the_spectrum_result() -> None:
    # one degree of freedom: the record's own spectrum gives the same peak
    found = solve(
        {"kind": "time_history", **shear_building(1), "harmonic": {"amplitude": 0.1, "period": 0.31, "duration": 4.0}}
    )
    assert found["by_spectrum"]["base_shear"]["X"] == pytest.approx(found["base_shear"]["X"], rel=1e-6)


def test_equilibrium_of_the_history_at_every_instant() -> None:
    found = solve(
        {"kind": "time_history", **_eccentric(3), "harmonic": {"amplitude": 0.2, "period": 0.5, "duration": 3.0}}
    )
    assert found["histories"]["shear"]["L1"] == pytest.approx(found["histories"]["base_shear"]["X"], abs=1e-6)
    assert found["stories"][0]["shear"]["X"] == pytest.approx(found["base_shear"]["X"], rel=1e-12)
