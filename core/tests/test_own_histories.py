"""Envelopes of their time histories against the reference model under the same record."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from canonical import STORIES, WEIGHT, G, cqc, shear_building
from plumb_core.checks.recheck import recheck, reference_requests
from plumb_core.documents.reading import read_recheck
from plumb_core.solve import solve
from test_stages import model_of, right

DT, STEPS = 0.01, 1500


def ground() -> list[float]:
    """Two bursts of sines, m/s2: nothing that a closed form would give."""
    t = DT * np.arange(STEPS)
    pulse = np.exp(-(((t - 4.0) / 1.5) ** 2)) * np.sin(2 * np.pi * t / 0.9)
    later = 0.6 * np.exp(-(((t - 9.0) / 2.0) ** 2)) * np.sin(2 * np.pi * t / 0.35)
    return np.round(2.5 * (pulse + later), 5).tolist()  # type: ignore[no-any-return]


def shear_history(k: float, accelerations: list[float], damping: float = 0.05) -> tuple[float, np.ndarray]:
    """(greatest base shear kN, greatest story drifts m) of the uniform shear building, by a way of its own.

    Each mode by the recurrence of the analytic solution over a step, written out with sines (Clough and Penzien, 7-2),
    at a tenth of the record's step.
    """
    m = WEIGHT / G
    chain = 2.0 * np.eye(STORIES) - np.eye(STORIES, k=1) - np.eye(STORIES, k=-1)
    chain[-1, -1] = 1.0
    values, shapes = np.linalg.eigh(chain)
    fine = 10
    h = DT / fine
    t = DT * np.arange(len(accelerations))
    a = np.interp(np.arange(0.0, t[-1] + h / 2, h), t, accelerations)
    u = np.zeros((len(a), STORIES))
    for j in range(STORIES):
        w = float(np.sqrt(k * values[j] / m))
        wd = w * np.sqrt(1.0 - damping**2)
        # convolution with the impulse response
        times = h * np.arange(len(a))
        impulse = np.exp(-damping * w * times) * np.sin(wd * times) / wd
        q = -np.convolve(a, impulse)[: len(a)] * h
        u += np.outer(q, shapes[:, j] * shapes[:, j].sum())
    drift = np.diff(u, axis=1, prepend=0.0)
    return float(np.abs(k * drift[:, 0]).max()), np.abs(drift).max(axis=0)


def document(factor: float = 1.0, by: float = 1.0) -> dict[str, Any]:
    """A submission with one time history along X, its results those of `shear_history`, the drifts times `by`."""
    made = right("asce7-16")
    V, drift = shear_history(made.values["modal"]["X"]["k"], [factor * value for value in ground()])
    place = {"case": "TH 1", "direction": "X"}
    claims = [{"quantity": "reaction_X", **place, "value": round(V, 2), "text": f"{V:.2f}", "unit": "kN"}]
    for i, value in enumerate(drift * by):
        for end in (1, 2):
            text = f"{1000 * value:.4f}"
            claims.append(
                {
                    "quantity": f"drift_end_{end}",
                    **place,
                    "story": f"L{i + 1}",
                    "value": float(text) / 1000,
                    "text": text,
                    "unit": "mm",
                    "scale": 0.001,
                }
            )
    record = {
        "name": "Vessel Point 2019",
        "case": "TH 1",
        "direction": "X",
        "factor": factor,
        "a": ground(),
        "unit": "m/s2",
        "dt": DT,
    }
    cases = [{"name": "TH 1", "kind": "time_history", "direction": "X", "eccentricity": 0.0, "level": "elastic"}]
    return {
        "brief": made.brief,
        "model": model_of(made) | {"records": [record]},
        "submission": {"label": "S0", "cases": cases, "claims": claims},
    }


def own(asked: dict[str, Any]) -> dict[str, str]:
    return {c["id"]: c["verdict"] for c in recheck(asked)["checks"] if c["kind"] == "own"}


@pytest.mark.parametrize("factor", [1.0, 2.4])
def test_an_envelope_of_the_same_building_under_the_same_record_agrees(factor: float) -> None:
    found = own(document(factor))
    assert {i.split(".")[0] for i in found} == {"own_reaction_X", "own_drift_max"}
    assert set(found.values()) == {"agrees"}


def test_our_model_has_what_the_convolution_gives() -> None:
    asked = document()
    answer = solve(reference_requests(read_recheck(asked))["history TH 1"])
    V, drift = shear_history(right("asce7-16").values["modal"]["X"]["k"], ground())
    assert answer["base_shear"]["X"] == pytest.approx(V, rel=2e-3)
    ours = [max(map(abs, s["edges"]["X"]["drift"])) for s in answer["stories"]]
    assert ours == pytest.approx(drift.tolist(), rel=2e-3)
    assert answer["histories"]["t"][-1] == pytest.approx(DT * (STEPS - 1))


def test_an_envelope_that_our_model_does_not_have_is_asked_about_once() -> None:
    found = own(document(by=1.3))
    assert {i.split(".")[0] for i, v in found.items() if v == "question"} == {"own_drift_max"}
    assert sum(v == "question" for v in found.values()) == 1


def test_a_factor_that_was_left_out_is_seen() -> None:
    asked = document(2.0)
    asked["model"]["records"][0]["factor"] = 1.0
    assert set(own(asked).values()) == {"question"}


def test_their_drift_stands_beside_ours_on_the_stage() -> None:
    stage = recheck(document())["stages"]["drift"]["X"]
    assert [c["case"] for c in stage["cases"]] == ["TH 1"]
    assert stage["cases"][0]["displacement_own"] is not None
    assert len(stage["cases"][0]["displacement_own"]) == STORIES


def test_a_record_without_results_of_its_case_is_not_run() -> None:
    asked = document()
    asked["submission"]["claims"] = []
    assert not [k for k in reference_requests(read_recheck(asked)) if k.startswith("history")]


def test_elastic_drifts_of_a_case_are_reduced_and_amplified_by_the_edition() -> None:
    case = recheck(document())["stages"]["drift"]["X"]["cases"][0]
    # I_e/R = 1/5 of the test's system, then C_d/I_e = 5, over 3.5 m
    assert case["ratio"] == pytest.approx([value * 5.0 / 5.0 / 3.5 for value in case["stated"]], rel=1e-6)


def test_drifts_that_cannot_be_amplified_are_open_and_not_said_to_be_missing() -> None:
    asked = document()
    asked["brief"] = {k: v for k, v in asked["brief"].items() if k != "system"}
    answer = recheck(asked)
    of_drift = {
        c["id"]: c["verdict"] for c in answer["checks"] if c["quantity"] == "drift_ratio" and c["direction"] == "X"
    }
    assert of_drift == {"drift_open_drift_ratio.X.factors": "open"}
    # 2 ends of 6 stories
    assert answer["coverage"]["claims"] >= 12


@pytest.mark.parametrize(("by", "verdict"), [(1.0, "agrees"), (1.25, "question")])
def test_displacements_of_a_modal_case_stand_beside_our_own_response(by: float, verdict: str) -> None:
    made = right("asce7-16")
    asked = {
        "brief": made.brief,
        "model": model_of(made),
        "submission": {
            "label": "S0",
            "cases": [
                {
                    "name": "RX",
                    "kind": "modal",
                    "direction": "X",
                    "eccentricity": 0.0,
                    "step": "before",
                    "level": "reduced",
                }
            ],
            "claims": [],
        },
    }
    # modes of the uniform chain, CQC of the displacements written out; ordinates of the edition from `spectrum`
    T, _, _ = shear_building(0.92)
    chain = 2.0 * np.eye(STORIES) - np.eye(STORIES, k=1) - np.eye(STORIES, k=-1)
    chain[-1, -1] = 1.0
    _, shapes = np.linalg.eigh(chain)
    parts = {n: made.brief[n] for n in ("edition", "site", "occupancy", "system")}
    reduced = np.array(solve({"kind": "spectrum", **parts, "direction": "X", "T": T.tolist()})["reduced"]) * G
    for i in range(STORIES):
        each = shapes[i] * shapes.sum(axis=0) * reduced * (T / (2 * np.pi)) ** 2
        value = by * cqc(T, each)
        for end in (1, 2):
            place = {"case": "RX", "direction": "X", "story": f"L{i + 1}"}
            text = f"{1000 * value:.4f}"
            asked["submission"]["claims"].append(
                {
                    "quantity": f"displacement_end_{end}",
                    **place,
                    "value": float(text) / 1000,
                    "text": text,
                    "unit": "mm",
                    "scale": 0.001,
                }
            )
    assert {v for i, v in own(asked).items() if "displacement" in i} == {verdict}
