"""The report, opened and read."""

from __future__ import annotations

import hashlib
import io

import pytest
from asking import Api
from plumb_server.accounts.models import SignedWith, User
from plumb_server.demo.people import LEAD, PASSWORD
from plumb_server.findings.services import change_finding
from plumb_server.reports.equations import picture, symbolic
from plumb_server.reports.models import Printing
from plumb_server.reports.plan import SECTIONS
from plumb_server.reports.printing import basis_of, carry_out
from plumb_server.reports.services import context, evidence_row, page
from plumb_server.reviews.access import access
from plumb_server.reviews.models import Review
from pypdf import PdfReader

pytestmark = pytest.mark.django_db


def test_drafts_have_a_limit_an_hour(lead: Api, clinic: Review, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("plumb_server.reports.printing.MOST_DRAFTS", 2)
    path = f"/api/reviews/{clinic.pk}/report/draft/"
    assert [lead.send("POST", path, {"format": "xlsx"}).status_code for _ in range(3)] == [202, 202, 429]
    # what is signed is no draft
    assert lead.sign(clinic.pk).status_code == 202


def text_of(pdf: bytes) -> str:
    pages = [page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages]
    return " ".join(" ".join(pages).split())


def test_the_pdf_says_what_was_found_on_what_basis_and_what_was_not_checked(lead: Api, clinic: Review) -> None:
    answer = lead.draft(clinic.pk)
    assert answer["Content-Type"] == "application/pdf"
    # indices are set low, which the text of a PDF shows as a gap or as nothing
    text = text_of(answer.content).replace("F v", "F_v").replace("Fv", "F_v")
    for expected in (
        "Port Maren Clinic",
        "Peer review of the seismic analysis",
        "ASCE/SEI 7-16",
        "Scope and basis",
        "Register of findings",
        "Site coefficient F_v is not that of the governing edition",
        "1.680",  # theirs
        "1.94",  # ours
        "−13.4 %",
        "Table 11.4-2",
        "clinic-S0-parameters.xlsx",
        "site class = D",
        "We used the office's table.",
        "What was not checked",
        "Seismic design category (SDC)",  # the gap
        "10 causes explain 105 of 106 deviating values",
        "two digits exchanged: 2258 for 2528",
        "What the verdicts rest on",
        "weak stories; torsional consequences",
        "the loads behind the seismic weight: not stated in the submission",
        clinic.submissions.get().exhibits.get(name="clinic-S0-forces.csv").sha256[:20],
    ):
        assert expected in text, expected
    # What has no numbers says in words what it is
    assert "submitted , recomputed" not in text
    # deviations without a finding are listed as well
    assert "Origins of deviations without a finding" in text
    # the scope names the stages, and the terms are defined
    assert (
        "The recheck covers these stages: building data, ground motion, design spectrum, seismic weight, modal analysis"
        in text
    )
    assert "Independent The rule of the edition applied to the inputs of the reviewer" in text
    assert "w L5" in text


def test_the_preview_says_the_same_and_runs_no_script(lead: Api, clinic: Review) -> None:
    clinic.description = "<script>alert(1)</script>"
    clinic.save()
    html = lead.get(f"/api/reviews/{clinic.pk}/report/preview/").content.decode()
    assert "<script" not in html
    assert "&lt;script&gt;" in html


def test_only_a_lead_issues_and_readers_open_what_was_issued(
    lead: Api, reader: Api, submitter: Api, clinic: Review
) -> None:
    issued = lead.sign(clinic.pk).json()["report"]
    assert (issued["number"], issued["issued_by"]) == (1, "Ilse Varga")
    file = reader.get(f"/api/reports/{issued['id']}.pdf")
    assert hashlib.sha256(file.content).hexdigest() == issued["sha256"]
    assert submitter.get(f"/api/reports/{issued['id']}.pdf").status_code == 404
    assert [r["number"] for r in reader.get(f"/api/reviews/{clinic.pk}/reports/").json()] == [1]


def test_a_review_without_anything_has_a_report_too(lead: Api, new_review: str) -> None:
    text = text_of(lead.draft(new_review).content)
    assert "No finding has been filed." in text
    assert "values not stated" in text


def test_every_equation_of_the_edition_can_be_set() -> None:
    from plumb_core.editions import EDITIONS

    for edition in EDITIONS.values():
        for rule in edition.rules({}).values():
            if rule.tex:
                assert picture(symbolic({"tex": rule.tex})).startswith("data:image/svg+xml")


def test_a_finding_with_many_consequences_lists_the_first_and_counts_the_rest(lead: Api, clinic: Review) -> None:
    result = lead.get(f"/api/reviews/{clinic.pk}/recheck/").json()
    checks = ["F_v", *[c["id"] for c in result["checks"] if "F_v" in c["rests_on"]]]
    body = {"title": "All of it", "text": "See above.", "severity": "must", "checks": checks}
    assert lead.send("POST", f"/api/reviews/{clinic.pk}/findings/", body).status_code == 201
    text = text_of(lead.draft(clinic.pk).content)
    assert f"{len(checks) - 12} more values depend on it." in text


def test_the_basis_speaks_the_words_of_the_edition(demo: None) -> None:
    html = page(Review.objects.get(title="Quillon Exchange"))
    for expected in (
        "EN 1998-1:2004",
        "steel concentric bracing, diagonals",
        "period type steel mrf",
        "ductility class DCM",
        "ASCE/SEI 7-22, IS 1893 (Part 1):2016",
    ):
        assert expected in html, expected
    # What belongs to another edition is not stated
    assert "Supplements" not in html


def test_what_was_declared_stands_in_the_basis_and_so_does_that_nothing_was(lead: Api, clinic: Review) -> None:
    assert dict(context(clinic, list(SECTIONS))["basis"])["Permissions applied that lower a force"] == "none"
    place = f"/api/reviews/{clinic.pk}"
    held = lead.get(f"{place}/").json()
    brief = held["brief"]
    brief["site"] |= {"short_period_cap": True, "site_specific": {"S_DS": 0.9, "S_D1": 0.7}}
    brief["system"]["irregularities"] = {"out_of_plane_offset": True, "nonparallel_systems": False}
    brief["system"]["X"]["podium"] = {"from_story": "L2", "T_upper": 0.9, "R_upper": 6.0}
    assert lead.send("PUT", f"{place}/brief/", {"brief": brief, "based_on": held["brief_number"]}).status_code == 200
    told = dict(context(clinic, list(SECTIONS))["basis"])
    assert told["Permissions applied that lower a force"].startswith("S_DS for C_s at most 1.0")
    assert told["Site-specific study"] == "S_DS 0.9 g, S_D1 0.7 g"
    assert told["Irregularities assessed"] == "nonparallel systems none, out of plane offset present"
    assert told["Further systems in X"] == "two-stage podium below L2"


def test_a_report_names_the_recheck_that_it_rests_on(lead: Api, clinic: Review) -> None:
    lead.sign(clinic.pk)
    report = clinic.reports.get()
    assert clinic.rechecks.filter(input_hash=report.input_hash).exists()
    assert report.input_hash in page(clinic)


def test_a_closed_review_takes_no_findings_messages_or_reports(lead: Api, clinic: Review) -> None:
    place = f"/api/reviews/{clinic.pk}"
    finding = lead.get(f"{place}/findings/").json()[0]
    clinic.status = Review.Status.CLOSED
    clinic.save()
    body = {"title": "Late", "text": "See above.", "severity": "must", "checks": ["F_v"]}
    refused = [
        lead.send("POST", f"{place}/findings/", body),
        lead.sign(clinic.pk),
        lead.send("PATCH", f"/api/findings/{finding['id']}/", {"status": "settled"}, finding["revision"]),
        lead.send("PATCH", place + "/", {"title": "Another"}, 1),
        lead.send("POST", place + "/team/", {"email": "nobody@nowhere.example", "role": "reader"}),
        lead.send("POST", f"/api/findings/{finding['id']}/messages/", {"text": "Late"}),
    ]
    assert [r.status_code for r in refused] == [409] * 6
    assert "the review is closed" in refused[0].content.decode()


def test_a_report_is_not_signed_unseen(lead: Api, reviewer: Api, clinic: Review) -> None:
    """What is signed is the preview that was shown; changed meanwhile it is refused, with what changed."""
    path = f"/api/reviews/{clinic.pk}/reports/"
    lead.send("POST", "/_allauth/browser/v1/auth/reauthenticate", {"password": PASSWORD})
    assert lead.send("POST", path, {}).status_code == 400
    assert lead.send("POST", path, {"seen": "0" * 64}).status_code == 412
    seen = lead.seen(clinic.pk)
    finding = clinic.findings.get(number=1)
    assert (
        reviewer.send("PATCH", f"/api/findings/{finding.pk}/", {"status": "settled"}, finding.revision).status_code
        == 200
    )
    refused = lead.send("POST", path, {"seen": seen})
    assert refused.status_code == 412
    assert "Jonas Reed made the finding settled" in refused.content.decode()
    # the refusal has not used up the authentication
    issued = lead.send("POST", path, {"seen": lead.seen(clinic.pk)})
    assert issued.status_code == 202
    assert clinic.reports.count() == 1


def test_what_is_issued_is_what_was_signed(lead: Api, clinic: Review) -> None:
    """Between signature and print somebody settles a finding: the report is not issued, and says why."""
    user = User.objects.get(email=LEAD)
    printing = Printing.objects.create(review=clinic, asked_by=user, basis=basis_of(clinic), issues=True)
    finding = clinic.findings.get(number=1)
    change_finding(finding, access(user, clinic.pk), {"status": "settled"}, finding.revision)
    carry_out(printing)
    told = lead.get(f"/api/printings/{printing.pk}/").json()
    assert (told["status"], told["report"]) == ("refused", None)
    assert "changed after the report was signed" in told["message"]
    assert not clinic.reports.exists()


def test_a_printing_that_ends_its_worker_is_not_begun_for_ever(lead: Api, clinic: Review) -> None:
    user = User.objects.get(email=LEAD)
    printing = Printing.objects.create(review=clinic, asked_by=user, basis="", attempts=3)
    carry_out(printing)
    assert printing.status == "refused"


def test_a_printing_is_seen_by_nobody_else(reviewer: Api, lead: Api, clinic: Review) -> None:
    asked = lead.send("POST", f"/api/reviews/{clinic.pk}/report/draft/").json()
    for path in (f"/api/printings/{asked['id']}/", f"/api/printings/{asked['id']}.pdf"):
        assert (lead.get(path).status_code, reviewer.get(path).status_code) == (200, 404)


def test_the_foot_of_a_report_has_the_title_as_it_is(lead: Api, clinic: Review) -> None:
    clinic.title = """O'Hara & "Sons" Hall"""
    clinic.save()
    assert """O'Hara & "Sons" Hall · review report""" in text_of(lead.draft(clinic.pk).content)


def test_both_values_of_a_row_have_one_unit() -> None:
    """0.20833 m/s² is 0.02124 g: beside 0.2083 g it must not read as equal."""
    check = {
        "id": "spectrum_factor.X",
        "label": "factor on S_a X",
        "meaning": "Factor on the ordinates of the spectrum",
        "unit": "g",
        "theirs": {"value": 0.20833 / 9.80665, "text": "0.20833", "unit": "m/s2", "source": {}},
        "carried": None,
        "independent": {"value": 0.2083, "deviation": -0.898, "multiples": -90.0, "tolerance": 0.01, "agrees": False},
        **dict.fromkeys(("verdict", "role", "level", "clause", "limit", "note"), ""),
        "rests_on": [],
    }
    row = evidence_row(check)
    assert (row["theirs"], row["independent"], row["unit"]) == ("0.02124", "0.2083", "g")
    assert row["as_written"] == "0.20833 m/s2"


def test_one_authentication_signs_one_report_whatever_the_concurrency(lead: Api, clinic: Review) -> None:
    """The row decides, and not the session, of which each request has a copy; the browser tests send four at once."""
    authenticated = 1_790_000_000.25
    user = User.objects.get(email=LEAD)
    assert SignedWith.first(user, authenticated)
    assert [SignedWith.first(user, authenticated) for _ in range(3)] == [False] * 3
    # another person's is another one, and so is the next of the same person
    assert SignedWith.first(User.objects.exclude(pk=user.pk).first() or user, authenticated)
    assert SignedWith.first(user, authenticated + 1)
