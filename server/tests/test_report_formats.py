"""The report in its formats, by its plan, under the office's letterhead, and with its signatures."""

from __future__ import annotations

import base64
import io
import re
import shutil
import subprocess
import time
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pdfplumber
import pytest
from asking import Api
from cryptography import x509
from cryptography.hazmat.primitives import hashes
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.hazmat.primitives.serialization import BestAvailableEncryption, pkcs12
from cryptography.x509.oid import NameOID
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from docx import Document
from openpyxl import load_workbook
from plumb_server.demo.people import PASSWORD
from plumb_server.demo.rounds import second_round
from plumb_server.rechecks.services import run_recheck
from plumb_server.reports.models import Printing, Report
from plumb_server.reports.office_math import omml
from plumb_server.reports.pictures import marks, offset, plumb_line, spectrum, story_logs
from plumb_server.reviews.models import Review
from pyhanko.pdf_utils.reader import PdfFileReader
from pyhanko.sign.validation import validate_pdf_signature
from pyhanko_certvalidator import ValidationContext

pytestmark = pytest.mark.django_db
WORD = "of no use elsewhere"


@pytest.fixture
def rounds(clinic: Review) -> Review:
    second_round()
    return clinic


def made(client: Api, review: Review, **body: str) -> bytes:
    asked = client.send("POST", f"/api/reviews/{review.pk}/report/draft/", body).json()
    assert (asked["status"], asked["share"]) == ("done", 1.0), asked
    content: bytes = client.get(f"/api/printings/{asked['id']}.{asked['format']}").content
    return content


def certificate(valid: int = 30, name: str = "Ilse Varga") -> tuple[bytes, x509.Certificate]:
    """A PKCS#12 file, and its certificate, which vouches for itself."""
    key = ec.generate_private_key(ec.SECP256R1())
    subject = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, name)])
    now = datetime.now(UTC)
    usage = x509.KeyUsage(*(True, True), *(False,) * 7)
    made_of = (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(subject)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(days=60))
        .not_valid_after(now + timedelta(days=valid))
        .add_extension(usage, critical=True)
        .sign(key, hashes.SHA256())
    )
    return pkcs12.serialize_key_and_certificates(
        b"x", key, made_of, None, BestAvailableEncryption(WORD.encode())
    ), made_of


# formats


def test_the_report_as_docx_has_styles_tables_equations_and_pictures(lead: Api, rounds: Review) -> None:
    document = Document(io.BytesIO(made(lead, rounds, format="docx")))
    headings = [p.text for p in document.paragraphs if p.style and p.style.name == "Heading 1"]
    assert headings[:4] == ["1 Scope and basis", "2 Definitions", "3 Register of findings", "4 Pictures"]
    assert any("Site coefficient" in cell.text for t in document.tables for row in t.rows for cell in row.cells)
    assert document.element.body.xpath(".//m:oMath")
    assert len(document.inline_shapes) > 3


def test_the_report_as_xlsx_has_every_value_with_its_place(lead: Api, rounds: Review) -> None:
    book = load_workbook(io.BytesIO(made(lead, rounds, format="xlsx")))
    assert book.sheetnames == ["Register", "Values", "Requirements"]
    rows = list(book["Values"].iter_rows(values_only=True))
    head = list(rows[0])
    values = [dict(zip(head, row, strict=True)) for row in rows[1:]]
    result = run_recheck(rounds, rounds.submissions.latest_with_values()).sheet
    force = next(v for v in values if v["Symbol"] == "F_x" and (v["Direction"], v["Story"]) == ("Y", "L6"))
    check = next(c for c in result["checks"] if c["id"] == "F.Y.L6.Static Y")
    assert (force["Submitted"], force["Recomputed, carried"]) == (check["theirs"]["value"], check["carried"]["value"])
    assert (force["File"], force["Verdict"], force["Role"]) == ("clinic-S1-forces.csv", "differs", "origin")
    # every submitted value is there, checked or not
    files = {v["File"] for v in values}
    assert "clinic-S1-displacements.csv" in files
    assert len(values) >= result["coverage"]["claims"]


def test_the_letter_has_the_open_findings_alone(lead: Api, rounds: Review) -> None:
    finding = rounds.findings.get(number=2)
    lead.send("PATCH", f"/api/findings/{finding.pk}/", {"status": "settled"}, finding.revision)
    text = "\n".join(p.text for p in Document(io.BytesIO(made(lead, rounds, kind="letter", format="docx"))).paragraphs)
    assert "4 findings are open" in text
    assert "1 · Site coefficient" in text
    assert "2 · Seismic weight" not in text
    with pdfplumber.open(io.BytesIO(made(lead, rounds, kind="letter"))) as pdf:
        assert "4 findings are open" in (pdf.pages[0].extract_text() or "")
    assert (
        lead.send("POST", f"/api/reviews/{rounds.pk}/report/draft/", {"kind": "letter", "format": "xlsx"}).status_code
        == 400
    )


@pytest.mark.skipif(shutil.which("soffice") is None, reason="LibreOffice is installed by bin/test")
def test_docx_and_xlsx_open_in_libreoffice(lead: Api, rounds: Review, tmp_path: Path) -> None:
    for form in ("docx", "xlsx"):
        (tmp_path / f"report.{form}").write_bytes(made(lead, rounds, format=form))
    profile = f"-env:UserInstallation=file://{tmp_path}/profile"
    subprocess.run(
        [
            "soffice",
            profile,
            "--headless",
            "--convert-to",
            "pdf",
            "--outdir",
            str(tmp_path),
            str(tmp_path / "report.docx"),
        ],
        check=True,
        capture_output=True,
        timeout=120,
    )
    with pdfplumber.open(tmp_path / "report.pdf") as pdf:
        text = "\n".join(page.extract_text() or "" for page in pdf.pages)
    assert "Register of findings" in text
    subprocess.run(
        [
            "soffice",
            profile,
            "--headless",
            "--convert-to",
            "csv",
            "--outdir",
            str(tmp_path),
            str(tmp_path / "report.xlsx"),
        ],
        check=True,
        capture_output=True,
        timeout=120,
    )
    assert "Site coefficient F_v" in (tmp_path / "report.csv").read_text()


def test_the_pdf_says_that_it_is_kept_for_long(lead: Api, clinic: Review) -> None:
    root = PdfFileReader(io.BytesIO(made(lead, clinic))).root
    # PDF/A-2a by its own description, with the structure of the text
    described = root["/Metadata"].data
    assert re.search(rb"pdfaid:part(=\"|>)2", described)
    assert root["/MarkInfo"]["/Marked"]
    assert "/StructTreeRoot" in root


def test_equations_are_turned_to_the_mathematics_of_office_documents() -> None:
    turned = omml(r"\frac{S_{DS}}{R/I_e} \le \sqrt{2}")
    assert turned.count("<m:f>") == 1
    assert turned.count("<m:sSub>") == 2
    assert "<m:rad>" in turned
    assert "≤" in turned


# plan and letterhead


def test_sections_are_chosen_and_ordered(lead: Api, clinic: Review) -> None:
    path = f"/api/reviews/{clinic.pk}/report/plan/"
    before = lead.get(path).json()
    assert before["sections"][0] == "scope"
    seen = lead.seen(clinic.pk)
    assert lead.send("PUT", path, {"sections": ["register", "assumptions"]}).status_code == 200
    html = lead.get(f"/api/reviews/{clinic.pk}/report/preview/").content.decode()
    assert "1 Register of findings" in html
    assert "2 Assumptions" in html
    assert "Definitions" not in html
    assert lead.send("PUT", path, {"sections": ["register", "register"]}).status_code == 400
    assert lead.send("PUT", path, {"sections": ["nothing"]}).status_code == 400
    # what was seen before is another report
    lead.send("POST", "/_allauth/browser/v1/auth/reauthenticate", {"password": PASSWORD})
    assert lead.send("POST", f"/api/reviews/{clinic.pk}/reports/", {"seen": seen}).status_code == 412


def test_the_letterhead_stands_on_the_report(lead: Api, signed_in: Any, clinic: Review) -> None:
    office = signed_in("nora.quist@hesper-review.example")
    png = base64.b64encode(b"\x89PNG\r\n\x1a\n" + b"\x00" * 8).decode()
    body = {"name": "Hesper Review Office", "lines": "Quay 1\nPort Maren", "footer": "Confidential", "logo": png}
    assert office.send("PUT", "/api/office/letterhead/", body).json()["has_logo"] is True
    html = lead.get(f"/api/reviews/{clinic.pk}/report/preview/").content.decode()
    assert "<b>Hesper Review Office</b><br>Quay 1<br>Port Maren" in html
    assert "Confidential" in html
    assert office.send("PUT", "/api/office/letterhead/", {"logo": "no base64"}).status_code == 400
    svg = base64.b64encode(b"<svg/>").decode()
    assert office.send("PUT", "/api/office/letterhead/", {"logo": svg}).status_code == 400


# signatures


def to_sign(client: Api, review: Review) -> str:
    # a short report: what is signed is not what is tested
    plan = f"/api/reviews/{review.pk}/report/plan/"
    client.send("PUT", plan, client.get(plan).json() | {"sections": ["register"]})
    client.send("POST", "/_allauth/browser/v1/auth/reauthenticate", {"password": PASSWORD})
    body = {"seen": client.seen(review.pk), "with_certificate": True}
    asked = client.send("POST", f"/api/reviews/{review.pk}/reports/", body).json()
    assert asked["status"] == "to_sign", asked
    return str(asked["id"])


def signatures(pdf: bytes, *roots: x509.Certificate) -> list[Any]:
    trusted = ValidationContext(trust_roots=[as_asn1(root) for root in roots])
    reader = PdfFileReader(io.BytesIO(pdf), strict=False)
    return [validate_pdf_signature(s, trusted) for s in reader.embedded_signatures]


def as_asn1(root: x509.Certificate) -> Any:
    from asn1crypto.x509 import Certificate
    from cryptography.hazmat.primitives.serialization import Encoding

    return Certificate.load(root.public_bytes(Encoding.DER))


def given(client: Api, path: str, file: bytes, word: str = WORD) -> Any:
    upload = SimpleUploadedFile("key.p12", file)
    token = client.cookies["csrftoken"].value
    return client.post(path, {"certificate": upload, "passphrase": word}, headers={"X-CSRFToken": token})


def test_the_lead_signs_with_a_certificate_that_is_stored_nowhere(lead: Api, clinic: Review) -> None:
    file, root = certificate()
    path = f"/api/printings/{to_sign(lead, clinic)}/sign/"
    wrong = given(lead, path, file, "another")
    assert (wrong.status_code, wrong.json()["errors"][0]["path"]) == (422, "/passphrase")
    report = given(lead, path, file).json()
    assert report["certificate"] == "CN=Ilse Varga"
    data = lead.get(f"/api/reports/{report['id']}.pdf").content
    (status,) = signatures(data, root)
    assert (status.intact, status.valid, status.trusted) == (True, True, True)
    assert given(lead, path, file).status_code == 409
    # neither the file nor its passphrase is anywhere in the database
    with connection.cursor() as cursor:
        cursor.execute("SELECT row_to_json(p)::text FROM reports_printing p")
        stored = " ".join(row[0] for row in cursor.fetchall())
    assert WORD not in stored
    assert base64.b64encode(file).decode()[:60] not in stored
    # a byte that was changed is seen
    place = data.index(b"endstream") - 20
    changed = data[:place] + bytes([data[place] ^ 1]) + data[place + 1 :]
    assert [s.intact for s in signatures(changed, root)] == [False]


def test_a_certificate_that_is_over_is_refused(lead: Api, clinic: Review) -> None:
    file, _ = certificate(valid=-1)
    refused = given(lead, f"/api/printings/{to_sign(lead, clinic)}/sign/", file)
    assert (refused.status_code, refused.json()["errors"][0]["path"]) == (422, "/certificate")
    assert clinic.reports.count() == 0
    assert given(lead, f"/api/printings/{to_sign(lead, clinic)}/sign/", b"nothing").status_code == 422


def test_what_changed_meanwhile_is_not_signed(lead: Api, clinic: Review) -> None:
    file, _ = certificate()
    path = f"/api/printings/{to_sign(lead, clinic)}/sign/"
    lead.send("POST", f"/api/findings/{clinic.findings.get(number=1).pk}/messages/", {"text": "One more thing."})
    assert given(lead, path, file).status_code == 409
    assert clinic.reports.count() == 0


def test_two_signatures_are_two_persons(lead: Api, reviewer: Api, reader: Api, clinic: Review) -> None:
    plan = f"/api/reviews/{clinic.pk}/report/plan/"
    sections = lead.get(plan).json()["sections"]
    assert reviewer.send("PUT", plan, {"sections": sections, "two_signatures": True}).status_code == 403
    lead.send("PUT", plan, {"sections": sections, "two_signatures": True})
    first, root = certificate()
    report = given(lead, f"/api/printings/{to_sign(lead, clinic)}/sign/", first).json()
    assert report["complete"] is False
    # before the second signature readers do not see it
    listed = f"/api/reviews/{clinic.pk}/reports/"
    assert reader.get(listed).json() == []
    assert reader.get(f"/api/reports/{report['id']}.pdf").status_code == 404
    path = f"/api/reports/{report['id']}/countersign/"
    second, other = certificate(name="Jonas Reed")
    lead.send("POST", "/_allauth/browser/v1/auth/reauthenticate", {"password": PASSWORD})
    assert given(lead, path, second).status_code == 409
    assert given(reviewer, path, second).status_code == 401
    reviewer.send("POST", "/_allauth/browser/v1/auth/reauthenticate", {"password": PASSWORD})
    signed = given(reviewer, path, second).json()
    assert (signed["complete"], signed["countersigned_by"]) == (True, "Jonas Reed")
    data = reader.get(f"/api/reports/{report['id']}.pdf").content
    both = signatures(data, root, other)
    assert [s.intact and s.valid for s in both] == [True, True]
    # what the lead signed is kept byte for byte
    assert data.startswith(bytes(Report.objects.get(pk=report["id"]).pdf))


def test_a_plain_second_signature(lead: Api, reviewer: Api, clinic: Review) -> None:
    plan = f"/api/reviews/{clinic.pk}/report/plan/"
    lead.send("PUT", plan, {"sections": ["register"], "two_signatures": True})
    lead.sign(clinic.pk)
    report = clinic.reports.get()
    reviewer.send("POST", "/_allauth/browser/v1/auth/reauthenticate", {"password": PASSWORD})
    token = reviewer.cookies["csrftoken"].value
    path = f"/api/reports/{report.pk}/countersign/"
    assert reviewer.post(path, {}, headers={"X-CSRFToken": token}).json()["complete"] is True
    with pdfplumber.open(io.BytesIO(lead.get(f"/api/reports/{report.pk}.pdf").content)) as pdf:
        assert "Signed by: Ilse Varga" in "\n".join(page.extract_text() or "" for page in pdf.pages)


# pictures


def test_pictures_show_what_deviates(clinic: Review) -> None:
    result = run_recheck(clinic, clinic.submissions.latest_with_values()).sheet
    line = plumb_line(result["checks"])
    assert line is not None
    out = [c for c in result["checks"] if c["verdict"] in ("differs", "breaches") and c["role"]]
    shown = min(48, len(out))
    # a mark for each: squares for limits, lozenges for the others
    breaches = sum(c["verdict"] == "breaches" for c in out)
    assert line.svg.count('width="6" height="6"') == breaches
    assert line.svg.count("l4 4-4 4-4-4z") == shown - breaches
    points = spectrum(result)
    assert points is not None
    assert points.svg.count("<circle") == sum(
        c["quantity"] == "S_a" and c["theirs"] is not None for c in result["checks"]
    )
    assert any("Lateral force" in p.caption for p in story_logs(result))
    assert plumb_line([c for c in result["checks"] if c["verdict"] == "agrees"]) is None


def test_axes_have_round_marks() -> None:
    assert marks(10.0) == [0.0, 5.0, 10.0]
    assert marks(0.83) == [0.0, 0.5]
    # ten times the tolerance is at 3 + 2 ln(10/3)
    assert offset(-10.0) == pytest.approx(-5.408, abs=1e-3)
    assert offset(1e9) == 10.0


@pytest.mark.timing
def test_a_report_of_sixty_findings_takes_less_than_twenty_seconds(lead: Api, clinic: Review) -> None:
    for number in range(60):
        body = {"title": f"Finding {number}", "text": "x" * 400, "severity": "must", "checks": ["F_v", "V.Y", "S_D1"]}
        lead.send("POST", f"/api/reviews/{clinic.pk}/findings/", body)
    begun = time.monotonic()
    assert len(made(lead, clinic)) > 100_000
    assert time.monotonic() - begun < 20
    assert Printing.objects.get().status == "done"
