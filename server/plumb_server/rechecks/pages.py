"""What of a large sheet is sent first, and the pages of the others.

A reviewer sees some fifty lines at a time, what is out of plumb first: the ten thousands that agree follow
while those are read.
"""

from __future__ import annotations

from collections.abc import Iterable

from plumb_core.documents import results

IN_SIGHT = 2_000
"""Checks that are sent with a sheet."""
PER_PAGE = 5_000
"""Checks of a page that is sent apart."""


def in_pages(sheet: results.RecheckSheet, recheck: str) -> tuple[results.RecheckSheet, list[results.CheckPage]]:
    """A sheet with the checks that are seen first, and the others in pages; a small sheet as it is, without pages.

    First come origins, then what else is out of plumb, then questions, then the rest, each as they are ordered.

    Parameters
    ----------
    recheck
        Name of the recheck, by which the pages are requested.
    """
    checks = sheet["checks"]
    if len(checks) <= IN_SIGHT:
        return sheet, []
    # sorted() keeps the order of equals
    ordered = sorted(range(len(checks)), key=lambda place: _urgency(checks[place]))
    first, others = sorted(ordered[:IN_SIGHT]), sorted(ordered[IN_SIGHT:])
    pages: list[results.CheckPage] = [
        {"places": part, "checks": [checks[place] for place in part]}
        for part in (others[start : start + PER_PAGE] for start in range(0, len(others), PER_PAGE))
    ]
    apart: results.ChecksApart = {
        "recheck": recheck,
        "places": first,
        "checks": len(checks),
        "inherited": sum(check["role"] == "inherited" for check in checks),
        "pages": len(pages),
    }
    return {**sheet, "checks": [checks[place] for place in first], "apart": apart}, pages


def whole(sheet: results.RecheckSheet, pages: Iterable[results.CheckPage]) -> results.RecheckSheet:
    """A sheet with all its checks again, in their order."""
    if "apart" not in sheet:
        return sheet
    placed = dict(zip(sheet["apart"]["places"], sheet["checks"], strict=True))
    for page in pages:
        placed.update(zip(page["places"], page["checks"], strict=True))
    retained = {part: content for part, content in sheet.items() if part != "apart"}
    return {**retained, "checks": [placed[place] for place in sorted(placed)]}  # type: ignore[typeddict-item]


def _urgency(check: results.CheckResult) -> int:
    if check["role"] == "origin":
        return 0
    if check["verdict"] in ("differs", "breaches"):
        return 1
    return 2 if check["verdict"] in ("question", "gap", "open") else 3
