"""Exhibits: kept as files, read apart within limits, stopped, tried again; pages, regions and pins."""

from __future__ import annotations

import hashlib
import io
import os
import zipfile
from pathlib import Path
from typing import Any

import pdfplumber
import pytest
from asking import STORIES, Api
from django.conf import settings as django_settings
from django.core.files.base import ContentFile
from django.core.files.storage import storages
from plumb_server.accounts.models import User
from plumb_server.demo.people import LEAD
from plumb_server.reviews.models import Review
from plumb_server.submissions import contents, readings
from plumb_server.submissions.models import Claim, Exhibit, ExhibitReading
from plumb_server.submissions.services import add_exhibit
from plumb_server.web.problems import Unavailable
from weasyprint import HTML

Status = ExhibitReading.Status


def upload(api: Api, review: str, name: str, data: bytes) -> dict[str, Any]:
    answer = api.upload(f"/api/reviews/{review}/exhibits/", ContentFile(data, name=name))
    assert answer.status_code == 201, answer.json()
    told: dict[str, Any] = answer.json()
    return told


def report() -> bytes:
    rows = [["Story", "Height (m)", "Weight (kN)"], ["L2", "3.6", "900"], ["L1", "4.0", "1000"]]
    cells = "".join("<tr>" + "".join(f"<td style='padding: 1pt 9pt'>{c}</td>" for c in row) + "</tr>" for row in rows)
    return bytes(
        HTML(
            string="<h2>Aldermouth Granary</h2><p>The report.</p><p style='page-break-after: always'>V X = 240 kN</p>"
            f"<h3>Floors</h3><table>{cells}</table>"
        ).write_pdf()
    )


def test_bytes_are_kept_once_and_a_changed_file_shows(lead: Api, new_review: str) -> None:
    one = upload(lead, new_review, "a.csv", STORIES.encode())
    again = upload(lead, new_review, "a.csv", STORIES.encode())
    assert one["id"] == again["id"]
    folder = Path(django_settings.STORAGES["exhibits"]["OPTIONS"]["location"])
    file = folder / one["sha256"][:2] / one["sha256"]
    assert file.read_bytes() == STORIES.encode()
    file.write_bytes(b"other")
    try:
        with pytest.raises(Exception, match="does not match"):
            contents.contents(one["sha256"])
    finally:
        file.write_bytes(STORIES.encode())


def stored(sha256: str) -> Path:
    return Path(django_settings.STORAGES["exhibits"]["OPTIONS"]["location"]) / sha256[:2] / sha256


def test_a_damaged_file_is_sent_to_nobody_and_repaired_by_the_same_file(lead: Api, new_review: str) -> None:
    data = STORIES.encode() + b"\nL9;3.5;100"
    one = upload(lead, new_review, "a.csv", data)
    file = stored(one["sha256"])
    for damaged in (data[:-20], b"", data.replace(b"L9", b"L8")):
        file.write_bytes(damaged)
        for part in ("", "drawn/"):
            answer = lead.get(f"/api/exhibits/{one['id']}/file/" if not part else f"/api/exhibits/{one['id']}/{part}")
            assert answer.status_code == 409, part
            assert "does not match" in answer.json()["errors"][0]["message"]
        assert upload(lead, new_review, "a.csv", data)["id"] == one["id"]
        assert file.read_bytes() == data
    file.unlink()
    assert lead.get(f"/api/exhibits/{one['id']}/file/").status_code == 409
    upload(lead, new_review, "a.csv", data)
    answer = lead.get(f"/api/exhibits/{one['id']}/file/")
    assert b"".join(answer.streaming_content) == data  # type: ignore[attr-defined]
    assert answer.headers["Cache-Control"] == "no-store"


def test_what_cannot_be_written_whole_is_not_there(monkeypatch: pytest.MonkeyPatch) -> None:
    """The disk is full in the middle: neither a part of the file nor one of its former state is left."""
    data = b"of no exhibit" * 1000

    def full(handle: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(Unavailable, match="takes no file"):
        contents.keep(data)
    monkeypatch.undo()
    folder = stored(hashlib.sha256(data).hexdigest()).parent
    assert not [f for f in folder.iterdir() if f.name.startswith(hashlib.sha256(data).hexdigest())]


def test_a_name_shows_what_turns_it_round(lead: Api, new_review: str) -> None:
    upload(lead, new_review, "a.csv", b"a;b")
    submission = Review.objects.get(pk=new_review).submissions.get()
    author = User.objects.get(email=LEAD)
    exhibit = {"id": add_exhibit(submission, author, name="loads\u202evsc.csv\u200b", data=STORIES.encode()).pk}
    assert lead.get(f"/api/exhibits/{exhibit['id']}/").json()["name"] == "loads\\u202evsc.csv\\u200b"
    # one that was stored before
    Exhibit.objects.filter(pk=exhibit["id"]).update(name="loads\u2066.csv")
    assert lead.get(f"/api/exhibits/{exhibit['id']}/").json()["name"] == "loads\\u2066.csv"


def test_any_storage_of_django_will_do(lead: Api, new_review: str, settings: Any) -> None:
    settings.STORAGES = settings.STORAGES | {"exhibits": {"BACKEND": "django.core.files.storage.InMemoryStorage"}}
    exhibit = upload(lead, new_review, "b.csv", STORIES.encode())
    assert storages["exhibits"].exists(f"{exhibit['sha256'][:2]}/{exhibit['sha256']}")
    read = lead.send("POST", f"/api/reviews/{new_review}/tables/read/", {"exhibit": exhibit["id"]}).json()
    assert (read["kind"], read["claims"]) == ("stories", 4)


def test_a_file_is_read_in_a_process_of_its_own(lead: Api, new_review: str) -> None:
    exhibit = Exhibit.objects.get(pk=upload(lead, new_review, "a.csv", STORIES.encode())["id"])
    reading = exhibit.reading
    reading.status, reading.tables = Status.QUEUED, []
    readings.carry_out(reading)
    reading.refresh_from_db()
    assert reading.status == Status.READ
    assert [(t["kind"], t["rows"]) for t in reading.tables] == [("stories", 2)]


def test_a_file_that_takes_too_much_is_refused_and_nothing_else_suffers(
    lead: Api, new_review: str, settings: Any
) -> None:
    """A workbook of 0.3 MB that unpacks to 90 MB, within a second of processor time."""
    row = "<row>" + "<c><v>1</v></c>" * 12 + "</row>"
    kept = io.BytesIO()
    with zipfile.ZipFile(kept, "w", zipfile.ZIP_DEFLATED) as book:
        space = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"'
        kind = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet"
        book.writestr(
            "xl/_rels/workbook.xml.rels",
            f'<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">'
            f'<Relationship Id="r1" Type="{kind}" Target="worksheets/sheet1.xml"/></Relationships>',
        )
        book.writestr(
            "xl/workbook.xml",
            f'<workbook {space} xmlns:r="x"><sheets><sheet name="S" sheetId="1" r:id="r1"/></sheets></workbook>',
        )
        book.writestr(
            "xl/worksheets/sheet1.xml", f"<worksheet {space}><sheetData>{row * 480_000}</sheetData></worksheet>"
        )
    settings.JOBS_AT_ONCE = False
    exhibit = Exhibit.objects.get(pk=upload(lead, new_review, "bomb.xlsx", kept.getvalue())["id"])
    settings.READING_SECONDS = 1
    readings.carry_out(exhibit.reading)
    told = lead.get(f"/api/exhibits/{exhibit.pk}/").json()["reading"]
    assert (told["status"], told["message"]) == (
        "refused",
        "reading this file exceeds the limit of time or memory",
    )
    assert lead.get("/health/").status_code == 200


def test_a_reading_that_ends_its_worker_is_begun_three_times_only(lead: Api, new_review: str) -> None:
    exhibit = Exhibit.objects.get(pk=upload(lead, new_review, "a.csv", STORIES.encode())["id"])
    reading = exhibit.reading
    reading.status, reading.attempts = Status.READING, readings.MOST_ATTEMPTS
    reading.save()
    readings.carry_out(reading)
    assert (reading.status, reading.message) == (Status.REFUSED, "reading the file stopped its worker three times")


def test_a_reading_waits_in_the_queue_and_can_be_stopped_and_begun_again(
    lead: Api, new_review: str, settings: Any
) -> None:
    settings.JOBS_AT_ONCE = False
    exhibit = upload(lead, new_review, "c.csv", (STORIES + "\n").encode())
    assert exhibit["reading"]["status"] == "queued"
    answer = lead.send("POST", f"/api/reviews/{new_review}/tables/read/", {"exhibit": exhibit["id"]})
    assert (answer.status_code, answer.json()["detail"]) == (409, "c.csv is still being read")
    stopped = lead.send("DELETE", f"/api/exhibits/{exhibit['id']}/read/").json()
    assert stopped["reading"]["status"] == "stopped"
    reading = ExhibitReading.objects.get(pk=exhibit["id"])
    with pytest.raises(readings.Stopped):
        readings._Noter(reading)(1, 2)
    settings.JOBS_AT_ONCE = True
    begun = lead.send("POST", f"/api/exhibits/{exhibit['id']}/read/").json()
    assert begun["reading"]["status"] == "read"


def test_pages_have_tables_at_their_places(lead: Api, new_review: str) -> None:
    exhibit = upload(lead, new_review, "report.pdf", report())
    assert exhibit["reading"]["pages"] == 2
    assert [(t["page"], t["kind"]) for t in exhibit["reading"]["tables"]] == [(2, "stories")]
    page = lead.get(f"/api/exhibits/{exhibit['id']}/pages/2/").json()
    assert (page["has_text"], [t["sheet"] for t in page["tables"]]) == (True, ["page 2, table 1"])
    table = page["tables"][0]
    left, top, right, bottom = table["box"]
    assert 0 < left < right < page["width"]
    assert 0 < top < bottom < page["height"]
    assert len(table["cells"]) == 3
    body = {"exhibit": exhibit["id"], "sheet": "page 2, table 1"}
    assert lead.send("POST", f"/api/reviews/{new_review}/tables/", body).status_code == 201
    claim = Claim.objects.get(submission__review=new_review, quantity="w", story="L2")
    assert (claim.table.sheet, claim.row, claim.column) == ("page 2, table 1", 2, "C")
    page = lead.get(f"/api/exhibits/{exhibit['id']}/pages/2/").json()
    assert page["accepted"] == [{"sheet": "page 2, table 1", "kind": "stories", "claims": 4}]
    assert lead.get(f"/api/exhibits/{exhibit['id']}/pages/3/").status_code == 404


def test_a_picture_is_kept_as_it_is_and_drawn_as_a_page(lead: Api, new_review: str) -> None:
    with pdfplumber.open(io.BytesIO(report())) as book:
        drawn = book.pages[1].to_image(resolution=130).original.convert("RGB")
    made = io.BytesIO()
    drawn.save(made, "PNG")
    exhibit = upload(lead, new_review, "pasted picture.png", made.getvalue())
    assert exhibit["reading"]["pages"] == 1
    at = f"/api/exhibits/{exhibit['id']}"
    assert b"".join(lead.get(f"{at}/file/").streaming_content) == made.getvalue()
    assert b"".join(lead.get(f"{at}/drawn/").streaming_content).startswith(b"%PDF-")
    body = {"exhibit": exhibit["id"], "sheet": exhibit["reading"]["tables"][0]["label"]}
    table = lead.send("POST", f"/api/reviews/{new_review}/tables/read/", body).json()
    assert table["kind"] == "stories"
    assert all(0.0 < cell["confidence"] <= 1.0 for cell in table["scanned"])
    # a damaged one is kept, and says why nothing was read from it
    damaged = upload(lead, new_review, "cut.png", made.getvalue()[:200])
    assert "damaged" in damaged["reading"]["message"]
    assert lead.get(f"/api/exhibits/{damaged['id']}/drawn/").status_code == 404


def test_only_pages_are_drawn(lead: Api, new_review: str) -> None:
    pages = upload(lead, new_review, "report.pdf", report())
    table = upload(lead, new_review, "a.csv", STORIES.encode())
    assert b"".join(lead.get(f"/api/exhibits/{pages['id']}/drawn/").streaming_content) == report()
    assert lead.get(f"/api/exhibits/{table['id']}/drawn/").status_code == 404


def test_a_region_of_a_page_is_read_as_a_table_or_as_words(lead: Api, new_review: str) -> None:
    exhibit = upload(lead, new_review, "report.pdf", report())
    path = f"/api/reviews/{new_review}/tables/read/"
    page = lead.get(f"/api/exhibits/{exhibit['id']}/pages/2/").json()
    left, top, right, bottom = (round(v) for v in page["tables"][0]["box"])
    around = f"page 2, region {left - 5} {top - 3} {right + 5} {bottom + 3}"
    read = lead.send("POST", path, {"exhibit": exhibit["id"], "sheet": around}).json()
    assert (read["kind"], read["claims"]) == ("stories", 4)
    # it stays at its place
    assert around in [t["sheet"] for t in lead.get(f"/api/exhibits/{exhibit['id']}/pages/2/").json()["tables"]]
    whole = lead.send("POST", path, {"exhibit": exhibit["id"], "sheet": "page 1, region 0 120 600 200"}).json()
    assert (whole.get("kind"), whole.get("claims")) == ("parameters", 1), whole
    nothing = lead.send("POST", path, {"exhibit": exhibit["id"], "sheet": "page 2, region 0 700 600 800"})
    assert nothing.status_code == 422


def test_a_value_is_typed_with_a_pin_where_it_stands(lead: Api, new_review: str) -> None:
    exhibit = upload(lead, new_review, "report.pdf", report())
    body = {"exhibit": exhibit["id"], "sheet": "page 1, pin 120 300", "text": "Item\tX\tUnit\nV\t240\tkN\n"}
    assert lead.send("POST", f"/api/reviews/{new_review}/tables/", body).status_code == 201
    claim = Claim.objects.get(submission__review=new_review)
    assert (claim.quantity, claim.direction, claim.table.sheet) == ("V", "X", "page 1, pin 120 300")
    assert claim.table.exhibit_id == exhibit["id"]


def test_who_may_see_and_stop_readings(submitter: Api, stranger: Api, lead: Api, clinic: Review) -> None:
    exhibit = clinic.submissions.get().exhibits.first()
    assert stranger.get(f"/api/exhibits/{exhibit.pk}/").status_code == 404
    assert submitter.get(f"/api/exhibits/{exhibit.pk}/").status_code == 200
    assert submitter.get(f"/api/exhibits/{exhibit.pk}/pages/1/").status_code in (403, 404)
    assert submitter.send("DELETE", f"/api/exhibits/{exhibit.pk}/read/").status_code in (403, 404)
    assert lead.send("DELETE", f"/api/exhibits/{exhibit.pk}/").status_code == 409


def test_what_is_handed_in_and_not_read_yet_is_not_missing(lead: Api, new_review: str) -> None:
    path = f"/api/reviews/{new_review}"

    def missing() -> set[str]:
        checks = lead.get(f"{path}/recheck/").json()["checks"]
        return {c["id"] for c in checks if c["verdict"] == "gap"}

    text = "Item\tX\tY\tUnit\nV\t240\t230\tkN\n"
    assert lead.send("POST", f"{path}/tables/", {"text": text}).status_code == 201
    before = missing()
    assert "gap_F_a" in before
    exhibit = upload(lead, new_review, "more.csv", b"Item,Value,Unit\nF_a,1.2,\n")
    # whatever is in it, nobody has accepted it yet
    assert missing() == set()
    assert lead.send("POST", f"{path}/tables/", {"exhibit": exhibit["id"]}).status_code == 201
    assert missing() == before - {"gap_F_a"}


def test_tables_of_all_files_are_accepted_at_once_and_those_with_questions_are_named(
    lead: Api, new_review: str
) -> None:
    """The forces come first and refer to the stories of a file that was uploaded later."""
    forces = b"Case\tStory\tForce (kN)\nStatic X\tL2\t60\nStatic X\tL1\t40\n"
    upload(lead, new_review, "forces.tsv", forces)
    upload(lead, new_review, "stories.csv", STORIES.encode())
    upload(lead, new_review, "heights.csv", b"Story,Height,Weight\nL1,4,100\n")
    submission = lead.get(f"/api/reviews/{new_review}/").json()["submissions"][0]
    rows = lead.send("POST", f"/api/submissions/{submission['id']}/tables/").json()
    names = {e["id"]: e["name"] for e in submission["exhibits"]}
    assert {names[r["exhibit"]]: r["table"] is not None for r in rows} == {
        "stories.csv": True,
        "heights.csv": False,
        "forces.tsv": True,
    }
    (questions,) = [r["open"] for r in rows if r["table"] is None]
    assert any("unit" in q for q in questions)
    again = lead.send("POST", f"/api/submissions/{submission['id']}/tables/").json()
    assert [names[r["exhibit"]] for r in again] == ["heights.csv"]


PARTLY = "Item\tX\tY\tUnit\nV\t240\t23o\tkN\nW\t4000\t\tkN\nT\t0.6\t0.7\ts\n"


def test_a_table_is_accepted_without_its_doubtful_rows_where_the_reviewer_says_so(lead: Api, new_review: str) -> None:
    path = f"/api/reviews/{new_review}/tables/"
    refused = lead.send("POST", path, {"text": PARTLY})
    assert refused.status_code == 422
    table = lead.send("POST", path, {"text": PARTLY, "partly": True}).json()
    # V is open with the row of its Y; W has no direction, and its one value is in the column of X
    assert {tuple(part["rows"]) for part in table["open_parts"]} == {(2,), (3,)}
    assert set(Claim.objects.filter(submission__review=new_review).values_list("quantity", flat=True)) == {"T"}
    # what is in the open rows is not missing
    checks = lead.get(f"/api/reviews/{new_review}/recheck/").json()["checks"]
    assert not [c for c in checks if c["verdict"] == "gap" and c["quantity"] in ("V", "W")]


def test_open_rows_are_exported_and_imported(lead: Api, new_review: str) -> None:
    lead.send("POST", f"/api/reviews/{new_review}/tables/", {"text": PARTLY, "partly": True})
    exported = lead.get(f"/api/reviews/{new_review}/export/").json()
    assert [part["rows"] for part in exported["open"]] == [[2], [3]]
    imported = lead.send("POST", "/api/reviews/import/", exported).json()["id"]
    (table,) = lead.get(f"/api/reviews/{imported}/").json()["submissions"][0]["tables"]
    assert [part["rows"] for part in table["open_parts"]] == [[2], [3]]
