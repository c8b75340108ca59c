"""A large sheet is sent with what is out of plumb; the others follow in pages."""

from __future__ import annotations

from typing import Any

import pytest
from asking import Api
from plumb_server.rechecks import pages
from plumb_server.reviews.models import Review

pytestmark = pytest.mark.django_db


@pytest.fixture
def paths(lead: Api, clinic: Review, monkeypatch: Any) -> tuple[dict[str, Any], dict[str, Any], str]:
    """The clinic's sheet whole, the same as a large one is sent, and its address."""
    path = f"/api/reviews/{clinic.pk}/recheck/"
    entire = lead.get(path).json()
    clinic.rechecks.all().delete()
    monkeypatch.setattr(pages, "IN_SIGHT", 20)
    monkeypatch.setattr(pages, "PER_PAGE", 50)
    return entire, lead.get(path).json(), path


def test_what_is_out_of_plumb_comes_first(paths: tuple[dict[str, Any], dict[str, Any], str]) -> None:
    entire, sent, _ = paths
    assert "apart" not in entire
    assert len(sent["checks"]) == 20
    assert set(entire["origins"]) <= {c["id"] for c in sent["checks"]}
    assert all(c["verdict"] in ("differs", "breaches") for c in sent["checks"])
    # everything but the checks is of all of them
    assert {k: v for k, v in sent.items() if k not in ("checks", "apart")} == {
        k: v for k, v in entire.items() if k != "checks"
    }
    assert sent["apart"]["checks"] == len(entire["checks"])
    assert sent["apart"]["inherited"] == sum(c["role"] == "inherited" for c in entire["checks"])


def test_its_pages_hold_every_other_check_once(lead: Api, paths: tuple[dict[str, Any], dict[str, Any], str]) -> None:
    entire, sent, path = paths
    apart = sent["apart"]
    placed = dict(zip(apart["places"], sent["checks"], strict=True))
    for number in range(1, apart["pages"] + 1):
        page = lead.get(f"{path}{apart['recheck']}/{number}/").json()
        assert len(page["checks"]) <= 50
        assert not placed.keys() & set(page["places"])
        placed.update(zip(page["places"], page["checks"], strict=True))
    assert [placed[place] for place in range(apart["checks"])] == entire["checks"]
    assert lead.get(f"{path}{apart['recheck']}/{apart['pages'] + 1}/").status_code == 404
    assert lead.get(f"{path}{'0' * 64}/1/").status_code == 404


def test_the_server_itself_has_them_all(
    lead: Api, clinic: Review, paths: tuple[dict[str, Any], dict[str, Any], str]
) -> None:
    entire, sent, _ = paths
    assert clinic.rechecks.get(input_hash=sent["apart"]["recheck"]).sheet == entire
    in_sight = {c["id"] for c in sent["checks"]}
    late = next(c for c in entire["checks"] if c["id"] not in in_sight and c["theirs"])
    finding = {"title": "T", "text": "x", "severity": "note", "checks": [late["id"]]}
    filed = lead.send("POST", f"/api/reviews/{clinic.pk}/findings/", finding).json()
    assert filed["evidence"][0]["draft"] == late["draft"]


def test_a_change_of_the_brief_is_answered_with_what_is_in_sight(
    lead: Api, clinic: Review, paths: tuple[dict[str, Any], dict[str, Any], str]
) -> None:
    about = lead.get(f"/api/reviews/{clinic.pk}/").json()
    brief = about["brief"]
    brief["site"]["S_S"] = 1.3
    body = {"brief": brief, "based_on": about["brief_number"]}
    changed = lead.send("PUT", f"/api/reviews/{clinic.pk}/brief/", body).json()
    assert len(changed["recheck"]["checks"]) == 20
    assert changed["recheck"]["apart"]["pages"] > 1
