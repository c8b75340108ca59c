"""Modes against closed forms and against a dense solution by another route."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
from dense import DenseFrame
from hypothesis import given, settings
from hypothesis import strategies as st
from modelling import frame, member, modal, node, periods, section, shear_building, small_building, support
from plumb_core.documents.model import Frame
from plumb_core.dynamics import modes as modes_module
from plumb_core.dynamics.factor import Factor, NotStable, negative_eigenvalues
from plumb_core.dynamics.frame import structure_of_frame
from plumb_core.dynamics.modes import find_modes, kind_of, modes_to_target
from plumb_core.solve import solve


def _uniform(n: int, k: float, m: float) -> tuple[np.ndarray, np.ndarray]:
    """Periods and effective masses (of n m) of a uniform shear building, in closed form.

    omega_r = 2 sqrt(k/m) sin((2r-1) pi / (2 (2n+1))); the shape is sin(j (2r-1) pi / (2n+1)).
    """
    r = np.arange(1, n + 1)
    omega = 2 * np.sqrt(k / m) * np.sin((2 * r - 1) * np.pi / (2 * (2 * n + 1)))
    shapes = np.sin(np.outer(r, 2 * r - 1) * np.pi / (2 * n + 1))
    share = shapes.sum(axis=0) ** 2 / (shapes**2).sum(axis=0) / n
    return 2 * np.pi / omega, share


@pytest.mark.parametrize("n", [1, 2, 5, 30])
def test_uniform_shear_building_has_its_closed_form_periods_and_effective_masses(n: int) -> None:
    found = modal(shear_building(n, 80_000.0, 120.0))
    T, share = _uniform(n, 80_000.0, 120.0)
    along_x = [m for m in found["modes"] if m["kind"] == "X"] or found["modes"]
    # X and Y are alike: each period comes twice, and each pair shares the mass of its two directions
    both = sorted((m for m in found["modes"] if m["kind"] != "twist"), key=lambda m: -m["T"])
    assert len(both) == 2 * n
    assert along_x
    for r in range(n):
        pair = both[2 * r : 2 * r + 2]
        assert [m["T"] for m in pair] == pytest.approx([T[r], T[r]], rel=1e-9)
        assert sum(m["mass_ratio"]["X"] for m in pair) == pytest.approx(share[r], rel=1e-7)
        assert sum(m["mass_ratio"]["Y"] for m in pair) == pytest.approx(share[r], rel=1e-7)


def test_twist_of_the_uniform_shear_building() -> None:
    # torsional stiffness of a story: four lines of k/2 at 5 m; inertia 39 m2 times the mass
    found = modal(shear_building(4, 80_000.0, 120.0, half=5.0))
    T, share = _uniform(4, 4 * 40_000.0 * 25.0, 120.0 * 39.0)
    twist = [m for m in found["modes"] if m["kind"] == "twist"]
    assert [m["T"] for m in twist] == pytest.approx(T.tolist(), rel=1e-9)
    assert [m["mass_ratio"]["RZ"] for m in twist] == pytest.approx(share.tolist(), rel=1e-7)


def test_cantilever_with_a_tip_mass() -> None:
    # T = 2 pi sqrt(m L^3 / 3EI) for a massless cantilever
    L, EI, m = 4.0, 2.0e8 * 1e-3, 10.0
    model = frame(
        [node("0", 0, 0, 0), node("1", 0, 0, L)],
        [member("c", "0", "1")],
        [support("0")],
        masses=[{"node": "1", "mx": m, "my": m}],
    )
    expected = 2 * math.pi * math.sqrt(m * L**3 / (3 * EI))
    found = modal(model, modes=2)
    assert periods(found) == pytest.approx([expected, expected], rel=1e-9)
    assert found["cumulative"]["X"][-1] == pytest.approx(1.0)


def test_timoshenko_cantilever() -> None:
    # tip flexibility L^3/3EI + L/GA_s, with shear areas that differ by direction
    L, m = 1.5, 10.0
    G = 2.0e8 / 2.6
    for axis, key in (("X", "Az"), ("Y", "Ay")):
        model = frame(
            [node("0", 0, 0, 0), node("1", 0, 0, L)],
            [member("c", "0", "1")],
            [support("0")],
            sections=[section(Ay=0.008, Az=0.003)],
            masses=[{"node": "1", "mx": m, "my": m}],
        )
        area = {"Az": 0.003, "Ay": 0.008}[key]
        flexibility = L**3 / (3 * 2.0e8 * 1e-3) + L / (G * area)
        found = next(x for x in modal(model, modes=2)["modes"] if x["kind"] == axis)
        assert found["T"] == pytest.approx(2 * math.pi * math.sqrt(m * flexibility), rel=1e-9)


def _portal(beam: float, column: float = 1e-3, h: float = 3.0, span: float = 6.0) -> float:
    """Lateral stiffness that the model finds for a fixed-base portal in X, kN/m (axially rigid)."""
    nodes = [node("a", 0, 0, 0), node("b", span, 0, 0), node("c", 0, 0, h), node("d", span, 0, h)]
    sections = [section(A=1e4, I=column), {**section(A=1e4, I=beam), "id": "2"}]
    members = [member("1", "a", "c"), member("2", "b", "d"), member("3", "c", "d", section="2")]
    model = frame(
        nodes,
        members,
        [support("a"), support("b"), *(support(n, "uy rx rz") for n in "cd")],
        sections=sections,
        masses=[{"node": n, "mx": 5.0} for n in "cd"],
    )
    T = modal(model, modes=1)["modes"][0]["T"]
    return 10.0 * (2 * math.pi / T) ** 2


@pytest.mark.parametrize("ratio", [1e-6, 0.2, 1.0, 5.0, 1e6])
def test_portal_with_stiff_and_flexible_beam(ratio: float) -> None:
    # k = 24 EI_c/h^3 (1 + 6 g)/(4 + 6 g) with g = (I_b/span)/(I_c/h): 6 EI/h^3 without beam, 24 EI/h^3 with a rigid one
    h, span, EI = 3.0, 6.0, 2.0e8 * 1e-3
    g = ratio * h / span
    expected = 24 * EI / h**3 * (1 + 6 * g) / (4 + 6 * g)
    assert _portal(ratio * 1e-3, h=h, span=span) == pytest.approx(expected, rel=2e-5)


def test_one_story_with_an_eccentric_plan_has_the_closed_form_coupled_modes() -> None:
    # two degrees of freedom (Y, RZ): | k_y - m w^2, k_y e ; k_y e, k_t - J w^2 | = 0
    m, J, k1, k2, kx, half = 80.0, 2600.0, 60_000.0, 30_000.0, 45_000.0, 7.0
    model = {
        "stories": [{"name": "L1", "height": 4.0, "mass": m, "inertia": J, "centre": [0.0, 0.0]}],
        "lateral_lines": [
            {"story": 0, "at": [-half, 0.0], "angle": 90.0, "stiffness": k1},
            {"story": 0, "at": [half, 0.0], "angle": 90.0, "stiffness": k2},
            {"story": 0, "at": [0.0, 5.0], "angle": 0.0, "stiffness": kx},
            {"story": 0, "at": [0.0, -5.0], "angle": 0.0, "stiffness": kx},
        ],
    }
    ky, kye = k1 + k2, half * (k2 - k1)
    kt = half**2 * (k1 + k2) + 25.0 * 2 * kx
    a, b, c = m * J, -(ky * J + kt * m), ky * kt - kye**2
    roots = [(-b - s * math.sqrt(b * b - 4 * a * c)) / (2 * a) for s in (1, -1)]
    found = modal(model)
    coupled = [x for x in found["modes"] if x["mass_ratio"]["X"] < 1e-9]
    assert [x["T"] for x in coupled] == pytest.approx([2 * math.pi / math.sqrt(w) for w in roots], rel=1e-10)
    # effective mass: shape (1, t) with t = (m w^2 - ky)/kye
    for x, w in zip(coupled, roots, strict=True):
        t = (m * w - ky) / kye
        assert x["mass_ratio"]["Y"] == pytest.approx(m / (m + J * t * t), rel=1e-8)
        assert x["mass_ratio"]["RZ"] == pytest.approx(J * t * t / (m + J * t * t), rel=1e-8)


def test_leaning_column_lengthens_the_period_as_its_closed_form_says() -> None:
    # a story of stiffness k that carries P at height h has k - P/h
    k, m, h, P = 5_000.0, 100.0, 4.0, 3_000.0
    model = shear_building(1, k, m)
    model["stories"][0] |= {"height": h, "gravity": P}
    softened = modal(model, p_delta=True)
    expected = 2 * math.pi * math.sqrt(m / (k - P / h))
    assert [x["T"] for x in softened["modes"] if x["kind"] != "twist"] == pytest.approx([expected] * 2, rel=1e-10)


def test_leaning_column_beside_a_frame() -> None:
    # a cantilever column of 3EI/h^3 and a pinned one that carries the weight, joined by a rigid floor
    h, m = 3.0, 60.0
    nodes = [node("a", 0, 0, 0), node("b", 5, 0, 0), node("c", 0, 0, h), node("d", 5, 0, h)]
    pin = {"release_i": ["rx", "ry", "rz"], "release_j": ["ry", "rz"]}
    model = frame(
        nodes,
        [member("1", "a", "c"), member("2", "b", "d", **pin)],
        [support("a"), support("b", "ux uy uz rx ry rz")],
        diaphragms=[{"id": "L1", "nodes": ["c", "d"]}],
        floors=[{"diaphragm": "L1", "mass": m, "inertia": 100.0, "centre": [2.5, 0.0], "gravity": 4000.0}],
    )
    k = 3 * 2.0e8 * 1e-3 / h**3
    plain = next(x for x in modal(model)["modes"] if x["kind"] == "X")
    soft = next(x for x in modal(model, p_delta=True)["modes"] if x["kind"] == "X")
    assert plain["T"] == pytest.approx(2 * math.pi * math.sqrt(m / k), rel=1e-9)
    assert soft["T"] == pytest.approx(2 * math.pi * math.sqrt(m / (k - 4000.0 / h)), rel=1e-9)


def test_thrust_in_a_member_without_a_diaphragm_softens_it() -> None:
    # mass m at the tip of a cantilever: k - m g / L by the turning of its chord
    L, m = 5.0, 40.0
    model = frame(
        [node("0", 0, 0, 0), node("1", 0, 0, L)],
        [member("c", "0", "1")],
        [support("0")],
        masses=[{"node": "1", "mx": m, "my": m}],
        p_delta=True,
    )
    k = 3 * 2.0e8 * 1e-3 / L**3 - m * 9.80665 / L
    assert periods(modal(model, modes=2))[0] == pytest.approx(2 * math.pi * math.sqrt(m / k), rel=1e-9)


def test_a_frame_agrees_with_a_dense_solution_by_another_route() -> None:
    model = small_building()
    T, _, share = DenseFrame(model["frame"]).modes()
    found = modal(model, modes=len(T))
    assert len(found["modes"]) == len(T)
    assert periods(found) == pytest.approx(T.tolist(), rel=1e-6)
    for k, d in enumerate("XY"):
        assert [m["mass_ratio"][d] for m in found["modes"][:20]] == pytest.approx(
            share[:20, k].tolist(), rel=1e-5, abs=1e-9
        )
    assert found["cumulative"]["X"][-1] == pytest.approx(1.0, abs=1e-9)
    assert found["cumulative"]["RZ"][-1] == pytest.approx(1.0, abs=1e-9)


def test_offsets_stiffen_like_a_shorter_member() -> None:
    # rigid for 0.5 m at the foot and 0.4 m at the top of 3 m: by hand, a portal column between rigid floors
    h, m, foot, top = 3.0, 20.0, 0.5, 0.4
    model = frame(
        [node("0", 0, 0, 0), node("1", 0, 0, h)],
        [member("c", "0", "1", offset_i=[0, 0, foot], offset_j=[0, 0, -top])],
        [support("0"), support("1", "uy rx ry rz uz")],
        masses=[{"node": "1", "mx": m}],
    )
    clear = h - foot - top
    assert modal(model, modes=1)["modes"][0]["T"] == pytest.approx(
        2 * math.pi * math.sqrt(m * clear**3 / (12 * 2.0e8 * 1e-3)), rel=1e-9
    )


def test_roll_turns_the_strong_axis() -> None:
    def stiffness(roll: float, axis: str) -> float:
        model = frame(
            [node("0", 0, 0, 0), node("1", 0, 0, 3)],
            [member("c", "0", "1", roll=roll)],
            [support("0")],
            sections=[{**section(), "Iy": 4e-3, "Iz": 1e-3}],
            masses=[{"node": "1", "mx": 1.0, "my": 1.0}],
        )
        T = next(x["T"] for x in modal(model, modes=2)["modes"] if x["kind"] == axis)
        return (2 * math.pi / T) ** 2

    # Iy bends in the local x-z plane; a vertical member's local z is along -X
    assert stiffness(0, "X") == pytest.approx(3 * 2.0e8 * 4e-3 / 27, rel=1e-9)
    assert stiffness(90, "X") == pytest.approx(3 * 2.0e8 * 1e-3 / 27, rel=1e-9)


def test_cracked_stiffness_counts_by_group_but_not_in_the_mass() -> None:
    model = frame(
        [node("0", 0, 0, 0), node("1", 0, 0, 3)],
        [member("c", "0", "1", group="columns")],
        [support("0")],
        member_mass=True,
        vertical_mass=False,
    )
    whole = modal(model, modes=2)
    model["frame"]["stiffness_factors"] = {"columns": {"Iy": 0.7, "Iz": 0.7}}
    cracked = modal(model, modes=2)
    assert periods(cracked)[0] / periods(whole)[0] == pytest.approx(1 / math.sqrt(0.7), rel=1e-9)
    assert cracked["mass"] == whole["mass"]
    assert whole["mass"]["X"] == pytest.approx(7.85 * 0.02 * 3 / 2)


@pytest.mark.parametrize(("way", "share"), [("half", 0.5), ("both", 1.0), ("none", 0.0)])
def test_tension_only_members_act_as_declared_and_it_is_said(way: str, share: float) -> None:
    nodes = [node("0", 0, 0, 0), node("1", 0, 0, 3), node("2", 4, 0, 0)]
    pins = {"release_i": ["ry", "rz"], "release_j": ["ry", "rz"]}
    model = frame(
        nodes,
        [member("c", "0", "1"), member("d", "2", "1", axial="tension_only", **pins)],
        [support("0"), support("2"), support("1", "uy uz rx rz")],
        masses=[{"node": "1", "mx": 10.0}],
        tension_only=way,
    )
    found = modal(model, modes=1)
    EA_L, c = 2.0e8 * 0.02 / 5.0, 4.0 / 5.0
    k = 3 * 2.0e8 * 1e-3 / 27 + share * EA_L * c * c
    assert found["modes"][0]["T"] == pytest.approx(2 * math.pi * math.sqrt(10.0 / k), rel=1e-9)
    assert any(w["code"] == "tension_only" for w in found["warnings"])


@pytest.mark.parametrize(("way", "share"), [("half", 0.5), ("both", 1.0)])
def test_a_tension_only_member_bends_at_its_share_too(way: str, share: float) -> None:
    # a cantilever with shear deformation: 1/k = L^3 / (3 EI) + L / (G A_s), all of it at the member's share
    column = member("c", "0", "1", axial="tension_only")
    model = frame(
        [node("0", 0, 0, 0), node("1", 0, 0, 3)],
        [column],
        [support("0")],
        sections=[section(Ay=0.01, Az=0.01)],
        masses=[{"node": "1", "mx": 10.0}],
        tension_only=way,
    )
    G = 2.0e8 / 2.6
    k = share / (27 / (3 * 2.0e8 * 1e-3) + 3 / (G * 0.01))
    assert periods(modal(model, modes=1))[0] == pytest.approx(2 * math.pi * math.sqrt(10.0 / k), rel=1e-9)


def test_two_towers_on_a_podium_stand_on_it_and_not_on_each_other() -> None:
    corners = [(x, y) for x in (0.0, 6.0) for y in (0.0, 5.0)]
    nodes, members, diaphragms, floors, supports = [], [], [], [], []
    for tower, east in (("W", 0.0), ("E", 30.0)):
        for k in range(4):
            for c, (x, y) in enumerate(corners):
                nodes.append(node(f"{tower}{k}{c}", east + x, y, 3.0 * k))
                if k:
                    members.append(member(f"{tower}{k}{c}", f"{tower}{k - 1}{c}", f"{tower}{k}{c}"))
                else:
                    supports.append(support(f"{tower}{k}{c}"))
    rows = [("P", ["W1", "E1"]), ("W2", ["W2"]), ("E2", ["E2"]), ("W3", ["W3"]), ("E3", ["E3"])]
    for name, parts in rows:
        diaphragms.append({"id": name, "nodes": [f"{part}{c}" for part in parts for c in range(4)]})
        floors.append({"diaphragm": name, "mass": 30.0})
    structure = structure_of_frame(
        Frame.model_validate(frame(nodes, members, supports, diaphragms=diaphragms, floors=floors)["frame"])
    )
    below = {name: structure.floors.below[k] for k, name in enumerate(structure.floors.names)}
    named = {name: structure.floors.names[b] if b >= 0 else None for name, b in below.items()}
    assert named == {"P": None, "W2": "P", "E2": "P", "W3": "W2", "E3": "E2"}
    assert structure.floors.breadth.tolist() == [[5.0, 36.0]] + [[5.0, 6.0]] * 4


def test_springs_under_a_rigid_block() -> None:
    # a stiff column on a spring that turns: T = 2 pi sqrt(m h^2 / k_r)
    model = frame(
        [node("0", 0, 0, 0), node("1", 0, 0, 3)],
        [member("c", "0", "1")],
        [{"node": "0", "fixed": ["ux", "uy", "uz", "rx", "rz"], "springs": {"ry": 900.0}}],
        sections=[section(A=10.0, I=10.0)],
        masses=[{"node": "1", "mx": 2.0}],
    )
    assert modal(model, modes=1)["modes"][0]["T"] == pytest.approx(2 * math.pi * math.sqrt(2.0 * 9.0 / 900.0), rel=1e-5)


def _turned(model: dict[str, Any], degrees: float) -> dict[str, Any]:
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))

    def turn(p: list[float]) -> list[float]:
        return [c * p[0] - s * p[1], s * p[0] + c * p[1], *p[2:]]

    return {
        "stories": [
            {**x, "centre": turn(x["centre"]), "corners": [turn(p) for p in x["corners"]]} for x in model["stories"]
        ],
        "lateral_lines": [{**x, "at": turn(x["at"]), "angle": x["angle"] + degrees} for x in model["lateral_lines"]],
    }


@settings(max_examples=20, deadline=None)
@given(st.floats(-180, 180), st.floats(0.5, 6.0))
def test_turning_the_building_turns_its_results(degrees: float, off: float) -> None:
    model = shear_building(3)
    for line in model["lateral_lines"][:2]:
        line["at"] = [line["at"][0], line["at"][1] + off]
    a, b = modal(model), modal(_turned(model, degrees))
    assert periods(b) == pytest.approx(periods(a), rel=1e-8)
    # the sum over a pair of directions does not depend on how they lie
    for x, y in zip(a["modes"], b["modes"], strict=True):
        both = x["mass_ratio"]["X"] + x["mass_ratio"]["Y"]
        assert y["mass_ratio"]["X"] + y["mass_ratio"]["Y"] == pytest.approx(both, abs=1e-6)
        assert y["mass_ratio"]["RZ"] == pytest.approx(x["mass_ratio"]["RZ"], abs=1e-6)


@settings(max_examples=15, deadline=None)
@given(st.floats(1e-3, 1e3), st.floats(1e-2, 1e2))
def test_periods_scale_with_mass_and_stiffness(mass: float, stiffness: float) -> None:
    base = periods(modal(shear_building(3)))
    scaled = periods(modal(shear_building(3, 80_000.0 * stiffness, 120.0 * mass)))
    assert scaled == pytest.approx([t * math.sqrt(mass / stiffness) for t in base], rel=1e-9)


def test_shares_of_all_modes_sum_to_one_and_never_pass_it() -> None:
    found = modal(small_building(), modes=10_000 // 2)
    for d in ("X", "Y", "RZ"):
        assert all(b >= a for a, b in zip(found["cumulative"][d], found["cumulative"][d][1:], strict=False))
        assert found["cumulative"][d][-1] == pytest.approx(1.0, abs=1e-9)
    assert any(w["code"] == "fewer_modes" for w in found["warnings"])


def test_kinds_by_share() -> None:
    assert kind_of([0.7, 0.0, 0.1]) == "X"
    assert kind_of([0.0, 0.02, 0.001]) == "Y"
    assert kind_of([0.1, 0.1, 0.1]) == "mixed"
    assert kind_of([0.0, 0.0, 0.5]) == "twist"
    assert kind_of([0.1, 0.0, 0.0], at_floors=0.2) == "local"


def test_modes_until_the_target_is_met_and_no_more() -> None:
    found = modal(small_building(), target=0.95)
    last = len(found["modes"])
    assert min(found["cumulative"][d][-1] for d in "XY") >= 0.95
    assert min(found["cumulative"][d][last - 2] for d in "XY") < 0.95
    assert found["reached_at"] == {
        d: next(i for i, c in enumerate(found["cumulative"][d], 1) if c >= 0.95) for d in "XY"
    }
    too_few = modal(shear_building(12), modes=2)
    assert too_few["enough"] == {"X": False, "Y": False}
    assert any(w["code"] == "too_few_modes" for w in too_few["warnings"])


def test_ritz_vectors_hold_the_mass_with_fewer_modes() -> None:
    model = small_building()
    exact, ritz = modal(model, modes=12), modal(model, modes=12, method="ritz")
    assert periods(ritz)[:3] == pytest.approx(periods(exact)[:3], rel=1e-6)
    assert min(ritz["cumulative"][d][-1] for d in "XY") >= min(exact["cumulative"][d][-1] for d in "XY")
    assert periods(modal(shear_building(3), method="ritz"))[:9] == pytest.approx(
        periods(modal(shear_building(3))), rel=1e-6
    )


def test_rayleigh_gives_a_second_opinion() -> None:
    found = modal(shear_building(8))
    first = found["modes"][0]["T"]
    # never longer than the first mode, and near it
    assert first * 0.97 < found["rayleigh"]["X"] <= first * (1 + 1e-9)


def _tower(bays: int, stories: int) -> dict[str, Any]:
    """A square frame tower, symmetric about both axes, so that its periods come in pairs."""
    name = "{}-{}-{}".format
    grid = range(bays + 1)
    nodes = [node(name(i, j, k), 6.0 * i, 6.0 * j, 3.5 * k) for k in range(stories + 1) for j in grid for i in grid]
    members = []
    for k in range(1, stories + 1):
        members += [member(f"c{name(i, j, k)}", name(i, j, k - 1), name(i, j, k)) for i in grid for j in grid]
        members += [member(f"x{name(i, j, k)}", name(i, j, k), name(i + 1, j, k)) for i in range(bays) for j in grid]
        members += [member(f"y{name(i, j, k)}", name(i, j, k), name(i, j + 1, k)) for i in grid for j in range(bays)]
    return frame(
        nodes,
        members,
        [support(name(i, j, 0)) for i in grid for j in grid],
        diaphragms=[
            {"id": f"L{k}", "nodes": [name(i, j, k) for i in grid for j in grid]} for k in range(1, stories + 1)
        ],
        member_mass=True,
    )


def test_repeated_periods_are_all_found_by_the_block_iteration() -> None:
    structure = structure_of_frame(Frame.model_validate(_tower(3, 8)["frame"]))
    assert len(structure.massive) <= 200
    exact = find_modes(structure, 40).omega
    old = modes_module.DENSE
    try:
        modes_module.DENSE = 0
        found = find_modes(structure, 40)
    finally:
        modes_module.DENSE = old
    assert found.omega == pytest.approx(exact, rel=1e-9)
    assert exact[0] == pytest.approx(exact[1], rel=1e-9)
    assert found.counted_by == "signs of the pivots"
    orthogonal = (found.shapes * structure.masses[:, None]).T @ found.shapes
    assert np.abs(orthogonal - np.eye(40)).max() < 1e-7


def test_the_pivots_count_the_modes_below_a_frequency() -> None:
    structure = structure_of_frame(Frame.model_validate(small_building()["frame"]))
    omega = find_modes(structure, 12).omega
    for k in range(1, 11):
        shift = ((omega[k - 1] + omega[k]) / 2) ** 2
        assert negative_eigenvalues(structure.K, structure.masses, shift) == k


def test_a_matrix_that_is_not_positive_definite_is_refused_with_its_movement() -> None:
    import scipy.sparse as sp

    with pytest.raises(NotStable) as free:
        Factor(sp.csc_array(np.array([[2.0, -2.0, 0.0], [-2.0, 2.0, 0.0], [0.0, 0.0, 1.0]])))
    assert not free.value.negative
    assert np.abs(free.value.mode) == pytest.approx([1.0, 1.0, 0.0], abs=1e-6)
    with pytest.raises(NotStable) as less:
        Factor(sp.csc_array(np.diag([1.0, -1.0])))
    assert less.value.negative


def test_superlu_and_cholmod_give_the_same(monkeypatch: pytest.MonkeyPatch) -> None:
    from plumb_core.dynamics import factor

    model = small_building()
    with_what_is_there = periods(modal(model, modes=10))
    monkeypatch.setattr(factor, "cholmod", None)
    assert periods(modal(model, modes=10)) == pytest.approx(with_what_is_there, rel=1e-10)


def test_target_stops_where_the_model_has_no_more_modes() -> None:
    structure = structure_of_frame(Frame.model_validate(small_building()["frame"]))
    everything = modes_to_target(structure, 1.0)
    assert everything.cumulative[-1, :2] == pytest.approx([1.0, 1.0])


def test_concentrated_mass_goes_to_the_nearest_floor_with_its_place_in_plan() -> None:
    model = small_building()
    model["frame"]["nodes"].append(node("mid", 0.0, 0.0, 1.0 + 3.4))
    model["frame"]["members"] += [member("m1", "001", "mid", section="2"), member("m2", "mid", "002", section="2")]
    model["frame"]["members"] = [m for m in model["frame"]["members"] if m["id"] != "c002"]
    model["frame"]["masses"] = [{"node": "mid", "mx": 5.0, "my": 5.0}]
    model["frame"]["member_mass"] = False
    own = solve({"kind": "model", **model})
    model["frame"]["concentrate"] = True
    taken = solve({"kind": "model", **model})
    before, after = own["floors"][0], taken["floors"][0]
    assert before["mass"] == pytest.approx(36.0)
    assert after["mass"] == pytest.approx(41.0)
    assert after["centre"] == pytest.approx([(36 * 6.4 + 5 * 0.0) / 41, 36 * 2.2 / 41])
    d2 = [(6.4 - after["centre"][0]) ** 2 + (2.2 - after["centre"][1]) ** 2, sum(c * c for c in after["centre"])]
    assert after["inertia"] == pytest.approx(700.0 + 36 * d2[0] + 5 * d2[1])


def _one_bay(**more: Any) -> dict[str, Any]:
    """Four columns under a floor of 6 by 4 m with beams round it, 20 t in its middle."""
    at = {"a": (0, 0), "b": (6, 0), "c": (6, 4), "d": (0, 4)}
    nodes = [node(f"{n}{k}", x, y, 3.0 * k) for k in (0, 1) for n, (x, y) in at.items()]
    members = [member(f"col {n}", f"{n}0", f"{n}1") for n in at]
    members += [member(f"beam {i}{j}", f"{i}1", f"{j}1") for i, j in ("ab", "bc", "cd", "da")]
    floor = {"diaphragm": "L1", "mass": 20.0, "inertia": 90.0, "centre": [3.0, 2.0]}
    return frame(
        nodes,
        members,
        [support(f"{n}0") for n in at],
        diaphragms=[{"id": "L1", "nodes": [f"{n}1" for n in at], **more}],
        floors=[floor],
    )


def test_a_flexible_floor_moves_as_a_rigid_one_where_the_plan_is_symmetric() -> None:
    # the mass in equal parts at the corners; all four columns alike, so that the floor does not deform in X or Y
    rigid, flexible = modal(_one_bay(), modes=3), modal(_one_bay(rigid=False), modes=8)
    for direction in "XY":
        one, other = (next(m for m in f["modes"] if m["kind"] == direction) for f in (rigid, flexible))
        assert other["T"] == pytest.approx(one["T"], rel=1e-3)
        assert other["mass_ratio"][direction] == pytest.approx(one["mass_ratio"][direction], rel=1e-3)
    assert flexible["floors"][0]["rigid"] is False
    assert flexible["floors"][0]["mass"] == pytest.approx(20.0)
    # four quarters at the corners: 20 (3^2 + 2^2) about the middle
    assert flexible["floors"][0]["inertia"] == pytest.approx(20.0 * 13.0)


def test_a_spring_at_a_node_of_a_rigid_floor_acts_at_its_place() -> None:
    # along X at the edge y = 4, 2 m from the centre: it stiffens X, and couples it with turning, but not Y
    plain = modal(_one_bay(), modes=3)
    model = _one_bay()
    model["frame"]["supports"].append({"node": "c1", "fixed": [], "springs": {"ux": 5_000.0}})
    held = modal(model, modes=3)
    along_y = next(m["T"] for m in held["modes"] if m["mass_ratio"]["Y"] > 0.9)
    assert along_y == pytest.approx(next(m["T"] for m in plain["modes"] if m["kind"] == "Y"), rel=1e-9)
    # the trace of M^-1 K grows by k/m + k e^2/J for the two that couple
    added = sum(m["omega"] ** 2 for m in held["modes"]) - sum(m["omega"] ** 2 for m in plain["modes"])
    assert added == pytest.approx(5_000.0 / 20.0 + 5_000.0 * 4.0 / 90.0, rel=0.02)


def test_two_towers_on_one_podium_stand_on_it_each() -> None:
    nodes = [node(f"{t}{k}", x, 0.0, 3.0 * k) for t, x in (("p", 0.0), ("q", 30.0)) for k in range(3)]
    members = [member(f"{t}{k}", f"{t}{k - 1}", f"{t}{k}") for t in "pq" for k in (1, 2)]
    floors = [
        {"diaphragm": d, "mass": 10.0, "inertia": 10.0, "centre": c}
        for d, c in (("podium", [15.0, 0.0]), ("P", [0.0, 0.0]), ("Q", [30.0, 0.0]))
    ]
    model = frame(
        nodes,
        members,
        [support("p0"), support("q0")],
        floors=floors,
        diaphragms=[
            {"id": "podium", "nodes": ["p1", "q1"]},
            {"id": "P", "nodes": ["p2"]},
            {"id": "Q", "nodes": ["q2"]},
        ],
    )
    built = structure_of_frame(Frame.model_validate(model["frame"]))
    assert built.floors.names == ["podium", "P", "Q"]
    assert built.floors.below.tolist() == [-1, 0, 0]
    # the podium's story carries all three floors, each tower's its own
    assert built.floors.carried.tolist() == [[1.0, 1.0, 1.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]]
