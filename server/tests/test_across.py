"""Editions side by side over the API, and another edition that comes to govern."""

from __future__ import annotations

from typing import Any

import pytest
from plumb_server.reviews.models import Review

pytestmark = pytest.mark.django_db


def address(title: str) -> str:
    return f"/api/reviews/{Review.objects.get(title=title).pk}"


def test_the_editions_stand_side_by_side(demo: None, lead: Any) -> None:
    found = lead.send("GET", f"{address('Quillon Exchange')}/across/").json()
    assert [e["id"] for e in found["editions"]] == ["en1998-1", "asce7-22", "is1893-2016"]
    row = next(r for r in found["rows"] if r["id"] == "reduction")
    # q of a frame of class DCM, R of a special moment frame, R of an SMRF
    assert [c["Y"]["value"] for c in row["cells"]] == [4.0, 8.0, 5.0]


def test_another_edition_governs_and_the_one_before_is_kept(demo: None, lead: Any) -> None:
    place = address("Quillon Exchange")
    before = lead.send("GET", f"{place}/").json()
    answer = lead.send("POST", f"{place}/brief/govern/", {"edition": "asce7-22", "based_on": before["brief_number"]})
    brief = answer.json()["brief"]
    assert brief["edition"] == "asce7-22"
    assert brief["site"]["S_MS"] == 1.02
    assert brief["comparison_editions"] == ["en1998-1", "is1893-2016"]
    assert brief["comparisons"]["en1998-1"]["site"]["a_gR"] == 0.22
    # What was measured in the ground belongs to the building
    assert brief["site"]["v_s30"] == 265.0
    undone = lead.send("POST", f"{place}/brief/undo/", {"based_on": before["brief_number"] + 1}).json()
    assert undone["brief"] == before["brief"]


def test_and_back_again_nothing_is_lost(demo: None, lead: Any) -> None:
    place = address("Quillon Exchange")
    first = lead.send("GET", f"{place}/across/").json()
    for edition in ("is1893-2016", "en1998-1"):
        number = lead.send("GET", f"{place}/").json()["brief_number"]
        lead.send("POST", f"{place}/brief/govern/", {"edition": edition, "based_on": number})
    again = lead.send("GET", f"{place}/across/").json()
    assert {e["id"]: e["needs"] for e in again["editions"]} == {e["id"]: [] for e in first["editions"]}

    def shears(answer: Any) -> dict[str, float]:
        row = next(r for r in answer["rows"] if r["id"] == "base_shear")
        return {c["edition"]: c["X"]["value"] for c in row["cells"]}

    assert shears(again) == pytest.approx(shears(first))


def test_an_edition_that_is_not_there_is_named(demo: None, lead: Any) -> None:
    place = address("Quillon Exchange")
    answer = lead.send("POST", f"{place}/brief/govern/", {"edition": "asce7-98", "based_on": 1})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["path"] == "/edition"


def test_a_bad_value_of_a_comparison_is_refused_in_its_place(demo: None, lead: Any) -> None:
    place = address("Quillon Exchange")
    state = lead.send("GET", f"{place}/").json()
    brief = state["brief"]
    brief["comparisons"]["is1893-2016"]["site"]["zone"] = "VI"
    answer = lead.send("PUT", f"{place}/brief/", {"brief": brief, "based_on": state["brief_number"]})
    assert answer.status_code == 422
    assert [e["path"] for e in answer.json()["errors"]] == ["/comparisons/is1893-2016/site/zone"]


def test_editions_say_what_they_take(lead: Any) -> None:
    editions = {e["id"]: e for e in lead.send("GET", "/api/editions/").json()}
    assert len(editions) == 10
    zone = next(i for i in editions["ubc97"]["inputs"] if i["name"] == "zone")
    assert (zone["part"], zone["form"], zone["options"], zone["computed"]) == (
        "site",
        "choice",
        ["1", "2A", "2B", "3", "4"],
        False,
    )
    system = next(s for s in editions["asce7-16"]["systems"] if s["id"] == "B_special_RC_SW")
    assert (system["factors"], system["heights"]["B"]) == ({"R": 6.0, "Omega_0": 2.5, "C_d": 5.0}, None)


def test_a_submitter_sees_no_comparison(demo: None, submitter: Any) -> None:
    assert submitter.send("GET", f"{address('Quillon Exchange')}/across/").status_code == 404


@pytest.mark.parametrize(
    ("kind", "shares"),
    [
        # UBC 1630.1.1 and ASCE 12.7.2 use 25 % of a storage load and none of a live load;
        # AS 1170.4, 6.2.2, uses psi_E: 0.6 of storage, 0.3 of other live loads
        ("storage", {"ubc97": 0.25, "as1170.4": 0.6, "asce7-16": 0.25}),
        ("live", {"ubc97": 0.0, "as1170.4": 0.3, "asce7-16": 0.0}),
    ],
)
def test_the_share_of_a_load_follows_its_kind(demo: None, lead: Any, kind: str, shares: dict[str, float]) -> None:
    place = address("Aldermouth Granary Lofts")
    review = lead.send("GET", f"{place}/").json()
    brief = review["brief"]
    load = brief["stories"][0]["loads"][1]
    load["kind"] = kind
    lead.send("PUT", f"{place}/brief/", {"based_on": review["brief_number"], "brief": brief})
    weights = lead.send("GET", f"{place}/across/").json()["weights"]
    for edition, share in shares.items():
        counted = weights[edition]["loads"][0][1]["counted"]
        assert counted == pytest.approx(share * load["amount"]), edition
