"""What others did while somebody was editing."""

from __future__ import annotations

from typing import Any

from plumb_server.reviews.models import Review

LISTED_CHANGES = 10
"""Entries of the audit trail that are stated."""
REMEDY = "The current state is shown; your input is preserved."


def changes_since(review: Review, what: str, **of: Any) -> list[dict[str, Any]]:
    """Who did what to a thing of a review meanwhile, by the audit trail, as the errors of a refusal.

    what : the thing's name in a message.  of : states the entries about it since it was read.
    """
    reported = [
        {"path": "/", "message": f"{entry.actor} {_did(entry.action, entry.detail)} in the meantime", "remedy": REMEDY}
        for entry in reversed(review.audit.filter(**of).select_related("actor")[:LISTED_CHANGES])
    ]
    return reported or [{"path": "/", "message": f"{what} was changed in the meantime", "remedy": REMEDY}]


def _did(action: str, detail: dict[str, Any]) -> str:
    thing, *deed = action.split(" ")
    if fields := detail.get("fields"):
        return f"changed its {' and '.join(fields)}"
    if deed == ["changed"]:
        return f"changed the {thing}"
    return f"undid a change of the {thing}" if deed[-1:] == ["undone"] else f"made the {thing} {' '.join(deed)}"
