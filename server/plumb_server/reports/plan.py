"""What a report holds: its sections in their order, and the office's letterhead."""

from __future__ import annotations

import base64
from collections.abc import Sequence
from typing import Any

from plumb_server.reports.models import Letterhead, ReportPlan
from plumb_server.reviews.models import Review

SECTIONS: dict[str, str] = {
    "scope": "Scope and basis",
    "definitions": "Definitions",
    "register": "Register of findings",
    "pictures": "Pictures",
    "evidence": "Evidence",
    "history": "Findings by submission",
    "results": "Results by stage",
    "causes": "Causes of the deviations",
    "sensitivity": "What the verdicts rest on",
    "requirements": "What {edition} requires a submission to show",
    "editions": "Editions side by side",
    "assumptions": "Assumptions",
    "unchecked": "What was not checked",
}
"""Sections with their titles, in the order in which a report has them unless another one is chosen."""


def sections_of(review: Review) -> list[str]:
    """The sections of a review's report, in its order."""
    plan = ReportPlan.objects.filter(review=review).first()
    return [s for s in plan.sections if s in SECTIONS] if plan and plan.sections else list(SECTIONS)


def shown(sections: Sequence[str], edition: str) -> list[dict[str, str]]:
    """Sections as the templates have them."""
    return [
        {"id": s, "title": SECTIONS[s].format(edition=edition), "template": f"reports/sections/{s}.html"}
        for s in sections
    ]


def letterhead() -> dict[str, Any]:
    """The office's letterhead for print."""
    stored = Letterhead.current()
    logo = ""
    if stored.logo:
        logo = f"data:{stored.logo_type};base64,{base64.b64encode(bytes(stored.logo)).decode()}"
    return {"name": stored.name, "lines": stored.lines.splitlines(), "footer": stored.footer, "logo": logo}
