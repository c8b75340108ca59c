"""The calendar of due dates, as a feed that calendars subscribe to (RFC 5545)."""

from __future__ import annotations

from datetime import timedelta

from django.conf import settings
from django.db.models import Q

from plumb_server.accounts.models import User
from plumb_server.findings.models import Finding
from plumb_server.reviews.access import TEAM
from plumb_server.reviews.models import Review

MOST_EVENTS = 2_000


def feed(user: User) -> bytes:
    """The due dates of somebody's open findings: of all in the reviews whose team they are on, else of their own."""
    # imported where a feed is made: every process would start later by it
    from icalendar import Calendar, Event

    calendar = Calendar()
    calendar.add("prodid", "-//Vigilant Plumb//due dates//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", "Vigilant Plumb: due dates")
    visible = Q(review__team__user=user, review__team__role__in=TEAM) | Q(
        assignee=user, review__team__user=user, status__in=Finding.VISIBLE_OUTSIDE
    )
    findings = (
        Finding.objects.filter(visible, due__isnull=False, review__status=Review.Status.OPEN)
        .exclude(status__in=Finding.CLOSED)
        .select_related("review", "assignee")
        .distinct()
        .order_by("due", "pk")[:MOST_EVENTS]
    )
    for finding in findings:
        assert finding.due is not None
        event = Event()
        event.add("uid", f"finding-{finding.pk}@vigilant-plumb")
        event.add("dtstamp", finding.changed_at)
        event.add("dtstart", finding.due)
        event.add("dtend", finding.due + timedelta(days=1))
        event.add("summary", f"{finding.review.title}: finding {finding.number} is due")
        who = f", {finding.assignee.name}" if finding.assignee else ""
        event.add("description", f"{finding.title}\n{finding.status}{who}")
        event.add("url", f"{settings.ADDRESS}/reviews/{finding.review_id}/findings?finding={finding.number}")
        event.add("transp", "TRANSPARENT")
        calendar.add_component(event)
    return bytes(calendar.to_ical())
