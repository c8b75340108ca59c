"""The desk: a person's reviews, each with its state, who acts next, and what happened since the last visit."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping
from datetime import date, datetime
from typing import Any

from django.db.models import Max, Q
from django.utils import timezone

from plumb_server.accounts.models import User
from plumb_server.desk.models import Visit
from plumb_server.findings.models import Finding, Message
from plumb_server.rechecks.models import Recheck
from plumb_server.reviews.access import TEAM
from plumb_server.reviews.models import AuditEntry, Review, Role
from plumb_server.reviews.views import listed
from plumb_server.submissions.models import Submission

MOST_NEWS = 300
"""Entries of the audit trails that are read for one answer."""
NEWS_SHOWN = 3

WORDS: Mapping[str, str] = {
    "finding issued": "issued finding {finding}",
    "finding settled": "closed finding {finding}",
    "finding filed": "filed finding {finding}",
    "message written": "wrote in finding {finding}",
    "exhibit added": "submitted {name}",
    "submission accepted": "accepted a submission",
    "report issued": "issued report {report}",
    "response matrix imported": "imported {answers} answers",
    "brief changed": "changed the brief",
}
"""What the desk says of entries; others are counted only."""


def rows(user: User, words: str, *, archived: bool) -> list[dict[str, Any]]:
    """The reviews of a person, those that wait for them first, then by how long they wait, then the newest."""
    visits = {v.review_id: v for v in Visit.objects.filter(user=user)}
    away = {pk for pk, v in visits.items() if v.archived}
    reviews = [r for r in listed(user, words) if (r.pk in away) == archived]
    known = _Known(reviews, user, visits)
    made = [known.row(review) for review in reviews]
    turn = {"you": 0, "team": 1, "submitter": 2, "": 3}
    return sorted(
        made, key=lambda r: (r["status"] != "open", turn[r["next"]], -r["days"], -r["created_at"].timestamp())
    )


class _Known:
    """What the rows of some reviews are made of, each kind read at once."""

    def __init__(self, reviews: Iterable[Review], user: User, visits: Mapping[Any, Visit]):
        self.user, self.visits = user, visits
        keys = [r.pk for r in reviews]
        team = [r.pk for r in reviews if getattr(r, "role", "") in TEAM]
        self.findings: dict[Any, list[Finding]] = defaultdict(list)
        waiting = Finding.objects.filter(review__in=keys).exclude(status__in=Finding.CLOSED)
        for finding in waiting.defer("evidence", "text"):
            self.findings[finding.review_id].append(finding)
        self.answered = dict(
            Message.objects.filter(finding__review__in=keys, finding__status=Finding.Status.ANSWERED)
            .values_list("finding__review")
            .annotate(last=Max("at"))
        )
        self.submissions: dict[Any, Submission] = {}
        for submission in Submission.objects.filter(review__in=keys).order_by("review_id", "-number"):
            self.submissions.setdefault(submission.review_id, submission)
        self.summaries = dict(
            Recheck.objects.filter(review__in=team)
            .order_by("review_id", "-submission__number", "-at")
            .distinct("review_id")
            .values_list("review_id", "summary")
        )
        self.news: dict[Any, list[AuditEntry]] = defaultdict(list)
        unseen = Q()
        for key in team:
            if key in visits and visits[key].at is not None:
                unseen |= Q(review=key, pk__gt=visits[key].entry)
        if unseen:
            for entry in AuditEntry.objects.filter(unseen).exclude(actor=user).select_related("actor")[:MOST_NEWS]:
                self.news[entry.review_id].append(entry)

    def row(self, review: Review) -> dict[str, Any]:
        """A review as the desk shows it."""
        role = str(review.role)  # type: ignore[attr-defined]  # annotated by the list
        on_team = role in TEAM
        seen = [f for f in self.findings[review.pk] if on_team or f.status in Finding.VISIBLE_OUTSIDE]
        number = review.submission_number  # type: ignore[attr-defined]
        actor, since = self._next(review)
        news = self.news[review.pk]
        mine = actor == ("submitter" if role == Role.SUBMITTER else "team" if on_team else "-")
        due = min((f.due for f in seen if f.due), default=None)
        return {
            "id": str(review.pk),
            "title": review.title,
            "place": review.place,
            "client": review.client,
            "status": review.status,
            "role": role,
            "edition": review.edition,  # type: ignore[attr-defined]
            "submission": None if number is None else f"S{number}",
            "created_at": review.created_at,
            "next": "" if review.status == Review.Status.CLOSED else "you" if mine else actor,
            "days": 0 if review.status == Review.Status.CLOSED else days_between(since, timezone.now()),
            "due": due,
            "overdue": due is not None and due < date.today(),
            "findings": dict(Counter(f.severity for f in seen)),
            "mine": sum(f.assignee_id == self.user.pk for f in seen),
            "plumb": (self.summaries.get(review.pk) or {}).get("marks") if on_team else None,
            "news": len(news),
            "latest": [_said(e) for e in news[:NEWS_SHOWN] if e.action in WORDS],
            "archived": bool(review.pk in self.visits and self.visits[review.pk].archived),
        }

    def _next(self, review: Review) -> tuple[str, datetime]:
        """Whose turn it is, and since when."""
        submission = self.submissions.get(review.pk)
        if submission is None:
            return "submitter", review.created_at
        states = {f.status for f in self.findings[review.pk]}
        if submission.status == Submission.Status.DRAFT:
            return "team", submission.created_at
        if Finding.Status.ANSWERED in states:
            return "team", self.answered.get(review.pk) or submission.accepted_at or submission.created_at
        if Finding.Status.ISSUED in states:
            issued = [f.issued_at for f in self.findings[review.pk] if f.issued_at]
            return "submitter", max(issued, default=submission.created_at)
        return "team", submission.accepted_at or submission.created_at


def days_between(since: datetime, now: datetime) -> int:
    """Whole days between two moments, none before the first."""
    return max(0, (now - since).days)


def _said(entry: AuditEntry) -> str:
    words = WORDS[entry.action]
    detail = defaultdict(str, {k: str(v) for k, v in entry.detail.items()})
    return f"{entry.actor.name} {words.format_map(detail)}"
