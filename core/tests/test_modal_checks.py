"""Submitted mode tables: read from sheets, checked with themselves, with the target and with the reference model."""

from __future__ import annotations

import copy
from typing import Any

import pytest
from canonical import submission as canonical
from modelling import SQUARE
from plumb_core.answers.reference_model import request_to
from plumb_core.checks.recheck import recheck
from plumb_core.documents.brief import Brief
from plumb_core.documents.model import ReferenceModel
from plumb_core.documents.reading import read
from plumb_core.errors import InputRefused
from plumb_core.intake.columns import Reading
from plumb_core.intake.reading import kind_of, read_table
from plumb_core.intake.sheets import read_text
from plumb_core.intake.submission import read_submission
from plumb_core.intake.tables.kind import Building
from plumb_core.solve import solve
from submissions import BRIEF, document

STORIES = BRIEF["stories"]


def model() -> dict[str, Any]:
    lines = [
        {"story": i, "at": at, "angle": angle, "stiffness": k}
        for i in range(len(STORIES))
        for at, angle, k in (
            ([0.0, -5.0], 0.0, 3e5),
            ([0.0, 5.0], 0.0, 3e5),
            ([-8.0, 0.0], 90.0, 2e5),
            ([8.0, 0.0], 90.0, 2e5),
        )
    ]
    return {
        "use": "lines",
        "lateral_lines": lines,
        "floors": [{"name": s["name"], "corners": SQUARE} for s in STORIES],
        "analysis": {"modes": 12},
    }


def own_modes(count: int = 12) -> dict[str, Any]:
    return solve(
        request_to("modal", read(Brief, BRIEF), read(ReferenceModel, {**model(), "analysis": {"modes": count}}))
    )


def claims_of(answer: dict[str, Any], count: int) -> list[dict[str, Any]]:
    found = []
    for n, mode in enumerate(answer["modes"][:count]):
        T = f"{mode['T']:.4f}"
        found.append({"quantity": "T_mode", "point": n, "value": float(T), "text": T})
        for d in "XY":
            share = f"{mode['mass_ratio'][d]:.4f}"
            found.append({"quantity": "mass_ratio", "direction": d, "point": n, "value": float(share), "text": share})
    return found


def checked(claims: list[dict[str, Any]], with_model: bool = True) -> dict[str, dict[str, Any]]:
    asked = document(BRIEF, claims)
    if with_model:
        asked["model"] = model()
    return {c["id"]: c for c in recheck(asked)["checks"] if c["stage"] in ("modes", "weight")}


def test_a_sound_mode_table_agrees_throughout() -> None:
    found = checked(claims_of(own_modes(), 12))
    verdicts = {c["verdict"] for c in found.values() if c["kind"] != "gap"}
    assert verdicts == {"agrees"}
    assert found["T_mode.1"]["level"] == 3
    assert found["target_mass_sum.X"]["limit"]["value"] == 0.9


def test_without_a_model_the_modes_stay_open_but_their_sums_are_judged() -> None:
    found = checked(claims_of(own_modes(), 12), with_model=False)
    assert found["T_mode.1"]["verdict"] == "open"
    assert found["T_mode.1"]["note"] == "the reference model has not been analysed"
    assert "target_mass_sum.X" in found


def test_too_few_modes_in_one_direction_breach_the_target() -> None:
    answer = own_modes()
    claims = claims_of(answer, 12)
    kinds = [m["kind"] for m in answer["modes"]]
    kept = [n for n, k in enumerate(kinds) if k != "Y"] + [kinds.index("Y")]
    found = checked([c for c in claims if c["point"] in kept])
    assert found["target_mass_sum.Y"]["verdict"] == "breaches"
    assert found["target_mass_sum.Y"]["limit"]["clause"]
    assert any(c["kind"] == "missing_mode" for c in found.values())


def test_swapped_axes_are_said_once() -> None:
    claims = claims_of(own_modes(), 6)
    for c in claims:
        if "direction" in c:
            c["direction"] = "Y" if c["direction"] == "X" else "X"
    found = checked(claims)
    swapped = found["axes_mass_ratio"]
    assert swapped["verdict"] == "differs"
    # the periods are right, and every share that is wrong rests on the exchange
    assert all(found[f"T_mode.{n}"]["verdict"] == "agrees" for n in range(1, 7))
    wrong = [
        c for c in found.values() if c["quantity"] == "mass_ratio" and c["kind"] == "mode" and c["verdict"] == "differs"
    ]
    assert wrong
    assert all(c["rests_on"] == ["axes_mass_ratio"] and c["role"] == "inherited" for c in wrong)
    assert "exchanged" in swapped["note"]


def leading_period(answer: dict[str, Any], direction: str) -> float:
    """Period of the mode that takes most of the mass along."""
    return float(max(answer["modes"], key=lambda m: m["mass_ratio"][direction])["T"])


def taken(X: float, Y: float) -> list[dict[str, Any]]:
    """Analysis periods as they are stated for the directions."""
    return [
        {"quantity": "T_analysis", "direction": d, "value": round(T, 3), "text": f"{T:.3f}"}
        for d, T in (("X", X), ("Y", Y))
    ]


def of_table(claims: list[dict[str, Any]]) -> dict[str, dict[str, Any]]:
    """Checks of analysis periods against the table of modes, without a reference model."""
    checks = recheck(document(BRIEF, claims))["checks"]
    return {c["id"]: c for c in checks if c["kind"] in ("axes", "taken_from")}


def test_exchanged_axes_are_seen_without_a_model_from_the_periods_that_are_used() -> None:
    answer = own_modes()
    X, Y = (leading_period(answer, d) for d in "XY")
    assert abs(X - Y) > 0.05 * Y
    claims = claims_of(answer, 12)
    assert of_table([*claims, *taken(X, Y)]) == {}
    check = of_table([*claims, *taken(Y, X)])["axes_T_analysis"]
    assert (check["verdict"], check["role"], check["level"]) == ("differs", "origin", 1)
    assert "other axis" in check["note"]
    # said once where the reference model says it too
    asked = document(BRIEF, [*claims_of(answer, 6), *taken(Y, X)])
    for claim in asked["submission"]["claims"]:
        if claim["quantity"] == "mass_ratio":
            claim["direction"] = "Y" if claim["direction"] == "X" else "X"
    asked["model"] = model()
    assert [c["id"] for c in recheck(asked)["checks"] if c["kind"] == "axes"] == ["axes_mass_ratio"]


def test_a_period_of_no_leading_mode_is_asked_about() -> None:
    answer = own_modes()
    X, Y = (leading_period(answer, d) for d in "XY")
    checks = of_table([*claims_of(answer, 12), *taken(1.4 * X, Y)])
    (check,) = checks.values()
    assert (check["id"], check["verdict"], check["role"]) == ("taken_from_T_analysis.X", "question", None)
    assert "which mode" in check["draft"]


def test_periods_without_a_table_of_modes_are_not_held_against_one() -> None:
    assert of_table(taken(1.0, 2.0)) == {}


def test_period_times_frequency_and_running_sums() -> None:
    claims = [
        {"quantity": "T_mode", "point": 0, "value": 0.5, "text": "0.500"},
        {"quantity": "f_mode", "point": 0, "value": 2.4, "text": "2.400"},
        {"quantity": "mass_ratio", "direction": "X", "point": 0, "value": 0.6, "text": "0.600"},
        {"quantity": "mass_ratio", "direction": "X", "point": 1, "value": 0.2, "text": "0.200"},
        {"quantity": "mass_running", "direction": "X", "point": 1, "value": 0.9, "text": "0.900"},
        {"quantity": "mass_ratio", "direction": "Y", "point": 0, "value": 0.8, "text": "0.800"},
        {"quantity": "mass_ratio", "direction": "Y", "point": 1, "value": 0.4, "text": "0.400"},
    ]
    found = checked(claims, with_model=False)
    assert found["f_mode.1"]["verdict"] == "differs"
    assert found["f_mode.1"]["level"] == 1
    assert found["mass_running.X.2"]["verdict"] == "differs"
    assert found["mass_running.X.2"]["carried"]["value"] == pytest.approx(0.8)
    assert found["target_mass_sum.Y"]["verdict"] == "differs"
    assert "more than the whole" in found["target_mass_sum.Y"]["note"]


def test_mass_of_the_analysis_against_the_weights() -> None:
    claims = []
    for s in STORIES:
        mass = s["weight"] / 9.80665
        claims.append({"quantity": "m", "story": s["name"], "value": mass, "text": f"{mass:.2f}"})
        claims.append({"quantity": "w", "story": s["name"], "value": s["weight"], "text": f"{s['weight']:.1f}"})
    claims[4] |= {"value": 0.6 * claims[4]["value"], "text": f"{0.6 * claims[4]['value']:.2f}"}
    found = checked(claims)
    assert found["m.L3"]["verdict"] == "differs"
    assert found["m.L3"]["role"] == "origin"
    assert all(found[f"m.{s['name']}"]["verdict"] == "agrees" for s in STORIES if s["name"] != "L3")


def test_modes_must_be_numbered() -> None:
    with pytest.raises(InputRefused) as refused:
        recheck(document(BRIEF, [{"quantity": "T_mode", "value": 0.5, "text": "0.5"}]))
    assert refused.value.problems[0].path == "/submission/claims/0/point"


# Intake


MODES = """Mode;Period [s];Share X [%];Share Y [%];Share RZ [%];Running X [%]
1;1.314;71.2;0.0;0.3;71.2
2;1.187;0.0;69.8;;71.2
"""


def test_a_table_of_modes_is_recognised() -> None:
    sheet = read_text(MODES, "modes.csv")
    assert kind_of(sheet) == "modes"
    found = read_table(sheet, "modes")
    assert found.problems == []
    by = {(c.quantity, c.direction, c.point): c for c in found.claims}
    assert by["mass_ratio", "X", 0].value == pytest.approx(0.712)
    assert by["mass_running", "X", 1].value == pytest.approx(0.712)
    assert by["T_mode", None, 1].value == 1.187
    assert ("mass_ratio_RZ", None, 1) not in by
    assert by["T_mode", None, 1].source.row == 3


def test_units_of_shares_are_asked_for() -> None:
    found = read_table(read_text("Mode,Period [s],Share X\n4,0.4,11.2\n", "m.csv"), "modes")
    assert ["unit of share" in p.message for p in found.problems] == [True]
    mended = read_table(
        read_text("Mode,Period [s],Share X\n4,0.4,11.2\n", "m.csv"), "modes", Reading(units={"mass_ratio_X": "%"})
    )
    assert mended.problems == []


@pytest.mark.parametrize(
    ("text", "message"),
    [
        ("Mode,Period [s]\nfirst,1.3\n", "is not a mode number"),
        ("Mode,Period [s]\n1,1.3\n1,1.2\n", "in row"),
        ("Mode,Period [s]\n1,-1.3\n", "above zero"),
    ],
)
def test_bad_rows_are_marked_in_their_cells(text: str, message: str) -> None:
    found = read_table(read_text(text, "m.csv"), "modes")
    assert any(message in p.message and p.row is not None for p in found.problems)


def test_a_table_of_shapes_carries_the_mode_down_its_block() -> None:
    text = (
        "Mode,Story,Movement X [mm],Movement Y [mm],Rotation RZ "
        "[rad]\n1,L1,10,0,0\n,L2,20,0,0.001\n2,L1,0,5,0\n,L2,0,11,0\n"
    )
    sheet = read_text(text, "s.csv")
    assert kind_of(sheet) == "shapes"
    found = read_table(sheet, "shapes", known=Building(["L1", "L2"]))
    assert found.problems == []
    by = {(c.quantity, c.direction, c.point, c.story): c.value for c in found.claims}
    assert by["mode_u", "X", 0, "L2"] == pytest.approx(0.020)
    assert by["mode_rz", None, 0, "L2"] == pytest.approx(0.001)
    assert by["mode_u", "Y", 1, "L1"] == pytest.approx(0.005)


def test_shapes_of_a_submission_are_matched() -> None:
    answer = own_modes(6)
    claims = claims_of(answer, 6)
    names = [f["name"] for f in answer["floors"]]
    order = [2, 0, 1, 3, 5, 4]
    shuffled = []
    for c in copy.deepcopy(claims):
        shuffled.append({**c, "point": order.index(c["point"])})
    for place, n in enumerate(order):
        for name, (x, y, rz) in zip(names, answer["modes"][n]["shape"], strict=True):
            for d, v in (("X", x), ("Y", y)):
                shuffled.append(
                    {
                        "quantity": "mode_u",
                        "direction": d,
                        "point": place,
                        "story": name,
                        "value": v,
                        "text": f"{v:.6g}",
                    }
                )
            shuffled.append({"quantity": "mode_rz", "point": place, "story": name, "value": rz, "text": f"{rz:.6g}"})
    asked = document(BRIEF, shuffled) | {"model": model()}
    modes = recheck(asked)["modes"]
    assert [r["theirs"] for r in modes["comparison"]["rows"][:6]] == [order.index(i) + 1 for i in range(6)]
    assert all(r["mac"] == pytest.approx(1.0, abs=1e-6) for r in modes["comparison"]["rows"][:6])


def test_a_modal_base_shear_of_the_base_reactions_alone_is_rechecked() -> None:
    """The reactions of a submission without its table of parameters: nothing states V_dynamic beside them."""
    made = canonical("asce7-16").without("parameters")
    taken = read_submission(read(Brief, made.brief), made.files())
    assert taken.complete
    answer = recheck(taken.document.model_dump(exclude_none=True), steps=False)
    told = {c["id"]: c for c in answer["checks"] if c["quantity"] == "V_dynamic"}
    assert {c["theirs"]["source"]["note"].split(" of ")[0] for c in told.values() if c.get("theirs")} == {
        "base reaction"
    }
