"""The office's library of remarks, and what is attached to findings."""

from __future__ import annotations

import json
from typing import Any

import pytest
from asking import Api
from django.core.files.uploadedfile import SimpleUploadedFile
from plumb_server.accounts.models import User
from plumb_server.demo.people import LEAD, REVIEWER
from plumb_server.findings.models import Finding, Remark
from plumb_server.reviews.models import Review

pytestmark = pytest.mark.django_db
PNG = b"\x89PNG\r\n\x1a\n" + b"\x00" * 20
TEXT = "{label} is submitted as {submitted} ({file}); {edition}, {clause} gives {recomputed}, {deviation}."


def added(client: Api, **fields: str) -> Any:
    return client.send("POST", "/api/remarks/", {"code": "", "title": "Any value", "text": TEXT, **fields})


def test_a_remark_is_offered_with_the_values_of_the_check(lead: Api, clinic: Review) -> None:
    assert added(lead).status_code == 201
    assert added(lead, code="S15", title="Site coefficient").status_code == 201
    assert added(lead, code="S02", title="Elsewhere").status_code == 201
    offered = lead.get(f"/api/reviews/{clinic.pk}/remarks/?check=F_v").json()
    # those of the check's code first, those of other codes not at all
    assert [r["title"] for r in offered] == ["Site coefficient", "Any value"]
    assert offered[0]["text"] == (
        "F_v is submitted as 1.680 (clinic-S0-parameters.xlsx); "
        "ASCE/SEI 7-16, Table 11.4-2, 11.4.3 gives 1.94, −13.4 %."
    )
    assert lead.get(f"/api/reviews/{clinic.pk}/remarks/?check=nothing").status_code == 422


def test_unknown_placeholders_and_doubles_are_refused(lead: Api) -> None:
    refused = added(lead, text="See {nothing}.")
    assert (refused.status_code, refused.json()["errors"][0]["path"]) == (400, "/text")
    assert "{nothing}" in refused.json()["errors"][0]["message"]
    added(lead)
    assert added(lead).status_code == 409


def test_a_finding_goes_into_the_library_in_one_stroke(lead: Api, clinic: Review) -> None:
    finding = clinic.findings.get(number=1)
    made = lead.send("POST", f"/api/findings/{finding.pk}/remark/").json()
    assert (made["code"], made["title"]) == ("S15", finding.title)
    assert "{submitted}" in made["text"]
    assert "1.680" not in made["text"]
    # and comes out of it as it was
    offered = lead.get(f"/api/reviews/{clinic.pk}/remarks/?check=F_v").json()
    assert offered[0]["text"] == finding.text


def test_a_change_is_based_on_what_was_seen(lead: Api, reviewer: Api) -> None:
    made = added(lead).json()
    path = f"/api/remarks/{made['id']}/"
    assert lead.send("PATCH", path, {"title": "Another"}, 1).json()["revision"] == 2
    assert reviewer.send("PATCH", path, {"title": "A third"}, 1).status_code == 412
    assert reviewer.send("DELETE", path).status_code == 204


def test_the_library_is_exported_and_imported(lead: Api, reviewer: Api) -> None:
    added(lead)
    added(lead, code="S15", title="Site coefficient")
    exported = json.loads(lead.get("/api/remarks/library/").content)
    Remark.objects.filter(code="S15").delete()
    assert reviewer.send("POST", "/api/remarks/library/", exported).json() == {"added": 1, "known": 1}
    broken = {**exported, "remarks": [*exported["remarks"], {"title": "X", "text": "{no}"}]}
    assert reviewer.send("POST", "/api/remarks/library/", broken).status_code == 400
    assert Remark.objects.count() == 2


def test_who_does_not_belong_to_the_office_has_no_library(reviewer: Api, clinic: Review) -> None:
    User.objects.filter(email=REVIEWER).update(of_office=False)
    assert added(reviewer).status_code == 403
    assert reviewer.get(f"/api/reviews/{clinic.pk}/remarks/?check=F_v").json() == []


# what is attached


def test_a_picture_is_seen_by_who_sees_the_finding(lead: Api, submitter: Api, stranger: Api, clinic: Review) -> None:
    finding = clinic.findings.get(number=1)
    made = lead.upload(f"/api/findings/{finding.pk}/pictures/", SimpleUploadedFile("plan.png", PNG)).json()
    assert (made["name"], made["media_type"]) == ("plan.png", "image/png")
    path = f"/api/attachments/{made['id']}/"
    assert submitter.get(path).content == PNG
    assert stranger.get(path).status_code == 404
    # of an issued finding it stays
    assert lead.send("DELETE", path).status_code == 409
    draft = Finding.objects.create(review=clinic, number=9, title="T", text="x", author=User.objects.get(email=LEAD))
    other = lead.upload(f"/api/findings/{draft.pk}/pictures/", SimpleUploadedFile("plan.png", PNG)).json()["id"]
    assert submitter.get(f"/api/attachments/{other}/").status_code == 404
    assert lead.send("DELETE", f"/api/attachments/{other}/").status_code == 204


@pytest.mark.parametrize(
    ("name", "data"), [("a.svg", b"<svg/>"), ("b.png", b"GIF89a"), ("c.png", PNG + bytes(2_000_000))]
)
def test_what_is_no_picture_is_refused(lead: Api, clinic: Review, name: str, data: bytes) -> None:
    finding = clinic.findings.get(number=1)
    refused = lead.upload(f"/api/findings/{finding.pk}/pictures/", SimpleUploadedFile(name, data))
    assert (refused.status_code, refused.json()["errors"][0]["path"]) == (422, "/file")


def test_a_region_of_a_page_is_attached(lead: Api, clinic: Review) -> None:
    finding = clinic.findings.get(number=1)
    exhibit = clinic.submissions.get().exhibits.first()
    assert exhibit is not None
    path = f"/api/findings/{finding.pk}/regions/"
    body = {"exhibit": exhibit.pk, "page": 2, "region": [0.1, 0.2, 0.5, 0.6]}
    assert lead.send("POST", path, body).json()["name"] == f"{exhibit.name}, page 2"
    assert lead.send("POST", path, body | {"region": [0.5, 0.2, 0.1, 0.6]}).status_code == 400
    assert lead.send("POST", path, body | {"exhibit": 10**6}).status_code == 422
    seen = next(f for f in lead.get(f"/api/reviews/{clinic.pk}/findings/").json() if f["number"] == 1)
    assert seen["attachments"][0]["region"] == [0.1, 0.2, 0.5, 0.6]
