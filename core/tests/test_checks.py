"""Checks as values: their ids, what is different between two rechecks, and a checker of one's own."""

from __future__ import annotations

import copy
import dataclasses
import random
from typing import Any

import pytest
from plumb_core.checks import registry
from plumb_core.checks.check import Check, check_id
from plumb_core.checks.checkers import checkers
from plumb_core.checks.claims import ClaimSet, half_of_last_digit, key_of, theirs
from plumb_core.checks.compare import compare
from plumb_core.checks.context import Context
from plumb_core.checks.difference import Flip, difference
from plumb_core.checks.earlier_ids import present_id
from plumb_core.checks.kinds import KINDS
from plumb_core.checks.recheck import checks_of, context_of, recheck
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import Basis
from plumb_core.documents.submission import Claim, Submission
from plumb_core.errors import InputRefused
from plumb_core.rules import Key
from submissions import document, own_claims
from timing import process_seconds


def ids(claims: list[dict[str, Any]], brief: dict[str, Any]) -> list[str]:
    return [c["id"] for c in recheck(document(brief, claims), steps=False)["checks"]]


# Ids


@pytest.mark.parametrize(
    ("kind", "key", "place", "case", "repeats", "expected"),
    [
        ("value", Key("V", "X"), "", "", "", "V.X"),
        ("value", Key("F", "X"), "L3", "Static X", "", "F.X.L3.Static X"),
        ("value", Key("drift_max", "X", "EX+"), "L3", "EX+", "", "drift_max.X.EX+.L3"),
        ("gap", Key("T"), "", "", "", "gap_T"),
        ("missing_mode", Key("T_mode"), "4", "", "", "missing_mode_T_mode.4"),
        ("value", Key("V", "X"), "", "", "3,720", "V.X=3,720"),
    ],
)
def test_an_id_is_of_kind_key_and_place(
    kind: str, key: Key, place: str, case: str, repeats: str, expected: str
) -> None:
    assert check_id(kind, key, place, case, repeats) == expected


def test_ids_do_not_move_when_another_row_goes(brief: dict[str, Any]) -> None:
    claims = own_claims(brief)
    again = [copy.deepcopy(c) | {"case": "Static X - ecc."} for c in claims if c["quantity"] == "F"]
    strange = {"quantity": "h", "story": "L99", "value": 3.0, "text": "3.0"}
    whole = ids([*claims, *again, strange], brief)
    assert len(set(whole)) == len(whole)
    for gone in (0, 5, len(claims), len(claims) + 3):
        rest = [c for i, c in enumerate([*claims, *again, strange]) if i != gone]
        left = ids(rest, brief)
        # the other ids are unchanged; the only new check is the gap of what the removed value shows
        assert [i for i in left if i not in whole and not i.startswith("gap_")] == []
        assert len(set(left)) == len(left)


def test_ids_do_not_depend_on_the_order_of_the_claims(brief: dict[str, Any]) -> None:
    claims = own_claims(brief)
    shuffled = claims[:]
    random.Random(4).shuffle(shuffled)
    assert ids(shuffled, brief) == ids(claims, brief)


def test_a_value_stated_twice_is_told_apart_by_what_was_written(brief: dict[str, Any]) -> None:
    again = [
        {"quantity": "W", "value": 40000.0, "text": "40000"},
        {"quantity": "W", "value": 41000.0, "text": "41000"},
        {"quantity": "W", "value": 41000.0, "text": "41000"},
    ]
    of_weight = [i for i in ids([*own_claims(brief), *again], brief) if i.startswith("W")]
    assert of_weight == ["W", "W=40000", "W=41000"]


@pytest.mark.parametrize(
    ("earlier", "written", "present"),
    [
        ("V.X", "", "V.X"),
        ("gap_design_category", "", "gap_design_category"),
        ("sum_F.X", "", "sum_F.X"),
        ("mass_sum.Y", "0.81", "target_mass_sum.Y"),
        ("missing_mode.7", "", "missing_mode_T_mode.7"),
        ("axes_swapped", "", "axes_mass_ratio"),
        ("unplaced_3.h.L9", "4.0", "h.L9"),
        ("F.X.L7.Static X - ecc.#8", "120", "F.X.L7.Static X - ecc."),
        ("V.X#2", "3720", "V.X=3720"),
        ("gap_V.X", "", "gap_V"),
    ],
)
def test_ids_of_stored_findings_are_mapped(earlier: str, written: str, present: str) -> None:
    assert present_id(earlier, written) == present


# Values


def test_a_check_cannot_be_changed() -> None:
    check = Check("value", Key("V", "X"), "V X")
    with pytest.raises(dataclasses.FrozenInstanceError):
        check.verdict = Verdict.AGREES  # type: ignore[misc]


def test_the_side_that_is_shown_is_decided_here() -> None:
    off, on = compare(2.0, 1.0, 0.01, 0.0), compare(1.0, 1.0, 0.01, 0.0)
    starts = Check("value", Key("V", "X"), "V X", carried=off, independent=off, role=DeviationRole.ORIGIN)
    follows = Check("value", Key("V", "X"), "V X", carried=on, independent=off, role=DeviationRole.INHERITED)
    assert (starts.shown_side, follows.shown_side) == ("carried", "independent")
    assert Check("value", Key("V", "X"), "V X", carried=on).shown is on
    assert Check("gap", Key("V", "X"), "V X").shown_side is None


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_has_its_wording(kind: str) -> None:
    """One that differs is stated, whatever its kind; one that agrees needs no remark."""
    claim = Claim(quantity="V", direction="X", value=2.0, text="2.0")
    side = compare(2.0, 1.0, 0.01, 0.0)
    key, note = Key("V", "X"), "what was assessed"
    check = Check(kind, key, "V X", claim, carried=side, verdict=Verdict.DIFFERS, level=1, note=note)
    assert bool(check.draft(Basis())) == (kind != "unplaced")
    assert dataclasses.replace(check, verdict=Verdict.AGREES).draft(Basis()) == ""


def test_results_signed_against_the_axis_are_compared_by_their_size(brief: dict[str, Any]) -> None:
    claims = own_claims(brief)
    for claim in claims:
        if claim["quantity"] in ("F", "V_story", "M_story"):
            claim |= {"value": -claim["value"], "text": f"-{claim['text']}"}
    result = recheck(document(brief, claims))
    assert result["origins"] == []
    first = next(c for c in result["checks"] if c["id"] == "F.X.L8")
    # as it was written it is kept
    assert first["theirs"]["value"] < 0 < first["carried"]["value"]
    assert (
        theirs(Claim(quantity="F", direction="X", story="L1", value=-3.5)),
        half_of_last_digit(Claim(quantity="F", direction="X", story="L1", value=-3.5, text="-3.5")),
    ) == (3.5, 0.05)


# Cases


def drifts(case: str, **more: Any) -> list[dict[str, Any]]:
    return [{"quantity": "drift_max", "case": case, "story": "L1", "value": 0.01, "text": "0.010", **more}]


def test_a_cases_claim_is_kept_under_its_case_and_the_direction_of_its_role() -> None:
    roles = [{"name": "EX+", "kind": "static", "direction": "X", "eccentricity": 0.05}]
    submission = Submission.model_validate({"cases": roles, "claims": drifts("EX+") + drifts("other")})
    claims = ClaimSet.of(submission, ["L1"])
    assert set(claims.of_cases) == {Key("drift_max", "X", "EX+"), Key("drift_max", None, "other")}
    # What a case is that has no role is not guessed
    assert (claims.cases["other"].kind, claims.cases["other"].direction) == (None, None)
    assert key_of(submission.claims[0], claims.cases) == Key("drift_max", "X", "EX+")


def test_a_cases_claim_names_its_case_and_a_case_stands_once(brief: dict[str, Any]) -> None:
    asked = document(brief, [*drifts(""), *drifts("E1")])
    asked["submission"]["cases"] = [{"name": "E1"}, {"name": "E1"}]
    with pytest.raises(InputRefused) as refused:
        recheck(asked)
    assert {p.path for p in refused.value.problems} == {"/submission/claims/0/case", "/submission/cases/1/name"}


# Differences and assumptions


def test_what_changes_when_our_side_changes(brief: dict[str, Any]) -> None:
    context = context_of(document(brief, own_claims(brief)))
    before = checks_of(context)
    after = checks_of(context.assuming(inputs={Key("R", "X"): 5.0}))
    changed = difference(before, after)
    flipped = {f.check for f in changed.flips}
    assert {"R.X", "C_s.X", "V.X", "F.X.L8"} <= flipped
    assert not any(".Y" in check for check in flipped)
    assert Flip("R.X", Verdict.AGREES, Verdict.DIFFERS) in changed.flips
    assert (changed.settled, changed.appeared, changed.disappeared) == ((), (), ())
    # and back again everything that deviated is settled
    assert set(difference(after, before).settled) >= {"R.X", "V.X"}
    nothing = difference(before, before)
    assert (nothing.flips, nothing.moved) == ((), ())


def test_what_comes_and_goes_between_submissions(brief: dict[str, Any]) -> None:
    first = checks_of(context_of(document(brief, own_claims(brief))))
    without = [c for c in own_claims(brief) if c["quantity"] != "design_category"]
    second = checks_of(context_of(document(brief, without)))
    changed = difference(first, second)
    assert (changed.disappeared, changed.appeared) == (("design_category",), ())


@pytest.mark.parametrize(
    "change", [{Key("R", "X"): 5.0}, {Key("S_S"): 1.4}, {Key("site_class"): "E"}, {Key("w"): None}]
)
def test_an_assumption_comes_to_what_a_recheck_from_the_beginning_does(
    brief: dict[str, Any], change: dict[Key, Any]
) -> None:
    asked = document(brief, own_claims(brief))
    known = context_of(asked)
    checks_of(known)
    fresh = context_of(asked)
    apart = dataclasses.replace(
        fresh,
        independent=fresh.independent.assuming(inputs=change),
        carried=fresh.carried.assuming(inputs=change),
    )
    assert checks_of(known.assuming(inputs=change)) == checks_of(apart)


@pytest.mark.timing
def test_an_assumption_costs_less_than_a_third_of_a_recheck(brief: dict[str, Any]) -> None:
    """The budget of what-if and of causes; `bench/rechecks.py` prints the ratios for the demo's clinic."""
    asked = document(brief, own_claims(brief))
    context = context_of(asked)
    checks_of(context)

    def assumed() -> None:
        for i in range(20):
            checks_of(context.assuming(inputs={Key("R", "X"): 5.0 + 0.01 * i}))

    # the best of up to three: a machine that is slowed in the middle of one of the two is not measured
    shares = []
    for _ in range(3):
        whole = process_seconds(lambda: recheck.__wrapped__(asked), repeats=10)  # type: ignore[attr-defined]
        shares.append(process_seconds(assumed, repeats=10) / 20 / whole)
        if shares[-1] < 1 / 3:
            break
    assert min(shares) < 1 / 3


# A checker of one's own


def test_a_checker_is_found_by_its_decorator(brief: dict[str, Any], monkeypatch: pytest.MonkeyPatch) -> None:
    context = context_of(document(brief, own_claims(brief)))

    def roofs() -> list[str]:
        return [c.id for c in checks_of(context) if c.place == "roof"]

    assert roofs() == []
    monkeypatch.setattr(registry, "CHECKERS", [*registry.CHECKERS])
    checkers.cache_clear()
    try:

        @registry.checker("gap")
        def heavy_roofs(context: Context) -> list[Check]:
            return [Check("value", Key("W"), "W again", place="roof", verdict=Verdict.NOTE)]

        assert roofs() == ["W.roof"]
    finally:
        checkers.cache_clear()


# One error, one origin


def scaled(claims: list[dict[str, Any]], quantities: set[str], factor: float) -> list[dict[str, Any]]:
    """The claims of X with those of some quantities off by a factor."""
    return [
        c | {"value": c["value"] * factor, "text": f"{c['value'] * factor:.1f}"}
        if c["quantity"] in quantities and c.get("direction") == "X"
        else c
        for c in claims
    ]


def without(claims: list[dict[str, Any]], *quantities: str) -> list[dict[str, Any]]:
    return [c for c in claims if c["quantity"] not in quantities]


def test_where_the_base_shear_is_not_stated_the_sum_of_the_forces_stands_for_it(brief: dict[str, Any]) -> None:
    own = without(own_claims(brief), "V", "V_story", "M_story")
    right = recheck(document(brief, own))
    assert (right["origins"], [c["id"] for c in right["checks"] if c["id"].startswith("gap_V")]) == ([], [])
    # it is no claim of theirs
    whole = recheck(document(brief, own_claims(brief)))["coverage"]["claims"]
    assert right["coverage"]["claims"] == whole - (len(own_claims(brief)) - len(own))
    result = recheck(document(brief, scaled(own, {"F"}, 1.2)))
    assert result["origins"] == ["V.X"]
    checks = {c["id"]: c for c in result["checks"]}
    assert checks["V.X"]["note"] == "not stated: the sum of the submitted F_x is used"
    assert "adds up to" in checks["V.X"]["draft"]
    assert checks["V.X"]["independent"]["deviation"] == pytest.approx(0.2, abs=1e-3)
    assert {c["role"] for c in result["checks"] if c["id"].startswith("F.X")} == {"inherited"}


def test_one_wrong_force_puts_the_sum_out_and_is_one_origin(brief: dict[str, Any]) -> None:
    own = without(own_claims(brief), "V", "V_story", "M_story")
    for claim in own:
        if (claim["quantity"], claim.get("direction"), claim.get("story")) == ("F", "X", "L8"):
            claim |= {"value": 1.5 * claim["value"], "text": f"{1.5 * claim['value']:.1f}"}
    result = recheck(document(brief, own))
    assert result["origins"] == ["F.X.L8"]
    shear = next(c for c in result["checks"] if c["id"] == "V.X")
    assert (shear["role"], shear["rests_on"]) == ("inherited", ["F.X.L8"])


@pytest.mark.parametrize(("again", "origins"), [(1.0, ["F.X.L8"]), (1.3, ["F.X.L8", "F.X.L8.ecc."])])
def test_a_wrong_force_that_another_case_repeats_is_one_origin(
    brief: dict[str, Any], again: float, origins: list[str]
) -> None:
    own = own_claims(brief)
    (top,) = [c for c in own if (c["quantity"], c.get("direction"), c.get("story")) == ("F", "X", "L8")]
    top |= {"value": 1.5 * top["value"], "text": f"{1.5 * top['value']:.1f}"}
    value = again * top["value"]
    repeated = top | {"case": "ecc.", "value": value, "text": f"{value:.1f}"}
    result = recheck(document(brief, [*own, repeated]))
    assert [o for o in result["origins"] if o.startswith("F.X")] == origins


def test_what_category_a_does_not_use_is_noted_and_not_asked_for(brief: dict[str, Any]) -> None:
    brief["site"] |= {"S_S": 0.10, "S_1": 0.03}
    right = recheck(document(brief, own_claims(brief)))
    checks = {c["id"]: c for c in right["checks"]}
    assert checks["C_s.X"]["verdict"] == checks["k.X"]["verdict"] == "note"
    assert "0.01 w_x" in checks["C_s.X"]["note"]
    assert right["origins"] == []
    # nor is the modal analysis that the edition has for higher categories
    assert "gap_static_permitted" not in checks
    # by hand: 1 % of the weight, whatever C_s says
    W = sum(s["weight"] for s in brief["stories"])
    assert checks["V.X"]["independent"]["value"] == pytest.approx(0.01 * W)
