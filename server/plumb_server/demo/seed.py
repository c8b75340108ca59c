"""The demo: people, two reviews and their submissions, accepted from real files the way a reviewer does."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from plumb_server.accounts.models import User
from plumb_server.demo.buildings import (
    CLINIC,
    CLINIC_BRIEF,
    EXCHANGE,
    EXCHANGE_BRIEF,
    GRANARY,
    GRANARY_BRIEF,
    LIBRARY,
    LIBRARY_BRIEF,
)
from plumb_server.demo.clinic_model import clinic_model
from plumb_server.demo.people import LEAD, OF_OFFICE, OFFICE, PASSWORD, PEOPLE, READER, REVIEWER, SUBMITTER
from plumb_server.demo.submissions import FILES
from plumb_server.findings.services import change_finding, file_finding, write_message
from plumb_server.rechecks.services import run_recheck
from plumb_server.reference import services as services_of_model
from plumb_server.reference.models import current_model
from plumb_server.reviews.access import access
from plumb_server.reviews.models import Membership, Review, Role
from plumb_server.reviews.services import create_review
from plumb_server.submissions import services
from plumb_server.submissions.models import ExhibitReading
from plumb_server.submissions.readings import carry_out

TEAM = {LEAD: Role.LEAD, REVIEWER: Role.REVIEWER, SUBMITTER: Role.SUBMITTER, READER: Role.READER}


def seed() -> None:
    """Make whatever of the demo is not there yet."""
    people = {email: _person(email) for email in PEOPLE}
    if not User.objects.filter(of_office=True, is_staff=False).exists():
        # a demo of before belonging to the office was granted
        User.objects.filter(email__in=OF_OFFICE).update(of_office=True)
    if not Review.objects.filter(title=GRANARY).exists():
        _review(
            people,
            GRANARY,
            GRANARY_BRIEF,
            "granary-",
            place="Aldermouth, Hesper Isles",
            client="Aldermouth Harbour Trust",
            description="Granary made into lofts, five stories of reinforced concrete: walls in X, moment "
            "frames in Y, storage on "
            "two floors.",
        )
    if not Review.objects.filter(title=EXCHANGE).exists():
        _review(
            people,
            EXCHANGE,
            EXCHANGE_BRIEF,
            "exchange-",
            place="Quillon, Hesper Isles",
            client="Quillon Exchange Holding",
            description="Offices and trading floor, 14 stories of steel: a braced core in X, moment frames in Y.",
        )
    # the clinic last, so that it stands first in the list of reviews
    if not Review.objects.filter(title=LIBRARY).exists():
        _review(
            people,
            LIBRARY,
            LIBRARY_BRIEF,
            "library-",
            place="Sable Quay, Hesper Isles",
            client="Sable Quay Town Council",
            description="Public library, four stories, steel moment frames both ways. First submission.",
        )
    if not Review.objects.filter(title=CLINIC).exists():
        review = _review(
            people,
            CLINIC,
            CLINIC_BRIEF,
            "clinic-",
            place="Port Maren, Hesper Isles",
            client="Port Maren Building Office",
            description="Clinic, eight stories, reinforced concrete: walls in X, moment frames in Y.",
        )
        services_of_model.save_model(review, people[REVIEWER], clinic_model(), 0)
        _first_finding(review, people)
    # an installation whose clinic is older than the model gets it too
    # (somebody may have imported another under the same title: the demo's own is the first that its lead leads)
    clinic = Review.objects.filter(title=CLINIC, team__user=people[LEAD], team__role=Role.LEAD).last()
    if clinic is not None and current_model(clinic) is None and clinic.status == Review.Status.OPEN:
        services_of_model.save_model(clinic, people[REVIEWER], clinic_model(), 0)


def _person(email: str) -> User:
    name, firm = PEOPLE[email]
    known = User.objects.filter(email=email).first()
    office = {"is_staff": email == OFFICE, "of_office": email in OF_OFFICE}
    return known or User.objects.create_user(email, PASSWORD, name=name, firm=firm, **office)


def _review(people: dict[str, User], title: str, brief: dict[str, Any], prefix: str, **about: str) -> Review:
    review = create_review(people[LEAD], brief=brief, title=title, **about)
    for email, role in TEAM.items():
        Membership.objects.get_or_create(review=review, user=people[email], defaults={"role": role})
    accepted_submission(review, people, f"{prefix}S0-")
    return review


def accepted_submission(review: Review, people: dict[str, User], prefix: str) -> None:
    """Submit and accept the files whose names begin so."""
    submission = services.open_submission(review, people[SUBMITTER])
    for path in sorted(FILES.glob(f"{prefix}*"), key=_turn):
        exhibit = services.add_exhibit(submission, people[SUBMITTER], name=path.name, data=path.read_bytes())
        carry_out(ExhibitReading.objects.get_or_create(exhibit=exhibit)[0], apart=False)
        services.accept_table(exhibit, people[REVIEWER], services.sheets_of(exhibit)[0], "", None)
    services.accept_submission(submission, people[LEAD])


def _turn(path: Path) -> tuple[int, str]:
    """The table of stories first, then that of cases: others name them."""
    return {"stories": 0, "cases": 1}.get(path.stem.split("-", 2)[2], 2), path.name


def _first_finding(review: Review, people: dict[str, User]) -> None:
    result = run_recheck(review, review.submissions.latest_with_values()).sheet
    check = next(c for c in result["checks"] if c["id"] == "F_v")
    finding = file_finding(
        review,
        people[REVIEWER],
        checks=[check["id"], "S_D1"],
        submission=review.submissions.latest_with_values(),
        severity="must",
        title="Site coefficient F_v is not that of the governing edition",
        clause=check["clause"],
        text=check["draft"],
    )
    change_finding(finding, access(people[LEAD], review.pk), {"status": "issued"}, finding.revision)
    write_message(
        finding,
        access(people[SUBMITTER], review.pk, tuple(Role)),
        "We used the office's table. We will check which edition it was made for.",
    )
