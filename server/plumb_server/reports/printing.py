"""Printing reports: never in the request, as jobs of the queue; signing keeps what was assessed, or refuses."""

from __future__ import annotations

import hashlib
import logging
from datetime import timedelta
from typing import Any

from django.conf import settings
from django.db import transaction
from django.db.models import Count
from django.utils import timezone
from rest_framework.exceptions import Throttled

from plumb_server.accounts.models import User
from plumb_server.hashing import input_hash
from plumb_server.rechecks.services import run_recheck
from plumb_server.reports import certificates, plan, services, sheets, word
from plumb_server.reports.models import Countersignature, Letterhead, Printing, Report, ReportPlan
from plumb_server.reviews.conflicts import changes_since
from plumb_server.reviews.models import Review
from plumb_server.web.problems import Conflict, PreconditionFailed
from plumb_server.web.queue import defer

QUEUE, TASK = "reports", "print_report"
MOST_ATTEMPTS = 3
RETENTION = timedelta(hours=6)
"""How long a draft is stored for the person who requested it."""

Status = Printing.Status
log = logging.getLogger(__name__)


def basis_of(review: Review) -> str:
    """Hash of all that a report of a review says."""
    review = Review.objects.get(pk=review.pk)
    recheck = run_recheck(review, review.submissions.latest_with_values())
    findings = list(review.findings.values_list("pk", "revision"))
    team = list(review.team.order_by("pk").values_list("user_id", "role"))
    said = {"recheck": recheck.input_hash, "findings": findings, "team": team, "about": review.revision}
    return input_hash(
        said
        | {
            "sections": plan.sections_of(review),
            "letterhead": Letterhead.current().revision,
            "messages": _answers(review),
        }
    )


def _answers(review: Review) -> int:
    """How many messages its threads have."""
    return sum(review.findings.annotate(n=Count("thread")).values_list("n", flat=True))


def require_open(review: Review) -> None:
    """Raise Conflict where the review is closed: nothing more is issued of it."""
    if review.status == Review.Status.CLOSED:
        raise Conflict("the review is closed", "The lead can reopen it.")


def seen_now(review: Review) -> str:
    """What a preview of the report shows now: the hash of all that it says, and when it was."""
    return f"{basis_of(review)} {review.audit.values_list('pk', flat=True).first() or 0}"


def require_seen(review: Review, seen: str) -> None:
    """Raise PreconditionFailed, naming what changed, where the report is another one than that which was shown."""
    basis, _, last = seen.partition(" ")
    if basis != basis_of(review):
        of = {"pk__gt": int(last)} if last.isascii() and last.isdigit() and len(last) < 19 else {}
        raise PreconditionFailed(changes_since(review, "the report", **of))


def ask_for(
    review: Review,
    user: User,
    *,
    issues: bool = False,
    with_certificate: bool = False,
    kind: str = Printing.Kind.REPORT,
    format: str = Printing.Format.PDF,
) -> Printing:
    """Put a report into the queue: to look at, or as it is signed now.

    Raises Conflict where the review is closed and the report is to be issued.
    """
    if issues:
        require_open(review)
    else:
        _require_turn(user)
    basis = basis_of(review)
    with transaction.atomic():
        Printing.objects.filter(asked_at__lt=timezone.now() - RETENTION).delete()
        printing = Printing.objects.create(
            review=review,
            asked_by=user,
            basis=basis,
            issues=issues,
            with_certificate=with_certificate,
            kind=kind,
            format=format,
        )
        if not settings.JOBS_AT_ONCE:
            defer(TASK, QUEUE, f"{QUEUE} of {review.pk}", user.pk, printing=str(printing.pk))
    if settings.JOBS_AT_ONCE:
        carry_out(printing)
    return printing


MOST_DRAFTS = 20
"""Drafts that one person has printed within an hour; each takes seconds of a processor, and is stored for hours."""
AN_HOUR = timedelta(hours=1)


def _require_turn(user: User) -> None:
    """Raise Throttled where somebody requested too many drafts lately."""
    drafts = Printing.objects.filter(asked_by=user, issues=False, asked_at__gt=timezone.now() - AN_HOUR)
    if drafts.count() >= MOST_DRAFTS:
        raise Throttled(600, f"you requested {MOST_DRAFTS} drafts within an hour, the maximum; try again later")


def carry_out(printing: Printing) -> None:
    """Print a report and, where it was signed, issue it; refused where the review is another by then."""
    printing.attempts += 1
    if printing.attempts > MOST_ATTEMPTS:
        _end(printing, "printing the report stopped its worker three times", "Contact the operator.")
        return
    printing.status = Status.PRINTING
    printing.save(update_fields=["status", "attempts"])
    try:
        data = _made(printing)
        if printing.issues and not printing.with_certificate:
            printing.report = _issue(printing, data)
        else:
            printing.pdf = data
    except Conflict as conflict:
        _end(printing, str(conflict.detail), conflict.errors[0]["remedy"])
        return
    except Exception:
        _end(printing, "the report cannot be printed", "Try again. If it fails again, contact the operator.")
        raise
    printing.status = Status.TO_SIGN if printing.with_certificate else Status.DONE
    printing.share = 1.0
    printing.save()


def _made(printing: Printing) -> bytes:
    """The report or letter of a printing in its format; its share of the work is stored on the way."""
    review = printing.review

    def progress(share: float) -> None:
        Printing.objects.filter(pk=printing.pk).update(share=0.9 * share)

    if printing.format == Printing.Format.XLSX:
        return sheets.report(review, progress)
    letter = printing.kind == Printing.Kind.LETTER
    if printing.format == Printing.Format.DOCX:
        return word.letter(review, progress) if letter else word.report(review, progress)
    if letter:
        return services.printed(services.letter(review, progress))
    return services.printed(services.page(review, progress=progress, signers=_signers(printing)))


def _signers(printing: Printing) -> list[dict[str, Any]]:
    """The signed-by lines of a report that is issued."""
    if not printing.issues:
        return []
    user = printing.asked_by
    return [{"words": "Signed by", "name": user.name, "firm": user.firm, "at": printing.asked_at}]


def sign(printing: Printing, certificate: bytes, passphrase: str) -> Report:
    """Issue a report that was set for a certificate, signed with it.

    Raises Conflict where the review is another by now, UnprocessableContent where the certificate cannot sign.
    """
    if printing.status != Status.TO_SIGN or printing.pdf is None:
        raise Conflict("the report does not wait for a certificate", "Sign it again from its preview.")
    signer, subject = certificates.read(certificate, passphrase)
    data = certificates.signed(bytes(printing.pdf), signer, "Signature", printing.asked_by.name, subject)
    with transaction.atomic():
        stored = Printing.objects.select_for_update().get(pk=printing.pk)
        if stored.status != Status.TO_SIGN:
            raise Conflict("the report was signed already", "Load the page again.")
        stored.report = _issue(stored, data, subject)
        stored.status, stored.pdf = Status.DONE, None
        stored.save()
    return stored.report


def countersign(report: Report, user: User, certificate: bytes | None, passphrase: str) -> Report:
    """Give the second signature of a report that requires two, with a certificate or without one.

    Raises Conflict where it requires none, has it already, or the same person would give both.
    """
    if not report.two_signatures:
        raise Conflict(f"report {report.number} requires one signature", "Nothing needs to be done.")
    if report.issued_by_id == user.pk:
        raise Conflict(
            "you signed this report; the second signature is somebody else's", "Ask a colleague of the team."
        )
    data, subject, digest = None, "", ""
    if certificate is not None:
        signer, subject = certificates.read(certificate, passphrase)
        data = certificates.signed(report.as_signed(), signer, "Countersignature", user.name, subject)
        digest = hashlib.sha256(data).hexdigest()
    with transaction.atomic():
        review = report.review.locked()
        if hasattr(Report.objects.get(pk=report.pk), "countersignature"):
            raise Conflict(f"report {report.number} is countersigned already", "Nothing needs to be done.")
        Countersignature.objects.create(report=report, by=user, certificate=subject, pdf=data, sha256=digest)
        review.record(user, "report countersigned", report=report.number, certificate=subject)
    return Report.objects.get(pk=report.pk)


def _end(printing: Printing, message: str, remedy: str) -> None:
    printing.status, printing.message, printing.remedy = Status.REFUSED, message[:300], remedy[:300]
    printing.save()


def _issue(printing: Printing, data: bytes, certificate: str = "") -> Report:
    """Keep the report as it was signed, for readers to open."""
    basis = basis_of(printing.review)
    with transaction.atomic():
        review = printing.review.locked()
        # nothing of a review changes while its row is locked
        if basis != printing.basis or basis_of(review) != printing.basis:
            raise Conflict(
                "the review was changed after the report was signed", "Check the report again, then sign it again."
            )
        digest = hashlib.sha256(data).hexdigest()
        recheck = run_recheck(review, review.submissions.latest_with_values())
        report = Report.objects.create(
            review=review,
            number=review.reports.next_number(),
            pdf=data,
            sha256=digest,
            input_hash=recheck.input_hash,
            issued_by=printing.asked_by,
            certificate=certificate,
            two_signatures=ReportPlan.objects.filter(review=review, two_signatures=True).exists(),
        )
        review.record(printing.asked_by, "report issued", report=report.number, sha256=digest, certificate=certificate)
    return report
