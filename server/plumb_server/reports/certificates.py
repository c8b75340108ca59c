"""Signatures of PDF with a certificate (PKCS#12): used in the request that brings it, and stored nowhere."""

from __future__ import annotations

import io
import tempfile
from datetime import UTC, datetime
from html import escape
from pathlib import Path
from typing import TYPE_CHECKING

from plumb_server.web.problems import UnprocessableContent

# what signs is imported when something is signed: every process would start later by it
if TYPE_CHECKING:
    from pyhanko.sign import signers

MOST_BYTES = 100_000
BOXES: dict[str, tuple[int, int, int, int]] = {
    "Signature": (56, 60, 306, 110),
    "Countersignature": (316, 60, 560, 110),
}
"""Where the visible fields stand on the first page: left, bottom, right, top in points."""
SUBJECT = 300


def _refused(path: str, message: str, remedy: str) -> UnprocessableContent:
    return UnprocessableContent([{"path": path, "message": message, "remedy": remedy}])


def read(data: bytes, passphrase: str, now: datetime | None = None) -> tuple[signers.SimpleSigner, str]:
    """The signer of a PKCS#12 file, and the subject of its certificate; raises UnprocessableContent naming why not."""
    from cryptography.hazmat.primitives.serialization import pkcs12
    from pyhanko.sign import signers

    if len(data) > MOST_BYTES:
        raise _refused("/certificate", "the file is too large for a certificate", "Choose a PKCS#12 file (.p12, .pfx).")
    word = passphrase.encode()
    try:
        key, certificate, _ = pkcs12.load_key_and_certificates(data, word or None)
    except ValueError:
        raise _refused(
            "/passphrase",
            "the file cannot be read with this passphrase, or is no PKCS#12 file",
            "Enter the passphrase of the certificate again.",
        ) from None
    if key is None or certificate is None:
        raise _refused(
            "/certificate", "the file has no key with a certificate", "Export both from where they are kept."
        )
    moment = now or datetime.now(UTC)
    if not certificate.not_valid_before_utc <= moment <= certificate.not_valid_after_utc:
        until = f"{certificate.not_valid_after_utc:%d %B %Y}"
        raise _refused("/certificate", f"the certificate is not valid now (until {until})", "Use a valid certificate.")
    signer = signers.SimpleSigner.load_pkcs12_data(data, other_certs=[], passphrase=word or None)
    if signer is None:
        raise _refused("/certificate", "the key of the certificate cannot sign", "Use an RSA or ECDSA certificate.")
    return signer, certificate.subject.rfc4514_string()[:SUBJECT]


def signed(pdf: bytes, signer: signers.SimpleSigner, field: str, name: str, subject: str) -> bytes:
    """A PDF with a signature in a visible field of its first page; what was signed before stays as it was."""
    from pyhanko.pdf_utils.incremental_writer import IncrementalPdfFileWriter
    from pyhanko.sign import fields, signers
    from pyhanko.sign.fields import SigSeedSubFilter
    from pyhanko.stamp import StaticStampStyle

    box = BOXES[field]
    words = {"Signature": "Signed by", "Countersignature": "Countersigned by"}[field]
    with tempfile.TemporaryDirectory() as folder:
        stamp = Path(folder) / "stamp.pdf"
        stamp.write_bytes(_stamp(f"{words} {name}", subject, box[2] - box[0], box[3] - box[1]))
        style = StaticStampStyle.from_pdf_file(str(stamp), border_width=1)
        writer = IncrementalPdfFileWriter(io.BytesIO(pdf), strict=False)
        fields.append_signature_field(writer, fields.SigFieldSpec(field, box=box, on_page=0))
        meta = signers.PdfSignatureMetadata(field_name=field, name=name, subfilter=SigSeedSubFilter.PADES)
        out = io.BytesIO()
        signers.PdfSigner(meta, signer=signer, stamp_style=style).sign_pdf(writer, output=out)
    return out.getvalue()


def _stamp(words: str, subject: str, width: float, height: float) -> bytes:
    """What stands in the visible field, with its fonts."""
    from weasyprint import HTML

    page = (
        f"<style>@page {{ size: {width}pt {height}pt; margin: 4pt }} body {{ margin: 0; font: 8pt sans-serif }}"
        f"small {{ font-size: 6pt }}</style><b>{escape(words)}</b><br><small>{escape(subject)}<br>"
        f"{datetime.now(UTC):%d %B %Y, %H:%M} UTC</small>"
    )
    return bytes(HTML(string=page).write_pdf())
